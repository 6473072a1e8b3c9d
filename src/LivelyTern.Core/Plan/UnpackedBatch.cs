using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>A batch that is not packed yet, and how much of it lies on days.</summary>
/// <param name="Batch">The batch, with a weight.</param>
/// <param name="Laid">Grams of its portions on any day of anyone.</param>
/// <param name="SizeOf">For each eater who has portions of it: the weight of one, the latest where they differ.</param>
public sealed record UnpackedBatch(Batch Batch, Grams Laid, IReadOnlyDictionary<Guid, Grams> SizeOf)
{
    private const int MostSizes = 16;
    private static readonly decimal[] OfOrdinary = [0.5m, 0.65m, 0.8m, 0.9m, 1, 1.15m, 1.3m, 1.5m, 1.7m];

    /// <summary>Grams of it that go into put-together dishes: they are in those dishes' portions, and not laid by themselves.</summary>
    public Grams InDishes { get; init; }

    /// <summary>What it makes, in grams.</summary>
    public Grams Whole => Batch.Weight ?? Grams.Zero;

    /// <summary>Grams on days and in put-together dishes.</summary>
    public Grams Taken => Laid + InDishes;

    /// <summary>Grams on no day and in no dish; below zero where more is taken than it makes.</summary>
    public Grams Left => Whole - Taken;

    /// <summary>Whether so much of it goes into put-together dishes that not half an ordinary portion is left to be laid.</summary>
    public bool IsForDishes => InDishes > Grams.Zero && Laid == Grams.Zero && Left < Ordinary * 0.5m;

    /// <summary>
    /// An ordinary portion: the whole by its portions, in steps that a scale reads, 430 g and not 427; of what comes in pieces, by the
    /// piece.
    /// </summary>
    public Grams Ordinary => InSteps(Whole * (1m / Math.Max(1, Batch.Portions)));

    /// <summary>What a new portion weighs for an eater: as their others of this batch, else an ordinary one.</summary>
    public Grams NewFor(Guid eaterId) => SizeOf.TryGetValue(eaterId, out var own) ? Batch.ByThePiece(own) : Ordinary;

    /// <summary>
    /// The portions that cover what is taken of it at the ordinary size, at least one: what the batch would have to be made for.
    /// </summary>
    public int PortionsLaid =>
        Math.Max(1, (int)Math.Ceiling((Taken / new Grams(Math.Max(1, Whole.Value / Math.Max(1, Batch.Portions)))) - 0.02m));

    /// <summary>
    /// Into how many boxes it goes: those of its portions on days, and ordinary ones for the rest, where that is more than a small
    /// remainder; none where all of it goes into put-together dishes.
    /// </summary>
    /// <param name="portions">How many of its portions lie on days.</param>
    public int BoxesFor(int portions) =>
        Math.Max(InDishes > Grams.Zero ? 0 : 1, portions + Math.Max(0, (int)Math.Round(Left / Ordinary, MidpointRounding.AwayFromZero)));

    /// <summary>
    /// Sizes to choose from when days are fitted: from half an ordinary portion to 1.7 of it, and those in use, smallest first; of what
    /// comes in pieces, one piece, or half of one where they may be halved, to twice an ordinary portion; of very many, several at a
    /// time.
    /// </summary>
    public IReadOnlyList<Grams> ToChooseFrom()
    {
        var sizes = Batch.PiecesIn(Ordinary) is { } ordinary
            ? Counts(ordinary).Select(count => Batch.WeightOf(count) ?? Grams.Zero).Append(Ordinary)
            : OfOrdinary.Select(factor => InSteps(Ordinary * factor));
        return [.. sizes.Concat(SizeOf.Values.Select(Batch.ByThePiece)).Where(size => size > Grams.Zero).Distinct().Order()];
    }

    private IEnumerable<decimal> Counts(decimal ordinary)
    {
        var steps = (int)(2 * ordinary / Batch.PieceStep);
        var atOnce = (int)Math.Ceiling((decimal)steps / MostSizes);
        return Enumerable.Range(1, steps / atOnce).Select(i => i * atOnce * Batch.PieceStep);
    }

    private Grams InSteps(Grams weight) => Batch.PieceWeight is null ? ToStep(weight) : Batch.ByThePiece(weight);

    private static Grams ToStep(Grams weight) =>
        new(Math.Max(1, Rounding.ToStep(weight.Value, weight.Value switch { >= 100 => 10, >= 20 => 5, _ => 1 })));
}
