using System.Text.Json.Nodes;
using LivelyTern.Tests;

namespace LivelyTern.Web.Tests;

/// <summary>The packing bench: boxes each in their own way, filled on the scale, and no gram lost whatever is done with them.</summary>
public sealed class PackBenchTests : IDisposable
{
    private const string Today = "2026-11-25";
    private readonly Host host = new();
    private Guid isa, bo, recipe;

    public void Dispose() => host.Dispose();

    private static object AimOf(object? rule) => new
    {
        leading = rule is null ? "energy" : "points",
        bands = rule is null ? (object)new { energy = new { min = 1450, target = 1525, max = 1600 } } : new { points = new { max = 23 } },
        rule,
    };

    // A point for each 100 kcal; vegetables are free.
    private static object Rule => new
    {
        name = "By the hundred",
        perUnit = new { energy = 0.01m },
        step = 1,
        freeGroups = new[] { "vegetables" },
        freeFoods = Array.Empty<string>(),
    };

    private async Task OpenAsync(object? boRule = null, params string[] lines)
    {
        isa = (Guid)(await host.PostAsync("/api/aim/eaters", new { name = "Isa", aim = AimOf(null) }))["id"]!;
        bo = (Guid)(await host.PostAsync("/api/aim/eaters", new { name = "Bo", aim = AimOf(boRule) }))["id"]!;
        recipe = (Guid)(
            await host.PostAsync(
            "/api/recipes",
            new { name = "Lentil stew", lines = lines.Length > 0 ? lines : ["1 kg red lentils, dry", "2 l water"], portions = 6 }))["id"]!;
    }

    private Task<JsonNode> CookAsync() => host.PostAsync("/api/cook/batches", new { recipeId = recipe });

    private async Task LayAsync(Guid eater, string text, string day) =>
        await host.SendAsync(HttpMethod.Post, "/api/plan/entries", new { eaterId = eater, day, text }, await host.PlanVersionAsync());

    private async Task<JsonNode> BatchAsync(JsonNode batch) => await host.GetAsync($"/api/pack/batches/{batch["id"]}");

    private Task<JsonNode> PreviewAsync(JsonNode batch, object body, Guid? eater = null) =>
        host.PostAsync($"/api/pack/batches/{batch["id"]}/preview" + (eater is null ? "" : $"?eaterId={eater}"), body);

    private async Task<(int Status, JsonNode Body)> PackAsync(JsonNode batch, object body) =>
        await host.SendAsync(
            HttpMethod.Post, $"/api/pack/batches/{batch["id"]}/boxes", body, (int)(await BatchAsync(batch))["version"]!);

    private static string CodeOf(JsonNode body) => (string)body["errors"]![0]!["code"]!;

    private static decimal[] Of(JsonNode boxes, string field) =>
        [.. boxes["boxes"]!.AsArray().Select(box => (decimal)box![field]!)];

