using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Recipes.Steps;
using LivelyTern.Solving.PrepDay;

namespace LivelyTern.Solving.Tests;

/// <summary>The prep day: against a published problem, against all orders of small days, and nothing ever over what there is.</summary>
public class PrepDayTests
{
    private static readonly ScheduleEffort Effort = new(120, 100);
    private static readonly Dictionary<string, int> NoHeat = [];

    private static LaidDay Lay(ScheduleProblem problem) => new CpSatPrepDayScheduler().Lay(problem, Effort, CancellationToken.None);

    private static ScheduleTask Task(string id, int minutes, Dictionary<string, int> uses, params TaskBond[] after) => new(
        id,
        [new(minutes, uses)],
        after);

    /// <summary>Six jobs on six machines: the shortest makespan is 55 (Fisher and Thompson, 1963).</summary>
    [Fact]
    public void Six_jobs_on_six_machines_take_55()
    {
        string[] rows =
        [
            "2 1 0 3 1 6 3 7 5 3 4 6", "1 8 2 5 4 10 5 10 0 10 3 4", "2 5 3 4 5 8 0 9 1 1 4 7", "1 5 0 5 2 5 3 3 4 8 5 9",
            "2 9 1 3 4 5 5 4 0 3 3 1", "1 3 3 3 5 9 0 10 4 4 2 1",
        ];
        var tasks = rows.SelectMany((row, job) => row.Split(' ').Select(int.Parse).Chunk(2).Select((pair, at) => Task(
            $"{job}.{at}", pair[1], new() { [$"m{pair[0]}"] = 1 }, at == 0 ? [] : [new($"{job}.{at - 1}")]))).ToList();
        var problem = new ScheduleProblem(tasks, Enumerable.Range(0, 6).ToDictionary(m => $"m{m}", _ => 1), [], NoHeat);
        var day = Lay(problem);
        Assert.Equal((55, 55, true), (day.End, day.Bound, day.IsProven));
        Check(problem, day);
    }

    /// <summary>A four-hour soup and ninety minutes of hands-on work end together only if the soup starts at once (common practice, no published source).</summary>
    [Fact]
    public void The_slow_cooker_goes_on_first()
    {
        var tasks = new List<ScheduleTask> { Task("soup", 240, new() { ["slow cooker"] = 1 }, new TaskBond("fill")),
            Task("fill", 5, new() { ["hands"] = 1 }) };
        tasks.AddRange(Enumerable.Range(0, 9).Select(i => Task($"work {i}", 10, new() { ["hands"] = 1 })));
        var day = Lay(new(tasks, new Dictionary<string, int> { ["hands"] = 1, ["slow cooker"] = 1 }, [], NoHeat));
        Assert.Equal((245, 0, true), (day.End, day.Tasks.Single(task => task.Id == "fill").Start, day.IsProven));
    }

    private static ScheduleTask Baked(string id, int minutes, int celsius) =>
        new(id, [new(minutes, new Dictionary<string, int> { ["oven"] = 1 }, new Dictionary<string, int> { ["oven"] = celsius })], []);

    /// <summary>Two dishes at one temperature bake together: 190 °C, 60 and 40 minutes (common practice, no published source).</summary>
    [Theory]
    [InlineData(190, 190, 0, 74)] // 14 minutes to warm up, then both
    [InlineData(190, 180, 10, 74)] // within what the cook allows
    [InlineData(190, 180, 0, 114)] // the cooler first: 13 to warm up, 40, 1 to the next heat, 60
    public void Dishes_share_the_oven_at_one_temperature(int one, int other, int apart, int end)
    {
        var problem = new ScheduleProblem(
            [Baked("pasta bake", 60, one), Baked("cake", 40, other)], new Dictionary<string, int> { ["oven"] = 2 }, [],
                new Dictionary<string, int> { ["oven"] = apart });
        var day = Lay(problem);
        Assert.Equal((end, true), (day.End, day.IsProven));
        Check(problem, day);
    }

