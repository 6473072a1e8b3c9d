using FsCheck.Xunit;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Recipes;

public class RecipeTests
{
    private static Recipe Of(int portions, params string[] lines) => new("", [.. lines.Select(line => FoodLine.Read(line, Kitchen.Catalogue))], portions);

    [Property]
    public bool Portions_sum_to_the_batch(byte portions, ushort oats, ushort eggs)
    {
        var recipe = Of(portions % 40 + 1, $"{oats} g quick oats", $"{eggs} eggs");
        return Nutrients.All.All(nutrient =>
            Math.Abs((recipe.Portion.Totals[nutrient].AtLeast * recipe.Portions) - recipe.Batch.Totals[nutrient].AtLeast) < 1e-12m
            && recipe.Portion.Totals[nutrient].IsComplete == recipe.Batch.Totals[nutrient].IsComplete);
    }

    [Property]
    public bool Shares_of_the_lines_sum_to_one(ushort oats, ushort butter, ushort lentils)
    {
        var recipe = Of(4, $"{oats + 1} g quick oats", $"{butter} g butter", $"{lentils} g red lentils");
        return recipe.Shares(PointsRule.Starting) is var shares
            && new[] { Measure.Energy, Measure.Fat, Measure.Points }.All(measure => Math.Abs(shares.Sum(line => line.GetValueOrDefault(measure)) - 1) < 1e-12m);
    }

    [Fact]
    public void A_line_that_is_not_understood_leaves_the_recipe_at_least_and_the_rest_counts()
    {
        var recipe = Of(2, "100 g quick oats", "three handfuls of hope");
        Assert.Equal(new Total(370, IsComplete: false), recipe.Batch.Totals[Nutrient.Energy]);
        Assert.Empty(recipe.Shares(PointsRule.Starting)[1]);
    }

    [Theory]
    [InlineData(0, false)]
    [InlineData(-3, false)]
    [InlineData(1, true)]
    [InlineData(1001, false)]
    public void A_batch_is_cut_into_at_least_one_portion(int portions, bool fine) => Assert.Equal(fine, Recipe.Cut("", [], portions).Succeeded);

    [Fact]
    public void Dishes_get_marks_of_their_own()
    {
        var marks = new List<TapeMark>();
        foreach (var name in new[] { "Lentil dal", "Lamb dhansak", "Leek dish", "Lime dressing", "L", "", "Барлей", "Lentil dal" }) marks.Add(TapeMark.For(name, marks));
        Assert.Equal("LD", marks[0].Letters);
        Assert.Equal(marks.Count, marks.Select(mark => mark.Letters).Distinct().Count());
        Assert.Equal(TapeMark.Tints, marks.Select(mark => mark.Tint).Distinct().Count());
        Assert.All(marks, mark => Assert.Equal(2, mark.Letters.Length));
    }
}
