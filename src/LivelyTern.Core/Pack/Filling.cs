using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>Box by box on the scale.</summary>
public static class Filling
{
    // How near to its target a box is done: a scale of whole grams is off by one either way, and a spoon of stew weighs more than that.
    private const decimal Mark = 2m, OfTarget = 0.01m;

    // Of a spoon of something 2 g either way are too much.
    private const decimal LeastMark = 1m, OfLittle = 0.05m;

    private const decimal LeastOfLast = 0.5m;

    /// <summary>
    /// How far below and above its target a box may be to be at the mark: 2 g, or 1 % where that is more; below 40 g a twentieth, and at
    /// least 1 g; above a budget by nothing. Common practice, no published source.
    /// </summary>
    public static (Grams Below, Grams Above) MarkOf(DividedPortion box)
    {
        var mark = MarkOf(box.Target);
        return (mark, box.IsMost ? Grams.Zero : mark);
    }

    /// <summary>The same for what is no budget, either way.</summary>
    public static Grams MarkOf(Grams target) =>
        new(Math.Max(Math.Clamp(target.Value * OfLittle, LeastMark, Mark), target.Value * OfTarget));

    /// <summary>
    /// What each box holds, or is to get now that others have got what they got. Targets stay as they were, and the last box takes what the
    /// others leave: more than its target only where the batch was to be used up and it has no budget to keep. Where it would come to less
    /// than half of its target, all that are open get less in proportion.
    /// </summary>
    /// <param name="asked">What each was to get.</param>
    /// <param name="over">What no box was to get.</param>
    /// <param name="isBudget">Which are held to a budget.</param>
    /// <param name="got">What each has got; null where it is still to be filled.</param>
    /// <param name="here">What there is for all of them.</param>
    public static IReadOnlyList<decimal> Now(
        IReadOnlyList<decimal> asked, decimal over, IReadOnlyList<bool> isBudget, IReadOnlyList<decimal?> got, decimal here)
    {
        ArgumentNullException.ThrowIfNull(asked);
        ArgumentNullException.ThrowIfNull(isBudget);
        ArgumentNullException.ThrowIfNull(got);
        var now = asked.Select((one, i) => got[i] ?? one).ToArray();
        var open = Enumerable.Range(0, got.Count).Where(i => got[i] is null).ToList();
        if (open.Count == 0 || open.Count == got.Count) return now;
        var left = Math.Max(0, here - got.Sum(one => one ?? 0));
        var wanted = open.Sum(i => asked[i]);
        var last = open.Where(i => !isBudget[i]).DefaultIfEmpty(open[^1]).Last();
        var more = left - wanted;
        if (more > 0 && (over >= 1 || isBudget[last])) more = 0;
        if (asked[last] + more >= asked[last] * LeastOfLast) now[last] = asked[last] + more;
        else
        {
            var less = Divide.WholeGrams([.. open.Select(i => asked[i] * left / wanted)]);
            for (var at = 0; at < open.Count; at++) now[open[at]] = less[at].Value;
        }

        return now;
    }
}
