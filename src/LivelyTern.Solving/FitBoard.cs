using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving;

/// <summary>
/// Boxes being laid: every step keeps the rules of <see cref="FitTables.Breach"/>, but that there may be more laid of a batch to be divided
/// than there is of it until <see cref="IsWithin"/>. Each day is completed with the best fillers found for it, and the board knows what the
/// whole costs. Steps since the last <see cref="Keep"/> can be taken back.
/// </summary>
internal sealed class FitBoard
{
    private readonly int days, batches, dishes, againCost, most;
    private readonly int[] sizeAt, boxesOn, boxesOf, dishOf, dishOn, dishesOf, sizeOf, left;
    private readonly int[] measuresOf, mostBoxes, welcome, dislikedBox, wasteCost;
    private readonly bool[] isPacked, mayEat;
    private readonly int[][] boxesLeft, gramsOf;
    private readonly int[][][] figures;
    private readonly ulong[][] keys;
    private readonly long[] sums, prices;
    private readonly ulong[] boxesKey;
    private readonly bool[] isStale;
    private readonly List<int> stale = [];
    private readonly DayCompletion completion;
    private readonly List<(int At, int Before)> done = [];
    private long cost;
    private int overdrawn;

    /// <summary>An empty board.</summary>
    public FitBoard(FitTables tables, DayCompletion completion)
    {
        this.completion = completion;
        var problem = tables.Problem;
        var eaters = problem.Eaters.Count;
        (days, batches) = (problem.DayCount, problem.Batches.Count);
        var on = Enumerable.Range(0, eaters * days).Select(at => (E: at / days, D: at % days)).ToList();
        sizeAt = new int[on.Count * batches];
        Array.Fill(sizeAt, -1);
        (boxesOn, boxesOf, sizeOf) = (new int[on.Count], new int[eaters * batches], new int[eaters * batches]);
        dishOf = [.. tables.DishOf];
        dishes = dishOf.Length == 0 ? 0 : dishOf.Max() + 1;
        (dishOn, dishesOf) = (new int[on.Count * dishes], new int[eaters * dishes]);
        left = [.. Enumerable.Range(0, batches).Select(batch => tables.Left(FitPlan.Nothing, batch))];
        boxesLeft = [.. problem.Batches.Select(batch => (int[])[.. batch.Sizes.Select(size => size.Boxes ?? 0)])];
        measuresOf = [.. Enumerable.Range(0, eaters).Select(e => tables.Measures(e).Length)];
        most = measuresOf.Max();
        sums = new long[on.Count * most];
        for (var i = 0; i < on.Count; i++) tables.Sums(FitPlan.Nothing, on[i].E, on[i].D).CopyTo(sums, i * most);
        mostBoxes = [.. on.Select(at => problem.Eaters[at.E].Days[at.D].MostBoxes)];
        mayEat = [.. on.SelectMany(at => Enumerable.Range(0, batches).Select(b => tables.MayEat(at.E, b, at.D)))];
        welcome = [.. problem.Eaters.Select(eater => eater.BoxesAlike)];
        isPacked = [.. problem.Batches.Select(batch => batch.IsPacked)];
        gramsOf = [.. tables.GramsOf.Select(sizes => sizes.ToArray())];
        (wasteCost, againCost) = ([.. tables.WasteCost], tables.AgainCost);
        dislikedBox = [.. Enumerable.Range(0, eaters).SelectMany(e => problem.Batches.Select(batch => tables.DislikeCost(e, batch)))];
        int[][] Figures(int e, int b) => [.. Enumerable.Range(0, gramsOf[b].Length).Select(size => tables.Box(e, b, size).ToArray())];
        ulong[] Keys(int b) => [.. Enumerable.Range(0, gramsOf[b].Length).Select(size => Key((b * 64) + size))];
        figures = [.. Enumerable.Range(0, eaters * batches).Select(own => Figures(own / batches, own % batches))];
        keys = [.. Enumerable.Range(0, batches).Select(Keys)];
        (boxesKey, isStale, prices) = (new ulong[on.Count], new bool[on.Count], new long[on.Count]);
        cost = left.Select((count, b) => (long)count * wasteCost[b]).Sum();
        for (var i = 0; i < on.Count; i++) Spoil(i);
    }

