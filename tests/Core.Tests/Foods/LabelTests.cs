using FsCheck.Xunit;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Tests.Foods;

public class LabelTests
{
    [SeededProperty]
    public bool A_label_per_serving_says_the_same_as_per_100_g(ushort serving, byte protein, byte fat, byte carbohydrate)
    {
        var grams = (serving % 400) + 10m;
        var per = grams / 100m;
        decimal p = protein % 30, f = fat % 30, c = carbohydrate % 30, kcal = (4 * p) + (9 * f) + (4 * c);
        var each = new Label(LabelBasis.PerServing, grams, CarbohydrateConvention.Total, Kilocalories: kcal * per, Protein: p * per,
            Fat: f * per, Carbohydrate: c * per).Per100g();
        return each.Succeeded && Math.Abs(each.Value!.Energy!.Value - kcal) < 1e-9m && Math.Abs(each.Value.Protein!.Value - p) < 1e-9m
            && Math.Abs(each.Value.Fat!.Value - f) < 1e-9m;
    }

    [Fact]
    public void Kilojoules_and_sodium_are_read_where_kcal_and_salt_are_not_printed()
    {
        // 1 kcal is 4.184 kJ (NIST SP 811); salt is sodium x 2.5 (Regulation (EU) No 1169/2011, Annex I).
        var food = new Label(LabelBasis.Per100g, null, CarbohydrateConvention.WithoutFibre, Kilojoules: 418.4m, SodiumMilligrams: 400)
            .Per100g().Value!;
        Assert.Equal((100m, 1m), (food.Energy, food.Salt));
        Assert.Null(food.Fibre);
    }

    [Theory]
    [InlineData(LabelBasis.PerServing, null, 100.0, null, "serving-weight")]
    [InlineData(LabelBasis.PerServing, 0.0, 100.0, null, "serving-weight")]
    [InlineData(LabelBasis.Per100g, null, null, null, "energy-missing")]
    [InlineData(LabelBasis.Per100g, null, -1.0, null, "figure-negative")]
    [InlineData(LabelBasis.Per100g, null, 2000.0, null, "figure-absurd")]
    [InlineData(LabelBasis.PerServing, 30.0, 100.0, 31.0, "figure-absurd")]
    [InlineData(LabelBasis.PerServing, 30.0, 100.0, 30.0, null)]
    public void What_no_label_can_say_is_refused(LabelBasis basis, double? serving, double? kcal, double? protein, string? code) =>
        Assert.Equal(code,
            new Label(basis, (decimal?)serving, CarbohydrateConvention.Total, (decimal?)kcal, Protein: (decimal?)protein).Per100g()
            .Problems.FirstOrDefault()?.Code);

    [Fact]
    public void A_label_whose_figures_are_left_out_on_purpose_knows_none_of_them()
    {
        var label = new Label(LabelBasis.PerServing, 30, CarbohydrateConvention.Total, ServingPieces: 17, IsUnread: true);
        Assert.Equal(new Nutrients(), label.Per100g().Value);
        Assert.Equal(["piece", "serving"], label.Measures.Select(measure => measure.Name));
        Assert.Equal("serving-weight", Assert.Single((label with { ServingGrams = null, ServingPieces = null }).Per100g().Problems).Code);
    }

    // General factors: Regulation (EU) No 1169/2011, Annex XIV. 10 P, 10 F, 50 C of which 10 fibre: 40 + 90 + 160 + 20 = 310 kcal.
    [Theory]
    [InlineData(310, 10, 10, 50, 10, 5, null)]
    [InlineData(340, 10, 10, 50, 10, 5, null)] // within 15 %
    [InlineData(410, 10, 10, 50, 10, 5, "energy-off")]
    [InlineData(310, 10, 10, 90, 10, 5, "parts-over-100")]
    [InlineData(310, 10, 10, 50, 10, 60, "sugars-over-carbohydrate")]
    [InlineData(310, 10, 10, 50, 60, 5, "fibre-over-carbohydrate")]
    public void A_label_that_cannot_be_right_is_doubted_and_kept(decimal kcal, decimal protein, decimal fat, decimal carbohydrate,
        decimal fibre, decimal sugars, string? doubt)
    {
        var label = new Label(LabelBasis.Per100g, null, CarbohydrateConvention.Total, kcal, Protein: protein, Fat: fat,
            Carbohydrate: carbohydrate, Sugars: sugars, Fibre: fibre);
        var read = label.Per100g().Value!;
        Assert.Equal(kcal, read.Energy);
        if (doubt is null) Assert.Empty(label.Doubts(read));
        else Assert.Contains(doubt, label.Doubts(read).Select(found => found.Code));
    }

