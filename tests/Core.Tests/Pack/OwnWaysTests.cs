using FsCheck;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Tests.Pack;

/// <summary>A batch into boxes, each in its own way, and box by box on the scale.</summary>
public sealed class OwnWaysTests
{
    // A kilocalorie in each gram.
    private static decimal Read(AtMostWish wish, Grams weight) => weight.Value;

    private static OwnBox Wish(BoxWish wish, decimal? got = null) => new(wish, null, got is { } grams ? new Grams(grams) : null);

    private static OwnBox Share(decimal parts = 1, decimal? got = null) => Wish(new ShareWish(parts), got);

    private static OwnBox AsPlanned(decimal grams, decimal? got = null) =>
        new(null, new Grams(grams), got is { } weight ? new Grams(weight) : null);

    private static Outcome<DividedBatch> ByWeight(decimal cooked, params OwnBox[] boxes) =>
        OwnWays.Of(new(cooked), MeasuredOut.ByWeight(new(cooked)), new(cooked), Grams.Zero, null, boxes, Read);

    private static Outcome<DividedBatch> ByPieces(decimal cooked, PiecesMade made, params OwnBox[] boxes) =>
        OwnWays.Of(new(cooked), MeasuredOut.ByPieces(new(cooked), made).Value!, new(cooked), Grams.Zero, null, boxes, Read);

    private static decimal[] OnScale(Outcome<DividedBatch> divided) => [.. divided.Value!.Portions.Select(box => box.OnScale.Value)];

    private static decimal[] Pieces(Outcome<DividedBatch> divided) => [.. divided.Value!.Portions.Select(box => box.Pieces!.Value)];

    // 4,000 g planned as 4,400: 440 and 330 g become 400 and 300; then a cup of 1 of 16, the budget, and the rest 2 to 3.
    [Fact]
    public void Portions_on_days_get_their_share_and_the_others_divide_what_those_leave_each_in_its_way()
    {
        OwnBox[] boxes =
        [
            AsPlanned(440), Wish(new VolumeWish(250)), AsPlanned(330), Wish(new AtMostWish(Measure.Energy, 420.5m)), Share(2), Share(3),
        ];
        var divided = OwnWays.Of(
            new(4000), MeasuredOut.ByWeight(new(4000)), new(4400), Grams.Zero, 4000, boxes, Read);
        Assert.Equal([400m, 250, 300, 420, 1052, 1578], OnScale(divided));
        Assert.Equal(0, divided.Value!.Over.Value);
    }

    // Common practice, no published source: 13 meatballs, four for one eater each, the odd one for another.
    [Fact]
    public void By_the_piece_every_way_comes_to_whole_pieces()
    {
        var odd = ByPieces(650, new(13), Wish(new PiecesWish(4)), Wish(new PiecesWish(4)), Share(2), Share());
        Assert.Equal([4m, 4, 3, 2], Pieces(odd));
        Assert.Equal([200m, 200, 150, 100], odd.Value!.Portions.Select(box => box.Weight.Value));

        // 120 g are 2.4 of 50 g: two; at most 160 kcal are three; what is planned as 100 g are two.
        var ways = ByPieces(650, new(13), Wish(new WeightWish(new(120))), Wish(new AtMostWish(Measure.Energy, 160)), AsPlanned(100));
        Assert.Equal([2m, 3, 2], Pieces(ways));
        Assert.Equal(6, ways.Value!.OverPieces);
        var halves = ByPieces(650, new(13, 0.5m), Share(), Share());
        Assert.Equal([6.5m, 6.5m], Pieces(halves));
    }

    // 1,200 g of the meat in 4,800 g of stew: 200 g of meat are 800 g of stew.
    [Fact]
    public void Measured_out_by_the_one_component_the_rest_follows_in_proportion()
    {
        var by = MeasuredOut.ByComponent(new(4800), new(1200)).Value!;
        OwnBox[] boxes = [Wish(new WeightWish(new(200))), AsPlanned(600), Share()];
        var divided = OwnWays.Of(new(4800), by, new(4800), Grams.Zero, null, boxes, Read);
        Assert.Equal([200m, 150, 850], OnScale(divided));
        Assert.Equal([800m, 600, 3400], divided.Value!.Portions.Select(box => box.Weight.Value));
    }

    [Fact]
    public void Box_by_box_the_targets_stay_and_the_last_takes_what_is_left()
    {
        Assert.Equal([403m, 400, 397], OnScale(ByWeight(1200, AsPlanned(400, 403), AsPlanned(400), AsPlanned(400))));
        var last = ByWeight(1200, AsPlanned(400, 403), AsPlanned(400, 399), AsPlanned(400));
        Assert.Equal([403m, 399, 398], OnScale(last));
        Assert.Equal(400, last.Value!.Portions[2].Target.Value);

        // A budget stays one, and what no box was to get stays over.
        Assert.Equal([300m, 420], OnScale(ByWeight(1200, Share(1, 300), Wish(new AtMostWish(Measure.Energy, 420)))));
        var over = ByWeight(1200, Wish(new WeightWish(new(400)), 410), Wish(new WeightWish(new(400))));
        Assert.Equal([410m, 400], OnScale(over));
        Assert.Equal(390, over.Value!.Over.Value);

        // Too little is left for two: each gets less in proportion.
        Assert.Equal([650m, 275, 275], OnScale(ByWeight(1200, AsPlanned(400, 650), AsPlanned(400), AsPlanned(400))));
        Assert.Equal(30, ByWeight(1200, AsPlanned(600, 610), AsPlanned(600, 620)).Value!.Missing.Value);
    }

