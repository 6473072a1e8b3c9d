using System.Text.Json.Nodes;
using LivelyTern.Tests;

namespace LivelyTern.Web.Tests;

/// <summary>A prep day as it happens, through the real host with a clock of the tests.</summary>
public sealed class RunApiTests : IDisposable
{
    private const string Today = "2026-11-25", Run = $"/api/cook/days/{Today}/run";
    private readonly Host host = new(today: $"{Today}T10:00", playClock: true);

    public static TheoryData<int> Chances => Seeds.Or(1, 2);

    public void Dispose() => host.Dispose();

    private async Task<JsonNode> PlanAsync(string name, string[] lines, string[] steps, string day = Today)
    {
        var recipe = await host.PostAsync("/api/recipes", new { name, portions = 4, lines, steps = steps.Select(text => new { text }) });
        var dishes = new[] { new { recipeId = recipe["id"], portions = 4 } };
        return (await host.PostAsync("/api/cook/planned", new { day, dishes }))[0]!;
    }

    private Task<JsonNode> SoupAsync() => PlanAsync(
        "Soup", ["2 onions", "300 g red lentils, dry", "1 l water"],
        ["Chop the onions.", "Fry the onions 5 minutes.", "Simmer 40 minutes."]);

    private Task<JsonNode> BeginAsync() => host.PostAsync(Run, new { order = Array.Empty<string>() });

    private Task<JsonNode> SayAsync(string taskId, string act, int minutes = 0) =>
        host.PostAsync($"{Run}/tasks", new { taskId, act, minutes });

    private Task<JsonNode> PassAsync(int minutes) => host.PostAsync("/api/demo/pass", new { minutes });

    private static IEnumerable<(string Verb, string State)> States(JsonNode run) =>
        from task in run["laid"]!["tasks"]!.AsArray()
        join state in run["tasks"]!.AsArray() on (string)task!["task"]!["id"]! equals (string)state!["id"]!
        select ((string)task!["way"]!["verb"]!, (string)state!["state"]!);

    private static JsonNode Placed(JsonNode run, string verb) =>
        run["laid"]!["tasks"]!.AsArray().First(task => (string)task!["way"]!["verb"]! == verb)!;

    private static string IdOf(JsonNode run, string verb) => (string)Placed(run, verb)["task"]!["id"]!;

    private async Task<string> RefusedAsync(HttpMethod method, string path, object? body, int? version = null)
    {
        var (status, answer) = await host.SendAsync(method, path, body, version);
        Assert.InRange(status, 400, 499);
        return (string)answer["errors"]![0]!["code"]!;
    }

    private async Task<string> StateOfAsync(JsonNode batch) => (string)(await host.GetAsync($"/api/cook/batches/{batch["id"]}"))["state"]!;

    [Fact]
    public async Task What_can_hurt_somebody_is_said_at_its_step_begun_or_not()
    {
        await PlanAsync(
            "Chicken bake", ["600 g chicken breast", "2 onions"], ["Chop the chicken breast.", "Bake 40 minutes at 180 °C."]);
        async Task<string[]> OfAsync(string verb)
        {
            var run = await host.GetAsync(Run);
            var task = run["tasks"]!.AsArray().Single(one => (string?)one!["id"] == IdOf(run, verb))!;
            return [.. task["cautions"]!.AsArray().Select(code => (string)code!)];
        }

        await BeginAsync();
        Assert.Equal(["raw-poultry"], await OfAsync("chop"));
        Assert.Equal(["done-inside"], await OfAsync("bake"));
        Assert.Empty(await OfAsync("get out"));
        await SayAsync("get out", "done");
        Assert.Equal(["raw-poultry"], await OfAsync("chop"));
    }

