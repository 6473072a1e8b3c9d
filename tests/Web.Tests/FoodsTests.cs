using System.IO.Compression;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Foods;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;

namespace LivelyTern.Web.Tests;

/// <summary>Foods of the kitchen and of libraries, through the real host.</summary>
public sealed class FoodsTests : IDisposable
{
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private static object Label(decimal kcal = 300, string name = "Island granola", string? gtin = null) => new
    {
        name,
        group = "grains",
        label = new
        {
            basis = "perServing",
            servingGrams = 50,
            convention = "total",
            kilocalories = kcal / 2,
            protein = 5,
            fat = 5,
            carbohydrate = 21.25,
            fibre = 2.5
        },
        packageGrams = 500,
        allergens = new[] { "gluten", "treeNuts" },
        gtin,
    };

    private async Task<JsonNode> ImportAsync(Func<Task<JsonNode>> start)
    {
        var import = await start();
        return await WaitAsync(import, "ready", "failed");
    }

    private async Task<JsonNode> WaitAsync(JsonNode import, params string[] states)
    {
        for (var tries = 0; tries < 6000 && !states.Contains((string)import["state"]!); tries++)
        {
            await Task.Delay(20);
            import = await host.GetAsync($"/api/imports/{import["id"]}");
        }

        return import;
    }

    private async Task<JsonNode> SendFileAsync(string name, byte[] bytes)
    {
        using var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        using var answer = await host.Http.PostAsync($"/api/imports?name={Uri.EscapeDataString(name)}", content);
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
    }

    private Task<JsonNode> SendFileAsync(string name, string text) => SendFileAsync(name, Encoding.UTF8.GetBytes(text));

    private long Count(string table)
    {
        using var file = new SqliteConnection($"Data Source={host.Data};Mode=ReadOnly");
        file.Open();
        using var command = file.CreateCommand();
        command.CommandText = $"SELECT count(*) FROM {table}";
        return (long)command.ExecuteScalar()!;
    }

