using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Web.Tests;

/// <summary>The prep day through the real host: what is planned is laid out, tried out, kept; a stale write is refused.</summary>
public sealed class PrepDayApiTests : IDisposable
{
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private async Task<JsonNode> DishAsync(string name, string[] lines, params string[] steps) => await host.PostAsync(
        "/api/recipes", new { name, portions = 4, lines, steps = steps.Select(text => new { text }) });

    private async Task<JsonNode> PlanAsync(string day, params JsonNode[] recipes) => await host.PostAsync(
        "/api/cook/planned", new { day, dishes = recipes.Select(recipe => new { recipeId = (string)recipe["id"]!, portions = 8 }) });

    private Task<JsonNode> LayAsync(object body) => host.PostAsync("/api/cook/days/2026-11-28/schedule", body);

    [Fact]
    public async Task A_planned_day_is_laid_out_tried_out_and_kept()
    {
        var soup = await DishAsync(
            "Soup",
            ["400 g red lentils, dry", "2 onions, chopped"],
            "Fry the onions 5 minutes.",
            "Simmer 40 minutes.");
        var pie = await DishAsync("Pie", ["500 g potatoes", "1 onion"], "Chop the onion.", "Bake 50 minutes at 190 °C.");
        await PlanAsync("2026-11-28", soup, pie);
        var day = await host.GetAsync("/api/cook/days/2026-11-28");
        Assert.Equal((0, 2), ((int)day["version"]!, day["batches"]!.AsArray().Count));

        var laid = await LayAsync(new { seconds = 2 });
        Assert.True((bool)laid["isProven"]!);
        Assert.Equal((int)laid["end"]!, (int)laid["bound"]!);
        var chop = laid["tasks"]!.AsArray().Single(task => (string)task!["task"]!["kind"]! == "prepare")!;
        // of twice the recipes
        Assert.Equal([220m, 440m], chop["task"]!["amounts"]!.AsArray().Select(amount => (decimal)amount!["grams"]!).Order());
        Assert.Equal(190, (int)laid["warmUps"]![0]!["celsius"]!);

        // Begun later and with the soup left out: only tried, nothing kept.
        var wishes = new
        {
            cooks = new[] { new { name = "Mo", from = "11:00:00" } },
            leftOut = new[] { (string)day["batches"]!.AsArray().Single(batch => (string)batch!["name"]! == "Soup")!["id"]! }
        };
        var tried = await LayAsync(new { seconds = 0, wishes });
        Assert.Equal("11:00:00", (string)tried["begins"]!);
        Assert.True((int)tried["end"]! <= (int)laid["end"]!);
        Assert.Equal("10:00:00", (string)(await host.GetAsync("/api/cook/days/2026-11-28"))["wishes"]!["cooks"]![0]!["from"]!);

        var kept = await host.MustAsync(HttpMethod.Put, "/api/cook/days/2026-11-28", wishes, 0);
        Assert.Equal((1, "Mo"), ((int)kept["version"]!, (string)kept["wishes"]!["cooks"]![0]!["name"]!));
        var (stale, now) = await host.SendAsync(HttpMethod.Put, "/api/cook/days/2026-11-28", wishes, 0);
        Assert.Equal((412, "Mo"), (stale, (string)now["current"]!["wishes"]!["cooks"]![0]!["name"]!));

        // The next prep day has the same cooks, with nothing left out.
        var next = await host.GetAsync("/api/cook/days/2026-12-05");
        Assert.Equal(("Mo", null), ((string)next["wishes"]!["cooks"]![0]!["name"]!, next["wishes"]!["leftOut"]));
    }

    [Fact]
    public async Task The_kitchen_is_kept_and_counts()
    {
        var kitchen = await host.GetAsync("/api/cook/kitchen");
        Assert.Equal(0, (int)kitchen["version"]!);
        var equipment = kitchen["equipment"]!;
        equipment["items"]!.AsArray().Single(item => (string)item!["kind"]! == "oven")!["holds"] = 1;
        equipment["quiet"] =
            new JsonArray(new JsonObject { ["from"] = "09:00:00", ["to"] = "12:00:00", ["kinds"] = new JsonArray("blender") });
        var saved = await host.MustAsync(HttpMethod.Put, "/api/cook/kitchen", equipment, 0);
        Assert.Equal(1, (int)saved["version"]!);
        var (stale, _) = await host.SendAsync(HttpMethod.Put, "/api/cook/kitchen", equipment, 0);
        Assert.Equal(412, stale);
        Assert.True(JsonNode.DeepEquals(equipment, (await host.GetAsync("/api/cook/kitchen"))["equipment"]));

        await PlanAsync("2026-11-28", await DishAsync("Cream", ["500 g potatoes"], "Blend 3 minutes."));
        var blended = (await LayAsync(new { seconds = 0 }))["tasks"]!.AsArray().Single(task => (string)task!["way"]!["verb"]! == "blend")!;
        Assert.Equal(120, (int)blended["start"]!); // ten o'clock and two hours of quiet
    }

