using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Aim;
using LivelyTern.Web.Cook;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Plan;

/// <summary>Another day or amount for a batch still to be cooked.</summary>
public sealed record ReplanRequest(DateOnly Day, int Portions);

/// <summary>What the scale said.</summary>
/// <param name="FullGrams">The full pan.</param>
/// <param name="PanGrams">The empty pan; 0 where the food itself was weighed.</param>
public sealed record WeighRequest(decimal FullGrams, decimal PanGrams = 0);

/// <summary>What the scale said, and how to divide.</summary>
/// <param name="FullGrams">The full pan; not asked of a dish that is put together from weighed parts.</param>
/// <param name="Boxes">How many boxes.</param>
/// <param name="PanGrams">The empty pan; 0 where the food itself was weighed.</param>
/// <param name="Pieces">Pieces made, to divide by pieces; null to divide by weight.</param>
public sealed record PackRequest(decimal FullGrams, int Boxes, decimal PanGrams = 0, int? Pieces = null);

/// <summary>What packing as asked would give; nothing stored.</summary>
/// <param name="CookedGrams">The food in the pan.</param>
/// <param name="KcalPerGram">Energy of one gram of it.</param>
/// <param name="Yield">Cooked weight by raw weight.</param>
/// <param name="Portions">Grams of each box.</param>
/// <param name="Pieces">Pieces in each box, where counted.</param>
/// <param name="OverPieces">Pieces that do not go round.</param>
/// <param name="OverGrams">Grams that go into no box, where it is divided as planned.</param>
/// <param name="Sum">Grams of all boxes together.</param>
/// <param name="Fullest">Grams of the fullest box.</param>
/// <param name="Figures">What that holds.</param>
/// <param name="Volumes">What each box fills, where the recipe says what it fills; null where it does not.</param>
/// <param name="Parts">Of a put-together dish, grams of each part in the fullest box, by its batch.</param>
public sealed record PackPreview(
    decimal CookedGrams, Figure KcalPerGram, decimal Yield, IReadOnlyList<decimal> Portions, IReadOnlyList<decimal>? Pieces,
    decimal OverPieces, decimal OverGrams, decimal Sum, decimal Fullest, IReadOnlyDictionary<Measure, Figure> Figures,
    IReadOnlyList<string?>? Volumes, IReadOnlyDictionary<Guid, decimal> Parts);

/// <summary>What is done in other rooms and touches days too: a batch packed, emptied back, replanned, put away; an eater leaves.</summary>
public static class PackingEndpoints
{
    private const int MostListed = 60;

    /// <summary>Maps <c>/api/pack</c>, and what of <c>/api/cook</c> and <c>/api/aim</c> touches days.</summary>
    public static void MapPacking(this IEndpointRouteBuilder api)
    {
        var pack = api.MapGroup("/pack").WithTags("Pack");
        pack.MapGet("/batches", (PackingBench bench) => bench.ListAsync(MostListed)).WithName("listBatches");
        pack.MapGet("/batches/{id:guid}", async Task<Results<Ok<BatchView>, ProblemHttpResult>> (Guid id, PackingBench bench) =>
            await bench.FindAsync(id) is { } view ? TypedResults.Ok(view) : Answers.Problem([Stale.Gone("batch")])).WithName("getBatch");
        pack.MapPost("/batches/{id:guid}/boxes", (
            Guid id, PackRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, PackBatch packing, PackingBench bench) =>
            WriteAsync(id, ifMatch, bench, version =>
                packing.DoAsync(id, version, new(body.PanGrams), new(body.FullGrams), body.Boxes, body.Pieces)))
            .WithName("packBatch");
        pack.MapPost("/batches/{id:guid}/preview", PreviewAsync).WithName("previewBoxes");
        pack.MapDelete("/batches/{id:guid}/boxes", (
            Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, PackBatch packing, PackingBench bench) =>
            WriteAsync(id, ifMatch, bench, version => packing.EmptyBackAsync(id, version))).WithName("unpackBatch");

        var cook = api.MapGroup("/cook").WithTags("Cook");
        cook.MapPut("/planned/{id:guid}", (
            Guid id, ReplanRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, ReplanBatch replan, BatchStore store,
            BatchReader reader, PlanReader plan) =>
            CookEndpoints.WriteAsync(id, ifMatch, store, reader, version =>
                replan.DoAsync(id, version, body.Day, plan.Today, body.Portions)))
            .WithName("replanBatch");
        cook.MapPut("/batches/{id:guid}/weight", (
            Guid id, WeighRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, WeighBatch weighing, BatchStore store,
            BatchReader reader) =>
            CookEndpoints.WriteAsync(id, ifMatch, store, reader, version =>
                weighing.DoAsync(id, version, new(body.PanGrams), new(body.FullGrams))))
            .WithName("weighBatch");
        cook.MapDelete("/batches/{id:guid}", (
            Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, ReplanBatch replan, BatchStore store, BatchReader reader) =>
            CookEndpoints.WriteAsync(id, ifMatch, store, reader, version => replan.DiscardAsync(id, version))).WithName("discardBatch");
        api.MapDelete("/aim/eaters/{id:guid}", (
            Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, EaterStore eaters, ArchiveEater archive) =>
            AimEndpoints.ArchiveAsync(id, ifMatch, eaters, version => archive.DoAsync(id, version))).WithTags("Aim")
            .WithName("archiveEater");
    }

