namespace LivelyTern.Core.Recipes.Steps;

/// <summary>Reads one way of one step: its verbs, each with the time, the heat and the place that are said with it.</summary>
internal sealed class SentenceReader
{
    // A time of a day or more is when something is done, or how long it keeps, unless one of these says that it lasts so long.
    private static readonly StepVerb[] Long = [StepVerbs.Rest, StepVerbs.Chill, StepVerbs.Freeze];

    private static readonly HashSet<string> NotALength = ["every", "after", "first", "last", "final", "within", "past", "remaining"];
    private static readonly HashSet<string> GoingIn = ["in", "into", "until", "till"];
    private static readonly HashSet<string> Keeping = ["keep", "keeps", "lasts", "store", "stores"];
    private static readonly HashSet<string> More = ["more", "another", "further", "extra", "additional"];
    private static readonly HashSet<string> Seldom = ["occasionally", "once", "twice", "halfway", "every", "from", "now", "sometimes"];
    private static readonly StepVerb[] Named =
    [
        StepVerbs.Pressure, StepVerbs.Release, StepVerbs.Rest, StepVerbs.Chill, StepVerbs.Simmer, StepVerbs.Bake, StepVerbs.Roast,
        StepVerbs.Cool,
    ];

    private static readonly HashSet<string> BetweenTimeAndName =
        ["natural", "quick", "under", "at", "high", "low", "full", "gentle", "of", "in", "the", "a", "slow", "-", "on", "more"];

    private readonly StepWord[] words;
    private readonly int? preheated;
    private readonly bool inSlowCooker;
    private readonly List<string> missed;
    private readonly List<SaidTime> times;
    private readonly List<SaidDegrees> degrees;
    private readonly List<SaidVerb> verbs;
    private readonly List<List<SaidTime>> timesOf = [];

    /// <summary>Takes the sentence apart.</summary>
    /// <param name="words">Its words.</param>
    /// <param name="preheated">Degrees the oven has been set to by an earlier step.</param>
    /// <param name="inSlowCooker">Whether the dish is in the slow cooker already.</param>
    /// <param name="missed">Told of what is not understood.</param>
    public SentenceReader(List<StepWord> words, int? preheated, bool inSlowCooker, List<string> missed)
    {
        (this.words, this.preheated, this.inSlowCooker, this.missed) = ([.. words], preheated, inSlowCooker, missed);
        times = SaidTime.In(words);
        degrees = SaidDegrees.In(words, times);
        verbs = SaidVerbs.In(words);
    }

    /// <summary>What is done, in order.</summary>
    public StepWay Read()
    {
        if (verbs.Count == 0 && (times.Count > 0 || Setting() is not null) && WithoutVerb() is { } place) verbs.Add(new(-1, place, true));
        timesOf.AddRange(verbs.Select(_ => new List<SaidTime>()));
        foreach (var time in times.Where(IsALength)) Give(time);
        var parts = new List<StepPart>();
        for (var i = 0; i < verbs.Count; i++) parts.AddRange(PartsOf(i));
        return new(WithDegrees(parts));
    }

    // "Slow cooker, low, 8 h", "20 min 200C": the place does what no verb says; without a place too, something passes by itself. "Oven
    // 160C", and not how long, is what the oven is set to.
    private StepVerb? WithoutVerb() => (Place(words) ?? (Setting() is not null ? StepVerbs.Bake : null)) is { } place
        ? place == StepVerbs.Bake && !times.Exists(IsALength) && !Array.Exists(words, word => word.IsOneOf(GoingIn))
            ? StepVerbs.Preheat : place
        : inSlowCooker && SaysLowOrHigh(words) ? StepVerbs.SlowCook
        : times.Exists(IsALength) ? StepVerbs.Rest : null;

    // What a machine is set to: said for a fan oven only where nothing else is.
    private SaidDegrees? Setting() => SettingIn(words);

    private SaidDegrees? SettingIn(ReadOnlySpan<StepWord> clause)
    {
        foreach (var said in degrees.Where(said => !said.IsFan).Concat(degrees))
            if (!said.IsInside && IsIn(clause, said)) return said;
        return null;
    }

    private bool IsALength(SaidTime time)
    {
        var before = time.From - 1;
        if (before >= 0 && words[before].Text is "about" or "around" or "roughly" or "the" or "approximately" or "approx" or "~") before--;
        if (before >= 0 && NotALength.Contains(words[before].Text)) return false;
        if (time.Minutes >= 1440 && words.Any(word => word.IsOneOf(Keeping))) return false;
        string Behind(int by) => time.To + by < words.Length ? words[time.To + by].Text : "";
        return Behind(0) switch
        {
            "per" => NotPer(time),
            "ahead" or "old" or "earlier" or "later" => false,
            "before" => Behind(1) is not ("the" or "it" or "they" or "you" or "serving"),
            "in" => Behind(1) is not "advance",
            _ => true,
        };
    }

