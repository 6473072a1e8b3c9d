using System.Globalization;
using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>What grows with use: the log by little, and no further than it is needed; what a screen is told not with the years.</summary>
public sealed class GrowthTests
{
    private const string Today = "2026-11-25";

    [Fact]
    public async Task A_change_on_a_full_day_adds_no_more_than_two_kilobytes_to_the_log_and_can_be_undone()
    {
        using var host = new Host();
        var (eater, _, boxes) = await host.LaidTableAsync();
        for (var i = 0; i < 58; i++)
            await host.PostAsync("/api/plan/foods", new { text = $"{i + 1} g rolled oats", eaterId = eater, day = Today }, int.MaxValue);
        var full = await DayAsync(host, eater);
        var item = (string)full["items"]![3]!["id"]!;
        List<JsonNode> made =
        [
            await host.PostAsync("/api/plan/boxes", new { boxId = boxes[0], eaterId = eater, day = Today, place = 7 }, int.MaxValue),
            await host.MustAsync(HttpMethod.Put, $"/api/plan/items/{item}/place", new { eaterId = eater, day = Today, place = 50 },
                int.MaxValue),
            await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{item}", new { eaten = true }, int.MaxValue),
            await host.MustAsync(HttpMethod.Delete, $"/api/plan/items/{full["items"]![30]!["id"]}", null, int.MaxValue),
        ];
        Assert.InRange(await NumberAsync(host.Data, "SELECT max(length(Change)) || '' FROM PlanChanges"), 100, 2_000);

        // All of them undone, the last one first: the day is as it was.
        foreach (var one in Enumerable.Reverse(made)) await host.PostAsync($"/api/plan/changes/{one["id"]}/undo", null);
        Assert.Equal(full["items"]!.ToJsonString(), (await DayAsync(host, eater))["items"]!.ToJsonString());
    }

    [Fact]
    public async Task The_log_holds_the_last_five_thousand_changes()
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        async Task<JsonNode> LayAsync() => await host.PostAsync("/api/plan/foods", new { text = "1 apple", eaterId = eater, day = Today },
            int.MaxValue);
        var first = await LayAsync();
        await OldFile.WriteAsync(host.Data, """
            WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 6000)
            INSERT INTO PlanChanges (Id, At, Change)
              SELECT upper(printf('01A00000-0000-7000-8000-%012x', i)), At, Change FROM PlanChanges, n
            """);
        JsonNode last = first;
        for (var i = 0; i < 50; i++)
        {
            last = await LayAsync();
            await host.PostAsync($"/api/plan/changes/{last["id"]}/undo", null);
        }

