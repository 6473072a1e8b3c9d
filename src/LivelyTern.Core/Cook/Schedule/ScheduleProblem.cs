using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Cook.Schedule;

/// <summary>One way of doing a task.</summary>
/// <param name="Minutes">Whole minutes from its start to its end.</param>
/// <param name="Uses">How much it takes of each capacity meanwhile.</param>
/// <param name="Heat">For a capacity that is heated, to how many °C.</param>
public sealed record TaskMode(
    int Minutes, IReadOnlyDictionary<string, int> Uses, IReadOnlyDictionary<string, int>? Heat = null);

/// <summary>A task that must end before another begins.</summary>
/// <param name="Id">The earlier task.</param>
/// <param name="Least">Minutes that lie between them at least.</param>
/// <param name="Most">Minutes that lie between them at most; null without a limit.</param>
/// <param name="IsAlone">Whether nothing waits between them: what has cooled does not wait for the washing up.</param>
public sealed record TaskBond(string Id, int Least = 0, int? Most = null, bool IsAlone = false);

/// <summary>Something to be done without a break.</summary>
/// <param name="Id">Its name in the problem.</param>
/// <param name="Modes">The ways of doing it, of which one is chosen; at least one.</param>
/// <param name="After">What comes before it.</param>
/// <param name="Earliest">The minute before which it can't begin.</param>
/// <param name="Due">The minute by which it is to have ended; null without one.</param>
public sealed record ScheduleTask(
    string Id, IReadOnlyList<TaskMode> Modes, IReadOnlyList<TaskBond> After, int Earliest = 0, int? Due = null);

/// <summary>A stretch in which something of a capacity is not to be had: a cook who is away, a machine that must be quiet.</summary>
/// <param name="Capacity">Of what.</param>
/// <param name="From">The first minute.</param>
/// <param name="To">The minute from which it is to be had again.</param>
/// <param name="Units">How much of it.</param>
/// <param name="Celsius">At how many °C it is held meanwhile, where it is heated and in use; null for nothing.</param>
public sealed record TakenTime(string Capacity, int From, int To, int Units, int? Celsius = null);

/// <summary>How something heated stands before its first task.</summary>
/// <param name="From">The minute from which it has come to its heat.</param>
/// <param name="Celsius">Its heat.</param>
public sealed record StandsAt(int From, int Celsius);

