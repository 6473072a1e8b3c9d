using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Review;

/// <summary>
/// The body's trend under the noise of water and scale, its rate, and the energy need that intake and trend imply together. How much water
/// swings, how much the scale scatters and how quickly trend and need change is not known beforehand: a few dozen answers are tried, and
/// each counts as much as it foretold the weigh-ins (docs/review.md). Ranges are 90 % ranges.
/// </summary>
public static class TrendReader
{
    /// <summary>
    /// The energy of a change in weight: a rough rule that overstates long-run loss. Wishnofsky 1958 (from memory).
    /// </summary>
    public const double KcalPerKg = 7700;

    internal const int RateDays = 28;

    /// <summary>Of a longer record the need is told from so many days at its end.</summary>
    public const int NeedDays = 182;

    private const int LeastDays = 21, LeastWeighIns = 8;
    private const double LeastIntake = 0.5, WidestNeed = 900;

    // How likely a need changes in a week, by how many kcal then; of the ways tried, those that count for less than this are left.
    private const double ChangeAWeek = 0.05, Change = 300, LeastWeight = 0.02;

    // What lies between eating and weighing, and what is not written down to the gram: 12 g a day, as a variance in kg.
    private const double FoodInside = 0.012 * 0.012;

    // Of a range some kg or some thousand kcal wide: far below what is rounded away.
    private const int Halvings = 26;

    // How much of yesterday's water is there today. Common practice, no published source.
    private const double WaterStays = 0.75;

    private static readonly double[] Scales = [0.15, 0.35, 0.7], Waters = [0.1, 0.35, 0.75];

    // kg a day, gained or lost by chance in a day; kcal likewise.
    private static readonly (double Size, double Prior)[] Slopes = [(0.001, 2), (0.003, 2), (0.01, 1)];
    private static readonly (double Size, double Prior)[] Needs = [(3, 1)];

    /// <summary>Reads it.</summary>
    /// <param name="weighIns">In any order; of several on a day the mean counts.</param>
    /// <param name="intake">Days may be missing.</param>
    public static BodyTrend Read(IReadOnlyList<WeighIn> weighIns, IReadOnlyList<DayIntake> intake)
    {
        ArgumentNullException.ThrowIfNull(weighIns);
        ArgumentNullException.ThrowIfNull(intake);
        var (kept, left) = Slips.Apart(weighIns);
        if (kept.Count == 0) return new([], null, null, "Nothing was weighed yet.", left, 0);
        var (first, last) = (kept[0].Day, kept[^1].Day);
        var days = last.DayNumber - first.DayNumber + 1;
        var seen = new double?[days];
        foreach (var day in kept.GroupBy(one => one.Day)) seen[day.Key.DayNumber - first.DayNumber] = (double)day.Average(one => one.Kg);
        var eaten = new double?[days];
        foreach (var day in intake.Where(one => one.Day >= first && one.Day < last).GroupBy(one => one.Day))
            eaten[day.Key.DayNumber - first.DayNumber] = (double)day.Sum(one => one.Kcal);
        var since = Math.Max(0, days - 1 - RateDays);

        var slopes = Weighed(Slopes, (scale, water, slope) => SlopeModel(seen, scale, water, slope), seen);
        var trend = Mixed(slopes, seen).Select((kg, i) => new TrendDay(first.AddDays(i), kg)).ToList();
        var rate = seen.Count(one => one is not null) < 2 ? null : RateOf(slopes, seen, since);

        // The need is that of now: of a long record the last half year is asked.
        var lately = Math.Max(0, days - NeedDays);
        (seen, eaten) = (seen[lately..], eaten[lately..]);
        var known = eaten.Count(one => one is not null);
        if (WhyNoNeed(seen, known) is { } why) return new(trend, rate, null, why, left, known);
        var need = NeedOf(seen, eaten);
        var width = need.High - need.Low;
        return width > (decimal)WidestNeed * 2
            ? new(trend, rate, null, $"So far it could be anything between {need.Low:0} and {need.High:0} kcal.", left, known)
            : new(trend, rate, need, null, left, known);
    }

