using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Tests.Cook;

/// <summary>Days laid out by the list alone, their bounds, the chain that sets their end, and what is refused.</summary>
public class ScheduleTests
{
    private static readonly Dictionary<string, int> Nothing = [];

    private static ScheduleTask Task(string id, int minutes, string? uses = null, params TaskBond[] after) =>
        new(id, [new(minutes, uses is null ? Nothing : new Dictionary<string, int> { [uses] = 1 })], after);

    private static ScheduleProblem Problem(IReadOnlyList<ScheduleTask> tasks, Dictionary<string, int>? capacities = null,
        params TakenTime[] taken) =>
        new(tasks, capacities ?? new() { ["hands"] = 1, ["oven"] = 1 }, taken, Nothing);

    private static Dictionary<string, int> Starts(LaidDay day) => day.Tasks.ToDictionary(task => task.Id, task => task.Start);

    [Fact]
    public void Nothing_to_do_is_done_at_once()
    {
        var problem = Problem([]);
        Assert.Empty(problem.Problems());
        var day = new ListSchedule(problem).First()!;
        Assert.Equal((0, 0), (day.End, day.Tasks.Count));
        Assert.Empty(LongestChain.Of(problem, day));
        Assert.Equal(0, DayBounds.Of(problem));
    }

    [Fact]
    public void The_longest_chain_behind_it_goes_first()
    {
        var problem = Problem([
            Task("short", 10, "hands"),
            Task("fill", 5, "hands"),
            Task("slow", 60, "oven", new TaskBond("fill")),
        ]);
        var day = new ListSchedule(problem).First()!;
        Assert.Equal((0, 5, 5), (Starts(day)["fill"], Starts(day)["short"], Starts(day)["slow"]));
        Assert.Equal((65, 65), (day.End, DayBounds.Of(problem)));
    }

    [Fact]
    public void What_must_follow_soon_holds_back_what_it_follows()
    {
        // The oven is taken until minute 100; what is warmed for it waits, so that it lies no longer than 5 minutes.
        var problem = Problem(
            [Task("warm", 10, "hands"), Task("bake", 20, "oven", new TaskBond("warm", 0, 5))], null, new TakenTime("oven", 0, 100, 1));
        var day = new ListSchedule(problem).First()!;
        Assert.Equal((85, 100), (Starts(day)["warm"], Starts(day)["bake"]));
    }

    [Fact]
    public void Time_between_two_tasks_is_kept()
    {
        var day = new ListSchedule(Problem([Task("mix", 5), Task("shape", 5, null, new TaskBond("mix", 30))])).First()!;
        Assert.Equal(35, Starts(day)["shape"]);
    }

    [Fact]
    public void What_is_due_goes_before_what_is_not()
    {
        var soon = Task("soon", 10, "hands") with { Due = 10 };
        var day = new ListSchedule(Problem([Task("long", 60, "hands"), soon])).First()!;
        Assert.Equal((0, 0), (Starts(day)["soon"], day.Late));
        var late = new ListSchedule(Problem([soon with { Due = 4 }])).First()!;
        Assert.Equal(6, late.Late);
    }

    [Fact]
    public void A_task_begins_no_sooner_than_it_may() =>
        Assert.Equal(42, new ListSchedule(Problem([Task("a", 5) with { Earliest = 42 }])).First()!.Tasks[0].Start);

    [Fact]
    public void A_task_of_no_minutes_takes_nothing_from_anyone()
    {
        var problem = Problem([Task("a", 10, "hands"), Task("ring the bell", 0, "hands", new TaskBond("a")), Task("b", 10, "hands")]);
        Assert.Equal(20, new ListSchedule(problem).First()!.End);
    }

    [Theory]
    [InlineData(0, WaitsFor.Nothing)]
    [InlineData(30, WaitsFor.AnHour)]
    public void The_chain_begins_with_what_holds_the_first_task(int away, WaitsFor because)
    {
        var problem = Problem(
            [Task("a", 10, "hands"), Task("b", 20, "hands", new TaskBond("a")), Task("c", 30, "hands")], null,
                new TakenTime("hands", 0, away, 1));
        var day = new ListSchedule(problem).First()!;
        var chain = LongestChain.Of(problem, day);
        Assert.Equal(3, chain.Count);
        Assert.Equal(because, chain[0].Because);
        Assert.All(chain.Skip(1), link => Assert.True(link.Because is WaitsFor.ItsTurn or WaitsFor.ACapacity));
        Assert.Equal(away + 60, day.End);
    }

