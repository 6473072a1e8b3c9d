using Google.OrTools.LinearSolver;
using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving.Columns;

/// <summary>
/// The relaxation of a week as a choice of one column for each day: as many parts of columns as one likes, by GLOP, columns brought in as
/// they pay. It says how good a plan can be at best far closer than that of <see cref="WeekModel"/>, and what a column would add to it.
/// </summary>
internal sealed class ColumnRelaxation : IDisposable
{
    private const int ColumnsAtATime = 12, LooksAtATime = 60, MostTurns = 1000;
    private const double Pays = -1e-6;
    private readonly FitTables tables;
    private readonly FitProblem problem;
    private readonly DayColumns columns;
    private readonly Solver relaxed = Solver.CreateSolver("GLOP");
    private readonly Constraint[] days;
    private readonly Dictionary<(int Batch, int Size), Constraint> packed = [];
    private readonly Dictionary<int, Constraint> grams = [];
    private readonly Dictionary<(int Eater, int Dish), Constraint> again = [];
    private readonly Dictionary<(int Eater, int Batch, int Size), Constraint> counted = [];
    private readonly Dictionary<(int Class, int Batch, int Size), Constraint> sized = [];
    private readonly HashSet<(int Class, int Column)> isIn = [];

    /// <summary>Sets it up with an empty day for every day.</summary>
    public ColumnRelaxation(FitTables tables, DayColumns columns)
    {
        (this.tables, problem, this.columns) = (tables, tables.Problem, columns);
        relaxed.Objective().SetMinimization();
        days = [.. columns.Days.Select(alike => relaxed.MakeConstraint(alike.Days.Count, alike.Days.Count))];
        for (var b = 0; b < problem.Batches.Count; b++)
        {
            var sizes = problem.Batches[b].Sizes;
            if (!problem.Batches[b].IsPacked) grams[b] = AtMost(columns.MostTaken(b));
            else for (var s = 0; s < sizes.Count; s++) packed[(b, s)] = AtMost(sizes[s].Boxes!.Value);
        }

        foreach (var (e, eater) in problem.Eaters.Index())
        {
            foreach (var dish in tables.DishOf.Distinct().Where(_ => columns.CountsAgain(e)))
            {
                again[(e, dish)] = relaxed.MakeConstraint(double.NegativeInfinity, eater.BoxesAlike);
                var over = relaxed.MakeNumVar(0, double.PositiveInfinity, "");
                again[(e, dish)].SetCoefficient(over, -1);
                relaxed.Objective().SetCoefficient(over, tables.AgainCost);
            }

            // So many boxes, all of one size, of a batch that is divided by the fit.
            foreach (var b in grams.Keys)
            {
                var one = relaxed.MakeConstraint(double.NegativeInfinity, 1);
                foreach (var ofSize in columns.Ways(e, b).GroupBy(way => way.Size))
                {
                    var all = counted[(e, b, ofSize.Key)] = relaxed.MakeConstraint(0, 0);
                    var alike = columns.Days.Index().Where(at => at.Item.Eater == e && tables.MayEat(e, b, at.Item.Days[0]));
                    var here = alike.Select(at => (at.Item.Days.Count, At: sized[(at.Index, b, ofSize.Key)] = AtMost(0))).ToList();
                    foreach (var (_, boxes) in ofSize)
                    {
                        var way = relaxed.MakeNumVar(0, 1, "");
                        one.SetCoefficient(way, 1);
                        all.SetCoefficient(way, -boxes);
                        grams[b].SetCoefficient(way, boxes * tables.GramsOf[b][ofSize.Key]);
                        foreach (var (days, at) in here) at.SetCoefficient(way, -Math.Min(days, boxes));
                    }
                }
            }
        }

        for (var c = 0; c < days.Length; c++) BringIn(c, 0);
    }

    /// <inheritdoc/>
    public void Dispose() => relaxed.Dispose();

