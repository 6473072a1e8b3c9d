using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data;
using LivelyTern.Data.Recipes;
using LivelyTern.Web.Foods;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Recipes;

/// <summary>A recipe as written down.</summary>
public sealed record RecipeView(
    Guid Id, string Name, string Letters, int Tint, int Portions, IReadOnlyList<string> Lines, IReadOnlyList<string> Foods, DateTimeOffset ChangedAt, bool Archived, int Version);

/// <summary>A recipe in the list: its portion's figures with it.</summary>
public sealed record RecipeRowView(Guid Id, string Name, string Letters, int Tint, int Portions, decimal PortionGrams, IReadOnlyDictionary<Measure, Figure> Portion, int NotUnderstood);

/// <summary>A recipe to be saved.</summary>
/// <param name="Name">What the cook calls it.</param>
/// <param name="Lines">Its lines as typed.</param>
/// <param name="Portions">How many portions a batch makes.</param>
/// <param name="Foods">For each line the id of the food chosen, or "" where its words say enough.</param>
public sealed record RecipeRequest(string Name, IReadOnlyList<string?> Lines, int Portions, IReadOnlyList<string?>? Foods = null);

/// <summary>A recipe to be computed, nothing stored.</summary>
/// <param name="Lines">"600 g red lentils, dry".</param>
/// <param name="Portions">How many portions it makes.</param>
/// <param name="Foods">For each line the id of the food chosen, or "".</param>
/// <param name="Rule">The points rule; without one the starting rule.</param>
public sealed record CalcRecipeRequest(IReadOnlyList<string?> Lines, int Portions, IReadOnlyList<string?>? Foods = null, PointsRule? Rule = null);

/// <summary>Grams and measures of a batch, or of one portion of it.</summary>
/// <param name="Grams">What went in, before cooking.</param>
/// <param name="Figures">Every measure, each with whether it is complete.</param>
/// <param name="Missing">For a nutrient that is not complete, the foods that lack it.</param>
public sealed record ContentsView(decimal Grams, IReadOnlyDictionary<Measure, Figure> Figures, IReadOnlyDictionary<Measure, IReadOnlyList<string>> Missing);

/// <summary>A line with its share of the batch in each measure, 0 to 1.</summary>
public sealed record RecipeLineView(LineView Line, IReadOnlyDictionary<Measure, decimal> Shares);

/// <summary>A recipe, computed.</summary>
/// <param name="Batch">The whole.</param>
/// <param name="Portion">One portion.</param>
/// <param name="Lines">Each line and its share.</param>
/// <param name="NotUnderstood">The lines that could not be read, as typed.</param>
/// <param name="Rule">The name of the points rule used.</param>
/// <param name="ExactPoints">The portion's points before rounding.</param>
public sealed record CalcRecipeAnswer(ContentsView Batch, ContentsView Portion, IReadOnlyList<RecipeLineView> Lines, IReadOnlyList<string> NotUnderstood, string Rule, Figure ExactPoints);

/// <summary>Recipes: lists of amounts, and what they come to.</summary>
public static class RecipeEndpoints
{
    /// <summary>Maps <c>/api/recipes</c> and <c>/api/calc/recipe</c>.</summary>
    public static void MapRecipes(this IEndpointRouteBuilder api)
    {
        var recipes = api.MapGroup("/recipes").WithTags("Recipes");
        recipes.MapGet("/", ListAsync).WithName("listRecipes");
        recipes.MapGet("/{id:guid}", async Task<Results<Ok<RecipeView>, ProblemHttpResult>> (Guid id, RecipeStore store) =>
            await store.FindAsync(id) is { } row ? TypedResults.Ok(Show(row)) : Answers.Problem([Stale.Gone("recipe")])).WithName("getRecipe");
        recipes.MapPost("/", async (RecipeRequest body, RecipeStore store) =>
            (await store.AddAsync(body.Name, FoodEndpoints.Written(body.Lines, body.Foods), body.Portions)).Answer(Show)).WithName("addRecipe");
        recipes.MapPut("/{id:guid}", (Guid id, RecipeRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, RecipeStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ChangeAsync(id, version, body.Name, FoodEndpoints.Written(body.Lines, body.Foods), body.Portions))).WithName("saveRecipe");
        recipes.MapDelete("/{id:guid}", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, RecipeStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ArchiveAsync(id, version, archived: true))).WithName("archiveRecipe");
        recipes.MapPost("/{id:guid}/restore", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, RecipeStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ArchiveAsync(id, version, archived: false))).WithName("restoreRecipe");
        api.MapPost("/calc/recipe", CalcAsync).WithTags("Calculate").WithName("calcRecipe");
    }

    private static async Task<List<RecipeRowView>> ListAsync(RecipeStore store, Data.Aim.EaterStore eaters, Guid? eaterId)
    {
        var rule = eaterId is { } id ? (await eaters.FindAsync(id))?.Aim.Rule : null;
        var rows = new List<RecipeRowView>();
        foreach (var row in await store.ListAsync())
        {
            var recipe = await store.ReadAsync(row);
            var portion = recipe.Portion;
            rows.Add(new(row.Id, row.Name, row.Letters, row.Tint, row.Portions, portion.RawWeight.Value, Figure.Of(MeasureTotals.Of(portion, rule)), recipe.Lines.Count(line => line.Problem is not null)));
        }

        return rows;
    }

    private static async Task<Results<Ok<CalcRecipeAnswer>, ProblemHttpResult>> CalcAsync(CalcRecipeRequest body, RecipeStore store)
    {
        var written = FoodEndpoints.Written(body.Lines, body.Foods);
        List<Problem> problems = [.. RecipeStore.LineProblems(written), .. Recipe.Cut("", [], body.Portions).Problems, .. body.Rule?.Problems() ?? []];
        if (problems.Count > 0) return Answers.Problem(problems);

        var rule = body.Rule ?? PointsRule.Starting;
        var recipe = new Recipe("", await store.ReadLinesAsync(written), body.Portions);
        return TypedResults.Ok(new CalcRecipeAnswer(
            Show(recipe.Batch, rule), Show(recipe.Portion, rule),
            [.. recipe.Lines.Zip(recipe.Shares(rule), (line, shares) => new RecipeLineView(LineView.Of(line, rule), shares))],
            [.. recipe.Lines.Where(line => line.Ingredient is null).Select(line => line.Text)],
            rule.Name, Figure.Of(rule.Exact(recipe.Portion))));
    }

    private static async Task<Results<Ok<RecipeView>, ProblemHttpResult>> WriteAsync(Guid id, string? ifMatch, RecipeStore store, Func<int, Task<Outcome<RecipeRow>>> write)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        return await (await write(version)).AnswerWriteAsync(
            row => Task.FromResult(Show(row)), async () => await store.FindAsync(id) is { } current ? Show(current) : null);
    }

    private static ContentsView Show(Core.Foods.Contents contents, PointsRule rule)
    {
        var totals = MeasureTotals.Of(contents, rule);
        return new(contents.RawWeight.Value, Figure.Of(totals), MeasureTotals.Missing([contents], totals));
    }

    private static RecipeView Show(RecipeRow row)
    {
        var lines = row.Lines.OrderBy(line => line.Position).ToList();
        return new(row.Id, row.Name, row.Letters, row.Tint, row.Portions, lines.ConvertAll(line => line.Text), lines.ConvertAll(line => line.FoodId ?? ""), row.ChangedAt, row.ArchivedAt is not null, row.Version);
    }
}
