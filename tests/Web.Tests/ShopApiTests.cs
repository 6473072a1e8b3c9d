using System.Text.Json.Nodes;
using LivelyTern.Data;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace LivelyTern.Web.Tests;

/// <summary>Shop through the real host: the list follows the plan, the pantry follows the cooking, two phones agree, nothing is lost.</summary>
public sealed class ShopApiTests : IDisposable
{
    private const string Today = "2026-11-25", Prep = "2026-11-28", Sunday = "2026-11-29";
    private readonly Host host = new();
    private Guid isa, dal;

    public static TheoryData<int> Chances => Seeds.Or(1, 2);

    public void Dispose() => host.Dispose();

    private static object Aim =>
        new { leading = "energy", bands = new { energy = new { min = 1450, target = 1525, max = 1600 } }, rule = (object?)null };

    private async Task<Guid> EaterAsync(string name) => (Guid)(await host.PostAsync("/api/aim/eaters", new { name, aim = Aim }))["id"]!;

    private async Task<Guid> RecipeAsync(string name, int portions, params string[] lines) =>
        (Guid)(await host.PostAsync("/api/recipes", new { name, lines, portions }))["id"]!;

    private async Task<JsonNode> PlanAsync(Guid recipe, int portions, string day = Prep) =>
        (await host.PostAsync("/api/cook/planned", new { day, dishes = new[] { new { recipeId = recipe, portions } } }))[0]!;

    private async Task<JsonNode> LayAsync(string text, string day = Sunday, Guid? eater = null)
    {
        await host.PostAsync("/api/plan/foods", new { eaterId = eater ?? isa, day, place = 0, text }, await host.PlanVersionAsync());
        return (await host.GetAsync($"/api/eat/{eater ?? isa}/{day}"))["day"]!["items"]!.AsArray().Single(item =>
            (string?)item!["text"] == text)!;
    }

    /// <summary>Isa, and a dal of 400 g lentils, 200 g onion and 100 g frozen spinach for 4, planned for 8.</summary>
    private async Task<JsonNode> OpenAsync()
    {
        isa = await EaterAsync("Isa");
        dal = await RecipeAsync("Dal", 4, "400 g red lentils, dry", "180 g onion", "100 g frozen spinach", "salt, to taste");
        return await PlanAsync(dal, 8);
    }

    private Task<JsonNode> ListAsync(string until = "") => host.GetAsync("/api/shop/list" + until);

    private static IEnumerable<JsonNode> Foods(JsonNode list) =>
        list["aisles"]!.AsArray().SelectMany(aisle => aisle!["foods"]!.AsArray()).OfType<JsonNode>();

    private static JsonNode? Line(JsonNode list, string food) => Foods(list).SingleOrDefault(line => (string)line["key"]! == food);

    private static string Said(JsonNode? line) => line is null ? "not on it" : $"{line["state"]} {line["said"]}";

    private async Task<string> OnListAsync(string food) => Said(Line(await ListAsync(), food));

    private static object Ticked(string key, decimal grams, int second = 0, bool isTicked = true) =>
        new { key, isTicked, grams, at = $"2026-11-25T00:00:{second:00}Z" };

    private Task<JsonNode> TickAsync(params object[] ticks) => host.PostAsync("/api/shop/ticks", new { ticks });

    private async Task<JsonNode> StoreAsync(string text, string? useBy = null) =>
        await host.PostAsync("/api/shop/pantry", new { text, useBy });

    private async Task<decimal?> InHouseAsync(string name)
    {
        var items = (await host.GetAsync("/api/shop/pantry"))["items"]!.AsArray().Where(item => (string)item!["name"]! == name).ToList();
        return items.Count == 0 ? null : items.Sum(item => (decimal)item!["grams"]!);
    }

    private async Task<(int Status, string Code)> RefusedAsync(HttpMethod method, string path, object? body, int? version = null)
    {
        var (status, answer) = await host.SendAsync(method, path, body, version);
        return (status, ((string?)answer["type"] ?? "").Split(':')[^1]);
    }

