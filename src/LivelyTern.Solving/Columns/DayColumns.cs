using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving.Columns;

/// <summary>A set of boxes for a day, with the best fillers to it.</summary>
/// <param name="boxes">The boxes: batch and size.</param>
internal sealed class DayColumn((int Batch, int Size)[] boxes)
{
    /// <summary>The boxes: batch and size.</summary>
    public (int Batch, int Size)[] Boxes { get; } = boxes;

    /// <summary>
    /// What the day costs at least with them: its bands, its fillers and what the eater would rather not, less what these boxes would cost
    /// left over.
    /// </summary>
    public long Cost { get; set; }

    /// <summary>Which fillers, where they were looked for.</summary>
    public (int Served, int At)? Choice { get; set; }
}

/// <summary>Days of one eater that are alike: the same bands, the same things lying there, the same batches to choose from.</summary>
/// <param name="Eater">Whose.</param>
/// <param name="Days">Which.</param>
/// <param name="Columns">What can lie on such a day; those of other days with the same bands are the same ones.</param>
internal sealed record AlikeDays(int Eater, IReadOnlyList<int> Days, IReadOnlyList<DayColumn> Columns);

/// <summary>
/// Every set of boxes that a day could take, written out, where they are few enough for that: a week is then one column for each of its
/// days.
/// </summary>
internal sealed class DayColumns
{
    private const int MostColumns = 200_000;
    private readonly FitTables tables;
    private readonly Func<int, int, FillerChoices> fillersOf;

    private DayColumns(FitTables tables, Func<int, int, FillerChoices> fillersOf) => (this.tables, this.fillersOf) = (tables, fillersOf);

    /// <summary>The days, those alike together.</summary>
    public List<AlikeDays> Days { get; } = [];

    /// <summary>What it would cost to leave all of every batch.</summary>
    public long AllLeft =>
        Enumerable.Range(0, tables.Problem.Batches.Count).Sum(b => (long)tables.Left(FitPlan.Nothing, b) * tables.WasteCost[b]);

    /// <summary>
    /// Writes them out, with what each costs at least at first sight; null where they are too many, or where there was no time to.
    /// </summary>
    /// <param name="tables">The problem.</param>
    /// <param name="over">Whether it is time to stop.</param>
    public static DayColumns? Of(FitTables tables, Func<bool> over)
    {
        var problem = tables.Problem;
        string AsksFor(int e, int d) => $"{problem.Eaters[e].Days[d].MostBoxes}|{DayCompletion.Kind(tables, e, d)}";
        string May(int e, int d) => string.Concat(problem.Batches.Select((_, b) => tables.MayEat(e, b, d) ? 1 : 0));
        var alike = from e in Enumerable.Range(0, problem.Eaters.Count)
                    from d in Enumerable.Range(0, problem.DayCount)
                    group d by (Eater: e, Kind: AsksFor(e, d), May: May(e, d)) into days
                    group days.ToList() by (days.Key.Eater, days.Key.Kind);
        var fillers = new Dictionary<(int Eater, int MostServings), FillerChoices>();
        FillerChoices Fillers(int eater, int day)
        {
            var key = (eater, problem.Eaters[eater].Days[day].MostServings);
            if (!fillers.TryGetValue(key, out var known)) fillers[key] = known = new(tables, eater, day);
            return known;
        }

        var (columns, room) = (new DayColumns(tables, Fillers), MostColumns);
        foreach (var kind in alike)
        {
            var (e, first) = (kind.Key.Eater, kind.First()[0]);
            var may = Enumerable.Range(0, problem.Batches.Count).Where(b => kind.Any(days => tables.MayEat(e, b, days[0]))).ToList();
            if (over() || Sets(tables, may, problem.Eaters[e].Days[first].MostBoxes, room) is not { } sets) return null;
            room -= sets.Count;
            foreach (var column in sets) columns.Price(e, first, column, isExact: false);
            List<DayColumn> For(int day) => sets.FindAll(column => Array.TrueForAll(column.Boxes, box => tables.MayEat(e, box.Batch, day)));
            columns.Days.AddRange(kind.Select(days => new AlikeDays(e, days, For(days[0]))));
        }

        return columns;
    }

