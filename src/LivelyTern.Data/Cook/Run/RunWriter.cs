using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Run;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Measures;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook.Run;

/// <summary>Writes down what happens to a run, and lays out what is left of it; within a larger command.</summary>
public sealed class RunWriter(
    TernDb db, RunReader reader, BatchStore batches, AheadStore ahead, IPrepDayScheduler scheduler, TimeProvider clock)
{
    // What is laid out while a cook stands and waits is there at once.
    private static readonly ScheduleEffort OrdersAlone = new(0.4, 0);

    private static bool Same(string one, string other) => string.Equals(one, other, StringComparison.Ordinal);

    // Written down with how it was to be done, so that it stays what it was whatever becomes of the day.
    internal static RunTaskRow Tell(RunRow row, RestOfRun rest, string id, int? cook)
    {
        var at = rest.Problem.Tasks.Select(task => task.Id).ToList().IndexOf(id);
        var task = rest.Tasks.Tasks.First(one => Same(one.Id, id));
        var modes = rest.Problem.Tasks[at].Modes;
        var planned = at < rest.Day.Tasks.Count ? rest.Day.Tasks[at].Mode : 0;
        var others = modes[planned].Uses.Keys.Where(name => !IsCook(name)).ToHashSet(StringComparer.Ordinal);
        bool IsTheirs(int mode) =>
            modes[mode].Uses.ContainsKey($"cook:{cook}") && others.SetEquals(modes[mode].Uses.Keys.Where(name => !IsCook(name)));
        var theirs = cook is null ? planned : Enumerable.Range(0, modes.Count).Where(IsTheirs).DefaultIfEmpty(planned).First();
        var told = new RunTaskRow
        {
            Day = row.Day,
            TaskId = id,
            Told = StoredTask.Of(task, task.Ways[theirs], modes[theirs]),
        };
        row.Tasks.Add(told);
        return told;

        static bool IsCook(string name) => name.StartsWith("cook:", StringComparison.Ordinal);
    }

    internal void End(RunRow row, RestOfRun rest, string id, List<string> changed)
    {
        var known = row.Tasks.Find(task => Same(task.TaskId, id));
        if (known is null && rest.Begun.TryGetValue(id, out var begun)) known = row.Tasks.Find(task => Same(task.TaskId, begun.Task.Id));
        if (known?.EndedAt is not null) return;
        (known ?? Tell(row, rest, id, null)).EndedAt = clock.GetUtcNow();
        changed.Add(known?.TaskId ?? id);
    }

    // A dish of which a step is begun is cooked; what was prepared for a later day and put away waits there.
    internal async Task<Problem?> HappenedAsync(RunRow row, RunTaskRow task)
    {
        if (task.IsCooking)
            foreach (var dish in task.Told.Dishes) task.BeganDish |= await batches.BegunAsync(dish, row.Day);
        if (task is not { Told.Kind: PrepKind.PutAway, EndedAt: not null, IsSkipped: false }) return null;
        foreach (var dish in task.Told.Dishes)
        {
            // Said by hand before, it is there already.
            var done = await ahead.DoneAsync(dish, row.Day, clock.Today());
            if (!done.Succeeded && !Same(done.Problems[0].Code, AheadStore.NothingLeft)) return done.Problems[0];
        }

        return null;
    }

    internal async Task BackFromShelfAsync(DateOnly day, IReadOnlyList<Guid> dishes)
    {
        var ids = await db.DoneAhead.Where(one => one.DoneOn == day && dishes.Contains(one.BatchId)).Select(one => one.Id).ToListAsync();
        if (ids.Count > 0) await ahead.TakeBackAsync(ids);
    }

    // Lays out the rest, and what begins now by itself begins.
    internal async Task<Outcome<IReadOnlyList<string>>> GoOnAsync(RunRow row, IReadOnlyList<string>? done, bool isGoingOn = true)
    {
        var rest = await OrderAsync(row);
        var begins = new List<string>();
        if (!isGoingOn) return begins;
        var minute = (await reader.NowAsync(row)).SoFar.Now;
        foreach (var id in rest.BeginNow(minute, done?.ToHashSet(StringComparer.Ordinal)))
        {
            var task = Tell(row, rest, id, null);
            task.StartedAt = clock.GetUtcNow();
            begins.Add(id);
            if (await HappenedAsync(row, task) is { } wrong) return wrong;
        }

        return begins;
    }

    internal async Task<RestOfRun> OrderAsync(RunRow row)
    {
        await db.SaveChangesAsync();
        var rest = (await reader.NowAsync(row)).Rest(problem => scheduler.Lay(problem, OrdersAlone, CancellationToken.None));
        row.Order = new(1, [.. rest.Day.Tasks.OrderBy(place => place.Start).Select(place => place.Id)]);
        return rest;
    }
}