    // "20 minutes per 500 g" can't be told without the weight, "per side" can.
    private bool NotPer(SaidTime time)
    {
        if (SidesOf(time) > 1) return true;
        missed.Add(string.Join(' ', words[time.From..Math.Min(words.Length, time.To + 3)].Select(word => word.Text)));
        return false;
    }

    // A time goes with the verb before it; with a name right behind it where that verb has one, or there is none: "10 minutes release".
    private void Give(SaidTime time)
    {
        var left = verbs.FindLastIndex(verb => verb.At < time.From);
        var right = NamedBehind(time);
        if (right < 0 && left >= 0 && timesOf[left].Count > 0) right = PlaceBehind(time);
        if (left >= 0 && IsMore(time) && verbs[left].Verb == StepVerbs.Add)
        {
            var timed = timesOf.FindLastIndex(left, given => given.Count > 0);
            if (timed >= 0) left = timed;
        }

        var target = left >= 0 && (timesOf[left].Count == 0 || right < 0) && !IsTaken(left, right, time) ? left : right;
        if (target < 0) target = left >= 0 ? left : verbs.FindIndex(verb => verb.At >= time.To);
        if (target < 0) return;
        if (time.Minutes >= 1440 && !Long.Contains(VerbOf(target))) return;

        // "15 minutes at 220 °C, then 30 minutes at 180 °C": the second is a stretch of its own.
        if (timesOf[target].Count > 0 && OwnHeat(time) is { } from) target = Insert(from, VerbOf(target));
        timesOf[target].Add(time);
    }

    // Where a stretch with a heat of its own begins, which is said beside its time; null where an earlier heat goes on.
    private int? OwnHeat(SaidTime time)
    {
        foreach (var said in degrees.Skip(1))
        {
            if (said.From >= time.To && said.From <= time.To + 2) return time.From;
            if (said.To <= time.From && said.To >= time.From - 1) return said.From;
        }

        return null;
    }

    // "Pressure cook, 10 minutes natural release": the comma parts the time from the verb before it.
    private bool IsTaken(int left, int right, SaidTime time) =>
        right >= 0 && (verbs[right].Verb == StepVerbs.Release || words[(verbs[left].At + 1)..time.From].Any(word => word.Text is ","));

    private int NamedBehind(SaidTime time)
    {
        var at = time.To;
        while (at < words.Length && at < time.To + 4 && BetweenTimeAndName.Contains(words[at].Text)) at++;
        var known = verbs.FindIndex(verb => verb.At >= time.To && verb.At <= at && Named.Contains(verb.Verb));
        if (known >= 0) return known;
        if (at >= words.Length || words[at].Kind != StepWordKind.Word || StepVerbs.Find(words[at].Text) is not { } verb) return -1;
        if (!Named.Contains(verb) || (at == time.To && verb.IsHandsOn)) return -1;
        return Insert(at, verb);
    }

    // "5 minutes release, 5 minutes in ice water": another place, said without a verb.
    private int PlaceBehind(SaidTime time)
    {
        var end = time.To;
        while (end < words.Length && words[end].Kind == StepWordKind.Word && !verbs.Exists(verb => verb.At == end)) end++;
        return Place(words.AsSpan(time.To..end)) is { } place ? Insert(time.To, place) : -1;
    }

    private int Insert(int at, StepVerb verb)
    {
        var place = verbs.FindIndex(said => said.At > at) is var next && next < 0 ? verbs.Count : next;
        verbs.Insert(place, new(at, verb, false));
        timesOf.Insert(place, []);
        return place;
    }

    private bool IsMore(SaidTime time) =>
        words[time.From..time.To].Any(word => More.Contains(word.Text)) || (time.From > 0 && More.Contains(words[time.From - 1].Text))
            || (time.To < words.Length && More.Contains(words[time.To].Text));

    private ReadOnlySpan<StepWord> Clause(int i)
    {
        var from = i == 0 ? 0 : verbs[i].At;
        return words.AsSpan(from..(i + 1 < verbs.Count ? verbs[i + 1].At : words.Length));
    }

    private static StepVerb? Place(ReadOnlySpan<StepWord> clause) => StepMachines.In(clause);

