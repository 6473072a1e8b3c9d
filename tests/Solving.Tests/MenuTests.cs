using System.Collections.Immutable;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Core.Plan.Menus;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Solving.Tests;

/// <summary>Menus from a made-up collection in which it is plain which dishes ought to be chosen.</summary>
public sealed class MenuTests
{
    private static readonly DateOnly Today = new(2026, 11, 25), PrepDay = Today.AddDays(1);
    private static readonly Guid Ada = Guid.Parse("00000000-0000-0000-0000-00000000000a"),
        Bo = Guid.Parse("00000000-0000-0000-0000-00000000000b");

    private static Food Of(string name, decimal kcal, decimal protein, params Allergen[] allergens) =>
        new(name, name, [], FoodGroup.Vegetables, new(Energy: kcal, Protein: protein, Fat: 1), CarbohydrateConvention.Total, [],
            "test")
        { Allergens = allergens };

    private static readonly Food Lean = Of("lean", 100, 10), Heavy = Of("heavy", 600, 2), Root = Of("root", 100, 10),
        Leaf = Of("leaf", 100, 10), Nut = Of("nut", 100, 10, Allergen.TreeNuts), Grain = Of("grain", 100, 10);

    private static MenuDish Dish(int number, string name, DateOnly? last, params (Food Food, decimal Grams)[] of)
    {
        var id = new Guid(number, 0, 0, new byte[8]);
        var contents = new Contents([.. of.Select(part => new Ingredient(part.Food, new Grams(part.Grams)))]);
        var batch = new Batch(id, name, new TapeMark("XX", 1), PrepDay, contents,
            null)
        { State = BatchState.Planned, Expected = new(contents.RawWeight, Grams.Zero, ExpectedFrom.WhatGoesIn), Portions = 4 };
        return new(id, new(batch, Grams.Zero, new Dictionary<Guid, Grams>()), last);
    }

    private static FittedEater Eater(Guid id, string name, params Allergen[] never) => new(
        new Eater(id, name,
            new(Measure.Energy, new Dictionary<Measure, Band> { [Measure.Energy] = new(780, 800, 820), [Measure.Protein] = new(Min: 60) },
            null)),
        EatingWays.Plain with { NeverAllergens = never });

    private static ProposedMenu Propose(IReadOnlyList<MenuDish> collection, MenuWish wish, params FittedEater[] eaters) =>
        Search(collection, wish, eaters).Propose();

    private static MenuSearch Search(IReadOnlyList<MenuDish> collection, MenuWish wish, params FittedEater[] eaters)
    {
        var days = (from who in eaters from day in Enumerable.Range(1, 3) select new EaterDay(who.Eater.Id, Today.AddDays(day))).ToList();
        var ids = collection.Select(dish => dish.RecipeId).ToHashSet();
        var week = new WeekToFit(eaters, days, Today, PlanBoard.Empty, Stock.None, [], [.. collection.Select(dish => dish.Batch)], [],
            FitScope.Boxes, new(), batch => ids.Contains(batch.Id));
        return new(week, collection, wish, new CpSatWeekFitter(), CancellationToken.None);
    }

    private static MenuWish Wish(int dishes, Guid[]? keep = null, Guid[]? without = null, params (Food Food, decimal Grams)[] atHand) =>
        new(PrepDay, dishes, keep ?? [], without ?? [], [.. atHand.Select(have => new Ingredient(have.Food, new Grams(have.Grams)))]);

    private static IEnumerable<string> Names(ProposedMenu menu) => menu.Dishes.Select(dish => dish.Name).Order(StringComparer.Ordinal);

    [Theory]
    [InlineData(1, 0, "root pot")]
    [InlineData(0, 1, "leaf pot")]
    [InlineData(3, 1, "leaf pot")]
    public void Of_two_dishes_that_fit_alike_the_one_is_chosen_that_is_wanted_again(int wantIt, int notAgain, string chosen)
    {
        MenuDish[] collection =
        [
            Dish(1, "leaf pot", null, (Leaf, 1600)),
            Dish(2, "root pot", null, (Root, 1600)) with { Opinion = new DishOpinion(wantIt, notAgain, "less salt") },
        ];
        var menu = Propose(collection, Wish(1), Eater(Ada, "Ada"));
        Assert.Equal([chosen], Names(menu));
        Assert.Equal(chosen[0] == 'r' ? "less salt" : null, menu.Dishes[0].Opinion?.ToChange);
    }

    [Fact]
    public void Where_there_was_no_time_to_choose_the_menu_has_its_dishes_all_the_same_and_fills_the_days_with_them()
    {
        var collection = Enumerable.Range(1, 12).Select(n => Dish(n, $"lean pot {n:00}", null, (Lean, 1600))).ToList();
        var kept = collection[7].RecipeId;
        var menu = Search(collection, Wish(5, keep: [kept]), Eater(Ada, "Ada")).Propose(new CancellationToken(canceled: true));
        Assert.Equal(["lean pot 01", "lean pot 02", "lean pot 03", "lean pot 04", "lean pot 08"], Names(menu));
        Assert.Equal((3, kept), (menu.FitDays, menu.Dishes.Single(dish => dish.IsKept).RecipeId));
    }

