using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using LivelyTern.Data.Disk;
using LivelyTern.Data;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Web.Tests;

/// <summary>Recipes with their parts, families, history and open formats, through the real host.</summary>
public sealed class RecipesTests : IDisposable
{
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private static JsonObject Sent(JsonNode recipe, params string[] lines)
    {
        var body = new JsonObject { ["name"] = recipe["name"]!.DeepClone(), ["portions"] = recipe["portions"]!.DeepClone() };
        body["lines"] = lines.Length > 0 ? new JsonArray([.. lines.Select(line => (JsonNode)line)]) : recipe["lines"]!.DeepClone();
        foreach (var list in new[] { "foods", "parts", "takenOut", "keys", "steps" }) body[list] = recipe[list]!.DeepClone();
        return body;
    }

    private Task<JsonNode> AddAsync(string name, int portions, params string[] lines) =>
        host.PostAsync("/api/recipes", new { name, portions, lines });

    private async Task<decimal> KcalAsync(JsonNode recipe) =>
        (decimal)(await host.GetAsync("/api/recipes")).AsArray().Single(row =>
            (string)row!["id"]! == (string)recipe["id"]!)!["portion"]!["energy"]!["value"]!;

    [Fact]
    public async Task A_base_changed_once_is_followed_by_all_its_flavours()
    {
        var falafel = await AddAsync("Falafel", 4, "400 g chickpeas, drained", "40 g wheat flour, white", "30 g olive oil");
        var hot = await host.PostAsync("/api/recipes",
            new { name = "Hot falafel", portions = 4, lines = falafel["lines"], keys = falafel["keys"], baseId = falafel["id"] });
        Assert.All(hot["origins"]!.AsArray(), origin => Assert.Equal("base", (string)origin!));

        // The variant: other oil, no flour, chilli.
        var body = Sent(hot, "400 g chickpeas, drained", "15 g sesame oil", "10 g red chilli");
        body["keys"] = new JsonArray(hot["keys"]![0]!.DeepClone(), hot["keys"]![2]!.DeepClone(), "");
        hot = await host.MustAsync(HttpMethod.Put, $"/api/recipes/{hot["id"]}", body, (int)hot["version"]!);
        Assert.Equal(["base", "replaced", "own"], hot["origins"]!.AsArray().Select(origin => (string)origin!));
        Assert.Equal("40 g wheat flour, white", (string)hot["dropped"]![0]!);

        var before = await KcalAsync(hot);
        var changed = Sent(falafel);
        changed["lines"]![0] = "600 g chickpeas, drained";
        await host.MustAsync(HttpMethod.Put, $"/api/recipes/{falafel["id"]}", changed, 1);
        Assert.Equal(before + (200 * 1.39m / 4), await KcalAsync(hot)); // chickpeas have 139 kcal in 100 g
        Assert.Equal(["600 g chickpeas, drained", "15 g sesame oil", "10 g red chilli"],
            (await host.GetAsync($"/api/recipes/{hot["id"]}"))["lines"]!.AsArray().Select(line => (string)line!));
        Assert.Equal("Hot falafel", (string)(await host.GetAsync($"/api/recipes/{falafel["id"]}"))["variants"]![0]!["name"]!);
        Assert.Equal(422,
            (await host.SendAsync(HttpMethod.Post, "/api/recipes",
            new { name = "Hotter", portions = 4, lines = Array.Empty<string>(), baseId = hot["id"] })).Status);
        Assert.Equal(404,
            (await host.SendAsync(HttpMethod.Post, "/api/recipes",
            new { name = "Orphan", portions = 4, lines = Array.Empty<string>(), baseId = Guid.NewGuid() })).Status);
    }

