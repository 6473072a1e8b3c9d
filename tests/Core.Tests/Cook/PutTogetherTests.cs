using FsCheck.Xunit;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Cook;

/// <summary>Dishes put together from others: what a box holds is what its parts bring, whatever each weighs.</summary>
public sealed class PutTogetherTests
{
    private static readonly DateOnly Today = new(2026, 11, 28);
    private static readonly Food[] Foods = [Kitchen.Oats, Kitchen.Egg, Kitchen.Butter, Kitchen.Lentils, Kitchen.Bread];

    private static Batch Cooked(string name, Contents contents, decimal? grams, int daysAgo = 0) => new(
        Guid.NewGuid(), name, new TapeMark("XX", 1), Today.AddDays(-daysAgo), contents, grams is { } cooked ? new(cooked) : null);

    private static Batch Dish(int boxes) => Cooked("Bowl", Contents.Nothing, null) with { Portions = boxes, State = BatchState.Planned };

    [SeededProperty(MaxTest = 200)]
    public bool The_figures_of_the_parts_sum_to_the_box_for_any_weights(uint[] raw, uint[] cooked, uint[] taken, ushort plain, byte boxes)
    {
        var count = Math.Min(Foods.Length, new[] { raw.Length, cooked.Length, taken.Length }.Min());
        var parts = new List<BatchPart>();
        for (var i = 0; i < count; i++)
        {
            var weight = 0.01m + (cooked[i] % 5_000_000 / 100m);
            var contents = new Contents([Foods[i].Grams(1 + (raw[i] % 5000)), Kitchen.Salt.Grams(raw[i] % 20)]);
            parts.Add(new(Cooked($"Part {i}", contents, weight), new(weight * (taken[i] % 1001) / 1000)));
        }

        var own = new Contents([Kitchen.Tomato.Grams(plain)]);
        var dish = PutTogether.Of(Dish(1 + boxes), own, parts);
        var box = dish.Holding((dish.Weight ?? Grams.Zero) * (1m / (1 + boxes)));
        if (dish.Weight is null) return plain == 0 && parts.TrueForAll(part => part.Weight == Grams.Zero);
        return MeasureTotals.Of(box, null).All(total =>
        {
            var sum = MeasureTotals.Of(own, null)[total.Key].Known
                + parts.Sum(part => MeasureTotals.Of(part.Of.Contents, null)[total.Key].Known * (part.Weight / part.Of.Weight!.Value));
            return Math.Abs((total.Value.Known * (1 + boxes)) - sum) < 0.000_001m;
        });
    }

    // 1,200 g of a mash of 2,000 g that weighs 1,600 g in the end: 75 % of it, with all that is in that.
    [Fact]
    public void As_a_part_is_weighed_the_figures_of_the_dish_follow()
    {
        var mash = Cooked("Mash", new([Kitchen.Lentils.Grams(2000)]), null) with
        {
            Expected = new(new(2000), Grams.Zero, ExpectedFrom.WhatGoesIn),
        };
        var expected = PutTogether.Of(Dish(6), Contents.Nothing, [new(mash, new(1200))]);
        Assert.Equal((1200m, 4296m), (expected.Weight!.Value.Value, expected.Contents.Totals[Nutrient.Energy].Known));
        var weighed = PutTogether.With(expected, part => part with { Cooked = new(1600) });
        Assert.Equal((1200m, 5370m), (weighed.Weight!.Value.Value, weighed.Contents.Totals[Nutrient.Energy].Known));
    }

    [Fact]
    public void A_part_that_nobody_could_weigh_leaves_the_dish_at_least()
    {
        var odd = Cooked("Nothing much", new([Kitchen.Salt.Grams(0)]), null);
        var dish = PutTogether.Of(Dish(2), new([Kitchen.Bread.Grams(100)]), [new(odd, new(300))]);
        Assert.True(dish.Contents.SomethingUnread);
        Assert.Equal(Certainty.AtLeast, dish.Contents.Totals[Nutrient.Energy].Certainty);
    }

