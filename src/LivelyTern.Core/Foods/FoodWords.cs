using System.Globalization;
using System.Text;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>
/// The words of a food's name, as they are compared: lower case, singular, without the words that only say how it is cut.
/// </summary>
public static class FoodWords
{
    private static readonly HashSet<string> Preparation = new(StringComparer.Ordinal)
    {
        "fresh", "ripe", "chopped", "diced", "sliced", "grated", "finely", "roughly", "peeled", "crushed", "minced", "drained", "rinsed",
        "washed", "trimmed", "beaten", "melted", "softened", "toasted", "packed", "heaped", "level", "of", "the", "and", "some",
    };

    private static readonly HashSet<string> Containers = new(StringComparer.Ordinal)
    {
        "tin", "can", "jar", "packet", "pack", "bag", "bottle", "carton", "tub", "box", "block", "package", "pkg", "pkt", "container",
        "pouch",
        "tray", "sleeve", "tube", "punnet", "pot", "log", "sachet",
    };

    // What cooks count in, of which only a kitchen knows what one weighs.
    private static readonly HashSet<string> Household = new(StringComparer.Ordinal)
    {
        "bunch", "handful", "knob", "sprig", "stick", "thumb", "slice", "clove", "head", "stalk", "rib", "ear", "leaf", "sheet", "ball",
        "bar", "cube", "fillet", "rasher", "scoop", "sachet", "envelope", "glass", "mug", "bowl", "splash", "drizzle", "dollop", "squeeze",
        "piece", "wedge", "spear", "floret", "punnet", "pot", "loaf", "bulb", "stem", "strip", "chunk", "square", "serving", "pod", "cm",
        "inch", "spray", "second", "drop", "squirt", "glug", "shot", "link", "patty", "ring", "half", "steak", "crown", "heart",
        "medallion",
        "segment", "spoonful", "loin", "dash", "shaving", "round", "rack",
    };

    // How full a spoon or a cup is, against its measure; common practice, no published source.
    private static readonly Dictionary<string, decimal> Fullness = new(StringComparer.Ordinal)
    {
        ["level"] = 1,
        ["even"] = 1,
        ["flat"] = 1,
        ["heaped"] = 1.5m,
        ["heaping"] = 1.5m,
        ["overflowing"] = 1.5m,
        ["rounded"] = 1.25m,
        ["generous"] = 1.25m,
        ["good"] = 1.25m,
        ["big"] = 1.25m,
        ["scant"] = 0.9m,
    };

    // How much of a medium one another size is, where nobody weighed it; common practice, no published source.
    private static readonly Dictionary<string, decimal> SizeShares = new(StringComparer.Ordinal)
    {
        ["small"] = 0.7m,
        ["medium"] = 1,
        ["large"] = 1.35m,
        ["big"] = 1.35m,
        ["extra large"] = 1.6m,
        ["little"] = 0.7m,
        ["tiny"] = 0.5m,
    };

    private static readonly char[] Separators = [' ', ',', ';', '(', ')', '-', '/', '.', '&', '"', '\t', '|', '*', '+', ':'];

    /// <summary>The words that tell one food from another, in the order written.</summary>
    public static IReadOnlyList<string> Telling(string text) => Telling(All(text));

    /// <summary>Those of some words that tell one food from another.</summary>
    public static IReadOnlyList<string> Telling(IEnumerable<string> words) => [.. words.Where(word => !Preparation.Contains(word))];

