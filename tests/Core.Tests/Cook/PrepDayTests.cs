using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Tests.Cook;

public class PrepDayTests
{
    private static readonly KitchenEquipment Kitchen = KitchenEquipment.AtFirst;

    private static PrepDish Dish(string name, string[] steps, decimal factor = 1, int boxes = 4, int? pieces = null,
        params (string Food, decimal Grams, string Note)[] lines) => new(
        Guid.NewGuid(), name, StepToDo.Of([.. steps.Select(text => new RecipeStep(text))]), factor, boxes, pieces,
        [.. lines.Select(line => new PrepLine(line.Food, line.Food, new(line.Grams), line.Note, GroupOf(line.Food)))]);

    private static FoodGroup GroupOf(string food) => food switch
    {
        "onion" or "carrot" => FoodGroup.Vegetables,
        "chicken" => FoodGroup.Meat,
        "parsley" => FoodGroup.Seasonings,
        _ => FoodGroup.Grains,
    };

    private static LaidDay LayOut(ScheduleProblem problem) =>
        new ListSchedule(problem).Best(8, new Random(1).NextDouble) ?? new([], 0, 0, 0, false);

    private static PrepDayPlan Lay(PrepDish[] dishes, PrepDayWishes? wishes = null, KitchenEquipment? kitchen = null) =>
        PrepDayPlan.Of(dishes, kitchen ?? Kitchen, wishes ?? PrepDayWishes.AtFirst, LayOut, LayOut);

    private static int MinutesOf(PrepDayPlan plan, Func<PrepTask, bool> which) =>
        plan.Tasks.Tasks.Zip(plan.Day.Tasks).Where(pair => which(pair.First)).Sum(pair => pair.Second.End - pair.Second.Start);

    /// <summary>36 waffles on an iron of four are nine rounds (common practice, no published source).</summary>
    [Fact]
    public void An_iron_of_four_takes_nine_rounds_for_36()
    {
        var plan = Lay([Dish("waffles", ["Cook in the waffle iron for 5 minutes."], factor: 2, pieces: 18)]);
        Assert.Equal(45, MinutesOf(plan, task => task.Verb == "waffle"));
        Assert.Equal(9, plan.Tasks.Tasks.Single(task => task.Verb == "waffle").Ways[0].Loads);
    }

    /// <summary>Minutes that the cook types are for the whole recipe: 20 for 18 waffles are 40 for 36, in however many rounds.</summary>
    [Fact]
    public void What_is_typed_for_the_recipe_grows_with_the_batch_and_not_with_the_rounds()
    {
        var dish = Dish("waffles", [], factor: 2, pieces: 18) with
        {
            Steps = StepToDo.Of([new RecipeStep("Cook in the waffle iron.", HandsOn: 20)]),
        };
        Assert.Equal(40, MinutesOf(Lay([dish]), task => task.Verb == "waffle"));
    }

    [Theory]
    [InlineData("Bake the pancakes, three at a time, 3 minutes.", 24, 1, 24)] // eight loads of 3 minutes
    [InlineData("Simmer 20 minutes.", null, 3, 20)] // a fuller pot simmers as long
    [InlineData("Chop the onions, 10 minutes.", null, 2, 20)] // twice the onions take twice as long
    [InlineData("Fry in two batches, 6 minutes.", null, 1, 12)]
    public void Minutes_grow_as_the_work_does(string step, int? pieces, int factor, int minutes) =>
        Assert.Equal(
            minutes,
            MinutesOf(Lay([Dish("dish", [step], factor, 4, pieces)]), task => task.Kind is PrepKind.Step or PrepKind.Prepare));

