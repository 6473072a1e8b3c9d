using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;

namespace LivelyTern.Data.Aim;

/// <summary>A total as it is kept: kcal, grams or points, and whether all of it was known.</summary>
/// <param name="AtLeast">What was known of it.</param>
/// <param name="IsComplete">Whether all of it was known.</param>
/// <param name="Certainty">To which side it may lie; null as an earlier program kept it.</param>
public sealed record StoredTotal(decimal AtLeast, bool IsComplete, Certainty? Certainty = null)
{
    internal static StoredTotal Of(Total total) => new(total.Known, total.IsComplete, total.IsComplete ? null : total.Certainty);

    internal static Dictionary<Measure, StoredTotal> Of(IReadOnlyDictionary<Measure, Total> totals) =>
        totals.OrderBy(total => total.Key).ToDictionary(total => total.Key, total => Of(total.Value));

    internal static Dictionary<Measure, Total> Read(IReadOnlyDictionary<Measure, StoredTotal> totals) =>
        totals.ToDictionary(total => total.Key, total => total.Value.ToTotal(total.Key));

    internal Total ToTotal(Measure measure) =>
        IsComplete ? new(AtLeast) : new(AtLeast, Certainty ?? OldCertainty(measure));

    private static Certainty OldCertainty(Measure measure) => measure switch
    {
        Measure.NetCarbohydrate => Core.Measures.Certainty.AtMost,
        Measure.Points => Core.Measures.Certainty.Open,
        _ => Core.Measures.Certainty.AtLeast,
    };
}
