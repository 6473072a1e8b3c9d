using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using LivelyTern.Web.Backup;
using Microsoft.Extensions.DependencyInjection;

namespace LivelyTern.Web.Tests;

/// <summary>Everything out and in again: equal table by table, shown before it is done, taken back after it; and never half.</summary>
public sealed class BackupTests
{
    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public async Task Three_months_come_back_into_an_empty_house_table_by_table(bool asFile)
    {
        using var lived = new Host(demo: true);
        await OddThingsAsync(lived);
        using var empty = new Host();
        var backup = asFile ? await Backups.FileOfAsync(lived) : await Backups.JsonOfAsync(lived);
        var (_, look) = await Backups.LookAsync(empty, backup);
        Assert.False((bool)look["isSame"]!);
        Assert.Equal((0, 2168), ((int)Backups.Of(look, "entries")["go"]!, (int)Backups.Of(look, "entries")["come"]!));
        await empty.PostAsync($"/api/backup/restores/{look["id"]}/apply", null);
        Backups.AreSame(lived.Data, empty.Data);

        // And every room says the same of it.
        foreach (var place in new[] { "/api/recipes", "/api/keep", "/api/shop/list", "/api/review/kitchen" })
            Assert.Equal(WithoutVersions(await lived.GetAsync(place)), WithoutVersions(await empty.GetAsync(place)));
        Assert.True((bool)(await Backups.LookAsync(empty, backup)).Body["isSame"]!);
    }

    [Fact]
    public async Task Every_table_is_in_a_backup_and_is_compared_before_one_is_put_back()
    {
        using var host = new Host();
        var tables = Backups.TablesOf(host.Data);
        Assert.Equal(tables.Order(StringComparer.Ordinal), Backups.Compared.Order(StringComparer.Ordinal));
        var written = JsonNode.Parse(await Backups.JsonOfAsync(host))!["tables"]!.AsObject().Select(table => table.Key);
        Assert.Equal(
            tables.Select(name => char.ToLowerInvariant(name[0]) + name[1..]).Order(StringComparer.Ordinal),
            written.Order(StringComparer.Ordinal));
    }

    [Fact]
    public async Task In_a_used_house_it_says_what_goes_comes_and_changes_and_what_was_there_can_be_put_back()
    {
        using var host = new Host();
        var (eater, recipe, boxes) = await host.LaidTableAsync();
        await LayAsync(host, eater, "1 apple");
        var then = await Backups.JsonOfAsync(host);

        // Life goes on: another eater, another name for the recipe, a box thrown away, a thing eaten.
        await host.PostAsync("/api/aim/eaters", new { name = "Bo", aim = Aim(2000) });
        var bake = await host.GetAsync($"/api/recipes/{recipe}");
        await host.MustAsync(
            HttpMethod.Put, $"/api/recipes/{recipe}",
            new { name = "Oat and egg bake", lines = new[] { "400 g rolled oats", "5 eggs" }, portions = 4 }, (int)bake["version"]!);
        await LayAsync(host, eater, "1 banana");
        var item = (await DayAsync(host, eater))["items"]![0]!;
        await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{item["id"]}", new { eaten = true }, await host.PlanVersionAsync());
        var before = Backups.RowsOf(host.Data);

        var (_, look) = await Backups.LookAsync(host, then);
        (string Kind, int Go, int Come, int Change)[] wanted =
        [
            ("eaters", 1, 0, 0), ("recipes", 0, 0, 1), ("days", 0, 0, 1), ("entries", 1, 0, 0), ("weighIns", 0, 0, 0), ("boxes", 0, 0, 0),
        ];
        foreach (var (kind, go, come, change) in wanted)
        {
            var said = Backups.Of(look, kind);
            Assert.Equal((kind, go, come, change), (kind, (int)said["go"]!, (int)said["come"]!, (int)said["change"]!));
        }

        Assert.Equal(["Bo"], Backups.Of(look, "eaters")["going"]!.AsArray().Select(name => (string)name!));
        Assert.Equal(["Oat and egg bake"], Backups.Of(look, "recipes")["changing"]!.AsArray().Select(name => (string)name!));
        Assert.Equal(["Isa, 25 Nov: 1 apple"], Backups.Of(look, "entries")["going"]!.AsArray().Select(name => (string)name!));

        // Nothing happened yet. Then it is done, and the caches of the host know it.
        Assert.Equal(before.Values.SelectMany(rows => rows), Backups.RowsOf(host.Data).Values.SelectMany(rows => rows));
        var done = await host.PostAsync($"/api/backup/restores/{look["id"]}/apply", null);
        Assert.Single((await host.GetAsync("/api/aim/eaters")).AsArray());
        Assert.Equal("Oat bake", (string)(await host.GetAsync($"/api/recipes/{recipe}"))["name"]!);
        Assert.Single((await DayAsync(host, eater))["items"]!.AsArray());

        // What was there is kept, and comes back as it was.
        var kept = (string)done["before"]!["name"]!;
        var back = await host.PostAsync($"/api/backup/restores/copies/{kept}", null);
        Assert.Equal(1, (int)Backups.Of(back, "eaters")["come"]!);
        await host.PostAsync($"/api/backup/restores/{back["id"]}/apply", null);
        Assert.Equal(before.Values.SelectMany(rows => rows), Backups.RowsOf(host.Data).Values.SelectMany(rows => rows));
    }

