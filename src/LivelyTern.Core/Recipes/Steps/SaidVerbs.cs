namespace LivelyTern.Core.Recipes.Steps;

/// <summary>A verb at its place in a sentence.</summary>
/// <param name="At">Its first word.</param>
/// <param name="Verb">What it tells.</param>
/// <param name="IsSoft">Whether it says so little that another word of its clause may say more: "let", "give", "keep".</param>
internal readonly record struct SaidVerb(int At, StepVerb Verb, bool IsSoft);

/// <summary>Which words of a sentence are its verbs. "The rest", "to the boil", "until set" and "melted butter" hold none.</summary>
internal static class SaidVerbs
{
    // A word behind one of these is a thing or a state, not something to do.
    private static readonly HashSet<string> BeforeThings =
    [
        "the", "a", "an", "of", "this", "your", "its", "some", "gentle", "low", "medium", "high", "hard", "good", "rolling", "rapid",
        "is", "are", "be", "been", "over", "for", "per", "each", "every", "more", "with", "medium-low", "medium-high", "their", "as",
        "without", "two", "it's", "being", "from", "any", "into", "no", "fresh", "single", "natural", "quick", "little", "before",
    ];

    // Words that are foods or things as often as they are something to do: a verb only where one begins, and with something behind.
    private static readonly HashSet<string> OftenThings =
    [
        "oil", "butter", "ice", "bread", "line", "stone", "seed", "core", "shell", "juice", "zest", "cream", "stick", "dust", "coat",
        "turn", "process", "pit", "pat", "fillet", "brown", "press", "pipe", "cover", "season", "work", "form", "fill", "pack", "roll",
        "layer", "portion", "open", "drop", "finish", "do", "go", "sit", "set", "quarter", "cube", "mince", "slice", "stew", "steam",
        "brush", "rest", "toast", "colour", "color", "crisp", "keep", "give", "pick", "dot", "pop", "crush", "marinade", "waffle", "grill",
        "place", "measure", "taste", "pulse", "rise", "stand", "drain", "sprout", "halve", "skewer", "warm", "cool", "mash",
    ];

    private static readonly HashSet<string> Beginnings =
    [
        ".", ",", ";", ":", "-", "(", ")", "!", "&", "+", "/", "and", "then", "to", "now", "gently", "lightly", "well", "finely",
        "roughly", "carefully", "thinly", "next", "or", "finally", "first", "meanwhile", "just", "let", "leave", "briefly", "quickly",
        "slowly", "simply", "again", "it", "them", "coarsely", "generously", "evenly", "not", "loosely",
    ];

    // They only carry the verb behind them: "leave to cool", "let it rise", "allow to stand".
    private static readonly HashSet<string> Carrying = ["let", "leave", "keep", "continue", "go", "do", "give", "start", "finish"];

    /// <summary>The verbs of a sentence, in order.</summary>
    public static List<SaidVerb> In(IReadOnlyList<StepWord> words)
    {
        var found = new List<SaidVerb>();
        var isUntil = false;
        for (var at = 0; at < words.Count; at++)
        {
            var word = words[at];
            if (word.Text is "until" or "till" or "til") isUntil = true;
            else if (word.Text is "." or "," or ";" or "then" or ":" or "-" || word.Kind == StepWordKind.Number) isUntil = false;
            if (isUntil || word.Kind != StepWordKind.Word) continue;
            if (Boil(words, at) is { } boiling)
            {
                found.Add(new(at, StepVerbs.BringToTheBoil, false));
                at = boiling;
                continue;
            }

            if (VerbAt(words, at, out var length) is not { } verb || IsOneOfTwoThings(words, at, found)) continue;
            found.Add(new(at, verb, Carrying.Contains(word.Text)));
            at += length - 1;
        }

        // What only carries another goes where that one follows closely: "leave to cool".
        for (var i = found.Count - 2; i >= 0; i--)
            if (found[i].IsSoft && found[i + 1].At - found[i].At <= 4 && IsPlain(words, found[i].At, found[i + 1].At)) found.RemoveAt(i);
        return found;
    }

    private static bool IsPlain(IReadOnlyList<StepWord> words, int from, int to)
    {
        for (var at = from + 1; at < to; at++)
            if (words[at].Kind != StepWordKind.Word || words[at].Text is "and" or "then") return false;
        return true;
    }

    private static StepVerb? VerbAt(IReadOnlyList<StepWord> words, int at, out int length)
    {
        length = 1;
        var before = at > 0 ? words[at - 1].Text : ".";
        if (BeforeThings.Contains(before) && !words[at].Is("release")) return null;
        if (at + 1 < words.Count && words[at + 1].Kind == StepWordKind.Word
            && StepVerbs.Find($"{words[at].Text} {words[at + 1].Text}") is { } pair && !IsPlace(words, at))
        {
            length = 2;
            return pair;
        }

        if (StepVerbs.Find(words[at].Text) is not { } verb || IsPlace(words, at)) return null;
        if (!OftenThings.Contains(words[at].Text)) return IsBehindTo(words, at, verb) ? null : verb;
        var begins = Beginnings.Contains(before) || IsLet(words, at, verb) || (at > 0 && words[at - 1].Kind == StepWordKind.Number);
        var after = at + 1 < words.Count ? words[at + 1] : default;
        var isAlone = after.Text is null or "," or "." or ")" or ";" && verb.IsHandsOn && verb != StepVerbs.Fry;
        return begins && !isAlone && after.Text is not ("of" or "and") ? verb : null;
    }

    // "With butter & cream": where the one is a thing, so is the other.
    private static bool IsOneOfTwoThings(IReadOnlyList<StepWord> words, int at, List<SaidVerb> found) =>
        at > 1 && words[at - 1].Text is "&" or "and" && OftenThings.Contains(words[at].Text) && OftenThings.Contains(words[at - 2].Text)
        && !found.Exists(one => one.At == at - 2);

    // "Let the batter stand", "leave the dough to rise".
    private static bool IsLet(IReadOnlyList<StepWord> words, int at, StepVerb verb)
    {
        if (verb != StepVerbs.Rest && verb != StepVerbs.Cool) return false;
        for (var before = at - 1; before >= Math.Max(0, at - 5) && words[before].Kind == StepWordKind.Word; before--)
            if (words[before].Text is "let" or "leave" or "allow") return true;
        return false;
    }

    // "slow cooker", "air fryer", "pressure cooker", "grill pan": the place and not the verb.
    private static bool IsPlace(IReadOnlyList<StepWord> words, int at) =>
        at + 1 < words.Count && words[at + 1].Text is "cooker" or "fryer" or "iron" or "maker" or "pan" or "water" or "tray" or "machine"
            && words[at].Text is not ("use" or "add" or "boil" or "fill" or "oil" or "line" or "grease" or "cover" or "butter" or "pour");

    // "ready to serve", "enough to coat": what it is for.
    private static bool IsBehindTo(IReadOnlyList<StepWord> words, int at, StepVerb verb) =>
        at > 1 && words[at - 1].Is("to") && verb == StepVerbs.Add && words[at - 2].Text is "enough" or "ready" or "want" or "like";

    // "bring to the boil", "bring it up to a simmer": where the words end, or null.
    private static int? Boil(IReadOnlyList<StepWord> words, int at)
    {
        if (words[at].Text is not ("bring" or "come")) return null;
        for (var next = at + 1; next < Math.Min(words.Count, at + 12); next++)
        {
            if (words[next].Text is "boil" or "simmer" or "bubble") return next;
            if (words[next].Text is "." or ";" or "pressure") return null;
        }

        return null;
    }
}
