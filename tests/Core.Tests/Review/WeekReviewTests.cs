using FsCheck.Xunit;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Review;

namespace LivelyTern.Core.Tests.Review;

/// <summary>A week looked back on: what was planned and all differences make what was eaten; what is not known is no zero.</summary>
public sealed class WeekReviewTests
{
    private static readonly DateOnly Monday = new(2026, 11, 16);
    private static readonly DayAim Aim = new(
        Measure.Energy, new Dictionary<Measure, Band> { [Measure.Energy] = new(1450, 1525, 1600) }, null);

    private static Guid Id(int n) => new(n, 0, 0, new byte[8]);

    private static Dictionary<Measure, Total> Kcal(decimal kcal) => new() { [Measure.Energy] = new(kcal) };

    private static PlannedThing Planned(int id, string name, decimal kcal) => new(Id(id), name, Kcal(kcal));

    private static EatenThing Eaten(int id, string name, decimal kcal, EatenKind kind = EatenKind.Plain) =>
        new(Id(id), name, kind, Kcal(kcal));

    private static DayToReview Day(int day, PlannedThing[]? planned, params EatenThing[] eaten) =>
        new(Monday.AddDays(day), Aim, planned, eaten);

    private static WeekReview Week(params DayToReview[] days) => WeekReview.Of(days, null, Monday.AddDays(7));

    private static string Causes(WeekReview week) => string.Join(", ", week.Days.SelectMany(day => day.Differences)
        .Select(one => FormattableString.Invariant($"{one.Cause} {one.Name} {one.By[Measure.Energy].Known:0}")));

    [SeededProperty]
    public bool Planned_and_all_differences_are_what_was_eaten_in_every_measure(short[] chance)
    {
        // Things with few ids, so that many are planned and eaten, on this day or another; some figures are not known.
        Total Figure(int at) => new(chance[at % chance.Length] / 100m, (chance[at % chance.Length] % 5) switch
        {
            0 => Certainty.AtLeast,
            1 => Certainty.AtMost,
            _ => Certainty.Exact,
        });
        Dictionary<Measure, Total> Figures(int at) => new()
        {
            [Measure.Energy] = Figure(at),
            [Measure.Protein] = Figure(at + 1),
            [Measure.NetCarbohydrate] = Figure(at + 2),
        };
        if (chance.Length == 0) return true;
        DayToReview Any(int day)
        {
            var planned = Enumerable.Range(0, Math.Abs(chance[day % chance.Length] % 4))
                .Select(i => new PlannedThing(Id((day % 3 * 4) + i), $"thing {i}", Figures(day + i)));
            var eaten = Enumerable.Range(0, Math.Abs(chance[(day + 1) % chance.Length] % 5)).Select(i =>
                new EatenThing(Id(((day + chance.Length) % 4 * 4) + i), $"thing {i}", (EatenKind)(i % 4), Figures((2 * day) + i))
                {
                    FirstCounted = (day + i) % 3 == 0 ? Figures(day + i + 3) : null,
                });
            return new(Monday.AddDays(day), Aim, day % 6 == 5 ? null : [.. planned], [.. eaten]);
        }

        var week = Week([.. Enumerable.Range(0, 7).Select(Any)]);
        return week.Measures.All(one => one.Planned.Known + week.Causes.Sum(cause => cause.By.GetValueOrDefault(one.Measure).Known)
                == one.EatenOfPlanned.Known)
            && week.Days.SelectMany(day => day.Differences).All(one => one.By.Values.Any(by => by.Known != 0));
    }

    [Fact]
    public void Each_difference_has_its_cause()
    {
        var week = Week(
            Day(0, [Planned(1, "skyr", 100), Planned(2, "dal", 390), Planned(3, "pear", 100), Planned(4, "stew", 420)],
                Eaten(1, "skyr", 160), Eaten(2, "dal", 390, EatenKind.Box), Eaten(5, "dal", 195, EatenKind.Box),
                Eaten(6, "seeds", 56, EatenKind.Topping), Eaten(7, "harbour", 550, EatenKind.MealOut), Eaten(8, "chocolate", 120)),
            Day(1, [Planned(9, "falafel", 330)],
                Eaten(4, "stew", 420, EatenKind.Box),
                Eaten(9, "falafel", 350, EatenKind.Box) with { FirstCounted = Kcal(330) }));
        Assert.Equal(
            "OtherAmount skyr 60, OtherAmount dal 195, Topping seeds 56, MealOut harbour 550, Unplanned chocolate 120, NotEaten pear -100, "
            + "OtherDay stew -420, OtherDay stew 420, Corrected falafel 20", Causes(week));
    }

