using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>Something to be washed or chopped for one dish.</summary>
/// <param name="Dish">For which.</param>
/// <param name="Step">By which step, from 0; null where only its line says so: "3 onions, chopped".</param>
/// <param name="Verb">What is done.</param>
/// <param name="FoodId">To which food; null where the step does not name it.</param>
/// <param name="Food">The food's name; the step's sentence where none is named.</param>
/// <param name="Weight">How much of it.</param>
/// <param name="Minutes">How long it takes by itself.</param>
/// <param name="IsAbout">Whether that is the usual time and not said.</param>
public sealed record Preparation(
    Guid Dish, int? Step, StepVerb Verb, string? FoodId, string Food, Grams Weight, int Minutes, bool IsAbout);

/// <summary>
/// What is washed and chopped for a whole prep day: found in the sentences and in the lines of its dishes, and done in one go where several
/// dishes want the same of one food.
/// </summary>
public static class Preparations
{
    // Getting the board and the food out, once for each food, and grams a minute: common practice, no published source.
    private const int ToBegin = 1;
    private const decimal ChoppedAMinute = 60, CleanedAMinute = 120;

    private static readonly Dictionary<string, StepVerb> Notes = NotesOf(
        (StepVerbs.Chop, ["chopped", "diced", "sliced", "cubed", "minced", "halved", "quartered", "crushed", "cut"]),
        (StepVerbs.Grate, ["grated", "shredded"]),
        (StepVerbs.Clean, ["washed", "rinsed", "peeled", "scrubbed", "trimmed", "cored", "deseeded", "shelled", "pitted", "zested"]));

    /// <summary>Whole minutes for so much of a food, the first minute for getting it onto the board: 300 g of onions take 6.</summary>
    public static int MinutesFor(StepVerb verb, Grams weight)
    {
        ArgumentNullException.ThrowIfNull(verb);
        return ToBegin + Working(verb, weight);
    }

    // What is added raw to what is cooked already: parsley, cheese. Chicken that is shredded then was cooked.
    private static readonly FoodGroup[] AddedRaw =
        [FoodGroup.Vegetables, FoodGroup.Fruit, FoodGroup.Seasonings, FoodGroup.Dairy, FoodGroup.NutsAndSeeds];

    private static readonly StepVerb[] Preparing = [StepVerbs.Chop, StepVerbs.Grate, StepVerbs.Clean];

    /// <summary>All that is washed and chopped for a dish on the day it is looked at for, without what was done before.</summary>
    public static IReadOnlyList<Preparation> OfDish(PrepDish dish)
    {
        ArgumentNullException.ThrowIfNull(dish);
        var said = new List<Preparation>();
        var isCooked = false;
        for (var step = 0; step < dish.Steps.Count; step++)
        {
            foreach (var part in dish.Steps[step].Way.Parts)
            {
                if (IsOne(dish, part, isCooked)) said.AddRange(Of(dish, step, part));
                isCooked |= IsHot(part);
            }
        }

        return [.. said.Concat(OfLines(dish, said)).Select(one => AheadWork.Left(dish, one)).OfType<Preparation>()];
    }

    /// <summary>Whether a part of a step is washing or chopping that can be done before all else; cutting what is cooked can't.</summary>
    internal static bool IsOne(PrepDish dish, StepPart part, bool isCooked)
    {
        if (!Preparing.Any(verb => string.Equals(part.Verb, verb.Name, StringComparison.Ordinal))) return false;
        var foods = Named(part.Words, dish.Lines);
        return !isCooked || (foods.Count > 0 && foods.All(food => AddedRaw.Contains(food.Group)));
    }

    /// <summary>Whether a part of a step is done with heat; turning the oven on is not yet.</summary>
    internal static bool IsHot(StepPart part) => !IsPreheat(part) && part.Uses.Any(use => use is not
        (Occupies.Board or Occupies.Fridge or Occupies.Blender or Occupies.Tray));

    /// <summary>Whether a step asks for more than washing, chopping and a hot oven.</summary>
    internal static bool HasMore(PrepDish dish, int at)
    {
        var isCooked = dish.Steps.Take(at).SelectMany(step => step.Way.Parts).Any(IsHot);
        return dish.Steps[at].Way.Parts.Any(part => !IsPreheat(part) && !IsOne(dish, part, isCooked));
    }

    private static bool IsPreheat(StepPart part) => string.Equals(part.Verb, StepVerbs.Preheat.Name, StringComparison.Ordinal);

