using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>Today: what was eaten, what the whole day comes to, and what is left of each band.</summary>
/// <param name="Day">The whole day, eaten and still planned.</param>
/// <param name="Eaten">What was eaten so far, measure by measure.</param>
/// <param name="Left">What is left to each target after what was eaten, in kcal, grams or points; below zero where it is passed. Only
/// measures with a band.</param>
public sealed record DayRest(DayReading Day, IReadOnlyDictionary<Measure, Total> Eaten, IReadOnlyDictionary<Measure, decimal> Left)
{
    /// <summary>Reads the rest of a day.</summary>
    /// <param name="entries">The day's entries in order, each with whether it has been eaten, and if so what it counted then; null counts
    /// it by the aim.</param>
    /// <param name="aim">The eater's aim of that day.</param>
    public static DayRest Of(
        IReadOnlyList<(Contents Contents, bool IsEaten, IReadOnlyDictionary<Measure, Total>? Counted)> entries, DayAim aim)
    {
        ArgumentNullException.ThrowIfNull(entries);
        ArgumentNullException.ThrowIfNull(aim);
        var contents = entries.Select(entry => entry.Contents).ToList();
        var day = DayReading.Of(contents, [.. entries.Select(entry => entry.Counted ?? aim.Count(entry.Contents))], aim);
        var eaten = MeasureTotals.Sum(day.Entries.Where((_, i) => entries[i].IsEaten), aim.Rule);
        var left = eaten.Select(sum => (sum.Key, aim[sum.Key].Read(sum.Value).Left))
            .Where(pair => pair.Left is not null)
            .ToDictionary(pair => pair.Key, pair => pair.Left!.Value);
        return new(day, eaten, left);
    }
}
