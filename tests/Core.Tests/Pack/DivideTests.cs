using FsCheck.Xunit;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Pack;

public class DivideTests
{
    [Property(MaxTest = 500)]
    public bool No_gram_is_lost(uint tenths, byte portions)
    {
        var batch = new Grams(tenths % 1_000_001 / 10m);
        var divided = Divide.IntoEqual(batch, portions + 1).Value!;
        var grams = divided.Portions.Select(portion => portion.Value).ToList();
        return grams.Count == portions + 1
            && grams.Sum() + divided.Over.Value == batch.Value
            && divided.Over.Value is >= 0 and < 1
            && grams.All(portion => portion == Math.Truncate(portion))
            && grams.Max() - grams.Min() <= 1;
    }

    [Property]
    public bool No_piece_is_lost(ushort pieces, byte boxes)
    {
        var divided = Divide.ByPieces(pieces, boxes);
        return pieces < 1 || boxes < 1 || pieces < boxes || pieces > 10_000
            ? !divided.Succeeded
            : divided.Value!.Portions.Sum() + divided.Value.Over == pieces && divided.Value.Over < boxes && divided.Value.Portions.Distinct().Count() == 1;
    }

    [Theory]
    [InlineData(744, 6, "124 124 124 124 124 124", 0)] // common practice, no published source: a 744 g pan of meat for six
    [InlineData(745, 6, "125 124 124 124 124 124", 0)]
    [InlineData(100, 3, "34 33 33", 0)]
    [InlineData(744.5, 6, "124 124 124 124 124 124", 0.5)]
    [InlineData(2, 3, "1 1 0", 0)]
    public void Known_batches_divide_as_a_cook_would(decimal grams, int portions, string expected, decimal over)
    {
        var divided = Divide.IntoEqual(new(grams), portions).Value!;
        Assert.Equal(expected, string.Join(' ', divided.Portions.Select(portion => portion.Value)));
        Assert.Equal(over, divided.Over.Value);
    }

    [Fact]
    public void Thirteen_meatballs_into_four_are_three_each_and_one_over()
    {
        // Common practice, no published source.
        var divided = Divide.ByPieces(13, 4).Value!;
        Assert.Equal([3, 3, 3, 3], divided.Portions);
        Assert.Equal(1, divided.Over);
    }

    [Theory]
    [InlineData(100, 0, "portions-none")]
    [InlineData(100, -1, "portions-none")]
    [InlineData(100, 1001, "portions-absurd")]
    [InlineData(-1, 2, "weight-negative")]
    [InlineData(1e9, 2, "weight-absurd")]
    public void What_cannot_be_divided_is_named(decimal grams, int portions, string code) =>
        Assert.Contains(Divide.IntoEqual(new(grams), portions).Problems, problem => problem.Code == code);

    [Theory]
    [InlineData(6330, 1630, 4700, null)]
    [InlineData(1710, 0, 1710, null)]
    [InlineData(1600, 1630, 0, "weight-below-pan")]
    [InlineData(1630, 1630, 0, "weight-nothing")]
    [InlineData(500, -1, 0, "weight-negative")]
    [InlineData(200000, 0, 0, "weight-absurd")]
    public void The_batch_is_the_full_pan_less_the_empty_one(decimal full, decimal pan, decimal cooked, string? code)
    {
        var outcome = CookedWeight.Of(new(full), new(pan));
        if (code is null) Assert.Equal(cooked, outcome.Value.Value);
        else Assert.Equal(code, outcome.Problems.Single().Code);
    }

    [Property]
    public bool Boxes_hold_the_whole_batch_whatever_the_water_that_left(ushort cooked, byte boxes)
    {
        var contents = new Contents([Kitchen.Oats.Grams(500), Kitchen.Egg.Grams(333)]);
        var batch = new Batch(Guid.Empty, "", new TapeMark("XX", 0), default, contents, new Grams(cooked + 1));
        var held = Divide.IntoEqual(batch.Cooked!.Value, boxes + 1).Value!.Portions.Select(weight => new Box(Guid.Empty, batch, weight, null).Contents.Totals);
        var sum = held.Aggregate(Totals.None, (all, box) => all + box);
        return Nutrients.All.All(nutrient => Math.Abs(sum[nutrient].AtLeast - contents.Totals[nutrient].AtLeast) < 1e-12m);
    }
}
