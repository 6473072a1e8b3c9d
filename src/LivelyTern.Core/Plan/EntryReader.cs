using System.Text.RegularExpressions;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Plan;

/// <summary>What there is that may be typed for a day.</summary>
/// <param name="Foods">The foods.</param>
/// <param name="Shelf">The boxes on no day, or what is left of them; those to be eaten first come first.</param>
/// <param name="Unpacked">The batches that are not packed yet.</param>
/// <param name="Recipes">The household's recipes by name.</param>
/// <param name="Today">The household's day.</param>
public sealed record Larder(
    IFoods Foods, IReadOnlyList<Box> Shelf, IReadOnlyList<UnpackedBatch> Unpacked, IReadOnlyDictionary<Guid, string> Recipes,
    DateOnly Today)
{
    /// <summary>The rules that boxes are kept by.</summary>
    public KeepingRules Rules { get; init; } = KeepingRules.Default;

    /// <summary>The dishes of which a box lies on the day, where it is typed as eaten: that box is ticked there.</summary>
    public IReadOnlyCollection<string> OnDay { get; init; } = [];

    /// <summary>What is kept off the menus of places.</summary>
    public IReadOnlyList<KeptMeal> Kept { get; init; } = [];

    /// <summary>Packets and meals that were entered by their figures before, the last first.</summary>
    public IReadOnlyList<MealOut> Meals { get; init; } = [];

    /// <summary>Where it is typed as eaten, so that raw or cooked is asked: for a raw food the form in which it is weighed here, by their
    /// ids; empty while nothing was asked. Null where nothing is to be asked.</summary>
    public IReadOnlyDictionary<string, string>? WeighedAs { get; init; }
}

/// <summary>
/// Reads what is typed for an eater's day: plain foods, the household's own dishes by name, meals with their figures. "Half a lentil box",
/// "2 muffins" of a batch of muffins, "150 g skyr and 2 eggs", "dinner 9 points".
/// </summary>
/// <param name="larder">What there is.</param>
/// <param name="eaterId">Whose day.</param>
public sealed class EntryReader(Larder larder, Guid eaterId)
{
    private const string BoxPrefix = "box:", BatchPrefix = "batch:";
    /// <summary>The choice that notes a thing by its name alone, none of its figures known.</summary>
    public const string NameOnly = "name";

    private const int MostOffers = 6, ShortestWord = 3, MostKept = 100;

    private static readonly HashSet<string> Waters = new(StringComparer.Ordinal) { "water", "sparkling-water" };
    private static readonly HashSet<string> Glasses = new(
        FoodWords.All("glass glasses bottle bottles mug mugs cup cups jug of a tap still sparkling plain water"), StringComparer.Ordinal);

    private static readonly HashSet<string> BoxWords = new(StringComparer.Ordinal) { "box", "portion", "container", "tub" };
    private static readonly HashSet<string> Counting = new(StringComparer.Ordinal) { "piece", "of", "the", "a", "an", "my", "our", "left" };

    // What of each box earlier entries took.
    private readonly Dictionary<Guid, Grams> taken = [];

    /// <summary>How a dish is chosen for an entry, in place of a food's id.</summary>
    public static string ChoiceOf(Box box)
    {
        ArgumentNullException.ThrowIfNull(box);
        return (IsPortion(box) ? BatchPrefix : BoxPrefix) + box.Id.ToString("D");
    }

    /// <summary>Reads all that was typed.</summary>
    /// <param name="text">As typed: one thing, or several.</param>
    /// <param name="choices">What was chosen for each thing: a food's id, a box or a batch (<see cref="ChoiceOf"/>), its
    /// name alone (<see cref="NameOnly"/>), or "".</param>
    public IReadOnlyList<TypedEntry> Read(string text, IReadOnlyList<string?> choices)
    {
        ArgumentNullException.ThrowIfNull(choices);
        taken.Clear();
        var read = new List<TypedEntry>();
        foreach (var parts in TypedEntry.Apart(text)) read.AddRange(ReadLine(parts, [.. choices.Skip(read.Count)]));
        return read;
    }

    // A part that names nothing belongs to what is before it: "2 eggs, 1 beaten"; "pie 12 points, 540 kcal".
    private List<TypedEntry> ReadLine(IReadOnlyList<string> parts, IReadOnlyList<string?> choices)
    {
        var things = new List<string>();
        foreach (var part in parts)
        {
            if (things.Count > 0 && IsOfTheOneBefore(things[^1], part)) things[^1] += ", " + part;
            else things.Add(part);
        }

        return [.. things.Select((thing, i) => ReadOne(thing, choices.ElementAtOrDefault(i)))];
    }