    [Fact]
    public async Task A_recipe_inside_another_counts_and_a_circle_is_refused_with_its_names()
    {
        var sauce = await AddAsync("Harbour sauce", 4, "200 g butter", "200 g passata");
        var stew = await AddAsync("Stew", 2, "100 g harbour sauce", "2 portions harbour sauce");
        Assert.Equal(((200 * 7.17m) + (200 * 0.38m)) * 0.75m / 2, await KcalAsync(stew));

        var body = Sent(sauce, "200 g butter", "100 g stew");
        body["foods"] = new JsonArray("", $"recipe:{stew["id"]}");
        var closing = Sent(stew, "100 g harbour sauce");
        closing["foods"] = new JsonArray($"recipe:{sauce["id"]}");
        await host.MustAsync(HttpMethod.Put, $"/api/recipes/{stew["id"]}", closing, 1);
        var (status, answer) = await host.SendAsync(HttpMethod.Put, $"/api/recipes/{sauce["id"]}", body, 1);
        Assert.Equal(422, status);
        Assert.Contains("Harbour sauce → Stew → Harbour sauce", (string)answer["detail"]!);
        Assert.Equal("200 g passata", (string)(await host.GetAsync($"/api/recipes/{sauce["id"]}"))["lines"]![1]!);

        // Cooked, the batch holds the foods themselves.
        var batch = await host.PostAsync("/api/cook/batches", new { recipeId = stew["id"] });
        Assert.NotNull(batch["id"]);
    }

    [Fact]
    public async Task Every_version_is_kept_with_what_changed_and_the_figures_then_and_now()
    {
        var recipe = await AddAsync("Bowl", 1, "100 g rolled oats", "10 g honey");
        var second = Sent(recipe, "100 g rolled oats", "30 g honey", "1 egg");
        second["keys"] = new JsonArray([.. recipe["keys"]!.AsArray().Select(key => key!.DeepClone()), ""]);
        recipe = await host.MustAsync(HttpMethod.Put, $"/api/recipes/{recipe["id"]}", second, 1);
        var versions = (await host.GetAsync($"/api/recipes/{recipe["id"]}/versions")).AsArray();
        Assert.Equal([2, 1], versions.Select(version => (int)version!["version"]!));
        Assert.Equal([("changed", "30 g honey"), ("added", "1 egg")],
            versions[0]!["changes"]!.AsArray().Select(change => ((string)change!["kind"]!, (string)change["after"]!["text"]!)));
        Assert.Equal(409.4m, (decimal)versions[1]!["then"]!["energy"]!["value"]!); // 379 + 30.4 kcal

        // Back to the first: saved as a new version; what is typed within two minutes is one.
        await host.MustAsync(HttpMethod.Put, $"/api/recipes/{recipe["id"]}", versions[1]!["written"]!, 2);
        versions = (await host.GetAsync($"/api/recipes/{recipe["id"]}/versions")).AsArray();
        Assert.Equal([3, 1], versions.Select(version => (int)version!["version"]!));
        Assert.Empty(versions[0]!["changes"]!.AsArray());
    }

    [Fact]
    public async Task Parts_subtractions_steps_yield_and_pan_come_back_as_written()
    {
        var body = new
        {
            name = "Roast",
            portions = 4,
            lines = new[] { "800 g chicken thighs with skin", "60 g rapeseed oil", "100 g plain yogurt", "40 g rapeseed oil" },
            parts = new[] { "main", "main", "topping", "main" },
            takenOut = new[] { false, false, false, true },
            pieces = 8,
            cookedGrams = 700,
            fills = "900 ml",
            pan = new { shape = "round", lengthCm = 26 },
            steps = new[] { new { text = "Roast.", handsOn = 5, unattended = 40, occupies = new[] { "oven", "tray" }, temperatureC = 200,
                doneWhen = "74 °C inside" } },
        };
        var recipe = await host.PostAsync("/api/recipes", body);
        Assert.Equal((8, 700m, "900 ml", "round", "topping", true),
            ((int)recipe["pieces"]!, (decimal)recipe["cookedGrams"]!, (string)recipe["fills"]!, (string)recipe["pan"]!["shape"]!,
            (string)recipe["parts"]![2]!, (bool)recipe["takenOut"]![3]!));
        Assert.Equal((5, 40), ((int)recipe["handsOn"]!, (int)recipe["unattended"]!));
        Assert.Equal(("74 °C inside", "oven"), ((string)recipe["steps"]![0]!["doneWhen"]!, (string)recipe["steps"]![0]!["occupies"]![0]!));
        var calc = await host.PostAsync("/api/calc/recipe", body);
        Assert.Equal((8 * 221) + (20 * 8.84m) + 61, (decimal)calc["batch"]!["figures"]!["energy"]!["value"]!);
        Assert.Equal((175m, true), ((decimal)calc["portionGrams"]!, (bool)calc["isCookedWeight"]!));
        Assert.Equal(["milk"], calc["allergens"]!.AsArray().Select(name => (string)name!));
        Assert.True((decimal)calc["lines"]![3]!["shares"]!["energy"]! < 0);
        Assert.Equal(8 * 221 / 4m, (decimal)calc["lines"]![0]!["portion"]!["energy"]!["value"]!);
        Assert.Equal(Math.Round(100m / 700 * 2005.8m, 6), Math.Round((decimal)calc["density"]!["kcalPer100g"]!, 6));
    }

