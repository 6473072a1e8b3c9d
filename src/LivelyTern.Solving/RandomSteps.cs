using System.Numerics;
using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving;

/// <summary>Small random steps on a board, of which worse ones are taken now and then: the more often the hotter it is.</summary>
internal sealed class RandomSteps(FitProblem problem, FitBoard board, Chance chance)
{
    /// <summary>What the board costs where it stands.</summary>
    public long Cost => board.Cost;

    /// <summary>Goes on from another plan.</summary>
    /// <param name="boxes">Its boxes.</param>
    public void GoOnFrom(int[] boxes) => board.Show(boxes);

    /// <summary>Some steps from where the board stands.</summary>
    /// <param name="steps">How many.</param>
    /// <param name="heat">A worsening of this cost is taken about every third time.</param>
    /// <param name="known">The cost of the best plan known.</param>
    /// <returns>A better plan than that, if one was met: its boxes, and what it costs.</returns>
    public (int[] Boxes, long Cost)? Walk(int steps, double heat, long known)
    {
        (int[], long)? better = null;
        for (var i = 0; i < steps; i++)
        {
            // Chance says first how dear the step may be, so that what is far dearer need not be priced.
            var most = board.Cost - (long)(heat * Math.Log(1 - chance.Share()));
            board.Keep();
            if (!Step() || !Fill() || !board.CostsAtMost(most)) board.Back();
            else if (board.Cost < known) (better, known) = ((board.Boxes(), board.Cost), board.Cost);
        }

        return better;
    }

    private bool Step()
    {
        if (problem.Batches.Count == 0) return false;
        var (e, d) = (chance.Pick(problem.Eaters.Count), chance.Pick(problem.DayCount));
        return chance.Pick(19) switch
        {
            < 3 => AddOrTake(e, d),
            < 7 => Replace(e, d),
            < 10 => Exchange(e, d),
            < 12 => Resize(e),
            < 15 => Pass(e, d),
            _ => ResizeSeveral(e),
        };
    }

    // A step may take more of a batch than there is, or leave some of it over: then one eater's boxes of it change their size, so that as
    // little is left as can be. Without that a plan in which little is left is hardly ever left for another one.
    private bool Fill()
    {
        for (var touched = board.Touched; touched != 0; touched &= touched - 1)
        {
            var b = BitOperations.TrailingZeroCount(touched);
            if (problem.Batches[b].IsPacked) continue;
            if ((board.Left(b) < 0 || (board.IsMissed(b) && chance.Pick(2) == 0)) && !Fill(b)) return false;
        }

        return board.IsWithin;
    }

    private bool Fill(int b)
    {
        var one = chance.Pick(2) == 0 ? AnyWith(b) : null;
        var (who, size, least) = (-1, -1, int.MaxValue);
        for (var e = one ?? 0; e <= (one ?? problem.Eaters.Count - 1); e++)
        {
            if (board.SizeOf(e, b) < 0) continue;
            for (var s = 0; s < problem.Batches[b].Sizes.Count; s++)
            {
                if (board.Left(b, e, s) is >= 0 and var left && left < least) (who, size, least) = (e, s, left);
            }
        }

        if (who < 0) return board.Left(b) >= 0;
        return size == board.SizeOf(who, b) || SizeAll(who, b, size);
    }

    private bool AddOrTake(int e, int d)
    {
        var b = AnyBatch();
        return board.Take(e, d, b) || board.Put(e, d, b, AnySize(e, b));
    }

    private bool Replace(int e, int d)
    {
        if (OneOn(e, d) is not { } old) return false;
        var b = AnyBatch();
        return b != old && board.Take(e, d, old) && board.Put(e, d, b, AnySize(e, b));
    }

