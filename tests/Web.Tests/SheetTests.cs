using System.Globalization;
using System.IO.Compression;
using System.Text.Json.Nodes;
using Microsoft.VisualBasic.FileIO;

namespace LivelyTern.Web.Tests;

/// <summary>Tables for a spreadsheet, read by a reader that is not ours (the framework's <see cref="TextFieldParser"/>).</summary>
public sealed class SheetTests
{
    [Fact]
    public async Task What_was_eaten_adds_up_to_what_the_days_say()
    {
        using var host = new Host(demo: true);
        var eaters = (await host.GetAsync("/api/aim/eaters")).AsArray();
        var rows = await SheetAsync(host, "entries");
        Assert.True(rows.Count > 2000);
        foreach (var eater in eaters)
        {
            foreach (var day in new[] { "2026-11-23", "2026-11-24", "2026-11-25", "2026-10-07" })
            {
                var eaten = (await host.GetAsync($"/api/eat/{eater!["id"]}/{day}"))["day"]!["eaten"]!;
                var own = rows.Where(row => row["eater"] == (string)eater["name"]! && row["day"] == day).ToList();
                Assert.NotEmpty(own);
                foreach (var (column, measure) in new[] { ("energy_kcal", "energy"), ("protein_g", "protein"), ("salt_g", "salt") })
                    Assert.Equal((decimal)eaten[measure]!["value"]!, own.Sum(row => Number(row[column])), 6);
                Assert.Equal((bool)eaten["salt"]!["complete"]!, own.TrueForAll(row => !row["not_wholly_known"].Contains("salt_g")));
            }
        }
    }

    [Fact]
    public async Task Boxes_plan_and_weigh_ins_are_those_of_the_screens()
    {
        using var host = new Host(demo: true);
        var shelves = (await host.GetAsync("/api/keep"))["groups"]!.AsArray().SelectMany(group => group!["boxes"]!.AsArray());
        var boxes = await SheetAsync(host, "boxes");
        // A table has whole milligrams; a box of counted pieces weighs its exact share.
        var onShelves = shelves.Sum(box => (decimal)box!["grams"]!);
        Assert.InRange(
            boxes.Where(box => box["state"] == "Packed").Sum(box => Number(box["grams"])), onShelves - 0.03m, onShelves + 0.03m);
        Assert.All(boxes, box => Assert.True(LivelyTern.Core.Pack.BoxCode.Read(box["box"]).Succeeded));

        var plan = await SheetAsync(host, "plan");
        var week = await host.GetAsync("/api/plan/weeks/2026-11-25");
        foreach (var eater in week["eaters"]!.AsArray())
        {
            foreach (var day in eater!["days"]!.AsArray())
                Assert.Equal(
                    day!["items"]!.AsArray().Count,
                    plan.Count(row => row["day"] == (string)day["day"]! && row["eater"] == (string)eater["name"]!));
        }

        var first = week["eaters"]![0]!;
        var weighIns = await SheetAsync(host, "weighIns", $"?eaterId={first["eaterId"]}");
        var body = (await host.GetAsync($"/api/review/body/{first["eaterId"]}"))["weighIns"]!.AsArray();
        Assert.Equal(body.Count, weighIns.Count);
        Assert.All(weighIns, row => Assert.Equal((string)first["name"]!, row["eater"]));
    }

    [Fact]
    public async Task Odd_names_come_through_and_nothing_in_them_is_worked_out_by_a_spreadsheet()
    {
        using var host = new Host();
        var eater = await host.PostAsync(
            "/api/aim/eaters",
            new
            {
                name = "Bo \"B\", the\u00a0one",
                aim = new { leading = "energy", bands = new { energy = new { max = 2000 } }, rule = (object?)null },
            });
        await host.PostAsync(
            "/api/plan/events",
            new
            {
                eaterId = eater["id"],
                day = "2026-11-25",
                name = "=SUM(A1)",
                items = new[] { new { name = "soup", figures = new { energy = 250 } } },
            }, await host.PlanVersionAsync());
        var rows = await SheetAsync(host, "plan");
        Assert.Equal(("Bo \"B\", the\u00a0one", "'=SUM(A1)"), (rows[0]["eater"], rows[0]["name"]));
        Assert.Equal(404, (await host.SendAsync(HttpMethod.Get, "/api/backup/sheets/robots.csv")).Status);
    }

    [Fact]
    public async Task What_is_one_eaters_own_goes_along_whole_and_nobody_elses_with_it()
    {
        using var host = new Host(demo: true);
        var eaters = (await host.GetAsync("/api/aim/eaters")).AsArray();
        var (own, other) = (eaters[0]!, eaters[1]!);
        await using var stream = await host.Http.GetStreamAsync($"/api/backup/eaters/{own["id"]}");
        using var bytes = new MemoryStream();
        await stream.CopyToAsync(bytes);
        await using var zip = new ZipArchive(bytes);
        Assert.Equal(
            ["boxes.csv", "entries.csv", "own.json", "plan.csv", "weighIns.csv"], zip.Entries.Select(entry => entry.FullName).Order());
        using var reader = new StreamReader(await zip.GetEntry("own.json")!.OpenAsync());
        var text = await reader.ReadToEndAsync();
        var tables = JsonNode.Parse(text)!["tables"]!.AsObject();
        Assert.Equal((string)own["name"]!, (string)tables["eaters"]!.AsArray().Single()!["name"]!);
        Assert.DoesNotContain((string)other["id"]!, text, StringComparison.OrdinalIgnoreCase);

        // Of each table that says whose a row is, all of theirs.
        foreach (var table in new[] { "Entries", "WeighIns", "PlanItems", "PlannedDays", "Aims", "Verdicts" })
        {
            var count = await OldFile.AskAsync(
                host.Data, $"SELECT CAST(count(*) AS TEXT) FROM {table} WHERE EaterId = '{((string)own["id"]!).ToUpperInvariant()}'");
            var taken = tables[char.ToLowerInvariant(table[0]) + table[1..]]!.AsArray();
            Assert.Equal(int.Parse(count[0], CultureInfo.InvariantCulture), taken.Count);
        }

        // It is no backup, and is not taken for one.
        Assert.Equal(422, (await Backups.LookAsync(host, System.Text.Encoding.UTF8.GetBytes(text))).Status);
    }

    private static decimal Number(string text) => text.Length == 0 ? 0 : decimal.Parse(text, CultureInfo.InvariantCulture);

    private static async Task<List<Dictionary<string, string>>> SheetAsync(Host host, string name, string asked = "")
    {
        await using var stream = await host.Http.GetStreamAsync($"/api/backup/sheets/{name}.csv{asked}");
        using var parser = new TextFieldParser(stream) { HasFieldsEnclosedInQuotes = true, TrimWhiteSpace = false };
        parser.SetDelimiters(",");
        var header = parser.ReadFields()!;
        var rows = new List<Dictionary<string, string>>();
        while (!parser.EndOfData)
        {
            var fields = parser.ReadFields()!;
            Assert.Equal(header.Length, fields.Length);
            rows.Add(header.Zip(fields).ToDictionary(pair => pair.First, pair => pair.Second));
        }

        return rows;
    }
}