    [Theory]
    [InlineData("""{"name": "x", "lines": [], "portions": 0}""", "portions")]
    [InlineData("""{"name": "x", "lines": [], "portions": 4, "pieces": -1}""", "pieces")]
    [InlineData("""{"name": "x", "lines": [], "portions": 4, "fills": "8"}""", "fills")]
    [InlineData("""{"name": "x", "lines": [], "portions": 4, "fills": "9999999999999999999999999999 l"}""", "fills")]
    [InlineData("""{"name": "x", "lines": [], "portions": 4, "pan": {"shape": "round", "lengthCm": 0}}""", "pan")]
    [InlineData("""{"name": "x", "lines": [], "portions": 4, "steps": [{"text": "a", "handsOn": -5}]}""", "steps[0].handsOn")]
    public async Task A_recipe_that_cannot_be_is_refused_at_its_field(string body, string field) =>
        Assert.Equal((422, field),
            await host.SendAsync(HttpMethod.Post, "/api/recipes", body) is var (status, answer)
            ? (status, (string)answer["field"]!) : default);

    [Fact]
    public async Task What_cuts_swaps_and_scalings_do_is_told_without_being_stored()
    {
        var dal = new
        {
            lines = new[] { "700 g red lentils, dry", "4 tbsp rapeseed oil", "400 g coconut milk" },
            portions = 8,
            cookedGrams = 3000,
            pan = new { shape = "rectangular", lengthCm = 30, widthCm = 20 }
        };
        Assert.Equal("most-points",
            (string)(await host.PostAsync("/api/calc/cuts",
            new { recipe = dal, measure = "points", most = 4 }))["largestProblem"]!["code"]!);
        var rule = new
        {
            name = "one for fifty",
            perUnit = new { energy = 0.02 },
            step = 1,
            freeGroups = Array.Empty<string>(),
            freeFoods = Array.Empty<string>()
        };
        var counted = new { dal.lines, dal.portions, dal.cookedGrams, dal.pan, rule };
        var cuts = await host.PostAsync("/api/calc/cuts", new { recipe = counted, measure = "points", most = 4 });
        Assert.Equal((35, 3000m), (cuts["cuts"]!.AsArray().Count, (decimal)cuts["grams"]!));
        Assert.True((decimal)cuts["largest"]!["figures"]!["points"]!["value"]! <= 4);
        Assert.Equal("most-none",
            (string)(await host.PostAsync("/api/calc/cuts",
            new { recipe = dal, measure = "energy", most = 0 }))["largestProblem"]!["code"]!);

        var light = new
        {
            lines = new[] { "700 g red lentils, dry", "4 tbsp rapeseed oil", "400 g light coconut milk" },
            portions = 8,
            cookedGrams = 3000
        };
        var swap = await host.PostAsync("/api/calc/swap", new { before = dal, after = light });
        Assert.Equal(-62, (decimal)swap["difference"]!["energy"]!["value"]!); // 400 g of 197 and of 73 kcal in 100 g, over 8

        var ideas = (await host.PostAsync("/api/calc/lighten", new { recipe = dal, less = 60, keepProtein = 20 }))["ideas"]!.AsArray();
        Assert.Equal("coconut-milk-light", (string)ideas[0]!["steps"]![0]!["foodId"]!);
        Assert.True((bool)ideas[0]!["reachesGoal"]!);

        var scaled = await host.PostAsync("/api/calc/scale",
            new { recipe = dal, by = new { pan = new { shape = "round", lengthCm = 20 } } });
        Assert.Equal((0.5236m, 1m, 4),
            (Math.Round((decimal)scaled["factor"]!, 4), Math.Round((decimal)scaled["depthFactor"]!, 6),
            (int)scaled["recipe"]!["portions"]!));
        foreach (var (path, body) in new (string,
            object)[] { ("scale", new { recipe = dal, by = new { factor = -1 } }), ("lighten", new { recipe = dal, less = 0 }),
            ("cuts", new { recipe = new { lines = Array.Empty<string>(), portions = 0 } }) })
            Assert.Equal(422, (await host.SendAsync(HttpMethod.Post, "/api/calc/" + path, body)).Status);
        Assert.Empty((await host.GetAsync("/api/recipes")).AsArray());
    }

