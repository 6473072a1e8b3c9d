using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Recipes;
using LivelyTern.Web.Plan;

namespace LivelyTern.Web;

/// <summary>One line of state for each room.</summary>
/// <param name="Today">The household's day.</param>
/// <param name="Eaters">How many eat here.</param>
/// <param name="Foods">How many foods the kitchen knows, without its libraries.</param>
/// <param name="Recipes">How many recipes are written down.</param>
/// <param name="FitDays">How many of the eater's laid days this week fit; null without an eater.</param>
/// <param name="LaidDays">How many of their days this week have something on them.</param>
/// <param name="BatchesWaiting">Batches cooked and not packed.</param>
/// <param name="BatchesDue">Batches planned for today or before and not cooked yet.</param>
/// <param name="NextPrepDay">The next day for which batches are planned; null where none is.</param>
/// <param name="ShelfBoxes">Boxes on no day.</param>
/// <param name="Leading">The eater's leading measure.</param>
/// <param name="Left">What is left of it today.</param>
/// <param name="Excluded">What lies on days although its eater must never get it, and nobody has answered for.</param>
public sealed record OverviewView(
    DateOnly Today, int Eaters, int Foods, int Recipes, int? FitDays, int? LaidDays, int BatchesWaiting, int BatchesDue, DateOnly? NextPrepDay, int ShelfBoxes, Measure? Leading, decimal? Left, IReadOnlyList<ExcludedView> Excluded);

/// <summary>Whether the host can reach its database: "ok".</summary>
public sealed record Health(string Status);

/// <summary>The rail's lines of state.</summary>
public static class OverviewEndpoint
{
    /// <summary>Maps <c>/api/overview</c>.</summary>
    public static void MapOverview(this IEndpointRouteBuilder api) =>
        api.MapGet("/overview", async (Guid? eaterId, TernDb db, FoodStore foods, RecipeStore recipes, BatchStore batches, ExcludedItems excluded, PlanReader reader) =>
        {
            await using var once = await db.ReadOnceAsync();
            var week = await reader.WeekAsync(reader.Today);
            var eater = week.Eaters.FirstOrDefault(other => eaterId is null || other.EaterId == eaterId) ?? (week.Eaters.Count > 0 ? week.Eaters[0] : null);
            var today = eater?.Days.FirstOrDefault(day => day.Day == week.Today);
            var ahead = week.Unpacked.Where(batch => batch.State == BatchState.Planned).ToList();
            return new OverviewView(
                week.Today, week.Eaters.Count, (await foods.CatalogueAsync()).All.Count, await recipes.CountAsync(), eater?.FitDays, eater?.LaidDays, await batches.CountWaitingAsync(),
                ahead.Count(batch => batch.CookedOn <= week.Today), ahead.Where(batch => batch.CookedOn > week.Today).Select(batch => (DateOnly?)batch.CookedOn).Min(),
                week.Shelf.Sum(group => group.BoxIds.Count), eater?.Aim.Leading,
                today is not null && today.Left.TryGetValue(eater!.Aim.Leading, out var left) ? left : null, Excluded(await excluded.ListAsync(), week));
        }).WithTags("Overview").WithName("getOverview");

    private static List<ExcludedView> Excluded(IReadOnlyList<ExcludedItem> all, WeekView week)
    {
        var names = week.Eaters.ToDictionary(eater => eater.EaterId, eater => eater.Name);
        ExcludedView Show(ExcludedItem one)
        {
            var (eaterId, day) = one.Where;
            return new(eaterId, names.GetValueOrDefault(eaterId, ""), day, one.ItemId, one.Name, NeverView.Of(one.Why)!);
        }

        return [.. all.Where(one => !one.IsAnswered).Select(Show)];
    }
}
