using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Aim;

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
    /// <summary>The rule a new eater starts from, of our own making: one point for every 50 kcal, rounded to whole points, vegetables free.</summary>
    public static PointsRule Starting { get; } = new(
        "One for fifty", new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 0.02m }, 1m, [FoodGroup.Vegetables], []);

    /// <summary>What is wrong with the rule, field by field.</summary>
    public IEnumerable<Problem> Problems()
    {
        if (Name.Length > 60) yield return new("rule-name", "rule.name", "Give the rule a name of up to 60 letters.");
        if (Step is not 0 and not (>= 0.01m and <= 100m)) yield return new("step-absurd", "rule.step", "Round points to a step between 0.01 and 100, or to 0 for no rounding.");
        if (PerUnit.Count == 0) yield return new("rule-empty", "rule.perUnit", "Say what a point is: points for one kcal, or for a gram of something.");
        if (PerUnit.Any(unit => Math.Abs(unit.Value) > 1000)) yield return new("rule-absurd", "rule.perUnit", "More than 1,000 points for one gram or one kcal can't be meant: check the number.");
        if (FreeFoods.Count > 1000) yield return new("rule-free-many", "rule.freeFoods", "A rule holds up to 1,000 single free foods: tick groups instead.");
    }

    /// <summary>Whether a food counts nothing under this rule. It still adds all its energy.</summary>
    public bool IsFree(Food food)
    {
        ArgumentNullException.ThrowIfNull(food);
        return FreeGroups.Contains(food.Group) || FreeFoods.Contains(food.Id, StringComparer.Ordinal);
    }

    /// <summary>
    /// The points of one entry before rounding, from the exact total of what is eaten. Incomplete where a counted food lacks a
    /// figure the rule needs.
    /// </summary>
    public Total Exact(Contents contents)
    {
        ArgumentNullException.ThrowIfNull(contents);
        var counted = Totals.Of(contents.Ingredients.Where(part => !IsFree(part.Food)).Select(part => (part.Food.Per100g, part.Weight)));
        var points = PerUnit.Aggregate(Total.None, (sum, value) => sum + (counted[value.Key] * value.Value));
        return new Total(Math.Max(0, points.AtLeast), points.IsComplete && !contents.SomethingUnread);
    }

    /// <summary>
    /// The points of one entry, rounded once. A roll of 2.6 is 3 points; two rolls eaten together are 5.2, so 5, not twice 3.
    /// </summary>
    public Total Of(Contents contents)
    {
        var exact = Exact(contents);
        return exact with { AtLeast = Rounding.ToStep(exact.AtLeast, Step) };
    }
}
