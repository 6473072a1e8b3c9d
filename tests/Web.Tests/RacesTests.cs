using System.Collections.Concurrent;
using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>Several at once: no answer is torn or a fault while others write, and what is checked when something is added holds.</summary>
public sealed class RacesTests
{
    private static readonly object Aim = new { leading = "energy", bands = new { energy = new { max = 2000 } }, rule = (object?)null };

    [Fact]
    public async Task Lists_are_answered_whole_while_recipes_are_added_changed_and_taken_off()
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        var wrong = new ConcurrentBag<string>();
        var writing = true;
        async Task WriteAsync(int hand)
        {
            for (var i = 0; i < 12; i++)
            {
                var lines = new[] { $"{hand + 1} eggs", $"100 g of hand {(hand + 1) % 4} dish {i}" };
                var made = await host.PostAsync("/api/recipes", new { name = $"Hand {hand} dish {i}", lines, portions = 2 });
                var path = $"/api/recipes/{made["id"]}";
                var body = new { name = $"Hand {hand} dish {i}", lines = new[] { "2 eggs" }, portions = 3 };
                await host.MustAsync(HttpMethod.Put, path, body, (int)made["version"]!);
                if (i % 3 == 0) await host.SendAsync(HttpMethod.Delete, path, null, (int)made["version"]! + 1);
            }
        }

        async Task ReadAsync()
        {
            string[] paths =
            [
                "/api/recipes", "/api/recipes/names", $"/api/recipes?eaterId={eater}", "/api/plan/weeks/2026-11-25", "/api/shop/list",
                "/api/shop/pantry", $"/api/plan/days/{eater}/2026-11-25",
            ];
            while (Volatile.Read(ref writing))
            {
                foreach (var path in paths)
                {
                    using var answer = await host.Http.GetAsync(path);
                    if (!answer.IsSuccessStatusCode) wrong.Add($"{path}: {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync()}");
                }
            }
        }

        var readers = Enumerable.Range(0, 4).Select(_ => Task.Run(ReadAsync)).ToList();
        await Task.WhenAll(Enumerable.Range(0, 4).Select(hand => Task.Run(() => WriteAsync(hand))));
        Volatile.Write(ref writing, false);
        await Task.WhenAll(readers);
        Assert.Empty(wrong);
        Assert.Equal(1 + 48 - 16, (await host.GetAsync("/api/recipes")).AsArray().Count);
    }

    [Fact]
    public async Task Of_eight_eaters_of_one_name_at_once_one_is_added()
    {
        using var host = new Host();
        var answers = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ =>
            host.SendAsync(HttpMethod.Post, "/api/aim/eaters", new { name = "Isa", aim = Aim })));
        Assert.Single(answers, answer => answer.Status == 200);
        Assert.All(answers.Where(answer => answer.Status != 200), answer =>
            Assert.Equal((422, "urn:lively-tern:problem:name-taken"), (answer.Status, (string?)answer.Body["type"])));
        Assert.Single((await host.GetAsync("/api/aim/eaters")).AsArray());
    }

    [Fact]
    public async Task What_is_put_back_is_held_against_what_is_there_by_now()
    {
        using var host = new Host();
        async Task<(string Path, int Version)> AddAsync(string name)
        {
            var made = await host.PostAsync("/api/aim/eaters", new { name, aim = Aim });
            return ($"/api/aim/eaters/{made["id"]}", (int)made["version"]!);
        }

        async Task<int> OffAsync((string Path, int Version) one) =>
            (int)(await host.MustAsync(HttpMethod.Delete, one.Path, null, one.Version))["version"]!;
        async Task<string> BackAsync(string path, int version)
        {
            var (status, answer) = await host.SendAsync(HttpMethod.Post, path + "/restore", null, version);
            return status == 200 ? "" : ((string)answer["type"]!)["urn:lively-tern:problem:".Length..];
        }

        var isa = await AddAsync("Isa");
        var gone = await OffAsync(isa);
        var other = await AddAsync("Isa");
        Assert.Equal("name-taken", await BackAsync(isa.Path, gone));
        await OffAsync(other);
        for (var i = 0; i < 12; i++) await AddAsync($"Guest {i}");
        Assert.Equal("eaters-many", await BackAsync(isa.Path, gone));

        static object Label(int kcal) => new
        {
            name = "House spread",
            group = "fats",
            label = new { basis = "per100g", servingGrams = (decimal?)null, convention = "total", kilocalories = kcal },
        };
        var spread = await host.PostAsync("/api/foods", Label(300));
        var path = $"/api/foods/{Uri.EscapeDataString((string)spread["id"]!)}";
        var off = await host.MustAsync(HttpMethod.Delete, path, null, (int)spread["version"]!);
        await host.PostAsync("/api/foods", Label(400));
        Assert.Equal("name-taken", await BackAsync(path, (int)off["version"]!));
    }
}
