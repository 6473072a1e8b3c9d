using LivelyTern.Core.Plan;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Plan;
using LivelyTern.Formats.Calendar;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Plan;

/// <summary>The plan as an iCalendar file that other programs open, or subscribe to.</summary>
public static class CalendarEndpoints
{
    private const int DaysBack = 7, DaysAhead = 35;

    /// <summary>Maps <c>/api/plan/calendar.ics</c>, for everybody or for one eater.</summary>
    public static void MapCalendar(this IEndpointRouteBuilder api) =>
        api.MapGet("/plan/calendar.ics", async Task<Results<ContentHttpResult, ProblemHttpResult>> (
            Guid? eaterId, TernDb db, EaterStore eaters, PlanStore plan, PlanReader reader) =>
        {
            await using var once = await db.ReadOnceAsync();
            var table = (await eaters.ListAsync()).Where(row => eaterId is null || row.Id == eaterId).ToList();
            if (eaterId is not null && table.Count == 0) return Answers.Problem([Stale.Gone("eater")]);
            var board = await plan.BoardAsync(reader.Today.AddDays(-DaysBack), reader.Today.AddDays(DaysAhead));
            var planned = (await plan.UnpackedAsync()).ToDictionary(one => one.Batch.Id, one => one.Batch);
            var stock = (await plan.StockAsync(board)) with { Unpacked = planned };
            var entries = WeekCalendar.Of(
                [.. table.Select(row => FitEndpoints.Who(row))], board, stock, await plan.ShelfAsync(), reader.Today);
            return TypedResults.Text(
                CalendarFile.Write(eaterId is null ? "Lively Tern" : $"Lively Tern, {table[0].Name}", entries),
                "text/calendar; charset=utf-8");
        }).WithTags("Plan").WithName("getCalendar").Produces<string>(contentType: "text/calendar");
}
