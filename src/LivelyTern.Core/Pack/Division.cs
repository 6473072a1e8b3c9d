using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>A batch divided: what goes into each box, and what is over.</summary>
/// <param name="Portions">Grams, or pieces, for each box.</param>
/// <param name="Over">What is left: less than a gram of a weight, or the pieces that do not go round.</param>
public sealed record Division<T>(IReadOnlyList<T> Portions, T Over);

/// <summary>Pieces that were made.</summary>
/// <param name="Count">How many.</param>
/// <param name="Step">The least that is counted, in pieces: 1, or a half where they may be halved.</param>
public readonly record struct PiecesMade(int Count, decimal Step = Batch.WholePiece)
{
    /// <summary>Into how many at most they can be divided: as many as there are, or twice that.</summary>
    public int Steps => (int)(Count / Step);
}

/// <summary>Ways to divide one batch. Nothing is lost: the portions and what is over sum to the batch.</summary>
public static class Divide
{
    /// <summary>The most boxes a batch goes into.</summary>
    public const int MostPortions = 1000;

    /// <summary>The most pieces a batch makes.</summary>
    public const int MostPieces = 10_000;

    /// <summary>The most a batch weighs, in grams.</summary>
    public const decimal MostGrams = 100_000m;

    /// <summary>
    /// Equal portions in whole grams, as a kitchen scale reads them, by largest remainder: 100 g in 3 are 34, 33, 33; 745 g in 6 are
    /// 125 and five times 124; of 744.5 g in 6, half a gram is over.
    /// </summary>
    /// <param name="batch">Grams of the finished batch.</param>
    /// <param name="portions">How many, at least 1.</param>
    /// <returns>The portions, heaviest first, or what is wrong with a number.</returns>
    public static Outcome<Division<Grams>> IntoEqual(Grams batch, int portions)
    {
        var problems = Count(portions).ToList();
        if (batch.Value < 0) problems.Add(new("weight-negative", "grams", "A batch can't weigh less than nothing."));
        else if (batch.Value > MostGrams)
            problems.Add(new("weight-absurd", "grams", "A batch of more than 100 kg can't be meant: check the number."));
        if (problems.Count > 0) return problems;

        var whole = (int)Math.Floor(batch.Value);
        var (each, rest) = Math.DivRem(whole, portions);
        return new Division<Grams>(
            [.. Enumerable.Range(0, portions).Select(i => new Grams(i < rest ? each + 1 : each))], batch - new Grams(whole));
    }

    /// <summary>By pieces: 13 meatballs into 4 boxes are 3 each and one over; into 2, where they may be halved, 6 1/2 each.</summary>
    /// <param name="pieces">Pieces made.</param>
    /// <param name="boxes">Boxes to fill, at least 1.</param>
    /// <param name="inDishes">Pieces that go into put-together dishes, and into none of these boxes.</param>
    public static Outcome<Division<decimal>> ByPieces(PiecesMade pieces, int boxes, decimal inDishes = 0)
    {
        var problems = Pieces(pieces, boxes).ToList();
        if (problems.Count > 0) return problems;

        var (each, over) = Math.DivRem(pieces.Steps - (int)(inDishes / pieces.Step), boxes);
        return new Division<decimal>([.. Enumerable.Repeat(each * pieces.Step, boxes)], over * pieces.Step);
    }

    /// <summary>
    /// As the plan has it: each planned portion gets its share of the batch, whatever the batch weighs in the end, so that it holds what
    /// was planned; what is not planned goes into the boxes there are beyond those, else it is over. Portions of 300, 300 and 400 g of an
    /// expected 1,000 g, from 900 g on the scale, are 270, 270 and 360 g. Where more was planned than the batch makes, all get a little
    /// less.
    /// </summary>
    /// <param name="batch">Grams of the finished batch.</param>
    /// <param name="expected">Grams it was planned by.</param>
    /// <param name="planned">The planned portions, in grams.</param>
    /// <param name="boxes">How many boxes in all; at least as many as there are planned portions.</param>
    /// <param name="inDishes">Grams of it that go into put-together dishes, and into none of these boxes.</param>
    /// <returns>The planned portions in their order, then the other boxes, in whole grams by largest remainder.</returns>
    public static Outcome<Division<Grams>> AsPlanned(
        Grams batch, Grams expected, IReadOnlyList<Grams> planned, int boxes, Grams inDishes = default)
    {
        ArgumentNullException.ThrowIfNull(planned);
        var problems = Count(boxes).Concat(Enough(boxes, planned.Count)).ToList();
        if (problems.Count > 0) return problems;

        var wanted = planned.Sum(portion => portion.Value);
        var whole = Math.Max(wanted, expected.Value);
        if (whole <= 0) return IntoEqual(batch - inDishes, boxes);
        var here = batch - inDishes;
        var ofPlanned = batch.Value * wanted / whole;
        var less = ofPlanned > here.Value ? here.Value / ofPlanned : 1;
        var rest = boxes > planned.Count ? (here.Value - (ofPlanned * less)) / (boxes - planned.Count) : 0;
        var exact = planned.Select(portion => batch.Value * portion.Value / whole * less)
            .Concat(Enumerable.Repeat(rest, boxes - planned.Count)).ToList();
        var portions = WholeGrams(exact);
        return new Division<Grams>(portions, here - new Grams(portions.Sum(portion => portion.Value)));
    }

