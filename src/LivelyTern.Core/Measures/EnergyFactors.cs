namespace LivelyTern.Core.Measures;

/// <summary>
/// The general energy factors, kcal per gram: protein 4, fat 9, carbohydrate except polyols 4, fibre 2, polyols 2.4, alcohol 7.
/// Source: Regulation (EU) No 1169/2011, Annex XIV.
/// </summary>
public static class EnergyFactors
{
    /// <summary>Kilojoules in a kilocalorie (the thermochemical calorie, 4.184 J, NIST SP 811).</summary>
    public const decimal KilojoulesPerKilocalorie = 4.184m;

    private static readonly (Nutrient Nutrient, decimal Kcal)[] Table =
    [
        (Nutrient.Protein, 4m), (Nutrient.Fat, 9m), (Nutrient.Carbohydrate, 4m),
        (Nutrient.Fibre, 2m), (Nutrient.Polyols, 2.4m), (Nutrient.Alcohol, 7m),
    ];

    /// <summary>Kcal that a gram gives.</summary>
    public static decimal PerGram(Nutrient nutrient) => Table.Single(row => row.Nutrient == nutrient).Kcal;

    /// <summary>
    /// The energy, in kcal, that the factors give for the known parts. Polyols are within the carbohydrate of either label, fibre within
    /// that of one: they are taken out of it first, so that no gram is counted twice. 100 g of a European sweet with 95 g carbohydrate, of
    /// which 90 g are polyols, have 5 x 4 + 90 x 2.4 = 236 kcal.
    /// </summary>
    /// <param name="food">What 100 g hold.</param>
    /// <param name="carbohydrateContainsFibre">True for "total carbohydrate", false for carbohydrate without fibre.</param>
    public static decimal Kilocalories(Nutrients food, bool carbohydrateContainsFibre)
    {
        ArgumentNullException.ThrowIfNull(food);
        var kcal = Table.Sum(row => (food[row.Nutrient] ?? 0) * row.Kcal);
        var within = (food.Polyols ?? 0) + (carbohydrateContainsFibre ? food.Fibre ?? 0 : 0);
        return kcal - (Math.Min(within, food.Carbohydrate ?? 0) * 4m);
    }
}
