using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Shop;

namespace LivelyTern.Core.Tests.Shop;

/// <summary>From a plan to a list: what batches take, what is in the house and in the basket, what is to be bought and said.</summary>
public class ShoppingListTests
{
    private static readonly DateOnly Day = new(2026, 11, 28);
    private static readonly Food Rice = Kitchen.Of("white rice, dry", new(Energy: 360)) with { PackageGrams = [500, 1000] };
    private static readonly Food Boiled = Kitchen.Of("white rice, cooked",
        new(Energy: 130)) with
    { CookedFrom = new(Rice.Id, 2.5m, "test") };
    private static readonly Food Onion = Kitchen.Of("onion", new(Energy: 40), ("medium", 110)) with { Refuse = 0.1m };
    private static readonly Food Yogurt = Kitchen.Of("yogurt", new(Energy: 60)) with { PackageGrams = [500], Group = FoodGroup.Dairy };
    private static readonly Food Kale = Kitchen.Of("kale", new(Energy: 35)) with { Group = FoodGroup.Vegetables };
    private static readonly Food Spinach = Kitchen.Of("spinach", new(Energy: 23)) with { Group = FoodGroup.Vegetables };
    private static readonly Food Water = Kitchen.Of("water", new(Energy: 0));
    private static readonly Food Beans = Kitchen.Of("beans, drained", new(Energy: 110), ("tin", 240)) with { DrainedShare = 0.6m };
    private static readonly FoodCatalogue Foods = new([Beans, Rice, Boiled, Onion, Yogurt, Kale, Spinach, Water, Kitchen.Salt]);

    private static RecipeNeeds Needs(decimal factor, IReadOnlyList<Substitution> instead, params string[] lines)
    {
        var part = Guid.NewGuid();
        var book = new RecipeBook(Foods, new Dictionary<Guid, WrittenRecipe>
        {
            [part] = new("Onion base", [new("440 g onion"), new("60 g water")], new(1)),
        });
        var recipe = book.Read(
            new WrittenRecipe("dish", [.. lines.Select(line => new WrittenLine(line.TrimStart('-'), IsTakenOut: line[0] == '-'))], new(4)));
        return RecipeNeeds.Of(book, recipe, factor, instead);
    }

    private static string Said(RecipeNeeds needs) => string.Join(
        ", ", needs.Foods.GroupBy(need => need.Food.Name).OrderBy(same => same.Key, StringComparer.Ordinal)
            .Select(same => $"{same.Key} {same.Sum(need => need.Purchased.Value):0.###}"));

    [Theory]
    [InlineData("300 g spinach", 2, "spinach 600")]
    [InlineData("90 g onion", 1, "onion 100")] // a tenth is peel
    [InlineData("250 g white rice, cooked", 1, "white rice, dry 100")] // boiled at home
    [InlineData("250 g onion base", 1, "onion 244.445")] // half of the 440 g, with its peel; its water is from the tap
    [InlineData("500 g water", 1, "")]
    [InlineData("salt, to taste", 3, "salt 0")]
    public void A_batch_takes_what_is_bought_for_it(string line, int factor, string bought) =>
        Assert.Equal(bought, Said(Needs(factor, [], line)));

    [Fact]
    public void What_is_taken_out_was_bought_and_what_is_not_understood_is_named()
    {
        var needs = Needs(1, [], "300 g spinach", "-100 g spinach", "3 glorbs of moon dust");
        Assert.Equal(("spinach 300", "3 glorbs of moon dust"), (Said(needs), Assert.Single(needs.NotRead)));
    }

    [Theory]
    [InlineData("500 g onion", 500)] // weighed as it lies there
    [InlineData("3 onions", 366.667)] // three of 110 g to eat, with a tenth of peel
    [InlineData("1 medium onion", 122.223)]
    [InlineData("2 tins beans, drained", 800)] // 240 g of each are left when they are drained
    [InlineData("400 g beans, drained", 400)]
    public void What_is_counted_is_whole(string line, double purchased) =>
        Assert.Equal((decimal)purchased, Assert.Single(AsPurchased.Said(FoodLine.Read(line, Foods))).Purchased.Value);

