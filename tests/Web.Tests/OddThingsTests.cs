namespace LivelyTern.Web.Tests;

/// <summary>
/// Days far away, batches that weigh nothing: refused where they are written, and where they are stored all the same no screen goes down
/// for them.
/// </summary>
public sealed class OddThingsTests
{
    private static readonly string[] Screens =
    [
        "/api/overview", "/api/plan/weeks/2026-11-25", "/api/plan/weeks/9999-12-31", "/api/plan/weeks/0001-01-01", "/api/pack/batches",
            "/api/plan/calendar.ics",
    ];

    private static async Task AnswersAsync(Host host)
    {
        foreach (var path in Screens)
        {
            using var answer = await host.Http.GetAsync(path);
            Assert.True(answer.IsSuccessStatusCode, $"{path}: {(int)answer.StatusCode}");
        }
    }

    private static async Task WriteAsync(Host host, string sql) => Assert.True(await OldFile.WriteAsync(host.Data, sql) > 0, sql);

    [Theory]
    [InlineData("9999-12-31")]
    [InlineData("0001-01-01")]
    [InlineData("2066-11-25")]
    public async Task Nothing_is_written_for_a_day_far_away(string far)
    {
        using var host = new Host();
        var (eater, recipe, boxes) = await host.LaidTableAsync();
        var version = await host.PlanVersionAsync();
        await host.PostAsync("/api/plan/foods", new { text = "1 apple", eaterId = eater, day = "2026-11-25" }, version);
        var item = (string)(await host.GetAsync($"/api/eat/{eater}/2026-11-25"))["day"]!["items"]![0]!["id"]!;
        var meal = new
        {
            eaterId = eater,
            day = far,
            name = "Supper",
            items = new[] { new { name = "fish", figures = new { energy = 600 } } }
        };
        var fit = new { from = far, to = far, seconds = 1 };
        foreach (var (method, path, body) in new (HttpMethod, string, object?)[]
        {
            (HttpMethod.Post, "/api/cook/batches", new { recipeId = recipe, day = far }),
            (HttpMethod.Post, "/api/cook/planned", new { day = far, dishes = new[] { new { recipeId = recipe, portions = 4 } } }),
            (HttpMethod.Post, "/api/plan/foods", new { text = "1 apple", eaterId = eater, day = far }),
            (HttpMethod.Post, "/api/plan/boxes", new { boxId = boxes[0], eaterId = eater, day = far }),
            (HttpMethod.Put, $"/api/plan/items/{item}/place", new { eaterId = eater, day = far }),
            (HttpMethod.Post, "/api/plan/copies", new { eaterId = eater, day = "2026-11-25", to = new[] { far } }),
            (HttpMethod.Post, "/api/plan/events", meal),
            (HttpMethod.Post, "/api/plan/fits", fit),
            (HttpMethod.Post, "/api/plan/menus", new { from = far, to = far, prepDay = far }),
            (HttpMethod.Put, $"/api/aim/eaters/{eater}/dates/{far}", new { measure = "energy", band = new { max = 2000 } }),
            (HttpMethod.Get, $"/api/eat/{eater}/{far}", null),
            (HttpMethod.Get, $"/api/plan/days/{eater}/{far}", null),
            (HttpMethod.Get, $"/api/cook/days/{far}", null),
            (HttpMethod.Get, $"/api/shop/list?until={far}", null),
            (HttpMethod.Get, $"/api/review/week/{eater}/{far}", null),
            (HttpMethod.Post, "/api/shop/pantry", new { text = "1 kg rolled oats", useBy = far }),
            (HttpMethod.Put, $"/api/review/weigh-ins/{eater}/{far}", new { text = "70" }),
        })
        {
            var (status, answer) = await host.SendAsync(method, path, body, await host.PlanVersionAsync());
            Assert.True(status == 422, $"{method} {path}: {status} {answer}");
        }

        await AnswersAsync(host);
    }

    [Fact]
    public async Task A_batch_stored_at_the_end_of_time_takes_no_screen_down()
    {
        using var host = new Host();
        var (eater, recipe, boxes) = await host.LaidTableAsync();
        await host.PostAsync("/api/plan/boxes", new { boxId = boxes[0], eaterId = eater, day = "2026-11-25" },
            await host.PlanVersionAsync());
        await host.PostAsync("/api/cook/planned", new { day = "2026-11-26", dishes = new[] { new { recipeId = recipe, portions = 4 } } });
        await WriteAsync(host, "UPDATE Batches SET CookedOn = '9999-12-31'");
        await AnswersAsync(host);
        await host.GetAsync($"/api/plan/days/{eater}/2026-11-25");
    }

    /// <summary>
    /// More is taken out than goes in; nothing but a pinch; a batch packed at 0.4 g (kilograms typed for grams) that other batches are
    /// expected by.
    /// </summary>
    [Theory]
    [InlineData("100 g rolled oats", "200 g milk", true)]
    [InlineData("a pinch of salt", null, false)]
    public async Task A_batch_whose_weight_is_not_known_says_so_and_takes_no_screen_down(string line, string? takenOut, bool isTakenOut)
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        var lines = takenOut is null ? new[] { line } : [line, takenOut];
        var recipe = await host.PostAsync("/api/recipes",
            new { name = "Odd", lines, takenOut = lines.Select((_, i) => isTakenOut && i == 1).ToArray(), portions = 4 });
        var planned =
            (await host.PostAsync("/api/cook/planned",
            new { day = "2026-11-26", dishes = new[] { new { recipeId = recipe["id"], portions = 4 } } }))[0]!;
        await AnswersAsync(host);
        var shown = Assert.Single((await host.GetAsync("/api/plan/weeks/2026-11-25"))["unpacked"]!.AsArray(), batch =>
            (string?)batch!["name"] == "Odd")!;
        Assert.Null(shown["grams"]);
        var (status, refusal) = await host.SendAsync(HttpMethod.Post, "/api/plan/portions",
            new { batchId = planned["id"], eaterId = eater, day = "2026-11-27" }, await host.PlanVersionAsync());
        Assert.Equal((422, "urn:lively-tern:problem:weight-unknown"), (status, (string?)refusal["type"]));
        Assert.Contains("Odd", (string)refusal["detail"]!);

