using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>A day against an aim: each entry's measures, the sums, and where each sum lies in its band.</summary>
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
    /// <summary>Whether every band that is set holds.</summary>
    public bool Fits => Bands.Values.All(band => band.Position == BandPosition.Within);

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
    public static DayReading Of(IReadOnlyList<Contents> entries, IReadOnlyList<IReadOnlyDictionary<Measure, Total>> measured, DayAim aim)
    {
        ArgumentNullException.ThrowIfNull(measured);
        ArgumentNullException.ThrowIfNull(aim);
        var sums = MeasureTotals.Sum(measured, aim.Rule);
        var bands = sums.Where(sum => !aim[sum.Key].IsOpen).ToDictionary(sum => sum.Key, sum => aim[sum.Key].Read(sum.Value));
        return new(measured, sums, bands, MeasureTotals.Missing(entries, sums));
    }
}
