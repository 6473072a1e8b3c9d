using FsCheck.Xunit;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Recipes;

public class CutChartTests
{
    private static Core.Foods.Contents Batch(decimal grams) => new([Kitchen.Lentils.Grams(grams)]);

    [SeededProperty]
    public bool Every_cut_holds_its_share_and_a_step_is_where_a_point_falls(ushort grams)
    {
        var (batch, weight) = (Batch(grams + 100), new Grams(grams + 300));
        var cuts = CutChart.Of(batch, weight, PointsRule.Starting);
        return cuts.Count == 35 && cuts.All(cut =>
            Math.Abs((cut.Grams.Value * cut.Portions) - weight.Value) < 1e-10m
            && Math.Abs((cut.Figures[Measure.Energy].Known * cut.Portions) - batch.Totals[Nutrient.Energy].Known) < 1e-10m
            && cut.Figures[Measure.Points].Known == PointsRule.Starting.Of(batch.Scale(1m / cut.Portions)).Known
            && cut.IsStep == (cut.Figures[Measure.Points].Known < PointsRule.Starting.Of(batch.Scale(1m / (cut.Portions - 1))).Known));
    }

    // A portion smaller by what the chart says has a point less; one gram less smaller has not.
    [SeededProperty]
    public bool The_smallest_change_crosses_the_step_and_a_gram_less_does_not(ushort grams)
    {
        var (batch, weight) = (Batch(grams + 500), new Grams(grams + 900));
        return CutChart.Of(batch, weight, PointsRule.Starting).Where(cut => cut.ToNextStep is not null).All(cut =>
        {
            decimal PointsAt(decimal portion) => PointsRule.Starting.Of(batch.Scale(portion / weight.Value)).Known;
            var change = cut.ToNextStep!.Value.Value;
            var here = cut.Figures[Measure.Points].Known;
            return PointsAt(Math.Max(0, cut.Grams.Value - change)) < here && (change < 1 || PointsAt(cut.Grams.Value - change + 1) == here);
        });
    }

    [SeededProperty]
    public bool The_largest_portion_fits_and_a_gram_more_does_not(ushort grams, byte most)
    {
        var (batch, weight) = (Batch(grams + 200), new Grams(grams + 400));
        foreach (var (measure,
            limit) in new[] { (Measure.Energy, (most * 3m) + 20), (Measure.Points, (most % 20) + 1m), (Measure.Protein, most + 2m) })
        {
            if (CutChart.LargestAtMost(batch, weight, PointsRule.Starting, measure,
                limit) is not { Succeeded: true, Value: { } found }) return false;
            decimal At(decimal share) => MeasureTotals.Of(batch.Scale(share), PointsRule.Starting)[measure].Known;
            if (At(found.Grams.Value / weight.Value) > limit || found.Figures[measure].Known > limit) return false;
            if (found.Grams.Value < weight.Value && At((found.Grams.Value + 1) / weight.Value) <= limit) return false;
            if (At(1m / found.Portions) > limit || (found.Portions > 1 && At(1m / (found.Portions - 1)) <= limit)) return false;
        }

        return true;
    }

    [Fact]
    public void A_744_g_pan_for_six_is_124_g_a_box()
    {
        // Common practice, no published source.
        Assert.Equal(124, CutChart.Of(Batch(700), new(744), PointsRule.Starting).Single(cut => cut.Portions == 6).Grams.Value);
    }

    [Fact]
    public void A_portion_may_drop_a_point_at_14_pieces_that_it_did_not_at_13()
    {
        // Invented so that 13 pieces have exactly 4 points and 14 have 3.71, so 4; at step 0.5 they part.
        var batch = new Core.Foods.Contents([Kitchen.Of("dough", new(Energy: 260)).Grams(1000)]);
        var half = PointsRule.Starting with { Step = 0.5m };
        var cuts = CutChart.Of(batch, new(1000), half).ToDictionary(cut => cut.Portions);
        Assert.Equal((4m, 3.5m, true), (cuts[13].Figures[Measure.Points].Known, cuts[14].Figures[Measure.Points].Known, cuts[14].IsStep));
    }

    [Theory]
    [InlineData(0, "most-none")]
    [InlineData(0.001, "most-small")]
    public void A_portion_that_cannot_be_is_named(decimal most, string code) =>
        Assert.Equal(code, CutChart.LargestAtMost(Batch(500), new(500), PointsRule.Starting, Measure.Energy, most).Problems.Single().Code);

    [Fact]
    public void Nothing_in_the_pan_has_no_largest_portion() =>
        Assert.Equal("weight-nothing",
            CutChart.LargestAtMost(Core.Foods.Contents.Nothing, default, PointsRule.Starting, Measure.Energy, 100).Problems.Single().Code);
}
