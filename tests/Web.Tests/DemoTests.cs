namespace LivelyTern.Web.Tests;

/// <summary>The demo is laid by the program's own rules, on whatever day of the week it is first opened.</summary>
public sealed class DemoTests
{
    [Theory]
    [InlineData("2026-11-23")]
    [InlineData("2026-11-24")]
    [InlineData("2026-11-26")]
    [InlineData("2026-11-27")]
    [InlineData("2026-11-28")]
    [InlineData("2026-11-29")]
    [InlineData("2027-01-01")]
    public async Task It_opens_on_every_day_of_the_week(string today)
    {
        var data = Path.Combine(Directory.CreateTempSubdirectory("tern-").FullName, "tern.db");
        using var host = new Host(data, demo: true, today: today);
        var week = await host.GetAsync($"/api/plan/weeks/{today}");
        Assert.Equal(3, week["eaters"]!.AsArray().Count);
        foreach (var eater in week["eaters"]!.AsArray())
            Assert.NotEmpty((await host.GetAsync($"/api/eat/{eater!["eaterId"]}/{today}"))["day"]!["items"]!.AsArray());
        Assert.NotNull(await host.GetAsync("/api/keep"));
        Assert.NotNull(await host.GetAsync("/api/overview"));
    }
}
