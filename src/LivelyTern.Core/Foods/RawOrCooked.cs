namespace LivelyTern.Core.Foods;

/// <summary>
/// Whether a food was weighed raw or cooked, where a line does not say it and it matters: 150 g of rice are 548 kcal dry and 195 boiled. A
/// line that says it ("150 g boiled rice") is taken at its word, and so is a food of which both forms hold nearly the same.
/// </summary>
public static class RawOrCooked
{
    // Apart by more than this share of the smaller, in energy.
    private const decimal Matters = 0.15m;

    private static readonly HashSet<string> Saying = new(
        [
            "raw", "dry", "dried", "uncooked", "cooked", "boiled", "roast", "roasted", "baked", "grilled", "fried", "steamed", "poached",
            "braised", "stewed", "drained", "canned", "can", "tinned", "tin", "seared", "simmered",
        ],
        StringComparer.Ordinal);

    /// <summary>The forms that may have been weighed, the raw one first; empty where a line says which, or it hardly matters.</summary>
    /// <param name="line">The line, understood as a food.</param>
    /// <param name="foods">The foods.</param>
    public static IReadOnlyList<Food> FormsOf(FoodLine line, IFoods foods)
    {
        ArgumentNullException.ThrowIfNull(line);
        ArgumentNullException.ThrowIfNull(foods);
        if (line.Ingredient?.Food is not { IsOwn: false } food || FoodWords.All(line.Text).Any(Saying.Contains)) return [];
        if (foods.Find(food.CookedFrom?.RawId ?? food.Id) is not { } raw) return [];
        var cooked = foods.CookedFormsOf(raw.Id).Where(form => IsApart(raw, form)).ToList();
        return cooked.Count == 0 ? [] : [raw, .. cooked];
    }

    // What is called otherwise when it is cooked says it by its name: porridge is no way of weighing oats.
    private static bool IsApart(Food raw, Food cooked)
    {
        if (!FoodWords.Telling(raw.Name).Intersect(FoodWords.Telling(cooked.Name), StringComparer.Ordinal).Any()) return false;
        if ((raw.Per100g.Energy, cooked.Per100g.Energy) is not ({ } one, { } other)) return false;
        return Math.Abs(one - other) > Matters * Math.Min(one, other);
    }
}