    [Fact]
    public void Another_way_is_taken_where_it_fits_the_day_better()
    {
        var way = new TaskMode(35, new Dictionary<string, int> { ["oven"] = 1 });
        var fryer = new TaskMode(50, new Dictionary<string, int> { ["fryer"] = 1 });
        var problem = new ScheduleProblem(
            [new("a", [way, fryer], []), Task("b", 40, new() { ["oven"] = 1 })],
                new Dictionary<string, int> { ["oven"] = 1, ["fryer"] = 1 }, [], NoHeat);
        var day = Lay(problem);
        Assert.Equal((50, 1, true), (day.End, day.Tasks[0].Mode, day.IsProven));
    }

    /// <summary>Small days of any kind: as short as the best of all orders, and everything kept.</summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public void Small_days_are_as_short_as_the_best_of_all_orders(int seed)
    {
        var chance = new Random(seed);
        for (var turn = 0; turn < 12; turn++)
        {
            var problem = Any(chance, 5, withWays: false);
            var day = Lay(problem);
            Check(problem, day);
            Assert.True(day.IsProven);
            Assert.Equal(BestOfAllOrders(problem), day.End);
        }
    }

    /// <summary>Larger days: nothing over what there is, the order kept, the bound never above the end, the chain without a gap.</summary>
    [Theory]
    [InlineData(11)]
    [InlineData(12)]
    [InlineData(13)]
    public void Whatever_the_day_everything_is_kept(int seed)
    {
        var chance = new Random(seed);
        for (var turn = 0; turn < 6; turn++)
        {
            var problem = Any(chance, 26, withWays: true);
            var first = new CpSatPrepDayScheduler().Lay(problem, new(0), CancellationToken.None);
            var day = new CpSatPrepDayScheduler().Lay(problem, new(60, 6), CancellationToken.None);
            Check(problem, first);
            Check(problem, day);
            Assert.True(day.Late < first.Late || (day.Late == first.Late && day.End <= first.End));
            CheckChain(problem, day);
        }
    }

    /// <summary>A large day, of which the solver does not find the least waiting in its time: nothing waits that need not.</summary>
    [Theory]
    [InlineData(21)]
    [InlineData(22)]
    public void What_is_found_in_a_hurry_has_nothing_stand_idle(int seed)
    {
        var problem = Any(new(seed), 70, withWays: true);
        var day = new CpSatPrepDayScheduler().Lay(problem, new(60, 1), CancellationToken.None);
        Check(problem, day);
        Assert.True(NothingStandsIdle(problem, day));
    }

    // No task could begin a minute sooner without another waiting longer for it.
    private static bool NothingStandsIdle(ScheduleProblem problem, LaidDay day)
    {
        for (var i = 0; i < problem.Tasks.Count; i++)
        {
            var (task, place) = (problem.Tasks[i], day.Tasks[i]);
            var waiting = problem.Tasks.Count(other => other.After.Any(bond => bond.Id == task.Id));
            if (waiting > task.After.Count) continue;
            var sooner = day.Tasks.ToList();
            sooner[i] = place with { Start = place.Start - 1, End = place.End - 1 };
            var late = problem.Tasks.Zip(sooner, (one, at) => one.Due is { } due ? Math.Max(0, at.End - due) : 0).Sum();
            var end = sooner.Max(at => at.End);
            if (place.Start > 0 && IsKept(problem, new(sooner, end, late, Math.Min(day.Bound, end), false))) return false;
        }

        return true;

        static bool IsKept(ScheduleProblem problem, LaidDay day)
        {
            try
            {
                Check(problem, day);
                return true;
            }
            catch (Xunit.Sdk.XunitException)
            {
                return false;
            }
        }
    }