    private static string? WhyNoNeed(double?[] seen, int known)
    {
        var (weighed, days) = (seen.Count(one => one is not null), seen.Length);
        if (weighed < LeastWeighIns) return $"It takes {LeastWeighIns} weigh-ins; there are {weighed}.";
        if (days < LeastDays) return $"It takes three weeks from the first weigh-in to the last; there are {days} days.";
        return known < LeastIntake * (days - 1)
            ? $"It takes what was eaten on half of the days; so far that is known of {known} of {days - 1}."
            : null;
    }

    private sealed record Tried(StateSpace Model, StateSpace.Run Run, double Weight);

    // Level, slope and water.
    private static StateSpace SlopeModel(double?[] seen, double scale, double water, double slope) => new(
        new double[,] { { 1, 1, 0 }, { 0, 1, 0 }, { 0, 0, WaterStays } },
        Diagonal(FoodInside, slope * slope, water * water * (1 - (WaterStays * WaterStays))),
        [1, 0, 1], scale * scale,
        [seen.First(one => one is not null)!.Value, 0, 0],
        Diagonal(9, 0.0009, water * water));

    // The same, and beside it the level as it was when the rate's weeks began.
    private static StateSpace WithLevelThen(StateSpace model) => new(
        Wider(model.Step, 1), Wider(model.StepNoise, 0), [.. model.Seen, 0], model.SeenNoise, [.. model.Start, model.Start[0]],
        Wider(model.StartNoise, model.StartNoise[0, 0]));

    private static double[,] Wider(double[,] matrix, double corner)
    {
        var size = matrix.GetLength(0);
        var result = new double[size + 1, size + 1];
        for (var i = 0; i < size; i++)
            for (var j = 0; j < size; j++)
                result[i, j] = matrix[i, j];
        result[size, size] = corner;
        return result;
    }

    // Each way tried, weighted by how well it foretold.
    private static List<Tried> Weighed(
        (double Size, double Prior)[] changes, Func<double, double, double, StateSpace> modelOf, double?[] seen,
        Func<int, double[]?>? pushes = null, Func<int, double[,]?>? extra = null)
    {
        var tried =
            from scale in Scales
            from water in Waters
            from change in changes
            let model = modelOf(scale, water, change.Size)
            let run = model.Filter(seen, pushes, extra)
            select (model, run, change.Prior);
        var all = tried.ToList();
        var best = all.Max(one => one.run.LogLikelihood);
        var weights = all.ConvertAll(one => one.Prior * Math.Exp(one.run.LogLikelihood - best));
        var sum = weights.Sum();
        return [.. all.Zip(weights, (one, weight) => new Tried(one.model, one.run, weight / sum)).Where(one => one.Weight > 0.005)];
    }

    private static IEnumerable<Ranged> Mixed(List<Tried> tried, double?[] seen)
    {
        var smoothed = tried.ConvertAll(one => one.Model.Smooth(one.Run));
        return seen.Select((_, day) =>
            Mix(tried.Select((one, i) => (one.Weight, smoothed[i][day].Mean[0], smoothed[i][day].Variance[0, 0])), 2));
    }

    private static Ranged RateOf(List<Tried> tried, double?[] seen, int since)
    {
        var weeks = (seen.Length - 1 - since) / 7.0;
        var now = tried.Select(one =>
        {
            var day = WithLevelThen(one.Model).Filter(seen, copied: since).Filtered[^1];
            var variance = day.Variance[0, 0] + day.Variance[3, 3] - (2 * day.Variance[0, 3]);
            return (one.Weight, (day.Mean[0] - day.Mean[3]) / weeks, Math.Max(0, variance) / (weeks * weeks));
        });
        return Mix(now, 2);
    }