    [Fact]
    public async Task A_recipe_goes_out_as_json_ld_and_comes_back_from_a_saved_page()
    {
        var recipe = await AddAsync("Dal", 10, "700 g red lentils, dry", "2 x 400 g tin chopped tomatoes", "1 pebble");
        using var file = await host.Http.GetAsync($"/api/recipes/{recipe["id"]}/recipe.jsonld");
        Assert.Equal(("application/ld+json", "dal.jsonld"),
            (file.Content.Headers.ContentType!.MediaType, file.Content.Headers.ContentDisposition!.FileName));
        Assert.StartsWith("# Dal", await host.Http.GetStringAsync($"/api/recipes/{recipe["id"]}/recipe.md"));

        using var page =
            new ByteArrayContent(
            Encoding.UTF8.GetBytes($"<html><script type=\"application/ld+json\">{await file.Content.ReadAsStringAsync()}</script></html>"));
        page.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        using var answer = await host.Http.PostAsync("/api/recipes/read", page);
        var found = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["recipes"]![0]!;
        Assert.Equal(["1 pebble"], found["notUnderstood"]!.AsArray().Select(line => (string)line!));
        Assert.Contains(found["notMapped"]!.AsArray(), line => ((string)line!).StartsWith("nutrition"));
        var again = await host.PostAsync("/api/recipes", found["recipe"]!);
        Assert.Equal(recipe["lines"]!.ToJsonString(), again["lines"]!.ToJsonString());
    }

    [Fact]
    public async Task Two_things_to_taste_come_in_as_a_line_for_each()
    {
        using var text =
            new ByteArrayContent(
            Encoding.UTF8.GetBytes("Soup\nFor the sauce:\n200 g red lentils, dry\nSalt & freshly ground pepper to taste\nsalt and pepper\n"));
        text.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        using var answer = await host.Http.PostAsync("/api/recipes/read", text);
        var found = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["recipes"]![0]!;
        Assert.Equal(["200 g red lentils, dry", "Salt, to taste", "freshly ground pepper, to taste", "salt, to taste", "pepper, to taste"],
            found["recipe"]!["lines"]!.AsArray().Select(line => (string)line!));
        Assert.All(found["recipe"]!["parts"]!.AsArray(), part => Assert.Equal("sauce", (string)part!));
        Assert.Empty(found["notUnderstood"]!.AsArray());
        Assert.Equal((5, 0, 0),
            ((int)found["standings"]!["sure"]!, (int)found["standings"]!["byDefault"]!, (int)found["standings"]!["open"]!));
    }

    [Fact]
    public async Task A_file_of_before_is_brought_up_and_loses_nothing()
    {
        var path = await OldFile.LayAsync("First", """
            INSERT INTO Recipes (Id, Name, Letters, Tint, Portions, ChangedAt, Version) VALUES ('01A00000-0000-7000-8000-000000000001', 'Old bake', 'OB', 0, 4, 0, 3);
            INSERT INTO RecipeLineRow (RecipeId, Position, Text) VALUES ('01A00000-0000-7000-8000-000000000001', 0, '400 g rolled oats'), ('01A00000-0000-7000-8000-000000000001', 1, '4 eggs');
            """);
        using var upgraded = new Host(path);
        var recipe = await upgraded.GetAsync("/api/recipes/01a00000-0000-7000-8000-000000000001");
        Assert.Equal(["400 g rolled oats", "4 eggs"], recipe["lines"]!.AsArray().Select(line => (string)line!));
        Assert.Equal(2, recipe["keys"]!.AsArray().Select(key => (string)key!).Where(key => key.Length > 0).Distinct().Count());
        Assert.Single(Directory.GetFiles(Path.GetDirectoryName(path)!, "*.before-*.db"));

        // The first change after that keeps how it stood before, though no version was kept then.
        await upgraded.MustAsync(HttpMethod.Put, $"/api/recipes/{recipe["id"]}", Sent(recipe, "500 g rolled oats", "4 eggs"), 3);
        var versions = (await upgraded.GetAsync($"/api/recipes/{recipe["id"]}/versions")).AsArray();
        Assert.Equal([(4, "500 g rolled oats"), (3, "400 g rolled oats")],
            versions.Select(version => ((int)version!["version"]!, (string)version["written"]!["lines"]![0]!)));
        Assert.Equal("changed", (string)versions[0]!["changes"]![0]!["kind"]!);
    }

