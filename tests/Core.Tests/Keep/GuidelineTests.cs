using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Keep;

public sealed class GuidelineTests
{
    private static readonly DateOnly Sunday = new(2026, 11, 22);

    // Days in the fridge, shorter and longer end, and in the freezer in months; 0 where it does not freeze well. From memory:
    // FoodSafety.gov cold food storage chart. Rice and the freezer time of fish have no line of their own there: as cooked dishes.
    [Theory]
    [InlineData(KeepingKind.Ordinary, 3, 4, 2, 3)]
    [InlineData(KeepingKind.Rice, 3, 4, 2, 3)]
    [InlineData(KeepingKind.Poultry, 3, 4, 2, 6)]
    [InlineData(KeepingKind.Meat, 3, 4, 2, 6)]
    [InlineData(KeepingKind.Fish, 3, 4, 2, 3)]
    [InlineData(KeepingKind.EggDish, 3, 4, 2, 3)]
    [InlineData(KeepingKind.HardCookedEgg, 7, 7, 0, 0)]
    [InlineData(KeepingKind.MixedSalad, 3, 4, 0, 0)]
    [InlineData(KeepingKind.Soup, 3, 4, 2, 3)]
    [InlineData(KeepingKind.Pizza, 3, 4, 1, 2)]
    [InlineData(KeepingKind.Bacon, 7, 7, 1, 1)]
    [InlineData(KeepingKind.ColdMeat, 3, 5, 1, 2)]
    [InlineData(KeepingKind.RawMince, 1, 2, 3, 4)]
    [InlineData(KeepingKind.RawPoultry, 1, 2, 9, 9)]
    [InlineData(KeepingKind.RawMeat, 3, 5, 4, 12)]
    [InlineData(KeepingKind.EggInShell, 21, 35, 0, 0)]
    public void The_north_american_chart_value_by_value(KeepingKind kind, int fridge, int fridgeMost, int freezer, int freezerMost)
    {
        var rule = GuidelineSet.Us.Of(kind)!;
        Assert.Equal((fridge, fridgeMost), (rule.Fridge.Least, rule.Fridge.Most));
        Assert.Equal(freezer == 0 ? null : (freezer * 30, freezerMost * 30), (rule.Freezer?.Least, rule.Freezer?.Most) is ({ } a, { } b)
            ? (a, b)
            : default((int, int)?));
        Assert.Contains("FoodSafety.gov", rule.Source);
    }

    // From memory: UK Food Standards Agency: leftovers within 48 hours, cooked rice within 24; raw food by the date on its package.
    [Fact]
    public void The_uk_set_value_by_value()
    {
        foreach (var rule in GuidelineSet.Uk.Rules)
        {
            Assert.Equal(rule.Kind == KeepingKind.Rice ? 1 : 2, rule.Fridge.Least);
            Assert.Equal(rule.Fridge.Least, rule.Fridge.Most);
            Assert.Equal(GuidelineSet.Us.Of(rule.Kind)!.Freezer, rule.Freezer);
            Assert.Contains("UK Food Standards Agency", rule.Source);
        }

        KeepingKind[] raw = [KeepingKind.RawMince, KeepingKind.RawPoultry, KeepingKind.RawMeat, KeepingKind.EggInShell];
        Assert.All(raw, kind => Assert.Null(GuidelineSet.Uk.Of(kind)));
        Assert.Equal(Enum.GetValues<KeepingKind>().Except(raw), GuidelineSet.Uk.Rules.Select(rule => rule.Kind));
        Assert.Equal(Enum.GetValues<KeepingKind>(), GuidelineSet.Us.Rules.Select(rule => rule.Kind));
        Assert.Equal((4m, 5m, 1), (GuidelineSet.Us.Fridge, GuidelineSet.Uk.Fridge, GuidelineSet.DaysThawed));
    }

