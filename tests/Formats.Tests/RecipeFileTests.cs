using System.Text;
using System.Text.Json.Nodes;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;
using LivelyTern.Data.Foods;
using LivelyTern.Formats.Recipes;

namespace LivelyTern.Formats.Tests;

// schema.org/Recipe and its properties as published at https://schema.org/Recipe; durations ISO 8601.
public class RecipeFileTests
{
    private const string Full = """
        {
          "@context": "https://schema.org", "@type": "Recipe", "name": "Harbour <b>stew</b> &amp; bread",
          "image": ["https://example.invalid/a.jpg"], "author": {"@type": "Person", "name": "A. Keeper"},
          "recipeYield": ["6", "6 servings", "1.8 kg"], "prepTime": "PT20M", "cookTime": "PT1H30M", "totalTime": "soon",
          "recipeIngredient": ["600 g red lentils, dry", "2 x 400 g tin chopped tomatoes", "salt, to taste"],
          "recipeInstructions": [
            {"@type": "HowToSection", "name": "First", "itemListElement": [{"@type": "HowToStep", "text": "Soften the onions."}, {"@type": "HowToStep", "name": "Add the rest."}]},
            "Bake at 180 °C.<br>Let it rest."
          ],
          "keywords": "stew, harbour"
        }
        """;

    private static ReadRecipe One(string text)
    {
        var read = RecipeFiles.Read(text);
        Assert.Empty(read.Remarks);
        return Assert.Single(read.Recipes);
    }

    [Fact]
    public void A_recipe_is_mapped_and_what_has_no_place_is_listed()
    {
        var recipe = One(Full);
        Assert.Equal("Harbour stew & bread", recipe.Name);
        Assert.Equal(["600 g red lentils, dry", "2 x 400 g tin chopped tomatoes", "salt, to taste"],
            recipe.Lines.Select(line => line.Text));
        Assert.Equal((6, null, 1800m), (recipe.Yield.Portions, recipe.Yield.Pieces, recipe.Yield.CookedGrams));
        Assert.Equal(["Soften the onions.", "Add the rest.", "Bake at 180 °C.", "Let it rest."], recipe.Steps.Select(step => step.Text));
        var ways = StepToDo.Of(recipe.Steps).Select(step => step.Way).ToList();
        Assert.Equal((20, 90, 180), (ways.Sum(way => way.HandsOn), ways.Sum(way => way.Unattended), ways[2].Celsius));
        Assert.Equal(["image: https://example.invalid/a.jpg", "author: A. Keeper", "totalTime: soon", "keywords: stew, harbour"],
            recipe.NotMapped);
    }

    [Theory]
    [InlineData("""{"@context": "https://schema.org", "@graph": [{"@type": "WebSite"}, RECIPE]}""")]
    [InlineData("""[{"@type": "BreadcrumbList"}, RECIPE]""")]
    [InlineData("""{"@type": "WebPage", "mainEntity": RECIPE}""")]
    [InlineData("""{"@type": "ItemList", "itemListElement": [{"@type": "ListItem", "item": RECIPE}]}""")]
    [InlineData("<!doctype html><html><head><script type=\"application/ld+json\">RECIPE</script></head><body>Hi</body></html>")]
    [InlineData("<html><script>alert(1)</script><script type='application/LD+JSON; charset=utf-8'>RECIPE</script></html>")]
    public void Wherever_a_recipe_stands_it_is_found(string around) => Assert.Equal(4, One(around.Replace("RECIPE", Full)).Steps.Count);

    [Theory]
    [InlineData("\"4\"", 4, null)]
    [InlineData("4", 4, null)]
    [InlineData("\"Serves 4 people\"", 4, null)]
    [InlineData("\"makes about 24 cookies\"", 24, 24)]
    [InlineData("\"makes 12 muffins\"", 12, 12)]
    [InlineData("\"serves 6 (1 1/3 cups each)\"", 6, null)]
    [InlineData("\"Servings: 4\"", 4, null)]
    [InlineData("\"8 cups\"", 1, null)]
    [InlineData("[\"12 muffins\", \"4 servings\"]", 12, 12)] // the first that says it counts
    [InlineData("\"a crowd\"", 1, null)]
    [InlineData("\"9999999 servings\"", 1000, null)]
    public void Yields_of_all_kinds(string yield, int portions, int? pieces)
    {
        var recipe = One("{\"@type\": \"Recipe\", \"name\": \"x\", \"recipeIngredient\": [\"1 egg\"], \"recipeYield\": YIELD}".Replace("YIELD", yield));
        Assert.Equal((portions, pieces), (recipe.Yield.Portions, recipe.Yield.Pieces));
        Assert.Equal(yield.Contains("crowd"), recipe.NotMapped.Count > 0);
    }

