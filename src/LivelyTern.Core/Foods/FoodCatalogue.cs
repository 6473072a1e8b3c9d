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
        named = [.. All.SelectMany(food => food.Aliases.Prepend(food.Name).Select(name => new Named(food, name)))];
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
        return all.Count > 0 && byWord[all[0]].Any(entry => entry.All.SequenceEqual(all, StringComparer.Ordinal));
    }

    /// <summary>
    /// The foods a text may mean. What the cook last chose for these words comes first. Else one where a name says exactly that, in any
    /// order of words, or where only one food's name contains all the words; several where it could be any of them ("oats": quick or
    /// rolled, not oat milk, whose noun is milk); none where nothing fits.
    /// </summary>
    public IReadOnlyList<Food> Meaning(string text)
    {
        if (choices.TryGetValue(FoodWords.Key(text), out var id) && Find(id) is { } chosen) return [chosen];
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

    /// <summary>
    /// The foods whose words begin as typed, in any order, typing slips forgiven. Best first: fewest slips, then own foods and those used
    /// last, then whole words before beginnings, then the shortest name.
    /// </summary>
    public IReadOnlyList<Food> Suggest(string typed, int most)
    {
        var words = FoodWords.Telling(typed);
        return [.. named
            .Select(entry => (entry, fit: Fit(words, entry)))
            .Where(pair => pair.fit is not null)
            .OrderBy(pair => pair.fit!.Value.Slips).ThenBy(pair => Rank(pair.entry.Food)).ThenBy(pair => pair.fit!.Value.Beginnings)
            .ThenBy(pair => pair.entry.Words.Count).ThenBy(pair => pair.entry.Food.Name, StringComparer.Ordinal)
            .Select(pair => pair.entry.Food).Distinct().Take(most)];
    }

    private int Rank(Food food) => recent.TryGetValue(food.Id, out var place) ? place : food.IsOwn ? recent.Count : recent.Count + 1;

    private static (int Slips, int Beginnings)? Fit(IReadOnlyList<string> typed, Named entry)
    {
        int slips = 0, beginnings = 0;
        foreach (var word in typed)
        {
            int? best = null;
            var isWhole = false;
            foreach (var own in entry.Words)
            {
                var between = own.StartsWith(word, StringComparison.Ordinal) ? 0 : Slips.To(word, own);
                if (between is null || between > best) continue;
                isWhole = (isWhole && between == best) || own.Length == word.Length;
                best = between;
            }

            if (best is null) return null;
            slips += best.Value;
            if (!isWhole) beginnings++;
        }

        return (slips, beginnings);
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
