using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Web.Tests;

/// <summary>The real host on a real port of loopback, with a real SQLite file of its own.</summary>
public sealed class Host : IDisposable
{
    // An empty house and the demo as the program makes them, once; each host has a copy of its own.
    private static readonly Lazy<string> Empty = new(() => MadeOnce(demo: false)), Demo = new(() => MadeOnce(demo: true));

    private readonly WebApplicationFactory<Program> factory;

    public Host(string? data = null, bool demo = false, string today = "2026-11-25", string hosts = "", bool playClock = false)
    {
        Data = data ?? CopyOf(demo ? Demo.Value : Empty.Value);
        using var free = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        free.Start();
        var port = ((System.Net.IPEndPoint)free.LocalEndpoint).Port;
        free.Stop();
        factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host => host
            .UseSetting("data", Data).UseSetting("demo", demo ? "true" : "false").UseSetting("today", today)
            .UseSetting("play-clock", playClock ? "still" : "false").UseSetting("hosts", hosts)
            .UseSetting("port", port.ToString(System.Globalization.CultureInfo.InvariantCulture)));
        factory.UseKestrel();
        factory.StartServer();
        Http = new HttpClient { BaseAddress = new Uri($"http://127.0.0.1:{port}") };
        for (var tries = 0; tries < 400 && !IsUp(); tries++) Thread.Sleep(25);
    }

    private static string MadeOnce(bool demo)
    {
        var folder = Directory.CreateTempSubdirectory("tern-").FullName;
        var (first, whole) = (Path.Combine(folder, "first.db"), Path.Combine(folder, "tern.db"));
        using var host = new Host(first, demo);
        using var connection = new SqliteConnection($"Data Source={first}");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = "VACUUM INTO $whole";
        command.Parameters.AddWithValue("$whole", whole);
        command.ExecuteNonQuery();
        return whole;
    }

    private static string CopyOf(string file)
    {
        var copy = Path.Combine(Directory.CreateTempSubdirectory("tern-").FullName, "tern.db");
        File.Copy(file, copy);
        return copy;
    }

    public string Data { get; }

    public HttpClient Http { get; }

    public IServiceProvider Services => factory.Services;

    public async Task<JsonNode> GetAsync(string path) => JsonNode.Parse(await Http.GetStringAsync(path))!;

    public async Task<(int Status, JsonNode Body)> SendAsync(HttpMethod method, string path, object? body = null, int? version = null)
    {
        using var request = new HttpRequestMessage(method, path);
        if (body is not null) request.Content = body is string raw
            ? new StringContent(raw, System.Text.Encoding.UTF8, "application/json") : JsonContent.Create(body);
        // What is refused by its size is refused before it is sent: else the connection may break under the writing.
        if (body is string { Length: > 100_000 }) request.Headers.ExpectContinue = true;
        if (version is not null) request.Headers.TryAddWithoutValidation("If-Match", $"\"{version}\"");
        using var answer = await Http.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        JsonNode? node = null;
        try { node = JsonNode.Parse(text); } catch (JsonException) { }
        return ((int)answer.StatusCode, node ?? JsonValue.Create(text)!);
    }

    public async Task<JsonNode> MustAsync(HttpMethod method, string path, object? body = null, int? version = null)
    {
        var (status, answer) = await SendAsync(method, path, body, version);
        Assert.True(status == 200, $"{method} {path}: {status} {answer}");
        return answer;
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

    private bool IsUp()
    {
        try
        {
            using var health = Http.GetAsync("/health").GetAwaiter().GetResult();
            return health.IsSuccessStatusCode;
        }
        catch (HttpRequestException)
        {
            return false;
        }
    }

    public void Dispose()
    {
        Http.Dispose();
        factory.Dispose();
    }
}
