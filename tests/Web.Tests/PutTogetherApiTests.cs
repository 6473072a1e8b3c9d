using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>
/// Put-together dishes through the real host: their parts are planned, bought, cooked and weighed with them, and no gram of a part is in
/// two boxes, whatever is done in whatever order.
/// </summary>
public sealed class PutTogetherApiTests : IDisposable
{
    private const string Prep = "2026-11-28", Sunday = "2026-11-29";
    private readonly Host host = new();
    private Guid mash, chicken, bowl;

    public static TheoryData<int> Chances => Seeds.Or(1, 2);

    public void Dispose() => host.Dispose();

    private async Task<Guid> RecipeAsync(object recipe) => (Guid)(await host.PostAsync("/api/recipes", recipe))["id"]!;

    /// <summary>A bowl of 200 g mash (5 portions of 200 g from 1,100 g), 120 g chicken and 80 g sweetcorn.</summary>
    private async Task OpenAsync()
    {
        var potatoes = new[] { "1 kg potatoes", "100 g butter" };
        mash = await RecipeAsync(new { name = "Mash", lines = potatoes, portions = 5, cookedGrams = 1000 });
        var meat = new[] { "800 g chicken breast" };
        chicken = await RecipeAsync(new { name = "Roast chicken", lines = meat, portions = 4, cookedGrams = 600 });
        bowl = await RecipeAsync(Bowl());
    }

    private static object Bowl(string mashed = "200 g mash", bool isPutTogether = true) => new
    {
        name = "Chicken bowl",
        lines = new[] { mashed, "120 g roast chicken", "80 g sweetcorn, canned" },
        portions = 1,
        isPutTogether,
    };

    private async Task<JsonNode> PlanAsync(Guid recipe, int portions, string day = Prep) =>
        (await host.PostAsync("/api/cook/planned", new { day, dishes = new[] { new { recipeId = recipe, portions } } }))[0]!;

    private async Task<JsonArray> BatchesAsync() => (await host.GetAsync("/api/cook/batches")).AsArray();

    private async Task<JsonNode> OfAsync(Guid recipe) => (await BatchesAsync()).Single(batch => (Guid)batch!["recipeId"]! == recipe)!;

    private async Task<decimal> LeftAsync(Guid recipe)
    {
        var id = (string)(await OfAsync(recipe))["id"]!;
        var week = await host.GetAsync($"/api/plan/weeks/{Prep}");
        return (decimal)week["unpacked"]!.AsArray().Single(one => (string)one!["batchId"]! == id)!["leftGrams"]!;
    }

    private static string CodeOf(JsonNode refused) => (string)refused["errors"]![0]!["code"]!;

    private static int VersionOf(JsonNode batch) => (int)batch["version"]!;

    private async Task<JsonNode> WeighAsync(Guid recipe, decimal grams)
    {
        var batch = await OfAsync(recipe);
        if ((string)batch["state"]! == "planned")
            batch = await host.PostAsync($"/api/cook/planned/{batch["id"]}/cooked", null, VersionOf(batch));
        var weighed = new { fullGrams = grams, panGrams = 0 };
        return await host.MustAsync(HttpMethod.Put, $"/api/cook/batches/{batch["id"]}/weight", weighed, VersionOf(batch));
    }

    private async Task<(int Status, JsonNode Body)> PackAsync(JsonNode batch, int boxes) =>
        await host.SendAsync(HttpMethod.Post, $"/api/pack/batches/{batch["id"]}/boxes", new { fullGrams = 1, boxes }, VersionOf(batch));

