using System.Globalization;
using System.Text;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Shop;
using LivelyTern.Data;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Shop;
using LivelyTern.Formats.Shop;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Shop;

/// <summary>What a putting away did, to be taken back.</summary>
/// <param name="Put">What came into the pantry, with versions.</param>
/// <param name="Ticks">What was in the basket.</param>
/// <param name="Own">What was written on by hand.</param>
public sealed record PutAwayView(IReadOnlyDictionary<Guid, int> Put, IReadOnlyList<TickRequest> Ticks, IReadOnlyList<WriteOnRequest> Own);

/// <summary>Shop: the list, its ticks, its aisles, and copies to take along.</summary>
public static class ShopEndpoints
{
    private const int MostTicked = 200, MostStandIns = 8;

    /// <summary>Maps <c>/api/shop</c>.</summary>
    public static void MapShop(this IEndpointRouteBuilder api)
    {
        var shop = api.MapGroup("/shop").WithTags("Shop");
        shop.MapGet("/list", async (DateOnly? until, ShopReader reader) => await reader.ShowAsync(until)).WithName("getShoppingList");
        shop.MapPost("/ticks", TickAsync).WithName("tickOff");
        shop.MapPost("/own", async Task<Results<Ok<CountAnswer>, ProblemHttpResult>> (WriteOnRequest body, ShopStore store) =>
            (await store.WriteOnAsync(body.Id ?? Guid.CreateVersion7(), body.Text, body.FoodId)).Answer(_ => new CountAnswer(1)))
            .WithName("writeOnList");
        shop.MapDelete("/own/{id:guid}", async Task<Results<Ok<WriteOnRequest>, ProblemHttpResult>> (Guid id, ShopStore store) =>
            (await store.TakeOffAsync(id)).Answer(row => new WriteOnRequest(row.Text, row.FoodId, row.Id))).WithName("takeOffList");
        shop.MapPost("/put-away", PutAwayAsync).WithName("putAway");
        shop.MapPost("/put-away/undo", async Task<Results<Ok<CountAnswer>, ProblemHttpResult>> (
            PutAwayView body, PutAway command, TimeProvider clock) =>
            (await command.TakeBackAsync(Done(body, clock.GetUtcNow()))).Answer(count => new CountAnswer(count))).WithName("undoPutAway");
        shop.MapGet("/aisles", async (ShopStore store) => await ShowAislesAsync(store)).WithName("getAisles");
        shop.MapPut("/aisles", SetAislesAsync).WithName("setAisles");
        shop.MapGet("/foods/{id}", FoodAsync).WithName("getShopFood");
        shop.MapPut("/foods/{id}", SetSoldAsync).WithName("setSoldAs");
        shop.MapGet("/list.md", (DateOnly? until, ShopReader reader) =>
            FileAsync(until, reader, ShoppingMarkdown.Write, "text/markdown", "md"))
            .WithName("exportListMarkdown").Produces<string>(contentType: "text/markdown");
        shop.MapGet("/list.csv", (DateOnly? until, ShopReader reader) => FileAsync(until, reader, ShoppingCsv.Write, "text/csv", "csv"))
            .WithName("exportListCsv").Produces<string>(contentType: "text/csv");
        shop.MapGet("/list.html", (DateOnly? until, ShopReader reader, HttpRequest request) =>
            FileAsync(until, reader, sheet => ShoppingPage.Write(sheet, HomeOf(request)), "text/html", "html"))
            .WithName("exportListPage").Produces<string>(contentType: "text/html");
    }

    private static Uri HomeOf(HttpRequest request) => new($"{request.Scheme}://{request.Host}/");

    private static async Task<FileContentHttpResult> FileAsync(
        DateOnly? until, ShopReader reader, Func<ShoppingSheet, string> write, string type, string ending)
    {
        var list = await reader.ShowAsync(until);
        string Said(DateOnly day) => day.ToString("ddd d MMM", CultureInfo.InvariantCulture);
        var title = until is { } last ? $"Shopping until {Said(last)}" : $"Shopping, {Said(list.Today)}";
        var text = write(ShopReader.SheetOf(list, title));
        return TypedResults.File(Encoding.UTF8.GetBytes(text), type + "; charset=utf-8", $"shopping-{list.Today:yyyy-MM-dd}.{ending}");
    }

