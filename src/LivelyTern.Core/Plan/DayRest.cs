using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>Something on a day.</summary>
/// <param name="Contents">What it is made of.</param>
/// <param name="IsEaten">Whether it has been eaten.</param>
/// <param name="Counted">What it counted when it was eaten; null counts it by the aim.</param>
/// <param name="IsNever">Whether its eater must never get it.</param>
public sealed record DayEntry(
    Contents Contents, bool IsEaten = false, IReadOnlyDictionary<Measure, Total>? Counted = null, bool IsNever = false)
{
    /// <summary>Whether its eater gets nothing of it: it is for guests, or only kept free.</summary>
    public bool IsSetAside { get; init; }

    /// <summary>Every measure of it.</summary>
    public IReadOnlyDictionary<Measure, Total> MeasuresFor(DayAim aim)
    {
        ArgumentNullException.ThrowIfNull(aim);
        return Counted ?? aim.Count(Contents);
    }
}

/// <summary>A day: what was eaten, what the whole comes to, and what is left of each band.</summary>
/// <param name="Day">The whole day, eaten and still planned.</param>
/// <param name="Eaten">What was eaten so far, measure by measure.</param>
/// <param name="Left">What is left to each target after what was eaten, in kcal, grams or points; below zero where it is passed. Only
/// measures with a band.</param>
public sealed record DayRest(DayReading Day, IReadOnlyDictionary<Measure, Total> Eaten, IReadOnlyDictionary<Measure, decimal> Left)
{
    /// <summary>Reads a day.</summary>
    /// <param name="entries">The day's entries in order.</param>
    /// <param name="aim">The eater's aim of that day.</param>
    /// <param name="reserve">What of the weekly reserve it may draw on.</param>
    public static DayRest Of(IReadOnlyList<DayEntry> entries, DayAim aim, decimal reserve = 0)
    {
        ArgumentNullException.ThrowIfNull(entries);
        ArgumentNullException.ThrowIfNull(aim);
        var measured = entries.Select(entry => entry.MeasuresFor(aim)).ToList();
        var day = DayReading.Of([.. entries.Select(entry => entry.Contents)], measured, aim, reserve) with
        {
            HoldsNever = entries.Any(entry => entry.IsNever),
            IsEmpty = entries.All(entry => entry.IsSetAside),
        };
        var eaten = MeasureTotals.Sum(day.Entries.Where((_, i) => entries[i].IsEaten), aim.Rule);
        var left = eaten.Select(sum => (sum.Key, aim[sum.Key].Read(sum.Value).Left))
            .Where(pair => pair.Left is not null)
            .ToDictionary(pair => pair.Key, pair => pair.Left!.Value);
        return new(day, eaten, left);
    }

    /// <summary>
    /// Reads the days of a week in their order: each draws on what those before it left of the weekly reserve. Days of 300 and 200 over,
    /// with 400 in reserve: the first is covered, the second draws 100 and is 100 over.
    /// </summary>
    /// <param name="days">The days of one week, Monday first, each with its aim.</param>
    /// <param name="reserve">The weekly reserve in the leading measure; null for none.</param>
    public static IReadOnlyList<DayRest> Week(IEnumerable<(IReadOnlyList<DayEntry> Entries, DayAim Aim)> days, decimal? reserve)
    {
        ArgumentNullException.ThrowIfNull(days);
        var left = reserve ?? 0;
        var read = new List<DayRest>();
        foreach (var (entries, aim) in days)
        {
            var day = Of(entries, aim, left);
            left -= day.Day.Drawn;
            read.Add(day);
        }

        return read;
    }
}
