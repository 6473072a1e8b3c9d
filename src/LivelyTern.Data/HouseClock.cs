namespace LivelyTern.Data;

/// <summary>The household's day.</summary>
public static class HouseClock
{
    /// <summary>The date of an instant where it lives.</summary>
    public static DateOnly DayOf(this TimeProvider clock, DateTimeOffset at)
    {
        ArgumentNullException.ThrowIfNull(clock);
        return DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(at, clock.LocalTimeZone).DateTime);
    }

    /// <summary>The date where it lives, now.</summary>
    public static DateOnly Today(this TimeProvider clock)
    {
        ArgumentNullException.ThrowIfNull(clock);
        return DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
    }
}
