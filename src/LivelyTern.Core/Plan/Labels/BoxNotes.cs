using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan.Labels;

/// <summary>What the cook wrote about the boxes of a dish.</summary>
/// <param name="Heating">How a box is heated: "3 min in the microwave, lid ajar, stir once". Null for nothing.</param>
/// <param name="AtEating">What is added when it is eaten: "yogurt, lemon, toasted seeds". Null for nothing.</param>
public sealed record BoxNotes(string? Heating, string? AtEating)
{
    /// <summary>The most letters of each: what still stands on a label.</summary>
    public const int Longest = 120;

    /// <summary>Nothing.</summary>
    public static BoxNotes None { get; } = new(null, null);

    /// <summary>What is added at eating, thing by thing, as far as it was written with amounts: "1 tbsp yoghurt, 10 g seeds".</summary>
    public IReadOnlyList<string> Toppings => AtEating is null ? [] : [.. TypedEntry.Apart(AtEating).SelectMany(line => line)];

    /// <summary>As somebody typed them.</summary>
    public static Outcome<BoxNotes> Of(string? heating, string? atEating)
    {
        static string? OneLine(string? text)
        {
            var said = string.Join(' ', (text ?? "").Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
            return said.Length > 0 ? said : null;
        }

        var notes = new BoxNotes(OneLine(heating), OneLine(atEating));
        if (notes.Heating?.Length > Longest) return TooLong("heating");
        return notes.AtEating?.Length > Longest ? TooLong("atEating") : notes;
    }

    private static Problem TooLong(string field) =>
        new("note-length", field, $"Up to {Longest} letters: more does not fit on a label.");
}
