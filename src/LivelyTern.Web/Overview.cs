using LivelyTern.Core.Aim;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook.Run;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
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
/// <param name="IsDemo">Whether this is the demo household.</param>
/// <param name="IsClockPlayed">Whether time can be let pass.</param>
/// <param name="Cooking">The day whose prep day goes on; null where none does.</param>
/// <param name="Excluded">What lies on days although its eater must never get it, and nobody has answered for.</param>
public sealed record OverviewView(
    DateOnly Today, int Eaters, int Foods, int Recipes, int? FitDays, int? LaidDays, int BatchesWaiting, int BatchesDue,
    DateOnly? NextPrepDay, int ShelfBoxes, Measure? Leading, decimal? Left, bool IsDemo, bool IsClockPlayed, DateOnly? Cooking,
    IReadOnlyList<ExcludedView> Excluded);

/// <summary>Whether the host can reach its database: "ok".</summary>
public sealed record Health(string Status);

/// <summary>The rail's lines of state.</summary>
public static class OverviewEndpoint
{
    /// <summary>Maps <c>/api/overview</c>.</summary>
    public static void MapOverview(this IEndpointRouteBuilder api) =>
        api.MapGet("/overview", ReadAsync).WithTags("Overview").WithName("getOverview");

    // Counts are the file's own; of the days only this eater's week is read.
    private static async Task<OverviewView> ReadAsync(
        Guid? eaterId, TernDb db, FoodStore foods, EaterStore eaters, PlanStore plan, ExcludedItems excluded, PlanReader reader,
        RunReader runs, StartOptions start)
    {
        await using var once = await db.ReadOnceAsync();
        var table = await eaters.ListAsync();
        var row = table.FirstOrDefault(other => eaterId is null || other.Id == eaterId) ?? (table.Count > 0 ? table[0] : null);
        var state = row is null ? null : await reader.StateAsync(row);
        decimal? left = state is not null && state.Left.TryGetValue(row!.Aim.Leading, out var rest) ? rest : null;
        var counts = await plan.CountAsync();
        return new OverviewView(
            reader.Today, table.Count, (await foods.CatalogueAsync()).All.Count, counts.Recipes, state?.FitDays, state?.LaidDays,
            counts.BatchesWaiting, counts.BatchesDue, counts.NextPrepDay, counts.ShelfBoxes, row?.Aim.Leading, left, start.IsDemo,
            start.Clock is PlayedClock { IsPlayed: true }, (await runs.GoingOnAsync()) is [.., var day] ? day : null,
            Excluded(await excluded.ListAsync(table), table));
    }

    private static List<ExcludedView> Excluded(IReadOnlyList<ExcludedItem> all, IReadOnlyList<EaterRow> table)
    {
        var names = table.ToDictionary(eater => eater.Id, eater => eater.Name);
        ExcludedView Show(ExcludedItem one)
        {
            var (eaterId, day) = one.Where;
            return new(eaterId, names.GetValueOrDefault(eaterId, ""), day, one.ItemId, one.Name, NeverView.Of(one.Why)!);
        }

        return [.. all.Where(one => !one.IsAnswered).Select(Show)];
    }
}
