using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>A package of a food, and what it costs where that was noted.</summary>
/// <param name="Holds">What is in it.</param>
/// <param name="Price">What it costs, in the household's currency; null where nobody noted it.</param>
/// <param name="Ml">What it fills, in millilitres, where it is sold by volume.</param>
public sealed record SoldPackage(Grams Holds, decimal? Price, decimal? Ml = null);

/// <summary>How a food is sold where this household shops.</summary>
/// <param name="Packages">The packages; where it is sold loose, the amounts that a price was noted for.</param>
/// <param name="IsLoose">Whether any weight of it can be bought.</param>
/// <param name="Aisle">In which aisle it stands; null for where such foods usually do.</param>
public sealed record SoldAs(IReadOnlyList<SoldPackage> Packages, bool IsLoose, string? Aisle)
{
    /// <summary>As the household says: where it names no package, any weight can be bought.</summary>
    public static SoldAs Said(IReadOnlyList<SoldPackage> packages, bool isLoose, string? aisle)
    {
        ArgumentNullException.ThrowIfNull(packages);
        return new(packages, isLoose || packages.Count == 0, aisle);
    }

    /// <summary>The largest package, in grams or millilitres.</summary>
    public const decimal LargestPackage = 100_000;

    private const decimal HighestPrice = 100_000;

    /// <summary>As a food is commonly sold, where the household has said nothing.</summary>
    public static SoldAs Commonly(Food food)
    {
        ArgumentNullException.ThrowIfNull(food);
        SoldPackage Package(decimal grams, int i) => new(new(grams), null, food.PackageMl.Count > 0 ? food.PackageMl[i] : null);
        return new([.. food.PackageGrams.Select(Package)], food.PackageGrams.Count == 0, null);
    }

    /// <summary>The sizes it can only be bought in; none where it is sold loose.</summary>
    public IReadOnlyList<Grams> Sizes => IsLoose ? [] : [.. Packages.Select(package => package.Holds)];

    /// <summary>
    /// What a gram costs: by the first package with a price, which is the household's usual one. Null where no price was noted.
    /// </summary>
    public decimal? PerGram =>
        Packages.FirstOrDefault(package => package is { Price: not null, Holds.Value: > 0 }) is { } usual
            ? usual.Price / usual.Holds.Value
            : null;

    /// <summary>What is bought costs so much; null where a price is missing.</summary>
    /// <param name="bought">The weight.</param>
    /// <param name="packages">In which packages; empty where it is bought loose.</param>
    public decimal? CostOf(Grams bought, IReadOnlyList<PackageCount> packages)
    {
        ArgumentNullException.ThrowIfNull(packages);
        if (packages.Count == 0) return PerGram * bought.Value;
        decimal? PriceOf(Grams size) => Packages.FirstOrDefault(package => package.Holds == size)?.Price;
        return packages.Aggregate((decimal?)0, (sum, some) => sum + (PriceOf(some.Size) * some.Count));
    }

    /// <summary>What is amiss with it.</summary>
    public IEnumerable<Problem> Problems()
    {
        if (Packages.Count > Shop.Packages.MostSizes)
            yield return new("packages-many", "packages", $"Up to {Shop.Packages.MostSizes} package sizes are kept for a food.");
        for (var i = 0; i < Packages.Count; i++)
        {
            if (Packages[i].Ml is not (null or (> 0 and <= LargestPackage)))
                yield return new("package-ml", $"packages[{i}].ml", "A package fills more than 0 ml and at most 100 l.");
            else if (Packages[i].Holds.Value is not (>= 0.1m and <= LargestPackage))
                yield return new("package-grams", $"packages[{i}].grams", "A package holds more than 0 g and at most 100 kg.");
            if (Packages[i].Price is { } price and not (>= 0 and <= HighestPrice))
                yield return new("package-price", $"packages[{i}].price", "A price is 0 or more, and at most 100,000.");
        }

        if (Packages.DistinctBy(package => package.Holds).Count() < Packages.Count)
            yield return new("packages-twice", "packages", "Each package size stands there once.");
    }
}