    [Fact]
    public void A_cold_oven_is_named_as_what_is_waited_for()
    {
        ScheduleTask Bake(string id, int celsius) =>
            new(id, [new(20, new Dictionary<string, int> { ["oven"] = 1 }, new Dictionary<string, int> { ["oven"] = celsius })], []);
        var problem = new ScheduleProblem(
            [Bake("a", 180), Bake("b", 240)], new Dictionary<string, int> { ["oven"] = 2 }, [],
                new Dictionary<string, int> { ["oven"] = 10 });
        var day = new ListSchedule(problem).First()!;
        var chain = LongestChain.Of(problem, day);
        Assert.Equal([WaitsFor.Heat, WaitsFor.Heat], chain.Select(link => link.Because));
        Assert.All(chain, link => Assert.Equal("oven", link.Capacity));
    }

    [Theory]
    [InlineData(1, 100)] // a hundred minutes of work for one
    [InlineData(2, 60)] // the longest task of two cooks
    public void A_bound_is_the_work_or_the_longest_chain(int cooks, int bound)
    {
        var problem = Problem([Task("a", 60, "hands"), Task("b", 40, "hands")], new() { ["hands"] = cooks });
        Assert.Equal(bound, DayBounds.Of(problem));
    }

    [Fact]
    public void A_bound_reckons_with_hours_away()
    {
        var problem = Problem([Task("a", 60, "hands"), Task("b", 40, "hands")], new() { ["hands"] = 1 }, new TakenTime("hands", 10, 30, 1));
        Assert.Equal(120, DayBounds.Of(problem));
    }

    /// <summary>The first day is never longer than a bound by much in days that the hands alone set, and never shorter than it.</summary>
    [SeededProperty(MaxTest = 120)]
    public void The_first_day_lies_between_the_bound_and_all_tasks_one_after_another(int seed)
    {
        var chance = new Random(seed);
        var tasks = new List<ScheduleTask>();
        for (var i = 0; i < 12; i++)
        {
            TaskBond[] after = i > 0 && chance.Next(2) == 0 ? [new($"t{chance.Next(i)}")] : [];
            tasks.Add(Task($"t{i}", chance.Next(1, 30), chance.Next(3) == 0 ? "oven" : "hands", after));
        }

        var problem = Problem(tasks);
        Assert.Empty(problem.Problems());
        var list = new ListSchedule(problem);
        var first = list.First()!;
        Assert.InRange(first.End, DayBounds.Of(problem), tasks.Sum(task => task.Modes[0].Minutes));
        Assert.True(list.Best(10, chance.NextDouble)!.End <= first.End);
    }

    [Theory]
    [InlineData("a>b b>a", "tasks-loop", "a → b → a")]
    [InlineData("a>b b>c c>b", "tasks-loop", "b")]
    [InlineData("a>x", "task-unknown", "x")]
    [InlineData("a a", "task-twice", "a")]
    [InlineData("a>a", "tasks-loop", "a")]
    public void What_cannot_be_is_named(string written, string code, string named)
    {
        var tasks = written.Split(' ').Select(one => one.Split('>')).Select(parts => Task(
            parts[0], 5, null, [.. parts.Skip(1).Select(before => new TaskBond(before))])).ToList();
        var problem = Problem(tasks).Problems()[0];
        Assert.Equal(code, problem.Code);
        Assert.Contains(named, problem.Sentence);
    }

    [Fact]
    public void Too_many_tasks_and_absurd_numbers_are_refused()
    {
        Assert.Equal("tasks-many", Problem([.. Enumerable.Range(0, 501).Select(i => Task($"t{i}", 1))]).Problems()[0].Code);
        Assert.Equal("capacity-absurd", Problem([], new() { ["hands"] = -1 }).Problems()[0].Code);
        Assert.Equal("task-minutes", Problem([Task("a", 20_000)]).Problems()[0].Code);
        Assert.Equal("modes-many", Problem([new("a", [], [])]).Problems()[0].Code);
        Assert.Equal("uses-negative", Problem([new("a", [new(5, new Dictionary<string, int> { ["hands"] = -1 })], [])]).Problems()[0].Code);
    }

    [Theory]
    [InlineData(20, 180, 13)]
    [InlineData(20, 200, 14)]
    [InlineData(180, 200, 2)]
    [InlineData(200, 180, 3)]
    [InlineData(190, 190, 0)]
    public void An_oven_takes_its_time(int from, int to, int minutes) => Assert.Equal(minutes, WarmUp.Between(from, to));
}
