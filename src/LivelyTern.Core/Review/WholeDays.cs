using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Review;

/// <summary>
/// Which days of a ledger tell what was eaten. A day on which only breakfast was noted says nothing of the day: days with less than half of
/// what is usual are taken as not written down. Common practice, no published source.
/// </summary>
public static class WholeDays
{
    private const decimal Share = 0.5m;

    /// <summary>The days that count.</summary>
    /// <param name="noted">What was noted, day by day.</param>
    /// <param name="today">The household's day, which is not over.</param>
    public static IReadOnlyList<DayIntake> Of(IReadOnlyList<DayIntake> noted, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(noted);
        var past = noted.Where(day => day.Day < today && day.Kcal > 0).ToList();
        var usual = Middle.Of(past.Select(day => day.Kcal)) ?? 0;
        return past.FindAll(day => day.Kcal >= Share * usual);
    }

    /// <summary>The days from which a need is told: those that count, less those of which something eaten is not known.</summary>
    /// <param name="noted">What was noted, day by day.</param>
    /// <param name="open">Days on which something was eaten whose energy is not known.</param>
    /// <param name="today">The household's day, which is not over.</param>
    public static IReadOnlyList<DayIntake> Known(IReadOnlyList<DayIntake> noted, IReadOnlySet<DateOnly> open, DateOnly today) =>
        [.. Of(noted, today).Where(day => !open.Contains(day.Day))];
}
