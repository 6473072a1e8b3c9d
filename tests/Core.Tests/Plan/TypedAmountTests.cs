using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Plan;

/// <summary>An amount typed for something where it stands.</summary>
public sealed class TypedAmountTests
{
    private static readonly Batch Stew = new(Guid.NewGuid(), "stew", new TapeMark("ST", 1), new(2026, 11, 25),
        new([Kitchen.Lentils.Grams(1000)]), new Grams(1000));

    private static Outcome<Laid> Read(Laid what, string typed, decimal boxGrams = 350) =>
        TypedAmount.Of(what, new Box(Guid.NewGuid(), Stew, new Grams(boxGrams), null), typed, (text, _) =>
            FoodLine.Read(text, Kitchen.Catalogue));

    [Theory]
    [InlineData("350 g quick oats", 350, "352", "352 g quick oats", 352)] // 350 planned, 352 weighed
    [InlineData("350 g quick oats", 350, "352 g", "352 g quick oats", 352)]
    [InlineData("350 g quick oats", 350, "half", "175 g quick oats", 175)]
    [InlineData("350 g quick oats", 350, "half of it", "175 g quick oats", 175)]
    [InlineData("1 cup quick oats", 80, "1 1/2", "1 1/2 cup quick oats", 120)]
    [InlineData("2 large eggs", 100, "3", "3 large eggs", 150)]
    [InlineData("2 large eggs", 100, "half", "1 large eggs", 50)]
    [InlineData("2 large eggs", 100, "200 g quick oats", "200 g quick oats", 200)]
    [InlineData("350 g quick oats", 350, "1 cup", "1 cup quick oats", 80)]
    public void A_plain_foods_amount_is_typed_as_people_say_it(string text, int grams, string typed, string then, int thenGrams)
    {
        var now = new PlainFood(text, (text.Contains("egg", StringComparison.Ordinal) ? Kitchen.Egg : Kitchen.Oats).Grams(grams));
        var amended = Assert.IsType<PlainFood>(Read(now, typed).Value);
        Assert.Equal((then, thenGrams), (amended.Text, (int)amended.Food.Weight.Value));
    }

    [Theory]
    [InlineData("352", 352.0)]
    [InlineData("300 g", 300.0)]
    [InlineData("half", 200.0)]
    [InlineData("1/2", 200.0)]
    [InlineData("75 %", 300.0)]
    [InlineData("nothing much", null)]
    [InlineData("3", null)] // three grams, three times as much?
    [InlineData("2 cups", null)]
    [InlineData("0", null)]
    [InlineData("20 kg", null)]
    public void A_portion_is_sized_by_grams_or_by_a_share(string typed, double? grams) =>
        Assert.Equal((decimal?)grams, (Read(new Portion(Stew.Id, new Grams(400)), typed).Value as Portion)?.Weight.Value);

    [Theory]
    [InlineData("3", 240.0)] // muffins of 80 g
    [InlineData("3 pieces", 240.0)]
    [InlineData("150 g", 160.0)]
    [InlineData("half", 80.0)]
    [InlineData("10 g", 80.0)]
    public void What_comes_in_pieces_is_sized_in_whole_ones(string typed, double grams)
    {
        var muffins = Stew with { Cooked = new Grams(960), Pieces = 12 };
        var read = TypedAmount.Of(new Portion(muffins.Id, new Grams(160)), new Box(Guid.NewGuid(), muffins, new Grams(160), 2), typed,
            (text, _) => FoodLine.Read(text, Kitchen.Catalogue));
        Assert.Equal((decimal)grams, ((Portion)read.Value!).Weight.Value);
    }

    [Theory]
    [InlineData("175", 175.0, null)]
    [InlineData("half", 175.0, null)]
    [InlineData("350 g", null, null)]
    [InlineData("351 g", null, "part-absurd")]
    [InlineData("lots", null, "amount-unread")]
    public void Of_a_box_no_more_than_what_is_in_it(string typed, double? part, string? problem)
    {
        var read = Read(new LaidBox(Guid.NewGuid()), typed);
        Assert.Equal(problem, read.Problems.SingleOrDefault()?.Code);
        Assert.Equal((decimal?)part, (read.Value as LaidBox)?.Part?.Value);
    }
}