    private static readonly FoodGroup[] Vegetables = [FoodGroup.Vegetables, FoodGroup.Potatoes];

    /// <summary>The foods of a dish that the words of a step name, one by one or as "the veg".</summary>
    public static IReadOnlyList<PrepLine> Named(string words, IReadOnlyList<PrepLine> lines)
    {
        ArgumentNullException.ThrowIfNull(lines);
        var said = FoodWords.All(words).ToHashSet(StringComparer.Ordinal);
        var isAll = said.Overlaps(["veg", "vegetable", "veggie", "everything"]);

        // "Dice the turkey" is said of turkey breast; of red lentils nobody says "the red".
        bool IsSaid(IReadOnlyList<string> name, FoodGroup group) =>
            said.Contains(name[^1]) || (group is FoodGroup.Meat or FoodGroup.Fish && name.Any(said.Contains));
        bool IsNamed(PrepLine line) =>
            (FoodWords.All(line.Name.Split(',')[0]) is { Count: > 0 } name && IsSaid(name, line.Group))
                || (isAll && Vegetables.Contains(line.Group));
        return [.. lines.Where(line => line.Weight.Value > 0 && IsNamed(line))];
    }

    /// <summary>
    /// What goes in at a step: what its sentence names; all of it where it says "everything", and where it says "the rest", what no
    /// sentence before it named.
    /// </summary>
    /// <param name="steps">The steps of the dish.</param>
    /// <param name="at">Which, from 0.</param>
    /// <param name="lines">What the dish is made of.</param>
    public static IReadOnlyList<PrepLine> GoIn(IReadOnlyList<StepToDo> steps, int at, IReadOnlyList<PrepLine> lines)
    {
        ArgumentNullException.ThrowIfNull(steps);
        ArgumentNullException.ThrowIfNull(lines);

        // A recipe without steps is cooked as one that says nothing.
        if (at >= steps.Count) return [];
        var text = steps[at].Written.Text;
        var (isAll, isRest) = Said(text);
        if (isAll) return [.. lines.Where(line => line.Weight.Value > 0)];
        if (!isRest) return Named(text, lines);
        var named = Named(text.Replace("everything", "", StringComparison.OrdinalIgnoreCase), lines);
        var before = steps.Take(at).SelectMany(step => Named(step.Written.Text, lines)).ToHashSet();
        return [.. lines.Where(line => line.Weight.Value > 0 && (named.Contains(line) || !before.Contains(line)))];
    }

    private static readonly string[][] Everything =
        [["everything"], ["all", "ingredients"], ["all", "the", "ingredients"], ["all", "of", "the", "ingredients"]];

    private static readonly string[][] TheRest =
    [
        ["the", "rest"], ["the", "rest", "of", "the", "ingredients"], ["everything", "else"], ["remaining", "ingredients"],
        ["other", "ingredients"],
    ];

    // The longest that is said counts: "everything else" is not everything, "the rest of the tomatoes" only names them.
    private static (bool IsAll, bool IsRest) Said(string text)
    {
        var words = StepWords.Of(text).ToArray();
        bool Says(string[][] ways) => ways.Any(way => StepMachines.IndexOf(words, way) >= 0);
        var isRest = Says(TheRest) && (StepMachines.IndexOf(words, "the", "rest", "of") < 0 || Says(TheRest[1..]));
        return (!isRest && Says(Everything), isRest);
    }

    /// <summary>What a part of a step prepares: each food that the sentence names by its weight, or as one where it names none.</summary>
    /// <param name="dish">The dish.</param>
    /// <param name="step">Which step, from 0.</param>
    /// <param name="part">The part: washing or chopping.</param>
    public static IEnumerable<Preparation> Of(PrepDish dish, int step, StepPart part)
    {
        ArgumentNullException.ThrowIfNull(dish);
        ArgumentNullException.ThrowIfNull(part);
        var text = dish.Steps[step].Written.Text;
        var verb = StepVerbs.All.First(one => string.Equals(one.Name, part.Verb, StringComparison.Ordinal));
        var foods = Named(part.Words, dish.Lines);
        var said = (int)Math.Ceiling(part.Minutes * dish.Factor);
        if (foods.Count == 0)
        {
            yield return new(dish.Id, step, verb, null, text, Grams.Zero, said, part.IsAbout);
            yield break;
        }

        var whole = foods.Sum(food => food.Weight.Value);
        foreach (var food in foods)
        {
            var minutes = part.IsAbout ? MinutesFor(verb, food.Weight) : (int)Math.Ceiling(said * food.Weight.Value / whole);
            yield return new(dish.Id, step, verb, food.FoodId, food.Name, food.Weight, minutes, part.IsAbout);
        }
    }

