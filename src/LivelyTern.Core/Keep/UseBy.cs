using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Keep;

/// <summary>How long one kind of cooked food keeps.</summary>
/// <param name="Kind">The kind, as a label says it.</param>
/// <param name="FridgeDays">Days after the day it was cooked.</param>
/// <param name="FreezerDays">Days in the freezer.</param>
/// <param name="Source">The guideline.</param>
public sealed record KeepingRule(string Kind, int FridgeDays, int FreezerDays, string Source);

/// <summary>The last days of a box.</summary>
/// <param name="Fridge">The last day from the fridge.</param>
/// <param name="Freezer">The last day where it was frozen on the day it was packed.</param>
/// <param name="Rule">The rule it rests on.</param>
public sealed record UseBy(DateOnly Fridge, DateOnly Freezer, KeepingRule Rule)
{
    private const string Chart = "FoodSafety.gov cold food storage chart (from memory)";

    /// <summary>
    /// Cooked meat, poultry, soups, stews, egg dishes and mixed salads: 3 to 4 days in the fridge, of which the shorter end is taken; the
    /// shortest freezer time of the chart's kinds that freeze.
    /// </summary>
    public static KeepingRule Cooked { get; } = new("cooked dishes", 3, 60, Chart);

    /// <summary>
    /// Cooked rice is kept a day. Source: UK Food Standards Agency (from memory); the strictest of the two guideline sets.
    /// </summary>
    public static KeepingRule Rice { get; } = new("cooked rice", 1, 60, "UK Food Standards Agency: cooked rice within 24 hours (from memory)");

    /// <summary>The last days of a batch: the strictest of its ingredients' rules, from the day it is cooked.</summary>
    /// <param name="batch">Cooked, or still to be: then today at the earliest.</param>
    /// <param name="today">The household's day.</param>
    public static UseBy Of(Batch batch, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(batch);
        var rule = batch.Contents.Ingredients.Any(part => part.Food.Name.Contains("rice", StringComparison.OrdinalIgnoreCase) && part.Food.Group == FoodGroup.Grains) ? Rice : Cooked;
        var cookedOn = batch.EatenFrom(today);
        return new(KitchenDays.After(cookedOn, rule.FridgeDays), KitchenDays.After(cookedOn, rule.FreezerDays), rule);
    }

    /// <summary>
    /// Whether its days in the fridge are over: then nobody knows here whether it was frozen in time, and the program does not offer it of
    /// itself.
    /// </summary>
    public bool IsOver(DateOnly today) => Fridge < today;

    /// <summary>Whether a box eaten on a day has to come out of the freezer.</summary>
    public bool IsFrozenFor(DateOnly day) => day > Fridge;
}
