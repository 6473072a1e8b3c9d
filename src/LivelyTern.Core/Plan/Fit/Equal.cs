using System.Collections.Immutable;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan.Fit;

/// <summary>Equal boxes in each other's place: two boxes of one batch that weigh within 5 g.</summary>
public static class Equal
{
    /// <summary>Days of a draft as they can be taken without touching any other day.</summary>
    /// <param name="now">The plan as it is.</param>
    /// <param name="draft">The days of the draft.</param>
    /// <param name="taken">Those to be taken.</param>
    /// <param name="shelf">The boxes on no day.</param>
    /// <param name="boxes">The boxes of the draft.</param>
    public static IReadOnlyDictionary<EaterDay, ImmutableList<PlanItem>> Boxes(
        PlanBoard now, IReadOnlyDictionary<EaterDay, ImmutableList<PlanItem>> draft, IReadOnlyList<EaterDay> taken, IReadOnlyList<Box> shelf, IReadOnlyDictionary<Guid, Box> boxes)
    {
        ArgumentNullException.ThrowIfNull(now);
        ArgumentNullException.ThrowIfNull(draft);
        ArgumentNullException.ThrowIfNull(taken);
        var elsewhere = now.Days.Where(day => !taken.Contains(day.Key)).SelectMany(day => day.Value).Select(item => item.BoxId)
            .OfType<Guid>().ToHashSet();
        var wanted = taken.SelectMany(day => draft[day]).Select(item => item.BoxId).OfType<Guid>().ToHashSet();

        // Free is what lies on the shelf, and what the taken days give back.
        var free = shelf.Concat(taken.SelectMany(day => now[day]).Select(item => item.BoxId).OfType<Guid>().Where(boxes.ContainsKey).Select(id => boxes[id])).Where(box => !wanted.Contains(box.Id)).DistinctBy(box => box.Id).ToList();
        return taken.ToDictionary(day => day, day =>
        {
            var items = ImmutableList.CreateBuilder<PlanItem>();
            foreach (var item in draft[day])
            {
                if (item.BoxId is not { } id || !elsewhere.Contains(id))
                {
                    items.Add(item);
                    continue;
                }

                var equal = free.Find(box => box.Batch.Id == boxes[id].Batch.Id && Math.Abs(box.Weight.Value - boxes[id].Weight.Value) <= 5);
                if (equal is null) continue;
                free.Remove(equal);
                items.Add(item with { BoxId = equal.Id });
            }

            return items.ToImmutable();
        });
    }
}
