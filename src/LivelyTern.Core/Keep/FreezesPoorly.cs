using LivelyTern.Core.Foods;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Keep;

/// <summary>What becomes of some foods in the freezer: they stay safe, and are not what they were.</summary>
/// <param name="Words">The words of a food's name that mean it.</param>
/// <param name="Groups">The kinds of food it may be of.</param>
/// <param name="LeastShare">The least share of the box, by raw weight, from which it is noticed.</param>
/// <param name="Becomes">What it becomes, said after its name.</param>
public sealed record FreezesPoorly(IReadOnlySet<string> Words, IReadOnlyList<FoodGroup> Groups, decimal LeastShare, string Becomes)
{
    /// <summary>Where the table comes from.</summary>
    public const string Source = "National Center for Home Food Preservation, foods that do not freeze well (from memory)";

    private static readonly IReadOnlyList<FreezesPoorly> All =
    [
        new(Said("lettuce", "rocket", "watercress", "cucumber", "radish"), [FoodGroup.Vegetables], 0.15m, "goes limp"),
        new(Said("potato"), [FoodGroup.Potatoes], 0.15m, "turns soft and grainy"),
        new(Said("mayonnaise", "aioli"), [FoodGroup.Fats], 0.03m, "splits"),
        new(Said("yogurt", "cream", "quark", "skyr"), [FoodGroup.Dairy], 0.05m, "may split"),
        new(Said("egg"), [FoodGroup.Eggs], 0.5m, "turns rubbery"),
        new(Said("pasta", "macaroni", "noodle", "spaghetti", "orzo"), [FoodGroup.Grains], 0.2m, "goes soft"),
    ];

    /// <summary>What in a box does not freeze well, the most of it first: "boiled potatoes turns soft and grainy".</summary>
    /// <param name="box">The box.</param>
    public static IReadOnlyList<(Food Food, string Becomes)> In(Box box)
    {
        ArgumentNullException.ThrowIfNull(box);
        var all = box.Contents.Gathered().Ingredients;
        var whole = all.Sum(part => part.Weight.Value);
        if (whole <= 0) return [];
        FreezesPoorly? Of(Ingredient part) =>
            All.FirstOrDefault(one => one.Means(part.Food) && part.Weight.Value >= whole * one.LeastShare);
        var poor = all.OrderByDescending(part => part.Weight.Value).Select(part => (part.Food, Of(part)?.Becomes));
        return [.. poor.Where(one => one.Becomes is not null).Select(one => (one.Food, one.Becomes!))];
    }

    private bool Means(Food food) => Groups.Contains(food.Group) && FoodWords.All(food.Name).Any(Words.Contains);

    private static HashSet<string> Said(params string[] words) => new(words, StringComparer.Ordinal);
}
