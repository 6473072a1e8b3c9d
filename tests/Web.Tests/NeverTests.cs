using System.Text.Json.Nodes;
using LivelyTern.Core.Foods;
using LivelyTern.Data.Foods;
using LivelyTern.Data;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace LivelyTern.Web.Tests;

/// <summary>
/// What an eater must never get does not come onto their days by any way, and what came to be excluded after it was laid is marked, taken
/// out of fits and asked about once.
/// </summary>
public sealed class NeverTests : IDisposable
{
    private const string Today = "2026-11-25", Later = "2026-11-27";
    private readonly Host host = new();
    private Guid isa, bo, recipe;
    private List<Guid> boxes = [];

    public void Dispose() => host.Dispose();

    private static object Aim =>
        new { leading = "energy", bands = new { energy = new { min = 1450, target = 1525, max = 1600 } }, rule = (object?)null };

    private static object Label(string name, params string[] allergens) =>
        new
        {
            name,
            group = "fats",
            allergens,
            label = new { basis = "per100g", servingGrams = (decimal?)null, convention = "total", kilocalories = 100 }
        };

    private async Task OpenAsync(params string[] lines)
    {
        isa = (Guid)(await host.PostAsync("/api/aim/eaters", new { name = "Isa", aim = Aim }))["id"]!;
        bo = (Guid)(await host.PostAsync("/api/aim/eaters", new { name = "Bo", aim = Aim }))["id"]!;
        recipe = (Guid)(
            await host.PostAsync("/api/recipes",
            new { name = "Oat bake", lines = lines.Length > 0 ? lines : ["400 g rolled oats", "4 eggs"], portions = 4 }))["id"]!;
    }

    private async Task<string> PackAsync()
    {
        var batch = await host.PostAsync("/api/cook/batches", new { recipeId = recipe });
        var packed = await host.PostAsync($"/api/pack/batches/{batch["id"]}/boxes", new { fullGrams = 1200, panGrams = 455, boxes = 4 },
            (int)batch["version"]!);
        boxes = [.. packed["boxes"]!.AsArray().Select(box => (Guid)box!["id"]!)];
        return (string)batch["id"]!;
    }

    private async Task NeverAsync(Guid eater, params string[] allergens)
    {
        var row = (await host.GetAsync("/api/aim/eaters")).AsArray().Single(one => (Guid)one!["id"]! == eater)!;
        await host.MustAsync(HttpMethod.Put, $"/api/aim/eaters/{eater}",
            new { name = row["name"], aim = Aim, ways = new { neverAllergens = allergens } }, (int)row["version"]!);
    }

    private async Task<JsonNode> DayAsync(Guid eater, string day = Later) => (await host.GetAsync($"/api/eat/{eater}/{day}"))["day"]!;

    private async Task<JsonArray> AskedAsync() => (await host.GetAsync("/api/overview"))["excluded"]!.AsArray();

    private async Task<(int Status, string Code)> TryAsync(HttpMethod method, string path, object? body)
    {
        var (status, answer) = await host.SendAsync(method, path, body, await host.PlanVersionAsync());
        return (status, status == 200 ? "" : ((string)answer["type"]!)["urn:lively-tern:problem:".Length..]);
    }

    private static string ItemOf(JsonNode day, int at = 0) => (string)day["items"]![at]!["id"]!;

    [Fact]
    public async Task A_reading_from_before_a_label_changed_does_not_bring_the_old_label_back()
    {
        object Label(params string[] allergens) => new
        {
            name = "House spread",
            group = "fats",
            allergens,
            label = new { basis = "per100g", servingGrams = (decimal?)null, convention = "total", kilocalories = 300 },
        };
        var food = await host.PostAsync("/api/foods", Label());
        await using var scope = host.Services.CreateAsyncScope();
        var (db, foods) = (scope.ServiceProvider.GetRequiredService<TernDb>(), scope.ServiceProvider.GetRequiredService<FoodStore>());
        await using (await db.ReadOnceAsync())
        {
            // The reading shows the file as it is at its first question; the label changes after that.
            await db.Foods.CountAsync();
            await host.MustAsync(HttpMethod.Put, $"/api/foods/{Uri.EscapeDataString((string)food["id"]!)}", Label("milk"),
                (int)food["version"]!);

            // As where nobody has asked since.
            host.Services.GetRequiredService<CachedRead<FoodIndex>>().Forget();
            host.Services.GetRequiredService<CachedRead<FoodCatalogue>>().Forget();
            Assert.Empty((await foods.CatalogueAsync()).Find((string)food["id"]!)!.Allergens);
        }

        await using var after = host.Services.CreateAsyncScope();
        var now = await after.ServiceProvider.GetRequiredService<FoodStore>().CatalogueAsync();
        Assert.Equal([Allergen.Milk], now.Find((string)food["id"]!)!.Allergens);
    }

