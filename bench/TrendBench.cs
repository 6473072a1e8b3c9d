using System.Diagnostics;
using LivelyTern.Core.Review;
using LivelyTern.Core.Tests.Review;

namespace LivelyTern.Bench;

/// <summary>How often the ranges of trend and need hold the truth over 1,000 simulated bodies of each kind, and what three years cost.</summary>
internal static class TrendBench
{
    private const int Bodies = 1000, Times = 9;

    public static void Run()
    {
        foreach (var kind in BodyKind.All)
        {
            var (need, rate, stated, wide) = (0, 0, 0, 0m);
            for (var i = 0; i < Bodies; i++)
            {
                var body = SimulatedBody.Of(kind, i);
                var read = TrendReader.Read(body.WeighIns, body.Intake);
                rate += Holds(read.RatePerWeek!, body.RatePerWeek);
                if (read.Need is not { } range) continue;
                (stated, need, wide) = (stated + 1, need + Holds(range, body.Need), wide + range.High - range.Low);
            }

            Console.WriteLine(
                $"{kind.Name,-22} need stated {stated} times, true one within {100.0 * need / stated:0.0} %, range {wide / stated:0} kcal wide; "
                + $"rate within {100.0 * rate / Bodies:0.0} %");
        }

        var long_ = SimulatedBody.Of(new("three years", Days: 1095), 1);
        var took = Enumerable.Range(0, Times).Select(_ => Took(() => TrendReader.Read(long_.WeighIns, long_.Intake))).Order().ToList();
        Console.WriteLine($"three years of one eater ({long_.WeighIns.Count} weigh-ins): p50 {took[Times / 2]:0} ms, most {took[^1]:0} ms");
    }

    private static int Holds(Ranged range, double truth) => (double)range.Low <= truth && truth <= (double)range.High ? 1 : 0;

    private static double Took(Action act)
    {
        var clock = Stopwatch.StartNew();
        act();
        return clock.Elapsed.TotalMilliseconds;
    }
}
