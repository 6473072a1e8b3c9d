using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Cook.Run;

/// <summary>What a run is laid out from.</summary>
/// <param name="Dishes">What is cooked.</param>
/// <param name="Kitchen">With what.</param>
/// <param name="Wishes">By whom, when; it begins when the run began.</param>
/// <param name="Times">How long it took these cooks before.</param>
public sealed record DayToCook(
    IReadOnlyList<PrepDish> Dishes, KitchenEquipment Kitchen, PrepDayWishes Wishes, OwnTimes Times);

/// <summary>
/// What is left of a run, laid out anew: what is done is done, what goes on goes on, and all else comes after this minute. As long as
/// nothing happens the order stays as it was, so that the next thing to do is not another one each minute; when something happens, another
/// order is taken where it ends the day sooner.
/// </summary>
public sealed class RestOfRun
{
    // An order is changed for no less than this: a cook who was told what comes next is told something else.
    private const int WorthIt = 3;

    // Out of use for so long an oven was turned off.
    private const int StaysWarm = 30;

    private readonly Dictionary<string, BegunTask> begun;

    private RestOfRun(PrepDayTasks tasks, RunSoFar run)
    {
        Tasks = tasks;
        begun = Matched(tasks, run.Begun);
        Problem = ProblemOf(run);
    }

    /// <summary>All tasks of the day as it stands now.</summary>
    public PrepDayTasks Tasks { get; }

    /// <summary>What is left of it; minutes are counted from the beginning of the run.</summary>
    public ScheduleProblem Problem { get; }

    /// <summary>What is left, at its times.</summary>
    public LaidDay Day { get; private set; } = new([], 0, 0, 0, false);

    /// <summary>Minutes that the cook who leaves last would have to stay longer.</summary>
    public int Overtime { get; private set; }

    /// <summary>What is begun of the day's tasks as they stand now, by their names.</summary>
    public IReadOnlyDictionary<string, BegunTask> Begun => begun;

    /// <summary>Lays out the rest of a run.</summary>
    /// <param name="day">The day as it stands now.</param>
    /// <param name="run">How far it has come.</param>
    /// <param name="order">The order in which it was laid out before.</param>
    /// <param name="lay">Lays out a day, where another order may be taken; null to keep the order.</param>
    public static RestOfRun Of(
        DayToCook day, RunSoFar run, IReadOnlyList<string> order, Func<ScheduleProblem, LaidDay>? lay = null)
    {
        ArgumentNullException.ThrowIfNull(day);
        ArgumentNullException.ThrowIfNull(run);
        var rest = Lay(day.Wishes);
        if (rest.Day.Tasks.Count == rest.Problem.Tasks.Count) return rest;

        // The hours of the cooks are too short for what is left: it is shown how much.
        rest = Lay(day.Wishes.WithoutAnEnd());
        rest.Overtime = day.Wishes.Overtime(rest.LastHands(run.Now));
        return rest;

        RestOfRun Lay(PrepDayWishes wishes)
        {
            var tasks = PrepDayTasks.Of(day.Dishes, day.Kitchen, wishes, day.Times, run.BegunPreparations);
            var left = new RestOfRun(tasks, run);
            var kept = new ListSchedule(left.Problem).InOrder(order) ?? new ListSchedule(left.Unhurried).InOrder(order);
            if (lay?.Invoke(left.Problem) is { } other && other.Tasks.Count == left.Problem.Tasks.Count
                && (kept is null || IsWorthIt(other, kept))) kept = other;
            left.Day = kept ?? left.Day;
            return left;
        }
    }

    // Where what must follow soon can't any more, it follows all the same.
    private ScheduleProblem Unhurried => Problem with
    {
        Tasks = [.. Problem.Tasks.Select(task => task with { After = [.. task.After.Select(bond => bond with { Most = null })] })],
    };

    private int LastHands(int now)
    {
        var isHandsOn = Tasks.Tasks.Where(task => task.IsHandsOn).Select(task => task.Id).ToHashSet(StringComparer.Ordinal);
        return Day.Tasks.Where(place => isHandsOn.Contains(place.Id)).Select(place => place.End).Append(now).Max();
    }

    private static bool IsWorthIt(LaidDay other, LaidDay kept) =>
        other.Late != kept.Late ? other.Late <= kept.Late - WorthIt : other.End <= kept.End - WorthIt;

