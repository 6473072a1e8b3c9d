using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Core.Plan.Menus;
using LivelyTern.Core.Recipes;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Plan;

/// <summary>Days for which dishes are to be proposed.</summary>
/// <param name="From">The first day.</param>
/// <param name="To">The last day.</param>
/// <param name="PrepDay">The day the batches are cooked.</param>
/// <param name="Dishes">How many dishes.</param>
/// <param name="EaterIds">Whose days; null for everybody's.</param>
/// <param name="Keep">Recipes that are in it in any case.</param>
/// <param name="Without">Recipes that are not.</param>
/// <param name="AtHand">What is in the house and wants to be used: "1 kg carrots".</param>
public sealed record MenuRequest(
    DateOnly From, DateOnly To, DateOnly PrepDay, int Dishes = 4, IReadOnlyList<Guid>? EaterIds = null,
    IReadOnlyList<Guid>? Keep = null, IReadOnlyList<Guid>? Without = null, IReadOnlyList<string>? AtHand = null);

/// <summary>Something of the house that a dish uses.</summary>
public sealed record UsesUpView(string Name, decimal Grams, decimal OfGrams);

/// <summary>A dish of a proposed menu, and why.</summary>
/// <param name="RecipeId">The recipe.</param>
/// <param name="Name">The dish.</param>
/// <param name="Portions">For how many of the recipe's portions it would be cooked.</param>
/// <param name="Boxes">How many boxes the days then take of it.</param>
/// <param name="IsKept">Whether it was asked for.</param>
/// <param name="LastCooked">When it was cooked last; null where never.</param>
/// <param name="UsesUp">What of the house it uses.</param>
/// <param name="Shares">What it has in common with the other dishes.</param>
/// <param name="Opinion">What was said of it after it was eaten; null for nothing.</param>
public sealed record MenuDishView(
    Guid RecipeId, string Name, int Portions, int Boxes, bool IsKept, DateOnly? LastCooked,
    IReadOnlyList<UsesUpView> UsesUp, IReadOnlyList<SharedFoods> Shares, DishOpinion? Opinion);

/// <summary>A proposed menu.</summary>
/// <param name="Dishes">Its dishes; fewer than asked for where the collection has no more.</param>
/// <param name="FitDays">How many of the days fit with it, in a quick fit.</param>
/// <param name="FitWithout">How many fit with what is there already.</param>
/// <param name="AllDays">How many days there are.</param>
public sealed record MenuView(IReadOnlyList<MenuDishView> Dishes, int FitDays, int FitWithout, int AllDays);

/// <summary>Menus: which recipes of the cook's own to cook so that days can fit.</summary>
public static class MenuEndpoints
{
    private const int MostFillers = 12, MostCandidates = 40;

    // A collection of heavy days is chosen from for as long; then the days are filled with what is chosen by then.
    private static readonly TimeSpan Choosing = TimeSpan.FromSeconds(1.5);

    private static readonly Problem NoRecipes = new(
        "menu-no-recipes", "", "There is no recipe yet whose lines could be read: write some down, then a menu can be made of them.");

    private static readonly Problem AllPlanned = new(
        "menu-all-planned", "", "Every dish you could cook is planned already: write down another recipe, or cook more of one by hand.");

    private static readonly Problem AllUnwanted = new(
        "menu-unwanted", "",
        "Of every dish that could be cooked somebody said “not again”, and nobody wants it: write down another recipe, or cook one by "
        + "hand.");

    /// <summary>Maps <c>/api/plan/menus</c>.</summary>
    public static void MapMenus(this IEndpointRouteBuilder api) =>
        api.MapPost("/plan/menus", ProposeAsync).WithTags("Plan").WithName("proposeMenu");

