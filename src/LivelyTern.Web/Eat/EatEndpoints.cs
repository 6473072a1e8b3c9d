using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;
using LivelyTern.Web.Plan;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Eat;

/// <summary>One eater's day at the table, against the aim of that day.</summary>
public sealed record EatView(Guid EaterId, string Name, DateOnly Today, Core.Aim.DayAim Aim, DayView Day, int Version);

/// <summary>Whether an item has been eaten.</summary>
/// <param name="Eaten">Whether it has.</param>
/// <param name="Grams">Of a box, how much of it was; null for all of it. What is left is on the shelf again.</param>
public sealed record EatRequest(bool Eaten, decimal? Grams = null);

/// <summary>Eat: today.</summary>
public static class EatEndpoints
{
    /// <summary>Maps <c>/api/eat</c>. A plain food eaten now is laid through <c>/api/plan/foods</c>.</summary>
    public static void MapEat(this IEndpointRouteBuilder api)
    {
        var eat = api.MapGroup("/eat").WithTags("Eat");
        eat.MapGet("/{eaterId:guid}/{day}", async Task<Results<Ok<EatView>, ProblemHttpResult>> (
            Guid eaterId, DateOnly day, TernDb db, EaterStore eaters, PlanStore plan, PlanReader reader) =>
        {
            if (KitchenDays.Refusal(day, reader.Today, "day") is { } far) return Answers.Problem([far]);
            if (await eaters.FindAsync(eaterId) is not { } eater) return Answers.Problem([Stale.Gone("eater")]);
            await using var once = await db.ReadOnceAsync();
            var version = await plan.VersionAsync();
            var shown = await reader.DayAsync(eater, day);
            return TypedResults.Ok(new EatView(eater.Id, eater.Name, reader.Today, shown.Aim, shown, version));
        }).WithName("getDay");
        eat.MapPut("/items/{id:guid}", (
            Guid id, EatRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes, TimeProvider clock) =>
            body is { Eaten: true, Grams: { } grams }
                ? PlanEndpoints.WriteAsync(ifMatch, version => changes.EatPartAsync(version, id, new(grams)))
                : PlanEndpoints.ChangeAsync(ifMatch, changes, [], [id], board => board.Eat(id, body.Eaten ? clock.GetUtcNow() : null)))
            .WithName("eatItem");
    }
}
