using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Recipes;
using LivelyTern.Web.Aim;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Recipes;

/// <summary>Lines to be read, each perhaps with the id of the food chosen for it; "" where its words say enough.</summary>
public sealed record ParseRequest(IReadOnlyList<string> Lines, IReadOnlyList<string?>? Foods = null, PointsRule? Rule = null);

/// <summary>The lines, read in their order.</summary>
public sealed record ParseAnswer(IReadOnlyList<LineView> Lines);

/// <summary>A recipe, and a portion to look for.</summary>
/// <param name="Recipe">The recipe.</param>
/// <param name="Measure">The measure of the largest portion looked for, or null.</param>
/// <param name="Most">What it is at most.</param>
public sealed record CutsRequest(CalcRecipeRequest Recipe, Measure? Measure = null, decimal? Most = null);

/// <summary>One way to cut a batch.</summary>
/// <param name="Portions">Into how many.</param>
/// <param name="Grams">What a portion weighs.</param>
/// <param name="Figures">Every measure of a portion.</param>
/// <param name="ExactPoints">Points before rounding; null without a rule.</param>
/// <param name="Step">Whether a portion has fewer points than when cut into one fewer.</param>
/// <param name="ToNextStep">The grams by which a portion would have to be smaller to lose a point, or null.</param>
/// <param name="Volume">What a portion fills, where it is said what the whole fills.</param>
public sealed record CutView(
    int Portions, decimal Grams, IReadOnlyDictionary<Measure, Figure> Figures, Figure? ExactPoints, bool Step, decimal? ToNextStep,
    string? Volume);

/// <summary>The largest portion that is still at most so much.</summary>
public sealed record LargestView(decimal Grams, int Portions, IReadOnlyDictionary<Measure, Figure> Figures);

/// <summary>The cut chart; of a put-together dish that of as many boxes as it is usually made for.</summary>
/// <param name="Grams">What the batch weighs, cooked where that is known.</param>
/// <param name="Boxes">Of how many boxes that is; 1 where it is a batch.</param>
/// <param name="Cuts">From 2 to 36.</param>
/// <param name="Largest">The portion looked for, or null.</param>
/// <param name="LargestProblem">Why there is none.</param>
public sealed record CutsAnswer(decimal Grams, int Boxes, IReadOnlyList<CutView> Cuts, LargestView? Largest, Problem? LargestProblem);

/// <summary>Two recipes to be compared.</summary>
public sealed record SwapRequest(CalcRecipeRequest Before, CalcRecipeRequest After);

/// <summary>Two recipes side by side.</summary>
/// <param name="Before">The one.</param>
/// <param name="After">The other.</param>
/// <param name="Difference">Per portion, other less one, in each measure; points between the rounded values.</param>
/// <param name="Grams">The difference of a portion's weight.</param>
public sealed record SwapAnswer(
    CalcRecipeAnswer Before, CalcRecipeAnswer After, IReadOnlyDictionary<Measure, Figure> Difference, decimal Grams);

/// <summary>A recipe to be made lighter.</summary>
/// <param name="Recipe">The recipe.</param>
/// <param name="Less">How much to take off a portion, in kcal, grams or points.</param>
/// <param name="KeepProtein">Grams of protein a portion must still have.</param>
/// <param name="Excluded">Allergens that nothing suggested may bring.</param>
/// <param name="Measure">Of what.</param>
public sealed record LightenRequest(
    CalcRecipeRequest Recipe, decimal Less, decimal KeepProtein = 0, IReadOnlyList<Allergen>? Excluded = null,
    Measure Measure = Measure.Energy);

/// <summary>An idea, tried.</summary>
/// <param name="Steps">What is changed.</param>
/// <param name="Portion">What a portion then holds.</param>
/// <param name="Change">The difference a portion, in the measure that was asked for.</param>
/// <param name="Protein">The difference a portion, in grams.</param>
/// <param name="ReachesGoal">Whether it takes off what was asked and keeps the protein.</param>
public sealed record LightenView(
    IReadOnlyList<LightenStep> Steps, IReadOnlyDictionary<Measure, Figure> Portion, decimal Change, decimal Protein, bool ReachesGoal);

