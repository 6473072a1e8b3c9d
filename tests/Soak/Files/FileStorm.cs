using System.Diagnostics;
using System.Net.Http.Headers;
using System.Text.Json.Nodes;

namespace LivelyTern.Soak.Files;

/// <summary>
/// Files by chance through the doors that take some: recipes, tables of foods and backups. Each is answered below 500, each import comes to
/// an end, what is taken in can be taken out again, every screen goes on answering, and nothing is left behind.
/// </summary>
/// <param name="house">The house.</param>
/// <param name="chance">Where chance comes from.</param>
/// <param name="today">The house's day.</param>
/// <param name="patience">How long one file may take; null where time is not asked about.</param>
public sealed class FileStorm(Asker house, Random chance, DateOnly today, TimeSpan? patience)
{
    private const int BetweenScreens = 50;
    private readonly HostileFiles files = new(chance);

    public int Sent { get; private set; }

    public int Ready { get; private set; }

    public int Failed { get; private set; }

    public int Taken { get; private set; }

    public TimeSpan Slowest { get; private set; }

    /// <summary>Goes on for as long as wanted.</summary>
    /// <exception cref="InvalidOperationException">Something answered wrongly, with the file it was.</exception>
    public async Task RunAsync(Func<int, bool> goOn)
    {
        var backup = await house.Http.GetByteArrayAsync("/api/backup");
        while (goOn(Sent))
        {
            var (kind, bytes) = chance.Next(6) switch
            {
                < 3 => ("recipe", files.Recipe()),
                < 5 => ("table", files.Table()),
                _ => ("backup", files.Backup(backup)),
            };
            var watch = Stopwatch.StartNew();
            try
            {
                await (kind switch
                {
                    "recipe" => SendAsync("/api/recipes/read", bytes),
                    "table" => ImportAsync(bytes),
                    _ => RestoreAsync(bytes),
                });
                if (watch.Elapsed > Slowest) Slowest = watch.Elapsed;
                if (watch.Elapsed > patience) throw new InvalidOperationException($"It took {watch.Elapsed.TotalSeconds:0.0} s.");
                if (++Sent % BetweenScreens == 0) await Screens.AllAnswerAsync(house, today, chance);
            }
            catch (Exception error) when (error is InvalidOperationException or HttpRequestException or TaskCanceledException)
            {
                var kept = Path.Combine(Path.GetTempPath(), $"tern-hostile-{kind}-{Guid.NewGuid():N}");
                await File.WriteAllBytesAsync(kept, bytes);
                throw new InvalidOperationException($"{kind} file {Sent + 1}, kept as {kept}: {error.Message}", error);
            }
        }
    }

    public override string ToString() =>
        $"{Sent} files, of them {Ready} tables that could be read, {Failed} that could not, {Taken} taken in and undone; "
        + $"the slowest took {Slowest.TotalMilliseconds:0} ms";

    private async Task<(int Status, JsonNode? Body)> SendAsync(string path, byte[] bytes)
    {
        using var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        using var answer = await house.Http.PostAsync(path, content);
        var text = await answer.Content.ReadAsStringAsync();
        if ((int)answer.StatusCode >= 500) throw new InvalidOperationException($"{path}: {(int)answer.StatusCode} {text}");
        return ((int)answer.StatusCode, JsonNode.Parse(text));
    }

    private async Task RestoreAsync(byte[] bytes)
    {
        var (status, body) = await SendAsync("/api/backup/restores?name=a", bytes);
        if (status == 200) await house.SendAsync(HttpMethod.Delete, $"/api/backup/restores/{body!["id"]}");
    }

    private async Task ImportAsync(byte[] bytes)
    {
        var (status, body) = await SendAsync("/api/imports?name=a", bytes);
        if (status != 200) return;
        var id = (string)body!["id"]!;
        body = await EndOfAsync(id, "looking");
        var isReady = (string?)body["state"] == "ready";
        if (isReady) Ready++;
        else Failed++;
        if (isReady && (long)body["report"]!["taken"]! > 0 && chance.Next(3) == 0)
        {
            await house.PostAsync($"/api/imports/{id}/take", null);
            body = await EndOfAsync(id, "taking");
            if ((string?)body["state"] != "done") throw new InvalidOperationException($"It could not be taken: {body["failure"]}");
            Taken++;
            var (gone, said) = await house.SendAsync(HttpMethod.Delete, $"/api/libraries/{body["libraryId"]}");
            if (gone != 204) throw new InvalidOperationException($"It could not be undone: {gone} {said}");
        }
        else
        {
            await house.PostAsync($"/api/imports/{id}/stop", null);
        }
    }

    private async Task<JsonNode> EndOfAsync(string id, string busy)
    {
        var watch = Stopwatch.StartNew();
        while (true)
        {
            var text = await house.Http.GetStringAsync($"/api/imports/{id}");
            var body = JsonNode.Parse(text)!;
            if ((string?)body["state"] != busy) return body;
            if (text.Length > 20_000) throw new InvalidOperationException($"How far it is takes {text.Length} bytes.");
            if (watch.Elapsed > TimeSpan.FromMinutes(2)) throw new InvalidOperationException($"It is {busy} for ever.");
            await Task.Delay(5);
        }
    }
}
