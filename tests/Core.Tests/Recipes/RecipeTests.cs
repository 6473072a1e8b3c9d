using FsCheck.Xunit;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Recipes;

public class RecipeTests
{
    [SeededProperty]
    public bool Portions_sum_to_the_batch(byte portions, ushort oats, ushort eggs)
    {
        var recipe = Kitchen.Recipe(portions % 40 + 1, $"{oats} g quick oats", $"{eggs} eggs");
        return Nutrients.All.All(nutrient =>
            Math.Abs((recipe.Portion.Totals[nutrient].Known * recipe.Yield.Portions) - recipe.Batch.Totals[nutrient].Known) < 1e-12m
            && recipe.Portion.Totals[nutrient].IsComplete == recipe.Batch.Totals[nutrient].IsComplete);
    }

    [SeededProperty]
    public bool Shares_of_the_lines_sum_to_one(ushort oats, ushort butter, ushort lentils)
    {
        var recipe = Kitchen.Recipe(4, $"{oats + 1} g quick oats", $"{butter} g butter", $"{lentils} g red lentils");
        return recipe.Shares(PointsRule.Starting) is var shares
            && new[] { Measure.Energy, Measure.Fat, Measure.Points }.All(measure =>
                Math.Abs(shares.Sum(line => line.GetValueOrDefault(measure)) - 1) < 1e-12m);
    }

    [Fact]
    public void A_line_that_is_not_understood_leaves_the_recipe_at_least_and_the_rest_counts()
    {
        var recipe = Kitchen.Recipe(2, "100 g quick oats", "three handfuls of hope");
        Assert.Equal(Total.Of(370, false), recipe.Batch.Totals[Nutrient.Energy]);
        Assert.Empty(recipe.Shares(PointsRule.Starting)[1]);
    }

    [Fact]
    public void What_is_taken_out_is_subtracted_by_its_own_figures()
    {
        var recipe = Kitchen.Read(
            new WrittenRecipe("roast", [new("500 g rye bread"), new("100 g butter"), new("40 g butter", IsTakenOut: true)], new(4)));
        Assert.Equal((5 * 258) + (0.6m * 717), recipe.Batch.Totals[Nutrient.Energy].Known);
        Assert.Equal(560, recipe.Batch.RawWeight.Value);
        Assert.Empty(recipe.TakenTooMuch);
        Assert.Equal([Nutrient.Energy, Nutrient.Fat],
            Kitchen.Read(new WrittenRecipe("slip", [new("10 g butter"), new("40 g butter", IsTakenOut: true)], new(4))).TakenTooMuch);
    }

    [Theory]
    [InlineData(0, null, null, "portions-none")]
    [InlineData(-3, null, null, "portions-none")]
    [InlineData(1001, null, null, "portions-absurd")]
    [InlineData(4, 0, null, "pieces-absurd")]
    [InlineData(4, null, -1.0, "cooked-weight")]
    [InlineData(4, 12, 900.0, null)]
    public void A_yield_that_cannot_be_is_named(int portions, int? pieces, double? cooked, string? code) =>
        Assert.Equal(code, new RecipeYield(portions, pieces, (decimal?)cooked).Problems().FirstOrDefault()?.Code);

    [Fact]
    public void A_recipe_of_too_much_is_named_line_by_line_and_step_by_step()
    {
        var recipe = new WrittenRecipe("", [.. Enumerable.Repeat(new WrittenLine(new string('x', 301)), 201)], new(1),
            [new("", HandsOn: -1), new(new string('x', 2001), TemperatureC: 900)]);
        var codes = recipe.Problems().Select(problem => problem.Code).ToList();
        Assert.Contains("lines-many", codes);
        Assert.Equal(200, codes.Count(code => code == "line-long"));
        Assert.Equal(["step-minutes", "step-long", "step-temperature"], codes.Where(code => code.StartsWith("step")));
    }

    [Fact]
    public void Dishes_get_marks_of_their_own()
    {
        var marks = new List<TapeMark>();
        foreach (var name in new[] { "Lentil dal", "Lamb dhansak", "Leek dish", "Lime dressing", "L", "", "Барлей",
            "Lentil dal" }) marks.Add(TapeMark.For(name, marks));
        Assert.Equal("LD", marks[0].Letters);
        Assert.Equal(marks.Count, marks.Select(mark => mark.Letters).Distinct().Count());
        Assert.Equal(TapeMark.Tints, marks.Select(mark => mark.Tint).Distinct().Count());
        Assert.All(marks, mark => Assert.Equal(2, mark.Letters.Length));

        // Once every letter is taken, letters and pattern together still tell one dish from another.
        marks.Clear();
        for (var i = 0; i < 60; i++) marks.Add(TapeMark.For("Dal", marks));
        Assert.Equal(60, marks.Distinct().Count());
    }

    /// <summary>What leaves the batch is written as it is said, and is taken off its figures.</summary>
    [Theory]
    [InlineData("60 g fat poured off", true)]
    [InlineData("60 g lard, skimmed off", true)]
    [InlineData("60 g lard", false)]
    public void What_is_poured_off_is_taken_out_as_it_is_said(string line, bool isOut)
    {
        var lard = Kitchen.Of("lard", new(Energy: 900, Protein: 0, Fat: 100, Fibre: 0));
        var foods = new FoodCatalogue([lard, Kitchen.Lentils]);
        var recipe = new RecipeBook(foods, new Dictionary<Guid, WrittenRecipe>())
            .Read(new WrittenRecipe("", [new("1000 g red lentils, dry"), new(line)], new(4)));
        Assert.Equal((line, isOut), (recipe.Lines[1].Read.Text, recipe.Lines[1].Written.IsOut));
        Assert.Equal(3580 + (isOut ? -540 : 540), recipe.Batch.Totals[Nutrient.Energy].Known);
        Assert.Equal(1, recipe.Shares(PointsRule.Starting).Sum(share => share[Measure.Energy]), 9);
    }
}
