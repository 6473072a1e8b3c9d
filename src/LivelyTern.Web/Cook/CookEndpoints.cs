using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Recipes;
using LivelyTern.Web.Aim;
using LivelyTern.Web.Foods;
using LivelyTern.Web.Http;
using LivelyTern.Web.Recipes;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Cook;

/// <summary>A recipe to be cooked now.</summary>
public sealed record CookRequest(Guid RecipeId, DateOnly? Day = null);

/// <summary>Recipes to be cooked on a day: all of them or none.</summary>
/// <param name="Day">The prep day.</param>
/// <param name="Dishes">The recipes.</param>
public sealed record PlanBatchesRequest(DateOnly Day, IReadOnlyList<PlannedDish> Dishes);

/// <summary>A recipe, for so many of its portions.</summary>
public sealed record PlannedDish(Guid RecipeId, int Portions);

/// <summary>What really went in on one line.</summary>
/// <param name="Text">"250 g spinach"; empty where it was left out; null where it went in as planned after all.</param>
/// <param name="FoodId">The food chosen, or null where the words say enough.</param>
public sealed record WentInRequest(string? Text, string? FoodId = null);

/// <summary>What the scale said of one line.</summary>
/// <param name="Grams">Grams that went in.</param>
public sealed record WeighedInRequest(decimal Grams);

/// <summary>Cook: batches planned, started, what went in. Weighing one touches days, and stands with them.</summary>
public static class CookEndpoints
{
    private const int MostListed = 60;

    /// <summary>Maps <c>/api/cook</c>, and saving a recipe: what is still to be cooked follows it.</summary>
    public static void MapCook(this IEndpointRouteBuilder api)
    {
        var cook = api.MapGroup("/cook").WithTags("Cook");
        cook.MapGet("/batches", async (TernDb db, BatchStore store, BatchReader reader) =>
        {
            await using var once = await db.ReadOnceAsync();
            var views = new List<CookView>();
            foreach (var row in await store.ListAsync(MostListed)) views.Add(await CookView.OfAsync(row, reader));
            return views;
        }).WithName("listCooking");
        cook.MapGet("/batches/{id:guid}", async Task<Results<Ok<CookView>, ProblemHttpResult>> (
            Guid id, BatchStore store, BatchReader reader) =>
            await store.FindAsync(id) is { } row
                ? TypedResults.Ok(await CookView.OfAsync(row, reader))
                : Answers.Problem([Stale.Gone("batch")])).WithName("getCooking");
        cook.MapPost("/batches", async (CookRequest body, BatchStore store, BatchReader reader, TimeProvider clock) =>
            await (await store.CookAsync(body.RecipeId, body.Day ?? clock.Today(), clock.Today()))
            .AnswerAsync(row => CookView.OfAsync(row, reader)))
            .WithName("cookBatch");
        api.MapPut("/recipes/{id:guid}", (
            Guid id, RecipeRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, RecipeStore store, ChangeRecipe change) =>
            RecipeEndpoints.WriteAsync(id, ifMatch, store, version => change.DoAsync(id, version, body.Written(body.Name, body.Steps))))
            .WithTags("Recipes").WithName("saveRecipe");
        cook.MapPost("/planned", PlanAsync).WithName("planBatches");
        cook.MapPost("/planned/{id:guid}/cooked", (
            Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, BatchStore store, BatchReader reader, TimeProvider clock) =>
            WriteAsync(id, ifMatch, store, reader, version => store.StartAsync(id, version, clock.Today()))).WithName("cookPlanned");
        cook.MapPut("/batches/{id:guid}/lines/{position:int}", WentInAsync).WithName("wentIn");
        cook.MapPut("/batches/{id:guid}/lines/{position:int}/weight", (
            Guid id, int position, WeighedInRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, BatchStore store,
            BatchReader reader, GoesIn goesIn) => WriteAsync(
                id, ifMatch, store, reader, version => goesIn.WeighedInAsync(id, version, position, new(body.Grams))))
            .WithName("weighedIn");
        cook.MapPost("/batches/{id:guid}/restore", (
            Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, BatchStore store, BatchReader reader, TimeProvider clock) =>
            WriteAsync(id, ifMatch, store, reader, version => store.RestoreAsync(id, version, clock.Today()))).WithName("restoreBatch");
    }

    /// <summary>A write on a batch at the version the request carries; a stale one gets the batch as it is now.</summary>
    public static async Task<Results<Ok<CookView>, ProblemHttpResult>> WriteAsync(
        Guid id, string? ifMatch, BatchStore store, BatchReader reader, Func<int, Task<Outcome<BatchRow>>> write)
    {
        ArgumentNullException.ThrowIfNull(store);
        ArgumentNullException.ThrowIfNull(write);
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        async Task<object?> NowAsync() => await store.FindAsync(id) is { } now ? await CookView.OfAsync(now, reader) : null;
        return await (await write(version)).AnswerWriteAsync(row => CookView.OfAsync(row, reader), NowAsync);
    }

    private static async Task<Results<Ok<List<CookView>>, ProblemHttpResult>> PlanAsync(
        PlanBatchesRequest body, BatchStore store, BatchReader reader, TimeProvider clock)
    {
        var planned = await store.PlanAsync(body.Day, clock.Today(), [.. body.Dishes.Select(dish => (dish.RecipeId, dish.Portions))]);
        return await planned.AnswerAsync(async rows =>
        {
            var views = new List<CookView>();
            foreach (var row in rows) views.Add(await CookView.OfAsync(row, reader));
            return views;
        });
    }

    private static async Task<Results<Ok<CookView>, ProblemHttpResult>> WentInAsync(
        Guid id, int position, WentInRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, BatchStore store, BatchReader reader,
        GoesIn goesIn, FoodStore foods)
    {
        Contents? read = null;
        if (body.Text is { } text)
        {
            read = Contents.Nothing;
            if (!string.IsNullOrWhiteSpace(text))
            {
                if (WrittenRecipe.ProblemOfLine(text) is { } tooLong) return Answers.Problem([tooLong]);
                var known = await foods.AllAsync();
                var line = FoodLine.Read(text, known, body.FoodId is null ? null : known.Find(body.FoodId));
                if (line.Ingredients.Count == 0) return LineView.NotUnderstood(line);
                read = new(line.Ingredients);
            }
        }

        return await WriteAsync(id, ifMatch, store, reader, version => goesIn.WentInAsync(id, version, position, body.Text?.Trim(), read));
    }
}
