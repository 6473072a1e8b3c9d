using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;

namespace LivelyTern.Data.Aim;

/// <summary>A total as it is kept: kcal, grams or points, and whether all of it was known.</summary>
public sealed record StoredTotal(decimal AtLeast, bool IsComplete)
{
    internal static StoredTotal Of(Total total) => new(total.AtLeast, total.IsComplete);

    internal static Dictionary<Measure, StoredTotal> Of(IReadOnlyDictionary<Measure, Total> totals) =>
        totals.OrderBy(total => total.Key).ToDictionary(total => total.Key, total => Of(total.Value));

    internal static Dictionary<Measure, Total> Read(IReadOnlyDictionary<Measure, StoredTotal> totals) =>
        totals.ToDictionary(total => total.Key, total => total.Value.ToTotal());

    internal Total ToTotal() => new(AtLeast, IsComplete);
}
