namespace LivelyTern.Core.Foods;

/// <summary>What a name says of how long something keeps: of a food of which nobody has said it, and of a dish.</summary>
public static class KeepingWords
{
    private static readonly HashSet<string> Rice = Words(
        "rice", "basmati", "jasmine", "arborio", "carnaroli", "risotto", "pilaf", "pilau", "paella", "biryani", "sushi", "congee");

    private static readonly HashSet<string> Poultry = Words("chicken", "turkey", "duck", "goose", "poultry", "quail", "pheasant");
    private static readonly HashSet<string> Bacon = Words("bacon", "pancetta", "lardon");

    private static readonly HashSet<string> ColdMeat = Words(
        "ham", "prosciutto", "salami", "pastrami", "luncheon", "bologna", "mortadella", "bresaola", "pepperoni");

    private static readonly HashSet<string> Boiled = Words("boiled", "hard-boiled", "hardboiled", "hard-cooked");
    private static readonly HashSet<string> Soup = Words(
        "soup", "stew", "broth", "chowder", "chilli", "chili", "dal", "dhal", "curry", "goulash", "bisque", "ragout", "minestrone");

    private static readonly HashSet<string> Salad = Words("salad", "slaw", "coleslaw");
    private static readonly HashSet<string> Pizza = Words("pizza");

    /// <summary>
    /// Rice where a grain is called so: "Mill Lane basmati" keeps as rice. What only might be rice is better taken for it, since that is
    /// the shorter time.
    /// </summary>
    /// <param name="name">The food's name.</param>
    /// <param name="group">Its kind.</param>
    public static KeepingKind Of(string name, FoodGroup group)
    {
        ArgumentNullException.ThrowIfNull(name);
        bool Says(HashSet<string> words) => FoodWords.All(name).Any(words.Contains);
        return group switch
        {
            FoodGroup.Grains when Says(Rice) => KeepingKind.Rice,
            FoodGroup.Meat when Says(Bacon) => KeepingKind.Bacon,
            FoodGroup.Meat when Says(ColdMeat) => KeepingKind.ColdMeat,
            FoodGroup.Meat => Says(Poultry) ? KeepingKind.Poultry : KeepingKind.Meat,
            FoodGroup.Fish => KeepingKind.Fish,
            FoodGroup.Eggs => Says(Boiled) ? KeepingKind.HardCookedEgg : KeepingKind.EggDish,
            _ => KeepingKind.Ordinary,
        };
    }

    /// <summary>What a dish's name says it is: a soup, a bound salad, a pizza, hard-boiled eggs; null where it says nothing.</summary>
    /// <param name="name">The dish's name.</param>
    public static KeepingKind? OfDish(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        var words = FoodWords.All(name);
        if (words.Any(Salad.Contains)) return KeepingKind.MixedSalad;
        if (words.Any(Pizza.Contains)) return KeepingKind.Pizza;
        if (words.Any(Soup.Contains)) return KeepingKind.Soup;
        return words.Any(Boiled.Contains) && words.Contains("egg", StringComparer.Ordinal) ? KeepingKind.HardCookedEgg : null;
    }

    private static HashSet<string> Words(params string[] words) => new(words, StringComparer.Ordinal);
}
