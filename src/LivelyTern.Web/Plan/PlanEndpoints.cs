using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Recipes;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Aim;
using LivelyTern.Web.Foods;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Plan;

/// <summary>A box to be laid on a day.</summary>
/// <param name="BoxId">A box from the shelf.</param>
/// <param name="EaterId">For whom.</param>
/// <param name="Day">The day.</param>
/// <param name="Place">Its place in the day's order, from 0; past the end is the end.</param>
/// <param name="Slot">The slot of the day it is for; null for none.</param>
public sealed record LayBoxRequest(Guid BoxId, Guid EaterId, DateOnly Day, int Place = int.MaxValue, string? Slot = null);

/// <summary>A portion of a batch that is not packed yet, to be laid on a day.</summary>
/// <param name="BatchId">The batch.</param>
/// <param name="EaterId">For whom.</param>
/// <param name="Day">The day.</param>
/// <param name="Place">Its place in the day's order, from 0; past the end is the end.</param>
/// <param name="Grams">What it weighs; null as the eater's others of this batch, else an ordinary portion.</param>
/// <param name="Slot">The slot of the day it is for; null for none.</param>
public sealed record LayPortionRequest(
    Guid BatchId, Guid EaterId, DateOnly Day, int Place = int.MaxValue, decimal? Grams = null, string? Slot = null);

/// <summary>A size for all portions that an eater has of a batch that is not packed yet.</summary>
public sealed record SizePortionsRequest(Guid BatchId, Guid EaterId, decimal Grams);

/// <summary>A plain food to be laid on a day.</summary>
/// <param name="Text">"150 g strawberries".</param>
/// <param name="EaterId">For whom.</param>
/// <param name="Day">The day.</param>
/// <param name="Place">Its place in the day's order.</param>
/// <param name="FoodId">The food chosen, or null where the words say enough.</param>
/// <param name="Eaten">True where it has been eaten already.</param>
/// <param name="Slot">The slot of the day it is for; null for none.</param>
public sealed record LayFoodRequest(
    string Text, Guid EaterId, DateOnly Day, int Place = int.MaxValue, string? FoodId = null, bool Eaten = false, string? Slot = null);

/// <summary>Where an item is to go.</summary>
public sealed record MoveRequest(Guid EaterId, DateOnly Day, int Place = int.MaxValue);

/// <summary>An amount typed anew for something that lies on a day.</summary>
/// <param name="Text">"352 g", "352", "half"; of a plain food also a whole line: "2 eggs".</param>
/// <param name="FoodId">Of a whole line: the food chosen, or null where the words say enough.</param>
/// <param name="AllOfIt">Whether all of this eater's portions of that batch get that size.</param>
public sealed record AmendRequest(string Text, string? FoodId = null, bool AllOfIt = false);

/// <summary>Things that lie where their eaters must never get them.</summary>
public sealed record ExcludedRequest(IReadOnlyList<Guid> ItemIds);

/// <summary>How many of them stay.</summary>
public sealed record LeftAnswer(int Count);

/// <summary>Whether an item stays where it is when days are fitted.</summary>
public sealed record LockRequest(bool IsLocked);

/// <summary>The slot an item goes into; null for none.</summary>
public sealed record SlotRequest(string? Slot);

/// <summary>A day's plain foods to be copied.</summary>
/// <param name="EaterId">Whose.</param>
/// <param name="Day">From which day.</param>
/// <param name="To">Onto which days, up to 31.</param>
/// <param name="Slot">Only what is in this slot; null for all.</param>
public sealed record CopyRequest(Guid EaterId, DateOnly Day, IReadOnlyList<DateOnly> To, string? Slot = null);

/// <summary>A meal out, entered ahead.</summary>
/// <param name="EaterId">Whose.</param>
/// <param name="Day">When.</param>
/// <param name="Name">"supper at the harbour".</param>
/// <param name="Items">What is eaten there.</param>
/// <param name="Slot">In which slot of the day.</param>
public sealed record LayEventRequest(Guid EaterId, DateOnly Day, string Name, IReadOnlyList<MenuItem> Items, string? Slot = null);

