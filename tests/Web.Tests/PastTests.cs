using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Web.Tests;

/// <summary>
/// The past stays: a past day is read by its own aim and rule, what was eaten by what it counted then; a correction is a new entry.
/// </summary>
public sealed class PastTests
{
    private static object Aim(int max, decimal perKcal = 0.02m) => new
    {
        leading = "energy",
        bands = new { energy = new { max }, points = new { max = 60 } },
        rule = new
        {
            name = "Ours",
            perUnit = new { energy = perKcal },
            step = 1,
            freeGroups = Array.Empty<string>(),
            freeFoods = Array.Empty<string>()
        },
    };

    private static string Path() => System.IO.Path.Combine(Directory.CreateTempSubdirectory("tern-past-").FullName, "tern.db");

    private static async Task<JsonNode> DayAsync(Host host, object eater, string day) =>
        (await host.GetAsync($"/api/eat/{eater}/{day}"))["day"]!;

    private static async Task SetAsync(Host host, object eater, object aim, object? ways = null)
    {
        var row = (await host.GetAsync("/api/aim/eaters")).AsArray().Single(one => (string?)one!["id"] == eater.ToString())!;
        await host.MustAsync(HttpMethod.Put, $"/api/aim/eaters/{eater}", new { name = "Isa", aim, ways }, (int)row["version"]!);
    }

    [Fact]
    public async Task A_week_in_which_an_eater_began_or_stopped_to_count_points_is_shown_without_a_sum_of_them()
    {
        var path = Path();
        string eater;
        object plain = new { leading = "energy", bands = new { energy = new { max = 1600 } }, rule = (object?)null };
        using (var monday = new Host(path, today: "2026-11-23"))
            eater = (string)(await monday.PostAsync("/api/aim/eaters", new { name = "Isa", aim = Aim(1600) }))["id"]!;
        using (var tuesday = new Host(path, today: "2026-11-24"))
        {
            await SetAsync(tuesday, eater, plain);
            var week = (await tuesday.GetAsync("/api/plan/weeks/2026-11-24"))["eaters"]![0]!;
            Assert.NotNull(week["days"]![0]!["sums"]!["points"]);
            Assert.True(week["days"]![1]!["sums"]!["points"] is null && week["sums"]!["points"] is null);
            Assert.NotNull(week["sums"]!["energy"]);
            await tuesday.GetAsync($"/api/review/week/{eater}/2026-11-24");
            var (status, refusal) = await tuesday.SendAsync(HttpMethod.Post, "/api/aim/eaters",
                new { name = "Bo", aim = new { leading = "points", bands = new { }, rule = (object?)null } });
            Assert.Equal((422, "urn:lively-tern:problem:rule-missing"), (status, (string?)refusal["type"]));

            // One that a hand left in the file leads by energy.
            await OldFile.WriteAsync(path, "UPDATE Aims SET Aim = replace(Aim, '\"leading\":\"energy\"', '\"leading\":\"points\"')");
        }

        using var wednesday = new Host(path, today: "2026-11-25");
        var day = (await wednesday.GetAsync("/api/plan/weeks/2026-11-25"))["eaters"]![0]!;
        Assert.Equal("energy", (string?)day["aim"]!["leading"]);
    }

