using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>What a day is, by all its bands at their exact figures.</summary>
public enum DayVerdict
{
    /// <summary>Nothing lies on it for its eater: it promises nothing.</summary>
    Empty,

    /// <summary>Every band holds.</summary>
    Fits,

    /// <summary>Every band holds as far as the figures are known; the true ones may lie outside.</summary>
    FitsAsFarAsKnown,

    /// <summary>Its eater is away: it asks nothing.</summary>
    Away,

    /// <summary>A band does not hold, or something lies there that its eater must never get.</summary>
    Out,
}

/// <summary>
/// The one reading of a day against an aim: each entry's measures, the sums, and where each sum lies in its band. Week, day, overview,
/// menu, fit and mends all ask it.
/// </summary>
/// <param name="Entries">Every measure of each entry, in order.</param>
/// <param name="Sums">Every measure of the day; points are summed from the rounded entries.</param>
/// <param name="Bands">Where each sum lies; only measures whose band is set.</param>
/// <param name="Missing">For each incomplete nutrient, the foods that lack it.</param>
public sealed record DayReading(
    IReadOnlyList<IReadOnlyDictionary<Measure, Total>> Entries,
    IReadOnlyDictionary<Measure, Total> Sums,
    IReadOnlyDictionary<Measure, BandReading> Bands,
    IReadOnlyDictionary<Measure, IReadOnlyList<string>> Missing)
{
    /// <summary>Whether something lies on it that its eater must never get.</summary>
    public bool HoldsNever { get; init; }

    /// <summary>What the day is.</summary>
    public DayVerdict Verdict => HoldsNever ? DayVerdict.Out
        : IsAway ? DayVerdict.Away
        : IsEmpty ? DayVerdict.Empty
        : Judge(Bands.Values);

    /// <summary>Whether nothing lies on it for its eater.</summary>
    public bool IsEmpty { get; init; } = Entries.Count == 0;

    /// <summary>Whether its eater is away.</summary>
    public bool IsAway { get; init; }

    /// <summary>Whether something lies on it and every band that is set holds, as far as its figures are known.</summary>
    public bool Fits => Verdict.IsFit();

    /// <summary>Whether a band does not hold; on an empty day too.</summary>
    public bool IsOut => Judge(Bands.Values) == DayVerdict.Out;

    /// <summary>What was drawn from the reserve.</summary>
    public decimal Drawn => Bands.Values.Sum(band => band.Drawn ?? 0);

    /// <summary>Judges a day with something on it by its bands.</summary>
    public static DayVerdict Judge(IEnumerable<BandReading> bands)
    {
        ArgumentNullException.ThrowIfNull(bands);
        var verdict = DayVerdict.Fits;
        foreach (var band in bands)
        {
            if (band.Position != BandPosition.Within) return DayVerdict.Out;
            if (!band.IsSure) verdict = DayVerdict.FitsAsFarAsKnown;
        }

        return verdict;
    }

    /// <summary>Reads a day's entries against an aim.</summary>
    public static DayReading Of(IReadOnlyList<Contents> entries, DayAim aim)
    {
        ArgumentNullException.ThrowIfNull(entries);
        ArgumentNullException.ThrowIfNull(aim);
        return Of(entries, [.. entries.Select(aim.Count)], aim);
    }

    /// <summary>Reads a day's entries against an aim, each by what it counts or counted when it was eaten.</summary>
    /// <param name="entries">What they are made of.</param>
    /// <param name="measured">Every measure of each.</param>
    /// <param name="aim">The aim of that day.</param>
    /// <param name="reserve">What the day may draw on past the most of the leading measure, in its unit.</param>
    public static DayReading Of(
        IReadOnlyList<Contents> entries, IReadOnlyList<IReadOnlyDictionary<Measure, Total>> measured, DayAim aim, decimal reserve = 0)
    {
        ArgumentNullException.ThrowIfNull(measured);
        ArgumentNullException.ThrowIfNull(aim);
        var sums = MeasureTotals.Sum(measured, aim.Rule);
        BandReading Read(Measure measure, Total sum) => aim[measure].Read(sum, measure == aim.Leading ? reserve : 0);
        var bands = sums.Where(sum => !aim[sum.Key].IsOpen).ToDictionary(sum => sum.Key, sum => Read(sum.Key, sum.Value));
        return new(measured, sums, bands, MeasureTotals.Missing(entries, sums)) { IsAway = aim.IsAway };
    }
}

/// <summary>What verdicts mean.</summary>
public static class DayVerdicts
{
    /// <summary>Whether a day counts as one with something on it.</summary>
    public static bool IsFilled(this DayVerdict verdict) => verdict is not (DayVerdict.Empty or DayVerdict.Away);

    /// <summary>Whether a day counts as one that fits.</summary>
    public static bool IsFit(this DayVerdict verdict) => verdict is DayVerdict.Fits or DayVerdict.FitsAsFarAsKnown;
}
