using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Recipes;

/// <summary>One way to cut a batch.</summary>
/// <param name="Portions">Into how many.</param>
/// <param name="Grams">What a portion weighs.</param>
/// <param name="Figures">Every measure of a portion; points rounded once.</param>
/// <param name="ExactPoints">Points before rounding; null without a rule.</param>
/// <param name="IsStep">Whether a portion has fewer points than when cut into one fewer.</param>
/// <param name="ToNextStep">The grams by which a portion would have to be smaller to lose a point; null where it has none to lose.</param>
public sealed record Cut(
    int Portions, Grams Grams, IReadOnlyDictionary<Measure, Total> Figures, Total? ExactPoints, bool IsStep, Grams? ToNextStep);

/// <summary>The largest portion that is still at most so much.</summary>
/// <param name="Grams">Its weight, in whole grams.</param>
/// <param name="Portions">The fewest equal portions that are each still at most so much.</param>
/// <param name="Figures">Every measure of that largest portion.</param>
public sealed record LargestPortion(Grams Grams, int Portions, IReadOnlyDictionary<Measure, Total> Figures);

/// <summary>The same pan cut in 9, 12, 15 or 16: what each portion weighs and holds, and where its points step.</summary>
public static class CutChart
{
    /// <summary>The fewest and the most portions of the chart.</summary>
    public const int Fewest = 2, Most = 36;

    /// <summary>All cuts from <see cref="Fewest"/> to <see cref="Most"/>.</summary>
    /// <param name="batch">What the batch holds.</param>
    /// <param name="weight">What it weighs, finished.</param>
    /// <param name="rule">The points rule; null where points are not counted.</param>
    public static IReadOnlyList<Cut> Of(Contents batch, Grams weight, PointsRule? rule)
    {
        ArgumentNullException.ThrowIfNull(batch);
        var (totals, exact) = (MeasureTotals.Of(batch, null), rule?.Exact(batch));
        return [.. Enumerable.Range(Fewest, Most - Fewest + 1).Select(n => Into(n, totals, exact, weight, rule?.Step ?? 0))];
    }

    private static Cut Into(int n, IReadOnlyDictionary<Measure, Total> totals, Total? exact, Grams weight, decimal step)
    {
        var (grams, figures) = (new Grams(weight.Value / n), FiguresOf(totals, exact, step, 1m / n));
        if (exact is not { } points) return new(n, grams, figures, null, false, null);
        var isLess = figures[Measure.Points].Known < Rounding.ToStep(points.Known / (n - 1), step);
        return new(n, grams, figures, points * (1m / n), isLess, ToNextStep(points.Known, step, weight, n));
    }

    /// <summary>
    /// The largest portion still at most <paramref name="most"/> in a measure, solved backwards and in whole grams. Points are held
    /// against their rounding: at a step of 1, "at most 4 points" is anything below an exact 4.5.
    /// </summary>
    public static Outcome<LargestPortion> LargestAtMost(Contents batch, Grams weight, PointsRule? rule, Measure measure, decimal most)
    {
        ArgumentNullException.ThrowIfNull(batch);
        var (totals, exact, step) = (MeasureTotals.Of(batch, null), rule?.Exact(batch), rule?.Step ?? 0);
        if (measure == Measure.Points && exact is null) return new Problem("most-points", "measure", "Points need a rule.");
        if (weight.Value <= 0) return new Problem("weight-nothing", "lines", "Nothing with a weight is in it yet.");
        if (most <= 0) return new Problem("most-none", "most", "Type a number above zero.");
        var whole = measure == Measure.Points ? exact!.Value.Known : totals[measure].Known;
        bool Fits(decimal share) => measure == Measure.Points ? Rounding.ToStep(whole * share, step) <= most : whole * share <= most;

        // The share where it would just be too much, then down to the whole gram that fits.
        var limit = measure == Measure.Points && step > 0 ? (Math.Floor(most / step) * step) + (step / 2) : most;
        var grams = Math.Floor(Math.Min(weight.Value, whole <= 0 ? weight.Value : weight.Value * limit / whole));
        while (grams > 0 && !Fits(grams / weight.Value)) grams--;
        if (grams <= 0) return new Problem("most-small", "most", "Not even one gram of it is that little.");
        var portions = 1;
        if (!Fits(1)) portions = Math.Max(1, (int)Math.Min(100_000m, Math.Ceiling(weight.Value / (grams + 1))));
        while (!Fits(1m / portions)) portions++;
        return new LargestPortion(new(grams), portions, FiguresOf(totals, exact, step, grams / weight.Value));
    }

    private static Dictionary<Measure, Total> FiguresOf(
        IReadOnlyDictionary<Measure, Total> totals, Total? exact, decimal step, decimal share)
    {
        var figures = totals.ToDictionary(total => total.Key, total => total.Value * share);
        if (exact is { } points) figures[Measure.Points] = points with { Known = Rounding.ToStep(points.Known * share, step) };
        return figures;
    }

    // A portion of 3.7 (so 4) points loses one below an exact 3.5: that much of its weight is to go, and a hair more.
    private static Grams? ToNextStep(decimal exact, decimal step, Grams weight, int portions)
    {
        if (step <= 0 || exact <= 0 || weight.Value <= 0) return null;
        var rounded = Rounding.ToStep(exact / portions, step);
        if (rounded <= 0) return null;
        var share = (rounded - (step / 2)) / exact;
        return new Grams(Math.Floor(((1m / portions) - share) * weight.Value) + 1);
    }
}
