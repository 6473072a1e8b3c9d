using LivelyTern.Core.Measures;
using LivelyTern.Data.Disk;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Backup;

/// <summary>
/// Puts a backup in the place of what is here: first a copy of that is made, then SQLite's own online backup writes the other file over it
/// in one transaction. Whoever still has a screen of before open can't write on it: every version is counted past what they saw.
/// </summary>
public sealed class RestoreBackup(TernDb db, Copies copies, IEnumerable<IKept> kept)
{
    private const string Versions = nameof(IVersioned.Version);

    /// <summary>Puts it in its place.</summary>
    /// <param name="work">The backup, as a file of today's shape (<see cref="WorkFile"/>).</param>
    /// <param name="seen">What is here as it was when it was decided.</param>
    /// <returns>The copy of what was here; or that something else was written meanwhile, which nobody has seen going.</returns>
    public async Task<Outcome<Copy>> RunAsync(string work, SeenFile seen)
    {
        ArgumentNullException.ThrowIfNull(seen);
        using var turn = await WriteTurn.TakeAsync(db.Database.GetConnectionString(), CancellationToken.None);
        if (!seen.IsAsSeen) return Stale.Problem;
        Copy copy;
        try
        {
            copy = await copies.MakeBeforeRestoreAsync();
        }
        catch (Exception error) when (Copies.IsOfTheDisk(error))
        {
            return new Problem(
                "copy-failed", "", $"What is here could not be copied first, and was left as it is. {FileTrouble.Why(error)}");
        }

        try
        {
            await CountPastAsync(work);
            await using var from = new SqliteConnection(TernFile.Unpooled(work));
            await using var to = new SqliteConnection(TernFile.Unpooled(db.PathOf()));
            await from.OpenAsync();
            await to.OpenAsync();
            from.BackupDatabase(to);
        }
        catch (Exception error) when (Copies.IsOfTheDisk(error))
        {
            return new Problem(
                "restore-failed", "", $"It could not be put back, and what is here was left as it is. {FileTrouble.Why(error)}");
        }

        db.ChangeTracker.Clear();
        foreach (var reading in kept) reading.Forget();
        return copy;
    }

    // Where nothing was ever written here there is nobody to be kept from writing, and the backup stands as it was.
    private async Task CountPastAsync(string work)
    {
        await using var file = new SqliteConnection(TernFile.Unpooled(work));
        await file.OpenAsync();
        await using (var attach = file.CreateCommand())
        {
            attach.CommandText = "ATTACH $here AS here";
            attach.Parameters.AddWithValue("$here", db.PathOf());
            await attach.ExecuteNonQueryAsync();
        }

        await using var transaction = file.BeginTransaction(deferred: false);
        await using var command = file.CreateCommand();
        command.Transaction = transaction;
        foreach (var type in db.Model.GetEntityTypes().Where(type => typeof(IVersioned).IsAssignableFrom(type.ClrType)))
        {
            var table = KeptTable.Quoted(type.GetTableName()!);
            var key = string.Join(" AND ", type.FindPrimaryKey()!.Properties.Select(property => KeptTable.Quoted(property.GetColumnName()))
                .Select(column => $"before.{column} = {table}.{column}"));
            command.CommandText = $"UPDATE main.{table} SET {Versions} = max({table}.{Versions}, before.{Versions}) + 1 "
                + $"FROM here.{table} before WHERE {key}";
            await command.ExecuteNonQueryAsync();
        }

        // Each day that anybody may have seen was changed by this.
        command.CommandText = """
            INSERT OR REPLACE INTO main.EaterDays (EaterId, Day, Version)
            SELECT EaterId, Day, (SELECT max(Version) FROM main.PlanVersions) FROM here.EaterDays
            WHERE EaterId IN (SELECT Id FROM main.Eaters)
            UNION SELECT EaterId, Day, (SELECT max(Version) FROM main.PlanVersions) FROM main.EaterDays
            WHERE EXISTS (SELECT 1 FROM here.EaterDays)
            """;
        await command.ExecuteNonQueryAsync();
        await transaction.CommitAsync();
    }
}
