using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>The numbers left out for an eater: nothing that is kept is any other for it, and it is kept itself.</summary>
public sealed class QuietTests
{
    private static async Task<string> EverythingAsync(Host host, object eater)
    {
        var said = new List<string>();
        foreach (var path in new[]
        {
            "/api/plan/weeks/2026-11-25", $"/api/eat/{eater}/2026-11-25", $"/api/plan/days/{eater}/2026-11-26", $"/api/review/body/{eater}",
            $"/api/review/week/{eater}/2026-11-18", "/api/review/kitchen", "/api/keep", "/api/recipes", "/api/shop/list", "/api/overview",
        }) said.Add((await host.GetAsync(path)).ToJsonString());
        return string.Join('\n', said);
    }

    [Fact]
    public async Task It_changes_no_figure_is_said_twice_without_harm_and_comes_back_with_a_backup()
    {
        using var demo = new Host(demo: true);
        var eater = (string)(await demo.GetAsync("/api/aim/eaters"))[0]!["id"]!;
        var before = await EverythingAsync(demo, eater);
        foreach (var isQuiet in new[] { true, true, false, true })
        {
            var said = await demo.MustAsync(HttpMethod.Put, $"/api/aim/eaters/{eater}/quiet", new { isQuiet });
            Assert.Equal(isQuiet, (bool)said["isQuiet"]!);
            Assert.Equal(before, await EverythingAsync(demo, eater));
        }

        using var other = new Host();
        await Backups.PutBackAsync(other, await demo.Http.GetByteArrayAsync("/api/backup"));
        var eaters = (await other.GetAsync("/api/aim/eaters")).AsArray();
        Assert.Equal([eater], eaters.Where(one => (bool)one!["isQuiet"]!).Select(one => (string)one!["id"]!));
        Assert.Equal(404, (await demo.SendAsync(HttpMethod.Put, $"/api/aim/eaters/{Guid.NewGuid()}/quiet", new { isQuiet = true })).Status);
    }

    [Fact]
    public async Task What_is_known_by_its_name_only_leaves_its_day_open()
    {
        using var host = new Host();
        var (eater, _, _) = await host.LaidTableAsync();
        var version = await host.PlanVersionAsync();
        var (status, _) = await host.SendAsync(HttpMethod.Post, "/api/plan/entries",
            new { text = "supper at the harbour", eaterId = eater, day = "2026-11-26", choices = new[] { "name" } }, version);
        Assert.Equal(200, status);
        var day = (await host.GetAsync($"/api/eat/{eater}/2026-11-26"))["day"]!;
        var item = Assert.Single(day["items"]!.AsArray())!;
        Assert.Equal("supper at the harbour", (string)item["name"]!);
        Assert.Equal("atLeast", (string)day["sums"]!["energy"]!["certainty"]!);
        Assert.NotEqual("fits", (string)day["verdict"]!);
    }
}
