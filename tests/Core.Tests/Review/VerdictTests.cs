using LivelyTern.Core.Pack;
using LivelyTern.Core.Review;

namespace LivelyTern.Core.Tests.Review;

/// <summary>What is said of dishes, and how well an eye weighs.</summary>
public sealed class VerdictTests
{
    private static readonly Guid Isa = new(1, 0, 0, new byte[8]), Bram = new(2, 0, 0, new byte[8]);
    private static readonly Verdict Silent = new(null, null, null, null, null, null);

    [Fact]
    public void Of_what_was_eaten_fresh_nobody_can_say_how_it_reheats()
    {
        Assert.Equal("verdict-fresh", (Silent with { Reheats = Stood.Well }).For(Serving.Fresh).Problems[0].Code);
        Assert.Equal("verdict-fresh", (Silent with { Keeps = Stood.Poorly }).For(Serving.Fresh).Problems[0].Code);
        Assert.Equal("verdict-long", (Silent with { ToChange = new string('x', 301) }).For(Serving.Fresh).Problems[0].Code);
        Assert.True((Silent with { ToChange = "  \n " }).For(Serving.Reheated).Value!.IsEmpty());
        Assert.Equal("less water", (Silent with { ToChange = " less \n water" }).For(Serving.Fresh).Value!.ToChange);
    }

    [Theory]
    [InlineData(null, Taste.Good, true)]
    [InlineData(null, Taste.Fair, null)]
    [InlineData(null, Taste.NotMine, false)]
    [InlineData(null, null, null)]
    [InlineData(Again.No, Taste.Favourite, false)]
    [InlineData(Again.Changed, Taste.NotMine, true)]
    public void Whether_it_is_wanted_again_is_what_was_said_else_how_it_tasted(Again? again, Taste? taste, bool? isWanted) =>
        Assert.Equal(isWanted, (Silent with { Again = again, Taste = taste }).IsWanted());

    [Fact]
    public void Each_eater_counts_once_by_what_they_said_last()
    {
        SaidOfDish Said(Guid who, int day, Again? again, Serving serving = Serving.Reheated, string? change = null) =>
            new(who, serving, new(2026, 11, day), Silent with { Again = again, ToChange = change });
        var mixed = Opinions.Of(
        [
            Said(Isa, 1, Again.No), Said(Isa, 8, Again.Yes, Serving.Fresh), Said(Isa, 8, Again.No), Said(Bram, 1, Again.Yes, change: "old"),
            Said(Bram, 8, null, change: "more salt"),
        ]);
        Assert.Equal((1, 1, "more salt", false), (mixed.WantIt, mixed.NotAgain, mixed.ToChange, mixed.IsUnwanted));
        var unwanted = Opinions.Of([Said(Isa, 1, Again.Yes), Said(Isa, 8, Again.No), Said(Bram, 8, null)]);
        Assert.Equal((0, 1, true), (unwanted.WantIt, unwanted.NotAgain, unwanted.IsUnwanted));
        Assert.True(unwanted.MenuCost > 0 && Opinions.Of([Said(Isa, 1, Again.Yes)]).MenuCost < 0 && Opinions.Of([]).MenuCost == 0);
    }

    [Fact]
    public void How_far_an_eye_is_off_is_the_middle_of_its_month()
    {
        (DateOnly, EyeTry) Try(int month, decimal guess, decimal real) => (new(2026, month, 5), new(null, new(guess), new(real), 1));
        var months = PortionAccuracy.ByMonth([Try(9, 100, 120), Try(10, 100, 90), Try(9, 100, 100), Try(9, 100, 150), Try(10, 200, 210)]);
        Assert.Equal(
            [(10, 2, 0.075m, -0.025m), (9, 3, 0.2m, 0.7m / 3)],
            months.Select(one => (one.Month.Month, one.Tries, one.Off, one.Lean)));
    }
}
