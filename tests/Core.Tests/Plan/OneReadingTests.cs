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

/// <summary>A day is judged once: week, fit and mends read the same days the same way, whatever lies on them.</summary>
public sealed class OneReadingTests
{
    private static readonly DateOnly Monday = new(2026, 11, 23);
    private static readonly Guid Ada = Guid.Parse("00000000-0000-0000-0000-00000000000a");

    private static readonly Food[] Foods =
    [
        Kitchen.Oats, Kitchen.Milk, Kitchen.Egg, Kitchen.Butter, Kitchen.Bread, Kitchen.Tomato,
        Kitchen.Of("bar", new(Energy: 400, Protein: 20, Fat: 15, Carbohydrate: 50)),
    ];

    private static Band AnyBand(System.Random chance, int around)
    {
        var target = chance.Next(around / 2, around * 2);
        return chance.Next(5) switch
        {
            0 => new(Target: target),
            1 => new(Target: target) { Tolerance = chance.Next(1, around) },
            2 => new(Min: target),
            3 => new(Max: target),
            _ => new(target, null, target + chance.Next(1, around)),
        };
    }

    /// <summary>
    /// Seven days by chance, with targets alone, reserves, points that take off, figures that are not known, amounts kept free,
    /// portions for guests, and parts of days away.
    /// </summary>
    [SeededProperty(MaxTest = 120)]
    public Property Week_fit_and_mends_never_disagree() => Prop.ForAll(Gen.Choose(0, 1_000_000).ToArbitrary(), seed =>
    {
        var chance = new System.Random(seed);
        var rule = new PointsRule("x",
            new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 0.02m, [Nutrient.Protein] = chance.Next(-2, 2) * 0.05m }, 1,
            [FoodGroup.Vegetables], []);
        var leading = chance.Next(2) == 0 ? Measure.Energy : Measure.Points;
        var bands = new Dictionary<Measure, Band>
        {
            [Measure.Energy] = AnyBand(chance, 600),
            [Measure.Protein] = AnyBand(chance, 30),
            [Measure.Points] = AnyBand(chance, 12)
        };
        var party = new OtherDay("party", null, Monday.AddDays(5), new Dictionary<Measure, Band> { [Measure.Energy] = new(Target: 900) });
        var ways = new EatingWays
        {
            Reserve = chance.Next(2) == 0 ? null : chance.Next(1, 500),
            OtherDays = chance.Next(2) == 0 ? [] : [party],
            Away = chance.Next(2) == 0
            ? [] : [new(Monday.AddDays(chance.Next(7)), Any("noon", null)), new(Monday.AddDays(chance.Next(7)), "evening")]
        };
        var who = new FittedEater(new Eater(Ada, "Ada", new(leading, bands, rule)), ways);
        string? Any(params string?[] of) => of[chance.Next(of.Length)];
        PlanItem Item()
        {
            if (chance.Next(6) == 0) return new(Guid.NewGuid(),
                new Hold(chance.Next(2) == 0 ? Measure.Protein : Measure.Energy,
                chance.Next(1, 300)))
            { Slot = Any("noon", "evening", null) };
            var food = Foods[chance.Next(Foods.Length)].Grams(chance.Next(1, 40) * 7.3m);
            return new(Guid.NewGuid(),
                new PlainFood($"{food.Weight.Value} g {food.Food.Name}",
                food))
            { IsLocked = chance.Next(4) == 0, IsForGuests = chance.Next(8) == 0, Slot = Any("noon", "evening", null) };
        }

        var days = KitchenDays.WeekOf(Monday).Select(day => new EaterDay(Ada, day)).ToList();
        var board = new PlanBoard(days.ToImmutableDictionary(day => day, _ =>
            Enumerable.Range(0, chance.Next(4)).Select(_ => Item()).ToImmutableList()));
        IReadOnlyList<DayEntry> Entries(IReadOnlyList<PlanItem> items, DayAim aim) =>
            [.. items.Zip(Holds.Measured(items, i => aim.Count(items[i].Contents(Stock.None))), (item, counted) =>
                new DayEntry(item.Contents(Stock.None), Counted: counted) { IsSetAside = item.IsSetAside })];
        IReadOnlyList<DayRest> Week(PlanBoard of) =>
            DayRest.Week(days.Select(day => (Entries(of[day], who.AimOn(day.Day)), who.AimOn(day.Day))), ways.Reserve);
        var week = Week(board);
        who = who with
        {
            Drawn = days.Zip(week).Where(one => one.Second.Day.Drawn > 0).ToDictionary(one => one.First.Day, one =>
            one.Second.Day.Drawn)
        };

        // Never more is drawn than there is, and nobody draws without being past the most.
        Assert.True(week.Sum(day => day.Day.Drawn) <= (ways.Reserve ?? 0));

        // The fit reads what lies there as the week does.
        var toFit = new WeekToFit([who], days, Monday, board, Stock.None, [], [], [], FitScope.Gaps, new());
        for (var d = 0; d < 7; d++)
            if (!ways.IsAway(days[d].Day)) Assert.Equal(week[d].Day.Fits,
                FittedDay.Read(toFit.Problem, FitPlan.Nothing, 0, days[d].Day.DayNumber - toFit.Problem.Start.DayNumber).Fits);

        // So does the day with its mends; what they promise is what the week says when they are made, and no other day goes out for it.
        FillerOffer[] fillers = [new("20 g butter", Kitchen.Butter.Grams(20)), new("1 egg", Kitchen.Egg.Grams(50)),
            new("100 g oat milk", Kitchen.Milk.Grams(100))];
        var at = chance.Next(7);
        var day = new DayOnPlan(who, days[at].Day, Monday, board, Stock.None, [], [], fillers);
        Assert.Equal(week[at].Day.Verdict, day.Now.Verdict);
        var suggested = new DayMends(day).Suggest();
        Assert.True(suggested.Mends.Count == 0 || day.Now.IsOut);
        foreach (var mend in suggested.Mends.Where(mend => mend.Steps[0] is not MovesBound))
        {
            var after = Week(board.Apply(new DayMends(day).Apply(mend.Id, Guid.NewGuid).Value!).Value!);
            Assert.False(after[at].Day.IsOut, mend.Id);
            for (var other = 0; other < 7; other++) Assert.True(!after[other].Day.IsOut || week[other].Day.IsOut,
                $"{mend.Id} pushes day {other} out");
        }
    });
}
