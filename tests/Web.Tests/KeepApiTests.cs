using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>The shelves: what is there, until when, what is to be done, and what became of it.</summary>
public sealed class KeepApiTests : IDisposable
{
    private const string Today = "2026-11-25";
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private async Task<JsonNode> ShelvesAsync() => await host.GetAsync("/api/keep");

    private async Task<JsonNode> GroupAsync(Guid box) =>
        (await ShelvesAsync())["groups"]!.AsArray().Single(group => group!["boxes"]!.AsArray().Any(one => (Guid)one!["id"]! == box))!;

    private async Task<List<Guid>> TaskAsync(string task) =>
        [.. (await ShelvesAsync())["tasks"]![task]!.AsArray().Select(id => (Guid)id!)];

    // A batch of a recipe cooked on a day, in boxes.
    private async Task<List<Guid>> CookedAsync(object recipe, string day, int boxes = 2)
    {
        var batch = await host.PostAsync("/api/cook/batches", new { recipeId = recipe, day });
        var packed = await host.PostAsync($"/api/pack/batches/{batch["id"]}/boxes", new { fullGrams = 800, boxes }, (int)batch["version"]!);
        return [.. packed["boxes"]!.AsArray().Select(box => (Guid)box!["id"]!)];
    }

    private async Task<(int Status, JsonNode Body)> PutAsync(string place, Guid[] ids, string? on = null) =>
        await host.SendAsync(HttpMethod.Post, "/api/keep/boxes/put", new { boxes = await AtAsync(ids), place, on });

    private async Task<object[]> AtAsync(params Guid[] ids)
    {
        var all = (await ShelvesAsync())["groups"]!.AsArray().SelectMany(group => group!["boxes"]!.AsArray()).ToList();
        return [.. ids.Select(id => new { id, version = (int)all.Single(box => (Guid)box!["id"]! == id)!["version"]! })];
    }

    private async Task<JsonNode> LayAsync(Guid box, Guid eater, string day) =>
        await host.PostAsync("/api/plan/boxes", new { boxId = box, eaterId = eater, day }, await host.PlanVersionAsync());

    private async Task<(int Status, JsonNode Body)> LetGoAsync(Guid[] boxIds, string? why) => await host.SendAsync(
        HttpMethod.Post, "/api/keep/boxes/let-go", new { boxIds, isThrownAway = true, why }, await host.PlanVersionAsync());

    private async Task<(int Status, JsonNode Body)> EatAsync(Guid[] boxIds, Guid eaterId, string day = Today) => await host.SendAsync(
        HttpMethod.Post, "/api/keep/boxes/eaten", new { boxIds, eaterId, day }, await host.PlanVersionAsync());

    private static string CodeOf(JsonNode refused) => (string)refused["errors"]![0]!["code"]!;

    // Cooked on Sunday: UK rice within 24 hours, its freezer time as the North American chart's; North American poultry 3 days.
    [Theory]
    [InlineData("uk", new[] { "poultry", "rice" }, "2026-11-23", "2027-01-21", "rice", "UK Food Standards Agency")]
    [InlineData("us", new[] { "poultry" }, "2026-11-25", "2027-01-21", "poultry", "FoodSafety.gov")]
    [InlineData("us", new[] { "hardCookedEgg" }, "2026-11-29", null, "hardCookedEgg", "FoodSafety.gov")]
    public async Task How_long_kinds_keep_is_worked_out_for_scripts(
        string guidelines, string[] kinds, string fridge, string? freezer, string decides, string source)
    {
        var kept = await host.PostAsync("/api/calc/keep", new { cookedOn = "2026-11-22", kinds, guidelines });
        Assert.Equal((fridge, freezer, decides), ((string)kept["fridge"]!, (string?)kept["freezer"], (string)kept["rule"]!["kind"]!));
        Assert.Contains(source, (string)kept["rule"]!["source"]!);
    }

    [Theory]
    [InlineData("""{"cookedOn": "2026-11-22", "kinds": [], "guidelines": "uk"}""", "kinds-none")]
    [InlineData("""{"cookedOn": "2026-11-22", "kinds": ["rawMince"], "guidelines": "uk"}""", "kind-unknown")]
    [InlineData("""{"cookedOn": "2026-11-22", "kinds": ["rice"], "guidelines": "mars"}""", "guidelines-unknown")]
    public async Task What_no_guideline_says_is_said(string body, string code)
    {
        var (status, refused) = await host.SendAsync(HttpMethod.Post, "/api/calc/keep", body);
        Assert.Equal((422, code), (status, CodeOf(refused)));
    }