    private static bool SaysLowOrHigh(ReadOnlySpan<StepWord> clause)
    {
        foreach (var word in clause)
            if (word.Text is "low" or "high") return !StepMachines.AreOnTheStove(clause);
        return false;
    }

    // The verb with what its clause says of the place: what is fried in the oven is baked, what is set in the fridge is chilled.
    private StepVerb VerbOf(int i)
    {
        var verb = verbs[i].Verb;
        var clause = Clause(i);
        var isTimed = timesOf.Count > i && timesOf[i].Count > 0;
        if (!isTimed && IsHeating(i, clause)) return StepVerbs.Preheat;
        if (verb == StepVerbs.Add && IsIntoTheOven(clause) && SettingIn(clause) is not null) return StepVerbs.Bake;
        if (!isTimed && verbs[i].At >= 0 && words[verbs[i].At].Is("drain")) return StepVerbs.Add;
        if (StepMachines.IndexOf(clause, "kettle") >= 0) return StepVerbs.Add;
        if (Place(clause) is { } place && TakesPlace(verb, place, isTimed)) return place;
        if (verb == StepVerbs.Add && isTimed && Setting() is { } set && degrees.Count > 0 && IsIn(clause, set)) return StepVerbs.Bake;
        if (verb == StepVerbs.Cook || (verb == StepVerbs.Add && isTimed))
        {
            if (inSlowCooker && (SaysLowOrHigh(clause) || HasHours(i))) return StepVerbs.SlowCook;
            if (SaysLowOrHigh(clause) && HasHours(i)) return StepVerbs.SlowCook;
            if (verb == StepVerbs.Cook && Setting() is { Celsius: >= 100 } heat && IsIn(clause, heat)) return StepVerbs.Bake;
        }

        if (verb == StepVerbs.Simmer && inSlowCooker && HasHours(i)) return StepVerbs.SlowCook;
        if (verb == StepVerbs.Add && isTimed && StepMachines.AreOnTheStove(clause)) return StepVerbs.Fry;
        return verb == StepVerbs.Bake && StepMachines.AreOnTheStove(clause) && Setting() is null ? StepVerbs.Fry : verb;
    }

    // "Heat the oven to 200 °C", "oven on to 180".
    private bool IsHeating(int i, ReadOnlySpan<StepWord> clause) =>
        (verbs[i].Verb == StepVerbs.Warm || words[Math.Max(0, verbs[i].At)].Text is "set" or "turn" or "get" or "put")
            && StepMachines.IndexOf(clause, "oven") is > 0 and <= 3 && !IsIntoTheOven(clause) && Setting() is { } set && IsIn(clause, set);

    // "Put in the oven at 180 °C until golden": it is baked, however long that takes.
    private static bool IsIntoTheOven(ReadOnlySpan<StepWord> clause)
    {
        var oven = StepMachines.IndexOf(clause, "oven");
        for (var at = oven - 1; at >= Math.Max(0, oven - 3); at--)
            if (clause[at].Text is "in" or "into") return true;
        return false;
    }

    private bool IsIn(ReadOnlySpan<StepWord> clause, SaidDegrees said) => clause.Overlaps(words.AsSpan(said.From..said.To));

    private bool HasHours(int i) => timesOf.Count > i && timesOf[i].Exists(time => time.Minutes >= 120);

    private static bool TakesPlace(StepVerb verb, StepVerb place, bool isTimed)
    {
        if (verb == place || verb == StepVerbs.Preheat || verb == StepVerbs.Release) return false;
        if (verb == StepVerbs.Blend || verb == StepVerbs.Chop || verb == StepVerbs.Clean || verb == StepVerbs.Shape) return false;
        if (place == StepVerbs.Blend) return verb == StepVerbs.Mix || (verb == StepVerbs.Add && isTimed);
        if (place == StepVerbs.Cool) return verb != StepVerbs.Add || isTimed;
        if (verb == StepVerbs.Mix) return false;

        // "In the fridge" says where it rests; "into the oven" only where something is done there.
        return verb != StepVerbs.Add || isTimed;
    }

