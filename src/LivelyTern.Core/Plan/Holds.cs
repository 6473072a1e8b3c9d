using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>What the things of a day count, with what is kept free of it counted as if it lay there.</summary>
public static class Holds
{
    /// <summary>
    /// Every measure of each thing, in order. A hold counts what nothing in its slot has taken yet: of 30 g of fat for the evening, with
    /// 12 g of fat laid in the evening, 18 g.
    /// </summary>
    /// <param name="items">The things of a day.</param>
    /// <param name="measuresOf">What a thing that is no hold counts, by its place.</param>
    public static IReadOnlyList<IReadOnlyDictionary<Measure, Total>> Measured(
        IReadOnlyList<PlanItem> items, Func<int, IReadOnlyDictionary<Measure, Total>> measuresOf)
    {
        ArgumentNullException.ThrowIfNull(items);
        ArgumentNullException.ThrowIfNull(measuresOf);
        var counted = items.Select((item, i) => item.Hold is null ? measuresOf(i) : null).ToList();
        decimal TakenFrom(PlanItem hold) => items.Zip(counted)
            .Where(pair => pair.Second is not null && IsInSlot(pair.First, hold.Slot))
            .Sum(pair => pair.Second!.GetValueOrDefault(hold.Hold!.Measure, Total.None).Known);
        return [.. items.Select((item, i) => counted[i] ?? Counting(item.Hold!, item.Hold!.Amount - TakenFrom(item)))];
    }

    /// <summary>What is still open of a hold once so much more is laid in a slot.</summary>
    /// <param name="hold">The hold, on its day.</param>
    /// <param name="now">What it counts now.</param>
    /// <param name="slot">Where it is laid; null for no slot.</param>
    /// <param name="more">What is laid there.</param>
    internal static IReadOnlyDictionary<Measure, Total> After(
        PlanItem hold, IReadOnlyDictionary<Measure, Total> now, string? slot, IReadOnlyDictionary<Measure, Total> more)
    {
        if (hold.Hold is not { } kept || hold.Slot is null || !string.Equals(hold.Slot, slot, StringComparison.OrdinalIgnoreCase))
            return now;
        return Counting(kept, now[kept.Measure].Known - more.GetValueOrDefault(kept.Measure, Total.None).Known);
    }

    private static bool IsInSlot(PlanItem item, string? slot) =>
        slot is not null && string.Equals(item.Slot, slot, StringComparison.OrdinalIgnoreCase);

    private static Dictionary<Measure, Total> Counting(Hold hold, decimal open)
    {
        var counts = MeasureTotals.Of(Contents.Nothing, null).ToDictionary();
        counts[hold.Measure] = new Total(Math.Max(0, open));
        return counts;
    }
}
