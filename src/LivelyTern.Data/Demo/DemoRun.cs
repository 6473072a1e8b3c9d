using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Data.Cook.Run;
using LivelyTern.Data.Recipes;

namespace LivelyTern.Data.Demo;

/// <summary>The demo's run: the dal of today is on the ring and has a while to simmer; and what was written down of it before.</summary>
public sealed class DemoRun(TernDb db, RunReader reader, RecipeNotes notes, TimeProvider clock)
{
    private const int Simmered = 8;

    /// <summary>Lays the run of today, begun so long ago that everything went as planned until now.</summary>
    /// <param name="dal">The dal's recipe.</param>
    public async Task SeedAsync(Guid dal)
    {
        var today = clock.Today();
        await notes.AddAsync(dal, today.AddDays(-10), "A little less water next time: it stood soupy. 1.3 l is enough.");
        var row = new RunRow { Day = today, StartedAt = clock.GetUtcNow(), Order = new(1, []) };
        var rest = (await reader.NowAsync(row)).Rest();
        var tasks = rest.Tasks.Tasks.Zip(rest.Problem.Tasks, rest.Day.Tasks).ToList();
        var simmers = tasks.Where(one => one.First is { Kind: PrepKind.Step, IsHandsOn: false }).Min(one => one.Third.Start);
        row.StartedAt = row.StartedAt.AddMinutes(-simmers - Simmered);
        row.PlannedEnd = rest.Day.End;
        row.Order = new(1, [.. rest.Day.Tasks.OrderBy(place => place.Start).Select(place => place.Id)]);
        row.Tasks = [.. tasks.Where(one => one.Third.Start <= simmers).Select(one => Told(row, one.First, one.Second, one.Third, simmers))];
        db.Runs.Add(row);
        await db.SaveChangesAsync();
    }

    private static RunTaskRow Told(RunRow row, PrepTask task, ScheduleTask scheduled, PlacedTask place, int simmers) => new()
    {
        Day = row.Day,
        TaskId = task.Id,
        StartedAt = row.StartedAt.AddMinutes(place.Start),
        EndedAt = place.End <= simmers ? row.StartedAt.AddMinutes(place.End) : null,
        Told = StoredTask.Of(task, task.Ways[place.Mode], scheduled.Modes[place.Mode]),
    };
}