    /// <summary>
    /// What of its dishes nobody has begun although it comes before a task: whoever begins that one has done it. What goes on before it,
    /// has ended. Whoever begins to wash up has not packed everything.
    /// </summary>
    /// <param name="id">The task.</param>
    public IReadOnlyList<string> Before(string id)
    {
        var found = new List<string>();
        var told = Tasks.Tasks.ToDictionary(task => task.Id, StringComparer.Ordinal);
        bool IsOfIt(PrepTask task) => told[id].Dishes.Count > 0 && (task.Dishes.Count == 0 || task.Dishes.Any(told[id].Dishes.Contains));
        var all = Tasks.Problem.Tasks.ToDictionary(task => task.Id, StringComparer.Ordinal);
        var open = new Queue<string>([id]);
        while (open.TryDequeue(out var at))
        {
            foreach (var bond in all[at].After)
            {
                if (found.Contains(bond.Id) || !IsOfIt(told[bond.Id])) continue;
                if (begun.TryGetValue(bond.Id, out var one) && one.End is not null) continue;
                found.Add(bond.Id);
                open.Enqueue(bond.Id);
            }
        }

        return found;
    }

    /// <summary>
    /// What begins by itself when some tasks are done: the next thing for a cook's hands, and what goes into the oven or onto its ring now.
    /// </summary>
    /// <param name="now">The minute it is.</param>
    /// <param name="done">The tasks that were just done, or passed over; null where the run begins.</param>
    public IReadOnlyList<string> BeginNow(int now, IReadOnlySet<string>? done = null)
    {
        var tasks = Problem.Tasks.Zip(Day.Tasks, (task, place) => (task, place, Mode: task.Modes[place.Mode])).ToList();
        var isHandsOn = Tasks.Tasks.ToDictionary(task => task.Id, task => task.IsHandsOn, StringComparer.Ordinal);
        var free = done?.Where(begun.ContainsKey).SelectMany(id => CooksOf(begun[id].Mode)).ToHashSet(StringComparer.Ordinal);
        var busy = BusyCooks();
        var after = Tasks.Problem.Tasks.Where(task => task.After.Any(bond => done?.Contains(bond.Id) == true)).Select(task => task.Id)
            .ToHashSet(StringComparer.Ordinal);
        var begins = new List<string>();
        foreach (var (task, place, mode) in tasks.Where(one => one.place.Start <= now).OrderBy(one => one.place.Start))
        {
            if (!isHandsOn[task.Id])
            {
                if (after.Contains(task.Id)) begins.Add(task.Id);
                continue;
            }

            var cooks = CooksOf(mode).ToList();
            var isNext = free is null || cooks.TrueForAll(free.Contains) || after.Contains(task.Id);
            if (!isNext || cooks.Exists(busy.Contains)) continue;
            busy.UnionWith(cooks);
            begins.Add(task.Id);
        }

        return begins;
    }

    /// <summary>What is to be begun now: its minute has come, and the hands it needs are free.</summary>
    /// <param name="now">The minute it is.</param>
    public IReadOnlySet<string> DueNow(int now)
    {
        var busy = BusyCooks();
        return Problem.Tasks.Zip(Day.Tasks)
            .Where(one => one.Second.Start <= now && !CooksOf(one.First.Modes[one.Second.Mode]).Any(busy.Contains))
            .Select(one => one.Second.Id).ToHashSet(StringComparer.Ordinal);
    }

    private HashSet<string> BusyCooks() =>
        begun.Values.Where(one => one.End is null).SelectMany(one => CooksOf(one.Mode)).ToHashSet(StringComparer.Ordinal);

    private static IEnumerable<string> CooksOf(TaskMode mode) =>
        mode.Uses.Keys.Where(name => name.StartsWith("cook:", StringComparison.Ordinal));

    // By its name; a step whose sentence was mended meanwhile, by its place and its verb.
    private static Dictionary<string, BegunTask> Matched(PrepDayTasks tasks, IReadOnlyList<BegunTask> begun)
    {
        var found = new Dictionary<string, BegunTask>(StringComparer.Ordinal);
        var names = tasks.Tasks.Select(task => task.Id).ToHashSet(StringComparer.Ordinal);
        foreach (var one in begun.Where(one => names.Contains(one.Task.Id))) found.TryAdd(one.Task.Id, one);
        foreach (var one in begun.Where(one => one.Task.Kind == PrepKind.Step && !names.Contains(one.Task.Id)))
        {
            bool IsIt(PrepTask task) =>
                task.Kind == PrepKind.Step && task.Step == one.Task.Step && task.Dishes.SequenceEqual(one.Task.Dishes)
                && string.Equals(task.Verb, one.Task.Verb, StringComparison.Ordinal) && !found.ContainsKey(task.Id);
            if (tasks.Tasks.FirstOrDefault(IsIt) is { } mended) found.Add(mended.Id, one);
        }

        return found;
    }