/// <summary>One entry of a day to be computed: a line, or figures read off a menu or a label.</summary>
/// <param name="Line">"150 g strawberries".</param>
/// <param name="Name">What the figures are of.</param>
/// <param name="Figures">kcal and grams of what is known; what is left out is unknown.</param>
public sealed record CalcDayItem(string? Line = null, string? Name = null, IReadOnlyDictionary<Nutrient, decimal>? Figures = null);

/// <summary>A day to be computed, nothing stored.</summary>
public sealed record CalcDayRequest(IReadOnlyList<CalcDayItem> Items, DayAim Aim);

/// <summary>A day, computed.</summary>
/// <param name="Items">Each entry's figures, in order; empty where its line was not understood.</param>
/// <param name="Sums">The day's sums; "at least" where an entry was not understood.</param>
/// <param name="Bands">For each band that is set: under, within or over, and by how much.</param>
/// <param name="Missing">For each nutrient not complete, the foods that lack it.</param>
/// <param name="NotUnderstood">Lines that could not be read.</param>
/// <param name="Fits">Whether every band that is set holds.</param>
public sealed record CalcDayAnswer(
    IReadOnlyList<IReadOnlyDictionary<Measure, Figure>> Items, IReadOnlyDictionary<Measure, Figure> Sums,
    IReadOnlyDictionary<Measure, BandReading> Bands,
    IReadOnlyDictionary<Measure, IReadOnlyList<string>> Missing, IReadOnlyList<string> NotUnderstood, bool Fits);

/// <summary>Plan: boxes and plain foods laid on days.</summary>
public static class PlanEndpoints
{
    private const decimal AbsurdFigure = 1_000_000m;
    private const int MostCopies = 31;