    [Fact]
    public async Task Planning_a_dish_plans_its_parts_for_all_dishes_that_use_them()
    {
        await OpenAsync();
        var planned = await PlanAsync(bowl, 6);
        Assert.Equal([("Mash", 1200m), ("Roast chicken", 720m)],
            planned["together"]!["parts"]!.AsArray().Select(part => ((string)part!["name"]!, (decimal)part["grams"]!)));
        var (potatoes, meat) = (await OfAsync(mash), await OfAsync(chicken));
        Assert.Equal((6, 5), ((int)potatoes["portions"]!, (int)meat["portions"]!));
        Assert.Equal((0m, 30m), (await LeftAsync(mash), await LeftAsync(chicken)));

        // Monday's plate takes of the same mash; two portions of it are wanted by themselves.
        var plate = await RecipeAsync(new { name = "Plate", lines = new[] { "250 g mash" }, portions = 1, isPutTogether = true });
        await PlanAsync(plate, 2, "2026-11-30");
        Assert.Equal(9, (int)(await OfAsync(mash))["portions"]!);
        var grown = new { day = Prep, portions = 11 };
        await host.MustAsync(HttpMethod.Put, $"/api/cook/planned/{potatoes["id"]}", grown, VersionOf(await OfAsync(mash)));
        Assert.Equal(500, await LeftAsync(mash));
        var dish = await OfAsync(plate);
        await host.MustAsync(HttpMethod.Delete, $"/api/cook/batches/{dish["id"]}", null, VersionOf(dish));
        Assert.Equal(8, (int)(await OfAsync(mash))["portions"]!);

        // The recipe says more of it: what is planned follows.
        var recipe = await host.GetAsync($"/api/recipes/{bowl}");
        await host.MustAsync(HttpMethod.Put, $"/api/recipes/{bowl}", Bowl("300 g mash"), VersionOf(recipe));
        Assert.Equal(11, (int)(await OfAsync(mash))["portions"]!);

        // Chicken that only the bowls need goes with them, and comes back with them.
        var bowls = await OfAsync(bowl);
        var gone = await host.MustAsync(HttpMethod.Delete, $"/api/cook/batches/{bowls["id"]}", null, VersionOf(bowls));
        Assert.Equal(["Mash"], (await BatchesAsync()).Select(batch => (string)batch!["name"]!));
        Assert.Equal(2, (int)(await OfAsync(mash))["portions"]!);
        await host.PostAsync($"/api/cook/batches/{bowls["id"]}/restore", null, VersionOf(gone));
        Assert.Equal(5, (int)(await OfAsync(chicken))["portions"]!);
    }

    [Fact]
    public async Task What_is_bought_and_prepared_for_a_dish_comes_with_its_parts_once()
    {
        await OpenAsync();
        await PlanAsync(bowl, 6);
        var list = await host.GetAsync("/api/shop/list");
        var needs = list["aisles"]!.AsArray().SelectMany(aisle => aisle!["foods"]!.AsArray())
            .ToDictionary(line => (string)line!["name"]!, line => (decimal)line!["need"]!);

        // 480 g drained are 571 g with the liquid of the tin.
        var corn = needs.Single(need => need.Key.StartsWith("sweetcorn", StringComparison.OrdinalIgnoreCase)).Value;
        Assert.Equal(571, Math.Round(corn));
        Assert.Equal(120, needs.Single(need => need.Key.StartsWith("butter", StringComparison.OrdinalIgnoreCase)).Value);
        var laid = await host.PostAsync($"/api/cook/days/{Prep}/schedule", new { seconds = 0 });
        var tasks = laid["tasks"]!.AsArray().Where(task => (string)task!["task"]!["kind"]! == "pack").ToList();
        var dish = (string)(await OfAsync(bowl))["id"]!;
        var own = (string)(await OfAsync(chicken))["id"]!;
        Assert.Equal([dish], tasks.SelectMany(task => task!["task"]!["dishes"]!.AsArray()).Select(id => (string)id!));
        var packed = (int)tasks[0]!["start"]!;
        Assert.All(laid["tasks"]!.AsArray().Where(task => task!["task"]!["dishes"]!.AsArray().Any(id => (string)id! == own)),
            task => Assert.True((int)task!["end"]! <= packed));
    }

