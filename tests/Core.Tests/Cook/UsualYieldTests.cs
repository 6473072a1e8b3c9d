using LivelyTern.Core.Cook;

namespace LivelyTern.Core.Tests.Cook;

public sealed class UsualYieldTests
{
    // By hand: 0.80, 0.82 and 0.81 have a mean of 0.81 and a standard deviation of 0.01; within 3 % of the raw weight is as usual.
    [Theory]
    [InlineData(0.81, YieldSays.AsUsual)]
    [InlineData(0.78, YieldSays.AsUsual)]
    [InlineData(0.779, YieldSays.LostMore)]
    [InlineData(0.85, YieldSays.LostLess)]
    public void A_batch_that_boiled_down_more_than_those_before_it_is_told(double yield, YieldSays says)
    {
        var usual = UsualYield.Of([0.80m, 0.82m, 0.81m])!;
        Assert.Equal((0.81m, 0.01m, 3), (usual.Mean, decimal.Round(usual.Spread, 6), usual.Batches));
        Assert.Equal(says, usual.Of((decimal)yield));
    }

    // 0.70 and 0.90 scatter by 0.14: 0.60 is within two of that.
    [Fact]
    public void Where_they_scatter_more_is_usual_and_without_any_nothing_is()
    {
        Assert.Equal(YieldSays.AsUsual, UsualYield.Of([0.7m, 0.9m])!.Of(0.6m));
        Assert.Equal((0.7m, 0m), (UsualYield.Of([0.7m])!.Mean, UsualYield.Of([0.7m])!.Spread));
        Assert.Null(UsualYield.Of([]));
    }
}
