using System.Globalization;
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
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Plan;

/// <summary>The plan as a fit's problem, and a fit's answer as days of the plan.</summary>
public sealed class WeekToFitTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);
    private static readonly Measure[] Counted = [Measure.Energy, Measure.Protein, Measure.Fibre, Measure.NetCarbohydrate, Measure.Points];
    private static readonly Food[] Foods =
    [
        Kitchen.Of("stew", new(Energy: 110, Protein: 8, Carbohydrate: 9, Fibre: 3)),
        Kitchen.Of("jelly", new(Energy: 70, Protein: 12, Carbohydrate: 4, Fibre: 0)) with { HasIncompleteProtein = true },
        Kitchen.Of("greens", new(Energy: 25, Protein: 2, Carbohydrate: 3, Fibre: 2)) with { Group = FoodGroup.Vegetables },
        Kitchen.Of("flakes", new(Energy: 370, Protein: 13, Carbohydrate: 60, Fibre: 10)),
    ];

    /// <summary>What its eater must never get is no part of a fit: locked or laid by hand, the draft goes without it.</summary>
    [Theory]
    [InlineData(FitScope.Gaps)]
    [InlineData(FitScope.Boxes)]
    public void A_fit_takes_off_what_must_never_lie_there(FitScope scope)
    {
        var nut = Foods[0] with { Id = "nut", Allergens = [Allergen.TreeNuts] };
        var ada = Guid.NewGuid();
        var who = new FittedEater(
            new(ada, "Ada", new DayAim(Measure.Energy, new Dictionary<Measure, Band> { [Measure.Energy] = new(Max: 5000) }, null)),
            new EatingWays { NeverAllergens = [Allergen.TreeNuts] });
        var day = new EaterDay(ada, Today);
        var (bad, good) = (
            new PlanItem(Guid.NewGuid(), new PlainFood("nuts", nut.Grams(50))) { IsLocked = true },
            new PlanItem(Guid.NewGuid(), new PlainFood("fine", Foods[0].Grams(50))));
        var eaten = new PlanItem(Guid.NewGuid(), new PlainFood("nuts", nut.Grams(10)), DateTimeOffset.UnixEpoch);
        var board = new PlanBoard(ImmutableDictionary<EaterDay, ImmutableList<PlanItem>>.Empty.Add(day, [bad, good, eaten]));
        var week = new WeekToFit([who], [day], Today, board, Stock.None, [], [], [new FillerOffer("nuts", nut.Grams(50))], scope, new());
        Assert.Equal([good.Id, eaten.Id], week.DaysUnder(FitPlan.Nothing, Guid.NewGuid)[day].Select(item => item.Id));
        Assert.Equal(Foods[0].Per100g.Energy!.Value / 2 + (nut.Per100g.Energy!.Value / 10),
            week.Problem.Eaters[0].Days[0].Fixed![Measure.Energy]);
    }

    /// <summary>A dish is laid at most once a day for one eater, also where it lies there by hand, eaten or from another batch.</summary>
    [Fact]
    public void A_dish_that_lies_on_a_day_is_not_laid_there_again()
    {
        var who = new FittedEater(
            new(Guid.NewGuid(), "Ada",
                new DayAim(Measure.Energy, new Dictionary<Measure, Band> { [Measure.Energy] = new(Max: 5000) }, null)), EatingWays.Plain);
        Batch Of(string dish) =>
            new(Guid.NewGuid(), dish, new TapeMark("XX", 1), Today, new([Foods[0].Grams(900)]),
            new Grams(900))
            { State = BatchState.Packed };
        Box In(Batch batch) => new(Guid.NewGuid(), batch, new(300), null);
        var (laid, again, other) = (In(Of("stew")), In(Of("stew")), In(Of("bake")));
        var days = Enumerable.Range(0, 2).Select(day => new EaterDay(who.Eater.Id, Today.AddDays(day))).ToList();
        foreach (var item in new[] { new PlanItem(Guid.NewGuid(), LaidBox.Of(laid)),
            new PlanItem(Guid.NewGuid(), LaidBox.Of(laid), DateTimeOffset.UnixEpoch) })
        {
            var board = new PlanBoard(ImmutableDictionary<EaterDay, ImmutableList<PlanItem>>.Empty.Add(days[0], [item]));
            var week = new WeekToFit([who], days, Today, board, Stock.Of([laid]), [again, other], [], [], FitScope.Gaps, new());
            var tables = new FitTables(week.Problem);
            var stew = week.Problem.Batches.ToList().FindIndex(batch => batch.Name == "stew");
            Assert.Equal((false, true, true), (tables.MayEat(0, stew, 0), tables.MayEat(0, stew, 1), tables.MayEat(0, 1 - stew, 0)));
        }
    }

    // Seen: a cook of at most 23 points was proposed no dish, and "0 of 6 days fit".
    [Theory]
    [InlineData(Measure.Points, "points 23", "points 23")]
    [InlineData(Measure.Energy, "energy 1900, points 23", "energy 1899")]
    [InlineData(Measure.NetCarbohydrate, "netCarbohydrate 20, energy 1800", "energy 1799")]
    [InlineData(Measure.NetCarbohydrate, "netCarbohydrate 20", "")]
    [InlineData(Measure.Protein, "protein 150-, points 23", "points 23")]
    [InlineData(Measure.Energy, "energy 1700-1900", "")]
    [InlineData(Measure.Points, "points 20~23", "")]
    public void A_budget_that_is_only_a_most_is_filled_towards_it(Measure leading, string written, string towards)
    {
        Band Read(string text) => text.Split('-', '~') switch
        {
            [var one] => new(Max: decimal.Parse(one, CultureInfo.InvariantCulture)),
            [var least, ""] => new(Min: decimal.Parse(least, CultureInfo.InvariantCulture)),
            [var low, var high] =>
                new(Max: decimal.Parse(high, CultureInfo.InvariantCulture),
                Min: text.Contains('-', StringComparison.Ordinal) ? decimal.Parse(low, CultureInfo.InvariantCulture) : null,
                Target: text.Contains('~', StringComparison.Ordinal) ? decimal.Parse(low, CultureInfo.InvariantCulture) : null),
            _ => throw new ArgumentException(text, nameof(written)),
        };
        var bands = written.Split(", ").Select(band => band.Split(' ')).ToDictionary(band =>
            Enum.Parse<Measure>(band[0], ignoreCase: true), band => Read(band[1]));
        var who = new FittedEater(new(Guid.NewGuid(), "Ada", new DayAim(leading, bands, PointsRule.Starting)), EatingWays.Plain);
        var week = new WeekToFit([who], [new(who.Eater.Id, Today)], Today, PlanBoard.Empty, Stock.None, [], [], [], FitScope.Gaps, new());
        var day = week.Problem.Eaters[0].Days[0];
        var filled = day.Bands.Where(band => band.Value.Target is { } target && target != bands[band.Key].Target).Select(band =>
            $"{band.Key} {band.Value.Target:0}");
        Assert.Equal(towards, string.Join(", ", filled), ignoreCase: true);

        // What the day is read by stays as it was written.
        Assert.Equal(bands.ToDictionary(band => band.Key, band => band.Value.Resolved()), day.ReadBy ?? day.Bands);
    }

    /// <summary>
    /// Eaters who count in their own ways, boxes, fillers, what lies there and a draft, all by chance: each day comes to what the draft
    /// says of it.
    /// </summary>
    [SeededProperty(MaxTest = 200)]
    public Property What_a_draft_says_of_a_day_is_what_the_plan_reads_then() => Prop.ForAll(Gen.Choose(0, 1_000_000).ToArbitrary(), seed =>
    {
        var chance = new System.Random(seed);
        var made = 0;
        Guid Id() => new($"00000000-0000-0000-0001-{++made:D12}");
        Contents Any() =>
            new([.. Enumerable.Range(0, chance.Next(1, 4)).Select(_ => Foods[chance.Next(Foods.Length)].Grams(chance.Next(1, 9) * 25))]);
        FittedEater Eater(string name) => new(
            new(Id(), name,
                new DayAim(Measure.Energy, Counted.ToDictionary(measure => measure, _ => new Band(Max: 5000)),
                chance.Next(3) == 0
                ? null : PointsRule.StartingRules[chance.Next(3)])
                { LeavesOutIncompleteProtein = chance.Next(2) == 0 }),
            EatingWays.Plain);
        var eaters = new[] { Eater("Ada"), Eater("Ben") };
        var days = (from who in eaters from day in Enumerable.Range(0, 2) select new EaterDay(who.Eater.Id, Today.AddDays(day))).ToList();
        var boxes = Enumerable.Range(0, 2).SelectMany(_ =>
        {
            var batch = new Batch(Id(), "dish", new TapeMark("XX", 1), Today, Any(), new Grams(chance.Next(5, 20) * 50));
            return Enumerable.Range(0, 3).Select(i => new Box(Id(), batch, new Grams(100 + (50 * i)), null)).ToList();
        }).ToList();
        var fillers = Foods.Select(food => new FillerOffer($"40 g {food.Name}", food.Grams(40))).ToList();
        PlanItem Loose() => new(Id(), new PlainFood("by hand", Any().Ingredients[0])) { IsLocked = chance.Next(2) == 0 };
        var board = new PlanBoard(days.ToImmutableDictionary(day => day, _ =>
            Enumerable.Range(0, chance.Next(3)).Select(_ => Loose()).ToImmutableList()));
        var week = new WeekToFit(eaters, days, Today, board, Stock.None, boxes, [], fillers,
            chance.Next(2) == 0 ? FitScope.Gaps : FitScope.Everything, new());

        // Each box goes to someone's day or to none; some servings to each day.
        var laid = from b in Enumerable.Range(0, 2)
                   from size in Enumerable.Range(0,
            3)
                   where chance.Next(3) > 0
                   select new FitBox(chance.Next(2), chance.Next(2), b, size);
        var served = from e in Enumerable.Range(0, 2)
                     from day in Enumerable.Range(0, 2)
                     from f in Enumerable.Range(0,
            fillers.Count)
                     where chance.Next(3) == 0
                     select new FitServing(e, day, f, chance.Next(1, 3));
        var plan = new FitPlan([.. laid], [.. served]);

        var stock = Stock.Of(boxes);
        var under = week.DaysUnder(plan, Id);
        return (from e in Enumerable.Range(0, 2) from day in Enumerable.Range(0, 2) select (e, day)).All(at =>
        {
            var (who, where) = (eaters[at.e].Eater, days[(at.e * 2) + at.day]);
            var read = DayReading.Of([.. under[where].Select(item => item.Contents(stock))], who.Aim);
            var said = FittedDay.Read(week.Problem, plan, at.e, at.day);
            return said.Sums.All(sum => !read.Sums.TryGetValue(sum.Key, out var there) || Math.Abs(there.Known - sum.Value) < 0.000001m)
                && said.Sums.ContainsKey(Measure.Protein);
        }).Label($"seed {seed}");
    });
}
