namespace LivelyTern.Devices.Printer;

/// <summary>A label in the tray of the simulated printer.</summary>
/// <param name="Id">Its number, from 1.</param>
/// <param name="At">When it came out.</param>
/// <param name="Label">The label.</param>
public sealed record LabelInTray(int Id, DateTimeOffset At, PrintedLabel Label);

/// <summary>A label printer that is not there: a roll of tape that gets shorter, and a tray with what was printed.</summary>
public sealed class SimulatedPrinter
{
    /// <summary>How long a new roll is, in millimetres.</summary>
    public const double RollMm = 5000;

    private const double FirstWidthMm = 62, CutMm = 3;
    private const int MostInTray = 200;
    private readonly List<LabelInTray> tray = [];
    private int printed;

    /// <summary>How it stands.</summary>
    public PrinterState State { get; private set; } = new(PrinterStands.Ready, FirstWidthMm, RollMm);

    /// <summary>What lies in its tray, the newest first.</summary>
    public IReadOnlyList<LabelInTray> Tray => [.. tray.AsEnumerable().Reverse()];

    /// <summary>Puts a new roll in.</summary>
    /// <param name="widthMm">How wide.</param>
    /// <param name="lengthMm">How long.</param>
    public void Load(double widthMm, double lengthMm = RollMm) => State = new(PrinterStands.Ready, widthMm, lengthMm);

    /// <summary>Takes everything out of the tray.</summary>
    public void Empty() => tray.Clear();

    /// <summary>Prints a label.</summary>
    public PrintSays Print(PrintedLabel label, DateTimeOffset at)
    {
        ArgumentNullException.ThrowIfNull(label);
        if (label.WidthMm > State.TapeWidthMm) return PrintSays.TooWide;
        if (State.TapeLeftMm < label.HeightMm + CutMm)
        {
            State = State with { Stands = PrinterStands.NoTape };
            return PrintSays.NoTape;
        }

        State = State with { TapeLeftMm = State.TapeLeftMm - label.HeightMm - CutMm };
        tray.Add(new(++printed, at, label));
        if (tray.Count > MostInTray) tray.RemoveAt(0);
        return PrintSays.Printed;
    }
}
