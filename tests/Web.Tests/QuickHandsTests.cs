using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using LivelyTern.Web.Http;

namespace LivelyTern.Web.Tests;

/// <summary>
/// Several hands at once, and one that is quick: different days never meet, a step is undone once, nobody is answered 500.
/// </summary>
public sealed class QuickHandsTests
{
    private static string Code((int Status, JsonNode Body) answer) =>
        answer.Status == 200 ? "" : ((string)answer.Body["type"]!)["urn:lively-tern:problem:".Length..];

    private static async Task<JsonNode> DayAsync(Host host, object eater, string day) =>
        (await host.GetAsync($"/api/eat/{eater}/{day}"))["day"]!;

    [Fact]
    public async Task Two_who_tick_different_days_a_hundred_times_are_never_refused()
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        string[] days = ["2026-11-24", "2026-11-25"];
        foreach (var day in days) await host.PostAsync("/api/plan/foods", new { text = "1 apple", eaterId = eater, day },
            await host.PlanVersionAsync());

        // Each goes on from what its own last change left, and reads nothing between.
        async Task<List<int>> TickAsync(string day)
        {
            var item = (string)(await DayAsync(host, eater, day))["items"]![0]!["id"]!;
            var version = await host.PlanVersionAsync();
            var statuses = new List<int>();
            for (var i = 0; i < 100; i++)
            {
                var (status, made) = await host.SendAsync(HttpMethod.Put, $"/api/eat/items/{item}", new { eaten = i % 2 == 0 }, version);
                statuses.Add(status);
                version = (int)made["version"]!;
                Assert.Equal(day, (string?)Assert.Single(made["days"]!.AsArray())!["day"]);
            }

            return statuses;
        }

