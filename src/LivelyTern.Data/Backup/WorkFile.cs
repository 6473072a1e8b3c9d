using LivelyTern.Data.Disk;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace LivelyTern.Data.Backup;

/// <summary>
/// A backup on its way back: its rows are written into a new file of the shape they were taken from, which is then brought to today's
/// shape as any older household's file is, and read through whole. The household's own file is not touched.
/// </summary>
public static class WorkFile
{
    private static readonly byte[] SqliteBegins = [.. "SQLite format 3\0"u8];

    /// <summary>Makes it.</summary>
    /// <param name="backup">The file that was given: JSON or SQLite.</param>
    /// <param name="path">Where the work file is to lie.</param>
    /// <param name="clock">The household's clock.</param>
    /// <exception cref="UnfitBackupException">The backup can't be put back; its sentence says why.</exception>
    public static async Task MakeAsync(string backup, string path, TimeProvider clock)
    {
        using var rows = Open(backup);
        await using (var db = new TernDb(new DbContextOptionsBuilder<TernDb>().UseSqlite(TernFile.Unpooled(path)).Options))
        {
            if (!db.Database.GetMigrations().Contains(rows.Shape, StringComparer.Ordinal)) throw Newer();
        }

        try
        {
            await TernFile.MigrateAsync(path, rows.Shape);
            Fill(path, rows);
            await BringUpToDateAsync(path, clock);
        }
        catch (Exception error) when (IsOfTheBackup(error))
        {
            throw new UnfitBackupException(
                $"This backup can't be put back: what it holds does not go together ({error.Message.Trim()}) Nothing was changed.", error);
        }
    }

    // And not of the disk on which it is made: that says so itself.
    private static bool IsOfTheBackup(Exception error) =>
        error is SqliteException or DbUpdateException or InvalidDataException or FormatException
        && FileTrouble.Of(error) is null or { Sentence: FileTrouble.Damaged };

    internal static UnfitBackupException Newer() => new(
        "backup-newer",
        "This backup was made by a newer program than this one. Update the program first, then put it back. Nothing was changed.");

    private static IBackupRows Open(string backup)
    {
        var stream = File.OpenRead(backup);
        var begins = new byte[SqliteBegins.Length];
        var isDatabase = stream.ReadAtLeast(begins, begins.Length, throwOnEndOfStream: false) == begins.Length
            && begins.AsSpan().SequenceEqual(SqliteBegins);
        try
        {
            if (!isDatabase)
            {
                stream.Position = 0;
                return new JsonRows(stream);
            }
        }
        catch
        {
            stream.Dispose();
            throw;
        }

        stream.Dispose();
        return new FileRows(backup);
    }

    // A crash leaves only a work file behind that nobody looks at: the disk need not be waited for.
    private static void Fill(string path, IBackupRows rows)
    {
        using var file = new SqliteConnection(TernFile.Unpooled(path));
        file.Open();
        Execute(file, "PRAGMA foreign_keys = OFF; PRAGMA journal_mode = OFF; PRAGMA synchronous = OFF");
        using var transaction = file.BeginTransaction();
        var tables = KeptTable.AllOf(file);
        foreach (var table in tables) Execute(file, $"DELETE FROM {KeptTable.Quoted(table.Name)}", transaction);
        var inserts = new Dictionary<string, SqliteCommand>(StringComparer.Ordinal);
        var sequence = new List<object[]>();
        foreach (var (table, values) in rows.Read(tables))
        {
            // SQLite counts on by itself while rows come in: how far it had counted is written last.
            if (string.Equals(table.Name, KeptTable.Sequence, StringComparison.Ordinal))
            {
                sequence.Add([.. values]);
                continue;
            }

            if (!inserts.TryGetValue(table.Name, out var insert)) inserts[table.Name] = insert = InsertInto(file, table, transaction);
            Run(insert, values);
        }

        if (tables.FirstOrDefault(table => string.Equals(table.Name, KeptTable.Sequence, StringComparison.Ordinal)) is { } counted)
        {
            Execute(file, $"DELETE FROM {counted.Name}", transaction);
            using var insert = InsertInto(file, counted, transaction);
            foreach (var values in sequence) Run(insert, values);
        }

        Execute(file, "INSERT INTO LibraryNames (rowid, Name) SELECT Id, Name FROM LibraryFoods", transaction, where: "LibraryNames");
        foreach (var insert in inserts.Values) insert.Dispose();
        Check(file, transaction);
        transaction.Commit();
    }

    private static SqliteCommand InsertInto(SqliteConnection file, KeptTable table, SqliteTransaction transaction)
    {
        var insert = file.CreateCommand();
        insert.Transaction = transaction;
        var places = table.Columns.Select((_, at) => FormattableString.Invariant($"${at}")).ToList();
        insert.CommandText =
            $"INSERT INTO {KeptTable.Quoted(table.Name)} ({table.ColumnList}) VALUES ({string.Join(", ", places)})";
        foreach (var place in places) insert.Parameters.AddWithValue(place, DBNull.Value);
        return insert;
    }

    private static void Run(SqliteCommand insert, object[] values)
    {
        for (var at = 0; at < values.Length; at++) insert.Parameters[at].Value = values[at];
        insert.ExecuteNonQuery();
    }

    private static void Check(SqliteConnection file, SqliteTransaction transaction)
    {
        using var command = file.CreateCommand();
        command.Transaction = transaction;
        command.CommandText = "SELECT \"table\" FROM pragma_foreign_key_check LIMIT 1";
        if (command.ExecuteScalar() is string table) throw new InvalidDataException($"a row of {table} points to nothing");
    }

    private static void Execute(SqliteConnection file, string sql, SqliteTransaction? transaction = null, string? where = null)
    {
        using var command = file.CreateCommand();
        command.Transaction = transaction;
        if (where is not null)
        {
            command.CommandText = "SELECT count(*) FROM sqlite_master WHERE name = $name";
            command.Parameters.AddWithValue("$name", where);
            if (command.ExecuteScalar() is 0L) return;
        }

        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    // By its own stores; then every row is read, strictly: what a screen could not show is not let in.
    private static async Task BringUpToDateAsync(string path, TimeProvider clock)
    {
        await using var services = new ServiceCollection().AddKitchen(path).AddSingleton(clock).BuildServiceProvider();
        await using (var scope = services.CreateAsyncScope())
        {
            await Kitchen.OpenAsync(scope.ServiceProvider);
            var db = scope.ServiceProvider.GetRequiredService<TernDb>();
            foreach (var type in db.Model.GetEntityTypes().Where(type => type.ClrType != typeof(Foods.LibraryFoodRow) && !type.IsOwned()))
                await ReadThrough(db, type.ClrType);
        }

        using var file = new SqliteConnection(TernFile.ConnectionString(path));
        SqliteConnection.ClearPool(file);
    }

    private static Task ReadThrough(TernDb db, Type row) => (Task)typeof(WorkFile)
        .GetMethod(nameof(ReadRowsAsync), System.Reflection.BindingFlags.NonPublic | System.Reflection.BindingFlags.Static)!
        .MakeGenericMethod(row).Invoke(null, [db])!;

    private static async Task ReadRowsAsync<T>(TernDb db)
        where T : class
    {
        await foreach (var row in db.Set<T>().AsNoTracking().IgnoreAutoIncludes().AsAsyncEnumerable()) _ = row;
    }
}
