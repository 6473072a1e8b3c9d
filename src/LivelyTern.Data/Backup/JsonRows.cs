using System.Globalization;
using System.Text;
using System.Text.Json;

namespace LivelyTern.Data.Backup;

/// <summary>A backup in JSON, read piece by piece: no more than one row of it is held at a time.</summary>
internal sealed class JsonRows : IBackupRows
{
    private readonly Stream stream;
    private readonly BackupHead head;
    private byte[] buffer = new byte[1 << 16];
    private int from, until;
    private bool isAtEnd;
    private long rowsRead;
    private JsonReaderState state;

    /// <summary>Reads its head.</summary>
    /// <exception cref="UnfitBackupException">It has none, or is of a newer program.</exception>
    public JsonRows(Stream stream)
    {
        this.stream = stream;
        head = ReadHead();
    }

    private delegate T Step<T>(ref Utf8JsonReader reader);

    private delegate bool Advance(ref Utf8JsonReader reader);

    /// <inheritdoc/>
    public string Shape => head.Shape;

    /// <inheritdoc/>
    public IEnumerable<(KeptTable Table, object[] Values)> Read(IReadOnlyList<KeptTable> tables)
    {
        var known = tables.ToDictionary(table => table.InBackup, StringComparer.Ordinal);
        var met = new HashSet<string>(StringComparer.Ordinal);
        while (NextName() is { } name)
        {
            if (!known.TryGetValue(name, out var table)) throw Unfit($"it has a table “{name}”, which is none of its version's");
            if (!met.Add(name)) throw Unfit($"its table “{name}” is there twice");
            Expect(JsonTokenType.StartArray);
            var columns = table.Columns.Select((column, at) => (column, at))
                .ToDictionary(one => one.column.InBackup, one => (one.column.Holds, one.at), StringComparer.Ordinal);
            var values = new object[table.Columns.Count];
            while (NextRow(table, columns, values))
            {
                rowsRead++;
                yield return (table, values);
            }
        }

        Expect(JsonTokenType.EndObject);
        if (tables.FirstOrDefault(table => !met.Contains(table.InBackup)) is { } missing)
            throw Unfit($"its table “{missing.InBackup}” is missing");
        if (HasMore()) throw Unfit("something follows its end");
    }

    /// <inheritdoc/>
    public void Dispose() => stream.Dispose();

    private BackupHead ReadHead()
    {
        const string NotOne = "This is not a backup of this program: it is neither its JSON nor its database file.";
        var found = new Dictionary<string, string>(StringComparer.Ordinal);
        try
        {
            Expect(JsonTokenType.StartObject);
            while (NextName() is { } name && name is not "tables")
                found[name] = Take((ref Utf8JsonReader reader) => reader.TokenType switch
                {
                    JsonTokenType.String => reader.GetString()!,
                    JsonTokenType.Number => Encoding.UTF8.GetString(reader.ValueSpan),
                    _ => throw new JsonException(),
                });
        }
        catch (Exception error) when (error is JsonException or UnfitBackupException)
        {
            throw new UnfitBackupException(NotOne, error);
        }

        if (!string.Equals(found.GetValueOrDefault("format"), BackupHead.Name, StringComparison.Ordinal)
            || !int.TryParse(found.GetValueOrDefault("version"), NumberStyles.None, CultureInfo.InvariantCulture, out var version)
            || found.GetValueOrDefault("shape") is not { Length: > 0 } shape)
            throw new UnfitBackupException(NotOne);
        if (version > BackupHead.Newest) throw WorkFile.Newer();
        Expect(JsonTokenType.StartObject);
        return new(BackupHead.Name, version, shape, default);
    }

    // The next member's name; null at the end of the object.
    private string? NextName() => Take((ref Utf8JsonReader reader) => reader.TokenType switch
    {
        JsonTokenType.PropertyName => reader.GetString(),
        JsonTokenType.EndObject => null,
        _ => throw new JsonException(),
    });

    private bool NextRow(KeptTable table, Dictionary<string, (Holds Holds, int At)> columns, object[] values)
    {
        var row = TakeWhole();
        if (row.Length == 1 && row[0] == (byte)']') return false;
        Array.Fill(values, DBNull.Value);
        try
        {
            var reader = new Utf8JsonReader(row);
            reader.Read();
            if (reader.TokenType != JsonTokenType.StartObject) throw new JsonException();
            while (reader.Read() && reader.TokenType == JsonTokenType.PropertyName)
            {
                var name = reader.GetString()!;
                if (!columns.TryGetValue(name, out var column))
                    throw Unfit($"a row of “{table.InBackup}” has “{name}”, which is none of its columns");
                reader.Read();
                values[column.At] = ValueOf(ref reader, column.Holds, row)
                    ?? throw Unfit($"“{name}” of a row of “{table.InBackup}” is not what that column holds");
            }
        }
        catch (Exception error) when (error is JsonException or FormatException or InvalidOperationException)
        {
            throw Unfit($"a row of “{table.InBackup}” can't be read", error);
        }

        return true;
    }