    [Fact]
    public async Task A_day_is_begun_told_task_by_task_and_each_word_lays_out_the_rest_anew()
    {
        var soup = await SoupAsync();
        var run = await BeginAsync();
        Assert.Equal("10:00:00", (string)run["laid"]!["begins"]!);
        Assert.Equal([("get out", "goingOn")], States(run).Where(task => task.State != "waiting"));
        var planned = (int)run["plannedEnd"]!;

        // Sooner ready than usual: the chopping goes on by itself, and the day ends sooner.
        await PassAsync(2);
        run = await SayAsync("get out", "done");
        Assert.Contains(("chop", "goingOn"), States(run));
        Assert.Equal("planned", await StateOfAsync(soup));
        Assert.Equal(planned - 2, (int)run["laid"]!["end"]!);

        // The chopping takes far longer: everything behind it moves, with each minute that passes.
        await PassAsync(20);
        run = await host.GetAsync(Run);
        Assert.True((int)run["laid"]!["end"]! > planned + 10);
        run = await SayAsync(IdOf(run, "chop"), "done");
        Assert.Contains(("fry", "goingOn"), States(run));
        Assert.Equal("cooking", await StateOfAsync(soup));

        // The pot is full, and simmers at once; it is given ten minutes more, and another phone sees it.
        await PassAsync(5);
        run = await SayAsync(IdOf(run, "fry"), "done");
        var simmer = IdOf(run, "simmer");
        Assert.Contains(("simmer", "goingOn"), States(run));
        var ends = (DateTimeOffset)run["tasks"]!.AsArray().Single(task => (string)task!["id"]! == simmer)!["endsAt"]!;
        await SayAsync(simmer, "more", 10);
        run = await host.GetAsync(Run);
        var later = run["tasks"]!.AsArray().Single(task => (string)task!["id"]! == simmer)!["endsAt"]!;
        Assert.Equal(ends.AddMinutes(10), (DateTimeOffset)later);

        // Both phones press: the second changes nothing. Taken back, it goes on.
        await PassAsync(45);
        var changed = (await SayAsync(simmer, "done"))["changed"]!;
        Assert.Empty((await SayAsync(simmer, "done"))["changed"]!.AsArray());
        run = await host.PostAsync($"{Run}/tasks/back", new { tasks = changed });
        Assert.Contains(("simmer", "goingOn"), States(run));

        run = await host.PostAsync($"{Run}/end", new { isOver = true });
        Assert.NotNull(run["endedAt"]);
        Assert.Equal("run-over", await RefusedAsync(HttpMethod.Post, $"{Run}/tasks", new { taskId = simmer, act = "done" }));
        Assert.Equal("over", (string)(await host.GetAsync($"/api/cook/days/{Today}"))["run"]!);
        await host.PostAsync($"{Run}/end", new { isOver = false });
        await SayAsync(simmer, "done");
    }

    [Fact]
    public async Task Begun_by_mistake_a_dish_is_still_to_be_cooked()
    {
        var soup = await SoupAsync();
        var run = await BeginAsync();
        run = await SayAsync(IdOf(run, "fry"), "start");
        Assert.Equal("cooking", await StateOfAsync(soup));
        Assert.Equal(
            [("chop", "done"), ("fry", "goingOn"), ("get out", "done")], States(run).Where(task => task.State != "waiting").Order());
        Assert.Equal("run-cooking", await RefusedAsync(HttpMethod.Delete, Run, null));
        run = await host.PostAsync($"{Run}/tasks/back", new { tasks = run["changed"] });
        Assert.Equal("planned", await StateOfAsync(soup));
        Assert.Equal([("get out", "goingOn")], States(run).Where(task => task.State != "waiting"));
        await host.MustAsync(HttpMethod.Delete, Run);
        Assert.Equal("none", (string)(await host.GetAsync($"/api/cook/days/{Today}"))["run"]!);
    }

    [Fact]
    public async Task Whoever_packs_at_once_has_cooked_and_what_was_in_its_pan_before_stays_there()
    {
        var soup = await SoupAsync();
        var run = await BeginAsync();
        run = await SayAsync(IdOf(run, "pack"), "start");
        Assert.Equal("cooking", await StateOfAsync(soup));
        await host.PostAsync($"{Run}/tasks/back", new { tasks = run["changed"] });
        Assert.Equal("planned", await StateOfAsync(soup));

        // Cooked without the run; begun and taken back in it, it stays in its pan.
        var version = (int)(await host.GetAsync($"/api/cook/batches/{soup["id"]}"))["version"]!;
        await host.PostAsync($"/api/cook/planned/{soup["id"]}/cooked", null, version);
        run = await SayAsync(IdOf(await host.GetAsync(Run), "fry"), "start");
        await host.PostAsync($"{Run}/tasks/back", new { tasks = run["changed"] });
        Assert.Equal("cooking", await StateOfAsync(soup));
    }

