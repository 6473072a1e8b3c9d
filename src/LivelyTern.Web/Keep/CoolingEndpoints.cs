using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Keep;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Keep;

/// <summary>Temperatures of something that cools; nothing stored.</summary>
/// <param name="AmbientCelsius">The temperature around it, in °C.</param>
/// <param name="Readings">At least two.</param>
/// <param name="Until">Temperatures of which the time is asked, in °C.</param>
public sealed record CalcCoolingRequest(double AmbientCelsius, IReadOnlyList<CoolingReading> Readings, IReadOnlyList<double> Until);

/// <summary>Its course.</summary>
/// <param name="Minutes">Minutes from the first reading to each temperature asked; null where it is never reached.</param>
/// <param name="RatePerMinute">k of Newton's law, per minute.</param>
/// <param name="Stages">Against the two-stage limits.</param>
public sealed record CalcCoolingAnswer(IReadOnlyList<double?> Minutes, double RatePerMinute, StagesView Stages);

/// <summary>The two-stage limits, and how they are kept.</summary>
/// <param name="First">To 21 °C.</param>
/// <param name="Second">To 5 °C.</param>
/// <param name="Hold">Whether both hold.</param>
/// <param name="Source">Where they come from.</param>
public sealed record StagesView(StageView First, StageView Second, bool Hold, string Source)
{
    /// <summary>Limits as shown.</summary>
    public static StagesView Of(TwoStages stages)
    {
        ArgumentNullException.ThrowIfNull(stages);
        StageView Stage(CoolingStage stage) => new(stage.Celsius, stage.WithinMinutes, stage.Minutes, stage.Holds);
        return new(Stage(stages.First), Stage(stages.Second), stages.Hold, TwoStages.Source);
    }
}

/// <summary>One of the limits.</summary>
/// <param name="Celsius">The temperature to be reached, in °C.</param>
/// <param name="WithinMinutes">Minutes it may take from 57 °C.</param>
/// <param name="Minutes">Minutes it takes; null where it is never reached.</param>
/// <param name="Holds">Whether it holds.</param>
public sealed record StageView(double Celsius, double WithinMinutes, double? Minutes, bool Holds);

/// <summary>Food in a box, before anybody measures how it cools; nothing stored.</summary>
/// <param name="Celsius">Its temperature when it goes in, in °C.</param>
/// <param name="Place">Where it cools.</param>
/// <param name="DepthCm">How deep it lies, in cm; null where weight and box say so.</param>
/// <param name="Grams">Its weight.</param>
/// <param name="LengthCm">The box inside, in cm.</param>
/// <param name="WidthCm">The box inside, in cm.</param>
/// <param name="AmbientCelsius">The temperature there, in °C; null as such places are.</param>
public sealed record CalcBoxesCoolingRequest(
    double Celsius, CoolingPlace Place, double? DepthCm = null, decimal? Grams = null, double? LengthCm = null, double? WidthCm = null,
    double? AmbientCelsius = null);

/// <summary>The same food in so many boxes.</summary>
/// <param name="Boxes">How many.</param>
/// <param name="DepthCm">How deep it lies in each, in cm.</param>
/// <param name="Stages">About how long it takes, against the limits.</param>
public sealed record CoolingChoiceView(int Boxes, double DepthCm, StagesView Stages);

/// <summary>In one box, in two, up to as many as keep the limits.</summary>
public sealed record CalcBoxesCoolingAnswer(double AmbientCelsius, IReadOnlyList<CoolingChoiceView> Choices);

/// <summary>A temperature taken of a batch now.</summary>
/// <param name="Celsius">Its temperature, in °C.</param>
/// <param name="Place">Where it stands.</param>
/// <param name="AmbientCelsius">The temperature there, in °C; null as such places are.</param>
/// <param name="DepthCm">How deep it lies, in cm; null where nobody says so.</param>
public sealed record TakeTemperatureRequest(decimal Celsius, CoolingPlace Place, decimal? AmbientCelsius = null, decimal? DepthCm = null);

