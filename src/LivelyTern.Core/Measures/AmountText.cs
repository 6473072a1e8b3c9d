using System.Globalization;
using System.Text.RegularExpressions;

namespace LivelyTern.Core.Measures;

/// <summary>An amount as people say it, read from the start of a line.</summary>
/// <param name="From">The quantity, or the lower end of a range.</param>
/// <param name="To">The upper end; the same as <paramref name="From"/> where no range was given.</param>
/// <param name="Unit">The unit of mass or volume, or null for a count or a household measure.</param>
/// <param name="Rest">What follows: the food, perhaps with a household measure before it.</param>
public sealed record AmountText(decimal From, decimal To, Unit? Unit, string Rest)
{
    /// <summary>The largest quantity that can be meant in a kitchen; more than this is a slip of the finger.</summary>
    public const decimal Absurd = 1_000_000m;

    private const string Number = @"(?:\d+\s+\d+\s*/\s*\d+|\d+\s*/\s*\d+|\d{1,3}(?:,\d{3})+(?:\.\d+)?|\d+(?:[.,]\d+)?\s*[¼½¾⅓⅔⅛⅜⅝⅞]?|[¼½¾⅓⅔⅛⅜⅝⅞])";

    private static readonly Regex Leading = new(
        @"^\s*(?:(?<times>\d+)\s*[x×]\s*)?(?<from>-?" + Number + @")(?:\s*(?:-|–|to)\s*(?<to>" + Number + @"))?\s*(?<rest>.*)$",
        RegexOptions.ExplicitCapture | RegexOptions.Compiled | RegexOptions.IgnoreCase,
        TimeSpan.FromSeconds(1));

    // "1,000 g" is a thousand; "1,5 kg" and "0,125 l" are decimal commas.
    private static readonly Regex Thousands = new(@"^[1-9]\d{0,2}(,\d{3})+(\.\d+)?$", RegexOptions.ExplicitCapture | RegexOptions.Compiled, TimeSpan.FromSeconds(1));

    private static readonly Dictionary<char, decimal> Fractions = new()
    {
        ['¼'] = 1m / 4,
        ['½'] = 1m / 2,
        ['¾'] = 3m / 4,
        ['⅓'] = 1m / 3,
        ['⅔'] = 2m / 3,
        ['⅛'] = 1m / 8,
        ['⅜'] = 3m / 8,
        ['⅝'] = 5m / 8,
        ['⅞'] = 7m / 8,
    };

    private static readonly Dictionary<string, decimal> Words = new(StringComparer.OrdinalIgnoreCase)
    {
        ["half a "] = 0.5m,
        ["half an "] = 0.5m,
        ["half "] = 0.5m,
        ["a "] = 1,
        ["an "] = 1,
        ["one "] = 1,
        ["two "] = 2,
        ["three "] = 3,
        ["four "] = 4,
    };

    /// <summary>The quantity that counts: the mean of a range ("2-3 tbsp" is 2.5).</summary>
    public decimal Quantity => (From + To) / 2;

    /// <summary>True where a range was given: what follows from it reads "about".</summary>
    public bool IsAbout => From != To;

    /// <summary>
    /// Reads "1 1/3 cup oats", "½ cup", "2-3 tbsp", "150g", "2 x 400 g tin tomatoes" (800 g),
    /// "1 (15 oz) can chickpeas" (15 oz), "1,5 kg", "half a banana".
    /// </summary>
    /// <returns>The amount, or null where the line does not begin with one (or it divides by zero).</returns>
    public static AmountText? Read(string line)
    {
        ArgumentNullException.ThrowIfNull(line);
        foreach (var (word, quantity) in Words)
        {
            if (line.TrimStart().StartsWith(word, StringComparison.OrdinalIgnoreCase))
                return WithUnit(quantity, quantity, line.TrimStart()[word.Length..]);
        }

        var match = Leading.Match(line);
        if (!match.Success || Value(match.Groups["from"].Value) is not { } from) return null;
        var to = match.Groups["to"].Success ? Value(match.Groups["to"].Value) : from;
        var times = match.Groups["times"].Success ? Value(match.Groups["times"].Value) : 1;
        return to is null || times is null ? null : WithUnit(from * times.Value, to.Value * times.Value, match.Groups["rest"].Value);
    }

    private static AmountText WithUnit(decimal from, decimal to, string rest)
    {
        rest = rest.Trim();
        if (rest.StartsWith('(') && rest.IndexOf(')', StringComparison.Ordinal) is > 1 and var close && Read(rest[1..close]) is { Unit: not null, Rest: "" } each)
            return new(from * each.From, to * each.To, each.Unit, rest[(close + 1)..].Trim());
        var words = rest.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        for (var take = Math.Min(3, words.Length); take > 0; take--)
        {
            if (Unit.Find(string.Join(' ', words[..take])) is not { } unit) continue;
            var after = string.Join(' ', words[take..]);
            return new(from, to, unit, after.StartsWith("of ", StringComparison.OrdinalIgnoreCase) ? after[3..] : after);
        }

        return new(from, to, null, rest);
    }

    private static decimal? Value(string text)
    {
        var compact = Thousands.IsMatch(text.Trim()) ? text.Trim().Replace(",", "", StringComparison.Ordinal) : text.Trim().Replace(',', '.');
        var whole = 0m;
        if (Fractions.TryGetValue(compact[^1], out var fraction))
        {
            whole = fraction;
            compact = compact[..^1].Trim();
            if (compact.Length == 0) return whole;
        }
        else if (compact.Contains('/', StringComparison.Ordinal))
        {
            var slash = compact.IndexOf('/', StringComparison.Ordinal);
            var before = compact[..slash].TrimEnd();
            var space = before.LastIndexOf(' ');
            if (Parse(compact[(slash + 1)..]) is not { } below || below <= 0 || Parse(before[(space + 1)..]) is not { } above) return null;
            return (space > 0 ? Parse(before[..space]) : 0) + (above / below);
        }

        return Parse(compact) + whole;
    }

    // Nine digits and more are absurd in a kitchen, and would overflow the sums: they read as the absurd limit and are refused by it.
    private static decimal? Parse(string digits) =>
        digits.Trim().Length > 24 ? Absurd * 10
        : decimal.TryParse(digits.Trim(), NumberStyles.Number, CultureInfo.InvariantCulture, out var value) ? Math.Clamp(value, -Absurd * 10, Absurd * 10)
        : null;
}
