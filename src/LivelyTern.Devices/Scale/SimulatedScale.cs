namespace LivelyTern.Devices.Scale;

/// <summary>
/// A kitchen scale that is not there: 1 g steps, readings that move until they settle, a slow drift, overload, tare, and it turns itself
/// off. It moves only as it is told how much time went by.
/// </summary>
/// <param name="chance">Numbers from 0 to 1, for the trembling of the reading.</param>
public sealed class SimulatedScale(Func<double> chance)
{
    /// <summary>The heaviest load it weighs, in grams.</summary>
    public const double MostGrams = 5000;

    // Seconds: how fast a reading follows, how long it must rest, how long a stirring trembles, until it turns off, a gram of drift.
    private const double Follows = 0.22, Rests = 0.6, Trembles = 2, TurnsOff = 180, DriftSeconds = 240;

    private const double MostDrift = 3, TrembleGrams = 14, NearGrams = 0.6;
    private double load, shown, zero, drift, rested, stirred, idle;
    private bool isOff;

    /// <summary>What its display shows: "g" or "oz".</summary>
    public string Unit { get; private set; } = "g";

    /// <summary>Puts something on it; grams, below zero for something taken off. It never lifts off.</summary>
    public void Put(double grams)
    {
        load = Math.Max(0, load + grams);
        Touched();
    }

    /// <summary>Takes everything off.</summary>
    public void Clear()
    {
        load = 0;
        Touched();
    }

    /// <summary>Stirs in the bowl on it: the reading trembles for a moment.</summary>
    public void Stir()
    {
        stirred = Trembles;
        Touched();
    }

    /// <summary>What is on it now weighs nothing: the drift so far is gone with it.</summary>
    public void Tare()
    {
        if (isOff || load > MostGrams) return;
        (zero, drift, shown) = (load, 0, load);
        Touched();
    }

    /// <summary>Shows grams or ounces.</summary>
    public void Show(string unit)
    {
        if (unit is "g" or "oz") Unit = unit;
        idle = 0;
    }

    /// <summary>Turns it on, with what is on it as nothing.</summary>
    public void TurnOn()
    {
        if (!isOff) return;
        isOff = false;
        Tare();
    }

    /// <summary>Lets time go by.</summary>
    /// <param name="seconds">How much, 0 or more.</param>
    public void Advance(double seconds)
    {
        idle += seconds;
        if (idle >= TurnsOff) isOff = true;
        if (isOff) return;
        stirred = Math.Max(0, stirred - seconds);
        drift = Math.Min(MostDrift, drift + (seconds / DriftSeconds));
        shown += (load - shown) * (1 - Math.Exp(-seconds / Follows));
        rested = IsMoving ? 0 : rested + seconds;
    }

    /// <summary>What it shows now.</summary>
    /// <param name="at">The moment.</param>
    public ScaleReading Read(DateTimeOffset at)
    {
        if (isOff) return new(at, null, ScaleState.Off, Unit);
        if (load > MostGrams) return new(at, null, ScaleState.Overload, Unit);
        var tremble = stirred > 0 ? ((chance() * 2) - 1) * TrembleGrams : 0;
        var grams = Math.Round(shown - zero + drift + tremble, MidpointRounding.AwayFromZero);
        return new(at, (decimal)grams, rested >= Rests ? ScaleState.Stable : ScaleState.Settling, Unit);
    }

    private bool IsMoving => stirred > 0 || Math.Abs(load - shown) > NearGrams;

    private void Touched() => (idle, rested) = (0, 0);
}
