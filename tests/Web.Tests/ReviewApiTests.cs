using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>A week lived and looked back on; verdicts that several hands write; an aim that moves only when somebody says so.</summary>
public sealed class ReviewApiTests : IDisposable
{
    private const string Day = "2026-11-25";
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private Task<JsonNode> PlanAsync(HttpMethod method, string path, object? body) => PlanAsync(host, method, path, body);

    private static async Task<JsonNode> PlanAsync(Host at, HttpMethod method, string path, object? body)
    {
        var (status, answer) = await at.SendAsync(method, path, body, await at.PlanVersionAsync());
        Assert.True(status == 200, $"{method} {path}: {status} {answer}");
        return answer;
    }

    private Task<JsonNode> WeekAsync(object eater, string day = Day) => host.GetAsync($"/api/review/week/{eater}/{day}");

    private async Task<JsonArray> ItemsAsync(object eater) => (await host.GetAsync($"/api/eat/{eater}/{Day}"))["day"]!["items"]!.AsArray();

    private static decimal Kcal(JsonNode? figures) => (decimal)figures!["energy"]!["value"]!;

    [Fact]
    public async Task A_day_lived_otherwise_than_planned_says_where_the_difference_came_from()
    {
        using var own = new Host(playClock: true);
        var (eater, recipe, boxes) = await own.LaidTableAsync();
        Task<JsonNode> MakeAsync(HttpMethod method, string path, object? body) => PlanAsync(own, method, path, body);

        await own.MustAsync(HttpMethod.Put, $"/api/pack/dishes/{recipe}/notes", new { heating = "", atEating = "10 g pumpkin seeds" }, 0);
        await MakeAsync(HttpMethod.Post, "/api/plan/boxes", new { boxId = boxes[0], eaterId = eater, day = Day });
        await MakeAsync(HttpMethod.Post, "/api/plan/foods", new { text = "150 g skyr", eaterId = eater, day = Day });
        await MakeAsync(HttpMethod.Post, "/api/plan/foods", new { text = "1 pear", eaterId = eater, day = Day });
        var items = (await own.GetAsync($"/api/eat/{eater}/{Day}"))["day"]!["items"]!.AsArray();
        await MakeAsync(HttpMethod.Put, $"/api/eat/items/{items[0]!["id"]}", new { eaten = true });
        await MakeAsync(HttpMethod.Put, $"/api/eat/items/{items[1]!["id"]}", new { eaten = true, amount = "250 g" });
        foreach (var more in new[] { "10 g pumpkin seeds", "20 g walnuts" })
            await MakeAsync(HttpMethod.Post, "/api/plan/foods", new { text = more, eaterId = eater, day = Day, eaten = true });

        // Today is not over: it is shown, and counts nowhere.
        var today = await own.GetAsync($"/api/review/week/{eater}/{Day}");
        Assert.Equal((0, "notOver"), ((int)today["countedDays"]!, (string)today["days"]![2]!["noted"]!));
        await own.PostAsync("/api/demo/pass", new { minutes = 1440 });
        var week = await own.GetAsync($"/api/review/week/{eater}/{Day}");
        Assert.Equal(1, (int)week["countedDays"]!);
        Assert.Equal(["notEaten", "otherAmount", "topping", "unplanned"],
            week["causes"]!.AsArray().Select(cause => (string)cause!["cause"]!).Order(StringComparer.Ordinal));
        var energy = week["measures"]!["energy"]!;
        Assert.Equal((decimal)energy["eatenOfPlanned"]!["value"]!,
            (decimal)energy["planned"]!["value"]! + week["causes"]!.AsArray().Sum(cause => Kcal(cause!["by"])));
        decimal By(string cause) => Kcal(week["causes"]!.AsArray().Single(one => (string)one!["cause"]! == cause)!["by"]);
        var skyr = Kcal(items[1]!["figures"]);
        Assert.Equal(skyr * 100 / 150, By("otherAmount"), 3);
        Assert.Equal(-Kcal(items[2]!["figures"]), By("notEaten"));
        var dish = week["dishes"]!.AsArray().Single(one => one!["batchId"] is not null)!;
        Assert.Equal((1, "fresh"), ((int)dish["times"]!, (string)dish["servings"]![0]!));

        // Nothing noted the day after; that it is so is said, and no zero stands for it.
        await own.PostAsync("/api/demo/pass", new { minutes = 1440 });
        week = await own.GetAsync($"/api/review/week/{eater}/{Day}");
        Assert.Equal((1, "nothing"), ((int)week["countedDays"]!, (string)week["days"]![3]!["noted"]!));
        Assert.Equal((decimal)energy["eatenADay"]!["value"]!, (decimal)week["measures"]!["energy"]!["eatenADay"]!["value"]!);
    }

