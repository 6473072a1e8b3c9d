using LivelyTern.Core.Measures;
using LivelyTern.Data.Disk;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data;

/// <summary>Commands and readings: each sees the file as a whole, however many questions it asks.</summary>
public static class Transactions
{
    /// <summary>
    /// A command: what it reads, judges and writes is one transaction that no other writer of the file comes into, neither of this program
    /// nor of another. What it refuses leaves nothing behind. Within a larger transaction it is a part of that.
    /// </summary>
    internal static async Task<Outcome<T>> InTurnAsync<T>(this TernDb db, Func<Task<Outcome<T>>> command)
    {
        if (db.IsReading) throw new InvalidOperationException("A reading writes nothing.");
        if (db.Database.CurrentTransaction is not null) return await command();
        using var turn = await WriteTurn.TakeAsync(db.Database.GetConnectionString(), CancellationToken.None);
        await using var transaction = await db.Database.BeginTransactionAsync();

        // What was read before its turn may be old by now.
        db.ChangeTracker.Clear();
        db.IsInTurn = true;
        try
        {
            var outcome = await command();
            if (outcome.Succeeded) await transaction.CommitAsync();
            return outcome;
        }
        finally
        {
            // Now it is in the file, or never was.
            db.IsInTurn = false;
            foreach (var changed in db.Unsettled.Keys) changed.Forget();
            db.Unsettled.Clear();
        }
    }

    /// <summary>
    /// One reading: all that is asked until it is disposed is answered from the file as it was at the first question, whatever is written
    /// meanwhile. Within a transaction it is a part of that.
    /// </summary>
    public static async Task<IAsyncDisposable?> ReadOnceAsync(this TernDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        if (db.Database.CurrentTransaction is not null) return null;
        var since = Changes.Count;
        await db.Database.OpenConnectionAsync();
        var connection = (SqliteConnection)db.Database.GetDbConnection();
        var transaction = connection.BeginTransaction(deferred: true);
        await db.Database.UseTransactionAsync(transaction);
        return new Reading(db, transaction, since);
    }

    private sealed class Reading : IAsyncDisposable
    {
        private readonly TernDb db;
        private readonly SqliteTransaction transaction;

        public Reading(TernDb db, SqliteTransaction transaction, long since)
        {
            (this.db, this.transaction) = (db, transaction);
            db.ReadingSince = since;
        }

        public async ValueTask DisposeAsync()
        {
            db.ReadingSince = null;
            await db.Database.UseTransactionAsync(null);
            await transaction.DisposeAsync();
            await db.Database.CloseConnectionAsync();
        }
    }
}
