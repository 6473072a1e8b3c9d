using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Cook;

/// <summary>Where a batch stands in its life.</summary>
public enum BatchState
{
    /// <summary>To be cooked on a day; what goes in follows its recipe.</summary>
    Planned,

    /// <summary>In its pan, not weighed yet; what goes in is fixed, with the figures the foods have now.</summary>
    Cooking,

    /// <summary>Cooked and weighed: its yield is written down.</summary>
    Cooked,

    /// <summary>In its boxes.</summary>
    Packed,

    /// <summary>Not cooked after all, or thrown away before it was packed.</summary>
    Discarded,
}

/// <summary>What a put-together dish takes of another batch, over all its boxes.</summary>
/// <param name="Of">The other batch.</param>
/// <param name="Weight">Cooked grams of it.</param>
public sealed record BatchPart(Batch Of, Grams Weight);

/// <summary>A recipe cooked once, for real, or to be cooked on a day.</summary>
/// <param name="Id">Stable identity.</param>
/// <param name="RecipeName">The dish, as it was called then.</param>
/// <param name="Mark">How its tape labels look.</param>
/// <param name="CookedOn">The day it was cooked, or is to be.</param>
/// <param name="Contents">What went in, with the figures the foods had then.</param>
/// <param name="Cooked">The cooked weight without the pan, or null until it is weighed.</param>
public sealed record Batch(Guid Id, string RecipeName, TapeMark Mark, DateOnly CookedOn, Contents Contents, Grams? Cooked)
{
    /// <summary>Where it stands.</summary>
    public BatchState State { get; init; } = BatchState.Cooking;

    /// <summary>Whether it is still to be cooked: then its contents follow the recipe.</summary>
    public bool IsPlanned => State == BatchState.Planned;

    /// <summary>What it is expected to weigh; counts until it is weighed.</summary>
    public ExpectedWeight? Expected { get; init; }

    /// <summary>The portions it is made for; the ordinary size of one is its weight by this.</summary>
    public int Portions { get; init; } = 1;

    /// <summary>The other batches that a put-together dish is made of; they are within its contents. None for any other batch.</summary>
    public IReadOnlyList<BatchPart> Parts { get; init; } = [];

    /// <summary>The plain foods of a put-together dish, over all its boxes; null for any other batch.</summary>
    public Contents? Plain { get; init; }

    /// <summary>How many pieces it makes, where it makes pieces: then it is planned, packed and eaten by the piece.</summary>
    public int? Pieces { get; init; }

    /// <summary>The fewest pieces of a portion, and by how many portions differ: 1, or a half where they may be halved.</summary>
    public decimal PieceStep { get; init; } = WholePiece;

    /// <summary>The step of pieces that stay whole, in pieces.</summary>
    public const decimal WholePiece = 1;

    /// <summary>The step of pieces that may be halved, in pieces.</summary>
    public const decimal HalfPiece = 0.5m;

    /// <summary>What it fills, in millilitres, where its recipe says: then its portions are told in cups too.</summary>
    public decimal? VolumeMl { get; init; }

    /// <summary>What a weight of it fills, as a cook says it: "1 1/3 cups"; null where that is not known.</summary>
    public string? SaidVolumeOf(Grams weight) =>
        VolumeMl is { } volume && Weight is { } whole ? SaidVolume.Of(volume * (weight / whole), volume) : null;

    /// <summary>What so many millilitres of it weigh; null where that is not known.</summary>
    public Grams? WeightOfMl(decimal ml) => VolumeMl is { } volume && Weight is { } whole ? whole * (ml / volume) : null;

    /// <summary>What one piece weighs; null where it makes none, or its weight is not known.</summary>
    public Grams? PieceWeight => WeightOf(1);

    /// <summary>What so many pieces weigh, to the milligram; null where it makes none, or its weight is not known.</summary>
    public Grams? WeightOf(decimal count) =>
        Pieces is > 0 and var pieces && Weight is { } whole ? new Grams(whole.Value * count / pieces).ToMilligram() : null;

    /// <summary>
    /// The nearest weight of pieces that stay whole, or of halves where they may be halved, at least one; any weight where it makes no
    /// pieces. Of 12 muffins of 80 g, 110 g are 80 g, in halves 120 g.
    /// </summary>
    public Grams ByThePiece(Grams weight) =>
        Count(weight, PieceStep) is { } count ? WeightOf(Math.Max(PieceStep, count)) ?? weight : weight;

    /// <summary>
    /// How many pieces a weight of it is, to the half: a portion laid before its recipe forbade halves is shown as what it is. Null where
    /// it makes none.
    /// </summary>
    public decimal? PiecesIn(Grams weight) => Count(weight, HalfPiece);

    private decimal? Count(Grams weight, decimal step) =>
        Pieces is > 0 and var pieces && Weight is { } whole
            ? Math.Max(0, Rounding.ToStep(weight.Value * pieces / whole.Value, step))
            : null;

    /// <summary>
    /// The first day it can be eaten: the day it was cooked, or is to be. Still to be cooked on a day that is past, it is cooked today at
    /// the earliest.
    /// </summary>
    public DateOnly EatenFrom(DateOnly today) => IsPlanned && CookedOn < today ? today : CookedOn;

    /// <summary>
    /// What it weighs, measured or else expected; null where neither is known, or it would come to nothing (more is taken out than goes
    /// in).
    /// </summary>
    public Grams? Weight => Known(Cooked) ?? Known(Expected?.Weight);

    /// <summary>
    /// What this weight of the finished batch holds: its share of everything that went in. Where the batch's weight is not known neither
    /// is the share: then every figure is "at least" nothing, and its foods are named without a weight.
    /// </summary>
    /// <param name="weight">Cooked grams.</param>
    public Contents Holding(Grams weight) =>
        Weight is { } whole ? Contents.Scale(weight / whole) : Contents.Scale(0) with { SomethingUnread = true };

    private static Grams? Known(Grams? weight) => weight is { Value: > 0 } ? weight : null;
}
