using LivelyTern.Core.Measures;

namespace LivelyTern.Web.Http;

/// <summary>What a number may be.</summary>
/// <param name="Of">What it is a number of, in the codes: "weight".</param>
/// <param name="Smallest">The smallest that is not 0, whatever its sign.</param>
/// <param name="Largest">The largest, whatever its sign.</param>
/// <param name="MayBeNegative">Whether any door takes one below 0; where none does, each says so in its own words.</param>
/// <param name="Sentence">What is said where it is not.</param>
public sealed record NumberBound(string Of, decimal Smallest, decimal Largest, bool MayBeNegative, string Sentence)
{
    /// <summary>What is wrong with a number; null where nothing is.</summary>
    public Problem? ProblemOf(decimal number, string field)
    {
        var size = Math.Abs(number);
        return size > Largest || (size > 0 && size < Smallest) ? new(Of + "-absurd", field, Sentence) : null;
    }
}

/// <summary>
/// What whatever is sent may be, by the name it goes by in the request: the one table for the filter that refuses it
/// (<see cref="BoundsFilter"/>) and for the OpenAPI document (<see cref="BoundsInDocument"/>). The sizes are the core's
/// (<see cref="Limits"/>).
/// </summary>
public static class Bounds
{
    /// <summary>A weight in grams.</summary>
    public static NumberBound Weight { get; } = new(
        "weight", Limits.Lightest, Limits.HeaviestGrams, MayBeNegative: false,
        "A weight lies between 0.01 g and 100 kg: check the number and its unit.");

    private static readonly NumberBound Volume = new(
        "volume", Limits.Lightest, Limits.LargestMl, MayBeNegative: false,
        "A volume lies between 0.01 ml and 1,000 l: check the number and its unit.");

    private static readonly NumberBound Number = new(
        "number", Limits.SmallestNumber, Limits.LargestNumber, MayBeNegative: true,
        "A number lies between a billionth and a billion: check it.");

    private static readonly HashSet<string> Texts = new(StringComparer.OrdinalIgnoreCase)
    {
        "text", "heating", "atEating", "toChange", "why",
    };

    private static readonly HashSet<string> Lines = new(StringComparer.OrdinalIgnoreCase)
    {
        "lines", "line", "steps", "pantry", "likes", "amount", "atHand", "doneWhen", "said", "home",
    };

    private static readonly HashSet<string> Series = new(StringComparer.OrdinalIgnoreCase)
    {
        "weighIns", "intake", "readings", "in", "put",
    };

    /// <summary>How many letters a text may have.</summary>
    public static int LettersOf(string name) => Texts.Contains(name) ? Limits.Text : Lines.Contains(name) ? Limits.Line : Limits.Name;

    /// <summary>How many things a list or a table may hold.</summary>
    public static int ThingsIn(string name) => Series.Contains(name) ? Limits.Series : Limits.List;

    /// <summary>What a number may be.</summary>
    /// <param name="name">Its name, or that of the list or table it is in.</param>
    public static NumberBound NumberOf(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        if (name.EndsWith("grams", StringComparison.OrdinalIgnoreCase)) return Weight;
        return name.EndsWith("ml", StringComparison.OrdinalIgnoreCase) ? Volume : Number;
    }

    /// <summary>What a number of a type of the core may be, which says its unit itself.</summary>
    public static NumberBound? NumberOfType(string type) => type switch
    {
        nameof(Grams) => Weight,
        nameof(Millilitres) => Volume,
        _ => null,
    };
}
