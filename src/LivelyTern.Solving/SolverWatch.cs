using System.Globalization;
using Google.OrTools.Sat;
using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving;

/// <summary>Passes on what CP-SAT finds, and ends it when it is time.</summary>
internal sealed class SolverWatch : CpSolverSolutionCallback
{
    /// <summary>Where chance begins, the same for every fit.</summary>
    public const int Seed = 20261123;
    private readonly Action<long, CpSolverSolutionCallback> found;
    private readonly Timer timer;

    /// <summary>Watches a solver.</summary>
    /// <param name="solver">The solver, before it starts.</param>
    /// <param name="over">Whether it is time to stop.</param>
    /// <param name="bound">Told of better bounds.</param>
    /// <param name="found">Told of the bound and a better plan, whose values the callback has.</param>
    public SolverWatch(CpSolver solver, Func<bool> over, Action<long> bound, Action<long, CpSolverSolutionCallback> found)
    {
        this.found = found;
        solver.SetBestBoundCallback(value => bound(Whole(value)));
        timer = new Timer(_ => { if (over()) solver.StopSearch(); }, null, 20, 20);
    }

    /// <summary>A solver on one thread, always the same way.</summary>
    /// <param name="effort">How long it looks: a round is a part of a second of its own deterministic time.</param>
    /// <param name="most">The most of that time, whatever the effort.</param>
    public static CpSolver Solver(FitEffort effort, double most = double.PositiveInfinity)
    {
        var time = effort.Rounds == int.MaxValue ? most : Math.Min(most, 0.2 * effort.Rounds);
        var limit = double.IsInfinity(time) ? "" : string.Create(CultureInfo.InvariantCulture, $",max_deterministic_time:{time}");
        return new() { StringParameters = $"num_workers:1,linearization_level:2,random_seed:{Seed}{limit}" };
    }

    /// <summary>A bound of the solver as a whole cost.</summary>
    public static long Whole(double bound) => (long)Math.Ceiling(bound - 1e-6);

    /// <inheritdoc/>
    public override void OnSolutionCallback() => found(Whole(BestObjectiveBound()), this);

    /// <inheritdoc/>
    protected override void Dispose(bool disposing)
    {
        if (disposing) timer.Dispose();
        base.Dispose(disposing);
    }
}