    // The boxes of two days, of one eater or two, change places.
    private bool Exchange(int e, int d)
    {
        var (e2, d2) = AnyPlace(e);
        if ((e == e2 && d == d2) || OneOn(e, d) is not { } mine || OneOn(e2, d2) is not { } theirs || mine == theirs) return false;
        var (mineSize, theirSize) = (board.SizeAt(e, d, mine), board.SizeAt(e2, d2, theirs));
        if (!board.Take(e, d, mine) || !board.Take(e2, d2, theirs)) return false;
        return board.Put(e, d, theirs, Fitting(e, theirs, theirSize)) && board.Put(e2, d2, mine, Fitting(e2, mine, mineSize));
    }

    // A box goes to another day, of the same eater or another.
    private bool Pass(int e, int d)
    {
        var (e2, d2) = AnyPlace(e);
        if ((e == e2 && d == d2) || OneOn(e, d) is not { } mine) return false;
        var size = board.SizeAt(e, d, mine);
        return board.Take(e, d, mine) && board.Put(e2, d2, mine, e == e2 ? size : AnySize(e2, mine));
    }

    // All of an eater's boxes of a batch get another size; a packed box is another one.
    private bool Resize(int e)
    {
        var b = AnyBatch();
        var size = chance.Pick(problem.Batches[b].Sizes.Count);
        if (!problem.Batches[b].IsPacked) return SizeAll(e, b, size);
        var d = chance.Pick(problem.DayCount);
        return board.SizeAt(e, d, b) is >= 0 and var now && now != size && board.Take(e, d, b) && board.Put(e, d, b, size);
    }

    // What one eater's boxes of a batch get more, another's get less; or their own of another batch; or both.
    private bool ResizeSeveral(int e)
    {
        var (b, b2, e2) = (AnyBatch(), AnyBatch(), chance.Pick(problem.Eaters.Count));
        var more = chance.Pick(2) == 0 ? 1 : -1;
        var how = chance.Pick(3);
        if (how != 0 && b == b2) return false;
        if (how != 1 && e == e2) return false;
        return SizeBy(e, b, -more)
            && (how == 0 || SizeBy(e, b2, more))
            && (how == 1 || SizeBy(e2, b, more))
            && (how != 2 || SizeBy(e2, b2, -more));
    }

    private bool SizeBy(int e, int b, int more) =>
        !problem.Batches[b].IsPacked && board.SizeOf(e, b) is >= 0 and var now && SizeAll(e, b, now + more);

    private bool SizeAll(int e, int b, int size)
    {
        if (size < 0 || size >= problem.Batches[b].Sizes.Count) return false;
        Span<int> where = stackalloc int[FitProblem.MostDays];
        var count = 0;
        for (var d = 0; d < problem.DayCount; d++)
        {
            if (board.SizeAt(e, d, b) is >= 0 and var now && now != size) where[count++] = d;
        }

        foreach (var d in where[..count]) board.Take(e, d, b);
        foreach (var d in where[..count])
        {
            if (!board.Put(e, d, b, size)) return false;
        }

        return count > 0;
    }

    private int? OneOn(int e, int d)
    {
        if (board.BoxesOn(e, d) == 0) return null;
        var b = AnyBatch();
        while (board.SizeAt(e, d, b) < 0) b = (b + 1) % problem.Batches.Count;
        return b;
    }

    // An eater who has boxes of a batch.
    private int? AnyWith(int b)
    {
        var e = chance.Pick(problem.Eaters.Count);
        for (var i = 0; i < problem.Eaters.Count; i++, e = (e + 1) % problem.Eaters.Count)
        {
            if (board.SizeOf(e, b) >= 0) return e;
        }

        return null;
    }

    private int AnyBatch() => chance.Pick(problem.Batches.Count);

    private (int Eater, int Day) AnyPlace(int e) =>
        (chance.Pick(2) == 0 ? e : chance.Pick(problem.Eaters.Count), chance.Pick(problem.DayCount));

    private int AnySize(int e, int b) => Fitting(e, b, chance.Pick(problem.Batches[b].Sizes.Count));

    private int Fitting(int e, int b, int size) => !problem.Batches[b].IsPacked && board.SizeOf(e, b) is >= 0 and var own ? own : size;
}
