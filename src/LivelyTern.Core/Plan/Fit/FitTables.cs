using LivelyTern.Core.Aim;

namespace LivelyTern.Core.Plan.Fit;

/// <summary>A band in whole numbers, with what a unit outside it and a unit from its target cost.</summary>
/// <param name="Min">At least, or null.</param>
/// <param name="Target">About, or null.</param>
/// <param name="Max">At most, or null.</param>
/// <param name="PerOutside">The cost of one unit outside.</param>
/// <param name="PerOffTarget">The cost of one unit from the target.</param>
public readonly record struct WholeBand(int? Min, int? Target, int? Max, int PerOutside, int PerOffTarget)
{
    // Counted with millions of times a second: no question asked twice.
    private readonly long least = Min ?? long.MinValue, about = Target ?? 0, most = Max ?? long.MaxValue;
    private readonly long perOff = Target is null ? 0 : PerOffTarget;

    /// <summary>What a sum costs that lies outside.</summary>
    public long CostOutside(long sum)
    {
        if (sum > most) return (sum - most) * PerOutside;
        return sum < least ? (least - sum) * PerOutside : 0;
    }

    /// <summary>What a sum costs that lies off the target.</summary>
    public long CostOffTarget(long sum) => Math.Abs(sum - about) * perOff;

    /// <summary>Both.</summary>
    public long Cost(long sum) => CostOutside(sum) + CostOffTarget(sum);

    /// <summary>
    /// The sum that costs least: the target, else the given one, inside the band; a unit outside always costs more than one off the target.
    /// </summary>
    public long Nearest(long otherwise) => Math.Max(least, Math.Min(most, perOff > 0 ? about : otherwise));
}

/// <summary>
/// A fit in whole numbers, as the solvers count it and as <c>docs/fit.md</c> writes it down: whole kcal and grams; tenths of a gram of salt
/// and saturated fat, tenths of a point. Each entry is rounded once, half away from zero.
/// </summary>
public sealed class FitTables
{
    /// <summary>The cost of one per cent outside a band.</summary>
    public const int PerCentOutside = 1000;
    private const int PerCentOffTarget = 25, PerBoxWasted = 300, PerBoxAgain = 150, PerServing = 20;
    private const int PerDislikedBox = 800, PerDislikedServing = 200;

    private readonly Measure[][] measures;
    private readonly WholeBand[][][] bands;
    private readonly int[][][] fixedSums;
    private readonly int[][][][] boxes;
    private readonly int[][][][] servings;
    private readonly bool[][][] mayEat;

    /// <summary>Counts a problem out.</summary>
    public FitTables(FitProblem problem)
    {
        ArgumentNullException.ThrowIfNull(problem);
        Problem = problem;
        var (eaters, days) = (problem.Eaters, problem.DayCount);
        measures = Each(eaters, eater => (Measure[])[.. MeasureNutrient.All.Where(measure => IsBound(eater, measure))]);
        bands = Each(eaters, (eater, e) => Each(eater.Days, day => Each(measures[e], measure =>
            Whole(Band(day, measure), measure, measure == eater.Leading, problem.Wishes))));
        fixedSums = Each(eaters, (eater, e) => Each(eater.Days, day => Each(measures[e], measure =>
            Whole(day.Fixed?.GetValueOrDefault(measure) ?? 0, measure))));
        boxes = Each(eaters, (eater, e) => Each(problem.Batches, batch => Each(batch.Sizes, size => Each(measures[e], measure =>
            Whole(size.For(eater.Id, measure), measure)))));
        servings = Each(eaters, (eater, e) => Each(problem.Fillers, filler => Each([.. Enumerable.Range(0, filler.Most + 1)], count =>
            Each(measures[e], measure => Whole(filler.For(eater.Id, measure, count), measure)))));
        mayEat = Each(eaters, eater => Each(problem.Batches, batch => Each(eater.Days, (of, day) => MayEat(eater, batch, of, day))));
        GramsOf = Each(problem.Batches, batch => Each(batch.Sizes, size => Math.Max(1, RoundOff(size.Grams))));
        var dishes = problem.Batches.Select(batch => batch.Dish ?? batch.Id).Distinct(StringComparer.Ordinal).ToList();
        DishOf = [.. problem.Batches.Select(batch => dishes.IndexOf(batch.Dish ?? batch.Id))];
        Available = [.. problem.Batches.Select(batch => batch.Grams is { } grams ? (int)Math.Floor(grams) : 0)];
        WasteCost = [.. problem.Batches.Select((batch, b) => CostOfWaste(batch, GramsOf[b], problem.Wishes.LessWaste))];
        AgainCost = PerBoxAgain * problem.Wishes.Variety;
        ServingCost = PerServing * problem.Wishes.FewerFillers;
    }

    private static TOut[] Each<TIn, TOut>(IReadOnlyList<TIn> all, Func<TIn, TOut> of) => [.. all.Select(of)];

    private static TOut[] Each<TIn, TOut>(IReadOnlyList<TIn> all, Func<TIn, int, TOut> of) => [.. all.Select(of)];

