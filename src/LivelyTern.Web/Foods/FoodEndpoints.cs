using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Recipes;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Foods;

/// <summary>A food by name.</summary>
public sealed record FoodName(string Id, string Name, FoodGroup Group)
{
    /// <summary>A food's name.</summary>
    public static FoodName Of(Food food)
    {
        ArgumentNullException.ThrowIfNull(food);
        return new(food.Id, food.Name, food.Group);
    }
}

/// <summary>A household measure to be weighed once.</summary>
public sealed record MissingMeasureView(string FoodId, string FoodName, string Measure);

/// <summary>A line, read.</summary>
/// <param name="Text">As typed.</param>
/// <param name="Food">The food understood, or null.</param>
/// <param name="Grams">Its weight, or null.</param>
/// <param name="About">Whether the weight is estimated.</param>
/// <param name="Trace">A pinch or "to taste": recorded, not counted.</param>
/// <param name="Figures">What it holds.</param>
/// <param name="Problem">What was not understood.</param>
/// <param name="Candidates">Foods it could be.</param>
/// <param name="MissingMeasure">The measure that would mend it.</param>
public sealed record LineView(
    string Text, FoodName? Food, decimal? Grams, bool About, bool Trace, IReadOnlyDictionary<Measure, Figure> Figures,
    Problem? Problem, IReadOnlyList<FoodName> Candidates, MissingMeasureView? MissingMeasure)
{
    /// <summary>A line as shown, its points under a rule.</summary>
    public static LineView Of(FoodLine line, PointsRule? rule)
    {
        ArgumentNullException.ThrowIfNull(line);
        return new(
            line.Text, line.Ingredient is { } part ? FoodName.Of(part.Food) : null, line.Ingredient?.Weight.Value, line.IsAbout, line.Ingredient?.IsTrace ?? false,
            line.Ingredient is { } read ? Figure.Of(MeasureTotals.Of(new Contents([read]), rule)) : new Dictionary<Measure, Figure>(),
            line.Problem, [.. line.Candidates.Select(FoodName.Of)],
            line.Missing is { } missing ? new(missing.Food.Id, missing.Food.Name, missing.Measure) : null);
    }
}

/// <summary>Lines to be read, each perhaps with the id of the food chosen for it; "" where its words say enough.</summary>
public sealed record ParseRequest(IReadOnlyList<string?> Lines, IReadOnlyList<string?>? Foods = null, PointsRule? Rule = null);

/// <summary>The lines, read in their order.</summary>
public sealed record ParseAnswer(IReadOnlyList<LineView> Lines);

/// <summary>What one measure of a food weighs.</summary>
public sealed record MeasureRequest(string Measure, decimal Grams);

/// <summary>Foods: what a line may mean, and what was weighed once.</summary>
public static class FoodEndpoints
{
    /// <summary>Maps <c>/api/foods</c> and <c>/api/calc/parse</c>.</summary>
    public static void MapFoods(this IEndpointRouteBuilder api)
    {
        var foods = api.MapGroup("/foods").WithTags("Foods");
        foods.MapGet("/", async (string? q, FoodStore store) =>
            (await store.CatalogueAsync()).Suggest(q ?? "", string.IsNullOrWhiteSpace(q) ? 1000 : 12).Select(FoodName.Of).ToList()).WithName("findFoods");
        foods.MapPut("/{id}/measures", async (string id, MeasureRequest body, FoodStore store) =>
            (await store.RememberMeasureAsync(id, body.Measure, new Grams(body.Grams))).Answer(FoodName.Of)).WithName("rememberMeasure");
        api.MapPost("/calc/parse", ParseAsync).WithTags("Calculate").WithName("calcParse");
    }

    /// <summary>Lines with the foods chosen for them, as they are read.</summary>
    public static List<WrittenLine> Written(IReadOnlyList<string?> lines, IReadOnlyList<string?>? foods)
    {
        ArgumentNullException.ThrowIfNull(lines);
        return [.. lines.Select((text, i) => new WrittenLine(text ?? "", foods is not null && i < foods.Count && foods[i] is { Length: > 0 } id ? id : null))];
    }

    private static async Task<Results<Ok<ParseAnswer>, ProblemHttpResult>> ParseAsync(ParseRequest body, RecipeStore recipes)
    {
        var lines = Written(body.Lines, body.Foods);
        List<Problem> problems = [.. RecipeStore.LineProblems(lines), .. body.Rule?.Problems() ?? []];
        if (problems.Count > 0) return Answers.Problem(problems);
        return TypedResults.Ok(new ParseAnswer([.. (await recipes.ReadLinesAsync(lines)).Select(line => LineView.Of(line, body.Rule))]));
    }
}
