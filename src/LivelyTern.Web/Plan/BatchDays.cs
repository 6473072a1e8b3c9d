using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;

namespace LivelyTern.Web.Plan;

/// <summary>A day on which something of a batch lies, as it stands with what is known of the batch now.</summary>
/// <param name="EaterId">Whose.</param>
/// <param name="Name">Their name.</param>
/// <param name="Day">The day.</param>
/// <param name="Measure">The measure they lead by.</param>
/// <param name="Sum">The day's sum of it.</param>
/// <param name="Fits">Whether the day fits.</param>
public sealed record BatchDayView(Guid EaterId, string Name, DateOnly Day, Measure Measure, Figure Sum, bool Fits);

/// <summary>What a batch means for the days: asked before and after something else went in, it says what that does.</summary>
public static class BatchDays
{
    private const int DaysAhead = 31;

    /// <summary>Maps <c>/api/plan/batches/{id}/days</c>.</summary>
    public static void MapBatchDays(this IEndpointRouteBuilder api) =>
        api.MapGet("/plan/batches/{id:guid}/days", ReadAsync).WithTags("Plan").WithName("listBatchDays");

    private static async Task<List<BatchDayView>> ReadAsync(
        Guid id, TernDb db, PlanStore plan, PlanReader reader, BatchReader batches, EaterStore eaters)
    {
        await using var once = await db.ReadOnceAsync();
        var monday = KitchenDays.MondayOf(reader.Today);
        var board = await plan.BoardAsync(monday, monday.AddDays(DaysAhead));
        var ids = (await batches.GoesIntoAsync(id)).Select(one => one.Dish.Id).Append(id).ToHashSet();
        var (stock, eaten) = (await plan.StockAsync(board), await reader.EatenAsync(board));
        bool IsOfIt(PlanItem item) => item.EatenAt is null && stock.Has(item) && stock.BoxOf(item) is { } box && ids.Contains(box.Batch.Id);
        var days = board.Days.Where(day => day.Key.Day >= reader.Today && day.Value.Any(IsOfIt)).Select(day => day.Key).ToList();
        var table = (await eaters.ListAsync()).ToDictionary(eater => eater.Id);
        var read = reader.WeeksOf(days, table, board, stock, eaten);
        BatchDayView View(EaterDay where)
        {
            var day = read[where];
            return new(where.EaterId, table[where.EaterId].Name, day.Day, day.Aim.Leading, day.Sums[day.Aim.Leading], day.Fits);
        }

        return [.. days.Where(read.ContainsKey).Select(View).OrderBy(day => day.Day).ThenBy(day => day.Name, StringComparer.Ordinal)];
    }
}
