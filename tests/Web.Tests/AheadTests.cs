using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>
/// Batches planned ahead on the real host: from a menu over portions on days to boxes of those portions, and back; and what is refused on
/// the way.
/// </summary>
public sealed class AheadTests
{
    private const string Today = "2026-11-25", Saturday = "2026-11-28";

    private static async Task<JsonNode> WeekAsync(Host host, string day = Today) => await host.GetAsync($"/api/plan/weeks/{day}");

    private static async Task<JsonNode> UnpackedAsync(Host host, string id) =>
        (await WeekAsync(host))["unpacked"]!.AsArray().Single(batch => (string)batch!["batchId"]! == id)!;

    private static IEnumerable<JsonNode> Items(JsonNode week) =>
        week["eaters"]!.AsArray().SelectMany(eater => eater!["days"]!.AsArray()).SelectMany(day => day!["items"]!.AsArray()).Select(item =>
        item!);

    // An eater, and 400 g oats with 4 eggs planned for Saturday: 4 portions, expected to weigh what goes in, or as the batch before it did.
    private static async Task<(string Eater, string Recipe, string Batch)> PlannedAsync(Host host, int portions = 4)
    {
        var table = await host.LaidTableAsync();
        var planned =
            (await host.PostAsync("/api/cook/planned",
            new { day = Saturday, dishes = new[] { new { recipeId = table.Recipe, portions } } })).AsArray().Single()!;
        return (table.Eater.ToString(), table.Recipe.ToString(), (string)planned["id"]!);
    }

    private static async Task<JsonNode> LayAsync(Host host, string eater, string batch, string day, decimal? grams = null) =>
        await host.PostAsync("/api/plan/portions", new { batchId = batch, eaterId = eater, day, grams }, await host.PlanVersionAsync());

    [Fact]
    public async Task A_box_for_guests_says_so_before_and_after_packing()
    {
        using var host = new Host();
        var (eater, _, batch) = await PlannedAsync(host);
        await LayAsync(host, eater, batch, Saturday);
        var forGuests = new { eaterId = eater, day = Saturday, guests = 2, batchId = batch };
        await host.MustAsync(HttpMethod.Post, "/api/plan/guests", forGuests, await host.PlanVersionAsync());
        var version = (int)(await host.GetAsync($"/api/pack/batches/{batch}"))["version"]!;
        await host.PostAsync($"/api/cook/planned/{batch}/cooked", null, version);
        var cooked = await host.GetAsync($"/api/pack/batches/{batch}");
        Assert.Equal([false, true, true], cooked["planned"]!.AsArray().Select(one => (bool)one!["isForGuests"]!));
        var weighed = new { fullGrams = 800, panGrams = 100, boxes = 4 };
        var packed = await host.PostAsync($"/api/pack/batches/{batch}/boxes", weighed, (int)cooked["version"]!);
        Assert.Equal([false, true, true, false], packed["boxes"]!.AsArray().Select(one => (bool)one!["isForGuests"]!));
    }

