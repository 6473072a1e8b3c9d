namespace LivelyTern.Core.Cook.Schedule;

/// <summary>
/// A day laid out at once: of the tasks whose turn can come, the one with the longest chain still behind it is placed first, as early as it
/// goes. Then the same with the order shaken a little, and the shortest of them all is taken.
/// </summary>
public sealed class ListSchedule
{
    private const int MostMends = 60;
    private const long MostLast = 1_000_000_000;

    private readonly ScheduleProblem problem;
    private readonly Dictionary<string, int> indexOf;
    private readonly IReadOnlyList<ScheduleTask> tasks;
    private readonly long[] chain;
    private readonly List<(int Later, TaskBond Bond)>[] laterOf;

    /// <summary>Of a problem without problems.</summary>
    public ListSchedule(ScheduleProblem problem)
    {
        ArgumentNullException.ThrowIfNull(problem);
        (this.problem, tasks) = (problem, problem.Tasks);
        indexOf = tasks.Index().ToDictionary(pair => pair.Item.Id, pair => pair.Index, StringComparer.Ordinal);
        laterOf = [.. tasks.Select(_ => new List<(int, TaskBond)>())];
        for (var i = 0; i < tasks.Count; i++)
            foreach (var bond in tasks[i].After) laterOf[indexOf[bond.Id]].Add((i, bond));
        chain = Chains();
    }

    /// <summary>The day by the longest remaining chain alone; null where a task finds no place.</summary>
    public LaidDay? First() => Lay(chain);

    /// <summary>The day in an order that is known: what is named first is placed first, what is not named last.</summary>
    public LaidDay? InOrder(IReadOnlyList<string> order)
    {
        ArgumentNullException.ThrowIfNull(order);
        var known = new HashSet<string>(StringComparer.Ordinal);
        var places = order.Where(known.Add).Index().ToDictionary(pair => pair.Item, pair => pair.Index, StringComparer.Ordinal);
        long Priority(int i) => places.TryGetValue(tasks[i].Id, out var place) ? MostLast - place : chain[i];
        return Lay([.. Enumerable.Range(0, tasks.Count).Select(Priority)]);
    }

    /// <summary>The shortest of several days.</summary>
    /// <param name="tries">How many orders are tried.</param>
    /// <param name="share">Chance: a number from 0 to below 1, another each time.</param>
    /// <returns>The day that is late least and ends soonest; null where none was found.</returns>
    public LaidDay? Best(int tries, Func<double> share)
    {
        ArgumentNullException.ThrowIfNull(share);
        var best = First();
        for (var turn = 1; turn < tries; turn++)
        {
            var shaken = chain.Select(length => (long)((length * (1 + (0.6 * share()))) + (3 * share()))).ToArray();
            if (Lay(shaken) is { } day && (best is null || IsBetter(day, best))) best = day;
        }

        return best;
    }

    private static bool IsBetter(LaidDay one, LaidDay other) =>
        one.Late != other.Late ? one.Late < other.Late : one.End < other.End;

    // For each task the minutes from its start to the end of the longest chain behind it; what is due early is as urgent as though the
    // longest chain of all ended then.
    private long[] Chains()
    {
        var order = Order();
        order.Reverse();
        var length = new long[tasks.Count];
        var longest = 0L;
        foreach (var isDue in new[] { false, true })
        {
            foreach (var i in order)
            {
                var behind = laterOf[i].Select(later => later.Bond.Least + length[later.Later]).DefaultIfEmpty(0).Max();
                if (isDue && tasks[i].Due is { } due) behind = Math.Max(behind, longest - due + 1);
                length[i] = behind + tasks[i].Modes.Min(mode => mode.Minutes);
            }

            longest = length.DefaultIfEmpty(0).Max();
        }

        return length;
    }

    private List<int> Order()
    {
        var open = tasks.Select(task => task.After.Count).ToArray();
        var ready = new Queue<int>(Enumerable.Range(0, tasks.Count).Where(i => open[i] == 0));
        var order = new List<int>();
        while (ready.TryDequeue(out var i))
        {
            order.Add(i);
            foreach (var (later, _) in laterOf[i])
                if (--open[later] == 0) ready.Enqueue(later);
        }

        return order;
    }

    // Where a later task came too long after an earlier one, the earlier is held back and all is laid again.
    private LaidDay? Lay(long[] priority)
    {
        var notBefore = tasks.Select(task => task.Earliest).ToArray();
        for (var mend = 0; mend < MostMends; mend++)
        {
            if (Place(priority, notBefore) is not { } placed) return null;
            var isKept = true;
            for (var i = 0; i < tasks.Count; i++)
            {
                foreach (var bond in tasks[i].After)
                {
                    if (bond.Most is not { } most) continue;
                    var before = indexOf[bond.Id];
                    var over = placed[i].Start - placed[before].End - most;
                    if (over <= 0) continue;
                    notBefore[before] = Math.Max(notBefore[before], placed[before].Start + over);
                    isKept = false;
                }
            }

            if (!isKept) continue;
            var late = placed.Zip(tasks, (place, task) => task.Due is { } due ? Math.Max(0, place.End - due) : 0).Sum();
            return new(placed, placed.Length == 0 ? 0 : placed.Max(place => place.End), late, 0, false);
        }

        return null;
    }

    private PlacedTask[]? Place(long[] priority, int[] notBefore)
    {
        var open = tasks.Select(task => task.After.Count).ToArray();
        var placed = new PlacedTask[tasks.Count];
        var ready = new PriorityQueue<int, (long, int)>();
        var board = new TimeBoard(problem);
        for (var i = 0; i < tasks.Count; i++)
            if (open[i] == 0) ready.Enqueue(i, Rank(i));
        while (ready.TryDequeue(out var i, out _))
        {
            var earliest = notBefore[i];
            foreach (var bond in tasks[i].After) earliest = Math.Max(earliest, placed[indexOf[bond.Id]].End + bond.Least);
            PlacedTask? best = null;
            for (var m = 0; m < tasks[i].Modes.Count; m++)
            {
                var mode = tasks[i].Modes[m];
                if (board.Earliest(mode, earliest) is not { } start) continue;
                if (best is null || start + mode.Minutes < best.End) best = new(tasks[i].Id, start, start + mode.Minutes, m);
            }

            if (best is null) return null;
            board.Take(tasks[i].Modes[best.Mode], best.Start);
            placed[i] = best;
            foreach (var (later, _) in laterOf[i])
                if (--open[later] == 0) ready.Enqueue(later, Rank(later));
        }

        return placed;

        (long, int) Rank(int i) => (-priority[i], i);
    }
}
