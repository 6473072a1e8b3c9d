namespace LivelyTern.Core.Foods;

/// <summary>The foods a line may mean, found by name.</summary>
public sealed class FoodCatalogue
{
    private readonly Dictionary<string, Food> byId;
    private readonly List<(Food Food, HashSet<string> All, HashSet<string> Words)> named;

    /// <summary>A catalogue of these foods; where two share an id the later one counts.</summary>
    public FoodCatalogue(IEnumerable<Food> foods)
    {
        ArgumentNullException.ThrowIfNull(foods);
        byId = new(StringComparer.Ordinal);
        foreach (var food in foods) byId[food.Id] = food;
        named = [.. byId.Values.SelectMany(food => food.Aliases.Prepend(food.Name).Select(name => (food, FoodWords.All(name).ToHashSet(StringComparer.Ordinal), FoodWords.Telling(name).ToHashSet(StringComparer.Ordinal))))];
    }

    /// <summary>Every food, in no particular order.</summary>
    public IReadOnlyCollection<Food> All => byId.Values;

    /// <summary>The food of this id, or null.</summary>
    public Food? Find(string id) => byId.GetValueOrDefault(id);

    /// <summary>
    /// The foods a text may mean. One where the name or an alias says exactly that, in any order of words, or where only one food's
    /// name contains all the words; several where it could be any of them ("oats": quick or rolled); none where nothing fits.
    /// </summary>
    public IReadOnlyList<Food> Meaning(string text)
    {
        var words = FoodWords.Telling(text).ToHashSet(StringComparer.Ordinal);
        if (words.Count == 0) return [];
        var all = FoodWords.All(text).ToHashSet(StringComparer.Ordinal);
        var literal = named.Where(entry => entry.All.SetEquals(all)).Select(entry => entry.Food).Distinct().ToList();
        if (literal.Count > 0) return literal;
        var exact = named.Where(entry => entry.Words.SetEquals(words)).Select(entry => entry.Food).Distinct().ToList();
        if (exact.Count > 0) return exact;
        return [.. named.Where(entry => entry.Words.IsSupersetOf(words)).Select(entry => entry.Food).Distinct().OrderBy(food => food.Name, StringComparer.Ordinal)];
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
}
