using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Web.Tests;

/// <summary>What batches and boxes go through: states of their own, what really went in, where boxes are and what became of them.</summary>
public sealed class LivesTests : IDisposable
{
    private const string Today = "2026-11-25";
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private Task<JsonNode> BenchAsync(object id) => host.GetAsync($"/api/pack/batches/{id}");

    private async Task<JsonNode> WeekAsync() => await host.GetAsync($"/api/plan/weeks/{Today}");

    private async Task<JsonNode> DayAsync(Guid eater, string day = Today) => (await host.GetAsync($"/api/eat/{eater}/{day}"))["day"]!;

    private async Task<JsonNode> LayAsync(Guid box, Guid eater, string day = Today) =>
        await host.PostAsync("/api/plan/boxes", new { boxId = box, eaterId = eater, day }, await host.PlanVersionAsync());

    private async Task<JsonNode> BoxAsync(Guid id)
    {
        var batch = (await host.GetAsync("/api/pack/batches")).AsArray().Last()!["id"]!;
        return (await BenchAsync(batch))["boxes"]!.AsArray().Single(box => (Guid)box!["id"]! == id)!;
    }

    private async Task<(int Status, JsonNode Body)> PutAsync(string place, params Guid[] ids)
    {
        var boxes = new List<object>();
        foreach (var id in ids) boxes.Add(new { id, version = (int)(await BoxAsync(id))["version"]! });
        return await host.SendAsync(HttpMethod.Post, "/api/keep/boxes/put", new { boxes, place });
    }

    [Fact]
    public async Task A_batch_is_planned_started_weighed_packed_later_and_its_yield_is_written_when_it_is_weighed()
    {
        var (_, recipe, _) = await host.LaidTableAsync();
        var batch = (
            await host.PostAsync("/api/cook/planned", new { day = Today, dishes = new[] { new { recipeId = recipe, portions = 8 } } }))[0]!;
        var id = batch["id"]!;
        Assert.Equal(("planned", null), ((string)batch["state"]!, batch["yield"]));
        var weigh = new { fullGrams = 1600, panGrams = 455 };
        Assert.Equal(409, (await host.SendAsync(HttpMethod.Put, $"/api/cook/batches/{id}/weight", weigh, (int)batch["version"]!)).Status);
        batch = await host.PostAsync($"/api/cook/planned/{id}/cooked", null, (int)batch["version"]!);
        Assert.Equal(("cooking", 1200m), ((string)batch["state"]!, (decimal)batch["rawGrams"]!));
        Assert.Equal(["400 g rolled oats", "4 eggs"], batch["lines"]!.AsArray().Select(line => (string)line!["text"]!));
        Assert.Equal([800m, 400m], batch["lines"]!.AsArray().Select(line => (decimal)line!["wentInGrams"]!));

        batch = await host.MustAsync(HttpMethod.Put, $"/api/cook/batches/{id}/weight", weigh, (int)batch["version"]!);
        Assert.Equal(("cooked", 1145m, 1145m / 1200m), ((string)batch["state"]!, (decimal)batch["cookedGrams"]!, (decimal)batch["yield"]!));
        Assert.Equal(1600m, (decimal)(await BenchAsync(id))["fullGrams"]!);
        Assert.Contains((await WeekAsync())["unpacked"]!.AsArray(), one =>
            (string?)one!["batchId"] == (string?)id && (decimal)one["grams"]! == 1145 && one["expected"] is null);

        // The scale once more, and into boxes; what is in boxes is weighed no more.
        var packed = await host.PostAsync($"/api/pack/batches/{id}/boxes", new { fullGrams = 1655, panGrams = 455, boxes = 8 },
            (int)batch["version"]!);
        Assert.Equal(("packed", 1200m), ((string)packed["state"]!, packed["boxes"]!.AsArray().Sum(box => (decimal)box!["grams"]!)));
        Assert.Equal(1, (decimal)(await host.GetAsync($"/api/cook/batches/{id}"))["yield"]!);
        Assert.Equal(409, (await host.SendAsync(HttpMethod.Put, $"/api/cook/batches/{id}/weight", weigh, (int)packed["version"]!)).Status);
        var emptied = await host.MustAsync(HttpMethod.Delete, $"/api/pack/batches/{id}/boxes", null, (int)packed["version"]!);
        Assert.Equal(("cooked", 1655m, 0), ((string)emptied["state"]!, (decimal)emptied["fullGrams"]!, emptied["boxes"]!.AsArray().Count));
    }