    /// <summary>No plan costs less than this; and what each column would add to it, null where there was no time to know.</summary>
    /// <param name="over">Whether it is time to stop.</param>
    public (long Bound, double[][]? Added) Solve(Func<bool> over)
    {
        var best = 0L;
        var added = columns.Days.Select(alike => new double[alike.Columns.Count]).ToArray();
        for (var turn = 0; turn < MostTurns; turn++)
        {
            if (over() || relaxed.Solve() != Solver.ResultStatus.OPTIMAL) break;
            var bound = relaxed.Objective().Value() + columns.AllLeft;
            var pay = new List<(int Class, int Column)>();
            var isSeen = true;
            foreach (var (c, alike) in columns.Days.Index())
            {
                bound += alike.Days.Count * Math.Min(0, Price(c, added[c]));
                var (prices, looked, brought) = (added[c], 0, 0);
                foreach (var at in Enumerable.Range(0, prices.Length).Where(at => prices[at] < Pays).OrderBy(at => prices[at]))
                {
                    if (looked == LooksAtATime || brought == ColumnsAtATime) break;
                    var column = alike.Columns[at];
                    if (column.Choice is null)
                    {
                        // It may have looked cheaper than it is.
                        prices[at] -= column.Cost;
                        columns.Look(alike, column);
                        prices[at] += column.Cost;
                        (looked, isSeen) = (looked + 1, false);
                    }

                    if (prices[at] >= Pays) continue;
                    pay.Add((c, at));
                    brought++;
                }
            }

            // Half a unit of cost is left to the solver's own rounding.
            best = Math.Max(best, (long)Math.Ceiling(bound - 0.5));
            if (pay.Count == 0 && isSeen) return (best, added);
            foreach (var (c, at) in pay) BringIn(c, at); // after all prices are read: a changed model has none
        }

        return (best, null);
    }

    private void BringIn(int c, int at)
    {
        var column = columns.Days[c].Columns[at];
        if (!isIn.Add((c, at))) return;
        columns.Look(columns.Days[c], column);
        var variable = relaxed.MakeNumVar(0, double.PositiveInfinity, "");
        relaxed.Objective().SetCoefficient(variable, column.Cost);
        days[c].SetCoefficient(variable, 1);
        foreach (var (b, s) in column.Boxes)
        {
            if (packed.TryGetValue((b, s), out var boxes)) boxes.SetCoefficient(variable, 1);
            if (counted.TryGetValue((columns.Days[c].Eater, b, s), out var count)) count.SetCoefficient(variable, 1);
            if (again.TryGetValue((columns.Days[c].Eater, tables.DishOf[b]), out var alike)) alike.SetCoefficient(variable, 1);
            if (sized.TryGetValue((c, b, s), out var size)) size.SetCoefficient(variable, 1);
        }
    }

    // What each column of a kind of day would add to the relaxation, and the least of it.
    private double Price(int c, double[] added)
    {
        var alike = columns.Days[c];
        var prices = problem.Batches.Select((batch, b) => batch.Sizes.Select((_, s) =>
            (packed.TryGetValue((b, s), out var boxes) ? boxes.DualValue() : 0)
            + (counted.TryGetValue((alike.Eater, b, s), out var count) ? count.DualValue() : 0)
            + (again.TryGetValue((alike.Eater, tables.DishOf[b]), out var same) ? same.DualValue() : 0)
            + (sized.TryGetValue((c, b, s), out var size) ? size.DualValue() : 0)).ToArray()).ToArray();
        var (day, least) = (days[c].DualValue(), double.PositiveInfinity);
        for (var i = 0; i < added.Length; i++)
        {
            var price = alike.Columns[i].Cost - day;
            foreach (var (b, s) in alike.Columns[i].Boxes) price -= prices[b][s];
            added[i] = price;
            least = Math.Min(least, price);
        }

        return least;
    }

    private Constraint AtMost(double most) => relaxed.MakeConstraint(double.NegativeInfinity, most);
}