    [Fact]
    public void A_food_that_stands_in_is_bought_in_its_place()
    {
        var instead = new Substitution(Spinach.Id, Kale.Id, 0.75m);
        Assert.Equal("kale 300, onion 100", Said(Needs(1, [instead], "400 g spinach", "90 g onion")));
        var contents = instead.In(new([new(Spinach, new(400)), new(Spinach, Grams.Zero, IsTrace: true)]), Foods.Find);
        Assert.Equal([(Kale, 300m, false), (Kale, 0m, true)],
            contents.Ingredients.Select(part => (part.Food, part.Weight.Value, part.IsTrace)));
        Assert.Equal("spinach 400", Said(Needs(1, [new(Spinach.Id, "gone", 1)], "400 g spinach")));
    }

    private static PlannedNeed Need(Food food, decimal grams) => new(new(food, new(grams)), new ForBatch(Guid.NewGuid(), "dish", Day));

    private static ListedFood List(Food food, decimal need, decimal? house = 0, decimal? basket = null, SoldAs? sold = null) =>
        Assert.Single(ShoppingList.Of(
        need < 0 ? [] : [Need(food, need)],
        house is 0 ? new Dictionary<string, InHouse>() : new Dictionary<string, InHouse>
        {
            [food.Id] = new(house is { } there
            ? new Grams(there) : null)
        },
        basket is { } bought ? new Dictionary<Food, InBasket> { [food] = new(new(bought)) } : [],
        one => sold ?? SoldAs.Commonly(one),
        Aisles.AtFirst));

    [Theory]
    [InlineData(700.0, 0.0, null, ListState.ToBuy, 1000, 300, "1 kg")] // one bag of a kilogram rather than two of 500 g
    [InlineData(700.0, 300.0, null, ListState.ToBuy, 500, 100, "500 g")]
    [InlineData(700.0, 300.0, 500.0, ListState.InBasket, 0, 100, "500 g")]
    [InlineData(1400.0, 300.0, 500.0, ListState.ToBuy, 1000, 400, "1 kg")] // more was planned since it was ticked
    [InlineData(700.0, 900.0, null, ListState.InHouse, 0, 200, "")]
    [InlineData(700.0, null, null, ListState.InHouse, 0, 0, "")] // enough, which nobody counts
    [InlineData(-1.0, 0.0, 500.0, ListState.InBasket, 0, 500, "500 g")] // ticked, and nothing needs it any more
    public void A_line_stands_where_it_does(double need, double? house, double? basket, ListState state, double buy, double over,
        string said)
    {
        var line = List(Rice, (decimal)need, (decimal?)house, (decimal?)basket);
        Assert.Equal((state, (decimal)buy, (decimal)over, said),
            (line.State, line.Sum.Buy.Value, line.Sum.Over.Value, SaidPurchase.Of(line)));
        Assert.Equal(need < 0, line.IsNotNeeded);
    }

    [Theory]
    [InlineData(0.0, null, ListState.ToBuy, "some")]
    [InlineData(0.0, 0.0, ListState.InBasket, "")]
    [InlineData(20.0, null, ListState.InHouse, "")]
    [InlineData(null, null, ListState.InHouse, "")]
    public void A_pinch_is_bought_where_there_is_none(double? house, double? basket, ListState state, string said)
    {
        var line = List(Kitchen.Salt, 0, (decimal?)house, (decimal?)basket);
        Assert.Equal((state, said, true), (line.State, SaidPurchase.Of(line), line.IsSome));
    }

    [Theory]
    [InlineData(366.667, "about 3 medium")] // 330 g are eaten of it
    [InlineData(380, "about 4 medium")]
    [InlineData(30, "about 1 medium")]
    [InlineData(10_000, "10 kg")] // nobody counts so many
    public void What_is_sold_loose_is_counted(double bought, string said) =>
        Assert.Equal(said, SaidPurchase.Of(List(Onion, (decimal)bought)));

    [Theory]
    [InlineData(333.3, "334 g")]
    [InlineData(1204, "1.21 kg")]
    [InlineData(4.25, "4.3 g")]
    [InlineData(1500, "1 1/2 kg")]
    public void A_weight_is_never_said_too_small(double grams, string said) => Assert.Equal(said, SaidPurchase.Weight(new((decimal)grams)));

