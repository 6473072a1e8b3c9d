using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Aim;

/// <summary>Every measure of some contents under one eater's rule; without a rule there are no points.</summary>
public static class MeasureTotals
{
    /// <summary>The totals of one entry: nutrients exact, points rounded once.</summary>
    public static IReadOnlyDictionary<Measure, Total> Of(Contents contents, PointsRule? rule)
    {
        ArgumentNullException.ThrowIfNull(contents);
        var totals = contents.Totals;
        var measures = new Dictionary<Measure, Total>();
        foreach (var measure in MeasureNutrient.All)
        {
            if (measure.Nutrient() is { } nutrient) measures[measure] = totals[nutrient];
            else if (measure == Measure.NetCarbohydrate) measures[measure] = totals.NetCarbohydrate;
            else if (rule is not null) measures[measure] = rule.Of(contents);
        }

        return measures;
    }

    /// <summary>The sum of several entries, measure by measure: points stay rounded per entry.</summary>
    public static IReadOnlyDictionary<Measure, Total> Sum(IEnumerable<IReadOnlyDictionary<Measure, Total>> entries, PointsRule? rule)
    {
        ArgumentNullException.ThrowIfNull(entries);
        var sums = Of(Contents.Nothing, rule).ToDictionary();
        foreach (var (measure, total) in entries.SelectMany(entry => entry))
            sums[measure] = sums.GetValueOrDefault(measure, Total.None) + total;
        return sums;
    }

    /// <summary>For each nutrient that is not complete, the names of the foods that lack it.</summary>
    public static IReadOnlyDictionary<Measure, IReadOnlyList<string>> Missing(
            IReadOnlyList<Contents> entries, IReadOnlyDictionary<Measure, Total> sums)
    {
        IReadOnlyList<string> Lacking(Measure measure) =>
            [.. entries.SelectMany(entry => entry.Missing(measure.Nutrient() ?? Nutrient.Fibre)).Distinct(StringComparer.Ordinal)];
        var incomplete = sums.Where(sum => !sum.Value.IsComplete && sum.Key != Measure.Points);
        return incomplete.ToDictionary(sum => sum.Key, sum => Lacking(sum.Key));
    }
}
