namespace LivelyTern.Core.Foods;

/// <summary>What a food's name says of how long it keeps: for foods of which nobody has said it.</summary>
public static class KeepingWords
{
    private static readonly HashSet<string> Rice = new(StringComparer.Ordinal)
    {
        "rice", "basmati", "jasmine", "arborio", "carnaroli", "risotto", "pilaf", "pilau", "paella", "biryani", "sushi", "congee",
    };

    /// <summary>
    /// Rice where a grain is called so: "Mill Lane basmati" keeps as rice. What only might be rice is better taken for it, since that is
    /// the shorter time.
    /// </summary>
    /// <param name="name">The food's name.</param>
    /// <param name="group">Its kind.</param>
    public static KeepingKind Of(string name, FoodGroup group)
    {
        ArgumentNullException.ThrowIfNull(name);
        var isRice = group == FoodGroup.Grains && FoodWords.All(name).Any(Rice.Contains);
        return isRice ? KeepingKind.Rice : KeepingKind.Ordinary;
    }
}
