using LivelyTern.Soak.Commands;

namespace LivelyTern.Web.Tests;

/// <summary>
/// A small share of <c>./tern soak commands</c>: long random days at the real host, by fixed seeds; and several hands at once.
/// </summary>
public sealed class ManyHandsTests
{
    private static readonly string[] Days = ["2026-11-25", "2026-11-26", "2026-11-27", "2026-11-28", "2026-11-29"];

    public static TheoryData<int> Chances => Seeds.Or(1, 2);

    [Theory]
    [MemberData(nameof(Chances))]
    public async Task Whatever_hands_do_nothing_is_lost_doubled_or_changed_behind_their_backs(int seed)
    {
        using var host = new Host();
        var storm = new CommandStorm(host, host.Data, new Random(seed), screensEvery: 6);
        await storm.RunAsync(given => given < 120);
        Assert.InRange(storm.Refused, 5, 100);
        await LookedBackOnAsync(host, storm.Eaters);
        await TakenOutAndPutBackAsync(host);
    }

    // All of it in another house, from either kind of backup: equal table by table, and the week says the same.
    private static async Task TakenOutAndPutBackAsync(Host host)
    {
        var said = (await host.GetAsync($"/api/plan/weeks/{Seen.Monday}"))["eaters"]!.ToJsonString();
        foreach (var backup in new[] { await Backups.JsonOfAsync(host), await Backups.FileOfAsync(host) })
        {
            using var other = new Host();
            await Backups.PutBackAsync(other, backup);
            Backups.AreSame(host.Data, other.Data);
            Assert.Equal(said, (await other.GetAsync($"/api/plan/weeks/{Seen.Monday}"))["eaters"]!.ToJsonString());
        }
    }

    // A week later: planned and all differences are what was eaten, in every measure, and that is what the day itself says.
    private static async Task LookedBackOnAsync(Host host, IReadOnlyList<string> eaters)
    {
        var copy = Path.Combine(Directory.CreateTempSubdirectory("tern-").FullName, "tern.db");
        await OldFile.AskAsync(host.Data, $"VACUUM INTO '{copy}'");
        using var later = new Host(copy, today: "2026-12-02");
        foreach (var eater in eaters)
        {
            var week = await later.GetAsync($"/api/review/week/{eater}/2026-11-25");
            var day = (await host.GetAsync($"/api/eat/{eater}/2026-11-25"))["day"]!;
            foreach (var (measure, one) in week["measures"]!.AsObject())
            {
                var by = week["causes"]!.AsArray().Sum(cause => (decimal?)cause!["by"]![measure]?["value"] ?? 0);
                Assert.Equal((decimal)one!["eatenOfPlanned"]!["value"]!, (decimal)one["planned"]!["value"]! + by, 9);
                Assert.Equal(
                    (decimal)day["eaten"]![measure]!["value"]!, (decimal)week["days"]![2]!["eaten"]![measure]!["value"]!, 9);
            }
        }
    }

