using System.Text.RegularExpressions;
using LivelyTern.Core.Measures;
using static LivelyTern.Core.Foods.LineMeasures;
using static LivelyTern.Core.Foods.LineText;
using static LivelyTern.Core.Foods.UnsaidAmounts;

namespace LivelyTern.Core.Foods;

/// <summary>
/// Reads lines as cooks write them: the amount with its pack, the measure it is counted in, the words that name the food with their
/// facets, and what else is said. Each pattern runs in a time that grows with the line's length only.
/// </summary>
/// <param name="foods">The foods a line may mean.</param>
/// <param name="chosen">The food that was chosen for the line, or null.</param>
internal sealed class LineReader(IFoods foods, Food? chosen)
{
    // Lines within lines ("optional: ...", "... plus ...") that are read; what is said deeper stays words.
    private const int Deepest = 4;

    private const int MostOthers = 5;

    // A farther food is only meant in place of the nearest, where that can't be measured so, up to here.
    private const decimal MostApart = 0.8m;

    // A name that is farther than this from what was said leaves something open.
    private const decimal LeavesOpen = 0.3m;

    // "Optional: 1 chilli, sliced".
    private static readonly Regex Optional = Pattern(@"^(?:optional\s*:|\(optional\):?)\s*(?<rest>\S.*)$");

    // "A few basil leaves" says no number.
    private static readonly Regex Vague = Pattern(
        @"^(?<many>(?:a\s+)?(?:few|little|bit|some|several|lots|couple more)(?:\s+of)?)\s+(?<food>\S.*)$");

    // "Juice of 1 lemon", "finely grated zest and juice of half a lime"; "1 lemon, juiced".
    private static readonly Regex DrawnBefore = Pattern(
        @"^(?:the\s+)?(?:(?:finely\s+)?grated\s+)?(?<what>juice|zest|rind)(?:\s+(?:and|&)\s+(?<also>juice|zest|rind))?\s+(?:of|from)\s+"
        + @"(?<whole>\S.*)$");

    // "Juice 1 lemon".
    private static readonly Regex DrawnOf = Pattern(
        @"^(?:(?:finely\s+)?grated\s+)?(?<what>juice|zest|rind)(?:\s+(?:and|&)\s+(?<also>juice|zest|rind))?\s+"
        + @"(?<whole>(?:\d|[¼½¾]|half\s|one\s|two\s).*)$");

    private static readonly Regex DrawnAfter = Pattern(
        @"^(?<whole>[^,(]+),\s*(?:(?:(?<what>juice)d|(?<what>zest)ed)(?:\s+(?:and|&)\s+(?:(?<also>juice)d|(?<also>zest)ed))?"
        + @"|(?<what>juice|zest|rind)(?:\s+(?:and|&)\s+(?<also>juice|zest|rind))?(?:\s+only)?)(?<more>\s*[,(].*)?$");

    // Said of an amount weighed or counted with what is thrown away still on it.
    private static readonly string[] AsBought =
    [
        "as bought", "with peel", "with skin on and stone", "unpeeled weight", "in shell", "with bone", "with bones", "bone in", "bone-in",
        "untrimmed",
    ];

    // "1 lb plus 2 tsp ginger".
    private static readonly Regex MoreBefore = Pattern(@"^(?:plus|and|\+|&)\s*(?:\d|[¼½¾⅓⅔⅛⅜⅝⅞])");

    private int depth;

