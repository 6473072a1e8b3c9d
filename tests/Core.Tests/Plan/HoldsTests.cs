using System.Collections.Immutable;
using FsCheck;
using FsCheck.Fluent;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Core.Plan.Mends;

namespace LivelyTern.Core.Tests.Plan;

/// <summary>What is kept free counts until something is laid for it; guests count nothing; who is away is asked for nothing.</summary>
public sealed class HoldsTests
{
    private static readonly DateOnly Day = new(2026, 11, 25);
    private static readonly Guid Ada = Guid.Parse("00000000-0000-0000-0000-00000000000a");
    private static readonly Food Plain = Kitchen.Of("plain", new(Energy: 100, Protein: 10, Fat: 5));
    private static int made;

    private static PlanItem Item(Laid what, string? slot = null) =>
        new(new Guid($"00000000-0000-0000-0003-{++made:D12}"), what) { Slot = slot };

    private static PlanItem Food(decimal grams, string? slot = null) => Item(new PlainFood($"{grams} g plain", Plain.Grams(grams)), slot);

    private static FittedEater Eater(EatingWays? ways = null, decimal min = 450, decimal max = 550) =>
        new(new Eater(Ada, "Ada", new(Measure.Energy, new Dictionary<Measure, Band> { [Measure.Energy] = new(min, null, max) }, null)),
            ways ?? EatingWays.Plain);

    private static PlanBoard Board(params PlanItem[] items) =>
        new(ImmutableDictionary<EaterDay, ImmutableList<PlanItem>>.Empty.Add(new(Ada, Day), [.. items]));

    private static DayOnPlan OnPlan(FittedEater who, PlanBoard board, params FillerOffer[] fillers) =>
        new(who, Day, Day, board, Stock.None, [], [], fillers);

    /// <summary>Of what is kept for a part of the day, what lies there takes its share; the day counts the larger of the two.</summary>
    [SeededProperty(MaxTest = 100)]
    public Property A_part_counts_what_is_kept_for_it_or_what_lies_there() => Prop.ForAll(
        Gen.Choose(1, 600).Four().ToArbitrary(), four =>
        {
            var (kept, evening, noon, later) = four;
            PlanItem[] items = [Item(new Hold(Measure.Energy, kept), "evening"), Food(evening, "Evening"), Food(noon, "noon"),
                Item(new Hold(Measure.Fat, later))];
            var sums = OnPlan(Eater(), Board(items)).Now.Sums;
            Assert.Equal(Math.Max(kept, evening) + noon, sums[Measure.Energy].Known);
            Assert.Equal(((evening + noon) * 0.05m) + later, sums[Measure.Fat].Known);
            Assert.Equal((evening + noon) * 0.1m, sums[Measure.Protein].Known);
        });

    [Fact]
    public void What_is_kept_binds_suggestions_and_the_fit_but_not_what_it_is_kept_for()
    {
        // 200 lie there, 300 are kept for the evening: 50 more fit, in the evening 300.
        FillerOffer[] fillers = [new("250 g plain", Plain.Grams(250)), new("40 g plain", Plain.Grams(40))];
        var board = Board(Food(200), Item(new Hold(Measure.Energy, 300), "evening"));
        var day = OnPlan(Eater(), board, fillers);
        Assert.Equal(["40 g plain"], StillFits.On(day, 9).Select(offer => offer.Name));
        Assert.Equal(["250 g plain", "40 g plain"], StillFits.On(day, 9, "evening").Select(offer => offer.Name));
        Assert.Equal(500, StillFits.On(day, 9, "evening")[0].After.Sums[Measure.Energy].Known);
        var week = new WeekToFit([Eater()], [new(Ada, Day)], Day, board, Stock.None, [], [], fillers, FitScope.Everything, new());
        Assert.Equal(300, week.Problem.Eaters[0].Days[0].Fixed![Measure.Energy]);
        Assert.Contains(week.DaysUnder(FitPlan.Nothing, Guid.NewGuid)[new(Ada, Day)], item => item.Hold is not null);

        // Out by itself, it is never what a mend takes off.
        var over = OnPlan(Eater(), Board(Food(400), Item(new Hold(Measure.Energy, 300), "evening")));
        Assert.DoesNotContain(new DayMends(over).Suggest().Mends.SelectMany(mend => mend.Steps), step =>
            step is TakesOff { Item.Hold: not null });
        Assert.Equal("hold-eaten", board.Eat(board[new(Ada, Day)][1].Id, DateTimeOffset.UnixEpoch).Problems.Single().Code);
        Assert.Equal(new Hold(Measure.Energy, 250),
            TypedAmount.Of(new Hold(Measure.Energy, 300), null, "250 kcal", (_, _) => throw new InvalidOperationException()).Value);
    }

    [Fact]
    public void What_is_for_guests_counts_nothing_and_stays_where_it_is()
    {
        var item = Food(300) with { IsForGuests = true };
        var day = OnPlan(Eater(), Board(item, Food(500)));
        Assert.Equal((500m, DayVerdict.Fits), (day.Now.Sums[Measure.Energy].Known, day.Now.Verdict));
        Assert.Equal(DayVerdict.Empty, OnPlan(Eater(), Board(item, Item(new Hold(Measure.Energy, 300), "evening"))).Now.Verdict);
        var week = new WeekToFit([Eater()], [new(Ada, Day)], Day, Board(item), Stock.None, [], [], [], FitScope.Everything, new());
        Assert.Equal(item, Assert.Single(week.DaysUnder(FitPlan.Nothing, Guid.NewGuid)[new(Ada, Day)]));
    }

    [Fact]
    public void A_day_away_asks_nothing_and_a_part_away_leaves_the_rest_its_share()
    {
        var usual = Eater().Eater.Aim;
        var gone = Eater(new() { Away = [new(Day, null)] });
        Assert.Equal((true, 0), (gone.AimOn(Day).IsAway, gone.AimOn(Day).Bands.Count));
        Assert.Equal(DayVerdict.Away, OnPlan(gone, Board(Food(900))).Now.Verdict);
        Assert.False(OnPlan(gone, Board()).Now.Verdict.IsFit());
        Assert.Empty(StillFits.On(OnPlan(gone, Board(), new FillerOffer("40 g plain", Plain.Grams(40))), 9));
        Assert.Equal(0,
            new WeekToFit([gone], [new(Ada, Day)], Day, Board(), Stock.None, [], [], [], FitScope.Everything, new()).Problem.DayCount);

        // Noon is 30 % of the starting day: 450 to 550 become 315 to 385, and no box is for noon.
        var out30 = Eater(new() { Away = [new(Day, "Noon")] });
        Assert.Equal(new Band(315, null, 385), out30.AimOn(Day)[Measure.Energy]);
        Assert.Equal(usual[Measure.Energy], out30.AimOn(Day.AddDays(1))[Measure.Energy]);
        Assert.Equal(["morning", "evening", "between"], out30.Ways.SlotsOn(Day).Select(slot => slot.Name));
        var both = Eater(new() { Away = [new(Day, "noon"), new(Day, "evening")] });
        Assert.Equal(0.35m * 550, both.AimOn(Day)[Measure.Energy].Max);
    }
}
