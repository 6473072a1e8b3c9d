using System.Text;
using FsCheck.Xunit;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Foods;
using LivelyTern.Formats.Foods;
using LivelyTern.Formats.Recipes;

namespace LivelyTern.Formats.Tests;

public sealed class RoundTripTests : IDisposable
{
    private static readonly IReadOnlyList<Food> Table = FoodTable.Read();
    private static readonly RecipeBook Book = new(new FoodCatalogue(Table), new Dictionary<Guid, WrittenRecipe>());
    private readonly string folder = Directory.CreateTempSubdirectory("tern-round-").FullName;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    private static WrittenRecipe Of(byte[] foods, byte portions, byte pieces) => new(
        "Dish of chance",
        [.. foods.Select((at, i) => new WrittenLine($"{(i * 7) + 5} g {Table[at % Table.Count].Name}"))],
        new((portions % 40) + 1, pieces > 0 ? pieces : null, (pieces * 10) + 100, MayHalve: pieces % 2 == 1),
        [.. foods.Take(3).Select((at, i) => new RecipeStep($"Step {i} with {at}.", i, i * 10))]);

    [SeededProperty(MaxTest = 40)]
    public bool Any_recipe_written_as_json_ld_reads_back_with_its_lines_yield_and_steps(byte[] foods, byte portions, byte pieces)
    {
        var written = Of(foods, portions, pieces);
        var again = RecipeFiles.Read(RecipeJsonLd.Write(written, Book.Read(written))).Recipes.Single();
        return again.Lines.Select(line => line.Text).SequenceEqual(written.Lines.Select(line => line.Text))
            && again.Yield == written.Yield
            && again.Steps.Select(step => step.Text).SequenceEqual(written.Steps!.Select(step => step.Text));
    }

    [SeededProperty(MaxTest = 40)]
    public bool Any_recipe_written_as_markdown_reads_back_with_its_lines_and_steps(byte[] foods, byte portions)
    {
        var written = Of(foods, portions, 0);
        if (foods.Length == 0) return true;
        var again = RecipeFiles.Read(RecipeMarkdown.Write(written, Book.Read(written))).Recipes.Single();
        return again.Name == written.Name
            && again.Lines.Take(written.Lines.Count).Select(line => line.Text).SequenceEqual(written.Lines.Select(line => line.Text));
    }

    // Anything at all, as text and inside a page and a block: recipes or a remark, never an error.
    [SeededProperty(MaxTest = 200)]
    public bool Any_text_ends_in_recipes_or_a_remark(string? text)
    {
        foreach (var around in new[] { "{0}", "<html><script type=\"application/ld+json\">{0}</script></html>",
            "{{\"@type\": \"Recipe\", \"name\": \"{0}\", \"recipeIngredient\": [\"{0}\"]}}", "Soup\n{0}\n2 eggs\n{0}" })
        {
            var read = RecipeFiles.Read(
                around.Replace("{0}", text ?? "", StringComparison.Ordinal).Replace("{{", "{", StringComparison.Ordinal)
                .Replace("}}", "}", StringComparison.Ordinal));
            if (read.Recipes.Count == 0 && read.Remarks.Count == 0) return false;
            if (read.Recipes.Any(recipe =>
                recipe.Yield.Portions < 1 || recipe.Lines.Any(line => line.Text.Length > WrittenRecipe.LongestLine))) return false;
        }

        return true;
    }

    // A table written with any delimiter, quoting and decimal sign holds the same foods.
    [SeededProperty(MaxTest = 60)]
    public bool A_table_says_the_same_whatever_its_delimiter_and_decimal_sign(ushort[] tenths, byte style)
    {
        var (delimiter, sign) = (style % 3) switch { 0 => (',', '.'), 1 => (';', ','), _ => ('\t', '.') };
        var text = new StringBuilder(string.Join(delimiter, "name", "energy kcal", "protein")).Append('\n');
        foreach (var (value, i) in tenths.Select((value, i) => (value, i)))
            text.Append("\"Food, \"\"").Append(i).Append("\"\"\"").Append(delimiter).Append(100 + (value % 500)).Append(delimiter)
                .Append((value % 900) / 10).Append(sign).Append(value % 10).Append('\n');
        var path = Path.Combine(folder, Guid.NewGuid().ToString("N") + ".csv");
        File.WriteAllText(path, text.ToString());
        var rows = FoodFiles.Open(path).Rows().ToList();
        return rows.Count == tenths.Length && rows.Zip(tenths).All(pair =>
            pair.First.Food!.Per100g.Energy == 100 + (pair.Second % 500)
                && pair.First.Food.Per100g.Protein == (pair.Second % 900 / 10) + (pair.Second % 10 / 10m));
    }

    [Theory]
    [InlineData("Vegetables and Vegetable Products", FoodGroup.Vegetables)]
    [InlineData("Fats and Oils", FoodGroup.Fats)]
    [InlineData("Edible Oils and Fats", FoodGroup.Fats)]
    [InlineData("Legumes and Legume Products", FoodGroup.Pulses)]
    [InlineData("Nut and Seed Products", FoodGroup.NutsAndSeeds)]
    [InlineData("Nuts and Oil Seeds", FoodGroup.NutsAndSeeds)]
    [InlineData("Finfish and Shellfish Products", FoodGroup.Fish)]
    [InlineData("Dairy and Egg Products", FoodGroup.Dairy)]
    [InlineData("Cereal Grains and Pasta", FoodGroup.Grains)]
    [InlineData("Poultry Products", FoodGroup.Meat)]
    [InlineData("Sweets", FoodGroup.Sweets)]
    [InlineData("Spices and Herbs", FoodGroup.Seasonings)]
    [InlineData("Roots and Tubers", FoodGroup.Potatoes)]
    [InlineData("Unheard-of", FoodGroup.Seasonings)] // never free by default
    [InlineData(null, FoodGroup.Seasonings)]
    public void A_tables_own_groups_are_brought_to_ours(string? words, FoodGroup group) => Assert.Equal(group, GroupWords.GroupOf(words));
}
