using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>What goes into one box.</summary>
/// <param name="Weight">Cooked grams.</param>
/// <param name="Pieces">Pieces, where they are counted: then the weight is their share.</param>
public readonly record struct DividedPortion(Grams Weight, decimal? Pieces)
{
    /// <summary>
    /// What of it is on the scale, in grams: all of it, or the component that it is measured out by; its least steps where it goes by the
    /// piece.
    /// </summary>
    public Grams OnScale { get; init; } = Weight;

    /// <summary>What was to be on the scale before the first box was filled, in the same.</summary>
    public Grams Target { get; init; } = Weight;

    /// <summary>Whether that is the most it may get: a gram more is past its budget.</summary>
    public bool IsMost { get; init; }
}

/// <summary>The boxes a weighed batch goes into.</summary>
/// <param name="Portions">Each box.</param>
/// <param name="OverPieces">Pieces that do not go round.</param>
/// <param name="Over">Grams that go into no box, where it is divided as planned.</param>
public sealed record DividedBatch(IReadOnlyList<DividedPortion> Portions, decimal OverPieces, Grams Over)
{
    /// <summary>Grams on the scale that the boxes hold and the batch does not: its own weight was wrong, or theirs.</summary>
    public Grams Missing { get; init; }

    /// <summary>
    /// The boxes a weighed batch goes into: by weight, or by pieces, each piece its share of the weight; as planned where portions of it
    /// lie on days.
    /// </summary>
    /// <param name="cooked">What it weighs.</param>
    /// <param name="boxes">How many boxes.</param>
    /// <param name="pieces">Pieces made, where they are counted.</param>
    /// <param name="planned">What it was planned as.</param>
    /// <param name="portions">The portions that lie on days.</param>
    /// <param name="inDishes">Grams of it that go into put-together dishes, and into none of these boxes.</param>
    public static Outcome<DividedBatch> Of(
        Grams cooked, int boxes, int? pieces, Batch planned, IReadOnlyList<Grams> portions, Grams inDishes = default)
    {
        ArgumentNullException.ThrowIfNull(planned);
        ArgumentNullException.ThrowIfNull(portions);
        if (boxes >= 1 && cooked.Value >= boxes && (cooked - inDishes).Value < boxes)
        {
            var sentence = $"{inDishes.Value:0.#} g of it go into put-together dishes, and nothing is left for boxes of its own.";
            return new Problem("all-in-dishes", "portions", sentence);
        }

        if (boxes >= 1 && cooked.Value < boxes)
        {
            var many = boxes == 1 ? "1 box" : $"{boxes} boxes";
            return new Problem("weight-tiny", "fullGrams", $"That is {cooked.Value:0.##} g for {many}: type grams, not kilograms.");
        }

        // Of a batch of which nobody knew what it would weigh, a portion is as many grams as it was planned as.
        var expected = planned.Weight ?? cooked;
        return pieces is { } made
            ? ByPieces(cooked, boxes, new(made, planned.PieceStep), expected, portions, inDishes)
            : ByWeight(cooked, boxes, expected, portions, inDishes);
    }

    private static Outcome<DividedBatch> ByWeight(
        Grams cooked, int boxes, Grams expected, IReadOnlyList<Grams> planned, Grams inDishes)
    {
        var isPlanned = planned.Count > 0;
        var divided = isPlanned
            ? Divide.AsPlanned(cooked, expected, planned, boxes, inDishes)
            : Divide.IntoEqual(cooked - inDishes, boxes);
        if (!divided.Succeeded) return divided.Problems.ToList();
        if (isPlanned && LeftEmpty(divided.Value!.Portions, planned.Count) is { } empty) return empty;
        var portions = divided.Value!.Portions.Select(weight => new DividedPortion(weight, null));
        return new DividedBatch([.. portions], 0, isPlanned ? divided.Value.Over : Grams.Zero);
    }

    // A box of nothing is no box.
    private static Problem? LeftEmpty(IReadOnlyList<Grams> boxes, int planned)
    {
        var empty = boxes.Count(weight => weight.Value <= 0);
        if (empty == 0) return null;
        var filled = boxes.Count - empty;
        var waysOut = filled >= planned
            ? $"pack {filled} {(filled == 1 ? "box" : "boxes")}, or take a portion off its day first."
            : $"take {planned - filled} of the {planned} portions off their days first.";
        return new("boxes-empty", "portions", $"As it is planned, {empty} of {boxes.Count} boxes would be empty: {waysOut}");
    }

    private static Outcome<DividedBatch> ByPieces(
        Grams cooked, int boxes, PiecesMade made, Grams expected, IReadOnlyList<Grams> planned, Grams inDishes)
    {
        // A piece that is begun for a dish goes into none of these boxes.
        var begun = made.Count >= 1 ? inDishes.Value * made.Count / cooked.Value / made.Step : 0;
        var taken = Math.Min(Math.Ceiling(begun) * made.Step, made.Count);
        var counted = planned.Count == 0
            ? Divide.ByPieces(made, boxes, taken)
            : Divide.PiecesAsPlanned(made, expected, planned, boxes, taken);
        if (!counted.Succeeded) return counted.Problems.ToList();
        var portions = counted.Value!.Portions.Select(count => new DividedPortion(cooked * (count / made.Count), count));
        return new DividedBatch([.. portions], counted.Value.Over, Grams.Zero);
    }
}
