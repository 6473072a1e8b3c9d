using System.Text.RegularExpressions;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>
/// A line as it was copied or typed, brought to one way of writing: what stands before it, numbers, hyphens, the amount first.
/// </summary>
internal static class LineText
{
    // Before a line of a list that was copied.
    private static readonly char[] Bullets = ['-', '–', '—', '•', '·', '*', '▢', '□', '☐', '►', '✓', '✔', '+'];

    private static readonly Regex Box = Pattern(@"^\[[ x]?\]\s*(?<rest>\S.*)$");

    // "1) 200 g lentils", "2. 3 tbsp oil": a number that only counts the lines.
    private static readonly Regex Numbering = Pattern(@"^\d{1,2}[.)]\s+(?<rest>[\d¼½¾⅓⅔⅛⅜⅝⅞a].*)$");

    // "For the sauce: 2 tbsp soy sauce", "Optional toppings: sliced avocado".
    private static readonly Regex Label = Pattern(@"^(?<label>[\p{L}][\p{L} ]{1,40}):\s*(?<rest>\S.*)$");

    // "15-ounce", "14.5-oz", "3-inch".
    private static readonly Regex Hyphen = Pattern(@"(?<number>\d)-(?<unit>\p{L})");

    // "1 cal spray": a spray of one kilocalorie, no amount.
    private static readonly Regex OneCalorie = Pattern(@"^(?:fry\s+)?1[\s-]?k?cal(?:orie)?s?\s");

    // "2 lg eggs", "1 med. potato", "crackers w/ cheese"; "s&p".
    private static readonly Regex Short = Pattern(@"(?:^|\s)(?:lge?|sml?|med)\.?(?:\s|,|$)");
    private static readonly Regex SaltAndPepper = Pattern(@"^s\s?(?:&|\+|and)\s?p$");

    // "1-1/2 cups", "1 and 1/4 cups", "1 & ½": a whole number and its part.
    private static readonly Regex Mixed = Pattern(
        @"^(?<whole>\d+)\s*(?:-|–|\sand\s|\s&\s|\s?\+\s?)\s*(?<part>\d/\d\d?|[¼½¾⅓⅔⅛⅜⅝⅞])(?<rest>\D.*)?$");

    // "Flour 200 g", "eggs: 2", "courgettes, 2 medium", "eggs x 3": the amount stands at the end, perhaps with a note behind it.
    private static readonly Regex Trailing = Pattern(
        @"^(?<food>\D*[^\d\s:,–(-])(?<mark>\s*[:–-]\s*|\s*,\s*|\s+x\s*|\s+)(?<amount>[\d¼½¾⅓⅔⅛⅜⅝⅞].*)$");

    // "5% mince 500g": what stands first is no amount.
    private static readonly Regex ShareFirst = Pattern(@"^(?<share>\d[\d.,]*\s?%)(?<rest>.*)$");

    private static readonly Regex OneAtTheEnd = Pattern(
        @"^(?<food>[^,:(]+),\s*(?<measure>(?:a\s+)?(?:(?:small|medium|large|big)\s+)?\p{L}+)$");

    /// <summary>The line without what stands before it in a list, its numbers written in one way.</summary>
    public static string Plain(string text)
    {
        var line = text.Replace('\u00a0', ' ').Replace('\u2044', '/').Trim();
        if (line is [var bullet, ' ' or '\t', ..] && Bullets.Contains(bullet)) line = line[1..].TrimStart();
        if (Box.Match(line) is { Success: true } box) line = box.Groups["rest"].Value;
        if (Numbering.Match(line) is { Success: true } numbered && AmountText.Read(numbered.Groups["rest"].Value) is not null)
            line = numbered.Groups["rest"].Value;
        if (line.Contains("cal", StringComparison.OrdinalIgnoreCase)) line = OneCalorie.Replace(line, "low-calorie ");
        if (Says(line, "w/") || Short.IsMatch(line)) line = string.Join(' ', line.Split(' ').Select(Long));
        if (SaltAndPepper.IsMatch(line)) return "salt and pepper";
        if (line.Contains('-', StringComparison.Ordinal)) line = Hyphen.Replace(line, "${number} ${unit}");
        return line is [>= '0' and <= '9', ..] && Mixed.Match(line) is { Success: true } mixed
            ? $"{mixed.Groups["whole"].Value} {mixed.Groups["part"].Value}{mixed.Groups["rest"].Value}"
            : line;
    }

