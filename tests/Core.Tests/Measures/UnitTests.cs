using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Tests.Measures;

public class UnitTests
{
    // NIST SP 811 / Handbook 44; UK Weights and Measures Act 1985; the Australian spoon from memory of the same act's schedule abroad.
    [Theory]
    [InlineData("cup", 236.5882365)]
    [InlineData("Tablespoons", 14.78676478)]
    [InlineData("tsp.", 4.92892159)]
    [InlineData("fl oz", 29.57352956)]
    [InlineData("oz", 28.349523125)]
    [InlineData("lb", 453.59237)]
    [InlineData("imperial fl oz", 28.4130625)]
    [InlineData("imperial pint", 568.26125)]
    [InlineData("label cup", 240)] // US 21 CFR 101.9(b)(5)(viii), as the four after it
    [InlineData("label tbsp", 15)]
    [InlineData("label tsp", 5)]
    [InlineData("label fl oz", 30)]
    [InlineData("label oz", 28)]
    [InlineData("metric cup", 250)]
    [InlineData("australian tbsp", 20)]
    [InlineData("kg", 1000)]
    [InlineData("dl", 100)]
    public void A_unit_is_its_published_size(string word, decimal inBase) => Assert.Equal(inBase, Unit.Find(word)!.InBase);

    [Fact]
    public void Published_units_agree_with_each_other()
    {
        // 16 tablespoons, 48 teaspoons and 8 fluid ounces are a cup; 16 ounces are a pound (Handbook 44, general tables).
        Assert.Equal(Unit.Cup.InBase, Unit.Tablespoon.InBase * 16, 6);
        Assert.Equal(Unit.Cup.InBase, Unit.Teaspoon.InBase * 48, 6);
        Assert.Equal(Unit.Cup.InBase, Unit.Find("fl oz")!.InBase * 8, 6);
        Assert.Equal(Unit.Find("lb")!.InBase, Unit.Find("oz")!.InBase * 16);
        Assert.Equal(Unit.Find("imperial pint")!.InBase, Unit.Find("imperial fl oz")!.InBase * 20);
    }

    /// <summary>However long a row is typed, it is read to its end or put aside; none of it ends the process.</summary>
    [Theory]
    [InlineData("~")]
    [InlineData("about ")]
    [InlineData("~ about ")]
    [InlineData("1 lb ")]
    [InlineData("1 g ")]
    [InlineData("1 (")]
    [InlineData("1g/")]
    [InlineData("1 lb plus ")]
    [InlineData("2 x ")]
    [InlineData("½ ")]
    public void A_long_row_of_the_same_is_read_without_end_or_fall(string piece)
    {
        var row = string.Concat(Enumerable.Repeat(piece, 30_000));
        foreach (var line in new[] { row, row + "3 g oats", "3 g " + row })
        {
            var read = AmountText.Read(line);
            Assert.True(read is null || read.Quantity is >= 0 and <= AmountText.Absurd * 10 * AmountText.Absurd);
        }
    }

    [Theory]
    [InlineData("~ about ~3 g oats", 3)]
    [InlineData("about 1 lb 2 oz oats", 1.125)]
    public void About_said_twice_is_said_once(string line, decimal quantity)
    {
        var read = AmountText.Read(line)!;
        Assert.Equal((quantity, "oats", true), (read.Quantity, read.Rest, read.IsAbout));
    }

    [Fact]
    public void Every_unit_names_its_source_and_every_spelling_means_one_unit()
    {
        Assert.All(Unit.All, unit => Assert.False(string.IsNullOrWhiteSpace(unit.Source)));
        Assert.All(Unit.All, unit => Assert.All(unit.Spellings, spelling => Assert.Same(unit, Unit.Find(spelling))));
    }

    [Theory]
    [InlineData("600 g red lentils", 600, 600, "g", "red lentils")]
    [InlineData("150g strawberries", 150, 150, "g", "strawberries")]
    [InlineData("2 x 400 g tin chopped tomatoes", 800, 800, "g", "tin chopped tomatoes")]
    [InlineData("2x400g tin chopped tomatoes", 800, 800, "g", "tin chopped tomatoes")]
    [InlineData("1 (15 oz) can chickpeas", 15, 15, "oz", "can chickpeas")]
    [InlineData("2-3 tbsp oil", 2, 3, "tbsp", "oil")]
    [InlineData("2 to 3 tbsp oil", 2, 3, "tbsp", "oil")]
    [InlineData("1,5 kg potatoes", 1.5, 1.5, "kg", "potatoes")]
    [InlineData("1,000 g potatoes", 1000, 1000, "g", "potatoes")]
    [InlineData("0,125 l milk", 0.125, 0.125, "l", "milk")]
    [InlineData("1 1/2 cups of oats", 1.5, 1.5, "cup", "oats")]
    [InlineData("½ tsp salt", 0.5, 0.5, "tsp", "salt")]
    [InlineData("1½ cup oats", 1.5, 1.5, "cup", "oats")]
    [InlineData("3/4 cup oats", 0.75, 0.75, "cup", "oats")]
    [InlineData("2 fl oz cream", 2, 2, "fl oz", "cream")]
    [InlineData("half a banana", 0.5, 0.5, null, "banana")]
    [InlineData("2 eggs", 2, 2, null, "eggs")]
    [InlineData("-5 g salt", -5, -5, "g", "salt")]
    public void An_amount_is_read_as_people_say_it(string line, decimal from, decimal to, string? unit, string rest)
    {
        var amount = AmountText.Read(line)!;
        Assert.Equal((from, to, unit, rest), (amount.From, amount.To, amount.Unit?.Name, amount.Rest));
        Assert.Equal(from != to, amount.IsAbout);
        Assert.Equal((from + to) / 2, amount.Quantity);
    }

    [Theory]
    [InlineData("")]
    [InlineData("oats")]
    [InlineData("1/0 cup oats")]
    [InlineData("some oats")]
    public void No_amount_is_made_up(string line) => Assert.Null(AmountText.Read(line));

    [Fact]
    public void A_third_of_a_cup_is_a_third() => Assert.Equal(1m / 3, AmountText.Read("1/3 cup oat milk")!.Quantity);

    [Fact]
    public void A_number_of_any_length_is_read_without_an_overflow()
    {
        Assert.True(AmountText.Read(new string('9', 250) + " g salt")!.Quantity > AmountText.Absurd);
        Assert.True(AmountText.Read("999999999 x 999999999 kg salt")!.Quantity > AmountText.Absurd);
    }
}
