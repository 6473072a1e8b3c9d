using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Cook.Schedule;

/// <summary>Why a task begins no sooner.</summary>
public enum WaitsFor
{
    /// <summary>Nothing: it begins as early as the day does, or as late as it likes.</summary>
    Nothing,

    /// <summary>The task before it in its dish.</summary>
    ItsTurn,

    /// <summary>Something that another task has.</summary>
    ACapacity,

    /// <summary>A stretch in which something is not to be had.</summary>
    AnHour,

    /// <summary>The oven, which warms up or cools down.</summary>
    Heat,
}

/// <summary>A link of the chain that sets the end of a day.</summary>
/// <param name="Id">The task.</param>
/// <param name="Because">Why it begins no sooner.</param>
/// <param name="Capacity">Of which capacity, where it waits for one.</param>
public sealed record ChainLink(string Id, WaitsFor Because, string? Capacity);

/// <summary>The chain of tasks that sets when a day ends: shorten one of them, or part two of them, and the day may end sooner.</summary>
public static class LongestChain
{
    /// <summary>The chain, from its first task to the last of the day.</summary>
    /// <param name="problem">The day's problem.</param>
    /// <param name="day">The day laid out.</param>
    /// <param name="last">The task it ends with; null for the one that ends last.</param>
    public static IReadOnlyList<ChainLink> Of(ScheduleProblem problem, LaidDay day, string? last = null)
    {
        ArgumentNullException.ThrowIfNull(problem);
        ArgumentNullException.ThrowIfNull(day);
        if (day.Tasks.Count == 0) return [];
        var placed = day.Tasks.Index().ToDictionary(pair => pair.Item.Id, pair => pair.Item, StringComparer.Ordinal);
        var tasks = problem.Tasks.ToDictionary(task => task.Id, StringComparer.Ordinal);
        var at = last is not null && placed.TryGetValue(last, out var named) ? named : day.Tasks.MaxBy(task => task.End)!;
        var chain = new List<ChainLink>();
        if (!LeadsBack(at, [])) OneWayBack(at);
        chain.Reverse();
        return chain;

        // Of all that lets go where a task begins, only some goes back to where nothing need wait: the rest might as well begin sooner.
        bool LeadsBack(PlacedTask one, HashSet<string> been)
        {
            if (!been.Add(one.Id)) return false;
            foreach (var (because, capacity, before) in Holds(one))
            {
                chain.Add(new(one.Id, because, capacity));
                if (before is null || LeadsBack(before, been)) return true;
                chain.RemoveAt(chain.Count - 1);
            }

            return false;
        }

        void OneWayBack(PlacedTask one)
        {
            var been = new HashSet<string>(StringComparer.Ordinal);
            for (PlacedTask? next = one; next is not null && been.Add(next.Id);)
            {
                var (because, capacity, before) = Holds(next).FirstOrDefault((WaitsFor.Nothing, null, null));
                chain.Add(new(next.Id, because, capacity));
                next = before;
            }
        }

        IEnumerable<(WaitsFor Because, string? Capacity, PlacedTask? Before)> Holds(PlacedTask one)
        {
            foreach (var bond in tasks[one.Id].After.OrderByDescending(bond => placed[bond.Id].End))
                if (placed[bond.Id].End + bond.Least == one.Start) yield return (WaitsFor.ItsTurn, null, placed[bond.Id]);
            var mode = tasks[one.Id].Modes[one.Mode];
            foreach (var other in day.Tasks.Where(other => other.End <= one.Start && other.End > other.Start)
                .OrderByDescending(other => other.End))
            {
                var theirs = tasks[other.Id].Modes[other.Mode];
                foreach (var (name, units) in mode.Uses)
                {
                    if (units == 0 || !theirs.Uses.TryGetValue(name, out var has) || has == 0) continue;
                    if (other.End == one.Start && IsFull(name, one.Start - 1, units)) yield return (WaitsFor.ACapacity, name, other);
                    if (HeatOf(mode, name) is { } to && HeatOf(theirs, name) is { } from && problem.Heated.TryGetValue(name, out var apart)
                        && Math.Abs(to - from) > apart && other.End + WarmUp.Between(from, to) == one.Start)
                        yield return (WaitsFor.Heat, name, other);
                }
            }

            foreach (var time in problem.Taken.Where(time => time.To == one.Start && time.To > time.From))
                if (mode.Uses.GetValueOrDefault(time.Capacity) > 0) yield return (WaitsFor.AnHour, time.Capacity, null);
            foreach (var (name, celsius) in mode.Heat?.AsEnumerable() ?? [])
            {
                if (problem.Heated.ContainsKey(name) && problem.WarmBy(name, celsius) == one.Start)
                    yield return (WaitsFor.Heat, name, null);
            }

            if (one.Start <= Math.Max(tasks[one.Id].Earliest, problem.Now)) yield return (WaitsFor.Nothing, null, null);
        }

        bool IsFull(string name, int minute, int units)
        {
            var sum = units;
            foreach (var other in day.Tasks.Where(other => other.Start <= minute && other.End > minute))
                sum += tasks[other.Id].Modes[other.Mode].Uses.GetValueOrDefault(name);
            foreach (var time in problem.Taken.Where(time => time.From <= minute && time.To > minute))
                if (string.Equals(time.Capacity, name, StringComparison.Ordinal)) sum += time.Units;
            return sum > problem.Capacities[name];
        }
    }

    private static int? HeatOf(TaskMode mode, string name) =>
        mode.Heat is { } heat && heat.TryGetValue(name, out var celsius) ? celsius : null;
}