    [Fact]
    public async Task A_past_day_is_read_by_the_aim_the_rule_and_the_weekdays_it_had()
    {
        var path = Path();
        string eater;
        JsonNode then;
        using (var monday = new Host(path, today: "2026-11-23"))
        {
            eater = (string)(await monday.PostAsync("/api/aim/eaters", new { name = "Isa", aim = Aim(1600) }))["id"]!;
            await SetAsync(monday, eater, Aim(1600),
                new
                {
                    otherDays = new object[] { new { name = "training", weekday = "monday", date = (string?)null,
                bands = new { energy = new { max = 1900 } } },
                new { name = "party", weekday = (string?)null, date = "2026-11-24", bands = new { energy = new { max = 2500 } } } }
                });
            await monday.MustAsync(HttpMethod.Put, $"/api/aim/eaters/{eater}/dates/2026-11-23",
                new { measure = "carbohydrate", band = new { max = 150 } });
            await monday.PostAsync("/api/plan/foods",
                new { text = "300 g rolled oats", eaterId = eater, day = "2026-11-23", eaten = true }, await monday.PlanVersionAsync());
            then = await DayAsync(monday, eater, "2026-11-23");
            Assert.Equal(("1900", "that day", "23"),
                (then["aim"]!["bands"]!["energy"]!["max"]!.ToString(), (string?)then["dayName"],
                then["sums"]!["points"]!["value"]!.ToString()));
        }

        using var tuesday = new Host(path, today: "2026-11-24");
        var before = await DayAsync(tuesday, eater, "2026-11-23");
        Assert.Equal(then.ToJsonString(), before.ToJsonString());

        // A date that is past is on no sheet any more, and is not changed.
        Assert.DoesNotContain((await tuesday.GetAsync("/api/aim/eaters"))[0]!["ways"]!["otherDays"]!.AsArray(), other =>
            (string?)other!["date"] == "2026-11-23");
        var (status, _) = await tuesday.SendAsync(HttpMethod.Put, $"/api/aim/eaters/{eater}/dates/2026-11-23",
            new { measure = "energy", band = new { max = 9000 } });
        Assert.Equal(422, status);

        // Another aim, another rule, another weekday: from today on.
        await SetAsync(tuesday, eater, Aim(1400, 0.05m),
            new
            {
                otherDays = new object[] { new { name = "rest", weekday = "tuesday", date = (string?)null,
            bands = new { energy = new { max = 1300 } } },
            new { name = "party", weekday = (string?)null, date = "2026-11-24", bands = new { energy = new { max = 2500 } } } }
            });
        Assert.Equal(then.ToJsonString(), (await DayAsync(tuesday, eater, "2026-11-23")).ToJsonString());
        Assert.Equal(2500, (decimal)(await DayAsync(tuesday, eater, "2026-11-24"))["aim"]!["bands"]!["energy"]!["max"]!);
        Assert.Equal(1400, (decimal)(await DayAsync(tuesday, eater, "2026-11-30"))["aim"]!["bands"]!["energy"]!["max"]!);
        Assert.Equal(1300, (decimal)(await DayAsync(tuesday, eater, "2026-12-01"))["aim"]!["bands"]!["energy"]!["max"]!);

        // Twice in one day is one aim; what is eaten today counts by today's rule, and keeps it tomorrow under yet another.
        await tuesday.PostAsync("/api/plan/foods", new { text = "300 g rolled oats", eaterId = eater, day = "2026-11-24", eaten = true },
            await tuesday.PlanVersionAsync());
        Assert.Equal("57", (await DayAsync(tuesday, eater, "2026-11-24"))["sums"]!["points"]!["value"]!.ToString());
        await SetAsync(tuesday, eater, Aim(1500, 0.05m));
        Assert.Equal(["0001-01-01", "2026-11-23", "2026-11-24"], await AskAsync(tuesday, "SELECT \"From\" FROM Aims ORDER BY 1"));
    }

    /// <summary>However many dates went by with bands of their own, another one can be set.</summary>
    [Fact]
    public async Task Dates_that_went_by_fill_no_list()
    {
        using var host = new Host();
        var eater = (string)(await host.PostAsync("/api/aim/eaters", new { name = "Isa", aim = Aim(1600) }))["id"]!;
        await WriteAsync(host, $"""
            WITH RECURSIVE day(d) AS (SELECT '2026-03-01' UNION ALL SELECT date(d, '+1 day') FROM day WHERE d < '2026-11-20')
            INSERT INTO DateBands (EaterId, Day, Measure, Name, Max) SELECT '{eater.ToUpperInvariant()}', d, 'Energy', 'party', '2000' FROM day
            """);
        await host.MustAsync(HttpMethod.Put, $"/api/aim/eaters/{eater}/dates/2026-11-28",
            new { measure = "energy", band = new { max = 2400 } });
        await SetAsync(host, eater, Aim(1700));
        Assert.Equal(2000, (decimal)(await DayAsync(host, eater, "2026-05-01"))["aim"]!["bands"]!["energy"]!["max"]!);
        Assert.Equal(2400, (decimal)(await DayAsync(host, eater, "2026-11-28"))["aim"]!["bands"]!["energy"]!["max"]!);
    }