    [Fact]
    public async Task Every_box_in_its_own_way_for_its_own_eater_and_the_rest_into_the_freezer()
    {
        await OpenAsync();
        var batch = await CookAsync();
        await LayAsync(isa, "500 g lentil stew", "2026-11-27");
        var planned = (await BatchAsync(batch))["planned"]![0]!;
        var kcal = (decimal)(await BatchAsync(batch))["figures"]!["energy"]!["value"]!;

        // 3,000 g planned, 2,700 g there: 500 are 450. At most 420 kcal are the whole grams just below that.
        var body = new
        {
            fullGrams = 3900,
            panGrams = 1200,
            boxes = 0,
            each = new object[]
            {
                new { itemId = planned["itemId"] }, new { eaterId = bo, atMost = new { measure = "energy", value = 420 } },
                new { eaterId = isa, grams = 300 }, new { share = 1, place = "freezer" }, new { share = 2, place = "freezer" },
            },
        };
        var preview = await PreviewAsync(batch, body);
        var most = Math.Floor(420 * 2700 / kcal);
        var rest = 2700 - 450 - 300 - most;
        Assert.Equal([450, most, 300], Of(preview, "grams").Take(3));
        Assert.Equal((rest, 0m), (Of(preview, "grams").Skip(3).Sum(), (decimal)preview["overGrams"]!));
        Assert.InRange((decimal)preview["boxes"]![1]!["figures"]!["energy"]!["value"]!, 418m, 420m);

        // On the scale a budget is at its mark from below only.
        Assert.Equal([4.5m, 0, 3], Of(preview, "markAbove").Take(3));
        Assert.Equal(
            ("out", 450 * kcal / 2700),
            ((string)preview["boxes"]![0]!["day"]!["verdict"]!, (decimal)preview["boxes"]![0]!["day"]!["sum"]!["value"]!), new Near());

        var (status, packed) = await PackAsync(batch, body);
        Assert.Equal(200, status);
        Assert.Equal(Of(preview, "grams"), Of(packed, "grams"));
        string[] places = [.. packed["boxes"]!.AsArray().Select(box => (string)box!["place"]!)];
        Assert.Equal(["fridge", "fridge", "fridge", "freezer", "freezer"], places);
        Assert.Equal("2026-11-27", (string?)packed["boxes"]![0]!["day"]);

        // Next time each eater's own size of it is known.
        var sizes = (await BatchAsync(await CookAsync()))["ownSizes"]!.AsArray();
        Assert.Equal([450m, most], sizes.Select(one => (decimal)one!["grams"]!));
    }

    private sealed class Near : IEqualityComparer<(string, decimal)>
    {
        public bool Equals((string, decimal) x, (string, decimal) y) =>
            string.Equals(x.Item1, y.Item1, StringComparison.Ordinal) && Math.Abs(x.Item2 - y.Item2) < 0.001m;

        public int GetHashCode((string, decimal) obj) => 0;
    }

    // 1 kg of carrots (free) and 1 kg of lentils at 3,580 kcal in 2,000 g, by hand: 35.8 points in all, so 4 points are less than 4.5 of
    // them, 251.4 g; the carrots' own energy counts nothing.
    [Fact]
    public async Task A_budget_of_points_counts_by_the_rule_of_whose_box_it_is_free_foods_and_all()
    {
        await OpenAsync(Rule, "1 kg carrots", "1 kg red lentils, dry");
        var batch = await CookAsync();
        object Body(Guid? eater) => new
        {
            fullGrams = 2000,
            boxes = 0,
            each = new object[] { new { eaterId = eater, atMost = new { measure = "points", value = 4 } } },
        };
        var box = (await PreviewAsync(batch, Body(bo)))["boxes"]![0]!;
        Assert.Equal(4, (decimal)box["figures"]!["points"]!["value"]!);
        var grams = (decimal)box["grams"]!;
        async Task<decimal> PointsAsync(decimal weight) => (decimal)(
            await PreviewAsync(batch, new { fullGrams = 2000, boxes = 0, each = new object[] { new { eaterId = bo, grams = weight } } }))
            ["boxes"]![0]!["figures"]!["points"]!["value"]!;
        Assert.Equal((4m, 5m), (await PointsAsync(grams), await PointsAsync(grams + 1)));
        Assert.InRange(grams, 245, 255);
        foreach (var nobody in new Guid?[] { null, isa })
        {
            var (_, refused) = await host.SendAsync(HttpMethod.Post, $"/api/pack/batches/{batch["id"]}/preview", Body(nobody));
            Assert.Equal("budget-points", CodeOf(refused));
        }
    }

