using LivelyTern.Core.Foods;

namespace LivelyTern.Core.Tests.Foods;

public class FoodLineTests
{
    [Theory]
    [InlineData("40 g quick oats", "quick oats", 40, false)]
    [InlineData("1/2 cup quick oats", "quick oats", 40, true)] // common practice, no published source: half a cup is 40 g
    [InlineData("4 tbsp butter", "butter", 56, true)] // common practice, no published source: a tablespoon is 14 g, four are 56
    [InlineData("8 tbsp butter", "butter", 112, true)] // common practice, no published source
    [InlineData("2 eggs", "egg", 100, true)]
    [InlineData("2 small eggs", "egg", 80, true)]
    [InlineData("2 eggs, small, beaten", "egg", 80, true)]
    [InlineData("2 slices of rye bread", "rye bread", 64, true)]
    [InlineData("3 cloves garlic, crushed", "garlic", 9, true)]
    [InlineData("600 g red lentils, dry", "red lentils, dry", 600, false)]
    [InlineData("600 g red lentils", "red lentils, dry", 600, false)]
    [InlineData("2 x 400 g tin chopped tomatoes", "chopped tomatoes, canned", 800, false)]
    [InlineData("2 tomatoes, chopped", "tomato", 246, true)]
    [InlineData("100-140 g pearl barley", "pearl barley", 120, true)]
    [InlineData("1 LB Butter", "butter", 453.59237, false)]
    public void A_line_is_read(string text, string food, decimal grams, bool isAbout)
    {
        var line = FoodLine.Read(text, Kitchen.Catalogue);
        Assert.Null(line.Problem);
        Assert.Equal(food, line.Ingredient!.Food.Name);
        Assert.Equal(grams, line.Ingredient.Weight.Value, 4);
        Assert.Equal(isAbout, line.IsAbout);
    }

    [Theory]
    [InlineData("quick oats", "amount-missing")]
    [InlineData("40 g", "food-missing")]
    [InlineData("40 g moon dust", "food-unknown")]
    [InlineData("40 g oats", "food-ambiguous")]
    [InlineData("-40 g quick oats", "amount-negative")]
    [InlineData("3-2 cups quick oats", "amount-backwards")]
    [InlineData("900000 kg quick oats", "amount-absurd")]
    [InlineData("1 cup pearl barley", "measure-unknown")]
    [InlineData("3 pearl barley", "measure-unknown")]
    public void What_is_not_understood_is_said_and_never_guessed(string text, string code)
    {
        var line = FoodLine.Read(text, Kitchen.Catalogue);
        Assert.Null(line.Ingredient);
        Assert.Equal(code, line.Problem!.Code);
        Assert.Contains(line.Problem.Sentence.TrimEnd((char)8221)[^1], ".?");
    }

    [Fact]
    public void An_ambiguous_name_lists_the_foods_and_a_choice_settles_it()
    {
        var line = FoodLine.Read("40 g oats", Kitchen.Catalogue);
        Assert.Equal(["quick oats", "rolled oats"], line.Candidates.Select(food => food.Name));
        Assert.Equal(40, FoodLine.Read("40 g oats", Kitchen.Catalogue, Kitchen.RolledOats).Ingredient!.Weight.Value);
    }

    [Fact]
    public void A_missing_measure_names_what_to_weigh_and_a_cup_weighed_once_serves_every_volume()
    {
        var missing = FoodLine.Read("1 cup pearl barley", Kitchen.Catalogue).Missing!;
        Assert.Equal(("pearl barley", "cup"), (missing.Food.Name, missing.Measure));

        var weighed = missing.Food with { Measures = [new HouseholdMeasure("cup", new(200), "weighed at home")] };
        Assert.Equal(200, FoodLine.Read("1 cup pearl barley", new FoodCatalogue([weighed])).Ingredient!.Weight.Value);
        Assert.Equal(12.5m, FoodLine.Read("1 tbsp pearl barley", new FoodCatalogue([weighed])).Ingredient!.Weight.Value, 6);
    }

    [Theory]
    [InlineData("a pinch of salt")]
    [InlineData("salt, to taste")]
    public void A_trace_is_recorded_and_weighs_nothing(string text)
    {
        var line = FoodLine.Read(text, Kitchen.Catalogue);
        Assert.True(line.Ingredient!.IsTrace);
        Assert.Equal(0, line.Ingredient.Weight.Value);
    }

    [Theory]
    [InlineData("lentils", "lentil")]
    [InlineData("tomatoes", "tomato")]
    [InlineData("berries", "berry")]
    [InlineData("radishes", "radish")]
    [InlineData("loaves", "loaf")]
    [InlineData("cloves", "clove")]
    [InlineData("couscous", "couscous")]
    [InlineData("watercress", "watercress")]
    public void Plurals_mean_the_same_food(string plural, string singular) => Assert.Equal(singular, FoodWords.Singular(plural));
}