    [Fact]
    public async Task What_the_scale_says_goes_in_and_what_differed_is_told_for_a_note()
    {
        var soup = await SoupAsync();
        var id = (string)soup["id"]!;
        Assert.Equal(
            "batch-ahead",
            await RefusedAsync(HttpMethod.Put, $"/api/cook/batches/{id}/lines/1/weight", new { grams = 310 }, (int)soup["version"]!));
        var run = await BeginAsync();

        // The run is on: weighing begins the dish.
        var lentils = $"/api/cook/batches/{id}/lines/1/weight";
        var batch = await host.MustAsync(HttpMethod.Put, lentils, new { grams = 310 }, (int)soup["version"]!);
        Assert.Equal(("cooking", "310 g red lentils, dry", 310m), (
            (string)batch["state"]!, (string)batch["lines"]![1]!["reallyText"]!, (decimal)batch["lines"]![1]!["wentInGrams"]!));
        Assert.Equal((decimal)batch["lines"]![0]!["plannedGrams"]! + 310 + 1000, (decimal)batch["rawGrams"]!);

        // As planned is no difference; less than nothing and a ton are refused.
        batch = await host.MustAsync(HttpMethod.Put, $"/api/cook/batches/{id}/lines/0/weight", new { grams = 220 }, (int)batch["version"]!);
        Assert.Null(batch["lines"]![0]!["reallyText"]);
        foreach (var grams in new[] { 0, -5, 2_000_000 })
        {
            var body = new { grams };
            Assert.Equal(
                "weight-absurd",
                await RefusedAsync(HttpMethod.Put, $"/api/cook/batches/{id}/lines/0/weight", body, (int)batch["version"]!));
        }

        run = await SayAsync(IdOf(run, "fry"), "start");
        await PassAsync(12);
        await SayAsync(IdOf(run, "fry"), "done");
        var differed = (await host.GetAsync($"{Run}/differences")).AsArray().Single()!;
        Assert.Equal(
            ("Soup", "310 g red lentils, dry"),
            ((string)differed["batch"]!["name"]!, (string)differed["lines"]![0]!["reallyText"]!));
        Assert.Equal((5, 12), ((int)differed["times"]![0]!["planned"]!, (int)differed["times"]![0]!["real"]!));

        var notes = $"/api/recipes/{soup["recipeId"]}/notes";
        var note = await host.PostAsync(notes, new { text = " Fry the onions longer. ", day = Today });
        Assert.Equal("Fry the onions longer.", (string)(await host.GetAsync(notes))[0]!["text"]!);
        Assert.Equal("note-length", await RefusedAsync(HttpMethod.Post, notes, new { text = " " }));
        await host.MustAsync(HttpMethod.Delete, $"{notes}/{note["id"]}");
        Assert.Empty((await host.GetAsync(notes)).AsArray());
    }

    /// <summary>
    /// However lines are weighed, typed, left out and put back: the batch holds what its lines say, to the gram, and the house has that
    /// much less; a start taken back gives it all back.
    /// </summary>
    [Theory]
    [MemberData(nameof(Chances))]
    public async Task What_goes_in_is_what_the_house_has_less(int seed)
    {
        var chance = new Random(seed);
        await host.PostAsync("/api/shop/pantry", new { text = "5 kg red lentils, dry" });
        async Task<decimal> InTheHouseAsync() => (decimal)(await host.GetAsync("/api/shop/pantry"))["items"]!.AsArray()
            .Single(item => (string)item!["name"]! == "red lentils, dry")!["grams"]!;
        var soup = await SoupAsync();
        var id = (string)soup["id"]!;
        var run = await BeginAsync();
        run = await SayAsync(IdOf(run, "fry"), "start");
        Assert.Equal(4700, await InTheHouseAsync());
        await host.PostAsync($"{Run}/tasks/back", new { tasks = run["changed"] });
        Assert.Equal(5000, await InTheHouseAsync());
        var batch = await host.GetAsync($"/api/cook/batches/{id}");
        for (var turn = 0; turn < 12; turn++)
        {
            var (line, grams) = (chance.Next(3), chance.Next(1, 9000) / 10m);
            var path = $"/api/cook/batches/{id}/lines/{line}";
            batch = chance.Next(4) switch
            {
                0 => await host.MustAsync(HttpMethod.Put, path, new { text = "" }, (int)batch["version"]!),
                1 => await host.MustAsync(HttpMethod.Put, path, new { text = (string?)null }, (int)batch["version"]!),
                _ => await host.MustAsync(HttpMethod.Put, $"{path}/weight", new { grams }, (int)batch["version"]!),
            };
            var lines = batch["lines"]!.AsArray();
            Assert.Equal((decimal)batch["rawGrams"]!, lines.Sum(one => (decimal)one!["wentInGrams"]!));
            Assert.Equal(5000 - (decimal)lines[1]!["wentInGrams"]!, await InTheHouseAsync());
        }
    }

