using LivelyTern.Core.Foods;

namespace LivelyTern.Core.Pack.Containers;

/// <summary>Two parts of a box that must not lie together.</summary>
/// <param name="Crisp">What goes soft.</param>
/// <param name="Wet">Beside what.</param>
public sealed record SoftBeside(string Crisp, string Wet);

/// <summary>Crisp things go soft beside wet ones. Told by their names; common practice, no published source.</summary>
public static class LieApart
{
    private static readonly HashSet<string> Crisp = Words(
        "crouton", "cracker", "crispbread", "crisp", "crispy", "crunchy", "granola", "muesli", "cornflake", "toast", "toasted",
        "breadcrumb", "panko", "popcorn", "pretzel", "rusk", "crumble", "tostada", "lettuce", "rocket", "watercress");

    private static readonly HashSet<string> Wet = Words(
        "sauce", "gravy", "dressing", "vinaigrette", "dip", "salsa", "yogurt", "jus", "custard", "compote", "broth", "stock", "soup",
        "raita", "tzatziki", "hummus");

    // A dish called so is wet; a food called so may be its spice.
    private static readonly HashSet<string> WetDish = Words(
        "stew", "curry", "chilli", "chili", "dal", "dhal", "ragout", "goulash", "chowder", "bisque", "casserole");

    private static readonly HashSet<string> Dry = Words("powder", "powdered", "cube", "dry", "dried", "freeze-dried");

    private static readonly HashSet<string> NotCrisp = Words("butter", "paste", "milk", "ground", "tahini", "cream", "oil");

    /// <summary>What of a box's parts lies together in one compartment and must not.</summary>
    /// <param name="parts">What goes in.</param>
    public static IReadOnlyList<SoftBeside> In(IEnumerable<BoxPart> parts)
    {
        ArgumentNullException.ThrowIfNull(parts);
        return
        [
            .. parts.Where(part => !string.Equals(part.Compartment, BatchShare.Beside, StringComparison.Ordinal) && part.Weight.Value > 0)
                .GroupBy(part => part.Compartment, StringComparer.OrdinalIgnoreCase).SelectMany(Pairs).Distinct(),
        ];
    }

    private static IEnumerable<SoftBeside> Pairs(IEnumerable<BoxPart> together)
    {
        var (crisp, wet) = (new List<string>(), new List<string>());
        foreach (var part in together)
        {
            var isNut = part is FoodInBox { Food.Food.Group: FoodGroup.NutsAndSeeds };
            var words = FoodWords.All(part.Name);

            // "Crispy chicken in sauce" is wet all through: what it lies beside no longer matters to it.
            if (!words.Any(Dry.Contains) && words.Any(word => Wet.Contains(word) || (part is BatchShare && WetDish.Contains(word))))
                wet.Add(part.Name);
            else if (words.Any(Crisp.Contains) || (isNut && !words.Any(NotCrisp.Contains))) crisp.Add(part.Name);
        }

        return crisp.SelectMany(one => wet.Select(other => new SoftBeside(one, other)));
    }

    private static HashSet<string> Words(params string[] words) => new(words, StringComparer.Ordinal);
}
