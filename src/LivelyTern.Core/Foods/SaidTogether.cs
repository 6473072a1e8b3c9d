using System.Text.RegularExpressions;
using LivelyTern.Core.Measures;
using static LivelyTern.Core.Foods.LineText;

namespace LivelyTern.Core.Foods;

/// <summary>Lines that name several foods: one would be read, and the others lost with their allergens.</summary>
internal static class SaidTogether
{
    private const int Most = 6;

    // "1 egg plus 2 egg whites", "cornstarch mixed with 2 tbsp water": what follows has an amount of its own.
    private static readonly Regex Joint = Pattern(
        @",?\s+(?:(?<mixed>(?:mixed|whisked|beaten|combined|blended|dissolved|stirred|soaked|diluted|scrambled"
        + @"|fried|cooked|saut[eé]ed|softened|browned|tossed|topped|drizzled|dressed|spread|served|filled"
        + @"|stuffed|made)\s+(?:with|in|into))"
        + @"|plus|and|with|on)\s+(?:the\s+)?"
        + @"|\s*\+\s*|\s+&\s+");

    private static readonly string[] Joining = ["+", " & ", " plus ", " and ", " with ", " on ", " in ", " into "];

    // "2 tbsp each chopped parsley and dill"; "salt and pepper, 1/2 tsp each".
    private static readonly Regex EachBefore = Pattern(@"^(?<amount>\S.{0,40}?)\s+each\s+(?:of\s+)?(?<names>[^(]+)$");

    private static readonly Regex EachAfter = Pattern(@"^(?<names>[^(\d]+),\s*(?<amount>[\d¼½¾⅓⅔⅛⅜⅝⅞][^,(]{0,30}?)\s+each$");

    private static readonly Regex MoreOfIt = Pattern(@"^(?:for|to|more|extra)\b");

    private static readonly Regex Between = Pattern(@",\s*(?:and\s+)?|\s+(?:and|&)\s+");

    /// <summary>The lines that an amount of each makes: "2 tbsp parsley" and "2 tbsp dill"; empty where it says no such thing.</summary>
    public static IReadOnlyList<string> OfEach(string line)
    {
        if (!line.Contains(" each", StringComparison.OrdinalIgnoreCase)) return [];
        var match = EachBefore.Match(line) is { Success: true } before ? before : EachAfter.Match(line);
        if (!match.Success) return [];
        var said = match.Groups["amount"].Value;
        var names = Between.Split(match.Groups["names"].Value).Select(name => name.Trim()).Where(name => name.Length > 0).ToList();
        return names.Count is < 2 or > Most || AmountText.Read(said) is not { } amount || amount.Rest.Any(char.IsDigit)
            || (amount.Rest.Length > 0 && !FoodWords.IsCountedIn(amount.Rest))
            ? []
            : [.. names.Select(name => $"{said} {name}")];
    }

    /// <summary>The two lines that a line with two amounts makes, or null. "Coffee with 60 ml milk" is one coffee, and milk.</summary>
    public static (string One, string Other)? Joined(string line)
    {
        if (!Joining.Any(word => line.Contains(word, StringComparison.OrdinalIgnoreCase))) return null;
        foreach (Match joint in Joint.Matches(line))
        {
            var (one, other) = (line[..joint.Index].TrimEnd(' ', ','), line[(joint.Index + joint.Length)..].Trim());
            if (IsOpenBracket(one) || !IsAThing(one)) continue;

            // A litre of stock made with two cubes has them in it.
            if (joint.Groups["mixed"].Value.StartsWith("made", StringComparison.OrdinalIgnoreCase)
                && AmountText.Read(one) is not { Unit.Kind: UnitKind.Mass }) continue;
            if (AmountText.Read(other) is { From: > 0 } more && more.Rest is not ['%', ..])
                return (HasAmount(one) ? one : $"1 {one}", Whole(other, more, one));
            if (joint.Groups["mixed"].Success && HasAmount(one)) return (one, other);
        }

        return null;
    }

    /// <summary>
    /// The lines of "1 egg, 2 egg whites": what stands behind a comma with an amount and a food of its own is a line, all else a note to
    /// the line before it. Empty where there is only one.
    /// </summary>
    /// <param name="line">The line.</param>
    /// <param name="isFood">Whether words are those of a food.</param>
    public static IReadOnlyList<string> Listed(string line, Func<string, bool> isFood)
    {
        var parts = line.Split(", ");
        if (parts.Length < 2 || !HasFood(parts[0])) return [];
        var lines = new List<string> { parts[0] };
        foreach (var part in parts.Skip(1))
        {
            if (!IsOpenBracket(lines[^1]) && HasFood(part)) lines.Add(part);
            else lines[^1] += ", " + part;
        }

        return lines.Count is < 2 or > Most ? [] : lines;

        bool HasFood(string part) =>
            AmountText.Read(part) is { From: > 0, Rest: { Length: > 0 } rest } && !FoodWords.IsCountedIn(rest) && isFood(rest);
    }

    /// <summary>The foods of "salt and pepper" or "salt, pepper, paprika", said without an amount; empty for anything else.</summary>
    public static IReadOnlyList<string> Bare(string line)
    {
        if (line.Contains('(', StringComparison.Ordinal)) return [];
        var names = Between.Split(line).Select(name => name.Trim()).Where(name => name.Length > 0).ToList();
        return names.Count is < 2 or > Most ? [] : names;
    }

    // Not only the first half of an amount: "1 cup plus 2 tbsp oats".
    private static bool IsAThing(string text) =>
        text.Any(char.IsLetter) && (AmountText.Read(text) is not { } amount || !NameFacets.Of(amount.Rest).IsNameless);

    // "2 tbsp oil, plus 1 tbsp for frying": what follows is more of the same.
    private static string Whole(string other, AmountText more, string one)
    {
        var isBare = more.Unit is not null && (more.Rest.Length == 0 || MoreOfIt.IsMatch(more.Rest));
        return isBare ? $"{more.Print()} {Food(one)} {more.Rest}".TrimEnd() : other;
    }

    private static bool HasAmount(string text) => AmountText.Read(text) is not null || LineText.AtTheEnd(text) is not null;

    private static string Food(string text) => AmountText.Read(text)?.Rest ?? text;

    private static bool IsOpenBracket(string text) => text.Count(letter => letter == '(') > text.Count(letter => letter == ')');
}