    // The same with what was eaten: level, need and water. The need stays what it is but for a little, or changed once, in one of the
    // weeks. A day that nobody wrote down is like the others, give or take.
    private static Ranged NeedOf(double?[] seen, double?[] eaten)
    {
        var known = eaten.OfType<double>().ToList();
        var usual = known.Average();
        var apart = Math.Sqrt(known.Sum(one => (one - usual) * (one - usual)) / Math.Max(1, known.Count - 1));
        StateSpace Model(double scale, double water, double need) => new(
            new double[,] { { 1, -1 / KcalPerKg, 0 }, { 0, 1, 0 }, { 0, 0, WaterStays } },
            Diagonal(FoodInside, need * need, water * water * (1 - (WaterStays * WaterStays))),
            [1, 0, 1], scale * scale,
            [seen.First(one => one is not null)!.Value, usual, 0],
            Diagonal(9, 600 * 600, water * water));
        double[]? Push(int day) => [(eaten[day - 1] ?? usual) / KcalPerKg, 0, 0];
        double[,]? Extra(int day, int? changed)
        {
            var (missing, change) = (eaten[day - 1] is null, day == changed);
            return missing || change
                ? Diagonal(missing ? apart * apart / (KcalPerKg * KcalPerKg) : 0, change ? Change * Change : 0, 0)
                : null;
        }

        var steady = Weighed(Needs, Model, seen, Push, day => Extra(day, null));
        var best = steady.Max(one => one.Run.LogLikelihood);
        var all =
            from one in steady.Where(one => one.Weight > LeastWeight)
            from changed in Enumerable.Range(0, seen.Length / 7).Select(week => week == 0 ? (int?)null : week * 7)
            let run = changed is null ? one.Run : one.Model.Filter(seen, Push, day => Extra(day, changed))
            let prior = changed is null ? 1 : ChangeAWeek
            select (prior * Math.Exp(run.LogLikelihood - best), run.Filtered[^1].Mean[1], run.Filtered[^1].Variance[1, 1]);
        return Mix(all, 0);
    }

    // Of several answers, each a normal distribution with its weight: the mean, and between which two values nine tenths of them lie.
    private static Ranged Mix(IEnumerable<(double Weight, double Mean, double Variance)> answers, int places)
    {
        var all = answers.Select(one => (one.Weight, one.Mean, Deviation: Math.Sqrt(one.Variance))).ToArray();
        var sum = all.Sum(one => one.Weight);
        var mean = all.Sum(one => one.Weight * one.Mean) / sum;
        double Below(double value)
        {
            var below = 0.0;
            foreach (var one in all) below += one.Weight * Normal.Below((value - one.Mean) / one.Deviation);
            return below / sum;
        }

        var widest = 8 * all.Max(one => one.Deviation);
        double At(double share)
        {
            var (low, high) = (all.Min(one => one.Mean) - widest, all.Max(one => one.Mean) + widest);
            for (var step = 0; step < Halvings; step++)
            {
                var middle = (low + high) / 2;
                if (Below(middle) < share) low = middle;
                else high = middle;
            }

            return (low + high) / 2;
        }

        decimal Round(double value) => decimal.Round((decimal)value, places, MidpointRounding.AwayFromZero);
        return new(Round(mean), Round(At(0.05)), Round(At(0.95)));
    }

    private static double[,] Diagonal(params double[] values)
    {
        var result = new double[values.Length, values.Length];
        for (var i = 0; i < values.Length; i++) result[i, i] = values[i];
        return result;
    }
}

/// <summary>The normal distribution.</summary>
internal static class Normal
{
    /// <summary>
    /// The share that lies below a value, to 1.5e-7: Abramowitz and Stegun, Handbook of Mathematical Functions, 7.1.26 (from memory).
    /// </summary>
    public static double Below(double value)
    {
        var x = Math.Abs(value) / Math.Sqrt(2);
        var t = 1 / (1 + (0.3275911 * x));
        var rest = t * (0.254829592 + (t * (-0.284496736 + (t * (1.421413741 + (t * (-1.453152027 + (t * 1.061405429))))))));
        var above = 0.5 * rest * Math.Exp(-x * x);
        return value < 0 ? above : 1 - above;
    }
}