    [Fact]
    public async Task One_hand_packs_while_others_lay_and_size_and_every_portion_ends_as_one_box()
    {
        using var host = new Host();
        var (eater, recipe, _) = await host.LaidTableAsync();
        var planned =
            (await host.PostAsync("/api/cook/planned",
            new { day = "2026-11-25", dishes = new[] { new { recipeId = recipe, portions = 6 } } }))[0]!;
        var id = (string)planned["id"]!;
        var cooked = await host.PostAsync($"/api/cook/planned/{id}/cooked", null, (int)planned["version"]!);
        foreach (var day in Days.Take(3)) await host.PostAsync("/api/plan/portions", new { batchId = id, eaterId = eater, day },
            await host.PlanVersionAsync());

        async Task<int> LayAsync(int i)
        {
            var version = await host.PlanVersionAsync();
            return i % 2 == 0
                ? (await host.SendAsync(HttpMethod.Post, "/api/plan/portions", new { batchId = id, eaterId = eater, day = Days[i % 5] },
                    version)).Status
                : (await host.SendAsync(HttpMethod.Put, "/api/plan/portions", new { batchId = id, eaterId = eater, grams = 100 + i },
                    version)).Status;
        }

        var hands = Enumerable.Range(0, 8).Select(i => Task.Run(() => LayAsync(i))).ToList();
        var packing = Task.Run(async () =>
            (await host.SendAsync(HttpMethod.Post, $"/api/pack/batches/{id}/boxes", new { fullGrams = 1000, panGrams = 100, boxes = 12 },
            (int)cooked["version"]!)).Status);
        var statuses = await Task.WhenAll([.. hands, packing]);
        Assert.All(statuses, status =>
            Assert.True(status is 200 or 404 or 409 or 412 or 422, status.ToString(System.Globalization.CultureInfo.InvariantCulture)));
        if (await packing != 200) await host.PostAsync($"/api/pack/batches/{id}/boxes",
            new { fullGrams = 1000, panGrams = 100, boxes = 12 }, (int)(await host.GetAsync($"/api/pack/batches/{id}"))["version"]!);

        var week = await host.GetAsync($"/api/plan/weeks/{Seen.Monday}");
        var items = week["eaters"]!.AsArray().SelectMany(one => one!["days"]!.AsArray()).SelectMany(day =>
            day!["items"]!.AsArray()).ToList();
        Assert.InRange(items.Count, 3, 7);
        Assert.All(items, item => Assert.True(item!["boxId"] is not null && item["batchId"] is null));
        Assert.Equal(12, (await host.GetAsync($"/api/pack/batches/{id}"))["boxes"]!.AsArray().Count);
        Assert.Equal(items.Count, items.Select(item => (string)item!["boxId"]!).Distinct().Count());
    }

    [Fact]
    public async Task A_file_from_before_batches_were_planned_keeps_every_box_on_its_day()
    {
        var path = await OldFile.LayAsync("AimAndPlan", """
            INSERT INTO Eaters (Id, Name, Aim, ClinicianSetIt, Position, Version) VALUES ('01A00000-0000-7000-8000-0000000000E1', 'Isa', '{"leading":"energy","bands":{"energy":{"min":1450,"target":null,"max":1600}},"rule":null}', 0, 0, 1);
            INSERT INTO Recipes (Id, Name, Letters, Tint, Portions, ChangedAt, Version) VALUES ('01A00000-0000-7000-8000-0000000000A1', 'Old bake', 'OB', 0, 4, 0, 1);
            INSERT INTO Batches (Id, RecipeId, RecipeName, Letters, Tint, CookedOn, Portions, Contents, PanGrams, FullGrams, Version)
              VALUES ('01A00000-0000-7000-8000-0000000000B1', '01A00000-0000-7000-8000-0000000000A1', 'Old bake', 'OB', 0, '2026-11-24', 2, '{"ingredients":[],"somethingUnread":false}', '100', '700', 1);
            INSERT INTO Boxes (Id, BatchId, Number, Grams) VALUES ('01A00000-0000-7000-8000-0000000000C1', '01A00000-0000-7000-8000-0000000000B1', 1, '300'), ('01A00000-0000-7000-8000-0000000000C2', '01A00000-0000-7000-8000-0000000000B1', 2, '300');
            INSERT INTO PlanItems (Id, EaterId, Day, Position, BoxId, IsLocked, IsFitted) VALUES ('01A00000-0000-7000-8000-0000000000D1', '01A00000-0000-7000-8000-0000000000E1', '2026-11-26', 0, '01A00000-0000-7000-8000-0000000000C1', 1, 0);
            """);
        using var upgraded = new Host(path);
        var week = await upgraded.GetAsync($"/api/plan/weeks/{Seen.Monday}");
        var item = week["eaters"]![0]!["days"]![3]!["items"]![0]!;
        Assert.Equal(("01a00000-0000-7000-8000-0000000000c1", 300m, true),
            ((string)item["boxId"]!, (decimal)item["grams"]!, (bool)item["isLocked"]!));
        Assert.Equal("01a00000-0000-7000-8000-0000000000c2",
            (string)Assert.Single(Assert.Single(week["shelf"]!.AsArray())!["boxIds"]!.AsArray())!);
        Assert.Empty(week["unpacked"]!.AsArray());
        await upgraded.MustAsync(HttpMethod.Delete, $"/api/plan/items/{item["id"]}", null, (int)week["version"]!);
        Assert.Equal(2, (await upgraded.GetAsync($"/api/plan/weeks/{Seen.Monday}"))["shelf"]![0]!["boxIds"]!.AsArray().Count);
    }
}