    [Fact]
    public async Task Days_without_anything_and_dishes_without_steps_are_answered()
    {
        Assert.Empty((await host.GetAsync("/api/cook/days")).AsArray());
        var bare = await LayAsync(new { seconds = 1 });
        Assert.Equal((0, 0), ((int)bare["end"]!, bare["tasks"]!.AsArray().Count));
        await PlanAsync("2026-11-28", await DishAsync("Bare", ["500 g potatoes"]));
        Assert.Equal("noSteps", (string)Assert.Single((await LayAsync(new { seconds = 0 }))["warnings"]!.AsArray())!["lack"]!);
        Assert.Equal(["2026-11-28"], (await host.GetAsync("/api/cook/days")).AsArray().Select(day => (string)day!["day"]!));
    }

    [Fact]
    public async Task Steps_are_read_for_scripts()
    {
        var read = await host.PostAsync(
            "/api/calc/steps",
            new { steps = new[] { "bake 25 minutes at 180 °C until golden", "Cook in the rice cooker.", "" } });
        var first = read["steps"]![0]!;
        Assert.Equal(
            (0, 25, 180, "oven"),
            ((int)first["minutes"]!["handsOn"]!, (int)first["minutes"]!["unattended"]!, (int)first["celsius"]!,
                (string)first["uses"]![0]!));
        Assert.Equal("rice cooker", (string)read["steps"]![1]!["notUnderstood"]![0]!);
        Assert.Equal(0, (int)read["steps"]![2]!["minutes"]!["handsOn"]!);
        var said = await host.PostAsync(
            "/api/calc/steps",
            new { steps = new[] { "Bake until golden." }, said = new[] { new { text = "", unattended = 50 } } });
        Assert.Equal(
            (50, 30),
            ((int)said["steps"]![0]!["minutes"]!["unattended"]!, (int)said["steps"]![0]!["sentence"]!["minutes"]!["unattended"]!));
    }

    [Fact]
    public async Task A_day_of_tasks_is_laid_out_for_scripts()
    {
        var tasks = new object[] { new { id = "a", minutes = 25, uses = new { oven = 1 }, after = new[] { "b" } },
            new { id = "b", minutes = 5 }, new { id = "c", minutes = 40, uses = new { oven = 1 } } };
        var day = await host.PostAsync("/api/calc/schedule", new { tasks, capacities = new { oven = 1 } });
        Assert.Equal((65, 65, true), ((int)day["end"]!, (int)day["bound"]!, (bool)day["proven"]!));
        var starts = day["tasks"]!.AsArray().ToDictionary(task => (string)task!["id"]!, task => (int)task!["start"]!);
        Assert.True(starts["b"] + 5 <= starts["a"] && (starts["a"] + 25 <= starts["c"] || starts["c"] + 40 <= starts["a"]));
    }

    private static readonly string[] Sentences =
    [
        "Chop the onions.", "Fry 6 minutes.", "Simmer 30 minutes.", "Bake 35 minutes at 180 °C.",
            "Bake 20 minutes at 220 °C, or air-fry 12 minutes.",
        "Blend for 2 minutes.", "Chill 1 hour.", "Cook on low for 4 hours in the slow cooker.",
            "5 minutes pressure, 10 minutes natural release",
        "Cook in the waffle iron, four at a time, 5 minutes.", "Let it rise for an hour.", "~~~", "Cook in the rice cooker.",
    ];

