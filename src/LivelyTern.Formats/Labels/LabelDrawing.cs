namespace LivelyTern.Formats.Labels;

/// <summary>A line of text on a label. Lengths in millimetres from the label's top left corner.</summary>
/// <param name="Text">What it says.</param>
/// <param name="At">Where its baseline begins.</param>
/// <param name="Size">The size of its face.</param>
/// <param name="IsBold">Whether it is bold.</param>
/// <param name="Width">How wide it is.</param>
public sealed record DrawnText(string Text, Place At, double Size, bool IsBold, double Width);

/// <summary>A shape on a label.</summary>
/// <param name="Path">Its outline, in the language of SVG's path data, in millimetres.</param>
/// <param name="Colour">Its colour, "#14213a".</param>
/// <param name="Stroke">How thick its line is; 0 where it is filled.</param>
public sealed record DrawnShape(string Path, string Colour, double Stroke = 0);

/// <summary>A label, drawn: the same for the screen, the printer, a PDF and an SVG file.</summary>
/// <param name="Size">Its size.</param>
/// <param name="Shapes">What lies below its words.</param>
/// <param name="Texts">Its words.</param>
/// <param name="Says">All of it in words, for whoever can't see it.</param>
public sealed record LabelDrawing(Size Size, IReadOnlyList<DrawnShape> Shapes, IReadOnlyList<DrawnText> Texts, string Says);
