using System.Globalization;
using System.Reflection;
using CsvHelper;
using CsvHelper.Configuration;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Data.Foods;

/// <summary>
/// The built-in generic foods, per 100 g, carbohydrate with fibre. An empty cell is "not known". Values from memory of USDA FoodData
/// Central, SR Legacy; salt is its sodium x 2.5; alcohol is none in every one of them, polyols it does not report.
/// </summary>
public static class FoodTable
{
    /// <summary>Where every figure of the table comes from.</summary>
    public const string Source = "USDA FoodData Central, SR Legacy, from memory";

    /// <summary>Reads the table that ships with the program.</summary>
    public static IReadOnlyList<Food> Read()
    {
        using var stream = Assembly.GetExecutingAssembly().GetManifestResourceStream("LivelyTern.Data.Foods.foods.csv")!;
        using var reader = new StreamReader(stream);
        using var csv = new CsvReader(reader, new CsvConfiguration(CultureInfo.InvariantCulture) { PrepareHeaderForMatch = header => header.Header.ToLowerInvariant() });
        return [.. csv.GetRecords<Row>().Select(row => row.ToFood())];
    }

    private sealed record Row(
        string Id, string Name, string Aliases, FoodGroup Group, decimal? Energy, decimal? Protein, decimal? Fat, decimal? SaturatedFat,
        decimal? Carbohydrate, decimal? Sugars, decimal? Fibre, decimal? Salt, string Measures)
    {
        public Food ToFood() => new(
            Id,
            Name,
            Aliases.Split('|', StringSplitOptions.RemoveEmptyEntries),
            Group,
            new Nutrients(Energy, Protein, Fat, SaturatedFat, Carbohydrate, Sugars, Fibre, Salt, Polyols: null, Alcohol: 0),
            CarbohydrateConvention.Total,
            [.. Measures.Split(';', StringSplitOptions.RemoveEmptyEntries).Select(pair => pair.Split('='))
                .Select(pair => new HouseholdMeasure(pair[0], new Grams(decimal.Parse(pair[1], CultureInfo.InvariantCulture)), Source))],
            Source);
    }
}
