using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using ArchUnitNET.xUnit;
using LivelyTern.Core.Foods;
using LivelyTern.Data;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace LivelyTern.Web.Tests;

/// <summary>The floors apart, the rooms without circles, the tables true, the document served.</summary>
public sealed class HouseTests
{
    private static readonly Architecture House = new ArchLoader()
        .LoadAssemblies(typeof(Food).Assembly, typeof(TernDb).Assembly, typeof(LivelyTern.Formats.TextFile).Assembly, typeof(LivelyTern.Devices.Product).Assembly, typeof(LivelyTern.Solving.CpSatWeekFitter).Assembly, typeof(Program).Assembly).Build();

    // What a thing is made of comes first; a room may use only the rooms before it.
    private static readonly string[] Order = ["Measures", "Foods", "Aim", "Recipes", "Cook", "Pack", "Keep", "Plan", "Shop", "Eat", "Review"];

    [Fact]
    public void The_core_knows_no_other_floor_no_database_and_no_web()
    {
        foreach (var outside in new[] { @"LivelyTern\.Data", @"LivelyTern\.Web", @"LivelyTern\.Solving", @"Google\.OrTools", @"Microsoft\.EntityFrameworkCore", @"Microsoft\.AspNetCore", @"System\.IO", @"System\.Net" })
            Types().That().ResideInNamespaceMatching(@"^LivelyTern\.Core").Should().NotDependOnAnyTypesThat().ResideInNamespaceMatching("^" + outside).Check(House);
        foreach (var floor in new[] { "Data", "Formats", "Devices", "Solving" })
        {
            foreach (var other in new[] { "Data", "Formats", "Devices", "Solving", "Web" }.Where(name => name != floor))
                Types().That().ResideInNamespaceMatching($@"^LivelyTern\.{floor}(\.|$)").Should().NotDependOnAnyTypesThat().ResideInNamespaceMatching($@"^LivelyTern\.{other}(\.|$)").Check(House);
        }

        Types().That().ResideInNamespaceMatching(@"^LivelyTern\.Data").Should().NotDependOnAnyTypesThat().ResideInNamespaceMatching(@"^LivelyTern\.Web").Check(House);
    }

    [Fact]
    public void Rooms_of_the_core_use_only_rooms_before_them()
    {
        for (var room = 0; room < Order.Length; room++)
        {
            foreach (var later in Order.Skip(room + 1))
                Types().That().ResideInNamespaceMatching($@"^LivelyTern\.Core\.{Order[room]}(\.|$)").Should()
                    .NotDependOnAnyTypesThat().ResideInNamespaceMatching($@"^LivelyTern\.Core\.{later}(\.|$)").WithoutRequiringPositiveResults().Check(House);
        }
    }

    [Fact]
    public void The_core_asks_for_no_clock_and_no_chance() =>
        Types().That().ResideInNamespaceMatching(@"^LivelyTern\.Core").Should()
            .NotDependOnAnyTypesThat().HaveFullNameMatching(@"^System\.(TimeProvider|Random|DateTime|Environment)$").Check(House);

    [Fact]
    public async Task The_demo_is_a_week_in_progress_by_the_programs_own_rules()
    {
        using var host = new Host(demo: true);
        var week = await host.GetAsync("/api/plan/weeks/2026-11-25");
        Assert.Equal(3, week["eaters"]!.AsArray().Count);
        Assert.True(week["shelf"]!.AsArray().Count >= 5);
        Assert.Contains(week["eaters"]!.AsArray(), eater => (int)eater!["fitDays"]! >= 3);
        var items = week["eaters"]!.AsArray().SelectMany(eater => eater!["days"]!.AsArray()).SelectMany(day => day!["items"]!.AsArray().Select(item => (Day: (string)day["day"]!, Eaten: item!["eatenAt"] is not null))).ToList();
        Assert.All(items.Where(item => string.CompareOrdinal(item.Day, "2026-11-25") < 0), item => Assert.True(item.Eaten));
        Assert.All(items.Where(item => string.CompareOrdinal(item.Day, "2026-11-25") > 0), item => Assert.False(item.Eaten));
        Assert.All((await host.GetAsync("/api/recipes")).AsArray(), recipe => Assert.Equal(0, (int)recipe!["notUnderstood"]!));
    }

    [Fact]
    public async Task The_document_lists_every_room_and_nothing_is_fetched_from_elsewhere()
    {
        using var host = new Host();
        var paths = (await host.GetAsync("/openapi/v1.json"))["paths"]!.AsObject().Select(path => path.Key).ToList();
        foreach (var room in new[] { "/api/aim/", "/api/foods", "/api/recipes", "/api/plan/", "/api/pack/", "/api/eat/", "/api/calc/recipe", "/api/calc/portions", "/api/calc/day", "/api/calc/parse" })
            Assert.Contains(paths, path => path.StartsWith(room, StringComparison.Ordinal));
        Assert.Equal("ok", (string?)(await host.GetAsync("/health"))["status"]);
        using var docs = await host.Http.GetAsync("/docs/");
        Assert.Equal(200, (int)docs.StatusCode);
        Assert.DoesNotContain("src=\"http", await docs.Content.ReadAsStringAsync());
        Assert.Contains("default-src 'self'", docs.Headers.GetValues("Content-Security-Policy").Single());
    }
}
