using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Tests.Aim;

public class FirstNumbersTests
{
    [Fact]
    public void Three_macros_make_the_days_energy_and_two_make_none()
    {
        // 4, 4 and 9 kcal a gram: Regulation (EU) No 1169/2011, Annex XIV.
        var aim = new FirstNumbers(Counting.Macros, Protein: 200, Carbohydrate: 200, Fat: 50).Aim().Value!;
        Assert.Equal((2050m, 200m, 50m), (aim[Measure.Energy].Target, aim[Measure.Carbohydrate].Target, aim[Measure.Fat].Target));
        Assert.Equal(
            [Measure.Protein, Measure.Fat],
            new FirstNumbers(Counting.Macros, Kcal: 1500, Protein: 200, Fat: 50).Aim().Value!.Bands.Keys.Order());
    }

    [Fact]
    public void Points_come_with_a_rule_and_nothing_free_that_nobody_freed()
    {
        var aim = new FirstNumbers(Counting.Points, Points: 25, KcalPerPoint: 40).Aim().Value!;
        Assert.Equal((Measure.Points, 25m, null), (aim.Leading, aim[Measure.Points].Max, aim[Measure.Points].Target));
        Assert.Equal((0.025m, 1m), (aim.Rule!.PerUnit[Nutrient.Energy], aim.Rule.Step));
        Assert.Empty(aim.Rule.FreeGroups);

        // A rule that nobody chose is none; a second eater counts as the first.
        Assert.Equal("rule-missing", new FirstNumbers(Counting.Points, Points: 25, KcalPerPoint: 0).Aim().Problems.Single().Code);
        var theirs = PointsRule.Starting with { FreeGroups = [FoodGroup.Fruit] };
        Assert.Same(theirs, new FirstNumbers(Counting.Points, Points: 30, KcalPerPoint: 40, Rule: theirs).Aim().Value!.Rule);
        Assert.Empty(aim.Problems(clinicianSetIt: false));
    }

    [Fact]
    public void Low_carb_bounds_the_net_carbs_and_aims_at_the_energy()
    {
        var aim = new FirstNumbers(Counting.LowCarb, Kcal: 1800, Protein: 90, NetCarbs: 20).Aim().Value!;
        Assert.Equal((Measure.NetCarbohydrate, 20m, 1800m), (aim.Leading, aim[Measure.NetCarbohydrate].Max, aim[Measure.Energy].Target));
        Assert.Equal((2, null), (aim.Bands.Count, aim.Rule));
        Assert.Empty(new FirstNumbers(Counting.Energy).Aim().Value!.Bands);
    }

    [Theory]
    [InlineData(-5, "bound-negative")]
    [InlineData(7e27, "bound-absurd")]
    public void A_number_that_cannot_be_meant_is_named_and_nothing_is_worked_out_from_it(double grams, string code) =>
        Assert.Equal(code, new FirstNumbers(Counting.Macros, Protein: (decimal)grams, Carbohydrate: 200, Fat: 50).Aim().Problems[0].Code);
}