    // Seen: skyr that a fit had laid for the evening was called a topping, of a dal that was not eaten that day.
    [Fact]
    public async Task A_topping_goes_on_a_dish_that_was_eaten_and_is_about_as_much_as_usual()
    {
        using var own = new Host(playClock: true);
        var (eater, recipe, boxes) = await own.LaidTableAsync();
        await own.MustAsync(HttpMethod.Put, $"/api/pack/dishes/{recipe}/notes", new { heating = "", atEating = "40 g skyr" }, 0);
        await PlanAsync(own, HttpMethod.Post, "/api/plan/boxes", new { boxId = boxes[0], eaterId = eater, day = Day });
        const string Next = "2026-11-26";
        await PlanAsync(own, HttpMethod.Post, "/api/plan/boxes", new { boxId = boxes[1], eaterId = eater, day = Next });
        Task AteAsync(string text, string day) =>
            PlanAsync(own, HttpMethod.Post, "/api/plan/foods", new { text, eaterId = eater, day, eaten = true });
        var box = (await own.GetAsync($"/api/eat/{eater}/{Day}"))["day"]!["items"]![0]!["id"];
        await PlanAsync(own, HttpMethod.Put, $"/api/eat/items/{box}", new { eaten = true });
        await AteAsync("60 g skyr", Day);
        await AteAsync("250 g skyr", Day);
        await own.PostAsync("/api/demo/pass", new { minutes = 1440 });
        await AteAsync("40 g skyr", Next);
        await PlanAsync(own, HttpMethod.Post, "/api/plan/entries",
            new { text = "canteen 1400 kcal", eaterId = eater, day = Next, eaten = true });
        await own.PostAsync("/api/demo/pass", new { minutes = 1440 });
        var causes = (await own.GetAsync($"/api/review/week/{eater}/{Day}"))["causes"]!.AsArray()
            .Select(cause => ((string)cause!["cause"]!, (int)cause["times"]!)).Order();
        Assert.Equal([("mealOut", 1), ("notEaten", 1), ("topping", 1), ("unplanned", 2)], causes);
    }

