using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving;

/// <summary>
/// The best fillers for a day with given boxes, found by a narrow search that adds one serving after another, and remembered: days of one
/// eater with the same bands share their answers, so a week of boxes is priced by looking up its days.
/// </summary>
internal sealed class DayCompletion
{
    private const int Width = 8;
    private readonly DayKind[] kindOf;
    private readonly PriceBook prices;
    private readonly Candidate[] candidates = new Candidate[Width];
    private readonly ulong[] fillerKeys;
    private readonly State[] now, next;

    public DayCompletion(FitTables tables)
    {
        var problem = tables.Problem;
        var kinds = new Dictionary<string, DayKind>(StringComparer.Ordinal);
        kindOf = new DayKind[problem.Eaters.Count * problem.DayCount];
        for (var on = 0; on < kindOf.Length; on++)
        {
            var (e, d) = Math.DivRem(on, problem.DayCount);
            var kind = $"{e}|{Kind(tables, e, d)}";
            if (!kinds.TryGetValue(kind, out var known))
                kinds[kind] = known = new(FitBoard.Key(2_000_000 + kinds.Count), tables.Bands(e, d).ToArray(), new(tables, e, d));
            kindOf[on] = known;
        }

        var fillers = problem.Fillers.Count;
        prices = new(fillers);
        fillerKeys = [.. Enumerable.Range(0, fillers).Select(f => FitBoard.Key(1_000_000 + f))];
        State[] Beam() => [.. Enumerable.Range(0, Width).Select(_ => new State(fillers))];
        (now, next) = (Beam(), Beam());
    }

    /// <summary>
    /// What an eater's day asks for: days of one eater that ask for the same have the same best fillers for the same boxes.
    /// </summary>
    public static string Kind(FitTables tables, int eater, int day)
    {
        var (bands, sums) = (tables.Bands(eater, day).ToArray(), tables.Fixed(eater, day).ToArray());
        return $"{tables.Problem.Eaters[eater].Days[day].MostServings}|{string.Join(',', bands)}|{string.Join(',', sums)}";
    }

    /// <summary>What a day costs with the best fillers found for it.</summary>
    /// <param name="on">Eater x days + day.</param>
    /// <param name="boxes">Names the set of boxes on it.</param>
    /// <param name="sums">What lies on it without fillers.</param>
    public long Price(int on, ulong boxes, ReadOnlySpan<long> sums) => Find(kindOf[on], boxes, sums).Cost;

    /// <summary>What it costs at least: its price where that is known, else what is quick to say.</summary>
    /// <param name="on">Eater x days + day.</param>
    /// <param name="boxes">Names the set of boxes on it.</param>
    /// <param name="sums">What lies on it without fillers.</param>
    public long AtLeast(int on, ulong boxes, ReadOnlySpan<long> sums)
    {
        var kind = kindOf[on];
        ref var price = ref prices.Of(kind.Key + boxes, out var isNew);
        if (isNew) price = new(kind.Fillers.AtLeast(kind.Bands, sums), null);
        return price.Cost;
    }

    /// <summary>The servings of those fillers.</summary>
    public byte[] Counts(int on, ulong boxes, ReadOnlySpan<long> sums) => Find(kindOf[on], boxes, sums).Counts!;

    private DayPrice Find(DayKind kind, ulong boxes, ReadOnlySpan<long> sums)
    {
        ref var price = ref prices.Of(kind.Key + boxes, out _);
        if (price.Counts is null) price = Search(kind, sums);
        return price;
    }

    private DayPrice Search(DayKind kind, ReadOnlySpan<long> sums)
    {
        var (bands, fillers) = (kind.Bands, kind.Fillers);
        var (here, there, states) = (now, next, 1);
        here[0].Start(sums[..bands.Length], Cost(bands, sums));
        var best = new DayPrice(here[0].Cost, (byte[])here[0].Counts.Clone());
        for (var served = 0; served < fillers.MostServings; served++)
        {
            var count = Nearest(kind, here.AsSpan(0, states), best.Cost);
            if (count == 0) break;
            for (states = 0; states < count; states++)
            {
                var candidate = candidates[states];
                there[states].Take(here[candidate.From], candidate, fillers.Each[candidate.Filler], fillers.Added[candidate.Filler]);
            }

            (here, there) = (there, here);
            if (here[0].Cost < best.Cost) best = new(here[0].Cost, (byte[])here[0].Counts.Clone());
        }

        return best;
    }

    // The few best ways to add one serving, cheapest first; the same servings in another order are the same way. What its servings alone
    // make dearer than the best is no way to a better one.
    private int Nearest(DayKind kind, ReadOnlySpan<State> states, long best)
    {
        var (bands, added, each) = (kind.Bands, kind.Fillers.Added, kind.Fillers.Each);
        var count = 0;
        for (var i = 0; i < states.Length; i++)
        {
            var state = states[i];
            for (var f = 0; f < added.Length; f++)
            {
                var cost = state.Served + each[f];
                if (state.Counts[f] >= added[f].Length || cost >= best) continue;
                var more = added[f][state.Counts[f]];
                var worst = count == Width ? candidates[Width - 1].Cost : long.MaxValue;
                for (var m = 0; m < bands.Length && cost <= worst; m++) cost += bands[m].Cost(state.Sums[m] + more[m]);
                if (cost <= worst) count = Insert(new(cost, i, f, state.Key + fillerKeys[f]), count);
            }
        }

        return count;
    }

    private int Insert(Candidate one, int count)
    {
        var at = count;
        while (at > 0 && one.IsBefore(candidates[at - 1])) at--;
        if (at == Width || (at > 0 && candidates[at - 1].Key == one.Key)) return count;
        var kept = Math.Min(count, Width - 1);
        candidates.AsSpan(at, kept - at).CopyTo(candidates.AsSpan(at + 1));
        candidates[at] = one;
        return kept + 1;
    }

    private static long Cost(WholeBand[] bands, ReadOnlySpan<long> sums)
    {
        var cost = 0L;
        for (var m = 0; m < bands.Length; m++) cost += bands[m].Cost(sums[m]);
        return cost;
    }

    private sealed record DayKind(ulong Key, WholeBand[] Bands, DayFillers Fillers);

    private readonly record struct Candidate(long Cost, int From, int Filler, ulong Key)
    {
        public bool IsBefore(Candidate other) => Cost < other.Cost || (Cost == other.Cost && Key < other.Key);
    }

    // Some servings on the way: what the day then holds, and what the servings themselves cost.
    private sealed class State(int fillers)
    {
        public byte[] Counts { get; } = new byte[fillers];

        public long[] Sums { get; private set; } = [];

        public long Cost { get; private set; }

        public long Served { get; private set; }

        public ulong Key { get; private set; }

        public void Start(ReadOnlySpan<long> sums, long cost)
        {
            Array.Clear(Counts);
            Room(sums.Length);
            sums.CopyTo(Sums);
            (Cost, Served, Key) = (cost, 0, 0);
        }

        public void Take(State from, Candidate what, int each, int[][] added)
        {
            from.Counts.CopyTo(Counts, 0);
            Room(from.Sums.Length);
            var more = added[Counts[what.Filler]++];
            for (var m = 0; m < Sums.Length; m++) Sums[m] = from.Sums[m] + more[m];
            (Cost, Served, Key) = (what.Cost, from.Served + each, what.Key);
        }

        private void Room(int measures)
        {
            if (Sums.Length != measures) Sums = new long[measures];
        }
    }
}
