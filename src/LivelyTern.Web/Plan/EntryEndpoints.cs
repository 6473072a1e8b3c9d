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
using LivelyTern.Data.Recipes;
using LivelyTern.Web.Aim;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Plan;

/// <summary>What is typed for a day.</summary>
/// <param name="Text">One thing or several: "150 g strawberries and 2 eggs", "half a lentil box", "dinner 9 points".</param>
/// <param name="EaterId">Whose day.</param>
/// <param name="Day">The day.</param>
/// <param name="Choices">What was chosen for each thing: a food's id, the choice of an offer, or "" where the words say enough.</param>
/// <param name="Eaten">True where it has been eaten already.</param>
/// <param name="Slot">The slot of the day it is for; null for none.</param>
public sealed record EntriesRequest(
    string Text, Guid EaterId, DateOnly Day, IReadOnlyList<string?>? Choices = null, bool Eaten = false, string? Slot = null);

/// <summary>A dish that may be meant.</summary>
/// <param name="Choice">By which it is chosen for the entry.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint, 0 to 7.</param>
/// <param name="Grams">What a box or a portion of it weighs.</param>
/// <param name="IsAhead">Whether it is a portion of a batch that is not packed yet.</param>
public sealed record DishOffer(string Choice, string Name, string Letters, int Tint, decimal Grams, bool IsAhead);

/// <summary>One thing typed, as understood.</summary>
/// <param name="Text">As typed.</param>
/// <param name="Name">The food, the dish or the meal; null where it was not understood.</param>
/// <param name="Boxes">How many boxes or portions are laid for it; 0 for all else.</param>
/// <param name="Grams">What it weighs in all; null for a meal that is known by its figures only.</param>
/// <param name="GiveOrTake">For such a meal: kcal either way; null for all else.</param>
/// <param name="Figures">What it holds for this eater on that day.</param>
/// <param name="Problem">What was not understood, or why it may not lie there.</param>
/// <param name="Line">How it was read as a food; null for all else.</param>
/// <param name="Offers">Dishes it may mean.</param>
/// <param name="RecipeId">A recipe of that name of which nothing is cooked or planned.</param>
/// <param name="Forms">The forms in which it may have been weighed, raw or cooked, where its words do not say which.</param>
/// <param name="IsWater">Whether it is plain water, of which nothing is written down.</param>
public sealed record EntryView(
    string Text, string? Name, int Boxes, decimal? Grams, decimal? GiveOrTake, IReadOnlyDictionary<Measure, Figure> Figures,
    Problem? Problem, LineView? Line, IReadOnlyList<DishOffer> Offers, Guid? RecipeId, IReadOnlyList<FoodForm> Forms, bool IsWater);

/// <summary>A form of a food in which it may be weighed.</summary>
/// <param name="FoodId">The food.</param>
/// <param name="Name">Its name.</param>
/// <param name="KcalPer100g">Its energy; null where that is not known.</param>
public sealed record FoodForm(string FoodId, string Name, decimal? KcalPer100g);

/// <summary>All that was typed, as understood.</summary>
/// <param name="Entries">Thing by thing.</param>
/// <param name="Figures">What they hold together.</param>
public sealed record EntriesAnswer(IReadOnlyList<EntryView> Entries, IReadOnlyDictionary<Measure, Figure> Figures);

