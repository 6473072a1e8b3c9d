using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>The stateless calculations: a contract for anyone's scripts.</summary>
public sealed class CalculationTests(SharedHost shared) : IClassFixture<SharedHost>
{
    private readonly Host host = shared.Host;

    [Fact]
    public async Task A_recipe_is_computed_whole()
    {
        var answer = await host.PostAsync("/api/calc/recipe",
            new { lines = new[] { "600 g red lentils, dry", "2 tbsp rapeseed oil" }, portions = 6 });
        Assert.Equal(628m, (decimal)answer["batch"]!["grams"]!);
        Assert.Equal((600m * 3.58m) + (28m * 8.84m), (decimal)answer["batch"]!["figures"]!["energy"]!["value"]!);
        Assert.Equal(399.25m, Math.Round((decimal)answer["portion"]!["figures"]!["energy"]!["value"]!, 2));
        foreach (var measure in new[] { "energy", "protein", "fat", "carbohydrate", "fibre" })
            Assert.True((bool)answer["portion"]!["figures"]![measure]!["complete"]!);

        // A rule that nobody chose counts nothing.
        Assert.Null(answer["portion"]!["figures"]!["points"]);
        Assert.Null(answer["exactPoints"]);
        Assert.Equal(1m, Math.Round(answer["lines"]!.AsArray().Sum(line => (decimal)line!["shares"]!["energy"]!), 20));
        Assert.Empty(answer["notUnderstood"]!.AsArray());
    }

    [Fact]
    public async Task Lines_not_understood_are_named_and_the_rest_reads_at_least()
    {
        var answer = await host.PostAsync("/api/calc/recipe",
            new { lines = new[] { "100 g rolled oats", "a fistful of fog", "" }, portions = 1 });
        Assert.Equal(["a fistful of fog", ""], answer["notUnderstood"]!.AsArray().Select(line => (string)line!));
        Assert.False((bool)answer["batch"]!["figures"]!["energy"]!["complete"]!);
        Assert.Equal(379m, (decimal)answer["batch"]!["figures"]!["energy"]!["value"]!);
    }

    [Fact]
    public async Task An_unknown_figure_is_named_with_its_food()
    {
        var answer = await host.PostAsync("/api/calc/recipe",
            new { lines = new[] { "400 ml light coconut milk", "100 g carrot" }, portions = 2 });
        Assert.False((bool)answer["portion"]!["figures"]!["fibre"]!["complete"]!);
        Assert.Equal("coconut milk, light", (string)answer["portion"]!["missing"]!["fibre"]![0]!);
        Assert.True((bool)answer["portion"]!["figures"]!["energy"]!["complete"]!);
    }

    [Fact]
    public async Task A_weight_is_divided()
    {
        var answer = await host.PostAsync("/api/calc/portions", new { grams = 745, portions = 6 });
        Assert.Equal([125m, 124, 124, 124, 124, 124], answer["portions"]!.AsArray().Select(portion => (decimal)portion!));
        Assert.Equal(0m, (decimal)answer["over"]!);
        var pieces = await host.PostAsync("/api/calc/portions", new { pieces = 13, portions = 4 });
        Assert.Equal(1m, (decimal)pieces["over"]!);
    }

    [Fact]
    public async Task A_day_is_held_against_an_aim()
    {
        var answer = await host.PostAsync("/api/calc/day", new
        {
            items = new object[] { new { line = "100 g rolled oats" },
                new { name = "harbour soup", figures = new { energy = 500, protein = 20 } } },
            aim = new
            {
                leading = "energy",
                bands = new { energy = new { max = 800 }, protein = new { min = 40 }, fat = (object?)null },
                rule = (object?)null
            },
        });
        Assert.Equal(879m, (decimal)answer["sums"]!["energy"]!["value"]!);
        Assert.Equal(79m, (decimal)answer["bands"]!["energy"]!["over"]!);
        Assert.Equal(6.8m, (decimal)answer["bands"]!["protein"]!["roomFrom"]!);
        Assert.Equal("harbour soup", (string)answer["missing"]!["fat"]![0]!);
        Assert.False((bool)answer["fits"]!);
    }

    [Fact]
    public async Task Lines_are_parsed_with_what_was_not_understood()
    {
        var lines = (
            await host.PostAsync("/api/calc/parse",
            new { lines = new[] { "1/3 cup oat milk", "1 cup beef liver", "50 g sauce" } }))["lines"]!.AsArray();
        Assert.Equal(80m, Math.Round((decimal)lines[0]!["grams"]!, 3));
        Assert.True((bool)lines[0]!["about"]!);
        Assert.Equal("cup", (string)lines[1]!["missingMeasure"]!["measure"]!);
        Assert.Equal(("open", "food-ambiguous"), ((string)lines[2]!["standing"]!, (string)lines[2]!["problem"]!["code"]!));
        var candidates = lines[2]!["candidates"]!.AsArray().Select(food => (string)food!["name"]!);
        Assert.All(["fish sauce", "oyster sauce", "soy sauce"], sauce => Assert.Contains(sauce, candidates));
    }

