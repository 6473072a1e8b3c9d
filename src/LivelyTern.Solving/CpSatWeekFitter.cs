using System.Diagnostics;
using Google.OrTools.Sat;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Solving.Columns;

namespace LivelyTern.Solving;

/// <summary>
/// Fits a week in two lines of work at once: one betters a greedy plan, by small random steps and by CP-SAT on some eaters' days at a
/// time; the other gives the whole week to CP-SAT, which proves how good a plan can be at best. Neither hears of the other until the
/// end, so that the same problem and the same number of rounds give the same plan.
/// </summary>
public sealed class CpSatWeekFitter : IWeekFitter
{
    private const int Seed = SolverWatch.Seed;
    private const double Hot = 6000, Warm = 600;
    private readonly Lock gate = new();

    /// <inheritdoc/>
    public FitAnswer Fit(FitTables tables, FitEffort effort, Action<FitAnswer>? better, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(tables);
        ArgumentNullException.ThrowIfNull(effort);
        var until = Stopwatch.GetTimestamp() + (long)(Math.Min(effort.Seconds, 86_400) * Stopwatch.Frequency);
        bool Over() => stop.IsCancellationRequested || Stopwatch.GetTimestamp() >= until;

        var board = new GreedyPlans(tables).Board(_ => true);
        var first = board.ToPlan();
        var best = new FitAnswer(first, tables.Cost(first), 0, IsBest: false);
        better?.Invoke(best);
        void Tell(FitPlan? plan, long bound)
        {
            lock (gate)
            {
                var total = plan is null ? best.Cost : tables.Cost(plan);
                var isBetter = plan is not null && total.Total < best.Cost.Total;
                if (!isBetter && bound <= best.Bound) return;
                if (isBetter) best = best with { Plan = plan!, Cost = total };
                best = best with { Bound = Math.Max(best.Bound, bound) };
                best = best with { Bound = Math.Min(best.Bound, best.Cost.Total), IsBest = best.Bound >= best.Cost.Total };
                better?.Invoke(best);
            }
        }

        // What a short round of steps finds is the hint from which the whole model starts.
        var soon = new Lazy<FitPlan>(() =>
        {
            new Annealing(tables, board, Seed).Round(20_000, Hot, Over);
            return board.ToPlan();
        });
        var whole = Task.Factory.StartNew(
            () => Whole(tables, soon, effort, Over, Tell), CancellationToken.None, TaskCreationOptions.LongRunning, TaskScheduler.Default);
        Tell(soon.Value, 0);
        var improved = Improve(
            tables, board, effort, () => Over() || (whole.IsCompletedSuccessfully && whole.Result.IsBest), plan => Tell(plan, 0));
        var proven = whole.GetAwaiter().GetResult();

        var plan = (proven.IsBest || proven.Cost.Total <= tables.Cost(improved).Total ? proven.Plan : improved).InOrder();
        var cost = tables.Cost(plan);
        return new(plan, cost, Math.Min(proven.Bound, cost.Total), proven.Bound >= cost.Total);
    }

    /// <inheritdoc/>
    public IFirstPlans FirstPlans(FitTables tables) => new GreedyPlans(tables);

    // Rounds of small steps, longer and longer, and of CP-SAT on a part of the week, in turn.
    private static FitPlan Improve(FitTables tables, FitBoard board, FitEffort effort, Func<bool> over, Action<FitPlan> tell)
    {
        var (best, boxes) = (board.ToPlan(), board.Boxes());
        var cost = tables.Cost(best).Total;
        for (var round = 0; round < effort.Rounds && !over(); round++)
        {
            var plan = round % 4 < 3 ? Anneal(round) : Solve(new WeekModel(tables, best, Part(tables.Problem, round / 4)), 0.2, over);
            if (plan is null || tables.Cost(plan).Total >= cost) continue;
            (best, cost) = (plan, tables.Cost(plan).Total);
            board.Show(best);
            boxes = board.Boxes();
            tell(best);
        }

        return best;

        FitPlan Anneal(int round)
        {
            // Now from far, now from near the best.
            board.Show(boxes);
            new Annealing(tables, board, (ulong)(Seed + round)).Round(160_000 << Math.Min(round, 4), round % 4 == 0 ? Hot : Warm, over);
            return board.ToPlan();
        }
    }

    // One eater's whole span, or two days of every eater, in turn.
    private static Func<int, int, bool> Part(FitProblem problem, int turn)
    {
        if (turn % 2 == 0)
        {
            var eater = turn / 2 % problem.Eaters.Count;
            return (e, _) => e == eater;
        }

        var one = turn / 2 % problem.DayCount;
        var other = (one + 1 + (turn / 2 / problem.DayCount)) % problem.DayCount;
        return (_, d) => d == one || d == other;
    }

    private static FitPlan? Solve(WeekModel model, double deterministicSeconds, Func<bool> over)
    {
        if (over()) return null;
        var time = deterministicSeconds.ToString(System.Globalization.CultureInfo.InvariantCulture);
        using var solver = new CpSolver { StringParameters = $"num_workers:1,random_seed:{Seed},max_deterministic_time:{time}" };
        var status = solver.Solve(model.Model);
        return status is CpSolverStatus.Optimal or CpSolverStatus.Feasible ? model.Read(solver.BooleanValue) : null;
    }

    // The whole week: as columns of days where they are few enough, and while it is not proven what is best, as it is written down.
    private static FitAnswer Whole(FitTables tables, Lazy<FitPlan> soon, FitEffort effort, Func<bool> over, Action<FitPlan?, long> tell)
    {
        var (best, bestCost, bestBound) = (FitPlan.Nothing, tables.Cost(FitPlan.Nothing), 0L);
        void Found(FitPlan? plan, long bound)
        {
            if (plan is not null && tables.Cost(plan) is var cost && cost.Total < bestCost.Total) (best, bestCost) = (plan, cost);
            bestBound = Math.Max(bestBound, bound);
            tell(plan, bound);
        }

        if (DayColumns.Of(tables, over) is { } columns) ColumnSearch.Solve(tables, columns, effort, over, Found);
        if (bestBound < bestCost.Total && !over()) AsWritten();
        return new(best, bestCost, Math.Min(bestBound, bestCost.Total), bestBound >= bestCost.Total);

        void AsWritten()
        {
            var model = new WeekModel(tables, soon.Value, (_, _) => true);
            using var solver = SolverWatch.Solver(effort);
            using var watch = new SolverWatch(
                solver, over, bound => Found(null, bound),
                (bound, callback) => Found(model.Read(variable => callback.BooleanValue(variable)), bound));
            if (solver.Solve(model.Model, watch) is CpSolverStatus.Optimal or CpSolverStatus.Feasible)
                Found(model.Read(solver.BooleanValue), SolverWatch.Whole(solver.BestObjectiveBound));
        }
    }
}
