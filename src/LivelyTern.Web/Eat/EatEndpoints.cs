using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Eat;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;
using LivelyTern.Web.Plan;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Eat;

/// <summary>One eater's day at the table, against the aim of that day.</summary>
/// <param name="EaterId">The eater.</param>
/// <param name="Name">Their name.</param>
/// <param name="Today">The household's day.</param>
/// <param name="Aim">The aim of the day.</param>
/// <param name="Day">The day.</param>
/// <param name="Version">The plan's version.</param>
/// <param name="Slots">The parts of the eater's day, with their times.</param>
/// <param name="AtTable">For boxes that are still to be eaten, by item, what the cook wrote for eating them.</param>
/// <param name="Corrected">What of the day was corrected after it was eaten, by item.</param>
public sealed record EatView(
    Guid EaterId, string Name, DateOnly Today, DayAim Aim, DayView Day, int Version, IReadOnlyList<Slot> Slots,
    IReadOnlyDictionary<Guid, AtTableView> AtTable, IReadOnlyDictionary<Guid, CorrectedView> Corrected);

/// <summary>What the cook wrote for eating a box.</summary>
/// <param name="Heating">How it is heated.</param>
/// <param name="AtEating">What is added, as written.</param>
/// <param name="Toppings">Those of it that are amounts of foods, each to be entered with one press.</param>
public sealed record AtTableView(string? Heating, string? AtEating, IReadOnlyList<ToppingView> Toppings);

/// <summary>Something that is added at eating.</summary>
/// <param name="Text">As written: "10 g toasted seeds".</param>
/// <param name="Figures">What it holds for this eater.</param>
public sealed record ToppingView(string Text, IReadOnlyDictionary<Measure, Figure> Figures);

/// <summary>A correction beside what was eaten.</summary>
/// <param name="On">The day it was written.</param>
/// <param name="Was">What was counted before.</param>
/// <param name="By">By how much it changed.</param>
public sealed record CorrectedView(
    DateOnly On, IReadOnlyDictionary<Measure, Figure> Was, IReadOnlyDictionary<Measure, Figure> By);

/// <summary>Whether an item has been eaten, and how much of it, where it was not just that: one of the three amounts, or none.</summary>
/// <param name="Eaten">Whether it has.</param>
/// <param name="Grams">Of a box, how much of it was; what is left is on the shelf again.</param>
/// <param name="Times">How many times what lies there: 0.5 is half; of a box 1.5 takes the rest from another on the shelf.</param>
/// <param name="Amount">The amount as typed: "352 g", "half", "a serving and a half", "3".</param>
public sealed record EatRequest(bool Eaten, decimal? Grams = null, decimal? Times = null, string? Amount = null);

/// <summary>Something that two ate of.</summary>
/// <param name="WithEaterId">Who had the rest.</param>
/// <param name="Share">The own share, between 0 and 1.</param>
public sealed record ShareRequest(Guid WithEaterId, decimal Share = 0.5m);

/// <summary>Something an eater has usually.</summary>
/// <param name="ItemId">By which it is entered again.</param>
/// <param name="Text">As it was typed: "150 g skyr".</param>
/// <param name="Times">How often it was eaten of late.</param>
/// <param name="Last">The last day it was.</param>
/// <param name="Figures">What it holds for this eater.</param>
public sealed record UsualView(Guid ItemId, string Text, int Times, DateOnly Last, IReadOnlyDictionary<Measure, Figure> Figures);

/// <summary>What was eaten before, eaten again.</summary>
/// <param name="ItemIds">Plain foods and meals out, wherever they lie.</param>
/// <param name="EaterId">Whose day.</param>
/// <param name="Day">The day.</param>
/// <param name="Eaten">Whether it was eaten already.</param>
/// <param name="Slot">The part of the day; null for none.</param>
public sealed record AgainRequest(IReadOnlyList<Guid> ItemIds, Guid EaterId, DateOnly Day, bool Eaten = true, string? Slot = null);

/// <summary>The form in which a food is weighed when it is eaten.</summary>
/// <param name="FoodId">That form: a raw food, or a cooked form of one.</param>
public sealed record WeighedAsRequest(string FoodId);

/// <summary>Eat: today.</summary>
public static class EatEndpoints
{
    private const int MostUsual = 24;