/// <summary>The reading.</summary>
public sealed record TakenTemperature(Guid Id);

/// <summary>A temperature that was taken.</summary>
public sealed record CoolingReadingView(Guid Id, DateTimeOffset At, decimal Celsius, CoolingPlace Place, decimal AmbientCelsius);

/// <summary>A point of a course.</summary>
public sealed record CoolingPoint(double Minute, double Celsius);

/// <summary>A batch cooked lately, and how it cools.</summary>
/// <param name="BatchId">The batch.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint, 0 to 7.</param>
/// <param name="CookedOn">The day it was cooked.</param>
/// <param name="Readings">What was measured, in order.</param>
/// <param name="DepthCm">How deep it lies, in cm, as it was last said.</param>
/// <param name="IsEstimated">Whether its course rests on the depth, since it was not measured for long where it stands.</param>
/// <param name="Stages">Against the limits; null while nothing is known of its course.</param>
/// <param name="Course">Its course to draw, in minutes from the first reading.</param>
/// <param name="IsCold">Whether it was down to 5 °C.</param>
public sealed record CoolingBatchView(
    Guid BatchId, string Name, string Letters, int Tint, DateOnly CookedOn, IReadOnlyList<CoolingReadingView> Readings, decimal? DepthCm,
    bool IsEstimated, StagesView? Stages, IReadOnlyList<CoolingPoint> Course, bool IsCold);

/// <summary>What was cooked lately, and the temperatures of the places where it can cool, where nobody says otherwise, in °C.</summary>
public sealed record CoolingView(IReadOnlyDictionary<CoolingPlace, double> Ambients, IReadOnlyList<CoolingBatchView> Batches);

/// <summary>How cooked food cools: worked out, estimated, and logged.</summary>
public static class CoolingEndpoints
{
    private const int MostUntil = 50, MostDrawn = 49;
    private const double DrawnMinutes = 480, OverWhenCold = 60;

    // Over how many minutes it has to be measured in one place before its rate is told by that: a probe reads a few tenths off.
    private const double LeastMinutes = 5;

    /// <summary>Maps <c>/api/calc/cooling</c>, <c>/api/calc/cooling-boxes</c> and <c>/api/keep/cooling</c>.</summary>
    public static void MapCooling(this IEndpointRouteBuilder api)
    {
        api.MapPost("/calc/cooling", Calc).WithTags("Calculate").WithName("calcCooling");
        api.MapPost("/calc/cooling-boxes", CalcBoxesAsync).WithTags("Calculate").WithName("calcCoolingBoxes");
        var cooling = api.MapGroup("/keep/cooling").WithTags("Keep");
        cooling.MapGet("", async (CoolingStore store, KeepingStore keeping) =>
        {
            var set = (await keeping.RulesAsync()).Rules.Set;
            var ambients = Enum.GetValues<CoolingPlace>().ToDictionary(place => place, place => CoolingBox.AmbientOf(place, set));
            return new CoolingView(ambients, [.. (await store.ListAsync()).Select(Show)]);
        }).WithName("getCooling");
        cooling.MapPost("/{batchId:guid}", async (
            Guid batchId, TakeTemperatureRequest body, CoolingStore store, KeepingStore keeping) =>
        {
            var (rules, _) = await keeping.RulesAsync();
            var reading = new CoolingReadingRow
            {
                Celsius = body.Celsius,
                Place = body.Place,
                AmbientCelsius = body.AmbientCelsius ?? (decimal)CoolingBox.AmbientOf(body.Place, rules.Set),
                DepthCm = body.DepthCm,
            };
            return (await store.TakeAsync(batchId, reading)).Answer(id => new TakenTemperature(id));
        }).WithName("takeTemperature");
        cooling.MapDelete("/readings/{id:guid}", async (Guid id, CoolingStore store) =>
            (await store.RemoveAsync(id)).Answer(gone => new TakenTemperature(gone))).WithName("removeTemperature");
    }

