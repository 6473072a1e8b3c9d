using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Web.Http;
using LivelyTern.Web.Plan;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Pack;

/// <summary>A recipe to be cooked now.</summary>
public sealed record CookRequest(Guid RecipeId, DateOnly? Day = null);

/// <summary>Recipes to be cooked on a day: all of them or none.</summary>
/// <param name="Day">The prep day.</param>
/// <param name="Dishes">The recipes.</param>
public sealed record PlanBatchesRequest(DateOnly Day, IReadOnlyList<PlannedDish> Dishes);

/// <summary>A recipe, for so many of its portions.</summary>
public sealed record PlannedDish(Guid RecipeId, int Portions);

/// <summary>Another day or amount for a batch still to be cooked.</summary>
public sealed record ReplanRequest(DateOnly Day, int Portions);

/// <summary>What the scale said, and how to divide.</summary>
/// <param name="FullGrams">The full pan.</param>
/// <param name="Boxes">How many boxes.</param>
/// <param name="PanGrams">The empty pan; 0 where the food itself was weighed.</param>
/// <param name="Pieces">Pieces made, to divide by pieces; null to divide by weight.</param>
public sealed record PackRequest(decimal FullGrams, int Boxes, decimal PanGrams = 0, int? Pieces = null);

/// <summary>A weight, or pieces, to be divided; nothing stored.</summary>
public sealed record CalcPortionsRequest(int Portions, decimal? Grams = null, int? Pieces = null);

/// <summary>Divided.</summary>
/// <param name="Portions">Whole grams, or pieces, for each portion; the largest first.</param>
/// <param name="Over">What is left over: part of a gram, or pieces that do not go round.</param>
/// <param name="Unit">"g" or "pieces".</param>
public sealed record CalcPortionsAnswer(IReadOnlyList<decimal> Portions, decimal Over, string Unit);

/// <summary>What packing as asked would give; nothing stored.</summary>
/// <param name="CookedGrams">The food in the pan.</param>
/// <param name="KcalPerGram">Energy of one gram of it.</param>
/// <param name="Yield">Cooked weight by raw weight.</param>
/// <param name="Portions">Grams of each box.</param>
/// <param name="Pieces">Pieces in each box, where counted.</param>
/// <param name="OverPieces">Pieces that do not go round.</param>
/// <param name="OverGrams">Grams that go into no box, where it is divided as planned.</param>
/// <param name="Sum">Grams of all boxes together.</param>
/// <param name="Figures">The first box.</param>
public sealed record PackPreview(
    decimal CookedGrams, Figure KcalPerGram, decimal Yield, IReadOnlyList<decimal> Portions, IReadOnlyList<int>? Pieces, int OverPieces, decimal OverGrams, decimal Sum,
    IReadOnlyDictionary<Measure, Figure> Figures);

