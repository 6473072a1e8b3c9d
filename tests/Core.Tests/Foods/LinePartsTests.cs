using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using LivelyTern.Core.Foods;

namespace LivelyTern.Core.Tests.Foods;

public class LinePartsTests
{
    private static readonly Food Chickpeas = Kitchen.Of("chickpeas, canned, drained",
        new(Energy: 139)) with
    { Aliases = ["chickpeas"], DrainedShare = 0.6m };
    private static readonly Food Banana = Kitchen.Of("banana", new(Energy: 89), ("medium", 118)) with { Refuse = 0.36m };
    private static readonly FoodCatalogue Foods = new(
    [
        .. Kitchen.Catalogue.All, Chickpeas, Banana, Kitchen.Of("lemon", new(Energy: 29), ("medium", 84)),
            Kitchen.Of("lemon juice", new(Energy: 22), ("lemon", 48)),
        Kitchen.Of("basil", new(Energy: 20), ("leaf", 0.5m)), Kitchen.Of("ginger", new(Energy: 80), ("cm", 5)),
    ]);

    [Theory]
    [InlineData("2 x 400 g tin chickpeas, drained", 480, true)] // common practice, no published source: a tin of 400 g holds 240 g drained
    [InlineData("1 (15 oz) can chickpeas, drained", 255.1457081, true)]
    [InlineData("2 cans chickpeas, 15 oz cans, drained", 510.2914162, true)]
    [InlineData("1 tin chickpeas, 400 g tin, undrained", 400, false)]
    [InlineData("1 (15 oz) can, drained chickpeas", 255.1457081, true)]
    [InlineData("480 g chickpeas, drained", 480, false)]
    [InlineData("2 x 400 g tin chickpeas", 480, true)] // the food is that without its liquid, so is what a tin holds of it
    [InlineData("2 x 400 g tin chickpeas, undrained", 800, false)]
    [InlineData("2 x 400 g chickpeas", 480, true)]
    [InlineData("1 tin (240 g drained) chickpeas", 240, false)]
    [InlineData("1 kg bananas, with peel", 640, true)]
    [InlineData("1 kg bananas", 1000, false)]
    [InlineData("2 medium bananas", 236, true)]
    public void Tins_are_drained_and_peel_is_thrown_away_where_that_is_said(string text, decimal grams, bool isAbout)
    {
        var line = FoodLine.Read(text, Foods);
        Assert.Null(line.Problem);
        Assert.Equal(grams, line.Ingredient!.Weight.Value, 6);
        Assert.Equal(isAbout, line.IsAbout);
    }

    [Theory]
    [InlineData("2-3 tbsp butter, softened", 2, 3, "tbsp", null, "butter", "softened")]
    [InlineData("2 slices of rye bread, toasted", 2, 2, null, "slices", "rye bread", "toasted")]
    [InlineData("600 g red lentils, dry, rinsed", 600, 600, "g", null, "red lentils, dry", "rinsed")]
    [InlineData("3 tomatoes (ripe), chopped", 3, 3, null, null, "tomatoes", "ripe, chopped")]
    [InlineData("40 g moon dust, sifted", 40, 40, "g", null, "moon dust", "sifted")]
    public void A_line_comes_apart_into_what_was_said(string text, decimal from, decimal to, string? unit, string? measure, string food,
        string note)
    {
        var parts = FoodLine.Read(text, Foods).Parts;
        Assert.Equal((from, to, unit, measure, food, note),
            (parts.Amount!.From, parts.Amount.To, parts.Amount.Unit?.Name, parts.Measure, parts.FoodText, parts.Note));
    }

    [Theory]
    [InlineData("a pinch of salt", "salt", "")]
    [InlineData("salt, to taste", "salt", "to taste")]
    [InlineData("2 tsp salt, or to taste", "salt", "or to taste")] // an amount counts even so
    public void A_trace_keeps_what_was_said(string text, string food, string note)
    {
        var line = FoodLine.Read(text, Foods);
        Assert.Equal((food, note), (line.Parts.FoodText, line.Parts.Note));
        Assert.Equal(text.StartsWith('2'), !line.Ingredient!.IsTrace);
    }

