using FsCheck;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Tests.Pack;

public sealed class PartByPartTests
{
    private static Grams[] Boxes(params decimal[] grams) => [.. grams.Select(one => new Grams(one))];

    private static Grams?[] Got(params decimal?[] grams) => [.. grams.Select(one => one is { } value ? new Grams(value) : (Grams?)null)];

    private static decimal[] Weights(Outcome<PartOverBoxes> over) => [.. over.Value!.Boxes.Select(box => box.Weight.Value)];

    // 1,200 g of mash over boxes of 400, 400 and 800 g: 300, 300 and 600.
    [Fact]
    public void A_box_gets_the_share_of_a_part_that_it_is_of_the_dish()
    {
        var mash = new PartToPut("Mash", new(1200), new Grams(1200));
        Assert.Equal([300m, 300, 600], Weights(PartByPart.Of(mash, Boxes(400, 400, 800), Got(null, null, null))));

        // The first got 320: the last, which was to get 600, takes the 580 that are left.
        var now = PartByPart.Of(mash, Boxes(400, 400, 800), Got(320, null, null));
        Assert.Equal([320m, 300, 580], Weights(now));
        Assert.Equal([300m, 300, 600], now.Value!.Boxes.Select(box => box.Target.Value));
    }

    // 1,500 g are in the pan and 1,200 g were meant for these boxes: nobody gets more because another got less.
    [Fact]
    public void What_is_over_in_the_pan_stays_there_and_a_plain_food_is_never_used_up()
    {
        var mash = new PartToPut("Mash", new(1200), new Grams(1500));
        Assert.Equal([280m, 300, 600], Weights(PartByPart.Of(mash, Boxes(1, 1, 2), Got(280, null, null))));
        Assert.Equal(new Grams(320), PartByPart.Of(mash, Boxes(1, 1, 2), Got(280, null, null)).Value!.Left);
        var corn = PartByPart.Of(new("sweetcorn", new(240), null), Boxes(1, 1, 1), Got(90, 100, null));
        Assert.Equal([90m, 100, 80], Weights(corn));
        Assert.Equal(0, corn.Value!.Missing.Value);
    }

    [Fact]
    public void More_than_there_is_is_said_and_not_made_up()
    {
        var over = PartByPart.Of(new("Gravy", new(240), new Grams(240)), Boxes(1, 1, 1), Got(90, 90, 90));
        Assert.Equal(30, over.Value!.Missing.Value);
        Assert.Equal("part-absurd", PartByPart.Of(new("Gravy", new(240), null), Boxes(1), Got(-1)).Problems[0].Code);
        Assert.Equal("part-boxes", PartByPart.Of(new("Gravy", new(240), null), Boxes(1), Got(1, 1)).Problems[0].Code);
    }

    // To the milligram: what is asked is in the boxes, whatever their shares; and a box that has got some has got that.
    [SeededProperty]
    public bool Nothing_of_a_part_is_lost_between_the_boxes(PositiveInt milligrams, PositiveInt[] sizes, NonNegativeInt first)
    {
        if (sizes.Length == 0) return true;
        var (asked, boxes) = (new Grams(milligrams.Get / 1000m), sizes.Take(20).Select(size => new Grams(size.Get)).ToList());
        var mash = new PartToPut("Mash", asked, asked);
        var got = new Grams?[boxes.Count];
        var open = PartByPart.Of(mash, boxes, got).Value!;
        got[0] = new Grams(Math.Min(first.Get, asked.Value));
        var begun = PartByPart.Of(mash, boxes, got).Value!;
        var sum = begun.Boxes.Sum(box => box.Weight.Value);
        return open.Boxes.Sum(box => box.Weight.Value) == asked.Value && open.Boxes.All(box => box.Weight == box.Target)
            && begun.Missing == Grams.Zero && begun.Boxes[0].Weight == got[0] && begun.Boxes.All(box => box.Weight >= Grams.Zero)
            && (boxes.Count == 1 || sum <= asked.Value);
    }

    // 430, 428 and 426 g are told as one, 420 g by itself; so is a box that weighs as much with more meat and less mash in it.
    [Fact]
    public void Boxes_are_told_as_one_where_about_the_same_is_in_them()
    {
        var contents = new Contents([Kitchen.Lentils.Grams(500)]);
        var batch = new Batch(Guid.NewGuid(), "Bowl", new TapeMark("BO", 1), new(2026, 11, 29), contents, new(2000));
        Box Of(decimal grams, params decimal[] parts) => new(Guid.NewGuid(), batch, new(grams), null)
        {
            Main = new(batch, new(grams)) { PutIn = [.. parts.Select(part => new BatchShare(batch, new(part)))] },
        };
        decimal[][] Told(params Box[] boxes) =>
            [.. Box.Alike(boxes, box => box).Select(own => own.Select(box => box.Weight.Value).ToArray())];
        Assert.Equal([[430m, 428, 426], [420m]], Told(Of(426), Of(430), Of(420), Of(428)));
        Assert.Equal([[400m, 400], [400m]], Told(Of(400, 200, 200), Of(400, 203, 197), Of(400, 150, 250)));
        Assert.Equal([[400m], [400m]], Told(Of(400), Of(400) with { EyeSpread = 0.2m }));
    }
}
