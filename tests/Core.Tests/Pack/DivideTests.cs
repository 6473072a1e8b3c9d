using FsCheck.Xunit;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Pack;

public class DivideTests
{
    [SeededProperty(MaxTest = 500)]
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

    [SeededProperty]
    public bool No_piece_is_lost(ushort pieces, byte boxes, bool inHalves)
    {
        var made = new PiecesMade(pieces, inHalves ? Batch.HalfPiece : Batch.WholePiece);
        var divided = Divide.ByPieces(made, boxes);
        if (pieces is < 1 or > 10_000 || boxes < 1 || made.Steps < boxes) return !divided.Succeeded;
        var (portions, over) = (divided.Value!.Portions, divided.Value.Over);
        return portions.Sum() + over == pieces && over < boxes * made.Step && portions.Distinct().Count() == 1
            && portions[0] % made.Step == 0;
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
        var divided = Divide.ByPieces(new(13), 4).Value!;
        Assert.Equal([3, 3, 3, 3], divided.Portions);
        Assert.Equal(1, divided.Over);
        Assert.Equal([6.5m, 6.5m], Divide.ByPieces(new(13, Batch.HalfPiece), 2).Value!.Portions);
    }

    [SeededProperty(MaxTest = 500)]
    public bool As_planned_no_gram_is_lost_and_every_portion_keeps_its_share(uint tenths, ushort[] planned, byte more)
    {
        var batch = new Grams(1 + (tenths % 200_000 / 10m));
        var portions = planned.Take(40).Select(grams => new Grams(50 + (grams % 900))).ToList();
        var expected = new Grams(portions.Sum(portion => portion.Value) + (more * 10m));
        var boxes = portions.Count + (more % 5);
        if (boxes == 0) return true;
        var divided = Divide.AsPlanned(batch, expected, portions, boxes).Value!;
        var sum = divided.Portions.Sum(portion => portion.Value);
        var whole = expected.Value == 0 ? 1 : expected.Value;
        return divided.Portions.Count == boxes
            && sum + divided.Over.Value == batch.Value
            && divided.Over.Value >= 0
            && divided.Portions.All(portion => portion.Value == Math.Truncate(portion.Value))
            && divided.Portions.Zip(portions).All(pair => Math.Abs(pair.First.Value - (batch.Value * pair.Second.Value / whole)) <= 1);
    }

    [Theory]
    [InlineData(900, 1000, 3, "270 270 360", 0)] // less came out of the pan: every share holds what was planned
    [InlineData(900, 1000, 4, "270 270 360 0", 0)]
    [InlineData(2000, 2000, 5, "300 300 400 500 500", 0)]
    [InlineData(2000, 2000, 3, "300 300 400", 1000)] // what nobody planned and no box takes is over
    [InlineData(500, 500, 3, "150 150 200", 0)] // twice as much planned as it makes: all get half
    public void Portions_laid_on_days_become_boxes_by_their_share(decimal grams, decimal expected, int boxes, string portions, decimal over)
    {
        var divided = Divide.AsPlanned(new(grams), new(expected), [new(300), new(300), new(400)], boxes).Value!;
        Assert.Equal(portions, string.Join(' ', divided.Portions.Select(portion => portion.Value)));
        Assert.Equal(over, divided.Over.Value);
    }

    [Fact]
    public void Planned_pieces_follow_the_shares_and_too_few_boxes_are_refused()
    {
        var divided = Divide.PiecesAsPlanned(new(20), new(1000), [new(300), new(300), new(400)], 3).Value!;
        Assert.Equal([6, 6, 8], divided.Portions);
        Assert.Equal([1.5m, 1.5m, 2],
            Divide.PiecesAsPlanned(new(5, Batch.HalfPiece), new(1000), [new(300), new(300), new(400)], 3).Value!.Portions);
        Assert.Equal(24, Divide.PiecesAsPlanned(new(24), new(1000), [new(170), new(130)], 5).Value!.Portions.Sum());
        Assert.Equal("boxes-too-few", Divide.AsPlanned(new(900), new(1000), [new(300), new(300)], 1).Problems.Single().Code);
        Assert.Equal("boxes-too-few", Divide.PiecesAsPlanned(new(24), new(1000), [new(300), new(300)], 1).Problems.Single().Code);
        Assert.Equal("pieces-too-few", Divide.PiecesAsPlanned(new(2), new(1000), [new(300)], 3).Problems.Single().Code);
    }

