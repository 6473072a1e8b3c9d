using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>What people type for a day is laid as it was read back: several things at once, own dishes by name, points alone.</summary>
public sealed class EntriesTests : IDisposable
{
    private const string Day = "2026-11-25";
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private async Task<(int Status, JsonNode Body)> LayAsync(object eater, string text, bool eaten = false, string day = Day,
        string[]? choices = null) =>
        await host.SendAsync(HttpMethod.Post, "/api/plan/entries", new { text, eaterId = eater, day, eaten, choices },
            await host.PlanVersionAsync());

    private Task<JsonNode> ReadAsync(object eater, string text, bool eaten = false, string day = Day) =>
        host.PostAsync("/api/calc/entries", new { text, eaterId = eater, day, eaten });

    private async Task<JsonNode> DayAsync(object eater, string day = Day) => (await host.GetAsync($"/api/eat/{eater}/{day}"))["day"]!;

    private async Task<string[]> NamesAsync(object eater) =>
        [.. (await DayAsync(eater))["items"]!.AsArray().Select(item => (string)(item!["text"] ?? item["name"])!)];

    private async Task<JsonNode> PointsCookAsync() => await host.PostAsync("/api/aim/eaters", new
    {
        name = "Per",
        aim = new
        {
            leading = "points",
            bands = new { points = new { max = 20 } },
            rule = new
            {
                name = "one for fifty",
                perUnit = new { energy = 0.02 },
                step = 1,
                freeGroups = new[] { "vegetables" },
                freeFoods = Array.Empty<string>(),
                fixedValues = Array.Empty<object>()
            },
        },
    });

    [Fact]
    public async Task Several_things_typed_at_once_are_one_change_as_they_were_read_back()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        const string typed = "half an oat bake box, 150 g strawberries and 2 apples";
        var read = await ReadAsync(eater, typed);
        Assert.Equal(["Oat bake", "strawberries", "apple"],
            read["entries"]!.AsArray().Select(one => ((string)one!["name"]!).Split(',')[0]));
        var (status, made) = await LayAsync(eater, typed, eaten: true);
        Assert.Equal(200, status);
        var day = await DayAsync(eater);
        Assert.Equal(["Oat bake", "150 g strawberries", "2 apples"], await NamesAsync(eater));
        Assert.Equal((decimal)read["figures"]!["energy"]!["value"]!, (decimal)day["eaten"]!["energy"]!["value"]!, 2);

        // What is left of the box is on the shelf; one undo takes all three back.
        var week = await host.GetAsync("/api/plan/weeks/" + Day);
        Assert.Contains(week["shelf"]!.AsArray(), strip => (bool)strip!["isRest"]! && (Guid)strip["boxIds"]![0]! == boxes[0]);
        await host.PostAsync($"/api/plan/changes/{made["id"]}/undo", null);
        Assert.Empty(await NamesAsync(eater));
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public async Task Of_a_dish_whose_boxes_lie_on_the_day_it_is_said_where_they_are_ticked(bool isMoreAhead)
    {
        var (eater, recipe, _) = await host.LaidTableAsync();
        if (isMoreAhead) await host.PostAsync("/api/cook/batches", new { recipeId = recipe, cookedOn = "2026-11-27" });
        foreach (var day in new[] { Day, "2026-11-26", "2026-11-27", "2026-11-28" })
            Assert.Equal(200, (await LayAsync(eater, "1 oat bake box", day: day)).Status);
        foreach (var typed in new[] { "half the oat bake", "an oat box" })
        {
            var (status, refused) = await LayAsync(eater, typed, eaten: true);
            Assert.Equal((422, "urn:lively-tern:problem:on-the-day"), (status, (string?)refused["type"]));
        }

        // What lies on other days only is not said to lie on this one.
        var elsewhere = (await LayAsync(eater, "half the oat bake", eaten: true, day: "2026-11-24")).Body;
        Assert.Equal("urn:lively-tern:problem:" + (isMoreAhead ? "not-packed" : "dish-not-there"), (string?)elsewhere["type"]);

        // Off the day it is on the shelf, and eaten from there.
        var item = (await DayAsync(eater))["items"]![0]!["id"];
        await host.MustAsync(HttpMethod.Delete, $"/api/plan/items/{item}", null, await host.PlanVersionAsync());
        Assert.Equal(200, (await LayAsync(eater, "half the oat bake", eaten: true)).Status);
    }

