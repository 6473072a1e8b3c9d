using Microsoft.Data.Sqlite;

namespace LivelyTern.Data.Backup;

/// <summary>
/// A database file of this program, as it was copied. Only its rows are taken: whatever else a hand may have laid into it is left.
/// </summary>
internal sealed class FileRows : IBackupRows
{
    private readonly SqliteConnection file;

    /// <summary>Opens it to read.</summary>
    /// <exception cref="UnfitBackupException">It is no file of this program, or is damaged.</exception>
    public FileRows(string path)
    {
        file = new(new SqliteConnectionStringBuilder { DataSource = path, Mode = SqliteOpenMode.ReadOnly, Pooling = false }.ToString());
        try
        {
            file.Open();
            if (Ask("SELECT name FROM sqlite_master WHERE name = '__EFMigrationsHistory'") is null)
                throw new UnfitBackupException("This database is not one of this program's. Nothing was changed.");
            Shape = Ask("SELECT MigrationId FROM __EFMigrationsHistory ORDER BY MigrationId DESC LIMIT 1")
                ?? throw new UnfitBackupException("This database is empty. Nothing was changed.");
            if (Ask("PRAGMA quick_check(1)") is { } damage && !string.Equals(damage, "ok", StringComparison.Ordinal)) throw Damaged();
        }
        catch (SqliteException error)
        {
            file.Dispose();
            throw Damaged(error);
        }
        catch
        {
            file.Dispose();
            throw;
        }
    }

    /// <inheritdoc/>
    public string Shape { get; }

    /// <inheritdoc/>
    public IEnumerable<(KeptTable Table, object[] Values)> Read(IReadOnlyList<KeptTable> tables)
    {
        foreach (var table in tables)
        {
            var values = new object[table.Columns.Count];
            using var command = file.CreateCommand();
            command.CommandText = $"SELECT {table.ColumnList} FROM {KeptTable.Quoted(table.Name)}";
            using var rows = Opened(command);
            while (Next(rows))
            {
                for (var at = 0; at < values.Length; at++) values[at] = rows.GetValue(at);
                yield return (table, values);
            }
        }
    }

    /// <inheritdoc/>
    public void Dispose() => file.Dispose();

    private static SqliteDataReader Opened(SqliteCommand command)
    {
        try
        {
            return command.ExecuteReader();
        }
        catch (SqliteException error)
        {
            throw new UnfitBackupException("This database does not have the tables of its version. Nothing was changed.", error);
        }
    }

    private static bool Next(SqliteDataReader rows)
    {
        try
        {
            return rows.Read();
        }
        catch (SqliteException error)
        {
            throw Damaged(error);
        }
    }

    private static UnfitBackupException Damaged(Exception? error = null)
    {
        const string Sentence = "This database file is damaged and can't be read whole. Nothing was changed.";
        return error is null ? new(Sentence) : new(Sentence, error);
    }

    private string? Ask(string sql)
    {
        using var command = file.CreateCommand();
        command.CommandText = sql;
        return command.ExecuteScalar() as string;
    }
}
