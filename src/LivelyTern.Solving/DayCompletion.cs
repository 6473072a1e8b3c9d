using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving;

/// <summary>
/// The best fillers for a day with given boxes, found by a narrow search that adds one serving after another, and remembered: days of one
/// eater with the same bands share their answers, so a week of boxes is priced by looking up its days.
/// </summary>
internal sealed class DayCompletion
{
    private const int Width = 8;
    private readonly int days, fillers;
    private readonly int[] kindOf, mostServings;
    private readonly WholeBand[][] bands;
    private readonly int[][][] added;
    private readonly int[] each;
    private readonly int[][] most;
    private readonly ulong[] fillerKeys;
    private readonly Dictionary<(int Kind, ulong Boxes), (long Cost, byte[] Counts)> known = [];
    private readonly Candidate[] candidates;
    private readonly State[] now, next;

    public DayCompletion(FitTables tables)
    {
        var problem = tables.Problem;
        (days, fillers) = (problem.DayCount, problem.Fillers.Count);
        var kinds = new Dictionary<string, int>(StringComparer.Ordinal);
        kindOf = new int[problem.Eaters.Count * days];
        mostServings = new int[kindOf.Length];
        bands = new WholeBand[kindOf.Length][];
        for (var e = 0; e < problem.Eaters.Count; e++)
        {
            for (var d = 0; d < days; d++)
            {
                var on = (e * days) + d;
                bands[on] = tables.Bands(e, d).ToArray();
                mostServings[on] = problem.Eaters[e].Days[d].MostServings;
                var kind = $"{e}|{Kind(tables, e, d)}";
                if (!kinds.TryGetValue(kind, out var known)) kinds[kind] = known = kinds.Count;
                kindOf[on] = known;
            }
        }

        var eaters = problem.Eaters.Count;
        int[] More(int e, int f, int count) =>
            [.. tables.Serving(e, f, count).ToArray().Zip(tables.Serving(e, f, count - 1).ToArray(), (to, from) => to - from)];
        int[][] EachMore(int e, int f) => [.. Enumerable.Range(1, problem.Fillers[f].Most).Select(count => More(e, f, count))];
        int[] MostOn(int e, int d) => [.. Enumerable.Range(0, fillers).Select(f => tables.MostServings(e, f, d))];
        int CostOf(int e, FitFiller filler) => tables.ServingCost + tables.DislikeCost(e, filler);
        each = [.. Enumerable.Range(0, eaters).SelectMany(e => problem.Fillers.Select(filler => CostOf(e, filler)))];
        most = [.. Enumerable.Range(0, eaters * days).Select(on => MostOn(on / days, on % days))];
        added = [.. Enumerable.Range(0, eaters * fillers).Select(own => EachMore(own / fillers, own % fillers))];
        fillerKeys = [.. Enumerable.Range(0, fillers).Select(f => FitBoard.Key(1_000_000 + f))];
        candidates = new Candidate[Width * Math.Max(1, fillers)];
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
    public long Price(int on, ulong boxes, ReadOnlySpan<long> sums) => Find(on, boxes, sums).Cost;

    /// <summary>The servings of those fillers.</summary>
    public byte[] Counts(int on, ulong boxes, ReadOnlySpan<long> sums) => Find(on, boxes, sums).Counts;

    private (long Cost, byte[] Counts) Find(int on, ulong boxes, ReadOnlySpan<long> sums)
    {
        var key = (kindOf[on], boxes);
        if (!known.TryGetValue(key, out var found)) known[key] = found = Search(on, sums);
        return found;
    }

    private (long Cost, byte[] Counts) Search(int on, ReadOnlySpan<long> sums)
    {
        var band = bands[on];
        var own = on / days * fillers;
        var (here, there) = (now, next);
        here[0].Start(sums[..band.Length], Cost(band, sums));
        var (bestCost, bestCounts) = (here[0].Cost, new byte[fillers]);
        var states = 1;
        for (var served = 0; served < mostServings[on]; served++)
        {
            var count = 0;
            for (var i = 0; i < states; i++)
            {
                for (var f = 0; f < fillers; f++)
                {
                    var has = here[i].Counts[f];
                    if (has >= most[on][f]) continue;
                    var more = added[own + f][has];
                    var cost = here[i].Served + each[own + f];
                    for (var m = 0; m < band.Length; m++) cost += band[m].Cost(here[i].Sums[m] + more[m]);
                    candidates[count++] = new(cost, i, f, here[i].Key + fillerKeys[f]);
                }
            }

            if (count == 0) break;
            candidates.AsSpan(0, count).Sort(static (a, b) => a.Cost != b.Cost ? a.Cost.CompareTo(b.Cost) : a.Key.CompareTo(b.Key));
            states = 0;
            var last = 0UL;
            for (var c = 0; c < count && states < Width; c++)
            {
                // The same servings in another order stand next to each other.
                if (c > 0 && candidates[c].Key == last) continue;
                last = candidates[c].Key;
                there[states++].Take(
                    here[candidates[c].From], candidates[c], each[own + candidates[c].Filler], added[own + candidates[c].Filler]);
            }

            (here, there) = (there, here);
            if (here[0].Cost < bestCost) (bestCost, bestCounts) = (here[0].Cost, (byte[])here[0].Counts.Clone());
        }

        return (bestCost, bestCounts);
    }

    private static long Cost(WholeBand[] band, ReadOnlySpan<long> sums)
    {
        var cost = 0L;
        for (var m = 0; m < band.Length; m++) cost += band[m].Cost(sums[m]);
        return cost;
    }

    private readonly record struct Candidate(long Cost, int From, int Filler, ulong Key);

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
