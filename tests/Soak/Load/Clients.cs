using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Text.Json.Nodes;

namespace LivelyTern.Soak.Load;

/// <summary>
/// Many hands on one house at once: most look, some lay, eat and take off. Nothing is answered but what was asked, and that a day has
/// changed since (412).
/// </summary>
/// <param name="host">The house.</param>
/// <param name="seed">Where chance begins.</param>
public sealed class Clients(RunningHost host, int seed)
{
    /// <summary>How many hands.</summary>
    public const int Hands = 50;

    private const string Today = "2026-11-25";
    private readonly ConcurrentBag<double> took = [];
    private readonly ConcurrentDictionary<int, int> statuses = new();
    private double before, most, after;

    /// <summary>Goes on for as long as wanted, then waits for the house to be quiet again.</summary>
    /// <exception cref="InvalidOperationException">Something answered wrongly.</exception>
    public async Task RunAsync(Func<bool> goOn)
    {
        var chance = new Random(seed);
        await Screens.AllAnswerAsync(host.Asker, new(2026, 11, 25), chance);
        var eaters = (await host.Asker.GetAsync("/api/aim/eaters")).AsArray().Select(one => (string)one!["id"]!).ToList();
        before = host.Megabytes;
        var hands = Enumerable.Range(0, Hands).Select(i => HandAsync(new Random(seed + i), eaters, goOn)).ToList();
        var watching = Task.Run(async () =>
        {
            while (goOn())
            {
                most = Math.Max(most, host.Megabytes);
                await Task.Delay(200);
            }
        });
        await Task.WhenAll([.. hands, watching]);
        await Task.Delay(TimeSpan.FromSeconds(30));
        after = host.Megabytes;
        var wrong = statuses.Keys.Where(status => status is not (200 or 204 or 412)).ToList();
        if (wrong.Count > 0) throw new InvalidOperationException($"{this}: answered {string.Join(", ", wrong)}");
    }

    public override string ToString()
    {
        var sorted = took.Order().ToList();
        double At(double share) => sorted.Count == 0 ? 0 : sorted[(int)(share * (sorted.Count - 1))];
        return string.Create(CultureInfo.InvariantCulture, $"{Hands} clients, {sorted.Count} requests ")
            + $"({string.Join(", ", statuses.OrderBy(one => one.Key).Select(one => $"{one.Value} x {one.Key}"))}), "
            + string.Create(CultureInfo.InvariantCulture, $"p50 {At(0.5):0} ms, p95 {At(0.95):0} ms, longest {At(1):0} ms; memory {before:0} ")
            + string.Create(CultureInfo.InvariantCulture, $"MB before, {most:0} at most, {after:0} half a minute after");
    }

    private async Task HandAsync(Random chance, List<string> eaters, Func<bool> goOn)
    {
        List<string> laid = [];
        while (goOn())
        {
            var eater = eaters[chance.Next(eaters.Count)];
            switch (chance.Next(10))
            {
                case 0: await AskAsync(HttpMethod.Get, $"/api/plan/weeks/{Today}"); break;
                case 1: await AskAsync(HttpMethod.Get, $"/api/eat/{eater}/{Today}"); break;
                case 2: await AskAsync(HttpMethod.Get, "/api/recipes"); break;
                case 3: await AskAsync(HttpMethod.Get, "/api/shop/list"); break;
                case 4: await AskAsync(HttpMethod.Get, $"/api/overview?eaterId={eater}"); break;
                case 5: await AskAsync(HttpMethod.Get, "/api/foods?q=oa"); break;
                case 6: await AskAsync(HttpMethod.Post, "/api/calc/parse", new { lines = new[] { "400 g rolled oats", "2 eggs" } }); break;
                case 7: await AskAsync(HttpMethod.Get, "/api/keep"); break;
                default: await LayOrTakeOffAsync(chance, eater, laid); break;
            }

            // A hand is no machine gun: it looks at what it got.
            await Task.Delay(chance.Next(100, 900));
        }
    }

    // Each lays on its own days, and takes off again what it laid.
    private async Task LayOrTakeOffAsync(Random chance, string eater, List<string> laid)
    {
        var day = new DateOnly(2026, 12, 1).AddDays(chance.Next(300));
        var version = (int)((await AskAsync(HttpMethod.Get, $"/api/plan/weeks/{day:yyyy-MM-dd}"))?["version"] ?? 0);
        if (laid.Count > 2)
        {
            await AskAsync(HttpMethod.Delete, $"/api/plan/items/{laid[0]}", null, version);
            laid.RemoveAt(0);
            return;
        }

        var apple = new { text = "1 apple", eaterId = eater, day = $"{day:yyyy-MM-dd}" };
        var made = await AskAsync(HttpMethod.Post, "/api/plan/foods", apple, version);
        if (made?["days"] is null) return;
        var there = await AskAsync(HttpMethod.Get, $"/api/plan/weeks/{day:yyyy-MM-dd}");
        var items = there?["eaters"]!.AsArray().Single(one => (string?)one!["eaterId"] == eater)!["days"]!.AsArray()
            .Single(one => (string?)one!["day"] == $"{day:yyyy-MM-dd}")!["items"]!.AsArray();
        if (items is { Count: > 0 }) laid.Add((string)items[^1]!["id"]!);
    }

    private async Task<JsonNode?> AskAsync(HttpMethod method, string path, object? body = null, int? version = null)
    {
        var watch = Stopwatch.StartNew();
        var (status, answer) = await host.Asker.SendAsync(method, path, body, version);
        took.Add(watch.Elapsed.TotalMilliseconds);

        // Another hand may have taken off what this one laid.
        statuses.AddOrUpdate(status is 404 && method == HttpMethod.Delete ? 204 : status, 1, (_, count) => count + 1);
        return status == 200 ? answer : null;
    }
}
