using LivelyTern.Core.Measures;
using LivelyTern.Core.Review;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Review;

/// <summary>Weigh-ins and what was eaten, in any order; days of either may be missing.</summary>
/// <param name="WeighIns">What the scale said.</param>
/// <param name="Intake">What was eaten; null for nothing known.</param>
public sealed record TrendRequest(IReadOnlyList<WeighIn?> WeighIns, IReadOnlyList<DayIntake?>? Intake = null);

/// <summary>A day of the trend.</summary>
/// <param name="Day">The day.</param>
/// <param name="Kg">Kilograms.</param>
/// <param name="Low">Its range from.</param>
/// <param name="High">Its range to.</param>
public sealed record TrendDayView(DateOnly Day, decimal Kg, decimal Low, decimal High);

/// <summary>A weigh-in that doesn't count.</summary>
/// <param name="Day">Its day.</param>
/// <param name="Kg">What it said.</param>
/// <param name="Why">Why it doesn't, in a sentence.</param>
/// <param name="Meant">What was perhaps meant; null where nothing is near.</param>
public sealed record LeftOutWeighIn(DateOnly Day, decimal Kg, string Why, decimal? Meant);

/// <summary>The trend of a body, its rate and its need.</summary>
/// <param name="Trend">Day by day from the first weigh-in that counts to the last.</param>
/// <param name="RatePerWeek">Kilograms a week over the last four weeks, or all there are; null with fewer than two weigh-ins.</param>
/// <param name="Need">Kilocalories a day that would keep the weight level; null where too little is known.</param>
/// <param name="WhyNoNeed">Why there is no need; null where there is one.</param>
/// <param name="LeftOut">Weigh-ins that don't count.</param>
/// <param name="IntakeDays">Days of the last half year of which it is known what was eaten.</param>
/// <param name="RangePercent">How often the true value lies in a range: 90 times in 100.</param>
public sealed record TrendAnswer(
    IReadOnlyList<TrendDayView> Trend, Ranged? RatePerWeek, Ranged? Need, string? WhyNoNeed, IReadOnlyList<LeftOutWeighIn> LeftOut,
    int IntakeDays, int RangePercent = 90)
{
    /// <summary>A trend as it is shown.</summary>
    public static TrendAnswer Of(BodyTrend read)
    {
        ArgumentNullException.ThrowIfNull(read);
        return new(
            [.. read.Trend.Select(day => new TrendDayView(day.Day, day.Kg.Value, day.Kg.Low, day.Kg.High))], read.RatePerWeek, read.Need,
            read.WhyNoNeed, [.. read.LeftOut.Select(one => new LeftOutWeighIn(one.WeighIn.Day, one.WeighIn.Kg, one.Why, one.Meant))],
            read.IntakeDays);
    }
}

/// <summary>The trend of a body, worked out without storing anything.</summary>
public static class TrendCalculations
{
    private const int Most = 5_000, MostYears = 10;
    private const decimal MostKg = 10_000m, MostKcal = 30_000m;

    /// <summary>Maps <c>/api/calc/trend</c>.</summary>
    public static void MapTrendCalculations(this IEndpointRouteBuilder api) =>
        api.MapPost("/calc/trend", Results<Ok<TrendAnswer>, ProblemHttpResult> (TrendRequest body) =>
        {
            var (weighIns, intake) = (body.WeighIns ?? [], body.Intake ?? []);
            var problems = Problems(weighIns, intake).Take(20).ToList();
            return problems.Count > 0
                ? Answers.Problem(problems)
                : TypedResults.Ok(TrendAnswer.Of(TrendReader.Read([.. weighIns.Select(one => one!)], [.. intake.Select(one => one!)])));
        }).WithTags("Calculate").WithName("calcTrend").WithMetadata(new AnyDay());

    private static List<Problem> Problems(IReadOnlyList<WeighIn?> weighIns, IReadOnlyList<DayIntake?> intake)
    {
        if (weighIns.Count > Most) return [new("weigh-ins-many", "weighIns", $"Up to {Most:N0} weigh-ins at once.")];
        if (intake.Count > Most) return [new("intake-many", "intake", $"Up to {Most:N0} days at once.")];
        var wrong = weighIns.Select((one, i) => one is { Kg: > 0 and <= MostKg } ? null : new Problem(
                "weight-absurd", $"weighIns[{i}]", "Give the day and the kilograms: more than 0."))
            .Concat(intake.Select((one, i) => one is { Kcal: >= 0 and <= MostKcal } ? null : new Problem(
                "figure-absurd", $"intake[{i}]", $"Give the day and the kcal: from 0 to {MostKcal:0}."))).OfType<Problem>().ToList();
        if (wrong.Count > 0) return wrong;
        var days = weighIns.Select(one => one!.Day).Concat(intake.Select(one => one!.Day)).ToList();
        return days.Count > 0 && days.Max().DayNumber - days.Min().DayNumber > MostYears * 366
            ? [new("days-apart", "weighIns", $"The first and the last day lie more than {MostYears} years apart: check the years.")]
            : [];
    }
}