    [Fact]
    public void No_box_is_left_empty_and_what_would_leave_one_is_refused_with_the_ways_out()
    {
        // 22 muffins, of which twelve lie on days in twos: into 20 boxes the ten left over do not go fourteen ways.
        var planned = Enumerable.Repeat(new Grams(160), 6).ToList();
        var refused = Divide.PiecesAsPlanned(new(22), new(1760), planned, 20).Problems.Single();
        Assert.Equal(("pieces-too-few", "boxes"), (refused.Code, refused.Field));
        Assert.Contains("pack 16 boxes, or take a portion off its day first", refused.Sentence, StringComparison.Ordinal);
        Assert.Equal([2, 2, 2, 2, 2, 2, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1],
            Divide.PiecesAsPlanned(new(22), new(1760), planned, 16).Value!.Portions);
        Assert.Contains("4 pieces are too few for 6 portions on days: take 2 off their days first",
            Divide.PiecesAsPlanned(new(4), new(600), [.. Enumerable.Repeat(new Grams(100), 4), new(1), new(1)], 6).Problems.Single()
            .Sentence, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(2, 1000, 0, "As it is planned, 1 of 2 boxes would be empty: pack 1 box, or take a portion off its day first.")]
    [InlineData(4, 600, 1, "As it is planned, 2 of 4 boxes would be empty: pack 2 boxes, or take a portion off its day first.")]
    [InlineData(3, 400, 3, "As it is planned, 2 of 3 boxes would be empty: take 2 of the 3 portions off their days first.")]
    public void A_weighed_batch_fills_every_box_it_goes_into(int boxes, int first, int others, string sentence)
    {
        // All of it lies on days already, or some of what does is hardly anything of it.
        var planned = Enumerable.Repeat(new Grams(others == 3 ? 0.1m : 400), others == 3 ? 2 : others).Prepend(new(first)).ToList();
        var batch = new Batch(
            Guid.Empty, "oat bake", new TapeMark("OB", 1), new(2026, 11, 25), new([Kitchen.Oats.Grams(1000)]), new Grams(1000));
        var refused = DividedBatch.Of(new(900), boxes, null, batch, planned).Problems.Single();
        Assert.Equal(("boxes-empty", sentence), (refused.Code, refused.Sentence));
    }

    [Fact]
    public void A_portion_of_a_batch_whose_weight_nobody_knew_is_what_it_was_planned_as()
    {
        var batch = new Batch(Guid.Empty, "odd", new TapeMark("OD", 1), new(2026, 11, 25), Contents.Nothing, null);
        Assert.Null(batch.Weight);
        var divided = DividedBatch.Of(new(400), 2, null, batch, [new(300)]).Value!;
        Assert.Equal([300m, 100m], divided.Portions.Select(portion => portion.Weight.Value));
    }

    [SeededProperty]
    public bool Pieces_are_neither_lost_nor_is_a_box_empty(byte pieces, byte[] planned, byte more, bool inHalves)
    {
        var made = new PiecesMade(pieces + 1, inHalves ? Batch.HalfPiece : Batch.WholePiece);
        var weights = planned.Take(20).Select(weight => new Grams(weight + 1)).ToList();
        var expected = new Grams(weights.Sum(weight => weight.Value) + more);
        if (Divide.PiecesAsPlanned(made, expected, weights, Math.Max(1, weights.Count + (more % 5))).Value is not { } divided) return true;
        return divided.Portions.Sum() + divided.Over == made.Count && divided.Portions.All(count => count > 0 && count % made.Step == 0);
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

    [SeededProperty]
    public bool Boxes_hold_the_whole_batch_whatever_the_water_that_left(ushort cooked, byte boxes)
    {
        var contents = new Contents([Kitchen.Oats.Grams(500), Kitchen.Egg.Grams(333)]);
        var batch = new Batch(Guid.Empty, "", new TapeMark("XX", 0), default, contents, new Grams(cooked + 1));
        var held = Divide.IntoEqual(batch.Cooked!.Value, boxes + 1).Value!.Portions.Select(weight =>
            new Box(Guid.Empty, batch, weight, null).Contents.Totals);
        var sum = held.Aggregate(Totals.None, (all, box) => all + box);
        return Nutrients.All.All(nutrient => Math.Abs(sum[nutrient].Known - contents.Totals[nutrient].Known) < 1e-12m);
    }
}
