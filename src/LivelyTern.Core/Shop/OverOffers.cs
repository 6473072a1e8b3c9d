using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>A recipe that uses a food.</summary>
/// <param name="RecipeId">The recipe.</param>
/// <param name="Name">Its name.</param>
/// <param name="Portions">How many portions it makes.</param>
/// <param name="Takes">How much of the food it takes for them, as purchased.</param>
public sealed record RecipeUse(Guid RecipeId, string Name, int Portions, Grams Takes);

/// <summary>What could be made of what will be over: "180 g of yogurt will be over: 2 recipes could use it".</summary>
public static class OverOffers
{
    /// <summary>
    /// The recipes that use the food: first those for which what is over is enough, those that use most of it first; then those that
    /// need more than is over, those that need least more first.
    /// </summary>
    public static IReadOnlyList<RecipeUse> For(Grams over, IEnumerable<RecipeUse> uses)
    {
        ArgumentNullException.ThrowIfNull(uses);
        if (over <= Grams.Zero) return [];
        return [.. uses.Where(use => use.Takes > Grams.Zero).OrderBy(use => use.Takes > over)
            .ThenBy(use => use.Takes > over ? use.Takes.Value : -use.Takes.Value).ThenBy(use => use.Name, StringComparer.Ordinal)];
    }
}