    /// <summary>
    /// As the plan has it, by pieces: portions of 300, 300 and 400 g of an expected 1,000 g, from 20 pieces, are 6, 6 and 8; from 5
    /// that may be halved 1 1/2, 1 1/2 and 2. No box is left empty: that is refused, with the ways out.
    /// </summary>
    /// <param name="pieces">Pieces made.</param>
    /// <param name="expected">Grams the batch was planned by.</param>
    /// <param name="planned">The planned portions, in grams.</param>
    /// <param name="boxes">How many boxes in all.</param>
    /// <param name="inDishes">Pieces that go into put-together dishes, and into none of these boxes.</param>
    public static Outcome<Division<decimal>> PiecesAsPlanned(
        PiecesMade pieces, Grams expected, IReadOnlyList<Grams> planned, int boxes, decimal inDishes = 0)
    {
        ArgumentNullException.ThrowIfNull(planned);
        var most = pieces.Steps;
        if (pieces.Count >= 1 && most < planned.Count)
            return new Problem(
                "pieces-too-few", "pieces",
                $"{pieces.Count} pieces are too few for {planned.Count} portions on days: "
                + $"take {planned.Count - most} off their days first.");
        var problems = Pieces(pieces, boxes).Concat(Enough(boxes, planned.Count)).ToList();
        if (problems.Count > 0) return problems;
        var divided = AsPlanned(new(most), expected, planned, boxes, new(inDishes / pieces.Step));
        if (!divided.Succeeded) return divided.Problems.ToList();
        var counts = divided.Value!.Portions.Select(portion => portion.Value * pieces.Step).ToList();
        var empty = counts.Count(count => count == 0);
        if (empty == 0) return new Division<decimal>(counts, divided.Value.Over.Value * pieces.Step);
        var fewer = boxes - empty;
        var waysOut = fewer >= planned.Count
            ? $"pack {fewer} boxes, or take a portion off its day first."
            : $"take {planned.Count - fewer} of the {planned.Count} portions off their days first.";
        var leave = $"{pieces.Count} pieces leave {empty} of {boxes} boxes empty, as it is planned";
        return new Problem("pieces-too-few", "boxes", $"{leave}: {waysOut}");
    }

    private static IEnumerable<Problem> Enough(int boxes, int planned)
    {
        if (boxes >= 1 && boxes < planned)
            yield return new(
                "boxes-too-few", "portions",
                $"The plan has {planned} portions of this: make at least as many boxes, or take some off their days first.");
    }

    // Largest remainder: the whole grams of the sum, the odd ones to those that lost most by rounding down, earlier first.
    internal static List<Grams> WholeGrams(List<decimal> exact)
    {
        var odd = (int)(Math.Floor(exact.Sum() + 0.000_001m) - exact.Sum(decimal.Floor));
        var more = exact.Select((share, i) => (Lost: share - decimal.Floor(share), i)).OrderByDescending(one => one.Lost)
            .ThenBy(one => one.i).Take(odd).Select(one => one.i).ToHashSet();
        return [.. exact.Select((share, i) => new Grams(decimal.Floor(share) + (more.Contains(i) ? 1 : 0)))];
    }

    private static List<Problem> Pieces(PiecesMade pieces, int boxes)
    {
        var counted = Count(boxes).ToList();
        if (pieces.Count is < 1 or > MostPieces) counted.Add(new("pieces-absurd", "pieces", "Count between 1 and 10,000 pieces."));
        else if (counted.Count == 0 && pieces.Steps < boxes)
            counted.Add(new("pieces-too-few", "pieces", $"{pieces.Count} pieces don't fill {boxes} boxes: take fewer boxes."));
        return counted;
    }

    private static IEnumerable<Problem> Count(int portions)
    {
        if (portions < 1) yield return new("portions-none", "portions", "Divide into at least one portion.");
        if (portions > MostPortions)
            yield return new("portions-absurd", "portions", $"More than {MostPortions} portions can't be meant: check the number.");
    }
}