    [Fact]
    public async Task A_preview_says_what_laying_would_refuse_and_nothing_is_laid_in_part()
    {
        var (eater, recipe, _) = await host.LaidTableAsync();
        var ahead = await host.PostAsync("/api/cook/batches", new { recipeId = recipe, cookedOn = "2026-11-27" });
        Assert.NotNull(ahead["id"]);
        await host.PostAsync("/api/recipes", new { name = "Fish pie", lines = new[] { "400 g cod" }, portions = 4 });
        foreach (var (typed, code, eaten, day) in new[]
        {
            ("2 apples and 1 blorp", "food-unknown", false, Day), ("9 oat bake boxes", "dish-short", false, Day),
                ("1 fish pie", "dish-not-there", false, Day),
            ("1 oat bake box", "not-cooked-yet", false, "2026-11-20"),
        })
        {
            var read = await ReadAsync(eater, typed, eaten, day);
            var (status, refused) = await LayAsync(eater, typed, eaten, day);
            Assert.Contains(read["entries"]!.AsArray(), one => (string?)one!["problem"]?["code"] == code);
            Assert.Equal(("urn:lively-tern:problem:" + code, true), ((string?)refused["type"], status is 422 or 409));
        }

        Assert.Empty(await NamesAsync(eater));
        Assert.Equal(422, (await LayAsync(eater, new string('x', 5000))).Status);
        Assert.Equal(404, (await LayAsync(Guid.NewGuid(), "1 apple")).Status);
    }

    [Fact]
    public async Task A_meal_known_by_its_points_alone_counts_them_and_leaves_its_energy_open()
    {
        var cook = await PointsCookAsync();
        var id = (string)cook["id"]!;
        Assert.Equal(200, (await LayAsync(id, "dinner 9 points; 17 crackers are 5 points", eaten: true)).Status);
        var day = await DayAsync(id);
        Assert.Equal((14m, "exact"), ((decimal)day["eaten"]!["points"]!["value"]!, (string?)day["sums"]!["points"]!["certainty"]));
        Assert.Equal("atLeast", (string?)day["sums"]!["energy"]!["certainty"]);

        // Corrected where it stands: the ledger has the new figure, and half of it is half of it.
        var item = (string)day["items"]![0]!["id"]!;
        await host.MustAsync(HttpMethod.Put, $"/api/plan/items/{item}/amount", new { text = "8 points" }, await host.PlanVersionAsync());
        Assert.Equal(13m, (decimal)(await DayAsync(id))["eaten"]!["points"]!["value"]!);
        await host.MustAsync(HttpMethod.Put, $"/api/plan/items/{item}/amount", new { text = "half" }, await host.PlanVersionAsync());
        Assert.Equal(9m, (decimal)(await DayAsync(id))["eaten"]!["points"]!["value"]!);
    }

    [Fact]
    public async Task What_goes_into_the_freezer_or_to_guests_is_taken_back_whole()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        await LayAsync(eater, "1 oat bake box");
        var before = (await host.GetAsync("/api/plan/weeks/" + Day)).ToJsonString();
        var item = (string)(await DayAsync(eater))["items"]![0]!["id"]!;
        var frozen = await host.MustAsync(HttpMethod.Post, $"/api/plan/items/{item}/freeze", null, await host.PlanVersionAsync());
        var week = await host.GetAsync("/api/plan/weeks/" + Day);
        Assert.Contains(week["shelf"]!.AsArray(), strip => (string?)strip!["place"] == "freezer" && (Guid)strip["boxIds"]![0]! == boxes[0]);
        await host.PostAsync($"/api/plan/changes/{frozen["id"]}/undo", null);
        string Same(string of) =>
            System.Text.RegularExpressions.Regex.Replace(of, "\"version\":\\d+", "", System.Text.RegularExpressions.RegexOptions.None,
            TimeSpan.FromSeconds(1));
        Assert.Equal(Same(before), Same((await host.GetAsync("/api/plan/weeks/" + Day)).ToJsonString()));

        var batch = week["shelf"]![0]!["batchId"];
        var guests = await host.MustAsync(HttpMethod.Post, "/api/plan/guests",
            new { eaterId = eater, day = Day, guests = 3, batchId = batch }, await host.PlanVersionAsync());
        var day = await DayAsync(eater);
        Assert.Equal((4, 1), (day["items"]!.AsArray().Count, day["items"]!.AsArray().Count(one => !(bool)one!["isForGuests"]!)));
        Assert.Equal((decimal)day["items"]![0]!["figures"]!["energy"]!["value"]!, (decimal)day["sums"]!["energy"]!["value"]!);
        Assert.Equal("guests-short",
            ((string)(await host.SendAsync(HttpMethod.Post, "/api/plan/guests",
            new { eaterId = eater, day = Day, guests = 1, batchId = batch }, await host.PlanVersionAsync())).Body["type"]!)[^12..]);
        await host.PostAsync($"/api/plan/changes/{guests["id"]}/undo", null);
        Assert.Equal(["Oat bake"], await NamesAsync(eater));

