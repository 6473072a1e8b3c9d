using LivelyTern.Core.Foods;

namespace LivelyTern.Devices;

/// <summary>A product as a look-up device knows it: its name and the label on its package.</summary>
/// <param name="Gtin">The number under its barcode, 14 digits.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Group">Its kind.</param>
/// <param name="Label">Its label as printed.</param>
/// <param name="PackageGrams">What a package holds, in grams.</param>
/// <param name="Allergens">The allergens it names.</param>
public sealed record Product(
    string Gtin, string Name, FoodGroup Group, Label Label, decimal? PackageGrams, IReadOnlyList<Allergen> Allergens);

/// <summary>Looks a product up by the number under its barcode.</summary>
public interface IProductLookUp
{
    /// <summary>The product, or null where the device knows none of this number.</summary>
    /// <param name="gtin">14 digits, check digit right (<see cref="Gtin.Read"/>).</param>
    /// <param name="stop">Ends the waiting.</param>
    Task<Product?> FindAsync(string gtin, CancellationToken stop = default);
}

/// <summary>
/// The stand-in that ships: a shelf of made-up products, numbered from the range that GS1 keeps for use within one shop (020 to 029), so
/// that none is the number of a real product.
/// </summary>
public sealed class SimulatedLookUp : IProductLookUp
{
    /// <summary>The made-up shelf. One label can't be right, as happens: its protein was printed ten times over.</summary>
    public static IReadOnlyList<Product> Shelf { get; } =
    [
        Of(
            "0200000000013", "Island oat crackers", FoodGroup.Grains,
            new(
                LabelBasis.PerServing, 34, CarbohydrateConvention.Total, Kilocalories: 150, Protein: 3, Fat: 6, SaturatedFat: 1,
                Carbohydrate: 22, Sugars: 1, Fibre: 3, SodiumMilligrams: 170),
            204, Allergen.Gluten),
        Of(
            "0200000000020", "Harbour rye crispbread", FoodGroup.Grains,
            new(
                LabelBasis.Per100g, 12, CarbohydrateConvention.WithoutFibre, Kilocalories: 341, Kilojoules: 1436, Protein: 9, Fat: 1.5m,
                SaturatedFat: 0.3m, Carbohydrate: 64, Sugars: 1.5m, Fibre: 18, SaltGrams: 1.2m),
            250, Allergen.Gluten),
        Of(
            "0200000000037", "Lamp room lentil soup", FoodGroup.Pulses,
            new(
                LabelBasis.Per100g, 300, CarbohydrateConvention.WithoutFibre, Kilocalories: 62, Kilojoules: 261, Protein: 3.6m, Fat: 1.1m,
                SaturatedFat: 0.2m, Carbohydrate: 8.1m, Sugars: 2, Fibre: 2.4m, SaltGrams: 0.7m),
            600, Allergen.Celery),
        Of(
            "0200000000044", "Strait skyr, plain", FoodGroup.Dairy,
            new(
                LabelBasis.Per100g, 150, CarbohydrateConvention.WithoutFibre, Kilocalories: 63, Kilojoules: 267, Protein: 11, Fat: 0.2m,
                SaturatedFat: 0.1m, Carbohydrate: 4, Sugars: 4, Fibre: 0, SaltGrams: 0.1m),
            450, Allergen.Milk),
        Of(
            "0200000000051", "Night watch protein bar", FoodGroup.Sweets,
            new(
                LabelBasis.PerServing, 55, CarbohydrateConvention.Total, Kilocalories: 190, Protein: 20, Fat: 7, SaturatedFat: 3,
                Carbohydrate: 21, Sugars: 2, Fibre: 5, Polyols: 12, SodiumMilligrams: 180),
            55, Allergen.Milk, Allergen.Peanuts),
        Of(
            "0200000000068", "Keeper's slaw", FoodGroup.Vegetables,
            new(
                LabelBasis.PerServing, 85, CarbohydrateConvention.Total, Kilocalories: 30, Protein: 1, Fat: 0.5m, SaturatedFat: 0,
                Carbohydrate: 6, Sugars: 3, Fibre: 2, SodiumMilligrams: 90),
            340),
        Of(
            "0200000000075", "Gale smoked tofu", FoodGroup.Pulses,
            new(
                LabelBasis.Per100g, null, CarbohydrateConvention.WithoutFibre, Kilojoules: 745, Protein: 18, Fat: 11, SaturatedFat: 1.7m,
                Carbohydrate: 1, Sugars: 0.5m, Fibre: 1.2m, SaltGrams: 1.1m),
            200, Allergen.Soy),
        Of(
            "0200000000082", "Tide pool seaweed crisps", FoodGroup.Sweets,
            new(
                LabelBasis.Per100g, null, CarbohydrateConvention.WithoutFibre, Kilocalories: 480, Protein: 65, Fat: 25, SaturatedFat: 2.5m,
                Carbohydrate: 50, Sugars: 3, Fibre: 7, SaltGrams: 2),
            80),
    ];

    /// <inheritdoc/>
    public Task<Product?> FindAsync(string gtin, CancellationToken stop = default) =>
        Task.FromResult(Shelf.FirstOrDefault(product => string.Equals(product.Gtin, gtin, StringComparison.Ordinal)));

    // The last digit is the check digit of those before it.
    private static Product Of(
        string number, string name, FoodGroup group, Label label, decimal? package, params IReadOnlyList<Allergen> allergens)
    {
        var digits = number[..^1];
        return new((digits + Gtin.CheckDigit(digits)).PadLeft(14, '0'), name, group, label, package, allergens);
    }
}
