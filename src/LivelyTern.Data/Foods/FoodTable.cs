using System.Globalization;
using System.Reflection;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using Sylvan.Data.Csv;

namespace LivelyTern.Data.Foods;

/// <summary>
/// The built-in generic foods, per 100 g, carbohydrate with fibre. An empty cell is "not known", but for alcohol, which is none, and
/// polyols, which the source does not report. Salt is its sodium x 2.5.
/// </summary>
public static class FoodTable
{
    /// <summary>Where the figures per 100 g, the household measures and the refuse come from.</summary>
    public const string Source = "USDA FoodData Central, SR Legacy, from memory";

    /// <summary>Where the yield factors come from.</summary>
    public const string YieldSource =
        "USDA Agriculture Handbook 102, Food Yields, from memory; rounded to agree with the figures of both forms";

    /// <summary>Where package sizes, drained shares and storage come from.</summary>
    public const string TradeSource = "common practice, no published source";

    private const string InMl = "ml";

    /// <summary>Reads the table that ships with the program.</summary>
    public static IReadOnlyList<Food> Read()
    {
        using var stream = Assembly.GetExecutingAssembly().GetManifestResourceStream("LivelyTern.Data.Foods.foods.csv")!;
        using var csv = CsvDataReader.Create(new StreamReader(stream), new CsvDataReaderOptions { OwnsReader = true });
        var foods = new List<Food>();
        while (csv.Read()) foods.Add(Row(csv));
        return foods;
    }

    private static Food Row(CsvDataReader csv)
    {
        string Text(string column) => csv.GetString(csv.GetOrdinal(column));
        var group = Enum.Parse<FoodGroup>(Text("group"));
        string[] Texts(string column, char between) => Text(column).Split(between, StringSplitOptions.RemoveEmptyEntries);
        decimal ToNumber(string text) => decimal.Parse(text, CultureInfo.InvariantCulture);
        decimal? Number(string column) => Text(column) is { Length: > 0 } text ? ToNumber(text) : null;
        var food = new Food(
            Text("id"), Text("name"), Text("aliases").Split('|', StringSplitOptions.RemoveEmptyEntries), group,
            new Nutrients(
                Number("energy"), Number("protein"), Number("fat"), Number("saturatedFat"), Number("carbohydrate"), Number("sugars"),
                Number("fibre"), Number("salt"), Number("polyols"), Number("alcohol") ?? 0),
            CarbohydrateConvention.Total, ImportedRow.MeasuresOf(Text("measures"), Source), Source)
        {
            Usual = Texts("usual", '|'),
            Refuse = Number("refuse") ?? 0,
            DrainedShare = Number("drained"),
            CookedFrom = Text("cookedFrom").Split('*') is [var raw, var factor]
                ? new(raw, decimal.Parse(factor, CultureInfo.InvariantCulture), YieldSource)
                : null,
            Allergens = [.. Texts("allergens", '|').Select(name => Enum.Parse<Allergen>(name, ignoreCase: true))],
            Storage = Text("storage") is { Length: > 0 } storage ? Enum.Parse<StorageKind>(storage, ignoreCase: true) : StorageOf(group),
            Use = Text("use") is { Length: > 0 } use ? use : null,
            HasIncompleteProtein = Text("incomplete").Length > 0,
            Keeping = Text("keeping") is { Length: > 0 } keeping
                ? Enum.Parse<KeepingKind>(keeping, ignoreCase: true)
                : KeepingWords.Of(Text("name"), group),
        };
        var sizes = Texts("packages", ';');
        bool IsFilled(string size) => size.EndsWith(InMl, StringComparison.Ordinal);
        if (!Array.Exists(sizes, IsFilled)) return food with { PackageGrams = [.. sizes.Select(ToNumber)] };
        List<decimal> fills = [.. sizes.Select(size => ToNumber(size[..^InMl.Length]))];
        return food with { PackageMl = fills, PackageGrams = [.. fills.Select(ml => food.PackageOf(ml)!.Value.Value)] };
    }

    private static StorageKind StorageOf(FoodGroup group) => group switch
    {
        FoodGroup.Vegetables or FoodGroup.Fruit or FoodGroup.Dairy or FoodGroup.Eggs or FoodGroup.Fish or FoodGroup.Meat =>
            StorageKind.Fridge,
        FoodGroup.Potatoes => StorageKind.Counter,
        _ => StorageKind.Cupboard,
    };
}
