using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;

namespace LivelyTern.Core.Tests.Aim;

/// <summary>Other days, slots, and what an eater must never get.</summary>
public sealed class EatingWaysTests
{
    private static readonly DateOnly Saturday = new(2026, 11, 28);
    private static readonly DayAim Usual = new(Measure.Energy,
        new Dictionary<Measure, Band> { [Measure.Energy] = new(1450, 1525, 1600), [Measure.Protein] = new(Min: 70) }, null);

    private static OtherDay Day(string name, DayOfWeek? weekday, DateOnly? date, decimal most) =>
        new(name, weekday, date, new Dictionary<Measure, Band> { [Measure.Energy] = new(Max: most) });

    [Fact]
    public void A_date_goes_before_its_weekday_and_both_before_the_usual_day()
    {
        var ways = new EatingWays { OtherDays = [Day("party", null, Saturday, 2500), Day("training", DayOfWeek.Saturday, null, 1900)] };
        Assert.Equal(2500, ways.AimOn(Usual, Saturday)[Measure.Energy].Max);
        Assert.Equal(1900, ways.AimOn(Usual, Saturday.AddDays(7))[Measure.Energy].Max);
        Assert.Equal(1600, ways.AimOn(Usual, Saturday.AddDays(1))[Measure.Energy].Max);
        Assert.Equal(70, ways.AimOn(Usual, Saturday)[Measure.Protein].Min);
    }

    [Theory]
    [InlineData(null, 2600, null, null, 2500, 2700)] // another target keeps the usual give-or-take
    [InlineData(null, null, null, 50, 2050, 2150)]
    [InlineData(null, null, 2600, null, 2000, 2600)]
    [InlineData(2500, null, null, null, 2500, null)] // a target that contradicts goes, its give-or-take with it
    [InlineData(null, null, 1900, null, null, 1900)]
    public void Another_day_that_changes_one_number_keeps_the_rest(int? min, int? target, int? max, int? tolerance, int? from, int? to)
    {
        var usual = Usual with { Bands = new Dictionary<Measure, Band> { [Measure.Energy] = new(Target: 2100) { Tolerance = 100 } } };
        var party = new OtherDay("party", null, Saturday,
            new Dictionary<Measure, Band> { [Measure.Energy] = new(min, target, max) { Tolerance = tolerance } });
        var band = new EatingWays { OtherDays = [party] }.AimOn(usual, Saturday)[Measure.Energy];
        Assert.Equal((from, to), (band.Min, band.Max));
        Assert.Empty(new EatingWays { OtherDays = [party] }.Problems(usual, clinicianSetIt: true));
    }

    [Fact]
    public void Never_means_the_allergen_the_food_and_what_nobody_stated()
    {
        var peanut = Kitchen.Of("peanut butter", new(Energy: 590)) with { Allergens = [Allergen.Peanuts] };
        var fromLibrary = Kitchen.Of("x", new(Energy: 100)) with { Id = "lib:7" };
        var ways = new EatingWays { NeverAllergens = [Allergen.Peanuts], NeverFoods = [Kitchen.Egg.Id] };
        Assert.True(ways.Forbids(new([Kitchen.Oats.Grams(50), peanut.Grams(1)])));
        Assert.True(ways.Forbids(new([Kitchen.Egg.Grams(50)])));
        Assert.True(ways.Forbids(new([fromLibrary.Grams(50)])));
        Assert.True(ways.Forbids(new([], SomethingUnread: true)));
        Assert.False(ways.Forbids(new([Kitchen.Oats.Grams(50)])));
        Assert.False(new EatingWays { NeverFoods = [Kitchen.Egg.Id] }.Forbids(new([fromLibrary.Grams(50)])));
    }

    [Fact]
    public void Give_or_take_makes_the_bounds_and_needs_a_target()
    {
        Assert.Equal(new Band(1950, 2000, 2050) { Tolerance = 50 }, new Band(Target: 2000) { Tolerance = 50 }.Resolved());
        Assert.Equal(0, new Band(Target: 20) { Tolerance = 50 }.Resolved().Min);
        Assert.Equal("tolerance-alone", new Band { Tolerance = 5 }.Problems("x").Single().Code);
    }

    [Fact]
    public void What_cannot_be_meant_is_named()
    {
        static string[] Codes(EatingWays ways, bool clinicianSetIt = false) =>
            [.. ways.Problems(Usual, clinicianSetIt).Select(problem => problem.Code)];
        Assert.Equal(["slot-twice"], Codes(new() { OwnSlots = [new("noon", null, null, true), new("Noon ", null, null, true)] }));
        Assert.Equal(["slot-shares"], Codes(new() { OwnSlots = [new("a", null, 0.7m, true), new("b", null, 0.4m, true)] }));
        Assert.Equal(["other-day-when"], Codes(new() { OtherDays = [Day("x", null, null, 2000)] }));
        Assert.Equal(["other-day-twice"], Codes(new() { OtherDays = [Day("x", null, Saturday, 2000), Day("y", null, Saturday, 2100)] }));
        Assert.Equal(["never-and-rather"], Codes(new() { NeverFoods = ["egg"], RatherNot = ["egg"] }));

        // A party must not be a way below the floor either.
        Assert.Equal(["below-energy-floor"], Codes(new() { OtherDays = [Day("fast", null, Saturday, 600)] }));
        Assert.Empty(Codes(new() { OtherDays = [Day("fast", null, Saturday, 600)] }, clinicianSetIt: true));
        Assert.Empty(Codes(EatingWays.Plain));
    }
}