    [Fact]
    public async Task Who_has_a_screen_of_before_open_writes_over_nothing_that_was_put_back()
    {
        using var host = new Host();
        var (eater, recipe, _) = await host.LaidTableAsync();
        await LayAsync(host, eater, "1 apple");
        var then = await Backups.JsonOfAsync(host);
        await LayAsync(host, eater, "1 banana");
        var (seenDay, seenRecipe) = (await host.PlanVersionAsync(), (int)(await host.GetAsync($"/api/recipes/{recipe}"))["version"]!);
        await Backups.PutBackAsync(host, then);

        var (status, _) = await host.SendAsync(
            HttpMethod.Post, "/api/plan/foods", new { text = "1 pear", eaterId = eater, day = "2026-11-25" }, seenDay);
        Assert.Equal(412, status);
        (status, _) = await host.SendAsync(
            HttpMethod.Put, $"/api/recipes/{recipe}", new { name = "Mine", lines = new[] { "1 egg" }, portions = 1 }, seenRecipe);
        Assert.Equal(412, status);

        // Whoever looks anew can.
        await LayAsync(host, eater, "1 pear");
    }

    [Fact]
    public async Task What_is_written_after_the_preview_is_not_lost_unseen()
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        var then = await Backups.JsonOfAsync(host);
        var (_, look) = await Backups.LookAsync(host, then);
        Assert.True((bool)look["isSame"]!);
        await LayAsync(host, eater, "1 apple");
        var (status, answer) = await host.SendAsync(HttpMethod.Post, $"/api/backup/restores/{look["id"]}/apply");
        Assert.Equal(412, status);
        Assert.Equal(1, (int)Backups.Of(answer["current"]!, "days")["go"]!);
        Assert.Single((await DayAsync(host, eater))["items"]!.AsArray());
        Assert.Empty((await host.GetAsync("/api/backup/copies"))["copies"]!.AsArray());

        // Also where it comes to a day that would have gone anyway.
        await LayAsync(host, eater, "1 pear");
        Assert.Equal(412, (await host.SendAsync(HttpMethod.Post, $"/api/backup/restores/{look["id"]}/apply")).Status);
        Assert.Equal(2, (await DayAsync(host, eater))["items"]!.AsArray().Count);