    // US 21 CFR 101.9(c); salt is 2.5 x its sodium, so 0.425 g of salt are 170 mg of sodium.
    [Theory]
    [InlineData(Nutrient.Energy, 4.9, "0 kcal")]
    [InlineData(Nutrient.Energy, 47.5, "50 kcal")]
    [InlineData(Nutrient.Energy, 42, "40 kcal")]
    [InlineData(Nutrient.Energy, 50, "50 kcal")]
    [InlineData(Nutrient.Energy, 114, "110 kcal")]
    [InlineData(Nutrient.Energy, 115, "120 kcal")]
    [InlineData(Nutrient.Fat, 0.49, "0 g")]
    [InlineData(Nutrient.Fat, 0.5, "0.5 g")]
    [InlineData(Nutrient.SaturatedFat, 2.3, "2.5 g")]
    [InlineData(Nutrient.Fat, 4.9, "5 g")]
    [InlineData(Nutrient.Fat, 5.4, "5 g")]
    [InlineData(Nutrient.Carbohydrate, 0.4, "0 g")]
    [InlineData(Nutrient.Protein, 0.5, "less than 1 g")]
    [InlineData(Nutrient.Fibre, 0.99, "less than 1 g")]
    [InlineData(Nutrient.Sugars, 1.5, "2 g")]
    [InlineData(Nutrient.Salt, 0.012, "0 mg")]
    [InlineData(Nutrient.Salt, 0.35, "140 mg")]
    [InlineData(Nutrient.Salt, 0.425, "170 mg")]
    [InlineData(Nutrient.Salt, 0.308, "125 mg")]
    public void A_serving_is_printed_as_the_labelling_rule_rounds_it(Nutrient nutrient, decimal amount, string printed) =>
        Assert.Equal(printed, LabelRounding.Print(nutrient, amount));

    [Fact]
    public void A_label_printed_by_the_rule_prints_itself_again()
    {
        var label = new Label(LabelBasis.PerServing, 34, CarbohydrateConvention.Total, Kilocalories: 150, Fat: 6, Carbohydrate: 22,
            Protein: 3, SodiumMilligrams: 170);
        var printed = label.Printed(label.Per100g().Value!);
        Assert.Equal(["150 kcal", "6 g", "170 mg", "22 g", "3 g"],
            new[] { Nutrient.Energy, Nutrient.Fat, Nutrient.Salt, Nutrient.Carbohydrate, Nutrient.Protein }.Select(nutrient =>
            printed[nutrient]));
        Assert.False(printed.ContainsKey(Nutrient.Fibre));
    }

    [Fact]
    public void Kcal_and_kj_that_disagree_are_told() =>
        Assert.Contains("kcal-kj",
            new Label(LabelBasis.Per100g, null, CarbohydrateConvention.Total, Kilocalories: 100, Kilojoules: 100).Doubts(new(Energy: 100))
            .Select(doubt => doubt.Code));

    [Fact]
    public void Two_hundred_protein_two_hundred_carbohydrate_and_fifty_fat_are_2050_kcal() =>
        // common practice, no published source
        Assert.Equal(2050, EnergyFactors.Kilocalories(new(Protein: 200, Carbohydrate: 200, Fat: 50), carbohydrateContainsFibre: false));

    [Fact]
    public void Slaw_of_85_g_with_30_kcal_has_45_in_127_g()
    {
        // Common practice, no published source: 85 g of slaw at 30 kcal: 127 g are 45 kcal.
        var slaw = Kitchen.Of("slaw",
            new Label(LabelBasis.PerServing, 85, CarbohydrateConvention.Total, Kilocalories: 30).Per100g().Value!);
        Assert.Equal(45, Rounding.ToStep(new Contents([slaw.Grams(127)]).Totals[Nutrient.Energy].Known, 1));
    }

    [Theory]
    [InlineData("6291041500213", "06291041500213")] // GS1 General Specifications, from memory: 629104150021 has the check digit 3
    [InlineData("629 1041-50021 3", "06291041500213")]
    [InlineData("96385074", "00000096385074")]
    public void A_barcode_number_is_read_with_its_check_digit(string typed, string gtin) => Assert.Equal(gtin, Gtin.Read(typed).Value);

    [Theory]
    [InlineData("6291041500214", "gtin-check")]
    [InlineData("6291041500123", "gtin-check")]
    [InlineData("62910415002", "gtin-length")]
    [InlineData("", "gtin-digits")]
    [InlineData("62910415OO213", "gtin-digits")]
    public void A_barcode_misread_is_refused(string typed, string code) => Assert.Equal(code, Gtin.Read(typed).Problems.Single().Code);

    // What the check digit is for: any one digit misread is found.
    [SeededProperty]
    public bool Any_one_wrong_digit_is_found(uint number, byte place, byte by)
    {
        var digits = number.ToString("D12", System.Globalization.CultureInfo.InvariantCulture);
        var whole = digits + Gtin.CheckDigit(digits);
        var at = place % whole.Length;
        var other = (char)('0' + ((whole[at] - '0' + 1 + (by % 9)) % 10));
        return Gtin.Read(whole).Succeeded && !Gtin.Read(whole[..at] + other + whole[(at + 1)..]).Succeeded;
    }
}

public class CarbohydrateTests
{
    private static Food Of(CarbohydrateConvention convention, decimal? carbohydrate, decimal? fibre, decimal? polyols = null) =>
        Kitchen.Of("food", new(Carbohydrate: carbohydrate, Fibre: fibre, Polyols: polyols)) with { Convention = convention };

