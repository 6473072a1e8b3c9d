using System.Collections.Immutable;
using FsCheck;
using FsCheck.Xunit;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Pack;

/// <summary>A box of several things, how long it keeps, and what the days make of it.</summary>
public sealed class BoxTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);
    private static readonly Guid Ada = Guid.Parse("00000000-0000-0000-0000-00000000000a"),
        Bo = Guid.Parse("00000000-0000-0000-0000-00000000000b");

    private static Batch Of(string dish, Food food, int cookedDaysAgo = 0) =>
        new(Guid.NewGuid(), dish, new TapeMark("XX", 1), Today.AddDays(-cookedDaysAgo), new([food.Grams(1000)]), new Grams(800));

    // 200 g of 800 g meatballs made of 1,000 g egg at 140 kcal, 100 g of 800 g of lentils at 358, and 30 g butter in its cup:
    // 350 + 447.5 + 215.1 kcal.
    [Fact]
    public void A_box_of_two_batches_and_a_cup_holds_a_share_of_each_and_keeps_as_long_as_the_shortest()
    {
        var (balls, lentils) = (Of("meatballs", Kitchen.Egg), Of("lentils", Kitchen.Lentils, cookedDaysAgo: 2));
        var box = new Box(Guid.NewGuid(), new(balls, new(200)),
            [new BatchShare(lentils, new(100), null, "left"), new FoodInBox("30 g butter", Kitchen.Butter.Grams(30), "cup")],
            BoxLife.New(Today, null));
        Assert.Equal(330, box.Weight.Value);
        Assert.Equal(350m + 447.5m + 215.1m, box.Contents.Totals[Nutrient.Energy].Known);
        Assert.Equal(Today.AddDays(1), UseBy.Of(box, Today, KeepingRules.Default).Fridge);
        Assert.Equal([null, "left", "cup"], box.Parts.Select(part => part.Compartment));
        var withRice = box with { Main = new(Of("rice", Kitchen.Barley with { Keeping = KeepingKind.Rice }, cookedDaysAgo: 1), new(200)) };
        Assert.Equal(Today, UseBy.Of(withRice, Today, KeepingRules.Default).Fridge);
    }

    [Theory]
    [InlineData(0, 0, BoxPlace.Freezer, 60, true)]
    [InlineData(0, 3, BoxPlace.Freezer, 60, true)]
    [InlineData(0, 4, BoxPlace.Freezer, 3, false)]
    [InlineData(0, 1, BoxPlace.Fridge, 31, false)]
    public void Frozen_in_time_it_keeps_frozen_too_late_it_does_not_and_thawed_it_keeps_a_day(int cooked, int frozen, BoxPlace now,
        int last, bool isFrozen)
    {
        var start = Today.AddDays(cooked);
        var life = BoxLife.New(start, null).Put(BoxPlace.Freezer, start.AddDays(frozen));
        if (now != BoxPlace.Freezer) life = life.Put(now, start.AddDays(30));
        var box = new Box(Guid.NewGuid(), Of("stew", Kitchen.Egg), new(200), null) with { Life = life };
        var useBy = UseBy.Of(box, Today, KeepingRules.Default);
        Assert.Equal((start.AddDays(last), isFrozen), (useBy.Last, useBy.IsFrozen));
        Assert.Equal(isFrozen, useBy.IsFrozenFor(start.AddDays(1)));
    }

    // Out on day 10, it is over on day 12 wherever it stands, and freezing it then makes it no better; back on the day it came out it is as it was.
    [Fact]
    public void Moving_a_thawed_box_about_or_freezing_it_again_late_makes_it_keep_no_longer()
    {
        UseBy Of(BoxLife life)
        {
            var box = new Box(Guid.NewGuid(), BoxTests.Of("stew", Kitchen.Egg), new(200), null) with { Life = life };
            return UseBy.Of(box, Today, KeepingRules.Default);
        }

        var frozen = BoxLife.New(Today, null).Put(BoxPlace.Freezer, Today);
        var (tenth, twelfth) = (Today.AddDays(10), Today.AddDays(12));
        var thawed = frozen.Put(BoxPlace.Fridge, tenth).Put(BoxPlace.Counter, twelfth).Put(BoxPlace.TakenAlong, twelfth);
        Assert.Equal(Today.AddDays(11), Of(thawed).Last);
        Assert.True(Of(thawed.Put(BoxPlace.Freezer, twelfth)).IsOver(twelfth));
        Assert.True(Of(frozen.Put(BoxPlace.Fridge, tenth).Put(BoxPlace.Freezer, tenth.AddDays(1))).IsOver(twelfth));
        Assert.Equal(Of(frozen), Of(frozen.Put(BoxPlace.Fridge, tenth).Put(BoxPlace.Freezer, tenth)));
    }

    private static IReadOnlyList<BoxChange> Happens(PlanChange change, Guid id, BoxLife life) => BoxesOnDays.Follow(
        new Dictionary<Guid, (Grams, BoxLife)> { [id] = (new(200), life) }, change.Boxes,
        BoxOnDay.On(change.Days.Select(day => KeyValuePair.Create(day.Where, day.After)))).Value!;

    // Any parts of a box of 200 g, eaten or not: its state is what the eaten grams say, never more lies on days than there is, and the
    // parts hold together what the whole held.
    [SeededProperty]
    public bool A_box_eaten_in_parts_is_part_eaten_until_all_of_it_is_and_the_parts_are_the_whole(PositiveInt[] parts, bool[] eaten)
    {
        var box = new Box(
            Guid.NewGuid(), new(Of("stew", Kitchen.Egg), new(170)), [new FoodInBox("30 g butter", Kitchen.Butter.Grams(30), "cup")],
            BoxLife.New(Today, null));
        BoxOnDay Lying(PositiveInt part, int i) =>
            new(box.Id, i % 2 == 0 ? Ada : Bo, new((part.Get % 120) + 1), i < eaten.Length && eaten[i]);
        var laid = parts.Take(4).Select(Lying).ToList();
        var boxes = new Dictionary<Guid, (Grams, BoxLife)> { [box.Id] = (box.Weight, box.Life) };
        var follows = BoxesOnDays.Follow(boxes, [], laid);
        var (sum, gone) = (laid.Sum(one => one.Part!.Value.Value), laid.Where(one => one.IsEaten).Sum(one => one.Part!.Value.Value));
        if (laid.Count > 1 && sum > 200) return follows.Problems.Single().Code == "box-taken";
        var state = gone >= 200 ? BoxState.Eaten : gone > 0 ? BoxState.PartEaten : BoxState.Packed;
        List<Box> all = [.. laid.Select(one => box.Of(one.Part!.Value)), .. sum < 200 ? [box.Of(new(200 - sum))] : Array.Empty<Box>()];
        var whole = box.Contents.Totals;
        decimal SumOf(Nutrient nutrient) => all.Sum(one => one.Contents.Totals[nutrient].Known);
        return (follows.Value!.LastOrDefault()?.After ?? box.Life).State == state
            && all.Sum(one => one.Weight.Value) is > 199.999m and < 200.001m
            && Nutrients.All.All(nutrient => Math.Abs(SumOf(nutrient) - whole[nutrient].Known) < 1e-9m);
    }

    // Random changes of days: a box is eaten exactly where its day says so, and belongs to whose day it lies on; the inverse leads back.
    [SeededProperty]
    public bool What_a_change_makes_of_a_box_follows_from_the_days_alone_and_its_inverse_leads_back(bool lay, bool eat, bool forBo,
        bool other)
    {
        var id = Guid.NewGuid();
        DateTimeOffset? at = eat ? new DateTimeOffset(2026, 11, 25, 12, 0, 0, TimeSpan.Zero) : null;
        var (from, to) = (new EaterDay(Ada, Today), new EaterDay(forBo ? Bo : Ada, other ? Today.AddDays(1) : Today));
        var item = new PlanItem(Guid.NewGuid(), new LaidBox(id));
        var start = BoxLife.New(Today, lay ? Ada : null);
        var after = item with { EatenAt = at };
        List<DayChange> days = from == to
            ? [new(to, lay ? [item] : [], [after])]
            : [new(from, lay ? [item] : [], []), new(to, [], [after])];
        var change = new PlanChange([.. days]);
        var end = Happens(change, id, start).LastOrDefault()?.After ?? start;
        var back = Happens(change.Inverse, id, end).LastOrDefault()?.After ?? end;
        return end == start with { For = to.EaterId, State = eat ? BoxState.Eaten : BoxState.Packed } && back == start;
    }

    [Fact]
    public void What_is_given_away_is_nobodys_business_of_the_days_until_it_is_back()
    {
        var id = Guid.NewGuid();
        var life = BoxLife.New(Today, Ada);
        var gone = new BoxChange(id, BoxEventKind.GivenAway, life, life with { State = BoxState.GivenAway });
        var item = new PlanItem(Guid.NewGuid(), new LaidBox(id));
        var board = new PlanBoard(ImmutableDictionary<EaterDay, ImmutableList<PlanItem>>.Empty.Add(new(Ada, Today), [item]));
        var change = board.LetGo([gone]).Value!;
        Assert.Empty(board.Apply(change).Value!.Days);
        var happened = Happens(change, id, life);
        Assert.Equal([BoxEventKind.GivenAway], happened.Select(one => one.Kind));
        var back = Happens(change.Inverse, id, happened[^1].After);
        Assert.Equal((BoxEventKind.Back, life), (back[^1].Kind, back[^1].After));

        // And one that is gone may not come onto a day.
        var stock = Stock.Of([new Box(id, Of("stew", Kitchen.Egg), new(200), null) with { Life = gone.After }]);
        Assert.Equal("box-gone", DayGate.Refusal("Ada", LivelyTern.Core.Aim.EatingWays.Plain, Today, item, stock, _ => null)?.Code);
    }
}