    [Fact]
    public async Task The_list_is_of_all_that_is_planned_less_what_is_in_the_house()
    {
        await OpenAsync();
        await LayAsync("300 g strawberries");
        await LayAsync("140 g white rice, cooked", Prep);
        var list = await ListAsync();
        Assert.Equal("toBuy 2 × 500 g", Said(Line(list, "red-lentils-dry"))); // 800 g in bags of 500 g
        Assert.Equal(200, (decimal)Line(list, "red-lentils-dry")!["over"]!);
        Assert.Equal(("toBuy some", 0m), (Said(Line(list, "salt")), (decimal)Line(list, "salt")!["buy"]!));
        Assert.Equal(400, (decimal)Line(list, "onion")!["need"]!); // 360 g and their peel
        Assert.Equal(50, (decimal)Line(list, "white-rice-dry")!["need"]!); // boiled rice is 2.8 of dry: factor 2.80 of the table
        Assert.Equal(("Isa", Sunday),
            ((string)Line(list, "strawberries")!["for"]![0]!["name"]!, (string)Line(list, "strawberries")!["for"]![0]!["day"]!));
        Assert.Equal(Sunday, (string)list["lastDay"]!);
        Assert.Null(Line(await ListAsync("?until=" + Prep), "strawberries"));

        await StoreAsync("500 g red lentils, dry");
        await host.PostAsync("/api/shop/pantry", new { text = "salt", isEnough = true });
        list = await ListAsync();
        Assert.Equal(("toBuy 500 g", "inHouse "), (Said(Line(list, "red-lentils-dry")), Said(Line(list, "salt"))));
        Assert.All(Foods(list), line => Assert.Equal(
            (decimal)line["need"]! + (decimal)line["over"]!, (decimal)line["buy"]! + (decimal)line["have"]!));
    }

    [Fact]
    public async Task What_is_ticked_comes_home_into_the_pantry_and_goes_into_the_pot()
    {
        var batch = await OpenAsync();
        await host.PostAsync("/api/shop/own", new { text = "kitchen paper" });
        await host.PostAsync("/api/shop/own", new { text = "300 g frozen spinach" });
        Assert.Equal("toBuy 600 g", await OnListAsync("spinach-frozen")); // 200 g for the dal and 300 g, in bags of 450 g and 600 g
        var own = (await ListAsync())["aisles"]!.AsArray().SelectMany(aisle => aisle!["written"]!.AsArray()).Single()!;
        await TickAsync(Ticked("red-lentils-dry", 1000), Ticked("spinach-frozen", 500), Ticked((string)own["key"]!, 0));
        Assert.Equal("inBasket 1 kg", await OnListAsync("red-lentils-dry"));

        var put = await host.PostAsync("/api/shop/put-away", null);
        Assert.Equal((1000, 500), (await InHouseAsync("red lentils, dry"), await InHouseAsync("spinach, frozen")));
        Assert.Equal("inHouse ", await OnListAsync("spinach-frozen"));
        Assert.DoesNotContain((await ListAsync())["aisles"]!.AsArray(), aisle => aisle!["written"]!.AsArray().Count > 0);
        Assert.Equal((422, "basket-empty"), await RefusedAsync(HttpMethod.Post, "/api/shop/put-away", null));

        // Taken back it is as it was; and put away again.
        await host.PostAsync("/api/shop/put-away/undo", put);
        Assert.Null(await InHouseAsync("spinach, frozen"));
        Assert.Equal("inBasket 500 g", await OnListAsync("spinach-frozen"));
        await host.PostAsync("/api/shop/put-away", null);
        Assert.Equal((412, "stale"), await RefusedAsync(HttpMethod.Post, "/api/shop/put-away/undo", put));

        // Cooked: 800 g and 200 g are gone; corrected to 150 g of spinach, 50 g are back; forgotten, all of it is.
        var cooked = await host.PostAsync($"/api/cook/planned/{batch["id"]}/cooked", null, (int)batch["version"]!);
        Assert.Equal((200, 300), (await InHouseAsync("red lentils, dry"), await InHouseAsync("spinach, frozen")));
        var corrected = await host.MustAsync(HttpMethod.Put, $"/api/cook/batches/{batch["id"]}/lines/2",
            new { text = "150 g frozen spinach" }, (int)cooked["version"]!);
        Assert.Equal(350, await InHouseAsync("spinach, frozen"));
        await host.MustAsync(HttpMethod.Put, $"/api/cook/batches/{batch["id"]}/lines/2", new { text = "" }, (int)corrected["version"]!);
        Assert.Equal(500, await InHouseAsync("spinach, frozen"));
    }

