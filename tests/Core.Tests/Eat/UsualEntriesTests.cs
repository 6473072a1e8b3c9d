using LivelyTern.Core.Eat;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Plan;

namespace LivelyTern.Core.Tests.Eat;

/// <summary>What is offered for an hour of a day is what that eater has then.</summary>
public sealed class UsualEntriesTests
{
    private static readonly DateOnly Day = new(2026, 11, 25);
    private static int next;

    private static EatenOnce Once(Food food, decimal grams, int daysAgo, int? hour) => new(
        new Guid(++next, 0, 0, new byte[8]), new PlainFood($"{grams} g {food.Name}", food.Grams(grams)), Day.AddDays(-daysAgo),
        hour is { } at ? new TimeOnly(at, 0) : null);

    private static string[] At(int? hour, params EatenOnce[] eaten) =>
        [.. UsualEntries.Of(eaten, Day, hour is { } at ? new TimeOnly(at, 0) : null, 9).Select(one => ((PlainFood)one.Like.What).Text)];

    [Fact]
    public void What_is_had_at_this_hour_comes_first_and_midnight_is_no_wall()
    {
        EatenOnce[] eaten =
        [
            .. Enumerable.Range(1, 5).Select(day => Once(Kitchen.Oats, 50, day, 7)),
            .. Enumerable.Range(1, 6).Select(day => Once(Kitchen.Bread, 60, day, 19)),
            Once(Kitchen.Milk, 200, 1, 23), Once(Kitchen.Milk, 200, 2, 23),
        ];
        Assert.Equal("50 g quick oats", At(8, eaten)[0]);
        Assert.Equal("60 g rye bread", At(18, eaten)[0]);
        Assert.Equal("200 g oat milk", At(1, eaten)[0]);

        // On a day that is past no hour is nearer than another: what was eaten most often.
        Assert.Equal("60 g rye bread", At(null, eaten)[0]);
    }

    [Fact]
    public void Of_each_food_the_usual_amount_is_offered_once_and_what_was_lately_before_what_was_long_ago()
    {
        var eaten = new[]
        {
            Once(Kitchen.Oats, 50, 4, 7), Once(Kitchen.Oats, 50, 3, 7), Once(Kitchen.Oats, 80, 1, 7), Once(Kitchen.Egg, 100, 50, 7),
            Once(Kitchen.Egg, 100, 49, 7), Once(Kitchen.Egg, 100, 48, 7), Once(Kitchen.Tomato, 90, 1, 7),
        };
        var offered = UsualEntries.Of(eaten, Day, new TimeOnly(7, 0), 9);
        Assert.Equal(["50 g quick oats", "90 g tomato", "100 g egg"], offered.Select(one => ((PlainFood)one.Like.What).Text));
        Assert.Equal((3, Day.AddDays(-1)), (offered[0].Times, offered[0].Last));
        Assert.Single(UsualEntries.Of(eaten, Day, null, 1));
        Assert.Empty(At(7));
    }
}
