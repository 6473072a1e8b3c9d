using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Keep;

/// <summary>A published set of rules of how long food keeps.</summary>
/// <param name="Code">How a script names it: "us", "uk".</param>
/// <param name="Name">How a cook does.</param>
/// <param name="Fridge">The temperature of the fridge that it counts on, in °C.</param>
/// <param name="Rules">What it says of each kind; a kind it says nothing of has none.</param>
public sealed record GuidelineSet(string Code, string Name, decimal Fridge, IReadOnlyList<KeepingRule> Rules)
{
    private const string Chart = "FoodSafety.gov cold food storage chart (from memory)";
    private const string Agency = "UK Food Standards Agency (from memory)";
    private const string AgencyFreezer = Agency + "; in the freezer: as the " + Chart;
    private const string NoLine = Chart + ": no line of its own, as cooked dishes";

    /// <summary>
    /// Days in the fridge after something came out of the freezer, in either set. Source: UK Food Standards Agency, within 24 hours of
    /// defrosting (from memory); the stricter of the two.
    /// </summary>
    public const int DaysThawed = 1;

    /// <summary>North America.</summary>
    public static GuidelineSet Us { get; } = new("us", "North America", 4, [
        new(KeepingKind.Ordinary, new(3, 4), KeepingDays.Months(2, 3), Chart),
        new(KeepingKind.Rice, new(3, 4), KeepingDays.Months(2, 3), NoLine),
        new(KeepingKind.Poultry, new(3, 4), KeepingDays.Months(2, 6), Chart),
        new(KeepingKind.Meat, new(3, 4), KeepingDays.Months(2, 6), Chart),
        new(KeepingKind.Fish, new(3, 4), KeepingDays.Months(2, 3), Chart + "; in the freezer: no line of its own, as cooked dishes"),
        new(KeepingKind.EggDish, new(3, 4), KeepingDays.Months(2, 3), Chart),
        new(KeepingKind.HardCookedEgg, KeepingDays.Weeks(1, 1), null, Chart),
        new(KeepingKind.MixedSalad, new(3, 4), null, Chart),
        new(KeepingKind.Soup, new(3, 4), KeepingDays.Months(2, 3), Chart),
        new(KeepingKind.Pizza, new(3, 4), KeepingDays.Months(1, 2), Chart),
        new(KeepingKind.Bacon, KeepingDays.Weeks(1, 1), KeepingDays.Months(1, 1), Chart),
        new(KeepingKind.ColdMeat, new(3, 5), KeepingDays.Months(1, 2), Chart),
        new(KeepingKind.RawMince, new(1, 2), KeepingDays.Months(3, 4), Chart),
        new(KeepingKind.RawPoultry, new(1, 2), KeepingDays.Months(9, 9), Chart),
        new(KeepingKind.RawMeat, new(3, 5), KeepingDays.Months(4, 12), Chart),
        new(KeepingKind.EggInShell, KeepingDays.Weeks(3, 5), null, Chart),
    ]);

    /// <summary>
    /// The United Kingdom: leftovers within 48 hours, cooked rice within 24. What is raw goes by the use-by date on its package: of that
    /// the set says nothing.
    /// </summary>
    public static GuidelineSet Uk { get; } = new("uk", "United Kingdom", 5, [
        new(KeepingKind.Ordinary, new(2, 2), KeepingDays.Months(2, 3), AgencyFreezer),
        new(KeepingKind.Rice, new(1, 1), KeepingDays.Months(2, 3), AgencyFreezer),
        new(KeepingKind.Poultry, new(2, 2), KeepingDays.Months(2, 6), AgencyFreezer),
        new(KeepingKind.Meat, new(2, 2), KeepingDays.Months(2, 6), AgencyFreezer),
        new(KeepingKind.Fish, new(2, 2), KeepingDays.Months(2, 3), AgencyFreezer),
        new(KeepingKind.EggDish, new(2, 2), KeepingDays.Months(2, 3), AgencyFreezer),
        new(KeepingKind.HardCookedEgg, new(2, 2), null, Agency),
        new(KeepingKind.MixedSalad, new(2, 2), null, Agency),
        new(KeepingKind.Soup, new(2, 2), KeepingDays.Months(2, 3), AgencyFreezer),
        new(KeepingKind.Pizza, new(2, 2), KeepingDays.Months(1, 2), AgencyFreezer),
        new(KeepingKind.Bacon, new(2, 2), KeepingDays.Months(1, 1), AgencyFreezer),
        new(KeepingKind.ColdMeat, new(2, 2), KeepingDays.Months(1, 2), AgencyFreezer),
    ]);

    /// <summary>The sets there are.</summary>
    public static IReadOnlyList<GuidelineSet> All { get; } = [Us, Uk];

    /// <summary>The set of a code, or null.</summary>
    public static GuidelineSet? Find(string? code) => All.FirstOrDefault(set => string.Equals(set.Code, code, StringComparison.Ordinal));

    /// <summary>What is said of a code that is none of theirs.</summary>
    public static Problem Unknown { get; } =
        new("guidelines-unknown", "guidelines", $"Choose one of: {string.Join(", ", All.Select(set => set.Code))}.");

    /// <summary>What it says of a kind; null where it says nothing.</summary>
    public KeepingRule? Of(KeepingKind kind) => Rules.FirstOrDefault(rule => rule.Kind == kind);
}