    [Fact]
    public async Task A_clock_set_back_deletes_no_version()
    {
        var path = Path.Combine(Directory.CreateTempSubdirectory("tern-clock-").FullName, "tern.db");
        object Body(int eggs) => new { name = "Bake", lines = new[] { $"{eggs} eggs" }, portions = 1 };
        string id;
        using (var today = new Host(path, today: "2026-11-25"))
        {
            id = (string)(await today.PostAsync("/api/recipes", Body(1)))["id"]!;
            await today.MustAsync(HttpMethod.Put, $"/api/recipes/{id}", Body(2), 1);
        }

        using var yesterday = new Host(path, today: "2026-11-24");
        await yesterday.MustAsync(HttpMethod.Put, $"/api/recipes/{id}", Body(3), 2);
        var versions = (await yesterday.GetAsync($"/api/recipes/{id}/versions")).AsArray();
        Assert.Equal([3, 2, 1], versions.Select(version => (int)version!["version"]!));
    }

    /// <summary>Three migrations are pending and the last finds something in its way: not even the first of them stays.</summary>
    [Fact]
    public async Task An_upgrade_that_breaks_off_leaves_the_file_as_it_was()
    {
        const string Shape = "SELECT name || ': ' || coalesce(sql, '') FROM sqlite_schema WHERE name NOT LIKE 'sqlite_%' ORDER BY name";
        var path = await OldFile.LayAsync("First", """
            INSERT INTO Recipes (Id, Name, Letters, Tint, Portions, ChangedAt, Version) VALUES ('01A00000-0000-7000-8000-000000000001', 'Old bake', 'OB', 0, 4, 0, 3);
            INSERT INTO RecipeLineRow (RecipeId, Position, Text) VALUES ('01A00000-0000-7000-8000-000000000001', 0, '400 g rolled oats');
            CREATE TABLE ef_temp_PlanItems (InTheWay TEXT);
            """);
        var before = await OldFile.AskAsync(path, Shape);
        Task UpgradeAsync() =>
            TernFile.PrepareAsync(new TernDb(new DbContextOptionsBuilder<TernDb>().UseSqlite(TernFile.ConnectionString(path)).Options));
        await Assert.ThrowsAsync<SqliteException>(UpgradeAsync);
        SqliteConnection.ClearAllPools();
        Assert.Equal(before, await OldFile.AskAsync(path, Shape));
        Assert.EndsWith("_First", Assert.Single(await OldFile.AskAsync(path, "SELECT MigrationId FROM __EFMigrationsHistory")));
        Assert.Equal(["400 g rolled oats"], await OldFile.AskAsync(path, "SELECT Text FROM RecipeLineRow"));

        // With that out of the way it goes through, and what points to a row still does.
        await OldFile.AskAsync(path, "DROP TABLE ef_temp_PlanItems");
        await UpgradeAsync();
        Assert.Equal(["400 g rolled oats"],
            await OldFile.AskAsync(path, "SELECT Text FROM RecipeLineRow JOIN Recipes ON Recipes.Id = RecipeId"));
        Assert.Empty(await OldFile.AskAsync(path, "SELECT \"table\" FROM pragma_foreign_key_check"));
        Assert.Equal(2, Directory.GetFiles(Path.GetDirectoryName(path)!, "*.before-*.db").Length);
    }
}
