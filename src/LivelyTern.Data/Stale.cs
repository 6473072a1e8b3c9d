using LivelyTern.Core.Measures;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data;

/// <summary>Writes that carry the version they saw: a stale one is refused, never a silent win.</summary>
public static class Stale
{
    private const int Constraint = 19;

    /// <summary>The code of the refusal.</summary>
    public const string Code = "stale";

    /// <summary>The refusal itself.</summary>
    public static Problem Problem { get; } = new(
        Code, "", "This was changed elsewhere since you opened it. Look at it as it is now, then make your change again.");

    /// <summary>The code of something that is not there.</summary>
    public const string GoneCode = "not-found";

    /// <summary>Something that is not there.</summary>
    public static Problem Gone(string what) => new(GoneCode, "", $"There is no such {what} here any more.");

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
        var outcome = await command();
        if (outcome.Succeeded) await transaction.CommitAsync();
        return outcome;
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

    /// <summary>Counts the row up and saves all, or says that another write came first.</summary>
    internal static async Task<Outcome<T>> SaveAsync<T>(this TernDb db, IVersioned row, T value)
    {
        row.Version++;
        try
        {
            await db.SaveChangesAsync();
            return value;
        }
        catch (DbUpdateConcurrencyException)
        {
            return Problem;
        }
        catch (DbUpdateException update) when (update.InnerException is SqliteException { SqliteErrorCode: Constraint })
        {
            // Another hand was first: it laid the box, or took away what this write refers to.
            return Problem;
        }
    }
}