    private static object? ValueOf(ref Utf8JsonReader reader, Holds holds, ReadOnlySpan<byte> row)
    {
        switch (reader.TokenType)
        {
            case JsonTokenType.Null:
                return DBNull.Value;
            case JsonTokenType.True or JsonTokenType.False:
                return holds == Holds.Whole ? (reader.TokenType == JsonTokenType.True ? 1L : 0L) : null;
            case JsonTokenType.Number:
                return holds switch
                {
                    Holds.Real => reader.GetDouble(),
                    Holds.Whole => reader.TryGetInt64(out var whole) ? whole : null,
                    _ => null,
                };
            case JsonTokenType.String:
                var text = reader.GetString()!;
                return holds == Holds.Text ? text : holds == Holds.Whole ? WholeOf(text) : null;
            default:
                var begins = (int)reader.TokenStartIndex;
                reader.Skip();
                return holds == Holds.Text ? Encoding.UTF8.GetString(row[begins..(int)reader.BytesConsumed]) : null;
        }
    }

    // A number of more than 53 bits, or an instant.
    private static long? WholeOf(string text)
    {
        if (long.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var whole)) return whole;
        return DateTimeOffset.TryParse(text, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var instant)
            ? instant.UtcTicks
            : null;
    }

    private void Expect(JsonTokenType wanted) => Take((ref Utf8JsonReader reader) =>
        reader.TokenType == wanted ? true : throw Unfit($"{wanted} was expected, {reader.TokenType} is there"));

    private T Take<T>(Step<T> step)
    {
        var taken = default(T)!;
        Read((ref Utf8JsonReader reader) =>
        {
            if (!reader.Read()) return false;
            taken = step(ref reader);
            return true;
        });
        return taken;
    }

    // One value of a list with all that is in it, or the bracket that ends the list.
    private ReadOnlySpan<byte> TakeWhole()
    {
        var (begins, ends) = (0, 0);
        Read((ref Utf8JsonReader reader) =>
        {
            if (!reader.Read()) return false;
            begins = from + (int)reader.TokenStartIndex;
            if (!reader.TrySkip()) return false;
            ends = from + (int)reader.BytesConsumed;
            return true;
        });
        return buffer.AsSpan(begins, ends - begins);
    }

    // Tries on what is there, and with more of the file where that was not enough.
    private void Read(Advance advance)
    {
        while (true)
        {
            var reader = new Utf8JsonReader(buffer.AsSpan(from, until - from), isFinalBlock: false, state);
            bool isEnough;
            try
            {
                isEnough = advance(ref reader);
            }
            catch (JsonException error)
            {
                throw Unfit("it is not the JSON of one", error);
            }

            if (isEnough)
            {
                from += (int)reader.BytesConsumed;
                state = reader.CurrentState;
                return;
            }

            if (!More()) throw Ends();
        }
    }

    private bool More()
    {
        if (isAtEnd) return false;
        if (from > 0)
        {
            buffer.AsSpan(from, until - from).CopyTo(buffer);
            (from, until) = (0, until - from);
        }

        if (until == buffer.Length) Array.Resize(ref buffer, 2 * buffer.Length);
        var read = stream.Read(buffer, until, buffer.Length - until);
        isAtEnd = read == 0;
        until += read;
        return !isAtEnd;
    }

    private bool HasMore()
    {
        do
        {
            if (buffer.AsSpan(from, until - from).ContainsAnyExcept(" \t\r\n"u8)) return true;
            from = until;
        }
        while (More());
        return false;
    }

    private UnfitBackupException Ends() => new(
        "backup-ends",
        string.Create(CultureInfo.InvariantCulture, $"This backup ends in the middle, after {rowsRead} rows. Nothing was changed."));

    private static UnfitBackupException Unfit(string why, Exception? error = null)
    {
        var sentence = $"This backup can't be put back: {why}. Nothing was changed.";
        return error is null ? new(sentence) : new(sentence, error);
    }
}