    [Fact]
    public async Task Filled_on_the_scale_each_box_holds_what_it_got_and_more_than_the_pan_said_is_asked_about()
    {
        await OpenAsync();
        var batch = await CookAsync();
        object Body(decimal full, bool takesSum, params decimal?[] got) => new
        {
            fullGrams = full,
            panGrams = 200,
            boxes = 0,
            takesSum,
            each = got.Select(one => new { share = 1, got = one }),
        };
        var preview = await PreviewAsync(batch, Body(1400, false, 402, null, null));
        Assert.Equal([402m, 400, 398], Of(preview, "onScale"));
        Assert.Equal([400m, 400, 400], Of(preview, "target"));
        Assert.Equal((4m, 4m), ((decimal)preview["boxes"]![0]!["markBelow"]!, (decimal)preview["boxes"]![0]!["markAbove"]!));

        var (status, heavier) = await PackAsync(batch, Body(1400, false, 402, 410, 408));
        Assert.Equal((422, "boxes-heavier"), (status, CodeOf(heavier)));
        Assert.Contains("20 g more", (string)heavier["detail"]!);
        Assert.Equal("boxes-open", CodeOf((await PackAsync(batch, Body(1400, true, 402, null, 408))).Body));
        Assert.Empty((await BatchAsync(batch))["boxes"]!.AsArray());
        var (_, packed) = await PackAsync(batch, Body(1400, true, 402, 410, 408));
        Assert.Equal([402m, 410, 408], Of(packed, "grams"));
        Assert.Equal((200m, 1420m), ((decimal)packed["panGrams"]!, (decimal)packed["fullGrams"]!));
    }

    [Fact]
    public async Task A_plan_that_changed_meanwhile_a_stranger_and_two_ways_at_once_are_refused_and_nothing_is_packed()
    {
        await OpenAsync();
        var batch = await CookAsync();
        await LayAsync(isa, "500 g lentil stew", "2026-11-27");
        async Task<string> TryAsync(params object[] each) =>
            CodeOf((await PackAsync(batch, new { fullGrams = 3000, boxes = 0, each })).Body);
        var item = (await BatchAsync(batch))["planned"]![0]!["itemId"];
        Assert.Equal("stale", await TryAsync(new { share = 1 }));
        Assert.Equal("stale", await TryAsync(new { itemId = Guid.NewGuid() }, new { share = 1 }));
        Assert.Equal("stale", await TryAsync(new { itemId = item }, new { itemId = item }));
        Assert.Equal("not-found", await TryAsync(new { itemId = item }, new { eaterId = Guid.NewGuid(), share = 1 }));
        Assert.Equal("box-unclear", await TryAsync(new { itemId = item }, new { share = 1, grams = 3 }));
        Assert.Equal("box-unclear", await TryAsync(new { itemId = item }, new { eaterId = bo }));
        Assert.Equal("cup-unknown", await TryAsync(new { itemId = item }, new { cups = 1 }));
        Assert.Equal("batch-short", await TryAsync(new { itemId = item }, new { grams = 2900 }));
        Assert.Empty((await BatchAsync(batch))["boxes"]!.AsArray());

        // Two phones pack it: the first one is kept.
        var version = (int)(await BatchAsync(batch))["version"]!;
        async Task<int> SendAsync() => (await host.SendAsync(
            HttpMethod.Post, $"/api/pack/batches/{batch["id"]}/boxes",
            new { fullGrams = 3000, boxes = 0, each = new object[] { new { itemId = item }, new { share = 1 } } }, version)).Status;
        int[] both = await Task.WhenAll(SendAsync(), SendAsync());
        Assert.Equal([200, 412], both.Order());
        Assert.Equal(2, (await BatchAsync(batch))["boxes"]!.AsArray().Count);
    }

    [Fact]
    public async Task A_budget_of_what_is_not_in_it_bounds_nothing()
    {
        await OpenAsync(null, "1 l water");
        var each = new[] { new { atMost = new { measure = "energy", value = 100 } } };
        Assert.Equal("budget-nothing", CodeOf((await PackAsync(await CookAsync(), new { fullGrams = 900, boxes = 0, each })).Body));
    }

