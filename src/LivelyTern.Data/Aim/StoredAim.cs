using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Data.Aim;

#pragma warning disable CS1591 // Stored shapes mirror the core's records, where the units are documented.

/// <summary>An eater's usual day and the weekdays that differ, as they are kept.</summary>
public sealed record StoredAim(
    int V, Measure Leading, IReadOnlyDictionary<Measure, StoredBand> Bands, StoredRule? Rule, bool LeavesOutIncompleteProtein,
    IReadOnlyList<StoredWeekday> Weekdays)
{
    private const int Shape = 1;

    public static StoredAim Of(DayAim aim, IEnumerable<OtherDay> otherDays)
    {
        ArgumentNullException.ThrowIfNull(aim);
        var weekdays = otherDays.Where(day => day.Weekday is not null)
            .Select(day => new StoredWeekday(day.Name, day.Weekday!.Value, StoredBand.Of(day.Bands)));
        return new(Shape, aim.Leading, StoredBand.Of(aim.Bands), StoredRule.Of(aim.Rule), aim.LeavesOutIncompleteProtein, [.. weekdays]);
    }

    // Points without a rule lead nobody.
    public DayAim ToAim() => new(
        Leading == Measure.Points && Rule is null ? Measure.Energy : Leading, StoredBand.Read(Bands), Rule?.ToRule())
    {
        LeavesOutIncompleteProtein = LeavesOutIncompleteProtein,
    };

    public IEnumerable<OtherDay> ToWeekdays() =>
        Weekdays.Select(day => new OtherDay(day.Name, day.Weekday, null, StoredBand.Read(day.Bands)));
}

/// <summary>A band as it is kept.</summary>
public sealed record StoredBand(decimal? Min, decimal? Target, decimal? Max, decimal? Tolerance)
{
    public static IReadOnlyDictionary<Measure, StoredBand> Of(IReadOnlyDictionary<Measure, Band> bands) =>
        bands.OrderBy(band => band.Key).ToDictionary(band => band.Key, band => Of(band.Value));

    private static StoredBand Of(Band band) => new(band.Min, band.Target, band.Max, band.Tolerance);

    public static Dictionary<Measure, Band> Read(IReadOnlyDictionary<Measure, StoredBand> bands)
    {
        ArgumentNullException.ThrowIfNull(bands);
        return bands.ToDictionary(band => band.Key, band => band.Value.ToBand());
    }

    // An earlier program kept the bounds that follow from a target too.
    internal Band ToBand() => new Band(Min, Target, Max) { Tolerance = Tolerance }.Written();
}

/// <summary>Bands of a weekday as they are kept.</summary>
public sealed record StoredWeekday(string Name, DayOfWeek Weekday, IReadOnlyDictionary<Measure, StoredBand> Bands);

/// <summary>A points rule as it is kept.</summary>
public sealed record StoredRule(
    string Name, IReadOnlyDictionary<Nutrient, decimal> PerUnit, decimal Step, IReadOnlyList<FoodGroup> FreeGroups,
    IReadOnlyList<string> FreeFoods, IReadOnlyList<StoredFixedPoints> FixedValues, IReadOnlyList<string>? CountedFoods = null)
{
    public static StoredRule? Of(PointsRule? rule)
    {
        if (rule is null) return null;
        var fixedValues = rule.FixedValues.Select(one => new StoredFixedPoints(one.FoodId, one.Points, one.ServingGrams));
        var counted = rule.CountedFoods.Count == 0 ? null : rule.CountedFoods;
        return new(rule.Name, rule.PerUnit, rule.Step, rule.FreeGroups, rule.FreeFoods, [.. fixedValues], counted);
    }

    public PointsRule ToRule() => new(Name, PerUnit, Step, FreeGroups, FreeFoods)
    {
        FixedValues = [.. FixedValues.Select(one => new FixedPoints(one.FoodId, one.Points, one.ServingGrams))],
        CountedFoods = CountedFoods ?? [],
    };
}

/// <summary>A food's own points as they are kept.</summary>
public sealed record StoredFixedPoints(string FoodId, decimal Points, decimal ServingGrams);