    /// <summary>Reads a line.</summary>
    public FoodLine Read(string text)
    {
        var line = LineText.Plain(text);
        if (depth < Deepest)
        {
            if (Says(line, "optional") && Optional.Match(line) is { Success: true } optional)
                return Noted(text, optional.Groups["rest"].Value, "optional");
            if (LineText.Headed(line) is var (head, headed)) return Noted(text, headed, head);
        }

        var isDrawn = Says(line, "juice") || Says(line, "zest") || Says(line, "rind");
        if (isDrawn && (DrawnBefore.Match(line) is { Success: true } drawnOf ? drawnOf : DrawnOf.Match(line)) is { Success: true } before
            && AmountText.Read(before.Groups["whole"].Value) is { Unit: null, From: > 0 } wholes && wholes.From <= wholes.To
            && Drawn(text, wholes, wholes.Rest, before, isSure: true) is { } drawn) return drawn;
        if (chosen is null && depth < Deepest && Together(text, line) is { } several) return several;
        if (Trace(line) is var (traced, said))
        {
            return Resolve(text, traced, _ => true, (food, naming) =>
                new FoodLine(text, new(food, Grams.Zero, IsTrace: true), true, null, [], null)
                {
                    Parts = new(null, null, naming.Name, FoodNaming.Join(naming.Note, said)),
                });
        }

        if (!char.IsAsciiDigit(line.FirstOrDefault()) && Vague.Match(line) is { Success: true } vague
            && LineText.AtTheEnd(line) is null && !SaysWhatFor(line))
            return Unread(
                text, "amount-missing", $"Say how much “{vague.Groups["many"].Value}” is: a number in its place.",
                new(null, null, vague.Groups["food"].Value, ""));
        if ((AmountText.Read(line) ?? LineText.AtTheEnd(line) ?? OfOne(line)) is not { } amount) return Unmeasured(text, line);
        if (amount.From < 0 || amount.To < 0)
            return Unread(text, "amount-negative", "An amount can't be below zero.", new(amount, null, amount.Rest, ""));
        if (amount.To < amount.From)
            return Unread(
                text, "amount-backwards", "The range runs backwards: put the smaller number first.", new(amount, null, amount.Rest, ""));
        if (amount.Unit is not null && MoreBefore.IsMatch(amount.Rest))
            return Unread(
                text, "amounts-mixed", "A weight and a volume can't be added before the food: write the amount in one of them.",
                new(amount, null, amount.Rest, ""));
        (amount, var length) = WithoutLength(Packed(amount));
        (amount, var full, var fullness) = Full(amount);
        if (!amount.AgreesWithAlso) return Differ(text, amount, new(amount, null, amount.Rest, ""));
        if (isDrawn && amount is { Unit: null, From: > 0 } && DrawnAfter.Match(amount.Rest) is { Success: true } after
            && Drawn(text, amount, after.Groups["whole"].Value, after, isSure: false) is { } part) return part;
        var read = amount.Unit is not null ? Measured(text, amount, full, fullness) : Counted(text, amount);
        var note = FoodNaming.Join(read.Parts.Note, length);
        var of = read.Parts;
        return of.Amount is null || length.Length > 0
            ? read with { Parts = new(of.Amount ?? amount, of.Measure, of.FoodText, note) { Drawn = of.Drawn } }
            : read;
    }

    // "Handful of almonds" is one; "spray oil" is called so.
    private AmountText? OfOne(string line) =>
        IsLength(line) ? AmountText.Read("1 " + line)
        : LineText.OfOne(line) is { } one && !IsCalled(line.Split(' ')[0], FoodNaming.Read(line, foods, chosen)) ? one : null;

    private FoodLine Noted(string text, string inner, string note)
    {
        depth++;
        var read = Read(note is "optional" && AmountText.Read(LineText.Plain(inner)) is null ? inner + ", optional" : inner);
        depth--;
        var of = read.Parts;
        var also = of.Note.Contains("optional", StringComparison.Ordinal) ? of.Note : FoodNaming.Join(of.Note, note.ToLowerInvariant());
        return read with { Text = text, Parts = new(of.Amount, of.Measure, of.FoodText, also) { Drawn = of.Drawn } };
    }

    private FoodLine Measured(string text, AmountText amount, string? full, decimal fullness)
    {
        var isTin = FoodWords.IsTin(amount.Rest);
        if (isTin && amount is { Pack: null, IsAbout: false }) amount = amount with { Pack = new(1, amount.From, amount.Unit!) };
        bool IsWeighed(Food food) => food.WeightOf(amount.Quantity, amount.Unit!) is { } weight && !IsTooMuchToPinch(food, weight);

        // "2 lb pot roast" is no pot.
        var named = foods.IsName(amount.Rest) ? amount.Rest : FoodWords.WithoutContainer(amount.Rest);
        return Resolve(text, named, IsWeighed, (food, naming) =>
        {
            var parts = new LineParts(amount, full, naming.Name, naming.Note);
            var isVolume = amount.Unit!.Kind == UnitKind.Volume;
            if (isVolume && parts.Stated is { Amount.Unit.Kind: UnitKind.Mass } stated) return Stated(text, food, parts, stated);
            if (parts.Stated is { IsEach: false, Amount.Unit.Kind: UnitKind.Mass } again
                && amount with { Also = again.Amount } is { AgreesWithAlso: false } twice)
                return Differ(text, twice, parts);
            return food.WeightOf(amount.Quantity, amount.Unit) is { } weight
                ? Weighed(text, food, weight * fullness, amount.IsAbout || isVolume, parts)
                : Ask(text, food, amount.Unit.Name, parts);
        }, isTin);
    }

