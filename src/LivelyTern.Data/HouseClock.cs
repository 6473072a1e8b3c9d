namespace LivelyTern.Data;

/// <summary>The household's day.</summary>
public static class HouseClock
{
    /// <summary>The date where it lives, now.</summary>
    public static DateOnly Today(this TimeProvider clock)
    {
        ArgumentNullException.ThrowIfNull(clock);
        return DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
    }
}