    private static bool IsOfTheOneBefore(string before, string part) =>
        FoodWords.Telling(AmountText.Read(part)?.Rest ?? part).Count == 0
        || (SaidMeal.IsFiguresOnly(part) && SaidMeal.Read($"{before}, {part}") is not null);

    private TypedEntry ReadOne(string text, string? choice)
    {
        if (WrittenRecipe.ProblemOfLine(text) is { } tooLong) return new(text, [], tooLong);
        var asked = Asked.Of(text);
        if (string.Equals(choice, NameOnly, StringComparison.Ordinal)) return new(text, [MealOut.Named(text)], null);
        if (ChosenOf(choice) is { } chosen) return OfDish(asked, chosen);
        var food = string.IsNullOrEmpty(choice) ? null : larder.Foods.Find(choice);
        TypedEntry? named = null;
        if (food is null)
        {
            if (SaidPart.Read(text, larder.Meals) is { } part)
                return part.Value is { } some ? new(text, [some], null) : new(text, [], part.Problems[0]);
            if (SaidMeal.Read(text) is { } meal)
                return meal.Value is { } laid ? new(text, [laid], null) : new(text, [], meal.Problems[0]);
            if (KeptNamed(asked) is { } kept)
                return kept.Value is { } known ? new(text, [known], null) : new(text, [], kept.Problems[0]);
            var dish = DishNamed(asked);
            if ((dish is null || IsPortion(dish[0])) && LyingNamed(asked) is { } lying) return new(text, [], OnTheDay(lying));
            if (dish is not null) named = OfDish(asked, dish);
            if (named is { Problem: null }) return named;
        }

        var line = FoodLine.Read(text, larder.Foods, food);
        if (larder.WeighedAs is not null && IsWater(line, asked)) return new(text, [], null) { IsWater = true };
        if (line.Ingredient is not null) return OfFood(line, isChosen: food is not null);
        if (line.Several.Count > 0)
            return new(text, [.. line.Several.Select(one => new PlainFood(one.Text, one.Ingredient!))], null) { Line = line };
        if (named is not null) return named;
        line = WithOne(line);
        var recipe = RecipeNamed(asked, isFood: line.Candidates.Count > 0 || line.Instead.Count > 0 || line.Missing is not null);
        if (recipe.Value is null)
            return new(text, [], line.Problem) { Line = line, Offers = OffersFor(asked) };
        var sentence = $"No box of {recipe.Value} is on the shelf, and no batch waits: plan to cook it, or type another dish or food.";
        return new(text, [], new("dish-not-there", "text", sentence)) { RecipeId = recipe.Key, Offers = OffersFor(asked) };
    }

    // Plain water, however much; with an amount or without.
    private static bool IsWater(FoodLine line, Asked asked) =>
        line.Ingredient is { } water ? Waters.Contains(water.Food.Id)
        : line.Ingredients.Count == 0 && asked.Words.Count > 0 && asked.Words.All(word => Glasses.Contains(word))
        && asked.Words.Contains("water", StringComparer.Ordinal);

    // Raw or cooked: as it was said once of that food, else it is asked.
    private TypedEntry OfFood(FoodLine line, bool isChosen)
    {
        var laid = new PlainFood(line.Text, line.Ingredient!);
        var forms = larder.WeighedAs is null ? [] : RawOrCooked.FormsOf(line, larder.Foods);
        if (isChosen || forms.Count == 0) return new(line.Text, [laid], null) { Line = line, Forms = forms };
        if (larder.WeighedAs!.TryGetValue(forms[0].Id, out var asked) && forms.FirstOrDefault(IsAsked) is { } form)
        {
            var read = FoodLine.Read(line.Text, larder.Foods, form);
            if (read.Ingredient is { } weighed) return new(line.Text, [laid with { Food = weighed }], null) { Line = read, Forms = forms };
        }

        return new(line.Text, [], new("raw-or-cooked", "text", "As it was weighed: raw, or cooked?")) { Line = line, Forms = forms };

        bool IsAsked(Food one) => string.Equals(one.Id, asked, StringComparison.Ordinal);
    }

