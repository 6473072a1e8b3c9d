using System.Runtime.CompilerServices;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Keep;

/// <summary>What is in something, to the rules of how long it keeps.</summary>
public static class KeepingKinds
{
    /// <summary>
    /// The kinds in a cooked batch: a cooked dish at least, each of its ingredients, and what its name says. Boiled eggs and nothing else
    /// are hard-cooked eggs. A batch that nobody cooks through (a salad) is what its name says it is.
    /// </summary>
    public static IReadOnlyList<KeepingKind> Of(Batch batch) => Known.GetValue(batch, Read);

    // A batch is asked again for each of its boxes.
    private static readonly ConditionalWeakTable<Batch, IReadOnlyList<KeepingKind>> Known = [];

    private static IReadOnlyList<KeepingKind> Read(Batch batch)
    {
        var dish = KeepingWords.OfDish(batch.RecipeName);
        var foods = batch.Contents.Ingredients.Select(part => part.Food).ToList();
        if (dish == KeepingKind.HardCookedEgg)
        {
            var isAllEggs = foods.TrueForAll(food => food.Group is FoodGroup.Eggs or FoodGroup.Seasonings);
            return [isAllEggs ? KeepingKind.HardCookedEgg : KeepingKind.EggDish];
        }

        var kinds = foods.Select(food => Cooked(food.Keeping)).Append(KeepingKind.Ordinary);
        return [.. (dish is { } said ? kinds.Append(said) : kinds).Distinct()];
    }

    /// <summary>The kind of a plain food that is put into a box as it is: null for what has a date on its own package only.</summary>
    public static KeepingKind? Of(FoodInBox plain)
    {
        ArgumentNullException.ThrowIfNull(plain);
        return plain.Food.Food.Keeping == KeepingKind.Ordinary ? null : plain.Food.Food.Keeping;
    }

    // In a dish, bacon and ham are meat like any other, and a boiled egg is egg.
    private static KeepingKind Cooked(KeepingKind kind) => kind switch
    {
        KeepingKind.Bacon or KeepingKind.ColdMeat or KeepingKind.RawMince or KeepingKind.RawMeat => KeepingKind.Meat,
        KeepingKind.RawPoultry => KeepingKind.Poultry,
        KeepingKind.HardCookedEgg or KeepingKind.EggInShell => KeepingKind.EggDish,
        _ => kind,
    };
}
