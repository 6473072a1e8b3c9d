namespace LivelyTern.Core.Foods;

/// <summary>The words of a line that are about a food: those that name it, and what else the line says of it.</summary>
public sealed class SaidFood
{
    private SaidFood(string name, NameFacets named, NameFacets note)
    {
        Name = name;
        Note = note;
        Read = named.With(note);
    }

    /// <summary>The words that name it, as typed.</summary>
    public string Name { get; }

    /// <summary>All that is said of it: the words of its name, and the facets of the whole line.</summary>
    internal NameFacets Read { get; }

    /// <summary>What is said apart from the name.</summary>
    internal NameFacets Note { get; }

    /// <summary>The forms that were said of it, each of which has to hold; a tin says one too, where no other is said.</summary>
    internal IReadOnlyList<string> Forms { get; private init; } = [];

    /// <summary>Those of them that were said apart from the name: "cooked" of "turkey bacon, cooked".</summary>
    internal IReadOnlyList<string> FormsInNote { get; private init; } = [];

    /// <summary>What is said of a food.</summary>
    /// <param name="name">The words that name it: "brown rice".</param>
    /// <param name="note">What stands beside them: "cooked, cold".</param>
    /// <param name="isTinned">Whether a tin was said.</param>
    public static SaidFood Of(string name, string note = "", bool isTinned = false)
    {
        ArgumentNullException.ThrowIfNull(name);
        var (named, beside) = (NameFacets.Of(name, isName: true), NameFacets.Of(note));
        var (own, apart) = (FormsOf(named), FormsOf(beside));
        List<string> forms = [.. own.Union(apart, StringComparer.Ordinal)];

        // "Fresh or frozen" says neither.
        if (forms.Contains("fresh", StringComparer.Ordinal) && forms.Contains("frozen", StringComparer.Ordinal))
            forms.RemoveAll(form => form is "fresh" or "frozen");
        if (isTinned && forms.Count == 0) forms.Add("canned");
        return new(name, named, beside) { Forms = forms, FormsInNote = apart };
    }

    /// <summary>The same without the forms that were said apart from the name.</summary>
    internal SaidFood OfAnyForm() => new(Name, Read, Note) { Forms = [.. Forms.Except(FormsInNote, StringComparer.Ordinal)] };

    private static List<string> FormsOf(NameFacets read) =>
        [.. read.Facets.Where(facet => facet.Axis == FacetAxis.Form).Select(facet => facet.Value).Distinct(StringComparer.Ordinal)];
}

/// <summary>A food that some words may mean.</summary>
/// <param name="Food">The food.</param>
/// <param name="Name">The name of it that fits best.</param>
/// <param name="Off">How far it is from what was said: 0 for just that.</param>
/// <param name="IsWhole">Whether every naming word of that name was said: "onion" is not wholly "red onion".</param>
/// <param name="IsUsual">Whether the words only usually mean it.</param>
/// <param name="IsCooked">Whether it is weighed as cooked.</param>
public sealed record FoodFit(Food Food, string Name, decimal Off, bool IsWhole, bool IsUsual, bool IsCooked = false);

/// <summary>What some words may mean: the foods of which all holds that was said, the nearest first.</summary>
/// <param name="Fits">The foods.</param>
/// <param name="Refused">Foods of that name of which something does not hold that was said: never taken, only offered.</param>
/// <param name="IsChosen">Whether the cook chose it for these words.</param>
public sealed record FoodMeaning(IReadOnlyList<FoodFit> Fits, IReadOnlyList<Food> Refused, bool IsChosen = false)
{
    private const decimal Even = 0.001m, ByKind = 0.1m;

    // Of two that fit alike the cook's own is meant.
    private const decimal Own = 0.01m;
    private const int MostRefused = 6;

    /// <summary>Nothing fits.</summary>
    public static FoodMeaning None { get; } = new([], []);

    /// <summary>The nearest foods: one where it is clear, several where nothing tells them apart.</summary>
    public IReadOnlyList<Food> Best =>
        [.. Fits.TakeWhile(fit => fit.Off - Fits[0].Off < Even).Select(fit => fit.Food).Distinct()];

