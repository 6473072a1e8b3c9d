using FsCheck;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Tests.Keep;

public sealed class CoolingTests
{
    // T(t) = Ta + (T0 - Ta) e^(-kt) (Newton): from 90 to 60 °C in 30 minutes at 20 °C, k = ln(70 / 40) / 30; 25 °C after
    // ln(70 / 5) / k = 141.48 minutes; 15 °C never.
    [Fact]
    public void Two_readings_give_the_closed_formula()
    {
        var course = Cooling.Of(20, [new(0, 90), new(30, 60)]).Value!;
        Assert.Equal(Math.Log(70.0 / 40) / 30, course.RatePerMinute, 12);
        Assert.Equal(141.48, course.MinutesUntil(25)!.Value, 2);
        Assert.Null(course.MinutesUntil(15));
        Assert.Null(course.MinutesUntil(20));
        Assert.Equal(0, course.MinutesUntil(95));
    }

    // Any start, surroundings, rate and times: readings off the formula give the formula back, between them and beyond.
    [SeededProperty]
    public bool Readings_off_the_law_give_the_law_back(PositiveInt warm, NonNegativeInt around, PositiveInt rate, PositiveInt[] minutes)
    {
        var (ambient, start, k) = (around.Get % 30, 30 + around.Get % 30 + (warm.Get % 60), ((rate.Get % 90) + 10) / 5000.0);
        double At(double minute) => ambient + ((start - ambient) * Math.Exp(-k * minute));
        var taken = minutes.Select(minute => (double)((minute.Get % 240) + 1)).Append(0).Append(241).Distinct()
            .Select(minute => new CoolingReading(minute, At(minute))).ToList();
        var course = Cooling.Of(ambient, taken).Value!;
        double[] marks = [start - 1, (start + ambient) / 2.0, ambient + 1.5];
        return Math.Abs(course.RatePerMinute - k) < 1e-9
            && marks.All(mark => Math.Abs(course.MinutesUntil(mark)!.Value + (Math.Log((mark - ambient) / (start - ambient)) / k)) < 1e-6)
            && new[] { 0, 13.7, 200, 400 }.All(minute => Math.Abs(course.CelsiusAt(minute) - At(minute)) < 1e-6);
    }

    [Fact]
    public void The_clock_of_the_two_stages_starts_at_57_degrees_and_what_was_measured_counts_before_what_is_worked_out()
    {
        // At 57.2 °C after 20 minutes; 21.1 °C 140 minutes later: too late, whatever the rate says of the rest.
        var slow = TwoStages.Of(Cooling.Of(4, [new(0, 80), new(20, TwoStages.FromCelsius), new(160, TwoStages.FirstCelsius)]).Value!);
        Assert.Equal(140, slow.First.Minutes!.Value, 6);
        Assert.False(slow.First.Holds);
        var cool = TwoStages.Of(Cooling.Of(2, [new(0, 80), new(20, TwoStages.FromCelsius), new(110, TwoStages.FirstCelsius)]).Value!);
        Assert.True(cool.First.Holds);

        // In the room it never comes down to 5 °C.
        var room = TwoStages.Of(Cooling.Of(20, [new(0, 90), new(30, 60)]).Value!);
        Assert.Null(room.Second.Minutes);
        Assert.False(room.Hold);
    }

    [Theory]
    [InlineData(20, new double[] { 0, 90 }, "readings-few")]
    [InlineData(20, new double[] { 5, 90, 5, 80 }, "readings-few")]
    [InlineData(20, new double[] { 0, 90, 30, 900 }, "temperature-absurd")]
    [InlineData(-300, new double[] { 0, 90, 30, 60 }, "temperature-absurd")]
    [InlineData(20, new double[] { -3, 90, 30, 60 }, "minute-absurd")]
    [InlineData(20, new double[] { }, "readings-many")]
    public void What_is_no_course_is_said(double ambient, double[] flat, string code)
    {
        var readings = flat.Chunk(2).Select(pair => new CoolingReading(pair[0], pair[1]));
        Assert.Equal(code, Cooling.Of(ambient, [.. readings]).Problems.Single().Code);
    }

    [Fact]
    public void What_grows_warmer_is_never_said_to_be_cold()
    {
        var course = Cooling.Of(4, [new(0, 50), new(30, 60)]).Value!;
        Assert.Null(course.MinutesUntil(21));
        Assert.Equal(60, course.CelsiusAt(500), 6);
    }

    // By hand, for 5 cm in the fridge at 4 °C: 3.8e6 × 0.05 / (2 × 12) s outside and 0.05² / (π² × 1.4e-7) s within make 1 / k = 162 min.
    [Fact]
    public void Shallower_boxes_cool_faster_and_the_first_number_that_keeps_the_limits_ends_the_choice()
    {
        Assert.Equal(1 / 162.1, CoolingBox.RatePerMinute(5, CoolingPlace.Fridge), 4);
        var choices = CoolingBox.Choices(7.5, 60, CoolingPlace.Fridge, 4).Value!;
        Assert.False(choices[0].Stages.Hold);
        Assert.True(choices[^1].Stages.Hold);
        Assert.Equal(Enumerable.Range(1, choices.Count), choices.Select(choice => choice.Boxes));
        var times = choices.Select(choice => choice.Stages.First.Minutes!.Value).ToList();
        Assert.Equal(times.OrderDescending(), times);
        Assert.Equal(7.5 / 3, choices[2].DepthCm, 9);
        Assert.Equal(2.5, CoolingBox.DepthCm(new(750), 20, 15), 9);
        Assert.Equal("depth-absurd", CoolingBox.Choices(0, 60, CoolingPlace.Fridge, 4).Problems.Single().Code);
    }
}