    [Theory]
    [InlineData(2000, 0, 1200, 1)]
    [InlineData(1000, 0, 1250, 0.8)]
    [InlineData(1000, 500, 1000, 0.5)] // what is in boxes stays in them
    [InlineData(1000, 1000, 300, 0)]
    public void Where_there_is_too_little_each_dish_gets_the_same_share(decimal there, decimal packed, decimal asked, decimal share) =>
        Assert.Equal(share, PutTogether.ShareOf(new Grams(there), new(packed), new(asked)));

    [Theory]
    [InlineData(1200, 200, 6)]
    [InlineData(1201, 200, 7)]
    [InlineData(1200.3, 200, 6)] // three tenths of a gram are no portion more
    [InlineData(20, 200, 1)]
    [InlineData(0, 200, 0)]
    public void A_part_is_cooked_for_whole_portions(decimal asked, decimal portion, int portions) =>
        Assert.Equal(portions, PutTogether.PortionsFor(new(asked), new Grams(portion), 6));

    // Beans cooked two days before keep from then, however fresh the rest of it is.
    [Fact]
    public void A_dish_keeps_as_long_as_the_part_that_keeps_shortest()
    {
        var (old, fresh) = (Cooked("Beans", new([Kitchen.Lentils.Grams(500)]), 500, 2), Cooked("Eggs", new([Kitchen.Egg.Grams(500)]), 500));
        var dish = PutTogether.Of(Dish(2) with { CookedOn = Today }, Contents.Nothing, [new(fresh, new(200)), new(old, new(200))]);
        Assert.Equal(UseBy.Of(old, Today, KeepingRules.Default), UseBy.Of(dish, Today, KeepingRules.Default));
        Assert.True(UseBy.Of(fresh, Today, KeepingRules.Default).Fridge > UseBy.Of(dish, Today, KeepingRules.Default).Fridge);
    }

    [Fact]
    public void Its_lines_are_what_a_box_gets_by_cooked_weight()
    {
        var (mash, bowl) = (Guid.NewGuid(), Guid.NewGuid());
        var book = new RecipeBook(Kitchen.Catalogue, new Dictionary<Guid, WrittenRecipe>
        {
            [mash] = new("Mash", [new("1 kg red lentils, dry"), new("200 g butter")], new(5, CookedGrams: 1000)),
            [bowl] = new("Bowl", [new("200 g mash"), new("50 g mash"), new("30 g rye bread")], new(1, IsPutTogether: true)),
        });
        var read = book.Read(bowl);
        Assert.Equal([new DishPart(mash, new(250))], read.Parts);
        Assert.Equal((280m, 30m), (read.Weight.Value, read.Plain.RawWeight.Value));
        Assert.Equal((0.25m * (3580 + 1434)) + 77.4m, read.Batch.Totals[Nutrient.Energy].Known);
        Assert.Equal(["30 g rye bread"], read.OwnLines.Select(line => line.Written.Text));
    }

    // 1,000 g with 600 of them for bowls: what was planned as 100 of an expected 1,250 is 80, and the other box gets the rest.
    [Fact]
    public void What_goes_into_dishes_goes_into_no_box_of_its_own()
    {
        var planned = Cooked("Mash", new([Kitchen.Lentils.Grams(1250)]), null) with
        {
            Expected = new(new(1250), Grams.Zero, ExpectedFrom.WhatGoesIn),
        };
        Grams[] laid = [new(100)];
        var divided = DividedBatch.Of(new(1000), 2, null, planned, laid, new(600)).Value!;
        Assert.Equal([80m, 320m], divided.Portions.Select(portion => portion.Weight.Value));
        Assert.Equal("all-in-dishes", DividedBatch.Of(new(1000), 2, null, planned, [], new(1000)).Problems[0].Code);
        var counted = DividedBatch.Of(new(1000), 2, 20, planned, [], new(575)).Value!;
        Assert.Equal([4m, 4m], counted.Portions.Select(portion => portion.Pieces!.Value));
        Assert.Equal(0, counted.OverPieces);
    }
}
