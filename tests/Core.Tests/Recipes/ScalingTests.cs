using FsCheck.Xunit;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Recipes;

public class ScalingTests
{
    private static readonly string[] Lines = ["600 g red lentils, dry", "2 x 400 g tin chopped tomatoes", "2-3 tbsp butter",
        "3 tomatoes, chopped", "1 1/2 cups quick oats", "2 slices rye bread", "a pinch of salt"];

    private static Recipe Of(RecipeYield yield, params string[] lines) =>
        Kitchen.Read(new WrittenRecipe("", [.. lines.Select(line => new WrittenLine(line))], yield));

    [SeededProperty]
    public bool Scaling_by_k_scales_everything_by_k(byte thirds, byte eighths)
    {
        // Factors a cook may name: wholes, thirds and eighths.
        var factor = (thirds % 12 / 3m) + (eighths % 24 / 8m) + 0.125m;
        var recipe = Of(new(6, Pieces: 24, CookedGrams: 2400), Lines);
        var scaled = Scaling.Scale(recipe, new(Factor: factor)).Value!;
        var again = Kitchen.Read(new WrittenRecipe("", scaled.Lines, scaled.Yield));

        // Amounts are written with up to four decimals: within a thousandth of each total.
        return scaled.Yield.CookedGrams == 2400 * factor
            && Nutrients.All.All(nutrient =>
                Math.Abs(again.Batch.Totals[nutrient].Known - (
                recipe.Batch.Totals[nutrient].Known * factor)) <= 0.001m * recipe.Batch.Totals[nutrient].Known * factor)
            && again.Batch.RawWeight.Value > 0 && again.Lines.All(line => line.Read.Problem is null);
    }

    [Fact]
    public void Half_of_it_reads_as_a_cook_would_write_it()
    {
        var scaled = Scaling.Scale(Of(new(6), Lines), new(Factor: 0.5m)).Value!;
        Assert.Equal(
            ["300 g red lentils, dry", "1 x 400 g chopped tomatoes", "1-1 1/2 tbsp butter", "1 1/2 tomatoes, chopped",
                "3/4 cup quick oats", "1 slice rye bread", "a pinch of salt"],
            scaled.Lines.Select(line => line.Text));
        Assert.Equal(3, scaled.Yield.Portions);
        Assert.Equal([6], scaled.Unscaled);
    }

    [Theory]
    [InlineData(0, "340 g", 0.5666666666666666666666666667)] // what the jar still holds of the lentils
    [InlineData(3, "2", 0.6666666666666666666666666667)]
    [InlineData(2, "70 g", 2)] // 2.5 tbsp of butter are 35 g
    [InlineData(4, "3 cups", 2)]
    public void By_what_is_at_hand_of_one_thing(int line, string hand, decimal factor) =>
        Assert.Equal(factor, Scaling.Scale(Of(new(6), Lines), new(Line: line, AtHand: hand)).Value!.Factor, 12);

    [Fact]
    public void To_portions_the_amounts_follow_and_the_portion_stays()
    {
        var recipe = Of(new(6), Lines);
        var scaled = Scaling.Scale(recipe, new(Portions: 9)).Value!;
        Assert.Equal((1.5m, 9), (scaled.Factor, scaled.Yield.Portions));
        var again = Kitchen.Read(new WrittenRecipe("", scaled.Lines, scaled.Yield));
        Assert.Equal(recipe.Portion.Totals[Nutrient.Energy].Known, again.Portion.Totals[Nutrient.Energy].Known, 6);
    }

    [Fact]
    public void Another_pan_keeps_the_depth_and_another_amount_in_one_pan_changes_it()
    {
        // 30 x 20 cm are 600 cm2, a round 20 cm is 314 (pi d2 / 4).
        var recipe = Of(new(12, Pan: new(PanShape.Rectangular, 30, 20)), Lines);
        var round = Scaling.Scale(recipe, new(Pan: new(PanShape.Round, 20))).Value!;
        Assert.Equal(0.5236m, round.Factor, 4);
        Assert.Equal(1m, round.DepthFactor!.Value, 10);
        Assert.Equal(1.25m, Scaling.Scale(recipe, new(Factor: 1.25m)).Value!.DepthFactor);
        Assert.Null(Scaling.Scale(Of(new(12), Lines), new(Factor: 2)).Value!.DepthFactor);
    }

    [Theory]
    [InlineData(null, null, null, null, "scale-missing")]
    [InlineData(0.0, null, null, null, "factor-none")]
    [InlineData(5000.0, null, null, null, "scale-absurd")]
    [InlineData(null, 0, null, null, "portions-none")]
    [InlineData(null, null, 6, "2 g", "line-unread")]
    [InlineData(null, null, 99, "2 g", "line-unread")]
    [InlineData(null, null, 0, "some", "at-hand")]
    [InlineData(null, null, 0, "3", "at-hand-unit")]
    [InlineData(null, null, 3, "2 cups", "at-hand-unit")]
    public void What_cannot_be_scaled_is_named(double? factor, int? portions, int? line, string? hand, string code) =>
        Assert.Equal(code, Scaling.Scale(Of(new(6), Lines), new((decimal?)factor, portions, line, hand)).Problems.Single().Code);

    [Fact]
    public void A_pan_is_scaled_only_from_a_pan() =>
        Assert.Equal("pan-unknown", Scaling.Scale(Of(new(6), Lines), new(Pan: new(PanShape.Round, 20))).Problems.Single().Code);

    [Fact]
    public void Eighteen_portions_of_half_a_banana_are_nine()
    {
        // Common practice, no published source: 18 portions that take half a banana each are 9 bananas; at a quarter cup of purée for each
        // half banana the swap is 4 1/2 cups, not the commonly quoted 2 1/4. Oats stand in for the purée.
        Assert.Equal("9 tomatoes", Scaling.Scale(Of(new(1), "1/2 tomatoes"), new(Portions: 18)).Value!.Lines[0].Text);
        Assert.Equal("4 1/2 cup quick oats", Scaling.Scale(Of(new(1), "1/4 cup quick oats"), new(Portions: 18)).Value!.Lines[0].Text);
    }

    [Fact]
    public void Eight_eggs_take_a_third_of_a_cup_at_any_size_of_dish()
    {
        // Common practice, no published source.
        Assert.Equal("1/3 cup oat milk",
            Scaling.Scale(Of(new(6), "12 eggs", "1/2 cup oat milk"), new(Line: 0, AtHand: "8")).Value!.Lines[1].Text);
    }
}
