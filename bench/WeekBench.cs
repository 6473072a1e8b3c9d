using System.Diagnostics;
using System.Globalization;
using Google.OrTools.Sat;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Solving;

namespace LivelyTern.Bench;

/// <summary>
/// The fit of generated weeks with fixed seeds: when the first plan is there, what the best so far costs after some seconds and how far that
/// is from what it is at the end and from the bound, the greedy plan, and the plain model, given to the solver as it is with both cores.
/// </summary>
public static class WeekBench
{
    /// <summary>Runs it. The plain model takes its minutes: <c>--plain</c> runs it too.</summary>
    public static void Run(bool withPlain)
    {
        Console.WriteLine("\nFit of a week of 7 days, 8 batches in 5 sizes, 20 fillers; cost as in docs/fit.md, less is better");

        // The first runs of a program are slower: they are not what is measured.
        foreach (var seed in new[] { 97, 98, 99 }) new CpSatWeekFitter().Fit(new FitTables(Weeks.Of(seed, 1)), new FitEffort(1.5), null, CancellationToken.None);
        foreach (var (eaters, seconds, plainSeconds) in new[] { (1, 1, 20), (4, 60, 60), (8, 10, 120) })
        {
            foreach (var seed in new[] { 1, 2, 3 }) One(seed, eaters, seconds, withPlain && seed < 3 ? plainSeconds : 0);
        }
    }

    private static void One(int seed, int eaters, int seconds, int plainSeconds)
    {
        var tables = new FitTables(Weeks.Of(seed, eaters));
        var greedy = tables.Cost(new CpSatWeekFitter().FirstPlans(tables).With(_ => true)).Total;
        var told = new List<(double At, FitAnswer Answer)>();
        var clock = Stopwatch.StartNew();
        var answer = new CpSatWeekFitter().Fit(tables, new FitEffort(seconds), better => told.Add((clock.Elapsed.TotalSeconds, better)), CancellationToken.None);
        int[] when = [.. new[] { 1, 2, 3, 5, 10, 30, 60 }.Where(second => second <= seconds)];
        string AfterEach(int second)
        {
            var (_, sofar) = told.Last(one => one.At <= second);
            double PerCentOver(long other) => 100.0 * (sofar.Cost.Total - other) / Math.Max(1, other);
            return string.Create(CultureInfo.InvariantCulture,
                $"{second} s {sofar.Cost.Total} ({PerCentOver(answer.Cost.Total):0.0} % over the last, {PerCentOver(answer.Bound):0.0} % over the bound)");
        }

        var worst = told.Max(one => one.Answer.Cost.Total);
        var line = string.Create(CultureInfo.InvariantCulture,
            $"{eaters} eaters, seed {seed}: first plan {told[0].At * 1000:0} ms ({told[0].Answer.Cost.Total}), after {string.Join(", ", when.Select(AfterEach))}, bound {answer.Bound}, greedy {greedy}{(worst > greedy ? " WORSE THAN GREEDY" : "")}");
        if (plainSeconds > 0)
        {
            var plain = Plain(tables, plainSeconds);
            line += string.Create(CultureInfo.InvariantCulture, $", plain model after {plainSeconds} s {plain}: ours is {(double)answer.Cost.Total / plain:0.00} of it");
        }

        Console.WriteLine(line);
    }

    private static double Plain(FitTables tables, int seconds)
    {
        using var solver = new CpSolver { StringParameters = $"num_workers:2,random_seed:1,max_time_in_seconds:{seconds}" };
        solver.Solve(new WeekModel(tables, FitPlan.Nothing).Model);
        return solver.ObjectiveValue;
    }
}
