using System.Globalization;
using System.Text.RegularExpressions;

namespace LivelyTern.Core.Measures;

/// <summary>A number of packages of one size: "2 x 400 g" or "1 (15 oz)".</summary>
/// <param name="Count">How many.</param>
/// <param name="Each">What is in one, in <paramref name="Unit"/>.</param>
/// <param name="Unit">A unit of mass or volume.</param>
public sealed record PackSize(decimal Count, decimal Each, Unit Unit);

/// <summary>An amount as people say it, read from the start of a line.</summary>
/// <param name="From">The quantity, or the lower end of a range.</param>
/// <param name="To">The upper end; the same as <paramref name="From"/> where no range was given.</param>
/// <param name="Unit">The unit of mass or volume, or null for a count or a household measure.</param>
/// <param name="Rest">What follows, with or without "of" before it.</param>
/// <param name="Pack">The packages it was said in, or null.</param>
public sealed record AmountText(decimal From, decimal To, Unit? Unit, string Rest, PackSize? Pack = null)
{
    /// <summary>The largest quantity that can be meant in a kitchen; more than this is a slip of the finger.</summary>
    public const decimal Absurd = 1_000_000m;

    // Amounts within amounts that are read; what is said deeper stays words.
    private const int Deepest = 6;

    private const string Number =
        @"(?:\d+\s+\d+\s*/\s*\d+|\d+\s*/\s*\d+|\d{1,3}(?:,\d{3})+(?:\.\d+)?|\d+(?:[.,]\d+)?\s*[¼½¾⅓⅔⅛⅜⅝⅞]?"
        + @"|[¼½¾⅓⅔⅛⅜⅝⅞])";

    private static readonly Regex Leading = new(
        @"^\s*(?:(?<times>" + Number + @")\s*[x×]\s*)?(?<from>-?" + Number + @")(?:\s*(?:-|–|to|or)\s*(?<to>" + Number
        + @"))?\s*(?<rest>.*)$",
        RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    // "1,000 g" is a thousand; "1,5 kg" and "0,125 l" are decimal commas.
    private static readonly Regex Thousands = new(
        @"^[1-9]\d{0,2}(,\d{3})+(\.\d+)?$", RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking);

    /// <summary>Fractions that are one letter.</summary>
    internal static readonly IReadOnlyDictionary<char, decimal> Fractions = new Dictionary<char, decimal>
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
        ["a half "] = 0.5m,
        ["a quarter of a "] = 0.25m,
        ["a quarter "] = 0.25m,
        ["quarter "] = 0.25m,
        ["three quarters of a "] = 0.75m,
        ["one and a half "] = 1.5m,
        ["two and a half "] = 2.5m,
        ["a third of a "] = 1m / 3,
        ["half of a "] = 0.5m,
        ["half a "] = 0.5m,
        ["half an "] = 0.5m,
        ["half "] = 0.5m,
        ["a couple of "] = 2,
        ["a couple "] = 2,
        ["a "] = 1,
        ["an "] = 1,
        ["one "] = 1,
        ["two "] = 2,
        ["three "] = 3,
        ["four "] = 4,
        ["five "] = 5,
        ["six "] = 6,
        ["seven "] = 7,
        ["eight "] = 8,
        ["nine "] = 9,
        ["ten "] = 10,
        ["twelve "] = 12,
    };

    // Between two amounts that are meant together: "1 cup plus 2 tbsp".
    private static readonly string[] Joining = ["plus ", "and ", "+ ", "& ", ""];
    private static readonly string[] Of = ["of the ", "of "];
    private static readonly string[] Nearly =
        ["about ", "approx. ", "approx ", "approximately ", "around ", "roughly ", "ca. ", "ca ", "c. ", "~"];

    /// <summary>What follows: the food, perhaps with a household measure before it. "A cup of oats" is a cup, and oats.</summary>
    public string Rest { get; init => field = WithoutOf(value); } = WithoutOf(Rest);

    /// <summary>The quantity that counts: the mean of a range ("2-3 tbsp" is 2.5).</summary>
    public decimal Quantity => (From + To) / 2;

    /// <summary>The same amount said in another way, "500 g (1 lb 2 oz)" or "250 ml / 1 cup"; null where it was said once.</summary>
    public AmountText? Also { get; init; }

    /// <summary>
    /// Whether what was said twice is the same amount, give or take the rounding of recipes (15 %): then the two are in one kind of unit
    /// and close.
    /// </summary>
    public bool AgreesWithAlso =>
        Also is not { Unit: { } other } || Unit is null || Unit.Kind != other.Kind
            || Math.Abs((Quantity * Unit.InBase) - (Also.Quantity * other.InBase)) <= Quantity * Unit.InBase * 0.15m;

    /// <summary>Whether "about" was said before it.</summary>
    public bool IsNearly { get; init; }

    /// <summary>True where a range was given, or "about" was said: what follows from it reads "about".</summary>
    public bool IsAbout => From != To || IsNearly;

