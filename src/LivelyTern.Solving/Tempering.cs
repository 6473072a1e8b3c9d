using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving;

/// <summary>
/// Betters a plan by several walks of random steps at once, each at a heat of its own: hot ones roam, cold ones settle, and neighbours
/// change places now and then, so that what a hot walk comes upon is worked out by the colder ones (replica exchange: Swendsen and Wang
/// 1986, from memory). The same seed takes the same steps on any machine.
/// </summary>
internal sealed class Tempering
{
    private const int StepsATurn = 200;

    // The cost of a worsening that each takes about every third time: 600 is a box left over. Where days can't be in their bands everything
    // is dearer, and so many more of them walk as are not hotter than a part of what the plan costs.
    private static readonly double[] Heats = [15, 30, 60, 120, 245, 500, 1000, 2000, 4000];
    private const int WalksAtLeast = 6;
    private const double HottestOfCost = 0.15;
    private readonly RandomSteps[] walks;
    private readonly Chance chance;
    private readonly FitBoard shown;
    private int[] best;

    /// <summary>Begins from the greedy plan.</summary>
    /// <param name="tables">The problem.</param>
    /// <param name="seed">Where chance begins.</param>
    /// <param name="over">Whether it is time to stop, in the greedy plan too; null for as long as it takes.</param>
    public Tempering(FitTables tables, ulong seed, Func<bool>? over = null)
    {
        chance = new(seed);
        var greedy = new GreedyPlans(tables, over);
        shown = greedy.Board(_ => true);
        (best, Cost) = (shown.Boxes(), shown.Cost);
        RandomSteps Walk(int walk) => new(tables.Problem, greedy.Board(best), new(seed + (ulong)walk));
        walks = [.. Enumerable.Range(1, Heats.Length).Select(Walk)];
    }

    /// <summary>What the best plan met costs.</summary>
    public long Cost { get; private set; }

    /// <summary>The best plan met.</summary>
    public FitPlan Plan()
    {
        shown.Show(best);
        return shown.ToPlan();
    }

    /// <summary>Goes on from a better plan that was found elsewhere: the coldest walk does.</summary>
    /// <param name="plan">The plan.</param>
    public void GoOnFrom(FitPlan plan)
    {
        shown.Show(plan);
        if (shown.Cost >= Cost) return;
        (best, Cost) = (shown.Boxes(), shown.Cost);
        walks[0].GoOnFrom(best);
    }

    /// <summary>So many turns of all walks.</summary>
    /// <param name="turns">How many.</param>
    /// <param name="over">Whether it is time to stop.</param>
    /// <returns>Whether a better plan was met.</returns>
    public bool Go(int turns, Func<bool> over)
    {
        var before = Cost;
        var count = Math.Max(WalksAtLeast, Heats.Count(heat => heat <= HottestOfCost * Cost));
        for (var turn = 0; turn < turns && !over(); turn++)
        {
            for (var i = 0; i < count; i++)
            {
                if (walks[i].Walk(StepsATurn, Heats[i], Cost) is { } better) (best, Cost) = better;
            }

            for (var i = count - 2; i >= 0; i--)
            {
                // Always where the hotter one has come upon the cheaper plan.
                var gain = ((1 / Heats[i]) - (1 / Heats[i + 1])) * (walks[i].Cost - walks[i + 1].Cost);
                if (gain >= 0 || chance.Share() < Math.Exp(gain)) (walks[i], walks[i + 1]) = (walks[i + 1], walks[i]);
            }
        }

        return Cost < before;
    }
}
