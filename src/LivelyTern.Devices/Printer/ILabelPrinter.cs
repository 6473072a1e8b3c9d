namespace LivelyTern.Devices.Printer;

/// <summary>How a label printer stands.</summary>
public enum PrinterStands
{
    /// <summary>It prints.</summary>
    Ready,

    /// <summary>Its tape is used up.</summary>
    NoTape,

    /// <summary>It does not answer.</summary>
    Lost,
}

/// <summary>A label printer, as it says it is.</summary>
/// <param name="Stands">How it stands.</param>
/// <param name="TapeWidthMm">How wide its tape is, in millimetres; a label is printed along it.</param>
/// <param name="TapeLeftMm">How much of it is left, in millimetres.</param>
public sealed record PrinterState(PrinterStands Stands, double TapeWidthMm, double TapeLeftMm)
{
    /// <summary>One that does not answer.</summary>
    public static PrinterState Lost { get; } = new(PrinterStands.Lost, 0, 0);
}

/// <summary>A label as a printer takes it.</summary>
/// <param name="Png">Its picture, in greys.</param>
/// <param name="WidthMm">How wide it is; across the tape.</param>
/// <param name="HeightMm">How high; along the tape.</param>
public sealed record PrintedLabel(byte[] Png, double WidthMm, double HeightMm);

/// <summary>What a printer said of a label.</summary>
public enum PrintSays
{
    /// <summary>It is printed.</summary>
    Printed,

    /// <summary>The tape is used up: it is not.</summary>
    NoTape,

    /// <summary>It is wider than the tape: it is not.</summary>
    TooWide,

    /// <summary>No answer: nobody knows.</summary>
    Lost,
}

/// <summary>A label printer, wherever it is.</summary>
public interface ILabelPrinter
{
    /// <summary>How it stands.</summary>
    Task<PrinterState> StateAsync(CancellationToken stop = default);

    /// <summary>Prints one label.</summary>
    Task<PrintSays> PrintAsync(PrintedLabel label, CancellationToken stop = default);
}
