using System.Text;
using System.Text.Json.Nodes;

namespace LivelyTern.Web.Tests;

/// <summary>An eater is erased: nothing of theirs is left in the file, and nothing of anybody else's is missing.</summary>
public sealed class EraseTests
{
    private const string OnDays =
        "SELECT count(*) || ' boxes, of ' || count(Milligrams) || ' a part: ' || sum(Milligrams) FROM PlanItems WHERE BoxId IS NOT NULL";

    [Fact]
    public async Task Nothing_of_one_who_is_erased_is_left_and_nothing_of_the_others_is_missing()
    {
        using var host = new Host(demo: true);
        var eaters = (await host.GetAsync("/api/aim/eaters")).AsArray();
        var (gone, other) = (eaters[2]!, eaters[0]!);
        var (id, name) = ((Guid)gone["id"]!, (string)gone["name"]!);
        var day = $"/api/plan/weeks/2026-11-25";

        // Not while boxes lie ahead of them, and not by a slip.
        var (status, answer) = await EraseAsync(host, id, name);
        Assert.Equal((409, "urn:lively-tern:problem:eater-has-boxes"), (status, (string)answer["type"]!));
        await TakeOffAsync(host, id);
        await host.PostAsync(
            "/api/plan/entries", new { text = "half a lentil box", eaterId = id, day = "2026-11-25", eaten = true },
            await host.PlanVersionAsync());
        (status, answer) = await EraseAsync(host, id, "Somebody else");
        Assert.Equal((422, "name"), (status, (string)answer["field"]!));

        var before = await OthersAsync(host, other);
        var boxes = await OldFile.AskAsync(host.Data, "SELECT Id || State || Place FROM Boxes ORDER BY Id");
        var eaten = await OldFile.AskAsync(host.Data, OnDays);
        (status, answer) = await EraseAsync(host, id, $" {name.ToUpperInvariant()} ");
        Assert.True(status == 200, answer.ToJsonString());
        Assert.True((int)answer["entries"]! > 500);

        // In no table, in no free page, and not in the log beside the file.
        var bytes = Encoding.Latin1.GetString(await ReadAsync(host.Data)) + Encoding.Latin1.GetString(await ReadAsync(host.Data + "-wal"));
        Assert.DoesNotContain(id.ToString(), bytes, StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain(id.ToString(), Encoding.UTF8.GetString(await Backups.JsonOfAsync(host)), StringComparison.OrdinalIgnoreCase);
        Assert.Equal(2, (await host.GetAsync("/api/aim/eaters")).AsArray().Count);
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Get, $"/api/backup/eaters/{id}")).Status);
        Assert.DoesNotContain((await host.GetAsync("/api/backup/eaters")).AsArray(), one => (string)one!["name"]! == name);

        // All else stands as it stood: the days of the others, every box, every gram of one that was eaten.
        Assert.Equal(before, await OthersAsync(host, other));
        Assert.Equal(boxes, await OldFile.AskAsync(host.Data, "SELECT Id || State || Place FROM Boxes ORDER BY Id"));
        Assert.Equal(eaten, await OldFile.AskAsync(host.Data, OnDays));
        Soak.Commands.Invariants.StatesFollowEvents(host.Data);
        Assert.Equal(200, (await host.SendAsync(HttpMethod.Get, day)).Status);

        // The ledger is guarded again, and a start finds nothing to catch up with.
        await Assert.ThrowsAsync<Microsoft.Data.Sqlite.SqliteException>(() => OldFile.WriteAsync(host.Data, "DELETE FROM Entries"));
        var entries = await OldFile.AskAsync(host.Data, "SELECT Id FROM Entries ORDER BY Id");
        using var again = new Host(await CopyAsync(host), demo: true);
        Assert.Equal(entries, await OldFile.AskAsync(again.Data, "SELECT Id FROM Entries ORDER BY Id"));
        (status, _) = await EraseAsync(host, id, name);
        Assert.Equal(404, status);

        // A second one is somebody too; and whoever stands for them is nobody to be erased.
        var second = eaters[1]!;
        await TakeOffAsync(host, (Guid)second["id"]!);
        (status, answer) = await EraseAsync(host, (Guid)second["id"]!, (string)second["name"]!);
        Assert.True(status == 200, answer.ToJsonString());
        Soak.Commands.Invariants.StatesFollowEvents(host.Data);
        Assert.Equal(404, (await EraseAsync(host, new Guid("00000000-0000-0000-0000-000000000001"), "somebody")).Status);
        await Backups.PutBackAsync(again, await Backups.JsonOfAsync(host));
        Backups.AreSame(host.Data, again.Data);
    }

    [Fact]
    public async Task Copies_that_still_hold_them_go_too_where_that_is_wished()
    {
        using var host = new Host(playClock: true);
        var eater = await host.PostAsync(
            "/api/aim/eaters",
            new { name = "Bo", aim = new { leading = "energy", bands = new { energy = new { max = 2000 } }, rule = (object?)null } });
        for (var day = 0; day < 3; day++)
        {
            await host.PostAsync("/api/backup/copies", null);
            await host.PostAsync("/api/demo/pass", new { minutes = 1440 });
        }

        var erased = await host.PostAsync($"/api/backup/eaters/{eater["id"]}/erase", new { name = "Bo", copiesToo = true });
        Assert.Equal(0, (int)erased["entries"]!);
        var copies = (await host.GetAsync("/api/backup/copies"))["copies"]!.AsArray();
        var look = await host.PostAsync($"/api/backup/restores/copies/{copies.Single()!["name"]}", null);
        Assert.True((bool)look["isSame"]!);
    }

    private static Task<(int Status, JsonNode Body)> EraseAsync(Host host, Guid id, string name) =>
        host.SendAsync(HttpMethod.Post, $"/api/backup/eaters/{id}/erase", new { name, copiesToo = false });

    // What lies ahead of them comes off their days.
    private static async Task TakeOffAsync(Host host, Guid id)
    {
        foreach (var week in new[] { "2026-11-25", "2026-12-02" })
        {
            var days = (await host.GetAsync($"/api/plan/weeks/{week}"))["eaters"]!.AsArray().First(one => (Guid)one!["eaterId"]! == id)!;
            var items = days["days"]!.AsArray().SelectMany(day => day!["items"]!.AsArray());
            foreach (var item in items.Where(item => item!["eatenAt"] is null))
                await host.MustAsync(HttpMethod.Delete, $"/api/plan/items/{item!["id"]}", null, await host.PlanVersionAsync());
        }
    }

    private static async Task<string> OthersAsync(Host host, JsonNode other)
    {
        var said = new StringBuilder();
        foreach (var day in new[] { "2026-11-23", "2026-11-25", "2026-10-07" })
            said.Append(await host.GetAsync($"/api/eat/{other["id"]}/{day}"));
        said.Append(await host.GetAsync($"/api/review/week/{other["id"]}/2026-11-18"));
        said.Append(await host.GetAsync($"/api/review/body/{other["id"]}"));
        var boxes = (await host.GetAsync("/api/keep"))["groups"]!.AsArray().SelectMany(group => group!["boxes"]!.AsArray());
        return said.AppendJoin(';', boxes.Select(box => $"{box!["id"]} {box["grams"]} {box["day"]}")).ToString();
    }

    private static async Task<byte[]> ReadAsync(string path)
    {
        if (!File.Exists(path)) return [];
        await using var file = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        using var all = new MemoryStream();
        await file.CopyToAsync(all);
        return all.ToArray();
    }

    private static async Task<string> CopyAsync(Host host)
    {
        var copy = Path.Combine(Directory.CreateTempSubdirectory("tern-").FullName, "tern.db");
        await File.WriteAllBytesAsync(copy, await Backups.FileOfAsync(host));
        return copy;
    }
}