    [Fact]
    public async Task From_a_planned_batch_to_boxes_of_its_portions_and_back()
    {
        using var host = new Host();
        var (eater, _, batch) = await PlannedAsync(host);
        var unpacked = await UnpackedAsync(host, batch);

        // The batch before weighed 745 g of 600 raw: so is this one expected to.
        Assert.Equal((745m, "planned", "earlierBatches", 745m),
            ((decimal)unpacked["grams"]!, (string)unpacked["state"]!, (string)unpacked["expected"]!["from"]!,
            (decimal)unpacked["leftGrams"]!));
        Assert.Equal(190, (decimal)unpacked["newGrams"]![eater]!);

        await LayAsync(host, eater, batch, Saturday);
        var laid = await LayAsync(host, eater, batch, "2026-11-29", 220);
        var third = (decimal)(await UnpackedAsync(host, batch))["newGrams"]![eater]!;
        Assert.Equal(220, third);
        await host.MustAsync(HttpMethod.Put, "/api/plan/portions", new { batchId = batch, eaterId = eater, grams = 250 },
            await host.PlanVersionAsync());
        var portions = Items(await WeekAsync(host)).Where(item => (string?)item["batchId"] == batch).ToList();
        Assert.Equal([250m, 250m], portions.Select(item => (decimal)item["grams"]!));
        Assert.All(portions, item => Assert.Null(item["boxId"]));
        var kcal = (decimal)portions[0]["figures"]!["energy"]!["value"]!;
        Assert.Equal(245, (decimal)(await UnpackedAsync(host, batch))["leftGrams"]!);

        // Not before it is cooked, not eaten before it is packed, not packed before it is cooked.
        var (early, why) = await host.SendAsync(HttpMethod.Post, "/api/plan/portions",
            new { batchId = batch, eaterId = eater, day = "2026-11-27" }, await host.PlanVersionAsync());
        Assert.Equal((422, "urn:lively-tern:problem:not-cooked-yet"), (early, (string)why["type"]!));
        Assert.Contains("Saturday, 28 November", (string)why["detail"]!);
        Assert.Equal(409,
            (await host.SendAsync(HttpMethod.Put, $"/api/eat/items/{portions[0]["id"]}", new { eaten = true },
            await host.PlanVersionAsync())).Status);
        var version = (int)(await host.GetAsync($"/api/pack/batches/{batch}"))["version"]!;
        Assert.Equal(409,
            (await host.SendAsync(HttpMethod.Post, $"/api/pack/batches/{batch}/boxes", new { fullGrams = 800, panGrams = 100, boxes = 4 },
            version)).Status);

        var cooked = await host.PostAsync($"/api/cook/planned/{batch}/cooked", null, version);
        Assert.Equal(("cooking", Today), ((string)cooked["state"]!, (string)cooked["cookedOn"]!));
        Assert.Equal(2, (await host.GetAsync($"/api/pack/batches/{batch}"))["planned"]!.AsArray().Count);
        var (few, tooFew) = await host.SendAsync(HttpMethod.Post, $"/api/pack/batches/{batch}/preview",
            new { fullGrams = 800, panGrams = 100, boxes = 1 });
        Assert.Equal((422, "urn:lively-tern:problem:boxes-too-few"), (few, (string)tooFew["type"]!));
        var preview = await host.PostAsync($"/api/pack/batches/{batch}/preview", new { fullGrams = 800, panGrams = 100, boxes = 3 });
        Assert.Equal([235m, 235m, 230m], preview["boxes"]!.AsArray().Select(box => (decimal)box!["grams"]!));

        // 700 g came out of the pan and not 745: the boxes hold what was planned all the same.
        var before = await host.PlanVersionAsync();
        var packed = await host.PostAsync($"/api/pack/batches/{batch}/boxes", new { fullGrams = 800, panGrams = 100, boxes = 3 },
            (int)cooked["version"]!);
        Assert.Equal((Saturday, "Isa"), ((string)packed["boxes"]![0]!["day"]!, (string)packed["boxes"]![0]!["name"]!));
        Assert.Null(packed["boxes"]![2]!["day"]);
        var week = await WeekAsync(host);
        Assert.Equal(before + 1, (int)week["version"]!);
        var boxes = Items(week).Where(item => portions.Exists(portion => (string)portion["id"]! == (string)item["id"]!)).ToList();
        Assert.All(boxes, item => Assert.True(item["boxId"] is not null && item["batchId"] is null && (decimal)item["grams"]! == 235));
        Assert.InRange((decimal)boxes[0]["figures"]!["energy"]!["value"]!, kcal * 0.995m, kcal * 1.005m);
        Assert.DoesNotContain(week["unpacked"]!.AsArray(), one => (string)one!["batchId"]! == batch);

        // What was undone before it was packed is no longer as it was: it says so and changes nothing.
        Assert.Equal(409, (await host.SendAsync(HttpMethod.Post, $"/api/plan/changes/{laid["id"]}/undo")).Status);
        var emptied = await host.MustAsync(HttpMethod.Delete, $"/api/pack/batches/{batch}/boxes", null, (int)packed["version"]!);
        Assert.Equal([235m, 235m], emptied["planned"]!.AsArray().Select(portion => (decimal)portion!["grams"]!));
        Assert.Equal(700, (decimal)emptied["expectedGrams"]!);
    }

