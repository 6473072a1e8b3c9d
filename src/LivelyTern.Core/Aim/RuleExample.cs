using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Aim;

/// <summary>What a points rule makes of a plate, so that it can be read back: 400 kcal with 20 g protein are 9 points.</summary>
/// <param name="Figures">What the plate holds, of what the rule counts; kcal and grams.</param>
/// <param name="Points">Its points.</param>
public sealed record RuleExample(IReadOnlyDictionary<Nutrient, decimal> Figures, decimal Points)
{
    private static readonly Nutrients Plate = new(
        Energy: 400, Protein: 20, Fat: 15, SaturatedFat: 5, Carbohydrate: 45, Sugars: 10, Fibre: 5, Salt: 1);

    /// <summary>The example of a rule; null without one.</summary>
    public static RuleExample? Of(PointsRule? rule)
    {
        if (rule is null) return null;
        var plate = new Food("plate", "a plate", [], FoodGroup.Seasonings, Plate, CarbohydrateConvention.Total, [], "example");
        var counted = rule with { FreeGroups = [], FreeFoods = [], FixedValues = [] };
        var figures = rule.PerUnit.Where(per => per.Value != 0 && Plate[per.Key] is not null).OrderBy(per => per.Key)
            .ToDictionary(per => per.Key, per => Plate[per.Key]!.Value);
        return new(figures, counted.Of(new([new Ingredient(plate, new Grams(100))])).Known);
    }
}