    // "2 slices rye bread": the first words may name a measure of the food that the rest names.
    private FoodLine Counted(string text, AmountText amount)
    {
        var whole = FoodNaming.Read(amount.Rest, foods, chosen);
        foreach (var (measure, rest) in CountedIn(amount.Rest))
        {
            if (IsCalled(measure, whole))
            {
                // "1 stock cube", "10 walnut halves": the food is called so.
                var own = whole.Meaning.Fits[0].Food;
                var itself = new LineParts(amount, null, whole.Name, whole.Note);
                if (own.MeasureNamed(measure) is not { } each || itself.Stated is not null) continue;
                return Told(Weighed(text, own, each.Weight * amount.Quantity, true, itself), whole);
            }

            var naming = FoodNaming.Read(rest, foods, chosen, FoodWords.IsTin(measure), isCounted: true);
            var parts = new LineParts(amount, measure, naming.Name, naming.Note);
            var isAsked = IsAsked(measure);
            if (Meant(naming, food => Known(food, measure) is not null || (isAsked && IsPackaged(food, measure))) is not { } food) continue;
            var known = Known(food, measure);
            if (parts.Stated is { } stated && (known is not null || isAsked) && Of(food, stated) is { } weight)
            {
                var all = weight * (stated.IsEach ? amount.Quantity : 1);
                return Told(Weighed(text, food, all, IsAboutStated(stated, amount), parts), naming);
            }

            if (known is { } one) return Told(Weighed(text, food, one * amount.Quantity, true, parts), naming);
            if (!isAsked || IsWholeOne(measure, naming)) continue;

            // A package of a usual size is taken as that; of anything else only a kitchen knows what one weighs.
            var asked = Told(
                IsPackaged(food, measure)
                    ? Weighed(text, food, new(food.PackageGrams[0] * amount.Quantity), true, parts, isPackage: true)
                    : Ask(text, food, FoodWords.Singular(measure), parts),
                naming);
            return asked;
        }

        return Resolve(text, amount.Rest, food => Sized(food, amount.Rest) is not null || food.Piece is not null, (food, naming) =>
        {
            var parts = new LineParts(amount, null, naming.Name, naming.Note);
            if (parts.Stated is { } stated && Of(food, stated) is { } weight)
                return Weighed(text, food, weight * (stated.IsEach ? amount.Quantity : 1), IsAboutStated(stated, amount), parts);
            var sizes = FoodWords.All(FoodNaming.Join(naming.Name, naming.Note)).Select(word => Sized(food, word));
            return (sizes.FirstOrDefault(one => one is not null) ?? food.Piece?.Weight) is { } piece
                ? Weighed(text, food, piece * amount.Quantity, true, parts)
                : Ask(text, food, "piece", parts);
        }, isCounted: true);
    }

    // Whether a measure is a word of the name of the food that all the words mean.
    private static bool IsCalled(string measure, FoodNaming whole) =>
        whole.Meaning.Fits is [{ Off: < LeavesOpen, Food.Piece: not null }, ..] && IsWordOf(measure, whole.Meaning);

    private static FoodLine Stated(string text, Food food, LineParts parts, StatedWeight stated) =>
        Weighed(text, food, stated.Of(parts.Amount!.Quantity), IsAboutStated(stated, parts.Amount), parts);

    // The food that is meant: of several that fit alike the one that the amount can be weighed of, and of a nearer and a farther one that
    // too, where both are wholly named: "1 pepper" is no spoonful.
    private static Food? Meant(FoodNaming naming, Func<Food, bool> canWeigh)
    {
        var fits = naming.Meaning.Fits;
        if (fits.Count == 0) return null;
        var best = naming.Meaning.Best;
        if (best.Count > 1) return best.Where(canWeigh).Take(2).ToList() is [var only] ? only : null;
        if (naming.Meaning.IsChosen || canWeigh(best[0])) return best[0];
        var others = fits.Skip(1).TakeWhile(fit => fit.Off < fits[0].Off + MostApart).Where(fit => fit.IsWhole).Select(fit => fit.Food);
        return others.FirstOrDefault(canWeigh) ?? best[0];
    }

