using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Data;
using LivelyTern.Data.Cook;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Cook;

/// <summary>Work of a dish that can be done on a day before its own.</summary>
/// <param name="Verb">What is done; "step" for all of a step.</param>
/// <param name="What">The food, or the sentence of the step.</param>
/// <param name="Grams">How much of the food; 0 where none is named.</param>
public sealed record AheadWorkView(string Verb, string What, decimal Grams)
{
    /// <summary>Work as shown.</summary>
    public static AheadWorkView Of(AheadWork work)
    {
        ArgumentNullException.ThrowIfNull(work);
        return new(work.Verb, work.What, work.Weight.Value);
    }
}

/// <summary>A dish of a later day, with what can be done for it on this one.</summary>
/// <param name="Batch">The dish.</param>
/// <param name="Day">Its day.</param>
/// <param name="Work">What can be done.</param>
public sealed record AheadDishView(PrepBatch Batch, DateOnly Day, IReadOnlyList<AheadWorkView> Work);

/// <summary>Something that was done ahead and waits for its dish.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Batch">The dish.</param>
/// <param name="Day">The dish's day.</param>
/// <param name="Work">What was done.</param>
/// <param name="DoneOn">When.</param>
/// <param name="Place">Where it stands.</param>
public sealed record DoneAheadView(Guid Id, PrepBatch Batch, DateOnly Day, AheadWorkView Work, DateOnly DoneOn, AheadPlace Place);

/// <summary>All that can be done ahead for a dish was done on a day.</summary>
public sealed record DoAheadRequest(Guid BatchId, DateOnly Day);

/// <summary>It was not done, or is not there any more.</summary>
public sealed record UndoAheadRequest(IReadOnlyList<Guid> Ids);

/// <summary>It stands somewhere else.</summary>
public sealed record PutAheadRequest(AheadPlace Place);

/// <summary>What is done for dishes on a day before their own.</summary>
public static class AheadEndpoints
{
    /// <summary>Maps <c>/api/cook/ahead</c>.</summary>
    public static void MapAhead(this IEndpointRouteBuilder api)
    {
        var ahead = api.MapGroup("/cook/ahead").WithTags("Cook");
        ahead.MapGet("/", async (TernDb db, AheadStore store) =>
        {
            await using var once = await db.ReadOnceAsync();
            return (await store.WaitingAsync()).Select(Show).ToList();
        }).WithName("listAhead");
        ahead.MapPost("/", async Task<Results<Ok<UndoAheadRequest>, ProblemHttpResult>> (
            DoAheadRequest body, AheadStore store, TimeProvider clock) =>
            (await store.DoneAsync(body.BatchId, body.Day, clock.Today())).Answer(ids => new UndoAheadRequest(ids))).WithName("doAhead");
        ahead.MapPost("/undo", async Task<Results<Ok<int>, ProblemHttpResult>> (UndoAheadRequest body, AheadStore store) =>
            (await store.TakeBackAsync(body.Ids)).Answer(count => count)).WithName("undoAhead");
        ahead.MapPut("/{id:guid}", async Task<Results<Ok<int>, ProblemHttpResult>> (Guid id, PutAheadRequest body, AheadStore store) =>
            (await store.PutAsync(id, body.Place)).Answer(count => count)).WithName("putAhead");
    }

    private static DoneAheadView Show(AheadRow row) => new(
        row.Id, PrepBatch.Of(row.Batch), row.Batch.CookedOn,
        new(row.Verb, row.What, Milligrams.ToGrams(row.Milligrams).Value), row.DoneOn, row.Place);
}
