using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>The day as it happens: eaten otherwise than planned, shared, entered again, corrected later.</summary>
public sealed class EatApiTests : IDisposable
{
    private const string Day = "2026-11-25";
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private async Task<JsonNode> ViewAsync(object eater, string day = Day) => await host.GetAsync($"/api/eat/{eater}/{day}");

    private async Task<(int Status, JsonNode Body)> PlanAsync(HttpMethod method, string path, object? body) =>
        await host.SendAsync(method, path, body, await host.PlanVersionAsync());

    private async Task<JsonNode> MustAsync(HttpMethod method, string path, object? body)
    {
        var (status, answer) = await PlanAsync(method, path, body);
        Assert.True(status == 200, $"{method} {path}: {status} {answer}");
        return answer;
    }

    private async Task<Guid> LayAsync(object eater, Guid box, string day = Day)
    {
        await MustAsync(HttpMethod.Post, "/api/plan/boxes", new { boxId = box, eaterId = eater, day });
        return (Guid)(await ViewAsync(eater, day))["day"]!["items"]!.AsArray()[^1]!["id"]!;
    }

    private async Task<string> EaterAsync(string name, object? ways = null)
    {
        var aim = new { leading = "energy", bands = new { energy = new { min = 1450, target = 1525, max = 1600 } }, rule = (object?)null };
        var eater = await host.PostAsync("/api/aim/eaters", new { name, aim });
        var id = (string)eater["id"]!;
        if (ways is not null) await host.MustAsync(HttpMethod.Put, $"/api/aim/eaters/{id}", new { name, aim, ways }, (int)eater["version"]!);
        return id;
    }

    private async Task<decimal> EatenKcalAsync(object eater, string day = Day) =>
        (decimal)(await ViewAsync(eater, day))["day"]!["eaten"]!["energy"]!["value"]!;

    private static string CodeOf(JsonNode problem) => ((string)problem["type"]!).Split(':')[^1];

    [Fact]
    public async Task A_serving_and_a_half_takes_the_half_from_another_box_and_one_undo_puts_both_back()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        var item = await LayAsync(eater, boxes[0]);
        var whole = (await ViewAsync(eater))["day"]!["items"]![0]!;
        var made = await MustAsync(HttpMethod.Put, $"/api/eat/items/{item}", new { eaten = true, amount = "a serving and a half" });
        var items = (await ViewAsync(eater))["day"]!["items"]!.AsArray();
        Assert.Equal(2, items.Count);
        Assert.Equal((decimal)whole["figures"]!["energy"]!["value"]! * 1.5m, await EatenKcalAsync(eater), 1);
        Assert.Equal((decimal)whole["grams"]! * 1.5m, items.Sum(one => (decimal)one!["grams"]!), 1);
        await host.PostAsync($"/api/plan/changes/{made["id"]}/undo", null);
        Assert.Equal(0, await EatenKcalAsync(eater));

