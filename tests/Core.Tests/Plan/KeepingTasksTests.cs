using LivelyTern.Core.Cook;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Plan;

public sealed class KeepingTasksTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);
    private static readonly Guid Ada = Guid.Parse("00000000-0000-0000-0000-00000000000a");

    // A box of a stew that keeps three days in the fridge and sixty in the freezer.
    private static KeptBox Kept(int cooked, int? laid, int? frozen = null, int? thawed = null, bool wasLookedAt = false)
    {
        var batch = new Batch(
            Guid.NewGuid(), "stew", new TapeMark("ST", 1), Today.AddDays(cooked), new([Kitchen.Barley.Grams(1000)]), new Grams(1000));
        var box = new Box(Guid.NewGuid(), batch, new(300), null);
        if (frozen is { } at) box = box with { Life = box.Life.Put(BoxPlace.Freezer, Today.AddDays(at)) };
        if (thawed is { } out_) box = box with { Life = box.Life.Put(BoxPlace.Fridge, Today.AddDays(out_)) };
        var next = laid is { } day ? new BoxLaid(new(Ada, Today.AddDays(day)), Guid.NewGuid()) : null;
        return new(box, UseBy.Of(box, Today, KeepingRules.Default), next, wasLookedAt);
    }

    private static string In(KeptBox box)
    {
        var tasks = KeepingTasks.Of([box], Today);
        var lists = new (string Name, IReadOnlyList<KeptBox> List)[]
        {
            ("freeze", tasks.Freeze), ("thaw", tasks.Thaw), ("late", tasks.Late), ("tomorrow", tasks.ThawTomorrow),
            ("short", tasks.TooLate), ("first", tasks.EatFirst), ("over", tasks.Over),
        };
        return string.Join('+', lists.Where(one => one.List.Count > 0).Select(one => one.Name));
    }

    [Theory]
    [InlineData(0, 4, null, null, "freeze")] // for a day after its last in the fridge
    [InlineData(0, 3, null, null, "")] // for its last day
    [InlineData(-3, 1, null, null, "freeze")] // today is the last chance
    [InlineData(0, null, null, null, "")] // on no day, and days left
    [InlineData(-2, null, null, null, "first")] // on no day, tomorrow is its last
    [InlineData(-3, 0, null, null, "")] // eaten today by the plan
    [InlineData(-4, 1, null, null, "over")] // past its last day, whatever the plan says
    [InlineData(-10, 1, -9, null, "thaw")]
    [InlineData(-10, 0, -9, null, "late")]
    [InlineData(-10, 2, -9, null, "tomorrow")]
    [InlineData(-10, 3, -9, null, "")]
    [InlineData(-55, null, -54, null, "first")] // its days in the freezer run out within the week
    [InlineData(-10, 4, -9, 0, "short")] // thawed, and for a day it does not keep to: it does not go back into the freezer
    [InlineData(-61, 1, -60, null, "over")]
    public void Each_box_is_in_the_one_list_that_says_what_to_do(int cooked, int? laid, int? frozen, int? thawed, string list) =>
        Assert.Equal(list, In(Kept(cooked, laid, frozen, thawed)));

    [Fact]
    public void What_does_not_freeze_well_is_not_to_be_frozen_but_eaten_sooner()
    {
        var stew = Kept(0, 4);
        var salad = stew.Box with { Main = stew.Box.Main with { Batch = stew.Box.Batch with { RecipeName = "Potato salad" } } };
        Assert.Equal("short", In(stew with { Box = salad, UseBy = UseBy.Of(salad, Today, KeepingRules.Default) }));
    }

    [Fact]
    public void Past_its_day_it_asks_once()
    {
        Assert.Equal("over", In(Kept(-5, null)));
        Assert.Equal("", In(Kept(-5, null, wasLookedAt: true)));
    }
}