    [Fact]
    public async Task A_planned_batch_follows_its_recipe_until_it_is_cooked()
    {
        using var host = new Host();
        var (eater, recipeId, batch) = await PlannedAsync(host);
        var recipe = await host.GetAsync($"/api/recipes/{recipeId}");
        async Task<decimal> KcalAsync() => (decimal)(await UnpackedAsync(host, batch))["figures"]![eater]!["energy"]!["value"]!;
        var before = await KcalAsync();
        var changed = await host.MustAsync(HttpMethod.Put, $"/api/recipes/{recipeId}",
            new { name = "Richer oat bake", lines = new[] { "800 g rolled oats", "4 eggs" }, portions = 4 }, (int)recipe["version"]!);
        Assert.True(await KcalAsync() > before * 1.15m);
        Assert.Equal("Richer oat bake", (string)(await UnpackedAsync(host, batch))["name"]!);

        var cooked = await host.PostAsync($"/api/cook/planned/{batch}/cooked", null, 1);
        var fixedKcal = await KcalAsync();
        await host.MustAsync(HttpMethod.Put, $"/api/recipes/{recipeId}",
            new { name = "Oat bake", lines = new[] { "100 g rolled oats" }, portions = 4 }, (int)changed["version"]!);
        Assert.Equal(fixedKcal, await KcalAsync());
        Assert.Equal("Richer oat bake", (string)cooked["name"]!);
        Assert.Equal(409,
            (await host.SendAsync(HttpMethod.Post, $"/api/cook/planned/{batch}/cooked", null, (int)cooked["version"]!)).Status);
    }

