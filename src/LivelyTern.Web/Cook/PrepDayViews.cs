using System.Globalization;
using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Cook;

namespace LivelyTern.Web.Cook;

/// <summary>What the kitchen has to cook with.</summary>
/// <param name="Equipment">The equipment.</param>
/// <param name="Version">For the next write; 0 while it is as it was at first.</param>
public sealed record EquipmentView(KitchenEquipment Equipment, int Version);

/// <summary>A batch that is to be cooked on a prep day, or is in its pan.</summary>
/// <param name="Id">The batch.</param>
/// <param name="RecipeId">Its recipe.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint.</param>
/// <param name="Portions">For how many portions.</param>
/// <param name="ForDishes">How many of them go into put-together dishes.</param>
/// <param name="IsPutTogether">Whether it is put together from others.</param>
/// <param name="IsCooking">Whether it is in its pan.</param>
public sealed record PrepBatch(
    Guid Id, Guid RecipeId, string Name, string Letters, int Tint, int Portions, int ForDishes, bool IsPutTogether, bool IsCooking)
{
    /// <summary>A batch as shown.</summary>
    public static PrepBatch Of(BatchRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new(
            row.Id, row.RecipeId, row.RecipeName, row.Letters, row.Tint, row.Portions, row.ForDishes, row.IsPutTogether,
            row.State == Core.Cook.BatchState.Cooking);
    }
}

/// <summary>A day on which something is to be cooked.</summary>
public sealed record PrepDayRowView(DateOnly Day, IReadOnlyList<PrepBatch> Batches);

/// <summary>A prep day: what is cooked and how it is wished.</summary>
/// <param name="Day">The day.</param>
/// <param name="Wishes">Who cooks when, what is due.</param>
/// <param name="Batches">What is cooked.</param>
/// <param name="Ahead">Dishes of later days, with what can be done for them on this one.</param>
/// <param name="Run">Whether it is begun, and whether it is over.</param>
/// <param name="Version">For the next write; 0 while nobody has said how it is wished.</param>
public sealed record PrepDayView(
    DateOnly Day, PrepDayWishes Wishes, IReadOnlyList<PrepBatch> Batches, IReadOnlyList<AheadDishView> Ahead, RunOfDay Run, int Version);

/// <summary>How far a day has come.</summary>
public enum RunOfDay
{
    /// <summary>It is not begun.</summary>
    None,

    /// <summary>It is being cooked.</summary>
    GoingOn,

    /// <summary>It is over.</summary>
    Over,
}

/// <summary>A day to be laid out as it is wished, or as it would be with other wishes or another kitchen.</summary>
/// <param name="Seconds">How long to look for a shorter day; 0 for the first that comes.</param>
/// <param name="Wishes">Other wishes; null for those written down.</param>
/// <param name="Equipment">Another kitchen; null for that written down.</param>
public sealed record LayDayRequest(double Seconds = 0, PrepDayWishes? Wishes = null, KitchenEquipment? Equipment = null);

/// <summary>A task at its time.</summary>
/// <param name="Task">What is to be done.</param>
/// <param name="Way">In which of its ways.</param>
/// <param name="Start">When it begins, in minutes from the beginning of the day.</param>
/// <param name="End">When it ends.</param>
/// <param name="Lanes">Where it is drawn: the cook, the machines.</param>
/// <param name="IsInChain">Whether it is one of those that set the end.</param>
public sealed record PlacedPrepTask(PrepTask Task, PrepWay Way, int Start, int End, IReadOnlyList<string> Lanes, bool IsInChain);

/// <summary>A cook or a machine that is busy at some time.</summary>
/// <param name="Id">The lane.</param>
/// <param name="Kind">The machine; null for a cook.</param>
/// <param name="Name">The cook's name; empty for a machine.</param>
/// <param name="Number">Which of several.</param>
/// <param name="Capacity">How much of it there is.</param>
public sealed record PrepLane(string Id, Occupies? Kind, string Name, int Number, int Capacity);