    [Fact]
    public async Task A_batch_weighed_to_be_packed_later_leaves_its_portions_what_they_were_planned_to_hold()
    {
        var (eater, recipe, _) = await host.LaidTableAsync();
        var batch = (
            await host.PostAsync("/api/cook/planned", new { day = Today, dishes = new[] { new { recipeId = recipe, portions = 4 } } }))[0]!;
        foreach (var day in new[] { Today, "2026-11-26" })
            await host.PostAsync("/api/plan/portions", new { batchId = batch["id"], eaterId = eater, day, grams = 250 },
                await host.PlanVersionAsync());
        async Task<(decimal Grams, decimal Kcal)> PortionAsync(string day)
        {
            var item = (await DayAsync(eater, day))["items"]![0]!;
            return ((decimal)item["grams"]!, (decimal)item["figures"]!["energy"]!["value"]!);
        }

        var planned = await PortionAsync("2026-11-26");
        var seen = await host.PlanVersionAsync();
        batch = await host.PostAsync($"/api/cook/planned/{batch["id"]}/cooked", null, (int)batch["version"]!);

        // 745 g were expected; the scale says 7 kg, a slip, and then 700 g.
        foreach (var full in new[] { 7000, 700 })
            batch = await host.MustAsync(HttpMethod.Put, $"/api/cook/batches/{batch["id"]}/weight", new { fullGrams = full, panGrams = 0 },
                (int)batch["version"]!);
        var weighed = await PortionAsync("2026-11-26");
        Assert.InRange(weighed.Grams, (250m * 700 / 745) - 0.002m, (250m * 700 / 745) + 0.002m);
        Assert.InRange(weighed.Kcal, planned.Kcal - 0.01m, planned.Kcal + 0.01m);
        Assert.Equal(412,
            (await host.SendAsync(HttpMethod.Put, "/api/plan/portions", new { batchId = batch["id"], eaterId = eater, grams = 300 }, seen))
            .Status);

        // Into boxes it gives the same as weighed and packed at once.
        var packed = await host.PostAsync($"/api/pack/batches/{batch["id"]}/boxes", new { fullGrams = 700, panGrams = 0, boxes = 3 },
            (int)batch["version"]!);
        Assert.Equal([235m, 235m, 230m], packed["boxes"]!.AsArray().Select(box => (decimal)box!["grams"]!));
    }

    [Fact]
    public async Task Half_a_box_is_eaten_the_rest_is_on_the_shelf_and_is_eaten_given_away_or_taken_back()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        await LayAsync(boxes[0], eater);
        async Task<JsonNode> ItemAsync(string day = Today) => (await DayAsync(eater, day))["items"]![0]!;
        async Task<(int Status, JsonNode Body)> EatAsync(object body, string day = Today) =>
            await host.SendAsync(HttpMethod.Put, $"/api/eat/items/{(await ItemAsync(day))["id"]}", body, await host.PlanVersionAsync());
        async Task<JsonNode?> RestAsync() => (await WeekAsync())["shelf"]!.AsArray().SingleOrDefault(group => (bool)group!["isRest"]!);

