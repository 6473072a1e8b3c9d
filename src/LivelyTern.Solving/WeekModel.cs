using Google.OrTools.Sat;
using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Solving;

/// <summary>
/// The week as <c>docs/fit.md</c> writes it down, for CP-SAT: one method for each constraint and each part of the cost.
/// </summary>
internal sealed class WeekModel
{
    // Written out a larger one takes more memory and more time than it could be solved in.
    private const long MostVariables = 100_000;

    private readonly FitTables tables;
    private readonly FitProblem problem;
    private readonly FitPlan given;
    private readonly Dictionary<(int E, int D, int B, int S), BoolVar> box = [];
    private readonly Dictionary<(int E, int D, int F), BoolVar[]> serving = [];
    private readonly Dictionary<(int E, int B, int S), BoolVar> sizeOf = [];
    private readonly LinearExprBuilder cost = LinearExpr.NewBuilder();

    /// <summary>Builds the model.</summary>
    /// <param name="tables">The problem.</param>
    /// <param name="given">A plan that keeps the rules, as the hint.</param>
    public WeekModel(FitTables tables, FitPlan given)
    {
        (this.tables, problem, this.given) = (tables, tables.Problem, given);
        Variables();
        for (var e = 0; e < problem.Eaters.Count; e++)
        {
            for (var d = 0; d < problem.DayCount; d++)
            {
                WhatADayTakes(e, d);
                InItsBands(e, d);
            }
        }

        OneSizePerEater();
        NoMoreThanThereIs();
        NotTooOftenTheSame();
        FillersAndDislikes();
        Model.Minimize(cost);
        Hint();
    }

    /// <summary>Whether a week is small enough to be written out.</summary>
    public static bool CanBeWritten(FitTables tables)
    {
        var week = tables.Problem;
        var days = (long)week.Eaters.Count * week.DayCount;
        return days * (week.Batches.Sum(batch => batch.Sizes.Count) + week.Fillers.Sum(filler => filler.Most)) <= MostVariables;
    }

    /// <summary>The model.</summary>
    public CpModel Model { get; } = new();

    /// <summary>The plan of a solution.</summary>
    /// <param name="isTrue">The value of a variable.</param>
    public FitPlan Read(Func<BoolVar, bool> isTrue)
    {
        var laid = box.Where(pair => isTrue(pair.Value)).Select(pair => pair.Key);
        var boxes = laid.Select(at => new FitBox(at.E, at.D, at.B, at.S)).ToList();
        var servings = new List<FitServing>();
        foreach (var ((e, d, f), counts) in serving)
        {
            var count = Array.FindIndex(counts, isTrue.Invoke) + 1;
            if (count > 0) servings.Add(new(e, d, f, count));
        }

        return new FitPlan(boxes, servings).InOrder();
    }

    private void Variables()
    {
        for (var e = 0; e < problem.Eaters.Count; e++)
        {
            for (var d = 0; d < problem.DayCount; d++)
            {
                for (var b = 0; b < problem.Batches.Count; b++)
                {
                    if (!tables.MayEat(e, b, d)) continue;
                    for (var s = 0; s < problem.Batches[b].Sizes.Count; s++) box[(e, d, b, s)] = Model.NewBoolVar("");
                }

                for (var f = 0; f < problem.Fillers.Count; f++)
                {
                    var most = tables.MostServings(e, f, d);
                    if (most > 0) serving[(e, d, f)] = [.. Enumerable.Range(0, most).Select(_ => Model.NewBoolVar(""))];
                }
            }
        }
    }

    private IEnumerable<IGrouping<int, int>> Dishes => Enumerable.Range(0, problem.Batches.Count).GroupBy(b => tables.DishOf[b]);

    private IEnumerable<BoolVar> Sizes(int e, int d, int b) =>
        Enumerable.Range(0, problem.Batches[b].Sizes.Count).Where(s => box.ContainsKey((e, d, b, s))).Select(s => box[(e, d, b, s)]);

    // A dish at most once a day, so many boxes, so many servings; each filler in one count.
    private void WhatADayTakes(int e, int d)
    {
        var day = problem.Eaters[e].Days[d];
        var boxes = new List<BoolVar>();
        foreach (var dish in Dishes)
        {
            var sizes = dish.SelectMany(b => Sizes(e, d, b)).ToList();
            if (sizes.Count > 1) Model.AddAtMostOne(sizes);
            boxes.AddRange(sizes);
        }

        if (boxes.Count > 0) Model.Add(LinearExpr.Sum(boxes) <= day.MostBoxes);
        var all = LinearExpr.NewBuilder();
        var most = 0;
        for (var f = 0; f < problem.Fillers.Count; f++)
        {
            if (!serving.TryGetValue((e, d, f), out var counts)) continue;
            if (counts.Length > 1) Model.AddAtMostOne(counts);
            for (var c = 0; c < counts.Length; c++) all.AddTerm(counts[c], c + 1);
            most += counts.Length;
        }

        if (most > day.MostServings) Model.Add((LinearExpr)all <= day.MostServings);
    }

