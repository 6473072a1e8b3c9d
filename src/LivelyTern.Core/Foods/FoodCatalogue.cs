using System.Text;

namespace LivelyTern.Core.Foods;

/// <summary>
/// The foods of the kitchen, held in memory and found by name: built in, the cook's own, and what was taken from a library.
/// </summary>
public sealed class FoodCatalogue : IFoods
{
    private readonly Dictionary<string, Food> byId;
    private readonly List<Named> named;
    private readonly ILookup<string, Named> byWord;
    private readonly Dictionary<string, List<FoodFacets>> byFacetWord;
    private readonly ILookup<string, FoodFacets> byKey;
    private readonly List<string> ownWords;

    // So many words of what is typed are looked for; more narrow nothing.
    private const int MostTyped = 8;
    private readonly Dictionary<string, string> choices;
    private readonly Dictionary<string, int> recent;

    /// <summary>A catalogue of these foods; where two share an id the later one counts.</summary>
    /// <param name="foods">The foods.</param>
    /// <param name="choices">What the cook last chose for a text, by <see cref="FoodWords.Key"/>: the id of a food.</param>
    /// <param name="recent">Ids of the foods used last, the latest first.</param>
    /// <param name="putAway">Foods found by their id only, for what was written with them.</param>
    public FoodCatalogue(
        IEnumerable<Food> foods, IReadOnlyDictionary<string, string>? choices = null, IReadOnlyList<string>? recent = null,
        IReadOnlyList<Food>? putAway = null)
    {
        ArgumentNullException.ThrowIfNull(foods);
        byId = new(StringComparer.Ordinal);
        foreach (var food in foods) byId[food.Id] = food;
        All = [.. byId.Values];
        foreach (var food in putAway ?? []) byId.TryAdd(food.Id, food);
        List<FoodFacets> facets = [.. All.Select(food => new FoodFacets(food))];
        var words = facets.SelectMany(food =>
            food.Names.SelectMany(name => name.Read.Words).Distinct(StringComparer.Ordinal).Select(word => (word, food)));
        byFacetWord = words.GroupBy(pair => pair.word, pair => pair.food, StringComparer.Ordinal)
            .ToDictionary(same => same.Key, same => same.ToList(), StringComparer.Ordinal);
        byKey = facets.SelectMany(food => food.Names.Select(name => (name.Key, food))).ToLookup(
            pair => pair.Key, pair => pair.food, StringComparer.Ordinal);
        named = [.. All.SelectMany(food => food.Aliases.Prepend(food.Name).Concat(food.Usual)
            .Select(name => new Named(food, name)))];
        ownWords = [.. named.SelectMany(entry => entry.Words).Distinct(StringComparer.Ordinal)];
        byWord = named.SelectMany(entry => entry.All.Distinct(StringComparer.Ordinal).Select(word => (word, entry)))
            .ToLookup(pair => pair.word, pair => pair.entry, StringComparer.Ordinal);
        this.choices = new(StringComparer.Ordinal);
        foreach (var (key, id) in choices ?? new Dictionary<string, string>(StringComparer.Ordinal))
        {
            // A choice from before accents were put aside counts for the words without them, unless those have one of their own.
            if (Ascii.IsValid(key)) this.choices[key] = id;
            else this.choices.TryAdd(FoodWords.Key(key), id);
        }

        this.recent = (recent ?? []).Distinct(StringComparer.Ordinal).Select((id, i) => (id, i))
            .ToDictionary(pair => pair.id, pair => pair.i, StringComparer.Ordinal);
    }

    /// <summary>Every food, in no particular order.</summary>
    public IReadOnlyCollection<Food> All { get; }

    /// <inheritdoc/>
    public Food? Find(string id) => byId.GetValueOrDefault(id);

    /// <inheritdoc/>
    public bool IsName(string text)
    {
        var all = FoodWords.All(text);
        return all.Count > 0 && byKey.Contains(FoodName.KeyOf(text))
            && byWord[all[0]].Any(entry => entry.All.SequenceEqual(all, StringComparer.Ordinal));
    }

