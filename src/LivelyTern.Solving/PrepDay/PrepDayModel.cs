using Google.OrTools.Sat;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Solving.PrepDay;

/// <summary>A prep day as CP-SAT takes it: a start for each task, an interval for each way of doing it, one method a rule.</summary>
internal sealed class PrepDayModel
{
    // A minute late counts as much as this many minutes of a longer day.
    private const long Lateness = 100;

    private readonly ScheduleProblem problem;
    private readonly IReadOnlyList<ScheduleTask> tasks;
    private readonly Dictionary<string, int> indexOf;
    private readonly int horizon;
    private readonly LaidDay known;
    private readonly IntVar[] starts;
    private readonly IntVar[] ends;
    private readonly BoolVar[][] chosen;
    private readonly IntervalVar[][] spans;
    private readonly IntVar end;
    private LinearExpr late = LinearExpr.Constant(0);

    /// <summary>The model, with a day known so far: none longer is looked for.</summary>
    public PrepDayModel(ScheduleProblem problem, LaidDay known)
    {
        (this.problem, this.known, tasks) = (problem, known, problem.Tasks);

        // To be less late a day may be longer.
        horizon = known.Late > 0 ? known.End * 2 : known.End;
        indexOf = tasks.Index().ToDictionary(pair => pair.Item.Id, pair => pair.Index, StringComparer.Ordinal);
        starts = [.. tasks.Select(task => Model.NewIntVar(task.Earliest, horizon, $"start {task.Id}"))];
        ends = [.. tasks.Select(task => Model.NewIntVar(0, horizon, $"end {task.Id}"))];
        chosen = [.. tasks.Select(task => task.Modes.Select((_, m) => Model.NewBoolVar($"{task.Id} way {m}")).ToArray())];
        spans = [.. tasks.Select((task, i) => task.Modes.Select((mode, m) => Span(i, m, mode.Minutes)).ToArray())];
        end = Model.NewIntVar(known.Bound, horizon, "end of the day");
        Model.AddMaxEquality(end, ends);
        OneWayEach();
        InTheirOrder();
        NothingOverItsCapacity();
        OneHeatAtATime();
        Due();
        BeginFromTheKnownDay();
    }

    public CpModel Model { get; } = new();

    /// <summary>The shortest day; what is late counts first.</summary>
    public void MinimiseTheEnd() => Model.Minimize((late * Lateness) + end);

    /// <summary>Of days no longer and no later than the one known, that with the least waiting between the steps of a dish.</summary>
    public void MinimiseTheWaiting()
    {
        Model.Add(late <= known.Late);
        Model.Add(end <= known.End);
        var waits = tasks.SelectMany((task, i) =>
            task.After.Where(bond => !bond.IsAlone).Select(bond => starts[i] - ends[indexOf[bond.Id]]));
        Model.Minimize((LinearExpr.Sum(waits) * 2) + LinearExpr.Sum(ends));
    }

    /// <summary>A bound of the goal as a bound of the end alone: what is late takes none away only where nothing need be late.</summary>
    public int EndBound(long goal) => known.Late == 0 ? (int)Math.Clamp(goal, 0, horizon) : known.Bound;

    /// <summary>The day that the solver's values say.</summary>
    public LaidDay Read(Func<IntVar, long> value)
    {
        var placed = tasks.Select((task, i) => new PlacedTask(
            task.Id, (int)value(starts[i]), (int)value(ends[i]), Array.FindIndex(chosen[i], way => value(way) == 1))).ToList();
        var tardy = placed.Zip(tasks, (place, task) => task.Due is { } due ? Math.Max(0, place.End - due) : 0).Sum();
        return new(placed, placed.Max(place => place.End), tardy, known.Bound, known.IsProven);
    }

    private IntervalVar Span(int i, int m, int minutes)
    {
        Model.Add(ends[i] == starts[i] + minutes).OnlyEnforceIf(chosen[i][m]);
        return Model.NewOptionalFixedSizeIntervalVar(starts[i], minutes, chosen[i][m], $"{tasks[i].Id} span {m}");
    }

    private void OneWayEach()
    {
        foreach (var ways in chosen) Model.AddExactlyOne(ways);
    }

    private void InTheirOrder()
    {
        for (var i = 0; i < tasks.Count; i++)
        {
            foreach (var bond in tasks[i].After)
            {
                var before = ends[indexOf[bond.Id]];
                Model.Add(starts[i] >= before + bond.Least);
                if (bond.Most is { } most) Model.Add(starts[i] <= before + most);
            }
        }
    }

