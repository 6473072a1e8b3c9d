using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving;

/// <summary>
/// A first plan in a moment: day by day, eaters in turn, the one box that lowers the cost most, what keeps shortest first where it makes no
/// difference. When its time is over it stands as far as it is laid.
/// </summary>
/// <param name="tables">The problem.</param>
/// <param name="over">Whether it is time to stop; null for as long as it takes.</param>
internal sealed class GreedyPlans(FitTables tables, Func<bool>? over = null) : IFirstPlans
{
    private readonly FitProblem problem = tables.Problem;
    private readonly DayCompletion completion = new(tables);

    /// <inheritdoc/>
    public FitPlan With(Func<int, bool> isThere) => Board(isThere).ToPlan();

    /// <summary>The board of a first plan.</summary>
    /// <param name="isThere">Which batches there are.</param>
    public FitBoard Board(Func<int, bool> isThere)
    {
        var board = new FitBoard(tables, completion);
        var byUseBy = Enumerable.Range(0, problem.Batches.Count).Where(isThere).OrderBy(batch => problem.Batches[batch].LastDay).ToList();
        for (var d = 0; d < problem.DayCount; d++)
        {
            // Eaters take turns, so that the first does not take all of the best.
            var laid = true;
            while (laid)
            {
                laid = false;
                for (var e = 0; e < problem.Eaters.Count; e++) laid |= BestBox(board, e, d, byUseBy);
            }
        }

        return board;
    }

    /// <summary>A board with these boxes, which shares what is learnt of each day.</summary>
    public FitBoard Board(int[] boxes)
    {
        var board = new FitBoard(tables, completion);
        board.Show(boxes);
        return board;
    }

    private bool BestBox(FitBoard board, int eater, int day, List<int> order)
    {
        (int Batch, int Size, long Cost) best = (-1, -1, board.Cost);
        foreach (var batch in order)
        {
            if (over?.Invoke() == true) return false;
            for (var size = 0; size < problem.Batches[batch].Sizes.Count; size++)
            {
                if (board.Put(eater, day, batch, size) && board.IsWithin && board.CostsAtMost(best.Cost - 1))
                    best = (batch, size, board.Cost);
                board.Back();
            }
        }

        if (best.Batch < 0) return false;
        board.Put(eater, day, best.Batch, best.Size);
        board.Keep();
        return true;
    }
}
