using FsCheck.Xunit;
using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Run;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;
using LivelyTern.Tests;

namespace LivelyTern.Core.Tests.Cook;

/// <summary>A prep day as it happens: what is left is laid out anew after every word, and learns from how long things took.</summary>
public class RunTests
{
    private static readonly Guid Soup = new("00000000-0000-0000-0000-000000000001"), Pie = new("00000000-0000-0000-0000-000000000002");

    private static PrepDish Dish(Guid id, string name, string[] steps, params (string Food, decimal Grams)[] lines) => new(
        id, name, StepToDo.Of([.. steps.Select(text => new RecipeStep(text))]), 1, 4, null,
        [.. lines.Select(line => new PrepLine(line.Food, line.Food, new(line.Grams), "", FoodGroup.Vegetables))])
    {
        RecipeId = id,
    };

    private static DayToCook Day(params PrepDish[] dishes) => new(dishes, KitchenEquipment.AtFirst, PrepDayWishes.AtFirst, OwnTimes.None);

    private static DayToCook SoupAndPie() => Day(
        Dish(Soup, "soup", ["Chop the onions.", "Fry the onions 5 minutes.", "Simmer 40 minutes."], ("onion", 240)),
        Dish(Pie, "pie", ["Chop the onions.", "Mix 10 minutes.", "Bake 30 minutes at 180 °C."], ("onion", 120)));

    private static LaidDay LayOut(ScheduleProblem problem) =>
        new ListSchedule(problem).Best(8, new Random(1).NextDouble) ?? new([], 0, 0, 0, false);

    private static RestOfRun Rest(DayToCook day, int now, IEnumerable<BegunTask>? begun = null, params TurnedOn[] ovens) =>
        RestOfRun.Of(day, new([.. begun ?? []], ovens, now), [], LayOut);

    private static BegunTask Begin(RestOfRun rest, string id, int? start, int? end = null, bool isSkipped = false)
    {
        var at = rest.Problem.Tasks.Select(task => task.Id).ToList().IndexOf(id);
        var task = rest.Tasks.Tasks.Single(one => one.Id == id);
        var mode = rest.Day.Tasks[at].Mode;
        return new(task, task.Ways[mode], rest.Problem.Tasks[at].Modes[mode], start, end, 0, isSkipped);
    }

    private static int StartOf(RestOfRun rest, string id) => rest.Day.Tasks.Single(place => place.Id == id).Start;

    private static string IdOf(RestOfRun rest, string verb) => rest.Tasks.Tasks.First(task => task.Verb == verb).Id;

    [Fact]
    public void What_takes_longer_pushes_what_waits_for_it_and_nothing_else()
    {
        var day = SoupAndPie();
        var start = Rest(day, 0);
        var chop = IdOf(start, "chop");
        List<BegunTask> begun = [Begin(start, "get out", 0, 5), Begin(start, chop, 5)];

        // 360 g for both dishes in one go: one minute for the board, six to chop, until minute 12.
        Assert.Equal(12, begun[1].EndsAt);
        var onTime = Rest(day, 8, begun);
        Assert.Equal(12, onTime.Day.Tasks.Min(place => place.Start));
        var late = Rest(day, 20, begun);
        Assert.Equal(21, late.Day.Tasks.Min(place => place.Start));
        Assert.Equal(onTime.Day.End + 9, late.Day.End);

        // Sooner done than thought: the rest comes sooner too.
        var early = Rest(day, 9, [begun[0], begun[1] with { End = 9 }]);
        Assert.Equal(9, early.Day.Tasks.Min(place => place.Start));
        Assert.Equal(onTime.Day.End - 3, early.Day.End);
    }

    [Fact]
    public void An_oven_that_is_warm_need_not_be_warmed_and_one_that_bakes_keeps_its_heat()
    {
        var day = Day(Dish(Pie, "pie", ["Bake 30 minutes at 180 °C."]), Dish(Soup, "buns", ["Bake 20 minutes at 220 °C."]));
        var cold = Rest(day, 10, [Begin(Rest(day, 0), "get out", 0, 5)]);
        string IdOfDish(Guid dish) => cold.Tasks.Tasks.Single(task => task.Kind == PrepKind.Step && task.Dishes.Contains(dish)).Id;
        var (pie, buns) = (IdOfDish(Pie), IdOfDish(Soup));
        Assert.Equal(10 + WarmUp.FromCold(180), Math.Min(StartOf(cold, pie), StartOf(cold, buns)));
        var turned = Rest(day, 30, cold.Begun.Values, new TurnedOn("oven:0", 220, 10));
        Assert.Equal(30, StartOf(turned, buns));

        // Half an hour unused it is off again.
        var off = Rest(day, 80, cold.Begun.Values, new TurnedOn("oven:0", 220, 10));
        Assert.Equal(80 + WarmUp.FromCold(180), Math.Min(StartOf(off, pie), StartOf(off, buns)));

        // Turned higher while it is hot, it has only that far to go.
        var done = Begin(cold, pie, 30, 60);
        var higher = Rest(day, 61, [.. cold.Begun.Values, done], new TurnedOn("oven:0", 220, 60));
        Assert.Equal(60 + WarmUp.Between(180, 220), StartOf(higher, buns));
        var baking = Rest(day, 40, [.. cold.Begun.Values, Begin(cold, pie, 30)]);
        Assert.Equal(60 + WarmUp.Between(180, 220), StartOf(baking, buns));
    }

