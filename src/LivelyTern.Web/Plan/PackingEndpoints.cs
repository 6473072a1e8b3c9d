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
            WriteAsync(id, ifMatch, bench, async version =>
            {
                var order = body.Order();
                return order.Succeeded ? await packing.DoAsync(id, version, order.Value!) : order.Problems.ToList();
            }))
            .WithName("packBatch");
        pack.MapPost("/batches/{id:guid}/preview", async (Guid id, PackRequest body, Guid? eaterId, PackPreviews previews) =>
            (await previews.OfAsync(id, body, eaterId)).Answer(preview => preview)).WithName("previewBoxes");
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
}
