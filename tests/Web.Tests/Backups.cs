using System.Globalization;
using System.Net.Http.Headers;
using System.Text.Json.Nodes;
using LivelyTern.Data.Backup;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Web.Tests;

/// <summary>Backups taken and put back through the API, and files held against each other past the program.</summary>
internal static class Backups
{
    public static Task<byte[]> JsonOfAsync(Host host) => host.Http.GetByteArrayAsync("/api/backup");

    public static Task<byte[]> FileOfAsync(Host host) => host.Http.GetByteArrayAsync("/api/backup/file");

    public static async Task<(int Status, JsonNode Body)> LookAsync(Host host, byte[] backup, string name = "backup.json")
    {
        using var content = new ByteArrayContent(backup);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        using var answer = await host.Http.PostAsync($"/api/backup/restores?name={name}", content);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    /// <summary>Looks at a backup, which must be fit, and puts it in the place of what is there.</summary>
    public static async Task<JsonNode> PutBackAsync(Host host, byte[] backup)
    {
        var (status, look) = await LookAsync(host, backup);
        Assert.True(status == 200, look.ToJsonString());
        return await host.PostAsync($"/api/backup/restores/{look["id"]}/apply", null);
    }

    public static JsonNode Of(JsonNode look, string kind) =>
        look["differences"]!.AsArray().Single(difference => (string)difference!["kind"]! == kind)!;

    /// <summary>All rows of all tables, as text; but for the counts by which hands on one thing are told apart.</summary>
    public static SortedDictionary<string, List<string>> RowsOf(string path)
    {
        var tables = new SortedDictionary<string, List<string>>(StringComparer.Ordinal);
        using var file = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = path, Pooling = false }.ToString());
        file.Open();
        foreach (var table in TablesOf(path).Where(name => name is not "EaterDays" and not "PlanVersions"))
        {
            using var command = file.CreateCommand();
            command.CommandText = $"SELECT * FROM \"{table}\"";
            using var rows = command.ExecuteReader();
            var counted = Enumerable.Range(0, rows.FieldCount)
                .Where(at => rows.GetName(at) != "Version" || table == "RecipeVersions").ToList();
            var found = tables[table] = [];
            while (rows.Read()) found.Add(string.Join('|', counted.Select(at => $"{rows.GetName(at)}={Text(rows.GetValue(at))}")));
            found.Sort(StringComparer.Ordinal);
        }

        return tables;
    }

    /// <summary>The names of all tables that hold rows of somebody's.</summary>
    public static List<string> TablesOf(string path)
    {
        using var file = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = path, Pooling = false }.ToString());
        file.Open();
        using var command = file.CreateCommand();
        command.CommandText = "SELECT name FROM pragma_table_list WHERE schema = 'main' AND type = 'table' "
            + "AND name NOT IN ('__EFMigrationsHistory', '__EFMigrationsLock', 'sqlite_schema')";
        using var rows = command.ExecuteReader();
        var names = new List<string>();
        while (rows.Read()) names.Add(rows.GetString(0));
        return names;
    }

    public static void AreSame(string one, string other)
    {
        var (these, those) = (RowsOf(one), RowsOf(other));
        Assert.Equal(these.Keys, those.Keys);
        foreach (var (table, rows) in these) Assert.True(rows.SequenceEqual(those[table]), Said(table, rows, those[table]));
    }

    private static string Said(string table, List<string> these, List<string> those) =>
        $"{table}: only here {string.Join("; ", these.Except(those).Take(3))}, only there {string.Join("; ", those.Except(these).Take(3))}";

    private static string Text(object value) => value switch
    {
        DBNull => "null",
        double real => "r" + real.ToString("R", CultureInfo.InvariantCulture),
        long whole => "i" + whole.ToString(CultureInfo.InvariantCulture),
        _ => "t" + value,
    };

    /// <summary>Every table is one that a restore compares, or is known to serve those.</summary>
    public static IReadOnlyCollection<string> Compared => Differences.Tables;
}