    [Fact]
    public async Task How_long_it_took_is_the_next_days_schedule()
    {
        await SoupAsync();
        var run = await BeginAsync();
        await PassAsync(4);
        run = await SayAsync("get out", "done");
        await PassAsync(15);
        run = await SayAsync(IdOf(run, "chop"), "done");
        await host.PostAsync($"{Run}/end", new { isOver = true });
        var names = await host.GetAsync("/api/recipes/names");
        var dishes = new[] { new { recipeId = names[0]!["id"], portions = 8 } };
        await host.PostAsync("/api/cook/planned", new { day = "2026-11-27", dishes });
        var laid = await host.PostAsync("/api/cook/days/2026-11-27/schedule", new { seconds = 0 });
        var chop = laid["tasks"]!.AsArray().Single(task => (string)task!["way"]!["verb"]! == "chop")!;

        // 220 g usually take 5 minutes and took 15; 440 g usually take 9, so 27 here.
        Assert.Equal((27, 9, false), (
            (int)chop["end"]! - (int)chop["start"]!, (int)chop["way"]!["usual"]!, (bool)chop["task"]!["isAbout"]!));
    }

    [Fact]
    public async Task What_is_put_away_waits_on_the_shelf_and_comes_back_with_the_word()
    {
        await SoupAsync();
        var stew = await PlanAsync("Stew", ["3 onions"], ["Chop the onions.", "Simmer 40 minutes."], "2026-11-27");
        var wishes = new { cooks = new[] { new { name = "", from = "10:00:00" } }, ahead = new[] { stew["id"] } };
        await host.MustAsync(HttpMethod.Put, $"/api/cook/days/{Today}", wishes, 0);
        var run = await BeginAsync();
        run = await SayAsync(IdOf(run, "put away"), "done");
        Assert.Single((await host.GetAsync("/api/cook/ahead")).AsArray());
        Assert.DoesNotContain(States(run), task => task.Verb == "put away" && task.State != "done");
        await host.PostAsync($"{Run}/tasks/back", new { tasks = run["changed"] });
        Assert.Empty((await host.GetAsync("/api/cook/ahead")).AsArray());
    }

    [Fact]
    public async Task What_can_not_be_begun_or_told_is_refused_with_a_sentence()
    {
        Assert.Equal("run-nothing", await RefusedAsync(HttpMethod.Post, Run, new { order = Array.Empty<string>() }));
        var nothing = new { order = Array.Empty<string>() };
        Assert.Equal("run-day", await RefusedAsync(HttpMethod.Post, "/api/cook/days/2026-11-26/run", nothing));
        Assert.Equal("not-found", await RefusedAsync(HttpMethod.Post, $"{Run}/tasks", new { taskId = "x", act = "done" }));
        await SoupAsync();
        await BeginAsync();
        Assert.Equal("run-there", await RefusedAsync(HttpMethod.Post, Run, new { order = Array.Empty<string>() }));
        Assert.Equal("not-found", await RefusedAsync(HttpMethod.Post, $"{Run}/tasks", new { taskId = "x", act = "done" }));
        var less = new { taskId = "get out", act = "more", minutes = -3 };
        Assert.Equal("run-more", await RefusedAsync(HttpMethod.Post, $"{Run}/tasks", less));
        var hot = new { oven = "oven:0", celsius = 9000, isOn = true };
        Assert.Equal("oven-celsius", await RefusedAsync(HttpMethod.Post, $"{Run}/ovens", hot));
        Assert.Equal("not-found", await RefusedAsync(HttpMethod.Post, $"{Run}/ovens", new { oven = "oven:7", celsius = 180, isOn = true }));
        using var real = new Host();
        var (status, answer) = await real.SendAsync(HttpMethod.Post, "/api/demo/pass", new { minutes = 5 });
        Assert.Equal((422, "clock-real"), (status, (string)answer["errors"]![0]!["code"]!));
    }

