using System.IO.Compression;
using System.Text;
using System.Text.Json;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Plan;
using LivelyTern.Formats.Calendar;
using LivelyTern.Formats.Foods;
using LivelyTern.Formats.Recipes;

namespace LivelyTern.Formats.Tests;

/// <summary>Files that want to hang, fill or end the program: each ends in rows or in a sentence, and soon.</summary>
public sealed class HostileFileTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("tern-hostile-").FullName;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    private string File(string text)
    {
        var path = Path.Combine(folder, Guid.NewGuid().ToString("N"));
        System.IO.File.WriteAllText(path, text);
        return path;
    }

    private string Zip(params (string Name, string Text)[] entries)
    {
        var path = Path.Combine(folder, Guid.NewGuid().ToString("N"));
        using var zip = ZipFile.Open(path, ZipArchiveMode.Create);
        foreach (var (entry, text) in entries)
        {
            using var writer = new StreamWriter(zip.CreateEntry(entry).Open());
            writer.Write(text);
        }

        return path;
    }

    private static string SentenceOf(string path) =>
        Assert.Throws<UnreadableFileException>(() => FoodFiles.Open(path).Rows().ToList()).Message;

    private static List<ImportedRow> Rows(string path) => [.. FoodFiles.Open(path).Rows()];

    [Theory]
    [InlineData("<div>", 80_000)]
    [InlineData("<b><p>", 40_000)]
    [InlineData("<table><tr><td>", 20_000)]
    [InlineData("<ul><li>", 40_000)]
    public void A_page_nested_without_end_is_told_before_it_is_parsed(string tag, int times)
    {
        var page = "<html><body>" + string.Concat(Enumerable.Repeat(tag, times)) + "</body></html>";
        Assert.Contains("nested deeper", Assert.Single(RecipeFiles.Read(page).Remarks), StringComparison.Ordinal);
        var inner = JsonSerializer.Serialize(new Dictionary<string, object>
        {
            ["@type"] = "Recipe",
            ["name"] = string.Concat(Enumerable.Repeat(tag, times)),
            ["recipeIngredient"] = new[] { "2 eggs" },
        });
        Assert.Equal("2 eggs", Assert.Single(RecipeFiles.Read(inner).Recipes).Lines[0].Text);
    }

    [Fact]
    public void A_long_flat_page_and_one_of_some_depth_are_read()
    {
        const string Recipe = """<script type="application/ld+json">{"@type": "Recipe", "name": "Soup", "recipeIngredient": ["2 eggs"]}</script>""";
        var flat = string.Concat(Enumerable.Repeat("<p>a<br><img src=x><li>b", 20_000));
        var deep = string.Concat(Enumerable.Repeat("<div>", 150)) + string.Concat(Enumerable.Repeat("</div>", 150));
        Assert.Equal("Soup", Assert.Single(RecipeFiles.Read(flat + deep + Recipe).Recipes).Name);
    }

    [Fact]
    public void A_file_of_very_many_recipes_or_of_much_that_has_no_place_says_how_many_it_left()
    {
        var many = "[" + string.Join(',', Enumerable.Repeat("""{"@type": "Recipe", "name": "Soup", "recipeIngredient": ["2 eggs"]}""", 5_000)) + "]";
        var read = RecipeFiles.Read(many);
        Assert.Equal((100, "Of 5000 recipes the first 100 were read."), (read.Recipes.Count, Assert.Single(read.Remarks)));
        var odd = string.Join(',', Enumerable.Range(0, 5_000).Select(i => $"\"own{i}\": \"x\""));
        var one = Assert.Single(RecipeFiles.Read($$"""{"@type": "Recipe", "name": "Soup", "recipeIngredient": ["2 eggs"], {{odd}}}""").Recipes);
        Assert.Equal((101, "and 4900 more"), (one.NotMapped.Count, one.NotMapped[^1]));
    }

    [Theory]
    [InlineData("recipeIngredient")]
    [InlineData("recipeInstructions")]
    public void Texts_with_tags_without_end_are_read_to_a_bound_and_the_rest_is_counted(string key)
    {
        var texts = string.Join(',', Enumerable.Repeat("\"<a\"", 5_900).Append("\"2 eggs\"").Append("\"<b>3 eggs</b>\""));
        var read = Assert.Single(RecipeFiles.Read($$"""{"@type": "Recipe", "name": "Soup", "{{key}}": [{{texts}}]}""").Recipes);
        Assert.Equal("2 eggs", read.Lines.Count > 0 ? Assert.Single(read.Lines).Text : Assert.Single(read.Steps).Text);
        Assert.Equal((key, "and 801 more"), (read.NotMapped[0], read.NotMapped[^1]));
    }

    [Fact]
    public void A_file_whose_reader_has_gone_is_read_no_further()
    {
        foreach (var text in new[] { """[{"@type": "Recipe", "name": "Soup"}]""", "400 g rolled oats" })
            Assert.Throws<OperationCanceledException>(() => RecipeFiles.Read(text, new CancellationToken(canceled: true)));
    }

    [Fact]
    public void Json_with_nulls_and_huge_amounts_is_read_food_by_food()
    {
        var rows = Rows(File("""
            {"Foods": [null, {"fdcId": 1, "description": null, "foodNutrients": null, "foodPortions": null},
             {"fdcId": 2, "description": "Oats", "foodNutrients": [null, {"nutrient": null, "amount": 1}, {"nutrient": {"number": "208"}, "amount": 370}],
              "foodPortions": [null, {"amount": 1e-28, "measureUnit": {"name": "cup"}, "gramWeight": 7e28}, {"measureUnit": {"name": "spoon"}, "gramWeight": 1e-28}, {"measureUnit": {"name": "bowl"}, "gramWeight": 300}]},
             {"fdcId": 3, "description": "Absurd", "foodNutrients": [{"nutrient": {"number": "307"}, "amount": 7.9e28}]}]}
            """));
        Assert.Equal(["it is empty", "it has no name", null, "salt is 2500000 in 100 g, more than can be"], rows.Select(row => row.Refused));
        Assert.Equal("bowl=300", rows[2].Food!.Measures);
    }

    [Fact]
    public void One_food_of_many_megabytes_is_no_food()
    {
        var text = "{\"Foods\": [{\"fdcId\": 1, \"description\": \"" + new string('x', 4 << 20) + "\"}]}";
        Assert.Contains("more than 1 MB", SentenceOf(File(text)), StringComparison.Ordinal);
        var before = "{\"note\": \"" + new string('x', 4 << 20)
            + "\", \"Foods\": [{\"fdcId\": 1, \"description\": \"a\", \"foodNutrients\": [{\"nutrient\": {\"number\": \"208\"}, \"amount\": 1}]}]}";
        Assert.Equal("a", Assert.Single(Rows(File(before))).Food!.Name);
        var many = "[" + string.Join(',', Enumerable.Range(1, 40_000).Select(i => $"{{\"fdcId\": {i}, \"description\": \"food of {i}\"}}")) + "]";
        Assert.Equal(40_000, Rows(File(many)).Count);
    }

    [Fact]
    public void A_serving_that_weighs_next_to_nothing_is_refused()
    {
        var rows = Rows(File("name,kcal,serving_grams\nDust,100,0.0000000000000000000000000001\nOats,100,50\n"));
        Assert.Equal(["its serving has no weight in grams", null], rows.Select(row => row.Refused));
    }

    [Fact]
    public void A_table_of_too_many_columns_or_with_a_row_without_end_gets_a_sentence()
    {
        var wide = "name,kcal," + string.Join(',', Enumerable.Range(0, 499).Select(i => "c" + i)) + "\n";
        Assert.Contains("more than 500 columns", SentenceOf(File(wide)), StringComparison.Ordinal);
        Assert.Contains("longer than 20 kB", SentenceOf(File("name,kcal\nOats,1\n" + new string('x', 30_000) + ",1\n")), StringComparison.Ordinal);
    }

    [Fact]
    public void A_set_in_a_zip_with_bad_ids_huge_figures_or_without_columns_ends()
    {
        const string Food = "fdc_id,description\n1,Oats\nx,Bad\n99999999999999999999,Large\n";
        const string Nutrients = "fdc_id,nutrient_id,amount\n1,1008,1e308\n1,99999999999,5\nx,y,z\n1,1003,NaN\n";
        var rows = Rows(Zip(("food.csv", Food), ("food_nutrient.csv", Nutrients),
            ("food_portion.csv", "fdc_id,amount,modifier,gram_weight\n1,1e-27,cup,7e27\n1,1,bowl,300\n")));
        Assert.Equal(["its fdc_id is not a number", "its fdc_id is not a number"], rows.Take(2).Select(row => row.Refused));
        Assert.Contains("more than can be", rows[2].Refused, StringComparison.Ordinal);
        foreach (var bad in new[] { "", "\n", "a,b\n1,2\n", "\0\0\0" })
        {
            Assert.EndsWith(".", SentenceOf(Zip(("food.csv", bad), ("food_nutrient.csv", Nutrients))));
            Assert.EndsWith(".", SentenceOf(Zip(("food.csv", Food), ("food_nutrient.csv", bad))));
        }
    }

    /// <summary>RFC 5545, 3.3.11: TEXT holds no control character; a line's end is written as backslash and n.</summary>
    [Fact]
    public void No_control_character_reaches_a_calendar()
    {
        var entry = new CalendarEntry("a", new(2026, 11, 25), null, "Soup\u0000\u001b\r\nBEGIN:VEVENT", "one\u0007\rtwo");
        var text = CalendarFile.Write("Ours\u0001\nX-EVIL:1", [entry]);
        Assert.DoesNotContain(text, letter => char.IsControl(letter) && letter is not ('\r' or '\n' or '\t'));
        Assert.Single(text.Split("\r\n"), line => line == "BEGIN:VEVENT");
        Assert.DoesNotContain(text.Split("\r\n"), line => line.StartsWith("X-EVIL", StringComparison.Ordinal));
    }
}