    private static async Task<Results<Ok<MenuView>, ProblemHttpResult>> ProposeAsync(
        MenuRequest body, TernDb db, EaterStore eaters, PlanStore plan, BatchReader batches, PlanReader reader, FoodStore foods,
        IDishOpinions said, IWeekFitter fitter, SolverTurns turns, CancellationToken gone)
    {
        var table = (await eaters.ListAsync()).Where(row => body.EaterIds is null || body.EaterIds.Contains(row.Id)).ToList();
        List<Problem> problems = [];
        if (table.Count == 0) problems.Add(new("fit-eaters", "eaterIds", "Nobody to cook for: say who eats here under Aim."));
        if (body.To < body.From || body.To.DayNumber - body.From.DayNumber >= FitProblem.MostDays)
            problems.Add(new("fit-days", "to", $"Propose for between 1 and {FitProblem.MostDays} days at a time."));
        else if (body.To < reader.Today) problems.Add(new("fit-past", "to", "Those days are past."));
        if (body.PrepDay < reader.Today || body.PrepDay > body.To)
            problems.Add(new("prep-day", "prepDay", "The prep day lies between today and the last of the days."));
        if ((KitchenDays.Refusal(body.From, reader.Today, "from") ?? KitchenDays.Refusal(body.To, reader.Today, "to")) is { } far)
            problems.Add(far);
        var catalogue = await foods.AllAsync();
        var atHand = (body.AtHand ?? []).Where(text => !string.IsNullOrWhiteSpace(text))
            .Select((text, i) => (i, Line: Read(text, catalogue))).ToList();
        var unread = atHand.Where(one => one.Line.Ingredients.Count == 0);
        problems.AddRange(unread.Select(one => one.Line.Problem! with { Field = $"atHand[{one.i}]" }));
        var wish = new MenuWish(
            body.PrepDay, body.Dishes, body.Keep ?? [], body.Without ?? [],
            [.. atHand.SelectMany(one => one.Line.Ingredients)]);
        problems.AddRange(wish.Problems());
        if (problems.Count > 0) return Answers.Problem(problems);

        await using var once = await db.ReadOnceAsync();
        var last = await batches.LastCookedAsync();
        var unpacked = await plan.UnpackedAsync();
        var planned = await batches.PlannedRecipesAsync();
        var opinions = await said.OfAllAsync();
        MenuDish Dish(Batch batch) => new(
            batch.Id, new(batch, Grams.Zero, new Dictionary<Guid, Grams>()), last.TryGetValue(batch.Id, out var day) ? day : null)
        {
            Opinion = opinions.GetValueOrDefault(batch.Id),
        };
        var cookable = await batches.CouldBeCookedAsync(body.PrepDay);
        var free = cookable.Where(batch => wish.Keep.Contains(batch.Id) || !planned.Contains(batch.Id)).Select(Dish).ToList();
        var collection = free.Where(dish => wish.Keep.Contains(dish.RecipeId) || dish.Opinion?.IsUnwanted != true)
            .OrderByDescending(dish => wish.Keep.Contains(dish.RecipeId)).ThenBy(dish => dish.LastCooked ?? DateOnly.MinValue)
            .Take(MostCandidates).ToList();
        if (collection.Count == 0) return Answers.Problem([cookable.Count == 0 ? NoRecipes : free.Count == 0 ? AllPlanned : AllUnwanted]);

        var candidates = collection.Select(dish => dish.RecipeId).ToHashSet();
        var days = FitEndpoints.DaysOf(table, body.From, body.To, reader.Today);
        var board = await plan.BoardAsync(KitchenDays.MondayOf(body.From), KitchenDays.MondayOf(body.To).AddDays(6));
        var (stock, shelf, likes) = (await plan.StockAsync(board), await plan.ShelfAsync(), table.SelectMany(row => row.Ways.Likes));
        var fillers = await plan.FillersAsync(likes, catalogue, reader.Today.AddDays(-28), MostFillers);
        List<FittedEater> who = [];
        foreach (var row in table) who.Add(await reader.FittedAsync(row, board, stock, body.From, body.To));
        var week = new WeekToFit(
            who, days, reader.Today, board, stock, shelf,
            [.. unpacked, .. collection.Select(dish => dish.Batch)], fillers, FitScope.Boxes, new(),
            batch => candidates.Contains(batch.Id));
        if (week.Days.Count == 0) return Answers.Problem([FitEndpoints.Nobody]);
        var found = await turns.RunAsync(
            () =>
            {
                using var enough = new CancellationTokenSource(Choosing);
                return new MenuSearch(week, collection, wish, fitter, gone).Propose(enough.Token);
            },
            gone);
        if (found.Value is not { } menu) return Answers.Problem(found.Problems);
        return TypedResults.Ok(new MenuView([.. menu.Dishes.Select(Show)], menu.FitDays, menu.FitWithout, menu.AllDays));
    }

    private static MenuDishView Show(ProposedDish dish) => new(
        dish.RecipeId, dish.Name, dish.Portions, dish.Boxes, dish.IsKept, dish.LastCooked,
        [.. dish.UsesUp.Select(used => new UsesUpView(used.Name, used.Weight.Value, used.Of.Value))], dish.Shares, dish.Opinion);

    private static FoodLine Read(string text, IFoods catalogue) => WrittenRecipe.ProblemOfLine(text) is { } tooLong
        ? new(text, null, false, tooLong with { Field = "atHand" }, [], null)
        : FoodLine.Read(text, catalogue);
}
