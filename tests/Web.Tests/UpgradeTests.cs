using System.IO.Compression;
using System.Text.Json.Nodes;
using LivelyTern.Data.Foods;

namespace LivelyTern.Web.Tests;

/// <summary>
/// A week of the demo as the program at 86d67da left it, with a batch packed from portions, boxes eaten, one locked, a meal out and a
/// party, and everything that
/// program said of it. Today's program takes the file over and says the same, figure by figure.
/// </summary>
public sealed class UpgradeTests
{
    private static GZipStream Fixture(string name) =>
        new GZipStream(File.OpenRead(Path.Combine(AppContext.BaseDirectory, "fixtures", "week-of-86d67da." + name)),
            CompressionMode.Decompress);

    // What was still to be cooked is planned; the state says more than that was said then. Boxes alike were called otherwise.
    private static JsonNode? SaidNow(JsonObject now, string name) => name switch
    {
        "isAhead" => (string?)now["state"] == "planned",
        "alikeWelcome" => now["boxesAlike"],
        "pieces" when now["isLocked"] is not null && now["boxId"] is null => null,

        // What a reserve covers was out then and fits now.
        "position" when now["drawn"] is not null => "over",
        "over" when now["drawn"] is not null => PastMost(now),
        "roomTo" when now["drawn"] is not null => null,
        "fits" when now["bands"] is JsonObject bands => (bool)now["fits"]! && !DrawsReserve(bands),
        "fitDays" when now["days"] is JsonArray days => days.Count(day => (bool)day!["fits"]! && !DrawsReserve(day["bands"]!.AsObject())),
        "reserveDrawn" => now["days"]!.AsArray().Sum(day => PastMost(day!["bands"]?[(string)now["aim"]!["leading"]!])),
        "foods" when now["foods"] is JsonValue foods => (int)foods - (FoodTable.Read().Count - TableThen),
        _ => now[name],
    };

    // The built-in foods of the program before; those that came since are in the house as well.
    private const int TableThen = 500;

    private static decimal PastMost(JsonNode? reading) => ((decimal?)reading?["over"] ?? 0) + ((decimal?)reading?["drawn"] ?? 0);

    private static bool DrawsReserve(JsonObject bands) => bands.Any(band => band.Value!["drawn"] is not null);

    // All that was said then is said now; more may be said beside it. Versions count on where a backup was put back.
    private static void SaysTheSame(JsonNode? then, JsonNode? now, string at, bool isPutBack)
    {
        switch (then)
        {
            case JsonObject members:
                foreach (var (name, value) in members)
                {
                    // What comes in pieces is portioned in whole ones now.
                    if (name is "newGrams" or "figures" && now is JsonObject batch && batch["pieceGrams"] is not null) continue;
                    if (isPutBack && name is "version") continue;
                    SaysTheSame(value, now is JsonObject other ? SaidNow(other, name) : null, $"{at}.{name}", isPutBack);
                }

                break;
            case JsonArray list:
                Assert.True(now is JsonArray there && there.Count == list.Count, $"{at}: {list.Count} then, {now?.ToJsonString()} now");
                for (var i = 0; i < list.Count; i++) SaysTheSame(list[i], now![i], $"{at}[{i}]", isPutBack);
                break;
            default:
                var difference = $"{at}: {then?.ToJsonString() ?? "null"} then, {now?.ToJsonString() ?? "null"} now";
                Assert.True(JsonNode.DeepEquals(then, now), difference);
                break;
        }
    }

    // Opened as the household's own file, or put back as a backup into an empty house.
    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public async Task A_week_of_the_program_before_is_taken_over_whole_with_every_figure(bool isPutBack)
    {
        var path = Path.Combine(Directory.CreateTempSubdirectory("tern-upgrade-").FullName, "tern.db");
        await using (var file = File.Create(path))
        await using (var fixture = Fixture("db.gz")) await fixture.CopyToAsync(file);
        JsonNode then;
        await using (var fixture = Fixture("json.gz")) then = (await JsonNode.ParseAsync(fixture))!;

        using var host = new Host(isPutBack ? null : path);
        if (isPutBack) await Backups.PutBackAsync(host, await File.ReadAllBytesAsync(path));
        void Same(JsonNode? was, JsonNode? now, string at) => SaysTheSame(was, now, at, isPutBack);
        foreach (var (week, day) in then["weeks"]!.AsArray().Zip(["2026-11-18", "2026-11-25", "2026-12-02"])) Same(week,
            await host.GetAsync($"/api/plan/weeks/{day}"), day);
        Same(then["eaters"], await host.GetAsync("/api/aim/eaters"), "eaters");
        foreach (var batch in then["batches"]!.AsArray()) Same(batch, await host.GetAsync($"/api/pack/batches/{batch!["id"]}"),
            (string)batch["name"]!);
        Same(then["recipes"], await host.GetAsync("/api/recipes"), "recipes");
        foreach (var (id, versions) in then["versions"]!.AsObject()) Same(versions,
            await host.GetAsync($"/api/recipes/{id}/versions"), id);
        then["overview"]!.AsObject().Remove("fitDays");
        var overview = await host.GetAsync("/api/overview");
        Same(then["overview"], overview, "overview");
        var week0 = await host.GetAsync("/api/plan/weeks/2026-11-25");
        Assert.Equal((int)week0["eaters"]![0]!["fitDays"]!, (int)overview["fitDays"]!);

        // Its batches are numbered, in the order they were cooked: each box has a label of its own.
        var boxes = (await host.GetAsync("/api/keep"))["groups"]!.AsArray().SelectMany(group => group!["boxes"]!.AsArray())
            .Select(box => (Guid)box!["id"]!).ToList();
        var labels = (await host.PostAsync("/api/labels", new { paper = "a4-3x8", boxIds = boxes }))["pages"]!.AsArray();
        var codes = labels.SelectMany(page => ((string)page!).Split("Code ").Skip(1)).Select(said => said[..said.IndexOf('<')]).ToList();
        Assert.Equal(boxes.Count, codes.Distinct().Count());
        Assert.All(codes, code => Assert.True(LivelyTern.Core.Pack.BoxCode.Read(code).Succeeded, code));

        // And it can be worked on: the first thing that is still to be eaten is.
        var item = week0["eaters"]!.AsArray().SelectMany(eater => eater!["days"]!.AsArray()).SelectMany(one =>
            one!["items"]!.AsArray()).First(one => one!["boxId"] is not null && one["eatenAt"] is null)!;
        await host.MustAsync(HttpMethod.Put, $"/api/eat/items/{item["id"]}", new { eaten = true }, (int)week0["version"]!);
        if (!isPutBack) Assert.Single(Directory.GetFiles(Path.GetDirectoryName(path)!, "tern.before-*.db"));
    }
}
