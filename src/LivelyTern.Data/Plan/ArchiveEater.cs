using LivelyTern.Core.Measures;
using LivelyTern.Data.Aim;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>An eater leaves the table; not while boxes or portions are still planned for them.</summary>
public sealed class ArchiveEater(TernDb db, EaterStore eaters)
{
    /// <summary>Takes an eater off the table at the version they were read at.</summary>
    public Task<Outcome<EaterRow>> DoAsync(Guid id, int version) => db.InTurnAsync(async () =>
    {
        var planned = await db.PlanItems
            .CountAsync(item => item.EaterId == id && (item.BoxId != null || item.BatchId != null) && item.EatenAt == null);
        var archived = await eaters.ArchiveAsync(id, version, archived: true);
        if (!archived.Succeeded || planned == 0) return archived;
        var boxes = planned == 1 ? "box" : "boxes";
        return new Problem("eater-has-boxes", "", $"{archived.Value!.Name} still has {planned} {boxes} on the plan: take them off first.");
    });
}
