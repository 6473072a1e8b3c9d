using System.Collections.Immutable;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Web.Plan;

/// <summary>A fit on its way: the days as they were, the best draft so far, and how good it could be at best.</summary>
public sealed class Fit
{
    private readonly Lock gate = new();
    private readonly List<(FitPlan Plan, IReadOnlyDictionary<EaterDay, ImmutableList<PlanItem>> Days)> drafts = [];

    internal Fit(WeekToFit week, PlanBoard before) => (Week, Before) = (week, before);

    /// <summary>Its id.</summary>
    public Guid Id { get; } = Guid.NewGuid();

    /// <summary>The plan as it was when the fit began.</summary>
    public PlanBoard Before { get; }

    /// <summary>The days it fills.</summary>
    public IReadOnlyList<EaterDay> Days => Week.Days;

    /// <summary>What is fitted.</summary>
    public WeekToFit Week { get; }

    /// <summary>The best so far; null until the first plan.</summary>
    public FitAnswer? Best { get; private set; }

    /// <summary>What the first, greedy plan cost.</summary>
    public long? FirstCost { get; private set; }

    /// <summary>Whether it has ended.</summary>
    public bool IsDone { get; internal set; }

    /// <summary>Whether it failed, by a fault of ours.</summary>
    public bool HasFailed { get; internal set; }

    internal CancellationTokenSource Stop { get; } = new();

    internal void Tell(FitAnswer better)
    {
        lock (gate)
        {
            Best = better;
            FirstCost ??= better.Cost.Total;
        }
    }

    /// <summary>
    /// The days under the best plan so far, by a number under which just this draft can be taken; null before there is one.
    /// </summary>
    public (int Number, IReadOnlyDictionary<EaterDay, ImmutableList<PlanItem>> Days)? Draft()
    {
        lock (gate)
        {
            if (Best is null) return null;
            if (drafts.Count == 0 || !ReferenceEquals(drafts[^1].Plan, Best.Plan))
                drafts.Add((Best.Plan, Week.DaysUnder(Best.Plan, Guid.CreateVersion7)));
            return (drafts.Count, drafts[^1].Days);
        }
    }

    /// <summary>The draft of a number; null where there is none.</summary>
    public IReadOnlyDictionary<EaterDay, ImmutableList<PlanItem>>? Draft(int number)
    {
        lock (gate) return number >= 1 && number <= drafts.Count ? drafts[number - 1].Days : null;
    }
}

/// <summary>The fits of this run of the program. One works at a time: a new one stops the one before and keeps what it has.</summary>
public sealed class FitDesk(IWeekFitter fitter, ILogger<FitDesk> log) : IDisposable
{
    private const int Kept = 8;
    private readonly Lock gate = new();
    private readonly List<Fit> fits = [];

    /// <summary>Begins a fit.</summary>
    /// <param name="week">What is fitted.</param>
    /// <param name="before">The plan as it is.</param>
    /// <param name="seconds">How long at most.</param>
    public Fit Begin(WeekToFit week, PlanBoard before, double seconds)
    {
        var fit = new Fit(week, before);
        lock (gate)
        {
            foreach (var other in fits) other.Stop.Cancel();
            fits.Add(fit);
            if (fits.Count > Kept) fits.RemoveAt(0);
        }

        _ = Task.Factory.StartNew(() => Work(fit, seconds), CancellationToken.None, TaskCreationOptions.LongRunning, TaskScheduler.Default);
        return fit;
    }

    /// <summary>A fit of this run, or null.</summary>
    public Fit? Find(Guid id)
    {
        lock (gate) return fits.Find(fit => fit.Id == id);
    }

    /// <summary>Stops a fit; what it has stays.</summary>
    public static void Stop(Fit fit)
    {
        ArgumentNullException.ThrowIfNull(fit);
        fit.Stop.Cancel();
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        lock (gate)
        {
            foreach (var fit in fits) fit.Stop.Cancel();
        }
    }

#pragma warning disable CA1031, CA1848, CA1873, MA0051 // A fit that fails must say so and leave the program running.
    private void Work(Fit fit, double seconds)
    {
        try
        {
            fit.Tell(fitter.Fit(new FitTables(fit.Week.Problem), new FitEffort(seconds), fit.Tell, fit.Stop.Token));
        }
        catch (Exception fault)
        {
            log.LogError(fault, "A fit failed");
            fit.HasFailed = true;
        }
        finally
        {
            fit.IsDone = true;
        }
    }
}
