using System.Globalization;
using LivelyTern.Core.Foods;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Migrations.TakeOver;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace LivelyTern.Data.Disk;

/// <summary>The database file: opened, migrated, and copied aside before a migration.</summary>
public static class TernFile
{
    /// <summary>
    /// The options for a file: foreign keys on, pooled connections. A file that is not there is not made by them: it was taken away.
    /// </summary>
    public static string ConnectionString(string path) => new SqliteConnectionStringBuilder
    {
        DataSource = path,
        ForeignKeys = true,
        DefaultTimeout = 10,
        Mode = SqliteOpenMode.ReadWrite,
    }.ToString();

    /// <summary>The options for a connection that is for one errand, and does not keep the file open afterwards.</summary>
    /// <param name="path">The file.</param>
    /// <param name="isNew">Whether it is to be made where it is not there.</param>
    internal static string Unpooled(string path, bool isNew = false) => new SqliteConnectionStringBuilder
    {
        DataSource = path,
        Pooling = false,
        DefaultTimeout = 10,
        Mode = isNew ? SqliteOpenMode.ReadWriteCreate : SqliteOpenMode.ReadWrite,
    }.ToString();

    /// <summary>Where the file lies.</summary>
    internal static string PathOf(this TernDb db) => new SqliteConnectionStringBuilder(db.Database.GetConnectionString()).DataSource;

    /// <summary>
    /// Brings the file to this program's shape. Where an older file needs it, a copy named <c>*.before-MIGRATION.db</c> is laid beside it
    /// first, and the whole upgrade is one transaction. Switches to WAL, and brings the built-in food table up to date without touching own
    /// foods or weighed measures.
    /// </summary>
    public static async Task PrepareAsync(TernDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        var path = db.PathOf();
        var pending = (await db.Database.GetPendingMigrationsAsync()).ToList();
        var applied = File.Exists(path) && new FileInfo(path).Length > 0;
        if (applied && pending.Count > 0)
        {
            var copy = string.Create(CultureInfo.InvariantCulture, $"{Path.ChangeExtension(path, null)}.before-{pending[0]}.db");
            await db.Database.ExecuteSqlAsync($"VACUUM INTO {FreshName(copy)}");
        }

        if (pending.Count > 0) await MigrateAsync(path);
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL");
        await BringFoodsUpToDateAsync(db);
        await new LibraryWriter(db, new(), TimeProvider.System).RemoveHalvesAsync();
    }

    /// <summary>
    /// All that is pending, in one transaction: if it breaks off, by an error or with the power, the file is as it was. Foreign keys are
    /// off for that connection, so that a table that is built anew takes none of the rows along that point to it; they are looked through
    /// before the end. Each statement that a migration writes itself ends with a semicolon.
    /// </summary>
    /// <param name="path">The file; laid anew where there is none.</param>
    /// <param name="until">The last migration, for a file of an older shape; null for today's.</param>
    internal static async Task MigrateAsync(string path, string? until = null)
    {
        var file = new SqliteConnectionStringBuilder(ConnectionString(path))
        {
            ForeignKeys = false,
            Pooling = false,
            Mode = SqliteOpenMode.ReadWriteCreate,
        };
        await using var connection = new SqliteConnection(file.ToString());
        await connection.OpenAsync();
        await using var transaction = connection.BeginTransaction(deferred: false);
        await using var db = new TernDb(new DbContextOptionsBuilder<TernDb>().UseSqlite(connection).Options);
        await db.Database.UseTransactionAsync(transaction);
        if (!(await db.Database.GetPendingMigrationsAsync()).Any()) return;
        await using var command = connection.CreateCommand();
        command.Transaction = transaction;
        var last = (await db.Database.GetAppliedMigrationsAsync()).LastOrDefault();
        foreach (var next in (await db.Database.GetPendingMigrationsAsync()).ToList())
        {
            command.CommandText = db.GetService<IMigrator>().GenerateScript(last, next, MigrationsSqlGenerationOptions.NoTransactions);
            await command.ExecuteNonQueryAsync();
            if (next.EndsWith('_' + nameof(ThingsWithALife), StringComparison.Ordinal)) new ThingsWithALife(connection, transaction).Run();
            last = next;
            if (string.Equals(next, until, StringComparison.Ordinal)) break;
        }

        command.CommandText = "SELECT \"table\" FROM pragma_foreign_key_check LIMIT 1";
        if (await command.ExecuteScalarAsync() is string table) throw new InvalidDataException($"A row of {table} would point to nothing.");
        await transaction.CommitAsync();
    }

    /// <summary>Writes about what a large change takes, and takes it off again, to see whether the file can be written.</summary>
    public static async Task TryWritingAsync(TernDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        const int Bytes = 131_072, Patience = 1;
        using var turn = await WriteTurn.TakeAsync(db.Database.GetConnectionString(), CancellationToken.None);

        // Whether another program holds it is to be said soon.
        var connection = (SqliteConnection)db.Database.GetDbConnection();
        var usual = connection.DefaultTimeout;
        connection.DefaultTimeout = Patience;
        try
        {
            await WriteProbeAsync(db, Bytes);
        }
        finally
        {
            connection.DefaultTimeout = usual;
        }
    }

    private static async Task WriteProbeAsync(TernDb db, int bytes)
    {
        await db.Database.ExecuteSqlRawAsync("DROP TABLE IF EXISTS WriteProbe");
        await using (var transaction = await db.Database.BeginTransactionAsync())
        {
            await db.Database.ExecuteSqlAsync($"CREATE TABLE WriteProbe AS SELECT zeroblob({bytes})");
            await transaction.CommitAsync();
        }

        await db.Database.ExecuteSqlRawAsync("DROP TABLE WriteProbe");
    }

    private static string FreshName(string wanted)
    {
        var name = wanted;
        for (var i = 2; File.Exists(name); i++)
            name = Path.ChangeExtension(wanted, string.Create(CultureInfo.InvariantCulture, $".{i}.db"));
        return name;
    }

    // The built-in foods as this build has them; its mark is left in the file, so that the next start need not hold them against each other
    // again.
    private static async Task BringFoodsUpToDateAsync(TernDb db)
    {
        int Mark(Type type) => BitConverter.ToInt32(type.Module.ModuleVersionId.ToByteArray());
        var build = Mark(typeof(FoodTable)) ^ Mark(typeof(Food));
        if (await db.Database.SqlQuery<int>($"SELECT user_version AS Value FROM pragma_user_version").SingleAsync() == build) return;
        var rows = await db.Foods.ToDictionaryAsync(row => row.Id, StringComparer.Ordinal);
        foreach (var food in FoodTable.Read())
        {
            if (rows.TryGetValue(food.Id, out var row)) row.Food = food;
            else db.Foods.Add(new FoodRow { Id = food.Id, Food = food });
        }

        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
        await db.Database.ExecuteSqlRawAsync(string.Create(CultureInfo.InvariantCulture, $"PRAGMA user_version = {build}"));
    }
}
