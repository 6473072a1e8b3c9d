using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Review;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Review;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Review;

/// <summary>A weigh-in as it was typed.</summary>
/// <param name="Day">The day.</param>
/// <param name="Kg">Kilograms.</param>
/// <param name="Text">As typed.</param>
public sealed record WeighInView(DateOnly Day, decimal Kg, string Text);

/// <summary>What is said to be the energy need of a body like this one, by published equations.</summary>
/// <param name="Low">Kcal a day, mostly sitting, by the lowest of them.</param>
/// <param name="High">Kcal a day, on the feet most of the day, by the highest.</param>
public sealed record EquationsView(decimal Low, decimal High);

/// <summary>What the bathroom scale says of an eater over weeks.</summary>
/// <param name="EaterId">The eater.</param>
/// <param name="Name">Their name.</param>
/// <param name="Today">The household's day.</param>
/// <param name="Unit">In what they weigh.</param>
/// <param name="WeighIns">All of them, the last first.</param>
/// <param name="Trend">What they say.</param>
/// <param name="NotedDays">Days with something noted as eaten; of those the whole ones count for the need.</param>
/// <param name="OpenDays">Days of which something eaten is not known, among those from which the need is told; none of them counts.</param>
/// <param name="Equations">What equations say of a body like theirs; null where the body is not described under Aim.</param>
/// <param name="AimKcal">The energy their usual day aims at; null where it names none.</param>
/// <param name="RateDays">Days over which the rate is taken; null without one.</param>
/// <param name="IsLevel">Whether the weight stayed about the same over them, as far as can be told.</param>
/// <param name="AimAboveNeed">By how many kcal the usual day aims above the need, to the nearest 10; 0 where that is about the same; null
/// where one of the two is not known.</param>
public sealed record BodyView(
    Guid EaterId, string Name, DateOnly Today, BodyUnit Unit, IReadOnlyList<WeighInView> WeighIns, TrendAnswer Trend, int NotedDays,
    int OpenDays, EquationsView? Equations, decimal? AimKcal, int? RateDays, bool IsLevel, decimal? AimAboveNeed);

/// <summary>An aim that the trend speaks for.</summary>
/// <param name="Kcal">Kilocalories a day, with their range.</param>
/// <param name="RateKgPerWeek">The rate it is worked out for: above 0 to lose.</param>
/// <param name="AimKcal">What the usual day aims at now; null where it names no energy.</param>
/// <param name="Cautions">What was limited, or should be known.</param>
public sealed record AimProposalView(Ranged Kcal, decimal RateKgPerWeek, decimal? AimKcal, IReadOnlyList<Caution> Cautions);

/// <summary>The energy of the usual day moved to another goal; every bound by as much.</summary>
/// <param name="Kcal">The goal.</param>
/// <param name="Before">The goal that was seen.</param>
public sealed record MoveAimRequest(decimal Kcal, decimal Before);

/// <summary>That the energy of the usual day was moved.</summary>
/// <param name="Kcal">The goal now.</param>
public sealed record AimMoved(decimal Kcal);

/// <summary>A weigh-in to be written down.</summary>
/// <param name="Text">As typed: "71.4", "157 lb", "11 st 3".</param>
/// <param name="Before">What was seen on that day before; null for nothing.</param>
public sealed record WeighInRequest(string Text, string? Before = null);