    // From what need not wait to what ends last, each where the one before it lets go.
    private static void CheckChain(ScheduleProblem problem, LaidDay day)
    {
        var chain = LongestChain.Of(problem, day);
        var at = day.Tasks.ToDictionary(place => place.Id);
        Assert.Equal(day.End, at[chain[^1].Id].End);
        foreach (var (before, link) in chain.Zip(chain.Skip(1)))
        {
            var least = problem.Tasks.Single(task => task.Id == link.Id).After.Where(bond => bond.Id == before.Id)
                .Select(bond => bond.Least).FirstOrDefault();
            var start = at[link.Id].Start;
            Assert.True(link.Because switch
            {
                WaitsFor.ItsTurn => start == at[before.Id].End + least,
                WaitsFor.ACapacity => start == at[before.Id].End,
                _ => start > at[before.Id].End,
            });
        }
    }

    /// <summary>
    /// What sets the end is followed back to where the day begins, and not into something that only happens to end there: 20 and 20 minutes
    /// of work, and a jelly that sets beside them, taken out of its form at last.
    /// </summary>
    [Fact]
    public void The_chain_goes_back_to_the_beginning_of_the_day()
    {
        var hands = new Dictionary<string, int> { ["hands"] = 1 };
        var problem = new ScheduleProblem(
            [
                Task("knead", 20, hands), Task("shape", 20, hands, new TaskBond("knead")), Task("set", 30, [], new TaskBond("pour")),
                Task("pour", 0, []), Task("serve", 10, hands, new TaskBond("set"), new TaskBond("shape")),
            ],
            new Dictionary<string, int> { ["hands"] = 1 }, [], NoHeat);
        LaidDay day = new(
            [new("knead", 0, 20, 0), new("shape", 20, 40, 0), new("set", 10, 40, 0), new("pour", 10, 10, 0), new("serve", 40, 50, 0)],
            50, 0, 50, true);
        Assert.Equal(["knead", "shape", "serve"], LongestChain.Of(problem, day).Select(link => link.Id));
    }

    [Fact]
    public void Hours_that_are_too_short_lay_nothing()
    {
        var problem = new ScheduleProblem(
            [Task("a", 30, new() { ["cook"] = 1 })], new Dictionary<string, int> { ["cook"] = 1 }, [new("cook", 20, int.MaxValue, 1)],
                NoHeat);
        Assert.Empty(Lay(problem).Tasks);
    }

    // Times are whole minutes, and a shortest day is one where each task begins at 0, when one ends or when a stretch ends; every order is tried, each task as early
    // as it goes.
    private static int BestOfAllOrders(ScheduleProblem problem)
    {
        var best = int.MaxValue;
        void Go(List<ScheduleTask> left, List<(ScheduleTask Task, int Start)> placed)
        {
            if (left.Count == 0)
            {
                best = Math.Min(best, placed.Max(one => one.Start + one.Task.Modes[0].Minutes));
                return;
            }

            foreach (var task in left.Where(task => task.After.All(bond => placed.Any(one => one.Task.Id == bond.Id))).ToList())
            {
                var start = Math.Max(task.Earliest, task.After.Select(bond => EndOf(bond.Id) + bond.Least).DefaultIfEmpty(0).Max());
                while (!Fits(problem, task, start, placed)) start++;
                Go([.. left.Where(one => one != task)], [.. placed, (task, start)]);
            }

            int EndOf(string id) => placed.Where(one => one.Task.Id == id).Select(one => one.Start + one.Task.Modes[0].Minutes).Single();
        }

        Go([.. problem.Tasks], []);
        return best;
    }

    private static bool Fits(ScheduleProblem problem, ScheduleTask task, int start, List<(ScheduleTask Task, int Start)> placed) =>
        Enumerable.Range(start, task.Modes[0].Minutes).All(minute => task.Modes[0].Uses.All(use =>
            use.Value + placed.Where(one => one.Start <= minute && minute < one.Start + one.Task.Modes[0].Minutes).Sum(one =>
                one.Task.Modes[0].Uses.GetValueOrDefault(use.Key))
            + problem.Taken.Where(time => time.Capacity == use.Key && time.From <= minute && minute < time.To).Sum(time =>
                time.Units) <= problem.Capacities[use.Key]));