    [Fact]
    public void What_the_cook_says_stands_over_the_sentence()
    {
        StepWay Way(RecipeStep step) => StepToDo.Of([step])[0].Way;
        var bars = Way(new(
            "Bake, cool, cut into 20.",
            HandsOn: 8,
            Unattended: 50,
            Occupies: [Occupies.Oven, Occupies.Tray],
            TemperatureC: 160));
        Assert.Equal(
            [("bake", 25, 160), ("cool", 25, 0), ("chop", 8, 0)],
            bars.Parts.Select(part => (part.Verb, part.Minutes, part.Celsius ?? 0)));
        Assert.Equal([Occupies.Oven, Occupies.Tray], bars.Parts[0].Uses);

        var pancakes = Way(new("Bake the pancakes, three at a time.", HandsOn: 25, Unattended: 0, Occupies: [Occupies.Ring]));
        Assert.Equal((25, 0, false), (pancakes.HandsOn, pancakes.Unattended, pancakes.IsAbout));
        Assert.Equal([Occupies.Ring], pancakes.Uses);
        Assert.Equal(
            (0, 45),
            (Way(new("Simmer 20 minutes.", Unattended: 45)).HandsOn, Way(new("Simmer 20 minutes.", Unattended: 45)).Unattended));
    }

    [Theory]
    [InlineData("Bake 20 minutes at 200 °C on a tray.", "Oven,Tray")]
    [InlineData("Sauté the leeks for 5 minutes.", "Ring")]
    [InlineData("Set in the freezer for 2 hours.", "")]
    [InlineData("Leave in the fridge for 1 hour.", "Fridge")]
    [InlineData("Purée the soup.", "Blender")]
    [InlineData("Pressure cook for 10 minutes.", "PressureCooker")]
    [InlineData("Take the tin out of the oven and rest 10 minutes.", "")]
    [InlineData("Melt the butter in the microwave.", "Microwave")]
    [InlineData("Cook the rice in the rice cooker for 20 minutes.", "")] // not known here, and said so
    [InlineData("Cook for 8 hours on low.", "SlowCooker")]
    public void What_a_sentence_occupies_is_known(string sentence, string uses) =>
        Assert.Equal(uses, string.Join(',', StepReader.Read([sentence])[0].Way.Uses));

    [Fact]
    public void What_is_not_understood_is_said()
    {
        Assert.Equal(["rice cooker"], StepReader.Read(["Cook in the rice cooker."])[0].NotUnderstood);
        Assert.Equal(["20 minutes per 500 g"], StepReader.Read(["Roast 20 minutes per 500 g."])[0].NotUnderstood);
    }

    [Fact]
    public void Steps_hear_what_earlier_ones_said()
    {
        var steps = StepReader.Read(["Preheat the oven to 190 °C.", "Mix the dough.", "Bake for 20 minutes."]);
        Assert.Equal((190, 20), (steps[2].Way.Celsius, steps[2].Way.Unattended));
        var slow = StepReader.Read(["Put everything in the slow cooker.", "Cook on high for 3 hours."]);
        Assert.Equal([Occupies.SlowCooker], slow[1].Way.Uses);
    }

    /// <summary>Whatever is typed is read: no error, no minutes below zero or above a week.</summary>
    [SeededProperty(MaxTest = 400)]
    public void Anything_typed_is_read(string[] sentences)
    {
        foreach (var reading in StepReader.Read([.. (sentences ?? []).Select(text => text ?? "")]))
            Assert.All(reading.Way.Parts, part => Assert.InRange(part.Minutes, 0, 10_080));
    }

    [Fact]
    public void A_long_row_of_anything_is_read_too() =>
        Assert.All(
            new[] { "1/2-", "bake 25 or ", "((((", "½", "in batches or ", "9", "~", "until ", "bring " },
            piece => Assert.Single(StepReader.Read([string.Concat(Enumerable.Repeat(piece, 60_000 / piece.Length))])));

    [Fact]
    public void Onions_for_two_dishes_are_chopped_in_one_go()
    {
        var stew = Dish("stew", ["Fry the onions for 5 minutes."], lines: ("onion", 300, "chopped"));
        var pie = Dish("pie", ["Chop the onions.", "Fry for 5 minutes."], lines: ("onion", 150, ""));
        var plan = Lay([stew, pie]);
        var chop = Assert.Single(plan.Tasks.Tasks, task => task.Kind == PrepKind.Prepare);
        Assert.Equal(
            [(stew.Id, 300m), (pie.Id, 150m)],
            chop.Amounts.Select(amount => (amount.Dish, amount.Grams)).OrderByDescending(pair => pair.Item2));
        Assert.Equal(9, MinutesOf(plan, task => task.Kind == PrepKind.Prepare)); // the board once, 450 g at 60 g a minute
        var end = plan.Day.Tasks.Single(task => task.Id == chop.Id).End;
        Assert.All(
            plan.Tasks.Tasks.Zip(plan.Day.Tasks).Where(pair => pair.First.Verb == "fry"),
            pair => Assert.True(pair.Second.Start >= end));
    }