    private static bool IsBound(FitEater eater, Measure measure) => eater.Days.Any(day => Band(day, measure) is { IsOpen: false });

    private static bool MayEat(FitEater eater, FitBatch batch, FitDay of, int day) =>
        batch.ExcludedFor?.Contains(eater.Id, StringComparer.Ordinal) != true
        && day >= batch.FirstDay && day <= batch.LastDay && of.MostBoxes > 0
        && of.Dishes?.Contains(batch.Dish ?? batch.Id, StringComparer.Ordinal) != true;

    // Of a box where it is packed; else of a gram, by its middle size.
    private static int CostOfWaste(FitBatch batch, IReadOnlyList<int> sizes, int wish)
    {
        if (batch.AmountIsOpen || wish == 0) return 0;
        return batch.IsPacked ? PerBoxWasted * wish : Math.Max(1, RoundOff((decimal)PerBoxWasted * wish / sizes[sizes.Count / 2]));
    }

    private static int RoundOff(decimal value) => (int)Math.Round(value, MidpointRounding.AwayFromZero);

    /// <summary>The problem these tables count.</summary>
    public FitProblem Problem { get; }

    /// <summary>The whole grams of each size of each batch.</summary>
    public IReadOnlyList<IReadOnlyList<int>> GramsOf { get; }

    /// <summary>The dish of each batch, by a number of its own.</summary>
    public IReadOnlyList<int> DishOf { get; }

    /// <summary>The whole grams there are of each batch that is not packed.</summary>
    public IReadOnlyList<int> Available { get; }

    /// <summary>The cost of a gram left over, or of a packed box, batch by batch.</summary>
    public IReadOnlyList<int> WasteCost { get; }

    /// <summary>The cost of a box of a dish past what its eater welcomes.</summary>
    public int AgainCost { get; }

    /// <summary>The cost of one serving of a filler.</summary>
    public int ServingCost { get; }

    /// <summary>The measures that an eater has a band for, in order; the other tables follow this order.</summary>
    public ReadOnlySpan<Measure> Measures(int eater) => measures[eater];

    /// <summary>A day's bands, measure by measure.</summary>
    public ReadOnlySpan<WholeBand> Bands(int eater, int day) => bands[eater][day];

    /// <summary>What lies on a day already.</summary>
    public ReadOnlySpan<int> Fixed(int eater, int day) => fixedSums[eater][day];

    /// <summary>What a box holds for an eater.</summary>
    public ReadOnlySpan<int> Box(int eater, int batch, int size) => boxes[eater][batch][size];

    /// <summary>What some servings of a filler hold for an eater, as one entry.</summary>
    public ReadOnlySpan<int> Serving(int eater, int filler, int count) => servings[eater][filler][count];

    /// <summary>Whether an eater may be given a batch on a day.</summary>
    public bool MayEat(int eater, int batch, int day) => mayEat[eater][batch][day];

    /// <summary>The most servings of a filler an eater may be given on a day.</summary>
    public int MostServings(int eater, int filler, int day)
    {
        var what = Problem.Fillers[filler];
        return what.ExcludedFor?.Contains(Problem.Eaters[eater].Id, StringComparer.Ordinal) == true
            ? 0
            : Math.Min(what.Most, Problem.Eaters[eater].Days[day].MostServings);
    }

    /// <summary>What it costs that an eater gets a box they would rather not.</summary>
    public int DislikeCost(int eater, FitBatch batch)
    {
        ArgumentNullException.ThrowIfNull(batch);
        return batch.DislikedBy?.Contains(Problem.Eaters[eater].Id, StringComparer.Ordinal) == true ? PerDislikedBox : 0;
    }

    /// <summary>What it costs that an eater gets a serving they would rather not.</summary>
    public int DislikeCost(int eater, FitFiller filler)
    {
        ArgumentNullException.ThrowIfNull(filler);
        return filler.DislikedBy?.Contains(Problem.Eaters[eater].Id, StringComparer.Ordinal) == true ? PerDislikedServing : 0;
    }

    /// <summary>The sums of a day under a plan, measure by measure.</summary>
    public long[] Sums(FitPlan plan, int eater, int day)
    {
        ArgumentNullException.ThrowIfNull(plan);
        var sums = fixedSums[eater][day].Select(value => (long)value).ToArray();
        foreach (var box in plan.Boxes.Where(box => box.Eater == eater && box.Day == day)) Add(sums, Box(eater, box.Batch, box.Size));
        foreach (var serving in plan.Servings.Where(serving => serving.Eater == eater && serving.Day == day))
            Add(sums, Serving(eater, serving.Filler, serving.Count));
        return sums;
    }