/// <summary>The ideas, best first.</summary>
public sealed record LightenAnswer(IReadOnlyList<LightenView> Ideas);

/// <summary>A recipe to be scaled.</summary>
public sealed record ScaleRequest(CalcRecipeRequest Recipe, ScaleBy By);

/// <summary>A recipe, scaled.</summary>
/// <param name="Factor">What every amount was multiplied by.</param>
/// <param name="Recipe">The lines with their new amounts, and what they make.</param>
/// <param name="DepthFactor">How deep it stands in its pan against before; null where no pan is known.</param>
/// <param name="Unscaled">The lines whose amount could not be scaled.</param>
public sealed record ScaleAnswer(decimal Factor, RecipeRequest Recipe, decimal? DepthFactor, IReadOnlyList<string> Unscaled);

/// <summary>What a recipe comes to, and what a change does to it; nothing is stored.</summary>
public static class RecipeCalculations
{
    /// <summary>Maps <c>/api/calc/parse</c>, <c>recipe</c>, <c>cuts</c>, <c>swap</c>, <c>lighten</c> and <c>scale</c>.</summary>
    public static void MapRecipeCalculations(this IEndpointRouteBuilder api)
    {
        var calc = api.MapGroup("/calc").WithTags("Calculate");
        calc.MapPost("/parse", ParseAsync).WithName("calcParse");
        calc.MapPost("/recipe", (CalcRecipeRequest body, RecipeStore store) => OnAsync(body, store, CalcRecipeAnswer.Of))
            .WithName("calcRecipe");
        calc.MapPost("/cuts", (CutsRequest body, RecipeStore store) =>
            OnAsync(body.Recipe, store, (recipe, rule) => Cuts(recipe, rule, body)))
            .WithName("calcCuts");
        calc.MapPost("/swap", SwapAsync).WithName("calcSwap");
        calc.MapPost("/lighten", LightenAsync).WithName("calcLighten");
        calc.MapPost("/scale", ScaleAsync).WithName("calcScale");
    }

    private static async Task<(Recipe? Recipe, PointsRule? Rule, ProblemHttpResult? Wrong)> ReadAsync(
        CalcRecipeRequest body, RecipeStore store)
    {
        // What is still being typed stands in no one's way.
        var written = (body with { Fills = body.Fills is { } fills && SaidVolume.Read(fills) is not null ? fills : null }).Written();
        List<Problem> problems = [.. written.Problems(), .. body.Rule?.Problems() ?? []];
        return problems.Count > 0
            ? (null, body.Rule, Answers.Problem(problems))
            : ((await store.BookAsync()).Read(written, body.SelfId), body.Rule, null);
    }

    private static async Task<Results<Ok<TAnswer>, ProblemHttpResult>> OnAsync<TAnswer>(
        CalcRecipeRequest body, RecipeStore store, Func<Recipe, PointsRule?, TAnswer> answer)
    {
        var (recipe, rule, wrong) = await ReadAsync(body, store);
        return recipe is null ? wrong! : TypedResults.Ok(answer(recipe, rule));
    }

    private static CutsAnswer Cuts(Recipe recipe, PointsRule? rule, CutsRequest body)
    {
        // One box is not cut: so many as it is usually made for are.
        var boxes = recipe.Yield.IsPutTogether ? RecipeYield.UsualBoxes : 1;
        var (batch, weight) = (recipe.Batch.Scale(boxes), recipe.Weight * boxes);
        var largest = body is { Measure: { } measure, Most: { } most }
            ? CutChart.LargestAtMost(batch, weight, rule, measure, most)
            : (Outcome<LargestPortion>?)null;
        CutView Show(Cut cut) => new(
            cut.Portions, cut.Grams.Value, Figure.Of(cut.Figures), cut.ExactPoints is { } exact ? Figure.Of(exact) : null, cut.IsStep,
            cut.ToNextStep?.Value,
            recipe.Yield.VolumeMl is { } ml ? SaidVolume.Of(ml * boxes / cut.Portions, ml) : null);
        return new(
            weight.Value, boxes, [.. CutChart.Of(batch, weight, rule).Select(Show)],
            largest is { Succeeded: true, Value: { } found } ? new(found.Grams.Value, found.Portions, Figure.Of(found.Figures)) : null,
            largest is { Succeeded: false } none ? none.Problems[0] : null);
    }