    [Fact]
    public async Task Figures_of_a_box_follow_from_the_parts_as_weighed_and_what_is_over_gets_boxes_of_its_own()
    {
        await OpenAsync();
        var dish = await PlanAsync(bowl, 6);
        var isa = (string)(await host.PostAsync("/api/aim/eaters",
            new
            {
                name = "Isa",
                aim = new { leading = "energy", bands = new { energy = new { max = 2000 } }, rule = (object?)null },
            }))["id"]!;
        await host.PostAsync("/api/plan/portions", new { batchId = dish["id"], eaterId = isa, day = Sunday, grams = 400 },
            await host.PlanVersionAsync());
        Assert.Equal("part-not-weighed", CodeOf((await PackAsync(dish, 6)).Body));
        var planned = (decimal)(await host.GetAsync($"/api/pack/batches/{dish["id"]}"))["figures"]!["energy"]!["value"]!;
        await WeighAsync(mash, 1080);
        await WeighAsync(chicken, 800);

        // 1,080 g of mash for 1,200 and 800 g of chicken for 750: a tenth less and a fifteenth more in each box, holding what was planned.
        var ready = await OfAsync(bowl);
        Assert.Equal([1080m, 768m], ready["together"]!["parts"]!.AsArray().Select(part => (decimal)part!["grams"]!));
        Assert.Equal(2328, (decimal)ready["expectedGrams"]!);
        var portion = (await host.GetAsync($"/api/pack/batches/{dish["id"]}"))["planned"]![0]!;
        Assert.Equal(388, (decimal)portion["grams"]!);
        var (status, packed) = await PackAsync(ready, 6);
        Assert.Equal(200, status);
        Assert.Equal(2328, packed["boxes"]!.AsArray().Sum(box => (decimal)box!["grams"]!));
        var meat = await host.GetAsync($"/api/pack/batches/{(await OfAsync(chicken))["id"]}");
        Assert.Equal((32m, "cooked"), (await LeftAsync(chicken), (string)meat["state"]!));
        Assert.Equal("packed", (string)(await OfAsync(mash))["state"]!);
        var less = await host.SendAsync(HttpMethod.Put, $"/api/cook/batches/{meat["id"]}/weight", new { fullGrams = 760 }, VersionOf(meat));
        Assert.Equal("weight-below-packed", CodeOf(less.Body));

        // Less went with the scale, nothing with the figures: a day that was planned with it stays as it was.
        Assert.Equal(planned, (decimal)packed["figures"]!["energy"]!["value"]!, 3);

        // A correction of a part is one of the boxes that hold it.
        var before = (decimal)packed["figures"]!["energy"]!["value"]!;
        var raw = await OfAsync(chicken);
        await host.MustAsync(HttpMethod.Put, $"/api/cook/batches/{raw["id"]}/lines/1", new { text = "80 g butter" }, VersionOf(raw));
        var after = (decimal)(await host.GetAsync($"/api/pack/batches/{dish["id"]}"))["figures"]!["energy"]!["value"]!;
        Assert.InRange(after - before, 0.96m * 80 * 7m, 0.96m * 80 * 7.5m);

        // Back out of the boxes everything is as it was.
        var back = await host.MustAsync(HttpMethod.Delete, $"/api/pack/batches/{dish["id"]}/boxes", null, VersionOf(packed));
        Assert.Equal(("planned", "cooked"), ((string)back["state"]!, (string)(await OfAsync(mash))["state"]!));
        Assert.Equal(388, (decimal)back["planned"]![0]!["grams"]!);
    }