    [Theory]
    [InlineData("600 g red lentils, dry")]
    [InlineData("2 x 400 g tin chopped tomatoes")]
    [InlineData("2-3 tbsp butter, softened")]
    [InlineData("2 slices rye bread")]
    [InlineData("1 large egg, beaten")]
    [InlineData("1 1/3 cups quick oats")]
    [InlineData("3 cloves garlic, crushed")]
    [InlineData("2 x 400 g tin chickpeas, drained")]
    [InlineData("2 eggs, small, beaten")]
    [InlineData("about 200 g butter")]
    [InlineData("1 lb 2 oz butter")]
    [InlineData("1 cup (80 g) quick oats")]
    [InlineData("2 eggs (90 g), beaten")]
    [InlineData("2-3 eggs (45 g each)")]
    [InlineData("2 tins (400 g) chopped tomatoes")]
    [InlineData("eggs, 2 small")]
    public void A_line_printed_and_read_again_is_the_same_amount_of_the_same_food(string text)
    {
        var line = FoodLine.Read(text, Foods);
        var again = FoodLine.Read(line.Print(), Foods);
        Assert.Equal((line.Ingredient, line.IsAbout), (again.Ingredient, again.IsAbout));
        Assert.Equal(again.Print(), FoodLine.Read(again.Print(), Foods).Print());
    }

    // What may stand at each place of a line.
    private static readonly string[][] Places =
    [
        ["", "", "- ", "• ", "about ", "Optional: ", "juice of "], ["2", "1/2", "1½", "3-4", "40", "1,5", "a", "six", "half a", "2 x 400"],
            ["", "", " g", " g", " kg", " lb", " cup", " tbsp", "g", " dozen", " level tbsp", " heaped tbsp"],
        ["", "", "", " (80 g)", " (1 lb 2 oz)", " / 1 cup", " plus 2 tsp", " 50 g", "/8 oz"],
            ["", "", "", " tin", " tins (400 g)", " bunch", " slices", " cloves", " large", " small", " medium heads"],
            [" ", " ", " of ", " boneless ", " large free-range ", " cm piece of "],
        ["quick oats", "eggs", "butter", "red lentils, dry", "chickpeas", "bananas", "rye bread", "garlic", "salt", "chopped tomatoes",
            "moon dust", "oats", "lemons", "lemon, juiced", "basil leaves", "ginger"],
        ["", "", " (90 g)", " (45 g each)", " (about 60 g), beaten", ", drained", ", with peel", ", large", " (ripe), chopped",
            ", to taste", " 2 small", ": 40 g", " for frying", " or margarine"],
    ];

    /// <summary>
    /// Lines put together from what people write: what is understood is the same with that food chosen for it, and, printed, the same
    /// amount of the same food; half of it printed is half.
    /// </summary>
    [SeededProperty(MaxTest = 4000)]
    public Property Whatever_is_understood_is_so_again_when_printed() => Prop.ForAll(Gen.Choose(0, int.MaxValue).ToArbitrary(), seed =>
    {
        var chance = new System.Random(seed);
        var line = FoodLine.Read(string.Concat(Places.Select(place => place[chance.Next(place.Length)])), Foods);
        Assert.True((line.Ingredients.Count == 0) == line.Problem is not null, line.Text);
        if (line.Ingredient is null) return;
        Assert.Equal(line.Ingredient, FoodLine.Read(line.Text, Foods, line.Ingredient.Food).Ingredient);
        var (whole, half) = (FoodLine.Read(line.Print(), Foods), FoodLine.Read(line.Print(0.5m), Foods));
        Assert.True(whole.Ingredient?.Food == line.Ingredient.Food && half.Ingredient is not null,
            $"{line.Text} is {line.Print()}, half of it {line.Print(0.5m)}: {whole.Problem?.Sentence} {half.Problem?.Sentence}");
        var weight = line.Ingredient.Weight.Value;
        if (line.Ingredient.IsTrace) Assert.Equal((weight, weight), (whole.Ingredient!.Weight.Value, half.Ingredient!.Weight.Value));
        if (line.Ingredient.IsTrace) return;
        Assert.InRange(whole.Ingredient!.Weight.Value, weight * 0.999m, weight * 1.001m);
        Assert.InRange(half.Ingredient!.Weight.Value, weight * 0.499m, weight * 0.501m);
    });

    [Theory]
    [InlineData("2 eggs (90 g), beaten", "3 eggs, 135 g, beaten")]
    [InlineData("2 eggs (45 g each)", "3 eggs, 45 g each")]
    [InlineData("500 g (1 lb 2 oz) red lentils", "750 g red lentils")]
    [InlineData("1 cup (80 g) quick oats", "120 g quick oats")]
    [InlineData("Eggs - 2", "3 Eggs")]
    public void Scaled_no_part_of_a_line_says_the_old_amount(string text, string scaled)
    {
        var line = FoodLine.Read(text, Foods);
        Assert.Equal(scaled, line.Print(1.5m));
        Assert.Equal(line.Ingredient!.Weight.Value * 1.5m, FoodLine.Read(scaled, Foods).Ingredient!.Weight.Value);
    }

    [Fact]
    public void A_slip_in_a_name_offers_what_it_may_have_been()
    {
        var line = FoodLine.Read("400 g chikpeas", Foods);
        Assert.Equal("food-unknown", line.Problem!.Code);
        Assert.Equal("chickpeas, canned, drained", line.Candidates[0].Name);
    }
}
