using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Data.Plan;

/// <summary>A box as the cook wants it.</summary>
/// <param name="Wish">What it is to hold; null for a portion on a day, as it is planned.</param>
/// <param name="ItemId">The portion on a day that becomes this box; null for a box of no day.</param>
/// <param name="EaterId">Whose a box of no day is; null for whoever wants it.</param>
/// <param name="Place">Where it goes.</param>
/// <param name="Got">What the scale said that is in it; null where it gets what it is to hold.</param>
public sealed record OrderedBox(BoxWish? Wish, Guid? ItemId, Guid? EaterId, BoxPlace Place, Grams? Got);

/// <summary>A part of a put-together dish as it goes into the boxes, one after another.</summary>
/// <param name="BatchId">The batch; null for a plain food.</param>
/// <param name="Line">Which line of the dish a plain food is, from 0; null for a batch.</param>
/// <param name="Compartment">Where it lies: a compartment, "cup", "beside" for what is added at eating; null for the box itself.</param>
/// <param name="Got">
/// What the scale said that each box has got of it; null where it is still to be put in. Empty where that is so of all.
/// </param>
public sealed record OrderedPart(Guid? BatchId, int? Line, string? Compartment, IReadOnlyList<Grams?> Got);

/// <summary>How a batch is to be packed.</summary>
/// <param name="Pan">The empty pan.</param>
/// <param name="Full">The full pan.</param>
/// <param name="Boxes">How many boxes, as planned and the rest alike; not asked where each is ordered.</param>
/// <param name="Pieces">How many pieces were made, where they are counted; null to divide by weight.</param>
public sealed record PackOrder(Grams Pan, Grams Full, int Boxes, int? Pieces)
{
    /// <summary>Which of the household's containers its boxes are; null where nobody said so.</summary>
    public Guid? ContainerId { get; init; }

    /// <summary>Whether it is divided by eye: no box is weighed.</summary>
    public bool IsByEye { get; init; }

    /// <summary>Whose eye that is; null where nobody says.</summary>
    public Guid? CookId { get; init; }

    /// <summary>Each box in its own way; empty where they are only counted.</summary>
    public IReadOnlyList<OrderedBox> Each { get; init; } = [];

    /// <summary>What all of the component weighs that each is measured out by; null where it is the dish.</summary>
    public Grams? Component { get; init; }

    /// <summary>What a cup of it weighs; null where what it fills is known, or not asked.</summary>
    public Grams? CupWeight { get; init; }

    /// <summary>Whether the batch, or its component, weighs what its boxes have got, whatever was said before.</summary>
    public bool TakesSum { get; init; }

    /// <summary>The parts of a put-together dish, where they are put in one after another; null where it is packed as a whole.</summary>
    public IReadOnlyList<OrderedPart>? Parts { get; init; }

    /// <summary>The same with that sum taken.</summary>
    internal Outcome<PackOrder> Summed()
    {
        if (!TakesSum) return this;
        if (Each.Count == 0 || Each.Any(box => box.Got is null))
            return new Problem("boxes-open", "", "Fill every box first: then what they hold together is what there is.");
        var sum = new Grams(Each.Sum(box => box.Got!.Value.Value));
        return Component is null ? this with { Full = Pan + sum } : this with { Component = sum };
    }
}
