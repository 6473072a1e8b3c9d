using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving;

/// <summary>
/// The fillers that an eater's day may take, counted out: what each serving adds and costs, and what so many could do for the day at best.
/// </summary>
internal sealed class DayFillers
{
    private readonly long leastEach;

    // By the number of servings, from none: what so many add at least and at most, measure by measure.
    private readonly long[][] low, high;

    /// <summary>Counts them out.</summary>
    /// <param name="tables">The problem.</param>
    /// <param name="eater">Whose day.</param>
    /// <param name="day">One of the days; those that take as many servings take the same.</param>
    public DayFillers(FitTables tables, int eater, int day)
    {
        var fillers = tables.Problem.Fillers;
        int[] More(int f, int count) =>
            [.. tables.Serving(eater, f, count).ToArray().Zip(tables.Serving(eater, f, count - 1).ToArray(), (to, from) => to - from)];
        int[][] EachMore(int f) => [.. Enumerable.Range(1, tables.MostServings(eater, f, day)).Select(count => More(f, count))];
        Added = [.. fillers.Select((_, f) => EachMore(f))];
        Each = [.. fillers.Select(filler => tables.ServingCost + tables.DislikeCost(eater, filler))];
        var all = Added.SelectMany(servings => servings).ToList();
        MostServings = Math.Min(tables.Problem.Eaters[eater].Days[day].MostServings, all.Count);
        leastEach = Each.Where((_, f) => Added[f].Length > 0).DefaultIfEmpty(0).Min();
        long[] Sorted(int m) => [.. all.Select(more => (long)more[m]).Order()];
        var sorted = Enumerable.Range(0, tables.Measures(eater).Length).Select(Sorted).ToList();
        low = [.. Enumerable.Range(0, MostServings + 1).Select(served => sorted.Select(of => of[..served].Sum()).ToArray())];
        high = [.. Enumerable.Range(0, MostServings + 1).Select(served => sorted.Select(of => of[^served..].Sum()).ToArray())];
    }

    /// <summary>What each further serving of each filler adds, measure by measure; as many as may be laid.</summary>
    public int[][][] Added { get; }

    /// <summary>What a serving of each filler costs.</summary>
    public int[] Each { get; }

    /// <summary>The most servings that such a day takes.</summary>
    public int MostServings { get; }

    /// <summary>What a day costs at least, whatever its fillers: quick, and often less than it can be.</summary>
    /// <param name="bands">The day's bands.</param>
    /// <param name="sums">What lies on it without fillers.</param>
    public long AtLeast(ReadOnlySpan<WholeBand> bands, ReadOnlySpan<long> sums)
    {
        var least = long.MaxValue;
        for (var served = 0; served <= MostServings && served * leastEach < least; served++)
            least = Math.Min(least, AtLeast(bands, sums, served));
        return least;
    }

    /// <summary>What a day costs at least with so many servings.</summary>
    /// <param name="bands">The day's bands.</param>
    /// <param name="sums">What lies on it without fillers.</param>
    /// <param name="served">How many servings.</param>
    public long AtLeast(ReadOnlySpan<WholeBand> bands, ReadOnlySpan<long> sums, int served)
    {
        var (cost, least, most) = (served * leastEach, low[served], high[served]);
        for (var m = 0; m < bands.Length; m++)
        {
            var (from, to) = (sums[m] + least[m], sums[m] + most[m]);
            cost += bands[m].Cost(Math.Clamp(bands[m].Nearest(from), from, to));
        }

        return cost;
    }
}
