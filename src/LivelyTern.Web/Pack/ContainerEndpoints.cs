using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack.Containers;
using LivelyTern.Data;
using LivelyTern.Data.Pack;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Pack;

/// <summary>A compartment of a container.</summary>
/// <param name="VolumeMl">What it holds, in millilitres.</param>
/// <param name="Name">Which; null for the only one.</param>
public sealed record CompartmentView(decimal VolumeMl, string? Name = null);

/// <summary>A container of the household.</summary>
/// <param name="Kind">What it is for.</param>
/// <param name="Name">What it is called.</param>
/// <param name="EmptyGrams">What it weighs empty.</param>
/// <param name="Compartments">Its compartments, the first of which is the box itself.</param>
/// <param name="Down">Of a bag, rows of pieces.</param>
/// <param name="Across">Pieces in a row.</param>
/// <param name="Count">How many there are.</param>
public sealed record ContainerRequest(
    ContainerKind Kind, string Name, decimal? EmptyGrams = null, IReadOnlyList<CompartmentView>? Compartments = null, int? Down = null,
    int? Across = null, int? Count = null)
{
    internal Outcome<Container> Read()
    {
        if (Down is null != Across is null) return new Problem("container-rows", "rows", "Say how many pieces lie in it, down and across.");
        return new Container(Kind, Name)
        {
            Empty = EmptyGrams is { } empty ? new Grams(empty).ToMilligram() : null,
            Compartments = [.. (Compartments ?? []).Select(one =>
                new Compartment(string.IsNullOrWhiteSpace(one.Name) ? null : one.Name.Trim(), one.VolumeMl))],
            Rows = (Down, Across) is ({ } down, { } across) ? (down, across) : null,
            Count = Count,
        };
    }
}

/// <summary>The same as it is kept.</summary>
/// <param name="Id">Which.</param>
/// <param name="Kind">What it is for.</param>
/// <param name="Name">What it is called.</param>
/// <param name="EmptyGrams">What it weighs empty; null where nobody weighed it.</param>
/// <param name="Compartments">Its compartments.</param>
/// <param name="Down">Of a bag, rows of pieces.</param>
/// <param name="Across">Pieces in a row.</param>
/// <param name="Count">How many there are; null where nobody counted.</param>
/// <param name="InUse">How many of them are on the shelves, with something in it.</param>
/// <param name="Version">For the next write.</param>
public sealed record ContainerView(
    Guid Id, ContainerKind Kind, string Name, decimal? EmptyGrams, IReadOnlyList<CompartmentView> Compartments, int? Down, int? Across,
    int? Count, int InUse, int Version)
{
    internal static ContainerView Of(ContainerRow row, int inUse)
    {
        var one = row.Read();
        return new(
            row.Id, one.Kind, one.Name, one.Empty?.Value,
            [.. one.Compartments.Select(part => new CompartmentView(part.VolumeMl, part.Name))],
            one.Rows?.Down, one.Rows?.Across, one.Count, inUse, row.Version);
    }
}

/// <summary>The household's pans, boxes, cups and bags.</summary>
public static class ContainerEndpoints
{
    /// <summary>Maps <c>/api/pack/containers</c>.</summary>
    public static void MapContainers(this IEndpointRouteBuilder api)
    {
        var containers = api.MapGroup("/pack/containers").WithTags("Pack");
        containers.MapGet("", async (TernDb db, ContainerStore store) =>
        {
            await using var once = await db.ReadOnceAsync();
            var used = await store.InUseAsync();
            return (await store.ListAsync()).Select(row => ContainerView.Of(row, used.GetValueOrDefault(row.Id))).ToList();
        }).WithName("listContainers");
        containers.MapPost("", async Task<Results<Ok<ContainerView>, ProblemHttpResult>> (ContainerRequest body, ContainerStore store) =>
        {
            var read = body.Read();
            if (!read.Succeeded) return Answers.Problem(read.Problems);
            return (await store.AddAsync(read.Value!)).Answer(row => ContainerView.Of(row, 0));
        }).WithName("addContainer");
        containers.MapPut("/{id:guid}", (
            Guid id, ContainerRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, ContainerStore store) =>
            WriteAsync(id, ifMatch, store, async version =>
            {
                var read = body.Read();
                return read.Succeeded ? await store.SetAsync(id, version, read.Value!) : read.Problems.ToList();
            })).WithName("setContainer");
        containers.MapDelete("/{id:guid}", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, ContainerStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ArchiveAsync(id, version, isAway: true))).WithName("putContainerAway");
        containers.MapPost("/{id:guid}/restore", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, ContainerStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ArchiveAsync(id, version, isAway: false))).WithName("restoreContainer");
    }

    private static async Task<Results<Ok<ContainerView>, ProblemHttpResult>> WriteAsync(
        Guid id, string? ifMatch, ContainerStore store, Func<int, Task<Outcome<ContainerRow>>> write)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        async Task<ContainerView> ShowAsync(ContainerRow row) =>
            ContainerView.Of(row, (await store.InUseAsync()).GetValueOrDefault(row.Id));
        return await (await write(version)).AnswerWriteAsync(
            ShowAsync, async () => await store.FindAsync(id) is { } now ? await ShowAsync(now) : null);
    }
}