    [Fact]
    public async Task A_correction_a_day_put_off_a_guess_and_a_box_by_eye_are_each_named_and_an_aim_changed_later_judges_no_day_before_it()
    {
        using var own = new Host(playClock: true);
        var (eater, recipe, boxes) = await own.LaidTableAsync();
        Task<JsonNode> MakeAsync(HttpMethod method, string path, object? body) => PlanAsync(own, method, path, body);

        async Task<JsonArray> OnAsync(string day) => (await own.GetAsync($"/api/eat/{eater}/{day}"))["day"]!["items"]!.AsArray();
        Task LayAsync(Guid box, string day) => MakeAsync(HttpMethod.Post, "/api/plan/boxes", new { boxId = box, eaterId = eater, day });
        Task EatAsync(JsonNode item) => MakeAsync(HttpMethod.Put, $"/api/eat/items/{item["id"]}", new { eaten = true });
        await LayAsync(boxes[0], Day);
        await LayAsync(boxes[1], Day);
        var items = await OnAsync(Day);
        await EatAsync(items[0]!);

        // The second box is put off, and eaten tomorrow; 100 g of butter were forgotten in both.
        const string Next = "2026-11-26";
        await MakeAsync(HttpMethod.Put, $"/api/plan/items/{items[1]!["id"]}/place", new { eaterId = eater, day = Next, place = 0 });
        await MakeAsync(
            HttpMethod.Post, "/api/plan/entries", new { text = "pizza 600-800 kcal", eaterId = eater, day = Day, eaten = true });
        var batch = (string)(await own.GetAsync("/api/pack/batches"))[0]!["id"]!;
        var cooked = await own.GetAsync($"/api/cook/batches/{batch}");
        await own.MustAsync(HttpMethod.Put, $"/api/cook/batches/{batch}/lines/2", new { text = "100 g butter" }, (int)cooked["version"]!);
        await own.PostAsync($"/api/eat/corrections/{batch}", null);
        var byEye = await own.PostAsync("/api/cook/batches", new { recipeId = recipe });
        var packed = await own.PostAsync(
            $"/api/pack/batches/{byEye["id"]}/boxes", new { fullGrams = 800, boxes = 4, isByEye = true }, (int)byEye["version"]!);
        await LayAsync((Guid)packed["boxes"]![0]!["id"]!, Next);
        await own.PostAsync("/api/demo/pass", new { minutes = 1440 });
        foreach (var item in await OnAsync(Next)) await EatAsync(item!);
        await own.PostAsync("/api/demo/pass", new { minutes = 1440 });
        await own.MustAsync(HttpMethod.Put, $"/api/review/body/{eater}/aim", new { kcal = 2525, before = 1525 });

        var week = await own.GetAsync($"/api/review/week/{eater}/{Day}");
        decimal By(string cause) => Kcal(week["causes"]!.AsArray().Single(one => (string)one!["cause"]! == cause)!["by"]);
        Assert.Equal((2, 1, 100m), ((int)week["countedDays"]!, (int)week["guesses"]!, (decimal)week["giveOrTake"]!));
        Assert.Equal(717m * (decimal)items[0]!["grams"]! / 745, By("corrected"), 3);
        Assert.Equal(700, By("mealOut"), 3);

        // Planned for one day and eaten on the other: the plan of the other was kept when it began, with the box on it.
        Assert.Equal(-Kcal(items[1]!["figures"]), By("otherDay"), 3);
        Assert.Equal(1, (int)week["thingsByEye"]!);
        Assert.True((decimal)week["byEye"]! > 20);
        Assert.Equal(
            [1600, 1600, 2600],
            week["days"]!.AsArray().Skip(2).Take(3).Select(day => (int)day!["aim"]!["bands"]!["energy"]!["max"]!));
    }