    /// <summary>What is chopped ahead is what the words beside the verb name, and never what was cooked first.</summary>
    [Theory]
    [InlineData("Peel and chop the veg, toss in flour.", "carrot,onion")]
    [InlineData("Chop the carrots, add the onion.", "carrot")]
    [InlineData("Simmer 20 minutes, then chop the parsley.", "parsley")]
    [InlineData("Bake 20 minutes, then slice the chicken.", "")]
    [InlineData("Bake 20 minutes, cut into 8.", "")]
    public void What_is_chopped_ahead_is_raw_and_named(string step, string foods)
    {
        var dish = Dish(
            "dish",
            [step],
            lines: [("carrot", 400, ""), ("onion", 100, ""), ("chicken", 500, ""), ("parsley", 20, ""), ("flour", 50, "")]);
        var chopped = Lay([dish]).Tasks.Tasks.Where(task => task.Kind == PrepKind.Prepare).SelectMany(task =>
            task.Amounts).Select(amount => amount.Food);
        Assert.Equal(foods, string.Join(',', chopped.Distinct().Order()));
    }

    [Theory]
    [InlineData("low 6-8 hrs or high 3-4 in the slow cooker", 480, 240)]
    [InlineData("Cook on low for 8 hours or on high for 4.", 480, 240)]
    [InlineData("Bake 35 minutes, or air-fry for 12", 35, 12)]
    public void Another_way_takes_the_unit_of_the_first(string sentence, int one, int other)
    {
        var reading = StepReader.Read([sentence])[0];
        Assert.Equal((one, other), (reading.Way.Unattended, Assert.Single(reading.OtherWays).Unattended));
    }

    [Fact]
    public void A_pressure_cooker_comes_to_pressure_and_loses_it_again()
    {
        // Eggs: 5 minutes under pressure, 5 of release, 5 in ice water (common practice, no published source).
        var plan = Lay([Dish("eggs", ["5 minutes pressure, 5 minutes natural release, 5 minutes in ice water."], lines: ("egg", 500, ""))]);
        var cooker = plan.Tasks.Tasks.Single(task => task.Phases.Count > 0);
        Assert.Equal(
            [("come to pressure", 12), ("pressure-cook", 5), ("release", 5)],
            cooker.Phases.Select(phase => (phase.Verb, phase.Minutes)));
        Assert.Equal(5, MinutesOf(plan, task => task.Verb == "cool"));
    }

    [Fact]
    public void What_the_kitchen_lacks_is_named_and_the_day_is_shown_all_the_same()
    {
        var big = Dish("soup", ["Cook on low for 6 hours in the slow cooker."], lines: ("water", 9000, ""));
        var bare = Dish("bare", []);
        var plan = Lay([big, bare], kitchen: Kitchen with { Items = [.. Kitchen.Items.Where(item => item.Kind != Occupies.Ring)] });
        Assert.Contains(new(big.Id, KitchenLack.TooLarge, Occupies.SlowCooker, 2), plan.Tasks.Warnings);
        Assert.Equal(720, MinutesOf(plan, task => task.Verb == "slow-cook"));
        Assert.Contains(new(bare.Id, KitchenLack.NoSteps), plan.Tasks.Warnings);
        var pan = Lay([Dish("pan", ["Fry 5 minutes."])], kitchen: new([], 0, []));
        Assert.Equal((KitchenLack.NotThere, Occupies.Ring), (pan.Tasks.Warnings.Single().Lack, pan.Tasks.Warnings.Single().Kind));
        Assert.NotEmpty(pan.Day.Tasks);
    }