/// <summary>Review: the body's trend.</summary>
public static class BodyEndpoints
{
    /// <summary>Maps <c>/api/review/body</c> and <c>/api/review/weigh-ins</c>.</summary>
    public static void MapBody(this IEndpointRouteBuilder api)
    {
        var review = api.MapGroup("/review").WithTags("Review");
        review.MapGet("/body/{eaterId:guid}", GetAsync).WithName("getBody");
        review.MapGet("/body/{eaterId:guid}/proposal", ProposeAsync).WithName("proposeAim");
        review.MapPut("/body/{eaterId:guid}/aim", async (Guid eaterId, MoveAimRequest body, EaterStore eaters) =>
            (await eaters.MoveEnergyAsync(eaterId, body.Before, body.Kcal)).Answer(kcal => new AimMoved(kcal))).WithName("moveAim");
        review.MapPut("/weigh-ins/{eaterId:guid}/{day}", async (Guid eaterId, DateOnly day, WeighInRequest body, WeighInStore store) =>
            (await store.SetAsync(eaterId, day, body.Text ?? "", body.Before)).Answer(Show)).WithName("weighIn");
        review.MapDelete("/weigh-ins/{eaterId:guid}/{day}", async (Guid eaterId, DateOnly day, string? before, WeighInStore store) =>
            (await store.RemoveAsync(eaterId, day, before)).Answer(Show)).WithName("removeWeighIn");
    }

    private static async Task<Results<Ok<BodyView>, ProblemHttpResult>> GetAsync(
        Guid eaterId, TernDb db, EaterStore eaters, WeighInStore store, TimeProvider clock)
    {
        if (await eaters.FindAsync(eaterId) is not { } eater) return Answers.Problem([Stale.Gone("eater")]);
        await using var once = await db.ReadOnceAsync();
        var (rows, noted, open, read) = await ReadAsync(eater, store, clock.Today());
        var goal = eater.Aim.Resolved()[Measure.Energy].Goal;
        EquationsView? equations = null;
        if (eater.Body is { } body)
        {
            var (low, high) = EnergyNeed.Between(read.Trend.Count == 0 ? body : body with { WeightKg = read.Trend[^1].Kg.Value });
            equations = new(low, high);
        }

        return TypedResults.Ok(new BodyView(
            eater.Id, eater.Name, clock.Today(), rows.OrderBy(row => row.WrittenAt).LastOrDefault()?.Unit ?? BodyUnit.Kilogram,
            [.. rows.Reverse().Select(Show)], TrendAnswer.Of(read), noted.Count, open, equations, goal,
            read.RateDays, read.IsLevel, read.AboveNeed(goal)));
    }

    private static async Task<Results<Ok<AimProposalView>, ProblemHttpResult>> ProposeAsync(
        Guid eaterId, decimal rate, TernDb db, EaterStore eaters, WeighInStore store, TimeProvider clock)
    {
        if (await eaters.FindAsync(eaterId) is not { } eater) return Answers.Problem([Stale.Gone("eater")]);
        await using var once = await db.ReadOnceAsync();
        var (_, _, _, read) = await ReadAsync(eater, store, clock.Today());
        if (read.Need is not { } need) return Answers.Problem([new Problem("need-unknown", "", read.WhyNoNeed ?? "")]);
        return AimProposal.Of(need, read.Trend[^1].Kg.Value, eater.Body, rate).Answer(one => new AimProposalView(
            one.Kcal, one.RateKgPerWeek, eater.Aim.Resolved()[Measure.Energy].Goal, one.Cautions));
    }

    private static async Task<(IReadOnlyList<WeighInRow> Rows, IReadOnlyList<DayIntake> Noted, int Open, BodyTrend Read)> ReadAsync(
        EaterRow eater, WeighInStore store, DateOnly today)
    {
        var (rows, noted) = (await store.OfAsync(eater.Id), await store.IntakeAsync(eater.Id));
        var (first, last) = rows.Count > 0 ? (rows[0].Day, rows[^1].Day) : (today, today);
        var since = last.AddDays(-TrendReader.NeedDays);
        var open = await store.OpenDaysAsync(eater.Id, since > first ? since : first);
        var known = WholeDays.Known(noted, open, today);
        return (rows, noted, open.Count(day => day < today), TrendReader.Read([.. rows.Select(row => row.Read())], known));
    }

    private static WeighInView Show(WeighInRow row) => new(row.Day, row.Read().Kg, row.Text);
}
