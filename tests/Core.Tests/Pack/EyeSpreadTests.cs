using FsCheck;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Tests.Pack;

public sealed class EyeSpreadTests
{
    private static EyeTry Try(FoodGroup? group, decimal guess, decimal real, decimal kcal = 1) => new(group, new(guess), new(real), kcal);

    // 120 g for 100, 100 for 100 and 110 for 100: a tenth more, s = 0.1; the next of three lies 0.1 √(4/3) = 0.1155 off.
    [Fact]
    public void A_few_tries_tell_how_far_off_the_eye_is()
    {
        var rice = EyeSpread.Of([Try(FoodGroup.Grains, 100, 120), Try(FoodGroup.Grains, 100, 100), Try(FoodGroup.Grains, 200, 220)])!;
        Assert.Equal((0.1m, 3), (rice.Bias, rice.Tries));
        Assert.Equal(0.1m, rice.Spread, 10);
        Assert.Equal(0.1154700538m, rice.Next, 8);
        Assert.Null(EyeSpread.Of([Try(null, 100, 120), Try(null, 100, 90)]));
    }

    // A kind that was never tried goes by all tries, and an eye that never was by a fifth; common practice, no published source.
    [Fact]
    public void A_kind_without_tries_of_its_own_goes_by_all()
    {
        EyeTry[] tries =
        [
            Try(FoodGroup.Grains, 100, 110), Try(FoodGroup.Grains, 100, 90), Try(FoodGroup.Grains, 100, 100),
            Try(FoodGroup.NutsAndSeeds, 30, 60, 6),
        ];
        Assert.Equal(3, EyeSpread.For(FoodGroup.Grains, tries).Tries);
        Assert.Equal(4, EyeSpread.For(null, tries).Tries);
        Assert.Equal((0.2m, 0), (EyeSpread.For(null, []).Next, EyeSpread.For(null, []).Tries));
    }

    // 30 g of nuts at 6 kcal, a quarter off, are 45 kcal and more; 100 g of courgette at 0.2 kcal, as far off, are 5.
    [Fact]
    public void Weighing_pays_where_a_portion_by_eye_is_off_by_most()
    {
        EyeTry[] Off(FoodGroup group, decimal grams, decimal kcal) =>
            [.. new[] { 0.75m, 1m, 1.25m }.Select(share => Try(group, grams, grams * share, kcal))];
        var kinds = EyeKind.Of([.. Off(FoodGroup.Vegetables, 100, 0.2m), .. Off(FoodGroup.NutsAndSeeds, 30, 6), Try(null, 1, 2)]);
        Assert.Equal([(FoodGroup.NutsAndSeeds, true), (FoodGroup.Vegetables, false)], kinds.Select(kind => (kind.Group!.Value, kind.Pays)));
        Assert.Equal(0.25m * 180 * 1.1547m, kinds[0].EitherWay, 2);
    }

    // Two boxes 60 and 80 kcal off are together 100 kcal off, not 140; never more than their sum, never less than the largest.
    [Fact]
    public void What_lies_beside_each_other_evens_out() => Assert.Equal(100, EyeSpread.Together([60, 80]));

    [SeededProperty]
    public bool Together_lies_between_the_largest_and_the_sum(NonNegativeInt[] each)
    {
        var all = each.Select(one => (decimal)(one.Get % 10_000)).ToList();
        var together = EyeSpread.Together(all);
        return together >= all.DefaultIfEmpty().Max() - 0.001m && together <= all.Sum() + 0.001m;
    }

    [Theory]
    [InlineData(0, 100, "eye-guess")]
    [InlineData(100, 0, "eye-real")]
    [InlineData(100, 10_001, "eye-real")]
    [InlineData(100, 100, null)]
    public void What_can_t_be_a_portion_is_refused(decimal guess, decimal real, string? code) =>
        Assert.Equal(code, Try(null, guess, real).Refusal?.Code);
}