    [Fact]
    public void A_step_takes_the_way_that_fits_the_day()
    {
        var either = Dish("wings", ["Oven 35 minutes at 200 °C, or air fryer 12 minutes at 190 °C."], lines: ("wings", 800, ""));
        var plan = Lay([either]);
        Assert.Equal(12, MinutesOf(plan, task => task.Kind == PrepKind.Step));
        var (task, place) = plan.Tasks.Tasks.Zip(plan.Day.Tasks).Single(pair => pair.First.Kind == PrepKind.Step);
        Assert.Equal(new("air-fry", 190, 1), task.Ways[place.Mode]);
        var without = Lay([either], kitchen: Kitchen with { Items = [.. Kitchen.Items.Where(item => item.Kind != Occupies.AirFryer)] });
        Assert.Equal(35, MinutesOf(without, task => task.Kind == PrepKind.Step));
    }

    /// <summary>What goes in at the last of two steps, after "Fry the onions.".</summary>
    [Theory]
    [InlineData("Whisk the eggs, fold in the rest.", "egg feta spinach")]
    [InlineData("Add the remaining ingredients.", "egg feta spinach")]
    [InlineData("Stir in everything else.", "egg feta spinach")]
    [InlineData("Put everything in the tin.", "onion egg feta spinach")]
    [InlineData("Blend all the ingredients until smooth.", "onion egg feta spinach")]
    [InlineData("Add the rest of the spinach.", "spinach")]
    [InlineData("Cover and leave to rest.", "")]
    public void The_rest_is_what_no_sentence_before_it_named(string sentence, string goesIn)
    {
        var dish = Dish("dish", ["Fry the onions.", sentence], lines:
            [("onion", 200, ""), ("egg", 500, ""), ("feta", 100, ""), ("spinach", 200, "")]);
        Assert.Equal(goesIn, string.Join(' ', Preparations.GoIn(dish.Steps, 1, dish.Lines).Select(line => line.Name)));
    }

    [Fact]
    public void A_supper_that_cannot_be_met_says_by_how_much_and_what_would_help()
    {
        var stew = Dish("stew", ["Chop the carrots, 20 minutes.", "Simmer 90 minutes."], lines: ("carrot", 500, ""));
        var other = Dish("other", ["Knead 40 minutes."]);
        var wishes = new PrepDayWishes([new("", new(16, 30))], Supper: new(18, 0), SupperDish: stew.Id);
        var plan = Lay([stew, other], wishes);
        Assert.Equal(25, plan.Day.Late); // 5 to get out, 20 to chop, 90 to simmer, and 90 there are
        Assert.Equal(
            ["getOut", "prepare", "step"],
            plan.Chain.Select(link => plan.Tasks.Tasks.Single(task => task.Id == link.Id).Kind.ToString()).Select(name =>
                char.ToLowerInvariant(name[0]) + name[1..]));
        var sooner = plan.WaysOut.Single(way => way.Kind == WayOutKind.BeginSooner);
        Assert.Equal((25, 0), (sooner.Minutes, sooner.Late));
        Assert.Equal(0, Lay([stew, other], wishes with { Cooks = [new("", new(16, 5))] }).Day.Late);
    }

    [Fact]
    public void Hours_that_are_too_short_say_by_how_much()
    {
        var dish = Dish("dish", ["Knead 60 minutes."]);
        var plan = Lay([dish], new([new("", new(10, 0), new(10, 30))]));
        Assert.Equal(plan.Day.End - 30, plan.Overtime);
        Assert.Contains(plan.WaysOut, way => way.Kind == WayOutKind.BeginSooner && way.Late == 0);
        Assert.Equal(0, Lay([dish], new([new("", new(10, 0), new(12, 30))])).Overtime);
    }

    private static readonly string[] Sentences =
    [
        "Chop the onions.", "Fry 6 minutes.", "Simmer 30 minutes.", "Bake 35 minutes at 180 °C.", "Bake 20 minutes at 220 °C.",
            "Blend for 2 minutes.",
        "Chill 1 hour.", "Roast 40 minutes at 190 °C on a tray.", "Knead 10 minutes.", "Rest 20 minutes.",
            "Cook on low for 4 hours in the slow cooker.",
    ];

