using LivelyTern.Core.Aim;

namespace LivelyTern.Core.Tests.Aim;

/// <summary>The equations against their published values; the limits against DOMAIN's guidelines.</summary>
public sealed class EnergyNeedTests
{
    private static readonly Body Man = new(Sex.Male, 30, 80, 180), Woman = new(Sex.Female, 35, 65, 165);

    /// <summary>Source: Mifflin et al., Am J Clin Nutr 1990: 10 w + 6.25 h - 5 a + 5 or - 161.</summary>
    [Fact]
    public void Resting_energy_by_weight_height_and_age()
    {
        Assert.Equal(1780m, EnergyNeed.ByWeightHeightAge(Man));
        Assert.Equal(1345.25m, EnergyNeed.ByWeightHeightAge(Woman));
    }

    /// <summary>Source: Roza and Shizgal 1984 (from memory), the coefficients multiplied out by hand here.</summary>
    [Fact]
    public void Resting_energy_by_the_revised_equations()
    {
        Assert.Equal(88.362m + 1071.76m + 863.82m - 170.31m, EnergyNeed.ByRevisedEquations(Man));
        Assert.Equal(447.593m + 601.055m + 511.17m - 151.55m, EnergyNeed.ByRevisedEquations(Woman));
    }

    /// <summary>Source: Katch and McArdle (from memory): 370 + 21.6 x lean kg; 80 kg with 25 % fat are 60 kg lean.</summary>
    [Fact]
    public void Resting_energy_by_lean_mass_only_where_fat_was_measured()
    {
        Assert.Equal(1666m, EnergyNeed.ByLeanMass(Man with { BodyFatShare = 0.25m }));
        Assert.Null(EnergyNeed.ByLeanMass(Man));
    }

    [Fact]
    public void A_target_is_the_need_less_the_deficit_and_its_split_adds_up()
    {
        // Two equations at 1.55, 0.5 kg a week: 7,700 x 0.5 / 7 = 550 kcal a day less.
        var need = EnergyNeed.Of(Man, 1.55m, 0.5m).Value!;
        var mean = (1780m + 1853.632m) / 2 * 1.55m;
        Assert.Equal(Math.Round((mean - 550) / 10, MidpointRounding.AwayFromZero) * 10, need.Target);
        Assert.InRange((need.Split.Protein * 4) + (need.Split.Fat * 9) + (need.Split.Carbohydrate * 4), need.Target - 10, need.Target + 10);
        Assert.Equal(3, need.Estimates.Count);
        Assert.All(need.Estimates, estimate => Assert.NotEmpty(estimate.Source));
    }

    [Theory]
    [InlineData(17, 62, 170, false, "under-18")]
    [InlineData(30, 62, 170, true, "pregnant")]
    [InlineData(30, 52, 170, false, "underweight")]
    public void No_deficit_where_there_must_be_none(int age, int weight, int height, bool isPregnant, string code)
    {
        var need = EnergyNeed.Of(new(Sex.Female, age, weight, height, null, isPregnant), 1.55m, 0.5m).Value!;
        Assert.Equal(0, need.RateKgPerWeek);
        Assert.Contains(need.Cautions, caution => caution.Code == code && caution.Source.Length > 0);
        Assert.Equal(need.Estimates[0].Need, need.Estimates[0].Target);

        // Gaining is not held back.
        Assert.DoesNotContain(EnergyNeed.Of(new(Sex.Female, age, weight, height, null, isPregnant), 1.55m, -0.3m).Value!.Cautions,
            caution => caution.Code == code);
    }

    /// <summary>Source: NHLBI 1998; CDC, 1 to 2 lb a week (from memory).</summary>
    [Fact]
    public void No_faster_than_a_kilogram_a_week_and_never_below_the_floor()
    {
        var fast = EnergyNeed.Of(Woman, 1.4m, 3m).Value!;
        Assert.Equal(1m, fast.RateKgPerWeek);
        Assert.Equal(1200, fast.Target);
        Assert.All(fast.Estimates.Where(estimate => estimate.Target is not null), estimate => Assert.True(estimate.Target >= 1200));
        Assert.Contains(fast.Cautions, caution => caution.Code == "rate");
        Assert.Contains(fast.Cautions, caution => caution.Code == "floor");
    }

    [Theory]
    [InlineData(1, 70, 170, 1.5, 0.5, "body.age")]
    [InlineData(40, 5, 170, 1.5, 0.5, "body.weightKg")]
    [InlineData(40, 70, 1.7, 1.5, 0.5, "body.heightCm")]
    [InlineData(40, 70, 170, 9, 0.5, "activity")]
    [InlineData(40, 70, 170, 1.5, 50, "rateKgPerWeek")]
    public void A_body_that_cannot_be_is_named_at_its_field(double age, double weight, double height, double activity, double rate,
        string field) =>
        Assert.Equal(field,
            EnergyNeed.Of(new(Sex.Male, (decimal)age, (decimal)weight, (decimal)height), (decimal)activity, (decimal)rate).Problems.Single()
            .Field);
}
