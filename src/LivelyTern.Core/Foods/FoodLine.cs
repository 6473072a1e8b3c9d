using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>A household measure that a food lacks: "weigh one cup once: how many grams?"</summary>
/// <param name="Food">The food it is asked of.</param>
/// <param name="Measure">"cup", "tbsp", "piece".</param>
public sealed record MissingMeasure(Food Food, string Measure);

/// <summary>How far a line can be relied on.</summary>
public enum LineStanding
{
    /// <summary>All that tells in it was said, or was chosen.</summary>
    Sure,

    /// <summary>It leaves a choice open that changes its figures; the usual food was taken.</summary>
    ByDefault,

    /// <summary>It is not understood, and counts nothing.</summary>
    Open,
}

/// <summary>An amount of a food as typed, and what was understood of it.</summary>
/// <param name="Text">The line as typed.</param>
/// <param name="Ingredient">The food and its weight, or null where the line was not understood or names several.</param>
/// <param name="IsAbout">
/// True where the weight rests on a range, a household measure or a trace, not on a stated weight, or the food on what is usual.
/// </param>
/// <param name="Problem">What was not understood, with what would mend it.</param>
/// <param name="Candidates">The foods it could be, where it could be several.</param>
/// <param name="Missing">The household measure to weigh once, where that is all that is missing.</param>
public sealed record FoodLine(
    string Text,
    Ingredient? Ingredient,
    bool IsAbout,
    Problem? Problem,
    IReadOnlyList<Food> Candidates,
    MissingMeasure? Missing)
{
    private static readonly LineParts NoParts = new(null, null, "", "");

    /// <summary>The heaviest single line a kitchen can mean, 100 kg.</summary>
    public static readonly Grams Heaviest = new(100_000m);

    /// <summary>What was understood, part by part.</summary>
    public LineParts Parts { get; init; } = NoParts;

    /// <summary>The lines that could be written in its place and would be understood; empty for none.</summary>
    public IReadOnlyList<string> Instead { get; init; } = [];

    /// <summary>
    /// The lines it is read as, where it names several foods and all are understood: "1 egg plus 2 egg whites". Else empty.
    /// </summary>
    public IReadOnlyList<FoodLine> Several { get; init; } = [];

    /// <summary>The other foods it may mean that are more than a tenth apart, the likeliest first; empty where none is.</summary>
    public IReadOnlyList<OtherFood> Others { get; init; } = [];

    /// <summary>How far it can be relied on.</summary>
    public LineStanding Standing =>
        Several.Count > 0 ? Several.Max(one => one.Standing)
        : Ingredient is null ? LineStanding.Open
        : Others.Count > 0 ? LineStanding.ByDefault
        : LineStanding.Sure;

    /// <summary>All that it puts in: one food, several, or none where it was not understood.</summary>
    public IReadOnlyList<Ingredient> Ingredients =>
        Ingredient is not null ? [Ingredient] : [.. Several.Select(one => one.Ingredient!)];

    /// <summary>Where it names several foods a line for each, else itself.</summary>
    public IReadOnlyList<string> Apart => Several.Count > 0 ? [.. Several.Select(one => one.Text)] : [Text];

    /// <summary>The same where only one food can stand: of several it is said that each wants a line of its own.</summary>
    public FoodLine AsOne =>
        Several.Count == 0 ? this : this with { Several = [], Instead = Apart, Problem = TwoFoods };

    internal static Problem TwoFoods { get; } = new("two-foods", "line", "Two foods stand in one line: give each a line of its own.");

    /// <summary>Reads a line such as "600 g red lentils, dry", "2 tbsp rapeseed oil", "3 onions, chopped" or "salt, to taste".</summary>
    /// <param name="text">As typed.</param>
    /// <param name="foods">The foods it may mean.</param>
    /// <param name="chosen">The food the user chose for this line before; it counts where the text still has an amount.</param>
    public static FoodLine Read(string text, IFoods foods, Food? chosen = null)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(foods);
        return new LineReader(foods, chosen).Read(text);
    }

    /// <summary>The line written from its parts; it reads back as the same amount of the same food.</summary>
    /// <param name="factor">Scales the amount; a trace stays a trace.</param>
    public string Print(decimal factor = 1m)
    {
        if (Several.Count > 0) return factor == 1m || Several.All(one => one.Parts.Amount is null) ? Text.Trim() : PrintSeveral(factor);
        if (Parts.Amount is not { } amount) return Text.Trim();
        var scaled = factor == 1m ? amount : amount.Scale(factor);
        var measure = Parts.Measure is null ? "" : (scaled.Quantity <= 1 ? FoodWords.Singular(Parts.Measure) : Parts.Measure) + " ";
        var note = Parts.NoteFor(factor) is { Length: > 0 } said ? ", " + said : "";
        var what = Parts.Drawn is { } drawn
            ? $"{drawn} of {scaled.Print()} {measure.TrimEnd()}"
            : $"{scaled.Print()} {measure}{Parts.FoodText}";
        return what + note;
    }

    private string PrintSeveral(decimal factor) =>
        Several.Select(one => (Said: one.Print(factor), IsMeasured: one.Parts.Amount is not null)).OrderByDescending(one => one.IsMeasured)
            .Aggregate("", (line, one) => line.Length == 0 ? one.Said : $"{line} {(one.IsMeasured ? "plus" : "mixed with")} {one.Said}");
}
