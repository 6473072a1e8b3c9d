using System.Text.RegularExpressions;

namespace LivelyTern.Core.Foods;

/// <summary>What the words of a line name: the foods they may mean, and what else they say.</summary>
/// <param name="Name">The words that name the food: "chicken breasts".</param>
/// <param name="Note">What else was said: "boneless, skinless, sliced".</param>
/// <param name="Meant">The foods they may mean; one where it is clear.</param>
internal sealed record FoodNaming(string Name, string Note, IReadOnlyList<Food> Meant)
{
    // Said of how a food is sold, kept or cut; it is much the same food. What changes its figures ("lean", "low-fat", "skin-on", "dried")
    // is not here.
    private static readonly HashSet<string> Describing = new(StringComparer.OrdinalIgnoreCase)
    {
        "free-range", "organic", "boneless", "skinless", "baby", "shredded", "cubed", "halved", "quartered", "thinly", "thickly", "freshly",
        "coarsely", "lightly", "seedless", "deseeded", "seeded", "pitted", "stoned", "cored", "hulled", "shelled", "deveined", "cold",
        "warm", "hot", "chilled", "thawed", "defrosted", "good-quality", "flat-leaf", "curly", "small", "medium", "large", "thick", "thin",
        "juicy", "grass-fed", "wild-caught", "fine", "extra-virgin", "virgin", "extra", "fillet", "fillets", "florets", "leaves", "sprigs",
        "cloves", "stalks", "sticks", "wedges", "slices", "pieces", "chunks", "raw", "plain",
    };

    // Two spellings of one word, the one that the built-in foods are named by last.
    private static readonly (string Said, string Meant)[] Spellings =
    [
        ("yoghurt", "yogurt"), ("yoghurts", "yogurt"), ("broth", "stock"), ("chili", "chilli"), ("chile", "chilli"),
        ("chilies", "chillies"), ("chiles", "chillies"), ("ground", "minced"), ("uncooked", "dry"), ("uncooked", "raw"),
    ];

    // "Oil for frying", "butter or margarine": what follows is not part of the name.
    private static readonly Regex Tail = new(
        @"^(?<name>\S.*?)\s+(?<tail>(?:for|cut|or|plus (?:extra|more)|to serve|to garnish|at room|such as)\b.*)$",
        RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    /// <summary>Reads the words after an amount.</summary>
    /// <param name="text">"chicken breasts (boneless), sliced".</param>
    /// <param name="foods">The foods they may mean.</param>
    /// <param name="chosen">The food the cook chose, where one was chosen.</param>
    /// <param name="isTinned">Whether it was said to be in a tin: then of several the tinned one is meant.</param>
    public static FoodNaming Read(string text, IFoods foods, Food? chosen, bool isTinned = false)
    {
        var (name, note, meant) = AsSaid(text, foods, chosen);
        if (meant.Count == 0)
        {
            foreach (var (plainer, said) in Plainer(name))
            {
                if (foods.Meaning(plainer) is not { Count: > 0 } now) continue;
                (name, note, meant) = (plainer, Join(said, note), now);
                break;
            }
        }

        // The name says it too, so that it is still said where the tin is not.
        if (meant.Count > 1 && isTinned)
        {
            var tins = meant.Where(food => FoodWords.All(food.Name).Contains("canned", StringComparer.Ordinal)).ToList();
            if (tins is [var tinned]) (name, meant) = ($"canned {name}", [tinned]);
        }
        return new(name, note, meant);
    }

    /// <summary>Reads the words as they stand, none put aside.</summary>
    public static FoodNaming AsSaid(string text, IFoods foods, Food? chosen)
    {
        var (name, note) = Split(text, foods, chosen);
        return new(name, note, chosen is not null ? [chosen] : foods.Meaning(name));
    }

    /// <summary>Two notes as one.</summary>
    public static string Join(string first, string second) =>
        first.Length == 0 ? second : second.Length == 0 ? first : $"{first}, {second}";

    // "onions, chopped" and "chickpeas (drained)": the note after the comma or in brackets is not part of the name, but "red lentils, dry"
    // is one name.
    private static (string Name, string Note) Split(string text, IFoods foods, Food? chosen)
    {
        var name = text.Trim();
        var at = name.AsSpan().IndexOfAny(',', '(');
        if (at <= 0) return (name, "");
        static string Said(string text) =>
            string.Join(", ", text.Split([',', '(', ')'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries));
        var (before, note) = (name[..at].TrimEnd(), Said(name[(at + 1)..]));
        if (chosen is not null) return (before, note);
        if (foods.IsName(name)) return (name, "");

        // "red lentils, dry, rinsed": the name may itself hold a comma.
        for (var to = name.Length; (to = name.AsSpan(0, to).LastIndexOfAny(',', '(')) > at;)
        {
            if (foods.IsName(name[..to])) return (name[..to].TrimEnd(), Said(name[(to + 1)..]));
        }

        return foods.Meaning(before).Count == 1 || foods.Meaning(name).Count == 0 ? (before, note) : (name, "");
    }

    // The same with fewer words or another spelling, nearest first, and what was left out.
    private static IEnumerable<(string Name, string Said)> Plainer(string name)
    {
        foreach (var cut in new[] { (Name: name, Said: ""), WithoutTail(name) }.Distinct())
        {
            foreach (var (plain, said) in new[] { cut, WithoutDescription(cut) }.Distinct())
            {
                if (!string.Equals(plain, name, StringComparison.Ordinal)) yield return (plain, said);
                foreach (var respelled in Respelled(plain)) yield return (respelled, said);
            }
        }
    }

    // A tail that names an amount of its own is left where it is.
    private static (string Name, string Said) WithoutTail(string name) =>
        Tail.Match(name) is { Success: true } match && match.Groups["tail"].Value is var tail && !tail.Any(char.IsAsciiDigit)
            ? (match.Groups["name"].Value, tail)
            : (name, "");

    private static (string Name, string Said) WithoutDescription((string Name, string Said) of)
    {
        var name = of.Name.Replace("free range", "free-range", StringComparison.OrdinalIgnoreCase);
        var words = name.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var left = words.Where(word => !Describing.Contains(word)).ToList();
        return left.Count == 0 || left.Count == words.Length
            ? of
            : (string.Join(' ', left), Join(string.Join(' ', words.Where(Describing.Contains)), of.Said));
    }

    private static IEnumerable<string> Respelled(string name)
    {
        var words = name.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        foreach (var (said, meant) in Spellings)
        {
            if (words.Contains(said, StringComparer.OrdinalIgnoreCase))
                yield return string.Join(
                    ' ', words.Select(word => string.Equals(word, said, StringComparison.OrdinalIgnoreCase) ? meant : word));
        }
    }
}
