namespace LivelyTern.Core.Measures;

/// <summary>
/// Which days a household writes down, and counting from a day that is odd all the same without an end of time in the way.
/// </summary>
public static class KitchenDays
{
    /// <summary>How many years back and ahead anything is written down for.</summary>
    public const int Years = 10;

    /// <summary>Whether a day lies within ten years of today.</summary>
    public static bool IsNear(DateOnly day, DateOnly today) => Math.Abs(day.DayNumber - today.DayNumber) <= Years * 366;

    /// <summary>Why nothing is written down for a day, or null where it may be.</summary>
    /// <param name="day">The day.</param>
    /// <param name="today">The household's day.</param>
    /// <param name="field">The field it was sent in.</param>
    public static Problem? Refusal(DateOnly day, DateOnly today, string field) =>
        IsNear(day, today) ? null : new("day-far", field, $"That day is more than {Years} years away: check the date.");

    /// <summary>The Monday on or before a day.</summary>
    public static DateOnly MondayOf(DateOnly day) => day.AddDays(-(((int)day.DayOfWeek + 6) % 7));

    /// <summary>The seven days of the week in which a day lies, Monday first.</summary>
    public static IEnumerable<DateOnly> WeekOf(DateOnly day) => Enumerable.Range(0, 7).Select(MondayOf(day).AddDays);

    /// <summary>So many days after a day; the last day there is where that would be later still.</summary>
    public static DateOnly After(DateOnly day, int days) =>
        DateOnly.FromDayNumber(Math.Clamp(day.DayNumber + days, DateOnly.MinValue.DayNumber, DateOnly.MaxValue.DayNumber));
}