    private IEnumerable<StepPart> PartsOf(int i)
    {
        var verb = VerbOf(i);
        var clause = Clause(i);
        var given = timesOf[i];
        if (verbs[i].Verb == StepVerbs.Cook && verbs[i].IsSoft && given.Count == 0 && verb == StepVerbs.Cook) yield break;
        if (given.Count == 0 && IsStored(clause)) yield break;
        var isHandsOn = verb.IsHandsOn ? !IsLeftAlone(verb, clause) : IsStoodBy(verb, clause);
        var minutes = given.Count > 0 ? given.Sum(time => time.Minutes * SidesOf(time)) : Usual(verb);
        var uses = verb.Uses.ToList();
        if (StepMachines.NameTray(clause) && (verb == StepVerbs.Bake || verb == StepVerbs.Roast)) uses.Add(Occupies.Tray);
        if (verb.Name is "mix" or "add" && StepMachines.AreOnTheStove(clause) && given.Count > 0) uses.Add(Occupies.Ring);
        if (missed.Count > 0 && verb == StepVerbs.Cook) uses.Clear();
        var isAbout = given.Count == 0 || given.Exists(time => time.IsVague);
        var own = verb.Uses.Contains(Occupies.Oven) || verb.Uses.Contains(Occupies.AirFryer) ? SettingIn(clause)?.Celsius : null;
        yield return new(verb.Name, Math.Min(minutes, 10_080), isHandsOn, isAbout, own, uses, verb.Grows)
        {
            Words = string.Join(' ', clause.ToArray().Select(word => word.Text)),
        };
    }

    private int Usual(StepVerb verb) =>
        verb == StepVerbs.Preheat && Setting() is { } said ? WarmUp.FromCold(Math.Max(said.Celsius, 50)) : verb.Minutes;

    // Frying goes on by itself only where it is covered or said to be left.
    private static bool IsLeftAlone(StepVerb verb, ReadOnlySpan<StepWord> clause) =>
        verb == StepVerbs.Fry && StepMachines.IndexOf(clause, "covered") >= 0;

    // "Stirring all the time": a pot that would simmer by itself, and is stood by.
    private static bool IsStoodBy(StepVerb verb, ReadOnlySpan<StepWord> clause)
    {
        if (verb != StepVerbs.Cook && verb != StepVerbs.Simmer) return false;
        var stirring = StepMachines.IndexOf(clause, "stirring");
        if (stirring < 0) stirring = StepMachines.IndexOf(clause, "whisking");
        if (stirring < 0) return false;
        for (var at = stirring + 1; at < Math.Min(clause.Length, stirring + 5); at++)
            if (Seldom.Contains(clause[at].Text)) return false;
        return true;
    }

    // "Freeze for up to 3 months", "keep in the fridge for 4 days": how long it keeps.
    private static bool IsStored(ReadOnlySpan<StepWord> clause) =>
        StepMachines.IndexOf(clause, "up", "to") >= 0 || StepMachines.IndexOf(clause, "months") >= 0
            || StepMachines.IndexOf(clause, "days") >= 0;

    private int SidesOf(SaidTime time)
    {
        var behind = words.AsSpan(time.To..Math.Min(words.Length, time.To + 4));
        return StepMachines.IndexOf(behind, "per", "side") >= 0 || StepMachines.IndexOf(behind, "each", "side") >= 0
            || StepMachines.IndexOf(behind, "a", "side") >= 0 || StepMachines.IndexOf(behind, "both", "sides") >= 0 ? 2 : 1;
    }

    // The heat belongs to the part that is warmest by its nature; an oven without one is as it was preheated.
    private List<StepPart> WithDegrees(List<StepPart> parts)
    {
        var said = Setting();
        var at = parts.FindLastIndex(part => part.Uses.Contains(Occupies.Oven) && !IsPreheat(part));
        if (at < 0) at = parts.FindIndex(part => part.Uses.Contains(Occupies.AirFryer) || IsPreheat(part));
        if (at < 0) at = parts.FindIndex(part => part.Uses.Contains(Occupies.Ring) || part.Uses.Contains(Occupies.WaffleIron));
        if (at < 0) return parts;
        for (var i = 0; i < parts.Count; i++)
        {
            if (parts[i].Celsius is not null || (i != at && !parts[i].Uses.Contains(Occupies.Oven))) continue;
            var celsius = said?.Celsius ?? (parts[i].Uses.Contains(Occupies.Oven) ? preheated ?? Spoken() : null);
            parts[i] = parts[i] with { Celsius = celsius };
        }

        return parts;
    }

    private static bool IsPreheat(StepPart part) => string.Equals(part.Verb, StepVerbs.Preheat.Name, StringComparison.Ordinal);

    // "A hot oven": common practice, no published source.
    private int? Spoken()
    {
        var oven = Array.FindIndex(words, word => word.Is("oven"));
        return oven <= 0 ? null : words[oven - 1].Text switch
        {
            "hot" => 220,
            "moderate" or "medium" => 180,
            "low" or "cool" or "slow" => 140,
            _ => null,
        };
    }
}
