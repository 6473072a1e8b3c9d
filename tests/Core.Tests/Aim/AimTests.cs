using FsCheck.Xunit;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Tests.Aim;

public class AimTests
{
    private static readonly PointsRule Fiftieth = new("fiftieth", new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 0.02m }, 1, [], []);

    private static DayAim Of(Band energy, PointsRule? rule = null, Band? points = null) => new(
        Measure.Energy, new Dictionary<Measure, Band> { [Measure.Energy] = energy, [Measure.Points] = points ?? Band.Open }, rule);

    [Fact]
    public void One_roll_is_three_points_and_two_are_five()
    {
        // Common practice, no published source: rounded once from the exact total, a roll of 130 kcal is 2.6 -> 3, two are 5.2 -> 5.
        var roll = Kitchen.Of("roll", new(Energy: 130));
        Assert.Equal(3, Fiftieth.Of(new([roll.Grams(100)])).AtLeast);
        Assert.Equal(5, Fiftieth.Of(new([roll.Grams(200)])).AtLeast);
    }

    [Fact]
    public void A_free_food_adds_no_points_and_all_its_energy()
    {
        var free = Fiftieth with { FreeFoods = ["butter"] };
        var toast = new Contents([Kitchen.Bread.Grams(100), Kitchen.Butter.Grams(10)]);
        Assert.Equal(5.16m, free.Exact(toast).AtLeast);
        Assert.Equal(329.7m, toast.Totals[Nutrient.Energy].AtLeast);
        Assert.Equal(0, (Fiftieth with { FreeGroups = [FoodGroup.Grains] }).Exact(toast).AtLeast);
    }

    [Fact]
    public void Points_that_rest_on_an_unknown_figure_are_at_least()
    {
        var fibred = Fiftieth with { PerUnit = new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 0.02m, [Nutrient.Fibre] = -0.1m } };
        Assert.False(fibred.Of(new([Kitchen.Milk.Grams(100)])).IsComplete);
        Assert.True(fibred.Of(new([Kitchen.Egg.Grams(100)])).IsComplete);
    }

    [SeededProperty]
    public bool Points_are_never_below_zero_and_lie_within_half_a_step_of_the_exact(ushort grams, sbyte perFibre)
    {
        var rule = Fiftieth with { PerUnit = new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 0.02m, [Nutrient.Fibre] = perFibre } };
        var oats = new Contents([Kitchen.Oats.Grams(grams)]);
        var (exact, rounded) = (rule.Exact(oats).AtLeast, rule.Of(oats).AtLeast);
        return exact >= 0 && Math.Abs(exact - rounded) <= 0.5m && rounded == Math.Truncate(rounded);
    }

    [Theory]
    [InlineData(1685, BandPosition.Over, 85, null, null, -160)]
    [InlineData(1336, BandPosition.Under, null, 114, 264, 189)]
    [InlineData(1520, BandPosition.Within, null, null, 80, 5)]
    [InlineData(1600, BandPosition.Within, null, null, 0, -75)]
    [InlineData(1450, BandPosition.Within, null, null, 150, 75)]
    public void A_total_is_read_against_its_band(decimal total, BandPosition position, int? over, int? from, int? to, int left) =>
        Assert.Equal(new BandReading(position, over, from, to, left), new Band(1450, 1525, 1600).Read(new(total, true)));

    [Theory]
    [InlineData(1600, null, 1450, "bounds-crossed")]
    [InlineData(1450, 1400, 1600, "bounds-crossed")]
    [InlineData(1450, 1700, 1600, "bounds-crossed")]
    [InlineData(-1, null, null, "bound-negative")]
    [InlineData(null, null, 99999, "bound-absurd")]
    public void A_band_that_cannot_be_meant_is_refused(int? min, int? target, int? max, string code) =>
        Assert.Contains(Of(new(min, target, max)).Problems(clinicianSetIt: true), problem => problem.Code == code && problem.Field.StartsWith("bands.energy.", StringComparison.Ordinal));

    // NHLBI Clinical Guidelines, 1998, from memory: diets of 1,000-1,200 kcal a day for women, 1,200-1,600 for men.
    [Theory]
    [InlineData(1450, 1525, 1600, false)]
    [InlineData(null, null, 1200, false)]
    [InlineData(null, null, 1199, true)]
    [InlineData(null, 1100, 1300, true)]
    [InlineData(1000, null, null, false)]
    public void No_aim_lies_below_the_floor_unless_a_clinician_set_it(int? min, int? target, int? max, bool refused)
    {
        Assert.Equal(refused, Of(new(min, target, max)).Problems(clinicianSetIt: false).Any(problem => problem.Code == "below-energy-floor"));
        Assert.Empty(Of(new(min, target, max)).Problems(clinicianSetIt: true));
    }

    [Fact]
    public void A_points_band_without_a_rule_and_a_rule_that_says_nothing_are_refused()
    {
        Assert.Contains(Of(new(), null, new(Max: 20)).Problems(true), problem => problem.Code == "rule-missing");
        Assert.Contains(Of(new(), Fiftieth with { PerUnit = new Dictionary<Nutrient, decimal>() }).Problems(true), problem => problem.Code == "rule-empty");
        Assert.Contains(Of(new(), Fiftieth with { Step = 0.0001m }).Problems(true), problem => problem.Code == "step-absurd");
    }
}
