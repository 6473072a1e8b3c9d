using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>A household measure that a food lacks: "weigh one cup once: how many grams?"</summary>
/// <param name="Food">The food it is asked of.</param>
/// <param name="Measure">"cup", "tbsp", "piece".</param>
public sealed record MissingMeasure(Food Food, string Measure);

/// <summary>An amount of a food as typed, and what was understood of it.</summary>
/// <param name="Text">The line as typed.</param>
/// <param name="Ingredient">The food and its weight, or null where the line was not understood.</param>
/// <param name="IsAbout">True where the weight rests on a range, a household measure or a trace, not on a stated weight.</param>
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
    /// <summary>The heaviest single line a kitchen can mean, 100 kg.</summary>
    public static readonly Grams Heaviest = new(100_000m);

    private static readonly string[] TraceOpenings = ["a pinch of ", "pinch of ", "a pinch ", "pinch ", "a dash of ", "dash of ", "a sprinkle of "];

    /// <summary>Reads a line such as "600 g red lentils, dry", "2 tbsp rapeseed oil", "3 onions, chopped" or "salt, to taste".</summary>
    /// <param name="text">As typed.</param>
    /// <param name="catalogue">The foods it may mean.</param>
    /// <param name="chosen">The food the user chose for this line before; it counts where the text still has an amount.</param>
    public static FoodLine Read(string text, FoodCatalogue catalogue, Food? chosen = null)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(catalogue);
        if (Trace(text) is { } traced)
            return Resolve(text, traced, catalogue, chosen, (food, _) => new FoodLine(text, new(food, Grams.Zero, IsTrace: true), true, null, [], null));
        if (AmountText.Read(text) is not { } amount)
            return Unread(text, "amount-missing", "Say how much of it: a number, perhaps a unit, then the food, as in “150 g strawberries”.");
        if (amount.From < 0 || amount.To < 0)
            return Unread(text, "amount-negative", "An amount can't be below zero.");
        if (amount.To < amount.From)
            return Unread(text, "amount-backwards", "The range runs backwards: put the smaller number first.");
        return amount.Unit is not null ? Measured(text, amount, catalogue, chosen) : Counted(text, amount, catalogue, chosen);
    }

    private static FoodLine Measured(string text, AmountText amount, FoodCatalogue catalogue, Food? chosen) =>
        Resolve(text, FoodWords.WithoutContainer(amount.Rest), catalogue, chosen, (food, _) =>
            food.WeightOf(amount.Quantity, amount.Unit!) is { } weight
                ? Weighed(text, food, weight, amount.IsAbout || amount.Unit!.Kind == UnitKind.Volume)
                : Ask(text, food, amount.Unit!.Name));

    // "2 slices rye bread": the first words may name a measure of the food that the rest names.
    private static FoodLine Counted(string text, AmountText amount, FoodCatalogue catalogue, Food? chosen)
    {
        var words = amount.Rest.Split(' ', 2, StringSplitOptions.RemoveEmptyEntries);
        if (words.Length == 2)
        {
            var rest = words[1].StartsWith("of ", StringComparison.OrdinalIgnoreCase) ? words[1][3..] : words[1];
            var named = chosen is not null ? [chosen] : catalogue.Meaning(BeforeNote(rest, catalogue));
            if (named is [var food] && food.MeasureNamed(words[0]) is { } measure)
                return Weighed(text, food, measure.Weight * amount.Quantity, true);
        }

        return Resolve(text, amount.Rest, catalogue, chosen, (food, note) =>
            FoodWords.Telling(note).Select(food.MeasureNamed).FirstOrDefault(measure => measure is not null) is { } sized
                ? Weighed(text, food, sized.Weight * amount.Quantity, true)
                : food.Piece is { } piece ? Weighed(text, food, piece.Weight * amount.Quantity, true)
                : Ask(text, food, "piece"));
    }

    private static FoodLine Resolve(string text, string name, FoodCatalogue catalogue, Food? chosen, Func<Food, string, FoodLine> read)
    {
        var before = BeforeNote(name, catalogue);
        if (chosen is not null) return read(chosen, name);
        if (string.IsNullOrWhiteSpace(name)) return Unread(text, "food-missing", "Say which food after the amount, as in “150 g strawberries”.");
        var meant = catalogue.Meaning(before);
        return meant switch
        {
            [var food] => read(food, name.Length > before.Length ? name[before.Length..] : ""),
            [] => Unread(text, "food-unknown", $"No food here is called “{before.Trim()}”. Try a plainer name, or pick one from the list.", catalogue.Suggest(FoodWords.Noun(before), 6)),
            _ => Unread(text, "food-ambiguous", $"“{before.Trim()}” could be {List(meant)}: say which.", meant),
        };
    }

    // "onions, chopped": the note after the comma is not part of the name, but "red lentils, dry" is one name.
    private static string BeforeNote(string name, FoodCatalogue catalogue)
    {
        var comma = name.IndexOf(',', StringComparison.Ordinal);
        if (comma < 0 || catalogue.IsName(name)) return name;
        return catalogue.Meaning(name[..comma]).Count == 1 || catalogue.Meaning(name).Count == 0 ? name[..comma] : name;
    }

    private static string? Trace(string text)
    {
        var trimmed = text.Trim();
        foreach (var opening in TraceOpenings)
        {
            if (trimmed.StartsWith(opening, StringComparison.OrdinalIgnoreCase)) return trimmed[opening.Length..];
        }

        return trimmed.EndsWith("to taste", StringComparison.OrdinalIgnoreCase) ? trimmed[..^8].TrimEnd(' ', ',') : null;
    }

    private static FoodLine Weighed(string text, Food food, Grams weight, bool isAbout) =>
        weight > Heaviest
            ? Unread(text, "amount-absurd", $"That is {weight.Value / 1000m:0} kg of {food.Name}: check the number and its unit.")
            : new(text, new(food, weight), isAbout, null, [], null);

    private static FoodLine Ask(string text, Food food, string measure) =>
        new(text, null, false, new("measure-unknown", "line", $"Weigh one {measure} of {food.Name} once: how many grams?"), [], new(food, measure));

    private static FoodLine Unread(string text, string code, string sentence, IReadOnlyList<Food>? candidates = null) =>
        new(text, null, false, new(code, "line", sentence), candidates ?? [], null);

    private static string List(IReadOnlyList<Food> foods) =>
        string.Join(" or ", foods.Take(4).Select(food => food.Name)) + (foods.Count > 4 ? " and others" : "");
}
