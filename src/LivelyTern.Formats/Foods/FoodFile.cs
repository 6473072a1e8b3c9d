using LivelyTern.Core.Foods;

namespace LivelyTern.Formats.Foods;

/// <summary>A file of foods that can be read from its start, as often as needed.</summary>
public interface IFoodFile
{
    /// <summary>What kind of file it is, in words.</summary>
    string Kind { get; }

    /// <summary>The rows, one after the other; the file need not fit into memory.</summary>
    /// <param name="progress">Told the share read so far, 0 to 1.</param>
    /// <param name="stop">Ends the reading.</param>
    IEnumerable<ImportedRow> Rows(IProgress<double>? progress = null, CancellationToken stop = default);
}

/// <summary>The kind of a food, from the words of a table's own groups.</summary>
public static class GroupWords
{
    // The first that fits counts: "sweet potatoes" before "sweets", "vegetable oils" before "vegetables".
    private static readonly (string Word, FoodGroup Group)[] Table =
    [
        ("oil seed", FoodGroup.NutsAndSeeds), ("oilseed", FoodGroup.NutsAndSeeds), ("dairy", FoodGroup.Dairy), ("oil", FoodGroup.Fats),
        ("fats", FoodGroup.Fats), ("butter", FoodGroup.Fats), ("potato", FoodGroup.Potatoes), ("tuber", FoodGroup.Potatoes),
        ("nut and", FoodGroup.NutsAndSeeds), ("nuts", FoodGroup.NutsAndSeeds),
        ("seed", FoodGroup.NutsAndSeeds), ("legume", FoodGroup.Pulses), ("pulse", FoodGroup.Pulses), ("bean", FoodGroup.Pulses),
        ("egg", FoodGroup.Eggs), ("fish", FoodGroup.Fish), ("mollusk", FoodGroup.Fish),
        ("milk", FoodGroup.Dairy), ("cheese", FoodGroup.Dairy), ("yogurt", FoodGroup.Dairy), ("poultry", FoodGroup.Meat),
        ("beef", FoodGroup.Meat), ("pork", FoodGroup.Meat), ("lamb", FoodGroup.Meat),
        ("meat", FoodGroup.Meat), ("sausage", FoodGroup.Meat), ("spice", FoodGroup.Seasonings), ("herb", FoodGroup.Seasonings),
        ("sauce", FoodGroup.Seasonings), ("soup", FoodGroup.Seasonings), ("beverage", FoodGroup.Seasonings),
        ("sweet", FoodGroup.Sweets), ("sugar", FoodGroup.Sweets), ("candy", FoodGroup.Sweets), ("snack", FoodGroup.Sweets),
        ("fruit", FoodGroup.Fruit), ("vegetable", FoodGroup.Vegetables), ("mushroom", FoodGroup.Vegetables),
        ("leafy", FoodGroup.Vegetables),
        ("cereal", FoodGroup.Grains), ("grain", FoodGroup.Grains), ("baked", FoodGroup.Grains), ("bread", FoodGroup.Grains),
        ("pasta", FoodGroup.Grains),
    ];

    /// <summary>The kind that fits a table's group; seasonings, which are never free by default, where none does.</summary>
    public static FoodGroup GroupOf(string? words)
    {
        if (string.IsNullOrEmpty(words)) return FoodGroup.Seasonings;
        foreach (var (word, group) in Table)
        {
            if (words.Contains(word, StringComparison.OrdinalIgnoreCase)) return group;
        }

        return FoodGroup.Seasonings;
    }
}