    [Fact]
    public void Whoever_begins_a_later_step_has_done_the_ones_before_it()
    {
        var rest = Rest(SoupAndPie(), 0);
        var fry = IdOf(rest, "fry");
        Assert.Equal(["get out", IdOf(rest, "chop")], rest.Before(fry).Order());
        Assert.Empty(rest.Before("wash up"));
    }

    [Fact]
    public void What_is_skipped_holds_nothing_up_and_what_came_before_it_still_does()
    {
        var day = Day(Dish(Soup, "soup", ["Fry 5 minutes.", "Mix 3 minutes.", "Simmer 40 minutes."]));
        var start = Rest(day, 0);
        var rest = Rest(day, 1, [Begin(start, "get out", 0, 1), Begin(start, IdOf(start, "mix"), 1, 1, true)]);
        Assert.Equal(
            rest.Day.Tasks.Single(place => place.Id == IdOf(rest, "fry")).End, StartOf(rest, IdOf(rest, "simmer")));
    }

    [Fact]
    public void Free_hands_begin_what_follows_when_something_is_ready()
    {
        var day = Day(Dish(Soup, "soup", ["Simmer 40 minutes.", "Mix 3 minutes."]));
        var start = Rest(day, 0);
        List<BegunTask> begun = [Begin(start, "get out", 0, 4), Begin(start, IdOf(start, "simmer"), 4, 44)];
        Assert.Equal(
            [IdOf(start, "mix")], Rest(day, 44, begun).BeginNow(44, new HashSet<string> { IdOf(start, "simmer") }));
    }

    [Fact]
    public void When_hands_are_free_the_next_thing_begins_and_what_simmers_begins_when_its_pot_is_full()
    {
        var day = Day(Dish(Soup, "soup", ["Fry the onions 5 minutes.", "Simmer 40 minutes."], ("onion", 240)));
        var start = Rest(day, 0);
        Assert.Equal(["get out"], start.BeginNow(0));
        List<BegunTask> begun = [Begin(start, "get out", 0, 4)];
        var after = Rest(day, 4, begun);
        Assert.Equal([IdOf(start, "fry")], after.BeginNow(4, new HashSet<string> { "get out" }));
        begun.Add(Begin(after, IdOf(start, "fry"), 4, 9));
        Assert.Equal([IdOf(start, "simmer")], Rest(day, 9, begun).BeginNow(9, new HashSet<string> { IdOf(start, "fry") }));
    }

    [Fact]
    public void Due_is_what_has_come_and_finds_its_hands_free()
    {
        var day = Day(Dish(Soup, "soup", ["Simmer 40 minutes."]), Dish(Pie, "salad", ["Mix 10 minutes."]));
        var start = Rest(day, 0);
        var (simmer, mix) = (IdOf(start, "simmer"), IdOf(start, "mix"));
        List<BegunTask> begun = [Begin(start, "get out", 0)];

        // It takes longer than planned: what was to follow waits for the hands.
        Assert.Empty(Rest(day, 30, begun).DueNow(30));
        begun = [begun[0] with { End = 30 }];
        Assert.Equal(new[] { simmer, mix }.Order(), Rest(day, 30, begun).DueNow(30).Order());
        begun.Add(Begin(start, mix, 30));
        Assert.Equal([simmer], Rest(day, 31, begun).DueNow(31));
        begun.Add(Begin(start, simmer, 31));
        Assert.Empty(Rest(day, 32, begun).DueNow(32));
    }

    /// <summary>Begun at minute 10: 12 minutes to come to pressure, 5 at it, 10 to let it go.</summary>
    [Theory]
    [InlineData(10, "come to pressure")]
    [InlineData(21, "come to pressure")]
    [InlineData(22, "pressure-cook")]
    [InlineData(27, "release")]
    [InlineData(90, "release")]
    public void The_pressure_cooker_is_in_the_stretch_that_its_minutes_say(int now, string verb)
    {
        var rest = Rest(Day(Dish(Soup, "beans", ["5 minutes pressure, 10 minutes natural release."])), 0);
        var task = rest.Tasks.Tasks.Single(one => one.Phases.Count > 0);
        Assert.Equal([12, 5, 10], task.Phases.Select(phase => phase.Minutes));
        Assert.Equal(verb, Begin(rest, task.Id, 10).PhaseAt(now)!.Verb);
        Assert.Null(Begin(rest, "get out", 0).PhaseAt(now));
    }

