using LivelyTern.Core.Review;

namespace LivelyTern.Data.Demo;

/// <summary>Something that was said of a dish in the demo's past.</summary>
internal sealed record DemoSaid(int WeeksAgo, string Name, string Dish, Verdict Verdict);

/// <summary>What the station ate, cooked and said before last week.</summary>
internal static class DemoHistory
{
    /// <summary>How many weeks, before last week.</summary>
    public const int Weeks = 10;

    /// <summary>The two dishes that were cooked then.</summary>
    public static IReadOnlyList<DemoDish> Dishes { get; } =
    [
        new("LP", "Leek and potato soup", 14, null, 1630, 7510,
            [
                "1.2 kg leeks", "1.5 kg potatoes", "60 g butter", "400 ml semi-skimmed milk", "2.5 l vegetable stock",
                "black pepper, to taste",
            ]),
        new("TB", "Turkey and bean pot", 20, null, 1630, 9230,
            [
                "1.6 kg turkey breast", "4 x 400 g tin kidney beans, drained", "4 x 400 g tin chopped tomatoes", "3 onions, chopped",
                "3 peppers", "4 tbsp olive oil", "1 tbsp cumin",
            ]),
    ];

    /// <summary>The weeks in which a box was found too late, and of which dish.</summary>
    public static IReadOnlyDictionary<int, string> ThrownAway { get; } =
        new Dictionary<int, string> { [10] = "LP", [7] = "TB", [5] = "LP" };

    /// <summary>Portions that were guessed and then weighed, in grams: an eye that learns.</summary>
    public static IReadOnlyList<(int WeeksAgo, decimal Guess, decimal Real)> Guessed { get; } =
    [
        (11, 300, 372), (11, 250, 214), (10, 300, 361), (9, 300, 346), (7, 250, 281), (6, 300, 333), (5, 300, 322), (3, 250, 262),
        (3, 300, 314), (2, 300, 307),
    ];

    /// <summary>What was said of them.</summary>
    public static IReadOnlyList<DemoSaid> Said { get; } =
    [
        new(9, "Noor", "LP", new(Taste.Good, Stood.Well, Stood.Well, null, Again.Yes, null)),
        new(6, "Bram", "LP", new(Taste.Fair, Stood.Fairly, null, null, Again.Changed, "Thin by Thursday: half the stock next time.")),
        new(
            3, "Bram", "TB",
            new(Taste.Fair, Stood.Poorly, Stood.Fairly, Effort.WorthIt, Again.No, "The turkey is dry after the second day.")),
        new(2, "Isa", "TB", new(Taste.NotMine, Stood.Poorly, null, null, Again.No, null)),
    ];

    /// <summary>How long a prep day was planned to take, and took, in minutes.</summary>
    public static (int Planned, int Real) Minutes(int weeksAgo) => (150 + (weeksAgo % 3 * 5), 158 + (weeksAgo * 37 % 41));

    private static readonly Dictionary<string, string[]> Days = new(StringComparer.Ordinal)
    {
        ["Isa"] =
        [
            "60 g quick oats + 200 ml oat milk + 1 apple + LP + 200 g skyr + TB + 3 slices rye bread + 30 g cheddar + 20 g walnuts",
            "60 g quick oats + 200 ml oat milk + 1 pear + TB + 250 g skyr + LP + 3 slices rye bread + 30 g walnuts + 1 banana "
                + "+ 30 g cheddar",
            "200 g skyr + 1 banana + LP + 2 slices rye bread + TB + 1 apple + 40 g cheddar + 20 g walnuts",
        ],
        ["Bram"] =
        [
            "80 g rolled oats + 300 ml oat milk + 1 banana + TB + 4 slices rye bread + 3 eggs + 300 g skyr + 70 g cheddar + 50 g walnuts",
            "80 g rolled oats + 300 ml oat milk + 1 apple + TB + 4 slices rye bread + 200 g cottage cheese + 300 g skyr + 60 g cheddar "
                + "+ 60 g walnuts",
        ],
        ["Noor"] =
        [
            "2 slices rye bread + 2 eggs + 200 g skyr + LP + 1 apple + 30 g cheddar + 250 ml oat milk + 1 banana + 50 g quick oats "
                + "+ 30 g walnuts + 150 g skyr",
            "3 slices rye bread + 2 eggs + 200 g skyr + TB + 1 orange + 30 g cheddar + 250 ml oat milk + 50 g quick oats "
                + "+ 30 g walnuts + 150 g skyr + 1 banana",
        ],
    };

    // What went otherwise, on some days.
    private static readonly string[] Otherwise =
    [
        "more: 20 g dark chocolate", "", "more: 2 slices rye bread", "", "", "more: out: Supper on the supply boat, 500 to 700 kcal", "",
        "more: 30 g walnuts", "", "not: 1 orange", "", "", "more: 150 ml red wine",
    ];

    /// <summary>What somebody ate on a day of a week so long ago; nothing where nothing was written down.</summary>
    public static IReadOnlyList<DemoMeal> On(string name, int weeksAgo, int day)
    {
        var at = (weeksAgo * 7) - day + (3 * name.Length);
        if (at % 17 == 4) return [];
        var (own, more) = (Days[name], Otherwise[at % Otherwise.Length]);
        return DemoMeal.Of(own[at % own.Length] + (more.Length > 0 ? " + " + more : ""));
    }
}
