using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>The parts of a line, as understood.</summary>
/// <param name="Amount">The amount, or null for a trace or where none was found.</param>
/// <param name="Measure">The household measure or size it was counted in, such as "slice" or "medium"; null otherwise.</param>
/// <param name="FoodText">The words that name the food.</param>
/// <param name="Note">What else was said: "chopped", "drained", "to taste".</param>
public sealed record LineParts(AmountText? Amount, string? Measure, string FoodText, string Note)
{
    /// <summary>
    /// The weight that the note states for what was counted or measured by volume, "2 onions (250 g)" or "4 thighs (150 g each)"; null
    /// otherwise.
    /// </summary>
    public StatedWeight? Stated { get; } = StatedWeight.In(Note);

    /// <summary>The part of it that counts where the amount is of the whole: "juice" of "juice of 1 lemon"; null otherwise.</summary>
    public string? Drawn { get; init; }

    /// <summary>The note where the amount is scaled: a weight of all follows, a weight of each stays.</summary>
    internal string NoteFor(decimal factor) =>
        factor == 1m || Stated is not { IsEach: false } stated
            ? Note
            : FoodNaming.Join(FoodNaming.Join(stated.Before, stated.Amount.Scale(factor).Print()), stated.After);
}

/// <summary>A weight or a volume that a note states.</summary>
/// <param name="Amount">The amount.</param>
/// <param name="IsEach">Whether each one weighs that, or all together.</param>
/// <param name="Before">What the note says before it.</param>
/// <param name="After">And after it.</param>
public sealed record StatedWeight(AmountText Amount, bool IsEach, string Before, string After)
{
    private static readonly string[] Each = [" each", " apiece", " a piece", " per piece", " per fillet", " per breast"];

    // "1 can tomatoes, 28 oz can": what one package holds.
    private static readonly string[] Packs =
    [
        " can", " cans", " tin", " tins", " jar", " jars", " bag", " bags", " pack", " packs", " packet", " packets", " carton", " cartons",
        " box", " boxes", " block", " blocks", " tub", " tubs", " bottle", " bottles", " pouch", " pouches",
    ];

    // Said of all of it: "about 1 lb total", "240 g drained weight".
    private static readonly string[] Whole =
    [
        " in total", " total", " altogether", " all together", " drained weight", " drained", " net weight", " net", " weight", " worth",
    ];

    /// <summary>Whether it is what a package holds, a tin with its liquid.</summary>
    public bool IsPack { get; private init; }

    /// <summary>The first weight or volume in a note, "boneless, 150 g each, sliced", or null.</summary>
    internal static StatedWeight? In(string note)
    {
        var said = note.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        for (var i = 0; i < said.Length; i++)
        {
            if (!said[i].Any(char.IsAsciiDigit)) continue;
            var each = Each.FirstOrDefault(end => said[i].EndsWith(end, StringComparison.OrdinalIgnoreCase));
            var pack = Packs.FirstOrDefault(end => said[i].EndsWith(end, StringComparison.OrdinalIgnoreCase));
            var end = each ?? pack ?? Whole.FirstOrDefault(end => said[i].EndsWith(end, StringComparison.OrdinalIgnoreCase)) ?? "";
            var words = said[i][..^end.Length];
            if (words.StartsWith("weighing ", StringComparison.OrdinalIgnoreCase)) words = words[9..];
            if (AmountText.Alone(words) is { Unit: not null, From: > 0 } amount)
                return new(amount, (each ?? pack) is not null, string.Join(", ", said[..i]), string.Join(", ", said[(i + 1)..]))
                {
                    IsPack = pack is not null,
                };
        }

        return null;
    }

    /// <summary>The weight of so many.</summary>
    internal Grams Of(decimal quantity) => new(Amount.Quantity * Amount.Unit!.InBase * (IsEach ? quantity : 1));
}