        // What can't be eaten of 186.3 g is refused and changes nothing.
        var whole = (decimal)(await ItemAsync())["grams"]!;
        var kcal = (decimal)(await ItemAsync())["figures"]!["energy"]!["value"]!;
        foreach (var (grams, code) in new[]
        {
            (0m, "part-absurd"), (-5, "part-absurd"), (whole + 1, "part-absurd"), (9e4m, "part-absurd"), (1e9m, "weight-absurd"),
        })
        {
            var (status, refused) = await EatAsync(new { eaten = true, grams });
            Assert.Equal((422, code), (status, (string)refused["errors"]![0]!["code"]!));
        }

        var (_, half) = await EatAsync(new { eaten = true, grams = 80 });
        var item = await ItemAsync();
        Assert.Equal((80, whole, true), ((decimal)item["grams"]!, (decimal)item["partOf"]!, item["eatenAt"] is not null));
        Assert.InRange((decimal)item["figures"]!["energy"]!["value"]!, (kcal * 80 / whole) - 0.01m, (kcal * 80 / whole) + 0.01m);
        Assert.Equal(
            ("partEaten", null),
            ((string)(await BoxAsync(boxes[0]))["state"]!, (await BoxAsync(boxes[0]))["eaterId"] is null ? null : "hers"));
        var rest = (await RestAsync())!;
        Assert.Equal((whole - 80, boxes[0]), ((decimal)rest["grams"]!, (Guid)rest["boxIds"]![0]!));

        // The rest lies on another day; while it does the half is not the whole again, and a batch of which some was eaten stays in its
        // boxes.
        await LayAsync(boxes[0], eater, "2026-11-26");
        Assert.Equal(whole - 80, (decimal)(await ItemAsync("2026-11-26"))["grams"]!);
        Assert.Null(await RestAsync());
        Assert.Equal(409, (await host.SendAsync(HttpMethod.Post, $"/api/plan/changes/{half["id"]}/undo", "")).Status);
        var batch = (await host.GetAsync("/api/pack/batches"))[0]!;
        var seen = (int)(await BenchAsync(batch["id"]!))["version"]!;
        Assert.Equal(409, (await host.SendAsync(HttpMethod.Delete, $"/api/pack/batches/{batch["id"]}/boxes", null, seen)).Status);
        Assert.Equal("urn:lively-tern:problem:day-ahead", (string?)(await EatAsync(new { eaten = true }, "2026-11-26")).Body["type"]);
        var all = await host.PostAsync("/api/keep/boxes/eaten",
            new { boxIds = new[] { boxes[0] }, eaterId = eater, day = Today }, await host.PlanVersionAsync());
        Assert.Equal("eaten", (string)(await BoxAsync(boxes[0]))["state"]!);
        await host.PostAsync($"/api/plan/changes/{all["id"]}/undo", null);
        Assert.Equal("partEaten", (string)(await BoxAsync(boxes[0]))["state"]!);

