using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Tests.Measures;

public class SaidVolumeTests
{
    // The US cup, 236.588 ml: NIST SP 811, Appendix B.8.
    private const decimal Cup = 236.5882365m;

    [Theory]
    [InlineData(8, 6, "1 1/3 cups")]
    [InlineData(8, 8, "1 cup")]
    [InlineData(8, 12, "2/3 cup")]
    [InlineData(4.5, 6, "3/4 cup")]
    [InlineData(8, 5, "about 1 2/3 cups")] // 1.6: the nearest mark of a set of cups
    [InlineData(8, 60, null)]
    public void What_comes_to_cups_is_told_in_cups(double cups, int portions, string? said) =>
        Assert.Equal(said, SaidVolume.Of((decimal)cups * Cup / portions, (decimal)cups * Cup));

    [Theory]
    [InlineData(2000, 6, "330 ml")]
    [InlineData(500, 8, "about 65 ml")]
    [InlineData(2000, 200, null)]
    public void What_does_not_is_told_in_millilitres(int ml, int portions, string? said) =>
        Assert.Equal(said, SaidVolume.Of((decimal)ml / portions, ml));

    [Theory]
    [InlineData("12 cups", 2839.0588, "12 cups")]
    [InlineData("1 1/3 cups", 315.4510, "1 1/3 cups")]
    [InlineData("2 l", 2000.0, "2000 ml")]
    [InlineData("900", 900.0, "900 ml")]
    [InlineData("2 qt", 1892.7059, "8 cups")]
    [InlineData("8", null, null)] // cups, or litres?
    [InlineData("900 g", null, null)]
    [InlineData("a pot", null, null)]
    [InlineData("0 cups", null, null)]
    public void What_a_whole_dish_fills_is_read_and_written_as_it_is_said(string text, double? ml, string? again)
    {
        var read = SaidVolume.Read(text);
        Assert.Equal((decimal?)ml, read is { } whole ? Math.Round(whole, 4) : null);
        Assert.Equal(again, read is { } said ? SaidVolume.Of(said) : null);
        if (again is not null) Assert.Equal(read!.Value, SaidVolume.Read(again)!.Value, 2);
    }
}
