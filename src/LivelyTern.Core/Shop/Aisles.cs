using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>An aisle of the shop, or the shop itself: "the market".</summary>
/// <param name="Id">Stays the same when it is renamed.</param>
/// <param name="Name">As the household calls it.</param>
public sealed record Aisle(string Id, string Name);

/// <summary>The aisles in the order in which this household walks them.</summary>
/// <param name="InOrder">The aisles, the first first.</param>
/// <param name="Currency">What stands before a price: "€", "kr"; empty for nothing.</param>
public sealed record Aisles(IReadOnlyList<Aisle> InOrder, string Currency)
{
    private const int Most = 40, LongestName = 40, LongestCurrency = 4;

    /// <summary>Where something stands whose aisle is not known, or is gone.</summary>
    public const string Other = "other";

    /// <summary>The aisles of a shop as most are laid out (common practice, no published source).</summary>
    public static Aisles AtFirst { get; } = new(
        [
            new("greens", "Fruit and vegetables"),
            new("bread", "Bread"),
            new("meat", "Meat and fish"),
            new("dairy", "Milk, cheese and eggs"),
            new("tins", "Tins and jars"),
            new("dry", "Grains, pulses and flour"),
            new("nuts", "Nuts and dried fruit"),
            new("spices", "Oil, spices and sauces"),
            new("sweets", "Sweet things"),
            new("frozen", "Frozen"),
            new(Other, "Everything else"),
        ],
        "");

    /// <summary>The aisle in which such a food usually stands.</summary>
    public static string Usual(Food food)
    {
        ArgumentNullException.ThrowIfNull(food);
        if (food.Storage == StorageKind.Freezer) return "frozen";
        if (food.DrainedShare is not null) return "tins";
        if (food.Use is "bread") return "bread";
        if (food.Use is "dried-fruit") return "nuts";
        var isShelved = food.Storage == StorageKind.Cupboard;
        return food.Group switch
        {
            FoodGroup.Vegetables or FoodGroup.Fruit or FoodGroup.Potatoes => IsTinned(food) ? "tins" : "greens",
            FoodGroup.Meat or FoodGroup.Fish => IsTinned(food) ? "tins" : "meat",
            FoodGroup.Dairy or FoodGroup.Eggs => isShelved && IsTinned(food) ? "tins" : "dairy",
            FoodGroup.Pulses => IsTinned(food) ? "tins" : food.Storage == StorageKind.Fridge ? "dairy" : "dry",
            FoodGroup.Grains => "dry",
            FoodGroup.NutsAndSeeds => "nuts",
            FoodGroup.Fats => food.Storage == StorageKind.Fridge ? "dairy" : "spices",
            FoodGroup.Seasonings => "spices",
            FoodGroup.Sweets => "sweets",
            _ => Other,
        };
    }

    private static bool IsTinned(Food food) =>
        food.Name.Contains("canned", StringComparison.Ordinal) || food.Name.Contains("tinned", StringComparison.Ordinal)
            || food.Name.Contains("jar", StringComparison.Ordinal);

    /// <summary>The aisle of a food: as the household says, else as usual; where that aisle is gone, with everything else.</summary>
    public Aisle Of(Food food, SoldAs sold)
    {
        ArgumentNullException.ThrowIfNull(sold);
        return Find(sold.Aisle ?? Usual(food)) ?? ForOthers;
    }

    /// <summary>Where something stands that was written on by hand: "milk" where milk does, what is no food with everything else.</summary>
    public Aisle OfWritten(string text, IFoods foods, Func<Food, SoldAs> sold)
    {
        ArgumentNullException.ThrowIfNull(sold);
        return FoodLine.Read("1 g " + text, foods).AsOne.Ingredient?.Food is { } food ? Of(food, sold(food)) : ForOthers;
    }

    /// <summary>Where that stands which has no aisle of its own.</summary>
    public Aisle ForOthers => Find(Other) ?? InOrder[^1];

    /// <summary>What is amiss with it.</summary>
    public IEnumerable<Problem> Problems()
    {
        if (InOrder.Count is 0 or > Most) yield return new("aisles-many", "inOrder", $"Keep between 1 and {Most} aisles.");
        for (var i = 0; i < InOrder.Count; i++)
        {
            if (InOrder[i].Name.Trim().Length is 0 or > LongestName)
                yield return new("aisle-name", $"inOrder[{i}].name", $"An aisle has a name of up to {LongestName} letters.");
            if (InOrder[i].Id.Length is 0 or > LongestName)
                yield return new("aisle-id", $"inOrder[{i}].id", $"An aisle has an id of up to {LongestName} letters.");
        }

        if (InOrder.DistinctBy(aisle => aisle.Id, StringComparer.Ordinal).Count() < InOrder.Count)
            yield return new("aisles-twice", "inOrder", "Two aisles have the same id.");
        if (Currency.Length > LongestCurrency)
            yield return new("currency-long", "currency", $"A currency is written in up to {LongestCurrency} letters.");
    }

    private Aisle? Find(string id) => InOrder.FirstOrDefault(aisle => string.Equals(aisle.Id, id, StringComparison.Ordinal));
}
