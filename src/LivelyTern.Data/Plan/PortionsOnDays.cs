using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Cook;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>What of a batch lies on days: portions while it is not packed, boxes then.</summary>
public sealed class PortionsOnDays(TernDb db) : ILaidPortions
{
    /// <inheritdoc/>
    public async Task<Grams> LaidAsync(Guid batchId) =>
        Milligrams.ToGrams(await db.PlanItems.Where(item => item.BatchId == batchId).SumAsync(item => item.Milligrams ?? 0));

    /// <summary>The portions of a batch, in the order in which they become boxes: eater by eater, day by day.</summary>
    public async Task<IReadOnlyList<PlanItemRow>> OfAsync(Guid batchId) =>
        await db.PlanItems.Where(item => item.BatchId == batchId).OrderBy(item => item.EaterId).ThenBy(item => item.Day)
            .ThenBy(item => item.Position).ToListAsync();

    /// <summary>What portions weigh.</summary>
    public static IReadOnlyList<Grams> Weights(IEnumerable<PlanItemRow> portions) =>
        [.. portions.Select(item => Milligrams.ToGrams(item.Milligrams ?? 0))];

    /// <summary>Those of these boxes that lie on days, by box: one that lies in parts on several.</summary>
    public async Task<ILookup<Guid, PlanItemRow>> LaidAsync(IReadOnlyCollection<Guid> boxIds) =>
        (await db.PlanItems.Where(item => item.BoxId != null && boxIds.Contains(item.BoxId.Value)).OrderBy(item => item.Day).ToListAsync())
            .ToLookup(item => item.BoxId!.Value);

    /// <summary>The days on which these lie.</summary>
    public static IEnumerable<EaterDay> DaysOf(IEnumerable<PlanItemRow> items) =>
        items.Select(item => new EaterDay(item.EaterId, item.Day));
}
