using System.Collections.Concurrent;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace LivelyTern.Soak;

/// <summary>Somebody who asks a running house over HTTP.</summary>
public class Asker
{
    private const int MostRemembered = 12, LongestRemembered = 400;

    /// <summary>Asks over a client.</summary>
    public Asker(HttpClient http) => Http = http;

    /// <summary>For one that makes its client itself.</summary>
    protected Asker() => Http = null!;

    /// <summary>The client, with the house's address.</summary>
    public HttpClient Http { get; protected init; }

    /// <summary>The last commands and how they were answered, oldest first: what led to what was found.</summary>
    public ConcurrentQueue<string> Lately { get; } = new();

    public async Task<JsonNode> GetAsync(string path) => JsonNode.Parse(await Http.GetStringAsync(path))!;

    /// <summary>One request.</summary>
    /// <param name="method">How.</param>
    /// <param name="path">Where.</param>
    /// <param name="body">JSON as it stands, or something to be written as JSON.</param>
    /// <param name="version">The version in <c>If-Match</c>.</param>
    public async Task<(int Status, JsonNode Body)> SendAsync(HttpMethod method, string path, object? body = null, int? version = null)
    {
        using var request = new HttpRequestMessage(method, path);
        if (body is not null)
            request.Content = body is string raw ? new StringContent(raw, Encoding.UTF8, "application/json") : JsonContent.Create(body);

        // What is refused by its size is refused before it is sent: else the connection may break under the writing.
        if (body is string { Length: > 100_000 }) request.Headers.ExpectContinue = true;
        if (version is not null) request.Headers.TryAddWithoutValidation("If-Match", $"\"{version}\"");
        using var answer = await Http.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        JsonNode? node = null;
        try { node = JsonNode.Parse(text); } catch (JsonException) { }
        if (method != HttpMethod.Get) Remember($"{method} {path} {JsonSerializer.Serialize(body)} {version} -> {(int)answer.StatusCode}");
        return ((int)answer.StatusCode, node ?? JsonValue.Create(text)!);
    }

    private void Remember(string command)
    {
        Lately.Enqueue(command.Length > LongestRemembered ? command[..LongestRemembered] : command);
        while (Lately.Count > MostRemembered) Lately.TryDequeue(out _);
    }

    public async Task<JsonNode> MustAsync(HttpMethod method, string path, object? body = null, int? version = null)
    {
        var (status, answer) = await SendAsync(method, path, body, version);
        return status == 200 ? answer : throw new InvalidOperationException($"{method} {path}: {status} {answer}");
    }

    public Task<JsonNode> PostAsync(string path, object? body, int? version = null) => MustAsync(HttpMethod.Post, path, body, version);

    public async Task<int> PlanVersionAsync() => (int)(await GetAsync("/api/plan/weeks/2026-11-25"))["version"]!;

    /// <summary>An eater, a recipe of oats and eggs, and its batch packed into boxes.</summary>
    public async Task<(Guid Eater, Guid Recipe, List<Guid> Boxes)> LaidTableAsync()
    {
        var eater = await PostAsync("/api/aim/eaters",
            new
            {
                name = "Isa",
                aim = new
                {
                    leading = "energy",
                    bands = new { energy = new { min = 1450, target = 1525, max = 1600 } },
                    rule = (object?)null
                }
            });
        var recipe = await PostAsync("/api/recipes",
            new { name = "Oat bake", lines = new[] { "400 g rolled oats", "4 eggs" }, portions = 4 });
        var batch = await PostAsync("/api/cook/batches", new { recipeId = recipe["id"] });
        var packed = await PostAsync($"/api/pack/batches/{batch["id"]}/boxes", new { fullGrams = 1200, panGrams = 455, boxes = 4 },
            (int)batch["version"]!);
        return ((Guid)eater["id"]!, (Guid)recipe["id"]!, [.. packed["boxes"]!.AsArray().Select(box => (Guid)box!["id"]!)]);
    }
}
