using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>A weight of one food, as it went in.</summary>
/// <param name="Food">The food, with the figures it had then.</param>
/// <param name="Weight">Grams; zero for a trace.</param>
/// <param name="IsTrace">A pinch, or "to taste": recorded, too little to weigh.</param>
public sealed record Ingredient(Food Food, Grams Weight, bool IsTrace = false);

/// <summary>What is in a batch, a box or a bite: weights of foods, from which every measure follows.</summary>
public sealed record Contents(IReadOnlyList<Ingredient> Ingredients, bool SomethingUnread = false)
{
    /// <summary>Salt from which up a trace of a food leaves the day's salt "at least", in grams per 100 g.</summary>
    private const decimal SaltyPer100g = 10m;

    /// <summary>Nothing.</summary>
    public static Contents Nothing { get; } = new([]);

    /// <summary>The weight of what went in, before cooking.</summary>
    public Grams RawWeight => new(Ingredients.Sum(ingredient => ingredient.Weight.Value));

    /// <summary>What it holds of every nutrient. Water that leaves in cooking changes the weight, not this.</summary>
    public Totals Totals
    {
        get
        {
            var sums = Totals.Of(Ingredients.Select(ingredient => (ingredient.Food.Per100g, ingredient.Weight)));
            if (Ingredients.Any(IsSaltyTrace)) sums = sums.With(Nutrient.Salt, sums[Nutrient.Salt] with { IsComplete = false });
            return SomethingUnread ? sums.AtLeast() : sums;
        }
    }

    /// <summary>A share of it: one of six equal portions is a sixth of every ingredient.</summary>
    /// <param name="factor">The share; 0 to 1 for a part, more to scale up.</param>
    public Contents Scale(decimal factor) =>
        this with { Ingredients = [.. Ingredients.Select(ingredient => ingredient with { Weight = ingredient.Weight * factor })] };

    /// <summary>The names of the foods for which a nutrient is not known.</summary>
    public IReadOnlyList<string> Missing(Nutrient nutrient) =>
        [.. Ingredients.Where(ingredient => ingredient.Weight.Value != 0 && ingredient.Food.Per100g[nutrient] is null || nutrient == Nutrient.Salt && IsSaltyTrace(ingredient))
            .Select(ingredient => ingredient.Food.Name).Distinct(StringComparer.Ordinal)];

    private static bool IsSaltyTrace(Ingredient ingredient) => ingredient.IsTrace && !(ingredient.Food.Per100g.Salt < SaltyPer100g);
}
