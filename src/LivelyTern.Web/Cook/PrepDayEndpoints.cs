using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Cook.Run;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Cook;

/// <summary>Prep days: what is cooked, in which kitchen, and when which task is done.</summary>
public static class PrepDayEndpoints
{
    private const double LongestSeconds = 20;
    private const int MostDishes = 40;
    private static readonly ScheduleEffort OrdersAlone = new(LongestSeconds, 0);

    /// <summary>Maps <c>/api/cook/kitchen</c> and <c>/api/cook/days</c>.</summary>
    public static void MapPrepDays(this IEndpointRouteBuilder api)
    {
        var cook = api.MapGroup("/cook").WithTags("Cook");
        cook.MapGet("/kitchen", async (PrepDayStore store) => await ShowAsync(store)).WithName("getKitchen");
        cook.MapPut("/kitchen", SetKitchenAsync).WithName("setKitchen");
        cook.MapGet("/days", ListAsync).WithName("listPrepDays");
        cook.MapGet("/days/{day}", async (DateOnly day, TernDb db, PrepDayStore store, AheadStore ahead, RunReader runs) =>
        {
            await using var once = await db.ReadOnceAsync();
            return await ShowAsync(day, store, ahead, runs);
        }).WithName("getPrepDay");
        cook.MapPut("/days/{day}", SetDayAsync).WithName("setPrepDay");
        cook.MapPost("/days/{day}/schedule", LayAsync).WithName("layPrepDay");
    }

    private static async Task<EquipmentView> ShowAsync(PrepDayStore store)
    {
        var (equipment, version) = await store.EquipmentAsync();
        return new(equipment, version);
    }

    private static async Task<PrepDayView> ShowAsync(DateOnly day, PrepDayStore store, AheadStore ahead, RunReader runs)
    {
        var (wishes, version) = await store.WishesAsync(day);
        var rows = (await store.ToCookAsync()).Where(row => row.CookedOn == day);
        var could = await ahead.CouldBeDoneAsync(day);
        AheadDishView Ahead((BatchRow Row, IReadOnlyList<AheadWork> Work) one) =>
            new(PrepBatch.Of(one.Row), one.Row.CookedOn, [.. one.Work.Select(AheadWorkView.Of)]);
        var run = await runs.FindAsync(day);
        var state = run is null ? RunOfDay.None : run.EndedAt is null ? RunOfDay.GoingOn : RunOfDay.Over;
        return new(day, wishes, [.. rows.Select(PrepBatch.Of)], [.. could.Select(Ahead)], state, version);
    }

    private static async Task<List<PrepDayRowView>> ListAsync(TernDb db, PrepDayStore store, RunReader runs)
    {
        await using var once = await db.ReadOnceAsync();
        var rows = (await store.ToCookAsync()).ToLookup(row => row.CookedOn);
        var days = rows.Select(day => day.Key).Union(await runs.LastAsync()).Order();
        return [.. days.Select(day => new PrepDayRowView(day, [.. rows[day].Select(PrepBatch.Of)]))];
    }

    private static async Task<Results<Ok<EquipmentView>, ProblemHttpResult>> SetKitchenAsync(
        KitchenEquipment body, [FromHeader(Name = "If-Match")] string? ifMatch, PrepDayStore store, RunReader runs, RunStore run)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        var set = await store.SetEquipmentAsync(version, body);
        if (set.Succeeded)
            foreach (var day in await runs.GoingOnAsync()) await run.LayAnewAsync(day);
        return await set.AnswerWriteAsync(now => Task.FromResult(new EquipmentView(body, now)), async () => await ShowAsync(store));
    }

    private static async Task<Results<Ok<PrepDayView>, ProblemHttpResult>> SetDayAsync(
        DateOnly day, PrepDayWishes body, [FromHeader(Name = "If-Match")] string? ifMatch, PrepDayStore store, AheadStore ahead,
        RunReader runs, RunStore run, TimeProvider clock)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        if (KitchenDays.Refusal(day, clock.Today(), "day") is { } far) return Answers.Problem([far]);
        var set = await store.SetWishesAsync(day, version, body);
        if (set.Succeeded) await run.LayAnewAsync(day);
        return await set.AnswerWriteAsync(_ => ShowAsync(day, store, ahead, runs), async () => await ShowAsync(day, store, ahead, runs));
    }

    private static async Task<Results<Ok<LaidDayView>, ProblemHttpResult>> LayAsync(
        DateOnly day, LayDayRequest body, TernDb db, PrepDayStore store, RunReader runs, IPrepDayScheduler scheduler, SolverTurns turns,
        CancellationToken gone)
    {
        List<Problem> problems = [.. body.Wishes?.Problems() ?? [], .. body.Equipment?.Problems() ?? []];
        if (body.Seconds is not (>= 0 and <= LongestSeconds))
            problems.Add(new("seconds-absurd", "seconds", $"Look for between 0 and {LongestSeconds} seconds."));
        if (problems.Count > 0) return Answers.Problem(problems);
        var (dishes, wishes, kitchen, times) = await ReadAsync();
        if (dishes.Count > MostDishes)
        {
            var sentence = $"{dishes.Count} batches are planned for this day, and it is laid out for up to {MostDishes}: move some.";
            return Answers.Problem([new("dishes-many", "", sentence)]);
        }

        var effort = new ScheduleEffort(body.Seconds);
        Func<ScheduleProblem, LaidDay> With(ScheduleEffort how) => problem => scheduler.Lay(problem, how, gone);
        LaidDayView Lay() => LaidDayView.Of(
            PrepDayPlan.Of(dishes, kitchen, wishes, With(effort), With(body.Seconds > 0 ? OrdersAlone : effort), times), kitchen, wishes);

        // The first that comes takes no turn: it is there at once.
        return body.Seconds <= 0 ? TypedResults.Ok(Lay()) : (await turns.RunAsync(Lay, gone)).Answer(laid => laid);

        async Task<(IReadOnlyList<PrepDish>, PrepDayWishes, KitchenEquipment, OwnTimes)> ReadAsync()
        {
            await using var once = await db.ReadOnceAsync();
            var wished = body.Wishes ?? (await store.WishesAsync(day)).Wishes;
            return (
                await runs.DishesAsync(day, wished), wished, body.Equipment ?? (await store.EquipmentAsync()).Equipment,
                await runs.TimesAsync(day));
        }
    }
}
