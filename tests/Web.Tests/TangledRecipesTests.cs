namespace LivelyTern.Web.Tests;

/// <summary>Recipes that name each other, and recipes within recipes without end.</summary>
public sealed class TangledRecipesTests : IDisposable
{
    private static readonly string[] Names =
    [
        "Alba", "Brenn", "Corl", "Dunn", "Eskel", "Farn", "Gorm", "Hulda", "Ivar", "Jorun", "Kell", "Lumm", "Marn", "Nock",
    ];

    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    /// <summary>Once each further one took twice as long to save as the one before: the tenth half a minute.</summary>
    [Fact]
    public async Task Fourteen_recipes_that_all_name_each_other_are_saved_and_listed()
    {
        foreach (var name in Names)
        {
            var lines = Names.Where(other => other != name).Select(other => $"100 g {other} stew").Prepend("100 g rolled oats");
            await host.PostAsync("/api/recipes", new { name = $"{name} stew", lines, portions = 2 });
        }

        Assert.Equal(Names.Length, (await host.GetAsync("/api/recipes")).AsArray().Count);
        await host.GetAsync("/api/plan/weeks/2026-11-25");
        Assert.Equal("ok", (string?)(await host.GetAsync("/health"))["status"]);
    }

    [Fact]
    public async Task Recipes_lie_within_each_other_up_to_forty_deep()
    {
        string? inner = null;
        var last = 0;
        for (var i = 1; i <= 44; i++)
        {
            var lines = inner is null ? ["100 g rolled oats"] : new[] { "10 g rolled oats", "100 g of it" };
            var foods = inner is null ? [""] : new[] { "", $"recipe:{inner}" };
            var (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/recipes", new { name = $"Layer {i}", lines, foods, portions = 2 });
            if (status != 200)
            {
                Assert.Equal((422, "urn:lively-tern:problem:recipe-deep"), (status, (string?)answer["type"]));
                break;
            }

            (inner, last) = ((string)answer["id"]!, i);
        }

        Assert.Equal(40, last);

        // Nor does one in the middle take in another that is deep itself.
        var deep = await host.PostAsync("/api/recipes",
            new { name = "Pie", lines = new[] { "10 g rolled oats" }, portions = 2 });
        var (again, refusal) = await host.SendAsync(HttpMethod.Put, $"/api/recipes/{deep["id"]}",
            new { name = "Pie", lines = new[] { "100 g of it" }, foods = new[] { $"recipe:{inner}" }, portions = 2 }, (int)deep["version"]!);
        Assert.Equal((422, "urn:lively-tern:problem:recipe-deep"), (again, (string?)refusal["type"]));
    }
}