    private ScheduleProblem ProblemOf(RunSoFar run)
    {
        var now = run.Now;
        var whole = Tasks.Problem;
        return whole with
        {
            Tasks = [.. whole.Tasks.Where(task => !begun.ContainsKey(task.Id)).Select(task => Left(task, now))],
            Taken = [.. whole.Taken, .. begun.Values.Where(one => one.End is null).SelectMany(one => TakenBy(one, now))],
            Now = now,
            Warm = Warm(run),
        };
    }

    // What comes after something that is begun waits for its end; what must follow it within so many minutes is late after them.
    private ScheduleTask Left(ScheduleTask task, int now)
    {
        var (earliest, due) = (Math.Max(task.Earliest, now), task.Due);
        var bonds = Bonds(task);
        foreach (var bond in bonds)
        {
            if (!begun.TryGetValue(bond.Id, out var before)) continue;
            var end = before.ExpectedEnd(now);
            earliest = Math.Max(earliest, end + bond.Least);
            if (bond.Most is { } most)
                due = Math.Min(due ?? int.MaxValue, end + most + task.Modes.Min(mode => mode.Minutes));
        }

        return task with { After = [.. bonds.Where(bond => !begun.ContainsKey(bond.Id))], Earliest = earliest, Due = due };
    }

    // What is passed over holds nothing up; what comes before it still does.
    private List<TaskBond> Bonds(ScheduleTask task)
    {
        var all = Tasks.Problem.Tasks.ToDictionary(one => one.Id, StringComparer.Ordinal);
        var (found, been) = (new List<TaskBond>(), new HashSet<string>(StringComparer.Ordinal));
        var open = new Queue<TaskBond>(task.After);
        while (open.TryDequeue(out var bond))
        {
            if (!been.Add(bond.Id)) continue;
            if (!begun.TryGetValue(bond.Id, out var one) || !one.IsSkipped) found.Add(bond);
            else foreach (var before in all[bond.Id].After) open.Enqueue(new(before.Id));
        }

        return found;
    }

    private static IEnumerable<TakenTime> TakenBy(BegunTask one, int now)
    {
        foreach (var (name, units) in one.Mode.Uses.Where(use => use.Value > 0))
        {
            var celsius = one.Mode.Heat is { } heat && heat.TryGetValue(name, out var at) ? at : (int?)null;
            yield return new(name, now, one.ExpectedEnd(now), units, celsius);
        }
    }

    // The last that an oven was used for, or turned to.
    private Dictionary<string, StandsAt> Warm(RunSoFar run)
    {
        var warm = new Dictionary<string, StandsAt>(StringComparer.Ordinal);
        foreach (var oven in Tasks.Problem.Heated.Keys)
        {
            bool Baked(BegunTask one) =>
                one is { IsSkipped: false, Start: not null } && one.Mode.Heat?.ContainsKey(oven) == true
                && one.ExpectedEnd(run.Now) + StaysWarm > run.Now;
            bool IsThis(TurnedOn one) => string.Equals(one.Oven, oven, StringComparison.Ordinal);

            // Turned to another heat while it is hot, it has only that far to go.
            StandsAt Turned(TurnedOn one)
            {
                bool WasHot(BegunTask before) =>
                    before is { IsSkipped: false, Start: { } start } && before.Mode.Heat?.ContainsKey(oven) == true && start <= one.At
                    && before.ExpectedEnd(run.Now) + StaysWarm > one.At;
                var baked = run.Begun.Where(WasHot).MaxBy(before => before.Start);
                var minutes = baked is null ? WarmUp.FromCold(one.Celsius) : WarmUp.Between(baked.Mode.Heat![oven], one.Celsius);
                return new(one.At + minutes, one.Celsius);
            }

            var used = run.Begun.Where(Baked).Select(one => new StandsAt(one.Start!.Value, one.Mode.Heat![oven]));
            var turned = run.Ovens.Where(IsThis).Select(Turned).Where(stands => stands.From + StaysWarm > run.Now);
            if (used.Concat(turned).MaxBy(stands => stands.From) is { } last) warm[oven] = last;
        }

        return warm;
    }
}
