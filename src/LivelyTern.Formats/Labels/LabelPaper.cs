namespace LivelyTern.Formats.Labels;

/// <summary>
/// What labels are printed on: a sheet of several, or a strip that holds one. All lengths in millimetres. The sizes are those sheets of
/// labels are commonly sold in: common practice, no published source.
/// </summary>
/// <param name="Code">How a script names it.</param>
/// <param name="Name">How a cook does.</param>
/// <param name="Page">The page.</param>
/// <param name="Label">One label.</param>
/// <param name="Columns">How many beside each other.</param>
/// <param name="Rows">How many below each other.</param>
/// <param name="First">Where the first one's top left corner is.</param>
/// <param name="Pitch">From one label's corner to the next one's.</param>
public sealed record LabelPaper(string Code, string Name, Size Page, Size Label, int Columns, int Rows, Place First, Size Pitch)
{
    /// <summary>How many labels a page holds.</summary>
    public int PerPage => Columns * Rows;

    /// <summary>Whether it is a strip, one label after the other.</summary>
    public bool IsStrip => PerPage == 1;

    /// <summary>All there are.</summary>
    public static IReadOnlyList<LabelPaper> All { get; } =
    [
        Sheet("a4-2x7", "A4, 14 labels of 99 × 38 mm", A4, new(99.1, 38.1), 2, 7, new(4.65, 15.15), new(101.6, 38.1)),
        Sheet("a4-3x7", "A4, 21 labels of 64 × 38 mm", A4, new(63.5, 38.1), 3, 7, new(7.25, 15.15), new(66, 38.1)),
        Sheet("a4-3x8", "A4, 24 labels of 70 × 37 mm", A4, new(70, 37), 3, 8, new(0, 0.5), new(70, 37)),
        Sheet("a4-2x4", "A4, 8 labels of 99 × 68 mm", A4, new(99.1, 67.7), 2, 4, new(4.65, 13.1), new(101.6, 67.7)),
        Sheet("letter-2x5", "Letter, 10 labels of 4 × 2 in", Letter, new(101.6, 50.8), 2, 5, new(4.1, 12.7), new(106.1, 50.8)),
        Sheet("letter-3x10", "Letter, 30 labels of 2 5/8 × 1 in", Letter, new(66.7, 25.4), 3, 10, new(4.8, 12.7), new(69.8, 25.4)),
        Strip("strip-62x29", "Strips of 62 × 29 mm", new(62, 29)),
        Strip("strip-89x36", "Strips of 89 × 36 mm", new(89, 36)),
        Strip("strip-100x50", "Strips of 100 × 50 mm", new(100, 50)),
    ];

    /// <summary>The one of a code, or null.</summary>
    public static LabelPaper? Find(string code) => All.FirstOrDefault(paper => string.Equals(paper.Code, code, StringComparison.Ordinal));

    /// <summary>Where on its page a label lies, counted from 0 row by row.</summary>
    public Place PlaceOf(int at) => new(First.X + (Pitch.Width * (at % Columns)), First.Y + (Pitch.Height * (at / Columns)));

    private static Size A4 => new(210, 297);

    private static Size Letter => new(215.9, 279.4);

    private static LabelPaper Sheet(
        string code, string name, Size page, Size label, int columns, int rows, Place first, Size pitch) =>
        new(code, name, page, label, columns, rows, first, pitch);

    private static LabelPaper Strip(string code, string name, Size label) => new(code, name, label, label, 1, 1, new(0, 0), label);
}

/// <summary>Width and height, in millimetres.</summary>
public readonly record struct Size(double Width, double Height);

/// <summary>Millimetres from the left and from the top.</summary>
public readonly record struct Place(double X, double Y);
