using System.Text.RegularExpressions;
using LivelyTern.Core.Measures;
using static LivelyTern.Core.Foods.LineText;

namespace LivelyTern.Core.Foods;

/// <summary>Household measures as lines say them: packs, sizes, spoons that are heaped, lengths, and what one of each weighs.</summary>
internal static class LineMeasures
{
    // "2 cm piece of ginger", "1-inch piece ginger", "thumb-sized piece of ginger".
    private static readonly Regex Length = Pattern(
        @"^-?(?<measure>cm|centimet(?:re|er)s?|inch(?:es)?|thumb)(?:-?\s?sized?)?\s+(?:(?:piece|knob|chunk|length)s?\s+)?(?:of\s+)?"
        + @"(?<after>\S.*)$");

    // "One 3-inch cinnamon stick": how long it is, where it is counted.
    private static readonly Regex Long = Pattern(
        @"^\(?(?<size>[\d.,/¼½¾]+\s*(?:cm|inch(?:es)?|in\.?|"")(?:\s+(?:long|wide|thick))?)\)?\s+(?<rest>\S.*)$");

    // "2 tins (400 g) tomatoes" and "2 400 g tins tomatoes" are "2 x 400 g tins".
    /// <summary>Packs before or behind the count: "2 tins (400 g) tomatoes" and "2 400 g tins tomatoes" are "2 x 400 g tins".</summary>
    public static AmountText Packed(AmountText amount)
    {
        if (amount.Unit is not null) return amount;
        if (amount.Rest is [(>= '0' and <= '9') or '½' or '¼' or '¾', ..]
            && AmountText.Read(amount.Rest) is { Unit: not null, Pack: null, Rest.Length: > 0 } size
            && (size.Unit.Kind == UnitKind.Mass || FoodWords.IsContainer(size.Rest.Split(' ', 2)[0])))
            return amount.PackedIn(size) with { Rest = size.Rest };
        if (amount.Rest.Split(' ', 2) is not [var container, ['(', ..] rest] || !FoodWords.IsContainer(container)) return amount;
        if (rest.IndexOf(')', StringComparison.Ordinal) is not (> 1 and var close)) return amount;
        var said = rest[1..close].Trim();
        if (said.EndsWith(" each", StringComparison.OrdinalIgnoreCase)) said = said[..^5];
        return AmountText.Alone(said) is { } each
            ? amount.PackedIn(each) with { Rest = $"{container} {rest[(close + 1)..].Trim()}" }
            : amount;
    }

    /// <summary>The amount without how long each is, and that: "one 3-inch cinnamon stick".</summary>
    public static (AmountText Amount, string Length) WithoutLength(AmountText amount) =>
        amount.Unit is null && Long.Match(amount.Rest) is { Success: true } match && Length.Match(amount.Rest) is { Success: false }
            ? (amount with { Rest = match.Groups["rest"].Value }, match.Groups["size"].Value.Trim())
            : (amount, "");

    // "1 level tbsp flour" is a tablespoon, "1 heaped tbsp" one and a half; "1 tbsp heaped flour" says the same.
    /// <summary>The amount without how full its spoon is, the word that said it and how much of a level one that is.</summary>
    public static (AmountText Amount, string? Word, decimal Fullness) Full(AmountText amount)
    {
        if (amount.Rest.Split(' ', 2) is not [var word, var rest] || FoodWords.FullnessOf(word) is not { } full) return (amount, null, 1);
        var said = full == 1 ? null : word;

        // "2 tbsp good olive oil" is two tablespoons.
        if (amount.Unit is { Kind: UnitKind.Volume })
            return word is "good" or "big" or "generous" ? (amount, null, 1) : (amount with { Rest = rest }, said, full);
        return amount.Unit is null && AmountText.Read("1 " + rest) is { Unit.Kind: UnitKind.Volume } one
            ? (amount with { Unit = one.Unit, Rest = one.Rest }, said, full)
            : (amount, null, 1);
    }

    /// <summary>Whether a line begins with a length and no number: "thumb-sized piece of ginger".</summary>
    public static bool IsLength(string text) => IsLong(text) && Length.IsMatch(text);

    // The first word, the first two ("large bunch", "heaped tbsp") or the last of the name ("basil leaves"), with the other words.
    /// <summary>The measures a text may be counted in, with the other words.</summary>
    public static IEnumerable<(string Measure, string After)> CountedIn(string text)
    {
        if (IsLong(text) && Length.Match(text) is { Success: true } length)
        {
            var measure = length.Groups["measure"].Value;
            yield return (measure.StartsWith("cent", StringComparison.OrdinalIgnoreCase) ? "cm" : measure, length.Groups["after"].Value);
        }

        var words = text.Split(' ', 3, StringSplitOptions.RemoveEmptyEntries);
        if (words.Length == 3 && IsAsked($"{Bare(words[0])} {words[1]}"))
            yield return ($"{Bare(words[0])} {words[1]}", AmountText.WithoutOf(words[2]));
        if (words.Length >= 2) yield return (Bare(words[0]), AmountText.WithoutOf(string.Join(' ', words[1..])));
        var end = text.AsSpan().IndexOfAny(',', '(') is > 0 and var at ? at : text.Length;
        var name = text[..end].TrimEnd();
        if (name.LastIndexOf(' ') is > 0 and var last && IsAsked(name[(last + 1)..]))
            yield return (name[(last + 1)..], name[..last] + text[end..]);
    }