    // Newton's law by hand: see CoolingTests.
    [Fact]
    public async Task How_long_cooling_takes_is_worked_out_for_scripts()
    {
        var readings = new[] { new { minute = 0, celsius = 90 }, new { minute = 30, celsius = 60 } };
        var cooling = await host.PostAsync("/api/calc/cooling", new { ambientCelsius = 20, readings, until = new[] { 25, 15 } });
        Assert.Equal(141.48, (double)cooling["minutes"]![0]!, 2);
        Assert.Null(cooling["minutes"]![1]);
        Assert.False((bool)cooling["stages"]!["hold"]!);
        var (status, refused) = await host.SendAsync(
            HttpMethod.Post, "/api/calc/cooling", new { ambientCelsius = 20, readings = readings[..1], until = new[] { 25 } });
        Assert.Equal((422, "readings-few"), (status, CodeOf(refused)));

        // 3 kg in a pan of 30 x 20 cm lie 5 cm deep.
        var boxes = await host.PostAsync(
            "/api/calc/cooling-boxes", new { celsius = 60, place = "fridge", grams = 3000, lengthCm = 30, widthCm = 20 });
        var choices = boxes["choices"]!.AsArray();
        Assert.Equal((4, 5), ((double)boxes["ambientCelsius"]!, (double)choices[0]!["depthCm"]!));
        Assert.Equal((false, true), ((bool)choices[0]!["stages"]!["hold"]!, (bool)choices[^1]!["stages"]!["hold"]!));
        Assert.Equal("depth-missing", CodeOf((await host.SendAsync(
            HttpMethod.Post, "/api/calc/cooling-boxes", new { celsius = 60, place = "fridge", grams = 3000 })).Body));
    }

    [Fact]
    public async Task The_households_guidelines_rule_what_keeps_how_long_and_its_own_rules_are_never_laxer()
    {
        var (_, _, boxes) = await host.LaidTableAsync();
        var listed = await host.GetAsync("/api/keep/guidelines");
        Assert.Equal(["us", "uk"], listed["sets"]!.AsArray().Select(set => (string)set!["code"]!));
        Assert.Equal(("us", 0, 1), ((string)listed["chosen"]!, (int)listed["version"]!, (int)listed["own"]!["rice"]!));
        async Task<(int Status, JsonNode Body)> ChooseAsync(string guidelines, object own, int version) =>
            await host.SendAsync(HttpMethod.Put, "/api/keep/guidelines", new { guidelines, own }, version);
        async Task<string> LastAsync() => (string)(await GroupAsync(boxes[0]))["useBy"]!;
        Assert.Equal("2026-11-28", await LastAsync());

        Assert.Equal("rule-laxer", CodeOf((await ChooseAsync("uk", new { eggDish = 3 }, 0)).Body));
        Assert.Equal("2026-11-28", await LastAsync());
        Assert.Equal(200, (await ChooseAsync("uk", new { }, 0)).Status);
        Assert.Equal("2026-11-27", await LastAsync());
        Assert.Equal(412, (await ChooseAsync("us", new { }, 0)).Status);
        Assert.Equal(200, (await ChooseAsync("uk", new { eggDish = 0 }, 1)).Status);
        Assert.Equal((Today, "eggDish"), (await LastAsync(), (string)(await GroupAsync(boxes[0]))["kind"]!));
        var week = await host.GetAsync($"/api/plan/weeks/{Today}");
        Assert.Equal(Today, (string)week["shelf"]![0]!["useBy"]!);
    }

    [Fact]
    public async Task What_is_for_later_is_frozen_tonight_thawed_the_day_before_and_each_is_one_press()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        await LayAsync(boxes[0], eater, "2026-11-30");
        await LayAsync(boxes[1], eater, "2026-11-26");
        Assert.Equal([boxes[0]], await TaskAsync("freeze"));
        Assert.Equal(200, (await PutAsync("freezer", [boxes[0], boxes[1]])).Status);
        Assert.Empty(await TaskAsync("freeze"));
        Assert.Equal([boxes[1]], await TaskAsync("thaw"));
        var state = await host.GetAsync("/api/keep/state");
        Assert.Equal((4, 0, 1), ((int)state["boxes"]!, (int)state["freeze"]!, (int)state["thaw"]!));
        Assert.Equal(200, (await PutAsync("fridge", [boxes[1]])).Status);
        Assert.Empty(await TaskAsync("thaw"));

