using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Cook;

/// <summary>
/// Dishes put together from batches that are cooked apart: a bowl of mash, chicken and gravy. What a box holds follows from what its parts
/// hold; nothing of a part is in two boxes.
/// </summary>
public static class PutTogether
{
    // 0.3 % over a whole number of portions are not a portion more: recipes weigh in whole grams.
    private const decimal NotAPortionMore = 0.003m;

    /// <summary>
    /// A put-together dish from its parts: their shares and the plain foods, and weighing what they weigh. 1,200 g of a mash of 2,000 g
    /// bring six tenths of all that is in the mash.
    /// </summary>
    /// <param name="dish">The dish; what it said of its contents before does not count.</param>
    /// <param name="plain">The plain foods, over all its boxes.</param>
    /// <param name="parts">What it takes of other batches.</param>
    public static Batch Of(Batch dish, Contents plain, IReadOnlyList<BatchPart> parts)
    {
        ArgumentNullException.ThrowIfNull(dish);
        ArgumentNullException.ThrowIfNull(plain);
        ArgumentNullException.ThrowIfNull(parts);
        var contents = parts.Select(part => part.Of.Holding(part.Weight)).Aggregate(plain, Contents.Both);
        var weight = plain.RawWeight + new Grams(parts.Sum(part => part.Weight.Value));
        return dish with
        {
            Contents = contents.Gathered(),
            Parts = parts,
            Plain = plain,
            Expected = dish.Cooked is null ? new(weight, Grams.Zero, ExpectedFrom.Parts) : null,
        };
    }

    /// <summary>A put-together dish with other batches in the place of some it is made of; any other batch as it is.</summary>
    public static Batch With(Batch dish, Func<Batch, Batch> of)
    {
        ArgumentNullException.ThrowIfNull(dish);
        return dish.Plain is { } plain ? Of(dish, plain, [.. dish.Parts.Select(part => part with { Of = of(part.Of) })]) : dish;
    }

    /// <summary>
    /// The share that each dish gets of what it asks for, 0 to 1: all of it, and where there is less than all ask for, each the same share.
    /// </summary>
    /// <param name="there">What the part weighs, or is expected to; null where that is not known.</param>
    /// <param name="packed">What is in boxes of dishes already.</param>
    /// <param name="asked">What the dishes that are not packed ask for, together.</param>
    public static decimal ShareOf(Grams? there, Grams packed, Grams asked)
    {
        if (there is not { } whole || asked <= Grams.Zero) return 1;
        return Math.Clamp((whole - packed) / asked, 0, 1);
    }

    /// <summary>Grams of a part that are in no box of its own: what is in dishes and what they ask for, at most all there is.</summary>
    /// <param name="there">What the part weighs, or is expected to; null where that is not known.</param>
    /// <param name="packed">What is in boxes of dishes already.</param>
    /// <param name="asked">What the dishes that are not packed ask for, together.</param>
    public static Grams TakenOf(Grams? there, Grams packed, Grams asked) =>
        there is { } whole && packed + asked > whole ? whole : packed + asked;

    /// <summary>For how many of its portions a part has to be cooked so that there are so many grams of it.</summary>
    /// <param name="asked">Grams, over all dishes.</param>
    /// <param name="portion">What one of its portions weighs; null where that is not known: then one portion for each box.</param>
    /// <param name="boxes">Into how many boxes it goes.</param>
    public static int PortionsFor(Grams asked, Grams? portion, int boxes)
    {
        if (asked <= Grams.Zero) return 0;
        return portion is { Value: > 0 } one ? Math.Max(1, (int)Math.Ceiling(Math.Min((asked / one) - NotAPortionMore, 1_000_000))) : boxes;
    }
}