/// <summary>A prep day to be laid out: tasks, what there is, and when it is not to be had. Minute 0 is when the day begins.</summary>
/// <param name="Tasks">The tasks.</param>
/// <param name="Capacities">How much there is of each thing.</param>
/// <param name="Taken">When it is not to be had.</param>
/// <param name="Heated">The capacities that are heated, each with how many °C apart two tasks may be and still share it. Between others it
/// warms up or cools down, and from cold before the first (<see cref="WarmUp"/>).</param>
public sealed record ScheduleProblem(
    IReadOnlyList<ScheduleTask> Tasks, IReadOnlyDictionary<string, int> Capacities, IReadOnlyList<TakenTime> Taken,
    IReadOnlyDictionary<string, int> Heated)
{
    /// <summary>The most tasks of a day.</summary>
    public const int MostTasks = 500;

    /// <summary>The minute it is: before it nothing that is cold can be warm.</summary>
    public int Now { get; init; }

    /// <summary>What is warm already, of the heated capacities.</summary>
    public IReadOnlyDictionary<string, StandsAt> Warm { get; init; } = new Dictionary<string, StandsAt>(StringComparer.Ordinal);

    /// <summary>The first minute at which a heated capacity can be at a heat, if nothing else is done with it.</summary>
    /// <param name="name">The capacity.</param>
    /// <param name="celsius">The heat.</param>
    public int WarmBy(string name, int celsius)
    {
        if (!Warm.TryGetValue(name, out var stands)) return Now + WarmUp.FromCold(celsius);
        var isNear = Math.Abs(stands.Celsius - celsius) <= Heated.GetValueOrDefault(name);
        return Math.Max(Now, stands.From) + (isNear ? 0 : WarmUp.Between(stands.Celsius, celsius));
    }

    private const int LongestTask = 10_080, MostOfACapacity = 10_000, MostModes = 24;

    /// <summary>What is wrong with it: names not known, loops, more needed than there is.</summary>
    public IReadOnlyList<Problem> Problems()
    {
        if (Tasks.Count > MostTasks) return [new("tasks-many", "tasks", $"A day holds up to {MostTasks} tasks.")];
        var problems = new List<Problem>();
        foreach (var (name, count) in Capacities.Where(pair => pair.Value is < 0 or > MostOfACapacity))
            problems.Add(new("capacity-absurd", $"capacities.{name}", $"Of {name} there can be 0 to {MostOfACapacity}, not {count}."));
        var ids = new HashSet<string>(StringComparer.Ordinal);
        foreach (var task in Tasks.Where(task => !ids.Add(task.Id)))
            problems.Add(new("task-twice", "tasks", $"Two tasks are called {task.Id}."));
        for (var i = 0; i < Tasks.Count; i++) problems.AddRange(ProblemsOf(Tasks[i], i, ids));
        if (problems.Count == 0 && Loop() is { } loop)
            problems.Add(new("tasks-loop", "tasks", $"These wait for each other in a circle: {string.Join(" → ", loop)}."));
        return problems;
    }

    private IEnumerable<Problem> ProblemsOf(ScheduleTask task, int i, HashSet<string> ids)
    {
        if (task.Modes.Count is 0 or > MostModes)
            yield return new("modes-many", $"tasks[{i}]", $"{task.Id} has no way of being done, or too many.");
        foreach (var mode in task.Modes)
        {
            if (mode.Minutes is < 0 or > LongestTask)
                yield return new(
                    "task-minutes", $"tasks[{i}].minutes", $"{task.Id} takes {mode.Minutes} minutes: 0 to {LongestTask} can be.");
            foreach (var (name, units) in mode.Uses)
            {
                if (units < 0)
                    yield return new("uses-negative", $"tasks[{i}].uses", $"{task.Id} needs {units} of {name}: less than nothing.");
                if (!Capacities.TryGetValue(name, out var there))
                    yield return new("capacity-unknown", $"tasks[{i}].uses", $"{task.Id} needs {name}, which is not in the list.");
                else if (units > there)
                    yield return new("capacity-short", $"tasks[{i}].uses", $"{task.Id} needs {units} of {name}, and there is {there}.");
            }
        }

        foreach (var bond in task.After.Where(bond => !ids.Contains(bond.Id)))
            yield return new("task-unknown", $"tasks[{i}].after", $"{task.Id} comes after {bond.Id}, which is not in the list.");
    }

    // What is left when tasks without open predecessors are taken away again and again holds a loop.
    private List<string>? Loop()
    {
        HashSet<string> Before(ScheduleTask task) => task.After.Select(bond => bond.Id).ToHashSet(StringComparer.Ordinal);
        var open = Tasks.ToDictionary(task => task.Id, Before, StringComparer.Ordinal);
        for (var isLess = true; isLess;)
        {
            var free = open.Where(pair => !pair.Value.Any(open.ContainsKey)).Select(pair => pair.Key).ToList();
            isLess = free.Count > 0;
            foreach (var id in free) open.Remove(id);
        }

        if (open.Count == 0) return null;
        var path = new List<string> { open.Keys.First() };
        while (open[path[^1]].First(open.ContainsKey) is var next)
        {
            path.Add(next);
            if (path.IndexOf(next) is var first && first < path.Count - 1) return [.. path[first..].AsEnumerable().Reverse()];
        }

        return path;
    }
}

/// <summary>When a task begins, and in which of its ways it is done.</summary>
public sealed record PlacedTask(string Id, int Start, int End, int Mode);

/// <summary>A day laid out.</summary>
/// <param name="Tasks">Every task, in the problem's order.</param>
/// <param name="End">The minute the last one ends.</param>
/// <param name="Late">Minutes by which tasks miss when they are due, all together.</param>
/// <param name="Bound">No day ends before this minute, as far as proven; 0 where nothing is.</param>
/// <param name="IsProven">Whether no shorter day misses less.</param>
public sealed record LaidDay(IReadOnlyList<PlacedTask> Tasks, int End, int Late, int Bound, bool IsProven);

/// <summary>How long to look for a shorter day.</summary>
/// <param name="Seconds">Seconds at most; 0 for the first day that comes.</param>
/// <param name="Rounds">Rounds of the solver's own time, so that the same problem gives the same day twice; 0 for the best of some orders
/// alone; null for as long as there are seconds.</param>
public sealed record ScheduleEffort(double Seconds, int? Rounds = null);

/// <summary>Lays out a prep day as short as it can be.</summary>
public interface IPrepDayScheduler
{
    /// <summary>The shortest day found, the quietest of those.</summary>
    /// <param name="problem">One without problems.</param>
    /// <param name="effort">How long to look.</param>
    /// <param name="stop">Whoever asked has gone.</param>
    LaidDay Lay(ScheduleProblem problem, ScheduleEffort effort, CancellationToken stop);
}