    /// <summary>What the plan costs now.</summary>
    public long Cost
    {
        get
        {
            foreach (var on in stale)
            {
                isStale[on] = false;
                var price = completion.Price(on, boxesKey[on], Sums(on));
                cost += price - prices[on];
                prices[on] = price;
            }

            stale.Clear();
            return cost;
        }
    }

    /// <summary>Whether it costs no more than so much. What costs more by what is quick to say is not looked at further.</summary>
    public bool CostsAtMost(long most)
    {
        var least = cost;
        foreach (var on in stale) least += completion.AtLeast(on, boxesKey[on], Sums(on)) - prices[on];
        return least <= most && Cost <= most;
    }

    /// <summary>Whether there is enough of every batch for what is laid of it.</summary>
    public bool IsWithin => overdrawn == 0;

    /// <summary>The batches that steps since the last <see cref="Keep"/> changed, a bit for each.</summary>
    public ulong Touched { get; private set; }

    /// <summary>Whether it costs something to leave a batch over.</summary>
    public bool IsMissed(int batch) => wasteCost[batch] > 0;

    /// <summary>What is left over of a batch to be divided, in grams; below zero where more of it is laid than there is.</summary>
    public int Left(int batch) => left[batch];

    /// <summary>What would be left over if all an eater's boxes of it had another size.</summary>
    public int Left(int batch, int eater, int size)
    {
        var boxes = boxesOf[(eater * batches) + batch];
        return boxes == 0 ? left[batch] : left[batch] + (boxes * (gramsOf[batch][SizeOf(eater, batch)] - gramsOf[batch][size]));
    }

    /// <summary>The size of the box of a batch on a day, or -1.</summary>
    public int SizeAt(int eater, int day, int batch) => sizeAt[At(eater, day, batch)];

    /// <summary>How many boxes lie on a day.</summary>
    public int BoxesOn(int eater, int day) => boxesOn[(eater * days) + day];

    /// <summary>The size that an eater's boxes of a divided batch have; -1 while they have none.</summary>
    public int SizeOf(int eater, int batch) => boxesOf[(eater * batches) + batch] == 0 ? -1 : sizeOf[(eater * batches) + batch];

    /// <summary>A number that names a thing, well spread (splitmix64, Steele, Lea and Flood 2014).</summary>
    public static ulong Key(int thing)
    {
        var z = ((ulong)thing + 1) * 0x9E3779B97F4A7C15UL;
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9UL;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EBUL;
        return z ^ (z >> 31);
    }

    /// <summary>Lays a box, if its day and its size allow it. Whether there is enough, <see cref="IsWithin"/> says.</summary>
    public bool Put(int eater, int day, int batch, int size)
    {
        var (at, on) = (At(eater, day, batch), (eater * days) + day);
        if (sizeAt[at] >= 0 || !mayEat[at] || boxesOn[on] >= mostBoxes[on] || dishOn[(on * dishes) + dishOf[batch]] > 0) return false;
        if (isPacked[batch] && boxesLeft[batch][size] == 0) return false;
        if (!isPacked[batch] && SizeOf(eater, batch) is >= 0 and var own && own != size) return false;
        Change(at, size);
        return true;
    }

    /// <summary>Takes a box off its day; false where none lies.</summary>
    public bool Take(int eater, int day, int batch)
    {
        var at = At(eater, day, batch);
        if (sizeAt[at] < 0) return false;
        Change(at, -1);
        return true;
    }

    /// <summary>Takes back every step since the last <see cref="Keep"/>.</summary>
    public void Back()
    {
        for (var i = done.Count - 1; i >= 0; i--) Change(done[i].At, done[i].Before, record: false);
        Keep();
    }

