using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using Google.OrTools.Sat;
using LivelyTern.Bench;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Solving.Columns;

namespace LivelyTern.Solving.Tests;

/// <summary>Days written out as columns, against all choices by hand and against the week as it is written down in docs/fit.md.</summary>
public sealed class ColumnTests
{
    private static Dictionary<Measure, decimal> Holds(System.Random chance, int energy) =>
        new()
        {
            [Measure.Energy] = chance.Next(energy),
            [Measure.Protein] = chance.Next(energy / 10),
            [Measure.Fat] = chance.Next(energy / 20)
        };

    // One day of one eater with a few fillers, some of which cost points that are not twice as many for two.
    private static FitTables Day(int seed, int fillers, int most, int servings)
    {
        var chance = new System.Random(seed);
        var bands = new Dictionary<Measure, Band>
        {
            [Measure.Energy] = new(chance.Next(200, 500), chance.Next(500, 700), chance.Next(700, 900)),
            [Measure.Protein] = new(Min: chance.Next(10, 60)),
            [Measure.Fat] = new(Max: chance.Next(10, 40)),
            [Measure.Points] = new(null, chance.Next(5, 12), chance.Next(12, 18)),
        };
        if (chance.Next(3) == 0) bands.Remove(Measure.Energy);
        var all = Enumerable.Range(0, fillers).Select(f => new FitFiller(
            $"f{f}", $"f{f}", Holds(chance, 250),
                new Dictionary<string, IReadOnlyList<decimal>>
                {
                    ["a"] = [.. Enumerable.Range(1, most).Select(count =>
                Math.Round(count * (0.5m + f), MidpointRounding.AwayFromZero))]
                },
            chance.Next(most + 1), chance.Next(8) == 0 ? ["a"] : [], chance.Next(4) == 0 ? ["a"] : [])).ToList();
        var wishes = new FitWishes(chance.Next(5), chance.Next(5), chance.Next(5), chance.Next(5));
        return new(new(new(2026, 11, 25), [new("a", "a", Measure.Energy, [new(bands, Holds(chance, 400), 0, servings)])], [], all, wishes));
    }

    [SeededProperty(MaxTest = 300)]
    public Property The_best_fillers_of_a_day_are_the_best_of_all_choices() => Prop.ForAll(Gen.Choose(0, 1_000_000).ToArbitrary(), seed =>
    {
        var tables = Day(seed, 1 + (seed % 5), 3, seed % 6);
        var choices = new FillerChoices(tables, 0, 0);
        var fixedSums = tables.Sums(FitPlan.Nothing, 0, 0);
        var best = long.MaxValue;
        void Fill(int f, List<FitServing> servings)
        {
            if (f == tables.Problem.Fillers.Count)
            {
                var plan = new FitPlan([], servings);
                if (tables.Breach(plan) is null) best = Math.Min(best, tables.Cost(plan).Total);
                return;
            }

            for (var count = 0; count <= tables.Problem.Fillers[f].Most; count++) Fill(f + 1,
                count == 0 ? servings : [.. servings, new(0, 0, f, count)]);
        }

        Fill(0, []);
        var (cost, choice) = choices.Best(tables.Bands(0, 0), fixedSums);
        Assert.Equal(best, cost);
        Assert.Equal(best,
            tables.Cost(new([], [.. choices.Servings(choice).Select(at => new FitServing(0, 0, at.Filler, at.Count))])).Total);
        Assert.True(choices.AtLeast(tables.Bands(0, 0), fixedSums) <= best);

        // The narrow search of the walks: what it says at first is never more than can be, and what it finds is a choice there is.
        var narrow = new DayCompletion(tables);
        Assert.True(narrow.AtLeast(0, 1, fixedSums) <= best);
        var counts = narrow.Counts(0, 1, fixedSums);
        var found = new FitPlan([], [.. counts.Select((count, f) => new FitServing(0, 0, f, count)).Where(one => one.Count > 0)]);
        Assert.Null(tables.Breach(found));
        Assert.Equal(narrow.Price(0, 1, fixedSums), tables.Cost(found).Total);
        Assert.Equal(narrow.AtLeast(0, 1, fixedSums), narrow.Price(0, 1, fixedSums));
    });

    [SeededProperty(MaxTest = 20)]
    public Property Where_choices_are_too_many_the_bound_still_holds() => Prop.ForAll(Gen.Choose(0, 1_000_000).ToArbitrary(), seed =>
    {
        // 60 fillers, up to 12 servings: hundreds of millions of choices.
        var tables = Day(seed, 60, 4, 12);
        var answer = new CpSatWeekFitter().Fit(tables, new FitEffort(60, Rounds: 1), null, CancellationToken.None);
        Assert.True(new FillerChoices(tables, 0, 0).Best(tables.Bands(0, 0), tables.Sums(FitPlan.Nothing, 0, 0)).Cost <= answer.Cost.Total);
        Assert.InRange(answer.Bound, 0, answer.Cost.Total);
    });