    /// <summary>Those of one eater, whose boxes there still are: the same columns, with what is known of them.</summary>
    /// <param name="eater">Whose.</param>
    /// <param name="left">The problem of that eater alone, from what the others leave.</param>
    public DayColumns Of(int eater, FitTables left)
    {
        var own = new DayColumns(left, (_, day) => fillersOf(eater, day));
        foreach (var alike in Days.Where(alike => alike.Eater == eater))
        {
            var there = alike.Columns.Where(column => Array.TrueForAll(column.Boxes, box => IsThere(left, box.Batch, box.Size))).ToList();
            own.Days.Add(alike with { Eater = 0, Columns = there });
        }

        return own;
    }

    /// <summary>Looks for the best fillers to a column, where nobody did yet.</summary>
    public void Look(AlikeDays alike, DayColumn column)
    {
        if (column.Choice is null) Price(alike.Eater, alike.Days[0], column, isExact: true);
    }

    /// <summary>Whether an eater can get a dish more often than they welcome.</summary>
    public bool CountsAgain(int eater) => tables.AgainCost > 0 && tables.Problem.Eaters[eater].BoxesAlike < tables.Problem.DayCount;

    /// <summary>The most of a batch to be divided that whole boxes can take, in grams.</summary>
    public int MostTaken(int batch)
    {
        var reached = new bool[tables.Available[batch] + 1];
        reached[0] = true;
        foreach (var grams in tables.GramsOf[batch])
        {
            for (var at = grams; at < reached.Length; at++) reached[at] |= reached[at - grams];
        }

        return Array.LastIndexOf(reached, true);
    }

    /// <summary>
    /// In which ways an eater can have a batch that is divided by the fit: so many boxes, all of one size, as far as there are days and
    /// grams for them.
    /// </summary>
    public IEnumerable<(int Size, int Boxes)> Ways(int eater, int batch)
    {
        var most = Days.Where(alike => alike.Eater == eater && tables.MayEat(eater, batch, alike.Days[0])).Sum(alike => alike.Days.Count);
        return from size in Enumerable.Range(0, tables.GramsOf[batch].Count)
               from boxes in Enumerable.Range(1, Math.Min(most, tables.Available[batch] / tables.GramsOf[batch][size]))
               select (size, boxes);
    }

    /// <summary>The fillers of a column.</summary>
    public IEnumerable<(int Filler, int Count)> Fillers(AlikeDays alike, DayColumn column)
    {
        Look(alike, column);
        return fillersOf(alike.Eater, alike.Days[0]).Servings(column.Choice!.Value);
    }

    private void Price(int eater, int day, DayColumn column, bool isExact)
    {
        var batches = tables.Problem.Batches;
        Span<long> sums = stackalloc long[tables.Measures(eater).Length];
        for (var m = 0; m < sums.Length; m++) sums[m] = tables.Fixed(eater, day)[m];
        var cost = 0L;
        foreach (var (b, size) in column.Boxes)
        {
            var holds = tables.Box(eater, b, size);
            for (var m = 0; m < sums.Length; m++) sums[m] += holds[m];
            var saved = batches[b].IsPacked ? 1 : tables.GramsOf[b][size];
            cost += tables.DislikeCost(eater, batches[b]) - ((long)tables.WasteCost[b] * saved);
        }

        if (isExact)
        {
            var (best, choice) = fillersOf(eater, day).Best(tables.Bands(eater, day), sums);
            (column.Cost, column.Choice) = (cost + best, choice);
        }
        else
        {
            column.Cost = cost + fillersOf(eater, day).AtLeast(tables.Bands(eater, day), sums);
        }
    }

    private static bool IsThere(FitTables tables, int batch, int size) => tables.Problem.Batches[batch] is { IsPacked: true } packed
        ? packed.Sizes[size].Boxes > 0
        : tables.GramsOf[batch][size] <= tables.Available[batch];

    // Every set of up to so many boxes of sizes that there are, a dish once in it; null where they are more than there is room for.
    private static List<DayColumn>? Sets(FitTables tables, List<int> batches, int most, int room)
    {
        var sets = new List<(int Batch, int Size)[]> { Array.Empty<(int, int)>() };
        foreach (var b in batches)
        {
            var batch = tables.Problem.Batches[b];
            var sizes = Enumerable.Range(0, batch.Sizes.Count).Where(s => IsThere(tables, b, s)).ToList();
            for (var (i, before) = (0, sets.Count); i < before; i++)
            {
                var set = sets[i];
                if (set.Length == most || Array.Exists(set, box => tables.DishOf[box.Batch] == tables.DishOf[b])) continue;
                if (sets.Count + sizes.Count > room) return null;
                sets.AddRange(sizes.Select(s => ((int, int)[])[.. set, (b, s)]));
            }
        }

        return sets.ConvertAll(set => new DayColumn(set));
    }
}