    // Off the menu of a place, by its whole name: "2 fish tacos".
    private Outcome<MealOut>? KeptNamed(Asked asked)
    {
        if (asked.Amount is { Unit: not null } or { Quantity: <= 0 or > MostKept }) return null;
        var kept = larder.Kept.FirstOrDefault(one => IsAll(asked.Words, FoodWords.All(one.Item.Name)));
        return kept?.Times(asked.Amount?.Quantity ?? 1);
    }

    // By its whole name; where no food is called so, by some of its words too: "turkey soup" is the turkey bean soup.
    private KeyValuePair<Guid, string> RecipeNamed(Asked asked, bool isFood)
    {
        var whole = larder.Recipes.FirstOrDefault(one => IsAll(asked.Words, FoodWords.All(one.Value)));
        if (whole.Value is not null || isFood || asked.Words.Count == 0) return whole;
        var some = larder.Recipes.Where(one => IsSome(asked.Words, FoodWords.All(one.Value))).Take(2).ToList();
        return some is [var only] ? only : default;
    }

    // "apple": is one meant?
    private FoodLine WithOne(FoodLine line)
    {
        if (line is not { Problem.Code: "amount-missing", Instead.Count: 0 }) return line;
        var one = $"1 {line.Text.Trim()}";
        return FoodLine.Read(one, larder.Foods).Ingredient is null ? line : line with { Instead = [one] };
    }

    // Every dish there is, as the boxes it is in; a batch that is not packed as one portion under its own id.
    private IEnumerable<IReadOnlyList<Box>> Dishes()
    {
        var boxes = larder.Shelf.Where(box => !UseBy.Of(box, larder.Today, larder.Rules).IsOver(larder.Today))
            .GroupBy(box => box.Batch.RecipeName, StringComparer.OrdinalIgnoreCase).Select(same => (IReadOnlyList<Box>)[.. same]);
        var portions = larder.Unpacked.Where(one => one.Batch.Weight is not null)
            .Select(one => (IReadOnlyList<Box>)[AsBox(one)]);
        return boxes.Concat(portions);
    }

    private Box AsBox(UnpackedBatch one)
    {
        var size = one.NewFor(eaterId);
        return new(one.Batch.Id, one.Batch, size, one.Batch.PiecesIn(size));
    }

    private IReadOnlyList<Box>? ChosenOf(string? choice)
    {
        if (choice is null) return null;
        bool IsChosen(Box box) => string.Equals(ChoiceOf(box), choice, StringComparison.Ordinal);
        var dish = Dishes().FirstOrDefault(boxes => boxes.Any(IsChosen));
        return dish is null ? null : [.. dish.OrderByDescending(IsChosen)];
    }

    // By its whole name, or by some of its words where a box or a portion is asked for: packed before what is not.
    private IReadOnlyList<Box>? DishNamed(Asked asked)
    {
        if (asked.Words.Count == 0) return null;
        return Dishes().FirstOrDefault(dish => IsAll(asked.Words, FoodWords.All(dish[0].Batch.RecipeName)))
            ?? (asked.IsBox ? Dishes().FirstOrDefault(dish => IsSome(asked.Words, FoodWords.All(dish[0].Batch.RecipeName))) : null);
    }

    // A dish of which a box lies on the day.
    private string? LyingNamed(Asked asked) => asked.Words.Count == 0 ? null : larder.OnDay.FirstOrDefault(name =>
        IsAll(asked.Words, FoodWords.All(name)) || (asked.IsBox && IsSome(asked.Words, FoodWords.All(name))));

    private static Problem OnTheDay(string dish) =>
        new("on-the-day", "text", $"{dish} lies on this day: press “Ate it” or “Not quite” beside it.");

    private static bool IsPortion(Box box) => box.Id == box.Batch.Id;

    private List<Box> OffersFor(Asked asked)
    {
        if (asked.Words.Count == 0) return [];
        var meant = Dishes().Where(dish => IsSome(asked.Words, FoodWords.All(dish[0].Batch.RecipeName))).Select(dish => dish[0]);
        return [.. meant.DistinctBy(box => box.Batch.RecipeName, StringComparer.OrdinalIgnoreCase).Take(MostOffers)];
    }

    // What a text asks for: how much, by which words, and whether it speaks of boxes or portions.
    private sealed record Asked(string Text, AmountText? Amount, IReadOnlyList<string> Words, bool IsBox)
    {
        private static readonly Regex Behind = new(
            @"^(?<name>.*\D)(?<amount>\d[\d.,]*\s*\p{L}+)$", RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking);