    [Theory]
    [InlineData(1, 1)]
    [InlineData(2, 1)]
    [InlineData(3, 2)]
    [InlineData(4, 2)]
    public void A_week_of_columns_is_as_good_as_the_week_as_it_is_written_down(int seed, int eaters)
    {
        var week = Weeks.Of(seed, eaters, days: 3, batches: 3, fillers: 4, sizes: 3);

        // Half of the weeks have packed boxes among what is still to be divided, and a dish that comes in two batches.
        if (seed % 2 == 0) week =
            week with
            {
                Batches = [.. week.Batches.Select((batch, b) =>
            b == 0 ? batch with { Grams = null,
            Sizes = [.. batch.Sizes.Select(size => size with { Boxes = 1 })] } : batch with { Dish = "stew" })]
            };
        var tables = new FitTables(week with { Eaters = [.. week.Eaters.Select(eater => eater with { BoxesAlike = 1 })] });
        (FitPlan? Plan, long Bound) best = (null, 0);
        using var search = new ColumnSearch(tables, DayColumns.Of(tables, () => false)!, () => false);
        void Tell(FitPlan? plan, long bound) => best = (plan ?? best.Plan, Math.Max(best.Bound, bound));
        while (search.Try(best.Plan ?? FitPlan.Nothing, new FitEffort(), Tell))
        {
            if (best.Plan is { } found && tables.Cost(found).Total <= best.Bound) break;
        }

        using var solver = new CpSolver { StringParameters = "num_workers:2" };
        Assert.Equal(CpSolverStatus.Optimal, solver.Solve(new WeekModel(tables, FitPlan.Nothing).Model));
        Assert.Null(tables.Breach(best.Plan!));
        Assert.Equal((long)Math.Round(solver.ObjectiveValue), tables.Cost(best.Plan!).Total);
        Assert.Equal(tables.Cost(best.Plan!).Total, best.Bound);
    }

    [Theory]
    [InlineData(1450, 1400)]
    [InlineData(1100, 1100)]
    [InlineData(290, 0)]
    public void Of_a_batch_no_more_is_taken_than_whole_boxes_hold(int there, int taken)
    {
        var day = new FitDay(new Dictionary<Measure, Band> { [Measure.Energy] = new(400, 500, 600) });
        FitSize Of(int grams) => new(grams, new Dictionary<Measure, decimal> { [Measure.Energy] = grams });
        var tables = new FitTables(
            new(new(2026, 11, 25), [new("a", "a", Measure.Energy, [day])], [new("b", "b", [Of(300), Of(500)], there)], [], new()));
        Assert.Equal(taken, DayColumns.Of(tables, () => false)!.MostTaken(0));
    }

    [Theory]
    [InlineData(5, 2)]
    [InlineData(6, 3)]
    [InlineData(7, 4)]
    public void Each_eater_planned_anew_has_the_best_week_beside_the_others(int seed, int eaters)
    {
        var week = Weeks.Of(seed, eaters, days: 3, batches: 4, fillers: 4, sizes: 3);
        if (seed % 2 == 0) week =
            week with
            {
                Batches = [.. week.Batches.Select((batch, b) =>
            b == 0 ? batch with { Grams = null, Sizes = [.. batch.Sizes.Select(size => size with { Boxes = 1 })] } : batch)]
            };
        var tables = new FitTables(week);
        var before = new CpSatWeekFitter().FirstPlans(tables).With(_ => true);
        var anew = new OneEaterAnew(tables, DayColumns.Of(tables, () => false)!, new FitEffort(), () => false).Better(before);
        Assert.Null(tables.Breach(anew));
        var cost = tables.Cost(anew).Total;
        Assert.True(cost < tables.Cost(before).Total);

        // From what the others leave, as it is written down, none of one eater's weeks costs less.
        for (var e = 0; e < eaters; e++)
        {
            var (own, others) = (anew.Boxes.Where(box => box.Eater == e).ToList(),
                anew.Boxes.Where(box => box.Eater != e).ToLookup(box => box.Batch));
            FitBatch Left(FitBatch batch, int b) => batch.IsPacked
                ? batch with
                {
                    Sizes = [.. batch.Sizes.Select((size, s) =>
                    size with { Boxes = size.Boxes - others[b].Count(box => box.Size == s) })]
                }
                : batch with { Grams = batch.Grams - others[b].Sum(box => batch.Sizes[box.Size].Grams) };
            var alone = new FitTables(week with { Eaters = [week.Eaters[e]], Batches = [.. week.Batches.Select(Left)] });
            using var solver = new CpSolver { StringParameters = "num_workers:2" };
            Assert.Equal(CpSolverStatus.Optimal, solver.Solve(new WeekModel(alone, FitPlan.Nothing).Model));
            var servings = anew.Servings.Where(serving => serving.Eater == e).Select(serving => serving with { Eater = 0 });
            Assert.Equal((long)Math.Round(solver.ObjectiveValue),
                alone.Cost(new([.. own.Select(box => box with { Eater = 0 })], [.. servings])).Total);
        }
    }

    [Fact]
    public void A_week_of_one_eater_is_proven_best_and_one_of_too_many_sizes_is_left_to_the_whole_model()
    {
        var tables = new FitTables(Weeks.Of(2, 1));
        var answer = new CpSatWeekFitter().Fit(tables, new FitEffort(120, Rounds: 6), null, CancellationToken.None);
        Assert.True(answer.IsBest);
        Assert.Equal(answer.Bound, tables.Cost(answer.Plan).Total);
        Assert.Null(DayColumns.Of(new FitTables(Weeks.Of(2, 4, sizes: 40)), () => false));
        Assert.Null(DayColumns.Of(tables, () => true));
    }
}
