using System.Globalization;
using System.Text;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Recipes.Steps;

/// <summary>What a piece of a sentence is.</summary>
internal enum StepWordKind
{
    /// <summary>A word, in lower case.</summary>
    Word,

    /// <summary>A number.</summary>
    Number,

    /// <summary>A full stop, comma, bracket or the like.</summary>
    Mark,
}

/// <summary>A word, number or mark of a sentence.</summary>
/// <param name="Kind">Which of them.</param>
/// <param name="Text">The word or mark; a number as it stands.</param>
/// <param name="Value">The number; 0 for others.</param>
internal readonly record struct StepWord(StepWordKind Kind, string Text, decimal Value = 0)
{
    /// <summary>Whether it is this word or mark.</summary>
    public bool Is(string text) => Kind != StepWordKind.Number && string.Equals(Text, text, StringComparison.Ordinal);

    /// <summary>Whether it is one of these words or marks.</summary>
    public bool IsOneOf(IReadOnlySet<string> texts) => Kind != StepWordKind.Number && texts.Contains(Text);
}

/// <summary>Sentences taken apart into words, numbers and marks. Numbers said as words are numbers: "twenty", "1½", "half".</summary>
internal static class StepWords
{
    private static readonly Dictionary<string, decimal> Numbers = new(StringComparer.Ordinal)
    {
        ["one"] = 1,
        ["two"] = 2,
        ["three"] = 3,
        ["four"] = 4,
        ["five"] = 5,
        ["six"] = 6,
        ["seven"] = 7,
        ["eight"] = 8,
        ["nine"] = 9,
        ["ten"] = 10,
        ["twelve"] = 12,
        ["fifteen"] = 15,
        ["twenty"] = 20,
        ["twenty-five"] = 25,
        ["thirty"] = 30,
        ["thirty-five"] = 35,
        ["forty"] = 40,
        ["forty-five"] = 45,
        ["fifty"] = 50,
        ["sixty"] = 60,
        ["ninety"] = 90,
    };

    /// <summary>A text taken apart, in order.</summary>
    /// <param name="text">As written.</param>
    public static List<StepWord> Of(string text)
    {
        var words = new List<StepWord>();
        for (var at = 0; at < text.Length;)
        {
            var letter = text[at];
            if (char.IsDigit(letter) || AmountText.Fractions.ContainsKey(letter)) words.Add(Number(text, ref at));
            else if (char.IsLetter(letter) || letter is '°' or 'º' or '˚' or '℃' or '℉') words.Add(Word(text, ref at));
            else
            {
                at++;

                // "w/ butter": with.
                if (letter is '/' && words is [.., { Text: "w" }]) words[^1] = new(StepWordKind.Word, "with");
                else if (!char.IsWhiteSpace(letter) || letter is '\n') words.Add(new(StepWordKind.Mark, MarkOf(letter)));
            }
        }

        return words;
    }

    private static string MarkOf(char letter) => letter switch
    {
        '–' or '—' or '−' => "-",
        '’' or '‘' => "'",
        '\n' => ".",
        _ => letter.ToString(),
    };

    private static StepWord Number(string text, ref int at)
    {
        var start = at;
        var whole = 0m;
        if (char.IsDigit(text[at]))
        {
            whole = Digits(text, ref at);
            if (at + 1 < text.Length && text[at] is '/' && char.IsDigit(text[at + 1]) && whole < 10)
            {
                var behind = at + 1;
                var below = Digits(text, ref behind);
                if (below is 2 or 3 or 4 or 8)
                {
                    at = behind;
                    return new(StepWordKind.Number, text[start..at], whole / below);
                }
            }

            if (MixedFraction(text, at) is { } mixed) (whole, at) = (whole + mixed.Value, mixed.End);
        }

        if (at < text.Length && AmountText.Fractions.TryGetValue(text[at], out var part)) (whole, at) = (whole + part, at + 1);
        return new(StepWordKind.Number, text[start..at], whole);
    }

    // "1 1/2": the fraction behind a whole number.
    private static (decimal Value, int End)? MixedFraction(string text, int at)
    {
        if (at >= text.Length || text[at] is not (' ' or '-')) return null;
        var next = at + 1;
        if (next < text.Length && AmountText.Fractions.TryGetValue(text[next], out var part))
            return text[at] == ' ' ? (part, next + 1) : null;
        if (next + 2 >= text.Length || text[next + 1] != '/' || text[next] is not ('1' or '2' or '3')) return null;
        if (text[next + 2] is not ('2' or '3' or '4')) return null;
        return (decimal.Divide(text[next] - '0', text[next + 2] - '0'), next + 3);
    }

    private static decimal Digits(string text, ref int at)
    {
        var digits = new StringBuilder();
        while (at < text.Length && (char.IsDigit(text[at]) || IsPoint(text, at)))
        {
            if (digits.Length < 12) digits.Append(text[at] is ',' ? '.' : text[at]);
            at++;
        }

        return decimal.TryParse(digits.ToString(), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var value) ? value : 0;
    }

    private static bool IsPoint(string text, int at) =>
        text[at] is '.' or ',' && at > 0 && at + 1 < text.Length && char.IsDigit(text[at - 1]) && char.IsDigit(text[at + 1])
            && text.AsSpan(0, at).LastIndexOfAny('.', ',') is var point
            && (point < 0 || text.AsSpan(point + 1, at - point - 1).ContainsAnyExceptInRange('0', '9'));

    private static StepWord Word(string text, ref int at)
    {
        var start = at;
        while (at < text.Length && (char.IsLetter(text[at]) || IsJoin(text, at) || text[at] is '°' or 'º' or '˚' or '℃' or '℉')) at++;
        var word = text[start..at].ToLowerInvariant().Replace('º', '°').Replace('˚', '°');
        word = word.Replace("℃", "°c", StringComparison.Ordinal).Replace("℉", "°f", StringComparison.Ordinal);
        return Numbers.TryGetValue(word, out var value) ? new(StepWordKind.Number, word, value) : new(StepWordKind.Word, word);
    }

    private static bool IsJoin(string text, int at) =>
        text[at] is '-' && at + 1 < text.Length && char.IsLetter(text[at - 1]) && char.IsLetter(text[at + 1]);
}