/// <summary>What is typed for a day: foods, own dishes by name, meals with their figures, several in one go.</summary>
public static class EntryEndpoints
{
    /// <summary>Maps <c>/api/calc/entries</c>, which reads, and <c>/api/plan/entries</c>, which lays as one change.</summary>
    public static void MapEntries(this IEndpointRouteBuilder api)
    {
        api.MapPost("/calc/entries", async Task<Results<Ok<EntriesAnswer>, ProblemHttpResult>> (EntriesRequest body, EntryDesk desk) =>
            (await desk.ReadAsync(body)).Answer(read => read.Shown)).WithTags("Calculate").WithName("calcEntries");
        api.MapPost("/plan/entries", async (
            EntriesRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, EntryDesk desk, DayChanges changes, FoodStore foods,
            TimeProvider clock) =>
        {
            var read = await desk.ReadAsync(body);
            if (read.Value is not { } entries) return Answers.Problem(read.Problems);
            if (entries.Problems.Count > 0) return Answers.Problem(entries.Problems);
            if (entries.What.Count == 0) return Answers.Problem([NothingToLay]);
            await foods.UsedAsync([.. entries.What.OfType<PlainFood>().Select(plain => plain.Food.Food.Id)]);
            var where = new EaterDay(body.EaterId, body.Day);
            var eatenAt = body.Eaten ? clock.GetUtcNow() : (DateTimeOffset?)null;
            PlanItem New(Laid what) => new(Guid.CreateVersion7(), what, eatenAt) { Slot = PlanEndpoints.SlotOf(body.Slot) };
            var steps = entries.What.Select(New)
                .Select<PlanItem, Func<PlanBoard, Outcome<PlanChange>>>(item => on => on.Lay(item, where, int.MaxValue));
            List<Guid> concerning = [.. entries.What.Select(BoxOrBatch).OfType<Guid>()];
            return await PlanEndpoints.ChangeAsync(ifMatch, changes, [where], concerning, board => board.InOne(steps));
        }).WithTags("Plan").WithName("layEntries");
    }

    private static readonly Problem NothingToLay = new("water-only", "text", "Plain water is not counted: there is nothing to write down.");

    private static Guid? BoxOrBatch(Laid what) => what switch
    {
        LaidBox box => box.BoxId,
        Portion portion => portion.BatchId,
        _ => null,
    };
}

/// <summary>What was typed, read.</summary>
/// <param name="Shown">As shown.</param>
/// <param name="What">All that is to be laid.</param>
/// <param name="Problems">What was not understood or may not lie there, each under its number.</param>
public sealed record ReadEntries(EntriesAnswer Shown, IReadOnlyList<Laid> What, IReadOnlyList<Problem> Problems);

