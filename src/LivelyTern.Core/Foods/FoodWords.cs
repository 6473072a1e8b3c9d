namespace LivelyTern.Core.Foods;

/// <summary>The words of a food's name, as they are compared: lower case, singular, without the words that only say how it is cut.</summary>
public static class FoodWords
{
    private static readonly HashSet<string> Preparation = new(StringComparer.Ordinal)
    {
        "fresh", "ripe", "chopped", "diced", "sliced", "grated", "finely", "roughly", "peeled", "crushed", "minced", "drained", "rinsed",
        "washed", "trimmed", "beaten", "melted", "softened", "toasted", "packed", "heaped", "level", "of", "the", "and", "some",
    };

    private static readonly HashSet<string> Containers = new(StringComparer.Ordinal)
    {
        "tin", "can", "jar", "packet", "pack", "bag", "bottle", "carton", "tub", "box", "block",
    };

    private static readonly char[] Separators = [' ', ',', ';', '(', ')', '-', '/', '.'];

    /// <summary>The words that tell one food from another, in the order written.</summary>
    public static IReadOnlyList<string> Telling(string text) => [.. All(text).Where(word => !Preparation.Contains(word))];

    /// <summary>Every word, those of its preparation too: "chopped tomatoes" is a tin of its own.</summary>
    public static IReadOnlyList<string> All(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return [.. text.ToLowerInvariant().Split(Separators, StringSplitOptions.RemoveEmptyEntries).Select(Singular)];
    }

    /// <summary>The noun of a name, its last word before any comma: "lentil" of "red lentils, dry", "milk" of "oat milk".</summary>
    public static string Noun(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return Telling(text.Split(',')[0]) is [.., var noun] ? noun : "";
    }

    /// <summary>The text without a leading container: "tin of chopped tomatoes" is "chopped tomatoes".</summary>
    public static string WithoutContainer(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var words = text.Trim().Split(' ', 2, StringSplitOptions.RemoveEmptyEntries);
        if (words.Length < 2 || !Containers.Contains(Singular(words[0].ToLowerInvariant().TrimEnd(',')))) return text.Trim();
        return words[1].StartsWith("of ", StringComparison.OrdinalIgnoreCase) ? words[1][3..] : words[1];
    }

    /// <summary>The singular of an English word, good enough to compare two: lentils, tomatoes, berries, slices.</summary>
    public static string Singular(string word)
    {
        ArgumentNullException.ThrowIfNull(word);
        if (word.Length < 4 || !word.EndsWith('s') || word.EndsWith("ss", StringComparison.Ordinal) || word.EndsWith("us", StringComparison.Ordinal)) return word;
        if (word.EndsWith("ies", StringComparison.Ordinal)) return word[..^3] + "y";
        if (word.EndsWith("oes", StringComparison.Ordinal) || word.EndsWith("shes", StringComparison.Ordinal) || word.EndsWith("ches", StringComparison.Ordinal)) return word[..^2];
        return word.EndsWith("ves", StringComparison.Ordinal) && word is not ("cloves" or "olives" or "chives" or "endives") ? word[..^3] + "f" : word[..^1];
    }
}
