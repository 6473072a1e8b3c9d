using FsCheck.Xunit;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Tests.Cook;

public sealed class ExpectedWeightTests
{
    [Fact]
    public void The_cooks_own_history_comes_before_the_recipe_and_that_before_what_goes_in()
    {
        var own = ExpectedWeight.Of(new(3000), 0.9m, [0.84m, 0.88m]);
        Assert.Equal((2580m, ExpectedFrom.EarlierBatches), (own.Weight.Value, own.From));
        Assert.Equal(84.85m, Math.Round(own.Spread.Value, 2));
        Assert.Equal(new(new(2700), Grams.Zero, ExpectedFrom.Recipe), ExpectedWeight.Of(new(3000), 0.9m, []));
        Assert.Equal(new(new(3000), Grams.Zero, ExpectedFrom.WhatGoesIn), ExpectedWeight.Of(new(3000), null, []));
        Assert.Equal(0, ExpectedWeight.Of(new(3000), null, [0.8m]).Spread.Value);
    }

    [SeededProperty]
    public bool Twice_as_much_is_expected_to_weigh_twice_as_much(ushort raw, byte[] earlier)
    {
        var factors = earlier.Take(12).Select(tenth => 0.5m + (tenth / 250m)).ToList();
        var (one, two) = (ExpectedWeight.Of(new(raw), 0.9m, factors), ExpectedWeight.Of(new(raw * 2m), 0.9m, factors));
        return Math.Abs(two.Weight.Value - (2 * one.Weight.Value)) <= 1.5m && one.Weight.Value == Math.Truncate(one.Weight.Value)
            && (factors.Count == 0
                || (one.Weight.Value >= (raw * factors.Min()) - 0.5m && one.Weight.Value <= (raw * factors.Max()) + 0.5m));
    }
}
