using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Recipes;

/// <summary>What a recipe makes, as people write it.</summary>
public sealed class SaidYieldTests
{
    // A US cup is 236.588 ml (NIST SP 811).
    [Theory]
    [InlineData("makes 12 muffins", 12, 12, null, null)]
    [InlineData("Serves 6 (1 1/3 cups each)", 6, null, null, 1892.706)]
    [InlineData("serves 4 (350 g a portion)", 4, null, 1400.0, null)]
    [InlineData("12 waffles (80 g each)", 12, 12, 960.0, null)]
    [InlineData("makes 1 loaf (about 900 g)", 1, 1, 900.0, null)]
    [InlineData("8 cups", null, null, null, 1892.706)]
    [InlineData("Yield: 6 servings.", 6, null, null, null)]
    [InlineData("serves 4-6", 5, null, null, null)]
    [InlineData("about 1.8 kg", null, null, 1800.0, null)]
    [InlineData("6", 6, null, null, null)]
    public void A_yield_is_read_as_it_is_said(string text, int? portions, int? pieces, double? grams, double? ml)
    {
        var said = SaidYield.Read(text)!;
        Assert.Equal((portions, pieces), (said.Portions, said.Pieces));
        Assert.Equal((decimal?)grams, said.CookedGrams);
        Assert.Equal((decimal?)ml, said.VolumeMl is { } volume ? Math.Round(volume, 3) : null);
    }

    [Theory]
    [InlineData("makes 6 waffles (may be halved)", 6, true)]
    [InlineData("6 pieces (May be halved)", 6, true)]
    [InlineData("serves 6 (may be halved)", null, false)]
    public void It_may_say_that_pieces_may_be_halved(string text, int? pieces, bool mayHalve)
    {
        var made = SaidYield.Read(text)!.ToYield();
        Assert.Equal((6, pieces, mayHalve), (made.Portions, made.Pieces, made.MayHalve));
    }

    [Theory]
    [InlineData("a crowd")]
    [InlineData("")]
    [InlineData("makes a lot")]
    public void What_says_nothing_of_it_is_not_read(string text) => Assert.Null(SaidYield.Read(text));

    [Theory]
    [InlineData("makes 12 muffins", true)]
    [InlineData("serves 6 (1 1/3 cups each)", true)]
    [InlineData("12 muffins", false)]
    [InlineData("2 cups flour", false)]
    public void A_line_that_says_what_is_made_is_told_from_one_that_goes_in(string line, bool isYield) =>
        Assert.Equal(isYield, SaidYield.IsSaidIn(line));
}
