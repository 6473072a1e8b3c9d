using System.Text;

namespace LivelyTern.Core.Foods;

/// <summary>
/// The foods of the kitchen, held in memory and found by name: built in, the cook's own, and what was taken from a library.
/// </summary>
public sealed class FoodCatalogue : IFoods
{
    // So many words of what is typed are looked for; more narrow nothing.
    private const int MostTyped = 8;

    private readonly FoodIndex index;
    private readonly Dictionary<string, string> choices;
    private readonly Dictionary<string, int> recent;

    /// <summary>A catalogue of these foods; where two share an id the later one counts.</summary>
    /// <param name="foods">The foods.</param>
    /// <param name="choices">What the cook last chose for a text, by <see cref="FoodWords.Key"/>: the id of a food.</param>
    /// <param name="recent">Ids of the foods used last, the latest first.</param>
    public FoodCatalogue(
        IEnumerable<Food> foods, IReadOnlyDictionary<string, string>? choices = null, IReadOnlyList<string>? recent = null)
        : this(new FoodIndex(foods), choices, recent)
    {
    }

    /// <summary>A catalogue of the foods of an index.</summary>
    /// <param name="index">The foods by their names.</param>
    /// <param name="choices">What the cook last chose for a text, by <see cref="FoodWords.Key"/>: the id of a food.</param>
    /// <param name="recent">Ids of the foods used last, the latest first.</param>
    public FoodCatalogue(FoodIndex index, IReadOnlyDictionary<string, string>? choices = null, IReadOnlyList<string>? recent = null)
    {
        ArgumentNullException.ThrowIfNull(index);
        this.index = index;
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
    public IReadOnlyCollection<Food> All => index.All;

    /// <inheritdoc/>
    public Food? Find(string id) => index.Find(id);

    /// <inheritdoc/>
    public IReadOnlyList<Food> CookedFormsOf(string rawId) => index.CookedFormsOf(rawId);

    /// <inheritdoc/>
    public bool IsName(string text) => index.IsName(text);

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
        return said.Read.IsNameless ? FoodMeaning.None : FoodMeaning.Of(said, index.Called(said));
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
        var meant = typedWords.Select(index.MeantBy).ToList();
        var fewest = meant.MinBy(words => words.Sum(pair => index.With(pair.Key).Count()))!;
        return [.. fewest.Keys.SelectMany(index.With).Distinct()
            .Select(name => (name, fit: Fit(meant, name)))
            .Where(pair => pair.fit is not null)
            .OrderBy(pair => pair.fit!.Value.Slips).ThenBy(pair => Rank(pair.name.Food)).ThenBy(pair => pair.fit!.Value.Beginnings)
            .ThenBy(pair => pair.name.Telling.Count).ThenBy(pair => pair.name.Food.Name, StringComparer.Ordinal)
            .Select(pair => pair.name.Food).Distinct().Take(most)];
    }

    private int Rank(Food food) => recent.TryGetValue(food.Id, out var place) ? place : food.IsOwn ? recent.Count : recent.Count + 1;

    private static (int Slips, int Beginnings)? Fit(List<Dictionary<string, (int Slips, bool IsWhole)>> meant, FoodName name)
    {
        int slips = 0, beginnings = 0;
        foreach (var words in meant)
        {
            (int Slips, bool IsWhole)? best = null;
            foreach (var own in name.Telling)
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
}