    [Fact]
    public void A_broken_block_is_told_and_the_others_are_read()
    {
        var read = RecipeFiles.Read("<html><script type=\"application/ld+json\">{\"@type\": \"Recipe\", \"name\": </script><script type=\"application/ld+json\">" + Full + "</script></html>");
        Assert.Single(read.Recipes);
        Assert.Equal(["Block 1 of 2 is broken and was not read."], read.Remarks);
    }

    [Theory]
    [InlineData("")]
    [InlineData("   ")]
    [InlineData("{\"@type\": \"Recipe\", ")]
    [InlineData("{\"@type\": \"Person\"}")]
    [InlineData("[]")]
    [InlineData("{\"@type\": \"Recipe\", \"name\": \"a\", \"name\": \"b\"}")]
    [InlineData("<html><body>Nothing to cook</body></html>")]
    [InlineData("just a sentence without amounts")]
    public void What_is_no_recipe_gets_a_sentence(string text)
    {
        var read = RecipeFiles.Read(text);
        Assert.Empty(read.Recipes);
        Assert.All(read.Remarks, remark => Assert.EndsWith(".", remark));
        Assert.NotEmpty(read.Remarks);
    }

    [Fact]
    public void Depth_and_size_are_bounded()
    {
        Assert.NotEmpty(RecipeFiles.Read(string.Concat(Enumerable.Repeat("[", 100_000))).Remarks);
        Assert.NotEmpty(RecipeFiles.Read(new string('a', RecipeFiles.MostLetters + 1)).Remarks);
        var many = One("{\"@type\": \"Recipe\", \"name\": \"x\", \"recipeIngredient\": [" + string.Join(",",
            Enumerable.Range(0, 300).Select(i => $"\"{i + 1} eggs\"")) + ", \"" + new string('x', 400) + "\"]}");
        Assert.Equal((200, 101), (many.Lines.Count, many.NotMapped.Count));
    }

    [Fact]
    public void Scripts_in_a_text_are_not_text()
    {
        var recipe = One("{\"@type\": \"Recipe\", \"name\": \"<script>alert(1)</script>Soup\", \"recipeIngredient\": [\"<img src=x onerror=alert(1)>2 eggs\"]}");
        Assert.Equal(("Soup", "2 eggs"), (recipe.Name, recipe.Lines[0].Text));
    }

    [Fact]
    public void Plain_text_is_parted_by_its_headings()
    {
        var recipe = One("""
            # Lemon barley soup
            Serves 4

            Ingredients
            - 200 g pearl barley
            - 1 1/2 l vegetable stock
            • salt, to taste
            fresh parsley

            For the sauce:
            * 100 g plain yogurt

            Topping, to serve:
            50 g feta

            Method
            1. Simmer the barley for 45 minutes.
            2. Bake at 350 °F for 1 hour.
            """);
        Assert.Equal("Lemon barley soup", recipe.Name);
        Assert.Equal(4, recipe.Yield.Portions);
        Assert.Equal(
            [("200 g pearl barley", RecipePart.Main), ("1 1/2 l vegetable stock", RecipePart.Main), ("salt, to taste", RecipePart.Main),
                ("fresh parsley", RecipePart.Main), ("100 g plain yogurt", RecipePart.Sauce), ("50 g feta", RecipePart.Topping)],
            recipe.Lines.Select(line => (line.Text, line.Part)));
        // 350 °F is 177 °C
        Assert.Equal([(45, (int?)null), (60, 177)], StepToDo.Of(recipe.Steps).Select(step => (step.Way.Unattended, step.Way.Celsius)));
    }

    [Fact]
    public void Plain_text_without_headings_goes_by_its_amounts()
    {
        var recipe = One("Omelette\n2 eggs\n10 g butter\n1. Beat the eggs.\n2. Bake.\nEat it hot.");
        Assert.Equal(["2 eggs", "10 g butter"], recipe.Lines.Select(line => line.Text));
        Assert.Equal(["Beat the eggs.", "Bake.", "Eat it hot."], recipe.Steps.Select(step => step.Text));
    }

    [Theory]
    [InlineData("utf-8", false)]
    [InlineData("utf-8", true)]
    [InlineData("utf-16", true)]
    [InlineData("iso-8859-1", false)]
    public void Text_of_any_common_encoding_is_read(string encoding, bool mark)
    {
        const string Text = "Crème brûlée\n½ l cream\n2 eggs";
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        var chosen = Encoding.GetEncoding(encoding);
        byte[] bytes = [.. mark ? chosen.GetPreamble() : [], .. chosen.GetBytes(Text)];
        Assert.Equal(Text, TextFile.Read(bytes).TrimStart('\uFEFF'));
    }

