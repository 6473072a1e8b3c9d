using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>A part of a put-together dish, which goes into all its boxes before the next does: another batch, or a plain food.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Asked">What all boxes together are to get of it.</param>
/// <param name="There">The most that is there; null where more can be fetched.</param>
public sealed record PartToPut(string Name, Grams Asked, Grams? There);

/// <summary>A part in one box.</summary>
/// <param name="Target">What the box was to get of it.</param>
/// <param name="Weight">What it holds of it, or is to get now that others have got theirs.</param>
public readonly record struct PartInBox(Grams Target, Grams Weight);

/// <summary>A part over all boxes.</summary>
/// <param name="Boxes">Each box, in their order.</param>
/// <param name="Missing">Grams that they hold and that are not there: the scale was wrong here, or at the pan.</param>
/// <param name="Left">Grams that stay in the pan; null where more can be fetched.</param>
public sealed record PartOverBoxes(IReadOnlyList<PartInBox> Boxes, Grams Missing, Grams? Left);

/// <summary>Part by part over all boxes of a put-together dish: mash into six, then chicken, then gravy into its cup.</summary>
public static class PartByPart
{
    private const decimal Milligram = 0.001m, Most = 10_000m;

    /// <summary>
    /// What each box gets of a part: its share of what is asked, to the milligram, as the box is of the dish; and where some have got
    /// theirs, <see cref="Filling.Now"/>. Of a batch the last box takes what the others leave, where all of it was to be used up; of a
    /// plain food, of which there is more in the house, it gets what it was to get.
    /// </summary>
    /// <param name="part">The part.</param>
    /// <param name="boxes">What each box is to hold of the dish, in grams.</param>
    /// <param name="got">What the scale said that each has got of it; null where it is still to be put in.</param>
    public static Outcome<PartOverBoxes> Of(PartToPut part, IReadOnlyList<Grams> boxes, IReadOnlyList<Grams?> got)
    {
        ArgumentNullException.ThrowIfNull(part);
        ArgumentNullException.ThrowIfNull(boxes);
        ArgumentNullException.ThrowIfNull(got);
        if (got.Count != boxes.Count)
            return new Problem("part-boxes", "parts", $"There are {boxes.Count} boxes: say of each what it has got of {part.Name}.");
        if (got.Any(one => one is { Value: < 0 or > Most }))
            return new Problem("part-absurd", "parts", $"A box gets between 0 g and 10 kg of {part.Name}.");
        var whole = boxes.Sum(box => box.Value);
        var asked = part.Asked.ToMilligram() * (1 / Milligram);
        var targets = Divide.WholeGrams([.. boxes.Select(box => whole <= 0 ? 0 : asked.Value * box.Value / whole)])
            .ConvertAll(milligrams => milligrams * Milligram);
        var exact = got.Select(one => one?.ToMilligram().Value).ToList();
        if (part.There is not { } there)
            return new PartOverBoxes(
                [.. targets.Zip(exact, (target, one) => new PartInBox(target, new(one ?? target.Value)))], Grams.Zero, null);
        var now = Filling.Now(
            targets.ConvertAll(target => target.Value), (there - part.Asked).Value, [.. boxes.Select(_ => false)], exact, there.Value);
        return new PartOverBoxes(
            [.. targets.Zip(now, (target, one) => new PartInBox(target, new Grams(one).ToMilligram()))],
            new(Math.Max(0, now.Sum() - there.Value)), new(Math.Max(0, there.Value - now.Sum())));
    }
}
