using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Foods;
using LivelyTern.Devices;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Foods;

/// <summary>What one measure of a food weighs.</summary>
public sealed record MeasureRequest(string Measure, decimal Grams);

/// <summary>Which food is meant by some words from now on.</summary>
public sealed record ChoiceRequest(string Text, string FoodId);

/// <summary>Foods: what a line may mean, what things contain, and what was weighed once.</summary>
public static class FoodEndpoints
{
    /// <summary>Maps <c>/api/foods</c> and <c>/api/calc/label</c>.</summary>
    public static void MapFoods(this IEndpointRouteBuilder api)
    {
        var foods = api.MapGroup("/foods").WithTags("Foods");
        foods.MapGet("/{id}", async Task<Results<Ok<FoodView>, ProblemHttpResult>> (string id, FoodStore store) =>
            await ShowAsync(id, store) is { } food ? TypedResults.Ok(food) : Answers.Problem([Stale.Gone("food")]))
            .WithName("getFood");
        foods.MapPost("/", async (OwnFoodRequest body, FoodStore store) =>
            await (await store.AddOwnAsync(body.Own)).AnswerAsync(row => MustShowAsync(row, store)))
            .WithName("addFood");
        foods.MapPut("/{id}", (string id, OwnFoodRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, FoodStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ChangeOwnAsync(id, version, body.Own))).WithName("changeFood");
        foods.MapDelete("/{id}", (string id, [FromHeader(Name = "If-Match")] string? ifMatch, FoodStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ArchiveOwnAsync(id, version, archived: true))).WithName("archiveFood");
        foods.MapPost("/{id}/restore", (string id, [FromHeader(Name = "If-Match")] string? ifMatch, FoodStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ArchiveOwnAsync(id, version, archived: false))).WithName("restoreFood");
        foods.MapPut("/{id}/measures", async (string id, MeasureRequest body, FoodStore store) =>
            (await store.RememberMeasureAsync(id, body.Measure, new Grams(body.Grams))).Answer(FoodName.Of)).WithName("rememberMeasure");
        foods.MapPost("/choices", async (ChoiceRequest body, FoodStore store) =>
            (await store.ChooseAsync(body.Text, body.FoodId)).Answer(FoodName.Of))
            .WithName("chooseFood");
        foods.MapGet("/barcodes/{gtin}", BarcodeAsync).WithName("lookUpBarcode");
        foods.MapGet("/barcodes", () => SimulatedLookUp.Shelf.Select(BarcodeAnswer.Of).ToList()).WithName("listShelfProducts");
        api.MapPost("/calc/label", (Label body) => body.Per100g().Answer(per100g => Show(body, per100g)))
            .WithTags("Calculate").WithName("calcLabel");
    }

    private static LabelAnswer Show(Label label, Nutrients per100g)
    {
        var byFactors = EnergyFactors.Kilocalories(per100g, label.Convention == CarbohydrateConvention.Total);
        return new(per100g, byFactors, label.Doubts(per100g), label.Printed(per100g));
    }

    private static async Task<FoodView?> ShowAsync(string id, FoodStore store)
    {
        var kitchen = await store.CatalogueAsync();
        if (await store.FindAsync(id) is { } known) return FoodView.Of(known.Food, known.Row, kitchen);
        return (await store.AllAsync()).Find(id) is { } food ? FoodView.Of(food, null, kitchen) : null;
    }

    private static async Task<FoodView> MustShowAsync(FoodRow row, FoodStore store) =>
        FoodView.Of(row.Food, row, await store.CatalogueAsync());

    private static async Task<Results<Ok<FoodView>, ProblemHttpResult>> WriteAsync(
        string id, string? ifMatch, FoodStore store, Func<int, Task<Outcome<FoodRow>>> write)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        return await (await write(version)).AnswerWriteAsync(row => MustShowAsync(row, store), async () => await ShowAsync(id, store));
    }

    private static async Task<Results<Ok<BarcodeAnswer>, ProblemHttpResult>> BarcodeAsync(
        string gtin, FoodStore store, LibraryStore libraries, IProductLookUp device, CancellationToken stop)
    {
        var read = Gtin.Read(gtin);
        if (!read.Succeeded) return Answers.Problem(read.Problems);
        var food = (await store.CatalogueAsync()).All
            .FirstOrDefault(own => string.Equals(own.Gtin, read.Value, StringComparison.Ordinal)) ?? libraries.FindByGtin(read.Value!);
        if (food is not null) return TypedResults.Ok(new BarcodeAnswer(read.Value!, FoodName.Of(food), null));
        var product = await device.FindAsync(read.Value!, stop);
        return TypedResults.Ok(new BarcodeAnswer(read.Value!, null, product is null ? null : BarcodeAnswer.Of(product)));
    }
}