    [Fact]
    public async Task Nobodys_box_is_what_they_must_never_get()
    {
        await OpenAsync(null, "400 g rolled oats", "4 eggs");
        var eater = (await host.GetAsync("/api/aim/eaters")).AsArray().Single(one => (Guid)one!["id"]! == bo)!;
        await host.MustAsync(
            HttpMethod.Put, $"/api/aim/eaters/{bo}", new { name = "Bo", aim = AimOf(null), ways = new { neverAllergens = new[] { "eggs" } } },
            (int)eater["version"]!);
        var batch = await CookAsync();
        var each = new object[] { new { eaterId = bo, share = 1 }, new { share = 1 } };
        Assert.Equal("never-for", CodeOf((await PackAsync(batch, new { fullGrams = 600, boxes = 0, each })).Body));
        Assert.DoesNotContain((await BatchAsync(batch))["ownSizes"]!.AsArray(), one => (Guid)one!["eaterId"]! == bo);
    }

    [Fact]
    public async Task Squares_of_a_pan_are_its_pieces_and_the_edges_go_to_who_likes_them()
    {
        await OpenAsync();
        var batch = await CookAsync();
        object Body(int rows) => new
        {
            fullGrams = 1200,
            boxes = 0,
            squares = new { rows, columns = 4 },
            each = new object[] { new { pieces = 2 }, new { eaterId = bo, share = 1, likesEdge = true }, new { share = 1 } },
        };
        var preview = await PreviewAsync(batch, Body(3));
        Assert.Equal([2m, 5, 5], Of(preview, "pieces"));
        Assert.Equal([1, 1, 1, 1], preview["squares"]!.AsArray().Take(4).Select(box => (int)box!));
        Assert.Equal([0, 0], new[] { 5, 6 }.Select(square => (int)preview["squares"]![square]!));
        var refused = await host.SendAsync(HttpMethod.Post, $"/api/pack/batches/{batch["id"]}/preview", Body(0));
        Assert.Equal((422, "squares-absurd"), (refused.Status, CodeOf(refused.Body)));
        Assert.Equal([200m, 500, 500], Of((await PackAsync(batch, Body(3))).Body, "grams").Select(grams => Math.Round(grams, 9)));
    }

    [Fact]
    public async Task Cups_weigh_what_one_weighed_and_a_batch_that_boiled_down_says_so()
    {
        await OpenAsync();
        foreach (var weight in new[] { 2400, 2430 })
            Assert.Equal(200, (await PackAsync(await CookAsync(), new { fullGrams = weight, boxes = 6 })).Status);
        var batch = await CookAsync();
        object Body(int full) => new
        {
            fullGrams = full,
            boxes = 0,
            cupGrams = 245,
            each = new object[] { new { cups = 1.5m }, new { share = 1 } },
        };
        var preview = await PreviewAsync(batch, Body(1900));
        Assert.Equal((368m, "1 1/2 cups"), ((decimal)preview["boxes"]![0]!["grams"]!, (string?)preview["boxes"]![0]!["volume"]));
        Assert.Equal((2, "lostMore"), ((int)preview["usual"]!["batches"]!, (string?)preview["usual"]!["says"]));
        Assert.Equal("asUsual", (string?)(await PreviewAsync(batch, Body(2410)))["usual"]!["says"]);
        var packed = (await PackAsync(batch, Body(1900))).Body;
        Assert.Equal("1 1/2 cups", (string?)packed["boxes"]![0]!["volume"]);
    }

    public static TheoryData<int> Chances => Seeds.Or(1, 2);

