using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>What must be bought for what goes into a pot: with peel and bone, a tin with its liquid, rice before it is boiled.</summary>
public static class AsPurchased
{
    /// <summary>
    /// 300 g of a food of which a tenth is thrown away are 333.334 g bought: up to the milligram, so that nothing is short.
    /// </summary>
    /// <param name="food">The food.</param>
    /// <param name="eaten">What goes into the pot.</param>
    /// <param name="isDrained">Whether it is weighed drained, out of its liquid.</param>
    public static Grams Of(Food food, Grams eaten, bool isDrained)
    {
        ArgumentNullException.ThrowIfNull(food);
        if (eaten.Value <= 0) return Grams.Zero;
        var kept = KeptOf(food);
        if (isDrained && food.DrainedShare is > 0 and <= 1 and var share) kept *= share;
        return new(Math.Ceiling(eaten.Value / kept * 1000) / 1000);
    }

    /// <summary>The share of the bought weight that is eaten, above 0.</summary>
    public static decimal KeptOf(Food food)
    {
        ArgumentNullException.ThrowIfNull(food);
        return food.Refuse is > 0 and < 1 ? 1 - food.Refuse : 1;
    }

    /// <summary>
    /// What is bought for something eaten: 140 g of boiled rice are 50 g of dry rice; what is sold as it is eaten is bought so. Null where
    /// nothing is bought: water from the tap.
    /// </summary>
    /// <param name="eaten">The food and its weight.</param>
    /// <param name="note">How its line says it is prepared: "drained".</param>
    /// <param name="find">A food by its id, or null.</param>
    public static Needed? Of(Ingredient eaten, string note, Func<string, Food?> find)
    {
        ArgumentNullException.ThrowIfNull(eaten);
        ArgumentNullException.ThrowIfNull(find);
        var (food, weight) = (eaten.Food, eaten.Weight);
        if (food.CookedFrom is { YieldFactor: > 0 } from && food.PackageGrams.Count == 0 && find(from.RawId) is { } raw)
            (food, weight) = (raw, weight * (1 / from.YieldFactor));
        if (string.Equals(food.Id, TapWater, StringComparison.Ordinal)) return null;
        return new(food, Of(food, weight, IsDrained(food, note)));
    }

    /// <summary>
    /// What a line says that is there or is to be bought, as purchased: "500 g onions" are weighed with their peel, "3 onions" are three
    /// whole ones, "2 tins" have their liquid. Empty where it is not understood; a trace weighs nothing.
    /// </summary>
    public static IReadOnlyList<Needed> Said(FoodLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        if (line.Several.Count > 0) return [.. line.Several.SelectMany(Said)];
        if (line.Ingredient is not { } part) return [];
        var isWeighed = line.Parts is { Measure: null, Amount.Unit: not null };
        return [new(part.Food, isWeighed ? part.Weight.ToMilligram() : Of(part.Food, part.Weight, IsDrained(part.Food, line.Parts.Note)))];
    }

    private const string TapWater = "water";

    private static bool IsDrained(Food food, string note) =>
        note.Contains("drained", StringComparison.OrdinalIgnoreCase) || food.Name.Contains("drained", StringComparison.OrdinalIgnoreCase);
}