    [Fact]
    public async Task What_is_taken_off_the_list_comes_back_as_it_was()
    {
        using var host = new Host();
        var (_, _, batch) = await PlannedAsync(host);
        var before = await UnpackedAsync(host, batch);
        var gone = await host.MustAsync(HttpMethod.Delete, $"/api/cook/batches/{batch}", null, (int)before["version"]!);
        Assert.Equal("discarded", (string)gone["state"]!);
        Assert.Empty((await WeekAsync(host))["unpacked"]!.AsArray());
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Get, $"/api/pack/batches/{batch}")).Status);
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Post, $"/api/cook/planned/{batch}/cooked", null, (int)gone["version"]!)).Status);

        var back = await host.PostAsync($"/api/cook/batches/{batch}/restore", null, (int)gone["version"]!);
        var after = await UnpackedAsync(host, batch);
        foreach (var field in new[] { "name", "cookedOn", "portions", "grams", "state" }) Assert.Equal(before[field]!.ToJsonString(),
            after[field]!.ToJsonString());
        Assert.Equal(409,
            (await host.SendAsync(HttpMethod.Post, $"/api/cook/batches/{batch}/restore", null, (int)back["version"]!)).Status);

        // Once its day is past it is planned for today.
        var again = await host.MustAsync(HttpMethod.Delete, $"/api/cook/batches/{batch}", null, (int)back["version"]!);
        host.Dispose();
        using var later = new Host(host.Data, today: "2026-12-02");
        Assert.Equal("2026-12-02",
            (string)(await later.PostAsync($"/api/cook/batches/{batch}/restore", null, (int)again["version"]!))["cookedOn"]!);
    }

    [Fact]
    public async Task Day_and_amount_change_while_nothing_lies_before_the_day_and_nothing_is_lost()
    {
        using var host = new Host();
        var (eater, recipe, batch) = await PlannedAsync(host);
        await LayAsync(host, eater, batch, Saturday, 400);
        await LayAsync(host, eater, batch, "2026-11-29");
        var over = await UnpackedAsync(host, batch);
        Assert.Equal((-55m, 5), ((decimal)over["leftGrams"]!, (int)over["portionsLaid"]!));

        var more = await host.MustAsync(HttpMethod.Put, $"/api/cook/planned/{batch}", new { day = Saturday, portions = 5 },
            (int)over["version"]!);
        Assert.Equal(131m, (decimal)(await UnpackedAsync(host, batch))["leftGrams"]!);
        var (status, late) = await host.SendAsync(HttpMethod.Put, $"/api/cook/planned/{batch}", new { day = "2026-11-29", portions = 5 },
            (int)more["version"]!);
        Assert.Equal((409, "urn:lively-tern:problem:portions-before"), (status, (string)late["type"]!));
        Assert.Equal(412,
            (await host.SendAsync(HttpMethod.Put, $"/api/cook/planned/{batch}", new { day = Saturday, portions = 9 }, 1)).Status);
        Assert.Equal(409, (await host.SendAsync(HttpMethod.Delete, $"/api/cook/batches/{batch}", null, (int)more["version"]!)).Status);

        foreach (var (body, code) in new (object, string)[]
        {
            (new { day = "2026-11-24", dishes = new[] { new { recipeId = recipe, portions = 4 } } }, "day-past"),
                (new { day = "2030-01-01", dishes = new[] { new { recipeId = recipe, portions = 4 } } }, "day-far"),
            (new { day = Saturday, dishes = new[] { new { recipeId = recipe, portions = 4 }, new { recipeId = recipe, portions = 0 } } },
                "portions-absurd"), (new { day = Saturday, dishes = Array.Empty<object>() }, "batches-many"),
        })
        {
            var (refused, answer) = await host.SendAsync(HttpMethod.Post, "/api/cook/planned", body);
            Assert.Equal((422, "urn:lively-tern:problem:" + code), (refused, (string)answer["type"]!));
        }

        // Of several dishes one that cannot be leaves none planned.
        Assert.Single((await WeekAsync(host))["unpacked"]!.AsArray());
        Assert.Equal(404,
            (await host.SendAsync(HttpMethod.Post, "/api/cook/planned",
            new
            {
                day = Saturday,
                dishes = new[] { new { recipeId = recipe, portions = 4 }, new { recipeId = Guid.NewGuid().ToString(), portions = 4 } }
            }))
            .Status);
        Assert.Single((await WeekAsync(host))["unpacked"]!.AsArray());
    }

    [Fact]
    public async Task A_fit_divides_planned_batches_one_size_to_an_eater_and_is_undone()
    {
        using var host = new Host(demo: true);
        var body = new { from = "2026-11-30", to = "2026-12-02", seconds = 1.5, scope = "boxes", amountsAreOpen = true };
        var begun = await host.PostAsync("/api/plan/fits", body);
        JsonNode fit;
        while (!(bool)(fit = await host.GetAsync($"/api/plan/fits/{begun["id"]}"))["isDone"]!) await Task.Delay(50);
        Assert.True((int)fit["fitAfter"]! > (int)fit["fitBefore"]!);
        var days = fit["days"]!.AsArray().Select(day => new { eaterId = (string)day!["eaterId"]!, day = (string)day["day"]! }).ToList();
        var taken = await host.PostAsync($"/api/plan/fits/{fit["id"]}/take", new { draft = (int)fit["draft"]!, days });
        var week = await WeekAsync(host, "2026-11-30");
        var portions = week["eaters"]!.AsArray().SelectMany(eater =>
            eater!["days"]!.AsArray().SelectMany(day => day!["items"]!.AsArray()).Where(item => item!["batchId"] is not null)
            .Select(item => (Eater: (string)eater["eaterId"]!, Batch: (string)item!["batchId"]!, Grams: (decimal)item["grams"]!))).ToList();
        Assert.NotEmpty(portions);
        Assert.All(portions.GroupBy(portion => (portion.Eater, portion.Batch)), own =>
            Assert.Single(own.Select(portion => portion.Grams).Distinct()));
        foreach (var batch in week["unpacked"]!.AsArray())
            Assert.Equal((decimal)batch!["grams"]! - (decimal)batch["leftGrams"]! - (decimal)batch["inDishesGrams"]!,
                portions.Where(portion => portion.Batch == (string)batch["batchId"]!).Sum(portion => portion.Grams));
        await host.PostAsync($"/api/plan/changes/{taken["made"]!["id"]}/undo", null);
        Assert.DoesNotContain(Items(await WeekAsync(host, "2026-11-30")), item => item["batchId"] is not null);
    }

    [Fact]
    public async Task A_menu_is_proposed_from_the_own_recipes_planned_and_refused_where_it_cannot_be()
    {
        using var host = new Host(demo: true);
        var wish = new
        {
            from = "2026-11-30",
            to = "2026-12-02",
            prepDay = "2026-11-29",
            dishes = 2,
            atHand = new[] { "1.2 kg cod fillet", "" }
        };
        var menu = await host.PostAsync("/api/plan/menus", wish);
        var dishes = menu["dishes"]!.AsArray();
        Assert.Equal((2, 9), (dishes.Count, (int)menu["allDays"]!));
        Assert.True((int)menu["fitDays"]! >= (int)menu["fitWithout"]!);
        var fish = dishes.Single(dish => ((string)dish!["name"]!).StartsWith("Fish", StringComparison.Ordinal))!;
        Assert.Equal(1200, (decimal)fish["usesUp"]![0]!["ofGrams"]!);

        // What is planned already is there and not proposed again; what is replaced does not come back.
        var names = dishes.Select(dish => (string)dish!["name"]!).ToList();
        Assert.DoesNotContain("Buckwheat pancakes", names);
        var other = dishes.First(dish => dish != fish)!;
        var again = await host.PostAsync("/api/plan/menus",
            new
            {
                wish.from,
                wish.to,
                wish.prepDay,
                wish.dishes,
                keep = new[] { fish["recipeId"] },
                without = new[] { other["recipeId"] }
            });
        Assert.DoesNotContain((string)other["name"]!, again["dishes"]!.AsArray().Select(dish => (string)dish!["name"]!));
        Assert.True((bool)again["dishes"]!.AsArray().Single(dish => (string)dish!["recipeId"]! == (string)fish["recipeId"]!)!["isKept"]!);

        await host.PostAsync("/api/cook/planned",
            new
            {
                day = wish.prepDay,
                dishes = dishes.Select(dish => new { recipeId = (string)dish!["recipeId"]!, portions = (int)dish["portions"]! })
            });

        // With today's dal, what was planned already, and what a bowl of it is put together from.
        Assert.Equal(9, (await WeekAsync(host))["unpacked"]!.AsArray().Count);

        foreach (var (body, code) in new (object, string)[]
        {
            (new { wish.from, wish.to, wish.prepDay, dishes = 0 }, "menu-dishes"),
                (new { from = wish.to, to = wish.from, wish.prepDay }, "fit-days"),
                (new { wish.from, wish.to, prepDay = "2026-11-01" }, "prep-day"),
            (new { wish.from, wish.to, wish.prepDay, atHand = new[] { "a lot of love" } }, "food-unknown"),
                (new { wish.from, wish.to, wish.prepDay, eaterIds = new[] { Guid.NewGuid() } }, "fit-eaters"),
        })
        {
            var (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/plan/menus", body);
            Assert.Equal((422, "urn:lively-tern:problem:" + code), (status, (string)answer["type"]!));
        }
    }

    [Fact]
    public async Task A_house_without_recipes_says_so()
    {
        using var host = new Host();
        await host.PostAsync("/api/aim/eaters",
            new
            {
                name = "Isa",
                aim = new { leading = "energy", bands = new { energy = new { min = 1450, max = 1600 } }, rule = (object?)null }
            });
        var (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/plan/menus", new { from = Today, to = Today, prepDay = Today });
        Assert.Equal((422, "urn:lively-tern:problem:menu-no-recipes"), (status, (string)answer["type"]!));

        // Where there are some, and all are planned, that is said.
        var recipe = await host.PostAsync("/api/recipes", new { name = "Oat bake", lines = new[] { "400 g rolled oats" }, portions = 4 });
        await host.PostAsync("/api/cook/planned",
            new { day = Today, dishes = new[] { new { recipeId = (string)recipe["id"]!, portions = 4 } } });
        (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/plan/menus", new { from = Today, to = Today, prepDay = Today });
        Assert.Equal((422, "urn:lively-tern:problem:menu-all-planned"), (status, (string)answer["type"]!));
    }
}