    [Fact]
    public async Task A_laid_food_is_not_changed_into_another_that_is_excluded()
    {
        await OpenAsync();
        await NeverAsync(isa, "milk");
        await host.PostAsync("/api/plan/foods", new { text = "1 apple", eaterId = isa, day = Later }, await host.PlanVersionAsync());
        var item = ItemOf(await DayAsync(isa));
        Assert.Equal((422, "never-for"), await TryAsync(HttpMethod.Put, $"/api/plan/items/{item}/amount", new { text = "50 g butter" }));
        Assert.Equal("1 apple", (string?)(await DayAsync(isa))["items"]![0]!["text"]);
    }

    [Fact]
    public async Task A_meal_out_is_not_changed_into_a_food()
    {
        await OpenAsync();
        await NeverAsync(isa, "milk");
        await host.PostAsync("/api/plan/events",
            new { eaterId = isa, day = Later, name = "Supper", items = new[] { new { name = "fish", figures = new { energy = 600 } } } },
            await host.PlanVersionAsync());
        var item = ItemOf(await DayAsync(isa));
        Assert.Equal((422, "amount-unread"),
            await TryAsync(HttpMethod.Put, $"/api/plan/items/{item}/amount", new { text = "50 g butter" }));
    }

    [Fact]
    public async Task A_portion_whose_recipe_gains_butter_is_marked_and_becomes_no_box()
    {
        await OpenAsync();
        await NeverAsync(isa, "milk");
        var batch = (
            await host.PostAsync("/api/cook/planned", new { day = Today, dishes = new[] { new { recipeId = recipe, portions = 4 } } }))[0]!;
        foreach (var eater in new[] { isa, bo })
            await host.PostAsync("/api/plan/portions", new { batchId = batch["id"], eaterId = eater, day = Later },
                await host.PlanVersionAsync());
        var before = await DayAsync(isa);
        Assert.Null(before["items"]![0]!["never"]);
        await host.MustAsync(HttpMethod.Put, $"/api/recipes/{recipe}",
            new { name = "Oat bake", lines = new[] { "400 g rolled oats", "50 g butter" }, portions = 4 }, 1);

        var day = await DayAsync(isa);
        Assert.Equal("milk", (string?)day["items"]![0]!["never"]!["allergens"]![0]);
        Assert.False((bool)day["fits"]!);
        Assert.Null((await DayAsync(bo))["items"]![0]!["never"]);
        Assert.Equal(["Isa"], (await AskedAsync()).Select(one => (string?)one!["eater"]));
        Assert.Equal((422, "never-for"),
            await TryAsync(HttpMethod.Put, $"/api/plan/items/{ItemOf(day)}/place", new { eaterId = isa, day = "2026-11-28" }));
        Assert.Equal((422, "never-for"),
            await TryAsync(HttpMethod.Post, "/api/plan/portions", new { batchId = batch["id"], eaterId = isa, day = "2026-11-28" }));

        // Cooked and weighed it is refused for Isa by name; once Isa's is taken off, Bo gets theirs.
        var cooked = await host.PostAsync($"/api/cook/planned/{batch["id"]}/cooked", null, (int)batch["version"]!);
        Assert.Equal(["Isa"],
            (await host.GetAsync($"/api/pack/batches/{batch["id"]}"))["neverFor"]!.AsArray().Select(one => (string?)one!["name"]));
        var scale = new { fullGrams = 600, panGrams = 0, boxes = 4 };
        var (status, refusal) = await host.SendAsync(HttpMethod.Post, $"/api/pack/batches/{batch["id"]}/boxes", scale,
            (int)cooked["version"]!);
        Assert.Equal((422, true), (status, ((string)refusal["detail"]!).Contains("Isa must never get this", StringComparison.Ordinal)));
        await host.PostAsync("/api/plan/excluded/off", new { itemIds = new[] { ItemOf(day) } });
        await host.PostAsync($"/api/pack/batches/{batch["id"]}/boxes", scale, (int)cooked["version"]!);
        Assert.Empty((await DayAsync(isa))["items"]!.AsArray());
        Assert.NotNull((await DayAsync(bo))["items"]![0]!["boxId"]);
    }

