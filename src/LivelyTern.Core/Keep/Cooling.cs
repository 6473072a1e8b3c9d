using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Keep;

/// <summary>A temperature of something that cools.</summary>
/// <param name="Minute">Minutes from the first reading.</param>
/// <param name="Celsius">Its temperature, in °C.</param>
public readonly record struct CoolingReading(double Minute, double Celsius);

/// <summary>
/// Something that cools in still surroundings, by Newton's law: T(t) = Ta + (T0 - Ta) e^(-kt). Between readings it follows the law from
/// one to the next; after the last it goes on from there, at the rate that fits all readings best. From 90 °C to 60 °C in half an hour at
/// 20 °C in the room k is ln(70 / 40) / 30 = 0.01865 a minute: 25 °C is reached after 141.5 minutes, 15 °C never.
/// </summary>
public sealed class Cooling
{
    /// <summary>The most readings of one course.</summary>
    public const int MostReadings = 2000;

    private const double Coldest = -40, Hottest = 200;

    private Cooling(double ambient, IReadOnlyList<CoolingReading> readings, double ratePerMinute) =>
        (Ambient, Readings, RatePerMinute) = (ambient, readings, ratePerMinute);

    /// <summary>The temperature around it, in °C.</summary>
    public double Ambient { get; }

    /// <summary>The readings, in order of time.</summary>
    public IReadOnlyList<CoolingReading> Readings { get; }

    /// <summary>k, per minute; 0 or less where it does not cool.</summary>
    public double RatePerMinute { get; }

    /// <summary>By what was measured.</summary>
    /// <param name="ambient">The temperature around it, in °C.</param>
    /// <param name="readings">At least two, at different minutes.</param>
    public static Outcome<Cooling> Of(double ambient, IReadOnlyList<CoolingReading> readings)
    {
        ArgumentNullException.ThrowIfNull(readings);
        if (Wrong(ambient, readings) is { } wrong) return wrong;
        var inOrder = readings.OrderBy(reading => reading.Minute).ToList();
        if (inOrder.Count < 2 || inOrder[0].Minute >= inOrder[^1].Minute)
            return new Problem("readings-few", "readings", "Take its temperature twice, some minutes apart.");
        return new Cooling(ambient, FromZero(inOrder), Fitted(ambient, inOrder));
    }

    /// <summary>By what was measured, and a rate that is known or estimated (<see cref="CoolingBox"/>).</summary>
    /// <param name="ambient">The temperature around it, in °C.</param>
    /// <param name="readings">At least one.</param>
    /// <param name="ratePerMinute">k, per minute.</param>
    public static Outcome<Cooling> With(double ambient, IReadOnlyList<CoolingReading> readings, double ratePerMinute)
    {
        ArgumentNullException.ThrowIfNull(readings);
        if (Wrong(ambient, readings) is { } wrong) return wrong;
        return new Cooling(ambient, FromZero([.. readings.OrderBy(reading => reading.Minute)]), ratePerMinute);
    }

    /// <summary>When it is down to a temperature.</summary>
    /// <param name="celsius">That temperature, in °C.</param>
    /// <returns>Minutes from the first reading; null where it never is.</returns>
    public double? MinutesUntil(double celsius)
    {
        if (Readings[0].Celsius <= celsius) return 0;
        for (var i = 1; i < Readings.Count; i++)
        {
            if (Readings[i].Celsius <= celsius) return Between(Readings[i - 1], Readings[i], celsius);
        }

        var last = Readings[^1];
        if (celsius <= Ambient || RatePerMinute <= 0) return null;
        return last.Minute + (Math.Log((last.Celsius - Ambient) / (celsius - Ambient)) / RatePerMinute);
    }

    /// <summary>Its temperature at a minute, in °C.</summary>
    public double CelsiusAt(double minute)
    {
        for (var i = 1; i < Readings.Count; i++)
        {
            if (minute <= Readings[i].Minute) return Along(Readings[i - 1], Readings[i], minute);
        }

        var last = Readings[^1];
        return Ambient + ((last.Celsius - Ambient) * Math.Exp(-Math.Max(0, RatePerMinute) * (minute - last.Minute)));
    }

    private static Problem? Wrong(double ambient, IReadOnlyList<CoolingReading> readings)
    {
        bool IsAbsurd(double celsius) => celsius is < Coldest or > Hottest || double.IsNaN(celsius);
        if (IsAbsurd(ambient)) return new("temperature-absurd", "ambientCelsius", $"A kitchen lies between {Coldest} and {Hottest} °C.");
        if (readings.Count is 0 or > MostReadings)
            return new("readings-many", "readings", $"Give between 1 and {MostReadings} readings.");
        if (readings.Any(reading => IsAbsurd(reading.Celsius)))
            return new("temperature-absurd", "readings", $"A reading lies between {Coldest} and {Hottest} °C: check the probe.");
        return readings.Any(reading => reading.Minute is < 0 or > 100_000 || double.IsNaN(reading.Minute))
            ? new("minute-absurd", "readings", "Minutes count from the first reading, from 0 on.")
            : null;
    }

    private static List<CoolingReading> FromZero(List<CoolingReading> readings) =>
        readings.ConvertAll(reading => reading with { Minute = reading.Minute - readings[0].Minute });

    // The slope of ln(T - Ta) over time, by least squares; readings at or below the surroundings say nothing of it.
    private static double Fitted(double ambient, List<CoolingReading> readings)
    {
        var points = readings.Where(reading => reading.Celsius > ambient)
            .Select(reading => (Minute: reading.Minute, Log: Math.Log(reading.Celsius - ambient))).ToList();
        if (points.Count < 2) return 0;
        var (minute, log) = (points.Average(point => point.Minute), points.Average(point => point.Log));
        var square = points.Sum(point => (point.Minute - minute) * (point.Minute - minute));
        return square <= 0 ? 0 : -points.Sum(point => (point.Minute - minute) * (point.Log - log)) / square;
    }

    // When, between two readings of which the second is at or below a temperature, it came down to it.
    private double Between(CoolingReading from, CoolingReading to, double celsius)
    {
        var span = to.Minute - from.Minute;
        if (to.Celsius > Ambient && celsius > Ambient)
            return from.Minute + (span * Math.Log((from.Celsius - Ambient) / (celsius - Ambient))
                / Math.Log((from.Celsius - Ambient) / (to.Celsius - Ambient)));
        return from.Minute + (span * (from.Celsius - celsius) / (from.Celsius - to.Celsius));
    }

    private double Along(CoolingReading from, CoolingReading to, double minute)
    {
        if (to.Minute <= from.Minute) return to.Celsius;
        var share = (minute - from.Minute) / (to.Minute - from.Minute);
        if (from.Celsius <= Ambient || to.Celsius <= Ambient) return from.Celsius + ((to.Celsius - from.Celsius) * share);
        return Ambient + ((from.Celsius - Ambient) * Math.Pow((to.Celsius - Ambient) / (from.Celsius - Ambient), share));
    }
}
