using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>A batch divided: what goes into each box, and what is over.</summary>
/// <param name="Portions">Grams, or pieces, for each box.</param>
/// <param name="Over">What is left: less than a gram of a weight, or the pieces that do not go round.</param>
public sealed record Division<T>(IReadOnlyList<T> Portions, T Over);

/// <summary>Ways to divide one batch. Nothing is lost: the portions and what is over sum to the batch.</summary>
public static class Divide
{
    /// <summary>The most boxes a batch goes into.</summary>
    public const int MostPortions = 1000;

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
        else if (batch.Value > 100_000m) problems.Add(new("weight-absurd", "grams", "A batch of more than 100 kg can't be meant: check the number."));
        if (problems.Count > 0) return problems;

        var whole = (int)Math.Floor(batch.Value);
        var (each, rest) = Math.DivRem(whole, portions);
        return new Division<Grams>([.. Enumerable.Range(0, portions).Select(i => new Grams(i < rest ? each + 1 : each))], batch - new Grams(whole));
    }

    /// <summary>By pieces: 13 meatballs into 4 boxes are 3 each and one over.</summary>
    /// <param name="pieces">Pieces made.</param>
    /// <param name="boxes">Boxes to fill, at least 1.</param>
    public static Outcome<Division<int>> ByPieces(int pieces, int boxes)
    {
        var problems = Count(boxes).ToList();
        if (pieces is < 1 or > 10_000) problems.Add(new("pieces-absurd", "pieces", "Count between 1 and 10,000 pieces."));
        else if (problems.Count == 0 && pieces < boxes) problems.Add(new("pieces-too-few", "pieces", $"{pieces} pieces don't fill {boxes} boxes: take fewer boxes."));
        if (problems.Count > 0) return problems;

        var (each, over) = Math.DivRem(pieces, boxes);
        return new Division<int>([.. Enumerable.Repeat(each, boxes)], over);
    }

    private static IEnumerable<Problem> Count(int portions)
    {
        if (portions < 1) yield return new("portions-none", "portions", "Divide into at least one portion.");
        if (portions > MostPortions) yield return new("portions-absurd", "portions", $"More than {MostPortions} portions can't be meant: check the number.");
    }
}