    [Fact]
    public async Task What_was_written_on_stays_until_all_of_it_is_bought()
    {
        await OpenAsync();
        await host.PostAsync("/api/shop/own", new { text = "1 kg frozen spinach" });
        await TickAsync(Ticked("spinach-frozen", 450));
        await host.PostAsync("/api/shop/put-away", null);
        Assert.Equal(1200, (decimal)Line(await ListAsync(), "spinach-frozen")!["need"]!); // 200 g for the dal and the kilogram
        await TickAsync(Ticked("spinach-frozen", 900, 1));
        await host.PostAsync("/api/shop/put-away", null);
        Assert.Equal(200, (decimal)Line(await ListAsync(), "spinach-frozen")!["need"]!);
        Assert.Equal(1350, await InHouseAsync("spinach, frozen"));
    }

    [Fact]
    public async Task What_is_eaten_plain_leaves_the_pantry_and_comes_back_when_it_was_not()
    {
        await OpenAsync();
        var jar = await StoreAsync("500 g skyr", "2026-12-20");
        var fresh = await StoreAsync("450 g skyr", "2026-11-27");
        var item = await LayAsync("150 g skyr", Today);
        async Task EatAsync(bool eaten) =>
            await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{item["id"]}", new { eaten }, await host.PlanVersionAsync());
        async Task<decimal> LeftAsync(JsonNode of) =>
            (decimal)(await host.GetAsync("/api/shop/pantry"))["items"]!.AsArray().Single(one =>
            (string)one!["id"]! == (string)of["id"]!)!["grams"]!;
        await EatAsync(true);
        Assert.Equal((500, 300), (await LeftAsync(jar), await LeftAsync(fresh))); // what keeps least long goes first
        await EatAsync(false);
        Assert.Equal((500, 450), (await LeftAsync(jar), await LeftAsync(fresh)));

        // Counted after it was eaten the count stands, whatever is corrected before it.
        await EatAsync(true);
        var now = (await host.GetAsync("/api/shop/pantry"))["first"]![0]!;
        Assert.Equal(("skyr, plain", true), ((string)now["name"]!, (bool)now["isToUseFirst"]!));
        var set = await host.MustAsync(HttpMethod.Put, $"/api/shop/pantry/{fresh["id"]}",
            new { text = "200 g", useBy = "2026-11-27", isFirst = false }, (int)now["version"]!);
        Assert.Equal(200, (decimal)set["grams"]!);
        await EatAsync(false);
        Assert.Equal((500, 200), (await LeftAsync(jar), await LeftAsync(fresh)));
        Assert.Equal((412, "stale"),
            await RefusedAsync(HttpMethod.Put, $"/api/shop/pantry/{fresh["id"]}",
            new { text = "none", useBy = (string?)null, isFirst = false }, (int)now["version"]!));
    }

    [Fact]
    public async Task Two_phones_that_were_offline_agree()
    {
        await OpenAsync();

        // One ticked and took back, the other ticked between; sent in either order, and sent again.
        object[] first = [Ticked("onion", 400, 1), Ticked("onion", 400, 3, isTicked: false)],
            second = [Ticked("onion", 500, 2), Ticked("spinach-frozen", 200, 5)];
        await TickAsync(second);
        await TickAsync(first);
        await TickAsync(second);
        Assert.Equal(("toBuy", "inBasket"),
            ((await OnListAsync("onion")).Split(' ')[0], (await OnListAsync("spinach-frozen")).Split(' ')[0]));

        // A clock that runs a year ahead ticks now, and does not hold the line for a year.
        object Ahead(bool isTicked, int second) => new { key = "onion", isTicked, grams = 400, at = $"2027-11-25T09:00:{second:00}Z" };
        await TickAsync(Ahead(true, 1));
        Assert.Equal("inBasket", (await OnListAsync("onion")).Split(' ')[0]);
        await TickAsync(Ahead(true, 2), Ahead(false, 3));
        Assert.Equal("toBuy", (await OnListAsync("onion")).Split(' ')[0]);
    }

