using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Cook;

/// <summary>What an expected weight rests on.</summary>
public enum ExpectedFrom
{
    /// <summary>Batches of the same recipe that were weighed.</summary>
    EarlierBatches,

    /// <summary>The cooked weight written in the recipe.</summary>
    Recipe,

    /// <summary>What goes in, for want of anything better.</summary>
    WhatGoesIn,

    /// <summary>The parts that a put-together dish is made of, as far as each is weighed or expected.</summary>
    Parts,
}

/// <summary>What a batch will weigh when it is cooked: raw weight x yield factor.</summary>
/// <param name="Weight">The mean, in whole grams as a scale reads them.</param>
/// <param name="Spread">How far earlier batches lay from it either way, in grams (their standard deviation); 0 where fewer than two were
/// weighed.</param>
/// <param name="From">What it rests on.</param>
public sealed record ExpectedWeight(Grams Weight, Grams Spread, ExpectedFrom From)
{
    /// <summary>
    /// The cook's own history first: 4,200 and 4,400 g from 5,000 g raw each is a yield of 0.86, so 3,000 g raw are expected to weigh 2,580
    /// g, give or take 85. Without one, the recipe's own cooked weight in proportion; without that, what goes in.
    /// </summary>
    /// <param name="raw">What goes into this batch.</param>
    /// <param name="recipeYield">Cooked by raw weight as the recipe has it; null where it states none.</param>
    /// <param name="earlier">Cooked by raw weight of earlier batches, any order.</param>
    public static ExpectedWeight Of(Grams raw, decimal? recipeYield, IReadOnlyList<decimal> earlier)
    {
        ArgumentNullException.ThrowIfNull(earlier);
        return UsualYield.Of(earlier) is { } usual
            ? new(Whole(raw * usual.Mean), raw * usual.Spread, ExpectedFrom.EarlierBatches)
            : new(Whole(raw * (recipeYield ?? 1)), Grams.Zero, recipeYield is null ? ExpectedFrom.WhatGoesIn : ExpectedFrom.Recipe);
    }

    private static Grams Whole(Grams weight) => new(Rounding.ToStep(weight.Value, 1));
}