    [Fact]
    public void Prices_sum_where_they_are_noted()
    {
        var sold = new SoldAs([new(new(500), 1.5m), new(new(1000), 2.5m)], IsLoose: false, null);
        Assert.Equal(2.5m, List(Rice, 700, sold: sold).Cost); // one bag of a kilogram
        Assert.Equal(4m, List(Rice, 1400, basket: 500, sold: sold).Cost); // the bag in the basket and one more
        Assert.Null(List(Rice, 700, sold: sold with { Packages = [new(new(500), 1.5m), new(new(1000), null)] }).Cost);
        Assert.Equal(0.9m, List(Rice, 300, sold: sold with { IsLoose = true }).Cost); // by weight, as the first price says
        Assert.Equal(new(2.1m, 1),
            Cost.Of([new(Rice, new(700)), new(Onion, new(50)), new(Kitchen.Salt, Grams.Zero)], food =>
            food == Rice ? sold : SoldAs.Commonly(food)));
        Assert.Contains(new SoldAs([new(Grams.Zero, 1)], false, null).Problems(), problem => problem.Code == "package-grams");
    }

    [Fact]
    public void What_is_over_is_offered_to_what_uses_it_up()
    {
        RecipeUse Use(string name, decimal grams) => new(Guid.NewGuid(), name, 4, new(grams));
        var uses = new[] { Use("much", 400), Use("little", 50), Use("nearly all", 170), Use("a pinch", 0), Use("more", 200) };
        Assert.Equal(["nearly all", "little", "more", "much"], OverOffers.For(new(180), uses).Select(use => use.Name));
        Assert.Empty(OverOffers.For(Grams.Zero, uses));
    }

    [Fact]
    public void The_list_walks_the_aisles_in_the_households_order()
    {
        var aisles = Aisles.AtFirst with { InOrder = [new("dairy", "Cold"), new("dry", "Dry"), new("other", "Rest")] };
        string At(Aisles order) => string.Join(' ', ShoppingList.Of(
            [Need(Rice, 1), Need(Yogurt, 1), Need(Kale, 1)], new Dictionary<string, InHouse>(), new Dictionary<Food, InBasket>(),
            food => SoldAs.Commonly(food) with { Aisle = food == Rice ? "gone" : null },
                order).Select(line => $"{line.Sum.Food.Name}:{line.Aisle.Id}"));
        Assert.Equal("yogurt:dairy kale:other white rice, dry:other", At(aisles)); // greens and the rice's own aisle are gone
        Assert.Equal("kale:greens yogurt:dairy white rice, dry:other", At(Aisles.AtFirst));
        Assert.Contains((aisles with { InOrder = [] }).Problems(), problem => problem.Code == "aisles-many");
    }

    /// <summary>Need + over = buy + have, whatever is needed, in the house, in the basket and sold; and nothing is short.</summary>
    [SeededProperty(MaxTest = 200)]
    public void Every_line_adds_up(int seed)
    {
        var chance = new Random(seed);
        Food[] foods = [Rice, Onion, Yogurt, Kale];
        decimal Amount() => chance.Next(1, 3_000_000) / 1000m;
        List<PlannedNeed> needs = [.. Enumerable.Range(0, chance.Next(15)).Select(_ => Need(foods[chance.Next(4)], Amount()))];
        var house = foods.Where(_ => chance.Next(2) == 0).ToDictionary(food => food.Id, _ =>
            new InHouse(chance.Next(4) == 0 ? null : new Grams(Amount())));
        var basket = foods.Where(_ => chance.Next(2) == 0).ToDictionary(food => food, _ => new InBasket(new(Amount())));
        var list = ShoppingList.Of(needs, house, basket, SoldAs.Commonly, Aisles.AtFirst);
        foreach (var line in list)
        {
            Assert.Equal(line.Sum.Need + line.Sum.Over, line.Sum.Buy + line.Sum.Have);
            Assert.True(line.Sum.Over >= Grams.Zero);
            Assert.Equal(line.State == ListState.ToBuy, line.Sum.Buy > Grams.Zero);
        }

        Assert.Equal(needs.Select(need => need.What.Food).Concat(basket.Keys).Distinct().Count(), list.Count);
    }
}