    [Fact]
    public async Task What_was_eaten_counts_what_it_counted_whatever_is_corrected_later()
    {
        using var host = new Host();
        var (eater, recipe, boxes) = await host.LaidTableAsync();
        object Food(int kcal) =>
            new
            {
                name = "House bread",
                group = "grains",
                label = new { basis = "per100g", servingGrams = (decimal?)null, convention = "total", kilocalories = kcal }
            };
        var bread = Uri.EscapeDataString((string)(await host.PostAsync("/api/foods", Food(250)))["id"]!);
        await host.PostAsync("/api/plan/boxes", new { boxId = boxes[0], eaterId = eater, day = "2026-11-25" },
            await host.PlanVersionAsync());
        await host.PostAsync("/api/plan/foods", new { text = "100 g house bread", eaterId = eater, day = "2026-11-25", eaten = true },
            await host.PlanVersionAsync());
        var item = (string)(await DayAsync(host, eater, "2026-11-25"))["items"]![0]!["id"]!;
        await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{item}", new { eaten = true }, await host.PlanVersionAsync());
        var then = await DayAsync(host, eater, "2026-11-25");
        var ledger = await LedgerAsync(host);
        Assert.Equal(2, ledger.Count);

        await host.MustAsync(HttpMethod.Put, $"/api/foods/{bread}", Food(400), 1);
        await host.MustAsync(HttpMethod.Put, $"/api/recipes/{recipe}",
            new { name = "Rich bake", lines = new[] { "500 g butter" }, portions = 4 }, 1);

        // Even a hand in the file that makes the batch another one.
        await WriteAsync(host, "UPDATE Batches SET CookedMilligrams = 5000000");
        var now = await DayAsync(host, eater, "2026-11-25");
        Assert.Equal(then["sums"]!.ToJsonString(), now["sums"]!.ToJsonString());
        Assert.Equal(then["items"]!.AsArray().Select(one => one!["figures"]!.ToJsonString()),
            now["items"]!.AsArray().Select(one => one!["figures"]!.ToJsonString()));
        Assert.Equal(ledger, await LedgerAsync(host));
        foreach (var rewriting in new[] { "UPDATE Entries SET Decikilocalories = 0", "DELETE FROM Entries" })
            Assert.Contains("What was eaten", (await Assert.ThrowsAsync<SqliteException>(() => WriteAsync(host, rewriting))).Message);
        Assert.Equal(ledger, await LedgerAsync(host));
    }

    [Fact]
    public async Task Taken_back_and_eaten_again_is_written_beside_it_and_the_file_can_sum_it()
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        var made = await host.PostAsync("/api/plan/foods",
            new { text = "100 g rolled oats", eaterId = eater, day = "2026-11-25", eaten = true }, await host.PlanVersionAsync());
        var item = (string)(await DayAsync(host, eater, "2026-11-25"))["items"]![0]!["id"]!;
        async Task EatAsync(bool eaten) =>
            await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{item}", new { eaten }, await host.PlanVersionAsync());
        await EatAsync(false);
        Assert.Equal(["0 379.0", "1 0.0"], await LedgerAsync(host));
        Assert.Equal(0, (decimal)(await DayAsync(host, eater, "2026-11-25"))["eaten"]!["energy"]!["value"]!);
        await EatAsync(true);
        var plan = await host.GetAsync($"/api/eat/{eater}/2026-11-25");
        await host.MustAsync(HttpMethod.Put, $"/api/plan/items/{item}/amount", new { text = "200 g rolled oats" }, (int)plan["version"]!);

