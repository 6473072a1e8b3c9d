namespace LivelyTern.Core.Cook.Schedule;

/// <summary>A day of which every task begins as soon as it can where nothing waits longer for that.</summary>
public static class NothingIdle
{
    /// <summary>
    /// The same day, no task later and none longer: one task after another begins sooner, in the same way of doing it, beside all others as
    /// they lie. One for which more tasks wait than it waits for itself stays: chopped hours before they are fried, onions only lie about.
    /// </summary>
    /// <param name="problem">The day's problem.</param>
    /// <param name="day">The day, with every task of the problem in the problem's order.</param>
    public static LaidDay Of(ScheduleProblem problem, LaidDay day)
    {
        ArgumentNullException.ThrowIfNull(problem);
        ArgumentNullException.ThrowIfNull(day);
        var tasks = problem.Tasks;
        var at = tasks.Index().ToDictionary(pair => pair.Item.Id, pair => pair.Index, StringComparer.Ordinal);
        var places = day.Tasks.ToArray();
        var waiting = new List<(int Later, TaskBond Bond)>[tasks.Count];
        for (var i = 0; i < tasks.Count; i++) waiting[i] = [];
        for (var i = 0; i < tasks.Count; i++)
            foreach (var bond in tasks[i].After) waiting[at[bond.Id]].Add((i, bond));
        for (var isMoved = true; isMoved;)
        {
            isMoved = false;
            foreach (var i in Enumerable.Range(0, tasks.Count).OrderBy(i => places[i].Start).ToList())
            {
                var (behind, before) = (waiting[i].Count(one => !one.Bond.IsAlone), tasks[i].After.Count(bond => !bond.IsAlone));
                if (behind > before || Sooner(i) is not { } start) continue;
                places[i] = places[i] with { Start = start, End = start + (places[i].End - places[i].Start) };
                isMoved = true;
            }
        }

        var late = tasks.Zip(places, (task, place) => task.Due is { } due ? Math.Max(0, place.End - due) : 0).Sum();
        var end = places.Select(place => place.End).DefaultIfEmpty(0).Max();
        return day with { Tasks = places, End = end, Late = late, Bound = Math.Min(day.Bound, end) };

        int? Sooner(int i)
        {
            var earliest = Math.Max(tasks[i].Earliest, problem.Now);
            foreach (var bond in tasks[i].After) earliest = Math.Max(earliest, places[at[bond.Id]].End + bond.Least);

            // What must follow it soon still does.
            var minutes = places[i].End - places[i].Start;
            foreach (var (later, bond) in waiting[i])
                if (bond.Most is { } most) earliest = Math.Max(earliest, places[later].Start - most - minutes);
            if (earliest >= places[i].Start) return null;
            var board = new TimeBoard(problem);
            for (var k = 0; k < tasks.Count; k++)
                if (k != i) board.Take(tasks[k].Modes[places[k].Mode], places[k].Start);
            return board.Earliest(tasks[i].Modes[places[i].Mode], earliest) is { } start && start < places[i].Start ? start : null;
        }
    }
}
