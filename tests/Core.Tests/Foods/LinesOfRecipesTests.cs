using LivelyTern.Core.Foods;

namespace LivelyTern.Core.Tests.Foods;

/// <summary>Lines as recipes have them, with more words than a name.</summary>
public class LinesOfRecipesTests
{
    private static Food Seasoning(string name, params (string Name, decimal Grams)[] measures) =>
        Kitchen.Of(name, new(Energy: 20), measures) with { Group = FoodGroup.Seasonings };

    private static readonly FoodCatalogue Foods = new(
    [
        .. Kitchen.Catalogue.All.Where(food => food != Kitchen.Salt), Seasoning("salt", ("tsp", 6)),
            Seasoning("black pepper, ground", ("tsp", 2.3m)), Seasoning("parsley, fresh", ("tbsp", 3.8m)),
            Seasoning("basil", ("leaf", 0.5m)),
        Seasoning("ginger"), Seasoning("pepper and salt mix"), Seasoning("pasta sauce", ("cup", 250)),
        Kitchen.Of("lemon", new(Energy: 29), ("medium", 84)), Kitchen.Of("lemon juice", new(Energy: 22), ("lemon", 48)),
            Kitchen.Of("lime juice", new(Energy: 25)), Kitchen.Of("lemon zest", new(Energy: 47)),
        Kitchen.Of("chicken breast, raw", new(Energy: 120), ("piece", 174)) with { Aliases = ["chicken breast"] },
            Kitchen.Of("spinach, raw", new(Energy: 23)), Kitchen.Of("vegetable stock", new(Energy: 5), ("cup", 240)),
        Kitchen.Of("yogurt", new(Energy: 61), ("cup", 245)), Kitchen.Of("minced beef, 5 % fat", new(Energy: 131)),
            Kitchen.Of("minced beef, 20 % fat", new(Energy: 254)), Kitchen.Of("tomato puree", new(Energy: 82), ("tbsp", 16)),
        Kitchen.Of("white rice, dry", new(Energy: 360), ("cup", 185)),
        Kitchen.Of("olive oil", new(Energy: 884), ("tbsp", 13.5m)) with { Group = FoodGroup.Fats },
    ]);

    [Theory]
    [InlineData("4 boneless skinless chicken breasts", "chicken breast, raw", 696, "boneless skinless")]
    [InlineData("3 large free-range eggs, beaten", "egg", 150, "free-range, beaten")]
    [InlineData("3 large free-range eggs (180 g)", "egg", 180, "free-range, 180 g")]
    [InlineData("2 chicken breasts, boneless, 150 g each, sliced", "chicken breast, raw", 300, "boneless, 150 g each, sliced")]
    [InlineData("3 large free range eggs", "egg", 150, "free-range")]
    [InlineData("100g baby spinach", "spinach, raw", 100, "baby")]
    [InlineData("2 tbsp good olive oil", "olive oil", 27, "good")] // of good quality, not good spoons
    [InlineData("2 med. eggs", "egg", 100, "medium")]
    [InlineData("2 tbsp olive oil, plus extra for frying", "olive oil", 27, "plus extra for frying")]
    [InlineData("1 tbsp olive oil for frying", "olive oil", 13.5, "for frying")]
    [InlineData("1 cup yoghurt or sour cream", "yogurt", 245, "or sour cream")]
    [InlineData("2 cups vegetable broth", "vegetable stock", 480, "")]
    [InlineData("1 cup uncooked white rice", "white rice, dry", 185, "")]
    [InlineData("2 tbsp tomato purée", "tomato puree", 32, "")]
    [InlineData("6 basil leaves, torn", "basil", 3, "torn")]
    [InlineData("6 fresh basil leaves", "basil", 3, "")]
    [InlineData("1 (14 oz) can diced tomatoes", "chopped tomatoes, canned", 396.8933, "")]
    [InlineData("Optional: 2 eggs, beaten", "egg", 100, "beaten, optional")]
    [InlineData("(optional) juice of 1 lemon", "lemon juice", 48, "optional")]
    [InlineData("juice of 1 lemon", "lemon juice", 48, "")]
    [InlineData("Juice of half a lemon", "lemon juice", 24, "")]
    [InlineData("grated zest and juice of 2 large lemons", "lemon juice", 96, "and its zest, large")]
    [InlineData("1 lemon, juiced", "lemon juice", 48, "")]
    [InlineData("1/2 lemon, juice only, strained", "lemon juice", 24, "strained")]
    [InlineData("1 lemon, sliced", "lemon", 84, "sliced")]
    [InlineData("a couple of eggs", "egg", 100, "")]
    public void Words_that_describe_are_put_aside_and_kept(string text, string food, decimal grams, string note)
    {
        var line = FoodLine.Read(text, Foods);
        Assert.Null(line.Problem);
        Assert.Equal((food, grams, note), (line.Ingredient!.Food.Name, Math.Round(line.Ingredient.Weight.Value, 4), line.Parts.Note));
        var again = FoodLine.Read(line.Print(2), Foods);
        Assert.Equal((food, Math.Round(line.Ingredient.Weight.Value * 2, 3)),
            (again.Ingredient!.Food.Name, Math.Round(again.Ingredient.Weight.Value, 3)));
    }