/// <summary>Pack: a batch weighed and divided into boxes.</summary>
public static class PackEndpoints
{
    /// <summary>Maps <c>/api/pack</c> and <c>/api/calc/portions</c>.</summary>
    public static void MapPack(this IEndpointRouteBuilder api)
    {
        var pack = api.MapGroup("/pack").WithTags("Pack");
        pack.MapGet("/batches", async (BatchStore store) => (await store.ListAsync(60)).Select(row => BatchReader.Show(row, null, [], null)).ToList()).WithName("listBatches");
        pack.MapGet("/batches/{id:guid}", async Task<Results<Ok<BatchView>, ProblemHttpResult>> (Guid id, BatchStore store, BatchReader reader) =>
            await store.FindAsync(id) is { } row ? TypedResults.Ok(await reader.ShowAsync(row)) : Answers.Problem([Stale.Gone("batch")])).WithName("getBatch");
        pack.MapPost("/batches", async (CookRequest body, BatchStore store, BatchReader reader, PlanReader plan) =>
            await (await store.CookAsync(body.RecipeId, body.Day ?? plan.Today, plan.Today)).AnswerAsync(reader.ShowAsync)).WithName("cookBatch");
        pack.MapPost("/planned", async (PlanBatchesRequest body, PlannedBatchStore store, PlanReader plan) =>
            (await store.PlanAsync(body.Day, plan.Today, [.. body.Dishes.Select(dish => (dish.RecipeId, dish.Portions))])).Answer(rows => rows.Select(row => BatchReader.Show(row, null, [], null)).ToList())).WithName("planBatches");
        pack.MapPut("/planned/{id:guid}", (Guid id, ReplanRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, BatchReader reader, PlannedBatchStore planned, PlanReader plan) =>
            reader.WriteAsync(id, ifMatch, version => planned.ReplanAsync(id, version, body.Day, plan.Today, body.Portions))).WithName("replanBatch");
        pack.MapPost("/planned/{id:guid}/cooked", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, BatchReader reader, PlannedBatchStore planned, PlanReader plan) =>
            reader.WriteAsync(id, ifMatch, version => planned.CookAsync(id, version, plan.Today))).WithName("cookPlanned");
        pack.MapPost("/batches/{id:guid}/boxes", (Guid id, PackRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, BatchStore store, BatchReader reader) =>
            reader.WriteAsync(id, ifMatch, version => store.PackAsync(id, version, new(body.PanGrams), new(body.FullGrams), body.Boxes, body.Pieces))).WithName("packBatch");
        pack.MapPost("/batches/{id:guid}/preview", PreviewAsync).WithName("previewBoxes");
        pack.MapDelete("/batches/{id:guid}/boxes", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, BatchStore store, BatchReader reader) =>
            reader.WriteAsync(id, ifMatch, version => store.UnpackAsync(id, version))).WithName("unpackBatch");
        pack.MapDelete("/batches/{id:guid}", async Task<Results<Ok<PlanBatchesRequest>, ProblemHttpResult>> (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, BatchStore store, PlanReader plan) =>
        {
            var (version, missing) = Answers.VersionOf(ifMatch);
            return missing is not null ? missing : (await store.DiscardAsync(id, version)).Answer(was => new PlanBatchesRequest(was.CookedOn < plan.Today ? plan.Today : was.CookedOn, [new(was.RecipeId, was.Portions)]));
        }).WithName("discardBatch");
        api.MapPost("/calc/portions", Calc).WithTags("Calculate").WithName("calcPortions");
    }

    private static Results<Ok<CalcPortionsAnswer>, ProblemHttpResult> Calc(CalcPortionsRequest body) => (body.Grams, body.Pieces) switch
    {
        ({ } grams, null) => Divide.IntoEqual(new Grams(grams), body.Portions).Answer(equal =>
            new CalcPortionsAnswer([.. equal.Portions.Select(portion => portion.Value)], equal.Over.Value, "g")),
        (null, { } pieces) => Divide.ByPieces(pieces, body.Portions).Answer(counted =>
            new CalcPortionsAnswer([.. counted.Portions.Select(count => (decimal)count)], counted.Over, "pieces")),
        _ => Answers.Problem([new("weight-or-pieces", "grams", "Give either the grams or the pieces to divide.")]),
    };

    private static async Task<Results<Ok<PackPreview>, ProblemHttpResult>> PreviewAsync(Guid id, PackRequest body, BatchStore store, UnpackedBatches unpacked, Guid? eaterId, EaterStore eaters)
    {
        if (await store.FindAsync(id) is not { } row) return Answers.Problem([Stale.Gone("batch")]);
        var cooked = CookedWeight.Of(new(body.FullGrams), new(body.PanGrams));
        var planned = BatchStore.Weights(await store.PortionsAsync(id));
        var known = await unpacked.ReadAsync(row);
        var boxes = BatchStore.Divided(cooked, body.Boxes, body.Pieces, known.Weight ?? Grams.Zero, planned);
        if (!boxes.Succeeded) return Answers.Problem(boxes.Problems);
        var rule = eaterId is { } eater ? (await eaters.FindAsync(eater))?.Aim.Rule : null;
        var batch = known with { Cooked = cooked.Value };
        var (weights, over) = (boxes.Value!.Portions, boxes.Value.OverPieces);
        return TypedResults.Ok(new PackPreview(
            cooked.Value.Value,
            Figure.Of(batch.Holding(new(1)).Totals[Nutrient.Energy]),
            row.Contents.RawWeight.Value <= 0 ? 0 : cooked.Value / row.Contents.RawWeight,
            [.. weights.Select(box => box.Weight.Value)],
            body.Pieces is null ? null : [.. weights.Select(box => box.Pieces!.Value)],
            over,
            boxes.Value.Over.Value,
            weights.Sum(box => box.Weight.Value),
            Figure.Of(MeasureTotals.Of(batch.Holding(weights[0].Weight), rule))));
    }
}
