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
        PlanBoard now, IReadOnlyDictionary<EaterDay, ImmutableList<PlanItem>> draft, IReadOnlyList<EaterDay> taken,
        IReadOnlyList<Box> shelf, IReadOnlyDictionary<Guid, Box> boxes)
    {
        ArgumentNullException.ThrowIfNull(now);
        ArgumentNullException.ThrowIfNull(draft);
        ArgumentNullException.ThrowIfNull(taken);
        IEnumerable<Guid> BoxesOn(IEnumerable<IEnumerable<PlanItem>> those) =>
            those.SelectMany(items => items).Select(item => item.BoxId).OfType<Guid>();
        var elsewhere = BoxesOn(now.Days.Where(day => !taken.Contains(day.Key)).Select(day => day.Value)).ToHashSet();
        var wanted = BoxesOn(taken.Select(day => draft[day])).ToHashSet();

        // Free is what lies on the shelf, and what the taken days give back.
        var back = BoxesOn(taken.Select(day => now[day])).Where(boxes.ContainsKey).Select(id => boxes[id]);
        var free = shelf.Where(box => !box.IsPart).Concat(back).Where(box => !wanted.Contains(box.Id)).DistinctBy(box => box.Id).ToList();
        bool IsEqual(Box one, Box other) => one.Batch.Id == other.Batch.Id && Math.Abs(one.Weight.Value - other.Weight.Value) <= 5;
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

                var equal = free.Find(box => IsEqual(box, boxes[id]));
                if (equal is null) continue;
                free.Remove(equal);
                items.Add(item with { What = new LaidBox(equal.Id) });
            }

            return items.ToImmutable();
        });
    }
}
