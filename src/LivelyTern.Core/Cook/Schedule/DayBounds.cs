namespace LivelyTern.Core.Cook.Schedule;

/// <summary>How short a day can be at best, as told without laying it out: its longest chain, and the work of each capacity.</summary>
public static class DayBounds
{
    /// <summary>A minute before which no day of this problem ends.</summary>
    public static int Of(ScheduleProblem problem)
    {
        ArgumentNullException.ThrowIfNull(problem);
        return Math.Max(Chain(problem), problem.Capacities.Select(pair => Work(problem, pair.Key, pair.Value)).DefaultIfEmpty(0).Max());
    }

    private static int Chain(ScheduleProblem problem)
    {
        var ends = new Dictionary<string, int>(StringComparer.Ordinal);
        var open = problem.Tasks.ToList();
        while (open.Count > 0)
        {
            var ready = open.Where(task => task.After.All(bond => ends.ContainsKey(bond.Id))).ToList();
            if (ready.Count == 0) return 0;
            foreach (var task in ready)
            {
                var start = task.After.Select(bond => ends[bond.Id] + bond.Least).Append(task.Earliest).Max();
                ends[task.Id] = start + task.Modes.Min(mode => mode.Minutes);
            }

            open.RemoveAll(ready.Contains);
        }

        return ends.Values.DefaultIfEmpty(0).Max();
    }

    // All that must pass through a capacity, spread over what there is of it at each time.
    private static int Work(ScheduleProblem problem, string name, int capacity)
    {
        var work = problem.Tasks.Sum(task => task.Modes.Min(mode => (long)mode.Minutes * mode.Uses.GetValueOrDefault(name)));
        if (work == 0 || capacity == 0) return 0;
        var taken = problem.Taken.Where(time => string.Equals(time.Capacity, name, StringComparison.Ordinal)).ToList();
        var turns = taken.SelectMany(time => new[] { time.From, time.To }).Where(at => at > 0).Distinct().Order().ToList();
        var from = 0;
        foreach (var to in turns.Append(int.MaxValue))
        {
            var free = Math.Max(0, capacity - taken.Where(time => time.From <= from && time.To > from).Sum(time => time.Units));
            if (free > 0)
            {
                var needed = (work + free - 1) / free;
                if (from + needed <= to) return (int)(from + needed);
                work -= (long)free * (to - from);
            }

            from = to;
        }

        return 0;
    }
}
