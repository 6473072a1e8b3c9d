using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Cook;

/// <summary>The weight of a finished batch: full pan less empty pan.</summary>
public static class CookedWeight
{
    /// <summary>The heaviest full pan a kitchen lifts.</summary>
    public static readonly Grams Heaviest = new(100_000m);

    /// <summary>6,330 g on the scale less a pot of 1,630 g are 4,700 g of food.</summary>
    /// <param name="full">The full pan.</param>
    /// <param name="pan">The empty pan; zero where the food itself was weighed.</param>
    /// <returns>Grams of food, to the milligram, or what is wrong with a weight.</returns>
    public static Outcome<Grams> Of(Grams full, Grams pan)
    {
        if (pan < Grams.Zero) return new Problem("weight-negative", "panGrams", "A pan can't weigh less than nothing.");
        if (pan > Heaviest) return new Problem("weight-absurd", "panGrams", "That pan would weigh more than 100 kg: check the number.");
        if (full > Heaviest) return new Problem("weight-absurd", "fullGrams", "That is more than 100 kg: check the number.");
        if (full < pan)
            return new Problem(
                "weight-below-pan", "fullGrams",
                $"The full pan ({full.Value:0.#} g) weighs less than the empty one ({pan.Value:0.#} g): weigh again, or check which is "
                + "which.");
        if ((full - pan).ToMilligram() == Grams.Zero)
            return new Problem("weight-nothing", "fullGrams", "Full and empty pan weigh the same: there is no food in it.");
        return (full - pan).ToMilligram();
    }
}
