using System.Buffers;
using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Recipes;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Storage;

namespace LivelyTern.Data.Backup;

/// <summary>
/// All that is kept, as one JSON document: a head, then each table with its rows, one a line (<c>docs/backup.md</c>, and its JSON Schema
/// beside it). It is one reading: the file as it stood at one moment, whatever is written meanwhile.
/// </summary>
public sealed class BackupWriter(TernDb db, TimeProvider clock)
{
    private const int Piece = 1 << 16;
    private const long MostSafe = (1L << 53) - 1;

    private static readonly JsonSerializerOptions HeadOptions = new(JsonSerializerDefaults.Web);

    // Letters of all scripts stay as they are: it is a file, not part of a page.
    private static readonly JsonWriterOptions RowOptions = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    private enum Kind
    {
        Plain,
        Instant,
        Flag,
        Json,
    }

    /// <summary>Writes it.</summary>
    /// <param name="to">Where to; left open.</param>
    /// <param name="stop">Ends the writing.</param>
    public Task WriteAsync(Stream to, CancellationToken stop) => WriteAsync(to, BackupHead.Name, null, stop);

    /// <summary>
    /// Writes what is kept about one eater, in the same way: their row, and the rows of each table that name them. It is theirs to take
    /// along, not a backup.
    /// </summary>
    /// <param name="to">Where to; left open.</param>
    /// <param name="eaterId">Whose.</param>
    /// <param name="stop">Ends the writing.</param>
    public Task WriteOfAsync(Stream to, Guid eaterId, CancellationToken stop) => WriteAsync(to, BackupHead.OfEater, eaterId, stop);

    private async Task WriteAsync(Stream to, string format, Guid? eaterId, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(to);
        await using var reading = await db.ReadOnceAsync();
        var file = (SqliteConnection)db.Database.GetDbConnection();
        var shape = (await db.Database.GetAppliedMigrationsAsync(stop)).Last();
        var head = new BackupHead(format, BackupHead.Newest, shape, clock.GetUtcNow());
        var kinds = KindsOf(db.Model);
        var buffer = new ArrayBufferWriter<byte>(2 * Piece);
        await using var row = new Utf8JsonWriter(buffer, RowOptions);
        Put(buffer, JsonSerializer.Serialize(head, HeadOptions)[..^1] + ",\"tables\":{");
        var tables = KeptTable.AllOf(file).Where(table => eaterId is null || WhoIn(table) is not null).ToList();
        for (var at = 0; at < tables.Count; at++)
        {
            var table = tables[at];
            Put(buffer, $"{(at == 0 ? "" : ",")}\n\"{table.InBackup}\":[");
            var kindOf = table.Columns.Select(column => kinds.GetValueOrDefault((table.Name, column.Name))).ToArray();
            await using var select = file.CreateCommand();
            select.Transaction = (SqliteTransaction?)db.Database.CurrentTransaction?.GetDbTransaction();
            select.CommandText = $"SELECT {table.ColumnList} FROM {KeptTable.Quoted(table.Name)}";
            if (eaterId is { } whose)
            {
                select.CommandText += $" WHERE {WhoIn(table)} = $whose";
                select.Parameters.AddWithValue("$whose", whose);
            }

            await using var rows = await select.ExecuteReaderAsync(stop);
            for (var isFirst = true; await rows.ReadAsync(stop); isFirst = false)
            {
                Put(buffer, isFirst ? "\n" : ",\n");
                row.Reset(buffer);
                WriteRow(row, table, kindOf, rows);
                await row.FlushAsync(stop);
                if (buffer.WrittenCount < Piece) continue;
                await to.WriteAsync(buffer.WrittenMemory, stop);
                buffer.ResetWrittenCount();
            }

            Put(buffer, "]");
        }

        Put(buffer, "}}\n");
        await to.WriteAsync(buffer.WrittenMemory, stop);
        await to.FlushAsync(stop);
    }

    // The column that says whose a row is.
    private static string? WhoIn(KeptTable table) => table.Name is "Eaters"
        ? "Id"
        : table.Columns.Select(column => column.Name).FirstOrDefault(name => name is "EaterId" or "ForId" or "CookId");

    private static void Put(ArrayBufferWriter<byte> buffer, string text) => Encoding.UTF8.GetBytes(text, buffer);

    private static void WriteRow(Utf8JsonWriter row, KeptTable table, Kind[] kinds, SqliteDataReader from)
    {
        row.WriteStartObject();
        for (var at = 0; at < table.Columns.Count; at++)
        {
            if (from.IsDBNull(at)) continue;
            row.WritePropertyName(table.Columns[at].InBackup);
            switch (table.Columns[at].Holds)
            {
                case Holds.Real:
                    row.WriteNumberValue(from.GetDouble(at));
                    break;
                case Holds.Whole:
                    WriteWhole(row, kinds[at], from.GetInt64(at));
                    break;
                default:
                    WriteText(row, kinds[at], from.GetString(at));
                    break;
            }
        }

        row.WriteEndObject();
    }

    private static void WriteWhole(Utf8JsonWriter row, Kind kind, long value)
    {
        if (kind == Kind.Instant && value >= 0 && value <= DateTime.MaxValue.Ticks)
            row.WriteStringValue(new DateTime(value, DateTimeKind.Utc).ToString("O", CultureInfo.InvariantCulture));
        else if (kind == Kind.Flag && value is 0 or 1) row.WriteBooleanValue(value == 1);

        // Many readers of JSON know numbers of 53 bits only.
        else if (value is > MostSafe or < -MostSafe) row.WriteStringValue(value.ToString(CultureInfo.InvariantCulture));
        else row.WriteNumberValue(value);
    }

    private static void WriteText(Utf8JsonWriter row, Kind kind, string value)
    {
        if (kind == Kind.Json && IsOneValue(value)) row.WriteRawValue(value, skipInputValidation: true);
        else row.WriteStringValue(value);
    }

    // An object or a list and nothing around it: what is read back is then the same to the letter.
    private static bool IsOneValue(string text)
    {
        if (text is not ['{', .., '}'] and not ['[', .., ']']) return false;
        var reader = new Utf8JsonReader(Encoding.UTF8.GetBytes(text));
        try
        {
            while (reader.Read()) { }
            return true;
        }
        catch (JsonException)
        {
            return false;
        }
    }

    private static Dictionary<(string Table, string Column), Kind> KindsOf(IModel model) =>
        model.GetEntityTypes().Where(type => type.GetTableName() is not null)
            .SelectMany(type => type.GetProperties().Select(property => (Table: type.GetTableName()!, Property: property)))
            .GroupBy(one => (one.Table, one.Property.GetColumnName()))
            .ToDictionary(group => group.Key, group => KindOf(group.First().Property));

    // What a room keeps as text, and reads as JSON by itself.
    private static bool IsJsonByItself(IProperty property) => (property.DeclaringType.ClrType.Name, property.Name) is
        (nameof(FoodRecordRow), nameof(FoodRecordRow.Stored)) or (nameof(RecipeRow), nameof(RecipeRow.Changes))
        or (nameof(RecipeRow), nameof(RecipeRow.Steps)) or (nameof(RecipeVersionRow), nameof(RecipeVersionRow.Portion));

    private static Kind KindOf(IProperty property)
    {
        var type = Nullable.GetUnderlyingType(property.ClrType) ?? property.ClrType;
        if (type == typeof(DateTimeOffset)) return Kind.Instant;
        if (type == typeof(bool)) return Kind.Flag;
        return (type.IsClass && type != typeof(string)) || IsJsonByItself(property) ? Kind.Json : Kind.Plain;
    }
}