    private static ScheduleProblem Any(Random chance, int most, bool withWays)
    {
        var capacities =
            new Dictionary<string, int> { ["hands"] = chance.Next(1, 3), ["oven"] = 2, ["rings"] = chance.Next(1, 4), ["mixer"] = 1 };
        TaskMode Way()
        {
            var uses = new Dictionary<string, int>();
            foreach (var (name, there) in capacities)
                if (chance.Next(3) == 0) uses[name] = chance.Next(1, there + 1);
            var heat = withWays && uses.ContainsKey("oven") ? new Dictionary<string, int> { ["oven"] = 160 + (10 * chance.Next(6)) } : null;
            return new(chance.Next(1, 25), uses, heat);
        }

        var tasks = new List<ScheduleTask>();
        for (var i = 0; i < most; i++)
        {
            var after = tasks.Where(_ => chance.Next(most) < 2).Select(task => new TaskBond(
                task.Id,
                chance.Next(4),
                withWays && chance.Next(6) == 0 ? 60 : null)).ToList();
            var modes = Enumerable.Range(0, withWays ? chance.Next(1, 3) : 1).Select(_ => Way()).ToList();
            tasks.Add(new($"t{i}", modes, after, chance.Next(4) == 0 ? chance.Next(30) : 0,
                withWays && chance.Next(8) == 0 ? chance.Next(40, 200) : null));
        }

        List<TakenTime> taken = [new("mixer", 0, chance.Next(0, 40), 1), new("hands", 15, 15 + chance.Next(0, 30), 1)];
        return new(tasks, capacities, taken, withWays ? new Dictionary<string, int> { ["oven"] = 10 } : NoHeat);
    }

    // Told minute by minute, apart from how it was laid.
    private static void Check(ScheduleProblem problem, LaidDay day)
    {
        Assert.Equal(problem.Tasks.Select(task => task.Id), day.Tasks.Select(task => task.Id));
        var at = day.Tasks.ToDictionary(task => task.Id);
        var modes = problem.Tasks.Zip(day.Tasks, (task, place) => (task, place, mode: task.Modes[place.Mode])).ToList();
        foreach (var (task, place, mode) in modes)
        {
            Assert.True(place.Start >= task.Earliest && place.End == place.Start + mode.Minutes && place.End <= day.End);
            foreach (var bond in task.After)
            {
                Assert.True(place.Start >= at[bond.Id].End + bond.Least, $"{task.Id} before {bond.Id}");
                Assert.True(bond.Most is not { } apart || place.Start <= at[bond.Id].End + apart, $"{task.Id} too long after {bond.Id}");
            }
        }

        for (var minute = 0; minute < day.End; minute++)
        {
            var now = modes.Where(one => one.place.Start <= minute && minute < one.place.End).ToList();
            foreach (var (name, there) in problem.Capacities)
            {
                var used = now.Sum(one => one.mode.Uses.GetValueOrDefault(name));
                var taken = problem.Taken.Where(time => time.Capacity == name && time.From <= minute && minute < time.To).Sum(time =>
                    time.Units);
                Assert.True(used == 0 || used + taken <= there, $"{name} at {minute}: {used} of {there}");
            }
        }

        foreach (var (name, apart) in problem.Heated)
        {
            var baked = modes.Where(one => one.mode.Minutes > 0 && one.mode.Heat?.ContainsKey(name) == true).Select(one => (
                one.place,
                Heat: one.mode.Heat![name])).ToList();
            foreach (var (place, heat) in baked)
            {
                Assert.True(place.Start >= WarmUp.FromCold(heat));
                foreach (var (other, otherHeat) in baked.Where(one =>
                    one.place != place && one.place.Start >= place.Start && Math.Abs(one.Heat - heat) > apart))
                    Assert.True(other.Start >= place.End + WarmUp.Between(heat, otherHeat),
                        $"{place.Id} and {other.Id} at {heat} and {otherHeat}");
            }
        }

        Assert.Equal(day.Tasks.Count == 0 ? 0 : day.Tasks.Max(task => task.End), day.End);
        Assert.Equal(modes.Sum(one => one.task.Due is { } due ? Math.Max(0, one.place.End - due) : 0), day.Late);
        Assert.True(day.Bound <= day.End);
    }
}
