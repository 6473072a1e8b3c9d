using System.Diagnostics;
using Google.OrTools.Sat;
using LivelyTern.Core.Cook.Schedule;

namespace LivelyTern.Solving.PrepDay;

/// <summary>
/// Lays out a prep day: at once by the longest remaining chain (<see cref="ListSchedule"/>), then exactly with CP-SAT, which proves how
/// short a day can be; of the shortest days found the one with the least waiting is taken.
/// </summary>
public sealed class CpSatPrepDayScheduler : IPrepDayScheduler
{
    private const int Seed = 20261128, Orders = 24;

    // A round of the solver's own deterministic time, and the share of all time that is kept for the quietest of the shortest days.
    private const double ARound = 0.2, ForTheQuietest = 0.25;

    /// <inheritdoc/>
    public LaidDay Lay(ScheduleProblem problem, ScheduleEffort effort, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(problem);
        ArgumentNullException.ThrowIfNull(effort);
        var until = Stopwatch.GetTimestamp() + (long)(effort.Seconds * Stopwatch.Frequency);
        var list = new ListSchedule(problem);
        var isShort = effort.Seconds <= 0;
        var first = list.Best(isShort ? 1 : Orders, new Chance(Seed).Share);
        if (first is null || problem.Tasks.Count == 0) return first ?? Impossible(problem);
        var bound = DayBounds.Of(problem);
        var best = first with { Bound = bound, IsProven = first.Late == 0 && first.End <= bound };
        if (isShort || effort.Rounds == 0) return best;

        bool Over(double share) =>
            stop.IsCancellationRequested || Stopwatch.GetTimestamp() >= until - (long)(share * effort.Seconds * Stopwatch.Frequency);
        if (!best.IsProven)
        {
            var model = new PrepDayModel(problem, best);
            model.MinimiseTheEnd();
            best = Solve(model, best, effort, () => Over(ForTheQuietest), isTheEnd: true);
        }

        if (!Over(0))
        {
            var model = new PrepDayModel(problem, best);
            model.MinimiseTheWaiting();
            best = Solve(model, best, effort, () => Over(0), isTheEnd: false);
        }

        return NothingIdle.Of(problem, best);
    }

    private static LaidDay Solve(PrepDayModel model, LaidDay best, ScheduleEffort effort, Func<bool> over, bool isTheEnd)
    {
        using var solver = new CpSolver();
        var limit = effort.Rounds is { } rounds
            ? string.Create(System.Globalization.CultureInfo.InvariantCulture, $",max_deterministic_time:{ARound * rounds}")
            : "";
        solver.StringParameters = $"num_workers:1,random_seed:{Seed},symmetry_level:2{limit}";
        var (found, bound) = (best, best.Bound);
        void Better(long raw) => bound = Math.Max(bound, model.EndBound(raw));
        using var watch = new SolverWatch(
            solver, over, raw => { if (isTheEnd) Better(raw); },
            (_, callback) => found = model.Read(callback.Value) with { Bound = bound });
        var status = solver.Solve(model.Model, watch);
        if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible)) return best with { Bound = bound };
        var day = model.Read(solver.Value);
        if (!isTheEnd) return day with { Bound = best.Bound, IsProven = best.IsProven };
        if (status == CpSolverStatus.Optimal) return day with { Bound = day.End, IsProven = true };
        Better(SolverWatch.Whole(solver.BestObjectiveBound));
        return day with { Bound = Math.Min(bound, day.End), IsProven = day.Late == 0 && bound >= day.End };
    }

    // No place for something whatever the order: hours that are too short. Nothing is laid, and nothing is claimed.
    private static LaidDay Impossible(ScheduleProblem problem) => new([], 0, 0, 0, problem.Tasks.Count == 0);
}
