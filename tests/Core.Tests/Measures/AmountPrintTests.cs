using FsCheck.Xunit;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Tests.Measures;

public class AmountPrintTests
{
    private static readonly int[] Parts = [1, 2, 3, 4, 8, 10, 100];

    private static decimal Number(ushort whole, byte part, byte of) =>
        (whole % 400) + ((decimal)(part % Parts[of % Parts.Length]) / Parts[of % Parts.Length]);

    [SeededProperty]
    public bool Parsing_what_was_printed_gives_the_same_amount(ushort whole, byte part, byte of, byte unit, byte range, bool isPack)
    {
        var from = Number(whole, part, of) + 0.125m;
        var which = unit % (Unit.All.Count + 1) is var i && i < Unit.All.Count ? Unit.All[i] : null;
        var to = isPack ? from : from + (range % 5);
        var amount = new AmountText(from, to, which, "onions", isPack && which is not null ? new PackSize(2, from / 2, which) : null);
        if (amount.Pack is not null) amount = amount with { From = amount.Pack.Each * 2, To = amount.Pack.Each * 2 };
        var read = AmountText.Read(amount.Print() + " onions")!;

        // Fractions come back exactly; other decimals with the four places that are written.
        return Math.Abs(read.From - amount.From) <= 0.0002m + (amount.From >= 100 ? 0.1m : 0)
            && Math.Abs(read.To - amount.To) <= 0.0002m + (amount.To >= 100 ? 0.1m : 0)
            && read.Unit == amount.Unit && read.Rest == "onions" && (read.Pack is null) == (amount.Pack is null);
    }

    [Theory]
    [InlineData("1 1/3 cup oats", "1 1/3 cup")]
    [InlineData("½ cup oats", "1/2 cup")]
    [InlineData("2-3 tbsp oil", "2-3 tbsp")]
    [InlineData("2x400g tin tomatoes", "2 x 400 g")]
    [InlineData("1 (15 oz) can chickpeas, drained", "1 x 15 oz")]
    [InlineData("1.5 x 400 g tin tomatoes", "1 1/2 x 400 g")]
    [InlineData("0.31 kg flour", "0.31 kg")]
    [InlineData("3 onions", "3")]
    public void An_amount_is_printed_as_a_cook_writes_it_and_reads_back_as_itself(string line, string printed)
    {
        var amount = AmountText.Read(line)!;
        Assert.Equal(printed, amount.Print());
        var again = AmountText.Read(amount.Print() + " x")!;
        Assert.Equal((amount.From, amount.To, amount.Unit), (again.From, again.To, again.Unit));
    }

    [Theory]
    [InlineData("2 x 400 g tin tomatoes", 2, 400, "g")]
    [InlineData("1 (15 oz) can chickpeas", 1, 15, "oz")]
    [InlineData("3 (400 g) tins chickpeas", 3, 400, "g")]
    public void Packages_are_known_by_their_number_and_size(string line, decimal count, decimal each, string unit)
    {
        var pack = AmountText.Read(line)!.Pack!;
        Assert.Equal((count, each, unit), (pack.Count, pack.Each, pack.Unit.Name));
    }

    [Theory]
    [InlineData("2 onions")]
    [InlineData("2-3 x 400 g tins")]
    [InlineData("150 g oats")]
    public void What_is_not_said_in_packages_has_none(string line) => Assert.Null(AmountText.Read(line)!.Pack);
}
