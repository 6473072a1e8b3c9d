using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>What one box of a batch is to hold.</summary>
public abstract record BoxWish;

/// <summary>A weight of its own: each eater's own size.</summary>
/// <param name="Weight">Grams.</param>
public sealed record WeightWish(Grams Weight) : BoxWish;

/// <summary>So many pieces; each weighs its share of the batch.</summary>
/// <param name="Count">How many; a half where they may be halved.</param>
public sealed record PiecesWish(decimal Count) : BoxWish;

/// <summary>So much of a measuring cup.</summary>
/// <param name="Ml">Millilitres.</param>
public sealed record VolumeWish(decimal Ml) : BoxWish;

/// <summary>The largest portion that is still at most so much.</summary>
/// <param name="Measure">Of what: kcal, grams of protein, points.</param>
/// <param name="Value">At most so much of it.</param>
public sealed record AtMostWish(Measure Measure, decimal Value) : BoxWish
{
    /// <summary>Who counts: their points, their free foods. Null where it is nobody's in particular.</summary>
    public Guid? For { get; init; }
}

/// <summary>A share of what the others leave: 2 to 3.</summary>
/// <param name="Parts">How many parts.</param>
public sealed record ShareWish(decimal Parts) : BoxWish;

/// <summary>
/// All ways to portion, mixed in one batch: what is given first, then the largest whole grams still at most each budget, then what is
/// left by shares. 1,000 g into 400 g and shares of 2 and 3 are 400, 240 and 360 g. Nothing is lost: the boxes and what is over sum to the
/// batch.
/// </summary>
public static class Portioning
{
    private const decimal MostParts = 1_000_000m;

    // What thirds of a gram leave behind in decimals is nothing.
    private const decimal Nothing = 0.000_001m;

    /// <summary>The boxes, in the order they were asked for.</summary>
    /// <param name="batch">Grams of the finished batch.</param>
    /// <param name="pieces">How many pieces it makes; null where they are not counted.</param>
    /// <param name="wishes">What each box is to hold.</param>
    /// <param name="read">What a weight of the batch holds of a budget's measure; more of it never holds less.</param>
    /// <param name="say">How an amount is said; in grams unless it is given.</param>
    /// <returns>The weight of each box, and what is over; or what can't be, with the box it concerns.</returns>
    public static Outcome<Division<Grams>> Of(
        Grams batch, int? pieces, IReadOnlyList<BoxWish> wishes, Func<AtMostWish, Grams, decimal> read, Func<decimal, string>? say = null)
    {
        ArgumentNullException.ThrowIfNull(wishes);
        ArgumentNullException.ThrowIfNull(read);
        if (Wrong(batch, pieces, wishes) is { Count: > 0 } wrong) return wrong;

        say ??= grams => $"{grams:0.#} g";
        var boxes = new Grams[wishes.Count];
        var left = batch;
        foreach (var (i, weight) in Given(batch, pieces, wishes))
        {
            boxes[i] = weight;
            left -= weight;
        }

        if (left.Value < -Nothing)
        {
            var given = (batch - left).Value;
            var sentence = $"The boxes take {say(given)} and there are {say(batch.Value)}: {say(-left.Value)} are missing.";
            return new Problem("batch-short", "boxes", sentence);
        }

        for (var i = 0; i < wishes.Count; i++)
        {
            if (wishes[i] is not AtMostWish wish) continue;
            boxes[i] = Largest(wish, left, read);
            if (boxes[i] == Grams.Zero) return Empty(i, left, wish, say);
            left -= boxes[i];
        }

        var shares = wishes.Select((wish, i) => (i, (wish as ShareWish)?.Parts)).Where(one => one.Parts is not null).ToList();
        if (shares.Count == 0) return new Division<Grams>(boxes, left);
        var (all, whole) = (shares.Sum(one => one.Parts!.Value), Math.Floor(left.Value + Nothing));
        var divided = Divide.WholeGrams([.. shares.Select(one => whole * one.Parts!.Value / all)]);
        for (var at = 0; at < shares.Count; at++)
        {
            boxes[shares[at].i] = divided[at];
            if (divided[at] == Grams.Zero) return Empty(shares[at].i, left, null, say);
        }

        var over = left.Value - whole;
        return new Division<Grams>(boxes, new(over < Nothing ? 0 : over));
    }

    private static IEnumerable<(int Box, Grams Weight)> Given(Grams batch, int? pieces, IReadOnlyList<BoxWish> wishes)
    {
        for (var i = 0; i < wishes.Count; i++)
        {
            if (wishes[i] is WeightWish given) yield return (i, given.Weight);
            if (wishes[i] is PiecesWish counted) yield return (i, new(batch.Value * counted.Count / pieces!.Value));
        }
    }

    // The largest whole grams that hold at most so much, of what is left.
    private static Grams Largest(AtMostWish wish, Grams left, Func<AtMostWish, Grams, decimal> read)
    {
        var (fits, tooMuch) = (0, (int)Math.Floor(left.Value) + 1);
        while (tooMuch - fits > 1)
        {
            var middle = fits + ((tooMuch - fits) / 2);
            if (read(wish, new(middle)) <= wish.Value) fits = middle;
            else tooMuch = middle;
        }

        return new(fits);
    }

    private static Problem Empty(int box, Grams left, AtMostWish? wish, Func<decimal, string> say)
    {
        var why = left.Value < 1 || wish is null
            ? "the others leave nothing for it. Make it smaller, or leave a box out."
            : $"even {say(1)} is more than {wish.Value:0.##}.";
        return new("box-empty", $"boxes[{box}]", $"Box {box + 1} would be empty: {why}");
    }

    private static List<Problem> Wrong(Grams batch, int? pieces, IReadOnlyList<BoxWish> wishes)
    {
        if (batch.Value is <= 0 or > Divide.MostGrams)
            return [new("weight-absurd", "grams", "A batch weighs more than 0 g and up to 100 kg: check the number.")];
        if (wishes.Count is 0 or > Divide.MostPortions)
            return [new("boxes-many", "boxes", $"Divide into between 1 and {Divide.MostPortions} boxes.")];
        Problem? Of(BoxWish wish, int i) => wish switch
        {
            WeightWish { Weight.Value: <= 0 } => new("box-weight", $"boxes[{i}].grams", "A box holds more than 0 g."),
            PiecesWish when pieces is not (>= 1 and <= 10_000) =>
                new("pieces-unknown", "pieces", "Say how many pieces it makes, between 1 and 10,000."),
            PiecesWish { Count: <= 0 } => new("box-pieces", $"boxes[{i}].pieces", "A box holds at least a piece, or half of one."),
            AtMostWish { Value: <= 0 } => new("box-budget", $"boxes[{i}].atMost", "A budget is more than 0."),
            ShareWish { Parts: <= 0 or > MostParts } => new("box-share", $"boxes[{i}].share", "A share is more than 0."),
            _ => null,
        };
        return [.. wishes.Select(Of).OfType<Problem>()];
    }
}
