using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Review;

/// <summary>How well portions were judged by eye in a month.</summary>
/// <param name="Month">Its first day.</param>
/// <param name="Tries">Guesses that were weighed afterwards.</param>
/// <param name="Off">How far those were off, as a share of the guess: their median, whichever way.</param>
/// <param name="Lean">Their mean with its sign: above 0 where there is more than the eye takes it for.</param>
public sealed record PortionAccuracy(DateOnly Month, int Tries, decimal Off, decimal Lean)
{
    /// <summary>Month by month, the last first; months without a try are left out.</summary>
    /// <param name="tries">Guesses that were weighed, each with its day.</param>
    public static IReadOnlyList<PortionAccuracy> ByMonth(IEnumerable<(DateOnly Day, EyeTry Try)> tries)
    {
        static PortionAccuracy Month(IGrouping<DateOnly, EyeTry> own) => new(
            own.Key, own.Count(), Middle.Of(own.Select(one => Math.Abs(one.Off))) ?? 0, own.Average(one => one.Off));

        return
        [
            .. tries.GroupBy(one => new DateOnly(one.Day.Year, one.Day.Month, 1), one => one.Try).OrderByDescending(own => own.Key)
                .Select(Month),
        ];
    }
}
