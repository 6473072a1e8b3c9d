using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;

namespace LivelyTern.Core.Tests.Plan;

/// <summary>A restaurant or a party, entered ahead off its menu or as an estimate with a range.</summary>
public sealed class MealOutTests
{
    private static MenuItem Item(decimal kcal, decimal? high = null, decimal? protein = null, decimal? salt = null)
    {
        var figures = new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = kcal };
        if (protein is { } grams) figures[Nutrient.Protein] = grams;
        if (salt is { } more) figures[Nutrient.Salt] = more;
        return new("a plate", figures, high);
    }

    private static Totals Holds(MealOut meal) => new Contents([meal.Food]).Totals;

    [Fact]
    public void An_estimate_counts_its_middle_and_says_how_far_off_it_may_be()
    {
        var meal = MealOut.Of(" Harbour supper ", [Item(600, 900)]).Value!;
        Assert.Equal((750m, 150m, "Harbour supper"), (Holds(meal)[Nutrient.Energy].Known, meal.GiveOrTake, meal.Food.Food.Name));
        Assert.Equal(0, MealOut.Of("Canteen", [Item(600)]).Value!.GiveOrTake);
        Assert.Equal(0, MealOut.Of("Canteen", [Item(600, 600)]).Value!.GiveOrTake);
    }

    [SeededProperty]
    public Property Plates_add_up_and_ranges_add_up() => Prop.ForAll(
        Gen.Choose(0, 3000).Zip(Gen.Choose(0, 800)).NonEmptyListOf().ToArbitrary(), plates =>
        {
            var items = plates.Take(40).Select(plate => Item(plate.Item1, plate.Item1 + plate.Item2, protein: plate.Item2 / 10m)).ToList();
            var meal = MealOut.Of("Feast", items).Value!;
            var (least, most) = (plates.Take(40).Sum(plate => (decimal)plate.Item1),
                plates.Take(40).Sum(plate => (decimal)plate.Item1 + plate.Item2));
            Assert.Equal(least, Holds(meal)[Nutrient.Energy].Known - meal.GiveOrTake);
            Assert.Equal(most, Holds(meal)[Nutrient.Energy].Known + meal.GiveOrTake);
            Assert.Equal(items.Sum(item => item.Figures[Nutrient.Protein]), Holds(meal)[Nutrient.Protein].Known);
        });

    [Fact]
    public void What_one_plate_does_not_state_is_not_known_of_the_meal()
    {
        var meal = MealOut.Of("Party", [Item(400, protein: 20, salt: 1.5m), Item(300, protein: 5)]).Value!;
        Assert.True(Holds(meal)[Nutrient.Protein].IsComplete);
        Assert.False(Holds(meal)[Nutrient.Salt].IsComplete);
        Assert.Equal(25, Holds(meal)[Nutrient.Protein].Known);
    }

    public static TheoryData<string, MenuItem[], string, string> Wrong => new()
    {
        { " ", [Item(500)], "name-missing", "name" },
        { new string('x', 81), [Item(500)], "name-missing", "name" },
        { "Party", [], "event-empty", "items" },
        { "Party", [.. Enumerable.Repeat(Item(10), 41)], "event-empty", "items" },
        { "Party", [Item(500), new("soup", new Dictionary<Nutrient, decimal> { [Nutrient.Protein] = 5 })], "energy-missing", "items[1]" },
        { "Party", [Item(-1)], "figure-absurd", "items[0]" },
        { "Party", [Item(20_001)], "figure-absurd", "items[0]" },
        { "Party", [Item(500, 499)], "range-crossed", "items[0].highKcal" },
        { "Party", [Item(500, 20_001)], "range-crossed", "items[0].highKcal" },
    };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_is_wrong_is_named_at_its_field(string name, MenuItem[] items, string code, string field)
    {
        var problem = Assert.Single(MealOut.Of(name, items).Problems);
        Assert.Equal((code, field), (problem.Code, problem.Field));
    }
}
