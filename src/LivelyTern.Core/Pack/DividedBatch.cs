using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>What goes into one box.</summary>
/// <param name="Weight">Cooked grams.</param>
/// <param name="Pieces">Pieces, where they are counted: then the weight is their share.</param>
public readonly record struct DividedPortion(Grams Weight, int? Pieces);

/// <summary>The boxes a weighed batch goes into.</summary>
/// <param name="Portions">Each box.</param>
/// <param name="OverPieces">Pieces that do not go round.</param>
/// <param name="Over">Grams that go into no box, where it is divided as planned.</param>
public sealed record DividedBatch(IReadOnlyList<DividedPortion> Portions, int OverPieces, Grams Over)
{
    /// <summary>
    /// The boxes a weighed batch goes into: by weight, or by pieces, each piece its share of the weight; as planned where portions of it
    /// lie on days.
    /// </summary>
    /// <param name="cooked">What it weighs.</param>
    /// <param name="boxes">How many boxes.</param>
    /// <param name="pieces">Pieces made, where they are counted.</param>
    /// <param name="expected">What it was planned by.</param>
    /// <param name="planned">The portions that lie on days.</param>
    public static Outcome<DividedBatch> Of(Grams cooked, int boxes, int? pieces, Grams expected, IReadOnlyList<Grams> planned)
    {
        ArgumentNullException.ThrowIfNull(planned);
        if (boxes >= 1 && cooked.Value < boxes)
        {
            var many = boxes == 1 ? "1 box" : $"{boxes} boxes";
            return new Problem("weight-tiny", "fullGrams", $"That is {cooked.Value:0.##} g for {many}: type grams, not kilograms.");
        }

        return pieces is { } made ? ByPieces(cooked, boxes, made, expected, planned) : ByWeight(cooked, boxes, expected, planned);
    }

    private static Outcome<DividedBatch> ByWeight(Grams cooked, int boxes, Grams expected, IReadOnlyList<Grams> planned)
    {
        var isPlanned = planned.Count > 0;
        var divided = isPlanned ? Divide.AsPlanned(cooked, expected, planned, boxes) : Divide.IntoEqual(cooked, boxes);
        if (!divided.Succeeded) return divided.Problems.ToList();
        var portions = divided.Value!.Portions.Select(weight => new DividedPortion(weight, null));
        return new DividedBatch([.. portions], 0, isPlanned ? divided.Value.Over : Grams.Zero);
    }

    private static Outcome<DividedBatch> ByPieces(Grams cooked, int boxes, int made, Grams expected, IReadOnlyList<Grams> planned)
    {
        var counted = planned.Count == 0 ? Divide.ByPieces(made, boxes) : Divide.PiecesAsPlanned(made, expected, planned, boxes);
        if (!counted.Succeeded) return counted.Problems.ToList();
        var portions = counted.Value!.Portions.Select(count => new DividedPortion(cooked * ((decimal)count / made), count));
        return new DividedBatch([.. portions], counted.Value.Over, Grams.Zero);
    }
}
