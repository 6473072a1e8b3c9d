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
    private const int MostGuests = 40;

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
        if (body.Guests is < 1 or > MostGuests)
            return Answers.Problem([new("guests-many", "guests", $"Say how many guests, from 1 to {MostGuests}.")]);
        var boxes = (await plan.ShelfAsync()).Where(box => box.Batch.Id == body.BatchId).Take(body.Guests).Select(LaidBox.Of).ToList();
        var batch = (await plan.UnpackedAsync()).FirstOrDefault(one => one.Batch.Id == body.BatchId && one.Batch.Weight is not null);
        if (batch is null && boxes.Count < body.Guests)
        {
            var there = boxes.Count switch { 0 => "is no box", 1 => "is only 1 box", _ => $"are only {boxes.Count} boxes" };
            return Answers.Problem([new("guests-short", "guests", $"There {there} of that on the shelf.")]);
        }

        IEnumerable<Laid> Portions(UnpackedBatch of) => Enumerable.Repeat(new Portion(body.BatchId, of.Ordinary), body.Guests);
        var laid = batch is null ? boxes : Portions(batch);
        var where = new EaterDay(body.EaterId, body.Day);
        PlanItem ForGuests(Laid what) => new(Guid.CreateVersion7(), what) { Slot = PlanEndpoints.SlotOf(body.Slot), IsForGuests = true };
        var steps = laid.Select(ForGuests)
            .Select<PlanItem, Func<PlanBoard, Outcome<PlanChange>>>(item => on => on.Lay(item, where, int.MaxValue));
        List<Guid> concerning = [body.BatchId, .. boxes.Select(box => box.BoxId)];
        return await PlanEndpoints.ChangeAsync(ifMatch, changes, [where], concerning, board => board.InOne(steps));
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