    private static Results<Ok<CalcCoolingAnswer>, ProblemHttpResult> Calc(CalcCoolingRequest body)
    {
        if (body.Until.Count > MostUntil) return Answers.Problem([new("until-many", "until", $"Ask for up to {MostUntil} temperatures.")]);
        return Cooling.Of(body.AmbientCelsius, body.Readings).Answer(course => new CalcCoolingAnswer(
            [.. body.Until.Select(course.MinutesUntil)], course.RatePerMinute, StagesView.Of(TwoStages.Of(course))));
    }

    private static async Task<Results<Ok<CalcBoxesCoolingAnswer>, ProblemHttpResult>> CalcBoxesAsync(
        CalcBoxesCoolingRequest body, KeepingStore keeping)
    {
        if ((body.DepthCm ?? Depth(body)) is not { } depth)
            return Answers.Problem([new("depth-missing", "depthCm", "Say how deep it lies, or its weight and the box it is in.")]);
        var ambient = body.AmbientCelsius ?? CoolingBox.AmbientOf(body.Place, (await keeping.RulesAsync()).Rules.Set);
        return CoolingBox.Choices(depth, body.Celsius, body.Place, ambient).Answer(choices => new CalcBoxesCoolingAnswer(
            ambient, [.. choices.Select(one => new CoolingChoiceView(one.Boxes, one.DepthCm, StagesView.Of(one.Stages)))]));
    }

    private static double? Depth(CalcBoxesCoolingRequest body) =>
        body is { Grams: { } grams and > 0, LengthCm: { } length and > 0, WidthCm: { } width and > 0 }
            ? CoolingBox.DepthCm(new Grams(grams), length, width)
            : null;

    private static CoolingBatchView Show(CoolingBatch one)
    {
        var (row, taken) = (one.Batch, one.Readings);
        var readings = taken.Select(reading => new CoolingReadingView(
            reading.Id, reading.At, reading.Celsius, reading.Place, reading.AmbientCelsius)).ToList();
        var depth = taken.LastOrDefault(reading => reading.DepthCm is not null)?.DepthCm;
        var (course, isEstimated) = CourseOf(taken, depth);
        var isCold = taken.Any(reading => (double)reading.Celsius <= TwoStages.SecondCelsius);
        return new(
            row.Id, row.RecipeName, row.Letters, row.Tint, row.CookedOn, readings, depth, isEstimated,
            course is null ? null : StagesView.Of(TwoStages.Of(course)), course is null ? [] : Drawn(course), isCold);
    }

    // By what was measured where it stands now; measured once there, by its depth.
    private static (Cooling? Course, bool IsEstimated) CourseOf(IReadOnlyList<CoolingReadingRow> taken, decimal? depth)
    {
        if (taken.Count == 0) return (null, false);
        var (first, last) = (taken[0].At, taken[^1]);
        CoolingReading Reading(CoolingReadingRow row) => new((row.At - first).TotalMinutes, (double)row.Celsius);
        var all = taken.Select(Reading).ToList();
        bool IsHere(CoolingReadingRow row) => row.Place == last.Place && row.AmbientCelsius == last.AmbientCelsius;
        var here = taken.Reverse().TakeWhile(IsHere).Select(Reading).ToList();
        var ambient = (double)last.AmbientCelsius;
        var isLong = here.Max(one => one.Minute) - here.Min(one => one.Minute) >= LeastMinutes;
        if (isLong && Cooling.Of(ambient, here).Value is { } measured)
            return (Cooling.With(ambient, all, measured.RatePerMinute).Value, false);
        return depth is { } cm
            ? (Cooling.With(ambient, all, CoolingBox.RatePerMinute((double)cm, last.Place)).Value, true)
            : (null, false);
    }

    private static List<CoolingPoint> Drawn(Cooling course)
    {
        var end = Math.Min(DrawnMinutes, (course.MinutesUntil(TwoStages.SecondCelsius) ?? DrawnMinutes) + OverWhenCold);
        double Minute(int i) => end * i / (MostDrawn - 1);
        return [.. Enumerable.Range(0, MostDrawn).Select(i => new CoolingPoint(Minute(i), course.CelsiusAt(Minute(i))))];
    }
}