    // FDA Food Code 2022, 3-501.14: 135 °F to 70 °F within two hours, to 41 °F within six in all.
    [Fact]
    public void The_temperatures_of_the_two_stages_are_the_food_codes()
    {
        Assert.Equal(57.22, TwoStages.FromCelsius, 2);
        Assert.Equal(21.11, TwoStages.FirstCelsius, 2);
        Assert.Equal(5, TwoStages.SecondCelsius, 10);
        var stages = TwoStages.Of(Cooling.Of(4, [new(0, 90), new(60, 40)]).Value!);
        Assert.Equal((120, 360), (stages.First.WithinMinutes, stages.Second.WithinMinutes));
    }

    [Theory]
    [InlineData("uk", new[] { KeepingKind.Poultry, KeepingKind.Rice }, 1, 60, KeepingKind.Rice)]
    [InlineData("uk", new[] { KeepingKind.Poultry, KeepingKind.Pizza }, 2, 30, KeepingKind.Poultry)]
    [InlineData("us", new[] { KeepingKind.HardCookedEgg, KeepingKind.Ordinary, KeepingKind.Fish }, 3, 0, KeepingKind.Fish)]
    public void The_strictest_part_decides(string set, KeepingKind[] kinds, int fridge, int freezer, KeepingKind decides)
    {
        var useBy = UseBy.From(Sunday, kinds, KeepingRules.Of(GuidelineSet.Find(set)!));
        Assert.Equal((Sunday.AddDays(fridge), Sunday.AddDays(freezer)), (useBy.Fridge, useBy.Freezer));
        Assert.Equal(decides, useBy.Rule.Kind);
        Assert.Equal(freezer > 0, useBy.FreezesWell);
    }

    [Fact]
    public void A_rule_of_the_households_own_can_only_be_stricter()
    {
        Outcome<KeepingRules> Own(int days) => KeepingRules.Of("us", new Dictionary<KeepingKind, int> { [KeepingKind.Fish] = days });
        Assert.Equal("rule-laxer", Own(4).Problems.Single().Code);
        Assert.Equal("days-negative", Own(-1).Problems.Single().Code);
        Assert.Equal("guidelines-unknown", KeepingRules.Of("mars", new Dictionary<KeepingKind, int>()).Problems.Single().Code);
        var fish = Own(1).Value!.Of(KeepingKind.Fish);
        Assert.Equal((1, true), (fish.Fridge.Least, fish.IsOwn));
        Assert.False(Own(3).Value!.Of(KeepingKind.Fish).IsOwn);
        Assert.Equal(3, Own(1).Value!.Of(KeepingKind.Soup).Fridge.Least);
        Assert.Equal(1, KeepingRules.Default.Of(KeepingKind.Rice).Fridge.Least);
    }

    [Theory]
    [InlineData("chicken breast, raw", FoodGroup.Meat, KeepingKind.Poultry)]
    [InlineData("beef mince, 5 % fat", FoodGroup.Meat, KeepingKind.Meat)]
    [InlineData("back bacon", FoodGroup.Meat, KeepingKind.Bacon)]
    [InlineData("ham, sliced", FoodGroup.Meat, KeepingKind.ColdMeat)]
    [InlineData("egg, hard-boiled", FoodGroup.Eggs, KeepingKind.HardCookedEgg)]
    [InlineData("salmon fillet", FoodGroup.Fish, KeepingKind.Fish)]
    [InlineData("Mill Lane basmati", FoodGroup.Grains, KeepingKind.Rice)]
    [InlineData("rice vinegar", FoodGroup.Seasonings, KeepingKind.Ordinary)]
    public void A_foods_name_says_what_it_is_to_the_rules(string name, FoodGroup group, KeepingKind kind) =>
        Assert.Equal(kind, KeepingWords.Of(name, group));

    private static Batch Dish(string name, params Food[] foods) =>
        new(Guid.NewGuid(), name, new TapeMark("XX", 1), Sunday, new([.. foods.Select(food => food.Grams(200))]), new Grams(800));