    /// <summary>What a plan costs, part by part.</summary>
    public FitCost Cost(FitPlan plan)
    {
        ArgumentNullException.ThrowIfNull(plan);
        long outOf = 0, far = 0;
        for (var e = 0; e < Problem.Eaters.Count; e++)
        {
            for (var d = 0; d < Problem.DayCount; d++)
            {
                var sums = Sums(plan, e, d);
                for (var m = 0; m < sums.Length; m++)
                {
                    outOf += bands[e][d][m].CostOutside(sums[m]);
                    far += bands[e][d][m].CostOffTarget(sums[m]);
                }
            }
        }

        var waste = Problem.Batches.Select((batch, b) => (long)WasteCost[b] * Left(plan, b)).Sum();
        var again = plan.Boxes.GroupBy(box => (box.Eater, Dish: DishOf[box.Batch]))
            .Sum(group => (long)Math.Max(0, group.Count() - Problem.Eaters[group.Key.Eater].BoxesAlike) * AgainCost);
        var boxDislikes = plan.Boxes.Sum(box => (long)DislikeCost(box.Eater, Problem.Batches[box.Batch]));
        var servingDislikes = plan.Servings.Sum(one => (long)one.Count * DislikeCost(one.Eater, Problem.Fillers[one.Filler]));
        return new(
            outOf, far, waste, again, plan.Servings.Sum(serving => (long)serving.Count * ServingCost), boxDislikes + servingDislikes);
    }

    /// <summary>What is left of a batch under a plan: boxes where it is packed, else grams.</summary>
    public int Left(FitPlan plan, int batch)
    {
        ArgumentNullException.ThrowIfNull(plan);
        var taken = plan.Boxes.Where(box => box.Batch == batch);
        return Problem.Batches[batch].IsPacked
            ? Problem.Batches[batch].Sizes.Sum(size => size.Boxes ?? 0) - taken.Count()
            : Available[batch] - taken.Sum(box => GramsOf[batch][box.Size]);
    }

    /// <summary>
    /// Which rule a plan breaks, or null: nothing eaten that is not there, not kept, excluded, twice a day, or past what a day takes.
    /// </summary>
    public string? Breach(FitPlan plan)
    {
        ArgumentNullException.ThrowIfNull(plan);
        foreach (var box in plan.Boxes)
        {
            if (!MayEat(box.Eater, box.Batch, box.Day))
                return $"{Problem.Batches[box.Batch].Name} on day {box.Day} for {Problem.Eaters[box.Eater].Name}";
        }

        foreach (var serving in plan.Servings)
        {
            if (serving.Count > MostServings(serving.Eater, serving.Filler, serving.Day))
                return $"{serving.Count} servings of {Problem.Fillers[serving.Filler].Name}";
        }

        if (plan.Servings.GroupBy(serving => (serving.Eater, serving.Day, serving.Filler)).Any(same => same.Count() > 1))
            return "a filler entered twice";
        if (plan.Boxes.GroupBy(box => (box.Eater, box.Day, DishOf[box.Batch])).Any(same => same.Count() > 1))
            return "a dish twice on one day";
        FitDay DayOf(int eater, int day) => Problem.Eaters[eater].Days[day];
        var boxesADay = plan.Boxes.GroupBy(box => (box.Eater, box.Day));
        if (boxesADay.Any(day => day.Count() > DayOf(day.Key.Eater, day.Key.Day).MostBoxes)) return "too many boxes on one day";
        var servingsADay = plan.Servings.GroupBy(serving => (serving.Eater, serving.Day));
        if (servingsADay.Any(day => day.Sum(serving => serving.Count) > DayOf(day.Key.Eater, day.Key.Day).MostServings))
            return "too many fillers on one day";
        foreach (var (batch, b) in Problem.Batches.Select((batch, b) => (batch, b)))
        {
            var taken = plan.Boxes.Where(box => box.Batch == b).ToList();
            if (Left(plan, b) < 0) return $"more of {batch.Name} than there is";
            if (batch.IsPacked && batch.Sizes.Where((size, s) => taken.Count(box => box.Size == s) > size.Boxes).Any())
                return $"more boxes of {batch.Name} than there are";
            if (!batch.IsPacked && taken.GroupBy(box => box.Eater).Any(own => own.Select(box => box.Size).Distinct().Count() > 1))
                return $"two sizes of {batch.Name} for one eater";
        }

        return null;
    }

    private static void Add(long[] sums, ReadOnlySpan<int> figures)
    {
        for (var m = 0; m < sums.Length; m++) sums[m] += figures[m];
    }

    private static Band Band(FitDay day, Measure measure) => day.Bands.GetValueOrDefault(measure, Core.Aim.Band.Open).Resolved();

    private static int Scale(Measure measure) => measure is Measure.Points or Measure.Salt or Measure.SaturatedFat ? 10 : 1;

    private static int Whole(decimal value, Measure measure) => (int)Math.Round(value * Scale(measure), MidpointRounding.AwayFromZero);

    private static WholeBand Whole(Band band, Measure measure, bool leads, FitWishes wishes)
    {
        int? Of(decimal? bound) => bound is { } value ? Whole(value, measure) : null;
        var size = Math.Max(10, Of(band.Target) ?? Of(band.Max) ?? Of(band.Min) ?? 10);
        var perCentFar = PerCentOffTarget * wishes.Closeness * (leads ? 2 : 1);
        return new(
            Of(band.Min), Of(band.Target), Of(band.Max), Math.Max(1, 100 * PerCentOutside / size),
            band.Target is null || wishes.Closeness == 0 ? 0 : Math.Max(1, 100 * perCentFar / size));
    }
}