        // The amount stands before the dish, or behind it: "200 g dal", "dal 200 g".
        public static Asked Of(string text)
        {
            if (AmountText.Read(text) is { } before) return new(text, before, before.Rest);
            if (Behind.Match(text.Trim()) is { Success: true } said
                && AmountText.Read(said.Groups["amount"].Value) is { Rest: "", Unit: not null } behind)
                return new(text, behind, said.Groups["name"].Value);
            return new(text, null, text);
        }

        private Asked(string text, AmountText? amount, string name)
            : this(text, amount, [.. FoodWords.All(name).Where(IsTelling)], FoodWords.All(name).Any(BoxWords.Contains))
        {
        }
    }

    private static bool IsAll(IReadOnlyList<string> typed, IReadOnlyList<string> name) =>
        typed.Count > 0 && typed.Count == name.Count(IsTelling)
        && name.Where(IsTelling).All(word => typed.Contains(word, StringComparer.Ordinal));

    private static bool IsTelling(string word) => !Counting.Contains(word) && !BoxWords.Contains(word);

    private static bool IsSome(IReadOnlyList<string> typed, IReadOnlyList<string> name) => typed.All(word =>
        name.Any(one => string.Equals(one, word, StringComparison.Ordinal)
            || (word.Length >= ShortestWord && one.StartsWith(word, StringComparison.Ordinal))));

    private TypedEntry OfDish(Asked asked, IReadOnlyList<Box> dish)
    {
        var (text, first) = (asked.Text, dish[0]);
        if (asked.Amount is { Unit: { Kind: UnitKind.Volume } cup } said && first.Batch.WeightOfMl(said.Quantity * cup.InBase) is { } fills)
            asked = asked with { Amount = new(fills.Value, fills.Value, Unit.Gram, "") };
        if (asked.Amount is { Unit.Kind: not UnitKind.Mass } or { Quantity: <= 0 })
            return new(text, [], new("amount-unread", "text", "Type how much of it in grams, in boxes, or as a share: half, 1, 200 g."));
        return first.Id == first.Batch.Id
            ? Portions(asked, larder.Unpacked.First(one => one.Batch.Id == first.Id))
            : Boxes(asked, dish);
    }

    private TypedEntry Portions(Asked asked, UnpackedBatch of)
    {
        var (text, amount, _, isBox) = asked;
        var own = of.NewFor(eaterId);
        var weight = amount switch
        {
            null => own,
            { Unit: { } unit } => new Grams(amount.Quantity * unit.InBase),
            _ when of.Batch.PieceWeight is { } piece && !isBox => piece * amount.Quantity,
            _ => own * amount.Quantity,
        };
        return Portion.ProblemOf(weight) is { } wrong
            ? new(text, [], wrong with { Field = "text" })
            : new(text, [new Portion(of.Batch.Id, of.Batch.ByThePiece(weight))], null);
    }

    // From the first box on, as many as it takes: what is asked for in grams or pieces may end within one.
    private TypedEntry Boxes(Asked asked, IReadOnlyList<Box> dish)
    {
        var (text, amount, _, isBox) = asked;
        var laid = new List<Laid>();
        var open = amount is { Unit: { } unit } ? amount.Quantity * unit.InBase : amount?.Quantity ?? 1;
        foreach (var box in dish)
        {
            var here = box.Weight - taken.GetValueOrDefault(box.Id);
            if (open <= 0 || here.Value <= 0) continue;

            // What one of what is asked for weighs in this box: a gram, a piece, or the whole of it.
            var ofOne = box.Pieces is > 0 && !isBox && amount is not null ? box.Weight * (1m / box.Pieces.Value) : box.Weight;
            var one = amount?.Unit is null ? ofOne : new Grams(1);
            var wanted = (one * open).ToMilligram();
            var part = wanted < here ? wanted : here;
            laid.Add(part < box.Weight ? new LaidBox(box.Id, part) : LaidBox.Of(box));
            taken[box.Id] = taken.GetValueOrDefault(box.Id) + part;
            open = wanted <= here ? 0 : open - (part / one);
        }

        if (open <= 0) return new(text, laid, null);
        var all = new Grams(dish.Sum(box => box.Weight.Value));
        var boxes = dish.Count == 1 ? "one box" : $"{dish.Count} boxes";
        var sentence = $"There is not that much {dish[0].Batch.RecipeName}: {boxes}, {all.Value:0} g in all.";
        return new(text, [], new("dish-short", "text", sentence));
    }
}
