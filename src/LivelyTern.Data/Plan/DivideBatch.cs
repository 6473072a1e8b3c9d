using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;

namespace LivelyTern.Data.Plan;

/// <summary>What becomes of a batch that is packed so.</summary>
/// <param name="Divided">What goes into each box.</param>
/// <param name="Boxes">The boxes, in the same order.</param>
/// <param name="VolumeMl">What the batch fills, in millilitres; null where nobody knows.</param>
public sealed record DividedOrder(DividedBatch Divided, IReadOnlyList<DividedBox> Boxes, decimal? VolumeMl)
{
    /// <summary>Its parts over the boxes, where they are put in one after another; null where it is packed as a whole.</summary>
    public DividedParts? Parts { get; init; }

    /// <summary>What is in a box of it.</summary>
    /// <param name="batch">The batch, as it is then.</param>
    /// <param name="at">Which box, from 0.</param>
    public BatchShare ShareOf(Batch batch, int at) =>
        new(batch, Divided.Portions[at].Weight, Divided.Portions[at].Pieces) { PutIn = Parts?.InBoxes[at] ?? [] };
}

/// <summary>A box of it.</summary>
/// <param name="Item">The portion on a day that becomes it; null for a box of no day.</param>
/// <param name="EaterId">Whose it is; null for whoever wants it.</param>
/// <param name="Place">Where it goes.</param>
public sealed record DividedBox(PlanItemRow? Item, Guid? EaterId, BoxPlace Place);

/// <summary>Divides a weighed batch as it is ordered, with what of it lies on days and in dishes. Nothing is stored.</summary>
public sealed class DivideBatch(BatchReader reader, PortionsOnDays portions, EaterStore eaters, DividePartByPart partByPart)
{
    /// <summary>A batch as it would be when it is packed as it is ordered, and what goes into its boxes.</summary>
    public async Task<Outcome<(Batch Batch, DividedOrder Ordered)>> AheadAsync(BatchRow row, PackOrder order)
    {
        ArgumentNullException.ThrowIfNull(row);
        var known = await reader.ReadAsync(row);
        var cooked = CookedOf(known, order);
        if (!cooked.Succeeded) return cooked.Problems.ToList();
        var ordered = await DoAsync(known, cooked.Value, order, await portions.OfAsync(row.Id));
        if (ordered.Succeeded && order.Parts is not null) ordered = await partByPart.DoAsync(row, known, ordered.Value!, order.Parts);
        if (!ordered.Succeeded) return ordered.Problems.ToList();
        if (ordered.Value!.Parts is { } parts) return (parts.Dish, ordered.Value);
        return (known with { Cooked = cooked.Value, VolumeMl = ordered.Value!.VolumeMl }, ordered.Value);
    }

    /// <summary>What it weighs as it is ordered: the full pan less the empty one; of a put-together dish what its parts do.</summary>
    public static Outcome<Grams> CookedOf(Batch batch, PackOrder order)
    {
        ArgumentNullException.ThrowIfNull(batch);
        ArgumentNullException.ThrowIfNull(order);
        if (batch.Parts.Count > 0 && batch.Weight is { } together) return together;
        var summed = order.Summed();
        return summed.Succeeded ? CookedWeight.Of(summed.Value!.Full, summed.Value.Pan) : summed.Problems.ToList();
    }

    /// <summary>Divides it.</summary>
    /// <param name="batch">The batch, as it was planned by.</param>
    /// <param name="cooked">What it weighs.</param>
    /// <param name="order">The order.</param>
    /// <param name="planned">Its portions on days, in the order in which they become boxes.</param>
    public async Task<Outcome<DividedOrder>> DoAsync(Batch batch, Grams cooked, PackOrder order, IReadOnlyList<PlanItemRow> planned)
    {
        ArgumentNullException.ThrowIfNull(batch);
        ArgumentNullException.ThrowIfNull(order);
        var inDishes = await reader.TakenByDishesAsync(batch.Id, cooked);
        if (order.TakesSum && order.Component is null && inDishes > Grams.Zero)
            return new Problem("sum-with-dishes", "fullGrams", "Some of it goes into put-together dishes: weigh the whole pan instead.");
        var volume = order.CupWeight is { Value: > 0 } cup ? Unit.Cup.InBase * (cooked / cup) : batch.VolumeMl;
        if (order.Each.Count > 0) return await EachAsync(batch, cooked, order, planned, inDishes, volume);
        var divided = order.Boxes == 0 && inDishes > Grams.Zero
            ? new DividedBatch([], 0, cooked - inDishes)
            : DividedBatch.Of(cooked, order.Boxes, order.Pieces, batch, PortionsOnDays.Weights(planned), inDishes);
        if (!divided.Succeeded) return divided.Problems.ToList();
        var boxes = divided.Value!.Portions.Select((_, i) => i < planned.Count ? OfDay(planned[i]) : new(null, null, BoxPlace.Fridge));
        return new DividedOrder(divided.Value, [.. boxes], volume);
    }

