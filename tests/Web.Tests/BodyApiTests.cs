using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>Weigh-ins are written down, changed and taken off by who saw them; what was eaten stands beside them.</summary>
public sealed class BodyApiTests : IDisposable
{
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private async Task<string> EaterAsync()
    {
        var aim = new { leading = "energy", bands = new { energy = new { min = 1450, target = 1525, max = 1600 } }, rule = (object?)null };
        return (string)(await host.PostAsync("/api/aim/eaters", new { name = "Isa", aim }))["id"]!;
    }

    private Task<(int Status, JsonNode Body)> WriteAsync(string eater, string day, string text, string? before = null) =>
        host.SendAsync(HttpMethod.Put, $"/api/review/weigh-ins/{eater}/{day}", new { text, before });

    [Fact]
    public async Task A_second_hand_changes_nothing_it_has_not_seen()
    {
        var eater = await EaterAsync();
        Assert.Equal(200, (await WriteAsync(eater, "2026-11-25", "11 st 3")).Status);
        var (status, refused) = await WriteAsync(eater, "2026-11-25", "72 kg");
        Assert.Equal((422, "urn:lively-tern:problem:weigh-in-there"), (status, (string?)refused["type"]));
        Assert.Equal(200, (await WriteAsync(eater, "2026-11-25", "11 st 4", "11 st 3")).Status);

        // A bare number is in the unit used last; the list says what was typed.
        Assert.Equal(200, (await WriteAsync(eater, "2026-11-24", "11")).Status);
        var body = await host.GetAsync($"/api/review/body/{eater}");
        Assert.Equal(("stone", 71.67m, 69.85m),
            ((string)body["unit"]!, (decimal)body["weighIns"]![0]!["kg"]!, (decimal)body["weighIns"]![1]!["kg"]!));
        Assert.Equal("11 st 4", (string)body["weighIns"]![0]!["text"]!);
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Delete, $"/api/review/weigh-ins/{eater}/2026-11-25?before=11%20st%203")).Status);
        Assert.Equal(200, (await host.SendAsync(HttpMethod.Delete, $"/api/review/weigh-ins/{eater}/2026-11-25?before=11%20st%204")).Status);
        Assert.Single((await host.GetAsync($"/api/review/body/{eater}"))["weighIns"]!.AsArray());
    }

    [Theory]
    [InlineData("2026-11-25", "700 kg", "weight-absurd")]
    [InlineData("2026-11-25", "heavy", "weight-unread")]
    [InlineData("2026-11-26", "71 kg", "day-ahead")]
    [InlineData("1926-11-26", "71 kg", null)]
    public async Task What_can_t_be_is_refused_and_nothing_is_written(string day, string text, string? code)
    {
        var eater = await EaterAsync();
        var (status, refused) = await WriteAsync(eater, day, text);
        Assert.Equal(422, status);
        if (code is not null) Assert.Equal("urn:lively-tern:problem:" + code, (string?)refused["type"]);
        Assert.Empty((await host.GetAsync($"/api/review/body/{eater}"))["weighIns"]!.AsArray());
        Assert.Equal(404, (await WriteAsync(Guid.NewGuid().ToString(), "2026-11-25", "71 kg")).Status);
    }

    // A day with a supper known by its name only, or a packet by its points only, tells less than was eaten.
    [Fact]
    public async Task What_was_eaten_and_the_scale_give_a_need_and_a_half_noted_day_or_one_with_an_unknown_figure_does_not_pull_it_down()
    {
        var eater = await EaterAsync();
        var first = new DateOnly(2026, 10, 20);
        for (var i = 0; i < 36; i++)
        {
            var day = first.AddDays(i).ToString("yyyy-MM-dd", null);
            await WriteAsync(eater, day, FormattableString.Invariant($"{71.4m - (0.05m * i) + (i % 2 * 0.1m)} kg"));
            var text = i % 9 == 4 ? "breakfast 300 kcal" : "the whole day 1900 kcal";
            await host.PostAsync("/api/plan/entries", new { text, eaterId = eater, day, eaten = true }, await host.PlanVersionAsync());
        }

        // The last of them was before the first weigh-in: nothing is told from that day anyhow.
        foreach (var (back, text, choices) in new[]
        {
            (2, "supper at the harbour", "name"), (10, "17 crackers are 5 points", ""), (40, "supper at the pier", "name"),
        })
        {
            var day = first.AddDays(36 - back).ToString("yyyy-MM-dd", null);
            var unknown = new { text, eaterId = eater, day, eaten = true, choices = new[] { choices } };
            await host.PostAsync("/api/plan/entries", unknown, await host.PlanVersionAsync());
        }

        var body = await host.GetAsync($"/api/review/body/{eater}");
        Assert.Equal((36, 37), (body["weighIns"]!.AsArray().Count, (int)body["notedDays"]!));

        // 0.05 kg a day are 385 kcal: Wishnofsky 1958 (from memory), 7,700 kcal a kg.
        Assert.InRange((decimal)body["trend"]!["need"]!["value"]!, 2240m, 2330m);
        Assert.Equal((29, 2), ((int)body["trend"]!["intakeDays"]!, (int)body["openDays"]!));
        Assert.Equal(1525m, (decimal)body["aimKcal"]!);
        Assert.Null(body["equations"]);
    }
}