    [Fact]
    public async Task A_label_that_gains_milk_counts_for_what_is_laid_and_boxed_already()
    {
        var spread = await host.PostAsync("/api/foods", Label("Kitchen spread"));
        await OpenAsync("400 g rolled oats", "100 g kitchen spread");
        await NeverAsync(isa, "milk");
        var batch = await PackAsync();
        await host.PostAsync("/api/plan/boxes", new { boxId = boxes[0], eaterId = isa, day = Later }, await host.PlanVersionAsync());
        await host.PostAsync("/api/plan/foods", new { text = "20 g kitchen spread", eaterId = isa, day = Later },
            await host.PlanVersionAsync());
        await host.MustAsync(HttpMethod.Put, $"/api/foods/{Uri.EscapeDataString((string)spread["id"]!)}", Label("Kitchen spread", "milk"),
            1);

        var day = await DayAsync(isa);
        Assert.All(day["items"]!.AsArray(), item => Assert.Equal("milk", (string?)item!["never"]!["allergens"]![0]));
        Assert.Equal((422, "never-for"),
            await TryAsync(HttpMethod.Post, "/api/plan/boxes", new { boxId = boxes[1], eaterId = isa, day = "2026-11-28" }));
        Assert.Equal((422, "never-for"),
            await TryAsync(HttpMethod.Put, $"/api/plan/items/{ItemOf(day)}/place", new { eaterId = isa, day = "2026-11-28" }));
        Assert.Equal((422, "never-for"),
            await TryAsync(HttpMethod.Post, "/api/plan/copies", new { eaterId = isa, day = Later, to = new[] { "2026-11-28" } }));
        Assert.Equal((200, ""),
            await TryAsync(HttpMethod.Post, "/api/plan/boxes", new { boxId = boxes[1], eaterId = bo, day = "2026-11-28" }));

        // On the shelf, on the labels, in what still fits, and in no mend but the one that takes it off.
        var shelf = (await host.GetAsync($"/api/plan/weeks/{Today}"))["shelf"]![0]!;
        Assert.Equal([isa.ToString()], shelf["neverFor"]!.AsObject().Select(one => one.Key));
        var label = await host.GetAsync($"/api/pack/batches/{batch}");
        Assert.Equal("Isa", (string?)label["neverFor"]![0]!["name"]);
        Assert.Equal("Isa", (string?)label["boxes"]!.AsArray().Single(box => box!["never"] is not null)!["name"]);
        var depth = await host.GetAsync($"/api/plan/days/{isa}/{Later}");
        Assert.All(depth["mends"]!.AsArray(), mend => Assert.Equal("takeOff", (string?)Assert.Single(mend!["steps"]!.AsArray())!["kind"]));
        Assert.All(depth["stillFits"]!.AsArray(), offer => Assert.False((bool)offer!["fits"]!));
        Assert.DoesNotContain(depth["stillFits"]!.AsArray(), offer =>
            offer!["boxId"] is not null || ((string)offer["name"]!).Contains("spread", StringComparison.Ordinal));
    }

    [Fact]
    public async Task An_exclusion_set_while_it_lies_there_is_asked_about_once_and_stays_marked()
    {
        await OpenAsync();
        await PackAsync();
        await host.PostAsync("/api/plan/boxes", new { boxId = boxes[0], eaterId = isa, day = Later }, await host.PlanVersionAsync());
        Assert.Empty(await AskedAsync());
        await NeverAsync(isa, "eggs");
        var asked = Assert.Single(await AskedAsync())!;
        Assert.Equal(("Isa", Later, "Oat bake"), ((string)asked["eater"]!, (string)asked["day"]!, (string)asked["name"]!));

        // Left there, it is not asked about again, until another reason comes.
        Assert.Equal(1, (int)(await host.PostAsync("/api/plan/excluded/leave", new { itemIds = new[] { asked["itemId"] } }))["count"]!);
        Assert.Empty(await AskedAsync());
        Assert.NotNull((await DayAsync(isa))["items"]![0]!["never"]);
        await NeverAsync(isa, "eggs", "gluten");
        Assert.Single(await AskedAsync());

        // Taken off as one step; that can't be undone, since it would lie there again.
        var made = await host.PostAsync("/api/plan/excluded/off", new { itemIds = new[] { asked["itemId"] } });
        Assert.Empty((await DayAsync(isa))["items"]!.AsArray());
        Assert.Equal((422, "never-for"), await TryAsync(HttpMethod.Post, $"/api/plan/changes/{made["id"]}/undo", ""));
        Assert.Equal(4, (await host.GetAsync($"/api/plan/weeks/{Today}"))["shelf"]![0]!["boxIds"]!.AsArray().Count);
    }

    [Fact]
    public async Task A_draft_goes_without_it_locked_or_not()
    {
        await OpenAsync();
        await PackAsync();
        await host.PostAsync("/api/plan/boxes", new { boxId = boxes[0], eaterId = isa, day = Later }, await host.PlanVersionAsync());
        var item = ItemOf(await DayAsync(isa));
        await host.MustAsync(HttpMethod.Put, $"/api/plan/items/{item}/lock", new { isLocked = true }, await host.PlanVersionAsync());
        await NeverAsync(isa, "eggs");
        var fit = await host.PostAsync("/api/plan/fits",
            new { from = Later, to = Later, eaterIds = new[] { isa }, scope = "gaps", seconds = 0.3 });
        while (!(bool)fit["isDone"]! || (int)fit["draft"]! == 0) fit = await host.GetAsync($"/api/plan/fits/{fit["id"]}");
        var day = Assert.Single(fit["days"]!.AsArray())!;
        Assert.Equal(["Oat bake"], day["goes"]!.AsArray().Select(name => (string?)name));
        Assert.DoesNotContain(day["after"]!["items"]!.AsArray(), one => (string?)one!["id"] == item || one["boxId"] is not null);
    }
}
