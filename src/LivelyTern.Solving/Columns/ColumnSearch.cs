using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving.Columns;

/// <summary>
/// Finds the best plan, and proves it: the relaxation says what each column would add to the bound, a plan with a column that adds more
/// than a known plan does cannot be better than that one, and what is left is few.
/// </summary>
internal sealed class ColumnSearch : IDisposable
{
    // So many columns can be looked at, and so many chosen from, in a moment.
    private const int MostLooks = 20_000, MostColumns = 3_000, FirstColumnsADay = 40;

    // Of the solver's own seconds: where it proves nothing in these it will not soon.
    private const double MomentAtFirst = 0.5, MostTime = 3;
    private readonly FitTables tables;
    private readonly DayColumns columns;
    private readonly Func<bool> over;
    private readonly ColumnRelaxation relaxation;
    private readonly double[][]? added;
    private bool isFirst = true;
    private long triedAt = long.MaxValue;

    /// <summary>Works out how good a plan can be at best.</summary>
    /// <param name="tables">The problem.</param>
    /// <param name="columns">Its columns.</param>
    /// <param name="over">Whether it is time to stop.</param>
    public ColumnSearch(FitTables tables, DayColumns columns, Func<bool> over)
    {
        (this.tables, this.columns, this.over) = (tables, columns, over);
        relaxation = new(tables, columns);
        (Bound, added) = relaxation.Solve(over);
    }

    /// <summary>No plan costs less.</summary>
    public long Bound { get; }

    /// <inheritdoc/>
    public void Dispose() => relaxation.Dispose();

    /// <summary>
    /// Looks for a better plan: the first time among the columns that add least, for a moment; then among all that could be in one, where
    /// they are few enough to choose from. Proven is what is found, or known, where all of those were looked through.
    /// </summary>
    /// <param name="known">The plan that is known.</param>
    /// <param name="effort">How long to look.</param>
    /// <param name="tell">Told of plans and bounds.</param>
    /// <returns>
    /// Whether it was tried; a try that proved nothing is only made again for a plan that is nearer to the bound by some.
    /// </returns>
    public bool Try(FitPlan known, FitEffort effort, Action<FitPlan?, long> tell)
    {
        var cost = tables.Cost(known).Total;
        if (added is null || cost - Bound > (triedAt - Bound) * 0.9) return false;
        var most = (double)(cost - Bound);
        if (isFirst)
        {
            isFirst = false;
            var count = FirstColumnsADay * columns.Days.Sum(alike => alike.Days.Count);
            most = Math.Min(most, added.SelectMany(ofDays => ofDays).Order().Take(count).Last());
            return Look(most) && Among(most, MomentAtFirst);
        }

        if (CountUpTo(most) > MostLooks || !Look(most) || CountUpTo(most) > MostColumns) return false;
        triedAt = cost;
        return Among(most, MostTime);

        bool Among(double upTo, double time)
        {
            // A plan with any other column costs more than this.
            var outside = Math.Min(cost, Bound + (long)Math.Floor(upTo));
            using var few = new FewColumns(tables, columns, (c, at) => added[c][at] <= upTo, known, effort, time, over);
            var least = few.Solve((plan, inside) => tell(plan, Math.Max(Bound, Math.Min(inside, outside))));
            tell(null, Math.Max(Bound, Math.Min(least, outside)));
            return true;
        }
    }

    private int CountUpTo(double most) => added!.Sum(ofDays => ofDays.Count(value => value <= most));

    // Some columns seem to add less than they do: false where there was no time to see.
    private bool Look(double most)
    {
        foreach (var (c, alike) in columns.Days.Index())
        {
            foreach (var (at, column) in alike.Columns.Index())
            {
                if (column.Choice is not null || added![c][at] > most) continue;
                if (over()) return false;
                added[c][at] -= column.Cost;
                columns.Look(alike, column);
                added[c][at] += column.Cost;
            }
        }

        return true;
    }
}