        var all = await Task.WhenAll(days.Select(day => Task.Run(() => TickAsync(day))));
        Assert.All(all.SelectMany(one => one), status => Assert.Equal(200, status));
    }

    [Fact]
    public async Task A_day_changed_since_it_was_seen_is_not_overwritten_unseen()
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        var seen = await host.PlanVersionAsync();
        await host.PostAsync("/api/plan/foods", new { text = "1 apple", eaterId = eater, day = "2026-11-26" }, seen);
        Assert.Equal(412,
            (await host.SendAsync(HttpMethod.Post, "/api/plan/foods", new { text = "2 apples", eaterId = eater, day = "2026-11-26" }, seen))
            .Status);
        Assert.Equal(200,
            (await host.SendAsync(HttpMethod.Post, "/api/plan/foods", new { text = "2 apples", eaterId = eater, day = "2026-11-27" }, seen))
            .Status);
    }

    [Fact]
    public async Task A_step_is_undone_once_and_takes_nothing_from_another_day()
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        async Task<JsonNode> DoAsync(HttpMethod method, string path, object? body) =>
            await host.MustAsync(method, path, body, await host.PlanVersionAsync());
        await DoAsync(HttpMethod.Post, "/api/plan/foods", new { text = "1 apple", eaterId = eater, day = "2026-11-24" });
        var item = (string)(await DayAsync(host, eater, "2026-11-24"))["items"]![0]!["id"]!;
        var off = await DoAsync(HttpMethod.Delete, $"/api/plan/items/{item}", null);
        var back = await DoAsync(HttpMethod.Post, $"/api/plan/changes/{off["id"]}/undo", null);
        await DoAsync(HttpMethod.Put, $"/api/plan/items/{item}/place", new { eaterId = eater, day = "2026-11-25" });
        await DoAsync(HttpMethod.Put, $"/api/eat/items/{item}", new { eaten = true });
        var again = await host.SendAsync(HttpMethod.Post, $"/api/plan/changes/{off["id"]}/undo");
        Assert.Equal((409, "undone-already"), (again.Status, Code(again)));
        var eaten = Assert.Single((await DayAsync(host, eater, "2026-11-25"))["items"]!.AsArray())!;
        Assert.NotNull(eaten["eatenAt"]);
        Assert.Empty((await DayAsync(host, eater, "2026-11-24"))["items"]!.AsArray());

        // Undoing the undo is redo, and that too is done once.
        Assert.Equal("plan-moved-on", Code(await host.SendAsync(HttpMethod.Post, $"/api/plan/changes/{back["id"]}/undo")));
    }

    [Fact]
    public async Task Of_many_who_undo_one_step_at_once_one_does()
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        var laid = await host.PostAsync("/api/plan/foods", new { text = "1 apple", eaterId = eater, day = "2026-11-25" },
            await host.PlanVersionAsync());
        var answers = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ =>
            host.SendAsync(HttpMethod.Post, $"/api/plan/changes/{laid["id"]}/undo")));
        Assert.Single(answers, answer => answer.Status == 200);
        Assert.All(answers.Where(answer => answer.Status != 200), answer => Assert.Equal(409, answer.Status));
    }

    /// <summary>The week's board and its shelf are one reading: packing meanwhile never tears it.</summary>
    [Fact]
    public async Task A_week_read_while_a_batch_is_packed_and_emptied_is_whole()
    {
        using var host = new Host();
        var (eater, recipe, _) = await host.LaidTableAsync();
        var batch = await host.PostAsync("/api/cook/batches", new { recipeId = recipe });
        var id = (string)batch["id"]!;
        foreach (var day in new[] { "2026-11-26", "2026-11-27" }) await host.PostAsync("/api/plan/portions",
            new { batchId = id, eaterId = eater, day }, await host.PlanVersionAsync());
        using var over = new CancellationTokenSource();
        async Task<int> LookAsync(string path)
        {
            var looks = 0;
            do
            {
                var (status, body) = await host.SendAsync(HttpMethod.Get, path);
                Assert.True(status == 200, $"{path}: {status} {body}");
                if (body is JsonObject && body["unpacked"] is { } unpacked)
                {
                    // Either two portions of a batch without boxes, or two boxes of one that is packed.
                    var items = body["eaters"]![0]!["days"]!.AsArray().SelectMany(day => day!["items"]!.AsArray()).ToList();
                    Assert.Equal(2, items.Count);
                    Assert.Equal(unpacked.AsArray().Any(one => (string?)one!["batchId"] == id),
                        items.TrueForAll(item => item!["batchId"] is not null));
                }

                looks++;
            }
            while (!over.IsCancellationRequested);

            return looks;
        }

        var lookers =
            new[] { "/api/plan/weeks/2026-11-25", "/api/overview", $"/api/plan/days/{eater}/2026-11-26", "/api/plan/calendar.ics" }.Select(
            path => Task.Run(() => LookAsync(path))).ToList();
        for (var i = 0; i < 12; i++)
        {
            var packed = await host.PostAsync($"/api/pack/batches/{id}/boxes", new { fullGrams = 1200, panGrams = 455, boxes = 4 },
                (int)(await host.GetAsync($"/api/pack/batches/{id}"))["version"]!);
            await host.MustAsync(HttpMethod.Delete, $"/api/pack/batches/{id}/boxes", null, (int)packed["version"]!);
        }

        await over.CancelAsync();
        Assert.All(await Task.WhenAll(lookers), looks => Assert.True(looks > 0));
    }

    [Fact]
    public async Task Many_who_write_the_same_food_measure_and_choice_at_once_are_all_answered()
    {
        using var host = new Host();
        object Food(int i) =>
            new
            {
                name = i < 8 ? "Granola" : $"Granola {i}",
                group = "grains",
                label = new { basis = "per100g", servingGrams = (decimal?)null, convention = "total", kilocalories = 100 }
            };
        var foods = await Task.WhenAll(Enumerable.Range(0, 12).Select(i => host.SendAsync(HttpMethod.Post, "/api/foods", Food(i))));
        Assert.Equal(5, foods.Count(answer => answer.Status == 200)); // four of their own names, and one Granola
        Assert.All(foods.Where(answer => answer.Status != 200), answer => Assert.Equal((422, "name-taken"), (answer.Status, Code(answer))));
        var id = Uri.EscapeDataString((string)foods.First(answer => answer.Status == 200).Body["id"]!);
        var measures = await Task.WhenAll(Enumerable.Range(0, 8).Select(i =>
            host.SendAsync(HttpMethod.Put, $"/api/foods/{id}/measures", new { measure = "cup", grams = 100 + i })));
        Assert.All(measures, answer => Assert.Equal(200, answer.Status));
        var choices = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ =>
            host.SendAsync(HttpMethod.Post, "/api/foods/choices", new { text = "crunchy stuff", foodId = Uri.UnescapeDataString(id) })));
        Assert.All(choices, answer => Assert.Equal(200, answer.Status));
    }

    [Fact]
    public async Task A_mend_is_worked_out_again_and_what_is_no_mend_is_refused()
    {
        using var host = new Host();
        var (eater, _, boxes) = await host.LaidTableAsync();
        foreach (var box in boxes.Take(3)) await host.PostAsync("/api/plan/boxes",
            new { boxId = box, eaterId = eater, day = "2026-11-26" }, await host.PlanVersionAsync());
        var depth = await host.GetAsync($"/api/plan/days/{eater}/2026-11-26");
        var mend = depth["mends"]!.AsArray().First(one => (string?)one!["kind"] != "moveBound")!;
        foreach (var made in new[] { "TakeOff|" + Guid.NewGuid(), "LayFood||9 kg butter||||||", "" })
            Assert.Equal("mend-gone",
                Code(await host.SendAsync(HttpMethod.Post, $"/api/plan/days/{eater}/2026-11-26/mends", new { id = made },
                await host.PlanVersionAsync())));
        await host.PostAsync($"/api/plan/days/{eater}/2026-11-26/mends", new { id = mend["id"] }, await host.PlanVersionAsync());
        Assert.True((bool)(await DayAsync(host, eater, "2026-11-26"))["fits"]!);
        Assert.Equal("mend-gone",
            Code(await host.SendAsync(HttpMethod.Post, $"/api/plan/days/{eater}/2026-11-26/mends", new { id = mend["id"] },
            await host.PlanVersionAsync())));
    }

    /// <summary>A mapping that was chosen after another counts, however far the look with the first had come.</summary>
    [Fact]
    public async Task The_mapping_chosen_last_is_the_one_that_counts()
    {
        using var host = new Host();
        var table = new StringBuilder("name,first,second\n");
        for (var i = 0; i < 30_000; i++) table.Append(System.Globalization.CultureInfo.InvariantCulture, $"food {i},100,200\n");
        using var file = new ByteArrayContent(Encoding.UTF8.GetBytes(table.ToString()));
        file.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        using var taken = await host.Http.PostAsync("/api/imports?name=table.csv", file);
        var import = JsonNode.Parse(await taken.Content.ReadAsStringAsync())!;
        while (import["mapping"] is null) import = await host.GetAsync($"/api/imports/{import["id"]}");
        JsonNode By(string column)
        {
            var mapping = import["mapping"]!.DeepClone();
            mapping["name"] = "name";
            mapping["nutrients"] = new JsonObject { ["energy"] = new JsonObject { ["column"] = column, ["unit"] = "kilocalorie" } };
            return mapping;
        }

        for (var i = 0; i < 6; i++)
        {
            var (earlier, last) = i % 2 == 0 ? ("first", "second") : ("second", "first");
            await host.MustAsync(HttpMethod.Put, $"/api/imports/{import["id"]}/mapping", By(earlier));
            var now = await host.MustAsync(HttpMethod.Put, $"/api/imports/{import["id"]}/mapping", By(last));
            while ((string?)now["state"] == "looking") now = await host.GetAsync($"/api/imports/{import["id"]}");
            Assert.Equal("ready", (string?)now["state"]);
            Assert.Equal(last == "first" ? 100m : 200m, (decimal)now["sample"]![0]!["per100g"]!["energy"]!);
        }
    }

    [Fact]
    public async Task Fits_sent_whole_wait_their_turn_and_too_many_are_told_to_come_again()
    {
        using var turns = new SolverTurns();
        using var go = new ManualResetEventSlim();
        var (working, most) = (0, 0);
        int Work()
        {
            most = Math.Max(most, Interlocked.Increment(ref working));
            go.Wait();
            Interlocked.Decrement(ref working);
            return 1;
        }

        var taken = Enumerable.Range(0, SolverTurns.Most).Select(_ => turns.RunAsync(Work, CancellationToken.None)).ToList();
        var refused = await turns.RunAsync(Work, CancellationToken.None);
        Assert.Equal(LivelyTern.Web.Http.Answers.BusyCode, Assert.Single(refused.Problems).Code);

        // Who goes away while waiting leaves its place to another.
        using var away = new CancellationTokenSource();
        go.Set();
        Assert.All(await Task.WhenAll(taken), one => Assert.Equal(1, one.Value));
        Assert.Equal(1, most);
        go.Reset();
        var first = turns.RunAsync(Work, CancellationToken.None);
        var waiting = Enumerable.Range(1, SolverTurns.Most - 1).Select(_ => turns.RunAsync(Work, away.Token)).ToList();
        await away.CancelAsync();
        foreach (var one in waiting) await Assert.ThrowsAnyAsync<OperationCanceledException>(() => one);
        var next = turns.RunAsync(Work, CancellationToken.None);
        go.Set();
        Assert.True((await first).Succeeded && (await next).Succeeded);
    }
}
