using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>The contract of the trend: its ranges say that they are 90 % ranges, slips are named, absurd input is refused with its place.</summary>
public sealed class TrendApiTests : IDisposable
{
    private readonly Host host = new();

    public void Dispose() => host.Dispose();

    private static string Day(int day) => new DateOnly(2026, 9, 1).AddDays(day).ToString("yyyy-MM-dd", null);

    [Fact]
    public async Task Weigh_ins_and_intake_give_a_trend_a_rate_and_a_need_with_ranges()
    {
        var weighIns = Enumerable.Range(0, 60).Select(day => new { day = Day(day), kg = day == 30 ? 17.4m : 71.4m - (0.05m * day) });
        var intake = Enumerable.Range(0, 60).Where(day => day % 10 != 3).Select(day => new { day = Day(day), kcal = 1900 });
        var read = await host.PostAsync("/api/calc/trend", new { weighIns, intake });
        Assert.Equal((60, 90), (read["trend"]!.AsArray().Count, (int)read["rangePercent"]!));
        Assert.All(read["trend"]!.AsArray(), day => Assert.True(
            (decimal)day!["low"]! <= (decimal)day["kg"]! && (decimal)day["kg"]! <= (decimal)day["high"]!));

        // 0.05 kg a day are 0.35 kg a week and 385 kcal a day: Wishnofsky 1958 (from memory), 7,700 kcal a kg.
        Assert.InRange((decimal)read["ratePerWeek"]!["value"]!, -0.37m, -0.33m);
        Assert.InRange((decimal)read["need"]!["value"]!, 2265m, 2305m);
        Assert.True((decimal)read["need"]!["low"]! < (decimal)read["need"]!["high"]!);
        var left = Assert.Single(read["leftOut"]!.AsArray())!;
        Assert.Equal((Day(30), 17.4m, 71.4m), ((string)left["day"]!, (decimal)left["kg"]!, (decimal)left["meant"]!));

        var few = await host.PostAsync("/api/calc/trend", new { weighIns = new[] { new { day = Day(0), kg = 81.4 } } });
        Assert.Equal((null, null, true), (few["need"], few["ratePerWeek"], ((string)few["whyNoNeed"]!).Length > 10));
    }

    [Theory]
    [InlineData("""{"weighIns":[{"day":"2026-09-01","kg":71},null]}""", "weighIns[1]")]
    [InlineData("""{"weighIns":[{"day":"2026-09-01","kg":-3}]}""", "weighIns[0]")]
    [InlineData("""{"weighIns":[],"intake":[{"day":"2026-09-01","kcal":-1}]}""", "intake[0]")]
    [InlineData("""{"weighIns":[{"day":"0001-01-01","kg":71},{"day":"9999-12-31","kg":71}]}""", "weighIns")]
    public async Task What_can_t_be_read_is_refused_with_its_place(string body, string field)
    {
        var (status, refused) = await host.SendAsync(HttpMethod.Post, "/api/calc/trend", body);
        Assert.Equal((422, field), (status, (string)refused["errors"]![0]!["field"]!));
    }

    [Fact]
    public async Task A_weigh_in_of_700_kg_is_left_out_in_the_open_and_too_many_are_refused()
    {
        var read = await host.PostAsync("/api/calc/trend", new { weighIns = new[] { new { day = Day(0), kg = 700 } } });
        Assert.Equal((0, 1), (read["trend"]!.AsArray().Count, read["leftOut"]!.AsArray().Count));
        var many = Enumerable.Range(0, 6000).Select(_ => new { day = Day(0), kg = 71 });
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Post, "/api/calc/trend", new JsonObject
        {
            ["weighIns"] = System.Text.Json.JsonSerializer.SerializeToNode(many),
        })).Status);
    }
}