    // Whatever is packed in whatever ways, moved, laid, eaten, given away and emptied back: what is in the boxes and over is what was
    // cooked, in grams and in kilocalories; a box that is eaten or gone keeps what it held.
    [Theory]
    [MemberData(nameof(Chances))]
    public async Task No_gram_and_no_kilocalorie_is_lost_whatever_is_done(int seed)
    {
        var chance = new Random(seed);
        await OpenAsync();
        for (var round = 0; round < 4; round++)
        {
            var batch = await CookAsync();
            var laid = chance.Next(3);
            for (var i = 0; i < laid; i++)
                await LayAsync(chance.Next(2) == 0 ? isa : bo, $"{chance.Next(150, 500)} g lentil stew", $"2026-11-{26 + chance.Next(4)}");
            var cooked = chance.Next(15_000, 32_000) / 10m;
            var each = (await BatchAsync(batch))["planned"]!.AsArray().Select(item => (object)new { itemId = item!["itemId"] }).ToList();
            for (var i = chance.Next(1, 6); i > 0; i--) each.Add(AnyBox(chance));
            var body = new { fullGrams = cooked + 700, panGrams = 700, boxes = 0, each = each.OrderBy(_ => chance.Next()).ToList() };
            var (status, packed) = await PackAsync(batch, body);
            if (status != 200)
            {
                Assert.Contains(CodeOf(packed), new[] { "batch-short", "box-empty" });
                continue;
            }

            var over = (decimal)(cooked - Of(packed, "grams").Sum());
            Assert.InRange(over, 0, cooked);
            for (var step = 0; step < 8; step++)
            {
                await AnythingAsync(packed, chance);
                var now = await BatchAsync(batch);
                if (now["boxes"]!.AsArray().Count == 0)
                {
                    Assert.Equal("cooked", (string?)now["state"]);
                    Assert.Equal(cooked, (decimal)now["fullGrams"]! - 700);
                    break;
                }

                Assert.Equal(cooked, Of(now, "grams").Sum() + over);
                Assert.Equal(Of(packed, "grams"), Of(now, "grams"));
            }
        }
    }

    private object AnyBox(Random chance)
    {
        Guid? eaterId = chance.Next(3) switch { 0 => isa, 1 => bo, _ => null };
        var place = chance.Next(3) == 0 ? "freezer" : "fridge";
        return chance.Next(4) switch
        {
            0 => new { eaterId, place, grams = chance.Next(1000, 6000) / 10m },
            1 => new { eaterId, place, atMost = new { measure = "energy", value = chance.Next(150, 700) } },
            2 => new { eaterId, place, share = chance.Next(1, 4), got = (decimal?)chance.Next(100, 400) },
            _ => (object)new { eaterId, place, share = chance.Next(1, 4) },
        };
    }

    private async Task AnythingAsync(JsonNode packed, Random chance)
    {
        var now = await BatchAsync(packed);
        var boxes = now["boxes"]!.AsArray();
        var box = boxes[chance.Next(boxes.Count)]!;
        var plan = await host.PlanVersionAsync();
        var answer = chance.Next(6) switch
        {
            0 => await host.SendAsync(
                HttpMethod.Post, "/api/keep/boxes/put",
                new { boxes = new[] { new { id = box["id"], version = box["version"] } }, place = chance.Next(2) == 0 ? "freezer" : "fridge" }),
            1 => await host.SendAsync(
                HttpMethod.Post, "/api/plan/boxes", new { boxId = box["id"], eaterId = isa, day = $"2026-11-{25 + chance.Next(5)}" }, plan),
            2 => await host.SendAsync(
                HttpMethod.Post, "/api/keep/boxes/eaten", new { boxIds = new[] { box["id"] }, eaterId = bo, day = Today }, plan),
            3 => await host.SendAsync(
                HttpMethod.Post, "/api/keep/boxes/let-go", new { boxIds = new[] { box["id"] }, isThrownAway = true, why = "fell" }, plan),
            4 when chance.Next(3) == 0 => await host.SendAsync(
                HttpMethod.Delete, $"/api/pack/batches/{packed["id"]}/boxes", null, (int)now["version"]!),
            _ => await host.SendAsync(
                HttpMethod.Put, $"/api/cook/batches/{packed["id"]}/weight", new { fullGrams = 5000, panGrams = 0 }, (int)now["version"]!),
        };
        Assert.True(answer.Status is 200 or 409 or 422 or 404, answer.Body.ToJsonString());
    }
}
