using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Foods;
using LivelyTern.Devices;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Foods;

/// <summary>Lines to be read, each perhaps with the id of the food chosen for it; "" where its words say enough.</summary>
public sealed record ParseRequest(IReadOnlyList<string?> Lines, IReadOnlyList<string?>? Foods = null, PointsRule? Rule = null);

/// <summary>The lines, read in their order.</summary>
public sealed record ParseAnswer(IReadOnlyList<LineView> Lines);

/// <summary>What one measure of a food weighs.</summary>
public sealed record MeasureRequest(string Measure, decimal Grams);

/// <summary>Which food is meant by some words from now on.</summary>
public sealed record ChoiceRequest(string Text, string FoodId);

/// <summary>Foods: what a line may mean, what things contain, and what was weighed once.</summary>
public static class FoodEndpoints
{
    private const int MostFound = 60;

    /// <summary>Maps <c>/api/foods</c>, <c>/api/calc/parse</c> and <c>/api/calc/label</c>.</summary>
    public static void MapFoods(this IEndpointRouteBuilder api)
    {
        var foods = api.MapGroup("/foods").WithTags("Foods");
        foods.MapGet("/", FindAsync).WithName("findFoods");
        foods.MapGet("/{id}", async Task<Results<Ok<FoodView>, ProblemHttpResult>> (string id, FoodStore store) => await ShowAsync(id, store) is { } food ? TypedResults.Ok(food) : Answers.Problem([Stale.Gone("food")])).WithName("getFood");
        foods.MapPost("/", async (OwnFoodRequest body, FoodStore store) => await (await store.AddOwnAsync(body.Own)).AnswerAsync(row => MustShowAsync(row, store))).WithName("addFood");
        foods.MapPut("/{id}", (string id, OwnFoodRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, FoodStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ChangeOwnAsync(id, version, body.Own))).WithName("changeFood");
        foods.MapDelete("/{id}", (string id, [FromHeader(Name = "If-Match")] string? ifMatch, FoodStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ArchiveOwnAsync(id, version, archived: true))).WithName("archiveFood");
        foods.MapPost("/{id}/restore", (string id, [FromHeader(Name = "If-Match")] string? ifMatch, FoodStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ArchiveOwnAsync(id, version, archived: false))).WithName("restoreFood");
        foods.MapPut("/{id}/measures", async (string id, MeasureRequest body, FoodStore store) =>
            (await store.RememberMeasureAsync(id, body.Measure, new Grams(body.Grams))).Answer(FoodName.Of)).WithName("rememberMeasure");
        foods.MapPost("/choices", async (ChoiceRequest body, FoodStore store) => (await store.ChooseAsync(body.Text, body.FoodId)).Answer(FoodName.Of)).WithName("chooseFood");
        foods.MapGet("/barcodes/{gtin}", BarcodeAsync).WithName("lookUpBarcode");
        foods.MapGet("/barcodes", () => SimulatedLookUp.Shelf.Select(BarcodeAnswer.Of).ToList()).WithName("listShelfProducts");
        api.MapPost("/calc/parse", ParseAsync).WithTags("Calculate").WithName("calcParse");
        api.MapPost("/calc/label", (Label body) => body.Per100g().Answer(per100g =>
            new LabelAnswer(per100g, EnergyFactors.Kilocalories(per100g, body.Convention == CarbohydrateConvention.Total), body.Doubts(per100g), body.Printed(per100g)))).WithTags("Calculate").WithName("calcLabel");
    }

    // Without a text the kitchen's foods, own and recent first; with one the libraries' too. A group narrows either.
    private static async Task<List<FoodRowView>> FindAsync(string? q, FoodGroup? group, bool? own, int? most, Guid? eaterId, FoodStore store, EaterStore eaters)
    {
        var rule = eaterId is { } eater ? (await eaters.FindAsync(eater))?.Aim.Rule : null;
        bool Fits(Food food) => (group is null || food.Group == group) && (own is not true || food.IsOwn);
        var many = Math.Clamp(most ?? (string.IsNullOrWhiteSpace(q) ? 1000 : 12), 1, 1000);
        var kitchen = await store.CatalogueAsync();
        if (string.IsNullOrWhiteSpace(q)) return [.. kitchen.Suggest("", int.MaxValue).Where(Fits).Take(many).Select(food => FoodRowView.Of(food, rule))];
        var text = q.Length > 200 ? q[..200] : q;
        return [.. (await store.AllAsync()).Suggest(text, group is null && own is not true ? Math.Min(many, MostFound) : MostFound * 10).Where(Fits).Take(many).Select(food => FoodRowView.Of(food, rule))];
    }

    private static async Task<FoodView?> ShowAsync(string id, FoodStore store)
    {
        var kitchen = await store.CatalogueAsync();
        if (await store.FindAsync(id) is { } known) return FoodView.Of(known.Food, known.Row, kitchen);
        return (await store.AllAsync()).Find(id) is { } food ? FoodView.Of(food, null, kitchen) : null;
    }

    private static async Task<FoodView> MustShowAsync(FoodRow row, FoodStore store) => FoodView.Of(row.Food, row, await store.CatalogueAsync());

    private static async Task<Results<Ok<FoodView>, ProblemHttpResult>> WriteAsync(string id, string? ifMatch, FoodStore store, Func<int, Task<Outcome<FoodRow>>> write)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        return await (await write(version)).AnswerWriteAsync(row => MustShowAsync(row, store), async () => await ShowAsync(id, store));
    }

    private static async Task<Results<Ok<BarcodeAnswer>, ProblemHttpResult>> BarcodeAsync(string gtin, FoodStore store, LibraryStore libraries, IProductLookUp device, CancellationToken stop)
    {
        var read = Gtin.Read(gtin);
        if (!read.Succeeded) return Answers.Problem(read.Problems);
        var food = (await store.CatalogueAsync()).All.FirstOrDefault(own => string.Equals(own.Gtin, read.Value, StringComparison.Ordinal)) ?? libraries.FindByGtin(read.Value!);
        if (food is not null) return TypedResults.Ok(new BarcodeAnswer(read.Value!, FoodName.Of(food), null));
        return TypedResults.Ok(new BarcodeAnswer(read.Value!, null, await device.FindAsync(read.Value!, stop) is { } product ? BarcodeAnswer.Of(product) : null));
    }

    private static async Task<Results<Ok<ParseAnswer>, ProblemHttpResult>> ParseAsync(ParseRequest body, FoodStore store)
    {
        List<WrittenLine> lines = [.. body.Lines.Select((text, i) => new WrittenLine(text ?? "", body.Foods is { } ids && i < ids.Count && ids[i] is { Length: > 0 } id ? id : null))];
        List<Problem> problems = [.. WrittenRecipe.LineProblems(lines), .. body.Rule?.Problems() ?? []];
        if (problems.Count > 0) return Answers.Problem(problems);
        var foods = await store.AllAsync();
        return TypedResults.Ok(new ParseAnswer([.. lines.Select(line => LineView.Of(FoodLine.Read(line.Text, foods, line.FoodId is null ? null : foods.Find(line.FoodId)), body.Rule))]));
    }
}