    /// <summary>Forgets the steps: they cannot be taken back any more.</summary>
    public void Keep()
    {
        done.Clear();
        Touched = 0;
    }

    /// <summary>The plan as it lies, with its fillers.</summary>
    public FitPlan ToPlan()
    {
        var (boxes, servings) = (new List<FitBox>(), new List<FitServing>());
        for (var on = 0; on < boxesOn.Length; on++)
        {
            for (var b = 0; b < batches; b++)
            {
                if (sizeAt[(on * batches) + b] is >= 0 and var size) boxes.Add(new(on / days, on % days, b, size));
            }

            var counts = completion.Counts(on, boxesKey[on], Sums(on));
            for (var f = 0; f < counts.Length; f++)
            {
                if (counts[f] > 0) servings.Add(new(on / days, on % days, f, counts[f]));
            }
        }

        return new(boxes, servings);
    }

    /// <summary>The boxes as they lie, to be laid so again.</summary>
    public int[] Boxes() => (int[])sizeAt.Clone();

    /// <summary>Lays boxes as they lay before, or as a plan has them.</summary>
    public void Show(int[] sizes)
    {
        for (var at = 0; at < sizes.Length; at++)
        {
            if (sizeAt[at] >= 0 && sizeAt[at] != sizes[at]) Change(at, -1);
        }

        for (var at = 0; at < sizes.Length; at++)
        {
            if (sizeAt[at] != sizes[at]) Change(at, sizes[at]);
        }

        Keep();
    }

    /// <summary>Lays the boxes of a plan that keeps the rules.</summary>
    public void Show(FitPlan plan)
    {
        var sizes = new int[sizeAt.Length];
        Array.Fill(sizes, -1);
        foreach (var box in plan.Boxes) sizes[At(box.Eater, box.Day, box.Batch)] = box.Size;
        Show(sizes);
    }

    private int At(int eater, int day, int batch) => (((eater * days) + day) * batches) + batch;

    private ReadOnlySpan<long> Sums(int on) => sums.AsSpan(on * most, measuresOf[on / days]);

    private void Spoil(int on)
    {
        if (isStale[on]) return;
        isStale[on] = true;
        stale.Add(on);
    }

    // From one size to another, -1 being none: sums, what is left and the cost follow.
    private void Change(int at, int size, bool record = true)
    {
        var (on, batch) = Math.DivRem(at, batches);
        var before = sizeAt[at];
        if (record) done.Add((at, before));
        if (before >= 0) Count(on, batch, before, -1);
        if (size >= 0) Count(on, batch, size, 1);
        sizeAt[at] = size;
        Touched |= 1UL << batch;
        Spoil(on);
    }

    private void Count(int on, int batch, int size, int sign)
    {
        var own = (on / days * batches) + batch;
        var taken = sign * (isPacked[batch] ? 1 : gramsOf[batch][size]);
        if (left[batch] < 0) overdrawn--;
        left[batch] -= taken;
        if (left[batch] < 0) overdrawn++;
        cost -= (long)taken * wasteCost[batch];
        boxesLeft[batch][size] -= sign;
        boxesOn[on] += sign;
        var dish = (on / days * dishes) + dishOf[batch];
        if (Math.Max(dishesOf[dish], dishesOf[dish] + sign) > welcome[on / days]) cost += sign * againCost;
        dishesOf[dish] += sign;
        dishOn[(on * dishes) + dishOf[batch]] += sign;
        boxesOf[own] += sign;
        if (sign > 0) sizeOf[own] = size;
        cost += sign * dislikedBox[own];
        boxesKey[on] += sign > 0 ? keys[batch][size] : 0UL - keys[batch][size];
        var more = figures[own][size];
        for (var m = 0; m < more.Length; m++) sums[(on * most) + m] += sign * more[m];
    }
}