    /// <summary>Maps <c>/api/plan</c> and <c>/api/calc/day</c>.</summary>
    public static void MapPlan(this IEndpointRouteBuilder api)
    {
        var plan = api.MapGroup("/plan").WithTags("Plan");
        plan.MapGet("/weeks/{day}", async (DateOnly day, PlanReader reader) => await reader.WeekAsync(day))
            .WithName("getWeek").WithMetadata(new AnyDay());
        plan.MapPost("/boxes", (LayBoxRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes) =>
            WriteAsync(ifMatch, version =>
                changes.LayBoxAsync(version, body.BoxId, new(body.EaterId, body.Day), body.Place, SlotOf(body.Slot))))
            .WithName("layBox");
        plan.MapPost("/boxes/{id:guid}/given-away", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes) =>
            WriteAsync(ifMatch, version => changes.LetGoAsync(version, id, BoxEventKind.GivenAway))).WithName("giveAwayBox");
        plan.MapPost("/boxes/{id:guid}/thrown-away", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes) =>
            WriteAsync(ifMatch, version => changes.LetGoAsync(version, id, BoxEventKind.ThrownAway))).WithName("throwAwayBox");
        plan.MapPost("/portions", LayPortionAsync).WithName("layPortion");
        plan.MapPut("/portions", async (
            SizePortionsRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, PlanStore store, DayChanges changes) =>
        {
            var of = (await store.UnpackedAsync()).FirstOrDefault(one => one.Batch.Id == body.BatchId)?.Batch;
            var weight = body.Grams > 0 && of is not null ? of.ByThePiece(new(body.Grams)) : new Grams(body.Grams);
            return await ChangeAsync(ifMatch, changes, [], [body.BatchId], board => board.Size(body.EaterId, body.BatchId, weight));
        }).WithName("sizePortions");
        plan.MapPost("/foods", LayFoodAsync).WithName("layFood");
        plan.MapPut("/items/{id:guid}/place", (
            Guid id, MoveRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes) =>
        {
            var to = new EaterDay(body.EaterId, body.Day);
            return ChangeAsync(ifMatch, changes, [to], [id], board => board.Move(id, to, body.Place));
        }).WithName("moveItem");
        plan.MapPut("/items/{id:guid}/amount", AmendAsync).WithName("amendItem");
        plan.MapDelete("/items/{id:guid}", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes) =>
            ChangeAsync(ifMatch, changes, [], [id], board => board.TakeOff(id))).WithName("takeOff");
        plan.MapPut("/items/{id:guid}/lock", (
            Guid id, LockRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes) =>
            ChangeAsync(ifMatch, changes, [], [id], board => board.Lock(id, body.IsLocked))).WithName("lockItem");
        plan.MapPut("/items/{id:guid}/slot", (
            Guid id, SlotRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes) =>
            ChangeAsync(ifMatch, changes, [], [id], board => board.PutInSlot(id, SlotOf(body.Slot)))).WithName("putInSlot");
        plan.MapPost("/copies", async (
            CopyRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes, PlanStore store, PlanReader reader) =>
        {
            var from = new EaterDay(body.EaterId, body.Day);
            var to = body.To.Take(MostCopies).Select(day => new EaterDay(body.EaterId, day)).ToList();
            var unpacked = await store.UnpackedAsync();
            return await ChangeAsync(ifMatch, changes, [from, .. to], [], board =>
                board.Copy(from, to, body.Slot, unpacked, reader.Today, Guid.CreateVersion7));
        }).WithName("copyDay");
        plan.MapPost("/events", LayEventAsync).WithName("layEvent");
        plan.MapPost("/excluded/off", async (ExcludedRequest body, ExcludedItems excluded) =>
            (await excluded.TakeOffAsync(body.ItemIds)).Answer(made => made)).WithName("takeOffExcluded");
        plan.MapPost("/excluded/leave", async (ExcludedRequest body, ExcludedItems excluded) =>
            (await excluded.LeaveAsync(body.ItemIds)).Answer(count => new LeftAnswer(count))).WithName("leaveExcluded");
        plan.MapPost("/changes/{id:guid}/undo", async (Guid id, DayChanges changes) => (await changes.UndoAsync(id)).Answer(made => made))
            .WithName("undoChange");
        api.MapPost("/calc/day", CalcAsync).WithTags("Calculate").WithName("calcDay");
    }

    /// <summary>A write on the plan at the version the request carries; a stale one says so, and the screen reads the plan anew.</summary>
    public static async Task<Results<Ok<MadeChange>, ProblemHttpResult>> WriteAsync(
        string? ifMatch, Func<int, Task<Outcome<MadeChange>>> write)
    {
        ArgumentNullException.ThrowIfNull(write);
        var (version, missing) = Answers.VersionOf(ifMatch);
        return missing is not null ? missing : (await write(version)).Answer(made => made);
    }

    /// <summary>A change of days at the version the request carries.</summary>
    /// <param name="ifMatch">That version, as sent.</param>
    /// <param name="changes">Makes it.</param>
    /// <param name="days">Days it touches, as far as they are known.</param>
    /// <param name="concerning">Items, boxes and batches whose days it touches.</param>
    /// <param name="change">What it does.</param>
    public static Task<Results<Ok<MadeChange>, ProblemHttpResult>> ChangeAsync(
        string? ifMatch, DayChanges changes, IReadOnlyList<EaterDay> days, IReadOnlyList<Guid> concerning,
        Func<PlanBoard, Outcome<PlanChange>> change) =>
        WriteAsync(ifMatch, version => changes.MakeAsync(version, days, concerning, change));

    private static Task<Results<Ok<MadeChange>, ProblemHttpResult>> LayPortionAsync(
        LayPortionRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, PlanStore store, DayChanges changes) =>
        WriteAsync(ifMatch, async version =>
        {
            if ((await store.UnpackedAsync()).FirstOrDefault(one => one.Batch.Id == body.BatchId) is not { } batch)
                return Stale.Gone("batch");
            if (batch.Batch.Weight is null)
            {
                var look = "look at its recipe, where more is taken out than goes in or nothing has a weight.";
                return new Problem("weight-unknown", "batchId", $"What {batch.Batch.RecipeName} will weigh is not known: {look}");
            }

            var weight = body.Grams is { } grams ? new Grams(grams) : batch.NewFor(body.EaterId);
            if (Portion.ProblemOf(weight) is { } wrong) return wrong;
            var portion = new Portion(body.BatchId, batch.Batch.ByThePiece(weight));
            var where = new EaterDay(body.EaterId, body.Day);
            var item = new PlanItem(Guid.CreateVersion7(), portion) { Slot = SlotOf(body.Slot) };
            return await changes.MakeAsync(version, [where], [body.BatchId], board => board.Lay(item, where, body.Place));
        });

    private static async Task<Results<Ok<MadeChange>, ProblemHttpResult>> LayFoodAsync(
        LayFoodRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes, FoodStore foods, TimeProvider clock)
    {
        var line = await ReadAsync(body.Text, body.FoodId, foods);
        if (line.Ingredient is not { } food) return LineView.NotUnderstood(line);
        await foods.UsedAsync([food.Food.Id]);
        var (what, where) = (new PlainFood(body.Text.Trim(), food), new EaterDay(body.EaterId, body.Day));
        var item = new PlanItem(Guid.CreateVersion7(), what, body.Eaten ? clock.GetUtcNow() : null) { Slot = SlotOf(body.Slot) };
        return await ChangeAsync(ifMatch, changes, [where], [], board => board.Lay(item, where, body.Place));
    }

    private static async Task<Results<Ok<MadeChange>, ProblemHttpResult>> AmendAsync(
        Guid id, AmendRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes, FoodStore foods)
    {
        var catalogue = await foods.AllAsync();
        FoodLine Read(string text, string? foodId) => ReadLine(text, body.FoodId ?? foodId, catalogue);
        return await WriteAsync(ifMatch, version => changes.AmendAsync(version, id, body.Text, body.AllOfIt, Read));
    }

    /// <summary>A slot as typed; null for none.</summary>
    public static string? SlotOf(string? typed) => string.IsNullOrWhiteSpace(typed) ? null : typed.Trim();

    private static async Task<FoodLine> ReadAsync(string text, string? foodId, FoodStore foods) =>
        ReadLine(text, foodId, await foods.AllAsync());

    private static FoodLine ReadLine(string text, string? foodId, IFoods catalogue)
    {
        return WrittenRecipe.ProblemOfLine(text) is { } problem
            ? new FoodLine(text, null, false, problem, [], null)
            : FoodLine.Read(text, catalogue, foodId is null ? null : catalogue.Find(foodId));
    }

    private static async Task<Results<Ok<CalcDayAnswer>, ProblemHttpResult>> CalcAsync(CalcDayRequest body, FoodStore foods)
    {
        var aim = AimEndpoints.Tidy(body.Aim);
        var problems = aim.Problems(clinicianSetIt: true).ToList();
        if (body.Items.Count > 500) problems.Add(new("items-many", "items", "A day holds up to 500 entries."));
        for (var i = 0; i < Math.Min(body.Items.Count, 500); i++)
        {
            if (body.Items[i] is not { } item || item.Line is null == item.Figures is null)
                problems.Add(new("item-unclear", $"items[{i}]", "Give each entry either a line or figures."));
            else if (item.Figures?.Any(figure => figure.Value is < 0 or > AbsurdFigure) == true)
                problems.Add(new("figure-absurd", $"items[{i}].figures", "A figure lies between 0 and a million."));
        }

        if (problems.Count > 0) return Answers.Problem(problems);

        var catalogue = await foods.AllAsync();
        var entries = body.Items.Select(item => item.Line is { } line ? FoodLine.Read(line, catalogue) : Printed(item)).ToList();
        Contents Holding(FoodLine line) => line.Ingredients.Count > 0 ? new(line.Ingredients) : new([], SomethingUnread: true);
        var reading = DayReading.Of([.. entries.Select(Holding)], aim);
        return TypedResults.Ok(new CalcDayAnswer(
            [.. reading.Entries.Select(Figure.Of)], Figure.Of(reading.Sums), reading.Bands, reading.Missing,
            [.. entries.Where(line => line.Ingredients.Count == 0).Select(line => line.Text)], reading.Fits));
    }

    private static async Task<Results<Ok<MadeChange>, ProblemHttpResult>> LayEventAsync(
        LayEventRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes)
    {
        var meal = MealOut.Of(body.Name, body.Items);
        if (!meal.Succeeded) return Answers.Problem(meal.Problems);
        var (laid, where) = (new PlanItem(Guid.CreateVersion7(), meal.Value!) { Slot = body.Slot }, new EaterDay(body.EaterId, body.Day));
        return await ChangeAsync(ifMatch, changes, [where], [], board => board.Lay(laid, where, int.MaxValue));
    }

    private static FoodLine Printed(CalcDayItem item)
    {
        var name = item.Name ?? "printed figures";
        return new FoodLine(
            name, MealOut.Printed(name, nutrient => item.Figures!.TryGetValue(nutrient, out var value) ? value : null), false, null, [],
            null);
    }
}