    private async Task<Outcome<DividedOrder>> EachAsync(
        Batch batch, Grams cooked, PackOrder order, IReadOnlyList<PlanItemRow> planned, Grams inDishes, decimal? volume)
    {
        var summed = order.Summed();
        if (!summed.Succeeded) return summed.Problems.ToList();
        var by = (order.Pieces, summed.Value!.Component) switch
        {
            ({ } made, _) => MeasuredOut.ByPieces(cooked, new(made, batch.PieceStep)),
            (_, { } component) => MeasuredOut.ByComponent(cooked, component),
            _ => MeasuredOut.ByWeight(cooked),
        };
        if (!by.Succeeded) return by.Problems.ToList();

        // The portions on days are those that were seen: one that was laid or taken off meanwhile is looked at first.
        var items = planned.ToDictionary(item => item.Id);
        var asked = order.Each.Select(box => box.ItemId).OfType<Guid>().ToList();
        if (asked.Count != items.Count || !asked.TrueForAll(items.ContainsKey) || asked.Distinct().Count() != asked.Count)
            return Stale.Problem;
        var boxes = order.Each.Select(box => box.ItemId is { } id
            ? OfDay(items[id]) with { Place = box.Place }
            : new(null, box.EaterId, box.Place)).ToList();
        var table = (await eaters.ListAsync()).ToDictionary(eater => eater.Id);
        if (boxes.Find(box => box.EaterId is { } id && !table.ContainsKey(id)) is not null) return Stale.Gone("eater");
        var own = order.Each.Select((box, i) => new OwnBox(
            box.Wish is AtMostWish wish ? wish with { For = boxes[i].EaterId } : box.Wish,
            boxes[i].Item is { } item ? Milligrams.ToGrams(item.Milligrams ?? 0) : null, box.Got?.ToMilligram())).ToList();
        if (NotCounted(own, table, batch) is { } wrong) return wrong;

        var weighed = batch with { Cooked = cooked };
        decimal Read(AtMostWish wish, Grams weight)
        {
            var contents = weighed.Holding(weight);
            var totals = wish.For is { } id ? table[id].Aim.Count(contents) : MeasureTotals.Of(contents, null);
            return totals[wish.Measure].Known;
        }

        var divided = OwnWays.Of(cooked, by.Value!, batch.Weight ?? cooked, inDishes, volume, own, Read);
        return divided.Succeeded ? new DividedOrder(divided.Value!, boxes, volume) : divided.Problems.ToList();
    }

    // A budget of points is somebody's, and of somebody who counts them; one of which the batch holds nothing bounds nothing.
    private static Problem? NotCounted(List<OwnBox> boxes, Dictionary<Guid, EaterRow> table, Batch batch)
    {
        var all = MeasureTotals.Of(batch.Contents, null);
        for (var i = 0; i < boxes.Count; i++)
        {
            if (boxes[i].Wish is not AtMostWish wish) continue;
            var field = $"boxes[{i}].atMost";
            if (wish.Measure == Measure.Points && (wish.For is not { } id || table[id].Aim.Rule is null))
                return new("budget-points", field, "Points are counted by somebody's rule: say whose box it is, of one who counts them.");
            if (wish.Measure != Measure.Points && all[wish.Measure].Known <= 0)
                return new("budget-nothing", field, "As far as it is known, none of that is in this dish: choose another measure.");
        }

        return null;
    }

    private static DividedBox OfDay(PlanItemRow item) => new(item, item.EaterId, BoxPlace.Fridge);
}