    // 200 g mash, 120 g chicken and 80 g sweetcorn a box, put in one after another.
    [Fact]
    public async Task Part_by_part_each_box_knows_what_is_in_it_and_the_parts_lose_just_that()
    {
        await OpenAsync();
        var dish = await PlanAsync(bowl, 3);
        await WeighAsync(mash, 620);
        await WeighAsync(chicken, 400);
        var at = $"/api/pack/batches/{dish["id"]}";
        var ready = await host.GetAsync(at);
        var (mashed, meat) = ((string)(await OfAsync(mash))["id"]!, (string)(await OfAsync(chicken))["id"]!);
        object Order(decimal?[] got, string? where = null) => new
        {
            fullGrams = 1,
            boxes = 3,
            parts = new object[]
            {
                new { batchId = mashed, got }, new { batchId = meat, compartment = where }, new { line = 0, compartment = "beside" },
            },
        };
        var asked = await host.PostAsync($"{at}/preview", Order([null, null, null]));
        var targets = asked["partByPart"]!.AsArray().ToDictionary(part => (string)part!["name"]!, part => part!);
        Assert.Equal(620m, (decimal)targets["Mash"]["there"]!);
        Assert.Equal((decimal)targets["Mash"]["asked"]!, targets["Mash"]["boxes"]!.AsArray().Sum(box => (decimal)box!["target"]!), 3);

        // More mash in the boxes than there is: that is said before, and refused then; nothing is packed.
        var heavy = Order([250, 250, 130]);
        Assert.Equal(10m, (decimal)(await host.PostAsync($"{at}/preview", heavy))["partByPart"]![0]!["missing"]!);
        var (status, refused) = await host.SendAsync(HttpMethod.Post, $"{at}/boxes", heavy, VersionOf(ready));
        Assert.Equal((422, "part-short"), (status, CodeOf(refused)));
        Assert.Equal("planned", (string)(await host.GetAsync(at))["state"]!);

        // A box with nothing in it is none.
        var none = new object[] { new { batchId = mashed, got = new[] { 0, 1, 1 } }, new { batchId = meat, got = new[] { 0, 1, 1 } } };
        var bare = new { fullGrams = 1, boxes = 3, parts = none.Append(new { line = 0, got = new[] { 0, 1, 1 } }) };
        Assert.Equal("box-empty", CodeOf((await host.SendAsync(HttpMethod.Post, $"{at}/preview", bare)).Body));

        // What is in the fullest box of a part is what that box got of it.
        var fullest = await host.PostAsync($"{at}/preview", Order([250, 150, null]));
        Assert.Equal(250m, (decimal)fullest["parts"]![mashed]!);
        Assert.Equal((decimal)fullest["partByPart"]![1]!["boxes"]![0]!["grams"]!, (decimal)fullest["parts"]![meat]!);
        var packed = await host.PostAsync($"{at}/boxes", Order([250, 150, null], "left"), VersionOf(ready));
        var boxes = packed["boxes"]!.AsArray();
        IEnumerable<(string, string?)> Of(JsonNode? box) =>
            box!["putIn"]!.AsArray().Select(part => ((string)part!["name"]!, (string?)part["compartment"]));
        Assert.All(boxes, box => Assert.Equal(["Mash", "Roast chicken"], Of(box).Take(2).Select(part => part.Item1)));
        Assert.All(boxes, box => Assert.Equal([null, "left", "beside"], Of(box).Select(part => part.Item2)));
        decimal In(int box, int part) => (decimal)boxes[box]!["putIn"]![part]!["grams"]!;
        Assert.Equal([250m, 150m], new[] { In(0, 0), In(1, 0) });
        Assert.All(Enumerable.Range(0, 3), i => Assert.Equal((decimal)boxes[i]!["grams"]!, In(i, 0) + In(i, 1) + In(i, 2)));

        // What is left of the mash is in its pan, the box with 100 g more of it holds its energy more; of the rest boxes differ by a gram.
        var left = 620 - In(0, 0) - In(1, 0) - In(2, 0);
        Assert.Equal(left < 1 ? "packed" : "cooked", (string)(await OfAsync(mash))["state"]!);
        var perGram = (decimal)(await host.GetAsync($"/api/pack/batches/{mashed}"))["figures"]!["energy"]!["value"]! / 620;
        var aim = new { leading = "energy", bands = new { energy = new { max = 2000 } }, rule = (object?)null };
        var isa = (string)(await host.PostAsync("/api/aim/eaters", new { name = "Isa", aim }))["id"]!;
        async Task<decimal> KcalAsync(int box)
        {
            var day = box == 0 ? Prep : Sunday;
            await host.PostAsync("/api/plan/boxes", new { boxId = boxes[box]!["id"], eaterId = isa, day }, await host.PlanVersionAsync());
            var item = (await host.GetAsync($"/api/eat/{isa}/{day}"))["day"]!["items"]![0]!;
            return (decimal)item["figures"]!["energy"]!["value"]!;
        }

        var more = await KcalAsync(0) - await KcalAsync(1);
        Assert.InRange(more - (100 * perGram), -1m, 1m);
        var label = await host.PostAsync("/api/labels", new { paper = "a4-2x4", boxIds = new[] { boxes[0]!["id"] } });
        var words = System.Net.WebUtility.HtmlDecode((string)label["pages"]![0]!).Replace('\u00A0', ' ');
        Assert.Contains("Add at eating: 80 g sweetcorn", words, StringComparison.Ordinal);
    }

