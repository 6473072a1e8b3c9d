using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>Dishes cooked on their own day, through the real host: prepared on the prep day, kept as done, on the shelf.</summary>
public sealed class AheadOfDayTests : IDisposable
{
    private const string Today = "2026-11-25", Friday = "2026-11-27", Saturday = "2026-11-28";
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private async Task<JsonNode> PlanAsync(string name, string day, string[] lines, params string[] steps)
    {
        var recipe = await host.PostAsync("/api/recipes", new { name, portions = 4, lines, steps = steps.Select(text => new { text }) });
        var dishes = new[] { new { recipeId = recipe["id"], portions = 4 } };
        return (await host.PostAsync("/api/cook/planned", new { day, dishes }))[0]!;
    }

    private Task<JsonNode> LayAsync(string day, params string[] ahead)
    {
        var wishes = new { cooks = new[] { new { name = "", from = "10:00:00" } }, ahead };
        return host.PostAsync($"/api/cook/days/{day}/schedule", new { seconds = 0, wishes });
    }

    private static IEnumerable<string> Kinds(JsonNode laid) => laid["tasks"]!.AsArray().Select(task => (string)task!["task"]!["kind"]!);

    [Fact]
    public async Task A_dinner_is_prepared_on_the_prep_day_kept_as_done_and_only_the_rest_is_left_for_its_evening()
    {
        await PlanAsync("Soup", Today, ["2 onions", "1 l water"], "Chop the onions.", "Simmer 20 minutes.");
        var stew = await PlanAsync("Stew", Friday, ["3 onions", "400 g pearl barley"], "Chop the onions.", "Simmer 40 minutes.");
        var id = (string)stew["id"]!;
        var day = await host.GetAsync($"/api/cook/days/{Today}");
        var ahead = day["ahead"]!.AsArray().Single()!;
        Assert.Equal((id, Friday), ((string)ahead["batch"]!["id"]!, (string)ahead["day"]!));
        Assert.Equal([("chop", 330m)], ahead["work"]!.AsArray().Select(work => ((string)work!["verb"]!, (decimal)work["grams"]!)));

        // Chopped in one go with the soup's, and put away.
        var laid = await LayAsync(Today, id);
        var chop = laid["tasks"]!.AsArray().Single(task => (string)task!["task"]!["kind"]! == "prepare")!;
        Assert.Equal([220m, 330m], chop["task"]!["amounts"]!.AsArray().Select(amount => (decimal)amount!["grams"]!).Order());
        Assert.Contains("putAway", Kinds(laid));
        Assert.DoesNotContain("putAway", Kinds(await LayAsync(Today)));

        var done = await host.PostAsync("/api/cook/ahead", new { batchId = id, day = Today });
        var waiting = (await host.GetAsync("/api/cook/ahead")).AsArray().Single()!;
        Assert.Equal(("fridge", Today), ((string)waiting["place"]!, (string)waiting["doneOn"]!));
        Assert.Equal("Stew", (string)waiting["batch"]!["name"]!);
        Assert.Empty((await host.GetAsync($"/api/cook/days/{Today}"))["ahead"]!.AsArray());
        Assert.DoesNotContain("prepare", Kinds(await LayAsync(Friday)));
        await host.MustAsync(HttpMethod.Put, $"/api/cook/ahead/{waiting["id"]}", new { place = "freezer" });
        Assert.Equal("freezer", (string)(await host.GetAsync("/api/cook/ahead"))[0]!["place"]!);

        // Said by mistake: it is to be done again.
        await host.PostAsync("/api/cook/ahead/undo", new { ids = done["ids"] });
        Assert.Contains("prepare", Kinds(await LayAsync(Friday)));

        // Cooked, it waits for nothing any more.
        await host.PostAsync("/api/cook/ahead", new { batchId = id, day = Today });
        await host.PostAsync($"/api/cook/planned/{id}/cooked", null, (int)stew["version"]!);
        Assert.Empty((await host.GetAsync("/api/cook/ahead")).AsArray());
    }

    [Fact]
    public async Task What_was_not_or_can_not_be_done_is_refused()
    {
        var stew = await PlanAsync("Stew", Saturday, ["3 onions"], "Chop the onions.", "Simmer 40 minutes.");
        async Task<string> RefusedAsync(string path, object body)
        {
            var (status, answer) = await host.SendAsync(HttpMethod.Post, path, body);
            Assert.InRange(status, 400, 499);
            return (string)answer["errors"]![0]!["code"]!;
        }

        Assert.Equal("ahead-early", await RefusedAsync("/api/cook/ahead", new { batchId = stew["id"], day = Friday }));
        Assert.Equal("ahead-nothing", await RefusedAsync("/api/cook/ahead", new { batchId = Guid.NewGuid(), day = Today }));
        await host.PostAsync("/api/cook/ahead", new { batchId = stew["id"], day = Today });
        Assert.Equal("ahead-nothing", await RefusedAsync("/api/cook/ahead", new { batchId = stew["id"], day = Today }));
        var (gone, _) = await host.SendAsync(HttpMethod.Post, "/api/cook/ahead/undo", new { ids = new[] { Guid.NewGuid() } });
        Assert.Equal(404, gone);
        var odd = new { name = "Odd", portions = 1, lines = new[] { "1 onion" }, steps = new[] { new { text = "Chop.", daysAhead = 8 } } };
        Assert.Equal("step-ahead", await RefusedAsync("/api/recipes", odd));
    }
}
