using System.Runtime.InteropServices;
using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving.Columns;

/// <summary>
/// All choices of fillers that a day of one eater could take, written out once, so that the very best for given boxes is found. Where they
/// are too many, those of few servings are written out, and more servings are known only by what they could do at best.
/// </summary>
internal sealed class FillerChoices
{
    private const int MostChoices = 300_000;
    private readonly int lead;
    private readonly DayFillers fillers;

    // By the number of servings, from none.
    private readonly List<Level> levels = [];

    /// <summary>Writes them out.</summary>
    /// <param name="tables">The problem.</param>
    /// <param name="eater">Whose day.</param>
    /// <param name="day">One of the days; those with as many servings have the same choices.</param>
    public FillerChoices(FitTables tables, int eater, int day)
    {
        var problem = tables.Problem;
        var measures = tables.Measures(eater);
        lead = Math.Max(0, measures.IndexOf(problem.Eaters[eater].Leading));
        fillers = new(tables, eater, day);

        levels.Add(Level.Nothing(measures.Length));
        for (var room = MostChoices; levels.Count <= fillers.MostServings;)
        {
            if (levels[^1].OneMore(fillers.Added, fillers.Each, room) is not { } next) break;
            room -= next.Count;
            levels.Add(next);
        }

        foreach (var level in levels) level.Sort(lead);
    }

    /// <summary>What a day costs at least, whatever its fillers: quick, and often less than it can be.</summary>
    /// <param name="bands">The day's bands.</param>
    /// <param name="sums">What lies on it without fillers.</param>
    public long AtLeast(ReadOnlySpan<WholeBand> bands, ReadOnlySpan<long> sums) => fillers.AtLeast(bands, sums);

    /// <summary>
    /// The least that a day costs with the best fillers, and which choice they are. Where not all are written out the cost may be less than
    /// any choice has.
    /// </summary>
    /// <param name="bands">The day's bands.</param>
    /// <param name="sums">What lies on it without fillers.</param>
    public (long Cost, (int Served, int At) Choice) Best(ReadOnlySpan<WholeBand> bands, ReadOnlySpan<long> sums)
    {
        var mostServings = fillers.MostServings;
        var (best, choice) = (fillers.AtLeast(bands, sums, 0), (Served: 0, At: 0));
        Span<long> atLeast = stackalloc long[mostServings + 1];
        for (var served = 1; served <= mostServings; served++) atLeast[served] = fillers.AtLeast(bands, sums, served);
        atLeast[0] = long.MaxValue;
        while (true)
        {
            // The most promising number of servings first: it leaves the least to look at elsewhere.
            var served = 0;
            for (var more = 1; more <= mostServings; more++)
            {
                if (atLeast[more] < atLeast[served]) served = more;
            }

            if (atLeast[served] >= best) return (best, choice);
            if (served >= levels.Count) best = atLeast[served];
            else if (levels[served].Better(bands, sums, lead, ref best) is { } at) choice = (served, at);
            atLeast[served] = long.MaxValue;
        }
    }

    /// <summary>The servings of a choice, filler by filler.</summary>
    public IEnumerable<(int Filler, int Count)> Servings((int Served, int At) choice)
    {
        var (last, at) = (-1, choice.At);
        for (var served = choice.Served; served > 0; served--)
        {
            var (from, filler, has) = levels[served].Step(at);
            if (filler != last) yield return (filler, has);
            (last, at) = (filler, from);
        }
    }

    // The choices of so many servings.
    private sealed class Level
    {
        // How each came to be: the choice with a serving less, the filler added, and how many of it there are then.
        private readonly List<(int From, int Filler, int Has)> steps = [];
        private readonly List<long> own = [];
        private readonly List<long>[] sums;

        // In the order of the leading measure: which choice, and its figures.
        private int[] order = [];
        private long[] sortedOwn = [];
        private long[][] sorted = [];
        private long leastOwn;

        private Level(int measures) => sums = [.. Enumerable.Range(0, measures).Select(_ => new List<long>())];

        public int Count => steps.Count;

        public static Level Nothing(int measures)
        {
            var nothing = new Level(measures);
            nothing.steps.Add((0, 0, 0));
            nothing.own.Add(0);
            foreach (var sum in nothing.sums) sum.Add(0);
            return nothing;
        }

        // Fillers are added in their order, so that no choice is met twice; null where there are more than there is room for.
        public Level? OneMore(int[][][] added, int[] each, int room)
        {
            var next = new Level(sums.Length);
            for (var i = 0; i < steps.Count; i++)
            {
                for (var f = steps[i].Filler; f < added.Length; f++)
                {
                    var has = f == steps[i].Filler ? steps[i].Has : 0;
                    if (has >= added[f].Length) continue;
                    if (next.steps.Count == room) return null;
                    next.steps.Add((i, f, has + 1));
                    next.own.Add(own[i] + each[f]);
                    for (var m = 0; m < sums.Length; m++) next.sums[m].Add(sums[m][i] + added[f][has][m]);
                }
            }

            return next;
        }

        public void Sort(int lead)
        {
            order = [.. Enumerable.Range(0, steps.Count)];
            if (sums.Length > 0) CollectionsMarshal.AsSpan(new List<long>(sums[lead])).Sort(order.AsSpan());
            sortedOwn = [.. order.Select(at => own[at])];
            sorted = [.. sums.Select(sum => order.Select(at => sum[at]).ToArray())];
            leastOwn = sortedOwn.DefaultIfEmpty(0).Min();
        }

        public (int From, int Filler, int Has) Step(int at) => steps[at];

        // From the choice that brings the leading measure nearest to its goal outwards, as long as that measure alone leaves room for a
        // better day.
        public int? Better(ReadOnlySpan<WholeBand> bands, ReadOnlySpan<long> day, int lead, ref long best)
        {
            if (bands.Length == 0) return null;
            var (led, band, found) = (sorted[lead], bands[lead], -1);
            var start = Array.BinarySearch(led, band.Nearest(day[lead]) - day[lead]);
            if (start < 0) start = ~start;
            for (var i = start; i < led.Length && leastOwn + band.Cost(day[lead] + led[i]) < best; i++)
                Try(i, bands, day, ref best, ref found);
            for (var i = start - 1; i >= 0 && leastOwn + band.Cost(day[lead] + led[i]) < best; i--) Try(i, bands, day, ref best, ref found);
            return found < 0 ? null : order[found];
        }

        private void Try(int i, ReadOnlySpan<WholeBand> bands, ReadOnlySpan<long> day, ref long best, ref int found)
        {
            var cost = sortedOwn[i];
            for (var m = 0; m < bands.Length && cost < best; m++) cost += bands[m].Cost(day[m] + sorted[m][i]);
            if (cost < best) (best, found) = (cost, i);
        }
    }
}