/// <summary>Reads what is typed for a day against what there is, and says beforehand what laying it would refuse.</summary>
public sealed class EntryDesk(
    TernDb db, EaterStore eaters, PlanStore plan, FoodStore foods, RecipeStore recipes, KeptMealStore keptMeals, TimeProvider clock)
{
    private const int LongestText = 4_000, MealsKept = 56;

    /// <summary>Reads it.</summary>
    public async Task<Outcome<ReadEntries>> ReadAsync(EntriesRequest body)
    {
        ArgumentNullException.ThrowIfNull(body);
        if ((body.Text ?? "").Length > LongestText) return new Problem("text-long", "text", "That is too much at once: enter it in parts.");
        var count = TypedEntry.Apart(body.Text ?? "").Sum(line => line.Count);
        if (count > TypedEntry.Most)
        {
            var sentence = $"These are {count} things: enter up to {TypedEntry.Most} at once, then the others.";
            return new Problem("entries-many", "text", sentence);
        }

        if (KitchenDays.Refusal(body.Day, clock.Today(), "day") is { } far) return far;
        if (await eaters.FindAsync(body.EaterId) is not { } eater) return Stale.Gone("eater");
        await using var once = await db.ReadOnceAsync();
        var known = await foods.AllAsync();
        var (shelf, unpacked) = (await plan.ShelfAsync(), await plan.UnpackedAsync());
        var names = (await recipes.ListAsync()).ToDictionary(row => row.Id, row => row.Name);
        var larder = new Larder(known, shelf, unpacked, names, clock.Today())
        {
            Rules = await plan.RulesAsync(),
            Kept = [.. (await keptMeals.ListAsync()).Select(row => row.Read())],
            Meals = SaidPart.Of(body.Text ?? "") ? await MealsAsync(body.EaterId, body.Day) : [],
            WeighedAs = body.Eaten ? await foods.WeighedAsAsync() : null,
            OnDay = body.Eaten ? await DishesOnAsync(new(body.EaterId, body.Day)) : [],
        };
        var entries = new EntryReader(larder, body.EaterId).Read(body.Text ?? "", body.Choices ?? []);
        var stock = new Stock(shelf.ToDictionary(box => box.Id), unpacked.ToDictionary(one => one.Batch.Id, one => one.Batch));
        Problem? RefusalOf(Laid what) => body.Eaten && what is Portion
            ? new("not-packed", "text", "Cook and pack it first: then its box can be eaten.")
            : DayGate.Refusal(eater.Name, eater.On(body.Day).Ways, body.Day, new(Guid.Empty, what), stock, known.Find);

        var (views, problems) = (new List<EntryView>(), new List<Problem>());
        var aim = eater.On(body.Day).Aim;
        foreach (var entry in entries)
        {
            var problem = entry.Problem ?? entry.What.Select(RefusalOf).FirstOrDefault(refused => refused is not null);
            if (problem is not null) problems.Add(problem with { Field = $"entries[{views.Count}]" });
            views.Add(Show(entry, problem, aim, stock));
        }

        var measures = views.SelectMany(view => view.Figures.Keys).Distinct();
        Figure Sum(Measure measure) => Figure.Sum(views.Select(view => view.Figures.GetValueOrDefault(measure, Figure.None)));
        return new ReadEntries(
            new(views, measures.ToDictionary(measure => measure, Sum)), [.. entries.SelectMany(entry => entry.What)], problems);
    }

    // The packets and meals that were entered by their figures of late, the last first.
    private async Task<IReadOnlyList<MealOut>> MealsAsync(Guid eaterId, DateOnly day)
    {
        var eaten = await plan.PlainAsync(eaterId, day.AddDays(-MealsKept), day);
        var items = eaten.Days.OrderByDescending(one => one.Key.Day).SelectMany(one => one.Value);
        return [.. items.Select(item => item.What).OfType<MealOut>()];
    }

    // The dishes of which a box lies on a day and is not eaten yet.
    private async Task<HashSet<string>> DishesOnAsync(EaterDay where)
    {
        var board = await plan.BoardAsync(where.EaterId, where.Day, where.Day);
        var stock = await plan.StockAsync(board);
        var waiting = board[where].Where(item => item is { BoxId: not null, EatenAt: null, IsForGuests: false } && stock.Has(item));
        return [.. waiting.Select(item => item.Name(stock))];
    }

    private static EntryView Show(TypedEntry entry, Problem? problem, DayAim aim, Stock stock)
    {
        var items = entry.What.Select(what => new PlanItem(Guid.Empty, what)).ToList();
        var figures = items.Count == 0
            ? new Dictionary<Measure, Figure>()
            : Figure.Of(MeasureTotals.Sum(items.Select(item => aim.Count(item.Contents(stock))), aim.Rule));
        var meal = entry.What.OfType<MealOut>().FirstOrDefault();
        decimal WeightOf(PlanItem item) => stock.BoxOf(item)?.Weight.Value ?? item.Food!.Weight.Value;
        return new(
            entry.Text, items.Count == 0 ? null : NameOf(entry.Line) ?? items[0].Name(stock),
            items.Count(item => item.IsOfBatch), items.Count == 0 || meal is not null ? null : items.Sum(WeightOf), meal?.GiveOrTake,
            figures, problem, entry.Line is { } line ? LineView.Of(line, aim.Rule) : null, [.. entry.Offers.Select(Show)], entry.RecipeId,
            [.. entry.Forms.Select(form => new FoodForm(form.Id, form.Name, form.Per100g.Energy))], entry.IsWater);
    }

    private static string? NameOf(FoodLine? line) =>
        line is { Ingredients.Count: > 0 } ? string.Join(" + ", line.Ingredients.Select(one => one.Food.Name)) : null;

    private static DishOffer Show(Box box) => new(
        EntryReader.ChoiceOf(box), box.Batch.RecipeName, box.Batch.Mark.Letters, box.Batch.Mark.Tint, box.Weight.Value,
        box.Id == box.Batch.Id);
}