    [Fact]
    public async Task A_tick_for_what_is_gone_is_kept_as_bought()
    {
        var batch = await OpenAsync();
        await host.MustAsync(HttpMethod.Delete, $"/api/cook/batches/{batch["id"]}", null, (int)batch["version"]!);
        var answer = await TickAsync(Ticked("spinach-frozen", 200), Ticked("no-such-food", 5), Ticked("item:" + Guid.NewGuid(), 0));
        Assert.Equal("spinach, frozen", (string)Assert.Single(answer["gone"]!.AsArray())!);
        var line = Line(answer["list"]!, "spinach-frozen")!;
        Assert.Equal((true, "inBasket", 200m), ((bool)line["isNotNeeded"]!, (string)line["state"]!, (decimal)line["over"]!));
        await host.PostAsync("/api/shop/put-away", null);
        Assert.Equal(200, await InHouseAsync("spinach, frozen"));
    }

    /// <summary>A litre of milk weighs 1,031 g, and is one litre in a shop.</summary>
    [Theory]
    [InlineData("1 l whole milk", "whole-milk", "toBuy 1 l")]
    [InlineData("500 ml whole milk", "whole-milk", "toBuy 500 ml")]
    [InlineData("1.2 l whole milk", "whole-milk", "toBuy 1 l + 500 ml")]
    [InlineData("2 l vegetable stock", "vegetable-stock", "toBuy 2 × 1 l")]
    [InlineData("2 x 400 ml tin light coconut milk", "coconut-milk-light", "toBuy 2 × 400 ml")]
    [InlineData("1 tin light coconut milk", "coconut-milk-light", "toBuy 400 ml")]
    public async Task What_is_sold_by_volume_is_bought_by_volume(string line, string food, string said)
    {
        await host.PostAsync("/api/shop/own", new { text = line });
        Assert.Equal(said, await OnListAsync(food));
        var listed = Line(await ListAsync(), food)!;
        Assert.Equal((decimal)listed["need"]! + (decimal)listed["over"]!, (decimal)listed["buy"]! + (decimal)listed["house"]!);
    }

    [Fact]
    public async Task The_household_says_what_a_bottle_fills()
    {
        await host.PostAsync("/api/shop/own", new { text = "1.5 l whole milk" });
        object Sold(decimal ml) => new { packages = new[] { new { grams = 0, price = 0.9, ml } }, isLoose = false, aisle = (string?)null };
        await host.MustAsync(HttpMethod.Put, "/api/shop/foods/whole-milk", Sold(750), 0);
        var line = Line(await ListAsync(), "whole-milk")!;
        Assert.Equal(("toBuy 2 × 750 ml", 1.8m), (Said(line), (decimal)line["cost"]!));
        Assert.Equal(750, (decimal)(await host.GetAsync("/api/shop/foods/whole-milk"))["sold"]!["packages"]![0]!["ml"]!);
        foreach (var (food, ml, code) in new[]
        {
            ("whole-milk", 0m, "package-ml"), ("whole-milk", -1m, "package-ml"), ("whole-milk", 9e5m, "package-ml"),
            ("whole-milk", 1e9m, "volume-absurd"), ("whole-milk", 1e-28m, "volume-absurd"), ("cod-fillet", 750m, "package-ml"),
        })
        {
            var refused = await host.SendAsync(HttpMethod.Put, $"/api/shop/foods/{food}", Sold(ml), food is "cod-fillet" ? 0 : 1);
            Assert.Equal((422, code), (refused.Status, (string)refused.Body!["errors"]![0]!["code"]!));
        }
    }

