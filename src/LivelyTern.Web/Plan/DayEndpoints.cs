using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Plan.Mends;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Plan;

/// <summary>Something that still fits on a day, as shown.</summary>
/// <param name="Text">The plain food, or null for a box.</param>
/// <param name="BoxId">The box, or null.</param>
/// <param name="BatchId">The batch of a portion that is not packed yet, or null.</param>
/// <param name="Name">The dish or food.</param>
/// <param name="Figures">What it holds for this eater.</param>
/// <param name="After">Where each sum of the day lies with it.</param>
/// <param name="Fits">Whether the day then lies in all its bands.</param>
public sealed record StillFitsView(
    string? Text, Guid? BoxId, Guid? BatchId, string Name, IReadOnlyDictionary<Measure, Figure> Figures,
    IReadOnlyDictionary<Measure, BandReading> After, bool Fits);

/// <summary>A part of a day, added up.</summary>
/// <param name="Name">The part.</param>
/// <param name="Sums">What lies in it.</param>
/// <param name="Share">What it should hold of the leading measure by its share of the day, in kcal, grams or points; null without a share
/// or a goal.</param>
public sealed record PartView(string Name, IReadOnlyDictionary<Measure, Figure> Sums, decimal? Share);

/// <summary>One day in depth.</summary>
/// <param name="Day">The day.</param>
/// <param name="Slots">The eater's slots.</param>
/// <param name="Parts">Those slots in which something lies, added up.</param>
/// <param name="Mends">Up to five changes that would bring it into its bands; empty where it fits or is past.</param>
/// <param name="Nearest">Where none brings it in: the change that brings it nearest, and what is then still out; else null.</param>
/// <param name="StillFits">What could be added.</param>
/// <param name="Version">The plan's version.</param>
public sealed record DayInDepth(
    DayView Day, IReadOnlyList<Slot> Slots, IReadOnlyList<PartView> Parts, IReadOnlyList<MendView> Mends, NearestView? Nearest,
    IReadOnlyList<StillFitsView> StillFits, int Version);

/// <summary>A change to be made, by the id under which it was suggested.</summary>
public sealed record MendRequest(string Id);

/// <summary>One day of one eater in depth: what would mend it, what still fits, why a thing lies there.</summary>
public static class DayEndpoints
{
    private const int MostFillers = 40, MostOffered = 12;

    /// <summary>Maps <c>/api/plan/days</c>.</summary>
    public static void MapDays(this IEndpointRouteBuilder api)
    {
        var days = api.MapGroup("/plan/days/{eaterId:guid}/{day}").WithTags("Plan");
        days.MapGet("/", GetAsync).WithName("getDayInDepth");
        days.MapPost("/mends", MendAsync).WithName("mendDay");
        days.MapGet("/items/{itemId:guid}/why", WhyAsync).WithName("whyItem");
    }

    private static Task<Results<Ok<DayInDepth>, ProblemHttpResult>> GetAsync(
        Guid eaterId, DateOnly day, string? slot, TernDb db, PlanReader reader, EaterStore eaters, PlanStore plan, FoodStore foods) =>
        WithAsync<DayInDepth>(eaterId, day, db, reader, eaters, plan, foods, async (eater, onPlan, version) =>
        {
            var shown = await reader.DayAsync(eater, day);

            StillFitsView Show(StillFits offer) => new(
                offer.Text, offer.BoxId, offer.BatchId, offer.Name, Figure.Of(offer.Measures), offer.After.Bands, offer.After.Fits);
            PartView ShowPart(DayPart part) => new(part.Slot.Name, Figure.Of(part.Sums), part.Share);
            var adding = StillFits.On(onPlan, MostOffered, slot).Select(Show);
            var suggested = new DayMends(onPlan).Suggest();
            var nearest = suggested.Nearest is var (mend, after) ? new NearestView(MendView.Of(mend), after.Bands) : null;
            IReadOnlyList<MendView> made = [.. suggested.Mends.Select(MendView.Of)];
            IReadOnlyList<PartView> parts = [.. onPlan.Parts.Select(ShowPart)];
            return TypedResults.Ok(new DayInDepth(shown, eater.Ways.Slots, parts, made, nearest, [.. adding], version));
        });

    private static Task<Results<Ok<MadeChange>, ProblemHttpResult>> MendAsync(
        Guid eaterId, DateOnly day, MendRequest body, TernDb db, PlanReader reader, EaterStore eaters, PlanStore plan, DayChanges changes,
        FoodStore foods) =>
        WithAsync<MadeChange>(eaterId, day, db, reader, eaters, plan, foods, async (_, onPlan, version) =>
        {
            var change = new DayMends(onPlan).Apply(body.Id, Guid.CreateVersion7);
            if (change.Value is not { } days) return Answers.Problem(change.Problems);
            var boxes = days.Days.SelectMany(one => one.After).Select(item => item.BoxId).OfType<Guid>();
            var made = await changes.MakeAsync(version, [.. days.Days.Select(one => one.Where)], [.. boxes], _ => change);
            return made.Answer(done => done);
        });

    private static Task<Results<Ok<WhyHere>, ProblemHttpResult>> WhyAsync(
        Guid eaterId, DateOnly day, Guid itemId, TernDb db, PlanReader reader, EaterStore eaters, PlanStore plan, FoodStore foods) =>
        WithAsync<WhyHere>(eaterId, day, db, reader, eaters, plan, foods, (_, onPlan, _) =>
        {
            Results<Ok<WhyHere>, ProblemHttpResult> answer =
                WhyHere.Of(onPlan, itemId) is { } why ? TypedResults.Ok(why) : Answers.Problem([Stale.Gone("item")]);
            return Task.FromResult(answer);
        });

    private static async Task<Results<Ok<T>, ProblemHttpResult>> WithAsync<T>(
        Guid eaterId, DateOnly day, TernDb db, PlanReader reader, EaterStore eaters, PlanStore plan, FoodStore foods,
        Func<EaterRow, DayOnPlan, int, Task<Results<Ok<T>, ProblemHttpResult>>> answer)
    {
        if (KitchenDays.Refusal(day, reader.Today, "day") is { } far) return Answers.Problem([far]);
        if (await eaters.FindAsync(eaterId) is not { } eater) return Answers.Problem([Stale.Gone("eater")]);
        var (version, onPlan) = await ReadAsync(eater, day, db, reader, plan, foods);
        return await answer(eater, onPlan, version);
    }

    private static async Task<(int Version, DayOnPlan Day)> ReadAsync(
        EaterRow eater, DateOnly day, TernDb db, PlanReader reader, PlanStore plan, FoodStore foods)
    {
        await using var once = await db.ReadOnceAsync();
        var version = await plan.VersionAsync();
        var monday = KitchenDays.MondayOf(day);
        var whole = await plan.BoardAsync(monday, monday.AddDays(6));
        var board = day < reader.Today ? whole : whole.WithoutOverdue(reader.Today);
        var fillers = await plan.FillersAsync(eater.Ways.Likes, await foods.AllAsync(), reader.Today.AddDays(-28), MostFillers);
        var (stock, shelf, unpacked) = (await plan.StockAsync(board), await plan.ShelfAsync(), await plan.UnpackedAsync());
        var who = await reader.FittedAsync(eater, whole, await plan.StockAsync(whole), monday, monday.AddDays(6));
        return (version, new DayOnPlan(who, day, reader.Today, board, stock, shelf, unpacked, fillers));
    }
}