    /// <summary>One food, because it was chosen.</summary>
    public static FoodMeaning Chosen(Food food)
    {
        ArgumentNullException.ThrowIfNull(food);
        return new([new(food, food.Name, 0, true, false)], [], true);
    }

    /// <summary>What is meant, among some foods.</summary>
    /// <param name="said">What was said.</param>
    /// <param name="foods">The foods it may be.</param>
    public static FoodMeaning Among(SaidFood said, IEnumerable<Food> foods)
    {
        ArgumentNullException.ThrowIfNull(foods);
        return Of(said, foods.Select(food => new FoodFacets(food)));
    }

    internal static FoodMeaning Of(SaidFood said, IEnumerable<FoodFacets> foods)
    {
        ArgumentNullException.ThrowIfNull(said);
        if (said.Read.IsNameless) return None;
        var exact = FoodName.KeyOf(said.Name);
        var (fits, refused) = (new List<FoodFit>(), new List<(Food Food, decimal Off)>());
        foreach (var food in foods)
        {
            if (Nearest(food, said, exact) is not var (name, opened, isExact)) continue;
            var open = opened;

            // A food called by its very name is that, whatever the name seems to say of its figures.
            var off = isExact ? food.Distance(said.Note, said.FormsInNote) : food.Distance(said.Read, said.Forms);
            if (food.Food.IsOwn) open -= Own;
            var isWhole = isExact || name.Read.Words.All(word => said.Read.Words.Contains(word, StringComparer.Ordinal));
            if (off is { } held) fits.Add(new(food.Food, name.Text, open + held, isWhole, name.IsUsual, food.IsCooked));
            else refused.Add((food.Food, open));
        }

        return new(
            [.. fits.OrderBy(fit => fit.Off).ThenBy(fit => fit.Food.Name, StringComparer.Ordinal)],
            [.. refused.OrderBy(one => one.Off).Take(MostRefused).Select(one => one.Food)]);
    }

    private static (FoodName Name, decimal Open, bool IsExact)? Nearest(FoodFacets food, SaidFood said, string exact)
    {
        (FoodName Name, decimal Open, bool IsExact)? best = null;
        foreach (var name in food.Names)
        {
            var isExact = !name.IsUsual && string.Equals(exact, name.Key, StringComparison.Ordinal);
            var kind = 0m;
            if (!isExact && !IsOf(food.Food, name.Read, said.Read, ref kind)) continue;
            var isInOrder = string.Equals(name.Read.Head, said.Read.Head, StringComparison.Ordinal);
            var open = isExact ? (isInOrder ? -0.5m : -0.4m) : name.Open(said.Read, said.Forms.Count > 0) + kind;
            if (best is null || open < best.Value.Open) best = (name, open, isExact);
        }

        return best;
    }

    // Every naming word that was said is in the name, but for its kind ("mozzarella cheese"); where the name has more, its noun has to be
    // the one that was said.
    private static bool IsOf(Food food, NameFacets name, NameFacets said, ref decimal kind)
    {
        var known = 0;
        foreach (var word in said.Words)
        {
            if (name.Words.Contains(word, StringComparer.Ordinal)) known++;
            else if (IsKindOf(word, food)) kind = ByKind;
            else return false;
        }

        if (known == 0) return false;
        return name.Words.Count == known || string.Equals(name.Head, said.Head, StringComparison.Ordinal)
            || (kind > 0 && name.Words.Contains(said.Words[^1], StringComparer.Ordinal));
    }

    private static bool IsKindOf(string word, Food food) => food.Group switch
    {
        FoodGroup.Dairy => word is "cheese" && food.Use is "cheese" or "soft-cheese",
        FoodGroup.Fish => word is "fish" or "meat",
        FoodGroup.Vegetables => word is "vegetable",
        FoodGroup.Fruit => word is "fruit",
        FoodGroup.Grains => word is "bread" && food.Use is "bread",
        FoodGroup.NutsAndSeeds => word is "nut" or "seed",
        FoodGroup.Meat => word is "meat",
        _ => false,
    };
}