/// <summary>What is in the house and in the basket, and how both change.</summary>
public class PantryTests
{
    private static readonly DateOnly Day = new(2026, 11, 28);

    private static PantryItem Item(decimal? grams, int? days = null, bool isFirst = false) =>
        new(Guid.CreateVersion7(), grams is { } known ? new Grams(known) : null, days is { } left ? Day.AddDays(left) : null, isFirst);

    [Fact]
    public void The_open_jar_goes_first_then_what_keeps_least_long()
    {
        PantryItem[] items = [Item(500), Item(300, days: 9), Item(null), Item(200, days: 3), Item(100, isFirst: true)];
        var taken = Pantry.Take(items, new(450));
        Assert.Equal([(items[4].Id, 100m), (items[3].Id, 200m), (items[1].Id, 150m)],
            taken.Select(take => (take.ItemId, take.Taken.Value)));
        Assert.Equal([false, false, false, true, true], items.Select(item => item.IsToUseFirst(Day)));
        Assert.False((items[3] with { Amount = Grams.Zero }).IsToUseFirst(Day));
    }

    [SeededProperty(MaxTest = 200)]
    public void No_more_is_taken_than_is_there_and_none_twice(int seed)
    {
        var chance = new Random(seed);
        List<PantryItem> items = [.. Enumerable.Range(0, chance.Next(6)).Select(_ =>
            Item(chance.Next(5) == 0 ? null : chance.Next(900), chance.Next(20), chance.Next(3) == 0))];
        var used = chance.Next(2000);
        var taken = Pantry.Take(items, new(used));
        Assert.Equal(Math.Min(used, items.Sum(item => item.Amount?.Value ?? 0)), taken.Sum(take => take.Taken.Value));
        Assert.All(taken, take => Assert.True(take.Taken <= items.Single(item => item.Id == take.ItemId).Amount));
        Assert.Equal(taken.Count, taken.Select(take => take.ItemId).Distinct().Count());
    }

    /// <summary>Two phones that were offline agree in the end, in whatever order, and however often, their ticks come in.</summary>
    [SeededProperty(MaxTest = 200)]
    public void Ticks_agree_in_any_order(int seed)
    {
        var chance = new Random(seed);
        List<Tick> ticks = [.. Enumerable.Range(0, 6).Select(_ =>
            new Tick("rice", chance.Next(2) == 0, new(chance.Next(3)), DateTimeOffset.UnixEpoch.AddSeconds(chance.Next(4))))];
        var one = ticks.Aggregate(Tick.Later);
        var mixed = ticks.Concat(ticks).OrderBy(_ => chance.Next()).Aggregate(Tick.Later);
        Assert.Equal(one, mixed);
        Assert.Equal(ticks.Max(tick => tick.At), one.At);
    }

    [Theory]
    [InlineData("500 g", 500.0)]
    [InlineData("500", 500.0)]
    [InlineData("half", 150.0)]
    [InlineData("2 packages", 1000.0)]
    [InlineData("1/2 bag", 250.0)]
    [InlineData("2 cups", 384.0)]
    [InlineData("0", 0.0)]
    [InlineData("none", 0.0)]
    [InlineData("enough", null)]
    public void Amounts_are_typed_as_people_say_them(string typed, double? grams)
    {
        var sold = new SoldAs([new(new(500), null)], false, null);
        var read = PantryAmount.Read(typed, new Grams(300), Kitchen.Lentils, sold, Kitchen.Catalogue);
        Assert.Equal(((decimal?)grams, true), (read.Value?.Amount?.Value, read.Succeeded));
    }

    [Theory]
    [InlineData("")]
    [InlineData("-5 g")]
    [InlineData("a heap")]
    [InlineData("900 kg")]
    public void What_is_no_amount_is_said(string typed) =>
        Assert.False(
            PantryAmount.Read(typed, new Grams(300), Kitchen.Lentils, SoldAs.Commonly(Kitchen.Lentils), Kitchen.Catalogue).Succeeded);
}