    /// <summary>
    /// The telling words in alphabetical order, by which a choice is remembered: the same for "dry red lentils" and "red lentils, dry".
    /// </summary>
    public static string Key(string text) => string.Join(' ', Telling(text).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal));

    /// <summary>Every word without its accents, those of its preparation too: "chopped tomatoes" is a tin of its own.</summary>
    public static IReadOnlyList<string> All(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return [.. WithoutAccents(text.ToLowerInvariant()).Split(Separators, StringSplitOptions.RemoveEmptyEntries).Select(Singular)];
    }

    /// <summary>Whether a word is a package, as things are bought in: "tin", "packets".</summary>
    public static bool IsContainer(string word) => Containers.Contains(Bare(word));

    /// <summary>Whether a text begins with a tin: "can of black beans".</summary>
    public static bool IsTin(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return Bare(text.TrimStart().Split(' ', 2)[0]) is "tin" or "can";
    }

    /// <summary>Whether a word is counted in, and says nothing of what is in it: "bunch", "handfuls", "tin".</summary>
    public static bool IsCountedIn(string word) => Household.Contains(Bare(word)) || IsContainer(word);

    /// <summary>Whether a word is a size: "medium".</summary>
    public static bool IsSize(string word) => SizeShares.ContainsKey(Bare(word));

    // Measures that are the same, called otherwise.
    private static readonly string[][] Same =
    [
        ["packet", "sachet", "envelope", "pkg", "pkt", "package"], ["can", "tin"], ["stick", "rib", "stalk"],
        ["rasher", "slice", "strip"], ["head", "bulb"],
        ["pot", "tub", "container"], ["link", "piece"],
    ];

    // Millilitres of what is poured by eye; common practice, no published source.
    private static readonly Dictionary<string, decimal> Spoons = new(StringComparer.Ordinal)
    {
        ["splash"] = 15,
        ["glug"] = 15,
        ["drizzle"] = 10,
        ["dollop"] = 22,
        ["squeeze"] = 5,
        ["spoonful"] = 15,
        ["squirt"] = 10,
    };

    /// <summary>Other names of a measure: a rib of celery is a stick of it.</summary>
    public static IEnumerable<string> SameMeasures(string measure)
    {
        var one = Bare(measure);
        return Same.Where(row => row.Contains(one, StringComparer.Ordinal)).SelectMany(row => row)
            .Where(other => !string.Equals(other, one, StringComparison.Ordinal));
    }

    /// <summary>Millilitres of a measure poured by eye, a splash or a drizzle; null for any other.</summary>
    public static decimal? SpoonOf(string measure) => Spoons.TryGetValue(Bare(measure), out var spoon) ? spoon : null;

    /// <summary>How full a spoon or a cup is by this word, 1 for level and 1.5 for heaped; null where it says nothing of it.</summary>
    public static decimal? FullnessOf(string word) => Fullness.TryGetValue(Bare(word), out var full) ? full : null;

    /// <summary>How much of a medium one a size is, 0.7 for small; null for any other word.</summary>
    public static decimal? ShareOf(string size) => SizeShares.TryGetValue(Bare(size), out var share) ? share : null;

    /// <summary>The text without a leading container: "tin of chopped tomatoes" is "chopped tomatoes".</summary>
    public static string WithoutContainer(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var words = text.Trim().Split(' ', 2, StringSplitOptions.RemoveEmptyEntries);
        if (words.Length < 2 || !IsContainer(words[0])) return text.Trim();
        return AmountText.WithoutOf(words[1]);
    }

    // "purée" and "puree" are one word. Written out, since normalising text needs data that a small system may lack.
    private const string Accented =
        "àáâãäåçèéêëìíîïñòóôõöùúûüýÿāăąćĉċčďēĕėęěĝğġģĥĩīĭįĵķĺļľńņňōŏőŕŗřśŝşšţťũūŭůűųŵŷźżžđħłøı";
    private const string Plain = "aaaaaaceeeeiiiinooooouuuuyyaaaccccdeeeeegggghiiiijklllnnnooorrrssssttuuuuuuwyzzzdhloi";

    internal static string WithoutAccents(string text)
    {
        if (Ascii.IsValid(text)) return text;
        var letters = text.Where(letter => CharUnicodeInfo.GetUnicodeCategory(letter) != UnicodeCategory.NonSpacingMark);
        return string.Concat(letters.Select(letter => Accented.IndexOf(letter) is >= 0 and var at ? Plain[at] : letter));
    }

    private static string Bare(string word)
    {
        ArgumentNullException.ThrowIfNull(word);
        return Singular(word.ToLowerInvariant().TrimEnd(',', '.'));
    }

    /// <summary>
    /// What a text names, in the number that is said: 2 "egg" are "eggs", 2 "slice rye bread" "slices rye bread", 1 "apples" is "apple".
    /// What would not be read back as the same stays as it is.
    /// </summary>
    public static string InNumber(string text, int count)
    {
        ArgumentNullException.ThrowIfNull(text);
        var end = text.IndexOf(',', StringComparison.Ordinal) is >= 0 and var comma ? comma : text.Length;
        var start = text[..end].LastIndexOf(' ') + 1;
        if (text.Split(' ', 2) is [var measure, _] && IsCountedIn(measure)) (start, end) = (0, measure.Length);
        var word = text[start..end];
        var one = Singular(word);
        var said = count == 1 ? one : Plural(one);
        return string.Equals(Singular(said), one, StringComparison.Ordinal) ? text[..start] + said + text[end..] : text;
    }

    /// <summary>Several of something: "cloves", "limes".</summary>
    internal static string Plural(string word)
    {
        bool Ends(params ReadOnlySpan<string> ends)
        {
            foreach (var end in ends)
            {
                if (word.EndsWith(end, StringComparison.Ordinal)) return true;
            }

            return false;
        }

        if (Ends("y") && !Ends("ay", "ey", "oy")) return word[..^1] + "ies";
        if (Ends("af", "lf")) return word[..^1] + "ves";
        return word + (Ends("s", "x", "sh", "ch", "tomato", "potato") ? "es" : "s");
    }

    /// <summary>Whether a word says how a thing was cut or treated, and is left where it stands: "chopped".</summary>
    public static bool IsPreparation(string word) => Preparation.Contains(word);

    /// <summary>The singular of an English word, good enough to compare two: lentils, tomatoes, berries, slices.</summary>
    public static string Singular(string word)
    {
        ArgumentNullException.ThrowIfNull(word);
        bool Ends(string end) => word.EndsWith(end, StringComparison.Ordinal);
        if (word.Length < 4 || !word.EndsWith('s') || Ends("ss") || Ends("us")) return word;
        if (Ends("ies")) return word[..^3] + "y";
        if (Ends("oes") || Ends("shes") || Ends("ches") || Ends("xes")) return word[..^2];
        return Ends("ves") && word is not ("cloves" or "olives" or "chives" or "endives") ? word[..^3] + "f" : word[..^1];
    }
}
