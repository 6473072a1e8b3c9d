using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Plan;

/// <summary>What people type for a day: foods, several in one go, own dishes by name, meals with their figures.</summary>
public sealed class TypedEntryTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);
    private static readonly Guid Ada = Guid.Parse("00000000-0000-0000-0000-00000000000a");

    private static Batch Batch(int n, string dish, int? pieces = null) =>
        new(new Guid(n, 0, 0, new byte[8]), dish, new TapeMark("XX", n), Today.AddDays(-1), new([Kitchen.Lentils.Grams(300)]),
            new Grams(1200))
        { Pieces = pieces, Portions = 3 };

    private static readonly Batch Dal = Batch(1, "Red lentil dal"), Muffins = Batch(2, "Oat muffins", pieces: 12),
        Stew = Batch(3, "Barley stew");
    private static readonly Box First = new(new Guid(11, 0, 0, new byte[8]), Dal, new(400), null),
        Second = new(new Guid(12, 0, 0, new byte[8]), Dal, new(380), null);
    private static readonly Box Tin = new(new Guid(13, 0, 0, new byte[8]), Muffins, new(400), 4);

    private static IReadOnlyList<TypedEntry> Read(string text, params string[] choices)
    {
        var recipes = new Dictionary<Guid, string> { [Guid.Empty] = "Fish pie" };
        var unpacked = new UnpackedBatch(Stew, Grams.Zero, new Dictionary<Guid, Grams>());
        var larder = new Larder(Kitchen.Catalogue, [First, Second, Tin], [unpacked], recipes, Today);
        return new EntryReader(larder, Ada).Read(text, choices);
    }

    private static Laid One(string text, params string[] choices) => Assert.Single(Assert.Single(Read(text, choices)).What);

    [Theory]
    [InlineData("150 g tomato, 2 large eggs and a cup of oat milk", "150 g tomato|2 large eggs|a cup of oat milk")]
    [InlineData("2 tomatoes, chopped", "2 tomatoes, chopped")]
    [InlineData("2 large eggs, 1 beaten and 1 tomato", "2 large eggs, 1 beaten|1 tomato")]
    [InlineData("1,000 g tomato", "1,000 g tomato")]
    [InlineData("1 cup plus 2 tbsp quick oats", "1 cup plus 2 tbsp quick oats")]
    [InlineData("2 slices rye bread + 10 g butter", "2 slices rye bread|10 g butter")]
    [InlineData("1 tomato; 1 large egg\n20 g butter", "1 tomato|1 large egg|20 g butter")]
    [InlineData("fish and chips 12 points, 540 kcal", "fish and chips 12 points, 540 kcal")]
    public void Several_things_typed_in_one_go_are_taken_apart(string typed, string apart)
    {
        var read = Read(typed);
        Assert.Equal(apart, string.Join('|', read.Select(one => one.Text)));
        Assert.All(read, one => Assert.Null(one.Problem));
    }

    [Fact]
    public void Own_dishes_are_found_by_name_in_boxes_pieces_grams_and_shares()
    {
        Assert.Equal(new LaidBox(First.Id), One("red lentil dal"));
        Assert.Equal(new LaidBox(First.Id), One("a lentil box"));
        Assert.Equal(new LaidBox(First.Id, new Grams(200)), One("half a lentil box"));
        Assert.Equal(new LaidBox(First.Id, new Grams(150)), One("150 g red lentil dal"));
        Assert.Equal([new LaidBox(First.Id), new LaidBox(Second.Id, new Grams(190))],
            Assert.Single(Read("1.5 boxes of red lentil dal")).What);
        Assert.Equal([new LaidBox(First.Id), new LaidBox(Second.Id, new Grams(50))], Assert.Single(Read("450 g red lentil dal")).What);
        Assert.Equal(new LaidBox(Tin.Id, new Grams(300)), One("3 oat muffins"));
        Assert.Equal(new LaidBox(Tin.Id), One("1 box oat muffins"));
        Assert.Equal(new LaidBox(Tin.Id), One("oat muffins"));
        Assert.Equal(new LaidBox(First.Id, new Grams(150)), One("red lentil dal 150 g"));
        Assert.Equal(new Portion(Stew.Id, new Grams(400)), One("barley stew"));
        Assert.Equal(new Portion(Stew.Id, new Grams(200)), One("half a portion of barley stew"));

        // No box is taken twice, and no more than there is.
        Assert.Equal([new LaidBox(First.Id), new LaidBox(Second.Id)], Read("1 lentil box\n1 lentil box").SelectMany(one => one.What));
        Assert.Equal("dish-short", Assert.Single(Read("3 boxes of red lentil dal")).Problem!.Code);
    }

    [Fact]
    public void What_is_not_known_says_so_and_offers_what_it_may_mean()
    {
        Assert.Equal([null, "food-unknown"], Read("2 tomatoes and 1 blorp").Select(one => one.Problem?.Code));

        Assert.Equal(["1 egg"], Assert.Single(Read("egg")).Line!.Instead);

        // A food of that name comes before a dish that only has it in its name.
        Assert.IsType<PlainFood>(One("200 g red lentils, dry"));
        var lentil = Assert.Single(Read("lentil"));
        Assert.Equal([First], lentil.Offers);
        Assert.NotNull(lentil.Problem);
        Assert.Equal(new LaidBox(Second.Id), One("lentil", EntryReader.ChoiceOf(Second)));
        var pie = Assert.Single(Read("1 fish pie"));
        Assert.Equal(("dish-not-there", Guid.Empty), (pie.Problem!.Code, pie.RecipeId));
        var bySome = Assert.Single(Read("pie"));
        Assert.Equal(("dish-not-there", Guid.Empty), (bySome.Problem!.Code, bySome.RecipeId));
        Assert.Equal("food-unknown", Assert.Single(Read("1 meat pie")).Problem!.Code);
        Assert.Equal("line-long", Assert.Single(Read(new string('x', 301))).Problem!.Code);
    }

    [Theory]
    [InlineData("dinner 9 points", "dinner", 9.0, null, 0)]
    [InlineData("17 crackers are 5 pts", "17 crackers", 5.0, null, 0)]
    [InlineData("17 crackers are 5", "17 crackers", 5.0, null, 0)]
    [InlineData("about 300 kcal", "something", null, 300, 0)]
    [InlineData("Canteen lunch, about 600-900 kcal", "Canteen lunch", null, 750, 150)]
    [InlineData("pie 12 points, 540 kcal", "pie", 12.0, 540, 0)]
    [InlineData("ramen (800 kcal and 30 g protein)", "ramen", null, 800, 0)]
    [InlineData("soup 2.5 points", "soup", 2.5, null, 0)]
    [InlineData("fish supper 2092 kJ", "fish supper", null, 500, 0)]
    public void A_meal_is_typed_with_its_figures(string typed, string name, double? points, int? kcal, int giveOrTake)
    {
        var meal = Assert.IsType<MealOut>(One(typed));
        Assert.Equal((name, (decimal)giveOrTake), (meal.Name, meal.GiveOrTake));
        var contents = new Contents([meal.Food]);
        var rule = PointsRule.Starting with { Step = 0.5m, FreeGroups = [FoodGroup.Seasonings] };
        Assert.Equal(kcal, (int?)meal.Food.Food.Per100g.Energy);
        // A meal is of no group, so of none that is free.
        Assert.Equal(points is { } stated ? new Total((decimal)stated) : new Total((decimal)kcal! / 50), rule.Of(contents));
        Assert.Equal(kcal is null, !contents.Totals[Nutrient.Energy].IsComplete);
    }

    [Theory]
    [InlineData("supper at the harbour")]
    [InlineData("1 tomato")]
    [InlineData("red lentil dal")]
    [InlineData("dinner 9 points")]
    public void Whatever_was_typed_can_be_noted_by_its_name_alone(string typed)
    {
        var meal = Assert.IsType<MealOut>(One(typed, EntryReader.NameOnly));
        Assert.Equal((typed, 0m, 0m), (meal.Name, meal.GiveOrTake, new Contents([meal.Food]).Totals[Nutrient.Energy].Known));
        Assert.All(Nutrients.All, nutrient => Assert.False(new Contents([meal.Food]).Totals[nutrient].IsComplete));
        Assert.Equal(Certainty.AtLeast, PointsRule.Starting.Of(new Contents([meal.Food])).Certainty);
        Assert.Equal(MealOut.LongestName, MealOut.Named(new string('x', 300)).Name.Length);
    }

    [Theory]
    [InlineData("20 g butter")]
    [InlineData("2 large eggs with 12 g protein")]
    public void What_states_neither_points_nor_energy_of_something_is_no_meal(string typed) => Assert.Null(SaidMeal.Read(typed));

    private static readonly Food Rice = Kitchen.Of("white rice, dry", new(Energy: 365), ("cup", 185)) with { Usual = ["white rice"] };
    private static readonly Food BoiledRice = Kitchen.Of("white rice, boiled", new(Energy: 130), ("cup", 158)) with
    {
        CookedFrom = new("white-rice,-dry", 2.8m, "test"),
    };
    private static readonly Food Potato = Kitchen.Of("potato", new(Energy: 77));
    private static readonly Food BoiledPotato = Kitchen.Of("potato, boiled", new(Energy: 80)) with
    {
        CookedFrom = new("potato", 0.9m, "test"),
    };
    private static readonly Food Water = Kitchen.Of("water", new(Energy: 0), ("glass", 250));

    private static TypedEntry Eaten(string text, string? weighedAs = null, string? choice = null)
    {
        var asked = weighedAs is null ? new Dictionary<string, string>() : new Dictionary<string, string> { [Rice.Id] = weighedAs };
        var larder = new Larder(
            new FoodCatalogue([Rice, BoiledRice, Potato, BoiledPotato, Water, Kitchen.Milk]), [], [], new Dictionary<Guid, string>(), Today)
        {
            WeighedAs = asked,
            Kept =
            [
                new("Harbour canteen", new("fish taco", new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 280 }, HighKcal: 340)),
            ],
        };
        return Assert.Single(new EntryReader(larder, Ada).Read(text, [choice]));
    }

    private static string? FoodOf(TypedEntry entry) => (entry.What.SingleOrDefault() as PlainFood)?.Food.Food.Name;

    [Fact]
    public void Raw_or_cooked_is_asked_where_it_matters_and_taken_at_its_word_where_it_is_said()
    {
        var asked = Eaten("150 g white rice");
        Assert.Equal(("raw-or-cooked", "white rice, dry|white rice, boiled"),
            (asked.Problem?.Code, string.Join('|', asked.Forms.Select(form => form.Name))));
        Assert.Equal("white rice, boiled", FoodOf(Eaten("150 g boiled white rice")));
        Assert.Equal("white rice, dry", FoodOf(Eaten("150 g white rice, dry")));

        // Said once, it is known; and each other time it can be said otherwise.
        var known = Eaten("150 g white rice", BoiledRice.Id);
        Assert.Equal(("white rice, boiled", 2), (FoodOf(known), known.Forms.Count));
        Assert.Equal("white rice, dry", FoodOf(Eaten("150 g white rice", BoiledRice.Id, Rice.Id)));
        Assert.Equal("white rice, boiled", FoodOf(Eaten("1 cup white rice", BoiledRice.Id)));

        // Of potatoes both hold nearly the same; planned, nothing is asked.
        Assert.Equal("potato", FoodOf(Eaten("150 g potato")));
        Assert.Null(Read("150 g tomato")[0].Problem);
    }

    [Theory]
    [InlineData("a glass of water", true)]
    [InlineData("500 ml water", true)]
    [InlineData("water", true)]
    [InlineData("2 glasses of water", true)]
    [InlineData("200 g oat milk", false)]
    public void Plain_water_is_not_tracked_and_what_has_energy_in_a_glass_is(string typed, bool isWater)
    {
        var entry = Eaten(typed);
        Assert.Equal((isWater, isWater ? 0 : 1, null), (entry.IsWater, entry.What.Count, entry.Problem));
    }

    [Fact]
    public void What_is_kept_off_a_menu_is_entered_by_its_name()
    {
        var meal = Assert.IsType<MealOut>(Assert.Single(Eaten("2 fish tacos").What));
        Assert.Equal(("2 fish tacos, Harbour canteen", 60m, 620m), (meal.Name, meal.GiveOrTake, meal.Food.Food.Per100g.Energy));
        Assert.Equal("fish taco, Harbour canteen", Assert.IsType<MealOut>(Assert.Single(Eaten("fish taco").What)).Name);
        Assert.NotNull(Eaten("200 g fish taco").Problem);
    }

    [Theory]
    [InlineData("8 of 17 crackers, 5 points", 2.353)]
    [InlineData("8 of 17 crackers are 5", 2.353)]
    [InlineData("8 out of the 17 crackers", 2.353)]
    [InlineData("17 of 17 crackers", 5.0)]
    [InlineData("18 of 17 crackers", null)]
    public void Some_of_a_packet_is_its_share_of_what_was_said_of_it(string typed, double? points)
    {
        // Common practice, no published source: 5 points for 17, so 8 are 2 (2.35 before rounding).
        var packet = SaidMeal.Read("17 crackers are 5")!.Value.Value!;
        var larder = new Larder(Kitchen.Catalogue, [], [], new Dictionary<Guid, string>(), Today) { Meals = [packet] };
        var entry = Assert.Single(new EntryReader(larder, Ada).Read(typed, []));
        var meal = entry.What.SingleOrDefault() as MealOut;
        Assert.Equal(points, meal is null ? null : Math.Round((double)(meal.Food.Food.PointsPer100g! * meal.Food.Weight.Value / 100), 3));
        Assert.Equal(points is null, entry.Problem?.Code == "part-absurd");
        if (meal is null) return;

        // Of what was entered as some of it, all of it is known too.
        var next = new EntryReader(larder with { Meals = [meal] }, Ada).Read("9 of 17 crackers", [])[0].What[0] as MealOut;
        Assert.Equal(5m * 9 / 17, next!.Food.Food.PointsPer100g!.Value * next.Food.Weight.Value / 100, 6);
    }

    [Theory]
    [InlineData("8 of 99999999999999999999999999999999999999 crackers")]
    [InlineData("99999999999999999999999999999999999999 of 17 crackers")]
    [InlineData("9999999999999999999999999999 fish tacos")]
    [InlineData("dinner 99999999999999999999999999999999 kcal")]
    [InlineData("pie 1-99999999999999999999999999999999 kcal")]
    [InlineData("crackers are 99999999999999999999999999999999999 points")]
    [InlineData("1/99999999999999999999999999999 apple")]
    [InlineData("8 of 0 crackers")]
    [InlineData("0 of 17 crackers")]
    public void Absurd_numbers_are_not_understood_and_break_nothing(string typed)
    {
        // The packet of which nothing was eaten after all has no weight.
        var packet = SaidMeal.Read("17 crackers are 5")!.Value.Value!;
        KeptMeal[] kept = [new("canteen", new("fish taco", new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 280 }))];
        var larder = new Larder(Kitchen.Catalogue, [], [], new Dictionary<Guid, string>(), Today)
        {
            Meals = [packet with { Food = packet.Food with { Weight = Grams.Zero } }, packet],
            Kept = kept,
        };
        var entry = Assert.Single(new EntryReader(larder, Ada).Read(typed, []));
        Assert.Empty(entry.What);
        Assert.NotNull(entry.Problem);
    }
}
