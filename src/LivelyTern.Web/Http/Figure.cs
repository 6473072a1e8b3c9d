using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;

namespace LivelyTern.Web.Http;

/// <summary>A number on the wire: kcal, grams or points, unrounded but for points; not complete reads "at least".</summary>
public sealed record Figure(decimal Value, bool Complete)
{
    /// <summary>A total as a figure.</summary>
    public static Figure Of(Total total) => new(total.AtLeast, total.IsComplete);

    /// <summary>Totals by measure as figures.</summary>
    public static IReadOnlyDictionary<Measure, Figure> Of(IReadOnlyDictionary<Measure, Total> totals) =>
        totals.ToDictionary(pair => pair.Key, pair => Of(pair.Value));
}
