using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving.Columns;

/// <summary>
/// Plans the weeks of several eaters anew, one after another: each as good as is found beside the others' as they lie, from what those
/// leave. A week of one eater is mostly proven best in a moment, where one of four is not.
/// </summary>
/// <param name="tables">The problem.</param>
/// <param name="columns">Its columns.</param>
/// <param name="effort">How long to look.</param>
/// <param name="over">Whether it is time to stop.</param>
internal sealed class OneEaterAnew(FitTables tables, DayColumns columns, FitEffort effort, Func<bool> over)
{
    private const int Tries = 2;

    /// <summary>The plan, bettered until a turn of all eaters betters none; the same where none is.</summary>
    /// <param name="plan">A plan that keeps the rules.</param>
    public FitPlan Better(FitPlan plan)
    {
        var (eaters, asGood) = (tables.Problem.Eaters.Count, 0);
        for (var e = 0; asGood < eaters && !over(); e = (e + 1) % eaters)
        {
            var anew = Anew(e, plan);
            if (tables.Cost(anew).Total < tables.Cost(plan).Total) (plan, asGood) = (anew, 1);
            else asGood++;
        }

        return plan;
    }

    private FitPlan Anew(int e, FitPlan plan)
    {
        var others = plan.Boxes.Where(box => box.Eater != e).ToList();
        var served = plan.Servings.Where(serving => serving.Eater != e).ToList();
        var left = new FitTables(Left(e, others));
        var own = new FitPlan(
            [.. plan.Boxes.Where(box => box.Eater == e).Select(box => box with { Eater = 0 })],
            [.. plan.Servings.Where(serving => serving.Eater == e).Select(serving => serving with { Eater = 0 })]);
        using var search = new ColumnSearch(left, columns.Of(e, left), over);
        var (cost, bound) = (left.Cost(own).Total, search.Bound);
        void Tell(FitPlan? found, long atLeast)
        {
            bound = Math.Max(bound, atLeast);
            if (found is not null && left.Cost(found).Total is var less && less < cost) (own, cost) = (found, less);
        }

        for (var i = 0; i < Tries && bound < cost && !over(); i++) search.Try(own, effort, Tell);
        return new(
            [.. others, .. own.Boxes.Select(box => box with { Eater = e })],
            [.. served, .. own.Servings.Select(serving => serving with { Eater = e })]);
    }

    // The problem of one eater, from what is not the others'.
    private FitProblem Left(int e, List<FitBox> others)
    {
        var problem = tables.Problem;
        FitBatch Of(FitBatch batch, int b)
        {
            var taken = others.Where(box => box.Batch == b).ToList();
            FitSize OfSize(FitSize size, int s) => size with { Boxes = size.Boxes - taken.Count(box => box.Size == s) };
            return batch.IsPacked
                ? batch with { Sizes = [.. batch.Sizes.Select(OfSize)] }
                : batch with { Grams = tables.Available[b] - taken.Sum(box => tables.GramsOf[b][box.Size]) };
        }

        return problem with { Eaters = [problem.Eaters[e]], Batches = [.. problem.Batches.Select(Of)] };
    }
}
