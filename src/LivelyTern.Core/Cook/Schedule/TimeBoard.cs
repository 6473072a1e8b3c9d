using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Cook.Schedule;

/// <summary>What is taken of each capacity, minute by minute.</summary>
internal sealed class TimeBoard
{
    private const int Never = int.MaxValue / 4;

    private readonly ScheduleProblem problem;
    private readonly Dictionary<string, List<Stretch>> taken = new(StringComparer.Ordinal);

    public TimeBoard(ScheduleProblem problem)
    {
        this.problem = problem;
        foreach (var name in problem.Capacities.Keys) taken[name] = [];
        foreach (var time in problem.Taken)
        {
            if (!taken.TryGetValue(time.Capacity, out var list)) continue;
            list.Add(new(time.From, Math.Min(time.To, Never), time.Units, time.Celsius));
        }
    }

    private readonly record struct Stretch(int From, int To, int Units, int? Heat);

    /// <summary>The first minute from which it can be done; null where there is none.</summary>
    public int? Earliest(TaskMode mode, int from)
    {
        var start = from;
        for (var isMoved = true; isMoved;)
        {
            isMoved = false;
            foreach (var (name, units) in mode.Uses)
            {
                if (units == 0 || mode.Minutes == 0) continue;
                var heat = mode.Heat is { } heats && heats.TryGetValue(name, out var celsius) ? celsius : (int?)null;
                var free = Free(taken[name], name, units, heat, start, mode.Minutes);
                if (free >= Never) return null;
                if (free > start) (start, isMoved) = (free, true);
            }
        }

        return start;
    }

    public void Take(TaskMode mode, int start)
    {
        if (mode.Minutes == 0) return;
        foreach (var (name, units) in mode.Uses)
        {
            if (units == 0) continue;
            var heat = mode.Heat is { } heats && heats.TryGetValue(name, out var celsius) ? celsius : (int?)null;
            taken[name].Add(new(start, start + mode.Minutes, units, heat));
        }
    }

    private int Free(List<Stretch> list, string name, int units, int? heat, int from, int minutes)
    {
        var capacity = problem.Capacities[name];
        var start = from;
        if (heat is { } first && problem.Heated.ContainsKey(name)) start = Math.Max(from, problem.WarmBy(name, first));
        for (var isMoved = true; isMoved && start < Never;)
        {
            isMoved = false;
            var (peak, firstEnd) = (0, int.MaxValue);
            foreach (var stretch in list)
            {
                if (heat is { } own && stretch.Heat is { } other && problem.Heated.TryGetValue(name, out var apart)
                    && Math.Abs(own - other) > apart)
                {
                    if (start + minutes + WarmUp.Between(own, other) <= stretch.From) continue;
                    if (stretch.To + WarmUp.Between(other, own) <= start) continue;
                    (start, isMoved) = (stretch.To + WarmUp.Between(other, own), true);
                    break;
                }

                if (stretch.To <= start || stretch.From >= start + minutes) continue;
                firstEnd = Math.Min(firstEnd, stretch.To);

                // The most that is taken at once is reached where a stretch begins, or at the start.
                var at = Math.Max(stretch.From, start);
                var sum = 0;
                foreach (var beside in list)
                    if (beside.From <= at && beside.To > at) sum += beside.Units;
                peak = Math.Max(peak, sum);
            }

            if (isMoved) continue;
            if (peak + units > capacity) (start, isMoved) = (firstEnd, true);
        }

        return start;
    }
}