        // A slip taken back on the same day is as if nothing had happened: not frozen, not thawed.
        Assert.Equal(200, (await PutAsync("freezer", [boxes[2]])).Status);
        Assert.Equal(200, (await PutAsync("fridge", [boxes[2]])).Status);
        Assert.Equal("2026-11-28", (string)(await GroupAsync(boxes[2]))["useBy"]!);
        var frozen = await GroupAsync(boxes[0]);
        Assert.Equal(("freezer", "2027-01-24"), ((string)frozen["place"]!, (string)frozen["useBy"]!));
    }

    // Taken back on the day it is told, that a box went into the freezer or came out of it never was; on a later day it was.
    [Fact]
    public async Task A_move_is_taken_back_on_its_day_only()
    {
        using var kitchen = new Host(today: $"{Today}T10:00", playClock: true);
        var (_, _, boxes) = await kitchen.LaidTableAsync();
        async Task<JsonNode> BoxAsync() => (await kitchen.GetAsync("/api/keep"))["groups"]!.AsArray()
            .Single(group => group!["boxes"]!.AsArray().Any(one => (Guid)one!["id"]! == boxes[0]))!;
        async Task<string> PutAsync(string place, bool isBack)
        {
            var version = (int)(await BoxAsync())["boxes"]!.AsArray().Single(one => (Guid)one!["id"]! == boxes[0])!["version"]!;
            await kitchen.PostAsync("/api/keep/boxes/put", new { boxes = new[] { new { id = boxes[0], version } }, place, isBack });
            return (string)(await BoxAsync())["useBy"]!;
        }

        Assert.Equal("2027-01-24", await PutAsync("freezer", isBack: false));
        Assert.Equal("2026-11-28", await PutAsync("fridge", isBack: true));
        await PutAsync("freezer", isBack: false);
        await kitchen.PostAsync("/api/demo/pass", new { minutes = 24 * 60 });
        Assert.Equal("2026-11-27", await PutAsync("fridge", isBack: false));
        Assert.Equal("2027-01-24", await PutAsync("freezer", isBack: true));
        await PutAsync("fridge", isBack: false);

        // Three days in the fridge are not taken back.
        for (var day = 0; day < 3; day++) await kitchen.PostAsync("/api/demo/pass", new { minutes = 24 * 60 });
        await PutAsync("freezer", isBack: true);
        Assert.True((bool)(await BoxAsync())["isOver"]!);
    }

    [Fact]
    public async Task Past_its_last_day_a_box_asks_once_what_became_of_it()
    {
        var (eater, recipe, _) = await host.LaidTableAsync();
        var old = await CookedAsync(recipe, "2026-11-18", 4);
        Assert.Equal(old.Order(), (await TaskAsync("over")).Order());
        Assert.True((bool)(await GroupAsync(old[0]))["isOver"]!);
        var shelf = (await host.GetAsync($"/api/plan/weeks/{Today}"))["shelf"]!.AsArray();
        Assert.Equal([false, true], shelf.Select(group => (bool)group!["isOver"]!));

        // Frozen in time: the day it went in. Too late it does not help, and before it was cooked it can't have been.
        Assert.Equal("day-early", CodeOf((await PutAsync("freezer", [old[0]], "2026-11-17")).Body));
        Assert.Equal("day-ahead", CodeOf((await PutAsync("freezer", [old[0]], "2026-11-26")).Body));
        Assert.Equal(200, (await PutAsync("freezer", [old[0]], "2026-11-20")).Status);
        Assert.Equal(200, (await PutAsync("freezer", [old[1]])).Status);
        Assert.Equal((false, true), ((bool)(await GroupAsync(old[0]))["isOver"]!, (bool)(await GroupAsync(old[1]))["isOver"]!));

        // Still there: it stays marked, and is not asked after again.
        var still = await host.SendAsync(HttpMethod.Post, "/api/keep/boxes/still-there", new { boxes = await AtAsync(old[1]) });
        Assert.Equal(200, still.Status);
        Assert.Equal(old[2..].Order(), (await TaskAsync("over")).Order());
        Assert.True((bool)(await GroupAsync(old[1]))["isOver"]!);

        Assert.Equal(200, (await EatAsync([old[2]], eater, "2026-11-20")).Status);
        Assert.Equal(200, (await LetGoAsync([old[3]], "it went off")).Status);
        Assert.Empty(await TaskAsync("over"));
        var eaten = (await host.GetAsync($"/api/eat/{eater}/2026-11-20"))["day"]!["items"]![0]!;
        Assert.Equal((200m, true), ((decimal)eaten["grams"]!, eaten["eatenAt"] is not null));
    }

    [Fact]
    public async Task Past_its_last_day_a_box_is_laid_by_hand_only()
    {
        var (eater, recipe, boxes) = await host.LaidTableAsync();
        Assert.Equal(200, (await LetGoAsync([.. boxes], null)).Status);
        var old = await CookedAsync(recipe, "2026-11-18");
        var batch = (await GroupAsync(old[0]))["batchId"];
        async Task<(int Status, JsonNode Body)> ForGuestsAsync() => await host.SendAsync(
            HttpMethod.Post, "/api/plan/guests", new { eaterId = eater, day = Today, guests = 1, batchId = batch },
            await host.PlanVersionAsync());
        Assert.Equal(422, (await ForGuestsAsync()).Status);
        var fit = await host.PostAsync("/api/calc/entries", new { text = "half an oat bake box", eaterId = eater, day = Today });
        Assert.NotNull(fit["entries"]![0]!["problem"]);

        Assert.Equal(200, (await PutAsync("freezer", [old[0]], "2026-11-19")).Status);
        Assert.Equal(200, (await ForGuestsAsync()).Status);
        await LayAsync(old[1], eater, "2026-11-26");
        var item = (await host.GetAsync($"/api/eat/{eater}/2026-11-26"))["day"]!["items"]![0]!;
        Assert.True((bool)item["isOver"]!);
    }

    [Fact]
    public async Task Many_boxes_go_at_once_the_why_is_kept_and_what_was_wasted_is_what_was_left_in_them()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        await LayAsync(boxes[0], eater, Today);
        var item = (await host.GetAsync($"/api/eat/{eater}/{Today}"))["day"]!["items"]![0]!;
        var kcal = (decimal)item["figures"]!["energy"]!["value"]!;
        var whole = (decimal)item["grams"]!;
        var some = new { eaten = true, grams = 100 };
        await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{item["id"]}", some, await host.PlanVersionAsync());
        await LayAsync(boxes[1], eater, "2026-11-26");
        var (status, gone) = await LetGoAsync([boxes[0], boxes[1]], "  nobody wanted it ");
        Assert.Equal(200, status);
        Assert.Empty((await host.GetAsync($"/api/eat/{eater}/2026-11-26"))["day"]!["items"]!.AsArray());

        var waste = (await ShelvesAsync())["waste"]!;
        var batch = (await host.GetAsync("/api/pack/batches"))[0]!["id"];
        var second = (decimal)(await host.GetAsync($"/api/pack/batches/{batch}"))["boxes"]![1]!["grams"]!;
        Assert.Equal((2, whole - 100 + second), ((int)waste["boxes"]!, (decimal)waste["grams"]!));
        Assert.InRange((decimal)waste["energy"]!["value"]!, (kcal * (whole - 100 + second) / whole) - 0.1m, kcal * 2);
        Assert.Equal(("nobody wanted it", 2), ((string)waste["why"]![0]!["why"]!, (int)waste["why"]![0]!["boxes"]!));

        // Taken back it is on its day again; done again, for the same reason.
        var undone = await host.PostAsync($"/api/plan/changes/{gone["id"]}/undo", null);
        Assert.Equal(0, (int)(await ShelvesAsync())["waste"]!["boxes"]!);
        Assert.Single((await host.GetAsync($"/api/eat/{eater}/2026-11-26"))["day"]!["items"]!.AsArray());
        await host.PostAsync($"/api/plan/changes/{undone["id"]}/undo", null);
        Assert.Equal("nobody wanted it", (string)(await ShelvesAsync())["waste"]!["why"]![0]!["why"]!);
        Assert.Equal("box-gone", CodeOf((await LetGoAsync([boxes[2], boxes[0]], null)).Body));
        Assert.Equal("why-long", CodeOf((await LetGoAsync([boxes[2]], new string('x', 121))).Body));
        Assert.Equal("boxes-many", CodeOf((await LetGoAsync([.. Enumerable.Range(0, 201).Select(_ => Guid.NewGuid())], null)).Body));
    }

    [Fact]
    public async Task Eaten_from_the_shelf_a_box_is_on_that_day_wherever_it_lay_and_never_on_one_it_must_not_be()
    {
        var (eater, _, boxes) = await host.LaidTableAsync();
        var other = await host.PostAsync("/api/aim/eaters", new
        {
            name = "Bo",
            aim = new { leading = "energy", bands = new { energy = new { max = 2000 } }, rule = (object?)null },
        });
        await host.MustAsync(
            HttpMethod.Put, $"/api/aim/eaters/{other["id"]}",
            new { name = "Bo", aim = other["aim"], ways = new { neverAllergens = new[] { "eggs" } } }, (int)other["version"]!);
        await LayAsync(boxes[0], eater, "2026-11-27");
        var (status, eaten) = await EatAsync([boxes[0], boxes[1]], eater);
        Assert.Equal(200, status);
        async Task<List<string>> DayAsync(string day) =>
            [.. (await host.GetAsync($"/api/eat/{eater}/{day}"))["day"]!["items"]!.AsArray().Select(item => (string)item!["boxId"]!)];
        Assert.Equal(2, (await DayAsync(Today)).Count);
        Assert.Empty(await DayAsync("2026-11-27"));
        await host.PostAsync($"/api/plan/changes/{eaten["id"]}/undo", null);
        Assert.Empty(await DayAsync(Today));
        Assert.Single(await DayAsync("2026-11-27"));

        Assert.Equal("day-ahead", CodeOf((await EatAsync([boxes[0]], eater, "2026-11-26")).Body));
        Assert.Equal("never-for", CodeOf((await EatAsync([boxes[0]], (Guid)other["id"]!)).Body));
        Assert.Single(await DayAsync("2026-11-27"));
    }

    [Fact]
    public async Task Temperatures_are_logged_while_a_batch_cools_and_one_taken_by_mistake_goes()
    {
        await host.LaidTableAsync();
        var batch = (await host.GetAsync("/api/keep/cooling"))["batches"]![0]!;
        var id = (string)batch["batchId"]!;
        async Task<(int Status, JsonNode Body)> TakeAsync(object body) =>
            await host.SendAsync(HttpMethod.Post, $"/api/keep/cooling/{id}", body);
        async Task<JsonNode> CourseAsync() => (await host.GetAsync("/api/keep/cooling"))["batches"]![0]!;
        var taken = (await TakeAsync(new { celsius = 70, place = "fridge" })).Body;
        Assert.Null((await CourseAsync())["stages"]);
        Assert.Equal(200, (await TakeAsync(new { celsius = 68, place = "fridge", depthCm = 2 })).Status);

        // Both were taken within a moment, which says nothing of the rate: the depth says how it goes on.
        var course = await CourseAsync();
        Assert.Equal((true, 4m), ((bool)course["isEstimated"]!, (decimal)course["readings"]![0]!["ambientCelsius"]!));
        Assert.True((bool)course["stages"]!["hold"]!);
        Assert.Equal("temperature-absurd", CodeOf((await TakeAsync(new { celsius = 999, place = "fridge" })).Body));
        await host.MustAsync(HttpMethod.Delete, $"/api/keep/cooling/readings/{taken["id"]}");
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Delete, $"/api/keep/cooling/readings/{taken["id"]}")).Status);
        Assert.Single((await CourseAsync())["readings"]!.AsArray());
    }

    [Fact]
    public async Task A_caution_that_was_read_is_found_again()
    {
        async Task<JsonNode> RiceAsync() =>
            (await host.GetAsync("/api/keep/cautions")).AsArray().Single(one => (string?)one!["code"] == "rice")!;
        Assert.False((bool)(await RiceAsync())["isRead"]!);
        await host.MustAsync(HttpMethod.Put, "/api/keep/cautions/rice", new { isRead = true });
        Assert.True((bool)(await RiceAsync())["isRead"]!);
        await host.MustAsync(HttpMethod.Put, "/api/keep/cautions/rice", new { isRead = false });
        Assert.False((bool)(await RiceAsync())["isRead"]!);
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Put, "/api/keep/cautions/none", new { isRead = true })).Status);
        Assert.All((await host.GetAsync("/api/keep/cautions")).AsArray(), one => Assert.NotEmpty((string)one!["source"]!));
    }

    [Fact]
    public async Task The_demos_shelves_have_something_frozen_something_to_eat_today_and_something_past_its_day()
    {
        using var demo = new Host(demo: true);
        var shelves = await demo.GetAsync("/api/keep");
        var groups = shelves["groups"]!.AsArray();
        Assert.Contains(groups, group => (string?)group!["place"] == "freezer");
        Assert.Contains(groups, group => (string?)group!["useBy"] == Today && (string?)group["place"] == "fridge");
        Assert.Single(shelves["tasks"]!["over"]!.AsArray());
        Assert.NotEmpty(shelves["tasks"]!["freeze"]!.AsArray());
        Assert.NotEmpty(shelves["tasks"]!["thaw"]!.AsArray());
    }
}
