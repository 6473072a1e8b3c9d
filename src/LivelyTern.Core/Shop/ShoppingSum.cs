using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>An amount of a food that is needed, as it is purchased.</summary>
public sealed record Needed(Food Food, Grams Purchased);

/// <summary>One food of a shopping list. What is needed and what will be over is what is bought and what is there, exactly.</summary>
/// <param name="Food">The food.</param>
/// <param name="Need">What all that is planned takes of it, as purchased.</param>
/// <param name="Have">What is in the house.</param>
/// <param name="Buy">What is bought.</param>
/// <param name="Packages">In which packages; empty where it is sold by weight, or nothing is bought.</param>
/// <param name="Over">What will be over.</param>
public sealed record ShopLine(Food Food, Grams Need, Grams Have, Grams Buy, IReadOnlyList<PackageCount> Packages, Grams Over);

/// <summary>Needs summed by food, less what is in the house, up to packages really sold.</summary>
public static class ShoppingSum
{
    /// <summary>A line for each food that is needed, in the order in which it is needed first.</summary>
    /// <param name="needs">What is needed.</param>
    /// <param name="pantry">What is in the house, as purchased.</param>
    /// <param name="packages">The sizes sold, by food; a food that is not listed is sold by weight.</param>
    public static IReadOnlyList<ShopLine> Of(
        IReadOnlyList<Needed> needs, IReadOnlyList<Needed> pantry, IReadOnlyDictionary<string, IReadOnlyList<Grams>> packages)
    {
        ArgumentNullException.ThrowIfNull(needs);
        ArgumentNullException.ThrowIfNull(pantry);
        ArgumentNullException.ThrowIfNull(packages);
        var there = pantry.GroupBy(item => item.Food.Id, StringComparer.Ordinal)
            .ToDictionary(same => same.Key, same => Sum(same), StringComparer.Ordinal);
        return [.. needs.GroupBy(need => need.Food.Id, StringComparer.Ordinal).Select(LineOf)];

        ShopLine LineOf(IGrouping<string, Needed> same)
        {
            IReadOnlyList<Grams> sizes = packages.TryGetValue(same.Key, out var sold) ? sold : [];
            return Of(same.First().Food, Sum(same), there.GetValueOrDefault(same.Key), sizes);
        }
    }

    /// <summary>The line of one food.</summary>
    /// <param name="food">The food.</param>
    /// <param name="need">What is needed.</param>
    /// <param name="have">What is there.</param>
    /// <param name="sizes">The sizes sold; none where any weight is.</param>
    public static ShopLine Of(Food food, Grams need, Grams have, IReadOnlyList<Grams> sizes)
    {
        var missing = need > have ? need - have : Grams.Zero;
        var packages = Packages.For(missing, sizes);
        var buy = packages.Count == 0 ? missing : new(packages.Sum(some => some.Size.Value * some.Count));
        return new(food, need, have, buy, packages, buy + have - need);
    }

    private static Grams Sum(IEnumerable<Needed> all) => new(all.Sum(one => Math.Max(0, one.Purchased.Value)));
}
