using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>Who may ask: only under the house's own names, and writes only from its own pages or from a script.</summary>
public sealed class OwnDoorTests : IClassFixture<OwnDoorTests.House>
{
    public sealed class House : IDisposable
    {
        public Host Open { get; } = new(hosts: "kitchen.lan, tern.lan");

        public void Dispose() => Open.Dispose();
    }

    private readonly Host host;

    public OwnDoorTests(House house) => host = house.Open;

    private async Task<(int Status, string? Type)> AskAsync(HttpMethod method, string path, HttpContent? body,
        params (string Name, string Value)[] headers)
    {
        using var request = new HttpRequestMessage(method, path) { Content = body };
        foreach (var (name, value) in headers)
        {
            if (name == "Host") request.Headers.Host = value;
            else request.Headers.TryAddWithoutValidation(name, value);
        }

        using var answer = await host.Http.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        return ((int)answer.StatusCode, answer.IsSuccessStatusCode || text.Length == 0 ? null : (string?)JsonNode.Parse(text)!["type"]);
    }

    [Theory]
    [InlineData("elsewhere.example", false)]
    [InlineData("127.0.0.1.elsewhere.example", false)]
    [InlineData("localhost.elsewhere.example:80", false)]
    [InlineData("10.0.0.7", false)]
    [InlineData("localhost", true)]
    [InlineData("LOCALHOST:9", true)]
    [InlineData("127.0.0.1", true)]
    [InlineData("127.9.9.9:5080", true)]
    [InlineData("[::1]:5080", true)]
    [InlineData("kitchen.lan", true)]
    [InlineData("tern.lan:443", true)]
    public async Task Only_the_houses_own_names_are_answered(string name, bool isOwn)
    {
        foreach (var path in new[] { "/api/aim/eaters", "/", "/openapi/v1.json", "/health" })
        {
            var (status, type) = await AskAsync(HttpMethod.Get, path, null, ("Host", name));
            if (isOwn) Assert.NotEqual(421, status);
            else Assert.Equal((421, "urn:lively-tern:problem:wrong-host"), (status, type));
        }
    }

    [Theory]
    [InlineData("http://elsewhere.example", null, false)]
    [InlineData("null", null, false)]
    [InlineData("http://127.0.0.1:1", null, false)] // another program of this very machine
    [InlineData(null, "cross-site", false)]
    [InlineData(null, "same-site", false)]
    [InlineData("own", "same-origin", true)]
    [InlineData("own", null, true)]
    [InlineData(null, null, true)] // a script
    public async Task A_write_from_another_origin_is_refused_bodiless_or_not(string? origin, string? site, bool isTaken)
    {
        var own = host.Http.BaseAddress!.GetLeftPart(UriPartial.Authority);
        List<(string, string)> headers = [];
        if (origin is not null) headers.Add(("Origin", origin == "own" ? own : origin));
        if (site is not null) headers.Add(("Sec-Fetch-Site", site));
        var before = (await host.GetAsync("/api/foods/barcodes")).ToJsonString();
        foreach (var (method, path, body) in new (HttpMethod, string, HttpContent?)[]
        {
            (HttpMethod.Post, "/api/calc/portions", JsonContent.Create(new { grams = 745, portions = 6 })),
            (HttpMethod.Post, $"/api/plan/changes/{Guid.Empty}/undo", null),
            (HttpMethod.Delete, $"/api/aim/eaters/{Guid.Empty}", null),
            (HttpMethod.Put, "/api/nowhere", null),
        })
        {
            var (status, type) = await AskAsync(method, path, body, [.. headers]);
            if (isTaken) Assert.NotEqual(403, status);
            else Assert.Equal((403, "urn:lively-tern:problem:other-origin"), (status, type));
        }

        Assert.Equal(before, (await host.GetAsync("/api/foods/barcodes")).ToJsonString());
        Assert.Equal(200, (await AskAsync(HttpMethod.Get, "/api/aim/eaters", null, [.. headers])).Status);
    }

    [Theory]
    [InlineData("/api/recipes/read")]
    [InlineData("/api/imports?name=a.csv")]
    [InlineData("/api/recipes")]
    public async Task What_is_sent_without_its_kind_is_refused(string path)
    {
        foreach (var type in new[] { null, "text/plain", "application/x-www-form-urlencoded", "multipart/form-data; boundary=x" })
        {
            var body = new ByteArrayContent("~~~~"u8.ToArray());
            if (type is not null) body.Headers.TryAddWithoutValidation("Content-Type", type);
            Assert.Equal(415, (await AskAsync(HttpMethod.Post, path, body)).Status);
        }
    }

    /// <summary>The policy is on whatever is answered: https://www.w3.org/TR/CSP3/, errors and refusals too.</summary>
    [Theory]
    [InlineData("GET", "/", null, 200)]
    [InlineData("GET", "/docs/", null, 200)]
    [InlineData("GET", "/api/aim/eaters", null, 200)]
    [InlineData("GET", "/api/nowhere", null, 404)]
    [InlineData("GET", "/api/plan/weeks/someday", null, 400)]
    [InlineData("GET", "/assets/nowhere.js", null, 404)]
    [InlineData("POST", "/api/calc/portions", "{broken", 400)]
    [InlineData("POST", "/api/calc/portions", "{\"portions\": 2}", 422)]
    [InlineData("PATCH", "/api/recipes", null, 405)]
    public async Task Every_answer_carries_the_policy(string method, string path, string? body, int status)
    {
        using var request = new HttpRequestMessage(new HttpMethod(method), path)
        {
            Content = body is null ? null : new StringContent(body, System.Text.Encoding.UTF8, "application/json"),
        };
        using var answer = await host.Http.SendAsync(request);
        Assert.Equal(status, (int)answer.StatusCode);
        var policy = Assert.Single(answer.Headers.GetValues("Content-Security-Policy"));
        foreach (var part in new[] { "default-src 'self'", "base-uri 'none'", "form-action 'self'", "frame-ancestors 'none'" })
            Assert.Contains(part, policy, StringComparison.Ordinal);
        Assert.Equal("nosniff", Assert.Single(answer.Headers.GetValues("X-Content-Type-Options")));
    }

    /// <summary>A row that once ended the process, by each door it came in.</summary>
    [Fact]
    public async Task A_long_row_of_the_same_ends_nothing()
    {
        var row = string.Concat(Enumerable.Repeat("~ about ", 30_000));
        var aim = new { leading = "energy", bands = new { energy = new { max = 2000 } }, rule = (object?)null };
        var day = await host.SendAsync(HttpMethod.Post, "/api/calc/day", new { items = new[] { new { line = row } }, aim });
        Assert.True(day.Status is 200 or 422);
        var scale = await host.SendAsync(HttpMethod.Post, "/api/calc/scale",
            new { recipe = new { lines = new[] { "400 g rolled oats" }, portions = 4 }, by = new { line = 0, atHand = row } });
        Assert.Equal(422, scale.Status);
        using var file = new StringContent($$"""{"@context": "https://schema.org", "@type": "Recipe", "name": "Row", "recipeYield": "{{row}}", "recipeIngredient": ["1 egg"]}""");
        file.Headers.ContentType = new("application/octet-stream");
        Assert.Equal(200, (await AskAsync(HttpMethod.Post, "/api/recipes/read", file)).Status);
        Assert.Equal("ok", (string?)(await host.GetAsync("/health"))["status"]);
    }
}
