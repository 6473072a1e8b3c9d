using Google.OrTools.Sat;
using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving.Columns;

/// <summary>The week as a choice among few columns, for CP-SAT.</summary>
internal sealed class FewColumns : IDisposable
{
    private readonly FitTables tables;
    private readonly DayColumns columns;
    private readonly CpModel model = new();
    private readonly List<(int Class, DayColumn Column, IntVar Count)> laid = [];
    private readonly CpSolver solver;
    private readonly Func<bool> over;

    /// <summary>Writes them down.</summary>
    /// <param name="tables">The problem.</param>
    /// <param name="columns">All columns.</param>
    /// <param name="isIn">Which of them may be chosen: kind of day, column.</param>
    /// <param name="known">A plan that is known, as the hint.</param>
    /// <param name="effort">How long to look.</param>
    /// <param name="mostTime">The most of the solver's own seconds, whatever the effort.</param>
    /// <param name="over">Whether it is time to stop.</param>
    public FewColumns(
        FitTables tables, DayColumns columns, Func<int, int, bool> isIn, FitPlan known, FitEffort effort, double mostTime, Func<bool> over)
    {
        (this.tables, this.columns, this.over) = (tables, columns, over);
        var problem = tables.Problem;
        foreach (var (c, alike) in columns.Days.Index())
        {
            foreach (var (_, column) in alike.Columns.Index().Where(at => isIn(c, at.Index)))
                laid.Add((c, column, model.NewIntVar(0, alike.Days.Count, "")));
        }

        var cost = LinearExpr.NewBuilder().Add(columns.AllLeft);
        foreach (var ofDays in laid.GroupBy(at => at.Class))
            model.Add(LinearExpr.Sum(ofDays.Select(at => at.Count)) == columns.Days[ofDays.Key].Days.Count);
        foreach (var (_, column, count) in laid) cost.AddTerm(count, column.Cost);
        var boxes = (
            from at in laid
            from box in at.Column.Boxes
            select (at.Class, columns.Days[at.Class].Eater, box.Batch, box.Size, at.Count)).ToList();
        foreach (var of in boxes.GroupBy(box => box.Batch))
        {
            if (problem.Batches[of.Key].IsPacked)
            {
                foreach (var same in of.GroupBy(box => box.Size))
                    model.Add(LinearExpr.Sum(same.Select(box => box.Count)) <= problem.Batches[of.Key].Sizes[same.Key].Boxes!.Value);
                continue;
            }

            var taken = LinearExpr.NewBuilder();
            foreach (var own in of.GroupBy(box => box.Eater))
            {
                var ways = columns.Ways(own.Key, of.Key).Where(way => own.Any(box => box.Size == way.Size))
                    .Select(way => (way.Size, way.Boxes, IsSo: model.NewBoolVar(""))).ToList();
                if (ways.Count > 1) model.AddAtMostOne(ways.Select(way => way.IsSo));
                foreach (var same in own.GroupBy(box => box.Size))
                {
                    var count = LinearExpr.NewBuilder();
                    foreach (var way in ways.Where(way => way.Size == same.Key)) count.AddTerm(way.IsSo, way.Boxes);
                    model.Add(LinearExpr.Sum(same.Select(box => box.Count)) == count);
                    foreach (var here in same.GroupBy(box => box.Class))
                    {
                        var most = LinearExpr.NewBuilder();
                        foreach (var way in ways.Where(way => way.Size == same.Key))
                            most.AddTerm(way.IsSo, Math.Min(way.Boxes, columns.Days[here.Key].Days.Count));
                        model.Add(LinearExpr.Sum(here.Select(box => box.Count)) <= most);
                    }
                }

                foreach (var way in ways) taken.AddTerm(way.IsSo, way.Boxes * tables.GramsOf[of.Key][way.Size]);
            }

            model.Add((LinearExpr)taken <= columns.MostTaken(of.Key));
        }

        foreach (var of in boxes.GroupBy(box => (box.Eater, Dish: tables.DishOf[box.Batch])).Where(of => columns.CountsAgain(of.Key.Eater)))
        {
            var more = model.NewIntVar(0, problem.DayCount, "");
            model.Add(more >= LinearExpr.Sum(of.Select(box => box.Count)) - problem.Eaters[of.Key.Eater].BoxesAlike);
            cost.AddTerm(more, tables.AgainCost);
        }

        Hint(known);
        model.Minimize(cost);
        solver = SolverWatch.Solver(effort, mostTime);
    }

    /// <summary>Looks for the best of them.</summary>
    /// <param name="tell">Told of plans and bounds.</param>
    /// <returns>What no plan of these costs less than: as large as can be where none of them is a plan.</returns>
    public long Solve(Action<FitPlan?, long> tell)
    {
        using var watch = new SolverWatch(
            solver, over, bound => tell(null, bound), (bound, callback) => tell(Read(count => callback.Value(count)), bound));
        return solver.Solve(model, watch) switch
        {
            CpSolverStatus.Optimal or CpSolverStatus.Feasible => SolverWatch.Whole(solver.BestObjectiveBound),
            CpSolverStatus.Infeasible => long.MaxValue,
            _ => 0,
        };
    }

    /// <inheritdoc/>
    public void Dispose() => solver.Dispose();

    private void Hint(FitPlan known)
    {
        var lies = known.Boxes.ToLookup(box => (box.Eater, box.Day), box => (box.Batch, box.Size));
        foreach (var (c, column, count) in laid)
        {
            var alike = columns.Days[c];
            model.AddHint(count, alike.Days.Count(day => lies[(alike.Eater, day)].ToHashSet().SetEquals(column.Boxes)));
        }
    }

    private FitPlan Read(Func<IntVar, long> valueOf)
    {
        var (boxes, servings) = (new List<FitBox>(), new List<FitServing>());
        foreach (var ofDays in laid.GroupBy(at => at.Class))
        {
            var alike = columns.Days[ofDays.Key];
            foreach (var (day, column) in alike.Days.Zip(ofDays.SelectMany(at => Enumerable.Repeat(at.Column, (int)valueOf(at.Count)))))
            {
                boxes.AddRange(column.Boxes.Select(box => new FitBox(alike.Eater, day, box.Batch, box.Size)));
                servings.AddRange(columns.Fillers(alike, column).Select(at => new FitServing(alike.Eater, day, at.Filler, at.Count)));
            }
        }

        return new FitPlan(boxes, servings).InOrder();
    }
}
