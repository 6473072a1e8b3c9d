using System.Diagnostics;
using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace LivelyTern.Soak.Requests;

/// <summary>
/// Requests by chance through every door of the house's own document, most of them sound, some with a little of it broken, some no request
/// at all: each is answered below 500, with a sentence where it is refused, and in its time; now and then every screen is asked for.
/// </summary>
/// <param name="house">The house.</param>
/// <param name="document">Its document.</param>
/// <param name="chance">Where chance comes from.</param>
/// <param name="today">The house's day.</param>
/// <param name="patience">How long an answer may take; null where time is not asked about.</param>
public sealed class RequestStorm(Asker house, ApiDocument document, Random chance, DateOnly today, TimeSpan? patience)
{
    private const int BetweenScreens = 100, BetweenFeeds = 400, Remembered = 60, MostWrong = 30;

    // What is worked out for as long as its own time lets it.
    private static readonly HashSet<string> Thinks = new(StringComparer.Ordinal)
    {
        "/api/plan/menus", "/api/cook/days/{day}/schedule", "/api/calc/fit", "/api/calc/schedule", "/api/labels/print",
    };

    private static readonly TimeSpan Thought = TimeSpan.FromSeconds(3);

    private readonly Queue<string> last = new();
    private readonly Known known = new(chance);
    private readonly Dictionary<int, int> statuses = [];

    // What was answered wrongly, the first of each kind: one storm tells more than one fault.
    private readonly Dictionary<string, string> wrong = new(StringComparer.Ordinal);

    public int Asked { get; private set; }

    public int ScreensAsked { get; private set; }

    public TimeSpan Slowest { get; private set; }

    public string SlowestDoor { get; private set; } = "";

    /// <summary>Goes on for as long as wanted.</summary>
    /// <exception cref="InvalidOperationException">Something answered wrongly, with what was asked before it.</exception>
    public async Task RunAsync(Func<int, bool> goOn)
    {
        var made = new MadeUp(document, known, chance, today);
        var doors = document.Doors.Where(IsAsked).ToList();
        while (goOn(Asked))
        {
            try
            {
                if (wrong.Count >= MostWrong) break;
                if (Asked % BetweenFeeds == 0) await FeedAsync();
                await OneAsync(doors[chance.Next(doors.Count)], made);
                if (++Asked % BetweenScreens == 0) ScreensAsked += await Screens.AllAnswerAsync(house, today, chance);
            }
            catch (Exception error) when (error is InvalidOperationException or HttpRequestException or TaskCanceledException)
            {
                wrong["a screen"] = $"{error.Message}\nafter, the newest last:\n{string.Join('\n', last)}";
                break;
            }
        }

        if (wrong.Count > 0) throw new InvalidOperationException($"{string.Join("\n\n", wrong.Values)}\n{this}");
    }

    public override string ToString() =>
        $"{Asked} requests ({string.Join(", ", statuses.OrderBy(one => one.Key).Select(one => $"{one.Value} x {one.Key}"))}), "
        + $"{ScreensAsked} answers to screens, the slowest took {Slowest.TotalMilliseconds:0} ms ({SlowestDoor})";

    // What puts another household in its place, or lets time pass, would only end the storm.
    private static bool IsAsked(Door door) =>
        !door.Path.StartsWith("/api/demo", StringComparison.Ordinal)
        && !door.Path.StartsWith("/api/backup/restores", StringComparison.Ordinal)
        && !door.Path.EndsWith("/erase", StringComparison.Ordinal) && !door.Path.StartsWith("/api/imports", StringComparison.Ordinal)
        && door is not { Path: "/api/backup/copies", Method.Method: "POST" };

    // There is always somebody to eat, something to cook, and something in boxes.
    private async Task FeedAsync()
    {
        if ((await house.GetAsync("/api/aim/eaters")).AsArray().Count < 2) await LaidAsync();
        foreach (var path in new[]
        {
            "/api/aim/eaters", "/api/recipes", "/api/cook/batches", "/api/pack/batches", "/api/foods", "/api/pack/containers", "/api/keep",
            $"/api/plan/weeks/{today:yyyy-MM-dd}", "/api/shop/pantry", "/api/plan/kept-meals",
        })
        {
            known.Learn(path, await house.GetAsync(path));
        }
    }