    private FoodLine Resolve(
        string text, string name, Func<Food, bool> canWeigh, Func<Food, FoodNaming, FoodLine> read, bool isTinned = false,
        bool isCounted = false)
    {
        var naming = FoodNaming.Read(name, foods, chosen, isTinned, isCounted);
        var parts = new LineParts(null, null, naming.Name, naming.Note);
        if (Meant(naming, canWeigh) is { } food) return Told(read(food, naming), naming);
        if (string.IsNullOrWhiteSpace(name))
            return Unread(text, "food-missing", "Say which food after the amount, as in “150 g strawberries”.", parts);
        if (naming.Meaning.Best is { Count: > 1 } several)
            return Unread(text, "food-ambiguous", $"“{naming.Name}” could be {List(several)}: say which.", parts, several);
        if (naming.Meaning.Refused is { Count: > 0 } refused)
            return Unread(
                text, "food-unknown", $"No food here is “{FoodNaming.Join(naming.Name, naming.Note)}”. There is {List(refused)}.",
                parts, refused);
        return Unread(
            text, "food-unknown", $"No food here is called “{naming.Name}”. Try a plainer name, or pick one from the list.", parts,
            Similar(naming.Name));
    }

    // The others that may be meant as well, where they are more than a tenth apart and it matters; those used alike first.
    private static FoodLine Told(FoodLine line, FoodNaming naming)
    {
        if (naming.Meaning.IsChosen || line.Ingredient is not { IsTrace: false, Food: var food } ingredient) return line;
        var taken = naming.Meaning.Fits.FirstOrDefault(fit => ReferenceEquals(fit.Food, food));
        if (taken is not { IsUsual: true } and not { Off: >= LeavesOpen }) return line;
        bool IsUsedAlike(FoodFit fit) => string.Equals(fit.Food.Use, food.Use, StringComparison.Ordinal);
        bool IsOther(FoodFit fit) =>
            !ReferenceEquals(fit.Food, food) && fit.Food.Group == food.Group && fit.IsCooked == taken.IsCooked
            && !(Says(line.Text, "drained") && NameFacets.Of(fit.Food.Name).On(FacetAxis.Form) is "dry")
            && (fit.IsWhole || (taken.IsUsual && IsUsedAlike(fit)));
        var others = naming.Meaning.Fits.Where(IsOther).OrderBy(fit => IsUsedAlike(fit) ? 0 : 1)
            .Select(fit => OtherFood.Of(ingredient, fit.Food)).OfType<OtherFood>().Take(MostOthers).ToList();
        return others.Count == 0 ? line : line with { Others = others, IsAbout = true };
    }

    // Slips first ("chikpeas"), then foods of the same noun.
    private IReadOnlyList<Food> Similar(string name)
    {
        var close = foods.Suggest(name, 6);
        return close.Count > 0 ? close : foods.Suggest(NameFacets.Of(name).Head, 6);
    }

    // Several foods in one line are read as the lines they are; where one of them isn't understood, none is, and the lines to write are
    // said.
    private FoodLine? Together(string text, string line)
    {
        if (foods.IsName(AmountText.Read(line)?.Rest ?? line)) return null;
        var each = SaidTogether.OfEach(line);
        if (each.Count == 0) each = SaidTogether.Listed(line, IsFood);
        if (each.Count == 0 && SaidTogether.Joined(line) is var (one, other)) each = [one, other];
        if (each.Count > 0)
        {
            var read = Inner(each);
            return read.TrueForAll(part => part.Ingredient is not null)
                ? Parted(text, read)
                : read.Exists(part => part.Ingredient is not null) ? Apart(text, line, [.. each]) : null;
        }

        return Bare(text, line);
    }

    // Wholly named: of "1 lemon, 2 tbsp juice" the juice is no food of its own.
    private bool IsFood(string words) =>
        FoodNaming.Read(words, foods, null).Meaning is { IsChosen: true } or { Fits: [{ IsWhole: true }, ..] };

    private List<FoodLine> Inner(IEnumerable<string> lines)
    {
        depth++;
        FoodLine ReadOne(string part) =>
            AmountText.Read(part) is null && LineText.AtTheEnd(part) is null ? Unmeasured(part, part, isUsed: true) : Read(part);
        var read = lines.Select(ReadOne)
            .SelectMany(part => part.Several.Count > 0 ? part.Several : [part]).ToList();
        depth--;
        return read;
    }

    // What only a comma parts are several foods where all of them are seasonings: "salt, pepper, paprika", not "onions, red".
    private FoodLine? Bare(string text, string line)
    {
        var trace = Trace(line);
        var said = trace?.Food ?? line;
        if (SaidTogether.Bare(said) is not { Count: > 1 } named || foods.IsName(said)) return null;
        if (trace is null && (AmountText.Read(line) is not null || LineText.AtTheEnd(line) is not null)) return null;
        if (trace is null && SaysWhatFor(line)) return null;
        var meant = named.Select(name => FoodNaming.Read(name, foods, null).Meaning.Best).ToList();
        if (meant.Exists(foods => foods.Count == 0)) return null;
        var isPinched = meant.TrueForAll(foods => foods.All(IsPinched));
        if (!isPinched && (named.Count > 2 || said.Contains(',', StringComparison.Ordinal))) return null;
        var isTaste = trace is not null || isPinched;
        string[] lines = [.. named.Select(name => isTaste ? $"{name}, {ToTaste}" : name)];
        if (!isTaste || meant.Exists(foods => foods.Count > 1)) return Apart(text, line, lines);
        return Parted(text, Inner(lines));
    }

