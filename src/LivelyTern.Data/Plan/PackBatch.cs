using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Pack;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>A batch is weighed and goes into boxes; the portions of it that lie on days become those very boxes.</summary>
public sealed class PackBatch(
    TernDb db, BatchStore batches, BatchReader reader, BoxStore boxes, ContainerStore containers, EyeStore eyes, PortionsOnDays portions,
    PackTogether together,
    DishParts dishes, WeighBatch weighing, DivideBatch divide, DividePartByPart partByPart, TimeProvider clock)
{
    /// <summary>
    /// Weighs and packs a batch that was read at a version. A dish that is put together weighs what its parts do: the scale is not asked.
    /// </summary>
    /// <param name="id">The batch.</param>
    /// <param name="version">The version it was read at.</param>
    /// <param name="order">What was weighed, and into which boxes it goes.</param>
    public Task<Outcome<BatchRow>> DoAsync(Guid id, int version, PackOrder order) => db.InTurnAsync(async () =>
    {
        var read = await batches.AtAsync(id, version);
        if (!read.Succeeded) return read;
        var row = read.Value!;
        if (!row.IsPutTogether && BatchStore.NotInItsPan(row) is { } wrong) return wrong;
        var planned = await portions.OfAsync(id);
        var batch = await reader.ReadAsync(row);
        if (order.ContainerId is { } into && await containers.FindAsync(into) is null) return Stale.Gone("container");
        if (await NeverAsync(batch, planned, order.Each) is { } never) return never;
        var today = clock.Today();
        var madeOfIt = await dishes.DishesOfAsync(id);
        var before = await weighing.WeightsAsync(madeOfIt);
        var summed = order.Summed();
        if (!summed.Succeeded) return summed.Problems.ToList();
        var cooked = row.IsPutTogether
            ? PackTogether.WeightOf(row, batch)
            : await batches.WeighAsync(row, summed.Value!.Pan, summed.Value.Full);
        if (!cooked.Succeeded) return cooked.Problems.ToList();
        var ordered = await divide.DoAsync(batch, cooked.Value, order, planned);
        if (ordered.Succeeded && order.Parts is not null) ordered = await partByPart.DoAsync(row, batch, ordered.Value!, order.Parts);
        if (!ordered.Succeeded) return ordered.Problems.ToList();
        if (ordered.Value!.Parts?.Heavier is { } heavier) return heavier;
        if (row.IsPutTogether) await together.TakeAsync(row, ordered.Value.Parts?.Dish ?? batch, today, ordered.Value.Parts?.Lines);
        var (divided, wanted) = (ordered.Value!.Divided, ordered.Value.Boxes);
        if (divided.Missing > Grams.Zero) return Heavier(divided, order);

        BatchStore.Packed(row, order.Pieces, ordered.Value.VolumeMl);
        var filled = boxes.Fill(row, divided.Portions, [.. wanted.Select(box => (box.EaterId, box.Place))], today);
        var eye = order.IsByEye ? (await eyes.ForDishAsync(order.CookId)).Next : (decimal?)null;
        foreach (var box in filled) (box.ContainerId, box.EyeSpread) = (order.ContainerId, eye);
        if (ordered.Value.Parts is { } parts) await boxes.PutInAsync(filled, parts.InBoxes);
        foreach (var (box, of) in filled.Zip(wanted))
            if (of.Item is { } item) (item.BoxId, item.BatchId, item.Milligrams) = (box.Id, null, null);
        await db.NextVersionAsync(PortionsOnDays.DaysOf(planned));
        var saved = await db.SaveAsync(row, row);
        if (saved.Succeeded) await weighing.DishesFollowAsync(madeOfIt, before);
        if (saved.Succeeded && row.IsPutTogether) await together.EmptiedPansAsync(row);
        return saved;
    });

    /// <summary>Undoes the packing of a batch whose boxes are all there: those that lie on days become portions again.</summary>
    public Task<Outcome<BatchRow>> EmptyBackAsync(Guid id, int version) => db.InTurnAsync(async () =>
    {
        var read = await batches.AtAsync(id, version);
        if (!read.Succeeded) return read;
        var row = read.Value!;
        var filled = await boxes.OfBatchAsync(id);
        if (filled.Count == 0) return new Problem("batch-not-packed", "", "This batch is not in boxes.");
        if (Gone(filled) is { } gone) return gone;
        var weights = (await boxes.ReadAsync(filled)).ToDictionary(box => box.Id, box => box.Main.Weight);
        var laid = await portions.LaidAsync([.. weights.Keys]);
        foreach (var item in laid.SelectMany(own => own))
            (item.BatchId, item.Milligrams, item.BoxId) = (id, item.Milligrams ?? Milligrams.Of(weights[item.BoxId!.Value]), null);
        foreach (var box in filled) boxes.Happened(box, BoxEventKind.EmptiedBack, box.Life with { State = BoxState.EmptiedBack });
        if (row.IsPutTogether) await together.ApartAsync(row);
        else BatchStore.EmptiedBack(row);
        await db.NextVersionAsync(PortionsOnDays.DaysOf(laid.SelectMany(own => own)));
        var saved = await db.SaveAsync(row, row);
        return saved.Succeeded && row.IsPutTogether && await dishes.FollowAsync(row) is { } wrong ? wrong : saved;
    });

    // What is eaten or gone can't go back into the pan.
    private static Problem? Gone(List<BoxRow> filled)
    {
        var eaten = filled.Count(box => box.State is BoxState.Eaten or BoxState.PartEaten);
        var gone = filled.Count(box => box.State is BoxState.GivenAway or BoxState.ThrownAway);
        if (eaten > 0)
        {
            var have = eaten == 1 ? "has" : "have";
            return new("boxes-eaten", "", $"{eaten} of its boxes {have} been eaten: what is in the others stays in them.");
        }

        if (gone > 0)
            return new(
                "boxes-gone", "",
                $"{gone} of its boxes {(gone == 1 ? "was" : "were")} given or thrown away: what is in the others stays in them.");
        return filled.Exists(box => box.Parts.Count > 1)
            ? new("boxes-composed", "", "Some of its boxes hold something else besides: they stay as they are.")
            : null;
    }

    // What the scale said of the boxes is more than it said of the pan.
    private static Problem Heavier(DividedBatch divided, PackOrder order)
    {
        var held = divided.Portions.Sum(portion => portion.OnScale.Value);
        var (of, field) = order.Component is null ? ("the batch", "fullGrams") : ("that component", "componentGrams");
        var sentence = $"The boxes hold {held:0.#} g, {divided.Missing.Value:0.#} g more than {of} weighs: weigh one again, "
            + "or take what the boxes hold as its weight.";
        return new("boxes-heavier", field, sentence);
    }

    // A portion becomes a box for its eater, and a box is somebody's: not where they must never get it.
    private async Task<Problem?> NeverAsync(Batch batch, IReadOnlyList<PlanItemRow> planned, IReadOnlyList<OrderedBox> ordered)
    {
        var onDays = planned.Where(item => !item.IsForGuests).Select(item => item.EaterId).ToHashSet();
        var ids = onDays.Concat(ordered.Where(box => box.ItemId is null).Select(box => box.EaterId).OfType<Guid>()).Distinct().ToList();
        foreach (var eater in await db.Eaters.AsNoTracking().Where(row => ids.Contains(row.Id)).ToListAsync())
        {
            if (eater.Ways.WhyNever(batch.Contents) is not { } never) continue;
            var mend = onDays.Contains(eater.Id) ? $"Take it off {eater.Name}'s days first, then pack." : "Give that box to somebody else.";
            var sentence = $"{eater.Name} must never get this: it holds {never.InWords}. {mend}";
            return new Problem("never-for", "", sentence);
        }

        return null;
    }
}
