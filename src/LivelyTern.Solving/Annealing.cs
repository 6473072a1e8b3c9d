using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving;

/// <summary>
/// Betters a plan by many small random steps, of which worse ones are taken now and then and ever more rarely. A round of it takes the same
/// steps for the same seed on any machine.
/// </summary>
internal sealed class Annealing(FitTables tables, FitBoard board, ulong seed)
{
    private readonly FitProblem problem = tables.Problem;
    private ulong state = (seed * 0x9E3779B97F4A7C15UL) | 1;

    /// <summary>One round from where the board stands; it ends on the best plan met.</summary>
    /// <param name="steps">How many steps.</param>
    /// <param name="hottest">A worsening of this cost is still taken about every third time at the start.</param>
    /// <param name="shouldStop">Asked now and then.</param>
    public void Round(int steps, double hottest, Func<bool> shouldStop)
    {
        const double Coldest = 8;
        var best = board.Cost;
        var bestBoxes = board.Boxes();
        var cooling = Math.Pow(Coldest / hottest, 1.0 / Math.Max(1, steps));
        var heat = hottest;
        for (var i = 0; i < steps; i++, heat *= cooling)
        {
            if ((i & 4095) == 0 && shouldStop()) break;
            var before = board.Cost;
            board.Keep();
            if (!Step()) board.Back();
            else if (board.Cost > before && Chance() >= Math.Exp((before - board.Cost) / heat)) board.Back();
            if (board.Cost < best) (best, bestBoxes) = (board.Cost, board.Boxes());
        }

        board.Show(bestBoxes);
    }

    private bool Step()
    {
        var (e, d) = (Pick(problem.Eaters.Count), Pick(problem.DayCount));
        return Pick(12) switch
        {
            < 3 => AddOrTake(e, d),
            < 7 => Replace(e, d),
            < 10 => Exchange(e, d),
            _ => Resize(e),
        };
    }

    private bool AddOrTake(int e, int d)
    {
        if (problem.Batches.Count == 0) return false;
        var b = Pick(problem.Batches.Count);
        return board.Take(e, d, b) || board.Put(e, d, b, AnySize(e, b));
    }

    private bool Replace(int e, int d)
    {
        if (OneOn(e, d) is not { } old) return false;
        var b = Pick(problem.Batches.Count);
        return b != old && board.Take(e, d, old) && board.Put(e, d, b, AnySize(e, b));
    }

    // The boxes of two days, of one eater or two, change places.
    private bool Exchange(int e, int d)
    {
        var (e2, d2) = (Pick(2) == 0 ? e : Pick(problem.Eaters.Count), Pick(problem.DayCount));
        if ((e == e2 && d == d2) || OneOn(e, d) is not { } mine || OneOn(e2, d2) is not { } theirs || mine == theirs) return false;
        var (mineSize, theirSize) = (board.SizeAt(e, d, mine), board.SizeAt(e2, d2, theirs));
        if (!board.Take(e, d, mine) || !board.Take(e2, d2, theirs)) return false;
        return board.Put(e, d, theirs, Fitting(e, theirs, theirSize)) && board.Put(e2, d2, mine, Fitting(e2, mine, mineSize));
    }

    private int Fitting(int e, int b, int size) => !problem.Batches[b].IsPacked && board.SizeOf(e, b) is >= 0 and var own ? own : size;

    // All of an eater's boxes of a batch get another size.
    private bool Resize(int e)
    {
        if (problem.Batches.Count == 0) return false;
        var b = Pick(problem.Batches.Count);
        var size = Pick(problem.Batches[b].Sizes.Count);
        Span<int> where = stackalloc int[FitProblem.MostDays];
        var count = 0;
        for (var d = 0; d < problem.DayCount; d++)
        {
            if (board.SizeAt(e, d, b) is >= 0 and var now && now != size) where[count++] = d;
        }

        if (count == 0) return false;
        if (problem.Batches[b].IsPacked) (where[0], count) = (where[Pick(count)], 1);
        for (var i = 0; i < count; i++) board.Take(e, where[i], b);
        for (var i = 0; i < count; i++)
        {
            if (!board.Put(e, where[i], b, size)) return false;
        }

        return true;
    }

    private int? OneOn(int e, int d)
    {
        if (board.BoxesOn(e, d) == 0) return null;
        var b = Pick(problem.Batches.Count);
        while (board.SizeAt(e, d, b) < 0) b = (b + 1) % problem.Batches.Count;
        return b;
    }

    private int AnySize(int e, int b) =>
        !problem.Batches[b].IsPacked && board.SizeOf(e, b) is >= 0 and var own ? own : Pick(problem.Batches[b].Sizes.Count);

    private int Pick(int count) => (int)(Next() % (ulong)count);

    private double Chance() => (Next() >> 11) * (1.0 / (1UL << 53));

    // xorshift64*, Vigna 2016.
    private ulong Next()
    {
        state ^= state >> 12;
        state ^= state << 25;
        state ^= state >> 27;
        return state * 0x2545F4914F6CDD1DUL;
    }
}