    private static FoodLine Parted(string text, List<FoodLine> read) =>
        new(text, null, true, null, [], null) { Several = read, IsAbout = read.Exists(one => one.IsAbout) };

    private static FoodLine Apart(string text, string line, IReadOnlyList<string> lines) =>
        new(text, null, false, FoodLine.TwoFoods, [], null) { Parts = new(null, null, line, ""), Instead = lines };

    // What is used without an amount is recorded, at the least that it can be: a spray, a spoonful for the pan, a gram of what is served.
    private FoodLine Unmeasured(string text, string line, bool isUsed = false)
    {
        var naming = FoodNaming.Read(line, foods, chosen);
        var isMeant = isUsed || SaysWhatFor(line);
        if (Meant(naming, IsPinched) is { } food && (isMeant || IsPinched(food) || food.MeasureNamed("spray") is not null || IsWater(food)))
        {
            var least = new Ingredient(food, LeastOf(food, line), IsTrace: true);
            return new(text, least, true, null, [], null) { Parts = new(null, null, naming.Name, naming.Note) };
        }

        // "Stock cube", "bay leaf": one is meant.
        if (depth == 0 && IsOneOfAKind(naming.Name) && Meant(naming, food => food.Piece is not null) is { Piece: not null })
            return Read(text, "1 " + line);
        return Unread(
            text, "amount-missing", "Say how much of it: a number, perhaps a unit, then the food, as in “150 g strawberries”.",
            new(null, null, line, ""), naming.Meaning.Fits.Count == 0 && isMeant ? Similar(naming.Name) : null);
    }

    private static bool IsOneOfAKind(string name) =>
        name.Split(' ') is [_, .., "cube" or "leaf" or "stick" or "pod" or "sheet" or "sachet"];

    private FoodLine Read(string text, string line)
    {
        depth++;
        var read = Read(line) with { Text = text };
        depth--;
        return read;
    }

    // The juice of a lemon is a food of its own, measured in lemons. Where it is said after the fruit, it has to be one that is known, and
    // not the fruit that was chosen.
    private FoodLine? Drawn(string text, AmountText amount, string of, Match said, bool isSure)
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
            foods.Meaning(SaidFood.Of(called)) is { Best: [var meant] }
            && (chosen is null || string.Equals(chosen.Id, meant.Id, StringComparison.Ordinal));
        if (!isSure && !IsKnown()) return null;
        return Resolve(text, called, food => food.MeasureNamed(fruit) is not null, (food, naming) =>
        {
            var parts = new LineParts(amount, fruit, naming.Name, notes.Aggregate(FoodNaming.Join)) { Drawn = what };
            return food.MeasureNamed(fruit) is { } one
                ? Weighed(text, food, one.Weight * amount.Quantity, true, parts)
                : Ask(text, food, FoodWords.Singular(fruit), parts);
        });
    }

    private static FoodLine Weighed(string text, Food food, Grams weight, bool isAbout, LineParts parts, bool isPackage = false)
    {
        // What a tin states is with its liquid, and what is thrown away with it: two tins of 400 g are 480 g of drained chickpeas.
        var isTin = isPackage || parts.Amount?.Pack is not null || parts.Stated is { IsPack: true };
        if (isTin && food.DrainedShare is { } drained && IsDrained(text, food, parts)) (weight, isAbout) = (weight * drained, true);
        if (food.Refuse > 0 && AsBought.Any(said => Says(text, said))) (weight, isAbout) = (weight * (1 - food.Refuse), true);
        if (weight.Value is > 0 and < Limits.Lightest)
            return Unread(text, "amount-absurd", $"That is hardly anything of {food.Name}: check the number and its unit.", parts);
        return weight > FoodLine.Heaviest
            ? Unread(text, "amount-absurd", $"That is {weight.Value / 1000m:0} kg of {food.Name}: check the number and its unit.", parts)
            : new(text, new(food, weight), isAbout, null, [], null) { Parts = parts };
    }

    private static bool IsDrained(string text, Food food, LineParts parts) =>
        !Says(text, "undrained") && parts.Stated is null or { IsPack: true } && (Says(text, "drained") || Says(food.Name, "drained"));

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
