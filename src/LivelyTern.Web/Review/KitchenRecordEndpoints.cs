using LivelyTern.Core.Review;
using LivelyTern.Data;
using LivelyTern.Data.Review;
using LivelyTern.Data.Shop;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Review;

/// <summary>What was thrown away in a week.</summary>
/// <param name="Monday">Its Monday.</param>
/// <param name="Boxes">How many boxes, or rests of them.</param>
/// <param name="Grams">What was in them.</param>
/// <param name="Energy">Their energy, kcal.</param>
/// <param name="Cost">What it cost, as far as prices were noted; null where none was.</param>
/// <param name="Unpriced">How many foods of it have no price.</param>
/// <param name="Dishes">Dish by dish.</param>
public sealed record WasteOfWeekView(
    DateOnly Monday, int Boxes, decimal Grams, Figure Energy, decimal? Cost, int Unpriced, IReadOnlyList<string> Dishes);

/// <summary>What the weeks teach about the kitchen.</summary>
/// <param name="Portions">How near portions came, month by month.</param>
/// <param name="Waste">What was thrown away, week by week.</param>
/// <param name="PrepDays">How long cooking took.</param>
/// <param name="Currency">What stands before a price.</param>
public sealed record KitchenRecordView(
    IReadOnlyList<PortionAccuracy> Portions, IReadOnlyList<WasteOfWeekView> Waste, IReadOnlyList<PrepDayTaken> PrepDays, string Currency);

/// <summary>Review: portions, what was thrown away, cooking times.</summary>
public static class KitchenRecordEndpoints
{
    /// <summary>Maps <c>/api/review/kitchen</c>.</summary>
    public static void MapKitchenRecords(this IEndpointRouteBuilder api) =>
        api.MapGet("/review/kitchen", GetAsync).WithTags("Review").WithName("getKitchenRecord");

    private static async Task<Ok<KitchenRecordView>> GetAsync(TernDb db, KitchenRecords records, ShopStore shop)
    {
        await using var once = await db.ReadOnceAsync();
        WasteOfWeekView Show(WasteOfWeek week) => new(
            week.Monday, week.Boxes, week.Weight.Value, Figure.Of(week.Energy), week.Cost.Known > 0 ? week.Cost.Known : null,
            week.Cost.Unpriced, week.Dishes);
        return TypedResults.Ok(new KitchenRecordView(
            await records.PortionsAsync(), [.. (await records.WasteAsync()).Select(Show)], await records.PrepDaysAsync(),
            (await shop.AislesAsync()).Aisles.Currency));
    }
}
