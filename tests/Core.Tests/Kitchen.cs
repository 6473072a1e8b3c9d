using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests;

/// <summary>
/// A few foods with round, invented figures, so that a wrong sum shows at a glance. Published values are checked on the real table in
/// Web.Tests.
/// </summary>
internal static class Kitchen
{
    public static Food Of(string name, Nutrients per100g, params (string Name, decimal Grams)[] measures) => new(
        name.Replace(' ', '-'), name, [], FoodGroup.Grains, per100g, CarbohydrateConvention.Total,
        [.. measures.Select(measure => new HouseholdMeasure(measure.Name, new Grams(measure.Grams), "test"))], "test");

    public static readonly Food Oats = Of("quick oats", new(Energy: 370, Protein: 13, Fat: 7, Fibre: 10), ("cup", 80));
    public static readonly Food RolledOats = Of("rolled oats", new(Energy: 380, Protein: 13, Fat: 6, Fibre: 10), ("cup", 81));
    public static readonly Food Milk = Of("oat milk", new(Energy: 50, Protein: 1, Fat: 2), ("cup", 240));
    public static readonly Food Egg = Of("egg", new(Energy: 140, Protein: 12, Fat: 10, Fibre: 0), ("large", 50), ("small", 40));
    public static readonly Food Butter = Of("butter", new(Energy: 717, Fat: 81, Fibre: 0), ("tbsp", 14), ("cup", 227));
    public static readonly Food Lentils = Of("red lentils, dry", new(Energy: 358, Protein: 24, Fat: 2, Fibre: 11), ("cup", 192));
    public static readonly Food Tomato = Of("tomato", new(Energy: 18, Protein: 1, Fibre: 1), ("medium", 123));
    public static readonly Food TinnedTomato = Of("chopped tomatoes, canned",
        new(Energy: 22, Protein: 1, Fibre: 1)) with
    { Aliases = ["chopped tomatoes"] };
    public static readonly Food Bread = Of("rye bread", new(Energy: 258, Protein: 8), ("slice", 32));
    public static readonly Food Barley = Of("pearl barley", new(Energy: 352, Protein: 10));
    public static readonly Food Salt = Of("salt", new(Energy: 0, Protein: 0, Salt: 97), ("tsp", 6));
    public static readonly Food Garlic = Of("garlic", new(Energy: 149), ("clove", 3));

    public static readonly FoodCatalogue Catalogue =
        new([Oats, RolledOats, Milk, Egg, Butter, Lentils, Tomato, TinnedTomato, Bread, Barley, Salt, Garlic]);

    /// <summary>A recipe of these lines.</summary>
    public static Recipe Recipe(int portions, params string[] lines) =>
        Read(new WrittenRecipe("", [.. lines.Select(line => new WrittenLine(line))], new(portions)));

    /// <summary>A recipe read against the catalogue.</summary>
    public static Recipe Read(WrittenRecipe written) => new RecipeBook(Catalogue, new Dictionary<Guid, WrittenRecipe>()).Read(written);

    public static Ingredient Grams(this Food food, decimal grams) => new(food, new Grams(grams));
}
