using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Aim;

/// <summary>A food that has its points from the eater, not from its figures: 5 points for a serving of 34 g.</summary>
/// <param name="FoodId">The food.</param>
/// <param name="Points">Points of one serving.</param>
/// <param name="ServingGrams">What that serving weighs.</param>
public sealed record FixedPoints(string FoodId, decimal Points, decimal ServingGrams);

/// <summary>
/// A rule an eater writes down: so many points per kcal and per gram of chosen nutrients, rounded to a step, with groups and foods
/// that count nothing. A negative value takes points off, never below zero.
/// </summary>
/// <param name="Name">The eater's name for it.</param>
/// <param name="PerUnit">Points per kcal of energy, or per gram of another nutrient.</param>
/// <param name="Step">The rounding step in points: 1, 0.5; 0 leaves the exact value.</param>
/// <param name="FreeGroups">Groups of foods that count nothing.</param>
/// <param name="FreeFoods">Ids of single foods that count nothing.</param>
public sealed record PointsRule(
    string Name,
    IReadOnlyDictionary<Nutrient, decimal> PerUnit,
    decimal Step,
    IReadOnlyList<FoodGroup> FreeGroups,
    IReadOnlyList<string> FreeFoods)
{
    /// <summary>Foods with fixed points per serving. A food listed here is not free.</summary>
    public IReadOnlyList<FixedPoints> FixedValues { get; init; } = [];

    /// <summary>Ids of foods that count although their group is free: sweet potatoes, where potatoes are free.</summary>
    public IReadOnlyList<string> CountedFoods { get; init; } = [];

    /// <summary>
    /// The rule a new eater starts from, of our own making: one point for every 50 kcal, rounded to whole points, vegetables free.
    /// </summary>
    public static PointsRule Starting { get; } = new(
        "One for fifty", new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 0.02m }, 1m, [FoodGroup.Vegetables], []);

    /// <summary>Rules to start from, all of our own making; an eater changes every number of them.</summary>
    public static IReadOnlyList<PointsRule> StartingRules { get; } =
    [
        Starting,
        new(
            "Fat weighs more",
            new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 0.016m, [Nutrient.SaturatedFat] = 0.2m, [Nutrient.Fibre] = -0.04m },
            0.5m, [FoodGroup.Vegetables, FoodGroup.Fruit], []),
        new(
            "Protein counts half", new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 0.025m, [Nutrient.Protein] = -0.05m }, 1m,
            [FoodGroup.Vegetables, FoodGroup.Eggs, FoodGroup.Pulses], []),
    ];

    /// <summary>What is wrong with the rule, field by field.</summary>
    public IEnumerable<Problem> Problems()
    {
        if (Name.Length > 60) yield return new("rule-name", "rule.name", "Give the rule a name of up to 60 letters.");
        if (Step is not 0 and not (>= 0.01m and <= 100m))
            yield return new("step-absurd", "rule.step", "Round points to a step between 0.01 and 100, or to 0 for no rounding.");
        if (PerUnit.Count == 0)
            yield return new("rule-empty", "rule.perUnit", "Say what a point is: points for one kcal, or for a gram of something.");
        if (PerUnit.Any(unit => Math.Abs(unit.Value) > 1000))
            yield return new(
                "rule-absurd", "rule.perUnit", "More than 1,000 points for one gram or one kcal can't be meant: check the number.");
        if (FixedValues.Count > 200)
            yield return new("rule-fixed-many", "rule.fixedValues", "A rule holds up to 200 foods with fixed points.");
        if (FixedValues.Any(value => value.ServingGrams is not (> 0 and <= 5000) || value.Points is not (>= 0 and <= 1000)))
            yield return new(
                "rule-fixed-absurd", "rule.fixedValues",
                "A fixed value needs points from 0 to 1,000 and a serving above 0 g and up to 5 kg.");
        if (FreeFoods.Count + CountedFoods.Count > 1000)
            yield return new("rule-free-many", "rule.freeFoods", "A rule holds up to 1,000 single foods: tick groups instead.");
    }

    /// <summary>Whether a food counts nothing under this rule. It still adds all its energy.</summary>
    public bool IsFree(Food food)
    {
        ArgumentNullException.ThrowIfNull(food);
        if (FixedOf(food) is not null) return false;
        if (FreeFoods.Contains(food.Id, StringComparer.Ordinal)) return true;
        return food.PointsPer100g is null && food.IsOfItsGroup() && FreeGroups.Contains(food.Group)
            && !CountedFoods.Contains(food.Id, StringComparer.Ordinal);
    }

    private FixedPoints? FixedOf(Food food) =>
        FixedValues.FirstOrDefault(value => string.Equals(value.FoodId, food.Id, StringComparison.Ordinal));

    // Points a gram where they are said and not worked out: by the eater, else by the packet.
    private decimal? PerGramOf(Food food) =>
        FixedOf(food) is { } own ? own.Points / own.ServingGrams : food.PointsPer100g / 100m;

    /// <summary>
    /// The points of one entry before rounding, from the exact total of what is eaten. Where a counted food lacks a figure that the rule
    /// adds they may be more, where it lacks one that takes points off they may be less: 8 points at 100 kcal a point and 1 off for 15 g
    /// of a protein that is not known are "at most 8".
    /// </summary>
    public Total Exact(Contents contents)
    {
        ArgumentNullException.ThrowIfNull(contents);
        var counted = new Contents([.. contents.Ingredients.Where(part => !IsFree(part.Food) && PerGramOf(part.Food) is null)]).Totals;
        var points = PerUnit.Aggregate(Total.None, (sum, value) => sum + (counted[value.Key] * value.Value));
        decimal PointsAsSaid(Ingredient part) => IsFree(part.Food) ? 0 : (PerGramOf(part.Food) ?? 0) * part.Weight.Value;
        points += new Total(contents.Ingredients.Sum(PointsAsSaid));
        if (contents.SomethingUnread) points = points.With(PerUnit.Values.Any(value => value < 0) ? Certainty.Open : Certainty.AtLeast);

        // Nothing is less than nothing: "at most nothing" is nothing.
        if (points.Known > 0) return points;
        return Total.Of(0, isKnown: points.Certainty is Certainty.Exact or Certainty.AtMost);
    }

    /// <summary>
    /// The points of one entry, rounded once. A roll of 2.6 is 3 points; two rolls eaten together are 5.2, so 5, not twice 3. A rule of one
    /// point for 30 kcal is no finite decimal: what lies a billionth below a half is a half.
    /// </summary>
    public Total Of(Contents contents)
    {
        var exact = Exact(contents);
        return exact with { Known = Rounding.ToStep(Math.Round(exact.Known, Places, MidpointRounding.AwayFromZero), Step) };
    }

    private const int Places = 9;
}
