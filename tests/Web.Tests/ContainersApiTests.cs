using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>The household's pans, boxes, cups and bags through the real host, and the boxes that are packed in them.</summary>
public sealed class ContainersApiTests : IDisposable
{
    private const string At = "/api/pack/containers";
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private static object Glass(decimal ml, string name = "Glass") =>
        new { kind = "box", name, emptyGrams = 390, compartments = new[] { new { volumeMl = ml } }, count = 6 };

    private async Task<string> RefusedAsync(HttpMethod method, string path, object? body, int? version = null)
    {
        var (status, refused) = await host.SendAsync(method, path, body, version);
        Assert.InRange(status, 400, 499);
        return (string)refused["errors"]![0]!["code"]!;
    }

    /// <summary>A stew of 2,000 g that fills 2,000 ml, or of twelve pieces, in its pan.</summary>
    private async Task<JsonNode> StewAsync(int? pieces = null)
    {
        var lines = new[] { "500 g red lentils, dry", "1.5 l water" };
        var stew = new { name = pieces is null ? "Stew" : "Cakes", lines, portions = 4, cookedGrams = 2000, fills = "2000 ml", pieces };
        return await host.PostAsync("/api/cook/batches", new { recipeId = (await host.PostAsync("/api/recipes", stew))["id"] });
    }

    [Fact]
    public async Task A_container_is_written_down_once_changed_on_what_was_seen_and_comes_back()
    {
        var glass = await host.PostAsync(At, Glass(520));
        Assert.Equal("container-name", await RefusedAsync(HttpMethod.Post, At, Glass(300, " glass ")));
        Assert.Equal("container-volume", await RefusedAsync(HttpMethod.Post, At, Glass(0, "Other")));
        Assert.Equal("container-rows", await RefusedAsync(HttpMethod.Post, At, new { kind = "bag", name = "Bag", down = 4 }));
        var one = $"{At}/{glass["id"]}";
        var changed = await host.MustAsync(HttpMethod.Put, one, Glass(500), 1);
        Assert.Equal((2, 500m), ((int)changed["version"]!, (decimal)changed["compartments"]![0]!["volumeMl"]!));
        Assert.Equal("stale", await RefusedAsync(HttpMethod.Put, one, Glass(480), 1));
        await host.MustAsync(HttpMethod.Delete, one, null, 2);
        Assert.Empty((await host.GetAsync(At)).AsArray());
        Assert.Equal("not-found", await RefusedAsync(HttpMethod.Put, one, Glass(480), 3));

        // While it was away another took its name: it comes back when that is free again.
        var other = await host.PostAsync(At, Glass(700));
        Assert.Equal("container-name", await RefusedAsync(HttpMethod.Post, $"{one}/restore", null, 3));
        await host.MustAsync(HttpMethod.Delete, $"{At}/{other["id"]}", null, 1);
        await host.PostAsync($"{one}/restore", null, 3);
        Assert.Equal(500m, (decimal)(await host.GetAsync(At))[0]!["compartments"]![0]!["volumeMl"]!);
    }

    [Fact]
    public async Task The_bench_says_what_fits_and_the_shelves_how_many_are_in_use()
    {
        var glass = await host.PostAsync(At, Glass(520));
        var stew = await StewAsync();
        var at = $"/api/pack/batches/{stew["id"]}";
        async Task<string[]> SaysAsync(object order) =>
            [.. (await host.PostAsync($"{at}/preview", order))["boxes"]!.AsArray().Select(box => (string)box!["fills"]![0]!["says"]!)];
        object Each(params (decimal Grams, string Place)[] boxes) => new
        {
            fullGrams = 2000,
            boxes = boxes.Length,
            containerId = glass["id"],
            each = boxes.Select(box => new { grams = box.Grams, place = box.Place }),
        };
        Assert.Equal(["fits", "fits", "tooFullToFreeze", "tooMuch"],
            await SaysAsync(Each((500, "fridge"), (470, "freezer"), (480, "freezer"), (521, "fridge"))));
        var nobodys = new { fullGrams = 2000, boxes = 4, containerId = Guid.NewGuid() };
        Assert.Equal("not-found", await RefusedAsync(HttpMethod.Post, $"{at}/preview", nobodys));
        Assert.Equal("not-found", await RefusedAsync(HttpMethod.Post, $"{at}/boxes", nobodys, (int)stew["version"]!));

        var packed = await host.PostAsync($"{at}/boxes", Each((500, "fridge"), (470, "freezer")), (int)stew["version"]!);
        Assert.All(packed["boxes"]!.AsArray(), box => Assert.Equal("Glass", (string?)box!["container"]));
        Assert.Equal(2, (int)(await host.GetAsync(At))[0]!["inUse"]!);
        await host.PostAsync(
            $"/api/plan/boxes/{packed["boxes"]![0]!["id"]}/thrown-away", null, await host.PlanVersionAsync());
        Assert.Equal(1, (int)(await host.GetAsync(At))[0]!["inUse"]!);

        // Put away, it is still what that box lies in.
        await host.MustAsync(HttpMethod.Delete, $"{At}/{glass["id"]}", null, 1);
        Assert.Equal("Glass", (string?)(await host.GetAsync(at))["boxes"]![1]!["container"]);
    }

    [Fact]
    public async Task A_bag_of_two_by_two_holds_four_pieces()
    {
        var bag = await host.PostAsync(At, new { kind = "bag", name = "Bag", down = 2, across = 2 });
        var cakes = await StewAsync(pieces: 12);
        var order = new
        {
            fullGrams = 1200,
            boxes = 2,
            pieces = 9,
            containerId = bag["id"],
            each = new[] { new { pieces = 5 }, new { pieces = 4 } },
        };
        var boxes = (await host.PostAsync($"/api/pack/batches/{cakes["id"]}/preview", order))["boxes"]!.AsArray();
        Assert.Equal([(5m, "tooMuch"), (4m, "fits")], boxes.Select(box =>
            ((decimal)box!["pieces"]!, (string)box["fills"]![0]!["says"]!)));
    }
}