    [Theory]
    [InlineData("pieces", 2.5, "pieces-halved", "boxes[0].pieces")]
    [InlineData("cups", 1, "cup-unknown", "cupGrams")]
    [InlineData("got", -3, "box-weight", "boxes[0].got")]
    [InlineData("grams", 1300, "batch-short", "boxes")]
    public void What_cannot_be_is_said_with_the_box_it_concerns(string way, double amount, string code, string field)
    {
        var size = (decimal)amount;
        var refused = way switch
        {
            "pieces" => ByPieces(1200, new(24), Wish(new PiecesWish(size))),
            "cups" => ByWeight(1200, Wish(new VolumeWish(size))),
            "got" => ByWeight(1200, Share(1, size)),
            _ => ByWeight(1200, Wish(new WeightWish(new(size)))),
        };
        var problem = refused.Problems.Single();
        Assert.Equal((code, field), (problem.Code, problem.Field));
    }

    [Fact]
    public void A_component_weighs_something_and_not_more_than_the_batch()
    {
        Assert.Equal("component-nothing", MeasuredOut.ByComponent(new(100), new(0)).Problems[0].Code);
        Assert.Equal("component-heavy", MeasuredOut.ByComponent(new(100), new(101)).Problems[0].Code);
        Assert.Equal("pieces-weighed", ByPieces(650, new(13), Share(1, 50)).Problems[0].Code);
    }

    // Whatever is wished, planned and measured, and whatever the scale says: in the boxes and over is what the batch weighs, to the
    // milligram, and what has got its weight has that.
    [SeededProperty]
    public bool To_the_milligram_nothing_is_lost(PositiveInt batch, PositiveInt component, PositiveInt[] kinds, NonNegativeInt[] got)
    {
        var cooked = new Grams((batch.Get % 8_000) + 500.125m);
        var isByComponent = component.Get % 3 == 0;
        var by = isByComponent
            ? MeasuredOut.ByComponent(cooked, new((component.Get % 400) + 7)).Value!
            : MeasuredOut.ByWeight(cooked);
        OwnBox Box(int kind, int weight)
        {
            Grams? filled = weight % 2 == 0 ? null : new Grams((weight % 90) + 0.5m);
            return (kind % 4) switch
            {
                0 => new(new WeightWish(new((kind % 50) + 1)), null, filled),
                1 => new(new AtMostWish(Measure.Energy, (kind % 500) + 20), null, filled),
                2 => new(null, new Grams((kind % 70) + 5), filled),
                _ => new(new ShareWish((kind % 5) + 1), null, filled),
            };
        }

        var boxes = kinds.Zip(got, (kind, weight) => Box(kind.Get, weight.Get)).Take(10).ToList();
        var divided = OwnWays.Of(cooked, by, cooked, Grams.Zero, null, boxes, Read);
        if (!divided.Succeeded)
            return divided.Problems.All(one => one.Code is "boxes-many" or "batch-short" or "box-empty" or "box-weight");
        var portions = divided.Value!.Portions;
        if (boxes.Zip(portions, (box, portion) => box.Got is { } weight && weight != portion.OnScale).Any(isOther => isOther)) return false;
        var sum = portions.Sum(portion => portion.Weight.Value) + divided.Value.Over.Value;
        var more = divided.Value.Missing.Value * by.Each.Value;
        return portions.All(portion => portion.Weight == portion.Weight.ToMilligram())
            && Math.Abs(sum - more - cooked.Value) < (more == 0 ? 1e-20m : 0.001m);
    }

    // A plain count of a pan drawn by hand: 3 by 4 has ten at the rim, two inside.
    [Fact]
    public void Who_likes_an_edge_gets_edges_as_far_as_there_are()
    {
        var pan = new PanSquares(3, 4);
        var boxOf = pan.Assign([4, 3, 2], [false, true, false]);
        Assert.Equal([1, 1, 1], boxOf.Take(3));
        Assert.Equal([5, 6], Enumerable.Range(0, 12).Where(square => !pan.IsEdge(square)));
        Assert.All([5, 6], square => Assert.Equal(0, boxOf[square]));
        Assert.Equal([3, 4, 3, 2], new int?[] { null, 0, 1, 2 }.Select(box => boxOf.Count(one => one == box)));
        Assert.NotNull(new PanSquares(0, 3).Refusal);
    }

    [SeededProperty]
    public bool Every_square_goes_into_one_box_and_an_edge_is_had_before_a_middle(PositiveInt rows, PositiveInt columns, bool[] edges)
    {
        var pan = new PanSquares((rows.Get % 8) + 1, (columns.Get % 8) + 1);
        var likes = edges.Take(pan.Count).ToArray();
        if (likes.Length == 0) return true;
        var counts = likes.Select(_ => pan.Count / likes.Length).ToArray();
        var boxOf = pan.Assign(counts, likes);
        var atRim = Enumerable.Range(0, pan.Count).Where(pan.IsEdge).ToList();
        var wanted = counts.Where((_, i) => likes[i]).Sum();
        return Enumerable.Range(0, likes.Length).All(box => boxOf.Count(one => one == box) == counts[box])
            && atRim.Count(square => boxOf[square] is { } box && likes[box]) == Math.Min(wanted, atRim.Count);
    }
}
