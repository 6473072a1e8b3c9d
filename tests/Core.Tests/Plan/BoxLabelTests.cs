using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan.Labels;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Plan;

/// <summary>What a label says, line by line; a cooked dish keeps 3 days in the fridge and 60 in the freezer.</summary>
public sealed class BoxLabelTests
{
    // A Wednesday.
    private static readonly DateOnly Today = new(2026, 11, 25);

    private static BoxLabel Of(int cooked, int? day = null, int? frozen = null, Food? food = null, BatchState state = BatchState.Packed)
    {
        var batch = new Batch(
            Guid.NewGuid(), "Barley stew", new TapeMark("BS", 1), Today.AddDays(cooked), new([(food ?? Kitchen.Barley).Grams(400)]),
            new Grams(2000))
        { State = state };
        var box = new Box(Guid.NewGuid(), batch, new(450.04m), null);
        if (frozen is { } at) box = box with { Life = box.Life.Put(BoxPlace.Freezer, Today.AddDays(at)) };
        return new BoxLabel(box, new(7, 2), UseBy.Of(box, Today, KeepingRules.Default), Today)
        {
            Eater = day is null ? null : "Isa",
            Day = day is { } laid ? Today.AddDays(laid) : null,
        };
    }

    private static string? Line(BoxLabel label, LabelPart part) =>
        label.Lines.FirstOrDefault(line => line.Part == part)?.Text.Replace('\u00a0', ' ');

    [Theory]
    [InlineData(0, null, null, "Use by Sat 28 Nov")]
    [InlineData(0, 3, null, "Use by Sat 28 Nov")] // eaten on its last day
    [InlineData(0, 5, null, "Freeze Wed 25 Nov · Thaw Sun 29 Nov")] // its day is after its last
    [InlineData(-3, 1, null, "Freeze Wed 25 Nov")] // for tomorrow: there is no day to thaw it on
    [InlineData(-4, null, null, "Past its last day, Tue 24 Nov")]
    [InlineData(-2, null, -2, "Frozen Mon 23 Nov · Use by 22 Jan 2027")]
    [InlineData(-2, 4, -1, "Frozen Tue 24 Nov · Thaw Sat 28 Nov · Use by 22 Jan 2027")]
    [InlineData(-2, 0, -1, "Frozen Tue 24 Nov · Use by 22 Jan 2027")] // to be eaten today
    public void It_says_until_when_and_what_to_do_before(int cooked, int? day, int? frozen, string dates) =>
        Assert.Equal(dates, Line(Of(cooked, day, frozen), LabelPart.Dates));

    // Still to be filled, and to go straight into the freezer.
    [Fact]
    public void What_is_to_be_frozen_when_it_is_filled_says_so() => Assert.Equal(
        "Freeze Fri 27 Nov · Thaw Mon 30 Nov · Use by 26 Jan 2027", Line(Of(2, 6, 2) with { IsAhead = true }, LabelPart.Dates));

    [Fact]
    public void It_says_whose_it_is_how_much_and_what_that_is_and_about_where_it_is_not_filled()
    {
        // 450 g of 2,000 g with 400 g of barley at 352 kcal: 316.8 kcal.
        var label = Of(0, 2) with
        {
            Figures = [KeyValuePair.Create(Measure.Energy, new Total(316.8m)), KeyValuePair.Create(Measure.Points, new Total(8))],
        };
        Assert.Equal("450 g · 317 kcal · 8 points", Line(label, LabelPart.Amount));
        Assert.Equal("Isa, Fri 27 Nov", Line(label, LabelPart.Whose));
        Assert.Equal("Guests of Isa, Fri 27 Nov", Line(label with { IsForGuests = true }, LabelPart.Whose));
        Assert.Equal("about 450 g · 317 kcal · 8 points", Line(label with { IsAhead = true }, LabelPart.Amount));
        Assert.Equal("To be made Wed 25 Nov", Line(Of(0, state: BatchState.Planned), LabelPart.Cooked));
        Assert.Equal("Cooked Wed 25 Nov", Line(Of(0, state: BatchState.Cooked), LabelPart.Cooked));
        Assert.Null(Line(Of(0), LabelPart.Whose));
        var open = label with { Figures = [KeyValuePair.Create(Measure.NetCarbohydrate, new Total(12.34m, Certainty.AtLeast))] };
        Assert.Equal("450 g · at least 12.3 g net carbs", Line(open, LabelPart.Amount));
    }

    [Fact]
    public void What_somebody_may_not_eat_is_named_and_what_nobody_knows_is_not_passed_over()
    {
        var cheese = Kitchen.Barley with { Allergens = [Allergen.TreeNuts, Allergen.Milk] };
        Assert.Equal("Contains milk, tree nuts", Line(Of(0, food: cheese), LabelPart.Contains));
        Assert.Null(Line(Of(0), LabelPart.Contains));
        var imported = Kitchen.Barley with { Id = FoodIds.Library + "x:1" };
        Assert.Equal("Its allergens are not all known", Line(Of(0, food: imported), LabelPart.Contains));
        Assert.Equal("Not for Finn, Ada", Line(Of(0) with { NotFor = ["Finn", "Ada"] }, LabelPart.NotFor));
    }

    [Fact]
    public void What_is_written_of_the_dish_stands_in_one_line_and_no_longer_than_fits()
    {
        var notes = BoxNotes.Of("  3 min,\n lid ajar ", " ").Value!;
        Assert.Equal(new BoxNotes("3 min, lid ajar", null), notes);
        Assert.Equal("Heat: 3 min, lid ajar", Line(Of(0) with { Notes = notes }, LabelPart.Heating));
        Assert.Equal("atEating", BoxNotes.Of(null, new string('x', BoxNotes.Longest + 1)).Problems[0].Field);
    }
}