        // A day on which only guests get something is not filled for who lives there.
        int Filled(JsonNode of) => (int)of["eaters"]!.AsArray().Single(one => (Guid)one!["eaterId"]! == eater)!["laidDays"]!;
        var filled = Filled(await host.GetAsync("/api/plan/weeks/" + Day));
        var next = DateOnly.Parse(Day, System.Globalization.CultureInfo.InvariantCulture).AddDays(1);
        var forGuest = new { eaterId = eater, day = next, guests = 1, batchId = batch };
        await host.MustAsync(HttpMethod.Post, "/api/plan/guests", forGuest, await host.PlanVersionAsync());
        Assert.Equal(filled, Filled(await host.GetAsync("/api/plan/weeks/" + Day)));
    }

    [Fact]
    public async Task A_packet_may_state_its_points_and_pieces_and_nothing_else()
    {
        var id = (string)(await PointsCookAsync())["id"]!;
        var label = new { basis = "perServing", convention = "total", servingGrams = 34, servingPieces = 17, points = 5 };
        await host.PostAsync("/api/foods", new { name = "Seed crackers", group = "grains", label });
        Assert.Equal(200, (await LayAsync(id, "17 seed crackers", eaten: true)).Status);
        Assert.Equal(200, (await LayAsync(id, "34 seed crackers")).Status);
        var day = await DayAsync(id);
        Assert.Equal((5m, 15m), ((decimal)day["eaten"]!["points"]!["value"]!, (decimal)day["sums"]!["points"]!["value"]!));
        Assert.Equal(34m, (decimal)day["items"]![0]!["grams"]!);
        Assert.Equal(422,
            (await host.SendAsync(HttpMethod.Post, "/api/foods",
            new { name = "Nothing", group = "grains", label = new { basis = "per100g", convention = "total", servingGrams = 100 } }))
            .Status);
    }

    [Fact]
    public async Task A_dish_that_fills_cups_is_planned_typed_packed_and_told_in_cups_and_a_packed_one_stays_as_it_was()
    {
        var (eater, _, _) = await host.LaidTableAsync();
        object Soup(string fills) =>
            new { name = "Bean soup", lines = new[] { "1600 g chickpeas, boiled" }, portions = 6, cookedGrams = 1800, fills };
        Assert.Equal("1 1/3 cups", (string?)(await host.PostAsync("/api/calc/recipe", Soup("8 cups")))["portionVolume"]);
        var recipe = await host.PostAsync("/api/recipes", Soup("8 cups"));
        var batch = await host.PostAsync("/api/cook/batches", new { recipeId = recipe["id"], cookedOn = Day });
        async Task<JsonNode> WeekAsync() => await host.GetAsync("/api/plan/weeks/" + Day);
        var ahead = (await WeekAsync())["unpacked"]!.AsArray().Single(one => (string?)one!["name"] == "Bean soup")!;
        Assert.Equal("1 1/3 cups", (string?)ahead["newVolumes"]![eater.ToString()]);

        // 1800 g fill 8 cups: one cup is 225 g, and typed in place 2 cups are 450 g.
        Assert.Equal(200, (await LayAsync(eater, "1 cup bean soup")).Status);
        var item = (await DayAsync(eater))["items"]![0]!;
        Assert.Equal((225m, "1 cup"), (Math.Round((decimal)item["grams"]!, 2), (string?)item["volume"]));
        await host.MustAsync(HttpMethod.Put, $"/api/plan/items/{item["id"]}/amount", new { text = "2 cups" },
            await host.PlanVersionAsync());
        item = (await DayAsync(eater))["items"]![0]!;
        Assert.Equal((450m, "2 cups"), (Math.Round((decimal)item["grams"]!, 2), (string?)item["volume"]));

        // The fullest box is that, not the first.
        Assert.Equal(200, (await LayAsync(eater, "3 cups bean soup", day: "2026-11-26")).Status);
        var preview = await host.PostAsync($"/api/pack/batches/{batch["id"]}/preview", new { fullGrams = 1800, boxes = 5 });
        Assert.Equal((450m, 675m), ((decimal)preview["boxes"]![0]!["grams"]!, (decimal)preview["fullest"]!));
        Assert.Equal(675 * (decimal)preview["kcalPerGram"]!["value"]!, (decimal)preview["figures"]!["energy"]!["value"]!, 1);

        // Packed at another weight it fills what it filled; another yield written into the recipe later changes no box.
        var version = (int)(await host.GetAsync($"/api/cook/batches/{batch["id"]}"))["version"]!;
        var packed = await host.PostAsync($"/api/pack/batches/{batch["id"]}/boxes", new { fullGrams = 1600, boxes = 5 }, version);
        Assert.Equal("2 cups", (string?)packed["boxes"]![0]!["volume"]);
        await host.MustAsync(HttpMethod.Put, $"/api/recipes/{recipe["id"]}", Soup("4 cups"), (int)recipe["version"]!);
        Assert.Equal("2 cups", (string?)(await DayAsync(eater))["items"]![0]!["volume"]);
        var (status, _) = await host.SendAsync(HttpMethod.Put, $"/api/plan/items/{item["id"]}/amount", new { text = "1 cup" },
            await host.PlanVersionAsync());
        Assert.Equal((200, "1 cup"), (status, (string?)(await DayAsync(eater))["items"]![0]!["volume"]));
    }

    [Fact]
    public async Task Pieces_that_may_be_halved_are_laid_sized_packed_and_told_in_halves_and_others_whole()
    {
        var (eater, _, _) = await host.LaidTableAsync();
        object Waffles(bool mayHalve) =>
            new
            {
                name = "Oat waffles",
                lines = new[] { "500 g chickpeas, boiled" },
                portions = 4,
                pieces = 6,
                cookedGrams = 600,
                mayHalve
            };
        var recipe = await host.PostAsync("/api/recipes", Waffles(true));
        Assert.True((bool)recipe["mayHalve"]!);
        var batch = await host.PostAsync("/api/cook/batches", new { recipeId = recipe["id"], cookedOn = Day });

        // Six waffles of 100 g for four: an ordinary portion is one and a half.
        Assert.Equal(200, (await LayAsync(eater, "oat waffles")).Status);
        async Task<JsonNode> ItemAsync() => (await DayAsync(eater))["items"]![0]!;
        var id = (string)(await ItemAsync())["id"]!;
        async Task<(decimal Grams, decimal Pieces)> SizedAsync(string typed)
        {
            await host.MustAsync(HttpMethod.Put, $"/api/plan/items/{id}/amount", new { text = typed }, await host.PlanVersionAsync());
            return ((decimal)(await ItemAsync())["grams"]!, (decimal)(await ItemAsync())["pieces"]!);
        }

        Assert.Equal((150m, 1.5m, 0.5m),
            ((decimal)(await ItemAsync())["grams"]!, (decimal)(await ItemAsync())["pieces"]!, (decimal)(await ItemAsync())["pieceStep"]!));
        Assert.Equal((50m, 0.5m), await SizedAsync("half a piece"));
        Assert.Equal((200m, 2m), await SizedAsync("190 g"));
        Assert.Equal((250m, 2.5m), await SizedAsync("2 1/2 pieces"));

        // Of 3 1/2 that are left, two boxes get 2 and 1 1/2; a restart finds them so.
        var version = (int)(await host.GetAsync($"/api/cook/batches/{batch["id"]}"))["version"]!;
        var divide = new { fullGrams = 660, boxes = 3, pieces = 6 };
        var preview = await host.PostAsync($"/api/pack/batches/{batch["id"]}/preview", divide);
        Assert.Equal([2.5m, 2m, 1.5m], preview["boxes"]!.AsArray().Select(box => (decimal)box!["pieces"]!));
        var packed = await host.PostAsync($"/api/pack/batches/{batch["id"]}/boxes", divide, version);
        var copy = Path.Combine(Directory.CreateTempSubdirectory("tern-").FullName, "tern.db");
        await OldFile.AskAsync(host.Data, $"VACUUM INTO '{copy}'");
        using (var again = new Host(copy))
        {
            var boxes = (await again.GetAsync($"/api/pack/batches/{batch["id"]}"))["boxes"]!.AsArray();
            Assert.Equal([(2.5m, 275m), (2m, 220m), (1.5m, 165m)],
                boxes.Select(box => ((decimal)box!["pieces"]!, Math.Round((decimal)box["grams"]!, 6))));
        }

        // No longer halved: what is back in its pan stays as it lies, and is whole from the next size on.
        await host.MustAsync(HttpMethod.Delete, $"/api/pack/batches/{batch["id"]}/boxes", null, (int)packed["version"]!);
        await host.MustAsync(HttpMethod.Put, $"/api/recipes/{recipe["id"]}", Waffles(false), (int)recipe["version"]!);
        Assert.Equal((2.5m, 1m), ((decimal)(await ItemAsync())["pieces"]!, (decimal)(await ItemAsync())["pieceStep"]!));
        Assert.Equal((330m, 3m), await SizedAsync("2 1/2 pieces"));
    }
}
