namespace LivelyTern.Core.Plan.Fit;

/// <summary>How long to look for better plans.</summary>
/// <param name="Seconds">The longest time, in seconds of the clock; the best plan so far is the answer.</param>
/// <param name="Rounds">How many rounds of improvement; with no limit of time in the way, the same rounds give the same plan.</param>
public sealed record FitEffort(double Seconds = 10, int Rounds = int.MaxValue);

/// <summary>How far a fit has come.</summary>
/// <param name="Plan">The best plan so far.</param>
/// <param name="Cost">What it costs.</param>
/// <param name="Bound">No plan costs less than this.</param>
/// <param name="IsBest">Whether it is proven that no plan is better.</param>
public sealed record FitAnswer(FitPlan Plan, FitCost Cost, long Bound, bool IsBest);

/// <summary>Fills a span of days.</summary>
public interface IWeekFitter
{
    /// <summary>Looks for the plan of least cost. The first plan is reported at once, better ones as they come.</summary>
    /// <param name="tables">The problem, counted out. It has no <see cref="FitProblem.Problems"/>.</param>
    /// <param name="effort">When to stop.</param>
    /// <param name="better">Told of every better plan or bound, from any thread, one at a time.</param>
    /// <param name="stop">Stops early: the best plan so far is the answer.</param>
    FitAnswer Fit(FitTables tables, FitEffort effort, Action<FitAnswer>? better, CancellationToken stop);

    /// <summary>First plans for one problem.</summary>
    IFirstPlans FirstPlans(FitTables tables);
}

/// <summary>
/// First plans in a moment, for one problem with only some of its batches; always the same for the same ones. What was learned of a day
/// serves all of them.
/// </summary>
public interface IFirstPlans
{
    /// <summary>A first plan.</summary>
    /// <param name="isThere">Which batches, by index, there are; what is left of the others is not counted as left over where their amount
    /// is open.</param>
    FitPlan With(Func<int, bool> isThere);
}
