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

    /// <summary>As lists that were copied have it.</summary>
    [Theory]
    [InlineData("- 40 g quick oats", "quick oats", 40, false)]
    [InlineData("• 2 eggs", "egg", 100, true)]
    [InlineData("▢ a dozen eggs", "egg", 600, true)]
    [InlineData("half a dozen small eggs", "egg", 240, true)]
    [InlineData("about 200 g butter", "butter", 200, true)]
    [InlineData("1 lb 2 oz butter", "butter", 510.2914163, false)] // (16 + 2) x 28.349523125 g, NIST Handbook 44
    [InlineData("1 kg 200 g red lentils", "red lentils, dry", 1200, false)]
    [InlineData("1 cup plus 2 tbsp butter", "butter", 255.375, true)] // by its cup of 227 g: 1 1/8
    [InlineData("500 g (1 lb 2 oz) red lentils", "red lentils, dry", 500, false)]
    [InlineData("500g/1lb 2oz red lentils", "red lentils, dry", 500, false)]
    [InlineData("450 g / 1 lb red lentils", "red lentils, dry", 450, false)]
    [InlineData("1 cup (80 g) quick oats", "quick oats", 80, false)]
    [InlineData("1 cup (about 95 g) quick oats", "quick oats", 95, true)]
    [InlineData("95 g (1 cup) quick oats", "quick oats", 95, false)]
    [InlineData("1 level tbsp butter", "butter", 14, true)]
    [InlineData("1 heaped tbsp butter", "butter", 21, true)] // common practice, no published source: half as much again
    [InlineData("2 tbsp scant butter", "butter", 25.2, true)]
    [InlineData("2 eggs (90 g)", "egg", 90, false)]
    [InlineData("2 eggs (about 45 g each), beaten", "egg", 90, true)]
    [InlineData("2-3 eggs (45 g each)", "egg", 112.5, true)]
    [InlineData("1 cup butter (200 g)", "butter", 200, false)]
    [InlineData("2 tins (400 g) chopped tomatoes", "chopped tomatoes, canned", 800, false)]
    [InlineData("2 tins chopped tomatoes (400 g each)", "chopped tomatoes, canned", 800, false)]
    [InlineData("1 tin of pearl barley", "pearl barley", 250, true)] // sold in one size
    [InlineData("quick oats 40 g", "quick oats", 40, false)]
    [InlineData("Butter: 4 tbsp", "butter", 56, true)]
    [InlineData("Eggs - 2", "egg", 100, true)]
    [InlineData("eggs, 2 small", "egg", 80, true)]
    [InlineData("rye bread 2 slices", "rye bread", 64, true)]
    public void Lists_as_people_write_them_are_read(string text, string food, decimal grams, bool isAbout)
    {
        var barley = Kitchen.Barley with { PackageGrams = [250] };
        var line = FoodLine.Read(text, new FoodCatalogue([.. Kitchen.Catalogue.All, barley]));
        Assert.Null(line.Problem);
        Assert.Equal((food, Math.Round(grams, 6), isAbout),
            (line.Ingredient!.Food.Name, Math.Round(line.Ingredient.Weight.Value, 6), line.IsAbout));
    }

    /// <summary>What only a kitchen can know is asked by its name: the food is understood, the measure is to be weighed once.</summary>
    [Theory]
    [InlineData("1 bunch pearl barley", "bunch")]
    [InlineData("2 large handfuls of red lentils", "large handful")]
    [InlineData("2 tins chopped tomatoes", "tin")]
    [InlineData("3 medium heads garlic", "medium head")]
    public void A_measure_of_the_house_is_asked_for_once(string text, string measure)
    {
        var line = FoodLine.Read(text, Kitchen.Catalogue);
        Assert.Equal(("measure-unknown", measure), (line.Problem!.Code, line.Missing!.Measure));
        var weighed =
            line.Missing.Food with
            {
                Measures = [.. line.Missing.Food.Measures,
            new HouseholdMeasure(measure, new(30), "weighed at home")]
            };
        Assert.Equal(30 * line.Parts.Amount!.Quantity,
            FoodLine.Read(text, new FoodCatalogue([.. Kitchen.Catalogue.All, weighed])).Ingredient!.Weight.Value);
    }

    [Theory]
    [InlineData("quick oats", "amount-missing")]
    [InlineData("40 g", "food-missing")]
    [InlineData("40 g moon dust", "food-unknown")]
    [InlineData("40 g oats", "food-ambiguous")]
    [InlineData("-40 g quick oats", "amount-negative")]
    [InlineData("3-2 cups quick oats", "amount-backwards")]
    [InlineData("900000 kg quick oats", "amount-absurd")]
    [InlineData("0.001 g quick oats", "amount-absurd")]
    [InlineData("1/99999999999999999999 kg quick oats", "amount-absurd")]
    [InlineData("1 cup pearl barley", "measure-unknown")]
    [InlineData("3 pearl barley", "measure-unknown")]
    [InlineData("500 g (1 lb 8 oz) red lentils", "amounts-differ")]
    [InlineData("200 g butter (300 g)", "amounts-differ")]
    [InlineData("1 bunch moon dust", "food-unknown")]
    [InlineData("quick oats type 550", "amount-missing")]
    [InlineData("quick oats 40 g 50 g", "amount-missing")]
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

    // Seen: a slice of an apple weighed once made "2 apples" two slices, a packet weighed once 17 crackers 17 packets.
    [Theory]
    [InlineData("slice", 20, 364)]
    [InlineData("packet", 900, 364)]
    [InlineData("medium", 150, 300)]
    [InlineData("piece", 160, 320)]
    public void What_was_weighed_once_is_counted_only_where_it_is_a_whole_one(string measure, decimal grams, decimal two)
    {
        var apple = Kitchen.RolledOats with { Id = "apple", Name = "apple", Aliases = [], Measures = [new("medium", new(182), "a table")] };
        var weighed =
            apple with
            {
                Measures = [new(measure, new(grams), HouseholdMeasure.WeighedAtHome),
            .. apple.Measures.Where(own => own.Name != measure)]
            };
        Assert.Equal(two, FoodLine.Read("2 apples", new FoodCatalogue([weighed])).Ingredient!.Weight.Value);
        Assert.Equal(2 * grams, FoodLine.Read($"2 {measure} apples", new FoodCatalogue([weighed])).Ingredient!.Weight.Value);
        var alone = weighed with { Measures = [weighed.Measures[0]] };
        Assert.Equal(measure is "slice" or "packet", FoodLine.Read("2 apples", new FoodCatalogue([alone])).Missing?.Measure == "piece");
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