    /// <summary>
    /// Leave the soup out when its onions are not chopped yet, and the pie's still are to be; or when they are, and they are.
    /// </summary>
    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void What_was_chopped_in_one_go_stays_chopped_when_a_dish_is_left_out(bool isChopped)
    {
        var day = SoupAndPie();
        var start = Rest(day, 0);
        List<BegunTask> begun = [Begin(start, "get out", 0, 5)];
        if (isChopped) begun.Add(Begin(start, IdOf(start, "chop"), 5, 12));
        var without = Rest(day with { Dishes = [day.Dishes[1]] }, 12, begun);
        Assert.Equal(isChopped ? 0 : 1, without.Problem.Tasks.Count(task => task.Id.StartsWith("prepare", StringComparison.Ordinal)));
    }

    /// <summary>
    /// "Dice the turkey and chop the onions" is one task, begun or not; of the turkey the sentence says no weight that is known.
    /// </summary>
    [Fact]
    public void What_is_begun_of_a_sentence_is_all_of_it()
    {
        var day = Day(Dish(Soup, "chili", ["Dice the mystery and chop the onions.", "Simmer 40 minutes."], ("onion", 240)));
        var start = Rest(day, 0);
        var begun = Begin(start, IdOf(start, "chop"), 5, 20);
        Assert.DoesNotContain(Rest(day, 20, [begun]).Problem.Tasks, task => task.Id.StartsWith("prepare", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("Fry 5 minutes.", "Mix 3 minutes.", "Simmer 40 minutes.")] // a step in between
    [InlineData("Fry 5 minutes.", "Simmer gently 40 minutes.")] // its sentence mended
    [InlineData("Simmer 40 minutes.")]
    public void What_goes_on_goes_on_however_its_recipe_is_changed(params string[] steps)
    {
        var day = Day(Dish(Soup, "soup", ["Fry 5 minutes.", "Simmer 40 minutes."]));
        var begun = Begin(Rest(day, 0), IdOf(Rest(day, 0), "simmer"), 10);
        var rest = Rest(Day(Dish(Soup, "soup", steps)), 12, [begun]);
        Assert.Equal(begun, Assert.Single(rest.Begun).Value);
        Assert.Equal("simmer", rest.Tasks.Tasks.Single(task => rest.Begun.ContainsKey(task.Id)).Verb);

        // What it leaves open has names of its own.
        Assert.DoesNotContain(rest.Problem.Tasks, task => task.Id == begun.Task.Id);
    }

    [Fact]
    public void Cooks_hours_that_are_over_show_how_much_longer_someone_stays()
    {
        var day = SoupAndPie() with { Wishes = new([new("", new(10, 0), new(10, 30))]) };
        var rest = Rest(day, 20);
        Assert.Equal(rest.Problem.Tasks.Count, rest.Day.Tasks.Count);
        Assert.True(rest.Overtime > 0);
    }

    /// <summary>
    /// Whatever happens on the day: nothing before now, nothing over what there is, hands never double, each step after those before it.
    /// </summary>
    [SeededProperty(MaxTest = 60)]
    public void However_a_day_goes_its_rest_keeps_order_hands_and_machines(int seed)
    {
        var chance = new Random(seed);
        string[] steps =
        [
            "Chop the onions.", "Fry the onions 5 minutes.", "Simmer 25 minutes.", "Bake 20 minutes at 180 °C.",
            "Bake 12 minutes at 220 °C.",
            "Mix 4 minutes.", "Chill 1 hour.", "Blend 2 minutes.", "Slow cook on low for 3 hours.",
        ];
        string[] Some() => [.. Enumerable.Range(0, 1 + chance.Next(4)).Select(_ => steps[chance.Next(steps.Length)])];
        PrepDish Made(int i) => Dish(new Guid(i, 0, 0, new byte[8]), $"dish {i}", Some(), ("onion", 100 + chance.Next(400)));
        var day = Day([.. Enumerable.Range(1, 1 + chance.Next(4)).Select(Made)]);
        var begun = new Dictionary<string, BegunTask>();
        var (now, order) = (0, new List<string>());
        for (var turn = 0; turn < 25; turn++)
        {
            now += chance.Next(12);
            var rest = RestOfRun.Of(day, new([.. begun.Values], [], now), order, chance.Next(2) == 0 ? LayOut : null);
            order = [.. rest.Day.Tasks.OrderBy(place => place.Start).Select(place => place.Id)];
            Assert.Equal(rest.Tasks.Tasks.Count, rest.Day.Tasks.Count + rest.Begun.Count);
            CheckRest(rest, now);
            var going = begun.Values.Where(one => one.End is null).ToList();
            if (going.Count > 0 && chance.Next(3) > 0)
            {
                var one = going[chance.Next(going.Count)];
                begun[one.Task.Id] = chance.Next(6) == 0 ? one with { Extra = one.Extra + 10 } : one with { End = now };
            }
            else if (rest.Day.Tasks.Count > 0)
            {
                var next = rest.Day.Tasks.OrderBy(place => place.Start).First();
                var isOver = chance.Next(5) == 0;
                if (next.Start <= now) begun[next.Id] = Begin(rest, next.Id, now, isOver ? now : null, isOver && chance.Next(2) == 0);
            }
        }
    }

    private static void CheckRest(RestOfRun rest, int now)
    {
        var at = rest.Day.Tasks.ToDictionary(place => place.Id);
        foreach (var (task, place) in rest.Problem.Tasks.Zip(rest.Day.Tasks))
        {
            Assert.True(place.Start >= now && place.Start >= task.Earliest);
            Assert.All(task.After, bond => Assert.True(place.Start >= at[bond.Id].End + bond.Least));
        }

        // After what is begun, too.
        foreach (var task in rest.Tasks.Problem.Tasks.Where(task => at.ContainsKey(task.Id)))
            foreach (var bond in task.After)
                if (rest.Begun.TryGetValue(bond.Id, out var before))
                    Assert.True(at[task.Id].Start >= before.ExpectedEnd(now));
        for (var minute = now; minute < rest.Day.End; minute++)
        {
            var modes = rest.Problem.Tasks.Zip(rest.Day.Tasks).Where(one => one.Second.Start <= minute && one.Second.End > minute)
                .Select(one => one.First.Modes[one.Second.Mode]);
            var going = rest.Begun.Values.Where(one => one.End is null && one.ExpectedEnd(now) > minute).Select(one => one.Mode).ToList();
            var all = modes.ToList();
            foreach (var name in all.SelectMany(mode => mode.Uses.Keys).Distinct())
            {
                // What goes on already was begun by people; what is laid beside it leaves them room.
                var taken = going.Sum(mode => mode.Uses.GetValueOrDefault(name));
                Assert.True(taken + all.Sum(mode => mode.Uses.GetValueOrDefault(name)) <= Math.Max(taken, rest.Problem.Capacities[name]));
                bool IsHeated(TaskMode mode) => mode.Heat?.ContainsKey(name) == true;
                if (all.Exists(IsHeated)) Assert.Single(all.Concat(going).Where(IsHeated).Select(mode => mode.Heat![name]).Distinct());
            }
        }
    }

    [Theory]
    [InlineData(10, new[] { 12 }, 12)] // once is a beginning
    [InlineData(10, new[] { 9, 30, 14 }, 14)] // the middle one
    [InlineData(10, new[] { 1, 60 }, 10)] // keys pressed late teach nothing
    [InlineData(10, new[] { 20, 20, 20, 10, 10, 10, 10 }, 20)] // the last five
    public void The_middle_of_the_last_five_times_counts(int usual, int[] real, int learned) =>
        Assert.Equal(learned, OwnTimes.From(real.Select(minutes => new TimeTaken("key", usual, minutes))).Of("key", usual) ?? usual);

    [Fact]
    public void What_work_took_becomes_the_next_schedule_and_what_the_recipe_bakes_stays()
    {
        var start = Rest(SoupAndPie(), 0);
        BegunTask Took(string verb, int minutes) => Begin(start, IdOf(start, verb), 0, minutes);
        var times = OwnTimes.From(new[] { Took("chop", 14), Took("fry", 8), Took("bake", 45), Begin(start, "wash up", null, 60) }
            .SelectMany(one => one.Teaches(dish => dish)));
        PrepDayTasks Next(OwnTimes own) => PrepDayTasks.Of(SoupAndPie().Dishes, KitchenEquipment.AtFirst, PrepDayWishes.AtFirst, own);
        int MinutesOf(PrepDayTasks tasks, string verb) =>
            tasks.Problem.Tasks[tasks.Tasks.ToList().FindIndex(task => task.Verb == verb)].Modes[0].Minutes;
        var (before, after) = (Next(OwnTimes.None), Next(times));
        Assert.Equal((7, 14), (MinutesOf(before, "chop"), MinutesOf(after, "chop")));
        Assert.Equal((5, 8), (MinutesOf(before, "fry"), MinutesOf(after, "fry")));
        Assert.Equal(30, MinutesOf(after, "bake"));
        Assert.Equal(MinutesOf(before, "wash up"), MinutesOf(after, "wash up"));

        // Learned from what was usual, not from what was learned before: the same again teaches the same.
        var chop = after.Tasks.First(task => task.Verb == "chop");
        Assert.Equal((7, false), (chop.Ways[0].Usual, chop.IsAbout));
    }
}
