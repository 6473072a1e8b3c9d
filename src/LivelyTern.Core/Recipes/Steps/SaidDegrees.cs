namespace LivelyTern.Core.Recipes.Steps;

/// <summary>A temperature that a sentence says.</summary>
/// <param name="From">The first of its words.</param>
/// <param name="To">Behind its last word.</param>
/// <param name="Celsius">In whole °C: 350 °F is 177.</param>
/// <param name="IsInside">Whether it is how warm the food is to be inside, and no setting of a machine.</param>
/// <param name="IsFan">Whether it is said for a fan oven.</param>
internal readonly record struct SaidDegrees(int From, int To, int Celsius, bool IsInside, bool IsFan)
{
    // Bare numbers above this are Fahrenheit: no household oven goes higher in Celsius, hardly one is used lower in Fahrenheit.
    private const decimal HottestCelsius = 275;
    private const decimal CoolestOven = 100;

    // The marks of a gas oven, from 1: common practice, no published source.
    private static readonly int[] GasMarks = [140, 150, 170, 180, 190, 200, 220, 230, 240];

    private static readonly HashSet<string> Inside =
        ["inside", "core", "internal", "reads", "reading", "reach", "reaches", "registers", "probe", "thermometer", "middle", "centre",
            "center"];

    /// <summary>All the temperatures a sentence says, in order, without the times.</summary>
    /// <param name="words">The sentence.</param>
    /// <param name="times">Its times.</param>
    public static List<SaidDegrees> In(IReadOnlyList<StepWord> words, IReadOnlyList<SaidTime> times)
    {
        var found = new List<SaidDegrees>();
        for (var at = 0; at < words.Count; at++)
        {
            if (words[at].Kind != StepWordKind.Number || times.Any(time => at >= time.From && at < time.To)) continue;
            if (At(words, at) is not { } degrees) continue;
            found.Add(degrees);
            at = degrees.To - 1;
        }

        return found;
    }

    private static SaidDegrees? At(IReadOnlyList<StepWord> words, int at)
    {
        var value = words[at].Value;
        if (Before(words, at) is "mark" or "gas" && value is >= 1 and <= 9)
            return new(at, at + 1, GasMarks[(int)value - 1], false, false);
        var end = at + 1;

        // "160-180 °C": the higher end; "180 °C/350 °F" is one temperature said twice, and the first is taken.
        if (end + 1 < words.Count && words[end].IsOneOf(Joins) && words[end + 1].Kind == StepWordKind.Number
            && UnitAt(words, end + 2, words[end + 1].Value, out var rangeEnd) is { } shared && words[end + 1].Value < 2 * value)
            return Made(words, at, rangeEnd, words[end + 1].Value, shared);
        var unit = UnitAt(words, end, value, out var unitEnd);
        if (unit is not null) return Made(words, at, unitEnd, value, unit.Value);
        var isSetting = value is >= CoolestOven and <= 550 && IsSetting(words, at);
        return isSetting ? Made(words, at, end, value, value > HottestCelsius ? 'f' : 'c') : null;
    }

    private static readonly HashSet<string> Joins = ["-", "to"];

    private static SaidDegrees? Made(IReadOnlyList<StepWord> words, int from, int to, decimal value, char unit)
    {
        var celsius = unit == 'f' ? (value - 32) * 5 / 9 : value;
        if (celsius is < -40 or > 500) return null;
        var isFan = Near(words, from, to, 2, word => word is "fan");
        var isInside = Near(words, from, to, 6, Inside.Contains) && !Near(words, from, to, 2, word => word is "oven");
        return new(from, to, (int)Math.Round(celsius, MidpointRounding.AwayFromZero), isInside, isFan);
    }

    private static char? UnitAt(IReadOnlyList<StepWord> words, int at, decimal value, out int end)
    {
        string Word(int place) => place < words.Count ? words[place].Text : "";
        end = at;
        while (Word(end) is "°" or "deg" or "degree" or "degrees") end++;
        switch (Word(end))
        {
            case "°c" or "celsius" or "centigrade" or "c":
                end++;
                return 'c';
            case "°f" or "fahrenheit" or "f":
                end++;
                return 'f';
            default:
                return end == at ? null : value > HottestCelsius ? 'f' : 'c';
        }
    }

    // "oven 180", "at 200", "fan 160", "to 190": a bare number beside a word of heat.
    private static bool IsSetting(IReadOnlyList<StepWord> words, int at)
    {
        if (at + 1 < words.Count && words[at + 1] is { Kind: StepWordKind.Word } next && next.Text is "g" or "ml" or "grams" or "kg")
            return false;
        return Before(words, at) is "oven" or "at" or "fan" or "to" or "on" or "fryer"
            || (at + 1 < words.Count && words[at + 1].Text is "fan" or "oven");
    }

    private static string Before(IReadOnlyList<StepWord> words, int at) => at > 0 ? words[at - 1].Text : "";

    private static bool Near(IReadOnlyList<StepWord> words, int from, int to, int reach, Func<string, bool> isIt)
    {
        for (var at = from - 1; at >= Math.Max(0, from - reach) && words[at].Text is not ("." or ";" or ","); at--)
            if (isIt(words[at].Text)) return true;
        for (var at = to; at < Math.Min(words.Count, to + Math.Min(reach, 3)) && words[at].Text is not ("." or ";" or ","); at++)
            if (isIt(words[at].Text)) return true;
        return false;
    }
}