    // A step written in between, or a sentence mended.
    private async Task RewriteAsync(JsonNode batch, Random chance)
    {
        var recipe = await host.GetAsync($"/api/recipes/{batch["recipeId"]}");
        var steps = recipe["steps"]!.AsArray().Select(step => (string)step!["text"]!).ToList();
        var at = chance.Next(steps.Count);
        if (chance.Next(2) == 0) steps.Insert(at, "Mix 3 minutes.");
        else steps[at] = steps[at].TrimEnd('.') + ", gently.";
        await host.MustAsync(
            HttpMethod.Put, $"/api/recipes/{recipe["id"]}",
            new { name = recipe["name"], portions = 4, lines = recipe["lines"], steps = steps.Select(text => new { text }) },
            (int)recipe["version"]!);
    }

    /// <summary>
    /// Whatever two phones and the plan do to a day: it is always shown, every task is there once, and what is done stays done at its time.
    /// </summary>
    [Theory]
    [MemberData(nameof(Chances))]
    public async Task A_run_loses_no_task_and_changes_no_past(int seed)
    {
        var chance = new Random(seed);
        var dishes = new List<JsonNode> { await SoupAsync() };
        string[] baked = ["Chop the onion.", "Mix 6 minutes.", "Bake 30 minutes at 190 °C."];
        dishes.Add(await PlanAsync("Pie", ["1 onion", "500 g potatoes"], baked));
        var run = await BeginAsync();
        var past = new Dictionary<string, (string State, int Start, int End)>();
        for (var turn = 0; turn < 40; turn++)
        {
            var states = run["tasks"]!.AsArray().Select(task => ((string)task!["id"]!, (string)task["state"]!)).ToList();
            var waiting = states.FindAll(task => task.Item2 == "waiting");
            var going = states.FindAll(task => task.Item2 == "goingOn");
            switch (chance.Next(10))
            {
                case 0 when dishes.Count < 5:
                    string[] fried = ["Chop the onions and carrots.", "Fry 7 minutes."];
                    dishes.Add(await PlanAsync($"Dish {turn}", ["2 onions", "300 g carrots"], fried));
                    break;
                case 1:
                    var wishes = await host.GetAsync($"/api/cook/days/{Today}");
                    var out1 = chance.Next(2) == 0 ? null : new[] { dishes[chance.Next(dishes.Count)]["id"] };
                    var both = new[] { new { name = "", from = "10:00:00" }, new { name = "Bo", from = "10:20:00" } };
                    var wished = new { cooks = both[..(1 + chance.Next(2))], leftOut = out1 };
                    await host.MustAsync(HttpMethod.Put, $"/api/cook/days/{Today}", wished, (int)wishes["version"]!);
                    break;
                case 2 when run["changed"] is JsonArray { Count: > 0 } changed:
                    var back = changed.Select(id => (string)id!).ToList();
                    run = await host.PostAsync($"{Run}/tasks/back", new { tasks = back });
                    foreach (var id in back) past.Remove(id);
                    break;
                case 3:
                    await RewriteAsync(dishes[chance.Next(dishes.Count)], chance);
                    break;
                case 4 or 5 when waiting.Count > 0:
                    var one = waiting[chance.Next(waiting.Count)].Item1;
                    run = await SayAsync(one, chance.Next(3) switch { 0 => "start", 1 => "skip", _ => "done" });
                    break;
                case < 9 when going.Count > 0:
                    run = await SayAsync(going[chance.Next(going.Count)].Item1, chance.Next(4) == 0 ? "skip" : "done");
                    break;
                default:
                    await PassAsync(1 + chance.Next(15));
                    break;
            }

            var changedNow = run["changed"];
            run = await host.GetAsync(Run);
            var ids = run["laid"]!["tasks"]!.AsArray().Select(task => (string)task!["task"]!["id"]!).ToList();
            Assert.Equal(ids.Order(), run["tasks"]!.AsArray().Select(task => (string)task!["id"]!).Order());
            Assert.Equal(ids.Count, ids.Distinct().Count());
            var minute = (int)run["minute"]!;
            foreach (var task in run["laid"]!["tasks"]!.AsArray())
            {
                var id = (string)task!["task"]!["id"]!;
                var state = (string)run["tasks"]!.AsArray().Single(other => (string)other!["id"]! == id)!["state"]!;
                var now = (state, (int)task["start"]!, (int)task["end"]!);
                if (past.TryGetValue(id, out var before)) Assert.Equal(before, now);
                if (state is "done" or "skipped") past[id] = now;
                else Assert.True(now.Item3 > minute || state == "waiting");
            }

            Assert.All(past.Keys, id => Assert.Contains(id, ids));
            run["changed"] = changedNow?.DeepClone();
        }
    }
}
