using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving.Columns;

/// <summary>
/// Finds the best plan, and proves it: the relaxation says what each column would add to the bound, a plan with a column that adds more
/// than a known plan does cannot be better than that one, and what is left is few.
/// </summary>
internal static class ColumnSearch
{
    private const int FirstColumnsADay = 40, MostColumns = 12_000;

    /// <summary>Looks for it, by growing numbers of columns, as far as there is time.</summary>
    /// <param name="tables">The problem.</param>
    /// <param name="columns">Its columns.</param>
    /// <param name="effort">How long to look.</param>
    /// <param name="over">Whether it is time to stop.</param>
    /// <param name="tell">Told of plans and bounds.</param>
    public static void Solve(FitTables tables, DayColumns columns, FitEffort effort, Func<bool> over, Action<FitPlan?, long> tell)
    {
        using var relaxation = new ColumnRelaxation(tables, columns);
        var (bound, added) = relaxation.Solve(over);
        tell(null, bound);
        if (added is null) return;
        var count = FirstColumnsADay * tables.Problem.Eaters.Count * tables.Problem.DayCount;
        while (count <= MostColumns && Least(columns, added, count, over) is { } most)
        {
            using var few = new FewColumns(tables, columns, (c, at) => added[c][at] <= most, effort, over);
            var outside = double.IsInfinity(most) ? long.MaxValue : bound + (long)Math.Floor(most);
            var (cost, least, isDone) = few.Solve((plan, inside) => tell(plan, Math.Max(bound, Math.Min(inside, outside))));
            tell(null, Math.Max(bound, Math.Min(least, outside)));
            if (!isDone || cost <= outside) return;

            // Whatever is better than what was found adds less than that does; where nothing was, twice as many.
            count = cost == long.MaxValue ? 2 * count : added.Sum(ofDays => ofDays.Count(value => value <= cost - bound));
        }
    }

    // What the so many columns that add least add at most: all where there are no more. They are looked at, since some seem to add less
    // than they do.
    private static double? Least(DayColumns columns, double[][] added, int count, Func<bool> over)
    {
        while (true)
        {
            var sorted = added.SelectMany(ofDays => ofDays).Order().ToArray();
            var most = count < sorted.Length ? sorted[count - 1] : double.PositiveInfinity;
            var isSeen = true;
            foreach (var (c, alike) in columns.Days.Index())
            {
                bool IsSeen(int at, DayColumn column) => column.Choice is not null || added[c][at] > most;
                foreach (var (at, column) in alike.Columns.Index().Where(at => !IsSeen(at.Index, at.Item)))
                {
                    if (over()) return null;
                    added[c][at] -= column.Cost;
                    columns.Look(alike, column);
                    added[c][at] += column.Cost;
                    isSeen = false;
                }
            }

            if (isSeen) return most;
        }
    }
}
