using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>A food that a line may mean as well as the one that was taken, and how far they are apart.</summary>
/// <param name="Food">The food.</param>
/// <param name="By">What tells them apart: energy, where that is more than a tenth; else protein, carbohydrate or fat.</param>
/// <param name="Apart">How much more of that the line would have with it, in kcal or grams; below zero where it is less.</param>
public sealed record OtherFood(Food Food, Nutrient By, decimal Apart)
{
    /// <summary>More of the energy than this is a choice to be shown, and so many kcal of the line.</summary>
    private const decimal Share = 0.1m, Kilocalories = 5m;

    // Energy before all: where that is apart, nothing else need be said.
    private static readonly (Nutrient Nutrient, decimal Kcal)[] Figures =
    [
        (Nutrient.Energy, 1), (Nutrient.Fat, EnergyFactors.PerGram(Nutrient.Fat)),
        (Nutrient.Carbohydrate, EnergyFactors.PerGram(Nutrient.Carbohydrate)), (Nutrient.Protein, EnergyFactors.PerGram(Nutrient.Protein)),
    ];

    /// <summary>
    /// Another food, where it changes the figures of a line: its energy by more than a tenth, or by as much what of it comes from protein,
    /// carbohydrate or fat; null where it doesn't, or so little that it is no matter.
    /// </summary>
    /// <param name="taken">The food that was taken, and its weight.</param>
    /// <param name="other">Another.</param>
    public static OtherFood? Of(Ingredient taken, Food other)
    {
        ArgumentNullException.ThrowIfNull(taken);
        ArgumentNullException.ThrowIfNull(other);
        if (taken.Food.Per100g.Energy is not { } energy || other.Per100g.Energy is not { } otherEnergy) return null;
        var hundreds = taken.Weight.Value / 100m;
        OtherFood? farthest = null;
        var most = Math.Max(Share * Math.Max(energy, otherEnergy) * hundreds, Kilocalories);
        foreach (var (nutrient, kcal) in Figures)
        {
            var more = (other.Per100g[nutrient] - taken.Food.Per100g[nutrient]) * hundreds;
            if (more is not { } apart || Math.Abs(apart) * kcal <= most) continue;
            farthest = new(other, nutrient, apart);
            if (nutrient == Nutrient.Energy) break;
            most = Math.Abs(apart) * kcal;
        }

        return farthest;
    }
}