    [Fact]
    public void What_makes_the_days_fit_is_chosen_with_its_portions()
    {
        var collection =
            new[] { Dish(1, "lean pot", null, (Lean, 1600)), Dish(2, "heavy pie", null, (Heavy, 1600)),
            Dish(3, "leaf pot", null, (Leaf, 1600)) };
        var menu = Propose(collection, Wish(2), Eater(Ada, "Ada"));
        Assert.Equal(["leaf pot", "lean pot"], Names(menu));
        Assert.Equal((3, 0, 3), (menu.FitDays, menu.FitWithout, menu.AllDays));

        // Three days of 800 kcal at 100 kcal in 100 g: 2,400 g, six portions of 400 g, and up to one more where both pots are cooked for
        // whole portions.
        Assert.InRange(menu.Dishes.Sum(dish => dish.Portions), 6, 7);
        Assert.Equal(6, menu.Dishes.Sum(dish => dish.Boxes));
    }

    [Fact]
    public void Last_weeks_dish_is_not_repeated_the_house_is_used_and_foods_are_shared()
    {
        var collection = new[]
        {
            Dish(1, "lean pot", PrepDay.AddDays(-6), (Lean, 1600)), Dish(2, "leaf pot", PrepDay.AddDays(-30), (Leaf, 1600)),
                Dish(3, "root pot", null, (Root, 1600)),
            Dish(4, "root and leaf", null, (Root, 800), (Grain, 800)),
        };
        Assert.DoesNotContain("lean pot", Names(Propose(collection, Wish(3), Eater(Ada, "Ada"))));
        var used = Propose(collection, Wish(1, null, null, (Leaf, 800)), Eater(Ada, "Ada"));
        Assert.Equal(["leaf pot"], Names(used));
        Assert.Equal(("leaf", 800m), (used.Dishes[0].UsesUp[0].Name, used.Dishes[0].UsesUp[0].Of.Value));
        Assert.InRange(used.Dishes[0].UsesUp[0].Weight.Value, 1, 800);

        var shared = Propose(collection, Wish(2, [collection[2].RecipeId]), Eater(Ada, "Ada"));
        Assert.Equal(["root and leaf", "root pot"], Names(shared));
        Assert.Equal(["root"], shared.Dishes.Single(dish => dish.Name == "root pot").Shares.Single().Foods);
        Assert.True(shared.Dishes.Single(dish => dish.Name == "root pot").IsKept);
    }

    [Fact]
    public void Two_dishes_of_the_same_foods_are_one_dish_twice()
    {
        var collection =
            new[] { Dish(1, "mild pot", null, (Lean, 1600), (Root, 100)), Dish(2, "hot pot", null, (Lean, 1600), (Leaf, 60)),
            Dish(3, "grain pot", PrepDay.AddDays(-12), (Grain, 1600)) };
        Assert.Contains("grain pot", Names(Propose(collection, Wish(2), Eater(Ada, "Ada"))));
    }

    [Fact]
    public void Replacing_leaves_out_and_nobody_gets_what_they_must_never_get()
    {
        var collection =
            new[] { Dish(1, "nut roast", null, (Nut, 1600)), Dish(2, "lean pot", null, (Lean, 1600)),
            Dish(3, "leaf pot", null, (Leaf, 1600)) };
        Assert.DoesNotContain("nut roast", Names(Propose(collection, Wish(3), Eater(Ada, "Ada", Allergen.TreeNuts))));
        Assert.Equal(["leaf pot"],
            Names(Propose(collection, Wish(3, null, [collection[1].RecipeId]), Eater(Ada, "Ada", Allergen.TreeNuts))));

        // Where the other may have it, it can be cooked, and none of it is for her.
        var both = Propose(collection, Wish(1, [collection[0].RecipeId]), Eater(Ada, "Ada", Allergen.TreeNuts), Eater(Bo, "Bo"));
        Assert.Equal(6, both.AllDays);
        Assert.Equal("nut roast", both.Dishes.Single().Name);
        Assert.InRange(both.Dishes.Single().Boxes, 1, 3);
    }

    [Fact]
    public void A_small_collection_gives_what_it_has_and_wishes_that_cannot_be_are_named()
    {
        Assert.Single(Propose([Dish(1, "lean pot", null, (Lean, 1600))], Wish(5), Eater(Ada, "Ada")).Dishes);
        Assert.Empty(Propose([Dish(1, "nut roast", null, (Nut, 1600))], Wish(2), Eater(Ada, "Ada", Allergen.TreeNuts)).Dishes);
        Assert.Equal("menu-dishes", Wish(0).Problems().Single().Code);
        Assert.Equal(["menu-keep", "menu-keep"], Wish(1, [Ada, Bo], [Ada]).Problems().Select(problem => problem.Code));
    }

    [Fact]
    public void The_same_collection_gives_the_same_menu()
    {
        var chance = new Random(5);
        var foods = new[] { Lean, Root, Leaf, Grain, Heavy };
        var collection = Enumerable.Range(1, 14).Select(i =>
            Dish(i, $"dish {i}", i % 3 == 0 ? PrepDay.AddDays(-7) : null, (foods[chance.Next(5)], chance.Next(400, 1600)),
            (foods[chance.Next(5)], chance.Next(100, 900)))).ToList();
        var menus = Enumerable.Range(0, 2).Select(_ => Propose(collection, Wish(4), Eater(Ada, "Ada"), Eater(Bo, "Bo"))).ToList();
        Assert.Equal(menus[0].Dishes.Select(dish => dish.Name), menus[1].Dishes.Select(dish => dish.Name));
        Assert.Equal(4, menus[0].Dishes.Count);
    }
}
