namespace LivelyTern.Core.Foods;

/// <summary>
/// Foods by their id and by the words of their names, as far as nothing of a cook's ways is needed for it: read once, kept while the
/// foods are what they are.
/// </summary>
public sealed class FoodIndex
{
    private readonly Dictionary<string, Food> byId = new(StringComparer.Ordinal);
    private readonly ILookup<string, FoodName> byWord;
    private readonly Dictionary<string, List<FoodFacets>> byFacetWord;
    private readonly ILookup<string, FoodFacets> byKey;
    private readonly ILookup<string, Food> cookedForms;
    private readonly HashSet<string> wholeNames;
    private readonly List<(string Word, uint Letters)> ownWords;

    /// <summary>An index of these foods; where two share an id the later one counts.</summary>
    /// <param name="foods">The foods.</param>
    /// <param name="putAway">Foods found by their id only, for what was written with them.</param>
    public FoodIndex(IEnumerable<Food> foods, IReadOnlyList<Food>? putAway = null)
    {
        ArgumentNullException.ThrowIfNull(foods);
        foreach (var food in foods) byId[food.Id] = food;
        All = [.. byId.Values];
        cookedForms = All.Where(food => food.CookedFrom is not null)
            .ToLookup(food => food.CookedFrom!.RawId, StringComparer.Ordinal);
        foreach (var food in putAway ?? []) byId.TryAdd(food.Id, food);
        List<FoodFacets> facets = [.. All.Select(food => new FoodFacets(food))];
        var words = facets.SelectMany(food =>
            food.Names.SelectMany(name => name.Read.Words).Distinct(StringComparer.Ordinal).Select(word => (word, food)));
        byFacetWord = words.GroupBy(pair => pair.word, pair => pair.food, StringComparer.Ordinal)
            .ToDictionary(same => same.Key, same => same.ToList(), StringComparer.Ordinal);
        byKey = facets.SelectMany(food => food.Names.Select(name => (name.Key, food))).ToLookup(
            pair => pair.Key, pair => pair.food, StringComparer.Ordinal);
        List<FoodName> names = [.. facets.SelectMany(food => food.Names)];
        wholeNames = names.Select(name => string.Join(' ', name.All)).ToHashSet(StringComparer.Ordinal);
        ownWords = [.. names.SelectMany(name => name.Telling).Distinct(StringComparer.Ordinal).Select(word => (word, Slips.Letters(word)))];
        byWord = names.SelectMany(name => name.All.Distinct(StringComparer.Ordinal).Select(word => (word, name)))
            .ToLookup(pair => pair.word, pair => pair.name, StringComparer.Ordinal);
    }

    /// <summary>Every food but those put away, in no particular order.</summary>
    public IReadOnlyCollection<Food> All { get; }

    /// <summary>The food with this id, or null.</summary>
    public Food? Find(string id) => byId.GetValueOrDefault(id);

    /// <summary>The cooked forms of a raw food.</summary>
    public IReadOnlyList<Food> CookedFormsOf(string rawId) => [.. cookedForms[rawId]];

    /// <summary>Whether a text is the name of a food word for word.</summary>
    public bool IsName(string text) => wholeNames.Contains(string.Join(' ', FoodWords.All(text)));

    /// <summary>By the naming word that the fewest have; a name with other naming words may still be it word for word.</summary>
    internal IEnumerable<FoodFacets> Called(SaidFood said)
    {
        var telling = said.Read.Words.Where(word => !FacetWords.IsKind(word)).ToList();
        var rarest = (telling.Count > 0 ? telling : said.Read.Words)
            .Select(word => byFacetWord.GetValueOrDefault(word, [])).MinBy(foods => foods.Count)!;
        return byKey[FoodName.KeyOf(said.Name)].Concat(rarest).Distinct();
    }

    /// <summary>The names that have a word.</summary>
    internal IEnumerable<FoodName> With(string word) => byWord[word];

    /// <summary>The words that a typed one may be, whole or the beginning of, with its slips.</summary>
    internal Dictionary<string, (int Slips, bool IsWhole)> MeantBy(string typed)
    {
        var meant = new Dictionary<string, (int Slips, bool IsWhole)>(StringComparer.Ordinal);
        var lettersTyped = Slips.Letters(typed);
        foreach (var (word, letters) in ownWords)
        {
            if (!Slips.MayBe(typed, lettersTyped, letters)) continue;
            var slips = word.StartsWith(typed, StringComparison.Ordinal) ? 0 : Slips.To(typed, word);
            if (slips is { } few) meant[word] = (few, word.Length == typed.Length);
        }

        return meant;
    }
}