        // A portion that lies there from before the recipe was odd: its day is shown, its figures are at least what is known.
        await WriteAsync(host,
            $"INSERT INTO PlanItems (Id, EaterId, Day, Position, BatchId, Milligrams, FoodIsTrace, IsLocked, IsFitted) SELECT '0193A5D2-0000-7000-8000-000000000001', Id, '2026-11-27', 0, '{((string)planned["id"]!).ToUpperInvariant()}', 300000, 0, 0, 0 FROM Eaters");
        await AnswersAsync(host);
        var item = (await host.GetAsync($"/api/eat/{eater}/2026-11-27"))["day"]!["items"]![0]!;
        Assert.False((bool)item["figures"]!["energy"]!["complete"]!);
        await host.GetAsync($"/api/plan/days/{eater}/2026-11-27");

        // Weighed, it has a weight.
        var cooked = await host.PostAsync($"/api/cook/planned/{planned["id"]}/cooked", null, (int)planned["version"]!);
        await host.PostAsync($"/api/pack/batches/{planned["id"]}/preview", new { fullGrams = 500, panGrams = 100, boxes = 2 });
        await host.PostAsync($"/api/pack/batches/{planned["id"]}/boxes", new { fullGrams = 500, panGrams = 100, boxes = 2 },
            (int)cooked["version"]!);
        await AnswersAsync(host);
    }

    [Fact]
    public async Task Kilograms_typed_for_grams_are_asked_about_and_an_old_batch_of_no_weight_spoils_no_other()
    {
        using var host = new Host();
        var (_, recipe, _) = await host.LaidTableAsync();
        var batch = await host.PostAsync("/api/cook/batches", new { recipeId = recipe });
        var (status, refusal) = await host.SendAsync(HttpMethod.Post, $"/api/pack/batches/{batch["id"]}/boxes",
            new { fullGrams = 0.4, panGrams = 0, boxes = 4 }, (int)batch["version"]!);
        Assert.Equal((422, "urn:lively-tern:problem:weight-tiny"), (status, (string?)refusal["type"]));
        await WriteAsync(host, "UPDATE Batches SET CookedMilligrams = 400, PanMilligrams = 0 WHERE CookedMilligrams IS NOT NULL");
        await AnswersAsync(host);
        await WriteAsync(host, "UPDATE Batches SET CookedMilligrams = -355000, Yield = '-1' WHERE CookedMilligrams IS NOT NULL");
        await AnswersAsync(host);
    }

    [Fact]
    public async Task A_portion_stored_of_a_batch_in_its_boxes_is_left_out_and_named()
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        var batch = ((string)(await host.GetAsync("/api/pack/batches"))[0]!["id"]!).ToUpperInvariant();
        await WriteAsync(host,
            $"INSERT INTO PlanItems (Id, EaterId, Day, Position, BatchId, Milligrams, FoodIsTrace, IsLocked, IsFitted) SELECT '0193A5D2-0000-7000-8000-000000000001', Id, '2026-11-27', 0, '{batch}', 300000, 0, 0, 0 FROM Eaters");
        await AnswersAsync(host);
        await host.GetAsync($"/api/plan/days/{eater}/2026-11-27");
        await host.GetAsync($"/api/eat/{eater}/2026-11-27");
        await host.PostAsync("/api/plan/fits", new { from = "2026-11-25", to = "2026-11-29", seconds = 0.2 });
        var left = Assert.Single((await host.GetAsync("/api/plan/weeks/2026-11-25"))["leftOut"]!.AsArray())!;
        Assert.Equal(("2026-11-27", "Oat bake"), ((string)left["day"]!, (string)left["name"]!));
    }

    [Fact]
    public async Task A_recipe_that_is_cooked_often_leaves_the_others_their_history()
    {
        using var host = new Host();
        var (_, oats, _) = await host.LaidTableAsync();
        var stew = (Guid)(
            await host.PostAsync("/api/recipes", new { name = "Stew", lines = new[] { "1000 g carrots" }, portions = 4 }))["id"]!;
        async Task PackAsync(Guid recipe, int full)
        {
            var batch = await host.PostAsync("/api/cook/batches", new { recipeId = recipe });
            await host.PostAsync($"/api/pack/batches/{batch["id"]}/boxes", new { fullGrams = full, panGrams = 0, boxes = 4 },
                (int)batch["version"]!);
        }

        await PackAsync(stew, 800);
        for (var i = 0; i < 25; i++) await PackAsync(oats, 1200);
        await host.PostAsync("/api/cook/planned",
            new { day = "2026-11-26", dishes = new[] { new { recipeId = stew, portions = 4 }, new { recipeId = oats, portions = 4 } } });
        var unpacked = (await host.GetAsync("/api/plan/weeks/2026-11-25"))["unpacked"]!.AsArray();
        Assert.Equal((800m, "earlierBatches"),
            unpacked.Where(batch => (string?)batch!["name"] == "Stew").Select(batch =>
            ((decimal)batch!["grams"]!, (string)batch["expected"]!["from"]!)).Single());
    }
}
