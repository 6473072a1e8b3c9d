using System.Diagnostics;
using Google.OrTools.Sat;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Solving.Columns;

namespace LivelyTern.Solving;

/// <summary>
/// Fits a week in two lines of work at once, each on a core of its own: one betters a greedy plan by random steps; the other takes the week
/// as columns, says how good a plan can be at best, proves it where few columns are left, and betters a plan of its own as long as there
/// are too many. Neither hears of the other until the end, so that the same problem and the same number of rounds give the same plan.
/// </summary>
public sealed class CpSatWeekFitter : IWeekFitter
{
    private const int TurnsAtFirst = 20, TurnsARound = 300;
    private readonly Lock gate = new();

    /// <inheritdoc/>
    public FitAnswer Fit(FitTables tables, FitEffort effort, Action<FitAnswer>? better, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(tables);
        ArgumentNullException.ThrowIfNull(effort);
        var until = Stopwatch.GetTimestamp() + (long)(Math.Min(effort.Seconds, 86_400) * Stopwatch.Frequency);
        bool Over() => stop.IsCancellationRequested || Stopwatch.GetTimestamp() >= until;

        // Stopped at once, a fit still has its first plan, which is there in a moment but for the largest: those have a second for it.
        var moment = Stopwatch.GetTimestamp() + Stopwatch.Frequency;
        bool OverAtFirst() => Over() && Stopwatch.GetTimestamp() >= moment;

        var line = new Tempering(tables, SolverWatch.Seed, OverAtFirst);
        var first = line.Plan();
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

        var proof = Task.Factory.StartNew(
            () => Prove(tables, effort, Over, OverAtFirst, Tell), CancellationToken.None, TaskCreationOptions.LongRunning,
            TaskScheduler.Default);
        line.Go(TurnsAtFirst, Over);
        Tell(line.Plan(), 0);
        bool IsProven() => proof.IsCompletedSuccessfully && proof.Result.IsBest;
        for (var round = 0; round < effort.Rounds && !Over() && !IsProven(); round++)
        {
            if (line.Go(TurnsARound, () => Over() || IsProven())) Tell(line.Plan(), 0);
        }

        // Both lines at their ends, whichever told of what first.
        var (improved, proven) = (line.Plan(), proof.GetAwaiter().GetResult());
        var plan = (proven.IsBest || proven.Cost.Total <= tables.Cost(improved).Total ? proven.Plan : improved).InOrder();
        var cost = tables.Cost(plan);
        return new(plan, cost, Math.Min(proven.Bound, cost.Total), proven.Bound >= cost.Total);
    }

    /// <inheritdoc/>
    public IFirstPlans FirstPlans(FitTables tables) => new GreedyPlans(tables);

    // The whole week: as columns of days where they are few enough to be written out, else as it is written down.
    private static FitAnswer Prove(
        FitTables tables, FitEffort effort, Func<bool> over, Func<bool> overAtFirst, Action<FitPlan?, long> tell)
    {
        var line = new Tempering(tables, SolverWatch.Seed + 1000, overAtFirst);
        line.Go(TurnsAtFirst, over);
        var best = line.Plan();
        var (bestCost, bestBound) = (tables.Cost(best), 0L);
        void Found(FitPlan? plan, long bound)
        {
            if (plan is not null && tables.Cost(plan) is var cost && cost.Total < bestCost.Total) (best, bestCost) = (plan, cost);
            bestBound = Math.Max(bestBound, bound);
            tell(plan, bound);
        }

        if (DayColumns.Of(tables, over) is { } columns) AsColumns(columns);
        else if (!over() && WeekModel.CanBeWritten(tables)) AsWritten();
        return new(best, bestCost, Math.Min(bestBound, bestCost.Total), bestBound >= bestCost.Total);

        void AsColumns(DayColumns columns)
        {
            using var search = new ColumnSearch(tables, columns, over);
            Found(null, search.Bound);
            var isAlone = tables.Problem.Eaters.Count == 1;
            var (anew, triedAt) = (new OneEaterAnew(tables, columns, effort, over), isAlone ? 0 : long.MaxValue);
            for (var round = 0; round < effort.Rounds && bestBound < bestCost.Total && !over(); round++)
            {
                if (search.Try(best, effort, Found)) continue;
                if (line.Go(TurnsARound, over)) Found(line.Plan(), 0);
                if (bestCost.Total >= triedAt) continue;
                Found(anew.Better(best), 0);
                triedAt = bestCost.Total;
                line.GoOnFrom(best);
            }
        }

        void AsWritten()
        {
            var model = new WeekModel(tables, best);
            using var solver = SolverWatch.Solver(effort);
            using var watch = new SolverWatch(
                solver, over, bound => Found(null, bound),
                (bound, callback) => Found(model.Read(variable => callback.BooleanValue(variable)), bound));
            if (solver.Solve(model.Model, watch) is CpSolverStatus.Optimal or CpSolverStatus.Feasible)
                Found(model.Read(solver.BooleanValue), SolverWatch.Whole(solver.BestObjectiveBound));
        }
    }
}