    /// <summary>
    /// Reads "1 1/3 cup oats", "½ cup", "2-3 tbsp", "150g", "2 x 400 g tin tomatoes" (800 g),
    /// "1 (15 oz) can chickpeas" (15 oz), "1,5 kg", "half a banana", "1 lb 2 oz", "a dozen eggs", "500 g (1 lb 2 oz) potatoes". Where a
    /// volume is said together with a weight, the weight counts.
    /// </summary>
    /// <returns>The amount, or null where the line does not begin with one (or it divides by zero).</returns>
    public static AmountText? Read(string line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return Read(line, 0);
    }

    // An amount may hold others: "1 lb 2 oz", "500 g (1 lb 2 oz)". How many within each other is bounded, whatever is typed.
    private static AmountText? Read(string line, int depth)
    {
        if (depth > Deepest) return null;
        var (said, isNearly) = WithoutNearly(line);
        return ReadExact(said, depth) is { } amount ? amount with { IsNearly = amount.IsNearly || isNearly } : null;
    }

    // "~ about 3": however often it is said, it is said once.
    private static (string Said, bool IsNearly) WithoutNearly(string line)
    {
        var rest = line.AsSpan().TrimStart();
        var isNearly = false;
        while (WordBefore(rest) is { } word)
        {
            rest = rest[word.Length..].TrimStart();
            isNearly = true;
        }

        return (isNearly ? rest.ToString() : line, isNearly);
    }

    private static string? WordBefore(ReadOnlySpan<char> rest)
    {
        foreach (var word in Nearly)
        {
            if (rest.StartsWith(word, StringComparison.OrdinalIgnoreCase)) return word;
        }

        return null;
    }

    private static AmountText? ReadExact(string line, int depth)
    {
        foreach (var (word, quantity) in Words)
        {
            if (line.TrimStart().StartsWith(word, StringComparison.OrdinalIgnoreCase))
                return WithUnit(quantity, quantity, line.TrimStart()[word.Length..], depth);
        }

        if (line.AsSpan().TrimStart() is not [var first, ..] || !(char.IsAsciiDigit(first) || first is '-' || Fractions.ContainsKey(first)))
            return null;
        var match = Leading.Match(line);
        if (!match.Success || match.Groups["rest"].Value is ['%', ..] || Value(match.Groups["from"].Value) is not { } from) return null;
        var to = match.Groups["to"].Success ? Value(match.Groups["to"].Value) : from;
        var times = match.Groups["times"].Success ? Value(match.Groups["times"].Value) : 1;
        if (to is null || times is null) return null;
        var each = WithUnit(from, to.Value, match.Groups["rest"].Value, depth);
        if (!match.Groups["times"].Success) return each;
        var pack = each is { Unit: not null, Pack: null, IsAbout: false } ? new PackSize(times.Value, each.From, each.Unit) : null;
        return each.Scale(times.Value) with { Pack = pack };
    }

    /// <summary>The same amount, scaled: 1.5 times "2 x 400 g" is "3 x 400 g", half of "2-3 tbsp" is "1-1 1/2 tbsp".</summary>
    /// <param name="factor">Above zero.</param>
    public AmountText Scale(decimal factor) => this with
    {
        From = From * factor,
        To = To * factor,
        Pack = Pack is null ? null : Pack with { Count = Pack.Count * factor },
        Also = Also?.Scale(factor),
    };

    /// <summary>As many packages of a size: two of 400 g.</summary>
    internal AmountText PackedIn(AmountText each) => this with
    {
        From = From * each.From,
        To = To * each.To,
        Unit = each.Unit,
        Pack = IsAbout || each.IsAbout ? null : new(From, each.From, each.Unit!),
    };

    /// <summary>A text that is an amount of mass or volume and nothing else, "about 150 g"; null for any other.</summary>
    public static AmountText? Alone(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return Alone(text, 0);
    }

    private static AmountText? Alone(string text, int depth)
    {
        var said = text.StartsWith("or ", StringComparison.OrdinalIgnoreCase) ? text[3..] : text;
        return Read(said, depth) is { Unit: not null, Rest: "" } alone ? alone : null;
    }

    /// <summary>The amount as it is written, which reads back as itself: "1 1/3 cup", "2-3 tbsp", "2 x 400 g", "3".</summary>
    public string Print()
    {
        var about = IsNearly ? "about " : "";
        if (Pack is not null) return $"{about}{Say(Pack.Count)} x {Say(Pack.Each)} {Pack.Unit.Name}";
        var number = about + (From != To ? $"{Say(From)}-{Say(To)}" : Say(From));
        return Unit is null ? number : $"{number} {Unit.Name}";
    }

