using LivelyTern.Core.Plan;

namespace LivelyTern.Core.Eat;

/// <summary>A plain food or a meal out that was eaten once.</summary>
/// <param name="ItemId">Where it lies.</param>
/// <param name="What">What it was.</param>
/// <param name="Day">On which day.</param>
/// <param name="At">At what time of that day; null where it was written down on another day, so that nobody knows.</param>
public sealed record EatenOnce(Guid ItemId, Laid What, DateOnly Day, TimeOnly? At);

/// <summary>Something that an eater has usually.</summary>
/// <param name="Like">The time it was eaten last in its usual amount.</param>
/// <param name="Times">How often it was eaten in the days looked through.</param>
/// <param name="Last">The last day it was.</param>
public sealed record UsualEntry(EatenOnce Like, int Times, DateOnly Last);

/// <summary>
/// What an eater has usually, and lately, at this hour: the morning's milk in the morning. Each time it was eaten counts, half as much
/// after two weeks, and the less the further from this hour. Common practice, no published source.
/// </summary>
public static class UsualEntries
{
    /// <summary>How many days back are looked through.</summary>
    public const int Days = 56;

    private const double HalfLifeDays = 14, HoursApart = 3, AtAnyHour = 0.15, HourUnknown = 0.4;

    /// <summary>What is offered, the likeliest first.</summary>
    /// <param name="eaten">What was eaten, in any order.</param>
    /// <param name="day">The day something is to be entered for.</param>
    /// <param name="hour">The hour it is now; null for a day that is past: then no hour counts more than another.</param>
    /// <param name="most">How many.</param>
    public static IReadOnlyList<UsualEntry> Of(IEnumerable<EatenOnce> eaten, DateOnly day, TimeOnly? hour, int most)
    {
        ArgumentNullException.ThrowIfNull(eaten);
        double WeightOf(EatenOnce one) => Math.Pow(0.5, Math.Abs(day.DayNumber - one.Day.DayNumber) / HalfLifeDays) * Near(one.At, hour);
        var groups = new List<List<EatenOnce>>();
        foreach (var one in eaten.Where(one => one.What is PlainFood or MealOut))
        {
            if (groups.Find(group => group[0].What.IsOfTheSame(one.What)) is { } known) known.Add(one);
            else groups.Add([one]);
        }

        return
        [
            .. groups.OrderByDescending(group => group.Sum(WeightOf)).ThenByDescending(group => group.Max(one => one.Day))
                .ThenBy(group => group[0].ItemId).Take(most)
                .Select(group => new UsualEntry(Usual(group), group.Count, group.Max(one => one.Day))),
        ];
    }

    // The amount it was eaten in most often; of amounts as often, the one eaten last.
    private static EatenOnce Usual(List<EatenOnce> group)
    {
        var amounts = new List<List<EatenOnce>>();
        foreach (var one in group.OrderByDescending(one => one.Day).ThenByDescending(one => one.At))
        {
            if (amounts.Find(same => same[0].What.HoldsTheSame(one.What)) is { } known) known.Add(one);
            else amounts.Add([one]);
        }

        return amounts.MaxBy(same => same.Count)![0];
    }

    private static double Near(TimeOnly? at, TimeOnly? hour)
    {
        if (hour is not { } now) return 1;
        if (at is not { } then) return HourUnknown;
        var apart = Math.Abs((now - then).TotalHours);
        var hours = Math.Min(apart, 24 - apart);
        return Math.Max(AtAnyHour, 1 - (hours / (2 * HoursApart)));
    }
}
