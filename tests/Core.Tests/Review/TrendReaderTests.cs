using LivelyTern.Core.Review;
using MathNet.Numerics.LinearAlgebra;

namespace LivelyTern.Core.Tests.Review;

/// <summary>The trend, its rate and the need behind it, on bodies whose truth is known, and against a second way of working it out.</summary>
public sealed class TrendReaderTests
{
    private static readonly DateOnly First = new(2026, 9, 1);

    public static TheoryData<BodyKind> Kinds { get; } = [.. BodyKind.All];

    // Over 1,000 bodies of each kind: `./tern bench --trend`, docs/review.md.
    [Theory]
    [MemberData(nameof(Kinds))]
    public void The_stated_range_holds_the_truth_about_nine_times_in_ten(BodyKind kind)
    {
        var (need, rate, stated, bodies) = (0, 0, 0, 250);
        for (var i = 0; i < bodies; i++)
        {
            var body = SimulatedBody.Of(kind, i);
            var read = TrendReader.Read(body.WeighIns, body.Intake);
            if (Holds(read.RatePerWeek!, body.RatePerWeek)) rate++;
            if (read.Need is null) continue;
            stated++;
            if (Holds(read.Need, body.Need)) need++;
        }

        // Swings over four weeks look like a need that changes: then the ranges are wider than they would have to be, never narrower.
        var most = kind.Cycle > 0 ? 99 : 95;
        Assert.InRange(100.0 * need / stated, 85, most);
        Assert.InRange(100.0 * rate / bodies, 85, most);
        Assert.True(stated > bodies * 0.9);
    }

    [Fact]
    public void Smoothed_days_are_what_the_whole_system_of_equations_says()
    {
        // The same model as one joint normal distribution, conditioned on what was seen by dense linear algebra (MathNet.Numerics 5.0.0).
        var chance = new Random(7);
        const int days = 40;
        double?[] seen = [.. Enumerable.Range(0, days).Select(day => day % 5 == 3 ? (double?)null : 80 - (0.05 * day) + chance.NextDouble())];
        double?[] pushed = [.. Enumerable.Range(0, days).Select(day => (double?)(0.02 * (day % 7)))];
        var model = new StateSpace(
            new double[,] { { 1, 1, 0 }, { 0, 1, 0 }, { 0, 0, 0.75 } }, new double[,] { { 0.01, 0, 0 }, { 0, 0.0004, 0 }, { 0, 0, 0.1 } },
            [1, 0, 1], 0.09, [79, 0.01, 0], new double[,] { { 4, 0, 0 }, { 0, 0.01, 0 }, { 0, 0, 0.2 } });
        var run = model.Filter(seen, day => [pushed[day]!.Value, 0, 0]);
        var smoothed = model.Smooth(run);

        var step = Matrix<double>.Build.DenseOfArray(model.Step);
        var noise = Matrix<double>.Build.DenseOfArray(model.StepNoise);
        var means = new List<Vector<double>> { Vector<double>.Build.DenseOfArray(model.Start) };
        var whole = Matrix<double>.Build.Dense(3 * days, 3 * days);
        whole.SetSubMatrix(0, 0, Matrix<double>.Build.DenseOfArray(model.StartNoise));
        for (var day = 1; day < days; day++)
        {
            means.Add((step * means[^1]) + Vector<double>.Build.DenseOfArray([pushed[day]!.Value, 0, 0]));
            var before = whole.SubMatrix(3 * (day - 1), 3, 3 * (day - 1), 3);
            whole.SetSubMatrix(3 * day, 3 * day, (step * before * step.Transpose()) + noise);
            for (var other = 0; other < day; other++)
            {
                var across = step * whole.SubMatrix(3 * (day - 1), 3, 3 * other, 3);
                whole.SetSubMatrix(3 * day, 3 * other, across);
                whole.SetSubMatrix(3 * other, 3 * day, across.Transpose());
            }
        }

        int[] there = [.. Enumerable.Range(0, days).Where(day => seen[day] is not null)];
        var look = Matrix<double>.Build.Dense(there.Length, 3 * days, (row, column) => column / 3 == there[row] && column % 3 != 1 ? 1 : 0);
        var mean = Vector<double>.Build.DenseOfEnumerable(means.SelectMany(one => one));
        var total = (look * whole * look.Transpose()) + (0.09 * Matrix<double>.Build.DenseIdentity(there.Length));
        var off = Vector<double>.Build.DenseOfEnumerable(there.Select(day => seen[day]!.Value)) - (look * mean);
        var gain = whole * look.Transpose() * total.Inverse();
        var (after, variance) = (mean + (gain * off), whole - (gain * look * whole));
        for (var day = 0; day < days; day++)
            for (var i = 0; i < 3; i++)
            {
                Assert.Equal(after[(3 * day) + i], smoothed[day].Mean[i], 6);
                for (var j = 0; j < 3; j++) Assert.Equal(variance[(3 * day) + i, (3 * day) + j], smoothed[day].Variance[i, j], 6);
            }

        // How likely all of it was, likewise.
        var likelihood = -0.5 * ((there.Length * Math.Log(2 * Math.PI)) + Math.Log(total.Determinant()) + (off * total.Inverse() * off));
        Assert.Equal(likelihood, run.LogLikelihood, 6);
    }

