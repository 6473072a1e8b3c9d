using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Data;
using LivelyTern.Data.Cook;
using LivelyTern.Web.Http;
using LivelyTern.Web.Plan;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Pack;

/// <summary>A box of a batch.</summary>
public sealed record BoxView(Guid Id, int Number, decimal Grams, int? Pieces);

/// <summary>A batch as shown.</summary>
/// <param name="Id">The batch.</param>
/// <param name="RecipeId">Its recipe.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint.</param>
/// <param name="CookedOn">The day it was cooked.</param>
/// <param name="Portions">How many portions the recipe makes.</param>
/// <param name="RawGrams">What went in.</param>
/// <param name="PanGrams">The empty pan, where weighed.</param>
/// <param name="FullGrams">The full pan, where weighed.</param>
/// <param name="RememberedPanGrams">The empty pan of the last batch of this recipe.</param>
/// <param name="Boxes">Its boxes; none before it is packed.</param>
/// <param name="Figures">The whole batch.</param>
/// <param name="Version">For the next write.</param>
public sealed record BatchView(
    Guid Id, Guid RecipeId, string Name, string Letters, int Tint, DateOnly CookedOn, int Portions, decimal RawGrams, decimal? PanGrams, decimal? FullGrams,
    decimal? RememberedPanGrams, IReadOnlyList<BoxView> Boxes, IReadOnlyDictionary<Measure, Figure> Figures, int Version);

/// <summary>A recipe to be cooked.</summary>
public sealed record CookRequest(Guid RecipeId, DateOnly? Day = null);

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
/// <param name="Figures">The first box.</param>
public sealed record PackPreview(
    decimal CookedGrams, Figure KcalPerGram, decimal Yield, IReadOnlyList<decimal> Portions, IReadOnlyList<int>? Pieces, int OverPieces, IReadOnlyDictionary<Measure, Figure> Figures);

/// <summary>Pack: a batch weighed and divided into boxes.</summary>
public static class PackEndpoints
{
    /// <summary>Maps <c>/api/pack</c> and <c>/api/calc/portions</c>.</summary>
    public static void MapPack(this IEndpointRouteBuilder api)
    {
        var pack = api.MapGroup("/pack").WithTags("Pack");
        pack.MapGet("/batches", async (BatchStore store) => (await store.ListAsync(60)).Select(row => Show(row, null)).ToList()).WithName("listBatches");
        pack.MapGet("/batches/{id:guid}", async Task<Results<Ok<BatchView>, ProblemHttpResult>> (Guid id, BatchStore store) =>
            await store.FindAsync(id) is { } row ? TypedResults.Ok(Show(row, await store.PanOfAsync(row.RecipeId))) : Answers.Problem([Stale.Gone("batch")])).WithName("getBatch");
        pack.MapPost("/batches", async (CookRequest body, BatchStore store, PlanReader reader) =>
            await (await store.CookAsync(body.RecipeId, body.Day ?? reader.Today)).AnswerAsync(async row => Show(row, await store.PanOfAsync(row.RecipeId)))).WithName("cookBatch");
        pack.MapPost("/batches/{id:guid}/boxes", (Guid id, PackRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, BatchStore store) =>
            WriteAsync(id, ifMatch, store, version => store.PackAsync(id, version, new(body.PanGrams), new(body.FullGrams), body.Boxes, body.Pieces))).WithName("packBatch");
        pack.MapPost("/batches/{id:guid}/preview", PreviewAsync).WithName("previewBoxes");
        pack.MapDelete("/batches/{id:guid}/boxes", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, BatchStore store) =>
            WriteAsync(id, ifMatch, store, version => store.UnpackAsync(id, version))).WithName("unpackBatch");
        pack.MapDelete("/batches/{id:guid}", async Task<Results<Ok<bool>, ProblemHttpResult>> (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, BatchStore store) =>
        {
            var (version, missing) = Answers.VersionOf(ifMatch);
            return missing is not null ? missing : (await store.DiscardAsync(id, version)).Answer(done => done);
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

    private static async Task<Results<Ok<PackPreview>, ProblemHttpResult>> PreviewAsync(Guid id, PackRequest body, BatchStore store, Guid? eaterId, Data.Aim.EaterStore eaters)
    {
        if (await store.FindAsync(id) is not { } row) return Answers.Problem([Stale.Gone("batch")]);
        var cooked = CookedWeight.Of(new(body.FullGrams), new(body.PanGrams));
        var boxes = BatchStore.Divided(cooked, body.Boxes, body.Pieces);
        if (!boxes.Succeeded) return Answers.Problem(boxes.Problems);
        var rule = eaterId is { } eater ? (await eaters.FindAsync(eater))?.Aim.Rule : null;
        var batch = BatchStore.Read(row) with { Cooked = cooked.Value };
        var (weights, over) = (boxes.Value!.Portions, boxes.Value.OverPieces);
        return TypedResults.Ok(new PackPreview(
            cooked.Value.Value,
            Figure.Of(batch.Holding(new(1)).Totals[Nutrient.Energy]),
            row.Contents.RawWeight.Value == 0 ? 0 : cooked.Value / row.Contents.RawWeight,
            [.. weights.Select(box => box.Weight.Value)],
            body.Pieces is null ? null : [.. weights.Select(box => box.Pieces!.Value)],
            over,
            Figure.Of(MeasureTotals.Of(batch.Holding(weights[0].Weight), rule))));
    }

    private static async Task<Results<Ok<BatchView>, ProblemHttpResult>> WriteAsync(Guid id, string? ifMatch, BatchStore store, Func<int, Task<Outcome<BatchRow>>> write)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        return await (await write(version)).AnswerWriteAsync(
            row => Task.FromResult(Show(row, null)), async () => await store.FindAsync(id) is { } current ? Show(current, null) : null);
    }

    private static BatchView Show(BatchRow row, decimal? rememberedPan) => new(
        row.Id, row.RecipeId, row.RecipeName, row.Letters, row.Tint, row.CookedOn, row.Portions, row.Contents.RawWeight.Value, row.PanGrams, row.FullGrams, rememberedPan,
        [.. row.Boxes.OrderBy(box => box.Number).Select(box => new BoxView(box.Id, box.Number, box.Grams, box.Pieces))],
        Figure.Of(MeasureTotals.Of(row.Contents, null)), row.Version);
}
