using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Recipes;

/// <summary>What a portion should come to.</summary>
/// <param name="Less">How much to take off a portion, in kcal, grams or points.</param>
/// <param name="KeepProtein">The grams of protein a portion must still have; 0 for any.</param>
/// <param name="Excluded">Allergens that nothing suggested may bring.</param>
/// <param name="Measure">Of what.</param>
/// <param name="Rule">The rule for points: a portion's are rounded by it, so half a point less is none.</param>
public sealed record LightenGoal(
    decimal Less, decimal KeepProtein, IReadOnlyList<Allergen>? Excluded = null, Measure Measure = Measure.Energy, PointsRule? Rule = null)
{
    internal decimal Of(Contents contents) => MeasureTotals.Of(contents, Rule)[Measure].Known;

    // Unrounded: what a food brings to a dish counts before the dish is rounded.
    internal decimal Exactly(Contents contents) => Measure == Measure.Points ? Rule!.Exact(contents).Known : Of(contents);
}

/// <summary>How a line is made lighter.</summary>
public enum LightenKind
{
    /// <summary>Another food in its place.</summary>
    Swap,

    /// <summary>Less of it.</summary>
    Less,

    /// <summary>Left out.</summary>
    Without,
}

/// <summary>One change of one line.</summary>
/// <param name="Line">The line's place in the recipe, from 0.</param>
/// <param name="Kind">What is done.</param>
/// <param name="Text">The line as it would read; empty where it is left out.</param>
/// <param name="FoodId">The food in its place, or null.</param>
/// <param name="Reason">Why this one, in words.</param>
public sealed record LightenStep(int Line, LightenKind Kind, string Text, string? FoodId, string Reason);

/// <summary>A change of one or two lines, tried.</summary>
/// <param name="Steps">What is changed.</param>
/// <param name="Portion">What a portion then holds.</param>
/// <param name="Change">The difference a portion, in the goal's measure; below zero is less.</param>
/// <param name="Protein">The difference a portion, in grams.</param>
/// <param name="ReachesGoal">Whether it takes off what was asked and keeps the protein.</param>
public sealed record LightenIdea(IReadOnlyList<LightenStep> Steps, Contents Portion, decimal Change, decimal Protein, bool ReachesGoal);

/// <summary>
/// "Take 60 kcal, or a point, off a portion and keep 25 g of protein": every real swap (a food of the same use, gram for gram) and every
/// reduction (three quarters, half, a quarter, none of a line) is tried, alone and in pairs, and ranked: those that reach the goal first,
/// with the fewest lines changed, the least of the dish given up, and the goal overshot least.
/// </summary>
public static class Lighten
{
    /// <summary>How many ideas are returned at most.</summary>
    public const int Most = 12;

    private const int PairsFrom = 24;
    private static readonly (decimal Keep, string Reason)[] Cuts =
        [(0.75m, "three quarters of it"), (0.5m, "half of it"), (0.25m, "a quarter of it")];

    /// <summary>The ideas, best first; empty where nothing takes anything off.</summary>
    /// <param name="recipe">The recipe, read.</param>
    /// <param name="goal">What a portion should come to.</param>
    /// <param name="foods">The foods that may stand in.</param>
    public static Outcome<IReadOnlyList<LightenIdea>> Ideas(Recipe recipe, LightenGoal goal, IReadOnlyCollection<Food> foods)
    {
        ArgumentNullException.ThrowIfNull(recipe);
        ArgumentNullException.ThrowIfNull(goal);
        ArgumentNullException.ThrowIfNull(foods);
        if (goal.Less is not (> 0 and <= 5000))
            return new Problem("goal-none", "less", "Say how much to take off a portion: more than 0.");
        if (goal is { Measure: Measure.Points, Rule: null }) return new Problem("goal-points", "measure", "Points need a rule.");
        if (goal.KeepProtein is < 0 or > 1000)
            return new Problem("goal-protein", "keepProtein", "Grams of protein to keep: from 0 to 1,000.");
        var portion = recipe.Portion;
        var (totals, before) = (portion.Totals, goal.Of(portion));
        var single = Changes(recipe, goal, foods).Select(change => Try([change])).Where(tried => tried.Idea.Change < 0).OrderBy(Score)
            .ToList();
        var first = single.Take(PairsFrom).ToList();
        IEnumerable<Tried> With(int i) =>
            first.Skip(i + 1).Where(other => other.Changes[0].Step.Line != first[i].Changes[0].Step.Line)
                .Select(other => Try([first[i].Changes[0], other.Changes[0]]));
        var pairs = Enumerable.Range(0, first.Count).SelectMany(With);

        // A pair only where it reaches what neither of its two does alone.
        var reach = single.Where(tried => tried.Idea.ReachesGoal).SelectMany(tried => tried.Changes).Select(change => change.Step)
            .ToHashSet();
        var useful = pairs.Where(pair => pair.Idea.ReachesGoal && !pair.Changes.Any(change => reach.Contains(change.Step)));
        return single.Concat(useful).OrderBy(Score).Select(tried => tried.Idea).Take(Most).ToList();

        Tried Try(IReadOnlyList<Change> changes)
        {
            var changed = changes.SelectMany(one => one.Delta.Scale(1m / recipe.Yield.Portions).Ingredients);
            var after = new Contents([.. portion.Ingredients, .. changed], portion.SomethingUnread);
            var change = goal.Of(after) - before;
            var protein = after.Totals[Nutrient.Protein].Known - totals[Nutrient.Protein].Known;
            var reaches = -change >= goal.Less && after.Totals[Nutrient.Protein].Known >= goal.KeepProtein;
            return new(new([.. changes.Select(one => one.Step)], after, change, protein, reaches), changes);
        }

        // Lower is better: short of the goal, then lines changed and dish given up, then what is overshot.
        (int, decimal) Score(Tried tried)
        {
            var (idea, changes) = tried;
            var isShort = Math.Max(0, goal.Less + idea.Change) / goal.Less;
            var lacksProtein = Math.Max(0, goal.KeepProtein - totals[Nutrient.Protein].Known - idea.Protein);
            var shortProtein = lacksProtein / Math.Max(1, goal.KeepProtein);
            var overshoot = Math.Max(0, -idea.Change - goal.Less) / goal.Less;
            var givenUp = changes.Sum(change => change.GivenUp) + (changes.Count * 0.5m);
            return (idea.ReachesGoal ? 0 : 1, (4 * (isShort + shortProtein)) + givenUp + (0.25m * Math.Min(overshoot, 4)));
        }
    }