        // Seen now, it goes; and once only, however often it is pressed.
        var presses = await Task.WhenAll(Enumerable.Range(0, 3).Select(_ =>
            host.SendAsync(HttpMethod.Post, $"/api/backup/restores/{look["id"]}/apply")));
        Assert.Equal([200, 404, 404], presses.Select(press => press.Status).Order());
        Assert.Empty((await DayAsync(host, eater))["items"]!.AsArray());
    }

    // A backup as each program before wrote it: it comes back whole, and says what it said then.
    [Theory]
    [InlineData("backup-1-20261129133229_Verdicts", 319.75516860792385, 546.4600838893185, 319.75516860792385)]
    public async Task A_backup_of_a_program_before_comes_back(string name, params double[] eaten)
    {
        await using var packed = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "fixtures", name + ".json.gz"));
        await using var unpacked = new GZipStream(packed, CompressionMode.Decompress);
        using var all = new MemoryStream();
        await unpacked.CopyToAsync(all);
        using var host = new Host();
        await Backups.PutBackAsync(host, all.ToArray());

        var (then, now) = (JsonNode.Parse(all.ToArray())!["tables"]!.AsObject(), Backups.RowsOf(host.Data));
        foreach (var (table, rows) in now.Where(one => one.Key is not "Foods" and not "sqlite_sequence"))
            Assert.Equal((table, then[char.ToLowerInvariant(table[0]) + table[1..]]!.AsArray().Count), (table, rows.Count));
        var eaters = (await host.GetAsync("/api/aim/eaters")).AsArray();
        var said = new List<double>();
        foreach (var eater in eaters)
            said.Add((double)(await host.GetAsync($"/api/eat/{eater!["id"]}/2026-11-25"))["day"]!["eaten"]!["energy"]!["value"]!);
        Assert.Equal(eaten, said);
        Assert.Contains((await host.GetAsync("/api/recipes")).AsArray(), recipe => (string)recipe!["name"]! == "“Żurek” 寿司 🍲");
    }

    public static TheoryData<int> Chances => Seeds.Or(1, 2);

    // Cut off, bytes changed, doubled or taken out, at any place: it is refused with a sentence, or is still a whole backup; and what is
    // there stays as it is until somebody has seen what would change.
    [Theory]
    [MemberData(nameof(Chances))]
    public async Task Whatever_a_damaged_backup_holds_nothing_is_changed(int seed)
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        await LayAsync(host, eater, "1 apple");
        var chance = new Random(seed);
        var (json, file) = (await Backups.JsonOfAsync(host), await Backups.FileOfAsync(host));
        var before = Backups.RowsOf(host.Data).Values.SelectMany(rows => rows).ToList();
        for (var round = 0; round < 15; round++)
        {
            var whole = round % 3 == 0 ? file : json;
            var at = chance.Next(whole.Length);
            var hurt = chance.Next(3) switch
            {
                0 => whole[..at],
                1 => [.. whole[..at], (byte)chance.Next(256), .. whole[(at + 1)..]],
                _ => [.. whole[..at], .. whole[Math.Min(whole.Length, at + chance.Next(1, 400))..]],
            };
            var (status, answer) = await Backups.LookAsync(host, hurt);
            Assert.True(status is 200 or 422, $"{seed}, round {round}: {status} {answer}");
            if (status == 422) Assert.EndsWith("Nothing was changed.", (string)answer["detail"]!, StringComparison.Ordinal);
        }

        Assert.Equal(before, Backups.RowsOf(host.Data).Values.SelectMany(rows => rows));
        await LayAsync(host, eater, "1 pear");
    }

    public static TheoryData<string, string> Unfit => new()
    {
        { "", "backup-unfit" },
        { "[]", "backup-unfit" },
        { "{}", "backup-unfit" },
        { "eater,day,kcal\nIsa,2026-11-25,1500\n", "backup-unfit" },
        { """{"format":"lively-tern-backup","version":2,"shape":"20261129133229_Verdicts","tables":{}}""", "backup-newer" },
        { """{"format":"lively-tern-backup","version":1,"shape":"20291129133229_Robots","tables":{}}""", "backup-newer" },
        { """{"format":"lively-tern-backup","version":1,"shape":"20261129133229_Verdicts","tables":{}}""", "backup-unfit" },
        { """{"format":"lively-tern-backup","version":1,"shape":"20261129133229_Verdicts","tables":{"eaters":[""", "backup-ends" },
        { """{"format":"lively-tern-backup","version":1,"shape":"20261129133229_Verdicts","tables":{"robots":[]}}""", "backup-unfit" },
    };

    [Theory]
    [MemberData(nameof(Unfit))]
    public async Task What_is_no_backup_or_a_newer_one_is_refused_by_name(string text, string code)
    {
        using var host = new Host();
        var (status, answer) = await Backups.LookAsync(host, Encoding.UTF8.GetBytes(text));
        Assert.Equal((422, "urn:lively-tern:problem:" + code), (status, (string)answer["type"]!));
    }

    // A row whose insides no screen could show, and one that points to nothing.
    [Theory]
    [InlineData("\"leading\":\"energy\"", "\"leading\":\"joy\"")]
    [InlineData("\"batchId\":\"", "\"batchId\":\"F")]
    [InlineData("\"number\":1,", "\"number\":\"one\",")]
    [InlineData("\"isTakenOut\":false", "\"isTakenOut\":null")]
    public async Task What_the_program_could_not_read_is_not_let_in(string whole, string hurt)
    {
        using var host = new Host();
        await host.LaidTableAsync();
        var json = Encoding.UTF8.GetString(await Backups.JsonOfAsync(host));
        Assert.Contains(whole, json);
        var (status, answer) = await Backups.LookAsync(host, Encoding.UTF8.GetBytes(json.Replace(whole, hurt, StringComparison.Ordinal)));
        Assert.True(status == 422, answer.ToJsonString());
    }

    [Fact]
    public async Task A_backup_is_one_moment_however_many_hands_write_meanwhile()
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        using var stop = new CancellationTokenSource();
        var hand = Task.Run(async () =>
        {
            // An entry and its day go together in one change.
            for (var i = 0; !stop.IsCancellationRequested; i++) await LayAsync(host, eater, $"{i % 9 + 1} apples", eaten: true);
        });
        for (var round = 0; round < 4; round++)
        {
            var tables = JsonNode.Parse(await Backups.JsonOfAsync(host))!["tables"]!;
            var eaten = tables["planItems"]!.AsArray().Where(item => item!["eatenAt"] is not null).Select(item => (string)item!["id"]!);
            Assert.Equal(
                eaten.Order(StringComparer.Ordinal),
                tables["entries"]!.AsArray().Select(entry => (string)entry!["itemId"]!).Order(StringComparer.Ordinal));
        }

        await stop.CancelAsync();
        await hand;
    }

    [Fact]
    public async Task Each_day_has_its_copy_and_the_seven_newest_are_kept()
    {
        using var host = new Host(playClock: true);
        var daily = host.Services.GetRequiredService<DailyCopies>();
        var spreads = new List<string>();
        for (var day = 0; day < 9; day++)
        {
            var food = new { name = $"Spread of day {day}", group = "fats", allergens = Array.Empty<string>(), label = Label };
            var spread = await host.PostAsync("/api/foods", food);
            spreads.Add((string)spread["id"]!);
            await daily.CheckAsync();
            await daily.CheckAsync();
            await host.PostAsync("/api/demo/pass", new { minutes = 1440 });
        }

        var copies = (await host.GetAsync("/api/backup/copies"))["copies"]!.AsArray();
        Assert.Equal(
            Enumerable.Range(0, 7).Select(back => new DateOnly(2026, 12, 3).AddDays(-back).ToString("O")),
            copies.Select(copy => (string)copy!["day"]!));
        Assert.All(copies, copy => Assert.Equal("daily", (string)copy!["kind"]!));

        // One of them brings back its day.
        var look = await host.PostAsync($"/api/backup/restores/copies/{copies[4]!["name"]}", null);
        Assert.Equal((4, 0), ((int)Backups.Of(look, "foods")["go"]!, (int)Backups.Of(look, "foods")["come"]!));
        await host.PostAsync($"/api/backup/restores/{look["id"]}/apply", null);
        Assert.Equal(200, (await host.SendAsync(HttpMethod.Get, $"/api/foods/{spreads[4]}")).Status);
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Get, $"/api/foods/{spreads[5]}")).Status);
    }

    [Fact]
    public async Task A_copy_asked_for_by_several_at_once_is_one_and_whole()
    {
        using var host = new Host(demo: true);
        var presses = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => host.SendAsync(HttpMethod.Post, "/api/backup/copies")));
        Assert.All(presses, press => Assert.Equal(200, press.Status));
        var copy = (await host.GetAsync("/api/backup/copies"))["copies"]!.AsArray().Single()!;
        Backups.AreSame(host.Data, Path.Combine(Path.ChangeExtension(host.Data, ".copies"), (string)copy["name"]!));
    }

    [Fact]
    public async Task A_copy_that_cannot_be_made_is_said_and_takes_no_other_along()
    {
        using var host = new Host(playClock: true);
        await host.PostAsync("/api/backup/copies", null);
        var folder = Path.ChangeExtension(host.Data, ".copies");
        Directory.Move(folder, folder + ".away");
        await File.WriteAllTextAsync(folder, "in the way");
        var (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/backup/copies");
        Assert.Equal((422, "urn:lively-tern:problem:copy-failed"), (status, (string)answer["type"]!));
        Assert.NotNull((await host.GetAsync("/api/backup/copies"))["trouble"]);

        // And it is not put back over what could not be kept.
        var (_, look) = await Backups.LookAsync(host, await Backups.JsonOfAsync(host));
        (status, answer) = await host.SendAsync(HttpMethod.Post, $"/api/backup/restores/{look["id"]}/apply");
        Assert.Equal((422, "urn:lively-tern:problem:copy-failed"), (status, (string)answer["type"]!));

        File.Delete(folder);
        Directory.Move(folder + ".away", folder);
        var copies = await host.PostAsync("/api/backup/copies", null);
        Assert.Single(copies["copies"]!.AsArray());
        Assert.Null(copies["trouble"]);
    }

    private static readonly object Label =
        new { basis = "per100g", servingGrams = (decimal?)null, convention = "total", kilocalories = 300 };

    private static object Aim(int max) => new { leading = "energy", bands = new { energy = new { max } }, rule = (object?)null };

    private static string WithoutVersions(JsonNode said) =>
        System.Text.RegularExpressions.Regex.Replace(said.ToJsonString(), "\"version\":\\d+", "");

    private static async Task LayAsync(Host host, Guid eater, string text, bool eaten = false) => await host.PostAsync(
        "/api/plan/foods", new { text, eaterId = eater, day = "2026-11-25", eaten }, await host.PlanVersionAsync());

    private static async Task<JsonNode> DayAsync(Host host, Guid eater) =>
        (await host.GetAsync("/api/plan/weeks/2026-11-25"))["eaters"]!.AsArray().First(one => (Guid)one!["eaterId"]! == eater)!
            ["days"]!.AsArray().First(day => (string)day!["day"]! == "2026-11-25")!;

    // Names in other scripts, quotes and line breaks, a number that a double can't hold, text that looks like JSON.
    private static async Task OddThingsAsync(Host host)
    {
        await host.PostAsync("/api/recipes", new { name = "[1] {“Żurek”} \"寿司\" 🍲", lines = new[] { "1 egg\tor two" }, portions = 1 });
        var eater = (Guid)(await host.GetAsync("/api/aim/eaters"))[0]!["id"]!;
        await LayAsync(host, eater, "0.1 g salt", eaten: true);
        foreach (var text in new[] { "{\"a\": [1, 2 ]} ", "[1,2]", "null", "2026-11-25T00:00:00Z" })
            await host.PostAsync("/api/shop/own", new { text });
    }
}
