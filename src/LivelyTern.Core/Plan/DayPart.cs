using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>A part of a day in which something lies.</summary>
/// <param name="Slot">The part.</param>
/// <param name="Sums">What lies in it, every measure.</param>
/// <param name="Share">What it should hold of the leading measure by its share of the day, in kcal, grams or points; null without a share
/// or a goal.</param>
public sealed record DayPart(Slot Slot, IReadOnlyDictionary<Measure, Total> Sums, decimal? Share)
{
    /// <summary>What it lacks of its share; below zero where it holds more, null where it has none.</summary>
    public decimal? Lack(Measure leading) => Share - Sums[leading].Known;

    /// <summary>The parts of a day in which something lies, in the order of the day.</summary>
    /// <param name="day">The day, read.</param>
    /// <param name="slotOf">The slot of each of its entries, by name; null for none.</param>
    /// <param name="slots">The eater's slots.</param>
    /// <param name="aim">The aim of the day.</param>
    public static IReadOnlyList<DayPart> Of(DayReading day, IReadOnlyList<string?> slotOf, IReadOnlyList<Slot> slots, DayAim aim)
    {
        ArgumentNullException.ThrowIfNull(slots);
        return [.. slots.Select(slot => Of(day, slotOf, slot, aim)).OfType<DayPart>()];
    }

    private static DayPart? Of(DayReading day, IReadOnlyList<string?> slotOf, Slot slot, DayAim aim)
    {
        var here = day.Entries.Where((_, i) => string.Equals(slotOf[i], slot.Name, StringComparison.OrdinalIgnoreCase)).ToList();
        return here.Count == 0 ? null : new(slot, MeasureTotals.Sum(here, aim.Rule), slot.Share * aim[aim.Leading].Goal);
    }
}