    [Fact]
    public async Task Another_food_stands_in_for_one_that_is_not_sold()
    {
        var batch = await OpenAsync();
        await LayAsync("60 g frozen spinach", Sunday);
        var version = await host.PlanVersionAsync();
        await host.PostAsync("/api/plan/portions", new { batchId = batch["id"], eaterId = isa, day = Sunday, place = 0, grams = 300 },
            version);
        var sheet = await host.GetAsync("/api/shop/foods/spinach-frozen");
        Assert.Equal("frozen", (string)sheet["aisle"]!);

        var tried = await host.PostAsync("/api/shop/foods/spinach-frozen/instead/try", new { insteadId = "kale-frozen", perGram = 0.5 });
        Assert.Equal(("kale, frozen", 1, 1), ((string)tried["name"]!, tried["batches"]!.AsArray().Count, tried["days"]!.AsArray().Count));
        var (before, after) = ((decimal)tried["days"]![0]!["before"]!["value"]!, (decimal)tried["days"]![0]!["after"]!["value"]!);
        Assert.NotEqual(before, after);
        Assert.Null(Line(await ListAsync(), "kale-frozen")); // only tried

        var made = await host.PostAsync("/api/shop/foods/spinach-frozen/instead", new { insteadId = "kale-frozen", perGram = 0.5 });
        var day = (await host.GetAsync($"/api/eat/{isa}/{Sunday}"))["day"]!;
        Assert.Equal(after, (decimal)day["sums"]!["energy"]!["value"]!); // what was said is what it is
        var list = await ListAsync();
        Assert.Null(Line(list, "spinach-frozen"));
        Assert.Equal("spinach, frozen", (string)Line(list, "kale-frozen")!["insteadOf"]![0]!);
        // half of 200 g and of 60 g
        Assert.Equal([100m, 30m], Line(list, "kale-frozen")!["for"]!.AsArray().Select(need => (decimal)need!["grams"]!));
        Assert.Contains("kale, frozen, for spinach, frozen",
            (string)(await host.GetAsync($"/api/cook/batches/{batch["id"]}"))["lines"]![2]!["text"]!);

        // Back again: the dish by itself, the day as any change of it.
        var with = (await host.GetAsync("/api/shop/foods/kale-frozen"))["instead"]![0]!["with"]!.DeepClone();
        await host.PostAsync("/api/shop/foods/kale-frozen/instead/back", new { batches = new[] { (Guid)batch["id"]! }, with });
        await host.PostAsync($"/api/plan/changes/{made["changeId"]}/undo", null);
        Assert.Equal((before, "not on it"),
            ((decimal)(await host.GetAsync($"/api/eat/{isa}/{Sunday}"))["day"]!["sums"]!["energy"]!["value"]!,
            await OnListAsync("kale-frozen")));
    }

    [Fact]
    public async Task Nobody_is_given_a_food_in_place_of_another_who_must_never_get_it()
    {
        var batch = await OpenAsync();
        var row = (await host.GetAsync("/api/aim/eaters"))[0]!;
        await host.MustAsync(HttpMethod.Put, $"/api/aim/eaters/{isa}",
            new { name = "Isa", aim = Aim, ways = new { neverAllergens = new[] { "milk" } } }, (int)row["version"]!);
        var body = new { insteadId = "butter", perGram = 1 };
        // none of it is hers yet
        Assert.Equal(200, (await host.SendAsync(HttpMethod.Post, "/api/shop/foods/spinach-frozen/instead/try", body)).Status);
        await host.PostAsync("/api/plan/portions", new { batchId = batch["id"], eaterId = isa, day = Sunday, place = 0, grams = 300 },
            await host.PlanVersionAsync());
        Assert.Equal((422, "never-for"), await RefusedAsync(HttpMethod.Post, "/api/shop/foods/spinach-frozen/instead", body));
        Assert.DoesNotContain("milk", (await host.GetAsync("/api/shop/foods/red-lentils-dry"))["standIns"]!.ToJsonString());
    }

