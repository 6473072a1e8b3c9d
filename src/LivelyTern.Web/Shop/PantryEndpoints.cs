using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Shop;
using LivelyTern.Data;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Shop;
using LivelyTern.Web.Aim;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Shop;

/// <summary>Something in the house.</summary>
/// <param name="Id">Which.</param>
/// <param name="FoodId">The food.</param>
/// <param name="Name">Its name.</param>
/// <param name="Grams">What is there, as purchased; null for enough that nobody counts.</param>
/// <param name="Said">The same, as one says it; empty for enough.</param>
/// <param name="UseBy">The last day its package names.</param>
/// <param name="IsFirst">Whether the household says to use it first.</param>
/// <param name="IsToUseFirst">Whether it should be used before other things: said so, or its last day is near.</param>
/// <param name="CouldUse">Names of recipes that could use it, where it is to be used first.</param>
/// <param name="Version">For the next write.</param>
public sealed record PantryItemView(
    Guid Id, string FoodId, string Name, decimal? Grams, string Said, DateOnly? UseBy, bool IsFirst, bool IsToUseFirst,
    IReadOnlyList<string> CouldUse, int Version);

/// <summary>What is in the house.</summary>
/// <param name="Today">The household's day.</param>
/// <param name="First">What to use first, the soonest first.</param>
/// <param name="Items">What was asked for, by name; up to 200.</param>
/// <param name="Found">How many there are of that.</param>
/// <param name="All">How many things there are in all.</param>
public sealed record PantryView(
    DateOnly Today, IReadOnlyList<PantryItemView> First, IReadOnlyList<PantryItemView> Items, int Found, int All);

/// <summary>Something to be written into the pantry.</summary>
/// <param name="Text">"500 g red lentils".</param>
/// <param name="FoodId">The food chosen; null where the words say enough.</param>
/// <param name="UseBy">The last day its package names.</param>
/// <param name="IsEnough">Whether there is enough that nobody counts: then only the food is read.</param>
public sealed record PantryRequest(string Text, string? FoodId = null, DateOnly? UseBy = null, bool IsEnough = false);

/// <summary>How something in the house is now.</summary>
/// <param name="Text">How much there is, as typed; null as it was.</param>
/// <param name="UseBy">The last day its package names.</param>
/// <param name="IsFirst">Whether to use it first.</param>
public sealed record PantryChange(string? Text, DateOnly? UseBy, bool IsFirst);

/// <summary>A stocktaking.</summary>
/// <param name="Lines">A line for each thing: "500 g red lentils".</param>
/// <param name="Foods">For each line the food chosen; "" where the words say enough.</param>
/// <param name="IsAll">Whether nothing else is in the house.</param>
public sealed record StocktakeRequest(IReadOnlyList<string> Lines, IReadOnlyList<string?>? Foods = null, bool IsAll = false);

/// <summary>What a change of the pantry took out and put in, so that it can be taken back.</summary>
/// <param name="Out">What is out.</param>
/// <param name="In">What came in, with versions.</param>
public sealed record PantryStep(IReadOnlyList<PantryItemView> Out, IReadOnlyDictionary<Guid, int> In);

/// <summary>What is in the house.</summary>
public static class PantryEndpoints
{
    private const int MostShown = 200, MostLines = 1000, MostNamed = 3;

    /// <summary>Maps <c>/api/shop/pantry</c>.</summary>
    public static void MapPantry(this IEndpointRouteBuilder api)
    {
        var pantry = api.MapGroup("/shop/pantry").WithTags("Shop");
        pantry.MapGet("", ListAsync).WithName("listPantry");
        pantry.MapPost("", AddAsync).WithName("addToPantry");
        pantry.MapPut("/{id:guid}", SetAsync).WithName("setInPantry");
        pantry.MapDelete("/{id:guid}", async Task<Results<Ok<PantryItemView>, ProblemHttpResult>> (
            Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, PantryStore store, TimeProvider clock) =>
        {
            var (version, missing) = Answers.VersionOf(ifMatch);
            if (missing is not null) return missing;
            return (await store.RemoveAsync(id, version)).Answer(row => Show(row, clock.Today(), []));
        }).WithName("takeOutOfPantry");
        pantry.MapPost("/stocktaking", StocktakeAsync).WithName("takeStock");
        pantry.MapPost("/undo", async Task<Results<Ok<CountAnswer>, ProblemHttpResult>> (PantryStep body, PantryStore store) =>
        {
            if (body.Out.Count > PantryStore.Most) return Answers.Problem([Stale.Problem]);
            return (await store.TakeBackAsync(body.In, [.. body.Out.Select(RowOf)])).Answer(count => new CountAnswer(count));
        }).WithName("undoPantry");
    }

    private static PantryItemView Show(PantryRow row, DateOnly today, IReadOnlyList<string> couldUse)
    {
        var item = row.ToItem();
        var said = item.Amount is { } amount ? SaidPurchase.Exactly(amount) : "";
        return new(
            row.Id, row.FoodId, row.Name, item.Amount?.Value, said, row.UseBy, row.IsFirst, item.IsToUseFirst(today), couldUse,
            row.Version);
    }

