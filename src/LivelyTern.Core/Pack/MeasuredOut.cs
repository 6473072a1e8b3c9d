using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>
/// What a batch is measured out by: its own weight; its pieces; or the weight of the one component that carries it, where the rest
/// follows by eye.
/// </summary>
/// <param name="Units">How many there are: grams of the dish, the least steps of pieces, grams of the component.</param>
/// <param name="Each">Cooked grams of the dish that go with one.</param>
/// <param name="Pieces">The pieces, where it is measured out by them.</param>
public sealed record MeasuredOut(decimal Units, Grams Each, PiecesMade? Pieces = null)
{
    /// <summary>By its own weight.</summary>
    public static MeasuredOut ByWeight(Grams cooked) => new(cooked.Value, new(1));

    /// <summary>By the piece, or by halves.</summary>
    /// <param name="cooked">What it weighs.</param>
    /// <param name="made">How many.</param>
    public static Outcome<MeasuredOut> ByPieces(Grams cooked, PiecesMade made) =>
        made.Count is < 1 or > Divide.MostPieces
            ? new Problem("pieces-absurd", "pieces", "Count between 1 and 10,000 pieces.")
            : new MeasuredOut(made.Steps, cooked * (1m / made.Steps), made);

    /// <summary>By what one component weighs, cooked: 1,200 g of the meat in 4,800 g of stew are 4 g of stew for each.</summary>
    /// <param name="cooked">What the batch weighs.</param>
    /// <param name="component">What all of that component weighs.</param>
    public static Outcome<MeasuredOut> ByComponent(Grams cooked, Grams component)
    {
        if (component.Value < 1) return new Problem("component-nothing", "componentGrams", "Type what all of it weighs, cooked, in grams.");
        return component > cooked
            ? new Problem(
                "component-heavy", "componentGrams",
                $"That is more than the whole batch weighs ({cooked.Value:0.#} g): check the two weights.")
            : new MeasuredOut(component.Value, cooked * (1 / component.Value));
    }

    /// <summary>Pieces in so many units; null where it is not measured out by pieces.</summary>
    public decimal? PiecesIn(decimal units) => Pieces is { } made ? units * made.Step : null;

    internal string Say(decimal units) =>
        PiecesIn(units) is not { } pieces ? $"{units:0.#} g" : $"{pieces:0.#} {(pieces is > 0 and <= 1 ? "piece" : "pieces")}";
}