    /// <summary>
    /// Batches come and go, cooks and machines change, at random: each day is answered, with each of its dishes packed once, every cook at one
    /// thing at a time and in their hours, and what was kept is what is read.
    /// </summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public async Task Whatever_is_planned_is_laid_out(int seed)
    {
        var chance = new Random(seed);
        var kept = (Wishes: (JsonNode?)null, Version: 0);
        for (var turn = 0; turn < 14; turn++)
        {
            switch (chance.Next(4))
            {
                case 0 or 1:
                    var steps = Enumerable.Range(0, chance.Next(0, 4)).Select(_ => Sentences[chance.Next(Sentences.Length)]).ToArray();
                    var recipe = await DishAsync($"Dish {seed} {turn}", ["600 g potatoes", "2 onions, chopped", "1 kg red lentils, dry"],
                        steps);
                    await PlanAsync("2026-11-28", recipe);
                    break;
                case 2:
                    var to = chance.Next(3) == 0 ? null : $"{chance.Next(13, 22)}:15:00";
                    var wishes = new
                    {
                        cooks = new[] { new { name = "Mo", from = "08:30:00", to },
                            new { name = "Di", from = "09:00:00", to = (string?)"10:00:00" } },
                        doneBy = chance.Next(2) == 0 ? "11:00:00" : null,
                    };
                    var saved = await host.MustAsync(HttpMethod.Put, "/api/cook/days/2026-11-28", wishes, kept.Version);
                    kept = (saved["wishes"], (int)saved["version"]!);
                    break;
                default:
                    var kitchen = await host.GetAsync("/api/cook/kitchen");
                    foreach (var item in kitchen["equipment"]!["items"]!.AsArray()) item!["count"] = chance.Next(0, 4);
                    await host.MustAsync(HttpMethod.Put, "/api/cook/kitchen", kitchen["equipment"], (int)kitchen["version"]!);
                    break;
            }

            var day = await host.GetAsync("/api/cook/days/2026-11-28");
            if (kept.Wishes is not null) Assert.True(JsonNode.DeepEquals(kept.Wishes, day["wishes"]));
            var laid = await LayAsync(new { seconds = turn % 4 == 0 ? 0.3 : 0 });
            var tasks = laid["tasks"]!.AsArray();
            var dishes = day["batches"]!.AsArray().Select(batch => (string)batch!["id"]!).ToList();
            var packed = tasks.Where(task => (string)task!["task"]!["kind"]! == "pack").Select(task =>
                (string)task!["task"]!["dishes"]![0]!);
            Assert.Equal(dishes.Order(), packed.Order());
            foreach (var lane in laid["lanes"]!.AsArray().Where(lane => lane!["kind"] is null).Select(lane => (string)lane!["id"]!))
            {
                var own = tasks.Where(task => task!["lanes"]!.AsArray().Any(id => (string)id! == lane))
                    .Select(task => (Start: (int)task!["start"]!, End: (int)task["end"]!)).Order().ToList();
                Assert.All(own.Zip(own.Skip(1)), pair => Assert.True(pair.First.End <= pair.Second.Start, lane));
                if (lane == "cook:1" && (int)laid["overtime"]! == 0) Assert.All(own, task => Assert.InRange(task.Start, 30, 90));
            }

            Assert.True((int)laid["bound"]! <= (int)laid["end"]!);
            if ((int)laid["late"]! > 0 || (int)laid["overtime"]! > 0) Assert.NotEmpty(laid["chain"]!.AsArray());
        }
    }