    // Of what nobody weighs there is enough.
    private static PutInPantry Put(Needed said, bool isEnough, DateOnly? useBy) =>
        new(said.Food.Id, said.Food.Name, isEnough || said.Purchased == Grams.Zero ? null : said.Purchased, useBy);

    private static PantryRow RowOf(PantryItemView view) => new()
    {
        Id = view.Id,
        FoodId = view.FoodId,
        Name = view.Name,
        Milligrams = view.Grams is { } grams ? Milligrams.Of(new Grams(grams)) : null,
        UseBy = view.UseBy,
        IsFirst = view.IsFirst,
    };

    private static async Task<PantryView> ListAsync(string? find, TernDb db, PantryStore store, ShopReader reader, TimeProvider clock)
    {
        await using var once = await db.ReadOnceAsync();
        var today = clock.Today();
        var rows = await store.ListAsync();
        var words = (find ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var found = rows.Where(row => words.All(word => row.Name.Contains(word, StringComparison.OrdinalIgnoreCase))).ToList();
        var first = new List<PantryItemView>();
        var soon = rows.Where(row => row.ToItem().IsToUseFirst(today)).OrderBy(row => row.UseBy ?? DateOnly.MaxValue).Take(MostShown);
        foreach (var row in soon)
        {
            var could = OverOffers.For(row.ToItem().Amount ?? PantryItem.Most, await reader.UsesAsync(row.FoodId));
            first.Add(Show(row, today, [.. could.Take(MostNamed).Select(use => use.Name)]));
        }

        return new(today, first, [.. found.Take(MostShown).Select(row => Show(row, today, []))], found.Count, rows.Count);
    }

    private static async Task<Results<Ok<PantryItemView>, ProblemHttpResult>> AddAsync(
        PantryRequest body, PantryStore store, FoodStore foods, TimeProvider clock)
    {
        var known = await foods.AllAsync();
        FoodLine Read(string text) => FoodLine.Read(text, known, body.FoodId is null ? null : known.Find(body.FoodId)).AsOne;
        var line = Read(body.Text);

        // "Olive oil", and nothing about how much: there is enough of it.
        var isBare = line.Ingredient is null && AmountText.Read(body.Text) is null && Read("1 g " + body.Text).Ingredient is not null;
        if (isBare) line = Read("1 g " + body.Text);
        if (AsPurchased.Said(line) is not [var said]) return LineView.NotUnderstood(line);
        return (await store.AddAsync([Put(said, isBare || body.IsEnough, body.UseBy)])).Answer(rows => Show(rows[0], clock.Today(), []));
    }

    private static async Task<Results<Ok<PantryItemView>, ProblemHttpResult>> SetAsync(
        Guid id, PantryChange body, [FromHeader(Name = "If-Match")] string? ifMatch, PantryStore store, ShopStore shop, FoodStore foods,
        TimeProvider clock)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        if (await store.FindAsync(id) is not { } row) return Answers.Problem([Stale.Gone("thing")]);
        var amount = row.ToItem().Amount;
        if (body.Text is { } typed)
        {
            var known = await foods.AllAsync();
            if (known.Find(row.FoodId) is not { } food) return Answers.Problem([Stale.Gone("food")]);
            var read = PantryAmount.Read(typed, amount, food, (await shop.SoldAsAsync())(food), known);
            if (!read.Succeeded) return Answers.Problem(read.Problems);
            amount = read.Value!.Amount;
        }

        var set = await store.SetAsync(id, version, new(id, amount, body.UseBy, body.IsFirst));
        return await set.AnswerWriteAsync(
            now => Task.FromResult(Show(now, clock.Today(), [])),
            async () => await store.FindAsync(id) is { } now ? Show(now, clock.Today(), []) : null);
    }

    private static async Task<Results<Ok<PantryStep>, ProblemHttpResult>> StocktakeAsync(
        StocktakeRequest body, PantryStore store, FoodStore foods, TimeProvider clock)
    {
        if (body.Lines.Count > MostLines)
            return Answers.Problem([new("lines-many", "lines", $"Take stock of up to {MostLines} lines at once.")]);
        var known = await foods.AllAsync();
        var (problems, counted) = (new List<Problem>(), new List<PutInPantry>());
        for (var i = 0; i < body.Lines.Count; i++)
        {
            if (body.Lines[i] is not { } text || string.IsNullOrWhiteSpace(text)) continue;
            if (Core.Recipes.WrittenRecipe.ProblemOfLine(text) is { } tooLong)
            {
                problems.Add(tooLong with { Field = $"lines[{i}]" });
                continue;
            }

            var chosen = body.Foods is { } ids && i < ids.Count && ids[i] is { Length: > 0 } id ? known.Find(id) : null;
            var line = FoodLine.Read(text, known, chosen);
            if (line.Ingredients.Count == 0)
                problems.Add(new("line-unread", $"lines[{i}]", line.Problem?.Sentence ?? "This line was not understood."));
            counted.AddRange(AsPurchased.Said(line).Select(said => Put(said, isEnough: false, useBy: null)));
        }

        if (problems.Count > 0) return Answers.Problem(problems);
        return (await store.StocktakeAsync(counted, body.IsAll)).Answer(step => new PantryStep(
            [.. step.Before.Select(row => Show(row, clock.Today(), []))], step.Now.ToDictionary(row => row.Id, row => row.Version)));
    }
}