    /// <summary>
    /// The foods that may be meant. What the cook last chose for these words comes first, where nothing that was said contradicts it. Else
    /// those of which all holds that was said, the nearest first: see <see cref="FoodMeaning"/>.
    /// </summary>
    public FoodMeaning Meaning(SaidFood said)
    {
        ArgumentNullException.ThrowIfNull(said);
        if (choices.TryGetValue(FoodWords.Key(said.Name), out var id) && Find(id) is { } chosen
            && new FoodFacets(chosen).Distance(said.Note, said.FormsInNote) is not null)
            return FoodMeaning.Chosen(chosen);
        return said.Read.IsNameless ? FoodMeaning.None : FoodMeaning.Of(said, FoodsCalled(said));
    }

    // By the naming word that the fewest have; a name with other naming words may still be it word for word.
    private IEnumerable<FoodFacets> FoodsCalled(SaidFood said)
    {
        var telling = said.Read.Words.Where(word => !FacetWords.IsKind(word)).ToList();
        var rarest = (telling.Count > 0 ? telling : said.Read.Words)
            .Select(word => byFacetWord.GetValueOrDefault(word, [])).MinBy(foods => foods.Count)!;
        return byKey[FoodName.KeyOf(said.Name)].Concat(rarest).Distinct();
    }

    /// <summary>
    /// The foods whose words begin as typed, in any order, typing slips forgiven. Best first: fewest slips, then own foods and those used
    /// last, then whole words before beginnings, then the shortest name.
    /// </summary>
    public IReadOnlyList<Food> Suggest(string typed, int most)
    {
        var typedWords = FoodWords.Telling(typed).Distinct(StringComparer.Ordinal).Take(MostTyped).ToList();
        if (typedWords.Count == 0) return [.. All.OrderBy(Rank).ThenBy(food => food.Name, StringComparer.Ordinal).Take(most)];

        // Each of the words typed against each word that names have, once; then the names that have one for each.
        var meant = typedWords.Select(MeantBy).ToList();
        var fewest = meant.MinBy(words => words.Sum(pair => byWord[pair.Key].Count()))!;
        return [.. fewest.Keys.SelectMany(word => byWord[word]).Distinct()
            .Select(entry => (entry, fit: Fit(meant, entry)))
            .Where(pair => pair.fit is not null)
            .OrderBy(pair => pair.fit!.Value.Slips).ThenBy(pair => Rank(pair.entry.Food)).ThenBy(pair => pair.fit!.Value.Beginnings)
            .ThenBy(pair => pair.entry.Words.Count).ThenBy(pair => pair.entry.Food.Name, StringComparer.Ordinal)
            .Select(pair => pair.entry.Food).Distinct().Take(most)];
    }

    // The words that a typed one may be, whole or the beginning of, with its slips.
    private Dictionary<string, (int Slips, bool IsWhole)> MeantBy(string typed)
    {
        var meant = new Dictionary<string, (int Slips, bool IsWhole)>(StringComparer.Ordinal);
        foreach (var word in ownWords)
        {
            var slips = word.StartsWith(typed, StringComparison.Ordinal) ? 0 : Slips.To(typed, word);
            if (slips is { } few) meant[word] = (few, word.Length == typed.Length);
        }

        return meant;
    }

    private int Rank(Food food) => recent.TryGetValue(food.Id, out var place) ? place : food.IsOwn ? recent.Count : recent.Count + 1;

    private static (int Slips, int Beginnings)? Fit(List<Dictionary<string, (int Slips, bool IsWhole)>> meant, Named entry)
    {
        int slips = 0, beginnings = 0;
        foreach (var words in meant)
        {
            (int Slips, bool IsWhole)? best = null;
            foreach (var own in entry.Words)
            {
                if (!words.TryGetValue(own, out var one) || one.Slips > best?.Slips) continue;
                best = (one.Slips, one.IsWhole || (best is { IsWhole: true } known && known.Slips == one.Slips));
            }

            if (best is null) return null;
            slips += best.Value.Slips;
            if (!best.Value.IsWhole) beginnings++;
        }

        return (slips, beginnings);
    }

    private sealed class Named(Food food, string name)
    {
        public Food Food { get; } = food;

        public IReadOnlyList<string> All { get; } = FoodWords.All(name);

        public HashSet<string> Words { get; } = FoodWords.Telling(name).ToHashSet(StringComparer.Ordinal);
    }
}