        // More than there is anywhere of it is refused, and nothing changed.
        var (status, refused) = await PlanAsync(HttpMethod.Put, $"/api/eat/items/{item}", new { eaten = true, times = 9 });
        Assert.Equal((422, "dish-short"), (status, CodeOf(refused)));
        Assert.Equal(0, await EatenKcalAsync(eater));
    }

    [Fact]
    public async Task What_is_shared_counts_on_both_days_and_never_for_who_must_not_get_it()
    {
        var (ada, _, boxes) = await host.LaidTableAsync();
        var ben = await EaterAsync("Ben");
        var item = await LayAsync(ada, boxes[0]);
        var kcal = (decimal)(await ViewAsync(ada))["day"]!["items"]![0]!["figures"]!["energy"]!["value"]!;
        await MustAsync(HttpMethod.Post, $"/api/eat/items/{item}/shared", new { withEaterId = ben, share = 0.25 });
        Assert.Equal(kcal * 0.25m, await EatenKcalAsync(ada), 1);
        Assert.Equal(kcal * 0.75m, await EatenKcalAsync(ben), 1);

        var eve = await EaterAsync("Eve", new { neverAllergens = new[] { "eggs" } });
        var next = await LayAsync(ada, boxes[1]);
        var (status, refused) = await PlanAsync(HttpMethod.Post, $"/api/eat/items/{next}/shared", new { withEaterId = eve });
        Assert.Equal((422, "never-for"), (status, CodeOf(refused)));
        Assert.Equal(0, await EatenKcalAsync(eve));
        Assert.Equal(kcal * 0.25m, await EatenKcalAsync(ada), 1);
    }

    [Fact]
    public async Task Yesterday_can_be_mended_and_nothing_is_eaten_tomorrow_by_any_door()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        await MustAsync(HttpMethod.Post, "/api/plan/entries", new { text = "2 apples", eaterId = eater, day = "2026-11-24", eaten = true });
        Assert.NotEqual(0, await EatenKcalAsync(eater, "2026-11-24"));

        const string tomorrow = "2026-11-26";
        var item = await LayAsync(eater, boxes[0], tomorrow);
        var apples = (await ViewAsync(eater, "2026-11-24"))["day"]!["items"]![0]!["id"];
        foreach (var (method, path, body) in new (HttpMethod, string, object)[]
        {
            (HttpMethod.Put, $"/api/eat/items/{item}", new { eaten = true }),
            (HttpMethod.Put, $"/api/eat/items/{item}", new { eaten = true, grams = 20 }),
            (HttpMethod.Put, $"/api/eat/items/{item}", new { eaten = true, times = 0.5 }),
            (HttpMethod.Post, "/api/plan/entries", new { text = "2 apples", eaterId = eater, day = tomorrow, eaten = true }),
            (HttpMethod.Post, "/api/plan/foods", new { text = "2 apples", eaterId = eater, day = tomorrow, eaten = true }),
            (HttpMethod.Post, "/api/eat/again", new { itemIds = new[] { apples }, eaterId = eater, day = tomorrow }),
            (HttpMethod.Post, "/api/keep/boxes/eaten", new { boxIds = new[] { boxes[1] }, eaterId = eater, day = tomorrow }),
        })
        {
            var (status, refused) = await PlanAsync(method, path, body);
            Assert.True((status, CodeOf(refused)) == (422, "day-ahead"), $"{path}: {status} {refused}");
        }

        // As it stands there it can be laid.
        await MustAsync(HttpMethod.Post, "/api/eat/again", new { itemIds = new[] { apples }, eaterId = eater, day = tomorrow, eaten = false });
        Assert.Equal(0, await EatenKcalAsync(eater, tomorrow));
    }

    [Fact]
    public async Task What_was_eaten_before_is_offered_in_its_usual_amount_and_entered_again()
    {
        var eater = await EaterAsync("Ada");
        foreach (var (text, day) in new[]
                 { ("150 g strawberries", "2026-11-23"), ("150 g strawberries", "2026-11-24"), ("canteen 600-900 kcal", "2026-11-24") })
            await MustAsync(HttpMethod.Post, "/api/plan/entries", new { text, eaterId = eater, day, eaten = true });
        await MustAsync(HttpMethod.Post, "/api/plan/foods", new { text = "2 apples", eaterId = eater, day = Day });
        var usual = (await host.GetAsync($"/api/eat/{eater}/{Day}/usual")).AsArray();
        Assert.Equal(["150 g strawberries", "canteen"], usual.Select(one => (string)one!["text"]!).Order());
        Assert.Equal(2, (int)usual.Single(one => ((string)one!["text"]!).StartsWith("150", StringComparison.Ordinal))!["times"]!);
        await MustAsync(HttpMethod.Post, "/api/eat/again",
            new { itemIds = usual.Select(one => one!["itemId"]).ToArray(), eaterId = eater, day = Day });
        var sum = usual.Sum(one => (decimal)one!["figures"]!["energy"]!["value"]!);
        Assert.Equal(sum, await EatenKcalAsync(eater), 1);
        var (status, _) = await PlanAsync(HttpMethod.Post, "/api/eat/again",
            new { itemIds = Enumerable.Range(0, 300).Select(_ => Guid.NewGuid()), eaterId = eater, day = Day });
        Assert.Equal(422, status);
    }

    [Fact]
    public async Task Raw_or_cooked_is_asked_once_and_remembered()
    {
        var eater = await EaterAsync("Ada");
        object Typed(string text, string[]? choices = null) => new { text, eaterId = eater, day = Day, eaten = true, choices };
        var asked = (await host.PostAsync("/api/calc/entries", Typed("150 g white rice")))["entries"]![0]!;
        Assert.Equal("raw-or-cooked", (string?)asked["problem"]!["code"]);
        var (status, _) = await PlanAsync(HttpMethod.Post, "/api/plan/entries", Typed("150 g white rice"));
        Assert.Equal(422, status);
        await host.MustAsync(HttpMethod.Put, "/api/eat/weighed", new { foodId = "white-rice-cooked" });
        var known = (await host.PostAsync("/api/calc/entries", Typed("150 g white rice and a glass of water")))["entries"]!;
        Assert.Null(known[0]!["problem"]);
        Assert.Equal(195m, (decimal)known[0]!["figures"]!["energy"]!["value"]!);
        Assert.True((bool)known[1]!["isWater"]!);
        await MustAsync(HttpMethod.Post, "/api/plan/entries", Typed("150 g white rice and a glass of water"));
        Assert.Equal(195m, await EatenKcalAsync(eater));
        Assert.Single((await ViewAsync(eater))["day"]!["items"]!.AsArray());

        // Amended, as a bare number or as a whole line of the same words, it is boiled all the same; said otherwise, it is what is said.
        var item = (await ViewAsync(eater))["day"]!["items"]![0]!["id"];
        foreach (var (typed, kcal) in new[] { ("200", 260m), ("100 g white rice", 130m), ("half", 65m), ("100 g white rice, dry", 365m) })
        {
            await MustAsync(HttpMethod.Put, $"/api/plan/items/{item}/amount", new { text = typed });
            Assert.Equal(kcal, await EatenKcalAsync(eater));
        }

        // A recipe still means dry rice by it.
        var line = await host.PostAsync("/api/calc/recipe", new { lines = new[] { "150 g white rice" }, portions = 1 });
        Assert.DoesNotContain("boiled", line.ToJsonString(), StringComparison.Ordinal);
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Put, "/api/eat/weighed", new { foodId = "no such food" })).Status);
    }

    [Fact]
    public async Task What_is_added_at_eating_and_how_it_is_heated_stand_beside_the_box()
    {
        var (eater, recipe, boxes) = await host.LaidTableAsync();
        await host.MustAsync(HttpMethod.Put, $"/api/pack/dishes/{recipe}/notes",
            new { heating = "3 minutes, lid ajar", atEating = "30 g skyr, 10 g pumpkin seeds" }, 0);
        var item = await LayAsync(eater, boxes[0]);
        var beside = (await ViewAsync(eater))["atTable"]![item.ToString()]!;
        Assert.Equal("3 minutes, lid ajar", (string?)beside["heating"]);
        Assert.Equal(["30 g skyr", "10 g pumpkin seeds"], beside["toppings"]!.AsArray().Select(one => (string)one!["text"]!));
        Assert.All(beside["toppings"]!.AsArray(), one => Assert.True((decimal)one!["figures"]!["energy"]!["value"]! > 0));
    }

    [Fact]
    public async Task A_batch_corrected_later_changes_its_boxes_and_what_was_eaten_only_where_that_is_asked_for()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        var batch = (string)(await host.GetAsync("/api/cook/batches"))[0]!["id"]!;
        var eatenItem = await LayAsync(eater, boxes[0]);
        var ahead = await LayAsync(eater, boxes[1], "2026-11-26");
        await MustAsync(HttpMethod.Put, $"/api/eat/items/{eatenItem}", new { eaten = true });
        var before = await EatenKcalAsync(eater);
        var grams = (decimal)(await ViewAsync(eater))["day"]!["items"]![0]!["grams"]!;
        var kcalAhead = (decimal)(await ViewAsync(eater, "2026-11-26"))["day"]!["items"]![0]!["figures"]!["energy"]!["value"]!;
        Assert.Empty((await host.GetAsync($"/api/eat/corrections/{batch}")).AsArray());

        // 100 g of butter were forgotten: 717 kcal in 745 g of cooked weight, each box its share.
        static decimal ButterIn(decimal grams) => Math.Round(717m * grams / 745, 4);
        var cooked = await host.GetAsync($"/api/cook/batches/{batch}");
        await host.MustAsync(HttpMethod.Put, $"/api/cook/batches/{batch}/lines/2", new { text = "100 g butter" }, (int)cooked["version"]!);
        Assert.Equal(before, await EatenKcalAsync(eater));
        var tomorrow = (await ViewAsync(eater, "2026-11-26"))["day"]!["items"]![0]!;
        var (more, moreAhead) = (ButterIn(grams), ButterIn((decimal)tomorrow["grams"]!));
        Assert.Equal(
            (ahead, Math.Round(kcalAhead + moreAhead, 4)),
            ((Guid)tomorrow["id"]!, Math.Round((decimal)tomorrow["figures"]!["energy"]!["value"]!, 4)));

        var offered = Assert.Single((await host.GetAsync($"/api/eat/corrections/{batch}")).AsArray())!;
        Assert.Equal(("Isa", more), ((string)offered["eater"]!, Math.Round((decimal)offered["by"]!["energy"]!["value"]!, 4)));
        var made = await host.PostAsync($"/api/eat/corrections/{batch}", null);
        Assert.Equal(before + more, await EatenKcalAsync(eater), 3);
        var said = (await ViewAsync(eater))["corrected"]![eatenItem.ToString()]!;
        Assert.Equal((before, more, Day),
            ((decimal)said["was"]!["energy"]!["value"]!, Math.Round((decimal)said["by"]!["energy"]!["value"]!, 4), (string)said["on"]!));
        Assert.Empty((await host.GetAsync($"/api/eat/corrections/{batch}")).AsArray());
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Post, $"/api/eat/corrections/{batch}")).Status);

        // Taken back it counts as before; the ledger keeps all three.
        await host.PostAsync("/api/eat/corrections/taken-back", new { entryIds = made["entryIds"] });
        Assert.Equal(before, await EatenKcalAsync(eater), 5);
        Assert.Single((await host.GetAsync($"/api/eat/corrections/{batch}")).AsArray());
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Post, "/api/eat/corrections/taken-back", new { entryIds = made["entryIds"] })).Status);
    }

    [Fact]
    public async Task What_is_kept_off_a_menu_is_entered_by_its_name_next_time()
    {
        var eater = await EaterAsync("Ada");
        var items = new[] { new { name = "Fish taco", figures = new { energy = 280 } }, new { name = "Slaw", figures = new { energy = 90 } } };
        await host.PostAsync("/api/plan/kept-meals", new { place = "Harbour canteen", items });
        await host.PostAsync("/api/plan/kept-meals", new { place = "harbour canteen", items = new[] { items[0] with { name = "FISH TACO" } } });
        var kept = (await host.GetAsync("/api/plan/kept-meals")).AsArray();
        Assert.Equal(2, kept.Count);
        await MustAsync(HttpMethod.Post, "/api/plan/entries", new { text = "2 fish tacos", eaterId = eater, day = Day, eaten = true });
        Assert.Equal(560m, await EatenKcalAsync(eater));
        foreach (var one in kept) await host.MustAsync(HttpMethod.Delete, $"/api/plan/kept-meals/{one!["id"]}");
        Assert.Empty((await host.GetAsync("/api/plan/kept-meals")).AsArray());
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Delete, $"/api/plan/kept-meals/{kept[0]!["id"]}")).Status);
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Post, "/api/plan/kept-meals", new { place = "", items })).Status);
    }

    [Fact]
    public async Task Three_hundred_things_typed_at_once_are_refused_whole_and_sixty_are_one_change()
    {
        var eater = await EaterAsync("Ada");
        object Lines(int count) => new { text = string.Join('\n', Enumerable.Repeat("1 apple", count)), eaterId = eater, day = Day, eaten = true };
        var (status, refused) = await PlanAsync(HttpMethod.Post, "/api/plan/entries", Lines(300));
        Assert.Equal((422, "entries-many"), (status, CodeOf(refused)));
        Assert.Equal(0, await EatenKcalAsync(eater));
        var made = await MustAsync(HttpMethod.Post, "/api/plan/entries", Lines(60));
        Assert.Equal(60, (await ViewAsync(eater))["day"]!["items"]!.AsArray().Count);
        await host.PostAsync($"/api/plan/changes/{made["id"]}/undo", null);
        Assert.Equal(0, await EatenKcalAsync(eater));
    }
}