    private static async Task<Results<Ok<SwapAnswer>, ProblemHttpResult>> SwapAsync(SwapRequest body, RecipeStore store)
    {
        var (one, rule, wrong) = await ReadAsync(body.Before, store);
        if (one is null) return wrong!;
        var (other, otherRule, wrongToo) = await ReadAsync(body.After, store);
        if (other is null) return wrongToo!;
        var (before, after) = (CalcRecipeAnswer.Of(one, rule), CalcRecipeAnswer.Of(other, otherRule));
        var (was, now) = (before.Portion.Figures, after.Portion.Figures);
        Figure Change(Measure measure) => now[measure].Less(was[measure]);
        var difference = now.Keys.Where(was.ContainsKey).ToDictionary(measure => measure, Change);
        return TypedResults.Ok(new SwapAnswer(before, after, difference, after.PortionGrams - before.PortionGrams));
    }

    private static async Task<Results<Ok<LightenAnswer>, ProblemHttpResult>> LightenAsync(
        LightenRequest body, RecipeStore store, FoodStore foods)
    {
        var (recipe, rule, wrong) = await ReadAsync(body.Recipe, store);
        if (recipe is null) return wrong!;
        var goal = new LightenGoal(body.Less, body.KeepProtein, body.Excluded, body.Measure, rule);
        var ideas = Lighten.Ideas(recipe, goal, (await foods.CatalogueAsync()).All);
        LightenView Show(LightenIdea idea) =>
            new(idea.Steps, Figure.Of(MeasureTotals.Of(idea.Portion, rule)), idea.Change, idea.Protein, idea.ReachesGoal);
        return ideas.Answer(found => new LightenAnswer([.. found.Select(Show)]));
    }

    private static async Task<Results<Ok<ScaleAnswer>, ProblemHttpResult>> ScaleAsync(ScaleRequest body, RecipeStore store)
    {
        var (recipe, _, wrong) = await ReadAsync(body.Recipe, store);
        if (recipe is null) return wrong!;
        return Scaling.Scale(recipe, body.By).Answer(scaled => new ScaleAnswer(
            scaled.Factor, RecipeEndpoints.Sent("", new WrittenRecipe("", scaled.Lines, scaled.Yield)), scaled.DepthFactor,
            [.. scaled.Unscaled.Select(i => recipe.Lines[i].Written.Text)]));
    }

    private static async Task<Results<Ok<ParseAnswer>, ProblemHttpResult>> ParseAsync(ParseRequest body, FoodStore store)
    {
        string? FoodOf(int i) => body.Foods is { } ids && i < ids.Count && ids[i] is { Length: > 0 } id ? id : null;
        List<WrittenLine> lines = [.. body.Lines.Select((text, i) => new WrittenLine(text, FoodOf(i)))];
        List<Problem> problems = [.. WrittenRecipe.LineProblems(lines), .. body.Rule?.Problems() ?? []];
        if (problems.Count > 0) return Answers.Problem(problems);
        var foods = await store.AllAsync();
        FoodLine Read(WrittenLine line) => FoodLine.Read(line.Text, foods, line.FoodId is null ? null : foods.Find(line.FoodId));
        return TypedResults.Ok(new ParseAnswer([.. lines.Select(line => LineView.Of(Read(line), body.Rule))]));
    }
}