    [Fact]
    public async Task The_list_is_taken_along_on_paper_and_on_a_phone()
    {
        await OpenAsync();
        await host.PostAsync("/api/shop/own", new { text = "<script>alert(1)</script>, =1+1" });
        await TickAsync(Ticked("spinach-frozen", 200));
        var markdown = await host.Http.GetStringAsync("/api/shop/list.md");
        Assert.Contains("- [ ] 2 × 500 g red lentils, dry (Dal)", markdown);
        Assert.Contains("- [x] 200 g spinach, frozen (Dal)", markdown);
        Assert.Contains("\\<script\\>", markdown);
        var csv = (await host.Http.GetStringAsync("/api/shop/list.csv")).Split("\r\n");
        Assert.Equal("aisle,name,amount,grams,cost,note,ticked", csv[0]);
        Assert.Contains("\"Grains, pulses and flour\",\"red lentils, dry\",2 × 500 g,1000,,Dal,no", csv);
        using var answer = await host.Http.GetAsync("/api/shop/list.html");
        var page = await answer.Content.ReadAsStringAsync();
        Assert.Equal("attachment", answer.Content.Headers.ContentDisposition!.DispositionType);
        Assert.Contains("&lt;script&gt;alert(1)&lt;/script&gt;", page);
        // it needs nothing else
        Assert.DoesNotContain("http", page.Replace(host.Http.BaseAddress!.ToString(), "", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Prices_and_packages_are_the_households_own()
    {
        await OpenAsync();
        Assert.Equal((422, "package-grams"), await RefusedAsync(HttpMethod.Put, "/api/shop/foods/onion", Sold(0, 1), 0));
        await host.MustAsync(HttpMethod.Put, "/api/shop/foods/red-lentils-dry", Sold(400, 1.2m), 0);
        Assert.Equal((412, "stale"), await RefusedAsync(HttpMethod.Put, "/api/shop/foods/red-lentils-dry", Sold(400, 2), 0));
        var list = await ListAsync();
        Assert.Equal(("toBuy 2 × 400 g", 2.4m), (Said(Line(list, "red-lentils-dry")), (decimal)list["cost"]!));
        var dish = list["batches"]![0]!;
        // 800 g at 0.003, for eight; onion and spinach have none
        Assert.Equal((0.3m, 2), ((decimal)dish["perPortion"]!, (int)dish["unpriced"]!));
        var aisles = await host.GetAsync("/api/shop/aisles");
        var turned = aisles["aisles"]!["inOrder"]!.AsArray().Reverse().Select(aisle => aisle!.DeepClone()).ToArray();
        await host.MustAsync(HttpMethod.Put, "/api/shop/aisles", new { inOrder = turned, currency = "€" }, 0);
        Assert.Equal("€", (string)(await ListAsync())["currency"]!);
        Assert.Equal("greens", (string)(await ListAsync())["aisles"]!.AsArray()[^1]!["id"]!);

        static object Sold(decimal grams, decimal price) =>
            new { packages = new[] { new { grams, price } }, isLoose = false, aisle = (string?)null };
    }

    [Fact]
    public async Task Stock_is_taken_by_a_list_and_can_be_taken_back()
    {
        await OpenAsync();
        await StoreAsync("500 g red lentils, dry", "2026-12-24");
        await StoreAsync("2 kg potato");
        Assert.Equal((422, "line-unread"),
            await RefusedAsync(HttpMethod.Post, "/api/shop/pantry/stocktaking",
            new { lines = new[] { "250 g red lentils, dry", "three glorbs" } }));
        Assert.Equal(500, await InHouseAsync("red lentils, dry")); // nothing of it was taken in
        var step = await host.PostAsync("/api/shop/pantry/stocktaking",
            new { lines = new[] { "250 g red lentils, dry", "", "1 kg onion" }, isAll = true });
        Assert.Equal((250m, 1000m, (decimal?)null),
            (await InHouseAsync("red lentils, dry") ?? 0, await InHouseAsync("onion") ?? 0, await InHouseAsync("potato")));
        Assert.Equal("2026-12-24", (string)(await host.GetAsync("/api/shop/pantry?find=lentil"))["items"]![0]!["useBy"]!);
        await host.PostAsync("/api/shop/pantry/undo", step);
        Assert.Equal((500m, null, 2000m),
            (await InHouseAsync("red lentils, dry"), await InHouseAsync("onion"), await InHouseAsync("potato")));
        Assert.Equal((412, "stale"), await RefusedAsync(HttpMethod.Post, "/api/shop/pantry/undo", step));
    }

    /// <summary>Said without an amount there is enough of it; what is counted is whole, with shell and liquid.</summary>
    [Theory]
    [InlineData("olive oil", "olive oil", null)]
    [InlineData("salt", "salt", null)]
    [InlineData("6 eggs", "egg, whole", 341)]
    [InlineData("2 tins kidney beans", "kidney beans, canned, drained", 800)]
    [InlineData("1 kg white rice", "white rice, dry", 1000)]
    public async Task What_is_in_the_house_is_typed_in_a_hurry(string text, string name, int? grams)
    {
        var item = await StoreAsync(text);
        Assert.Equal((name, (decimal?)grams), ((string)item["name"]!, item["grams"] is { } there ? Math.Round((decimal)there) : null));
    }

    [Theory]
    [InlineData("POST", "/api/shop/own", """{"text": "  "}""", "item-text")]
    [InlineData("POST", "/api/shop/ticks", """{"ticks": [{"key": "", "isTicked": true, "grams": 1, "at": "2026-11-25T09:00:00Z"}]}""", "tick-key")]
    [InlineData("POST", "/api/shop/ticks", """{"ticks": [{"key": "salt", "isTicked": true, "grams": -1, "at": "2026-11-25T09:00:00Z"}]}""", "tick-grams")]
    [InlineData("POST", "/api/shop/pantry", """{"text": "three glorbs"}""", "food-unknown")]
    [InlineData("POST", "/api/shop/pantry/stocktaking", """{"lines": []}""", "pantry-nothing")]
    [InlineData("POST", "/api/shop/foods/spinach-frozen/instead", """{"insteadId": "kale-frozen", "perGram": 0}""", "instead-amount")]
    [InlineData("POST", "/api/shop/foods/spinach-frozen/instead", """{"insteadId": "spinach-frozen"}""", "instead-same")]
    [InlineData("POST", "/api/shop/foods/spinach-frozen/instead", """{"insteadId": "kale-frozen"}""", "instead-nothing")]
    [InlineData("POST", "/api/shop/foods/gone/instead", """{"insteadId": "kale-frozen"}""", "not-found")]
    [InlineData("DELETE", "/api/shop/own/0199b3a0-0000-7000-8000-000000000000", null, "not-found")]
    [InlineData("PUT", "/api/shop/aisles", """{"inOrder": [], "currency": ""}""", "aisles-many")]
    public async Task What_can_not_be_is_said(string method, string path, string? body, string code)
    {
        var (status, said) = await RefusedAsync(new HttpMethod(method), path, body, 0);
        Assert.True(status is 422 or 404, $"{status}");
        Assert.Equal(code, said);
    }

    /// <summary>
    /// Whatever is planned, bought, put away, cooked, corrected, eaten and taken back: the list adds up, no pantry falls below nothing, and
    /// what came into the house is there or was taken by something that is named. No gram is lost.
    /// </summary>
    [Theory]
    [MemberData(nameof(Chances))]
    public async Task No_gram_is_lost(int seed)
    {
        var chance = new Random(seed);
        var batches = new List<JsonNode> { await OpenAsync() };
        var items = new List<JsonNode>();
        decimal came = 0;
        for (var step = 0; step < 25; step++)
        {
            switch (chance.Next(8))
            {
                case 0: batches.Add(await PlanAsync(dal, chance.Next(1, 9))); break;
                case 1: items.Add(await LayAsync($"{chance.Next(20, 200)} g frozen spinach", Today)); break;
                case 2:
                    var grams = chance.Next(1, 400);
                    await StoreAsync($"{grams} g frozen spinach");
                    came += grams;
                    break;
                case 3: await TickAsync(Ticked("spinach-frozen", chance.Next(0, 3) * 100 + 50, step, chance.Next(4) > 0)); break;
                case 4:
                    var (status, put) = await host.SendAsync(HttpMethod.Post, "/api/shop/put-away");
                    if (status != 200) break;
                    if (chance.Next(3) == 0) await host.PostAsync("/api/shop/put-away/undo", put);
                    else came += put["ticks"]!.AsArray().Sum(tick => (decimal)tick!["grams"]!);
                    break;
                case 5:
                    var batch = await host.GetAsync($"/api/cook/batches/{batches[chance.Next(batches.Count)]["id"]}");
                    if ((string)batch["state"]! == "planned") await host.PostAsync($"/api/cook/planned/{batch["id"]}/cooked", null,
                        (int)batch["version"]!);
                    else await host.MustAsync(HttpMethod.Put, $"/api/cook/batches/{batch["id"]}/lines/2",
                        new { text = chance.Next(3) == 0 ? null : $"{chance.Next(0, 500)} g frozen spinach" }, (int)batch["version"]!);
                    break;
                default:
                    if (items.Count == 0) break;
                    var item = items[chance.Next(items.Count)];
                    await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{item["id"]}", new { eaten = chance.Next(2) == 0 },
                        await host.PlanVersionAsync());
                    break;
            }

            await using var scope = host.Services.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<TernDb>();
            var there = await db.Pantry.Where(row => row.FoodId == "spinach-frozen").ToListAsync();
            Assert.All(there, row => Assert.True(row.Milligrams >= 0));
            Assert.Equal((long)(came * 1000), there.Sum(row => row.Milligrams) + await db.PantryUses.SumAsync(use => use.Milligrams));
            Assert.All(Foods(await ListAsync()), line => Assert.Equal(
                (decimal)line["need"]! + (decimal)line["over"]!, (decimal)line["buy"]! + (decimal)line["have"]!));
        }
    }
}
