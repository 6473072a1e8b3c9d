using LivelyTern.Core.Foods;

namespace LivelyTern.Core.Keep;

/// <summary>How long one kind of cooked food keeps.</summary>
/// <param name="Kind">The kind, as a label says it.</param>
/// <param name="FridgeDays">Days after the day it was cooked.</param>
/// <param name="FreezerDays">Days in the freezer.</param>
/// <param name="Source">The guideline.</param>
public sealed record KeepingRule(string Kind, int FridgeDays, int FreezerDays, string Source)
{
    /// <summary>
    /// Cooked meat, poultry, soups, stews, egg dishes and mixed salads: 3 to 4 days in the fridge, of which the shorter end is taken; the
    /// shortest freezer time of the chart's kinds that freeze.
    /// </summary>
    public static KeepingRule Cooked { get; } = new("cooked dishes", 3, 60, "FoodSafety.gov cold food storage chart (from memory)");

    /// <summary>
    /// Cooked rice is kept a day. Source: UK Food Standards Agency (from memory); the strictest of the two guideline sets.
    /// </summary>
    public static KeepingRule Rice { get; } = new(
        "cooked rice", 1, 60, "UK Food Standards Agency: cooked rice within 24 hours (from memory)");

    /// <summary>
    /// Days in the fridge after a box came out of the freezer. Source: UK Food Standards Agency, within 24 hours of defrosting (from
    /// memory).
    /// </summary>
    public const int DaysThawed = 1;

    /// <summary>The rule of a kind.</summary>
    public static KeepingRule Of(KeepingKind kind) => kind == KeepingKind.Rice ? Rice : Cooked;

    /// <summary>The strictest rule of everything that is in something.</summary>
    public static KeepingRule Of(Contents contents)
    {
        ArgumentNullException.ThrowIfNull(contents);
        var kinds = contents.Ingredients.Select(part => part.Food.Keeping).Append(KeepingKind.Ordinary).Distinct();
        return kinds.Select(Of).MinBy(rule => rule.FridgeDays)!;
    }
}
