using FsCheck.Xunit;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Tests.Measures;

public class TotalsTests
{
    private static readonly Food[] Shelf = [Kitchen.Oats, Kitchen.Milk, Kitchen.Egg, Kitchen.Butter, Kitchen.Lentils, Kitchen.Salt];

    private static Contents Basket(ushort[] grams) => new([.. grams.Select((weight, i) => Shelf[i % Shelf.Length].Grams(weight / 10m))]);

    [SeededProperty]
    public bool Totals_are_linear_in_amounts(ushort[] grams, byte tenths)
    {
        var (whole, factor) = (Basket(grams), tenths / 10m);
        return Nutrients.All.All(nutrient =>
            Math.Abs(whole.Scale(factor).Totals[nutrient].Known - (whole.Totals[nutrient].Known * factor)) < 1e-15m
            && (whole.Totals * factor)[nutrient] == whole.Totals[nutrient] * factor);
    }

    [SeededProperty]
    public bool Totals_of_two_baskets_add_up(ushort[] first, ushort[] second)
    {
        var both = new Contents([.. Basket(first).Ingredients, .. Basket(second).Ingredients]).Totals;
        var added = Basket(first).Totals + Basket(second).Totals;
        return Nutrients.All.All(nutrient => both[nutrient] == added[nutrient]);
    }

    [SeededProperty]
    public bool Unknown_never_reads_as_zero(ushort[] grams)
    {
        var basket = Basket(grams);
        return Nutrients.All.All(nutrient =>
        {
            var lacks = basket.Ingredients.Where(part => part.Weight.Value > 0 && part.Food.Per100g[nutrient] is null).Select(part =>
                part.Food.Name).ToHashSet();
            return basket.Totals[nutrient].IsComplete == (lacks.Count == 0) && basket.Missing(nutrient).ToHashSet().SetEquals(lacks);
        });
    }

    [Fact]
    public void Fibre_with_one_food_unknown_is_at_least_and_says_which()
    {
        var bowl = new Contents([Kitchen.Oats.Grams(50), Kitchen.Milk.Grams(100)]);
        Assert.Equal(Total.Of(5, false), bowl.Totals[Nutrient.Fibre]);
        Assert.Equal(["oat milk"], bowl.Missing(Nutrient.Fibre));
        Assert.Equal(Total.Of(235, true), bowl.Totals[Nutrient.Energy]);
    }

    [Fact]
    public void A_line_nobody_could_read_leaves_every_measure_at_least() =>
        Assert.All(Nutrients.All, nutrient =>
            Assert.False(new Contents([Kitchen.Oats.Grams(50)], SomethingUnread: true).Totals[nutrient].IsComplete));

    [Fact]
    public void A_pinch_of_salt_leaves_salt_at_least_and_nothing_else()
    {
        var pinch = new Contents([Kitchen.Salt.Grams(0) with { IsTrace = true }]);
        Assert.False(pinch.Totals[Nutrient.Salt].IsComplete);
        Assert.True(pinch.Totals[Nutrient.Energy].IsComplete);
        Assert.Equal(["salt"], pinch.Missing(Nutrient.Salt));
    }

    // Regulation (EU) No 1169/2011, Annex XIV: protein 4, fat 9, carbohydrate except polyols 4, fibre 2, polyols 2.4, alcohol 7 kcal/g.
    [Theory]
    [InlineData(1, 0, 0, 0, 0, 0, 4)]
    [InlineData(0, 1, 0, 0, 0, 0, 9)]
    [InlineData(0, 0, 1, 0, 0, 0, 4)]
    [InlineData(0, 0, 0, 1, 0, 0, 2)]
    [InlineData(0, 0, 0, 0, 1, 0, 2.4)]
    [InlineData(0, 0, 0, 0, 0, 1, 7)]
    [InlineData(200, 50, 200, 0, 0, 0, 2050)] // the 2,050 kcal day: common practice, no published source
    public void Energy_follows_the_published_factors(decimal protein, decimal fat, decimal carbohydrate, decimal fibre, decimal polyols,
        decimal alcohol, decimal kcal) =>
        Assert.Equal(kcal, EnergyFactors.Kilocalories(
            new(Protein: protein, Fat: fat, Carbohydrate: carbohydrate, Fibre: fibre, Polyols: polyols, Alcohol: alcohol),
                carbohydrateContainsFibre: false));

    // Regulation (EU) No 1169/2011, Annex I and XIV: carbohydrate of a European label holds its polyols, which count 2.4 kcal/g in place of 4.
    [Fact]
    public void Polyols_inside_the_carbohydrate_of_a_European_label_are_counted_once() =>
        Assert.Equal(236m, EnergyFactors.Kilocalories(new(Carbohydrate: 95, Polyols: 90), carbohydrateContainsFibre: false));

    [Fact]
    public void Fibre_inside_total_carbohydrate_is_counted_once() =>
        // 10 g total carbohydrate of which 4 g fibre: 6 x 4 + 4 x 2 kcal.
        Assert.Equal(32m, EnergyFactors.Kilocalories(new(Carbohydrate: 10, Fibre: 4), carbohydrateContainsFibre: true));

    [Theory]
    [InlineData(2.5, 1, 3)]
    [InlineData(-2.5, 1, -3)]
    [InlineData(2.4, 1, 2)]
    [InlineData(2.25, 0.5, 2.5)]
    [InlineData(2.2, 0, 2.2)]
    public void Rounding_is_half_away_from_zero(decimal value, decimal step, decimal rounded) =>
        Assert.Equal(rounded, Rounding.ToStep(value, step));
}
