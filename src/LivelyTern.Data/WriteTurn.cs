using System.Collections.Concurrent;
using Microsoft.Data.Sqlite;

namespace LivelyTern.Data;

/// <summary>
/// Writers of one file go in the order they came. SQLite lets one write at a time and knows no order: who finds the file taken looks again
/// now and then, and beside an import, which leaves it free for a few milliseconds only, might find it taken each time until it gives up.
/// </summary>
/// <remarks>Holds within this process. Another process is still kept apart by SQLite's own lock.</remarks>
public static class WriteTurn
{
    private static readonly ConcurrentDictionary<string, SemaphoreSlim> Turns = new(StringComparer.Ordinal);

    /// <summary>Waits for its turn.</summary>
    /// <param name="connectionString">Of the file.</param>
    /// <param name="stop">Ends the waiting.</param>
    /// <returns>The turn; whoever disposes it lets the next one write. It is not to be taken again before that.</returns>
    /// <exception cref="OperationCanceledException">The waiting was ended.</exception>
    public static async Task<IDisposable> TakeAsync(string? connectionString, CancellationToken stop)
    {
        var turn = Turns.GetOrAdd(Path.GetFullPath(new SqliteConnectionStringBuilder(connectionString).DataSource), _ => new(1, 1));
        await turn.WaitAsync(stop);
        return new Held(turn);
    }

    private sealed class Held(SemaphoreSlim turn) : IDisposable
    {
        private SemaphoreSlim? held = turn;

        public void Dispose() => Interlocked.Exchange(ref held, null)?.Release();
    }
}