    // What lies outside the band, and off the target, measure by measure.
    private void InItsBands(int e, int d)
    {
        var bands = tables.Bands(e, d);
        for (var m = 0; m < bands.Length; m++)
        {
            var band = bands[m];
            var sum = LinearExpr.NewBuilder();
            long low = tables.Fixed(e, d)[m], high = low;
            sum.Add(low);
            for (var b = 0; b < problem.Batches.Count; b++)
            {
                for (var s = 0; s < problem.Batches[b].Sizes.Count; s++)
                {
                    if (box.TryGetValue((e, d, b, s), out var laid)) Term(laid, tables.Box(e, b, s)[m]);
                }
            }

            for (var f = 0; f < problem.Fillers.Count; f++)
            {
                if (!serving.TryGetValue((e, d, f), out var counts)) continue;
                for (var c = 0; c < counts.Length; c++) Term(counts[c], tables.Serving(e, f, c + 1)[m]);
            }

            var expr = (LinearExpr)sum;
            if (band.Max is { } max && high > max) Slack(expr - max, high - max, band.PerOutside);
            if (band.Min is { } min && low < min) Slack(min - expr, min - low, band.PerOutside);
            if (band.Target is not { } target || band.PerOffTarget == 0) continue;
            var far = Model.NewIntVar(0, Math.Max(Math.Abs(high - target), Math.Abs(target - low)), "");
            Model.Add(far >= expr - target);
            Model.Add(far >= target - expr);
            cost.AddTerm(far, band.PerOffTarget);

            void Term(BoolVar variable, int value)
            {
                if (value == 0) return;
                sum.AddTerm(variable, value);
                if (value > 0) high += value;
                else low += value;
            }
        }
    }

    private void Slack(LinearExpr atLeast, long most, int each)
    {
        var slack = Model.NewIntVar(0, most, "");
        Model.Add(slack >= atLeast);
        cost.AddTerm(slack, each);
    }

    // Divided by the fit, every box of one eater weighs the same.
    private void OneSizePerEater()
    {
        for (var e = 0; e < problem.Eaters.Count; e++)
        {
            for (var b = 0; b < problem.Batches.Count; b++)
            {
                if (problem.Batches[b].IsPacked) continue;
                var sizes = Enumerable.Range(0, problem.Batches[b].Sizes.Count).ToList();
                var days = Enumerable.Range(0, problem.DayCount).Where(d => sizes.Exists(s => box.ContainsKey((e, d, b, s)))).ToList();
                if (days.Count == 0) continue;
                foreach (var s in sizes)
                {
                    var has = sizeOf[(e, b, s)] = Model.NewBoolVar("");
                    foreach (var d in days) Model.AddImplication(box[(e, d, b, s)], has);
                }

                Model.AddAtMostOne(sizes.Select(s => sizeOf[(e, b, s)]));
            }
        }
    }

    // What is left over costs; it cannot be less than nothing.
    private void NoMoreThanThereIs()
    {
        var laid = box.ToLookup(pair => (pair.Key.B, pair.Key.S), pair => pair.Value);
        for (var b = 0; b < problem.Batches.Count; b++)
        {
            var batch = problem.Batches[b];
            var taken = LinearExpr.NewBuilder();
            for (var s = 0; s < batch.Sizes.Count; s++)
            {
                var here = laid[(b, s)].ToList();
                foreach (var variable in here) taken.AddTerm(variable, batch.IsPacked ? 1 : tables.GramsOf[b][s]);
                if (batch.IsPacked && here.Count > 0)
                    Model.Add(LinearExpr.Sum(here) <= batch.Sizes[s].Boxes!.Value);
            }

            var there = tables.Left(FitPlan.Nothing, b);
            if (!batch.IsPacked) Model.Add((LinearExpr)taken <= there);
            cost.Add((long)there * tables.WasteCost[b]);
            if (tables.WasteCost[b] > 0) cost.AddTerm(taken, -tables.WasteCost[b]);
        }
    }

    private void NotTooOftenTheSame()
    {
        if (tables.AgainCost == 0) return;
        for (var e = 0; e < problem.Eaters.Count; e++)
        {
            foreach (var dish in Dishes)
            {
                var here = box.Where(pair => pair.Key.E == e && tables.DishOf[pair.Key.B] == dish.Key).Select(pair => pair.Value).ToList();
                var days = Enumerable.Range(0, problem.DayCount).Count(d => dish.Any(b => tables.MayEat(e, b, d)));
                if (days > problem.Eaters[e].BoxesAlike && here.Count > 0)
                    Slack(LinearExpr.Sum(here) - problem.Eaters[e].BoxesAlike, days, tables.AgainCost);
            }
        }
    }

    private void FillersAndDislikes()
    {
        foreach (var ((e, _, b, _), variable) in box)
        {
            if (tables.DislikeCost(e, problem.Batches[b]) is > 0 and var each) cost.AddTerm(variable, each);
        }

        foreach (var ((e, _, f), counts) in serving)
        {
            var each = tables.ServingCost + tables.DislikeCost(e, problem.Fillers[f]);
            for (var c = 0; c < counts.Length && each > 0; c++) cost.AddTerm(counts[c], each * (c + 1));
        }
    }

    private void Hint()
    {
        var laid = given.Boxes.Select(at => (at.Eater, at.Day, at.Batch, at.Size)).ToHashSet();
        foreach (var (at, variable) in box) Model.AddHint(variable, laid.Contains(at));
        var own = given.Boxes.Select(at => (at.Eater, at.Batch, at.Size)).ToHashSet();
        foreach (var (at, variable) in sizeOf) Model.AddHint(variable, own.Contains(at));
        var counts = given.Servings.ToDictionary(at => (at.Eater, at.Day, at.Filler), at => at.Count);
        foreach (var (at, variables) in serving)
        {
            for (var c = 0; c < variables.Length; c++) Model.AddHint(variables[c], counts.GetValueOrDefault(at) == c + 1);
        }
    }
}