    /// <summary>Whatever is cooked: each cook in their hours and at one thing, quiet machines still, food in its boxes within two hours, all in order.</summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    public void Hours_hands_quiet_and_the_two_hours_are_kept(int seed)
    {
        var chance = new Random(seed);
        for (var turn = 0; turn < 8; turn++)
        {
            var dishes = Enumerable.Range(0, chance.Next(1, 6)).Select(i => Dish(
                $"dish {i}", [.. Enumerable.Range(0, chance.Next(1, 5)).Select(_ => Sentences[chance.Next(Sentences.Length)])],
                    chance.Next(1, 4), chance.Next(1, 9), null,
                ("onion", chance.Next(50, 800), chance.Next(2) == 0 ? "chopped" : ""), ("beans", chance.Next(100, 4000), ""))).ToArray();
            var wishes = new PrepDayWishes([new("", new(9, 30)), new("helper", new(10, 0), new(11, 0))]);
            var kitchen = Kitchen with { Quiet = [new(new(9, 0), new(11, 15), [Occupies.Blender])] };
            var plan = Lay(dishes, wishes, kitchen);
            Assert.Equal(plan.Tasks.Tasks.Count, plan.Day.Tasks.Count);
            var all = plan.Tasks.Tasks.Zip(plan.Day.Tasks, plan.Tasks.Problem.Tasks).Select(one => (
                Task: one.First,
                Place: one.Second,
                Mode: one.Third.Modes[one.Second.Mode])).ToList();
            foreach (var cook in new[] { "cook:0", "cook:1" })
            {
                var own = all.Where(one => one.Mode.Uses.ContainsKey(cook)).OrderBy(one => one.Place.Start).ToList();
                Assert.All(own.Zip(own.Skip(1)), pair => Assert.True(pair.First.Place.End <= pair.Second.Place.Start));
                if (cook == "cook:1") Assert.All(own, one => Assert.True(one.Place.Start >= 30 && one.Place.End <= 90));
            }

            Assert.All(all.Where(one => one.Task.IsHandsOn), one => Assert.Single(one.Mode.Uses, use => use.Key.StartsWith("cook:")));
            Assert.All(all.Where(one => one.Mode.Uses.ContainsKey("blender")), one => Assert.True(one.Place.Start >= 105));
            foreach (var dish in dishes)
            {
                var packed = all.Single(one => one.Task.Kind == PrepKind.Pack && one.Task.Dishes.Contains(dish.Id)).Place;
                var own = all.Where(one => one.Task.Dishes.Contains(dish.Id) && one.Task.Kind == PrepKind.Step).OrderBy(one =>
                    one.Place.Start).ToList();
                Assert.True(own.Count == 0 || own.Max(one => one.Place.End) <= packed.Start);
                Assert.Equal(own.Select(one => one.Task.Step), own.Select(one => one.Task.Step).Order());
                var hot = own.LastOrDefault(one => one.Mode.Uses.Keys.Any(name => name.Split(':')[0] is "oven" or "ring" or "slowCooker"));
                var after = own.Where(one => hot.Place is not null && one.Place.Start >= hot.Place.End).Sum(one =>
                    one.Place.End - one.Place.Start);
                if (hot.Place is not null && after == 0) Assert.True(packed.End - hot.Place.End <= 120,
                    $"{dish.Name}: {packed.End - hot.Place.End}");
            }
        }
    }

    [Fact]
    public void Ovens_are_turned_on_in_time_and_off_between()
    {
        ScheduleTask Bake(string id, int celsius, params TaskBond[] after) =>
            new(id, [new(20, new Dictionary<string, int> { ["oven:0"] = 1 }, new Dictionary<string, int> { ["oven:0"] = celsius })], after);
        var problem = new ScheduleProblem(
            [Bake("a", 180), Bake("b", 220, new TaskBond("a")), Bake("c", 180, new TaskBond("b", 120))],
                new Dictionary<string, int> { ["oven:0"] = 2 }, [], new Dictionary<string, int> { ["oven:0"] = 10 });
        var day = new ListSchedule(problem).First()!;
        Assert.Equal(
            [(0, 13, 180), (33, 37, 220), (164, 177, 180)],
            OvenWarmUps.Of(problem, day).Select(time => (time.From, time.To, time.Celsius)));
    }
}
