namespace LivelyTern.Core.Foods;

/// <summary>The foods a line may mean, found by name.</summary>
public sealed class FoodCatalogue
{
    private readonly Dictionary<string, Food> byId;
    private readonly List<Named> named;
    private readonly ILookup<string, Named> byWord;

    /// <summary>A catalogue of these foods; where two share an id the later one counts.</summary>
    public FoodCatalogue(IEnumerable<Food> foods)
    {
        ArgumentNullException.ThrowIfNull(foods);
        byId = new(StringComparer.Ordinal);
        foreach (var food in foods) byId[food.Id] = food;
        named = [.. byId.Values.SelectMany(food => food.Aliases.Prepend(food.Name).Select(name => new Named(food, name)))];
        byWord = named.SelectMany(entry => entry.All.Distinct(StringComparer.Ordinal).Select(word => (word, entry))).ToLookup(pair => pair.word, pair => pair.entry, StringComparer.Ordinal);
    }

    /// <summary>Every food, in no particular order.</summary>
    public IReadOnlyCollection<Food> All => byId.Values;

    /// <summary>The food of this id, or null.</summary>
    public Food? Find(string id) => byId.GetValueOrDefault(id);

    /// <summary>Whether a food has this very name, but for capitals and plurals: "Red lentils, dry".</summary>
    public bool IsName(string text)
    {
        var all = FoodWords.All(text);
        return all.Count > 0 && byWord[all[0]].Any(entry => entry.All.SequenceEqual(all, StringComparer.Ordinal));
    }

    /// <summary>
    /// The foods a text may mean. One where a name says exactly that, in any order of words, or where only one food's name contains all
    /// the words; several where it could be any of them ("oats": quick or rolled, not oat milk, whose noun is milk); none where nothing fits.
    /// </summary>
    public IReadOnlyList<Food> Meaning(string text)
    {
        var all = FoodWords.All(text).ToHashSet(StringComparer.Ordinal);
        var words = FoodWords.Telling(text).ToHashSet(StringComparer.Ordinal);
        if (words.Count == 0) return [];
        var noun = FoodWords.Noun(text);
        var close = byWord[words.First()].Where(entry => entry.Words.IsSupersetOf(words)).ToList();
        return Foods(close.Where(entry => all.SetEquals(entry.All)))
            ?? Foods(close.Where(entry => entry.Words.SetEquals(words)))
            ?? Foods(close.Where(entry => string.Equals(entry.Noun, noun, StringComparison.Ordinal)))
            ?? Foods(close)
            ?? [];
    }

    /// <summary>The foods whose words begin as typed, best first: for a list that narrows with each key.</summary>
    public IReadOnlyList<Food> Suggest(string typed, int most)
    {
        var words = FoodWords.Telling(typed);
        return [.. named
            .Where(entry => words.All(word => entry.Words.Any(own => own.StartsWith(word, StringComparison.Ordinal))))
            .OrderBy(entry => entry.Words.Count).ThenBy(entry => entry.Food.Name, StringComparer.Ordinal)
            .Select(entry => entry.Food).Distinct().Take(most)];
    }

    private static List<Food>? Foods(IEnumerable<Named> entries)
    {
        var foods = entries.Select(entry => entry.Food).Distinct().OrderBy(food => food.Name, StringComparer.Ordinal).ToList();
        return foods.Count > 0 ? foods : null;
    }

    private sealed class Named(Food food, string name)
    {
        public Food Food { get; } = food;

        public IReadOnlyList<string> All { get; } = FoodWords.All(name);

        public HashSet<string> Words { get; } = FoodWords.Telling(name).ToHashSet(StringComparer.Ordinal);

        public string Noun { get; } = FoodWords.Noun(name);
    }
}
