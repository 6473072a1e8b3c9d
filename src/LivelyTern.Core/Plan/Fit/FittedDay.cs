using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan.Fit;

/// <summary>A day of a fitted plan, added up from the problem's own decimal figures and not from the solver's whole numbers.</summary>
/// <param name="EaterId">Whose.</param>
/// <param name="Day">Which, from 0.</param>
/// <param name="Sums">What it comes to, for the measures with a band.</param>
/// <param name="Bands">Where each sum lies.</param>
/// <param name="InTheWay">Where it does not fit: which bounds are in the way, in words.</param>
/// <param name="Verdict">What the day is.</param>
public sealed record FittedDay(
    string EaterId, int Day, IReadOnlyDictionary<Measure, decimal> Sums, IReadOnlyDictionary<Measure, BandReading> Bands,
    IReadOnlyList<string> InTheWay, DayVerdict Verdict)
{
    /// <summary>Whether something lies on it and every band holds.</summary>
    public bool Fits => Verdict.IsFit();

    /// <summary>Reads a day.</summary>
    public static FittedDay Read(FitProblem problem, FitPlan plan, int eater, int day)
    {
        ArgumentNullException.ThrowIfNull(problem);
        ArgumentNullException.ThrowIfNull(plan);
        var (who, what) = (problem.Eaters[eater], problem.Eaters[eater].Days[day]);
        var bands = (what.ReadBy ?? what.Bands).Where(band => band.Value is { IsOpen: false }).ToDictionary();
        var sums = bands.Keys.ToDictionary(measure => measure, measure => Sum(problem, plan, eater, day, measure));
        var read = bands.ToDictionary(band => band.Key, band => band.Value.Read(new Total(sums[band.Key])));
        var isOut = read.Where(band => band.Value.Position != BandPosition.Within).ToList();
        var tight = AtTheEdge(bands, sums).Select(measure => $"{Word(measure)} at {sums[measure]:0.#}").ToList();
        var beside = tight.Count == 0 ? "" : $", with {string.Join(" and ", tight)} already at the edge";
        string Says(Measure measure, BandReading reading)
        {
            var far = reading.Over is { } over ? $"{over:0.#} over its most" : $"{reading.RoomFrom:0.#} short of its least";
            return $"{who.Name}, day {day + 1}: {Word(measure)} {far}{beside}";
        }

        var isEmpty = !what.HasFixed && !plan.Boxes.Any(box => box.Eater == eater && box.Day == day)
            && !plan.Servings.Any(serving => serving.Eater == eater && serving.Day == day && serving.Count > 0);
        var verdict = isEmpty ? DayVerdict.Empty : DayReading.Judge(read.Values);
        return new(who.Id, day, sums, read, [.. isOut.Select(band => Says(band.Key, band.Value))], verdict);
    }

    private static decimal Sum(FitProblem problem, FitPlan plan, int eater, int day, Measure measure)
    {
        var id = problem.Eaters[eater].Id;
        var boxes = plan.Boxes.Where(box => box.Eater == eater && box.Day == day).Select(box => problem.Batches[box.Batch].Sizes[box.Size])
            .Sum(size => size.For(id, measure));
        var fillers = plan.Servings.Where(serving => serving.Eater == eater && serving.Day == day)
            .Sum(serving => problem.Fillers[serving.Filler].For(id, measure, serving.Count));
        return (problem.Eaters[eater].Days[day].Fixed?.GetValueOrDefault(measure) ?? 0) + boxes + fillers;
    }

    /// <summary>The measures that hold, but only just: what is in the way where another is out.</summary>
    /// <param name="bands">The bands.</param>
    /// <param name="sums">The sums of the same measures.</param>
    public static IReadOnlyList<Measure> AtTheEdge(IReadOnlyDictionary<Measure, Band> bands, IReadOnlyDictionary<Measure, decimal> sums)
    {
        ArgumentNullException.ThrowIfNull(bands);
        ArgumentNullException.ThrowIfNull(sums);
        bool IsAtTheEdge(Measure measure, Band band) =>
            sums.TryGetValue(measure, out var sum) && band.Read(new Total(sum)).Position == BandPosition.Within && IsTight(band, sum);
        return [.. bands.Where(band => IsAtTheEdge(band.Key, band.Value)).Select(band => band.Key)];
    }

    private static bool IsTight(Band band, decimal sum) =>
        (band.Max is { } max && sum > max * 0.98m) || (band.Min is { } min && sum < min * 1.02m);

    private static string Word(Measure measure) => measure switch
    {
        Measure.SaturatedFat => "saturated fat",
        Measure.NetCarbohydrate => "net carbs",
        Measure.Carbohydrate => "carbs",
        _ => measure.ToString().ToLowerInvariant(),
    };
}
