using FsCheck;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Tests.Pack;

public sealed class PortioningTests
{
    // 3,900 kcal and 190 g of protein in 4,700 g.
    private static decimal Read(AtMostWish wish, Grams weight) => (wish.Measure == Measure.Energy ? 3900 : 190) * weight.Value / 4700;

    private static Outcome<Division<Grams>> Of(decimal batch, int? pieces, params BoxWish[] wishes) =>
        Portioning.Of(new(batch), pieces, wishes, Read);

    private static decimal[] Grams(Outcome<Division<Grams>> divided) => [.. divided.Value!.Portions.Select(box => box.Value)];

    // 420 of 3,900 kcal are 506.15 g of 4,700 g: 506 g. What is left of 3,794 g goes 2 to 3: 1,517.6 and 2,276.4.
    [Fact]
    public void What_is_given_goes_first_then_budgets_then_shares()
    {
        var divided = Of(4700, null, new WeightWish(new(400)), new AtMostWish(Measure.Energy, 420), new ShareWish(2), new ShareWish(3));
        Assert.Equal([400m, 506, 1518, 2276], Grams(divided));
        Assert.Equal(0, divided.Value!.Over.Value);
    }

    // Common practice, no published source: six portions for five boxes; four for one eater and the odd one for another.
    [Fact]
    public void Without_shares_the_rest_is_over_and_a_part_of_a_gram_is_over_with_them()
    {
        var five = Of(744, null, [.. Enumerable.Repeat(new WeightWish(new(124)), 5)]);
        Assert.Equal(124, five.Value!.Over.Value);
        var shares = Of(100.5m, null, new ShareWish(1), new ShareWish(1), new ShareWish(1));
        Assert.Equal([34m, 33, 33], Grams(shares));
        Assert.Equal(0.5m, shares.Value!.Over.Value);
    }

    // 13 pieces of 650 g: three are 150 g, two and a half 125 g.
    [Fact]
    public void Pieces_weigh_their_share_and_mix_with_every_other_way()
    {
        var divided = Of(650, 13, new PiecesWish(3), new PiecesWish(2.5m), new WeightWish(new(75)), new ShareWish(1));
        Assert.Equal([150m, 125, 75, 300], Grams(divided));
    }

    [Theory]
    [InlineData(300, "batch-short")]
    [InlineData(0, "weight-absurd")]
    [InlineData(100_001, "weight-absurd")]
    public void More_given_than_there_is_says_how_much_is_missing(decimal batch, string code)
    {
        var refused = Of(batch, null, new WeightWish(new(200)), new WeightWish(new(150.5m))).Problems.Single();
        Assert.Equal(code, refused.Code);
        if (batch == 300) Assert.Contains("50.5 g are missing", refused.Sentence);
    }

    [Fact]
    public void What_makes_no_box_is_refused_with_the_box_it_concerns()
    {
        (BoxWish[] Wishes, int? Pieces, string Code, string Field)[] all =
        [
            ([], null, "boxes-many", "boxes"), ([new WeightWish(new(0))], null, "box-weight", "boxes[0].grams"),
            ([new PiecesWish(1)], null, "pieces-unknown", "pieces"), ([new PiecesWish(0)], 17, "box-pieces", "boxes[0].pieces"),
            ([new WeightWish(new(1)), new AtMostWish(Measure.Energy, 0)], null, "box-budget", "boxes[1].atMost"),
            ([new ShareWish(-1)], null, "box-share", "boxes[0].share"),
            ([new AtMostWish(Measure.Energy, 0.1m)], null, "box-empty", "boxes[0]"),
            ([new ShareWish(1), new WeightWish(new(4700))], null, "box-empty", "boxes[0]"),
        ];
        foreach (var (wishes, pieces, code, field) in all)
        {
            var refused = Of(4700, pieces, wishes).Problems.Single();
            Assert.Equal((code, field), (refused.Code, refused.Field));
        }
    }

    // The plain reference: give every box the whole grams of its share, then the grams that are left one by one to the largest remainder.
    private static List<decimal> LargestRemainder(decimal whole, IReadOnlyList<decimal> parts)
    {
        var exact = parts.Select(part => whole * part / parts.Sum()).ToList();
        var boxes = exact.ConvertAll(Math.Floor);
        var lost = exact.Select((share, i) => share - boxes[i]).ToList();
        for (var rest = whole - boxes.Sum(); rest > 0; rest--)
        {
            var at = lost.IndexOf(lost.Max());
            boxes[at]++;
            lost[at] = -1;
        }

        return boxes;
    }

    // Any mixture of ways: the boxes and what is over are the batch; given weights are what was given; a budget's box holds at most that,
    // and a gram more would not; shares are the reference's.
    [SeededProperty]
    public bool No_gram_is_lost_whatever_ways_are_mixed(PositiveInt batch, NonNegativeInt tenths, PositiveInt[] kinds, PositiveInt[] sizes)
    {
        var whole = (batch.Get % 9_000) + 1_000 + ((tenths.Get % 10) / 10m);
        BoxWish Wish(int kind, int size) => (kind % 4) switch
        {
            0 => new WeightWish(new((size % 900) + 0.5m)),
            1 => new PiecesWish((size % 6) / 2m + 0.5m),
            2 => new AtMostWish(size % 2 == 0 ? Measure.Energy : Measure.Protein, (size % 400) + 5),
            _ => new ShareWish((size % 7) + 1),
        };
        var wishes = kinds.Zip(sizes, (kind, size) => Wish(kind.Get, size.Get)).Take(12).ToList();
        var divided = Portioning.Of(new(whole), 24, wishes, Read);
        if (!divided.Succeeded) return divided.Problems.All(problem => problem.Code is "boxes-many" or "batch-short" or "box-empty");

        var (boxes, over) = (divided.Value!.Portions.Select(box => box.Value).ToList(), divided.Value.Over.Value);
        if (Math.Abs(boxes.Sum() + over - whole) > 1e-20m || over < 0) return false;
        var left = whole;
        for (var i = 0; i < wishes.Count; i++)
        {
            if (wishes[i] is WeightWish given && boxes[i] != given.Weight.Value) return false;
            if (wishes[i] is PiecesWish counted && Math.Abs(boxes[i] - (whole * counted.Count / 24)) > 1e-20m) return false;
            if (wishes[i] is WeightWish or PiecesWish) left -= boxes[i];
        }

        for (var i = 0; i < wishes.Count; i++)
        {
            if (wishes[i] is not AtMostWish budget) continue;
            if (boxes[i] != Math.Floor(boxes[i]) || Read(budget, new(boxes[i])) > budget.Value) return false;
            if (boxes[i] + 1 <= left && Read(budget, new(boxes[i] + 1)) <= budget.Value) return false;
            left -= boxes[i];
        }

        var shares = Enumerable.Range(0, wishes.Count).Where(i => wishes[i] is ShareWish).ToList();
        return shares.Count == 0
            || LargestRemainder(Math.Floor(left + 0.000_001m), [.. shares.Select(i => ((ShareWish)wishes[i]).Parts)])
                .SequenceEqual(shares.Select(i => boxes[i]));
    }
}