    /// <summary>A number as cooks write it: whole, with a common fraction, or with up to four decimals. "1 1/3", "0.3125", "250".</summary>
    public static string Say(decimal number)
    {
        var whole = decimal.Truncate(number);
        var part = number - whole;
        if (part == 0) return whole.ToString("0", CultureInfo.InvariantCulture);
        foreach (var below in number is > 0 and < 100 ? (ReadOnlySpan<int>)[2, 3, 4, 8] : [])
        {
            var above = Math.Round(part * below);
            if (above == 0 || above == below || Math.Abs((above / below) - part) > 0.000_001m) continue;
            var fraction = string.Create(CultureInfo.InvariantCulture, $"{above:0}/{below}");
            return whole == 0 ? fraction : string.Create(CultureInfo.InvariantCulture, $"{whole:0} {fraction}");
        }

        return Math.Abs(number) >= 100
            ? number.ToString("0.#", CultureInfo.InvariantCulture)
            : number.ToString("0.####", CultureInfo.InvariantCulture);
    }

    private static AmountText WithUnit(decimal from, decimal to, string rest, int depth)
    {
        rest = rest.Trim();
        if (InBrackets(rest, depth) is var (each, after)) return new AmountText(from, to, null, after).PackedIn(each);
        if (rest.StartsWith("dozen ", StringComparison.OrdinalIgnoreCase)) return new(from * 12, to * 12, null, rest[6..].TrimStart());

        // "500g/1lb": a second amount may follow without a space.
        var slash = rest.IndexOf('/', StringComparison.Ordinal);
        if (slash > 0 && Unit.Find(rest[..slash]) is { } unitBefore && BeginsWithNumber(rest[(slash + 1)..]))
            return SaidTwice(new(from, to, unitBefore, rest[slash..]), depth);
        var words = rest.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        for (var take = Math.Min(3, words.Length); take > 0; take--)
        {
            if (Unit.Find(string.Join(' ', words[..take]).TrimEnd(',')) is not { } unit) continue;
            return SaidTwice(WithMore(new(from, to, unit, string.Join(' ', words[take..])), depth), depth);
        }

        return new(from, to, null, rest);
    }

    internal static string WithoutOf(string rest) =>
        rest.TrimStart(' ', ',') is var text
            && Of.FirstOrDefault(word => text.StartsWith(word, StringComparison.OrdinalIgnoreCase)) is { } of
            ? text[of.Length..].TrimStart()
            : text;

    private static bool BeginsWithNumber(string text) =>
        text.TrimStart() is [var first, ..] && (char.IsAsciiDigit(first) || Fractions.ContainsKey(first));

    // "1 lb 2 oz", "1 cup plus 2 tbsp": smaller units of the same kind are added.
    private static AmountText WithMore(AmountText amount, int depth)
    {
        if (amount.IsAbout) return amount;
        var joining = Joining.First(word => amount.Rest.StartsWith(word, StringComparison.OrdinalIgnoreCase));
        var after = amount.Rest[joining.Length..];
        if (!BeginsWithNumber(after) || Read(after, depth + 1) is not { IsAbout: false, Pack: null, Unit: { } smaller } more) return amount;
        if (smaller.Kind != amount.Unit!.Kind || smaller.InBase >= amount.Unit.InBase) return amount;
        decimal Larger(decimal quantity) => quantity * smaller.InBase / amount.Unit.InBase;
        return new(amount.From + Larger(more.From), amount.To + Larger(more.To), amount.Unit, more.Rest) { Also = more.Also };
    }

    // "(15 oz) can": the amount within the brackets, and what follows them.
    private static (AmountText Inside, string After)? InBrackets(string rest, int depth) =>
        rest.StartsWith('(') && rest.IndexOf(')', StringComparison.Ordinal) is > 1 and var close
            && Alone(rest[1..close], depth + 1) is { } inside
            ? (inside, rest[(close + 1)..].Trim())
            : null;

    private static AmountText SaidTwice(AmountText amount, int depth)
    {
        if (amount.Also is not null) return amount;
        AmountText? other = null;
        var rest = amount.Rest;
        if (rest.StartsWith('/') && BeginsWithNumber(rest[1..]) && Read(rest[1..], depth + 1) is { Unit: not null } second)
            (other, rest) = (second with { Rest = "" }, second.Rest);
        else if (InBrackets(rest, depth) is var (inside, after))
            (other, rest) = (inside, after);
        if (other is null) return amount;
        return amount.Unit!.Kind == UnitKind.Volume && other.Unit!.Kind == UnitKind.Mass
            ? other with { Rest = rest, Also = amount with { Rest = "" } }
            : amount with { Rest = rest, Also = other };
    }

    private static decimal? Value(string text)
    {
        var compact = Thousands.IsMatch(text.Trim())
            ? text.Trim().Replace(",", "", StringComparison.Ordinal)
            : text.Trim().Replace(',', '.');
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
    private static decimal? Parse(string digits)
    {
        if (digits.Trim().Length > 24) return Absurd * 10;
        var isNumber = decimal.TryParse(digits.Trim(), NumberStyles.Number, CultureInfo.InvariantCulture, out var value);
        return isNumber ? Math.Clamp(value, -Absurd * 10, Absurd * 10) : null;
    }
}