    /// <summary>Maps <c>/api/eat</c>. A plain food eaten now is laid through <c>/api/plan/foods</c>.</summary>
    public static void MapEat(this IEndpointRouteBuilder api)
    {
        var eat = api.MapGroup("/eat").WithTags("Eat");
        eat.MapGet("/{eaterId:guid}/{day}", GetAsync).WithName("getDay");
        eat.MapGet("/{eaterId:guid}/{day}/usual", UsualAsync).WithName("getUsual");
        eat.MapPost("/again", (AgainRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, EatOtherwise otherwise) =>
            PlanEndpoints.WriteAsync(ifMatch, version => otherwise.AgainAsync(
                version, body.ItemIds ?? [], new(body.EaterId, body.Day), body.Eaten, PlanEndpoints.SlotOf(body.Slot))))
            .WithName("eatAgain");
        eat.MapPut("/items/{id:guid}", EatAsync).WithName("eatItem");
        eat.MapPost("/items/{id:guid}/shared", (
            Guid id, ShareRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, EatOtherwise otherwise) =>
            PlanEndpoints.WriteAsync(ifMatch, version => otherwise.MakeAsync(
                version, id, body.WithEaterId, (day, at) => day.Shared(id, body.Share, body.WithEaterId, at)))).WithName("shareItem");
        eat.MapPut("/weighed", async (WeighedAsRequest body, FoodStore foods) =>
            (await foods.WeighAsAsync(body.FoodId ?? "")).Answer(food => new WeighedAsRequest(food.Id))).WithName("weighAs");
    }

    private static async Task<Results<Ok<EatView>, ProblemHttpResult>> GetAsync(
        Guid eaterId, DateOnly day, TernDb db, EaterStore eaters, PlanStore plan, PlanReader reader, BoxNotesStore notes, FoodStore foods,
        Corrections corrections, TimeProvider clock)
    {
        if (KitchenDays.Refusal(day, reader.Today, "day") is { } far) return Answers.Problem([far]);
        if (await eaters.FindAsync(eaterId) is not { } eater) return Answers.Problem([Stale.Gone("eater")]);
        await using var once = await db.ReadOnceAsync();
        var version = await plan.VersionAsync();
        var shown = await reader.DayAsync(eater, day);
        var waiting = shown.Items.Where(item => item is { BoxId: not null, EatenAt: null })
            .ToDictionary(item => item.Id, item => item.BoxId!.Value);
        var written = await notes.OfBoxesAsync(waiting.Values);
        var known = written.Values.Any(one => one.AtEating is not null) ? await foods.AllAsync() : null;
        ToppingView? Topping(string text) => FoodLine.Read(text, known!) is { Ingredients: { Count: > 0 } what }
            ? new(text, Figure.Of(shown.Aim.Count(new Contents(what))))
            : null;
        AtTableView AtTable(Core.Plan.Labels.BoxNotes one) =>
            new(one.Heating, one.AtEating, [.. one.Toppings.Select(Topping).OfType<ToppingView>()]);
        var corrected = await corrections.OnDayAsync(new(eaterId, day));
        CorrectedView Correction(WrittenCorrection one) => CorrectionViews.Of(clock.DayOf(one.WrittenAt), one.Was, one.Now);

        return TypedResults.Ok(new EatView(
            eater.Id, eater.Name, reader.Today, shown.Aim, shown, version, eater.On(day).Ways.Slots,
            waiting.Where(one => written.ContainsKey(one.Value)).ToDictionary(one => one.Key, one => AtTable(written[one.Value])),
            corrected.ToDictionary(one => one.ItemId, Correction)));
    }

    private static async Task<Results<Ok<IReadOnlyList<UsualView>>, ProblemHttpResult>> UsualAsync(
        Guid eaterId, DateOnly day, TernDb db, EaterStore eaters, PlanReader reader, UsualStore usual)
    {
        if (KitchenDays.Refusal(day, reader.Today, "day") is { } far) return Answers.Problem([far]);
        if (await eaters.FindAsync(eaterId) is not { } eater) return Answers.Problem([Stale.Gone("eater")]);
        await using var once = await db.ReadOnceAsync();
        var aim = eater.On(day).Aim;
        var found = await usual.OfAsync(new(eaterId, day), MostUsual);
        IReadOnlyList<UsualView> shown =
        [
            .. found.Select(one =>
            {
                var item = new Core.Plan.PlanItem(one.Like.ItemId, one.Like.What);
                return new UsualView(
                    item.Id, item.Text!, one.Times, one.Last, Figure.Of(aim.Count(new Contents([item.Food!]))));
            }),
        ];
        return TypedResults.Ok(shown);
    }

    private static Task<Results<Ok<MadeChange>, ProblemHttpResult>> EatAsync(
        Guid id, EatRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes, EatOtherwise otherwise,
        TimeProvider clock)
    {
        if (body is { Eaten: true, Times: { } times })
            return PlanEndpoints.WriteAsync(ifMatch, version =>
                otherwise.MakeAsync(version, id, null, (day, at) => day.EatenTimes(id, times, at)));
        if (body is { Eaten: true, Amount: { } amount })
            return PlanEndpoints.WriteAsync(ifMatch, version =>
                otherwise.MakeAsync(version, id, null, (day, at) => day.EatenTyped(id, amount, at)));
        return body is { Eaten: true, Grams: { } grams }
            ? PlanEndpoints.WriteAsync(ifMatch, version => changes.EatPartAsync(version, id, new(grams)))
            : PlanEndpoints.ChangeAsync(ifMatch, changes, [], [id], board => board.Eat(id, body.Eaten ? clock.GetUtcNow() : null));
    }
}