        // Thrown away the rest leaves its day, and what was eaten stays eaten until it is taken back.
        var thrown = await host.PostAsync($"/api/plan/boxes/{boxes[0]}/thrown-away", null, await host.PlanVersionAsync());
        Assert.Empty((await DayAsync(eater, "2026-11-26"))["items"]!.AsArray());
        Assert.Equal((80, 409), ((decimal)(await ItemAsync())["grams"]!, (await EatAsync(new { eaten = false })).Status));
        await host.PostAsync($"/api/plan/changes/{thrown["id"]}/undo", null);
        Assert.Equal(whole - 80, (decimal)(await ItemAsync("2026-11-26"))["grams"]!);
        var standing = await OldFile.AskAsync(host.Data, """
            SELECT Decigrams / 10 FROM Entries e
            WHERE NOT IsTakenBack AND NOT EXISTS (SELECT 1 FROM Entries o WHERE o.CorrectsId = e.Id)
            """);
        Assert.Equal(["80"], standing);
    }

    [Fact]
    public async Task What_really_went_in_changes_the_boxes_ahead_and_nothing_that_was_eaten()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        await LayAsync(boxes[0], eater);
        await LayAsync(boxes[1], eater, "2026-11-26");
        await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{(await DayAsync(eater))["items"]![0]!["id"]}", new { eaten = true },
            await host.PlanVersionAsync());
        var id = (await host.GetAsync("/api/pack/batches"))[0]!["id"]!;
        decimal Kcal(JsonNode day) => (decimal)day["items"]![0]!["figures"]!["energy"]!["value"]!;
        var (eaten, ahead) = (Kcal(await DayAsync(eater)), Kcal(await DayAsync(eater, "2026-11-26")));
        async Task<JsonNode> WroteAsync(int line, string? text)
        {
            var now = await host.GetAsync($"/api/cook/batches/{id}");
            return await host.MustAsync(HttpMethod.Put, $"/api/cook/batches/{id}/lines/{line}", new { text }, (int)now["version"]!);
        }

        // Three of four eggs less and a forgotten spoon of butter: 50 g egg and 14 g butter by the table's own figures, a quarter each box.
        var before = await host.GetAsync($"/api/cook/batches/{id}");
        var egg = (await host.PostAsync("/api/calc/parse", new { lines = new[] { "1 egg", "14 g butter" } }))["lines"]!;
        await WroteAsync(1, "1 egg");
        var batch = await WroteAsync(2, "14 g butter");
        Assert.Equal((464m, 0.5m),
            ((decimal)batch["rawGrams"]! - 0, Math.Round(745m / (decimal)batch["rawGrams"]! - (decimal)batch["yield"]! + 0.5m, 6)));
        var change = (
            (decimal)egg[1]!["figures"]!["energy"]!["value"]! - (3 * (decimal)egg[0]!["figures"]!["energy"]!["value"]!)) / 745m * 186m;
        Assert.InRange(Kcal(await DayAsync(eater, "2026-11-26")), ahead + change - 0.01m, ahead + change + 0.01m);
        Assert.Equal(eaten, Kcal(await DayAsync(eater)));

        // Not all of it is left out: a batch of nothing would hold 0 kcal, whatever it weighs.
        await WroteAsync(0, "");
        await WroteAsync(1, "");
        var some = (int)(await host.GetAsync($"/api/cook/batches/{id}"))["version"]!;
        foreach (var nothing in new[] { "", null, "a pinch of salt" })
        {
            var (empty, said) = await host.SendAsync(HttpMethod.Put, $"/api/cook/batches/{id}/lines/2", new { text = nothing }, some);
            Assert.Equal((422, "urn:lively-tern:problem:batch-of-nothing"), (empty, (string?)said["type"]));
        }

        await WroteAsync(0, null);
        await WroteAsync(1, "1 egg");

        // Left out, and as planned after all; a line that is not understood is asked about and changes nothing.
        Assert.Equal(0, (decimal)(await WroteAsync(0, ""))["lines"]![0]!["wentInGrams"]!);
        await WroteAsync(0, null);
        await WroteAsync(1, null);
        var last = await WroteAsync(2, "");
        Assert.Equal((decimal)before["rawGrams"]!, (decimal)last["rawGrams"]!);
        Assert.Equal(ahead, Kcal(await DayAsync(eater, "2026-11-26")));
        var (status, refusal) = await host.SendAsync(HttpMethod.Put, $"/api/cook/batches/{id}/lines/0",
            new { text = "some quark from the moon" }, (int)last["version"]!);
        Assert.Equal((422, "text"), (status, (string)refusal["field"]!));
        Assert.Equal(412,
            (await host.SendAsync(HttpMethod.Put, $"/api/cook/batches/{id}/lines/0", new { text = "1 egg" }, (int)before["version"]!))
            .Status);
        Assert.Equal(404,
            (await host.SendAsync(HttpMethod.Put, $"/api/cook/batches/{id}/lines/9", new { text = "1 egg" }, (int)last["version"]!))
            .Status);
    }

    [Fact]
    public async Task A_box_frozen_in_time_keeps_for_its_days_in_the_freezer_and_a_day_when_it_is_out()
    {
        var (_, _, boxes) = await host.LaidTableAsync();
        async Task<List<(string Place, string Last, int Boxes)>> ShelfAsync(Host at) =>
            [.. (await at.GetAsync($"/api/plan/weeks/{Today}"))["shelf"]!.AsArray().Select(group =>
                ((string)group!["place"]!, (string)group["useBy"]!, group["boxIds"]!.AsArray().Count))];
        Assert.Equal([("fridge", "2026-11-28", 4)], await ShelfAsync(host));
        Assert.Equal(200, (await PutAsync("freezer", boxes[0], boxes[1])).Status);
        Assert.Equal([("freezer", "2027-01-24", 2), ("fridge", "2026-11-28", 2)], await ShelfAsync(host));
        host.Dispose();

        // Ten days later: two are still good; put into the fridge they are good for a day, and frozen again not for longer. The others are over.
        using var later = new Host(host.Data, today: "2026-12-05");
        var batch = (await later.GetAsync("/api/pack/batches"))[0]!["id"]!;
        async Task PutLaterAsync(string place)
        {
            var box = (await later.GetAsync($"/api/pack/batches/{batch}"))["boxes"]![0]!;
            await later.PostAsync("/api/keep/boxes/put", new { boxes = new[] { new { id = box["id"], version = box["version"] } }, place });
        }

        await PutLaterAsync("fridge");
        Assert.Equal([("fridge", "2026-12-06", 1), ("freezer", "2027-01-24", 1), ("fridge", "2026-11-28", 2)], await ShelfAsync(later));
        foreach (var place in new[] { "freezer", "fridge" }) await PutLaterAsync(place);
        var events = await OldFile.AskAsync(later.Data,
            $"SELECT Kind || ' ' || Place FROM BoxEvents WHERE BoxId = '{boxes[0].ToString().ToUpperInvariant()}' ORDER BY Id");
        Assert.Equal(["Packed Fridge", "Put Freezer", "Put Fridge", "Put Freezer", "Put Fridge"], events);
        foreach (var rewriting in new[] { "UPDATE BoxEvents SET State = 'Packed'", "DELETE FROM BoxEvents" })
            Assert.Contains("What happened to a box",
                (await Assert.ThrowsAsync<SqliteException>(() => OldFile.WriteAsync(later.Data, rewriting))).Message);

        // A fit lays those that are good, never those that nobody froze.
        var eater = (await later.GetAsync("/api/aim/eaters"))[0]!["id"];
        var fit = await later.PostAsync("/api/plan/fits", new { from = "2026-12-05", to = "2026-12-06", seconds = 0.3 });
        Assert.Equal(["Oat bake"], fit["leftOut"]!.AsArray().Select(name => (string)name!));
        var offered = (await later.GetAsync($"/api/plan/days/{eater}/2026-12-05"))["stillFits"]!.AsArray().Select(offer =>
            (string?)offer!["boxId"]).OfType<string>();
        Assert.All(offered, box => Assert.Contains(box, boxes.Take(2).Select(id => id.ToString())));
        Assert.NotEmpty(offered);
    }

    [Fact]
    public async Task A_box_given_or_thrown_away_leaves_its_day_and_the_shelf_comes_back_by_undo_and_is_laid_by_nobody()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        var laid = await LayAsync(boxes[0], eater);
        var before = (await DayAsync(eater))["items"]!.ToJsonString();
        var given = await host.PostAsync($"/api/plan/boxes/{boxes[0]}/given-away", null, await host.PlanVersionAsync());
        Assert.Empty((await DayAsync(eater))["items"]!.AsArray());
        Assert.Equal("givenAway", (string)(await BoxAsync(boxes[0]))["state"]!);
        Assert.Equal(3, (await WeekAsync())["shelf"]![0]!["boxIds"]!.AsArray().Count);

        // Gone is gone, whichever way it is asked for.
        foreach (var (status, body) in new[]
        {
            await host.SendAsync(HttpMethod.Post, "/api/plan/boxes", new { boxId = boxes[0], eaterId = eater, day = Today },
                await host.PlanVersionAsync()),
            await host.SendAsync(HttpMethod.Post, $"/api/plan/boxes/{boxes[0]}/thrown-away", null, await host.PlanVersionAsync()),
                await PutAsync("freezer", boxes[0]),
        })
            Assert.Equal((409, "urn:lively-tern:problem:box-gone"), (status, (string)body["type"]!));

        Assert.Equal(409, (await host.SendAsync(HttpMethod.Post, $"/api/plan/changes/{laid["id"]}/undo")).Status);
        var undone = await host.PostAsync($"/api/plan/changes/{given["id"]}/undo", null);
        Assert.Equal(before, (await DayAsync(eater))["items"]!.ToJsonString());
        await host.PostAsync($"/api/plan/changes/{undone["id"]}/undo", null);
        Assert.Equal("givenAway", (string)(await BoxAsync(boxes[0]))["state"]!);

        // What is gone can't go back into the pan with the others; an eaten box is neither given nor thrown away.
        var batch = await BenchAsync((await host.GetAsync("/api/pack/batches"))[0]!["id"]!);
        Assert.Equal((409, "urn:lively-tern:problem:boxes-gone"),
            await RefusedAsync(HttpMethod.Delete, $"/api/pack/batches/{batch["id"]}/boxes", (int)batch["version"]!));
        await LayAsync(boxes[1], eater);
        await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{(await DayAsync(eater))["items"]![0]!["id"]}", new { eaten = true },
            await host.PlanVersionAsync());
        Assert.Equal(("eaten", 409),
            ((string)(await BoxAsync(boxes[1]))["state"]!,
            (await host.SendAsync(HttpMethod.Post, $"/api/plan/boxes/{boxes[1]}/given-away", null, await host.PlanVersionAsync())).Status));

        async Task<(int, string)> RefusedAsync(HttpMethod method, string path, int version)
        {
            var (status, body) = await host.SendAsync(method, path, null, version);
            return (status, (string)body["type"]!);
        }
    }

    [Theory]
    [InlineData("Mill Lane basmati", "grains", null, "2026-11-26")]
    [InlineData("Long white grains", "grains", "rice", "2026-11-26")]
    [InlineData("Rice crackers", "grains", "ordinary", "2026-11-28")]
    [InlineData("Rice pudding", "dairy", null, "2026-11-28")]
    public async Task An_own_rice_keeps_as_rice_by_its_kind_and_not_by_a_word_in_its_name(string name, string group, string? keeping,
        string last)
    {
        await host.PostAsync("/api/aim/eaters",
            new { name = "Isa", aim = new { leading = "energy", bands = new { }, rule = (object?)null } });
        var food = await host.PostAsync("/api/foods",
            new
            {
                name,
                group,
                keeping,
                label = new { basis = "per100g", servingGrams = (decimal?)null, convention = "total", kilocalories = 350 }
            });
        Assert.Equal(last == "2026-11-26" ? "rice" : "ordinary", (string)food["keeping"]!);
        var recipe = await host.PostAsync("/api/recipes", new { name = "Bowl", lines = new[] { $"300 g {name}" }, portions = 2 });
        var batch = await host.PostAsync("/api/cook/batches", new { recipeId = recipe["id"] });
        await host.PostAsync($"/api/pack/batches/{batch["id"]}/boxes", new { fullGrams = 800, panGrams = 0, boxes = 2 },
            (int)batch["version"]!);
        Assert.Equal(last, (string)Assert.Single((await WeekAsync())["shelf"]!.AsArray())!["useBy"]!);
    }
}