    [Fact]
    public async Task A_verdict_is_written_by_who_saw_what_stands_there_and_saying_nothing_takes_it_away()
    {
        var (eater, recipe, boxes) = await host.LaidTableAsync();
        await PlanAsync(HttpMethod.Post, "/api/plan/boxes", new { boxId = boxes[0], eaterId = eater, day = Day });
        await PlanAsync(HttpMethod.Put, $"/api/eat/items/{(await ItemsAsync(eater))[0]!["id"]}", new { eaten = true });
        var batch = (string)(await WeekAsync(eater))["dishes"]![0]!["batchId"]!;
        var at = $"/api/review/verdicts/{batch}/{eater}";
        static object Says(string? again, string? change = null) => new
        {
            taste = (string?)null,
            reheats = "poorly",
            keeps = (string?)null,
            effort = (string?)null,
            again,
            toChange = change,
        };
        async Task<string> SetAsync(object? before, object verdict)
        {
            var (status, answer) = await host.SendAsync(HttpMethod.Put, at, new { serving = "reheated", before, verdict });
            return status == 200 ? $"{answer["again"]} {answer["toChange"]}" : $"{status}";
        }

        Assert.Equal("no ", await SetAsync(null, Says("no")));
        Assert.Equal("412", await SetAsync(null, Says("yes")));
        Assert.Equal("412", await SetAsync(Says("yes"), Says("changed")));
        Assert.Equal("no drier", await SetAsync(Says("no"), Says("no", "  drier  ")));
        var said = (await host.GetAsync($"/api/review/verdicts/{recipe}"))[0]!;
        Assert.Equal(("Isa", 1, "drier", "no"), ((string)said["eater"]!, (int)said["recipeVersion"]!,
            (string)said["verdict"]!["toChange"]!, (string)said["verdict"]!["again"]!));

        // A menu does not propose by itself what nobody would have again; asked for, it is there, with what was said.
        async Task<(int, JsonNode)> MenuAsync(params string[] keep) => await host.SendAsync(HttpMethod.Post, "/api/plan/menus",
            new { from = "2026-11-26", to = "2026-11-28", prepDay = "2026-11-26", dishes = 1, keep });
        Assert.Equal("urn:lively-tern:problem:menu-unwanted", (string?)(await MenuAsync()).Item2["type"]);
        var kept = (await MenuAsync($"{recipe}")).Item2["dishes"]![0]!["opinion"]!;
        Assert.Equal((0, 1, "drier"), ((int)kept["wantIt"]!, (int)kept["notAgain"]!, (string)kept["toChange"]!));

        string? silent = null;
        var none = new { taste = silent, reheats = silent, keeps = silent, effort = silent, again = silent, toChange = " " };
        Assert.Equal(" ", await SetAsync(Says("no", "drier"), none));
        Assert.Empty((await host.GetAsync($"/api/review/verdicts/{recipe}")).AsArray());
        Assert.Single((await MenuAsync()).Item2["dishes"]!.AsArray());
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Put, at,
            new { serving = "fresh", verdict = Says(null) })).Status);
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Put, $"/api/review/verdicts/{Guid.NewGuid()}/{eater}",
            new { serving = "fresh", verdict = none })).Status);
    }

    [Fact]
    public async Task The_aim_moves_when_somebody_says_so_by_who_saw_it_and_back_again()
    {
        var (eater, _, _) = await host.LaidTableAsync();
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Get, $"/api/review/body/{eater}/proposal?rate=0")).Status);
        async Task<string> BandAsync() =>
            (await host.GetAsync("/api/aim/eaters")).AsArray()[0]!["aim"]!["bands"]!["energy"]!.ToJsonString();
        var before = await BandAsync();
        async Task<int> MoveAsync(int kcal, int before) =>
            (await host.SendAsync(HttpMethod.Put, $"/api/review/body/{eater}/aim", new { kcal, before })).Status;
        Assert.Equal(412, await MoveAsync(1600, 1500));
        Assert.Equal(422, await MoveAsync(1100, 1525));
        Assert.Equal(before, await BandAsync());
        Assert.Equal(200, await MoveAsync(1725, 1525));
        var moved = JsonNode.Parse(await BandAsync())!;
        Assert.Equal((1650, 1725, 1800), ((int)moved["min"]!, (int)moved["target"]!, (int)moved["max"]!));
        Assert.Equal(200, await MoveAsync(1525, 1725));
        Assert.Equal(before, await BandAsync());
    }

    [Fact]
    public async Task The_demo_has_three_months_behind_it_whose_sums_come_out()
    {
        using var demo = new Host(demo: true);
        foreach (var eater in (await demo.GetAsync("/api/aim/eaters")).AsArray())
        {
            var counted = 0;
            foreach (var weeks in Enumerable.Range(1, 11))
            {
                var day = new DateOnly(2026, 11, 25).AddDays(-7 * weeks);
                var week = await demo.GetAsync($"/api/review/week/{eater!["id"]}/{day:yyyy-MM-dd}");
                counted += (int)week["countedDays"]!;
                foreach (var (measure, one) in week["measures"]!.AsObject())
                {
                    var by = week["causes"]!.AsArray().Sum(cause => (decimal?)cause!["by"]![measure]?["value"] ?? 0);
                    Assert.Equal((decimal)one!["eatenOfPlanned"]!["value"]!, (decimal)one["planned"]!["value"]! + by, 9);
                }
            }

            Assert.InRange(counted, 66, 77);
            Assert.NotNull((await demo.GetAsync($"/api/review/body/{eater!["id"]}"))["trend"]!["need"]);
        }

        var kitchen = await demo.GetAsync("/api/review/kitchen");
        Assert.Equal(3, kitchen["waste"]!.AsArray().Count);
        Assert.Equal(11, kitchen["prepDays"]!.AsArray().Count);
        Assert.Equal(3, kitchen["portions"]!.AsArray().Count);
        Assert.Empty((await demo.GetAsync("/api/plan/weeks/2026-11-11"))["leftOut"]!.AsArray());
    }
}
