using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Web.Tests;

/// <summary>The way from a recipe to an eaten box, and what a second tab, a restart or an undo does to it.</summary>
public sealed class WeekTests : IDisposable
{
    private const string Day = "2026-11-25";
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private static JsonNode DayOf(JsonNode week, int index = 2) => week["eaters"]![0]!["days"]![index]!;

    private Task<JsonNode> WeekAsync() => host.GetAsync($"/api/plan/weeks/{Day}");

    private async Task<JsonNode> LayAsync(Guid box, Guid eater, int? version = null) =>
        await host.PostAsync("/api/plan/boxes", new { boxId = box, eaterId = eater, day = Day }, version ?? await host.PlanVersionAsync());

    [Fact]
    public async Task From_recipe_to_eaten_box_the_figures_hold()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        await LayAsync(boxes[0], eater);
        var laid = DayOf(await WeekAsync());
        // 400 g oats (379 kcal) and 4 eggs of 50 g (143 kcal) are 1,802 kcal; the first of 745 g in 4 is 187 g.
        Assert.Equal(Math.Round(1802m * 187 / 745, 6), Math.Round((decimal)laid["sums"]!["energy"]!["value"]!, 6));
        Assert.Equal("under", (string?)laid["bands"]!["energy"]!["position"]);

        await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{laid["items"]![0]!["id"]}", new { eaten = true },
            await host.PlanVersionAsync());
        await host.PostAsync("/api/plan/foods", new { text = "150 g strawberries", eaterId = eater, day = Day, eaten = true },
            await host.PlanVersionAsync());
        var day = (await host.GetAsync($"/api/eat/{eater}/{Day}"))["day"]!;
        Assert.Equal((decimal)day["sums"]!["energy"]!["value"]!, (decimal)day["eaten"]!["energy"]!["value"]!);
        Assert.Equal(1525m - (decimal)day["eaten"]!["energy"]!["value"]!, (decimal)day["left"]!["energy"]!);
        Assert.Equal(3, (await WeekAsync())["shelf"]![0]!["boxIds"]!.AsArray().Count);
    }

    [Fact]
    public async Task Who_leaves_gelatin_out_of_protein_has_it_left_out_of_the_day_and_of_what_was_eaten()
    {
        var (eater, _, _) = await host.LaidTableAsync();
        await host.PostAsync("/api/plan/foods", new { text = "10 g gelatin powder", eaterId = eater, day = Day, eaten = true },
            await host.PlanVersionAsync());
        async Task<decimal[]> ProteinAsync()
        {
            var day = (await host.GetAsync($"/api/eat/{eater}/{Day}"))["day"]!;
            return [(decimal)day["sums"]!["protein"]!["value"]!, (decimal)day["eaten"]!["protein"]!["value"]!,
                (decimal)day["items"]![0]!["figures"]!["protein"]!["value"]!];
        }

        Assert.Equal([8.56m, 8.56m, 8.56m], await ProteinAsync());
        var item = (string)(await host.GetAsync($"/api/eat/{eater}/{Day}"))["day"]!["items"]![0]!["id"]!;
        async Task EatAsync(bool eaten) =>
            await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{item}", new { eaten }, await host.PlanVersionAsync());
        var row = (await host.GetAsync("/api/aim/eaters"))[0]!;
        var aim = row["aim"]!.DeepClone();
        aim["leavesOutIncompleteProtein"] = true;
        await host.MustAsync(HttpMethod.Put, $"/api/aim/eaters/{eater}", new { name = "Isa", aim }, (int)row["version"]!);

        // What was eaten before counts as it did; what is eaten from now on, without it.
        Assert.Equal([8.56m, 8.56m, 8.56m], await ProteinAsync());
        await EatAsync(false);
        Assert.Equal([0m, 0m, 0m], await ProteinAsync());
        await EatAsync(true);
        Assert.Equal([0m, 0m, 0m], await ProteinAsync());
        Assert.Equal(33.5m, (decimal)DayOf(await WeekAsync())["sums"]!["energy"]!["value"]!); // all its energy stays
    }

    [Fact]
    public async Task Undo_restores_the_week_exactly_and_its_undo_does_it_again()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        async Task<string> PrintAsync()
        {
            var week = await WeekAsync();
            week.AsObject().Remove("version");
            foreach (var group in week["shelf"]!.AsArray()) group!.AsObject().Remove("boxes");
            return week.ToJsonString();
        }

        var states = new List<string> { await PrintAsync() };
        var made = new List<string>();
        async Task DoAsync(Func<int, Task<JsonNode>> act)
        {
            made.Add((string)(await act(await host.PlanVersionAsync()))["id"]!);
            states.Add(await PrintAsync());
        }

        await DoAsync(version => LayAsync(boxes[0], eater, version));
        await DoAsync(version => LayAsync(boxes[1], eater, version));
        await DoAsync(version =>
            host.PostAsync("/api/plan/foods", new { text = "2 eggs", eaterId = eater, day = Day, place = 1 }, version));
        var items = DayOf(await WeekAsync())["items"]!.AsArray().Select(item => (string)item!["id"]!).ToList();
        await DoAsync(version =>
            host.MustAsync(HttpMethod.Put, $"/api/plan/items/{items[2]}/place", new { eaterId = eater, day = "2026-11-26", place = 0 },
            version));
        await DoAsync(version => host.MustAsync(HttpMethod.Put, $"/api/plan/items/{items[1]}/amount", new { text = "3 eggs" }, version));
        await DoAsync(version => host.MustAsync(HttpMethod.Put, $"/api/eat/items/{items[0]}", new { eaten = true }, version));
        await DoAsync(version => host.MustAsync(HttpMethod.Delete, $"/api/plan/items/{items[1]}", null, version));

        var redo = new Stack<string>();
        for (var i = made.Count - 1; i >= 0; i--)
        {
            redo.Push((string)(await host.PostAsync($"/api/plan/changes/{made[i]}/undo", ""))["id"]!);
            Assert.Equal(states[i], await PrintAsync());
        }

        foreach (var step in redo) await host.PostAsync($"/api/plan/changes/{step}/undo", "");
        Assert.Equal(states[^1], await PrintAsync());
    }

    [Fact]
    public async Task A_stale_second_tab_is_refused_and_changes_nothing()
    {
        var (eater, recipe, boxes) = await host.LaidTableAsync();
        var seen = await host.PlanVersionAsync();
        await LayAsync(boxes[0], eater, seen);
        var (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/plan/boxes",
            new { boxId = boxes[1], eaterId = eater, day = Day }, seen);
        Assert.Equal((412, "urn:lively-tern:problem:stale"), (status, (string?)answer["type"]));
        Assert.Single(DayOf(await WeekAsync())["items"]!.AsArray());

        await host.MustAsync(HttpMethod.Put, $"/api/recipes/{recipe}",
            new { name = "Oat bake, sweeter", lines = new[] { "400 g rolled oats", "50 g honey" }, portions = 4 }, 1);
        (status, answer) = await host.SendAsync(HttpMethod.Put, $"/api/recipes/{recipe}",
            new { name = "Mine", lines = new[] { "1 egg" }, portions = 4 }, 1);
        Assert.Equal((412, "Oat bake, sweeter"), (status, (string?)answer["current"]!["name"]));
        (status, _) = await host.SendAsync(HttpMethod.Put, $"/api/recipes/{recipe}",
            new { name = "Mine", lines = new[] { "1 egg" }, portions = 4 });
        Assert.Equal(428, status);
        Assert.Equal("Oat bake, sweeter", (string?)(await host.GetAsync($"/api/recipes/{recipe}"))["name"]);
    }

    [Fact]
    public async Task Two_hands_on_one_box_never_lay_it_twice()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        var version = await host.PlanVersionAsync();
        var answers = await Task.WhenAll(Enumerable.Range(0, 12).Select(i =>
            host.SendAsync(HttpMethod.Post, "/api/plan/boxes", new { boxId = boxes[0], eaterId = eater, day = $"2026-11-{25 + (i % 5)}" },
                version)));
        Assert.Single(answers, answer => answer.Status == 200);
        Assert.All(answers, answer => Assert.Contains(answer.Status, new[] { 200, 409, 412 }));
        Assert.Equal(1, (await WeekAsync())["eaters"]![0]!["days"]!.AsArray().Sum(day => day!["items"]!.AsArray().Count));
    }

    [Fact]
    public async Task By_no_way_does_a_box_lie_on_a_day_before_it_is_cooked()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        await host.PostAsync("/api/plan/boxes", new { boxId = boxes[0], eaterId = eater, day = Day }, await host.PlanVersionAsync());
        var item = (string)DayOf(await WeekAsync())["items"]![0]!["id"]!;
        foreach (var (method, path, body) in new (HttpMethod, string, object)[]
        {
            (HttpMethod.Post, "/api/plan/boxes", new { boxId = boxes[1], eaterId = eater, day = "2026-11-24" }),
            (HttpMethod.Put, $"/api/plan/items/{item}/place", new { eaterId = eater, day = "2026-11-24" }),
        })
        {
            var (status, answer) = await host.SendAsync(method, path, body, await host.PlanVersionAsync());
            Assert.Equal((422, "not-cooked-yet"), (status, (string?)answer["errors"]![0]!["code"]));
            Assert.Contains("Oat bake was cooked on Wednesday, 25 November", (string)answer["detail"]!, StringComparison.Ordinal);
        }

        Assert.Equal(item, (string?)Assert.Single(DayOf(await WeekAsync())["items"]!.AsArray())!["id"]);
    }

    [Fact]
    public async Task An_amount_is_changed_where_it_stands_planned_or_eaten_and_what_is_left_of_a_box_is_on_the_shelf()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        async Task<JsonNode> AmendAsync(JsonNode item, string text) =>
            await host.MustAsync(HttpMethod.Put, $"/api/plan/items/{item["id"]}/amount", new { text }, await host.PlanVersionAsync());
        await host.PostAsync("/api/plan/boxes", new { boxId = boxes[0], eaterId = eater, day = Day }, await host.PlanVersionAsync());
        await host.PostAsync("/api/plan/foods", new { text = "350 g rolled oats", eaterId = eater, day = Day, eaten = true },
            await host.PlanVersionAsync());
        async Task<(JsonNode Box, JsonNode Oats)> LookAsync() =>
            (DayOf(await WeekAsync())["items"]![0]!, DayOf(await WeekAsync())["items"]![1]!);
        var (box, oats) = await LookAsync();
        var whole = (decimal)box["grams"]!;
        await AmendAsync(oats, "352");
        var made = await AmendAsync(box, "half");
        (box, oats) = await LookAsync();
        Assert.Equal((whole / 2, whole), ((decimal)box["grams"]!, (decimal)box["partOf"]!));
        Assert.Equal(("352 g rolled oats", 352), ((string?)oats["text"], (decimal)oats["grams"]!));
        Assert.Equal(whole / 2, (decimal)(await WeekAsync())["shelf"]!.AsArray().Single(group => (bool)group!["isRest"]!)!["grams"]!);

        await host.PostAsync($"/api/plan/changes/{made["id"]}/undo", null);
        Assert.Null((await LookAsync()).Box["partOf"]);
        Assert.DoesNotContain((await WeekAsync())["shelf"]!.AsArray(), group => (bool)group!["isRest"]!);
    }

    [Fact]
    public async Task A_box_undone_from_the_plan_that_lies_elsewhere_by_now_stays_there()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        var first = (string)(await LayAsync(boxes[0], eater))["id"]!;
        var item = (string)DayOf(await WeekAsync())["items"]![0]!["id"]!;
        var off = (string)(await host.MustAsync(HttpMethod.Delete, $"/api/plan/items/{item}", null, await host.PlanVersionAsync()))["id"]!;
        await host.PostAsync("/api/plan/boxes", new { boxId = boxes[0], eaterId = eater, day = "2026-12-09" },
            await host.PlanVersionAsync());
        var (status, _) = await host.SendAsync(HttpMethod.Post, $"/api/plan/changes/{off}/undo");
        Assert.Equal(409, status);
        (status, _) = await host.SendAsync(HttpMethod.Post, $"/api/plan/changes/{first}/undo");
        Assert.Equal(409, status);
    }

    [Fact]
    public async Task What_was_cooked_keeps_its_figures_when_recipe_and_measure_change_later()
    {
        var (eater, recipe, boxes) = await host.LaidTableAsync();
        await LayAsync(boxes[0], eater);
        var before = DayOf(await WeekAsync())["sums"]!.ToJsonString();
        await host.MustAsync(HttpMethod.Put, $"/api/recipes/{recipe}",
            new { name = "Oat bake", lines = new[] { "1 kg butter" }, portions = 2 }, 1);
        await host.MustAsync(HttpMethod.Put, "/api/foods/egg/measures", new { measure = "large", grams = 70 });
        Assert.Equal(before, DayOf(await WeekAsync())["sums"]!.ToJsonString());
    }

    [Fact]
    public async Task A_measure_weighed_once_is_remembered()
    {
        var (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/plan/foods",
            new { text = "1 cup beef liver", eaterId = Guid.NewGuid(), day = Day }, 1);
        Assert.Equal((422, "cup"), (status, (string?)answer["missingMeasure"]!["measure"]));
        (status, answer) = await host.SendAsync(HttpMethod.Put, "/api/foods/beef-liver/measures", new { measure = "cup", grams = 0 });
        Assert.Equal((422, "grams"), (status, (string?)answer["field"]));
        await host.MustAsync(HttpMethod.Put, "/api/foods/beef-liver/measures", new { measure = "cups", grams = 220 });

        host.Dispose();
        using var again = new Host(host.Data);
        var line = (await again.PostAsync("/api/calc/parse", new { lines = new[] { "2 cups beef liver" } }))["lines"]![0]!;
        Assert.Equal(440m, (decimal)line["grams"]!);
    }

    [Fact]
    public async Task Packed_boxes_go_back_into_the_pan_until_one_is_eaten_and_those_on_days_stay_there_as_portions()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        var batch = await host.GetAsync($"/api/pack/batches/{(await host.GetAsync("/api/pack/batches"))[0]!["id"]}");
        await LayAsync(boxes[0], eater);
        var item = (string)DayOf(await WeekAsync())["items"]![0]!["id"]!;
        await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{item}", new { eaten = true }, await host.PlanVersionAsync());
        var (status, refused) = await host.SendAsync(HttpMethod.Delete, $"/api/pack/batches/{batch["id"]}/boxes", null,
            (int)batch["version"]!);
        Assert.Equal((409, "urn:lively-tern:problem:boxes-eaten"), (status, (string)refused["type"]!));
        await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{item}", new { eaten = false }, await host.PlanVersionAsync());

        var open = await host.MustAsync(HttpMethod.Delete, $"/api/pack/batches/{batch["id"]}/boxes", null, (int)batch["version"]!);
        var portion = DayOf(await WeekAsync())["items"]![0]!;
        Assert.Equal((item, (string)batch["id"]!), ((string)portion["id"]!, (string)portion["batchId"]!));
        Assert.Equal((decimal)batch["boxes"]![0]!["grams"]!, (decimal)portion["grams"]!);
        await host.MustAsync(HttpMethod.Delete, $"/api/plan/items/{item}", null, await host.PlanVersionAsync());
        var packed = await host.PostAsync($"/api/pack/batches/{batch["id"]}/boxes", new { fullGrams = 745, boxes = 3, pieces = 13 },
            (int)open["version"]!);
        Assert.Equal([4, 4, 4], packed["boxes"]!.AsArray().Select(box => (int)box!["pieces"]!));
    }

    [Fact]
    public async Task An_eater_with_boxes_stays_and_one_taken_off_comes_back()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        var change = (string)(await LayAsync(boxes[0], eater))["id"]!;
        var (status, _) = await host.SendAsync(HttpMethod.Delete, $"/api/aim/eaters/{eater}", null, 1);
        Assert.Equal(409, status);
        await host.PostAsync($"/api/plan/changes/{change}/undo", "");
        await host.MustAsync(HttpMethod.Delete, $"/api/aim/eaters/{eater}", null, 1);
        Assert.Empty((await host.GetAsync("/api/aim/eaters")).AsArray());
        await host.PostAsync($"/api/aim/eaters/{eater}/restore", "", 2);
        Assert.Single((await host.GetAsync("/api/aim/eaters")).AsArray());
    }

    [Fact]
    public async Task The_file_is_in_wal_mode_and_a_restart_finds_everything()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        await LayAsync(boxes[0], eater);
        var before = (await WeekAsync()).ToJsonString();
        host.Dispose();
        using var again = new Host(host.Data);
        Assert.Equal(before, (await again.GetAsync($"/api/plan/weeks/{Day}")).ToJsonString());
        await using var file = new SqliteConnection($"Data Source={host.Data}");
        await file.OpenAsync();
        await using var command = file.CreateCommand();
        command.CommandText = "PRAGMA journal_mode";
        Assert.Equal("wal", await command.ExecuteScalarAsync());
    }

    [Fact]
    public async Task The_built_in_foods_are_those_of_the_program_that_starts_and_own_ones_are_left_alone()
    {
        var own = await host.PostAsync("/api/foods",
            new
            {
                name = "Island granola",
                group = "grains",
                label = new
                {
                    basis = "per100g",
                    servingGrams = (decimal?)null,
                    convention = "total",
                    kilocalories = 400,
                    protein = 10,
                    fat = 10,
                    carbohydrate = 65
                }
            });
        host.Dispose();
        async Task<string> EggAsync(string sql)
        {
            await using (var file = new SqliteConnection($"Data Source={host.Data};Pooling=false"))
            {
                await file.OpenAsync();
                await using var command = file.CreateCommand();
                command.CommandText = sql;
                await command.ExecuteNonQueryAsync();
            }

            using var again = new Host(host.Data);
            Assert.Equal("Island granola", (string)(await again.GetAsync($"/api/foods/{own["id"]}"))["name"]!);
            return (string)(await again.GetAsync("/api/foods/egg"))["name"]!;
        }

        // As an older program would have left it; then as this one has.
        const string older = "UPDATE Foods SET Food = replace(Food, 'egg, whole', 'egg of old') WHERE Id = 'egg'";
        Assert.Equal("egg, whole", await EggAsync(older + "; PRAGMA user_version = 7"));
        Assert.Equal("egg of old", await EggAsync(older));
    }

    [Fact]
    public async Task A_file_from_before_a_migration_is_copied_aside_first()
    {
        var data = await OldFile.LayAsync("AimAndPlan", "CREATE TABLE Diary (Words TEXT); INSERT INTO Diary VALUES ('gale from the north')");
        var folder = Path.GetDirectoryName(data)!;
        using var migrated = new Host(data);
        await migrated.GetAsync("/health");
        var copy = Assert.Single(Directory.GetFiles(folder, "tern.before-*.db"));
        await using var kept = new SqliteConnection($"Data Source={copy};Pooling=False");
        await kept.OpenAsync();
        await using var read = kept.CreateCommand();
        read.CommandText = "SELECT Words FROM Diary";
        Assert.Equal("gale from the north", await read.ExecuteScalarAsync());
    }
}