    private void NothingOverItsCapacity()
    {
        foreach (var (name, capacity) in problem.Capacities)
        {
            var users = Modes(mode => mode.Minutes == 0 ? 0 : mode.Uses.GetValueOrDefault(name)).Where(user => user.What > 0).ToList();
            if (users.Count == 0) continue;
            var cumulative = Model.AddCumulative(capacity);
            foreach (var (i, m, units) in users) cumulative.AddDemand(spans[i][m], units);
            foreach (var time in problem.Taken.Where(time => time.From < horizon && time.To > time.From))
            {
                if (!string.Equals(time.Capacity, name, StringComparison.Ordinal)) continue;
                var minutes = Math.Min(time.To, horizon + 1) - time.From;
                cumulative.AddDemand(Model.NewFixedSizeIntervalVar(time.From, minutes, "not to be had"), Math.Min(time.Units, capacity));
            }
        }
    }

    private IEnumerable<(int Task, int Mode, T What)> Modes<T>(Func<TaskMode, T> what) =>
        tasks.SelectMany((task, i) => task.Modes.Select((mode, m) => (i, m, what(mode))));

    private void OneHeatAtATime()
    {
        foreach (var (name, apart) in problem.Heated)
        {
            var users = Modes(mode => HeatOf(mode, name)).Where(user => user.What is not null)
                .Select(user => (i: user.Task, m: user.Mode, Heat: user.What!.Value)).ToList();
            foreach (var (i, m, heat) in users)
            {
                Model.Add(starts[i] >= problem.WarmBy(name, heat)).OnlyEnforceIf(chosen[i][m]);
                BesideWhatIsIn(name, apart, i, m, heat);
            }

            for (var a = 0; a < users.Count; a++)
            {
                for (var b = a + 1; b < users.Count; b++)
                {
                    var (one, other) = (users[a], users[b]);
                    if (one.i == other.i || Math.Abs(one.Heat - other.Heat) <= apart) continue;
                    var isFirst = Model.NewBoolVar($"{name}: {tasks[one.i].Id} before {tasks[other.i].Id}");
                    ILiteral[] both = [chosen[one.i][one.m], chosen[other.i][other.m]];
                    Model.Add(starts[other.i] >= ends[one.i] + WarmUp.Between(one.Heat, other.Heat))
                        .OnlyEnforceIf([.. both, isFirst]);
                    Model.Add(starts[one.i] >= ends[other.i] + WarmUp.Between(other.Heat, one.Heat))
                        .OnlyEnforceIf([.. both, isFirst.Not()]);
                }
            }
        }
    }

    // What bakes already is at its own heat.
    private void BesideWhatIsIn(string name, int apart, int i, int m, int heat)
    {
        foreach (var time in problem.Taken)
        {
            var isOther = time.Celsius is { } celsius && Math.Abs(celsius - heat) > apart;
            if (!isOther || !string.Equals(time.Capacity, name, StringComparison.Ordinal)) continue;
            var isBefore = Model.NewBoolVar($"{name}: {tasks[i].Id} before what is in it");
            Model.Add(ends[i] + WarmUp.Between(heat, time.Celsius!.Value) <= time.From).OnlyEnforceIf([chosen[i][m], isBefore]);
            Model.Add(starts[i] >= time.To + WarmUp.Between(time.Celsius!.Value, heat))
                .OnlyEnforceIf([chosen[i][m], isBefore.Not()]);
        }
    }

    private static int? HeatOf(TaskMode mode, string name) =>
        mode is { Minutes: > 0, Heat: { } heat } && mode.Uses.GetValueOrDefault(name) > 0 && heat.TryGetValue(name, out var celsius)
            ? celsius
            : null;

    private void Due()
    {
        var tardy = new List<IntVar>();
        for (var i = 0; i < tasks.Count; i++)
        {
            if (tasks[i].Due is not { } due) continue;
            var over = Model.NewIntVar(0, Math.Max(0, horizon - due), $"late {tasks[i].Id}");
            Model.Add(over >= ends[i] - due);
            tardy.Add(over);
        }

        if (tardy.Count > 0) late = LinearExpr.Sum(tardy);
    }

    private void BeginFromTheKnownDay()
    {
        foreach (var place in known.Tasks)
        {
            var i = indexOf[place.Id];
            Model.AddHint(starts[i], place.Start);
            Model.AddHint(ends[i], place.End);
            for (var m = 0; m < chosen[i].Length; m++) Model.AddHint(chosen[i][m], m == place.Mode);
        }
    }
}
