using System.Collections.Concurrent;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Data.Disk;

/// <summary>
/// Writers of one file go in the order they came. SQLite lets one write at a time and knows no order: who finds the file taken looks again
/// now and then, and beside an import, which leaves it free for a few milliseconds only, might find it taken each time until it gives up.
/// </summary>
/// <remarks>
/// Holds within this process. Another process is still kept apart by SQLite's own lock. As every write waits here, here it is also looked
/// at whether the file is still where it was (<see cref="HeldFile"/>).
/// </remarks>
public static class WriteTurn
{
    private static readonly ConcurrentDictionary<string, SemaphoreSlim> Turns = new(StringComparer.Ordinal);

    /// <summary>Waits for its turn.</summary>
    /// <param name="connectionString">Of the file.</param>
    /// <param name="stop">Ends the waiting.</param>
    /// <returns>The turn; whoever disposes it lets the next one write. It is not to be taken again before that.</returns>
    /// <exception cref="OperationCanceledException">The waiting was ended.</exception>
    /// <exception cref="FileTroubleException">The file is not where it was.</exception>
    public static async Task<IDisposable> TakeAsync(string? connectionString, CancellationToken stop)
    {
        var path = Path.GetFullPath(new SqliteConnectionStringBuilder(connectionString).DataSource);
        var turn = Turns.GetOrAdd(path, _ => new(1, 1));
        await turn.WaitAsync(stop);
        var held = new Held(turn);
        try
        {
            HeldFile.MustBeThere(path);
            return held;
        }
        catch
        {
            held.Dispose();
            throw;
        }
    }

    private sealed class Held(SemaphoreSlim turn) : IDisposable
    {
        private SemaphoreSlim? held = turn;

        public void Dispose() => Interlocked.Exchange(ref held, null)?.Release();
    }
}