        // A changed amount of something eaten is a correction that names the entry it corrects.
        Assert.Equal(["0 379.0", "0 379.0", "0 758.0", "1 0.0"], (await LedgerAsync(host)).Order(StringComparer.Ordinal));
        Assert.Equal(["758.0"], await AskAsync(host, """
            SELECT printf('%.1f', sum(Decikilocalories) / 10.0) FROM Entries entry
            WHERE NOT IsTakenBack AND NOT EXISTS (SELECT 1 FROM Entries other WHERE other.CorrectsId = entry.Id)
            """));
        Assert.Equal(758, (decimal)(await DayAsync(host, eater, "2026-11-25"))["eaten"]!["energy"]!["value"]!);
        Assert.NotNull(made["id"]);
    }

    [Fact]
    public async Task A_box_whose_day_went_by_uneaten_is_on_the_shelf_again_and_offered()
    {
        var path = Path();
        Guid eater;
        List<Guid> boxes;
        using (var monday = new Host(path, today: "2026-11-23"))
        {
            (eater, _, boxes) = await monday.LaidTableAsync();
            foreach (var box in boxes.Take(2)) await monday.PostAsync("/api/plan/boxes",
                new { boxId = box, eaterId = eater, day = "2026-11-23" }, await monday.PlanVersionAsync());
            await monday.MustAsync(HttpMethod.Put, $"/api/eat/items/{(await DayAsync(monday, eater, "2026-11-23"))["items"]![0]!["id"]}",
                new { eaten = true }, await monday.PlanVersionAsync());
            Assert.Equal(2, (await ShelfAsync(monday)).Count);
        }

        using var tuesday = new Host(path, today: "2026-11-24");
        Assert.Equal(boxes.Skip(1).Select(box => box.ToString()).Order(StringComparer.Ordinal),
            (await ShelfAsync(tuesday)).Order(StringComparer.Ordinal));
        var depth = await tuesday.GetAsync($"/api/plan/days/{eater}/2026-11-24");
        Assert.Contains(depth["stillFits"]!.AsArray(), offer => (string?)offer!["boxId"] is not null);
        var label = (await tuesday.GetAsync("/api/pack/batches"))[0]!["id"];
        Assert.Equal(1, (await tuesday.GetAsync($"/api/pack/batches/{label}"))["boxes"]!.AsArray().Count(box => box!["name"] is not null));

        // Laid anew it leaves the day that went by; undone it lies there again. Eaten ones stay where they were.
        var laid = await tuesday.PostAsync("/api/plan/boxes", new { boxId = boxes[1], eaterId = eater, day = "2026-11-25" },
            await tuesday.PlanVersionAsync());
        Assert.Equal([boxes[0].ToString()], await BoxesOnAsync(tuesday, eater, "2026-11-23"));
        Assert.Equal([boxes[1].ToString()], await BoxesOnAsync(tuesday, eater, "2026-11-25"));
        Assert.Equal(2, (await ShelfAsync(tuesday)).Count);
        await tuesday.PostAsync($"/api/plan/changes/{laid["id"]}/undo", null);
        Assert.Equal([boxes[0].ToString(), boxes[1].ToString()], await BoxesOnAsync(tuesday, eater, "2026-11-23"));
        Assert.Equal(3, (await ShelfAsync(tuesday)).Count);

        // Yesterday can still be mended: it was eaten after all. Then it is on no shelf.
        var late = (await DayAsync(tuesday, eater, "2026-11-23"))["items"]![1]!["id"];
        await tuesday.MustAsync(HttpMethod.Put, $"/api/eat/items/{late}", new { eaten = true }, await tuesday.PlanVersionAsync());
        Assert.Equal(2, (await ShelfAsync(tuesday)).Count);
        var (status, _) = await tuesday.SendAsync(HttpMethod.Post, "/api/plan/boxes",
            new { boxId = boxes[1], eaterId = eater, day = "2026-11-25" }, await tuesday.PlanVersionAsync());
        Assert.Equal(409, status);
    }

    private static async Task<List<string>> ShelfAsync(Host host) =>
        [.. (await host.GetAsync("/api/plan/weeks/2026-11-25"))["shelf"]!.AsArray().SelectMany(group =>
            group!["boxIds"]!.AsArray()).Select(id => (string)id!)];

    private static async Task<List<string>> BoxesOnAsync(Host host, Guid eater, string day) =>
        [.. (await DayAsync(host, eater, day))["items"]!.AsArray().Select(item => (string)item!["boxId"]!)];

    private static Task<List<string>> LedgerAsync(Host host) =>
        AskAsync(host, "SELECT IsTakenBack || ' ' || printf('%.1f', Decikilocalories / 10.0) FROM Entries ORDER BY WrittenAt, Id");

    private static async Task<List<string>> AskAsync(Host host, string sql) => await OldFile.AskAsync(host.Data, sql);

    private static Task<int> WriteAsync(Host host, string sql) => OldFile.WriteAsync(host.Data, sql);
}
