using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;

namespace LivelyTern.Core.Tests.Plan;

public class DayReadingTests
{
    private static readonly PointsRule Fiftieth = new("fiftieth", new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 0.02m }, 1, [],
        []);
    private static readonly Food Roll = Kitchen.Of("roll", new(Energy: 130, Protein: 5));

    private static readonly DayAim Aim = new(Measure.Energy, new Dictionary<Measure, Band>
    {
        [Measure.Energy] = new(400, 450, 500),
        [Measure.Protein] = new(Min: 30),
        [Measure.Points] = new(Max: 10),
    }, Fiftieth);

    [Fact]
    public void A_days_points_are_the_sum_of_its_rounded_entries()
    {
        var one = new Contents([Roll.Grams(100)]);
        var two = new Contents([Roll.Grams(200)]);
        Assert.Equal(9, DayReading.Of([one, one, one], Aim).Sums[Measure.Points].Known);
        Assert.Equal(8, DayReading.Of([one, two], Aim).Sums[Measure.Points].Known);
    }

    [Fact]
    public void A_day_says_for_each_band_whether_it_fits()
    {
        var day = DayReading.Of([new([Roll.Grams(400)])], Aim);
        Assert.Equal((BandPosition.Over, 20m), (day.Bands[Measure.Energy].Position, day.Bands[Measure.Energy].Over!.Value));
        Assert.Equal((BandPosition.Under, 10m), (day.Bands[Measure.Protein].Position, day.Bands[Measure.Protein].RoomFrom!.Value));
        Assert.Equal(BandPosition.Within, day.Bands[Measure.Points].Position);
        Assert.False(day.Fits);
        Assert.False(day.Bands.ContainsKey(Measure.Fat));
    }

    [Fact]
    public void The_rest_of_a_day_counts_only_what_was_eaten()
    {
        var rest = DayRest.Of([new(new([Roll.Grams(100)]), IsEaten: true), new(new([Roll.Grams(200)]))], Aim);
        Assert.Equal(390, rest.Day.Sums[Measure.Energy].Known);
        Assert.Equal(130, rest.Eaten[Measure.Energy].Known);
        Assert.Equal(320, rest.Left[Measure.Energy]);
        Assert.Equal(7, rest.Left[Measure.Points]);
        Assert.Equal(25, rest.Left[Measure.Protein]);
        Assert.False(rest.Left.ContainsKey(Measure.Fat));
    }

    [Fact]
    public void A_day_with_nothing_on_it_promises_nothing_and_one_with_open_figures_fits_as_far_as_known()
    {
        DayAim Most(decimal fat) =>
            new(Measure.Energy, new Dictionary<Measure, Band> { [Measure.Energy] = new(Max: 500), [Measure.Fat] = new(Max: fat) }, null);
        Assert.Equal((DayVerdict.Empty, false, false),
            DayReading.Of([], Most(10)) is var empty ? (empty.Verdict, empty.Fits, empty.IsOut) : default);
        Assert.Equal(DayVerdict.FitsAsFarAsKnown, DayReading.Of([new([Roll.Grams(100)])], Most(10)).Verdict);
        Assert.Equal(DayVerdict.Fits, DayReading.Of([new([Kitchen.Egg.Grams(50)])], Most(10)).Verdict);
        Assert.Equal(DayVerdict.Out, DayReading.Of([new([Kitchen.Egg.Grams(50)])], Most(4)).Verdict);

        // At least 5 g of protein of at least 5 g is sure, whatever the rest of it holds.
        var least = new DayAim(Measure.Protein, new Dictionary<Measure, Band> { [Measure.Protein] = new(Min: 5) }, null);
        var known = new Contents([Roll.Grams(100), Kitchen.Garlic.Grams(5)]);
        Assert.Equal((DayVerdict.Fits, Certainty.AtLeast),
            (DayReading.Of([known], least).Verdict, DayReading.Of([known], least).Sums[Measure.Protein].Certainty));
    }

    [Fact]
    public void A_weeks_reserve_is_drawn_in_the_order_of_its_days()
    {
        // The most is 500 kcal: days of 300 and 200 over with 400 in reserve.
        var aim = Aim with { Bands = new Dictionary<Measure, Band> { [Measure.Energy] = new(Max: 500) } };
        var kcal = Kitchen.Of("kcal", new(Energy: 100));
        IReadOnlyList<DayEntry> Day(decimal grams) => [new(new([kcal.Grams(grams)]))];
        var week = DayRest.Week([(Day(800), aim), (Day(400), aim), (Day(700), aim)], 400);
        Assert.Equal([300m, 0, 100], week.Select(day => day.Day.Drawn));
        Assert.Equal([DayVerdict.Fits, DayVerdict.Fits, DayVerdict.Out], week.Select(day => day.Day.Verdict));
        Assert.Equal(100, week[2].Day.Bands[Measure.Energy].Over);
        Assert.Equal(DayVerdict.Out, DayRest.Week([(Day(800), aim)], null)[0].Day.Verdict);
    }

    [Fact]
    public void Recording_two_grams_over_changes_nothing_inside_the_band()
    {
        // Common practice, no published source: 350 g wanted, 352 g poured, recorded as 352.
        var food = Kitchen.Of("stew", new(Energy: 120));
        Assert.True(
            DayReading.Of([new([food.Grams(352)])],
            Aim with { Bands = new Dictionary<Measure, Band> { [Measure.Energy] = new(400, 420, 440) } }).Fits);
    }
}