    /// <summary>More batches than any kitchen cooks in a day get a sentence, at once.</summary>
    [Fact]
    public async Task A_day_of_too_many_dishes_says_so()
    {
        var recipe = await DishAsync("Soup", ["400 g red lentils, dry"], "Chop.", "Simmer 40 minutes.");
        foreach (var count in new[] { 20, 20 }) await PlanAsync("2026-11-28", [.. Enumerable.Repeat(recipe, count)]);
        var laid = await LayAsync(new { seconds = 0 });
        Assert.Equal(40, laid["tasks"]!.AsArray().Count(task => (string)task!["task"]!["kind"]! == "pack"));
        await PlanAsync("2026-11-28", recipe);
        var (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/cook/days/2026-11-28/schedule", new { seconds = 0 });
        Assert.Equal((422, "urn:lively-tern:problem:dishes-many"), (status, (string?)answer["type"]));
    }

    /// <summary>A batch in its pan is on its day still, until it is weighed and packed.</summary>
    [Fact]
    public async Task What_is_being_cooked_stays_on_the_day()
    {
        var recipe = await DishAsync("Soup", ["400 g red lentils, dry"], "Simmer 40 minutes.");
        var planned = (await PlanAsync("2026-11-25", recipe))[0]!;
        await host.PostAsync($"/api/cook/planned/{planned["id"]}/cooked", "", (int)planned["version"]!);
        var batch = Assert.Single((await host.GetAsync("/api/cook/days/2026-11-25"))["batches"]!.AsArray())!;
        Assert.True((bool)batch["isCooking"]!);
    }

    /// <summary>Before sentences were read, a step that said nothing was kept as no minutes and nothing occupied: it is read by its sentence now.</summary>
    [Fact]
    public async Task Steps_kept_before_sentences_were_read_say_what_they_said()
    {
        var recipe = await DishAsync("Old", ["500 g potatoes"], "Bake 35 minutes at 200 °C.", "Fry.", "Stir.");
        using (var connection = new SqliteConnection($"Data Source={host.Data}"))
        {
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = """
                UPDATE Recipes SET Steps = '{"v":1,"steps":[
                    {"text":"Bake 35 minutes at 200 °C.","handsOn":0,"unattended":0,"occupies":[],"temperatureC":null,"doneWhen":null},
                    {"text":"Fry.","handsOn":25,"unattended":0,"occupies":["ring"],"temperatureC":null,"doneWhen":"brown"},
                    {"text":"Stir.","handsOn":0,"unattended":7,"occupies":[],"temperatureC":null,"doneWhen":null}]}'
                """;
            Assert.Equal(1, command.ExecuteNonQuery());
        }

        host.Dispose();
        using var again = new Host(host.Data);
        var steps = (await again.GetAsync($"/api/recipes/{recipe["id"]}"))["steps"]!;
        Assert.Equal((null, null, null), (steps[0]!["handsOn"], steps[0]!["unattended"], steps[0]!["occupies"]));
        Assert.Equal(
            (25, 0, "ring", "brown"),
            ((int)steps[1]!["handsOn"]!, (int)steps[1]!["unattended"]!, (string)steps[1]!["occupies"]![0]!,
                (string)steps[1]!["doneWhen"]!));
        Assert.Equal((0, 7), ((int)steps[2]!["handsOn"]!, (int)steps[2]!["unattended"]!));
        Assert.Equal((25, 42),
            ((int)(await again.GetAsync($"/api/recipes/{recipe["id"]}"))["handsOn"]!,
            (int)(await again.GetAsync($"/api/recipes/{recipe["id"]}"))["unattended"]!));
    }

    [Theory]
    [InlineData("""{"cooks": []}""", "cooks-many")]
    [InlineData("""{"cooks": [{"name": "a", "from": "10:00:00", "to": "09:00:00"}]}""", "cook-hours")]
    [InlineData("""{"cooks": [{"name": "a", "from": "10:00:00"}], "doneBy": "08:00:00"}""", "done-by")]
    public async Task Wishes_that_cannot_be_get_a_sentence(string wishes, string type)
    {
        var (status, answer) = await host.SendAsync(HttpMethod.Put, "/api/cook/days/2026-11-28", wishes, 0);
        Assert.Equal((422, "urn:lively-tern:problem:" + type), (status, (string?)answer["type"]));
        var (tried, _) = await host.SendAsync(HttpMethod.Post, "/api/cook/days/2026-11-28/schedule", $$"""{"seconds": 0, "wishes": {{wishes}}}""");
        Assert.Equal(422, tried);
    }

    [Theory]
    [InlineData("""{"items": [{"kind": "oven", "count": -1}], "ovenApart": 0, "quiet": []}""", "equipment-count")]
    [InlineData("""{"items": [{"kind": "oven", "count": 1}, {"kind": "oven", "count": 1}], "ovenApart": 0, "quiet": []}""", "equipment-twice")]
    [InlineData("""{"items": [{"kind": "ring", "count": 1, "holds": 0}], "ovenApart": 0, "quiet": []}""", "equipment-holds")]
    [InlineData("""{"items": [], "ovenApart": 900, "quiet": []}""", "oven-apart")]
    [InlineData("""{"items": [], "ovenApart": 0, "quiet": [{"from": "12:00:00", "to": "09:00:00", "kinds": []}]}""", "quiet-hours")]
    public async Task A_kitchen_that_cannot_be_gets_a_sentence(string kitchen, string type)
    {
        var (status, answer) = await host.SendAsync(HttpMethod.Put, "/api/cook/kitchen", kitchen, 0);
        Assert.Equal((422, "urn:lively-tern:problem:" + type), (status, (string?)answer["type"]));
    }
}
