using System.Text.Json.Serialization;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Data.Foods;

#pragma warning disable CS1591 // Stored shapes mirror the core's records, where the units are documented.

/// <summary>A household measure as it is kept.</summary>
public sealed record StoredMeasure(string Name, decimal Grams, string Source);

/// <summary>What a cooked form is made of, as it is kept.</summary>
public sealed record StoredCookedFrom(string RawId, decimal YieldFactor, string Source);

/// <summary>A food as it is kept, apart from the core's record.</summary>
/// <param name="V">The version of this shape.</param>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Aliases">Other names.</param>
/// <param name="Group">Its kind.</param>
/// <param name="Per100g">kcal and grams of what is known; what is not known is left out.</param>
/// <param name="Convention">What its carbohydrate contains.</param>
/// <param name="Measures">Its household measures.</param>
/// <param name="Source">Where the figures come from.</param>
/// <param name="Refuse">The share thrown away.</param>
/// <param name="DrainedShare">The share left when drained.</param>
/// <param name="CookedFrom">What it is the cooked form of.</param>
/// <param name="PackageGrams">Sizes it is sold in.</param>
/// <param name="Allergens">Its allergens.</param>
/// <param name="Storage">Where it is kept as bought.</param>
/// <param name="Keeping">How long it keeps once cooked.</param>
/// <param name="Use">What it does in a dish.</param>
/// <param name="HasIncompleteProtein">Gelatin and collagen.</param>
/// <param name="Gtin">The number under its barcode.</param>
/// <param name="IsOwn">Whether the cook wrote it down.</param>
/// <param name="PointsPer100g">Points stated on it; left out where none are, so that what was kept before reads the same.</param>
/// <param name="Usual">Words that usually mean it; left out where there are none.</param>
/// <param name="PackageMl">What its packages fill, where it is sold by volume; else left out.</param>
public sealed record StoredFood(
    int V, string Id, string Name, IReadOnlyList<string> Aliases, FoodGroup Group, IReadOnlyDictionary<Nutrient, decimal> Per100g,
    CarbohydrateConvention Convention, IReadOnlyList<StoredMeasure> Measures, string Source, decimal Refuse, decimal? DrainedShare,
    StoredCookedFrom? CookedFrom, IReadOnlyList<decimal> PackageGrams, IReadOnlyList<Allergen> Allergens, StorageKind Storage,
    KeepingKind Keeping, string? Use, bool HasIncompleteProtein, string? Gtin, bool IsOwn,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] decimal? PointsPer100g = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<string>? Usual = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<decimal>? PackageMl = null)
{
    private const int Shape = 1;

    public static StoredFood Of(Food food)
    {
        ArgumentNullException.ThrowIfNull(food);
        var known = Nutrients.All.Where(nutrient => food.Per100g[nutrient] is not null);
        return new(
            Shape, food.Id, food.Name, food.Aliases, food.Group, known.ToDictionary(
                nutrient => nutrient, nutrient => food.Per100g[nutrient]!.Value),
            food.Convention, [.. food.Measures.Select(own => new StoredMeasure(own.Name, own.Weight.Value, own.Source))], food.Source,
            food.Refuse, food.DrainedShare, food.CookedFrom is { } raw ? new(raw.RawId, raw.YieldFactor, raw.Source) : null,
            food.PackageGrams, food.Allergens, food.Storage, food.Keeping, food.Use, food.HasIncompleteProtein, food.Gtin, food.IsOwn,
            food.PointsPer100g, food.Usual.Count > 0 ? food.Usual : null,
            food.PackageMl.Count > 0 ? food.PackageMl : null);
    }

    public Food ToFood()
    {
        decimal? Known(Nutrient nutrient) => Per100g.TryGetValue(nutrient, out var value) ? value : null;
        var per100g = new Nutrients(
            Known(Nutrient.Energy), Known(Nutrient.Protein), Known(Nutrient.Fat), Known(Nutrient.SaturatedFat),
            Known(Nutrient.Carbohydrate),
            Known(Nutrient.Sugars), Known(Nutrient.Fibre), Known(Nutrient.Salt), Known(Nutrient.Polyols), Known(Nutrient.Alcohol));
        return new(
            Id, Name, Aliases, Group, per100g, Convention,
            [.. Measures.Select(own => new HouseholdMeasure(own.Name, new(own.Grams), own.Source))], Source)
        {
            Refuse = Refuse,
            DrainedShare = DrainedShare,
            CookedFrom = CookedFrom is { } raw ? new(raw.RawId, raw.YieldFactor, raw.Source) : null,
            PackageGrams = PackageGrams,
            Allergens = Allergens,
            Storage = Storage,
            Keeping = Keeping,
            Use = Use,
            HasIncompleteProtein = HasIncompleteProtein,
            Gtin = Gtin,
            IsOwn = IsOwn,
            PointsPer100g = PointsPer100g,
            Usual = Usual ?? [],
            PackageMl = PackageMl ?? [],
        };
    }
}