/// <summary>A day laid out.</summary>
/// <param name="Begins">When the first cook comes.</param>
/// <param name="Tasks">Every task, by its time.</param>
/// <param name="Lanes">Who and what is busy.</param>
/// <param name="WarmUps">When the ovens are turned on.</param>
/// <param name="End">When all is done, in minutes from the beginning.</param>
/// <param name="HandsOn">Minutes of all cooks' hands.</param>
/// <param name="Late">Minutes by which what is due is missed.</param>
/// <param name="Bound">No day ends before this minute, as far as proven.</param>
/// <param name="IsProven">Whether no shorter day keeps everything.</param>
/// <param name="Chain">The tasks that set the end, in order, each with why it begins no sooner.</param>
/// <param name="Overtime">Minutes that the cook who leaves last would have to stay longer.</param>
/// <param name="WaysOut">What would help, where the day is late.</param>
/// <param name="Warnings">What is amiss between the dishes and the kitchen.</param>
public sealed record LaidDayView(
    TimeOnly Begins, IReadOnlyList<PlacedPrepTask> Tasks, IReadOnlyList<PrepLane> Lanes, IReadOnlyList<WarmUpTime> WarmUps, int End,
    int HandsOn, int Late, int Bound, bool IsProven, IReadOnlyList<ChainLink> Chain, int Overtime, IReadOnlyList<WayOut> WaysOut,
    IReadOnlyList<KitchenWarning> Warnings)
{
    /// <summary>A day as shown.</summary>
    public static LaidDayView Of(PrepDayPlan plan, KitchenEquipment kitchen, PrepDayWishes wishes)
    {
        ArgumentNullException.ThrowIfNull(plan);
        ArgumentNullException.ThrowIfNull(kitchen);
        ArgumentNullException.ThrowIfNull(wishes);
        var (problem, day) = (plan.Tasks.Problem, plan.Day);
        var chain = plan.Chain.Select(link => link.Id).ToHashSet(StringComparer.Ordinal);
        PlacedPrepTask Place(PrepTask task, PlacedTask place, ScheduleTask scheduled) => new(
            task, task.Ways[place.Mode], place.Start, place.End, LanesOf(scheduled.Modes[place.Mode]), chain.Contains(task.Id));
        var placed = plan.Tasks.Tasks.Zip(day.Tasks, problem.Tasks).Select(one => Place(one.First, one.Second, one.Third))
            .OrderBy(task => task.Start).ThenByDescending(task => task.Task.IsHandsOn).ToList();
        var busy = placed.SelectMany(task => task.Lanes).Distinct(StringComparer.Ordinal).ToList();
        return new(
            wishes.Begins, placed, [.. PrepLanes.Of(busy, problem, wishes)], OvenWarmUps.Of(problem, day), day.End,
            placed.Where(task => task.Task.IsHandsOn).Sum(task => task.End - task.Start), day.Late, day.Bound, day.IsProven, plan.Chain,
            plan.Overtime, plan.WaysOut, plan.Tasks.Warnings);
    }

    internal static List<string> LanesOf(TaskMode mode) =>
        [.. mode.Uses.Where(use => use.Value > 0).Select(use => use.Key).Order(StringComparer.Ordinal)];
}

/// <summary>The lanes of a day, in the order in which they are drawn.</summary>
internal static class PrepLanes
{
    // Boards and trays are never in a cook's way for long enough to be drawn.
    private static readonly Occupies[] NotDrawn = [Occupies.Board, Occupies.Tray];

    public static IEnumerable<PrepLane> Of(IReadOnlyList<string> busy, ScheduleProblem problem, PrepDayWishes wishes)
    {
        for (var i = 0; i < wishes.Cooks.Count; i++) yield return new($"cook:{i}", null, wishes.Cooks[i].Name, i, 1);
        foreach (var kind in Enum.GetValues<Occupies>().Except(NotDrawn))
        {
            bool IsOfKind(string id) => id.Split(':')[0].Equals(kind.ToString(), StringComparison.OrdinalIgnoreCase);
            foreach (var id in busy.Where(IsOfKind).Order(StringComparer.Ordinal))
            {
                var number = id.Split(':') is [_, var which] ? int.Parse(which, CultureInfo.InvariantCulture) : 0;
                yield return new(id, kind, "", number, problem.Capacities.GetValueOrDefault(id, 1));
            }
        }
    }
}
