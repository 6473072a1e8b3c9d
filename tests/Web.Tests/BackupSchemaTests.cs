using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using LivelyTern.Data.Disk;
using LivelyTern.Data;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;

namespace LivelyTern.Web.Tests;

/// <summary>
/// The JSON Schema of a backup, as it is published in <c>docs/backup.schema.json</c>: what each table and column holds, in the words of the
/// rows themselves. It is made anew from them with <c>TERN_WRITE_DOCS=1</c>. That what the program writes keeps to it is looked at by a
/// validator from elsewhere, in <c>tests/e2e/specs/backup.spec.ts</c>.
/// </summary>
public sealed partial class BackupSchemaTests
{
    private static readonly JsonSerializerOptions Readable = new()
    {
        WriteIndented = true,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    [Fact]
    public async Task The_published_schema_is_that_of_what_is_kept()
    {
        using var host = new Host();
        await using var db = new TernDb(new DbContextOptionsBuilder<TernDb>().UseSqlite(TernFile.ConnectionString(host.Data)).Options);
        var schema = SchemaOf(db.Model, (await db.Database.GetAppliedMigrationsAsync()).Last()).ToJsonString(Readable) + "\n";
        var file = Path.Combine(HouseTests.Repository(), "docs", "backup.schema.json");
        if (Environment.GetEnvironmentVariable("TERN_WRITE_DOCS") == "1") await File.WriteAllTextAsync(file, schema);
        Assert.Equal(schema, await File.ReadAllTextAsync(file));
    }

    private static JsonObject SchemaOf(IModel model, string shape)
    {
        var words = Words();
        var tables = model.GetEntityTypes().GroupBy(type => type.GetTableName()!).Where(table => table.Key is not null)
            .OrderBy(table => table.Key, StringComparer.Ordinal)
            .Select(table => (Camel(table.Key), TableOf(table.First(), words))).ToList();
        tables.Add(("sqlite_sequence", Sequence()));
        return new JsonObject
        {
            ["$schema"] = "http://json-schema.org/draft-07/schema#",
            ["title"] = "A full backup of Lively Tern",
            ["description"] = "All that a household keeps. A member that holds nothing is left out. How it is read back: docs/backup.md.",
            ["type"] = "object",
            ["additionalProperties"] = false,
            ["required"] = new JsonArray("format", "version", "shape", "madeAt", "tables"),
            ["properties"] = new JsonObject
            {
                ["format"] = new JsonObject { ["const"] = "lively-tern-backup" },
                ["version"] = new JsonObject { ["description"] = "The version of this format.", ["const"] = 1 },
                ["shape"] = new JsonObject
                {
                    ["description"] = "Which tables and columns there are: the name of the last change of their shape. "
                        + "An older one is brought up to date when it is read back.",
                    ["const"] = shape,
                },
                ["madeAt"] = new JsonObject { ["type"] = "string", ["format"] = "date-time" },
                ["tables"] = new JsonObject
                {
                    ["type"] = "object",
                    ["additionalProperties"] = false,
                    ["required"] = new JsonArray([.. tables.Select(table => (JsonNode)table.Item1)]),
                    ["properties"] = new JsonObject(tables.Select(table => KeyValuePair.Create(table.Item1, (JsonNode?)table.Item2))),
                },
            },
        };
    }

    private static JsonObject TableOf(IEntityType type, Dictionary<string, string> words)
    {
        var columns = type.GetProperties().ToList();
        return Array(WordOf(type.ClrType, null, words), new JsonObject
        {
            ["type"] = "object",
            ["additionalProperties"] = false,
            ["required"] = new JsonArray(
                [.. columns.Where(column => !column.IsNullable).Select(column => (JsonNode)Camel(column.GetColumnName()))]),
            ["properties"] = new JsonObject(columns.Select(column => KeyValuePair.Create(
                Camel(column.GetColumnName()), (JsonNode?)ColumnOf(column, WordOf(type.ClrType, column.Name, words))))),
        });
    }

    private static JsonObject Sequence() => Array("How far SQLite has counted its own ids.", new JsonObject
    {
        ["type"] = "object",
        ["additionalProperties"] = false,
        ["required"] = new JsonArray("name", "seq"),
        ["properties"] = new JsonObject
        {
            ["name"] = new JsonObject { ["type"] = "string" },
            ["seq"] = new JsonObject { ["type"] = "integer" },
        },
    });

    private static JsonObject Array(string? said, JsonObject row)
    {
        Assert.NotNull(said);
        return new() { ["description"] = said, ["type"] = "array", ["items"] = row };
    }

    private static JsonObject ColumnOf(IProperty column, string? said)
    {
        var column0 = new JsonObject();
        if (said is not null) column0["description"] = said;
        var type = Nullable.GetUnderlyingType(column.ClrType) ?? column.ClrType;
        foreach (var (name, value) in ShapeOf(column, type)) column0[name] = value?.DeepClone();
        return column0;
    }

    private static JsonObject ShapeOf(IProperty column, Type type)
    {
        if (type == typeof(DateTimeOffset)) return new() { ["type"] = "string", ["format"] = "date-time" };
        if (type == typeof(DateOnly)) return new() { ["type"] = "string", ["pattern"] = @"^\d{4}-\d{2}-\d{2}$" };
        if (type == typeof(Guid)) return new() { ["type"] = "string", ["pattern"] = "^[0-9A-F]{8}(-[0-9A-F]{4}){3}-[0-9A-F]{12}$" };
        if (type == typeof(bool)) return new() { ["type"] = "boolean" };
        if (type == typeof(decimal)) return new() { ["type"] = "string", ["pattern"] = @"^-?\d+(\.\d+)?$" };
        if (type == typeof(double)) return new() { ["type"] = "number" };

        // Of more than 53 bits it is text.
        if (type == typeof(long)) return new() { ["type"] = new JsonArray("integer", "string"), ["pattern"] = @"^-?\d+$" };
        if (type == typeof(int)) return new() { ["type"] = "integer" };
        if (type.IsEnum) return column.GetColumnType() == "INTEGER" ? Numbered(type) : Named(type);
        if (type == typeof(string)) return new() { ["type"] = IsJson(column) ? new JsonArray("object", "array", "string") : "string" };
        return new() { ["type"] = column.GetColumnType() == "TEXT" ? new JsonArray("object", "array") : "integer" };
    }

    private static bool IsJson(IProperty column) => (column.DeclaringType.ClrType.Name, column.Name) is
        ("FoodRecordRow", "Stored") or ("RecipeRow", "Changes") or ("RecipeRow", "Steps") or ("RecipeVersionRow", "Portion");

    private static JsonObject Named(Type type) =>
        new() { ["type"] = "string", ["enum"] = new JsonArray([.. Enum.GetNames(type).Select(name => (JsonNode)name)]) };

    private static JsonObject Numbered(Type type) => new()
    {
        ["type"] = "integer",
        ["$comment"] = string.Join(", ", Enum.GetValues(type).Cast<object>().Select(value => $"{Convert.ToInt64(value)} {value}")),
    };

    private static string Camel(string name) => char.ToLowerInvariant(name[0]) + name[1..];

    // What the rows say of themselves where they are declared.
    private static Dictionary<string, string> Words()
    {
        var file = XDocument.Load(Path.Combine(AppContext.BaseDirectory, "LivelyTern.Data.xml"));
        return file.Descendants("member").Where(member => member.Element("summary") is not null)
            .GroupBy(member => member.Attribute("name")!.Value)
            .ToDictionary(group => group.Key, group => Plain(group.First().Element("summary")!), StringComparer.Ordinal);
    }

    private static string Plain(XElement summary)
    {
        foreach (var see in summary.Descendants().Where(element => element.Attribute("cref") is not null).ToList())
            see.ReplaceWith(see.Attribute("cref")!.Value.Split('.', ':')[^1].Split('(')[0]);
        return Spaces().Replace(summary.Value, " ").Trim();
    }

    private static string? WordOf(Type row, string? property, Dictionary<string, string> words) =>
        words.GetValueOrDefault(property is null ? $"T:{row.FullName}" : $"P:{row.FullName}.{property}");

    [GeneratedRegex(@"\s+")]
    private static partial Regex Spaces();
}