    /// <summary>
    /// What a line is headed by, and the line: "For the sauce" of "For the sauce: 2 tbsp soy sauce"; null where nothing heads it.
    /// </summary>
    public static (string Head, string Line)? Headed(string line)
    {
        if (!line.Contains(':', StringComparison.Ordinal) || Label.Match(line) is not { Success: true } label) return null;
        var (head, rest) = (label.Groups["label"].Value, label.Groups["rest"].Value);
        var isOptional = head.StartsWith("optional", StringComparison.OrdinalIgnoreCase);
        if (isOptional) return ("optional", rest);
        if (AmountText.Read(rest) is not { Rest.Length: > 0 } amount) return null;
        var first = amount.Rest.Split(' ', 2)[0];
        var isOfTheHead = FoodWords.IsSize(first) || FoodWords.IsCountedIn(first) || amount.Rest[0] is '(' or ',';
        return isOfTheHead || NameFacets.Of(amount.Rest).IsNameless ? null : (head, rest);
    }

    /// <summary>
    /// The amount at the end of a line. Only where nothing else can be meant: a unit or a size follows the number, or a mark stands before
    /// it ("flour type 550" has neither).
    /// </summary>
    public static AmountText? AtTheEnd(string line)
    {
        List<string> shares = [];
        while (ShareFirst.Match(line) is { Success: true } share)
        {
            shares.Add(share.Groups["share"].Value);
            line = share.Groups["rest"].Value;
        }

        var read = BehindShares(line);
        return shares.Count == 0 || read is null ? read : read with { Rest = $"{string.Join(' ', shares)} {read.Rest}" };
    }

    private static AmountText? BehindShares(string line)
    {
        if (Trailing.Match(line.Trim()) is not { Success: true } match)
        {
            // "Spinach, big handful".
            return OneAtTheEnd.Match(line.Trim()) is { Success: true } one && one.Groups["measure"].Value.Split(' ') is [.., var last]
                && FoodWords.IsCountedIn(last) && !FacetWords.IsDescribing(FoodWords.Singular(last))
                ? new(1, 1, null, $"{one.Groups["measure"].Value} {one.Groups["food"].Value}")
                : null;
        }

        if (AmountText.Read(match.Groups["amount"].Value) is not { } amount) return null;
        var food = match.Groups["food"].Value.Trim();
        var isTimes = food.EndsWith(" x", StringComparison.OrdinalIgnoreCase);
        if (isTimes) food = food[..^2];
        var mark = match.Groups["mark"].Value.Trim();
        var at = amount.Rest.AsSpan().IndexOfAny(',', '(') is >= 0 and var found ? found : amount.Rest.Length;
        var (said, note) = (amount.Rest[..at].Trim(), amount.Rest[at..].Trim());
        var words = FoodWords.All(said);
        var isMeasure = words.Count > 0 && words.All(word => FoodWords.IsSize(word) || FoodWords.IsCountedIn(word));
        if (amount.Unit is not null && (said.Length == 0 || isMeasure)) return With($"{said} {food}");
        if (amount.Unit is not null && NameFacets.Of(said).IsNameless) return amount with { Rest = $"{food}, {said}{note}" };
        if (amount.Unit is null && said.Length == 0 && (mark.Length > 0 || amount.From < 1 || isTimes)) return With(food);
        return amount.Unit is null && isMeasure ? With($"{said} {food}") : null;

        AmountText With(string rest) => amount with { Rest = note is ['(', ..] ? $"{rest} {note}" : rest.Trim() + note };
    }

    /// <summary>
    /// A line that begins with a measure and no number, "handful of almonds", "pint of beer", with the one it means; else null.
    /// </summary>
    public static AmountText? OfOne(string line)
    {
        var words = line.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (words.Length < 2) return null;
        var from = FoodWords.IsSize(words[0]) || FoodWords.FullnessOf(words[0]) is not null ? 1 : 0;
        if (from + 1 >= words.Length) return null;
        var measure = words[from];
        var isOne = string.Equals(FoodWords.Singular(measure), measure, StringComparison.Ordinal);
        var isMeasure = FoodWords.IsCountedIn(measure) || Unit.Find(measure) is { Kind: UnitKind.Volume };
        return isOne && isMeasure && !LineMeasures.IsWholeOne(measure) ? AmountText.Read("1 " + line) : null;
    }

    /// <summary>A pattern whose time grows with the length of a line only, whatever is typed.</summary>
    public static Regex Pattern(string pattern) =>
        new(pattern, RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    private static string Long(string word) => word.TrimEnd('.', ',').ToLowerInvariant() switch
    {
        "lg" or "lge" => "large",
        "sm" or "sml" => "small",
        "med" => "medium",
        "w/" => "with",
        _ => word,
    };

    /// <summary>Whether a text holds a word, in capitals or not.</summary>
    public static bool Says(string text, string word) => text.Contains(word, StringComparison.OrdinalIgnoreCase);
}
