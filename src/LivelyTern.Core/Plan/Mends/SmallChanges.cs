using LivelyTern.Core.Aim;

namespace LivelyTern.Core.Plan.Mends;

/// <summary>One small change that can be made to a day: it adds to every measure of the day, and touches one thing on it.</summary>
/// <param name="Targets">What it touches: two changes of one thing are never made together.</param>
/// <param name="Adds">What it adds, measure by measure in the order of the bounds; kcal, grams or points.</param>
/// <param name="Effort">How much of a change it is beside what it adds.</param>
/// <param name="Steps">What it does.</param>
internal sealed record SmallChange(IReadOnlyList<object> Targets, double[] Adds, double Effort, IReadOnlyList<MendStep> Steps)
{
    /// <summary>Its number among those that are tried together.</summary>
    public int At { get; init; }
}

/// <summary>The bounds of a day's sums, measure by measure.</summary>
/// <param name="Min">At least; <see cref="double.NegativeInfinity"/> without one.</param>
/// <param name="Max">At most; <see cref="double.PositiveInfinity"/> without one.</param>
internal sealed record DayBounds(double[] Min, double[] Max)
{
    /// <summary>How far sums lie outside, in per cent of each bound, summed; 0 where all hold.</summary>
    public double Out(ReadOnlySpan<double> sums)
    {
        var far = 0.0;
        for (var m = 0; m < sums.Length; m++)
        {
            var (off, bound) = sums[m] > Max[m] ? (sums[m] - Max[m], Max[m]) : sums[m] < Min[m] ? (Min[m] - sums[m], Min[m]) : (0, 1);
            far += 100 * off / Math.Max(1, bound);
        }

        return far < 1e-9 ? 0 : far;
    }
}

/// <summary>Some small changes made together.</summary>
/// <param name="Changes">The changes, in the order they were found.</param>
/// <param name="Out">How far the day then lies outside its bounds, in per cent.</param>
/// <param name="Size">How large a change they are together.</param>
internal sealed record ChangesTogether(IReadOnlyList<SmallChange> Changes, double Out, double Size);

/// <summary>
/// Looks for few small changes that, made together, bring a day into its bounds: every one by itself, every two of the most promising,
/// then more of them on top of the best few so far. What it leaves out is what a longer search would have to try.
/// </summary>
internal static class SmallChanges
{
    private const int Width = 60, MostFound = 24, MostOfOne = 12;
    private const double EachMore = 15;

    /// <summary>Looks at a day's changes against its own bounds.</summary>
    /// <param name="day">The day.</param>
    /// <param name="changesOf">What could be changed, in the measures of its bounds.</param>
    /// <param name="most">How many changes at most.</param>
    /// <param name="enough">With so many found that bring the day in, one more is put on top, and no further.</param>
    /// <param name="promising">How many of the changes, those that bring the day nearest by themselves, are tried together.</param>
    public static IReadOnlyList<ChangesTogether> Find(
        DayOnPlan day, Func<DayOnPlan, IReadOnlyList<Measure>, IReadOnlyList<SmallChange>> changesOf, int most, int enough = 1,
        int promising = 260)
    {
        Measure[] measures = [.. day.Now.Bands.Keys];
        var sums = measures.Select(measure => (double)day.Now.Sums[measure].Known).ToArray();
        return Find(DayChanges.Bounds(day, measures), sums, changesOf(day, measures), most, enough, promising);
    }