    [Fact]
    public void What_was_not_written_down_and_today_count_nowhere()
    {
        PlannedThing[] plan = [Planned(1, "dal", 1500)];
        DayToReview[] days =
        [
            Day(0, plan, Eaten(1, "dal", 1500)), Day(1, plan), Day(2, plan, Eaten(2, "toast", 300)) with { IsInPart = true },
            Day(3, plan) with { Aim = Aim with { IsAway = true } }, Day(4, plan, Eaten(3, "dal", 900)), Day(5, plan), Day(6, plan),
        ];
        var week = WeekReview.Of(days, null, Monday.AddDays(4));
        Assert.Equal(
            [DayNoted.Whole, DayNoted.Nothing, DayNoted.InPart, DayNoted.Away, DayNoted.NotOver, DayNoted.Ahead, DayNoted.Ahead],
            week.Days.Select(day => day.Noted));
        var energy = week.Measures.Single(one => one.Measure == Measure.Energy);
        Assert.Equal((2, 1, 1), (week.CountedDays, energy.Within, energy.Under));
        Assert.Equal((900m, 1500m), (energy.EatenADay.Known, energy.PlannedADay!.Value.Known));

        // A day whose plan was not kept, or that had none, is compared with the aim, and with no plan.
        var unkept = Week(Day(0, null, Eaten(1, "dal", 1500)), Day(1, [], Eaten(2, "dal", 1500)));
        Assert.Equal((2, 0, 0), (unkept.CountedDays, unkept.Causes.Count, unkept.Measures[0].PlannedDays));
        Assert.Null(unkept.Measures[0].PlannedADay);
    }

    [Fact]
    public void A_weekly_reserve_is_drawn_on_in_the_order_of_days_and_unknown_figures_are_named()
    {
        Dictionary<Measure, Total> open = new() { [Measure.Energy] = new(1700), [Measure.Fibre] = new(2, Certainty.AtLeast) };
        var days = Enumerable.Range(0, 3).Select(day => new DayToReview(
            Monday.AddDays(day), Aim, null, [new(Id(day), "fish pie", EatenKind.Box, open) { ByEye = 30, GiveOrTake = 10 }])).ToList();
        var week = WeekReview.Of(days, 150, Monday.AddDays(7));
        Assert.Equal([true, false, false], week.Days.Select(day => day.Eaten.Fits));
        Assert.Equal(50, week.Days[1].Eaten.Bands[Measure.Energy].Over);
        Assert.Equal(["fish pie"], week.Unknown[Measure.Fibre]);
        Assert.False(week.Unknown.ContainsKey(Measure.Energy));

        // Portions by eye know nothing of each other: √(3 × 30²); guesses may all be off the same way.
        Assert.Equal((3, 51.96m, 3, 30m), (week.ThingsByEye, Math.Round(week.ByEye, 2), week.Guesses, week.GiveOrTake));
    }

    [SeededProperty]
    public bool A_band_moved_to_another_goal_and_back_is_the_same(ushort min, ushort target, ushort max, ushort goal)
    {
        var band = new Band(min, min + target, min + target + max);
        var to = goal + target + 1m + min;
        var moved = band.MovedTo(to);
        return moved.Goal == to && moved.MovedTo(band.Goal!.Value) == band && Band.Open.MovedTo(to) == Band.Open
            && moved.Max - moved.Min == band.Max - band.Min;
    }

    // Limits of DOMAIN 7: NHLBI Clinical Guidelines 1998, WHO Technical Report 894 (from memory); 7,700 kcal a kg: Wishnofsky 1958.
    [Theory]
    [InlineData(2100, 45, 0.3, 1770, 0.3, "rough")]
    [InlineData(2100, 45, 0, 2100, 0, "")]
    [InlineData(2100, 45, -0.25, 2380, -0.25, "")]
    [InlineData(2100, 45, 1.5, 1200, 0.82, "rate,floor,rough")]
    [InlineData(1500, 45, 0.5, 1200, 0.27, "floor,rough")]
    [InlineData(2100, 16, 0.3, 2100, 0, "under-18")]
    [InlineData(2100, null, 0.3, 2100, 0, "no-body")]
    [InlineData(2100, null, -0.3, 2430, -0.3, "")]
    public void An_aim_is_worked_out_within_the_limits(double need, int? age, double rate, double kcal, double atRate, string cautions)
    {
        var body = age is { } years ? new Body(Sex.Female, years, 90, 170) : null;
        var found = AimProposal.Of(new((decimal)need, (decimal)need - 60, (decimal)need + 80), 70, body, (decimal)rate).Value!;
        Assert.Equal(((decimal)kcal, (decimal)atRate), (found.Kcal.Value, found.RateKgPerWeek));
        Assert.Equal(cautions, string.Join(',', found.Cautions.Select(caution => caution.Code)));
        Assert.True(found.Kcal.Low < found.Kcal.Value && found.Kcal.Value < found.Kcal.High);
    }

    [Fact]
    public void For_a_body_that_weighs_little_by_its_trend_no_deficit_is_worked_out_whatever_it_weighed_before()
    {
        var found = AimProposal.Of(new(1800, 1700, 1900), 50, new(Sex.Female, 40, 90, 170), 0.5m).Value!;
        Assert.Equal((1800m, "underweight"), (found.Kcal.Value, found.Cautions[0].Code));
        Assert.Equal("body-rate", AimProposal.Of(new(1800, 1700, 1900), 50, null, 11).Problems[0].Code);
    }
}