    private sealed record Change(LightenStep Step, Contents Delta, decimal GivenUp);

    private sealed record Tried(LightenIdea Idea, IReadOnlyList<Change> Changes);

    private static IEnumerable<Food> OfTheSameUse(Food food, IEnumerable<Food> foods)
    {
        if (food.Use is not { } use) return [];
        bool Is(string? one, string other) => string.Equals(one, other, StringComparison.Ordinal);
        return foods.Where(other => Is(other.Use, use) && !Is(other.Id, food.Id));
    }

    private static IEnumerable<Change> Changes(Recipe recipe, LightenGoal goal, IReadOnlyCollection<Food> foods)
    {
        var raw = recipe.Batch.RawWeight.Value;
        for (var i = 0; i < recipe.Lines.Count; i++)
        {
            var line = recipe.Lines[i];
            if (line.Written.IsOut || line.Read.Parts.Amount is null) continue;
            if (line.Read.Ingredient is not { IsTrace: false } ingredient || line.Contents is not { } contents) continue;
            if (goal.Exactly(contents) <= 0) continue;
            foreach (var other in OfTheSameUse(ingredient.Food, foods))
            {
                var isExcluded = goal.Excluded is { } excluded && other.Allergens.Intersect(excluded).Any();
                if (isExcluded || !IsLighter(goal, other, ingredient.Food)) continue;
                var note = line.Read.Parts.Note.Length > 0 ? ", " + line.Read.Parts.Note : "";
                var text = string.Create(
                    System.Globalization.CultureInfo.InvariantCulture,
                    $"{AmountText.Say(Math.Round(ingredient.Weight.Value, 0, MidpointRounding.AwayFromZero))} g {other.Name}{note}");
                var (its, was) = (goal.Exactly(Hundred(other)), goal.Exactly(Hundred(ingredient.Food)));
                var figures = string.Create(
                    System.Globalization.CultureInfo.InvariantCulture, $"{Said(its)} instead of {Said(was)} {UnitOf(goal)} in 100 g");
                yield return new(
                    new(i, LightenKind.Swap, text, other.Id, $"{other.Name} for {ingredient.Food.Name}, gram for gram: {figures}"),
                    new([new(other, ingredient.Weight), .. contents.Scale(-1).Ingredients]), 0.2m);
            }

            foreach (var (keep, reason) in Cuts)
            {
                yield return new(
                    new(i, LightenKind.Less, line.Read.Print(keep), line.Written.FoodId, $"{reason}: {ingredient.Food.Name}"),
                    contents.Scale(keep - 1), GivenUp(ingredient, raw) * (1 - keep));
            }

            yield return new(
                new(i, LightenKind.Without, "", null, $"without {ingredient.Food.Name}"), contents.Scale(-1), GivenUp(ingredient, raw));
        }
    }

    // Oil, sugar and cheese are given up more easily than what the dish is made of; the more of the dish it is, the more is given up.
    private static decimal GivenUp(Ingredient ingredient, decimal raw)
    {
        var isExtra = ingredient.Food.Group is FoodGroup.Fats or FoodGroup.Sweets
            || ingredient.Food.Use is "cheese" or "cream" or "rich-spread";
        return (isExtra ? 0.3m : 1.5m) + (raw > 0 ? 2m * ingredient.Weight.Value / raw : 0);
    }

    private static Contents Hundred(Food food) => new([new(food, new Grams(100))]);

    private static decimal Said(decimal value) => Math.Round(value, value >= 20 ? 0 : 1, MidpointRounding.AwayFromZero);

    private static string UnitOf(LightenGoal goal) => goal.Measure switch
    {
        Measure.Energy => "kcal",
        Measure.Points => "points",
        Measure.Protein => "g protein",
        Measure.Fat => "g fat",
        Measure.Carbohydrate => "g carbs",
        Measure.NetCarbohydrate => "g net carbs",
        _ => "g",
    };

    private static bool IsLighter(LightenGoal goal, Food other, Food than) =>
        other.Per100g.Energy is not null && than.Per100g.Energy is not null
        && MeasureTotals.Of(Hundred(other), goal.Rule)[goal.Measure].IsComplete
        && goal.Exactly(Hundred(other)) < goal.Exactly(Hundred(than)) * 0.95m;
}