    [Fact]
    public async Task A_food_from_a_label_is_written_down_used_corrected_and_put_away()
    {
        var food = await host.PostAsync("/api/foods", Label());
        Assert.Equal((300m, 10m, 1), ((decimal)food["per100g"]!["energy"]!, (decimal)food["per100g"]!["protein"]!, (int)food["version"]!));
        Assert.Equal(37.5m, (decimal)food["netCarbohydrate"]!);
        var id = Uri.EscapeDataString((string)food["id"]!);
        Assert.Equal(food["id"]!.ToString(), (await host.GetAsync("/api/foods?q=granola"))[0]!["id"]!.ToString()); // own before generic

        var line = (await host.PostAsync("/api/calc/parse", new { lines = new[] { "2 servings island granola" } }))["lines"]![0]!;
        Assert.Equal(100, (decimal)line["grams"]!);

        Assert.Equal(412, (await host.SendAsync(HttpMethod.Put, $"/api/foods/{id}", Label(320), version: 7)).Status);
        var changed = await host.MustAsync(HttpMethod.Put, $"/api/foods/{id}", Label(320), version: 1);
        Assert.Equal((320m, 2), ((decimal)changed["per100g"]!["energy"]!, (int)changed["version"]!));
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Post, "/api/foods", Label(name: "island  GRANOLA"))).Status);

        var recipe = await host.PostAsync("/api/recipes",
            new { name = "Bowl", lines = new[] { "100 g island granola" }, foods = new[] { (string)food["id"]! }, portions = 1 });
        await host.MustAsync(HttpMethod.Delete, $"/api/foods/{id}", version: 2);
        Assert.DoesNotContain((await host.GetAsync("/api/foods?q=island")).AsArray(), row => (string)row!["name"]! == "Island granola");
        // what was written with it keeps it
        Assert.Equal(320, (decimal)(await host.GetAsync("/api/recipes"))[0]!["portion"]!["energy"]!["value"]!);
        await host.PostAsync($"/api/foods/{id}/restore", null, version: 3);
        Assert.Equal("Island granola", (string)(await host.GetAsync("/api/foods?q=island"))[0]!["name"]!);
        Assert.NotNull(recipe["id"]);
    }

    [Theory]
    [InlineData("{\"name\": \"\", \"group\": \"grains\", \"label\": {\"basis\": \"per100g\", \"servingGrams\": null, \"convention\": \"total\", \"kilocalories\": 1}}", "name")]
    [InlineData("{\"name\": \"x\", \"group\": \"grains\", \"label\": {\"basis\": \"perServing\", \"servingGrams\": null, \"convention\": \"total\", \"kilocalories\": 1}}", "label.servingGrams")]
    [InlineData("{\"name\": \"x\", \"group\": \"grains\", \"label\": {\"basis\": \"per100g\", \"servingGrams\": null, \"convention\": \"total\", \"kilocalories\": 100, \"protein\": 140}}", "label.protein")]
    [InlineData("{\"name\": \"x\", \"group\": \"grains\", \"label\": {\"basis\": \"per100g\", \"servingGrams\": null, \"convention\": \"total\"}}", "label.kilocalories")]
    [InlineData("{\"name\": \"x\", \"group\": \"grains\", \"gtin\": \"123\", \"label\": {\"basis\": \"per100g\", \"servingGrams\": null, \"convention\": \"total\", \"kilocalories\": 1}}", "gtin")]
    public async Task A_label_that_cannot_be_is_refused_at_its_field_and_nothing_is_kept(string body, string field)
    {
        var before = Count("Foods");
        var (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/foods", body);
        Assert.Equal((422, field), (status, (string)answer["field"]!));
        Assert.Equal(before, Count("Foods"));
    }

    [Fact]
    public async Task A_label_is_checked_against_its_own_parts_without_being_kept()
    {
        var answer = await host.PostAsync("/api/calc/label",
            new
            {
                basis = "per100g",
                servingGrams = (decimal?)null,
                convention = "withoutFibre",
                kilocalories = 480,
                protein = 65,
                fat = 25,
                carbohydrate = 50,
                fibre = 7
            });
        Assert.Equal(699, (decimal)answer["kcalByFactors"]!); // 4 x 65 + 9 x 25 + 4 x 50 + 2 x 7 (EU 1169/2011 Annex XIV)
        Assert.Equal(("480 kcal", "65 g"), ((string)answer["printed"]!["energy"]!, (string)answer["printed"]!["protein"]!));
        Assert.Equal(["parts-over-100", "energy-off"], answer["doubts"]!.AsArray().Select(doubt => (string)doubt!["code"]!));
    }

    [Fact]
    public async Task A_barcode_finds_the_house_before_the_device()
    {
        var shelf = (await host.GetAsync("/api/foods/barcodes")).AsArray();
        var product = shelf[0]!;
        var found = await host.GetAsync($"/api/foods/barcodes/{product["gtin"]}");
        Assert.Null(found["food"]);
        Assert.Equal((string)product["name"]!, (string)found["product"]!["name"]!);
        await host.PostAsync("/api/foods", found["product"]!);
        Assert.Equal((string)product["name"]!, (string)(await host.GetAsync($"/api/foods/barcodes/{product["gtin"]}"))["food"]!["name"]!);
        var unknown = await host.GetAsync("/api/foods/barcodes/6291041500213");
        Assert.Null(unknown["food"] ?? unknown["product"]);
        Assert.Equal((422, "gtin"),
            (await host.SendAsync(HttpMethod.Get, "/api/foods/barcodes/6291041500214")) is var (status, wrong)
            ? (status, (string)wrong["field"]!) : default);
    }

    [Fact]
    public async Task What_was_chosen_for_some_words_is_meant_by_them_from_then_on()
    {
        async Task<string?> MeantAsync(string line) =>
            (string?)(await host.PostAsync("/api/calc/parse", new { lines = new[] { line } }))["lines"]![0]!["food"]?["id"];
        Assert.Equal("baked-beans", await MeantAsync("200 g beans")); // by what is usual
        await host.PostAsync("/api/foods/choices", new { text = "beans", foodId = "black-beans-cooked" });
        Assert.Equal("black-beans-cooked", await MeantAsync("200 g beans"));
        Assert.NotEqual("black-beans-cooked", await MeantAsync("200 g beans, dried")); // never against what is said
        Assert.Equal("rolled-oats", await MeantAsync("200 g oats"));
        await host.PostAsync("/api/foods/choices", new { text = "Oats", foodId = "quick-oats" });
        Assert.Equal("quick-oats", await MeantAsync("1 cup oats, toasted"));
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Post, "/api/foods/choices", new { text = "milk", foodId = "no-such" })).Status);
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Post, "/api/foods/choices", new { text = " ", foodId = "oat-milk" })).Status);
    }

    [Theory]
    [InlineData("chikpeas", "chickpeas")]
    [InlineData("lentlis red", "red lentils, dry")]
    [InlineData("yoghurt greek", "greek yogurt")]
    public async Task The_search_forgives_slips(string typed, string found) =>
        Assert.Contains(found, (string)(await host.GetAsync("/api/foods?q=" + Uri.EscapeDataString(typed)))[0]!["name"]!);

    [Fact]
    public async Task A_cooked_food_names_its_raw_form_and_its_yield()
    {
        var food = await host.GetAsync("/api/foods/white-rice-cooked");
        var raw = food["otherForms"]![0]!;
        Assert.Equal(("white-rice-dry", 2.8m, true), ((string)raw["id"]!, (decimal)raw["yieldFactor"]!, (bool)raw["isRaw"]!));
        Assert.Contains("Handbook 102", (string)raw["source"]!);
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Get, "/api/foods/no-such-food")).Status);
    }

    [Fact]
    public async Task The_indian_tables_are_taken_in_used_and_undone_as_one()
    {
        var offer = (await host.GetAsync("/api/libraries"))["offered"]![0]!;
        Assert.Contains("MIT", (string)offer["licence"]!);
        var import = await ImportAsync(() => host.PostAsync($"/api/imports/offered/{offer["key"]}", null));
        var report = import["report"]!;
        Assert.Equal((542, 0, 28), ((int)report["taken"]!, (int)report["refused"]!, (int)report["doubtful"]!));
        Assert.Equal(26, (int)report["reasons"]!["energy-off"]!);
        Assert.Equal(("Wheat, bulgur", "kilojoule", "withoutFibre"),
            (import["sample"]!.AsArray().Select(row => (string)row!["name"]!).First(name => name.Contains("bulgur")),
            (string)import["mapping"]!["nutrients"]!["energy"]!["unit"]!, (string)import["mapping"]!["convention"]!));
        Assert.Equal((0L, 0L), (Count("Libraries"), Count("LibraryFoods"))); // the preview writes nothing

        import = await WaitAsync(await host.PostAsync($"/api/imports/{import["id"]}/take", null), "done", "failed");
        Assert.Equal("done", (string)import["state"]!);
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Post, $"/api/imports/{import["id"]}/take")).Status);
        var found = (await host.GetAsync("/api/foods?q=amarnth%20seed"))[0]!; // a slip
        Assert.Contains("Amaranth seed", (string)found["name"]!);
        Assert.StartsWith("Indian Food Composition Tables 2017", (string)found["source"]!);

        // A recipe written with a food of the library keeps it when the library goes.
        var recipe = await host.PostAsync("/api/recipes",
            new { name = "Porridge", lines = new[] { "100 g amaranth seed, black", "100 g bajra" }, portions = 1 });
        async Task<decimal> KcalAsync() => (decimal)(await host.GetAsync("/api/recipes"))[0]!["portion"]!["energy"]!["value"]!;
        var kcal = await KcalAsync();
        Assert.InRange(kcal, 690, 720); // (1490 + 1456) kJ / 4.184
        var library = (await host.GetAsync("/api/libraries"))["libraries"]![0]!;
        Assert.Equal(204, (await host.SendAsync(HttpMethod.Delete, $"/api/libraries/{library["id"]}")).Status);
        Assert.Equal((0L, 0L, 0L), (Count("Libraries"), Count("LibraryFoods"), Count("LibraryWords")));
        Assert.Equal(kcal, await KcalAsync());
        Assert.DoesNotContain((await host.GetAsync("/api/foods?q=jowar")).AsArray(), food => ((string)food!["name"]!).Contains("Jowar"));
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Delete, $"/api/libraries/{library["id"]}")).Status);
        Assert.NotNull(recipe);
    }

    [Fact]
    public async Task A_table_is_read_again_under_another_mapping()
    {
        var import = await ImportAsync(() => SendFileAsync("mine.csv", "name;kJ;kcal;protein\nCrisps, Ölmühle;2100;502;6,5\n"));
        Assert.Equal(502, (decimal)import["sample"]![0]!["per100g"]!["energy"]!);
        Assert.Equal("Crisps, Ölmühle", (string)import["sample"]![0]!["name"]!);
        var mapping = import["mapping"]!.DeepClone();
        mapping["nutrients"]!["energy"] = new JsonObject { ["column"] = "kJ", ["unit"] = "kilojoule" };
        import = await ImportAsync(() => host.MustAsync(HttpMethod.Put, $"/api/imports/{import["id"]}/mapping", mapping));
        Assert.Equal(501.9m, Math.Round((decimal)import["sample"]![0]!["per100g"]!["energy"]!, 1));
    }

    [Fact]
    public async Task A_file_that_is_no_table_fails_with_a_sentence_and_the_house_is_unchanged()
    {
        var foods = Count("Foods");
        foreach (var (name, bytes) in new (string,
            byte[])[] { ("a.zip", [(byte)'P', (byte)'K', 1, 2, 3]), ("b.csv", []), ("c.csv", "just text"u8.ToArray()),
            ("d.json", "{\"foods\": 1}"u8.ToArray()) })
        {
            var import = await ImportAsync(() => SendFileAsync(name, bytes));
            Assert.Equal("failed", (string)import["state"]!);
            Assert.EndsWith(".", (string)import["failure"]!);
            Assert.Equal(422, (await host.SendAsync(HttpMethod.Post, $"/api/imports/{import["id"]}/take")).Status);
        }

        Assert.Equal((foods, 0L), (Count("Foods"), Count("Libraries")));
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Get, $"/api/imports/{Guid.NewGuid()}")).Status);
    }

    [Fact]
    public async Task An_import_is_stopped_midway()
    {
        var text = new StringBuilder("name,kcal,protein,fat,carbohydrate\n");
        for (var i = 0; i < 400_000; i++) text.Append("Stone soup ").Append(i).Append(",40,1,0,9\n");
        var import = await ImportAsync(() => SendFileAsync("many.csv", text.ToString()));
        Assert.Equal(400_000, (int)import["report"]!["taken"]!);
        await host.PostAsync($"/api/imports/{import["id"]}/take", null);
        while (Count("LibraryFoods") == 0) await Task.Delay(5);
        import = await host.PostAsync($"/api/imports/{import["id"]}/stop", null);
        Assert.Equal("stopped", (string)import["state"]!);
        Assert.Equal((0L, 0L), (Count("Libraries"), Count("LibraryFoods")));
    }

    /// <summary>A library without end: whoever writes beside it is not kept waiting for its end, and finds nothing of it.</summary>
    [Fact]
    public async Task The_house_works_on_while_a_library_is_written()
    {
        IEnumerable<ImportedRow> Endless()
        {
            for (var i = 1; ; i++) yield return ImportedRow.Of(i,
                new($"{i}", $"Stone soup {i}", FoodGroup.Vegetables, new Nutrients(Energy: 40, Protein: 1, Carbohydrate: 9),
                CarbohydrateConvention.Total));
        }

        using var scope = host.Services.CreateScope();
        using var stop = new CancellationTokenSource();
        var writing = scope.ServiceProvider.GetRequiredService<LibraryWriter>().WriteAsync("Soups", "made up", Endless(), stop.Token);
        while (Count("LibraryFoods") == 0) await Task.Delay(5);
        await host.PostAsync("/api/recipes", new { name = "Meanwhile", lines = new[] { "1 egg" }, portions = 1 });
        var before = Count("LibraryFoods");
        const int writes = 3;
        for (var i = 0; i < writes; i++) await host.PostAsync("/api/recipes",
            new { name = $"Meanwhile {i}", lines = new[] { "1 egg" }, portions = 1 });

        Assert.True(Count("LibraryFoods") > before && !writing.IsCompleted);
        Assert.Empty((await host.GetAsync("/api/foods?q=stone%20soup")).AsArray());

        await stop.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => writing);
        Assert.Equal((0L, 0L), (Count("Libraries"), Count("LibraryFoods")));
        Assert.Equal(writes + 1, (await host.GetAsync("/api/recipes")).AsArray().Count);
    }

    [Fact]
    public async Task What_a_crash_left_half_written_is_cleared_at_the_next_start()
    {
        host.Dispose();
        using (var file = new SqliteConnection($"Data Source={host.Data}"))
        {
            file.Open();
            using var command = file.CreateCommand();
            command.CommandText =
                "INSERT INTO Libraries (Name, Source, ImportedAt, IsWhole, Taken, Refused, Doubtful) VALUES ('half', 'x', 0, 0, 0, 0, 0);"
                + "INSERT INTO LibraryFoods (LibraryId, Code, Name, \"Group\", Convention, IsDoubtful) VALUES (last_insert_rowid(), '1', 'half food', 0, 0, 0);"
                + "INSERT INTO LibraryNames (rowid, Name) VALUES (last_insert_rowid(), 'half food');";
            command.ExecuteNonQuery();
        }

        using var again = new Host(host.Data);
        Assert.Empty((await again.GetAsync("/api/libraries"))["libraries"]!.AsArray());
        Assert.Equal((0L, 0L, 0L), (Count("Libraries"), Count("LibraryFoods"), Count("LibraryWords")));
    }

    // A set in FoodData Central's shape: one food with its figures, one without any, one sample.
    private static byte[] Set(string name, int id)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            void Write(string file, string text)
            {
                using var writer = new StreamWriter(zip.CreateEntry(file).Open());
                writer.Write(text);
            }

            Write("food.csv",
                $"\"fdc_id\",\"data_type\",\"description\"\n{id},\"branded_food\",\"{name}\"\n{id + 1},\"branded_food\",\"{name} without figures\"\n{id + 2},\"sub_sample_food\",\"a sample\"\n");
            Write("food_nutrient.csv",
                $"\"id\",\"fdc_id\",\"nutrient_id\",\"amount\"\n1,{id},1008,379\n2,{id},1003,13.2\n3,{id},1004,6.5\n4,{id},1005,67.7\n");
        }

        return bytes.ToArray();
    }

    /// <summary>Two previews wait at once; only the newer keeps what it read, and both are taken as they were shown.</summary>
    [Fact]
    public async Task What_was_looked_through_is_what_is_taken_also_when_another_preview_came_between()
    {
        var first = await ImportAsync(() => SendFileAsync("first", Set("Quayside oat flakes", 100)));
        var second = await ImportAsync(() => SendFileAsync("second", Set("Harbour rye flakes", 200)));
        foreach (var (import, name) in new[] { (first, "Quayside oat flakes"), (second, "Harbour rye flakes") })
        {
            var preview = import["report"]!;
            Assert.Equal((1, 2), ((int)preview["taken"]!, (int)preview["refused"]!));
            var done = await WaitAsync(await host.PostAsync($"/api/imports/{import["id"]}/take", null), "done", "failed");
            Assert.Equal("done", (string)done["state"]!);
            Assert.Equal(preview.ToJsonString(), done["report"]!.ToJsonString());
            var found = (await host.GetAsync($"/api/foods?q={Uri.EscapeDataString(name)}")).AsArray();
            Assert.Contains(found, food => (string)food!["name"]! == name && (decimal)food["per100g"]!["energy"]!["value"]! == 379m);
        }

        Assert.Equal(2, Count("LibraryFoods"));

        // Undone as one, each alone.
        var libraries = (await host.GetAsync("/api/libraries"))["libraries"]!.AsArray();
        Assert.Equal(204,
            (await host.SendAsync(HttpMethod.Delete, $"/api/libraries/{libraries.Single(one => (string)one!["name"]! == "first")!["id"]}"))
            .Status);
        Assert.Equal((1, 1), (Count("LibraryFoods"), Count("Libraries")));
    }
}