    /// <summary>Looks.</summary>
    /// <param name="bounds">The bounds.</param>
    /// <param name="sums">What the day comes to now.</param>
    /// <param name="changes">What could be changed.</param>
    /// <param name="most">How many changes at most.</param>
    /// <param name="enough">With so many found that bring the day in, one more is put on top, and no further.</param>
    /// <param name="promising">How many of the changes, those that bring the day nearest by themselves, are tried together.</param>
    /// <returns>Those that bring it in, smallest first; where there is none, the nearest that was found, or nothing.</returns>
    public static IReadOnlyList<ChangesTogether> Find(
        DayBounds bounds, double[] sums, IReadOnlyList<SmallChange> changes, int most, int enough, int promising)
    {
        var none = new State([], sums, bounds.Out(sums), 0, 0);
        var singles = changes.Select((change, at) => none.With(change with { At = at + 1 }, bounds)).OrderBy(state => state.Rank).ToList();
        var (found, nearest) = (new Fewest(MostFound), singles.Count > 0 && singles[0].Out < none.Out ? singles[0] : none);
        foreach (var state in singles.Where(state => state.Out == 0)) found.Offer(state);
        var beam = singles.GroupBy(state => state.Changes[0].Targets[0]).SelectMany(same => same.Take(MostOfOne))
            .OrderBy(state => state.Rank).Take(promising).ToList();
        var tried = beam.ConvertAll(state => state.Changes[0]);
        var foundWith = found.Count >= enough ? 1 : most;
        for (var count = 2; count <= Math.Min(most, foundWith + 1) && beam.Count > 0; count++)
        {
            var next = new Fewest(Width);
            foreach (var state in beam)
            {
                foreach (var change in tried)
                {
                    var rank = state.RankWith(change, bounds);
                    var wanted = rank.Out == 0 ? found : next;
                    if (wanted.Wants(rank) && !state.Touches(change)) wanted.Offer(state.With(change, bounds));
                }
            }

            if (found.Count >= enough) foundWith = Math.Min(foundWith, count);
            beam = next.InOrder();
            if (beam.Count > 0 && beam[0].Out < nearest.Out) nearest = beam[0];
        }

        if (found.Count > 0) return [.. found.InOrder().Select(state => state.Told)];
        return nearest == none ? [] : [nearest.Told];
    }

    // The best few of what is offered, each set of changes once.
    private sealed class Fewest(int most)
    {
        private readonly PriorityQueue<State, (double Out, double Size)> kept =
            new(Comparer<(double Out, double Size)>.Create((a, b) => b.CompareTo(a)));

        private readonly HashSet<long> keys = [];

        public int Count => kept.Count;

        public bool Wants((double Out, double Size) rank) =>
            kept.Count < most || !kept.TryPeek(out _, out var worst) || rank.CompareTo(worst) < 0;

        public void Offer(State state)
        {
            if (!keys.Add(state.Key)) return;
            if (kept.Count < most) kept.Enqueue(state, state.Rank);
            else kept.EnqueueDequeue(state, state.Rank);
        }

        public List<State> InOrder() => [.. kept.UnorderedItems.Select(item => item.Element).OrderBy(state => state.Rank)];
    }

    private sealed record State(IReadOnlyList<SmallChange> Changes, double[] Sums, double Out, double Size, long Key)
    {
        public ChangesTogether Told => new(Changes, Out, Size);

        public (double Out, double Size) Rank => (Out, Size);

        public bool Touches(SmallChange other)
        {
            foreach (var change in Changes)
            {
                foreach (var target in change.Targets)
                {
                    if (other.Targets.Contains(target)) return true;
                }
            }

            return false;
        }

        public (double Out, double Size) RankWith(SmallChange change, DayBounds bounds)
        {
            Span<double> sums = stackalloc double[Sums.Length];
            for (var m = 0; m < sums.Length; m++) sums[m] = Sums[m] + change.Adds[m];
            return (bounds.Out(sums), SizeWith(change));
        }

        public State With(SmallChange change, DayBounds bounds)
        {
            var sums = Sums.Zip(change.Adds, (sum, adds) => sum + adds).ToArray();
            var key = unchecked(Key + ((long)change.At * change.At * 0x1000193) + change.At);
            return new([.. Changes, change], sums, bounds.Out(sums), SizeWith(change), key);
        }

        private double SizeWith(SmallChange change) => Size + change.Effort + (Changes.Count > 0 ? EachMore : 0);
    }
}
