using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;

namespace LivelyTern.Core.Tests.Plan;

/// <summary>Another amount of a small thing is called as a cook calls it, and read back as that.</summary>
public sealed class FillerOfferTests
{
    private static FillerOffer Offer(string text, decimal grams) => new(text, new Ingredient(Kitchen.RolledOats, new(grams)));

    [Theory]
    [InlineData("1 egg", 3, "3 eggs")]
    [InlineData("2 eggs", 2, "4 eggs")]
    [InlineData("1 slice rye bread", 2, "2 slices rye bread")]
    [InlineData("1 carrot, raw", 2, "2 carrots, raw")]
    [InlineData("1 cherry tomato", 9, "9 cherry tomatoes")]
    [InlineData("1 blackberry", 5, "5 blackberries")]
    [InlineData("1 glass of juice", 2, "2 glass of juice")] // what would not be read back stays
    [InlineData("50 g butter", 2, "100 g butter")]
    [InlineData("200 ml oat milk", 2, "400 ml oat milk")]
    [InlineData("half an apple", 2, "2 x half an apple")]
    public void So_many_servings_are_said_as_one_says_them(string one, int count, string many)
    {
        var made = Offer(one, 50).Times(count);
        Assert.Equal((many, 50m * count), (made.Text, made.Food.Weight.Value));
    }

    [Theory]
    [InlineData("3 eggs", 1, "1 egg", 50)]
    [InlineData("3 eggs", 4, "4 eggs", 200)]
    [InlineData("4 slices rye bread", 1, "1 slice rye bread", 37.5)]
    public void What_is_counted_is_counted_otherwise(string lying, int count, string text, decimal grams)
    {
        var made = Offer(lying, 150).Counting(count);
        Assert.Equal((text, grams, count), (made.Text, made.Food.Weight.Value, made.Count));
    }
}