    // The first box gets no walnuts: they go soft beside the gravy in the second all the same.
    [Fact]
    public async Task What_goes_soft_is_said_in_whichever_box_it_lies()
    {
        await RecipeAsync(new { name = "Gravy", lines = new[] { "500 g onions" }, portions = 5, cookedGrams = 400 });
        var plate = await RecipeAsync(new
        {
            name = "Plate",
            lines = new[] { "80 g gravy", "20 g walnuts" },
            portions = 1,
            isPutTogether = true,
        });
        var dish = await PlanAsync(plate, 2);
        var parts = new[] { new { line = 0, got = new[] { 0, 20 } } };
        var asked = await host.PostAsync($"/api/pack/batches/{dish["id"]}/preview", new { fullGrams = 1, boxes = 2, parts });
        Assert.Equal(("walnuts", "Gravy"), ((string)asked["apart"]![0]!["crisp"]!, (string)asked["apart"]![0]!["wet"]!));
    }

    [Fact]
    public async Task What_would_go_round_in_circles_or_pull_a_part_away_is_refused_with_a_way_out()
    {
        await OpenAsync();
        async Task<string> RefusedAsync(HttpMethod method, string path, object? body, int? version = null)
        {
            var (status, answer) = await host.SendAsync(method, path, body, version);
            Assert.InRange(status, 400, 499);
            return CodeOf(answer);
        }

        var twice = new { name = "Two bowls", lines = new[] { "400 g chicken bowl" }, portions = 1, isPutTogether = true };
        Assert.Equal("put-together-twice", await RefusedAsync(HttpMethod.Post, "/api/recipes", twice));
        var many = new { name = "Bowls", lines = new[] { "200 g mash" }, portions = 4, isPutTogether = true };
        Assert.Equal("put-together-box", await RefusedAsync(HttpMethod.Post, "/api/recipes", many));
        var asBowl = new { name = "Mash", lines = new[] { "1 kg potatoes" }, portions = 1, isPutTogether = true };
        var now = VersionOf(await host.GetAsync($"/api/recipes/{mash}"));
        Assert.Equal("put-together-twice", await RefusedAsync(HttpMethod.Put, $"/api/recipes/{mash}", asBowl, now));
        var dish = await PlanAsync(bowl, 6);
        var part = await OfAsync(mash);
        var (at, version) = ($"/api/cook/planned/{part["id"]}", VersionOf(part));
        Assert.Equal("dishes-need", await RefusedAsync(HttpMethod.Put, at, new { day = Prep, portions = 5 }, version));
        Assert.Equal("dishes-before", await RefusedAsync(HttpMethod.Put, at, new { day = Sunday, portions = 6 }, version));
        Assert.Equal("dishes-need", await RefusedAsync(HttpMethod.Delete, $"/api/cook/batches/{part["id"]}", null, version));
        var started = $"/api/cook/planned/{dish["id"]}/cooked";
        Assert.Equal("batch-together", await RefusedAsync(HttpMethod.Post, started, null, VersionOf(dish)));

        // The dish moves, and what is cooked for it alone moves with it.
        await host.MustAsync(HttpMethod.Put, $"/api/cook/planned/{dish["id"]}", new { day = Sunday, portions = 6 }, VersionOf(dish));
        Assert.All(await BatchesAsync(), batch => Assert.Equal(Sunday, (string)batch!["cookedOn"]!));
    }