    private static async Task<Results<Ok<BatchView>, ProblemHttpResult>> WriteAsync(
        Guid id, string? ifMatch, PackingBench bench, Func<int, Task<Outcome<BatchRow>>> write)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        return missing is not null
            ? missing
            : await (await write(version)).AnswerWriteAsync(bench.ShowAsync, async () => await bench.FindAsync(id));
    }

    private static async Task<Results<Ok<PackPreview>, ProblemHttpResult>> PreviewAsync(
        Guid id, PackRequest body, BatchStore store, BatchReader reader, PortionsOnDays portions, Guid? eaterId, EaterStore eaters)
    {
        if (await store.FindAsync(id) is not { } row) return Answers.Problem([Stale.Gone("batch")]);
        var known = await reader.ReadAsync(row);
        var cooked = row.IsPutTogether && known.Weight is { } together
            ? together
            : CookedWeight.Of(new(body.FullGrams), new(body.PanGrams));
        if (!cooked.Succeeded) return Answers.Problem(cooked.Problems);
        var planned = PortionsOnDays.Weights(await portions.OfAsync(id));
        var inDishes = await reader.TakenByDishesAsync(id, cooked.Value);
        var divided = body.Boxes == 0 && inDishes > Grams.Zero
            ? new DividedBatch([], 0, cooked.Value - inDishes)
            : DividedBatch.Of(cooked.Value, body.Boxes, body.Pieces, known, planned, inDishes);
        if (!divided.Succeeded) return Answers.Problem(divided.Problems);
        var rule = eaterId is { } eater ? (await eaters.FindAsync(eater))?.Aim.Rule : null;
        var batch = known with { Cooked = cooked.Value };
        var boxes = divided.Value!.Portions;
        var (raw, fullest) = (batch.Contents.RawWeight, new Grams(boxes.Select(box => box.Weight.Value).DefaultIfEmpty().Max()));
        return TypedResults.Ok(new PackPreview(
            cooked.Value.Value,
            Figure.Of(batch.Holding(new(1)).Totals[Nutrient.Energy]),
            raw.Value <= 0 ? 0 : cooked.Value / raw,
            [.. boxes.Select(box => box.Weight.Value)],
            body.Pieces is null ? null : [.. boxes.Select(box => box.Pieces!.Value)],
            divided.Value.OverPieces,
            divided.Value.Over.Value,
            boxes.Sum(box => box.Weight.Value),
            fullest.Value,
            Figure.Of(MeasureTotals.Of(batch.Holding(fullest), rule)),
            batch.VolumeMl is null ? null : [.. boxes.Select(box => batch.SaidVolumeOf(box.Weight))],
            batch.Parts.ToDictionary(part => part.Of.Id, part => (part.Weight * (fullest / cooked.Value)).Value)));
    }
}
