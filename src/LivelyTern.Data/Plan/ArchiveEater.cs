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
        var archived = await eaters.ArchiveAsync(id, version, archived: true);
        if (!archived.Succeeded || await StillPlannedAsync(db, archived.Value!) is not { } planned) return archived;
        return planned;
    });

    /// <summary>What keeps an eater at the table: boxes or portions that lie ahead of them; null where there are none.</summary>
    internal static async Task<Problem?> StillPlannedAsync(TernDb db, EaterRow eater)
    {
        var planned = await db.PlanItems.CountAsync(
            item => item.EaterId == eater.Id && (item.BoxId != null || item.BatchId != null) && item.EatenAt == null);
        var boxes = planned == 1 ? "box" : "boxes";
        return planned == 0
            ? null
            : new("eater-has-boxes", "", $"{eater.Name} still has {planned} {boxes} on the plan: take them off first.");
    }
}
