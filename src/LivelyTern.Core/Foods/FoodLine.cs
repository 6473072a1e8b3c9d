using System.Text.RegularExpressions;
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
    private static readonly LineParts NoParts = new(null, null, "", "");

    /// <summary>What was understood, part by part.</summary>
    public LineParts Parts { get; init; } = NoParts;

    /// <summary>The lines that could be written in its place and would be understood; empty for none.</summary>
    public IReadOnlyList<string> Instead { get; init; } = [];

    /// <summary>Where it names two things and says how much of both, "salt and pepper, to taste": a line for each. Else itself.</summary>
    public IReadOnlyList<string> Apart =>
        Instead.Count > 1 && Text.TrimEnd().EndsWith(ToTaste, StringComparison.OrdinalIgnoreCase) ? Instead : [Text];

    /// <summary>The heaviest single line a kitchen can mean, 100 kg.</summary>
    public static readonly Grams Heaviest = new(100_000m);

    private static readonly Regex TraceOpening = Pattern(
        @"^(?:(?:an?|one|two|three|[1-9])\s+)?(?:(?:small|good|generous|large|big|tiny|little)\s+)?"
        + @"(?:pinch(?:es)?|dash(?:es)?|sprinkles?|sprinkling|twists?)\s+(?:of\s+)?(?<food>\S.*)$");

    private const string ToTaste = "to taste";

    // "Optional: 1 chilli, sliced".
    private static readonly Regex Optional = Pattern(@"^(?:optional\s*:|\(optional\):?)\s*(?<rest>\S.*)$");

    // "Salt and pepper, to taste".
    private static readonly Regex Pair = Pattern(@"^(?<one>[^,(]+?)\s+(?:and|&)\s+(?<other>[^,(]+)$");

    // "A few basil leaves" says no number.
    private static readonly Regex Vague = Pattern(@"^(?<many>(?:a\s+)?(?:few|little|bit|some|several)(?:\s+of)?)\s+(?<food>\S.*)$");

    // "Juice of 1 lemon", "finely grated zest and juice of half a lime"; "1 lemon, juiced".
    private static readonly Regex DrawnBefore = Pattern(
        @"^(?:the\s+)?(?:(?:finely\s+)?grated\s+)?(?<what>juice|zest|rind)(?:\s+(?:and|&)\s+(?<also>juice|zest|rind))?\s+(?:of|from)\s+"
        + @"(?<whole>\S.*)$");

    private static readonly Regex DrawnAfter = Pattern(
        @"^(?<whole>[^,(]+),\s*(?:(?:(?<what>juice)d|(?<what>zest)ed)(?:\s+(?:and|&)\s+(?:(?<also>juice)d|(?<also>zest)ed))?"
        + @"|(?<what>juice|zest|rind)(?:\s+(?:and|&)\s+(?<also>juice|zest|rind))?(?:\s+only)?)(?<more>\s*[,(].*)?$");

    // Said of an amount weighed or counted with what is thrown away still on it.
    private static readonly string[] AsBought =
    [
        "as bought", "with peel", "with skin on and stone", "unpeeled weight", "in shell", "with bone", "with bones", "bone in", "bone-in",
        "untrimmed",
    ];

    // Before a line of a list that was copied.
    private static readonly char[] Bullets = ['-', '–', '—', '•', '·', '*', '▢', '□', '☐'];

    // "Flour 200 g", "eggs: 2", "courgettes, 2 medium": the amount stands at the end.
    private static readonly Regex Trailing = Pattern(
        @"^(?<food>\D*[^\d\s:,–-])(?<mark>\s*[:–-]\s*|\s*,\s*|\s+)(?<amount>[\d¼½¾⅓⅔⅛⅜⅝⅞].*)$");

    // "2 cm piece of ginger", "1-inch piece ginger", "thumb-sized piece of ginger".
    private static readonly Regex Length = Pattern(
        @"^-?(?<measure>cm|centimet(?:re|er)s?|inch(?:es)?|thumb)(?:-?\s?sized?)?\s+(?:(?:piece|knob|chunk|length)s?\s+)?(?:of\s+)?"
        + @"(?<after>\S.*)$");

    /// <summary>Reads a line such as "600 g red lentils, dry", "2 tbsp rapeseed oil", "3 onions, chopped" or "salt, to taste".</summary>
    /// <param name="text">As typed.</param>
    /// <param name="foods">The foods it may mean.</param>
    /// <param name="chosen">The food the user chose for this line before; it counts where the text still has an amount.</param>
    public static FoodLine Read(string text, IFoods foods, Food? chosen = null)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(foods);
        var line = text.TrimStart();
        if (line is [var bullet, ' ' or '\t', ..] && Bullets.Contains(bullet)) line = line[1..].TrimStart();
        if (Optional.Match(line) is { Success: true } optional)
        {
            var inner = Read(optional.Groups["rest"].Value, foods, chosen);
            var of = inner.Parts;
            var parts = new LineParts(of.Amount, of.Measure, of.FoodText, FoodNaming.Join(of.Note, "optional")) { Drawn = of.Drawn };
            return inner with { Text = text, Parts = parts };
        }

        if (DrawnBefore.Match(line) is { Success: true } before
            && AmountText.Read(before.Groups["whole"].Value) is { Unit: null, From: > 0 } wholes && wholes.From <= wholes.To
            && Drawn(text, wholes, wholes.Rest, before, foods, chosen, isSure: true) is { } drawn) return drawn;
        if (chosen is null && Two(text, line, foods) is { } two) return two;
        if (Trace(line) is var (traced, said))
        {
            return Resolve(text, traced, foods, chosen, (food, name, note) =>
                new FoodLine(text, new(food, Grams.Zero, IsTrace: true), true, null, [], null)
                {
                    Parts = new(null, null, name, FoodNaming.Join(note, said)),
                });
        }
        if (Vague.Match(line) is { Success: true } vague && AtTheEnd(line) is null)
            return Unread(
                text, "amount-missing", $"Say how much “{vague.Groups["many"].Value}” is: a number in its place.",
                new(null, null, vague.Groups["food"].Value, ""));
        if ((AmountText.Read(line) ?? AtTheEnd(line)) is not { } amount) return NoAmount(text, line.Trim(), foods, chosen);
        if (amount.From < 0 || amount.To < 0)
            return Unread(text, "amount-negative", "An amount can't be below zero.", new(amount, null, amount.Rest, ""));
        if (amount.To < amount.From)
            return Unread(
                text, "amount-backwards", "The range runs backwards: put the smaller number first.", new(amount, null, amount.Rest, ""));
        amount = Level(Packed(amount));
        if (!amount.AgreesWithAlso) return Differ(text, amount, new(amount, null, amount.Rest, ""));
        if (amount is { Unit: null, From: > 0 } && DrawnAfter.Match(amount.Rest) is { Success: true } after
            && Drawn(text, amount, after.Groups["whole"].Value, after, foods, chosen, isSure: false) is { } part) return part;
        var read = amount.Unit is not null ? Measured(text, amount, foods, chosen) : Counted(text, amount, foods, chosen);
        return read.Parts.Amount is null
            ? read with { Parts = new(amount, read.Parts.Measure, read.Parts.FoodText, read.Parts.Note) }
            : read;
    }

    /// <summary>The line written from its parts; it reads back as the same amount of the same food.</summary>
    /// <param name="factor">Scales the amount; a trace stays a trace.</param>
    public string Print(decimal factor = 1m)
    {
        if (Parts.Amount is not { } amount) return Text.Trim();
        var scaled = factor == 1m ? amount : amount.Scale(factor);
        var measure = Parts.Measure is null ? "" : (scaled.Quantity <= 1 ? FoodWords.Singular(Parts.Measure) : Parts.Measure) + " ";
        var note = Parts.NoteFor(factor) is { Length: > 0 } said ? ", " + said : "";
        var what = Parts.Drawn is { } drawn
            ? $"{drawn} of {scaled.Print()} {measure.TrimEnd()}"
            : $"{scaled.Print()} {measure}{Parts.FoodText}";
        return what + note;
    }

    private static FoodLine Measured(string text, AmountText amount, IFoods foods, Food? chosen) =>
        Resolve(text, FoodWords.WithoutContainer(amount.Rest), foods, chosen, (food, name, note) =>
        {
            var parts = new LineParts(amount, null, name, note);
            var isAbout = amount.IsAbout || amount.Unit!.Kind == UnitKind.Volume;
            if (amount.Unit!.Kind == UnitKind.Volume && parts.Stated is { } stated) return Stated(text, food, parts, stated);
            if (parts.Stated is { IsEach: false } again && amount with { Also = again.Amount } is { AgreesWithAlso: false } twice)
                return Differ(text, twice, parts);
            return food.WeightOf(amount.Quantity, amount.Unit) is { } weight
                ? Weighed(text, food, weight, isAbout, parts)
                : Ask(text, food, amount.Unit.Name, parts);
        }, FoodWords.IsTin(amount.Rest));

    // "2 slices rye bread": the first words may name a measure of the food that the rest names.
    private static FoodLine Counted(string text, AmountText amount, IFoods foods, Food? chosen)
    {
        foreach (var (measure, rest) in CountedIn(amount.Rest))
        {
            var (name, note, meant) = FoodNaming.Read(rest, foods, chosen, FoodWords.IsTin(measure));
            var parts = new LineParts(amount, measure, name, note);
            if (meant is not [var food]) continue;
            var known = food.MeasureNamed(measure)
                ?? (measure.StartsWith("medium ", StringComparison.OrdinalIgnoreCase) ? food.MeasureNamed(measure[7..]) : null);
            if (parts.Stated is { } stated && (known is not null || IsAsked(measure))) return Stated(text, food, parts, stated);
            if (known is not null) return Weighed(text, food, known.Weight * amount.Quantity, true, parts);
            if (!IsAsked(measure) || (chosen is null && FoodNaming.AsSaid(amount.Rest, foods, chosen).Meant is [_])) continue;

            // A package that is sold in one size is that; of anything else only a kitchen knows what one weighs.
            return FoodWords.IsContainer(measure) && food.PackageGrams is [var each]
                ? Weighed(text, food, new(each * amount.Quantity), true, parts, isPackage: true)
                : Ask(text, food, FoodWords.Singular(measure), parts);
        }

        // Where the food is not known either, the words that only count are not part of its name.
        var counted = CountedIn(amount.Rest).Where(pair => IsAsked(pair.Measure)).Select(pair => pair.After).FirstOrDefault();
        var whole = counted is not null && chosen is null && FoodNaming.AsSaid(amount.Rest, foods, chosen).Meant.Count == 0
            ? counted
            : amount.Rest;
        return Resolve(text, whole, foods, chosen, (food, name, note) =>
        {
            var parts = new LineParts(amount, null, name, note);
            if (parts.Stated is { } stated) return Stated(text, food, parts, stated);
            var sized = FoodWords.Telling(note).Select(food.MeasureNamed).FirstOrDefault(measure => measure is not null);
            return (sized ?? food.Piece) is { } piece
                ? Weighed(text, food, piece.Weight * amount.Quantity, true, parts)
                : Ask(text, food, "piece", parts);
        });
    }

    // "2 tins (400 g) tomatoes" is "2 x 400 g tins".
    private static AmountText Packed(AmountText amount)
    {
        if (amount.Unit is not null) return amount;
        if (amount.Rest.Split(' ', 2) is not [var container, ['(', ..] rest] || !FoodWords.IsContainer(container)) return amount;
        return rest.IndexOf(')', StringComparison.Ordinal) is > 1 and var close && AmountText.Alone(rest[1..close]) is { } each
            ? amount.PackedIn(each) with { Rest = $"{container} {rest[(close + 1)..].Trim()}" }
            : amount;
    }

    // "1 level tbsp flour" is a tablespoon.
    private static AmountText Level(AmountText amount) =>
        amount.Unit is null && amount.Rest.Split(' ', 2) is [var level, var rest] && FoodWords.IsFull(level)
            && AmountText.Read("1 " + rest) is { Unit.Kind: UnitKind.Volume } one
            ? amount with { Unit = one.Unit, Rest = one.Rest }
            : amount;

    private static FoodLine Stated(string text, Food food, LineParts parts, StatedWeight stated) =>
        Weighed(text, food, stated.Of(parts.Amount!.Quantity), stated.Amount.IsAbout || (stated.IsEach && parts.Amount.IsAbout), parts);

    // The first word, the first two ("large bunch", "heaped tbsp") or the last of the name ("basil leaves"), with the other words.
    private static IEnumerable<(string Measure, string After)> CountedIn(string text)
    {
        if (Length.Match(text) is { Success: true } length)
        {
            var measure = length.Groups["measure"].Value;
            yield return (measure.StartsWith("cent", StringComparison.OrdinalIgnoreCase) ? "cm" : measure, length.Groups["after"].Value);
        }

        var words = text.Split(' ', 3, StringSplitOptions.RemoveEmptyEntries);
        if (words.Length == 3 && IsAsked($"{words[0]} {words[1]}")) yield return ($"{words[0]} {words[1]}", AmountText.WithoutOf(words[2]));
        if (words.Length >= 2) yield return (words[0], AmountText.WithoutOf(string.Join(' ', words[1..])));
        var end = text.AsSpan().IndexOfAny(',', '(') is >= 0 and var at ? at : text.Length;
        var name = text[..end].TrimEnd();
        if (name.LastIndexOf(' ') is > 0 and var last && IsAsked(name[(last + 1)..]))
            yield return (name[(last + 1)..], name[..last] + text[end..]);
    }

    // Whether it is a measure by its words alone, so that it is asked for where the food has none of that name.
    private static bool IsAsked(string measure) => measure.Split(' ') switch
    {
        [var one] => FoodWords.IsCountedIn(one),
        [var first, var second] => FoodWords.IsSize(first)
            ? FoodWords.IsCountedIn(second)
            : FoodWords.IsFuller(first) && Unit.Find(second) is { Kind: UnitKind.Volume },
        _ => false,
    };

    // Only where nothing else can be meant: a unit or a size follows the number, or a mark stands before it ("flour type 550" has neither).
    private static AmountText? AtTheEnd(string line)
    {
        if (Trailing.Match(line.Trim()) is not { Success: true } match || AmountText.Read(match.Groups["amount"].Value) is not { } amount)
            return null;
        var food = match.Groups["food"].Value.Trim();
        var isMarked = match.Groups["mark"].Value.Trim().Length > 0;
        return amount.Unit is not null ? (amount.Rest.Length == 0 ? amount with { Rest = food } : null)
            : amount.Rest.Length == 0 ? (isMarked ? amount with { Rest = food } : null)
            : FoodWords.IsSize(amount.Rest) || FoodWords.IsCountedIn(amount.Rest) ? amount with { Rest = $"{amount.Rest} {food}" }
            : null;
    }

    private static FoodLine Resolve(
        string text, string name, IFoods foods, Food? chosen, Func<Food, string, string, FoodLine> read, bool isTinned = false)
    {
        var (before, note, meant) = FoodNaming.Read(name, foods, chosen, isTinned);
        var parts = new LineParts(null, null, before, note);
        return meant switch
        {
            [var food] => read(food, before, note),
            _ when string.IsNullOrWhiteSpace(name) =>
                Unread(text, "food-missing", "Say which food after the amount, as in “150 g strawberries”.", parts),
            [] => Unread(
                text, "food-unknown", $"No food here is called “{before}”. Try a plainer name, or pick one from the list.", parts,
                Similar(before, foods)),
            _ => Unread(text, "food-ambiguous", $"“{before}” could be {List(meant)}: say which.", parts, meant),
        };
    }

    // Slips first ("chikpeas"), then foods of the same noun.
    private static IReadOnlyList<Food> Similar(string name, IFoods foods)
    {
        var close = foods.Suggest(name, 6);
        return close.Count > 0 ? close : foods.Suggest(FoodWords.Noun(name), 6);
    }

    private static (string Food, string Said)? Trace(string text)
    {
        var trimmed = text.Trim();
        if (TraceOpening.Match(trimmed) is { Success: true } opening) return (opening.Groups["food"].Value, "");
        var isToTaste = trimmed.EndsWith(ToTaste, StringComparison.OrdinalIgnoreCase) && AmountText.Read(trimmed) is null;
        return isToTaste ? (trimmed[..^ToTaste.Length].TrimEnd(' ', ','), ToTaste) : null;
    }

    // Two foods in one line would be one of them, and the other's allergens lost.
    private static FoodLine? Two(string text, string line, IFoods foods)
    {
        var trace = Trace(line);
        if (Pair.Match(trace?.Food ?? line.Trim()) is not { Success: true } pair || foods.IsName(pair.Value)) return null;
        if (trace is null && AmountText.Read(line) is not null) return null;
        string[] named = [pair.Groups["one"].Value, pair.Groups["other"].Value];
        var meant = named.Select(name => FoodNaming.Read(name, foods, null).Meant).ToList();
        if (meant.Exists(one => one.Count == 0)) return null;
        var isTaste = trace is not null || meant.TrueForAll(one => one.All(IsPinched));
        var parts = new LineParts(null, null, line.Trim(), "");
        return Unread(text, "two-foods", "Two foods stand in one line: give each a line of its own.", parts) with
        {
            Instead = [.. named.Select(name => isTaste ? $"{name}, {ToTaste}" : name)],
        };
    }

    private static FoodLine NoAmount(string text, string line, IFoods foods, Food? chosen)
    {
        var missing = Unread(
            text, "amount-missing", "Say how much of it: a number, perhaps a unit, then the food, as in “150 g strawberries”.",
            new(null, null, line, ""));
        return FoodNaming.Read(line, foods, chosen).Meant is [var food] && IsPinched(food)
            ? missing with { Instead = [$"{line}, {ToTaste}"] }
            : missing;
    }

    // Salt, pepper, herbs: what a spoon or a leaf holds is a few grams. Not a sauce, nor a recipe of one's own.
    private static bool IsPinched(Food food) =>
        food is { Group: FoodGroup.Seasonings, Per100g.Energy: not null } && food.Measures.Any(measure => measure.Weight.Value <= 7);

    // The juice of a lemon is a food of its own, measured in lemons. Where it is said after the fruit, it has to be one that is known, and
    // not the fruit that was chosen.
    private static FoodLine? Drawn(string text, AmountText amount, string of, Match said, IFoods foods, Food? chosen, bool isSure)
    {
        var both = new[] { said.Groups["what"].Value.ToLowerInvariant(), said.Groups["also"].Value.ToLowerInvariant() };
        var isJuice = both.Contains("juice", StringComparer.Ordinal);
        var end = of.IndexOfAny([',', '(']) is > 0 and var at ? at : of.Length;
        var size = of[..end].Split(' ', 2) is [var first, { Length: > 0 }] && FoodWords.IsSize(first) ? first : "";
        var fruit = of[size.Length..end].Trim();
        var zest = isJuice && both.Any(one => one is "zest" or "rind") ? "and its zest" : "";
        string[] notes = [zest, size, of[end..].Trim(' ', ',', '(', ')'), said.Groups["more"].Value.Trim(' ', ',', '(', ')')];
        var what = isJuice ? "juice" : "zest";
        var called = $"{FoodWords.Singular(fruit)} {what}";
        if (fruit.Length == 0) return null;
        bool IsKnown() =>
            foods.Meaning(called) is [var meant] && (chosen is null || string.Equals(chosen.Id, meant.Id, StringComparison.Ordinal));
        if (!isSure && !IsKnown()) return null;
        return Resolve(text, called, foods, chosen, (food, name, _) =>
        {
            var parts = new LineParts(amount, fruit, name, notes.Aggregate(FoodNaming.Join)) { Drawn = what };
            return food.MeasureNamed(fruit) is { } one
                ? Weighed(text, food, one.Weight * amount.Quantity, true, parts)
                : Ask(text, food, FoodWords.Singular(fruit), parts);
        });
    }

    private static FoodLine Weighed(string text, Food food, Grams weight, bool isAbout, LineParts parts, bool isPackage = false)
    {
        // What a tin states is with its liquid: two tins of 400 g, drained, are 480 g of chickpeas.
        if ((isPackage || parts.Amount?.Pack is not null) && food.DrainedShare is { } drained && Says(text, "drained"))
            (weight, isAbout) = (weight * drained, true);
        if (food.Refuse > 0 && AsBought.Any(said => Says(text, said))) (weight, isAbout) = (weight * (1 - food.Refuse), true);
        return weight > Heaviest
            ? Unread(text, "amount-absurd", $"That is {weight.Value / 1000m:0} kg of {food.Name}: check the number and its unit.", parts)
            : new(text, new(food, weight), isAbout, null, [], null) { Parts = parts };
    }

    private static Regex Pattern(string pattern) =>
        new(pattern, RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    private static bool Says(string text, string word) => text.Contains(word, StringComparison.OrdinalIgnoreCase);

    private static FoodLine Ask(string text, Food food, string measure, LineParts parts) =>
        new(
            text, null, false, new("measure-unknown", "line", $"Weigh one {measure} of {food.Name} once: how many grams?"), [],
            new(food, measure))
        { Parts = parts };

    private static FoodLine Unread(string text, string code, string sentence, LineParts parts, IReadOnlyList<Food>? candidates = null) =>
        new(text, null, false, new(code, "line", sentence), candidates ?? [], null) { Parts = parts };

    private static FoodLine Differ(string text, AmountText amount, LineParts parts) =>
        Unread(text, "amounts-differ", $"{amount.Print()} and {amount.Also!.Print()} are not the same: keep the one that is meant.", parts);

    private static string List(IReadOnlyList<Food> foods) =>
        string.Join(" or ", foods.Take(4).Select(food => food.Name)) + (foods.Count > 4 ? " and others" : "");
}