    private static Totals In100g(Food food) => new Contents([food.Grams(100)]).Totals;

    [SeededProperty]
    public bool One_food_under_both_conventions_has_the_same_total_and_net(byte starch, byte fibre)
    {
        var american = In100g(Of(CarbohydrateConvention.Total, starch + fibre, fibre));
        var european = In100g(Of(CarbohydrateConvention.WithoutFibre, starch, fibre));
        return american[Nutrient.Carbohydrate] == european[Nutrient.Carbohydrate] && american.NetCarbohydrate == european.NetCarbohydrate
            && american.NetCarbohydrate.Known == starch;
    }

    [Theory]
    [InlineData(CarbohydrateConvention.WithoutFibre, 40.0, 8.0, null, 48, true, 40, true)] // net carbs from a European label
    [InlineData(CarbohydrateConvention.Total, 48.0, 8.0, null, 48, true, 40, true)]
    [InlineData(CarbohydrateConvention.Total, 21.0, 5.0, 12.0, 21, true, 4, true)] // a bar sweetened with polyols
    [InlineData(CarbohydrateConvention.Total, 48.0, null, null, 48, true, 48, false, Certainty.AtMost)] // without its fibre the net figure is at most this
    [InlineData(CarbohydrateConvention.WithoutFibre, 40.0, null, null, 40, false, 40, true)]
    [InlineData(CarbohydrateConvention.Total, null, 2.0, null, 0, false, -2, false)]
    [InlineData(CarbohydrateConvention.Total, 0.0, null, null, 0, true, 0, true)] // no carbohydrate, so no fibre either
    public void Total_and_net(CarbohydrateConvention convention, double? carbohydrate, double? fibre, double? polyols, decimal total,
        bool totalKnown, decimal net, bool netKnown, Certainty unknown = Certainty.AtLeast)
    {
        var totals = In100g(Of(convention, (decimal?)carbohydrate, (decimal?)fibre, (decimal?)polyols));
        Assert.Equal(Total.Of(total, totalKnown), totals[Nutrient.Carbohydrate]);
        Assert.Equal(new Total(net, netKnown ? Certainty.Exact : unknown), totals.NetCarbohydrate);
    }

    [Fact]
    public void Net_carbohydrate_is_a_measure_like_any_other()
    {
        var sums = MeasureTotals.Of(new Contents([Of(CarbohydrateConvention.WithoutFibre, 40, 8).Grams(50)]), PointsRule.Starting);
        Assert.Equal((24m, 20m), (sums[Measure.Carbohydrate].Known, sums[Measure.NetCarbohydrate].Known));
    }

    [Fact]
    public void Protein_of_gelatin_counts_and_is_marked_incomplete_or_is_left_out_by_an_eater_who_says_so()
    {
        var jelly = new Contents(
            [(Kitchen.Of("gelatin", new(Protein: 86)) with { HasIncompleteProtein = true }).Grams(10), Kitchen.Egg.Grams(100)]);
        Assert.Equal((20.6m, 8.6m), (jelly.Totals[Nutrient.Protein].Known, jelly.IncompleteProtein));
        var aim = new DayAim(Measure.Energy, new Dictionary<Measure, Band>(), PointsRule.Starting);
        Assert.Equal(20.6m, aim.Count(jelly)[Measure.Protein].Known);
        var leftOut = (aim with { LeavesOutIncompleteProtein = true }).Count(jelly);
        Assert.Equal(12m, leftOut[Measure.Protein].Known);
        Assert.Equal(aim.Count(jelly).Where(total => total.Key != Measure.Protein), leftOut.Where(total => total.Key != Measure.Protein));
    }

    [Fact]
    public void Points_of_a_stated_serving_follow_the_weight_and_round_once()
    {
        // Common practice, no published source: 5 points for 17 crackers: 8 crackers are 2.
        var cracker = Kitchen.Of("cracker", new(Energy: 450), ("piece", 2));
        var rule = PointsRule.Starting with { FixedValues = [new(cracker.Id, 5, 34)], FreeGroups = [FoodGroup.Grains] };
        Assert.Equal(2, rule.Of(new([cracker.Grams(16)])).Known);
        Assert.Equal(5, rule.Of(new([cracker.Grams(34)])).Known);

        // Common practice, no published source: one roll 3 points, two rolls 5.
        var roll = rule with { FixedValues = [new(cracker.Id, 2.6m, 60)] };
        Assert.Equal((3m, 5m), (roll.Of(new([cracker.Grams(60)])).Known, roll.Of(new([cracker.Grams(120)])).Known));
    }

    [Fact]
    public void Every_starting_rule_is_one_that_an_eater_could_write() =>
        Assert.All(PointsRule.StartingRules, rule => Assert.Empty(rule.Problems()));

    [Theory]
    [InlineData(5, 0)]
    [InlineData(-1, 30)]
    [InlineData(5, 9000)]
    public void A_fixed_value_that_cannot_be_is_named(decimal points, decimal grams) =>
        Assert.Equal("rule-fixed-absurd", (PointsRule.Starting with { FixedValues = [new("x", points, grams)] }).Problems().Single().Code);
}
