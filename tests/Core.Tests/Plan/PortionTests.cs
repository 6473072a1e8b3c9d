using System.Collections.Immutable;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Core.Plan.Mends;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Plan;

/// <summary>Portions of batches that are not packed yet: laid, sized, mended, fitted, and never where they may not lie.</summary>
public sealed class PortionTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);
    private static readonly Guid Ada = Guid.Parse("00000000-0000-0000-0000-00000000000a"),
        Bo = Guid.Parse("00000000-0000-0000-0000-00000000000b"), Pot = Guid.Parse("00000000-0000-0000-0000-0000000000ff");
    private static readonly Food Plain = Kitchen.Of("plain", new(Energy: 100, Protein: 10));
    private int made;

    private Guid Id() => new($"00000000-0000-0000-0003-{++made:D12}");

    // 2,000 g raw that are expected to weigh 1,600: 100 g of it hold 125 kcal.
    private static Batch Stew(int cookedIn = 2, bool isPlanned = true, Food? of = null, int portions = 4) =>
        new(Pot, "stew", new TapeMark("ST", 1), Today.AddDays(cookedIn), new([(of ?? Plain).Grams(2000)]),
            null)
        {
            State = isPlanned ? BatchState.Planned : BatchState.Cooking,
            Expected = new(new(1600), Grams.Zero, ExpectedFrom.Recipe),
            Portions = portions
        };

    private static UnpackedBatch Unpacked(Batch batch, decimal laid = 0, params (Guid Eater, decimal Grams)[] sizes) =>
        new(batch, new(laid), sizes.ToDictionary(size => size.Eater, size => new Grams(size.Grams)));

    private static Stock With(Batch batch) => new(new Dictionary<Guid, Box>(), new Dictionary<Guid, Batch> { [batch.Id] = batch });

    private PlanItem Portion(decimal grams) => new(Id(), new Portion(Pot, new(grams)));

    private PlanItem Food(decimal grams) => new(Id(), new PlainFood($"{grams} g plain", Plain.Grams(grams)));

    private static PlanBoard Board(params (Guid Eater, int Day, PlanItem[] Items)[] days) =>
        new(days.ToImmutableDictionary(day => new EaterDay(day.Eater, Today.AddDays(day.Day)), day => day.Items.ToImmutableList()));

    private static FittedEater Eater(decimal min, decimal max, EatingWays? ways = null) =>
        new(new Eater(Ada, "Ada", new(Measure.Energy, new Dictionary<Measure, Band> { [Measure.Energy] = new(min, null, max) }, null)),
            ways ?? EatingWays.Plain);

    [Fact]
    public void A_portion_holds_its_share_of_what_is_expected_and_of_what_was_weighed_after()
    {
        var item = Portion(400);
        Assert.Equal(500, item.Contents(With(Stew())).Totals[Nutrient.Energy].Known);
        Assert.Equal(533.33m, Math.Round(item.Contents(With(Stew() with { Cooked = new(1500) })).Totals[Nutrient.Energy].Known, 2));
        Assert.Equal("stew", item.Name(With(Stew())));

        // Where the batch's weight is not known, or comes to nothing, neither is what a portion holds; its foods are named all the same.
        foreach (var odd in new[] { Stew() with { Expected = null },
            Stew() with { Expected = new(new(-40), Grams.Zero, ExpectedFrom.WhatGoesIn) },
            Stew() with { Cooked = Grams.Zero, Expected = null } })
        {
            Assert.Null(odd.Weight);
            var holds = item.Contents(With(odd));
            Assert.Equal(Total.Of(0, false), holds.Totals[Nutrient.Energy]);
            Assert.Equal(["plain"], holds.Ingredients.Select(part => part.Food.Name));
        }
    }

    [Fact]
    public void All_portions_of_one_eater_follow_one_size_and_it_is_undone_as_one()
    {
        var (one, two, theirs) = (Portion(300), Portion(320), Portion(300));
        var board = Board((Ada, 2, [one, Food(50)]), (Ada, 3, [two]), (Bo, 2, [theirs]));
        var change = board.Size(Ada, Pot, new(410)).Value!;
        var after = board.Apply(change).Value!;
        Assert.Equal([410m, 410m],
            after.Days.Where(day => day.Key.EaterId == Ada).SelectMany(day => day.Value).Where(item =>
            item.Portion is not null).Select(item => item.Portion!.Weight.Value));
        Assert.Equal(300, after[new(Bo, Today.AddDays(2))][0].Portion!.Weight.Value);
        Assert.Equal(board[new(Ada, Today.AddDays(3))], after.Apply(change.Inverse).Value![new(Ada, Today.AddDays(3))]);

        Assert.Equal("portion-none", board.Size(Guid.NewGuid(), Pot, new(100)).Problems.Single().Code);
        Assert.Equal("portion-absurd", board.Size(Ada, Pot, Grams.Zero).Problems.Single().Code);
        Assert.Equal("not-packed", board.Eat(one.Id, DateTimeOffset.UnixEpoch).Problems.Single().Code);
        Assert.Equal("item-gone", board.Amend(one.Id, new PlainFood("1 g plain", Plain.Grams(1))).Problems.Single().Code);
        Assert.Equal(350, board.Apply(board.Size(two.Id, new(350)).Value!).Value![new(Ada, Today.AddDays(3))][0].Portion!.Weight.Value);
    }

    private static Problem? Refused(EatingWays ways, DateOnly day, PlanItem item, Stock stock) =>
        DayGate.Refusal("Ada", ways, day, item, stock, _ => null);

    [Fact]
    public void Nothing_lies_on_a_day_before_it_is_cooked_or_where_it_is_excluded()
    {
        var careful = new EatingWays { NeverAllergens = [Allergen.TreeNuts] };
        var nut = Plain with { Allergens = [Allergen.TreeNuts] };
        Assert.Equal("not-cooked-yet", Refused(EatingWays.Plain, Today.AddDays(1), Portion(300), With(Stew()))!.Code);
        Assert.Null(Refused(EatingWays.Plain, Today.AddDays(2), Portion(300), With(Stew())));
        Assert.Null(Refused(EatingWays.Plain, Today, Portion(300), With(Stew(0, isPlanned: false))));
        Assert.Equal("never-for", Refused(careful, Today.AddDays(2), Portion(300), With(Stew(of: nut)))!.Code);

        // By what is known today: the label has come to name the nuts only since.
        Assert.Equal("never-for",
            DayGate.Refusal("Ada", careful, Today.AddDays(2), Portion(300), With(Stew()), id => id == Plain.Id ? nut : null)!.Code);
        Assert.Equal("never-for", DayGate.Refusal("Ada", careful, Today, Food(50), Stock.None, id => id == Plain.Id ? nut : null)!.Code);

        // A box as little as a portion lies on a day before it is cooked.
        var box = new Box(Guid.NewGuid(), Stew(isPlanned: false) with { CookedOn = Today }, new Grams(300), null);
        var laid = new PlanItem(Id(), new LaidBox(box.Id));
        Assert.Equal("not-cooked-yet", Refused(EatingWays.Plain, Today.AddDays(-1), laid, Stock.Of([box]))!.Code);
        Assert.Null(Refused(EatingWays.Plain, Today, laid, Stock.Of([box])));

        // What is forgotten on a label is not forgotten in the pan.
        Assert.Equal("never-for", DayGate.Refusal("Ada", careful, Today.AddDays(2), Portion(300), With(Stew(of: nut)), _ => Plain)!.Code);
        Assert.Equal("batch-moved-on", Refused(EatingWays.Plain, Today.AddDays(2), Portion(300), Stock.None)!.Code);
    }

    [Theory]
    [InlineData(1600, 4, 400)]
    [InlineData(1709, 4, 430)] // in steps that a scale reads: 427 is 430
    [InlineData(700, 20, 35)]
    [InlineData(60, 20, 3)]
    public void An_ordinary_portion_is_the_whole_by_its_portions_in_steps_of_a_scale(decimal whole, int portions, decimal each)
    {
        var batch = Unpacked(Stew(portions: portions) with { Expected = new(new(whole), Grams.Zero, ExpectedFrom.Recipe) });
        Assert.Equal(each, batch.Ordinary.Value);
        Assert.Equal(each, batch.NewFor(Ada).Value);
        var sizes = batch.ToChooseFrom();
        Assert.Equal(sizes.Order(), sizes);
        Assert.Contains(batch.Ordinary, sizes);
        Assert.InRange(sizes[^1] / batch.Ordinary, 1.5m, 1.8m);
    }

    [Fact]
    public void What_comes_in_pieces_is_planned_in_whole_ones_each_eater_their_own_number()
    {
        // Twelve waffles of 80 g for six: two is an ordinary portion; Ada has four.
        var waffles = Stew(portions: 6) with { Expected = new(new(960), Grams.Zero, ExpectedFrom.Recipe), Pieces = 12 };
        var batch = Unpacked(waffles, 320, (Ada, 320));
        Assert.Equal((160m, 320m, 160m), (batch.Ordinary.Value, batch.NewFor(Ada).Value, batch.NewFor(Bo).Value));
        Assert.Equal([80m, 160m, 240m, 320m], batch.ToChooseFrom().Select(size => size.Value));
        var portion = new PlanItem(Id(), new Portion(Pot, new Grams(320)));
        Assert.Equal(4, With(waffles).BoxOf(portion)!.Pieces);

        // A fit and a mend choose among whole ones.
        var days = new[] { new EaterDay(Ada, Today.AddDays(2)) };
        var week = new WeekToFit([Eater(490, 510)], days, Today, PlanBoard.Empty, With(waffles), [], [batch], [], FitScope.Fitted, new());
        Assert.All(week.Problem.Batches.Single().Sizes, size => Assert.Equal(0, size.Grams % 80));
        var day = new DayOnPlan(Eater(320, 340), Today.AddDays(2), Today, Board((Ada, 2, [portion])), With(waffles), [], [batch], []);
        var mend = new DayMends(day).Suggest().Mends.First(mend => mend.Steps is [Weighs]);
        Assert.Equal(0, ((Weighs)mend.Steps[0]).Weight.Value % 80);
    }

    [Fact]
    public void Where_the_cook_allows_it_a_piece_is_halved_and_never_cut_smaller()
    {
        var waffles =
            Stew(portions: 8) with { Expected = new(new(960), Grams.Zero, ExpectedFrom.Recipe), Pieces = 12, PieceStep = Batch.HalfPiece };
        var batch = Unpacked(waffles);
        Assert.Equal(120, batch.Ordinary.Value);
        Assert.Equal([40m, 80m, 120m, 160m, 200m, 240m], batch.ToChooseFrom().Select(size => size.Value));
        Assert.Equal((40m, 120m, 160m),
            (waffles.ByThePiece(new(3)).Value, waffles.ByThePiece(new(110)).Value, waffles.ByThePiece(new(140)).Value));
        Assert.Equal(1.5m, With(waffles).BoxOf(new PlanItem(Id(), new Portion(Pot, new Grams(120))))!.Pieces);

        // What was laid as one and a half is still shown as that when its recipe no longer allows halves; what is laid from then on is whole.
        var whole = waffles with { PieceStep = Batch.WholePiece };
        Assert.Equal((1.5m, 160m), (whole.PiecesIn(new(120)), whole.ByThePiece(new(120)).Value));
    }

    [Fact]
    public void Of_very_many_pieces_a_fit_tries_several_at_a_time_and_the_ordinary_portion()
    {
        // 90 meatballs of 20 g for ten: nine each.
        var sizes = Unpacked(Stew(portions: 10) with { Expected = new(new(1800), Grams.Zero, ExpectedFrom.Recipe), Pieces = 90 })
            .ToChooseFrom();
        Assert.Equal([40m, 80m, 120m, 160m, 180m, 200m, 240m, 280m, 320m, 360m], sizes.Select(size => size.Value));
    }

    [Fact]
    public void Crumbs_and_tons_are_mended_in_steps_that_end()
    {
        // Ten thousand pieces of next to nothing, and a hundred kilograms of one food.
        var crumbs = Stew() with { Expected = new(new(3), Grams.Zero, ExpectedFrom.Recipe), Pieces = 10_000 };
        var portion = new PlanItem(Id(), new Portion(Pot, new Grams(2)));
        DayOnPlan Day(Batch batch, PlanItem item) =>
            new(Eater(1, 2), Today.AddDays(2), Today, Board((Ada, 2, [item])), With(batch), [], [Unpacked(batch)], []);
        Assert.NotNull(new DayMends(Day(crumbs, portion)).Suggest());
        Assert.NotNull(new DayMends(Day(Stew(), Food(100_000))).Suggest());
    }

    [Fact]
    public void What_is_left_may_be_less_than_nothing_and_says_for_how_many_portions_to_cook()
    {
        var batch = Unpacked(Stew(), laid: 1900, (Ada, 350));
        Assert.Equal((-300m, 5, 350m, 400m), (batch.Left.Value, batch.PortionsLaid, batch.NewFor(Ada).Value, batch.NewFor(Bo).Value));
        Assert.Equal((5, 3, 4), (batch.BoxesFor(5), Unpacked(Stew(), laid: 1100).BoxesFor(2), Unpacked(Stew()).BoxesFor(0)));
        Assert.Equal(4, Unpacked(Stew(), laid: 1605).PortionsLaid);
        Assert.Equal(1, Unpacked(Stew()).PortionsLaid);
    }

    [Fact]
    public void A_copied_day_takes_its_portions_along_as_far_as_there_is_enough_and_they_are_cooked()
    {
        // Of 1,600 g 600 lie on days: two more portions of 400 g, and none on the day before it is cooked.
        var board = Board((Ada, 3, [Portion(400)]));
        EaterDay Day(int day) => new(Ada, Today.AddDays(day));
        var change = board.Copy(Day(3), [Day(1), Day(5), Day(4), Day(6)], null, [Unpacked(Stew(), 600)], Today, Id).Value!;
        Assert.Equal([(4, 1), (5, 1), (1, 0), (6, 0)],
            change.Days.Select(day => (day.Where.Day.DayNumber - Today.DayNumber, day.After.Count)).OrderByDescending(one =>
            one.Item2).ThenBy(one => one.Item1));
        Assert.Equal("copy-nothing", board.Copy(Day(3), [Day(1)], null, [Unpacked(Stew())], Today, Id).Problems.Single().Code);
    }

    [Fact]
    public void A_day_is_mended_by_a_smaller_portion_or_by_laying_one()
    {
        var board = Board((Ada, 2, [Portion(400)]));
        DayMends Mends(FittedEater who, int day, PlanBoard on, decimal laid) => new(OnPlan(who, day, on, laid));
        DayOnPlan OnPlan(FittedEater who, int day, PlanBoard on, decimal laid) =>
            new(who, Today.AddDays(day), Today, on, With(Stew()), [], [Unpacked(Stew(), laid)], []);
        IEnumerable<(Mend Mend, T Step)> Steps<T>(DayMends mends) =>
            mends.Suggest().Mends.Where(mend => mend.Steps is [T]).Select(mend => (mend, (T)(object)mend.Steps[0]));
        var over = Mends(Eater(380, 420), 2, board, 400);
        var (size, weighs) = Steps<Weighs>(over).First();
        Assert.Equal((330m, -87.5m), (weighs.Weight.Value, size.Change[Measure.Energy]));
        Assert.Equal(330, board.Apply(over.Apply(size.Id, Id).Value!).Value![new(Ada, Today.AddDays(2))][0].Portion!.Weight.Value);

        // Larger only as far as there is enough of it.
        Assert.Equal(450, Steps<Weighs>(Mends(Eater(560, 600), 2, board, 400)).First().Step.Weight.Value);
        Assert.Empty(Steps<Weighs>(Mends(Eater(560, 600), 2, board, 1580)));

        // On an empty day a portion is offered like a box, while one is left and the batch is cooked by then.
        DayOnPlan Empty(int day, decimal laid) => OnPlan(Eater(490, 510), day, PlanBoard.Empty, laid);
        var (lay, _) = Assert.Single(Steps<LaysBox>(new DayMends(Empty(3, 0))));
        var laid = PlanBoard.Empty.Apply(new DayMends(Empty(3, 0)).Apply(lay.Id, Id).Value!).Value![new(Ada, Today.AddDays(3))];
        Assert.Equal(new Portion(Pot, new(400)), Assert.Single(laid).Portion);
        var offer = Assert.Single(StillFits.On(Empty(3, 0), 5));
        Assert.Equal((null, Pot), (offer.BoxId, offer.BatchId));
        Assert.Empty(StillFits.On(Empty(1, 0), 5));
        Assert.Empty(StillFits.On(Empty(3, 1300), 5));
    }

    [Fact]
    public void A_fit_divides_what_is_not_packed_and_what_lies_unchanged_stays_the_very_same_item()
    {
        var (kept, other) = (Portion(400), Portion(220));
        var board = Board((Ada, 2, [kept]), (Ada, 3, [other]));
        var days = Enumerable.Range(0, 5).Select(day => new EaterDay(Ada, Today.AddDays(day))).ToList();
        WeekToFit Week(Batch batch, Func<Batch, bool>? open = null) =>
            new([Eater(490, 510)], days, Today, board, With(batch), [], [Unpacked(batch, 1000, (Ada, 400))], [], FitScope.Boxes, new(),
            open);

        // 1,600 g, of which 1,000 lie on days: 620 of them on these, which are free again; 380 elsewhere stay.
        var batch = Assert.Single(Week(Stew()).Problem.Batches);
        Assert.Equal((1220m, 2, false, "stew"), (batch.Grams!.Value, batch.FirstDay, batch.AmountIsOpen, batch.Dish));
        Assert.Equal((2820m, true),
            (Assert.Single(Week(Stew(), _ => true).Problem.Batches).Grams!.Value,
            Assert.Single(Week(Stew(), _ => true).Problem.Batches).AmountIsOpen));
        Assert.Equal(1220, Assert.Single(Week(Stew(isPlanned: false), _ => true).Problem.Batches).Grams);

        var size = batch.Sizes.Select(one => one.Grams).ToList().IndexOf(400);
        var under = Week(Stew()).DaysUnder(new FitPlan([new(0, 2, 0, size), new(0, 4, 0, size)], []), Id);
        Assert.Equal([kept], under[days[2]]);
        Assert.Empty(under[days[3]]);
        Assert.Equal(new Portion(Pot, new(400)), Assert.Single(under[days[4]]).Portion);
        Assert.NotNull(Assert.Single(under[days[4]]).Slot);
    }

    [Fact]
    public void A_batch_cooked_too_long_ago_is_left_out_and_one_planned_for_a_day_past_is_taken_as_todays()
    {
        WeekToFit Week(Batch batch) =>
            new([Eater(490, 510)], [new(Ada, Today)], Today, PlanBoard.Empty, With(batch), [], [Unpacked(batch)], [], FitScope.Boxes,
            new());
        Assert.Empty(Week(Stew(-6, isPlanned: false)).Problem.Batches);
        Assert.Equal("stew", Assert.Single(Week(Stew(-6, isPlanned: false)).LeftOut).Batch.RecipeName);
        Assert.Equal(0, Assert.Single(Week(Stew(-6)).Problem.Batches).FirstDay);
        IReadOnlyList<StillFits> Fits(Batch batch) =>
            StillFits.On(new(Eater(490, 510), Today, Today, PlanBoard.Empty, With(batch), [], [Unpacked(batch)], []), 5);
        Assert.Equal("stew", Assert.Single(Fits(Stew(-6))).Name);
        Assert.Empty(Fits(Stew(-6, isPlanned: false)));
    }

    [Fact]
    public void The_calendar_knows_prep_days_ahead_and_what_is_to_be_thawed()
    {
        var entries = WeekCalendar.Of([Eater(490, 510)], Board((Ada, 8, [Portion(400)])), With(Stew()), [], Today);
        Assert.Equal(Today.AddDays(2), Assert.Single(entries, entry => entry.Title == "Prep day: stew").Day);
        Assert.Equal(Today.AddDays(7),
            Assert.Single(entries, entry => entry.Title.StartsWith("Move to the fridge", StringComparison.Ordinal)).Day);
    }

    /// <summary>Nobody cooked it on its day: its days in the fridge begin today at the earliest, not on the day that is past.</summary>
    [Fact]
    public void A_batch_planned_for_a_day_past_is_not_frozen_by_that_day()
    {
        var overdue = Stew(-2);
        Assert.False(UseBy.Of(overdue, Today, KeepingRules.Default).IsFrozenFor(Today.AddDays(3)));
        Assert.True(UseBy.Of(Stew(-2, isPlanned: false), Today, KeepingRules.Default).IsFrozenFor(Today.AddDays(3)));
        var entries = WeekCalendar.Of([Eater(490, 510)], Board((Ada, 3, [Portion(400)])), With(overdue), [], Today);
        Assert.Equal(Today, Assert.Single(entries, entry => entry.Title == "Prep day: stew").Day);
        Assert.DoesNotContain(entries, entry => entry.Title.StartsWith("Move to the fridge", StringComparison.Ordinal));
    }
}
