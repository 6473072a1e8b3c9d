using LivelyTern.Core.Aim;

namespace LivelyTern.Core.Plan;

/// <summary>Items and the slots of a day.</summary>
public static class DaySlots
{
    /// <summary>Whether an item stands where a box would: a box, a meal out, something kept free for later.</summary>
    public static bool TakesTheBox(PlanItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        return (item.IsOfBatch && !item.IsForGuests) || item.IsMealOut || item is { Hold: not null, Slot: not null };
    }

    /// <summary>The items in the order of their slots, those without one last, else as they lay.</summary>
    public static IEnumerable<PlanItem> Order(IReadOnlyList<PlanItem> items, IReadOnlyList<Slot> slots)
    {
        ArgumentNullException.ThrowIfNull(items);
        ArgumentNullException.ThrowIfNull(slots);
        return items.OrderBy(item => IndexOf(item.Slot, slots));
    }

    /// <summary>
    /// Puts new items into slots so that what each slot holds comes closest to its share of the day: largest first, a box only where a
    /// box is eaten and, while there is such a slot, none has one yet.
    /// </summary>
    /// <param name="stays">What lies on the day already.</param>
    /// <param name="laid">What is new, without a slot.</param>
    /// <param name="slots">The eater's slots.</param>
    /// <param name="energy">Kcal of an item.</param>
    public static IEnumerable<PlanItem> Place(
        IReadOnlyList<PlanItem> stays, IReadOnlyList<PlanItem> laid, IReadOnlyList<Slot> slots, Func<PlanItem, decimal> energy)
    {
        ArgumentNullException.ThrowIfNull(stays);
        ArgumentNullException.ThrowIfNull(laid);
        ArgumentNullException.ThrowIfNull(slots);
        ArgumentNullException.ThrowIfNull(energy);
        if (slots.Count == 0) return laid;
        var day = stays.Concat(laid).Sum(energy);
        var wanted = slots.Select(slot => day * (slot.Share ?? (1m / slots.Count))).ToArray();
        var boxes = new int[slots.Count];
        foreach (var item in stays.Concat(laid).Where(item => IndexOf(item.Slot, slots) < slots.Count))
        {
            wanted[IndexOf(item.Slot, slots)] -= energy(item);
            if (TakesTheBox(item)) boxes[IndexOf(item.Slot, slots)]++;
        }

        var placed = new Dictionary<Guid, PlanItem>();
        var open = laid.Where(item => IndexOf(item.Slot, slots) == slots.Count);
        foreach (var item in open.OrderByDescending(item => item.IsOfBatch).ThenByDescending(energy))
        {
            var free = Enumerable.Range(0, slots.Count).Where(i => !item.IsOfBatch || slots[i].TakesBox).ToList();
            if (free.Count == 0) free = [.. Enumerable.Range(0, slots.Count)];
            var fewest = !item.IsOfBatch ? 0 : free.Min(i => boxes[i]);
            var best = free.Where(i => !item.IsOfBatch || boxes[i] == fewest).OrderByDescending(i => wanted[i]).ThenBy(i => i).First();
            wanted[best] -= energy(item);
            if (item.IsOfBatch) boxes[best]++;
            placed[item.Id] = item with { Slot = slots[best].Name };
        }

        return laid.Select(item => placed.GetValueOrDefault(item.Id, item));
    }

    private static int IndexOf(string? slot, IReadOnlyList<Slot> slots)
    {
        for (var i = 0; i < slots.Count; i++)
        {
            if (string.Equals(slots[i].Name, slot, StringComparison.OrdinalIgnoreCase)) return i;
        }

        return slots.Count;
    }
}
