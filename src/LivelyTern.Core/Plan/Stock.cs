using LivelyTern.Core.Cook;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan;

/// <summary>What the things on a plan are made of: packed boxes, and batches that are not packed yet.</summary>
/// <param name="Boxes">Boxes by id.</param>
/// <param name="Unpacked">Batches without boxes, by id: still to be cooked, or cooked and waiting. Each with a weight, measured or
/// expected.</param>
public sealed record Stock(IReadOnlyDictionary<Guid, Box> Boxes, IReadOnlyDictionary<Guid, Batch> Unpacked)
{
    /// <summary>The rules that boxes are kept by.</summary>
    public KeepingRules Rules { get; init; } = KeepingRules.Default;

    /// <summary>Nothing.</summary>
    public static Stock None { get; } = Of([]);

    /// <summary>Boxes only.</summary>
    public static Stock Of(IEnumerable<Box> boxes) =>
        new(boxes.DistinctBy(box => box.Id).ToDictionary(box => box.Id), new Dictionary<Guid, Batch>());

    /// <summary>The box an item is, or will be: a portion is a box of its batch with the item's own id. Null for a plain food.</summary>
    public Box? BoxOf(PlanItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        if (item.BoxId is { } id) return item.PartOfBox is { } part ? Boxes[id].Of(part) : Boxes[id];
        if (item.Portion is not { } portion) return null;
        var batch = Unpacked[portion.BatchId];
        return new(item.Id, batch, portion.Weight, batch.PiecesIn(portion.Weight));
    }

    /// <summary>Whether everything an item is made of is here.</summary>
    public bool Has(PlanItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        return (item.BoxId is not { } id || Boxes.ContainsKey(id))
            && (item.Portion is not { } portion || Unpacked.ContainsKey(portion.BatchId));
    }
}
