using System.Net.Http.Headers;

namespace LivelyTern.Web.Tests;

/// <summary>Whatever is sent gets a sentence at its field, and never a 500.</summary>
public sealed class BadInputTests(SharedHost shared) : IClassFixture<SharedHost>
{
    private readonly Host host = shared.Host;

    [Theory]
    [InlineData("/api/calc/portions", """{"grams": 745, "portions": 0}""", 422, "portions-none")]
    [InlineData("/api/calc/portions", """{"grams": 745, "portions": -2}""", 422, "portions-none")]
    [InlineData("/api/calc/portions", """{"grams": -745, "portions": 2}""", 422, "weight-negative")]
    [InlineData("/api/calc/portions", """{"grams": 1e20, "portions": 2}""", 422, "weight-absurd")]
    [InlineData("/api/calc/portions", """{"grams": 1e400, "portions": 2}""", 400, "unreadable")]
    [InlineData("/api/calc/portions", """{"grams": "745", "portions": 2}""", 400, "unreadable")]
    [InlineData("/api/calc/portions", """{"portions": 2}""", 422, "weight-or-pieces")]
    [InlineData("/api/calc/portions", """{"grams": 745}""", 400, "unreadable")]
    [InlineData("/api/calc/portions", """{"grams": 745, "portions": 2.5}""", 400, "unreadable")]
    [InlineData("/api/calc/portions", """[]""", 400, "unreadable")]
    [InlineData("/api/calc/portions", """{"gra""", 400, "unreadable")]
    [InlineData("/api/calc/portions", "", 400, "unreadable")]
    [InlineData("/api/calc/portions", "null", 400, "unreadable")]
    [InlineData("/api/calc/recipe", """{"lines": null, "portions": 6}""", 400, "unreadable")]
    [InlineData("/api/calc/schedule", """{"tasks": [{"id": "a", "minutes": 5, "after": ["b"]}, {"id": "b", "minutes": 5, "after": ["a"]}], "capacities": {}}""", 422, "tasks-loop")]
    [InlineData("/api/calc/schedule", """{"tasks": [{"id": "a", "minutes": 5, "after": ["b"]}], "capacities": {}}""", 422, "task-unknown")]
    [InlineData("/api/calc/schedule", """{"tasks": [{"id": "a", "minutes": -5}], "capacities": {}}""", 422, "task-minutes")]
    [InlineData("/api/calc/schedule", """{"tasks": [{"id": "a", "minutes": 5, "uses": {"oven": 2}}], "capacities": {"oven": 1}}""", 422, "capacity-short")]
    [InlineData("/api/calc/schedule", """{"tasks": [{"id": "a", "minutes": 5, "uses": {"oven": 1}}], "capacities": {}}""", 422, "capacity-unknown")]
    [InlineData("/api/calc/schedule", """{"tasks": [{"id": "a", "minutes": 5}, {"id": "a", "minutes": 5}], "capacities": {}}""", 422, "task-twice")]
    [InlineData("/api/calc/schedule", """{"tasks": [null], "capacities": {}}""", 422, "member-missing")]
    [InlineData("/api/calc/schedule", """{"tasks": [{"id": "a", "minutes": 5, "after": [null]}], "capacities": {}}""", 422, "member-missing")]
    [InlineData("/api/calc/schedule", """{"tasks": [], "capacities": {}, "seconds": 1e9}""", 422, "seconds-absurd")]
    [InlineData("/api/calc/shop", """{"lines": ["1 g salt"], "packages": [{"food": "salt", "grams": 0}]}""", 422, "package-grams")]
    [InlineData("/api/calc/shop", """{"lines": ["1 g salt"], "packages": [{"food": "", "grams": 5}]}""", 422, "package-food")]
    [InlineData("/api/calc/shop", """{"lines": ["1 g salt"], "packages": [null]}""", 422, "member-missing")]
    [InlineData("/api/pack/containers", """{"kind": "cup", "name": "Cup", "compartments": [null]}""", 422, "member-missing")]
    [InlineData("/api/calc/parse", """{"lines": [null]}""", 422, "member-missing")]
    [InlineData("/api/calc/shop", """{"pantry": []}""", 400, "unreadable")]
    [InlineData("/api/calc/steps", """{"steps": null}""", 400, "unreadable")]
    [InlineData("/api/calc/steps", """{"steps": ["a"], "said": [{"text": "", "handsOn": -4}]}""", 422, "step-minutes")]
    [InlineData("/api/cook/days/2026-11-28/schedule", """{"seconds": -1}""", 422, "seconds-absurd")]
    [InlineData("/api/calc/recipe", """{"lines": [], "portions": 0}""", 422, "portions-none")]
    [InlineData("/api/calc/first-aim", """{"counts": "macros", "protein": 7e28, "carbohydrate": 7e28, "fat": 7e28}""", 422, "number-absurd")]
    [InlineData("/api/calc/first-aim", """{"counts": "macros", "protein": 7e8, "carbohydrate": 7e8, "fat": 7e8}""", 422, "bound-absurd")]
    [InlineData("/api/calc/first-aim", """{"counts": "points", "points": 20, "kcalPerPoint": 1e-28}""", 422, "number-absurd")]
    [InlineData("/api/calc/first-aim", """{"counts": "points", "points": 20, "kcalPerPoint": 1e-8}""", 422, "rule-absurd")]
    [InlineData("/api/calc/recipe", """{"lines": ["1 g salt"], "portions": 1, "rule": {"name": "x", "perUnit": {"energy": 1e20}, "step": 1, "freeGroups": [], "freeFoods": []}}""", 422, "number-absurd")]
    [InlineData("/api/calc/recipe", """{"lines": ["1 g salt"], "portions": 1, "rule": {"name": "x", "perUnit": {"energy": 1e8}, "step": 1, "freeGroups": [], "freeFoods": []}}""", 422, "rule-absurd")]
    [InlineData("/api/calc/recipe", """{"lines": ["1 g salt"], "portions": 1, "rule": {"name": "x", "perUnit": {"energy": 1}, "step": 1e-20, "freeGroups": ["moon"], "freeFoods": []}}""", 400, "unreadable")]
    [InlineData("/api/calc/day", """{"items": [null], "aim": {"leading": "energy", "bands": {}, "rule": null}}""", 422, "member-missing")]
    [InlineData("/api/calc/day", """{"items": [{}], "aim": {"leading": "energy", "bands": {}, "rule": null}}""", 422, "item-unclear")]
    [InlineData("/api/calc/day", """{"items": [{"figures": {"energy": 1e27}}], "aim": {"leading": "energy", "bands": {}, "rule": null}}""", 422, "number-absurd")]
    [InlineData("/api/calc/day", """{"items": [{"figures": {"energy": 1e8}}], "aim": {"leading": "energy", "bands": {}, "rule": null}}""", 422, "figure-absurd")]
    [InlineData("/api/calc/day", """{"items": [{"line": "1 apple"}], "aim": {"leading": "energy", "bands": {"energy": {"min": 5, "max": 1}}, "rule": null}}""", 422, "bounds-crossed")]
    [InlineData("/api/calc/day", """{"items": [], "aim": null}""", 400, "unreadable")]
    [InlineData("/api/recipes", """{"name": "  ", "lines": [], "portions": 6}""", 422, "name-missing")]
    [InlineData("/api/recipes", """{"name": "x", "lines": [], "portions": 100000}""", 422, "portions-absurd")]
    [InlineData("/api/aim/eaters", """{"name": "", "aim": {"leading": "energy", "bands": {}, "rule": null}}""", 422, "name-missing")]
    [InlineData("/api/aim/eaters", """{"name": "Isa", "aim": {"leading": "energy", "bands": {"energy": {"max": 900}}, "rule": null}}""", 422, "below-energy-floor")]
    [InlineData("/api/aim/eaters", """{"name": "Isa", "aim": {"leading": "mood", "bands": {}, "rule": null}}""", 400, "unreadable")]
    [InlineData("/api/cook/batches", """{"recipeId": "6b1a3b2c-0000-4000-8000-000000000000"}""", 404, "not-found")]
    [InlineData("/api/plan/changes/6b1a3b2c-0000-4000-8000-000000000000/undo", "", 404, "not-found")]
    public async Task A_request_that_cannot_be_met_gets_a_sentence(string path, string body, int status, string type)
    {
        var (got, answer) = await host.SendAsync(HttpMethod.Post, path, body);
        Assert.Equal((status, "urn:lively-tern:problem:" + type), (got, (string?)answer["type"]));
        Assert.EndsWith(".", (string)answer["detail"]!);
    }

