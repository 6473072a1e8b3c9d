using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Cook.Run;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Cook.Run;

/// <summary>A prep day as it happens: begun, told task by task from any phone, ended.</summary>
public static class RunEndpoints
{
    /// <summary>Maps <c>/api/cook/days/{day}/run</c>.</summary>
    public static void MapRuns(this IEndpointRouteBuilder api)
    {
        var run = api.MapGroup("/cook/days/{day}/run").WithTags("Cook");
        run.MapGet("", async Task<Results<Ok<RunView>, ProblemHttpResult>> (
            DateOnly day, TernDb db, RunReader reader, TimeProvider clock) =>
        {
            await using var once = await db.ReadOnceAsync();
            return await reader.FindAsync(day) is { } row
                ? TypedResults.Ok(RunView.Of(await reader.NowAsync(row), clock.GetUtcNow()))
                : Answers.Problem([Stale.Gone("run")]);
        }).WithName("getRun");
        run.MapPost("", async (DateOnly day, BeginRunRequest body, RunStore store, RunReader reader, TernDb db, TimeProvider clock) =>
            await ShowAsync(day, await store.BeginAsync(day, body.Order), reader, db, clock)).WithName("beginRun");
        run.MapPost("/tasks", async (DateOnly day, RunWord body, RunStore store, RunReader reader, TernDb db, TimeProvider clock) =>
            await ShowAsync(day, await store.SayAsync(day, body), reader, db, clock)).WithName("tellRun");
        run.MapPost("/tasks/back", async (
            DateOnly day, TakeBackRunRequest body, RunStore store, RunReader reader, TernDb db, TimeProvider clock) =>
            await ShowAsync(day, await store.TakeBackAsync(day, body.Tasks), reader, db, clock)).WithName("takeBackRun");
        run.MapPost("/ovens", async (
            DateOnly day, TurnOvenRequest body, RunStore store, RunReader reader, TernDb db, TimeProvider clock) =>
            await ShowAsync(day, await store.TurnAsync(day, body.Oven, body.Celsius, body.IsOn), reader, db, clock))
            .WithName("turnOven");
        run.MapPost("/end", async (DateOnly day, EndRunRequest body, RunStore store, RunReader reader, TernDb db, TimeProvider clock) =>
            await ShowAsync(day, await store.EndAsync(day, body.IsOver), reader, db, clock)).WithName("endRun");
        run.MapDelete("", async Task<Results<Ok<int>, ProblemHttpResult>> (DateOnly day, RunStore store) =>
            (await store.NotBegunAsync(day)).Answer(begun => begun.Count)).WithName("unbeginRun");
        run.MapGet("/differences", DifferencesAsync).WithName("getRunDifferences");
    }

    private static async Task<Results<Ok<RunView>, ProblemHttpResult>> ShowAsync(
        DateOnly day, Outcome<IReadOnlyList<string>> said, RunReader reader, TernDb db, TimeProvider clock)
    {
        if (!said.Succeeded) return Answers.Problem(said.Problems);
        await using var once = await db.ReadOnceAsync();
        return await reader.FindAsync(day) is { } row
            ? TypedResults.Ok(RunView.Of(await reader.NowAsync(row), clock.GetUtcNow(), said.Value))
            : Answers.Problem([Stale.Gone("run")]);
    }

    private static async Task<Results<Ok<List<DishDifference>>, ProblemHttpResult>> DifferencesAsync(
        DateOnly day, TernDb db, RunReader reader, BatchStore batches, BatchReader batchReader)
    {
        await using var once = await db.ReadOnceAsync();
        if (await reader.FindAsync(day) is not { } row) return Answers.Problem([Stale.Gone("run")]);
        var run = await reader.NowAsync(row);
        var lines = new Dictionary<Guid, IReadOnlyList<BatchLineView>>();
        foreach (var batch in run.Batches.Where(batch => batch is { State: not Core.Cook.BatchState.Planned }))
            lines[batch.Id] = await BatchLineView.OfAsync((await batches.FindAsync(batch.Id))!, batchReader);
        return TypedResults.Ok(DishDifference.Of(run, lines).ToList());
    }
}
