using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Run;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Measures;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook.Run;

/// <summary>What is said of a task of a run.</summary>
public enum RunAct
{
    /// <summary>It is begun.</summary>
    Start,

    /// <summary>It is done.</summary>
    Done,

    /// <summary>It is passed over.</summary>
    Skip,

    /// <summary>It takes longer.</summary>
    More,
}

/// <summary>Something said of a task.</summary>
/// <param name="TaskId">The task.</param>
/// <param name="Act">What.</param>
/// <param name="Minutes">How much longer it takes; 0 where that is not said.</param>
/// <param name="Cook">Whose hands do it, from 0; null for whose it was to be.</param>
public sealed record RunWord(string TaskId, RunAct Act, int Minutes = 0, int? Cook = null);

/// <summary>A prep day as it happens: begun, said to be done task by task, ended. Two cooks' phones tell one run.</summary>
public sealed class RunStore(
    TernDb db, RunReader reader, RunWriter writer, BatchStore batches, TimeProvider clock)
{
    private const int MostMore = 600, MostCelsius = 500, FarInRun = 10_080;

    /// <summary>A day is begun: now is its first minute, and what comes first goes on.</summary>
    /// <param name="day">The day; today.</param>
    /// <param name="order">The order in which its tasks were laid out.</param>
    public Task<Outcome<IReadOnlyList<string>>> BeginAsync(DateOnly day, IReadOnlyList<string> order) => InTurnAsync(async () =>
    {
        ArgumentNullException.ThrowIfNull(order);
        if (day != clock.Today()) return OtherDay(day < clock.Today());
        if (await db.Runs.AnyAsync(row => row.Day == day))
            return new Problem("run-there", "", "This day is begun already.");
        var row = new RunRow { Day = day, StartedAt = clock.GetUtcNow(), Order = new(1, [.. order.OfType<string>().Take(ScheduleMost)]) };
        var now = await reader.NowAsync(row);
        if (now.Day.Dishes.Count == 0) return new Problem("run-nothing", "", "Nothing is to be cooked on this day.");
        db.Runs.Add(row);
        var begun = await writer.GoOnAsync(row, null);
        var rest = (await reader.NowAsync(row)).Rest();
        row.PlannedEnd = rest.Begun.Values.Select(one => one.EndsAt).Append(rest.Day.End).Max();
        return begun;
    });

    /// <summary>Something happened to tasks; the rest is laid out anew.</summary>
    /// <returns>The tasks that are another way now than before, to be taken back together.</returns>
    public Task<Outcome<IReadOnlyList<string>>> SayAsync(DateOnly day, RunWord word) => InTurnAsync(async () =>
    {
        ArgumentNullException.ThrowIfNull(word);
        var found = await GoingOnAsync(day);
        if (!found.Succeeded) return found.Problems.ToList();
        var row = found.Value!;
        if (word.Act == RunAct.More) return await MoreAsync(row, word);
        var now = await reader.NowAsync(row);
        var rest = now.Rest();
        var known = row.Tasks.Find(task => Same(task.TaskId, word.TaskId));
        if (known is null && !rest.Problem.Tasks.Any(task => Same(task.Id, word.TaskId))) return TaskGone;

        // Another phone was first: it is as they said.
        if (known is not null && (known.EndedAt is not null || word.Act == RunAct.Start)) return new List<string>();
        var changed = new List<string>();
        if (known is null)
        {
            if (word.Act != RunAct.Skip)
                foreach (var id in rest.Before(word.TaskId)) writer.End(row, rest, id, changed);
            known = RunWriter.Tell(row, rest, word.TaskId, word.Cook);
        }

        changed.Add(word.TaskId);
        if (word.Act == RunAct.Start) known.StartedAt = clock.GetUtcNow();
        else known.EndedAt = clock.GetUtcNow();
        if (word.Act == RunAct.Skip) (known.IsSkipped, known.StartedAt) = (true, known.StartedAt ?? known.EndedAt);
        foreach (var task in row.Tasks.Where(task => changed.Contains(task.TaskId, StringComparer.Ordinal)).ToList())
            if (await writer.HappenedAsync(row, task) is { } wrong) return wrong;
        var after = await writer.GoOnAsync(row, word.Act == RunAct.Start ? null : [word.TaskId], isGoingOn: word.Act != RunAct.Start);
        return after.Succeeded ? changed.Concat(after.Value!).ToList() : after;
    });

    /// <summary>Tasks are as they were before: what was done goes on, what was begun is still to be done.</summary>
    public Task<Outcome<IReadOnlyList<string>>> TakeBackAsync(DateOnly day, IReadOnlyList<string> ids) => InTurnAsync(async () =>
    {
        ArgumentNullException.ThrowIfNull(ids);
        var found = await GoingOnAsync(day);
        if (!found.Succeeded) return found.Problems.ToList();
        var row = found.Value!;
        var known = row.Tasks.FindAll(task => ids.Contains(task.TaskId, StringComparer.Ordinal));
        foreach (var task in known)
        {
            if (task.Told.Kind == PrepKind.PutAway && task.EndedAt is not null) await writer.BackFromShelfAsync(row.Day, task.Told.Dishes);
            if (task is { IsSkipped: false, StartedAt: not null, EndedAt: not null }) task.EndedAt = null;
            else row.Tasks.Remove(task);
        }

        foreach (var dish in known.Where(task => task.BeganDish).SelectMany(task => task.Told.Dishes).Distinct())
            if (!row.Tasks.Exists(task => task.IsCooking && task.Told.Dishes.Contains(dish))) await batches.NotBegunAsync(dish);
        await writer.OrderAsync(row);
        return known.ConvertAll(task => task.TaskId);
    });

    /// <summary>An oven is turned on, or off again; the rest is laid out anew.</summary>
    public Task<Outcome<IReadOnlyList<string>>> TurnAsync(DateOnly day, string oven, int celsius, bool isOn) => InTurnAsync(async () =>
    {
        var found = await GoingOnAsync(day);
        if (!found.Succeeded) return found.Problems.ToList();
        var row = found.Value!;
        if (celsius is < 30 or > MostCelsius)
            return new Problem("oven-celsius", "celsius", $"An oven is turned to between 30 and {MostCelsius} °C.");
        var ovens = (await reader.NowAsync(row)).Rest().Problem.Heated;
        if (!ovens.ContainsKey(oven)) return Stale.Gone("oven");
        var known = row.Ovens.Find(one => Same(one.Oven, oven));
        if (known is not null && !isOn) row.Ovens.Remove(known);
        if (known is null && isOn) row.Ovens.Add(known = new() { Day = day, Oven = oven });
        if (known is not null && isOn) (known.Celsius, known.At) = (celsius, clock.GetUtcNow());
        await writer.OrderAsync(row);
        return new List<string>();
    });

    /// <summary>How the day is wished, or what the kitchen has, is another: the rest is laid out anew where a run goes on.</summary>
    public Task<Outcome<IReadOnlyList<string>>> LayAnewAsync(DateOnly day) => InTurnAsync(async () =>
    {
        var found = await GoingOnAsync(day);
        if (found.Succeeded) await writer.OrderAsync(found.Value!);
        return new List<string>();
    });

    /// <summary>The run is over, or goes on after all.</summary>
    public Task<Outcome<IReadOnlyList<string>>> EndAsync(DateOnly day, bool isOver) => InTurnAsync(async () =>
    {
        if (await FindAsync(day) is not { } row) return Stale.Gone("run");
        row.EndedAt = isOver ? row.EndedAt ?? clock.GetUtcNow() : null;
        return new List<string>();
    });

    /// <summary>It was not begun after all; only as long as nothing of it is cooked.</summary>
    public Task<Outcome<IReadOnlyList<string>>> NotBegunAsync(DateOnly day) => InTurnAsync(async () =>
    {
        if (await FindAsync(day) is not { } row) return Stale.Gone("run");
        if (row.Tasks.Exists(task => task.IsCooking || task.EndedAt is not null))
            return new Problem("run-cooking", "", "Something is done already: end the run instead.");
        db.Runs.Remove(row);
        return new List<string>();
    });

    private const int ScheduleMost = ScheduleProblem.MostTasks;

    private static readonly Problem TaskGone = new(Stale.GoneCode, "taskId", "This is not a part of the day any more.");

    private static Problem OtherDay(bool isPast) => new(
        "run-day", "day",
        isPast ? "That day is past: plan its dishes for today first." : "That day is still to come: plan its dishes for today first.");

    private static bool Same(string one, string other) => string.Equals(one, other, StringComparison.Ordinal);

    private Task<RunRow?> FindAsync(DateOnly day) =>
        db.Runs.Include(row => row.Tasks).Include(row => row.Ovens).SingleOrDefaultAsync(row => row.Day == day);

    private async Task<Outcome<RunRow>> GoingOnAsync(DateOnly day)
    {
        if (await FindAsync(day) is not { } row) return Stale.Gone("run");
        return row.EndedAt is null ? row : new Problem("run-over", "", "This run is over. Go on with it first.");
    }

    private async Task<Outcome<IReadOnlyList<string>>> InTurnAsync(Func<Task<Outcome<IReadOnlyList<string>>>> command) =>
        await db.InTurnAsync(async () =>
        {
            var outcome = await command();
            if (outcome.Succeeded) await db.SaveChangesAsync();
            return outcome;
        });

    private async Task<Outcome<IReadOnlyList<string>>> MoreAsync(RunRow row, RunWord word)
    {
        if (word.Minutes is < 1 or > MostMore) return new Problem("run-more", "minutes", $"Between 1 and {MostMore} minutes more.");
        if (row.Tasks.Find(task => Same(task.TaskId, word.TaskId)) is not { EndedAt: null } task) return TaskGone;
        task.Extra = Math.Min(task.Extra + word.Minutes, FarInRun);
        await writer.OrderAsync(row);
        return new List<string>();
    }
}