    [Theory]
    [InlineData("GET", "/api/nothing", 404)]
    [InlineData("GET", "/api/recipes/not-an-id", 404)]
    [InlineData("GET", "/api/plan/weeks/0001-01-01", 200)]
    [InlineData("GET", "/api/plan/weeks/9999-12-31", 200)]
    [InlineData("GET", "/api/plan/weeks/someday", 400)]
    [InlineData("PATCH", "/api/recipes", 405)]
    [InlineData("DELETE", "/api/plan/items/6b1a3b2c-0000-4000-8000-000000000000", 428)]
    public async Task An_address_that_is_not_there_says_so(string method, string path, int status)
    {
        var (got, answer) = await host.SendAsync(new HttpMethod(method), path);
        Assert.Equal(status, got);
        if (status != 200) Assert.EndsWith(".", (string)answer["detail"]!);
    }

    [Fact]
    public async Task A_body_over_the_limit_and_one_that_is_not_json_are_refused()
    {
        var (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/calc/recipe",
            "{\"lines\": [\"" + new string('x', 1_100_000) + "\"]}");
        Assert.Equal((413, "urn:lively-tern:problem:too-large"), (status, (string?)answer["type"]));

        using var form = new StringContent("lines=1");
        form.Headers.ContentType = new MediaTypeHeaderValue("text/plain");
        using var refused = await host.Http.PostAsync("/api/calc/recipe", form);
        Assert.Equal(415, (int)refused.StatusCode);
    }

