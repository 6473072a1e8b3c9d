using LivelyTern.Core.Measures;
using LivelyTern.Data.Cook;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>A batch still to be cooked gets another day or amount, or is put away; never under portions that lie on days.</summary>
public sealed class ReplanBatch(TernDb db, BatchStore batches)
{
    /// <summary>Another day or another amount; not a day after one on which a portion of it lies.</summary>
    public Task<Outcome<BatchRow>> DoAsync(Guid id, int version, DateOnly day, DateOnly today, int portions) => db.InTurnAsync(async () =>
    {
        var early = await db.PlanItems.CountAsync(item => item.BatchId == id && item.Day < day);
        var replanned = await batches.ReplanAsync(id, version, day, today, portions);
        if (!replanned.Succeeded || early == 0) return replanned;
        var (lie, them) = early == 1 ? ("lies", "it") : ("lie", "them");
        return new Problem("portions-before", "day", $"{early} of its portions {lie} on a day before that: move {them} first.");
    });

    /// <summary>Puts a batch away that was planned or started, is not packed, and of which no portion lies on a day.</summary>
    public Task<Outcome<BatchRow>> DiscardAsync(Guid id, int version) => db.InTurnAsync(async () =>
    {
        var laid = await db.PlanItems.CountAsync(item => item.BatchId == id);
        var discarded = await batches.DiscardAsync(id, version);
        if (!discarded.Succeeded || laid == 0) return discarded;
        return new Problem(
            "portions-laid", "", $"{laid} of its portions {(laid == 1 ? "lies" : "lie")} on the plan: take them off their days first.");
    });
}