    [Theory]
    [InlineData("juice of 1 lemon", "juice of 2 lemons")]
    [InlineData("2 lemons, juiced", "juice of 4 lemons")]
    [InlineData("6 basil leaves", "12 leaves basil")]
    public void What_is_counted_in_parts_of_another_food_is_written_so(string text, string twice) =>
        Assert.Equal(twice.TrimEnd('s'), FoodLine.Read(text, Foods).Print(2).TrimEnd('s'));

    /// <summary>Words that change the figures are never put aside.</summary>
    [Theory]
    [InlineData("500 g ground beef", "food-ambiguous")]
    [InlineData("500 g beef shin", "food-unknown")]
    [InlineData("1 cup low-fat yoghurt", "food-unknown")]
    [InlineData("100 g butter plus yogurt", "food-unknown")] // one of the two would be lost
    [InlineData("a few basil leaves", "amount-missing")]
    [InlineData("chicken breast fillet", "amount-missing")] // not one of them
    [InlineData("fillet of chicken breast", "amount-missing")]
    [InlineData("some olive oil", "amount-missing")]
    [InlineData("juice of 1 papaya", "food-unknown")]
    [InlineData("juice of lemons", "amount-missing")]
    [InlineData("pasta sauce", "amount-missing")] // not by the pinch
    public void What_words_leave_open_is_asked(string text, string code)
    {
        var line = FoodLine.Read(text, Foods);
        Assert.Equal((null, code), (line.Ingredient, line.Problem!.Code));
        Assert.Empty(line.Instead);
    }

    [Theory]
    [InlineData("2 cm piece of ginger, grated", "cm", 2)]
    [InlineData("1-inch piece ginger", "inch", 1)]
    [InlineData("3 inches ginger", "inch", 3)]
    [InlineData("1 thumb-sized piece of ginger", "thumb", 1)]
    [InlineData("juice of 2 limes", "lime", 2)]
    [InlineData("2 sprigs parsley", "sprig", 2)]
    [InlineData("2 parsley sprigs, chopped", "sprig", 2)]
    [InlineData("zest of 1 lemon", "lemon", 1)]
    public void What_such_a_piece_weighs_is_asked_once(string text, string measure, decimal count)
    {
        var line = FoodLine.Read(text, Foods);
        Assert.Equal(("measure-unknown", measure), (line.Problem!.Code, line.Missing!.Measure));
        var weighed = line.Missing.Food with { Measures = [new HouseholdMeasure(measure, new(7), "weighed at home")] };
        var foods = new FoodCatalogue([.. Foods.All, weighed]);
        Assert.Equal(7 * count, FoodLine.Read(text, foods).Ingredient!.Weight.Value);
        Assert.Equal(14 * count, FoodLine.Read(FoodLine.Read(text, foods).Print(2), foods).Ingredient!.Weight.Value);
    }