    private static readonly Food Rice = Kitchen.Of("white rice", new(Energy: 360)) with { Keeping = KeepingKind.Rice };
    private static readonly Food Ham = Kitchen.Of("ham", new(Energy: 110)) with { Keeping = KeepingKind.ColdMeat };
    private static readonly Food Eggs = Kitchen.Egg with { Group = FoodGroup.Eggs, Keeping = KeepingKind.EggDish };

    [Fact]
    public void A_dishs_name_and_its_ingredients_say_how_long_it_keeps()
    {
        UseBy Of(Batch batch) => UseBy.Of(batch, Sunday, KeepingRules.Default);
        Assert.Equal((Sunday.AddDays(7), false), (Of(Dish("Boiled eggs", Eggs)).Fridge, Of(Dish("Boiled eggs", Eggs)).FreezesWell));
        Assert.Equal(Sunday.AddDays(3), Of(Dish("Egg squares", Eggs)).Fridge);
        Assert.Equal(Sunday.AddDays(3), Of(Dish("Boiled eggs with rice", Eggs, Kitchen.Barley)).Fridge);
        var salad = Of(Dish("Pasta salad", Kitchen.Barley));
        Assert.Equal((salad.Fridge, KeepingKind.MixedSalad), (salad.Freezer, salad.FreezerRule.Kind));
        var soup = Of(Dish("Chicken and rice soup", Rice));
        Assert.Equal((Sunday.AddDays(1), Sunday.AddDays(60)), (soup.Fridge, soup.Freezer));

        // Ham baked into a dish is meat: 2 months, not the month of an opened packet.
        Assert.Equal(Sunday.AddDays(60), Of(Dish("Ham bake", Ham)).Freezer);
    }

    [Fact]
    public void What_does_not_freeze_well_is_planned_in_its_fridge_days_and_frozen_all_the_same_keeps_frozen()
    {
        var box = new Box(Guid.NewGuid(), Dish("Potato salad", Kitchen.Barley), new(200), null);
        Assert.Equal(Sunday.AddDays(3), UseBy.Of(box, Sunday, KeepingRules.Default).Freezer);
        var frozen = box with { Life = box.Life.Put(BoxPlace.Freezer, Sunday) };
        var useBy = UseBy.Of(frozen, Sunday, KeepingRules.Default);
        Assert.Equal((Sunday.AddDays(60), true), (useBy.Last, useBy.IsFrozen));
    }

    [Fact]
    public void A_plain_food_in_a_box_counts_too_where_it_has_days_of_its_own()
    {
        var rules = KeepingRules.Of("us", new Dictionary<KeepingKind, int> { [KeepingKind.ColdMeat] = 1 }).Value!;
        UseBy With(Food food)
        {
            var plain = new FoodInBox(food.Name, food.Grams(30));
            var box = new Box(Guid.NewGuid(), new(Dish("stew", Kitchen.Barley), new(200)), [plain], BoxLife.New(Sunday, null));
            return UseBy.Of(box, Sunday, rules);
        }

        var ham = With(Ham);
        Assert.Equal((Sunday.AddDays(1), Sunday.AddDays(30), KeepingKind.ColdMeat), (ham.Fridge, ham.Freezer, ham.Rule.Kind));
        Assert.Equal(Sunday.AddDays(3), With(Kitchen.Butter).Fridge);
    }

    // National Center for Home Food Preservation (from memory): boiled potatoes turn grainy. A spoon of them in a stew is not noticed.
    [Fact]
    public void What_freezes_poorly_is_named_where_there_is_enough_of_it_to_notice()
    {
        var potato = Kitchen.Of("potatoes, boiled", new(Energy: 80)) with { Group = FoodGroup.Potatoes };
        Box Holding(decimal grams)
        {
            var batch = Dish("stew") with { Contents = new([potato.Grams(grams), Kitchen.Barley.Grams(500)]) };
            return new(Guid.NewGuid(), batch, new(500), null);
        }

        Assert.Equal(potato.Name, Assert.Single(FreezesPoorly.In(Holding(300))).Food.Name);
        Assert.Empty(FreezesPoorly.In(Holding(30)));
    }
}
