using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Plan;

/// <summary>Portions or boxes of a dish for guests: they count nothing for whose day they lie on.</summary>
/// <param name="EaterId">On whose day.</param>
/// <param name="Day">The day.</param>
/// <param name="Guests">How many.</param>
/// <param name="BatchId">The dish: its boxes from the shelf where it is packed, else portions.</param>
/// <param name="Slot">The part of the day; null for none.</param>
public sealed record GuestsRequest(Guid EaterId, DateOnly Day, int Guests, Guid BatchId, string? Slot = null);

/// <summary>An amount of a measure that is kept free on a day.</summary>
/// <param name="EaterId">Whose.</param>
/// <param name="Day">The day.</param>
/// <param name="Measure">The measure.</param>
/// <param name="Amount">How much, in kcal, grams or points.</param>
/// <param name="Slot">The part of the day it is kept for: what is laid there takes from it. Null for later.</param>
public sealed record HoldRequest(Guid EaterId, DateOnly Day, Measure Measure, decimal Amount, string? Slot = null);

/// <summary>
/// What lies on a day and is not for its eater: portions for guests, an amount kept free, a box that goes into the freezer.
/// </summary>
public static class GuestsAndHolds
{
    /// <summary>Maps <c>/api/plan/guests</c>, <c>/holds</c> and <c>/items/{id}/freeze</c>.</summary>
    public static void MapGuestsAndHolds(this IEndpointRouteBuilder api)
    {
        var plan = api.MapGroup("/plan").WithTags("Plan");
        plan.MapPost("/guests", LayForGuestsAsync).WithName("layForGuests");
        plan.MapPost("/holds", HoldAsync).WithName("hold");
        plan.MapPost("/items/{id:guid}/freeze", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes) =>
            PlanEndpoints.WriteAsync(ifMatch, version => changes.FreezeAsync(version, id))).WithName("freezeItem");
    }

    private static async Task<Results<Ok<MadeChange>, ProblemHttpResult>> LayForGuestsAsync(
        GuestsRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, PlanStore plan, DayChanges changes)
    {
        var shelf = (await plan.OfferedAsync()).Where(box => box.Batch.Id == body.BatchId);
        var unpacked = (await plan.UnpackedAsync()).FirstOrDefault(one => one.Batch.Id == body.BatchId && one.Batch.Weight is not null);
        var servings = Guests.Servings(body.Guests, shelf, unpacked, PlanEndpoints.SlotOf(body.Slot));
        if (servings.Value is not { } laid) return Answers.Problem(servings.Problems);
        var where = new EaterDay(body.EaterId, body.Day);
        Func<PlanBoard, Outcome<PlanChange>> Lay(PlanItem item) => on => on.Lay(item, where, int.MaxValue);
        List<Guid> concerning = [body.BatchId, .. laid.Select(item => item.BoxId).OfType<Guid>()];
        return await PlanEndpoints.ChangeAsync(ifMatch, changes, [where], concerning, board => board.InOne(laid.Select(Lay)));
    }

    private static async Task<Results<Ok<MadeChange>, ProblemHttpResult>> HoldAsync(
        HoldRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, EaterStore eaters, DayChanges changes)
    {
        if (await eaters.FindAsync(body.EaterId) is not { } eater) return Answers.Problem([Stale.Gone("eater")]);
        if (Hold.ProblemOf(body.Amount) is { } wrong) return Answers.Problem([wrong]);
        if (body.Measure == Measure.Points && eater.Aim.Rule is null)
            return Answers.Problem([new("hold-points", "measure", $"{eater.Name} counts no points.")]);
        var item = new PlanItem(Guid.CreateVersion7(), new Hold(body.Measure, body.Amount)) { Slot = PlanEndpoints.SlotOf(body.Slot) };
        var where = new EaterDay(body.EaterId, body.Day);
        return await PlanEndpoints.ChangeAsync(ifMatch, changes, [where], [], board => board.Lay(item, where, int.MaxValue));
    }
}
