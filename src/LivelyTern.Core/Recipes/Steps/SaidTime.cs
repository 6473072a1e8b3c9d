namespace LivelyTern.Core.Recipes.Steps;

/// <summary>A stretch of time that a sentence says.</summary>
/// <param name="From">The first of its words.</param>
/// <param name="To">Behind its last word.</param>
/// <param name="Minutes">How long: the longer end of a range, so that the day ends on time; less than a minute is one.</param>
/// <param name="IsVague">Whether it says "a few" and the like.</param>
internal readonly record struct SaidTime(int From, int To, int Minutes, bool IsVague)
{
    private const decimal Hour = 60, MostMinutes = 10_080, Overnight = 480;

    private static readonly Dictionary<string, decimal> Units = new(StringComparer.Ordinal)
    {
        ["minute"] = 1,
        ["minutes"] = 1,
        ["min"] = 1,
        ["mins"] = 1,
        ["minuets"] = 1,
        ["minuts"] = 1,
        ["m"] = 1,
        ["hour"] = Hour,
        ["hours"] = Hour,
        ["hr"] = Hour,
        ["hrs"] = Hour,
        ["h"] = Hour,
        ["second"] = 1m / 60,
        ["seconds"] = 1m / 60,
        ["sec"] = 1m / 60,
        ["secs"] = 1m / 60,
        ["day"] = 1440,
        ["days"] = 1440,
    };

    private static readonly HashSet<string> Ranging = ["-", "to", "or", "/"];

    /// <summary>All the times a sentence says, in order.</summary>
    public static List<SaidTime> In(IReadOnlyList<StepWord> words)
    {
        var found = new List<SaidTime>();
        for (var at = 0; at < words.Count;)
        {
            if (At(words, at) is { } time)
            {
                found.Add(time);
                at = time.To;
            }
            else at++;
        }

        return found;
    }

    private static SaidTime? At(IReadOnlyList<StepWord> words, int start)
    {
        if (Word(words, start) is "overnight") return new(start, start + 1, (int)Overnight, false);
        var at = start;
        if (Amount(words, ref at) is not { } amount) return null;
        var longest = amount.Value;
        var isVague = amount.IsVague;

        // "25-30 minutes": the second number has the unit; "45 minutes to 1 hour" has one each.
        if (Unit(words, at, out var afterUnit) is null)
        {
            var second = at;
            if (second >= words.Count || !words[second].IsOneOf(Ranging)) return null;
            second++;
            if (Amount(words, ref second) is not { } upper || Unit(words, second, out afterUnit) is null) return null;
            (longest, at) = (Math.Max(longest, upper.Value), second);
        }

        var unit = Unit(words, at, out at)!.Value;
        var minutes = longest * unit;

        // "a minute or two", "an hour or so"
        if (Word(words, at) is "or" && at + 1 < words.Count && words[at + 1] is { Kind: StepWordKind.Number, Value: <= 3 } last
            && Unit(words, at + 2, out _) is null)
            (minutes, at) = (Math.Max(minutes, last.Value * unit), at + 2);
        minutes += AndMore(words, ref at, unit);
        if (at < words.Count && words[at].IsOneOf(Ranging) && at + 1 < words.Count)
        {
            var second = at + 1;
            if (Amount(words, ref second) is { } upper && Unit(words, second, out var end) is { } larger)
            {
                var (more, to) = (upper.Value * larger, end);
                more += AndMore(words, ref to, larger);
                if (more > minutes) (minutes, at) = (more, to);
            }
        }

        return minutes is <= 0 or > MostMinutes * 10 ? null : new(start, at, (int)Math.Min(MostMinutes, Math.Ceiling(minutes)), isVague);
    }

    // "and a half" behind hours, "20 minutes" behind "1 hour", the bare 20 in "1 h 20".
    private static decimal AndMore(IReadOnlyList<StepWord> words, ref int at, decimal unit)
    {
        if (unit < Hour) return 0;
        var next = at;
        var isAnd = Word(words, next) is "and";
        if (isAnd) next++;
        if (Word(words, next) is "a" && Word(words, next + 1) is "half")
        {
            at = next + 2;
            return unit / 2;
        }

        if (Word(words, next) is "a" && Word(words, next + 1) is "quarter")
        {
            at = next + 2;
            return unit / 4;
        }

        if (Amount(words, ref next) is not { IsVague: false } amount) return 0;
        if (Unit(words, next, out var end) is { } smaller)
        {
            if (smaller >= unit) return 0;
            at = end;
            return amount.Value * smaller;
        }

        if (isAnd || amount.Value is < 5 or > 59 || Word(words, next) is not null and not ("in" or "at" or "until" or "or")) return 0;
        at = next;
        return amount.Value;
    }

    private static (decimal Value, bool IsVague)? Amount(IReadOnlyList<StepWord> words, ref int at)
    {
        if (at >= words.Count) return null;
        if (words[at].Kind == StepWordKind.Number)
        {
            var value = words[at++].Value;
            if (Word(words, at) is "and" && Word(words, at + 1) is "a" && Word(words, at + 2) is "half")
                (value, at) = (value + 0.5m, at + 3);

            // "25 more minutes", "4 full hours"
            if (Word(words, at) is "more" or "further" or "full" or "extra" or "whole" or "good" or "additional") at++;
            return (value, false);
        }

        string Next(int by, int from) => Word(words, from + by) ?? "";
        switch (Word(words, at))
        {
            case "half" when Next(1, at) is "an" or "a":
                at += 2;
                return (0.5m, false);
            case "half":
                at++;
                return (0.5m, false);
            case "quarter" when Next(1, at) is "of":
                at += 3;
                return (0.25m, false);
            case "a" when Next(1, at) is "quarter" && Next(2, at) is "of":
                at += 4;
                return (0.25m, false);
            case "a" when Next(1, at) is "half":
                at += 2;
                return (0.5m, false);
            case "a" when Next(1, at) is "few":
                at += 2;
                return (3, true);
            case "a" when Next(1, at) is "couple":
                at += Next(2, at) is "of" ? 3 : 2;
                if (Word(words, at) is "more") at++;
                return (2, true);
            case "a" or "an" or "another" when words.Count > at + 1 && words[at + 1].Kind == StepWordKind.Word:
                at++;
                if (Word(words, at) is "further" or "full" or "good" or "whole") at++;
                return (1, false);
            case "several":
                at++;
                return (5, true);
            default:
                return Vague(words, ref at);
        }
    }

    // "few minutes", "couple of hours", without "a" before them.
    private static (decimal Value, bool IsVague)? Vague(IReadOnlyList<StepWord> words, ref int at)
    {
        if (Word(words, at) is not ("few" or "couple")) return null;
        var value = Word(words, at) is "few" ? 3 : 2;
        at += Word(words, at + 1) is "of" ? 2 : 1;
        return (value, true);
    }

    private static decimal? Unit(IReadOnlyList<StepWord> words, int at, out int end)
    {
        end = at;
        if (at < words.Count && words[at].Is("-")) at++;
        var factor = 1m;
        if (Word(words, at) is "quarters" or "quarter" && Word(words, at + 1) is "of" && Word(words, at + 2) is "an")
            (factor, at) = (0.25m, at + 3);
        if (Word(words, at) is not { } word || !Units.TryGetValue(word, out var unit)) return null;
        end = at + 1;
        if (end < words.Count && words[end].Is(".") && word is "min" or "mins" or "hr" or "hrs" or "sec" && IsInside(words, end)) end++;
        return factor * unit;
    }

    // "for 5 min. at 180": the full stop belongs to the unit where what follows goes on in small letters or a number.
    private static bool IsInside(IReadOnlyList<StepWord> words, int stop) =>
        Word(words, stop + 1) is "at" or "in" or "on" or "until" or "or" or "per" or "then" or "and";

    private static string? Word(IReadOnlyList<StepWord> words, int at) =>
        at < words.Count && words[at].Kind == StepWordKind.Word ? words[at].Text : null;
}
