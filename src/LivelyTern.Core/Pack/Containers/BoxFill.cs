using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack.Containers;

/// <summary>How what goes into a compartment stands to what it holds.</summary>
public enum FillSays
{
    /// <summary>It fits.</summary>
    Fits,

    /// <summary>It fits, but leaves no room to freeze.</summary>
    TooFullToFreeze,

    /// <summary>It is too much.</summary>
    TooMuch,

    /// <summary>Nobody knows what it fills, as far as it is known it fits.</summary>
    Unknown,
}

/// <summary>A compartment, or a cup, with what goes into it.</summary>
/// <param name="Name">Which; null for the box itself.</param>
/// <param name="Says">How it stands.</param>
/// <param name="Filled">What is filled as far as it is known: millilitres, or pieces of a bag.</param>
/// <param name="Holds">What it holds, in the same.</param>
/// <param name="Unknown">Of what nobody knows what it fills.</param>
public sealed record CompartmentFill(string? Name, FillSays Says, decimal Filled, decimal Holds, IReadOnlyList<string> Unknown);

/// <summary>
/// Whether what goes into a box fits by volume. A food's volume follows from its own cup or spoon, a dish's from what its recipe fills,
/// never from water; where neither is known, that is said.
/// </summary>
public static class BoxFill
{
    /// <summary>
    /// What freezing takes more room: water of 0.9998 g/ml becomes ice of 0.9167 g/ml, 9.1 % more. Source: CRC Handbook of Chemistry and
    /// Physics (from memory).
    /// </summary>
    public const decimal Freezing = 0.9998m / 0.9167m;

    /// <summary>How each compartment that gets something stands; none where nobody measured the container.</summary>
    /// <param name="container">The box, or bag.</param>
    /// <param name="cups">The household's cups, found by their names.</param>
    /// <param name="share">What goes in.</param>
    /// <param name="isFrozen">Whether it is to be frozen.</param>
    public static IReadOnlyList<CompartmentFill> Of(
        Container container, IReadOnlyList<Container> cups, BatchShare share, bool isFrozen)
    {
        ArgumentNullException.ThrowIfNull(container);
        ArgumentNullException.ThrowIfNull(cups);
        ArgumentNullException.ThrowIfNull(share);
        if (container.Pieces is { } holds) return [InBag(share, holds)];
        var parts = PartsOf(share);
        CompartmentFill? Fill(IGrouping<string?, BoxPart> own) =>
            HoldsOf(own.Key, container, cups) is { } ml ? In(own.Key, [.. own], ml, isFrozen) : null;
        return
        [
            .. parts.Where(part => !string.Equals(part.Compartment, BatchShare.Beside, StringComparison.Ordinal))
                .GroupBy(part => part.Compartment, StringComparer.OrdinalIgnoreCase).Select(Fill).OfType<CompartmentFill>(),
        ];
    }

    // A put-together dish that is packed as a whole fills what its parts do.
    private static IReadOnlyList<BoxPart> PartsOf(BatchShare share)
    {
        if (share.PutIn.Count > 0) return share.PutIn;
        if (share.Batch is not { Plain: { } plain, Weight: { } whole }) return [share];
        var of = share.Weight / whole;
        return
        [
            .. share.Batch.Parts.Select(part => new BatchShare(part.Of, part.Weight * of)),
            .. plain.Scale(of).Ingredients.Select(food => new FoodInBox(food.Food.Name, food)),
        ];
    }

    private static decimal? HoldsOf(string? name, Container container, IReadOnlyList<Container> cups) =>
        (container.Find(name)
            ?? cups.FirstOrDefault(cup => string.Equals(cup.Name, name, StringComparison.OrdinalIgnoreCase))?.Find(null))?.VolumeMl;

    private static CompartmentFill InBag(BatchShare share, int holds)
    {
        if (share.Pieces is not { } pieces) return new(null, FillSays.Unknown, 0, holds, [share.Batch.RecipeName]);
        return new(null, pieces > holds ? FillSays.TooMuch : FillSays.Fits, pieces, holds, []);
    }

    private static CompartmentFill In(string? name, List<BoxPart> parts, decimal holds, bool isFrozen)
    {
        // A pinch fills nothing that could be seen.
        var real = parts.Where(part => part.Weight.Value >= 1).Select(part => (Part: part, Ml: VolumeOf(part))).ToList();
        var filled = real.Sum(one => one.Ml ?? 0);
        var unknown = real.Where(one => one.Ml is null).Select(one => one.Part.Name).Distinct(StringComparer.Ordinal).ToList();
        var says = filled > holds ? FillSays.TooMuch
            : isFrozen && filled * Freezing > holds ? FillSays.TooFullToFreeze
            : unknown.Count > 0 ? FillSays.Unknown
            : FillSays.Fits;
        return new(name, says, filled, holds, unknown);
    }

    private static decimal? VolumeOf(BoxPart part) => part switch
    {
        BatchShare { Batch: { VolumeMl: { } all, Weight: { } whole } } share => all * (share.Weight / whole),
        FoodInBox { Food.Food: var food } when food.WeightOf(1, Unit.Cup) is { Value: > 0 } cup => Unit.Cup.InBase * (part.Weight / cup),
        _ => null,
    };
}
