using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>Portions by eye through the real host: tried, and what a box that nobody weighed does to its day.</summary>
public sealed class EyeApiTests : IDisposable
{
    private const string Today = "2026-11-25";
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private async Task<string> EaterAsync(string name) => (string)(await host.PostAsync("/api/aim/eaters", new
    {
        name,
        aim = new { leading = "energy", bands = new { energy = new { max = 2000 } }, rule = (object?)null },
    }))["id"]!;

    private Task<JsonNode> TryAsync(string cook, string text, decimal real) =>
        host.PostAsync("/api/pack/eye", new { text, realGrams = real, cookId = cook });

    [Fact]
    public async Task An_eye_is_known_after_a_few_tries_its_own_and_no_one_elses()
    {
        var (ada, bo) = (await EaterAsync("Ada"), await EaterAsync("Bo"));
        await TryAsync(ada, "100 g walnuts", 120);
        await TryAsync(ada, "100 g walnuts", 100);
        Assert.Empty((await host.GetAsync($"/api/pack/eye?cookId={ada}"))["kinds"]!.AsArray());
        var third = await TryAsync(ada, "50 g almonds", 55);
        var known = await host.GetAsync($"/api/pack/eye?cookId={ada}");
        var nuts = known["kinds"]!.AsArray().Single()!;
        Assert.Equal(("nutsAndSeeds", 3, true), ((string)nuts["group"]!, (int)nuts["tries"]!, (bool)nuts["pays"]!));
        Assert.Equal(0.1m, (decimal)nuts["bias"]!);
        Assert.Equal(3, known["tries"]!.AsArray().Count);
        Assert.Empty((await host.GetAsync($"/api/pack/eye?cookId={bo}"))["tries"]!.AsArray());
        await host.MustAsync(HttpMethod.Delete, $"/api/pack/eye/{third["id"]}", null);
        Assert.Empty((await host.GetAsync($"/api/pack/eye?cookId={ada}"))["kinds"]!.AsArray());
        foreach (var (body, code) in new (object, string)[]
        {
            (new { text = "100 g walnuts", realGrams = 0 }, "eye-real"), (new { realGrams = 100 }, "eye-unclear"),
            (new { text = "100 g walnuts", realGrams = 1, cookId = Guid.NewGuid() }, "not-found"),
            (new { batchId = Guid.NewGuid(), guessGrams = 100, realGrams = 1 }, "not-found"),
        })
        {
            var (status, refused) = await host.SendAsync(HttpMethod.Post, "/api/pack/eye", body);
            Assert.InRange(status, 400, 499);
            Assert.Equal(code, (string)refused["errors"]![0]!["code"]!);
        }
    }

    // Untried, a box by eye is a fifth off; what it was when it was packed it stays, whatever the eye learns.
    [Fact]
    public async Task A_box_by_eye_says_how_far_off_its_day_may_be_and_a_weighed_one_does_not()
    {
        var ada = await EaterAsync("Ada");
        var lines = new[] { "500 g red lentils, dry", "1 l water" };
        var recipe = (await host.PostAsync("/api/recipes", new { name = "Dal", lines, portions = 4 }))["id"];
        var batch = await host.PostAsync("/api/cook/batches", new { recipeId = recipe });
        var at = $"/api/pack/batches/{batch["id"]}";
        var order = new { fullGrams = 2000, boxes = 4, isByEye = true, cookId = ada };
        var asked = await host.PostAsync($"{at}/preview", order);
        var (kcal, off) = ((decimal)asked["boxes"]![0]!["figures"]!["energy"]!["value"]!, (decimal)asked["boxes"]![0]!["giveOrTake"]!);
        Assert.Equal(kcal / 5, off, 6);
        var (status, refused) = await host.SendAsync(
            HttpMethod.Post, $"{at}/boxes", new { fullGrams = 2000, boxes = 4, isByEye = true, pieces = 8 }, (int)batch["version"]!);
        Assert.Equal((422, "eye-weighed"), (status, (string)refused["errors"]![0]!["code"]!));
        var packed = await host.PostAsync($"{at}/boxes", order, (int)batch["version"]!);
        foreach (var box in packed["boxes"]!.AsArray().Take(2))
            await host.PostAsync("/api/plan/boxes", new { boxId = box!["id"], eaterId = ada, day = Today }, await host.PlanVersionAsync());
        for (var i = 0; i < 3; i++)
            await host.PostAsync("/api/pack/eye", new { batchId = batch["id"], guessGrams = 100, realGrams = 100, cookId = ada });
        var day = (await host.GetAsync($"/api/eat/{ada}/{Today}"))["day"]!;
        Assert.Equal([off, off], day["items"]!.AsArray().Select(item => Math.Round((decimal)item!["giveOrTake"]!, 6)));
        Assert.Equal((double)off * Math.Sqrt(2), (double)(decimal)day["giveOrTake"]!, 4);
        Assert.Equal(1000, (decimal)day["grams"]!);

        // The dish's eye is known now, and never off: the next box by eye is as sure as a weighed one.
        var next = await host.PostAsync("/api/cook/batches", new { recipeId = recipe });
        var sure = await host.PostAsync($"/api/pack/batches/{next["id"]}/preview", order);
        Assert.Equal(0, (decimal)sure["boxes"]![0]!["giveOrTake"]!);
        var weighed = await host.PostAsync($"/api/pack/batches/{next["id"]}/preview", new { fullGrams = 2000, boxes = 4 });
        Assert.Null(weighed["boxes"]![0]!["giveOrTake"]);
    }
}
