using FsCheck.Xunit;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Tests.Aim;

public class AimTests
{
    private static readonly PointsRule Fiftieth = new("fiftieth", new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 0.02m }, 1, [],
        []);

    private static DayAim Of(Band energy, PointsRule? rule = null, Band? points = null) => new(
        Measure.Energy, new Dictionary<Measure, Band> { [Measure.Energy] = energy, [Measure.Points] = points ?? Band.Open }, rule);

    [Fact]
    public void One_roll_is_three_points_and_two_are_five()
    {
        // Common practice, no published source: rounded once from the exact total, a roll of 130 kcal is 2.6 -> 3, two are 5.2 -> 5.
        var roll = Kitchen.Of("roll", new(Energy: 130));
        Assert.Equal(3, Fiftieth.Of(new([roll.Grams(100)])).Known);
        Assert.Equal(5, Fiftieth.Of(new([roll.Grams(200)])).Known);
    }

    [Theory]
    [InlineData(30, 15, 1)] // a third of a tenth is no finite decimal: half a point is half a point all the same
    [InlineData(35, 17.5, 1)]
    [InlineData(35, 17.4, 0)]
    [InlineData(7, 3.5, 1)]
    public void A_point_for_every_so_many_is_exact(int every, decimal kcal, decimal points)
    {
        var rule = Fiftieth with { PerUnit = new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = (decimal)(1.0 / every) } };
        Assert.Equal(points, rule.Of(new([Kitchen.Of("x", new(Energy: kcal)).Grams(100)])).Known);
    }

    [Fact]
    public void One_food_of_a_free_group_may_count_all_the_same_and_a_rule_is_read_back_by_an_example()
    {
        var free = Fiftieth with { FreeGroups = [FoodGroup.Grains], CountedFoods = [Kitchen.Bread.Id] };
        Assert.Equal((0m, 5m), (free.Of(new([Kitchen.Oats.Grams(100)])).Known, free.Of(new([Kitchen.Bread.Grams(100)])).Known));

        // 400 kcal at 1 for 35 are 11.43; less 1 for 15 g of protein, 20 g are 1.33 less: 10.
        var rule = Fiftieth with
        {
            PerUnit = new Dictionary<Nutrient, decimal>
            {
                [Nutrient.Energy] = 1 / 35m,
                [Nutrient.Protein] = -1 / 15m
            }
        };
        var example = RuleExample.Of(rule)!;
        Assert.Equal((400m, 20m, 10m), (example.Figures[Nutrient.Energy], example.Figures[Nutrient.Protein], example.Points));
    }

    [Fact]
    public void A_free_food_adds_no_points_and_all_its_energy()
    {
        var free = Fiftieth with { FreeFoods = ["butter"] };
        var toast = new Contents([Kitchen.Bread.Grams(100), Kitchen.Butter.Grams(10)]);
        Assert.Equal(5.16m, free.Exact(toast).Known);
        Assert.Equal(329.7m, toast.Totals[Nutrient.Energy].Known);
        Assert.Equal(0, (Fiftieth with { FreeGroups = [FoodGroup.Grains] }).Exact(toast).Known);
    }

    [Fact]
    public void Points_that_rest_on_an_unknown_figure_say_to_which_side_they_may_lie()
    {
        // Milk states no fibre: a rule that takes points off for it makes "at most", one that adds "at least", both nothing.
        PointsRule Of(params (Nutrient Nutrient, decimal Points)[] per) =>
            Fiftieth with { PerUnit = per.ToDictionary(one => one.Nutrient, one => one.Points) };
        var milk = new Contents([Kitchen.Milk.Grams(100)]);
        Assert.Equal(new Total(1, Certainty.AtMost), Of((Nutrient.Energy, 0.02m), (Nutrient.Fibre, -0.1m)).Of(milk));
        Assert.Equal(new Total(1, Certainty.AtLeast), Of((Nutrient.Energy, 0.02m), (Nutrient.Sugars, 0.1m)).Of(milk));
        Assert.Equal(new Total(1, Certainty.Open), Of((Nutrient.Energy, 0.02m), (Nutrient.Sugars, 0.1m), (Nutrient.Fibre, -0.1m)).Of(milk));
        Assert.Equal(new Total(3), Of((Nutrient.Energy, 0.02m), (Nutrient.Fibre, -0.1m)).Of(new([Kitchen.Egg.Grams(100)])));

        // "At most nothing" is nothing.
        Assert.Equal(new Total(0), Of((Nutrient.Protein, -1), (Nutrient.Fibre, -0.1m)).Of(milk));
    }

    /// <summary>Whatever the missing figures turn out to be, the true points lie on the side that was said.</summary>
    [SeededProperty]
    public bool True_points_lie_where_what_is_known_says(byte kcal, byte? protein, byte? fibre, sbyte perProtein, sbyte perFibre,
        byte trueProtein, byte trueFibre)
    {
        var rule = Fiftieth with
        {
            PerUnit = new Dictionary<Nutrient, decimal>
            {
                [Nutrient.Energy] = 0.1m,
                [Nutrient.Protein] = perProtein / 10m,
                [Nutrient.Fibre] = perFibre / 10m
            },
            Step = 0,
        };
        Total Points(decimal? p, decimal? f) => rule.Exact(new([Kitchen.Of("x", new(Energy: kcal, Protein: p, Fibre: f)).Grams(100)]));
        var (known, truth) = (Points(protein, fibre), Points(protein ?? trueProtein, fibre ?? trueFibre).Known);
        return known.Certainty switch
        {
            Certainty.Exact => truth == known.Known,
            Certainty.AtLeast => truth >= known.Known,
            Certainty.AtMost => truth <= known.Known,
            _ => (protein is null && perProtein != 0) || (fibre is null && perFibre != 0),
        };
    }

    [Theory]
    [InlineData(360, BandPosition.Under)]
    [InlineData(1994, BandPosition.Under)]
    [InlineData(1995, BandPosition.Within)]
    [InlineData(2205, BandPosition.Within)]
    [InlineData(2206, BandPosition.Over)]
    public void A_target_alone_means_within_five_per_cent_of_it(decimal total, BandPosition position) =>
        Assert.Equal(position, new Band(Target: 2100).Read(new(total)).Position);

    [Fact]
    public void A_side_without_a_bound_of_its_own_follows_from_the_target()
    {
        Assert.Equal(new Band(120, 140, 147), new Band(Min: 120, Target: 140).Resolved());
        Assert.Equal(new Band(Min: 120), new Band(Min: 120).Resolved());
        Assert.Equal(new Band(Target: 2000) { Tolerance = 50 }, new Band(1950, 2000, 2050) { Tolerance = 50 }.Written());
        Assert.Equal(new Band(Target: 2000, Max: 2300) { Tolerance = 50 }, new Band(1950, 2000, 2300) { Tolerance = 50 }.Written());
    }

    [Theory]
    [InlineData(1685, 100, BandPosition.Within, 85, null)]
    [InlineData(1685, 50, BandPosition.Over, 50, 35)]
    [InlineData(1500, 100, BandPosition.Within, null, null)]
    public void What_a_reserve_covers_lies_within(decimal total, decimal reserve, BandPosition position, int? drawn, int? over)
    {
        var reading = new Band(1450, 1525, 1600).Read(new(total), reserve);
        Assert.Equal((position, drawn, over), (reading.Position, reading.Drawn, reading.Over));

        // With a target alone it is the same.
        Assert.Equal(position, new Band(Target: 1523.809523809523809523809524m).Read(new(total), reserve).Position);
    }

    [Fact]
    public void Three_macros_make_their_energy_and_four_numbers_may_contradict_each_other()
    {
        // Common practice, no published source: 200 g protein, 200 g carbs, 50 g fat, give or take 5 g, are 2,050 kcal. Factors: Regulation (EU) No 1169/2011, Annex XIV.
        DayAim Macros(Band energy) => new(Measure.Energy, new Dictionary<Measure, Band>
        {
            [Measure.Energy] = energy,
            [Measure.Protein] = new(Target: 200) { Tolerance = 5 },
            [Measure.Carbohydrate] = new(Target: 200) { Tolerance = 5 },
            [Measure.Fat] = new(Target: 50) { Tolerance = 5 },
        }, null);
        Assert.Equal(new MacroEnergy(2050, 1575, 2135, IsContradicted: false), MacroEnergy.Of(Macros(new(Target: 2050))));
        Assert.True(MacroEnergy.Of(Macros(new(Target: 1400)))!.IsContradicted);
        Assert.True(MacroEnergy.Of(Macros(new(Min: 2200)))!.IsContradicted);
        Assert.False(MacroEnergy.Of(Macros(Band.Open))!.IsContradicted);
        Assert.Null(MacroEnergy.Of(Of(new(Target: 2000))));
    }

    [SeededProperty]
    public bool Points_are_never_below_zero_and_lie_within_half_a_step_of_the_exact(ushort grams, sbyte perFibre)
    {
        var rule = Fiftieth with { PerUnit = new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 0.02m, [Nutrient.Fibre] = perFibre } };
        var oats = new Contents([Kitchen.Oats.Grams(grams)]);
        var (exact, rounded) = (rule.Exact(oats).Known, rule.Of(oats).Known);
        return exact >= 0 && Math.Abs(exact - rounded) <= 0.5m && rounded == Math.Truncate(rounded);
    }

    [Theory]
    [InlineData(1685, BandPosition.Over, 85, null, null, -160)]
    [InlineData(1336, BandPosition.Under, null, 114, 264, 189)]
    [InlineData(1520, BandPosition.Within, null, null, 80, 5)]
    [InlineData(1600, BandPosition.Within, null, null, 0, -75)]
    [InlineData(1450, BandPosition.Within, null, null, 150, 75)]
    public void A_total_is_read_against_its_band(decimal total, BandPosition position, int? over, int? from, int? to, int left) =>
        Assert.Equal(new BandReading(position, over, from, to, left), new Band(1450, 1525, 1600).Read(new(total)));

    [Theory]
    [InlineData(1600, null, 1450, "bounds-crossed")]
    [InlineData(1450, 1400, 1600, "bounds-crossed")]
    [InlineData(1450, 1700, 1600, "bounds-crossed")]
    [InlineData(-1, null, null, "bound-negative")]
    [InlineData(null, null, 99999, "bound-absurd")]
    public void A_band_that_cannot_be_meant_is_refused(int? min, int? target, int? max, string code) =>
        Assert.Contains(Of(new(min, target, max)).Problems(clinicianSetIt: true), problem =>
            problem.Code == code && problem.Field.StartsWith("bands.energy.", StringComparison.Ordinal));

    // NHLBI Clinical Guidelines, 1998, from memory: diets of 1,000-1,200 kcal a day for women, 1,200-1,600 for men.
    [Theory]
    [InlineData(1450, 1525, 1600, false)]
    [InlineData(null, null, 1200, false)]
    [InlineData(null, null, 1199, true)]
    [InlineData(null, 1100, 1300, true)]
    [InlineData(1000, null, null, false)]
    public void No_aim_lies_below_the_floor_unless_a_clinician_set_it(int? min, int? target, int? max, bool refused)
    {
        Assert.Equal(refused,
            Of(new(min, target, max)).Problems(clinicianSetIt: false).Any(problem => problem.Code == "below-energy-floor"));
        Assert.Empty(Of(new(min, target, max)).Problems(clinicianSetIt: true));
    }

    [Fact]
    public void A_points_band_without_a_rule_and_a_rule_that_says_nothing_are_refused()
    {
        Assert.Contains(Of(new(), null, new(Max: 20)).Problems(true), problem => problem.Code == "rule-missing");
        Assert.Contains(Of(new(), Fiftieth with { PerUnit = new Dictionary<Nutrient, decimal>() }).Problems(true), problem =>
            problem.Code == "rule-empty");
        Assert.Contains(Of(new(), Fiftieth with { Step = 0.0001m }).Problems(true), problem => problem.Code == "step-absurd");
    }
}