    [Theory]
    [MemberData(nameof(Chances))]
    public async Task No_gram_of_a_part_is_in_two_boxes_whatever_is_done(int seed)
    {
        await OpenAsync();
        var plate = await RecipeAsync(new
        {
            name = "Plate",
            lines = new[] { "150 g mash", "90 g roast chicken" },
            portions = 1,
            isPutTogether = true,
        });
        var chance = new Random(seed);
        Guid[] all = [bowl, plate, mash, chicken];
        var done = 0;
        for (var step = 0; step < 60; step++)
        {
            var batches = await BatchesAsync();
            var batch = batches.Count == 0 ? null : batches[chance.Next(batches.Count)];
            var id = batch?["id"];
            var boxes = chance.Next(1, 9);
            var day = chance.Next(2) == 0 ? Prep : Sunday;
            var (method, path, body) = chance.Next(8) switch
            {
                0 or 1 => (HttpMethod.Post, "/api/cook/planned",
                    (object?)new { day, dishes = new[] { new { recipeId = all[chance.Next(4)], portions = boxes } } }),
                2 => (HttpMethod.Put, $"/api/cook/planned/{id}", new { day, portions = boxes }),
                3 => (HttpMethod.Post, $"/api/cook/planned/{id}/cooked", null),
                4 or 5 => (HttpMethod.Put, $"/api/cook/batches/{id}/weight", new { fullGrams = chance.Next(300, 3000) }),
                6 => (HttpMethod.Post, $"/api/pack/batches/{id}/boxes", new
                {
                    fullGrams = chance.Next(300, 3000),
                    boxes,
                    parts = batch is null || chance.Next(2) == 0 ? null : PartByPart(batch, boxes, chance),
                }),
                _ => (HttpMethod.Delete, chance.Next(3) == 0 ? $"/api/cook/batches/{id}" : $"/api/pack/batches/{id}/boxes", null),
            };
            var (status, answer) = await host.SendAsync(method, path, body, batch is null ? null : VersionOf(batch));
            Assert.True(status < 500, $"{method} {path}: {status} {answer}");
            if (status == 200) done++;
            await CheckAsync();
        }

        Assert.True(done > 15, $"Only {done} of the commands did something.");
    }

    // Some parts of a dish as a scale said them, for some of its boxes.
    private static object[]? PartByPart(JsonNode batch, int boxes, Random chance) =>
        !(bool)batch["together"]!["isPutTogether"]! ? null :
        [
            .. batch["together"]!["parts"]!.AsArray().Select(part => new
            {
                batchId = (string)part!["batchId"]!,
                compartment = chance.Next(2) == 0 ? null : "left",
                got = chance.Next(3) == 0 ? [] : Enumerable.Range(0, boxes).Select(_ =>
                    chance.Next(2) == 0
                        ? (decimal?)null
                        : Math.Round((decimal)part["grams"]! / boxes * chance.Next(50, 130) / 100, 1)).ToArray(),
            }),
        ];

    // Of each part: what is in dishes and in its own boxes is no more than it weighs. Of each dish: it weighs what its parts bring, and
    // holds what they hold.
    private async Task CheckAsync()
    {
        var batches = (await BatchesAsync()).ToDictionary(batch => (Guid)batch!["id"]!, batch => batch!);
        foreach (var batch in batches.Values)
        {
            var view = await host.GetAsync($"/api/pack/batches/{batch["id"]}");
            var weight = (decimal?)batch["cookedGrams"] ?? (decimal?)batch["expectedGrams"];
            var boxed = view["boxes"]!.AsArray().Sum(box => (decimal)box!["grams"]!);
            var into = batch["together"]!["goesInto"]!.AsArray();
            var inDishes = into.Where(dish => (bool)dish!["isPacked"]!).Sum(dish => (decimal)dish!["grams"]!);
            Assert.True(boxed + inDishes <= weight + 0.01m, $"{batch["name"]}: {boxed} g in boxes, {inDishes} g in dishes of {weight} g");
            if (!(bool)batch["together"]!["isPutTogether"]!) continue;
            var putIn = view["boxes"]!.AsArray().SelectMany(box => box!["putIn"]!.AsArray()).ToLookup(
                part => (string)part!["name"]!, part => (decimal)part!["grams"]!);
            decimal kcal = 0, grams = 0;
            foreach (var part in batch["together"]!["parts"]!.AsArray())
            {
                var of = await host.GetAsync($"/api/pack/batches/{part!["batchId"]}");
                var there = batches[(Guid)part["batchId"]!];
                var whole = (decimal?)there["cookedGrams"] ?? (decimal)there["expectedGrams"]!;
                grams += (decimal)part["grams"]!;
                if (putIn.Count > 0) Assert.Equal((decimal)part["grams"]!, putIn[(string)part["name"]!].Sum(), 0);
                kcal += (decimal)of["figures"]!["energy"]!["value"]! * (decimal)part["grams"]! / whole;
            }

            var corn = batch["lines"]!.AsArray().Sum(line => (decimal)line!["wentInGrams"]!);
            Assert.InRange(weight!.Value - grams - corn, -0.01m, 0.01m);
            var own = (decimal)view["figures"]!["energy"]!["value"]!;
            Assert.InRange(own - kcal, -0.1m, (corn * 1.2m) + 0.1m);
        }
    }
}
