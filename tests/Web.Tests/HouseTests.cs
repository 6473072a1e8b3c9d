using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using ArchUnitNET.xUnit;
using LivelyTern.Core.Foods;
using LivelyTern.Data;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace LivelyTern.Web.Tests;

/// <summary>The floors apart, the rooms without circles, the tables true, the document served.</summary>
public sealed partial class HouseTests
{
    private static readonly Architecture House = new ArchLoader()
        .LoadAssemblies(typeof(Food).Assembly, typeof(TernDb).Assembly, typeof(LivelyTern.Formats.TextFile).Assembly,
            typeof(LivelyTern.Devices.Product).Assembly, typeof(LivelyTern.Solving.CpSatWeekFitter).Assembly,
            typeof(KitchenHost).Assembly).Build();

    // What a thing is made of comes first; a room may use only the rooms before it.
    private static readonly string[] Order = ["Measures", "Foods", "Aim", "Recipes", "Cook", "Pack", "Keep", "Plan", "Shop", "Eat",
        "Review"];

    [Fact]
    public void The_core_knows_no_other_floor_no_database_and_no_web()
    {
        foreach (var outside in new[] { @"LivelyTern\.Data", @"LivelyTern\.Web", @"LivelyTern\.Solving", @"Google\.OrTools",
            @"Microsoft\.EntityFrameworkCore", @"Microsoft\.AspNetCore", @"System\.IO", @"System\.Net" })
            Types().That().ResideInNamespaceMatching(@"^LivelyTern\.Core").Should().NotDependOnAnyTypesThat()
                .ResideInNamespaceMatching("^" + outside).Check(House);
        foreach (var floor in new[] { "Data", "Formats", "Devices", "Solving" })
        {
            foreach (var other in new[] { "Data", "Formats", "Devices", "Solving", "Web" }.Where(name => name != floor))
                Types().That().ResideInNamespaceMatching($@"^LivelyTern\.{floor}(\.|$)").Should().NotDependOnAnyTypesThat()
                    .ResideInNamespaceMatching($@"^LivelyTern\.{other}(\.|$)").Check(House);
        }

        Types().That().ResideInNamespaceMatching(@"^LivelyTern\.Data").Should().NotDependOnAnyTypesThat()
            .ResideInNamespaceMatching(@"^LivelyTern\.Web").Check(House);
    }

    [Theory]
    [InlineData("Core")]
    [InlineData("Data")]
    [InlineData("Web")]
    public void Rooms_use_only_rooms_before_them(string floor)
    {
        for (var room = 0; room < Order.Length; room++)
        {
            foreach (var later in Order.Skip(room + 1))
                Types().That().ResideInNamespaceMatching($@"^LivelyTern\.{floor}\.{Order[room]}(\.|$)").Should()
                    .NotDependOnAnyTypesThat().ResideInNamespaceMatching($@"^LivelyTern\.(Core|Data|Web)\.{later}(\.|$)")
                        .WithoutRequiringPositiveResults().Check(House);
        }
    }

    // A room's screens stand on what all share, and on rooms before it.
    [Fact]
    public void Rooms_of_the_front_end_use_only_rooms_before_them()
    {
        var rooms = Path.Combine(Repository(), "web", "src", "rooms");
        foreach (var file in Directory.EnumerateFiles(rooms, "*.ts*", SearchOption.AllDirectories))
        {
            var own = Path.GetRelativePath(rooms, file).Split(Path.DirectorySeparatorChar)[0];
            foreach (System.Text.RegularExpressions.Match import in ImportOfRoom().Matches(File.ReadAllText(file)))
            {
                var (mine, theirs) = (Place(own), Place(import.Groups[1].Value));
                Assert.True(mine >= 0 && theirs >= 0 && theirs <= mine, $"{file} uses {import.Groups[1].Value}");
            }
        }

        foreach (var file in new[] { "ui", "api" }.SelectMany(floor =>
            Directory.EnumerateFiles(Path.Combine(Repository(), "web", "src", floor), "*.ts*", SearchOption.AllDirectories)))
            Assert.DoesNotContain("/rooms/", File.ReadAllText(file));
        Assert.True(Directory.EnumerateDirectories(rooms).Select(Path.GetFileName).All(room => Place(room!) >= 0));
    }

    private static int Place(string room) => Array.FindIndex(Order, name => string.Equals(name, room, StringComparison.OrdinalIgnoreCase));

    internal static string Repository()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder!.FullName, "LivelyTern.slnx"))) folder = folder.Parent;
        return folder.FullName;
    }

    [System.Text.RegularExpressions.GeneratedRegex("from \"(?:\\.\\./|.*rooms/)(aim|foods|recipes|cook|pack|keep|plan|shop|eat|review)/")]
    private static partial System.Text.RegularExpressions.Regex ImportOfRoom();

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
        var items = week["eaters"]!.AsArray().SelectMany(eater => eater!["days"]!.AsArray()).SelectMany(day =>
            day!["items"]!.AsArray().Select(item => (Day: (string)day["day"]!, Eaten: item!["eatenAt"] is not null))).ToList();
        Assert.All(items.Where(item => string.CompareOrdinal(item.Day, "2026-11-25") < 0), item => Assert.True(item.Eaten));
        Assert.All(items.Where(item => string.CompareOrdinal(item.Day, "2026-11-25") > 0), item => Assert.False(item.Eaten));
        Assert.All((await host.GetAsync("/api/recipes")).AsArray(), recipe => Assert.Equal(0, (int)recipe!["notUnderstood"]!));
    }

    // The front end's types are made from the committed one, so that they need no compiled program.
    [Fact]
    public async Task The_committed_document_of_the_api_is_the_one_served()
    {
        using var host = new Host();
        var served = await host.Http.GetStringAsync("/openapi/v1.json");
        var committed = await File.ReadAllTextAsync(Path.Combine(Repository(), "docs", "openapi.json"));
        Assert.True(served.ReplaceLineEndings("\n").Trim() == committed.ReplaceLineEndings("\n").Trim(),
            "docs/openapi.json is not what the program serves: make it anew with ./tern openapi, and commit it.");
    }

    [Fact]
    public async Task The_document_lists_every_room_and_nothing_is_fetched_from_elsewhere()
    {
        using var host = new Host();
        var paths = (await host.GetAsync("/openapi/v1.json"))["paths"]!.AsObject().Select(path => path.Key).ToList();
        foreach (var room in new[] { "/api/aim/", "/api/foods", "/api/recipes", "/api/plan/", "/api/cook/", "/api/pack/", "/api/keep/",
            "/api/eat/", "/api/calc/recipe", "/api/calc/portions", "/api/calc/day", "/api/calc/parse" })
            Assert.Contains(paths, path => path.StartsWith(room, StringComparison.Ordinal));
        Assert.Equal("ok", (string?)(await host.GetAsync("/health"))["status"]);
        using var docs = await host.Http.GetAsync("/docs/");
        Assert.Equal(200, (int)docs.StatusCode);
        Assert.DoesNotContain("src=\"http", await docs.Content.ReadAsStringAsync());
        Assert.Contains("default-src 'self'", docs.Headers.GetValues("Content-Security-Policy").Single());
    }
}