    private static readonly WrittenRecipe Dal = new(
        "Dal <2> *hot*",
        [new("700 g red lentils, dry"), new("3 tbsp rapeseed oil"), new("50 g fat-free greek yogurt", Part: RecipePart.Topping),
            new("100 g coconut milk", Part: RecipePart.Sauce), new("10 g rapeseed oil", IsTakenOut: true)],
        new(10, 20, 4300), [new("Simmer.", HandsOn: 5, Unattended: 25, DoneWhen: "soft"), new("Rest.", Unattended: 40)]);

    private static Recipe Read(WrittenRecipe written) =>
        new RecipeBook(new FoodCatalogue(FoodTable.Read()), new Dictionary<Guid, WrittenRecipe>()).Read(written);

    [Fact]
    public void What_was_written_as_json_ld_reads_back_the_same()
    {
        var again = One(RecipeJsonLd.Write(Dal, Read(Dal)));
        Assert.Equal(Dal.Lines.Where(line => !line.IsTakenOut).Select(line => line.Text), again.Lines.Select(line => line.Text));
        Assert.Equal((10, 20, 4300m), (again.Yield.Portions, again.Yield.Pieces, again.Yield.CookedGrams));
        Assert.Equal(["Simmer. Done when: soft", "Rest."], again.Steps.Select(step => step.Text));
        Assert.Equal((5, 65), (again.Steps.Sum(step => step.HandsOn), again.Steps.Sum(step => step.Unattended)));
        Assert.Equal("Dal  *hot*", again.Name.Replace("<2>", "")); // a text with a tag in it is read as text
    }

    [Fact]
    public void Json_ld_states_only_what_is_wholly_known()
    {
        var nutrition = JsonNode.Parse(RecipeJsonLd.Write(Dal, Read(Dal)))!["nutrition"]!;
        var script = RecipeJsonLd.Write(Dal with { Name = "</script><script>alert(1)" }, Read(Dal));
        Assert.DoesNotContain("<", script, StringComparison.Ordinal);
        Assert.Equal("</script><script>alert(1)", (string?)JsonNode.Parse(script)!["name"]);
        var portion = Read(Dal).Portion.Totals;
        Assert.Equal("NutritionInformation", (string?)nutrition["@type"]);
        Assert.Equal(
            portion[Core.Measures.Nutrient.Energy].Known.ToString("0.#", System.Globalization.CultureInfo.InvariantCulture) + " calories",
            (string?)nutrition["calories"]);
        Assert.Equal("430 g", (string?)nutrition["servingSize"]);

        var unknown = Dal with { Lines = [.. Dal.Lines, new("100 g coconut milk, light")] }; // its fibre is not known
        Assert.Null(JsonNode.Parse(RecipeJsonLd.Write(unknown, Read(unknown)))!["nutrition"]!["fiberContent"]);
    }

    /// <summary>Minutes that are only usual for a verb are not handed on as though somebody had said them.</summary>
    [Theory]
    [InlineData("Fry the onions.", "Simmer 20 minutes.", null, "PT20M", null)]
    [InlineData("Fry the onions 6 minutes.", "Simmer 20 minutes.", "PT6M", "PT20M", "PT26M")]
    [InlineData("Fry the onions 6 minutes.", "Simmer.", "PT6M", null, null)]
    public void Only_minutes_that_were_said_are_handed_on(string one, string other, string? prep, string? cook, string? total)
    {
        var written = new WrittenRecipe("Dal", [new("700 g red lentils, dry")], new(4), [new(one), new(other)]);
        var node = JsonNode.Parse(RecipeJsonLd.Write(written, Read(written)))!;
        Assert.Equal((prep, cook, total), ((string?)node["prepTime"], (string?)node["cookTime"], (string?)node["totalTime"]));
    }

    [Fact]
    public void Markdown_parts_the_recipe_and_shows_signs_as_typed()
    {
        var text = RecipeMarkdown.Write(Dal, Read(Dal));
        Assert.StartsWith("# Dal \\<2\\> \\*hot\\*\n\nMakes 10 portions, 20 pieces, 430 g each.", text);
        Assert.Contains("For the sauce:\n\n- 100 g coconut milk", text);
        Assert.Contains("Topping, added at eating:\n\n- 50 g fat-free greek yogurt", text);
        Assert.Contains("- taken out again: 10 g rapeseed oil", text);
        Assert.Contains("1. Simmer. (5 min hands-on, 25 min unattended, done when soft)", text);
        Assert.Matches(@"\| energy \| \d+ kcal \|", text);
    }
}
