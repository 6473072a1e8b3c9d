using LivelyTern.Core.Foods;

namespace LivelyTern.Core.Cook;

/// <summary>A food that stands in for another in one batch, or on one day: "not sold here".</summary>
/// <param name="FoodId">The food that was to go in.</param>
/// <param name="InsteadId">The food that goes in.</param>
/// <param name="PerGram">How many grams of it for a gram of the other; above 0 and up to 20.</param>
public sealed record Substitution(string FoodId, string InsteadId, decimal PerGram)
{
    /// <summary>The most grams that stand in for one.</summary>
    public const decimal MostPerGram = 20;

    /// <summary>
    /// The same contents with the other food: 400 g of spinach are 300 g of kale at 0.75 a gram. What is weighed nowhere, a pinch, is a
    /// pinch of the other. Where the other food is not known any more it stays as it was.
    /// </summary>
    /// <param name="contents">What was to go in.</param>
    /// <param name="find">A food by its id, or null.</param>
    public Contents In(Contents contents, Func<string, Food?> find)
    {
        ArgumentNullException.ThrowIfNull(contents);
        ArgumentNullException.ThrowIfNull(find);
        if (!contents.Ingredients.Any(Is) || find(InsteadId) is not { } instead) return contents;
        Ingredient Swapped(Ingredient part) => Is(part) ? part with { Food = instead, Weight = part.Weight * PerGram } : part;
        return contents with { Ingredients = [.. contents.Ingredients.Select(Swapped)] };
    }

    /// <summary>Contents with every one of these, in their order.</summary>
    public static Contents All(IEnumerable<Substitution> all, Contents contents, Func<string, Food?> find)
    {
        ArgumentNullException.ThrowIfNull(all);
        return all.Aggregate(contents, (changed, one) => one.In(changed, find));
    }

    private bool Is(Ingredient part) => string.Equals(part.Food.Id, FoodId, StringComparison.Ordinal);
}
