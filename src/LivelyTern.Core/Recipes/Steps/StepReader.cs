using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Recipes.Steps;

/// <summary>
/// Reads the sentences of a recipe into what a schedule needs: minutes hands-on and unattended, a temperature, what is occupied. What a
/// sentence leaves out comes from the usual times of its verbs (<see cref="StepVerbs"/>), marked "about".
/// </summary>
public static class StepReader
{
    private const int LongestRead = 2000;

    /// <summary>Reads the steps of one recipe, each with what the steps before it said.</summary>
    /// <param name="steps">The sentences, in order. Only the first 2,000 letters of each are read.</param>
    /// <returns>A reading for each.</returns>
    public static IReadOnlyList<StepReading> Read(IReadOnlyList<string> steps)
    {
        ArgumentNullException.ThrowIfNull(steps);
        var readings = new List<StepReading>();
        var before = new Before(null, false);
        foreach (var step in steps)
        {
            var (reading, after) = Read(step.Length > LongestRead ? step[..LongestRead] : step, before);
            readings.Add(reading);
            before = after;
        }

        return readings;
    }

    // What earlier steps said that a later one counts on: the oven was preheated, all went into the slow cooker.
    private sealed record Before(int? OvenCelsius, bool InSlowCooker);

    private static (StepReading Reading, Before After) Read(string step, Before before)
    {
        var words = WithMinutes(StepWords.Of(step));
        var ahead = TakeDaysAhead(words);
        var missed = StepMachines.NotKnown(words).ToList();
        var inSlowCooker = before.InSlowCooker || StepMachines.NameSlowCooker(words.ToArray());
        var (main, others) = WaysApart.Of(words);
        var way = new SentenceReader(main, before.OvenCelsius, inSlowCooker, missed).Read();
        var otherWays = others
            .Select(other => new SentenceReader(other, null, inSlowCooker, missed).Read())
            .Where(other => other.Parts.Count > 0)
            .Select(other => InPlaceOfTheLast(way, other))
            .ToList();
        var oven = way.Parts.LastOrDefault(part => part.Uses.Contains(Occupies.Oven) && part.Celsius is not null)?.Celsius;
        var (atATime, loads) = LoadsIn(words);
        return (new(way, otherWays, atATime, loads, missed) { DaysAhead = ahead }, new(oven ?? before.OvenCelsius, inSlowCooker));
    }

    private static readonly HashSet<string> Ahead = new(["ahead", "before", "beforehand", "earlier", "in"], StringComparer.Ordinal);

    // "Up to two days ahead", "3 days in advance", "the day before", "the night before": no time that the step takes.
    private static int? TakeDaysAhead(List<StepWord> words)
    {
        for (var at = 0; at + 2 < words.Count; at++)
        {
            var isThe = words[at].Is("the") || words[at].Is("a");
            var isDay = words[at + 1].Is("day") || words[at + 1].Is("days") || (isThe && words[at + 1].Is("night"));
            if (!isDay || !words[at + 2].IsOneOf(Ahead) || (!isThe && words[at].Kind != StepWordKind.Number)) continue;
            if (words[at + 2].Is("in") && !(at + 3 < words.Count && words[at + 3].Is("advance"))) continue;
            var days = isThe ? 1 : Whole(words[at].Value);
            var (first, last) = (at, at + (words[at + 2].Is("in") ? 3 : 2));
            if (first >= 2 && words[first - 1].Is("to") && words[first - 2].Is("up")) first -= 2;
            words.RemoveRange(first, last - first + 1);
            return Math.Min(days ?? 0, WrittenRecipe.MostDaysAhead);
        }

        return null;
    }

    // "15 minutes under pressure, natural release 10": the unit is said once.
    private static List<StepWord> WithMinutes(List<StepWord> words)
    {
        for (var at = 0; at + 1 < words.Count; at++)
        {
            var isBare = words[at].Is("release") && words[at + 1].Kind == StepWordKind.Number
                && (at + 2 == words.Count || words[at + 2].Kind == StepWordKind.Mark);
            if (isBare) words.Insert(at + 2, new(StepWordKind.Word, "minutes"));
        }

        return words;
    }

    // "Toss with the oil and roast 35 minutes, or air-fry 12 minutes": the toss belongs to both.
    private static StepWay InPlaceOfTheLast(StepWay way, StepWay other)
    {
        var last = way.Parts.Count - 1;
        while (last > 0 && way.Parts[last] is { IsHandsOn: true } or { IsAbout: true }) last--;
        if (last < 0) return other;
        return new([.. way.Parts.Take(last), .. other.Parts, .. way.Parts.Skip(last + 1)]);
    }

    private static (int? AtATime, int? Loads) LoadsIn(List<StepWord> words)
    {
        (int? atATime, int? loads) = (null, null);
        for (var at = 0; at + 2 < words.Count; at++)
        {
            bool Follows(params string[] texts) => texts.Index().All(pair => words.Count > at + 1 + pair.Index
                && words[at + 1 + pair.Index].Is(pair.Item));
            if (words[at].Kind == StepWordKind.Number && Follows("at", "a", "time")) atATime = Whole(words[at].Value);
            if (words[at].Is("in") && words[at + 1].Kind == StepWordKind.Number
                && words[at + 2].Text is "batches" or "lots" or "goes" or "loads" or "rounds")
                loads = Whole(words[at + 1].Value);
            if (words[at].Is("in") && words[at + 1].Is("batches")) loads = 2;
        }

        if (words.Count > 1 && words[^1].Is("batches") && words[^2].Is("in")) loads ??= 2;
        return (atATime, loads);
    }

    private static int? Whole(decimal value) => value is >= 1 and <= 1000 ? (int)Rounding.ToStep(value, 1) : null;
}