    private async Task LaidAsync()
    {
        try
        {
            await house.LaidTableAsync();
        }
        catch (InvalidOperationException)
        {
            // Refused for a reason, as where there are too many eaters or one of that name.
        }
    }

    private async Task OneAsync(Door door, MadeUp made)
    {
        made.Broken = chance.Next(20) switch { < 11 => 0, < 18 => 0.06, _ => 0.5 };
        var (path, version) = PathOf(door, made);
        var body = door.Body is null ? null : made.Broken > 0.4 && chance.Next(3) == 0 ? made.Garbage() : made.Json(door.Body);
        var said = $"{door.Method} {path} If-Match {version} {Short(body)}";
        last.Enqueue(said);
        if (last.Count > Remembered) last.Dequeue();
        using var request = new HttpRequestMessage(door.Method, path);
        if (body is not null) request.Content = new StringContent(body, Encoding.UTF8, "application/json");
        if (body is { Length: > 100_000 }) request.Headers.ExpectContinue = true;
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{version}\"");
        var watch = Stopwatch.StartNew();
        using var answer = await house.Http.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        Judge(door, said, answer, text, watch.Elapsed);
    }

    private void Judge(Door door, string said, HttpResponseMessage answer, string text, TimeSpan took)
    {
        var status = (int)answer.StatusCode;
        statuses[status] = statuses.GetValueOrDefault(status) + 1;
        if (took > Slowest) (Slowest, SlowestDoor) = (took, door.ToString());
        void Wrong(string how) =>
            wrong.TryAdd($"{door} {how}", $"{Cut(said)}\n{status} in {took.TotalMilliseconds:0} ms, {how}: {Cut(text)}");
        if (status >= 500 && status != 503) Wrong("a fault");
        if (took > patience + (Thinks.Contains(door.Path) ? Thought : TimeSpan.Zero)) Wrong("too slow");
        JsonNode? node = null;
        try { node = JsonNode.Parse(text); } catch (JsonException) { }
        // An address that is too long is refused by the server before the program sees it.
        var sentence = (string?)(node as JsonObject)?["detail"];
        if (status >= 400 && status != 414 && string.IsNullOrWhiteSpace(sentence)) Wrong("without a sentence");
        if (status < 300) known.Learn(door.Path, node);
    }

    private (string Path, int Version) PathOf(Door door, MadeUp made)
    {
        var (path, query, id) = (door.Path, new List<string>(), (string?)null);
        foreach (var parameter in door.Parameters.Where(one => one.IsInPath || chance.Next(3) == 0))
        {
            var value = made.Place(door, parameter);
            if (parameter.IsInPath)
            {
                id ??= value;
                path = path.Replace($"{{{parameter.Name}}}", Uri.EscapeDataString(value), StringComparison.Ordinal);
            }
            else
            {
                query.Add($"{parameter.Name}={Uri.EscapeDataString(value)}");
            }
        }

        // Days carry the number of the last change; it is the most of what is known.
        var version = chance.Next(10) == 0 ? chance.Next(5)
            : door.Path.StartsWith("/api/plan", StringComparison.Ordinal) || door.Path.StartsWith("/api/eat", StringComparison.Ordinal)
                || door.Path.StartsWith("/api/keep/boxes", StringComparison.Ordinal) ? int.MaxValue : known.Version(id) ?? 1;
        return (query.Count == 0 ? path : path + "?" + string.Join('&', query), version);
    }

    private static string Cut(string text) => text.Length <= 1_500 ? text : text[..1_500] + "…";

    private static string Short(string? body) => body is null ? "" : body.Length <= 3_000
        ? body
        : string.Create(CultureInfo.InvariantCulture, $"{body[..300]}… ({body.Length} characters)");
}