    private static WeighIn On(int day, decimal kg) => new(First.AddDays(day), kg);

    [Fact]
    public void Slips_are_left_out_in_the_open_with_what_was_perhaps_meant()
    {
        List<WeighIn> weighIns = [.. Enumerable.Range(0, 20).Select(day => On(day, 71.2m + (0.1m * (day % 3))))];
        weighIns[5] = On(5, 17.2m);
        weighIns[8] = On(8, 157.0m);
        weighIns[11] = On(11, 700m);
        weighIns[14] = On(14, 88m);
        var read = TrendReader.Read(weighIns, []);
        Assert.Equal(
            [(5, 71.2m), (8, 71.2m), (11, 70m), (14, null)],
            read.LeftOut.Select(one => (one.WeighIn.Day.DayNumber - First.DayNumber, one.Meant)));
        Assert.All(read.Trend, day => Assert.InRange(day.Kg.Value, 71m, 71.6m));
        Assert.Equal(20, read.Trend.Count);

        // A body that was ill for a month weighs less on many days: none of them is a slip.
        var ill = Enumerable.Range(0, 60).Select(day => On(day, day < 30 ? 71m : 71m - (0.2m * (day - 30)))).ToList();
        Assert.Empty(TrendReader.Read(ill, []).LeftOut);
    }

    [Fact]
    public void What_is_not_known_is_not_stated()
    {
        Assert.Equal(("Nothing was weighed yet.", 0), (TrendReader.Read([], []).WhyNoNeed, TrendReader.Read([], []).Trend.Count));
        var one = TrendReader.Read([On(0, 80)], []);
        Assert.Equal((1, null, null), (one.Trend.Count, one.RatePerWeek, one.Need));
        var fourWeeks = Enumerable.Range(0, 28).Select(day => On(day, 80m)).ToList();
        Assert.Equal("It takes what was eaten on half of the days; so far that is known of 0 of 27.", TrendReader.Read(fourWeeks, []).WhyNoNeed);
        Assert.Equal("It takes three weeks from the first weigh-in to the last; there are 14 days.",
            TrendReader.Read(fourWeeks[..14], []).WhyNoNeed);
        var few = new[] { 0, 13, 27 }.Select(day => On(day, 80m)).ToList();
        Assert.Equal("It takes 8 weigh-ins; there are 3.", TrendReader.Read(few, []).WhyNoNeed);

        // Two on a day count by their mean, whatever the order they come in.
        var twice = TrendReader.Read([On(1, 80.4m), On(0, 80), On(1, 80.0m)], []);
        var mean = TrendReader.Read([On(0, 80), On(1, 80.2m)], []);
        Assert.Equal(mean.Trend, twice.Trend);
    }

    [Fact]
    public void A_level_body_needs_what_it_eats()
    {
        // By definition: weight that stays where it is, 2,000 kcal a day.
        var weighIns = Enumerable.Range(0, 60).Select(day => On(day, 80m + (day % 2 == 0 ? 0.1m : -0.1m))).ToList();
        var intake = Enumerable.Range(0, 60).Select(day => new DayIntake(First.AddDays(day), 2000)).ToList();
        var read = TrendReader.Read(weighIns, intake);
        Assert.InRange(read.Need!.Value, 1980m, 2020m);
        Assert.InRange(read.RatePerWeek!.Value, -0.03m, 0.03m);

        // 1 kg lost in two weeks by 550 kcal a day less: Wishnofsky 1958 (from memory), 7,700 kcal a kg.
        var losing = Enumerable.Range(0, 60).Select(day => On(day, 80m - (day / 14m))).ToList();
        read = TrendReader.Read(losing, intake);
        Assert.InRange(read.Need!.Value, 2530m, 2570m);
        Assert.InRange(read.RatePerWeek!.Value, -0.52m, -0.48m);
    }

    private static bool Holds(Ranged range, double truth) => (double)range.Low <= truth && truth <= (double)range.High;
}