    private static async Task<Results<Ok<TicksAnswer>, ProblemHttpResult>> TickAsync(
        DateOnly? until, TicksRequest body, ShopStore store, ShopReader reader)
    {
        if (body.Ticks.Count > MostTicked) return Answers.Problem([new("ticks-many", "ticks", $"Send up to {MostTicked} ticks at once.")]);
        var ticks = body.Ticks.Select(tick => new Tick(tick.Key, tick.IsTicked, new(tick.Grams), tick.At)).ToList();
        var taken = await store.TickAsync(ticks);
        if (!taken.Succeeded) return Answers.Problem(taken.Problems);
        var list = await reader.ShowAsync(until);
        var ticked = ticks.Where(tick => tick.IsTicked).Select(tick => tick.Key).ToHashSet(StringComparer.Ordinal);
        var gone = list.Aisles.SelectMany(aisle => aisle.Foods).Where(line => line.IsNotNeeded && ticked.Contains(line.Key));
        return TypedResults.Ok(new TicksAnswer(list, [.. gone.Select(line => line.Name)]));
    }

    private static async Task<Results<Ok<PutAwayView>, ProblemHttpResult>> PutAwayAsync(ShopReader reader, PutAway command)
    {
        var list = await reader.ReadAsync(null);
        return (await command.DoAsync(list.OwnFor)).Answer(done => new PutAwayView(
            done.Put, [.. done.Ticks.Select(tick => new TickRequest(tick.Key, tick.IsTicked, tick.Bought.Value, tick.At))],
            [.. done.Own.Select(row => new WriteOnRequest(row.Text, row.FoodId, row.Id))]));
    }

    private static PutAwayDone Done(PutAwayView view, DateTimeOffset now) => new(
        view.Put, [.. view.Ticks.Select(tick => new Tick(tick.Key, tick.IsTicked, new(tick.Grams), tick.At))],
        [
            .. view.Own.Where(item => item.Id is not null)
                .Select(item => new OwnItemRow { Id = item.Id!.Value, Text = item.Text, FoodId = item.FoodId, WrittenAt = now }),
        ]);

    private static async Task<AislesView> ShowAislesAsync(ShopStore store)
    {
        var (aisles, version) = await store.AislesAsync();
        return new(aisles, version);
    }

    private static async Task<Results<Ok<AislesView>, ProblemHttpResult>> SetAislesAsync(
        Aisles body, [FromHeader(Name = "If-Match")] string? ifMatch, ShopStore store)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        var set = await store.SetAislesAsync(version, body);
        return await set.AnswerWriteAsync(now => Task.FromResult(new AislesView(body, now)), async () => await ShowAislesAsync(store));
    }

    private static async Task<Results<Ok<ShopFoodView>, ProblemHttpResult>> FoodAsync(
        string id, DateOnly? until, ShopStore store, ShopReader reader, FoodStore foods, InsteadDesk instead)
    {
        var known = await foods.AllAsync();
        if (known.Find(id) is not { } food) return Answers.Problem([Stale.Gone("food")]);
        var (own, version) = await store.SoldAsync(id);
        var sold = own ?? SoldAs.Commonly(food);
        var list = await reader.ReadAsync(until);
        bool IsIt(ListedFood line) => string.Equals(line.Sum.Food.Id, id, StringComparison.Ordinal);
        var over = list.Foods.FirstOrDefault(IsIt)?.Sum.Over ?? Grams.Zero;
        var could = OverOffers.For(over, await reader.UsesAsync(id));
        return TypedResults.Ok(new ShopFoodView(
            food.Id, food.Name, SoldAsRequest.Of(sold), list.Aisles.Of(food, sold).Id, version,
            [.. could.Select(use => new CouldUseView(use.RecipeId, use.Name, use.Takes.Value, use.Portions, use.Takes <= over))],
            [.. (await instead.StandInsAsync(food, MostStandIns)).Select(Show)], await instead.StandingInAsync(id)));
    }

    private static StandInView Show(Food food) => new(food.Id, food.Name, food.Per100g.Energy, food.Per100g.Protein);

    private static async Task<Results<Ok<SoldAsRequest>, ProblemHttpResult>> SetSoldAsync(
        string id, SoldAsRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, ShopStore store, FoodStore foods)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        if ((await foods.AllAsync()).Find(id) is not { } food) return Answers.Problem([Stale.Gone("food")]);
        var sold = body.ToSoldAs(food);
        if (!sold.Succeeded) return Answers.Problem(sold.Problems);
        var set = await store.SetSoldAsync(id, version, sold.Value!);
        var said = SoldAsRequest.Of(sold.Value!);
        return await set.AnswerWriteAsync(_ => Task.FromResult(said), async () => (await store.SoldAsync(id)).Version);
    }
}
