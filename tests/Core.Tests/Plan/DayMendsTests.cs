using System.Collections.Immutable;
using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Core.Plan.Mends;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Plan;

/// <summary>Mends are true, what still fits fits, exclusions and the fridge's days hold; slots, copies and steps in one.</summary>
public sealed class DayMendsTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);
    private static readonly Guid Ada = Guid.Parse("00000000-0000-0000-0000-00000000000a");
    private static readonly Food Plain = Kitchen.Of("plain", new(Energy: 100, Protein: 10));
    private static readonly Food Nut = Kitchen.Of("nut", new(Energy: 600, Protein: 10)) with { Allergens = [Allergen.TreeNuts] };
    private int made;

    private Guid Id() => new($"00000000-0000-0000-0001-{++made:D12}");

    private Box Box(string dish, decimal grams, Food? of = null, int cookedDaysAgo = 1) =>
        new(Id(), new Batch(Guid.Parse($"00000000-0000-0000-0002-{dish.Length:D12}"), dish, new TapeMark("XX", 1),
            Today.AddDays(-cookedDaysAgo), new([(of ?? Plain).Grams(1000)]), new Grams(1000)), new Grams(grams), null);

    private static FittedEater Eater(EatingWays? ways = null, decimal min = 450, decimal max = 550) =>
        new(new Eater(Ada, "Ada", new(Measure.Energy, new Dictionary<Measure, Band> { [Measure.Energy] = new(min, null, max) }, null)),
            ways ?? EatingWays.Plain);

    private PlanItem Event(decimal grams, decimal giveOrTake) => new(Id(), new MealOut("out", Plain.Grams(grams), giveOrTake));

    private PlanItem Food(decimal grams, bool isLocked = false) =>
        new(Id(), new PlainFood($"{grams} g plain", Plain.Grams(grams))) { IsLocked = isLocked };

    private static PlanBoard Board(params (int Day, PlanItem[] Items)[] days) =>
        new(days.ToImmutableDictionary(day => new EaterDay(Ada, Today.AddDays(day.Day)), day => day.Items.ToImmutableList()));

    private static DayOnPlan OnPlan(PlanBoard board, IReadOnlyList<Box>? laid = null, IReadOnlyList<Box>? shelf = null,
        FittedEater? who = null, params FillerOffer[] fillers) =>
        new(who ?? Eater(), Today, Today, board, Stock.Of(laid ?? []), shelf ?? [], [], fillers);

    private static IReadOnlyList<Mend> Mends(DayOnPlan day) => new DayMends(day).Suggest().Mends;

    private static bool IsMoved(Mend mend) => mend.Steps[0] is MovesBound;

    [Fact]
    public void Every_mend_does_what_it_says_and_the_day_fits_then()
    {
        var (box, other, smaller) = (Box("stew", 400), Box("bake x", 250), Box("soups x y", 150));
        var board = Board(
            (0, [new PlanItem(Id(), new LaidBox(box.Id)), Food(300)]),
            (1, [new PlanItem(Id(), new LaidBox(other.Id)), Food(200)]));
        var fillers = new[] { new FillerOffer("50 g plain", Plain.Grams(50)), new FillerOffer("100 g plain", Plain.Grams(100)) };
        var mends = new DayMends(OnPlan(board, [box, other], [smaller], null, fillers));
        var suggested = mends.Suggest().Mends;
        Assert.InRange(suggested.Count, 3, 5);
        Assert.Equal(suggested.OrderBy(mend => mend.Size), suggested);
        foreach (var mend in suggested.Where(mend => !IsMoved(mend)))
        {
            var change = mends.Apply(mend.Id, Id);
            Assert.True(change.Succeeded, mend.Id);
            var after = board.Apply(change.Value!).Value!;
            var stock = Stock.Of([box, other, smaller]);
            var day = DayReading.Of([.. after[new(Ada, Today)].Select(item => item.Contents(stock))], Eater().Eater.Aim);
            Assert.True(day.Fits, mend.Id);
            Assert.Equal(mend.Change[Measure.Energy], day.Sums[Measure.Energy].Known - 700);
        }

        var moved = Assert.Single(suggested, IsMoved);
        Assert.Equal(new Band(450, null, 700), ((MovesBound)moved.Steps[0]).NewBand);
    }

    /// <summary>
    /// Days, boxes and fillers by chance: whatever is suggested is done, the day fits, and no other day is worse off for it.
    /// </summary>
    [SeededProperty(MaxTest = 60)]
    public Property Any_mend_of_any_day_is_true() => Prop.ForAll(Gen.Choose(0, 1_000_000).ToArbitrary(), seed =>
    {
        var chance = new System.Random(seed);
        var foods = new[] { Plain, Nut, Kitchen.Of("lean", new(Energy: 60, Protein: 20)),
            Kitchen.Of("sweet", new(Energy: 350, Protein: 1)) };
        Food Any() => foods[chance.Next(foods.Length)];
        var boxes = Enumerable.Range(0, 5).Select(i =>
            Box(new string('x', i + 1), chance.Next(1, 6) * 50, Any(), chance.Next(0, 3))).ToList();
        PlanItem Loose()
        {
            var (food, grams) = (Any(), chance.Next(1, 40) * 10m);
            return new(Id(), new PlainFood($"{grams} g {food.Name}", food.Grams(grams)))
            {
                IsLocked = chance.Next(6) == 0,
                EatenAt = chance.Next(8) == 0 ? DateTimeOffset.UnixEpoch : null,
            };
        }

        PlanItem[] Day(int box)
        {
            var laid = Enumerable.Range(0, chance.Next(0, 4)).Select(_ => Loose()).ToList();
            if (chance.Next(4) > 0) laid.Add(new PlanItem(Id(), new LaidBox(boxes[box].Id)));
            return [.. laid];
        }

        var board = Board((0, Day(0)), (1, Day(1)), (2, Day(2)));
        var who = Eater(chance.Next(3) == 0 ? new EatingWays { NeverAllergens = [Allergen.TreeNuts] } : EatingWays.Plain,
            min: chance.Next(200, 500), max: chance.Next(510, 900));
        who = who with
        {
            Eater = who.Eater with
            {
                Aim = who.Eater.Aim with
                {
                    Bands = new Dictionary<Measure, Band>(
            who.Eater.Aim.Bands)
                    { [Measure.Protein] = new(Min: chance.Next(5, 40)) }
                }
            }
        };
        var fillers = foods.SelectMany(food =>
            new[] { 30, 60, 120 }.Select(grams => new FillerOffer($"{grams} g {food.Name}", food.Grams(grams)))).ToArray();
        var stock = Stock.Of(boxes);
        DayReading Read(PlanBoard of, int day) =>
            DayReading.Of([.. of[new(Ada, Today.AddDays(day))].Select(item => item.Contents(stock))], who.Eater.Aim);

        var onPlan = OnPlan(board, boxes, boxes[3..], who, fillers);
        Contents Some(Food food) => new([food.Grams(chance.Next(1, 40) * 10m)]);
        foreach (var (at, food) in onPlan.Free.SelectMany(at => foods.Select(food => (at, Some(food)))))
            Assert.Equal(onPlan.Replacing(at, food).IsOut, onPlan.IsOutReplacing(at, who.Eater.Aim.Count(food)));

        var mends = new DayMends(onPlan);
        var suggested = mends.Suggest().Mends;
        var never = board[new(Ada, Today)].Where(item => item.EatenAt is null && who.Ways.Forbids(item.Contents(stock))).Select(item =>
            (Guid?)item.Id).ToList();
        if (never.Count > 0)
        {
            // What must never lie there is taken off before anything else is mended.
            Assert.Equal(never, suggested.Select(mend => (Guid?)((TakesOff)mend.Steps.Single()).Item.Id));
            Assert.All(suggested, mend =>
                Assert.Null(board.Apply(mends.Apply(mend.Id, Id).Value!).Value!.Find(((TakesOff)mend.Steps[0]).Item.Id)));
            return;
        }

        Assert.True(suggested.Count <= 5 && (suggested.Count == 0 || onPlan.Now.IsOut));
        Assert.Equal("mend-gone", mends.Apply("TakesOff:" + Id(), Id).Problems.Single().Code);
        foreach (var mend in suggested)
        {
            if (mend.Steps[0] is MovesBound moved)
            {
                Assert.Equal(BandPosition.Within, moved.NewBand.Read(onPlan.Now.Sums[moved.Measure]).Position);
                continue;
            }

            var change = mends.Apply(mend.Id, Id);
            Assert.True(change.Succeeded, mend.Id);
            var after = board.Apply(change.Value!).Value!;
            Assert.False(Read(after, 0).IsOut, mend.Id);
            Assert.Equal(mend.Change[Measure.Energy], Read(after, 0).Sums[Measure.Energy].Known - onPlan.Now.Sums[Measure.Energy].Known,
                10);
            for (var day = 1; day < 3; day++) Assert.True(!Read(after, day).IsOut || Read(board, day).IsOut,
                $"{mend.Id} pushes day {day} out");

            // What was locked, eaten or must never be had is as it was; a box lies once; taken back, all lies as before.
            foreach (var kept in board[new(Ada, Today)].Where(item => item.IsLocked || item.EatenAt is not null)) Assert.Contains(kept,
                after[new(Ada, Today)]);
            var laid = Enumerable.Range(0, 3).SelectMany(day => after[new(Ada, Today.AddDays(day))]).ToList();
            Assert.Equal(laid.Count, laid.Select(item => item.BoxId ?? item.Id).Distinct().Count());
            var came = laid.Where(item => board.Find(item.Id) is null).ToList();
            Assert.All(came, item => Assert.False(who.Ways.Forbids(item.Contents(stock))));
            var again = after.Apply(change.Value!.Inverse).Value!;
            for (var day = 0; day < 3; day++) Assert.Equal(board[new(Ada, Today.AddDays(day))], again[new(Ada, Today.AddDays(day))]);
        }
    });

    private static FittedEater With(params (Measure Measure, Band Band)[] bands) =>
        new(new Eater(Ada, "Ada", new(bands[0].Measure, bands.ToDictionary(band => band.Measure, band => band.Band), null)),
            EatingWays.Plain);

    private static bool BringsIn(DayOnPlan day, Mend mend)
    {
        var stock = day.Stock;
        var after = day.Board.Apply(new DayMends(day).Apply(mend.Id, Guid.NewGuid).Value!).Value!;
        return DayReading.Of([.. after[day.Where].Select(item => item.Contents(stock))], day.Aim).Fits;
    }

    [Fact]
    public void One_more_spoon_of_what_lies_there_is_tried_before_a_day_is_given_up()
    {
        // A low-carb day 10 g of fat short; 20 g of butter lie on it already.
        var who = With((Measure.NetCarbohydrate, new(Max: 20)), (Measure.Fat, new(Min: 40)), (Measure.Energy, new(Max: 1000)));
        var butter = new FillerOffer("20 g butter", Kitchen.Butter.Grams(20));
        var day = OnPlan(
            Board((0, [new PlanItem(Id(), new PlainFood(butter.Text, butter.Food)),
            new PlanItem(Id(), new PlainFood("150 g egg", Kitchen.Egg.Grams(150)))])), [], [], who, butter);
        Assert.Contains(Mends(day), mend => mend.Steps is [Weighs { Name: "20 g butter" } or LaysFood { Offer.Text: "20 g butter" }]);
        Assert.All(Mends(day).Where(mend => !IsMoved(mend)), mend => Assert.True(BringsIn(day, mend), mend.Id));
    }

    [Fact]
    public void Several_small_things_together_bring_in_what_none_does_alone()
    {
        // 30 g of carbs and a little else short within 5 g: common practice of the 200 / 200 / 50 day, no published source.
        var who = With((Measure.Protein, new(Target: 200) { Tolerance = 5 }), (Measure.Carbohydrate, new(Target: 200) { Tolerance = 5 }),
            (Measure.Fat, new(Target: 50) { Tolerance = 5 }));
        Food Of(string name, decimal protein, decimal carbohydrate, decimal fat) =>
            Kitchen.Of(name,
            new(Energy: (4 * (protein + carbohydrate)) + (9 * fat), Protein: protein, Fat: fat, Carbohydrate: carbohydrate, Fibre: 0));
        var rest = Of("the rest", 19.2m, 17, 4.2m);
        FillerOffer[] fillers = [new("200 g watermelon", Of("watermelon", 0.6m, 7.6m, 0.2m).Grams(200)),
            new("50 g salsa", Of("salsa", 1.5m, 7, 0.2m).Grams(50)), new("30 g sauce", Of("sauce", 1, 20, 8).Grams(30)),
            new("1 egg", Kitchen.Egg.Grams(50))];
        var day = OnPlan(Board((0, [new PlanItem(Id(), new PlainFood("1000 g the rest", rest.Grams(1000))) { IsLocked = true }])), [], [],
            who, fillers);
        var mends = Mends(day).Where(mend => !IsMoved(mend)).ToList();
        Assert.NotEmpty(mends);
        Assert.All(mends, mend => Assert.True(BringsIn(day, mend), mend.Id));
    }

    [Fact]
    public void What_comes_in_pieces_is_mended_in_pieces()
    {
        // Twelve muffins of 80 kcal each; two lie there and 240 kcal are wanted.
        var muffins = new Batch(Id(), "muffins", new TapeMark("MU", 1), Today, new([Plain.Grams(960)]), new Grams(960)) { Pieces = 12 };
        var portion = new PlanItem(Id(), new Portion(muffins.Id, new(160)));
        var stock = new Stock(new Dictionary<Guid, Box>(), new Dictionary<Guid, Batch> { [muffins.Id] = muffins });
        var unpacked = new UnpackedBatch(muffins, new(160), new Dictionary<Guid, Grams> { [Ada] = new(160) });
        var day = new DayOnPlan(Eater(min: 230, max: 250), Today, Today, Board((0, [portion])), stock, [], [unpacked], []);
        var weighs = Mends(day).SelectMany(mend => mend.Steps).OfType<Weighs>().First();
        Assert.Equal((240m, 3), (weighs.Weight.Value, weighs.Pieces));
    }

    [Fact]
    public void Where_nothing_brings_a_day_in_the_nearest_is_told_and_can_be_made()
    {
        var who = With((Measure.Protein, new(Min: 100)), (Measure.Energy, new(Max: 600)));
        var day = OnPlan(Board((0, [Food(500)])), [], [], who, new FillerOffer("50 g egg", Kitchen.Egg.Grams(50)));
        var suggested = new DayMends(day).Suggest();
        Assert.All(suggested.Mends, mend => Assert.True(IsMoved(mend)));
        var (mend, after) = suggested.Nearest!.Value;
        Assert.True(after.IsOut && after.Bands[Measure.Protein].RoomFrom < 50);
        var done = day.Board.Apply(new DayMends(day).Apply(mend.Id, Id).Value!).Value!;
        Assert.Equal(after.Sums[Measure.Protein],
            DayReading.Of([.. done[day.Where].Select(item => item.Contents(Stock.None))], day.Aim).Sums[Measure.Protein]);
    }

    [Fact]
    public void A_fitted_day_that_is_out_by_its_exact_figures_is_finished_by_weighing_what_the_fit_laid()
    {
        // The plan lays two servings of 50 g; 125 g would do. What lay there by hand stays as it is.
        var who = With((Measure.Energy, new(424, null, 430)));
        var byHand = Food(300);
        var where = new EaterDay(Ada, Today);
        WeekToFit Week(EatingWays ways) =>
            new([who with { Ways = ways }], [where], Today, Board((0, [byHand])), Stock.None, [], [], [new("50 g plain", Plain.Grams(50))],
            FitScope.Fitted, new());
        var under = Week(EatingWays.Plain).DaysUnder(new FitPlan([], [new(0, 0, 0, 2)]), Id)[where];
        Assert.Equal(byHand, under[^1] with { Slot = byHand.Slot });
        Assert.Equal(125, under.Where(item => item.IsFitted).Sum(item => item.Food!.Weight.Value));

        // As few small things as the eater wants.
        var few = Week(new() { FillersADay = 1 }).DaysUnder(FitPlan.Nothing, Id)[where];
        Assert.Equal(125, Assert.Single(few, item => item.IsFitted).Food!.Weight.Value);
        Assert.Equal([byHand], Week(new() { FillersADay = 0 }).DaysUnder(FitPlan.Nothing, Id)[where]);
    }

    [Fact]
    public void Two_offers_that_come_to_the_same_are_both_laid()
    {
        var (small, large) = (new FillerOffer("20 g plain", Plain.Grams(20)), new FillerOffer("40 g plain", Plain.Grams(40)));
        var where = new EaterDay(Ada, Today);
        var lying = new PlanItem(Id(), new PlainFood(large.Text, large.Food)) { IsFitted = true };
        var week = new WeekToFit([Eater(min: 0, max: 500)], [where], Today, Board((0, [lying])), Stock.None, [], [], [small, large],
            FitScope.Fitted, new());
        var under = week.DaysUnder(new FitPlan([], [new(0, 0, 0, 2), new(0, 0, 1, 1)]), Id)[where];
        Assert.Equal(["40 g plain", "40 g plain"], under.Select(item => item.Text));
        Assert.Contains(under, item => item.Id == lying.Id);
    }

    [Fact]
    public void Nothing_locked_eaten_or_out_is_touched_and_a_day_past_is_left()
    {
        var locked = Food(700, isLocked: true);
        Assert.All(Mends(OnPlan(Board((0, [locked])))), mend => Assert.IsType<MovesBound>(mend.Steps.Single()));
        var eaten = Food(700) with { EatenAt = DateTimeOffset.UnixEpoch };
        Assert.DoesNotContain(Mends(OnPlan(Board((0, [eaten])))), mend => mend.Steps.Any(step => step is TakesOff or Weighs or Swaps));
        Assert.DoesNotContain(Mends(OnPlan(Board((0, [Event(700, 50)])))), mend =>
            mend.Steps.Any(step => step is TakesOff or Weighs or Swaps));
        Assert.Empty(Mends(new DayOnPlan(Eater(), Today.AddDays(-1), Today, Board((-1, [Food(700)])), Stock.None, [], [], [])));
    }

    [Fact]
    public void A_bound_is_never_moved_below_the_floor()
    {
        // 400 kcal short of 1,500: letting the day be 1,100 is for a clinician.
        Assert.DoesNotContain(Mends(OnPlan(Board((0, [Food(1100)])), who: Eater(min: 1500, max: 1600))), mend =>
            mend.Steps[0] is MovesBound { NewBand.Min: < 1200 });
    }

    [Fact]
    public void What_is_excluded_or_past_its_fridge_days_is_never_offered()
    {
        var (nut, old, good) = (Box("nut roast", 90, Nut), Box("old stew", 100, cookedDaysAgo: 5), Box("stew", 100));
        var careful = Eater(new() { NeverAllergens = [Allergen.TreeNuts] });
        var day = OnPlan(Board((0, [Food(380)])), [], [nut, old, good], careful, new FillerOffer("15 g nut", Nut.Grams(15)),
            new FillerOffer("80 g plain", Plain.Grams(80)));
        Assert.Equal(["stew", "80 g plain"], StillFits.On(day, 10).Select(offer => offer.Name).OrderByDescending(name => name));
        Assert.DoesNotContain(Mends(day).SelectMany(mend => mend.Steps), step =>
            step is LaysBox { Box.Batch.RecipeName: "nut roast" or "old stew" }
                || (step is LaysFood { Offer: var offer } && offer.Food.Food == Nut));
    }

    [Fact]
    public void Why_says_what_the_day_would_be_without_it()
    {
        var box = Box("stew", 400, cookedDaysAgo: 5);
        var (item, spare) = (new PlanItem(Id(), new LaidBox(box.Id)) { IsLocked = true }, Food(60));
        var day = OnPlan(Board((0, [item, spare])), [box], [Box("soups x y", 420)]);
        var why = WhyHere.Of(day, item.Id)!;
        Assert.True(why.IsLocked && why.IsFrozen && why.OthersTried == 1 && why.OthersFit == 1);
        Assert.Equal(390, why.OutWithout[Measure.Energy].RoomFrom);
        Assert.Equal(Today.AddDays(-2), why.UseBy);
        Assert.NotEmpty(WhyHere.Of(day, spare.Id)!.OutWithout);
        Assert.Null(WhyHere.Of(day, Guid.Empty));
    }

    [Fact]
    public void A_part_of_the_day_is_offered_what_brings_it_nearest_to_its_share()
    {
        // Of 600 kcal noon wants a third, 200, of which 40 lie there; "between" takes no box.
        var ways = new EatingWays
        {
            OwnSlots = [new("noon", null, 0.35m, true), new("between", null, 0.1m, false),
            new("late", null, null, true)]
        };
        var who = new FittedEater(
            new Eater(Ada, "Ada", new(Measure.Energy, new Dictionary<Measure, Band> { [Measure.Energy] = new(550, 600, 650) }, null)),
            ways);
        var board = Board((0, [Food(50) with { Slot = "noon" }]));
        FillerOffer[] fillers = [new("60 g plain", Plain.Grams(60)), new("155 g plain", Plain.Grams(155)),
            new("400 g plain", Plain.Grams(400))];
        var day = OnPlan(board, [], [Box("stew", 300)], who, fillers);
        Assert.Equal(["155 g plain", "60 g plain", "stew", "400 g plain"], StillFits.On(day, 9, "noon").Select(offer => offer.Name));
        Assert.Equal(["60 g plain", "155 g plain", "400 g plain"], StillFits.On(day, 9, "Between").Select(offer => offer.Name));
        Assert.Equal(StillFits.On(day, 9).Select(offer => offer.Name), StillFits.On(day, 9, "late").Select(offer => offer.Name));
        Assert.Equal(StillFits.On(day, 9).Select(offer => offer.Name), StillFits.On(day, 9, "no such part").Select(offer => offer.Name));
    }

    [Fact]
    public void What_is_at_the_edge_holds_but_only_just()
    {
        var bands = new Dictionary<Measure, Band>
        {
            [Measure.Energy] = new(Max: 1600),
            [Measure.Protein] = new(Min: 70),
            [Measure.Fat] = new(Max: 50),
            [Measure.Fibre] = new(Min: 30)
        };
        var sums = new Dictionary<Measure, decimal>
        {
            [Measure.Energy] = 1590,
            [Measure.Protein] = 71,
            [Measure.Fat] = 30,
            [Measure.Fibre] = 20
        };
        Assert.Equal([Measure.Energy, Measure.Protein], FittedDay.AtTheEdge(bands, sums).Order());
        Assert.Empty(FittedDay.AtTheEdge(bands, new Dictionary<Measure, decimal>()));
    }

    [Fact]
    public void New_things_go_where_the_shares_are_best_met_one_box_to_a_slot()
    {
        Slot[] slots = [new("morning", null, 0.25m, true), new("noon", null, 0.35m, true), new("evening", null, 0.3m, true),
            new("between", null, 0.1m, false)];
        var (big, middle, small) = (
            new PlanItem(Id(), new LaidBox(Id())), new PlanItem(Id(), new LaidBox(Id())), new PlanItem(Id(), new LaidBox(Id())));
        var apple = Food(90);
        decimal Kcal(PlanItem item) => item == big ? 500 : item == middle ? 420 : item == small ? 300 : 90;
        var placed = DaySlots.Place([], [small, apple, big, middle], slots, Kcal).ToDictionary(item => item.Id, item => item.Slot);
        Assert.Equal(("noon", "evening", "morning", "between"), (placed[big.Id], placed[middle.Id], placed[small.Id], placed[apple.Id]));
        var ordered = DaySlots.Order([.. DaySlots.Place([], [small, apple, big, middle], slots, Kcal)], slots).Select(item => item.Id);
        Assert.Equal([small.Id, big.Id, middle.Id, apple.Id], ordered);
    }

    [Fact]
    public void A_day_is_copied_without_its_boxes_and_several_steps_are_one_change()
    {
        var (box, oats, milk) = (
            new PlanItem(Id(), new LaidBox(Id())), Food(60) with { Slot = "morning", EatenAt = DateTimeOffset.UnixEpoch }, Food(200));
        var board = Board((0, [box, oats, milk]));
        var (monday, tuesday) = (new EaterDay(Ada, Today), new EaterDay(Ada, Today.AddDays(1)));
        var change = board.Copy(monday, [tuesday], "morning", [], Today, Id).Value!;
        var copied = board.Apply(change).Value!;
        var laid = Assert.Single(copied[tuesday]);
        Assert.True(laid.Text == oats.Text && laid.Id != oats.Id && laid.EatenAt is null);
        Assert.Equal(board.Days, copied.Apply(change.Inverse).Value!.Days.Where(day => day.Value.Count > 0));
        Assert.Equal("copy-nothing", board.Copy(tuesday, [monday], null, [], Today, Id).Problems[0].Code);
        Assert.Equal("copy-onto-itself", board.Copy(monday, [monday], null, [], Today, Id).Problems[0].Code);

        var both = board.InOne([on => on.TakeOff(milk.Id), on => on.Move(box.Id, tuesday, 0), on => on.PutInSlot(box.Id, "noon")]).Value!;
        var after = board.Apply(both).Value!;
        Assert.Equal("noon", Assert.Single(after[tuesday]).Slot);
        Assert.Equal([oats], after[monday]);
        Assert.Equal(board[monday], after.Apply(both.Inverse).Value![monday]);
        Assert.False(board.InOne([on => on.TakeOff(milk.Id), on => on.TakeOff(milk.Id)]).Succeeded);
    }

    [Fact]
    public void A_draft_taken_in_part_leaves_other_days_alone()
    {
        // The draft gives Wednesday the box that lies on Thursday; an equal one waits on the shelf.
        var (lying, waiting) = (Box("stew", 300), Box("stew", 302));
        var item = new PlanItem(Id(), new LaidBox(lying.Id));
        var board = Board((1, [item]));
        var (wednesday, thursday) = (new EaterDay(Ada, Today), new EaterDay(Ada, Today.AddDays(1)));
        var draft = new Dictionary<EaterDay, ImmutableList<PlanItem>> { [wednesday] = [item with { Id = Id() }], [thursday] = [] };
        var boxes = new[] { lying, waiting }.ToDictionary(box => box.Id);
        Assert.Equal(waiting.Id, Assert.Single(Equal.Boxes(board, draft, [wednesday], [waiting], boxes)[wednesday]).BoxId);
        Assert.Empty(Equal.Boxes(board, draft, [wednesday], [], boxes)[wednesday]);
        Assert.Equal(lying.Id, Assert.Single(Equal.Boxes(board, draft, [wednesday, thursday], [waiting], boxes)[wednesday]).BoxId);
    }

    [Fact]
    public void A_week_to_fit_keeps_what_is_eaten_locked_or_out_and_knows_what_may_be_eaten_when()
    {
        var (stays, moves, old, fresh) = (Box("stew", 300), Box("soups", 300), Box("old stew x", 300, cookedDaysAgo: 5),
            Box("bakes ab", 200));
        var board = Board(
            (0, [new PlanItem(Id(), new LaidBox(stays.Id)) { IsLocked = true }, new PlanItem(Id(), new LaidBox(moves.Id)), Food(50)]),
            (1, [Event(400, 40)]));
        var days = Enumerable.Range(-1, 3).Select(day => new EaterDay(Ada, Today.AddDays(day))).ToList();
        WeekToFit Week(FitScope scope) =>
            new(
                [Eater(new() { BoxesAlike = 2 })], days, Today, board, Stock.Of([stays, moves]), [old, fresh], [],
                [new("50 g plain", Plain.Grams(50))], scope, new());
        var week = Week(FitScope.Boxes);
        Assert.Equal(2, week.Problem.DayCount);
        Assert.Equal(["soups", "bakes ab"], week.Problem.Batches.Select(batch => batch.Name));
        Assert.Equal(["old stew x"], week.LeftOut.Select(box => box.Batch.RecipeName));
        Assert.Equal(350, week.Problem.Eaters[0].Days[0].Fixed![Measure.Energy]);
        Assert.Equal((2, 2), (week.Problem.Eaters[0].Days[0].MostBoxes, week.Problem.Eaters[0].Days[1].MostBoxes));
        Assert.Empty(week.Problem.Problems());
        Assert.Single(Week(FitScope.Gaps).Problem.Batches);
        Assert.Equal(300, Week(FitScope.Everything).Problem.Eaters[0].Days[0].Fixed![Measure.Energy]);

        // The box that moves stays where it lies when the plan has it there, as the very same item.
        var under = week.DaysUnder(new FitPlan([new(0, 0, 0, 0)], [new(0, 1, 0, 2)]), Id);
        Assert.Equal(board[days[1]], under[days[1]]);
        Assert.Equal(100, Assert.Single(under[days[2]], item => item.Text == "100 g plain").Food!.Weight.Value);
    }

    [Theory]
    [InlineData(FitScope.Boxes)]
    [InlineData(FitScope.Everything)]
    public void A_box_laid_past_its_fridge_days_is_not_taken_off_by_a_fit(FitScope scope)
    {
        // Laid on Thursday when it was fresh, frozen since: no fit could lay it anew, so none takes it away.
        var frozen = Box("stew", 300, cookedDaysAgo: 5);
        var (item, thursday) = (new PlanItem(Id(), new LaidBox(frozen.Id)), new EaterDay(Ada, Today.AddDays(1)));
        var week = new WeekToFit([Eater()], [thursday], Today, Board((1, [item])), Stock.Of([frozen]), [], [], [], scope, new());
        Assert.Equal(300, week.Problem.Eaters[0].Days[0].Fixed![Measure.Energy]);
        Assert.Equal([item], week.DaysUnder(FitPlan.Nothing, Id)[thursday]);
        Assert.Empty(week.LeftOut);
    }
}
