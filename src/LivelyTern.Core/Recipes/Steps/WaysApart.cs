namespace LivelyTern.Core.Recipes.Steps;

/// <summary>A sentence that names another way, "35 minutes at 180 °C, or 12 minutes in the air fryer", taken apart into its ways.</summary>
internal static class WaysApart
{
    private static readonly HashSet<Occupies> Machines =
        [Occupies.Oven, Occupies.AirFryer, Occupies.SlowCooker, Occupies.PressureCooker, Occupies.Microwave];

    /// <summary>The words of the first way, and those of each other.</summary>
    public static (List<StepWord> Main, List<List<StepWord>> Others) Of(List<StepWord> words)
    {
        var times = SaidTime.In(words);
        var main = new List<StepWord>();
        var others = new List<List<StepWord>>();
        for (var at = 0; at < words.Count; at++)
        {
            if (words[at].Is("(") && TimedAside(words, at, times) is { } aside)
            {
                if (IsAnotherWay(aside, words[StartOf(words, at)..at])) others.Add(aside);
                else if (!IsOfASide(aside)) main.AddRange([words[at], .. aside]);
                at += aside.Count;
                continue;
            }

            if (!words[at].Is("or") || times.Exists(time => at > time.From && at < time.To))
            {
                main.Add(words[at]);
                continue;
            }

            var end = EndOf(words, at + 1);
            var other = words[(at + 1)..end];
            var start = StartOf(words, at);
            var before = times.FindLast(time => time.From >= start && time.From < at);
            var timed = WithUnits(other, before.Minutes);
            if (before.To == 0 || SaidTime.In(timed).Count == 0 || !IsAnotherChoice(words[start..at], other))
            {
                main.Add(words[at]);
                continue;
            }

            others.Add(timed);
            at = end - 1;
        }

        return (main, others);
    }

    // What stands in brackets with a time, after a time.
    private static List<StepWord>? TimedAside(List<StepWord> words, int at, List<SaidTime> times)
    {
        var start = StartOf(words, at);
        var aside = words[(at + 1)..EndOf(words, at + 1)];
        return times.Exists(time => time.From >= start && time.From < at) && SaidTime.In(aside).Count > 0 ? aside : null;
    }

    // "Roast 30 minutes (air fryer 18)", "on low 6 hours (4 on high)"; "(oven at 180 °C, turned after 15 minutes)" tells of the same.
    private static bool IsAnotherWay(List<StepWord> aside, List<StepWord> before) =>
        (HasHeat(aside) && HasHeat(before))
        || (MachineOf(aside) is { } other && (MachineOf(before) is { } machine ? machine != other : other != Occupies.Oven));

    // "Fry 10 minutes (5 minutes each side)": the same minutes once more.
    private static bool IsOfASide(List<StepWord> aside) => aside.Exists(word => word.Text is "side" or "sides");

    private static Occupies? MachineOf(List<StepWord> words)
    {
        var texts = words.Select(word => word.Text ?? "").ToList();
        var said = texts.Concat(texts.Zip(texts.Skip(1), (one, next) => $"{one} {next}")).Select(StepVerbs.Find)
            .Prepend(StepMachines.In(words.ToArray()));
        return said.OfType<StepVerb>().SelectMany(verb => verb.Uses).Where(Machines.Contains).Cast<Occupies?>().FirstOrDefault();
    }

    // "or on high for 4", "or high 3-4": the unit of the first way.
    private static List<StepWord> WithUnits(List<StepWord> words, int minutesBefore)
    {
        if (SaidTime.In(words).Count > 0) return words;
        var at = words.FindLastIndex(word => word.Kind == StepWordKind.Number);
        var after = at + 1 < words.Count ? words[at + 1] : default;
        var isBare = after.Kind != StepWordKind.Word || after.Text is null or "in" or "at" or "on" or "with" or "until";
        if (at < 0 || words[at].Value > 60 || !isBare) return words;
        return [.. words[..(at + 1)], new(StepWordKind.Word, minutesBefore >= 120 ? "hours" : "minutes"), .. words[(at + 1)..]];
    }

    // Another machine, or another setting of the same; else it is a word of choice: "until golden or 20 minutes".
    private static bool IsAnotherChoice(List<StepWord> one, List<StepWord> other) =>
        StepMachines.In(other.ToArray()) is not null || other.Exists(word => StepVerbs.Find(word.Text) is { IsHandsOn: false })
        || (HasHeat(one) && HasHeat(other)) || StepMachines.AreOnTheStove(other.ToArray());

    private static bool HasHeat(List<StepWord> words) => words.Exists(word => word.Text is "high" or "low");

    private static int EndOf(List<StepWord> words, int from)
    {
        for (var at = from; at < words.Count; at++)
            if (words[at].Text is "." or ";" or ")" || (words[at].Is("or") && at > from)) return at;
        return words.Count;
    }

    private static int StartOf(List<StepWord> words, int to)
    {
        for (var at = to - 1; at >= 0; at--)
            if (words[at].Text is "." or ";") return at + 1;
        return 0;
    }
}