    /// <summary>Several foods in one line are read as the lines they are: none is lost, nor its allergens.</summary>
    [Theory]
    [InlineData("1 egg plus 2 tbsp butter", "egg=50|butter=28")]
    [InlineData("1 tbsp olive oil mixed with 2 tbsp butter", "olive oil=13.5|butter=28")]
    [InlineData("2 tbsp tomato puree dissolved in 1 cup vegetable stock", "tomato puree=32|vegetable stock=240")]
    [InlineData("2 tbsp olive oil, plus 1 tbsp for frying", "olive oil=27|olive oil=13.5")]
    [InlineData("2 tbsp each olive oil and butter", "olive oil=27|butter=28")]
    [InlineData("1 cup each quick oats, yogurt and butter", "quick oats=80|yogurt=245|butter=227")]
    [InlineData("salt and pepper, 1/2 tsp each", "salt=3|black pepper, ground=1.15")]
    [InlineData("salt and pepper", "salt=trace|black pepper, ground=trace")]
    [InlineData("Salt & freshly ground black pepper, to taste", "salt=trace|black pepper, ground=trace")]
    [InlineData("1 egg, 2 tbsp butter", "egg=50|butter=28")]
    [InlineData("2 eggs, beaten, 1 cup yogurt, 80 g quick oats", "egg=100|yogurt=245|quick oats=80")]
    [InlineData("80 g quick oats made with 1 cup yogurt", "quick oats=80|yogurt=245")]
    [InlineData("1 cup vegetable stock, made with 1 egg", "vegetable stock=240")] // what a volume was made of is in it
    [InlineData("2 eggs, 1 beaten", "egg=100")]
    [InlineData("2 eggs, 100 g", "egg=100")]
    [InlineData("2 eggs scrambled in 1 tbsp butter", "egg=100|butter=14")]
    [InlineData("2 eggs, fried in 2 tbsp olive oil", "egg=100|olive oil=27")]
    [InlineData("salt, black pepper", "salt=trace|black pepper, ground=trace")]
    [InlineData("salt, pepper, to taste", "salt=trace|black pepper, ground=trace")]
    [InlineData("a pinch of salt and pepper", "salt=trace|black pepper, ground=trace")]
    [InlineData("olive oil with 2 eggs", "")] // of the oil nobody says how much
    [InlineData("olive oil and butter", "")]
    [InlineData("1 egg plus 2 cups moon dust", "")]
    public void Several_foods_in_a_line_are_the_lines_they_are(string text, string foods)
    {
        var line = FoodLine.Read(text, Foods);
        string Said(Ingredient one) => one.IsTrace ? $"{one.Food.Name}=trace" : $"{one.Food.Name}={one.Weight.Value:0.##}";
        Assert.Equal(foods, string.Join('|', line.Ingredients.Select(Said)));
        Assert.Equal(foods.Length == 0 ? "two-foods" : null, line.Problem?.Code);
        if (foods.Length == 0) Assert.Equal(2, line.Instead.Count);
        var twice = foods.Length == 0 ? [] : FoodLine.Read(line.Print(2), Foods).Ingredients;
        Assert.Equal(line.Ingredients.Select(one => one.Weight.Value * 2), twice.Select(one => one.Weight.Value));
    }

    /// <summary>What is used without an amount is recorded at the least that it can be, and leaves what it is in "at least".</summary>
    [Theory]
    [InlineData("salt", "salt", 0)]
    [InlineData("fresh parsley, to serve", "parsley, fresh", 0)]
    [InlineData("olive oil for frying", "olive oil", 4.5)] // a teaspoon: common practice, no published source
    [InlineData("yogurt, for serving", "yogurt", 1)]
    [InlineData("white rice, to serve", "white rice, dry", 1)]
    [InlineData("Optional: yogurt", "yogurt", 1)]
    public void What_is_used_without_an_amount_is_recorded(string text, string food, decimal least)
    {
        var line = FoodLine.Read(text, Foods);
        var (read, weight, isTrace) = line.Ingredient!;
        Assert.Equal((food, least, true), (read.Name, Math.Round(weight.Value, 6), isTrace));
        var energy = new Contents([line.Ingredient]).Totals[Core.Measures.Nutrient.Energy];
        Assert.Equal((least > 0, line.Ingredient.Food.Per100g.Energy * least / 100), (!energy.IsComplete, energy.Known));
        Assert.Equal(line.Ingredient, FoodLine.Read(line.Print(3), Foods).Ingredient);
    }

    [Theory]
    [InlineData("salt and pepper, to taste", "salt, to taste|pepper, to taste")]
    [InlineData("stock and pepper, to taste", "stock, to taste|pepper, to taste")]
    [InlineData("rocks and pepper, to taste", "rocks and pepper, to taste")]
    [InlineData("pepper and salt mix, to taste", "pepper and salt mix, to taste")] // a food of that name
    [InlineData("salt and pepper", "salt, to taste|pepper, to taste")]
    [InlineData("2 eggs plus 1 tbsp butter", "2 eggs|1 tbsp butter")]
    [InlineData("2 tsp salt and pepper, to taste", "2 tsp salt and pepper, to taste")]
    [InlineData("salt, to taste", "salt, to taste")]
    public void A_list_that_is_brought_in_gives_each_its_own_line(string text, string lines) =>
        Assert.Equal(lines.Split('|'), FoodLine.Read(text, Foods).Apart);

    [Theory]
    [InlineData("a small pinch of salt")]
    [InlineData("2 pinches salt")]
    [InlineData("a good dash of lemon juice")]
    [InlineData("Optional: salt, to taste")]
    public void A_pinch_of_any_size_is_a_trace(string text) => Assert.True(FoodLine.Read(text, Foods).Ingredient!.IsTrace);
}
