using LivelyTern.Core.Measures;
using LivelyTern.Data.Cook;

namespace LivelyTern.Data.Plan;

/// <summary>
/// A batch is weighed, to be packed later. Its portions that lie on days become the share of it that they were planned to be: 250 g of an
/// expected 1,000 g, from 900 g on the scale, are 225 g, and hold what was planned.
/// </summary>
public sealed class WeighBatch(TernDb db, BatchStore batches, BatchReader reader, DishParts dishes, PortionsOnDays portions)
{
    /// <summary>Weighs a batch that was read at a version; weighing again replaces what the scale said before.</summary>
    /// <param name="id">The batch.</param>
    /// <param name="version">The version it was read at.</param>
    /// <param name="pan">The empty pan.</param>
    /// <param name="full">The full pan.</param>
    public Task<Outcome<BatchRow>> DoAsync(Guid id, int version, Grams pan, Grams full) => db.InTurnAsync(async () =>
    {
        var read = await batches.AtAsync(id, version);
        if (!read.Succeeded) return read;
        var row = read.Value!;
        var own = (await reader.ReadAsync(row)).Weight;
        var together = await dishes.DishesOfAsync(id);
        var before = await WeightsAsync(together);
        var cooked = await batches.WeighAsync(row, pan, full);
        if (!cooked.Succeeded) return cooked.Problems.ToList();
        await FollowAsync(id, own, cooked.Value);
        var saved = await db.SaveAsync(row, row);
        if (saved.Succeeded) await DishesFollowAsync(together, before);
        return saved;
    });

    /// <summary>What dishes weigh, measured or else expected; within a larger command.</summary>
    internal async Task<IReadOnlyDictionary<Guid, Grams?>> WeightsAsync(IReadOnlyList<BatchRow> of) =>
        (await reader.ByIdAsync(of.Select(dish => dish.Id))).ToDictionary(dish => dish.Key, dish => dish.Value.Weight);

    /// <summary>A part of these dishes was weighed: the portions of them that lie on days stay the same share.</summary>
    internal async Task DishesFollowAsync(IReadOnlyList<BatchRow> of, IReadOnlyDictionary<Guid, Grams?> before)
    {
        foreach (var (dish, after) in await WeightsAsync(of)) await FollowAsync(dish, before[dish], after);
        await db.SaveChangesAsync();
    }

    // The portions of a batch that lie on days stay the same share of it.
    private async Task FollowAsync(Guid batchId, Grams? before, Grams? after)
    {
        if (before is not { } was || after is not { } now || was == now) return;
        var planned = await portions.OfAsync(batchId);
        var factor = now / was;
        foreach (var item in planned) item.Milligrams = Milligrams.Of(Milligrams.ToGrams(item.Milligrams ?? 0) * factor);
        await db.NextVersionAsync(PortionsOnDays.DaysOf(planned));
    }
}