        last = await LayAsync();
        Assert.InRange(await NumberAsync(host.Data, "SELECT count(*) || '' FROM PlanChanges"), 90, 5_100);
        await host.PostAsync($"/api/plan/changes/{last["id"]}/undo", null);
    }

    /// <summary>A step that an earlier program kept, with its whole days, can still be undone.</summary>
    [Fact]
    public async Task A_step_of_an_earlier_program_is_undone()
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        await host.PostAsync("/api/plan/foods", new { text = "2 apples", eaterId = eater, day = Today }, int.MaxValue);
        var made = await host.PostAsync("/api/plan/foods", new { text = "1 apple", eaterId = eater, day = Today }, int.MaxValue);
        var row = $"lower(Id) = '{made["id"]}'";
        var kept = JsonNode.Parse((await OldFile.AskAsync(host.Data, $"SELECT Change FROM PlanChanges WHERE {row}"))[0])!;
        var day = kept["days"]![0]!.AsObject();
        Assert.Empty(day["before"]!.AsArray());
        var came = day["after"]![0]!.AsObject();
        var stayed = (await OldFile.AskAsync(host.Data, "SELECT Change FROM PlanChanges ORDER BY At LIMIT 1"))
            .Select(text => JsonNode.Parse(text)!["days"]![0]!["after"]![0]!.AsObject()).Single();
        foreach (var (item, nothing) in new[] { stayed, came }.SelectMany(item =>
            new[] { "boxId", "portion", "eatenAt", "slot" }.Select(name => (item, name))))
            item[nothing] = null;
        foreach (var item in new[] { stayed, came }) (item["isLocked"], item["isFitted"]) = (false, false);
        day.Remove("rest");
        (kept["v"], day["before"], day["after"]) =
            (2, new JsonArray(stayed.DeepClone()), new JsonArray(stayed.DeepClone(), came.DeepClone()));
        var text = kept.ToJsonString().Replace("'", "''", StringComparison.Ordinal);
        await OldFile.WriteAsync(host.Data, $"UPDATE PlanChanges SET Change = '{text}' WHERE {row}");
        await host.PostAsync($"/api/plan/changes/{made["id"]}/undo", null);
        Assert.Equal("2 apples", (string?)Assert.Single((await DayAsync(host, eater))["items"]!.AsArray())!["text"]);
    }

    /// <summary>Three years of cooking a batch a day and eating all of it make no answer about this week or today any longer.</summary>
    [Fact]
    public async Task A_week_and_the_overview_say_as_much_after_three_years_as_after_a_day()
    {
        const string Sunday = "2026-11-22";
        var data = System.IO.Path.Combine(Directory.CreateTempSubdirectory("tern-years-").FullName, "tern.db");
        Guid eater;
        using (var first = new Host(data, today: Sunday))
        {
            (eater, _, var boxes) = await first.LaidTableAsync();
            await first.PostAsync("/api/keep/boxes/eaten", new { boxIds = boxes, eaterId = eater, day = Sunday }, int.MaxValue);
            await first.PostAsync("/api/plan/foods", new { text = "1 apple", eaterId = eater, day = Sunday, eaten = true }, int.MaxValue);
        }

        string[] asked =
        [
            $"/api/plan/weeks/{Today}", "/api/plan/weeks/2026-12-02", $"/api/overview?eaterId={eater}", $"/api/eat/{eater}/{Today}",
            $"/api/plan/days/{eater}/{Today}", "/api/keep", "/api/shop/list", "/api/cook/ahead", "/api/aim/eaters",
        ];
        async Task<List<int>> LengthsAsync()
        {
            using var host = new Host(data, today: Today);
            var lengths = new List<int>();
            foreach (var path in asked) lengths.Add((await host.Http.GetStringAsync(path)).Length);
            return lengths;
        }

        var before = await LengthsAsync();
        await RepeatAsync(data, 1_100);
        Assert.Equal("5505", (await OldFile.AskAsync(data, "SELECT count(*) || '' FROM Entries"))[0]);
        Assert.Equal(before, await LengthsAsync());
    }

    // All that is in the file of that day, once more for each of as many days before it.
    private static async Task RepeatAsync(string data, int days)
    {
        // An id of another day ends with the number of days.
        static string Id(string column) => $"substr({column}, 1, 28) || printf('%08X', (unicode(substr({column}, 36)) << 16) + n)";
        var of = new Dictionary<string, string>(StringComparer.Ordinal)
        {
            ["CookedOn"] = "date(CookedOn, -n || ' days')",
            ["PlacedOn"] = "date(PlacedOn, -n || ' days')",
            ["Serial"] = "Serial + n",
            ["Day"] = "date(Day, -n || ' days')",
        };
        foreach (var (table, ids) in new[]
        {
            ("Batches", "Id"), ("BatchLines", "BatchId"), ("Boxes", "Id BatchId"), ("BoxParts", "BoxId BatchId"), ("BoxEvents", "BoxId"),
            ("PlanItems", "Id BoxId"), ("Entries", "Id ItemId BoxId"), ("EaterDays", ""), ("PlannedDays", ""),
        })
        {
            var columns = await OldFile.AskAsync(data, $"SELECT name FROM pragma_table_info('{table}')");
            if (table == "BoxEvents") columns.Remove("Id");
            var isId = ids.Split(' ').ToHashSet(StringComparer.Ordinal);
            var values = columns.Select(column => isId.Contains(column) ? Id(column) : of.GetValueOrDefault(column, column));
            await OldFile.WriteAsync(data, $"""
                WITH RECURSIVE day(n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM day WHERE n < {days})
                INSERT INTO "{table}" ({string.Join(", ", columns.Select(one => $"\"{one}\""))})
                  SELECT {string.Join(", ", values)} FROM "{table}", day
                """);
        }
    }

    private static async Task<int> NumberAsync(string data, string sql) =>
        int.Parse((await OldFile.AskAsync(data, sql))[0], CultureInfo.InvariantCulture);

    private static async Task<JsonNode> DayAsync(Host host, Guid eater) => (await host.GetAsync($"/api/eat/{eater}/{Today}"))["day"]!;
}
