namespace LivelyTern.Core.Recipes.Steps;

/// <summary>The machines and places that sentences name, and what is done in them.</summary>
internal static class StepMachines
{
    // In the order in which one wins over the other: an "oven tray" is in the oven, a "pan in the oven" too.
    private static readonly (string[] Words, StepVerb Verb)[] Places =
    [
        (["slow-cooker"], StepVerbs.SlowCook), (["slow", "cooker"], StepVerbs.SlowCook),
        (["pressure-cooker"], StepVerbs.Pressure), (["pressure", "cooker"], StepVerbs.Pressure),
        (["under", "pressure"], StepVerbs.Pressure), (["high", "pressure"], StepVerbs.Pressure), (["low", "pressure"], StepVerbs.Pressure),
        (["air-fryer"], StepVerbs.AirFry), (["air", "fryer"], StepVerbs.AirFry), (["airfryer"], StepVerbs.AirFry),
        (["microwave"], StepVerbs.Microwave),
        (["waffle", "iron"], StepVerbs.Waffle), (["waffle", "maker"], StepVerbs.Waffle),
        (["fridge"], StepVerbs.Chill), (["refrigerator"], StepVerbs.Chill), (["freezer"], StepVerbs.Freeze),
        (["oven"], StepVerbs.Bake), (["grill"], StepVerbs.Roast), (["broiler"], StepVerbs.Roast),
        (["blender"], StepVerbs.Blend), (["food", "processor"], StepVerbs.Blend), (["liquidiser"], StepVerbs.Blend),
        (["ice", "water"], StepVerbs.Cool), (["ice", "bath"], StepVerbs.Cool), (["cold", "water"], StepVerbs.Cool),
    ];

    private static readonly HashSet<string> Stove =
        ["pan", "pot", "saucepan", "skillet", "hob", "stove", "stovetop", "heat", "wok", "ring", "flame", "burner", "casserole"];

    // Machines a schedule knows nothing of: said, so that nobody thinks they were reckoned with.
    private static readonly string[][] Unknown =
    [
        ["rice", "cooker"], ["bread", "machine"], ["bread", "maker"], ["barbecue"], ["bbq"], ["sous", "vide"], ["sous-vide"],
        ["dehydrator"], ["ice-cream", "maker"], ["ice", "cream", "maker"], ["smoker"], ["fryer"], ["yogurt", "maker"],
        ["steam", "oven"],
        ["egg", "cooker"], ["sandwich", "toaster"], ["popcorn", "maker"],
    ];

    /// <summary>What is done in the place that these words name; null where they name none.</summary>
    public static StepVerb? In(ReadOnlySpan<StepWord> words)
    {
        foreach (var (names, verb) in Places)
            if (IndexOf(words, names) is var at && at >= 0 && !IsUntouched(words, at)) return verb;
        return null;
    }

    /// <summary>Whether these words name the stove or something that stands on it.</summary>
    public static bool AreOnTheStove(ReadOnlySpan<StepWord> words)
    {
        foreach (var word in words)
            if (word.IsOneOf(Stove)) return true;
        return false;
    }

    /// <summary>Whether they name a slow cooker.</summary>
    public static bool NameSlowCooker(ReadOnlySpan<StepWord> words) =>
        IndexOf(words, "slow", "cooker") >= 0 || IndexOf(words, "slow-cooker") >= 0 || IndexOf(words, "slow", "cook") >= 0
        || IndexOf(words, "slow-cook") >= 0;

    /// <summary>Whether they name a baking tray.</summary>
    public static bool NameTray(ReadOnlySpan<StepWord> words)
    {
        foreach (var word in words)
            if (word.Text is "tray" or "trays" or "sheet" or "sheets") return true;
        return false;
    }

    /// <summary>The machines named that nothing is known of.</summary>
    public static IEnumerable<string> NotKnown(IReadOnlyList<StepWord> words)
    {
        var all = words.ToArray();
        foreach (var names in Unknown)
        {
            var at = IndexOf(all, names);
            if (at < 0 || (names[0] is "fryer" && at > 0 && all[at - 1].Text is "air")) continue;
            yield return string.Join(' ', names);
        }
    }

    /// <summary>Where these words follow one another; -1 for nowhere.</summary>
    public static int IndexOf(ReadOnlySpan<StepWord> words, params ReadOnlySpan<string> names)
    {
        for (var at = 0; at + names.Length <= words.Length; at++)
        {
            var same = 0;
            while (same < names.Length && words[at + same].Is(names[same])) same++;
            if (same == names.Length) return at;
        }

        return -1;
    }

    // "take out of the oven", "from the fridge": the place is left, not used.
    private static bool IsUntouched(ReadOnlySpan<StepWord> words, int at)
    {
        for (var before = at - 1; before >= Math.Max(0, at - 3); before--)
        {
            if (words[before].Text is "from" or "off") return true;
            if (words[before].Text is "of" && before > 0 && words[before - 1].Text is "out") return true;
        }

        return false;
    }
}
