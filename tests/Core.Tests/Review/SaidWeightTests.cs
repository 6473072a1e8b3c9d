using LivelyTern.Core.Review;

namespace LivelyTern.Core.Tests.Review;

/// <summary>A body's weight as it is typed, and the days that tell what was eaten.</summary>
public sealed class SaidWeightTests
{
    [Theory]
    [InlineData("71.4", BodyUnit.Kilogram, 71.4, BodyUnit.Kilogram)]
    [InlineData("71,4 kg", BodyUnit.Pound, 71.4, BodyUnit.Kilogram)]
    [InlineData("157.4 lb", BodyUnit.Kilogram, 71.4, BodyUnit.Pound)]
    [InlineData("157.4", BodyUnit.Pound, 71.4, BodyUnit.Pound)]
    [InlineData("11 st 3", BodyUnit.Kilogram, 71.21, BodyUnit.Stone)]
    [InlineData("11st 3.5 lb", BodyUnit.Kilogram, 71.44, BodyUnit.Stone)]
    [InlineData("11 stone", BodyUnit.Kilogram, 69.85, BodyUnit.Stone)]
    public void It_is_read_in_kilograms_pounds_and_stones(string typed, BodyUnit usual, double kg, BodyUnit unit)
    {
        // NIST SP 811: a pound is 0.45359237 kg; a stone is 14 pounds.
        var read = SaidWeight.Read(typed, usual);
        Assert.Equal(((decimal)kg, unit), read.Value);
    }

    [Theory]
    [InlineData("700 kg", "weight-absurd")]
    [InlineData("17.4", "weight-absurd")]
    [InlineData("11 st 15", "weight-unread")]
    [InlineData("", "weight-unread")]
    [InlineData("-71", "weight-unread")]
    [InlineData("a lot", "weight-unread")]
    [InlineData("99999999999999999999999999999999999999", "weight-unread")]
    public void What_can_t_be_is_refused(string typed, string code) =>
        Assert.Equal(code, SaidWeight.Read(typed, BodyUnit.Kilogram).Problems[0].Code);

    [Fact]
    public void Days_with_less_than_half_of_what_is_usual_and_today_tell_nothing_of_a_day()
    {
        var first = new DateOnly(2026, 11, 1);
        int[] kcal = [2000, 1900, 400, 2100, 0, 1100, 700, 2050];
        var noted = kcal.Select((one, i) => new DayIntake(first.AddDays(i), one)).ToList();
        Assert.Equal([2000, 1900, 2100, 1100], WholeDays.Of(noted, first.AddDays(7)).Select(day => (int)day.Kcal));
        Assert.Empty(WholeDays.Of([], first));
    }
}