    private static bool IsLong(string text) =>
        Says(text, "inch") || Says(text, "cm") || Says(text, "centim") || Says(text, "thumb");

    private static string Bare(string word) => word.Trim(',', '(', ')');

    // Whether it is a measure by its words alone, so that it is asked for where the food has none of that name.
    /// <summary>Whether it is a measure by its words alone.</summary>
    public static bool IsAsked(string measure) => measure.Split(' ') switch
    {
        [var one] => FoodWords.IsCountedIn(one),
        [var first, var second] => FoodWords.IsSize(first) || FoodWords.FullnessOf(first) is not null
            ? FoodWords.IsCountedIn(second) || Unit.Find(second) is { Kind: UnitKind.Volume }
            : false,
        _ => false,
    };

    // "2 tuna steaks", "2 chicken breast halves": what a whole one of it is called.
    /// <summary>Whether it only says a whole one.</summary>
    public static bool IsWholeOne(string measure, FoodNaming naming) =>
        IsWholeOne(measure) || IsWordOf(measure, naming.Meaning);

    /// <summary>Whether a word only says a whole one, "loin".</summary>
    public static bool IsWholeOne(string measure) => WholeOnes.Contains(FoodWords.Singular(measure.ToLowerInvariant()));

    /// <summary>Whether a measure is a word of the nearest food's name.</summary>
    public static bool IsWordOf(string measure, FoodMeaning meaning) =>
        meaning.Fits is [var fit, ..]
        && FoodWords.All(fit.Name).Contains(FoodWords.Singular(measure.ToLowerInvariant()), StringComparer.Ordinal);

    private static readonly HashSet<string> WholeOnes = new(StringComparer.Ordinal)
    {
        "steak", "half", "loin", "piece", "medallion", "fillet", "round", "link", "patty",
    };

    /// <summary>Whether it is a package of a usual size.</summary>
    public static bool IsPackaged(Food food, string measure) => FoodWords.IsContainer(measure) && food.PackageGrams.Count > 0;

    // A measure of the food by its name; in a size that nobody weighed, as much of it as the size usually is.
    /// <summary>What one of a measure weighs of a food, or null.</summary>
    public static Grams? Known(Food food, string measure)
    {
        if (food.MeasureNamed(measure) is { } own) return own.Weight;
        var alike = FoodWords.SameMeasures(measure).Select(food.MeasureNamed).FirstOrDefault(same => same is not null);
        if (alike is not null) return alike.Weight;
        if (FoodWords.SpoonOf(measure) is { } spoon) return food.WeightOf(spoon, Unit.Millilitre);
        if (measure.Split(' ') is not [var size, var what])
            return FoodWords.ShareOf(measure) is not null ? Sized(food, measure) : null;
        if (FoodWords.ShareOf(size) is { } share)
        {
            var isHead = FoodWords.Singular(what) is "head" or "bulb" or "piece" or "fillet";
            return isHead && food.MeasureNamed(size) is { } sized ? sized.Weight : food.MeasureNamed(what)?.Weight * (isHead ? share : 1);
        }

        return FoodWords.FullnessOf(size) is { } full && Unit.Find(what) is { } unit ? food.WeightOf(full, unit) : null;
    }

    // "Large": as it was weighed, else as much of a medium one as a large one usually is.
    /// <summary>What one of a size weighs, or null.</summary>
    public static Grams? Sized(Food food, string word) =>
        FoodWords.ShareOf(word) is not { } share ? null
        : food.MeasureNamed(word) is { } own ? own.Weight
        : food.MeasureNamed("medium")?.Weight * share;

    /// <summary>Whether a weight that is stated is about that.</summary>
    public static bool IsAboutStated(StatedWeight stated, AmountText amount) =>
        stated.Amount.IsAbout || stated.Amount.Unit!.Kind == UnitKind.Volume || (stated.IsEach && amount.IsAbout);

    // A weight that a note states, or a volume of it: "1 head broccoli (about 4 cups)".
    /// <summary>What is stated, as a weight of this food.</summary>
    public static Grams? Of(Food food, StatedWeight stated) => food.WeightOf(stated.Amount.Quantity, stated.Amount.Unit!);
}
