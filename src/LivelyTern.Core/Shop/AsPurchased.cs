using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>What must be bought for what goes into a pot: with its peel and its bone, and a tin with its liquid.</summary>
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
        var kept = food.Refuse is > 0 and < 1 ? 1 - food.Refuse : 1;
        if (isDrained && food.DrainedShare is > 0 and <= 1 and var share) kept *= share;
        return new(Math.Ceiling(eaten.Value / kept * 1000) / 1000);
    }
}