    [Fact]
    public async Task Long_odd_and_hostile_lines_are_read_or_named()
    {
        string[] lines =
        [
            new string('9', 290) + " g salt", "1/0 cup oats", "½½ cup oats", "2 x x 400 g tin", "((((", "1 (15 oz can", "-1-2-3 g salt",
                "1 <script>alert(1)</script>",
            "１００ g oats", "\u202e g 001", "1e9 kg salt", "0 g salt", "99999999999999999999999999 eggs", "NaN g salt", "∞ eggs", "2 x",
                "x 2", "1 ,", ", 1 g salt",
            "999999 x 999999 kg rolled oats", "1 1 1/1 cup salt", "'; drop table recipes; --", "🥚🥚", "1 🥚",
        ];
        var read = (await host.PostAsync("/api/calc/recipe", new { lines, portions = 3 }))["lines"]!.AsArray();
        Assert.Equal(lines.Length, read.Count);
        Assert.All(read, line => Assert.True(line!["line"]!["food"] is not null || line["line"]!["problem"] is not null));

        var (status, answer) = await host.SendAsync(HttpMethod.Post, "/api/calc/recipe",
            new { lines = new[] { new string('x', 301) }, portions = 3 });
        Assert.Equal((422, "lines[0]"), (status, (string?)answer["field"]));
        (status, _) = await host.SendAsync(HttpMethod.Post, "/api/calc/recipe",
            new { lines = Enumerable.Repeat("1 g salt", 201), portions = 3 });
        Assert.Equal(422, status);
    }

    [Theory]
    [InlineData(1000, 1630, 4, null, "weight-below-pan", "fullGrams")]
    [InlineData(1630, 1630, 4, null, "weight-nothing", "fullGrams")]
    [InlineData(2000, -1, 4, null, "weight-negative", "panGrams")]
    [InlineData(2000, 0, 0, null, "portions-none", "portions")]
    [InlineData(2000, 0, 4, 3, "pieces-too-few", "pieces")]
    [InlineData(2000, 0, 4, 0, "pieces-absurd", "pieces")]
    public async Task A_weight_that_cannot_be_right_is_named_at_its_field_and_packs_nothing(int full, int pan, int boxes, int? pieces,
        string code, string field)
    {
        var recipe = await host.PostAsync("/api/recipes", new { name = "Oat bake", lines = new[] { "400 g rolled oats" }, portions = 4 });
        var batch = await host.PostAsync("/api/cook/batches", new { recipeId = recipe["id"] });
        foreach (var path in new[] { "preview", "boxes" })
        {
            var (status, answer) = await host.SendAsync(HttpMethod.Post, $"/api/pack/batches/{batch["id"]}/{path}",
                new { fullGrams = full, panGrams = pan, boxes, pieces }, 1);
            Assert.Equal((422, field), (status, (string?)answer["field"]));
            Assert.EndsWith(code, (string)answer["type"]!);
        }

        Assert.Empty((await host.GetAsync($"/api/pack/batches/{batch["id"]}"))["boxes"]!.AsArray());
    }
}