    /// <summary>What only the lines of a dish say: "3 onions, chopped", where no step chops onions.</summary>
    /// <param name="dish">The dish.</param>
    /// <param name="said">What its steps prepare.</param>
    public static IEnumerable<Preparation> OfLines(PrepDish dish, IReadOnlyList<Preparation> said)
    {
        ArgumentNullException.ThrowIfNull(dish);
        foreach (var line in dish.Lines.Where(line => line.Weight.Value > 0))
        {
            var verb = FoodWords.All(line.Note).Select(word => Notes.GetValueOrDefault(word)).FirstOrDefault(found => found is not null);
            if (verb is null || said.Any(one => string.Equals(one.FoodId, line.FoodId, StringComparison.Ordinal))) continue;
            yield return new(dish.Id, null, verb, line.FoodId, line.Name, line.Weight, MinutesFor(verb, line.Weight), true);
        }
    }

    /// <summary>
    /// Those of one food that several dishes want alike, together; each other by itself with those of its step. What is begun stays
    /// together as it was begun, under its name.
    /// </summary>
    /// <param name="all">All of a day.</param>
    /// <param name="begun">The tasks of them that are begun.</param>
    /// <returns>What is done in one go, with the name of its task where it is begun.</returns>
    public static IEnumerable<(string? Id, IReadOnlyList<Preparation> Together)> Together(
        IReadOnlyList<Preparation> all, IReadOnlyList<PrepTask> begun)
    {
        ArgumentNullException.ThrowIfNull(all);
        ArgumentNullException.ThrowIfNull(begun);
        var open = all.ToList();
        foreach (var task in begun)
        {
            var own = open.FindAll(one => IsPartOf(one, task));
            if (own.Count == 0) continue;
            open.RemoveAll(own.Contains);
            yield return (task.Id, own);
        }

        foreach (var together in Together(open)) yield return (null, together);
    }

    private static bool IsPartOf(Preparation one, PrepTask task)
    {
        if (!string.Equals(one.Verb.Name, task.Verb, StringComparison.Ordinal) || !task.Dishes.Contains(one.Dish)) return false;
        if (task.Dishes.Count == 1 && task.Step != one.Step) return false;
        bool IsIt(PrepAmount amount) => amount.Dish == one.Dish && string.Equals(amount.FoodId, one.FoodId, StringComparison.Ordinal);
        return one.FoodId is null ? task.HasUnnamed : task.Amounts.Any(IsIt);
    }

    private static List<List<Preparation>> Together(List<Preparation> all)
    {
        var shared = all.Where(one => one.FoodId is not null).GroupBy(one => (one.Verb.Name, one.FoodId))
            .Where(same => same.Select(one => one.Dish).Distinct().Count() > 1).Select(same => same.ToList()).ToList();
        var inOneGo = shared.SelectMany(same => same).ToHashSet();
        return [.. shared, .. all.Where(one => !inOneGo.Contains(one)).GroupBy(one => (one.Dish, one.Step, one.Verb.Name))
            .Select(own => own.ToList())];
    }

    /// <summary>Whole minutes of some preparations done in one go: the board is got out once for each food.</summary>
    public static int MinutesOf(IReadOnlyList<Preparation> together)
    {
        ArgumentNullException.ThrowIfNull(together);
        var said = together.Where(one => !one.IsAbout || one.FoodId is null).Sum(one => one.Minutes);
        var byWeight = together.Where(one => one.IsAbout && one.FoodId is not null).GroupBy(one => (one.Verb.Name, one.FoodId))
            .Sum(same => MinutesFor(same.First().Verb, new(same.Sum(one => one.Weight.Value))));
        return said + byWeight;
    }

    private static int Working(StepVerb verb, Grams weight) =>
        (int)Math.Ceiling(Math.Min(weight.Value, 1_000_000) / (verb == StepVerbs.Clean ? CleanedAMinute : ChoppedAMinute));

    private static Dictionary<string, StepVerb> NotesOf(params (StepVerb Verb, string[] Words)[] all) =>
        all.SelectMany(one => one.Words.Select(word => (word, one.Verb)))
            .ToDictionary(pair => pair.word, pair => pair.Verb, StringComparer.Ordinal);
}
