namespace LivelyTern.Core.Cook;

/// <summary>How a batch's yield stands to those before it.</summary>
public enum YieldSays
{
    /// <summary>As the others did.</summary>
    AsUsual,

    /// <summary>It boiled down more than the others.</summary>
    LostMore,

    /// <summary>It boiled down less than the others.</summary>
    LostLess,
}

/// <summary>Cooked by raw weight of the earlier batches of a recipe.</summary>
/// <param name="Mean">Their mean.</param>
/// <param name="Spread">Their standard deviation; 0 where there is only one.</param>
/// <param name="Batches">How many there are.</param>
public sealed record UsualYield(decimal Mean, decimal Spread, int Batches)
{
    // Common practice, no published source: two standard deviations are unusual; below 3 % of the raw weight nobody sees it in the pan.
    private const decimal Deviations = 2, LeastSeen = 0.03m;

    /// <summary>Of some batches; null where there is none.</summary>
    /// <param name="earlier">Cooked by raw weight of each, any order.</param>
    public static UsualYield? Of(IReadOnlyList<decimal> earlier)
    {
        ArgumentNullException.ThrowIfNull(earlier);
        if (earlier.Count == 0) return null;
        var mean = earlier.Average();
        var variance = earlier.Count < 2 ? 0 : earlier.Sum(factor => (factor - mean) * (factor - mean)) / (earlier.Count - 1);
        return new(mean, (decimal)Math.Sqrt((double)variance), earlier.Count);
    }

    /// <summary>How one more stands to them: 0.62 after 0.80, 0.82 and 0.81 has boiled down more than usual.</summary>
    public YieldSays Of(decimal yield)
    {
        var away = yield - Mean;
        if (Math.Abs(away) <= Math.Max(LeastSeen, Deviations * Spread)) return YieldSays.AsUsual;
        return away < 0 ? YieldSays.LostMore : YieldSays.LostLess;
    }
}
