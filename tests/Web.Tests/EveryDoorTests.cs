using System.Text;
using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>
/// Every door of the house, as its own document lists them: whatever is pushed through one, it answers with a sentence and stays open.
/// </summary>
public sealed class EveryDoorTests
{
    private static readonly string[] Garbage =
    [
        "", "null", "[]", "{}", "\"text\"", "12", "{\"lines\": null}", "{\"lines\": [null, 3], \"portions\": \"six\"}",
            "{\"name\": {\"a\": 1}}", "{\"recipe\": {\"lines\": [\"1 egg\"], \"portions\": -1}}",
        "{\"label\": {\"basis\": \"perMoon\"}}", "{\"by\": {}}", "{\"portions\": 1e400}", "{broken", "\u0000", new string('[', 200),
    ];

    private static readonly string[] Segments = ["00000000-0000-0000-0000-000000000000", "no-such", "%00", "..%2F..%2Fetc",
        "'; DROP TABLE Foods; --", "2026-13-45", "9999999999999999999999"];

    private static string Fill(string path, string segment)
    {
        while (path.IndexOf('{') is >= 0 and var open) path =
            path[..open] + Uri.EscapeDataString(segment) + path[(path.IndexOf('}', open) + 1)..];
        return path;
    }

    [Fact]
    public async Task Whatever_is_sent_is_answered_with_a_sentence_and_nothing_falls_over()
    {
        using var host = new Host();
        var recipe = await host.PostAsync("/api/recipes",
            new { name = "Bake", lines = new[] { "400 g rolled oats", "4 eggs" }, portions = 4 });
        var document = await host.GetAsync("/openapi/v1.json");
        var doors = document["paths"]!.AsObject().SelectMany(path =>
            path.Value!.AsObject().Select(method => (path.Key, Method: new HttpMethod(method.Key.ToUpperInvariant())))).ToList();
        Assert.True(doors.Count >= 50, $"only {doors.Count} doors are listed");
        var tried = 0;
        foreach (var (path, method) in doors)
        {
            foreach (var segment in path.Contains('{') ? Segments : [""])
            {
                foreach (var body in method == HttpMethod.Get || method == HttpMethod.Delete ? [null] : path.Contains('{')
                    && segment != Segments[0] ? Garbage[..3] : (string?[])Garbage)
                {
                    // These take a file, not JSON; what is no file of theirs they say in their own tests.
                    var type = path is "/api/imports" or "/api/recipes/read" ? "application/octet-stream" : "application/json";
                    using var request = new HttpRequestMessage(method,
                        Fill(path, segment))
                    { Content = body is null ? null : new StringContent(body, Encoding.UTF8, type) };
                    request.Headers.TryAddWithoutValidation("If-Match", "\"1\"");
                    using var answer = await host.Http.SendAsync(request);
                    tried++;
                    var text = await answer.Content.ReadAsStringAsync();
                    Assert.True(
                        (int)answer.StatusCode < 500, $"{method} {Fill(path, segment)} with {body}: {(int)answer.StatusCode} {text}");
                    if ((int)answer.StatusCode < 400) continue;
                    Assert.Equal("application/problem+json", answer.Content.Headers.ContentType?.MediaType);
                    var problem = JsonNode.Parse(text)!;
                    Assert.StartsWith("urn:lively-tern:problem:", (string)problem["type"]!);
                    Assert.False(string.IsNullOrWhiteSpace((string?)problem["detail"]), $"{method} {path}: no sentence");
                }
            }
        }

        Assert.True(tried > 500);
        Assert.Equal(recipe["lines"]!.ToJsonString(), (await host.GetAsync($"/api/recipes/{recipe["id"]}"))["lines"]!.ToJsonString());
        Assert.True((await host.GetAsync("/api/foods")).AsArray().Count >= 400);
    }

    [Fact]
    public async Task Of_many_hands_on_one_recipe_each_version_is_won_once()
    {
        using var host = new Host();
        var recipe = await host.PostAsync("/api/recipes", new { name = "Shared", lines = new[] { "1 egg" }, portions = 1 });
        for (var version = 1; version <= 5; version++)
        {
            var answers = await Task.WhenAll(Enumerable.Range(0, 8).Select(hand =>
                host.SendAsync(HttpMethod.Put, $"/api/recipes/{recipe["id"]}",
                new { name = $"Shared by {hand}", lines = new[] { $"{hand + 1} eggs" }, portions = 1 }, version)));
            Assert.Single(answers, answer => answer.Status == 200);
            Assert.All(answers.Where(answer => answer.Status != 200), answer =>
                Assert.Equal((412, version + 1), (answer.Status, (int)answer.Body["current"]!["version"]!)));
            var now = await host.GetAsync($"/api/recipes/{recipe["id"]}");
            Assert.Equal(answers.Single(answer => answer.Status == 200).Body["name"]!.ToString(), now["name"]!.ToString());
        }

        var versions = (await host.GetAsync($"/api/recipes/{recipe["id"]}/versions")).AsArray();
        Assert.Equal(versions.Count, versions.Select(version => (int)version!["version"]!).Distinct().Count());
    }

    [Fact]
    public async Task Of_many_hands_on_one_food_each_version_is_won_once()
    {
        using var host = new Host();
        object Body(string name) =>
            new
            {
                name,
                group = "grains",
                label = new { basis = "per100g", servingGrams = (decimal?)null, convention = "total", kilocalories = 100 }
            };
        var food = await host.PostAsync("/api/foods", Body("Granola"));
        var answers = await Task.WhenAll(Enumerable.Range(0, 8).Select(hand =>
            host.SendAsync(HttpMethod.Put, $"/api/foods/{Uri.EscapeDataString((string)food["id"]!)}", Body($"Granola {hand}"), 1)));
        Assert.Single(answers, answer => answer.Status == 200);
        Assert.All(answers.Where(answer => answer.Status != 200), answer => Assert.Equal(412, answer.Status));
    }
}
