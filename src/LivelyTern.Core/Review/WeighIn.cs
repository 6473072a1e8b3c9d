namespace LivelyTern.Core.Review;

/// <summary>What the bathroom scale said on a day.</summary>
/// <param name="Day">The day.</param>
/// <param name="Kg">Kilograms.</param>
public sealed record WeighIn(DateOnly Day, decimal Kg)
{
    /// <summary>The least and the most a grown-up's scale can be believed, in kilograms.</summary>
    public const decimal Least = 25m, Most = 400m;
}

/// <summary>What was eaten on a day, as it was written down.</summary>
/// <param name="Day">The day.</param>
/// <param name="Kcal">Kilocalories.</param>
public sealed record DayIntake(DateOnly Day, decimal Kcal);

/// <summary>A weigh-in that the trend does not count.</summary>
/// <param name="WeighIn">It.</param>
/// <param name="Why">Why not, in a sentence.</param>
/// <param name="Meant">What was perhaps meant: 71 for 17; null where nothing is near.</param>
public sealed record LeftOut(WeighIn WeighIn, string Why, decimal? Meant);

/// <summary>A value between two others; nine times in ten the true one lies between them.</summary>
public sealed record Ranged(decimal Value, decimal Low, decimal High);

/// <summary>The trend on a day: what the body weighs without the water and the scale of that day.</summary>
/// <param name="Day">The day.</param>
/// <param name="Kg">Its value and its 90 % range, in kilograms.</param>
public sealed record TrendDay(DateOnly Day, Ranged Kg);

/// <summary>What weigh-ins and intake say together.</summary>
/// <param name="Trend">The trend, day by day from the first weigh-in that counts to the last.</param>
/// <param name="RatePerWeek">Kilograms a week over the last four weeks, or all there are if fewer; null with fewer than two
/// weigh-ins.</param>
/// <param name="Need">Kilocalories a day that would keep the trend level, now; null where too little is known.</param>
/// <param name="WhyNoNeed">Why there is none; null where there is.</param>
/// <param name="LeftOut">Weigh-ins that don't count.</param>
/// <param name="IntakeDays">Days of intake within the trend.</param>
public sealed record BodyTrend(
    IReadOnlyList<TrendDay> Trend, Ranged? RatePerWeek, Ranged? Need, string? WhyNoNeed, IReadOnlyList<LeftOut> LeftOut, int IntakeDays)
{
    // Nearer than this an aim is at the need, in kcal; slower than this a weight is level, in kg a week.
    private const decimal Near = 50m, Slow = 0.05m;

    /// <summary>Over how many days the rate is taken; null without one.</summary>
    public int? RateDays => RatePerWeek is null ? null : Math.Min(TrendReader.RateDays, Trend.Count - 1);

    /// <summary>Whether the weight stayed about the same over those days, as far as can be told.</summary>
    public bool IsLevel => RatePerWeek is { Low: < 0, High: > 0 } rate && Math.Abs(rate.Value) < Slow;

    /// <summary>
    /// By how much a goal lies above the need, in kcal to the nearest 10; 0 where that is about the same, null where one of the two is not
    /// known.
    /// </summary>
    public decimal? AboveNeed(decimal? goal)
    {
        if (goal is not { } kcal || Need is not { } need) return null;
        var apart = Measures.Rounding.ToStep(kcal - need.Value, 10);
        return Math.Abs(apart) < Near ? 0 : apart;
    }
}