    [Fact]
    public async Task A_line_comes_back_in_its_parts()
    {
        var lines = (
            await host.PostAsync("/api/calc/parse",
            new { lines = new[] { "2 x 400 g tin chickpeas, drained", "2-3 tbsp olive oil", "salt, to taste" } }))["lines"]!.AsArray();
        var parts = lines.Select(line => line!["parts"]!).ToList();
        Assert.Equal((2m, 400m, "g", "drained"),
            ((decimal)parts[0]["pack"]!["count"]!, (decimal)parts[0]["pack"]!["each"]!, (string)parts[0]["pack"]!["unit"]!,
            (string)parts[0]["note"]!));
        Assert.Equal(480m, (decimal)lines[0]!["grams"]!);
        Assert.Equal((2m, 3m, "tbsp", "olive oil"),
            ((decimal)parts[1]["from"]!, (decimal)parts[1]["to"]!, (string)parts[1]["unit"]!, (string)parts[1]["foodText"]!));
        Assert.Equal((null, "to taste", true), ((decimal?)parts[2]["from"], (string)parts[2]["note"]!, (bool)lines[2]!["trace"]!));
    }

    /// <summary>Against the table that ships: what recipes say in their own ways, and the questions where only a kitchen knows.</summary>
    [Theory]
    [InlineData("- 500 g (1 lb 2 oz) potatoes", "potato", 500)]
    [InlineData("4 chicken breasts (180 g each), diced", "chicken-breast-raw", 720)]
    [InlineData("1 onion (about 150g), finely chopped", "onion", 150)]
    [InlineData("courgettes 2 medium", "courgette", 392)]
    [InlineData("1 tin coconut milk", "coconut-milk", 400)]
    [InlineData("2 fillets of salmon", "salmon-fillet", 396)]
    [InlineData("2 bay leaves", "bay-leaf", 1.2)]
    [InlineData("a dozen eggs", "egg", 600)]
    public async Task A_copied_list_is_read(string line, string food, decimal grams)
    {
        var read = (await host.PostAsync("/api/calc/parse", new { lines = new[] { line } }))["lines"]![0]!;
        Assert.Null(read["problem"]);
        Assert.Equal((food, grams), ((string)read["food"]!["id"]!, (decimal)read["grams"]!));
        Assert.Equal(line.Contains("lb") ? "1 1/8 lb" : null, (string?)read["parts"]!["also"]);
    }

    [Theory]
    [InlineData("1 bunch rhubarb", "rhubarb", "bunch")]
    [InlineData("2 large handfuls of chopped leeks", "leek", "large handful")]
    [InlineData("2 bags parsnips", "parsnip", "bag")]
    [InlineData("3 wedges papaya", "papaya", "wedge")]
    public async Task What_one_weighs_is_asked_and_weighed_once_it_is_known(string line, string food, string measure)
    {
        async Task<JsonNode> ReadAsync() => (await host.PostAsync("/api/calc/parse", new { lines = new[] { line } }))["lines"]![0]!;
        var missing = (await ReadAsync())["missingMeasure"]!;
        Assert.Equal((food, measure), ((string)missing["foodId"]!, (string)missing["measure"]!));
        await host.MustAsync(HttpMethod.Put, $"/api/foods/{food}/measures", new { measure, grams = 25 });
        var read = await ReadAsync();
        Assert.Equal(25 * (decimal)read["parts"]!["from"]!, (decimal)read["grams"]!);
    }

    /// <summary>36 scoops of protein powder and lentils, with what is in the house and how it is sold; a line nobody knows counts nothing and is named.</summary>
    [Fact]
    public async Task A_shopping_list_adds_up_food_by_food()
    {
        var list = await host.PostAsync("/api/calc/shop", new
        {
            lines = new[] { "1.2 kg red lentils, dry", "300 g red lentils, dry", "36 scoops whey protein",
                "2 x 400 g tin chickpeas, drained", "1 kg moon dust" },
            pantry = new[] { "500 g red lentils, dry" },
            packages = new[] { new { food = "whey protein", grams = 868 }, new { food = "chickpeas, drained", grams = 400 } },
        });
        var foods = list["foods"]!.AsArray();
        Assert.Equal(["moon dust"], list["notUnderstood"]!.AsArray().Select(missed => ((string)missed!["line"]!)[5..]));
        Assert.Equal(3, foods.Count);
        Assert.All(foods, food => Assert.Equal(
            (decimal)food!["need"]! + (decimal)food["over"]!,
            (decimal)food["buy"]! + (decimal)food["have"]!));
        Assert.Equal((1500m, 500m, 1000m, 0m),
            ((decimal)foods[0]!["need"]!, (decimal)foods[0]!["have"]!, (decimal)foods[0]!["buy"]!, (decimal)foods[0]!["over"]!));
        Assert.Equal((1080m, 1736m, 656m, 2),
            ((decimal)foods[1]!["need"]!, (decimal)foods[1]!["buy"]!, (decimal)foods[1]!["over"]!,
            (int)foods[1]!["packages"]![0]!["count"]!));
        Assert.Equal((800m, 2), ((decimal)foods[2]!["need"]!, (int)foods[2]!["packages"]![0]!["count"]!));
    }
}
