using LivelyTern.Core.Measures;

namespace LivelyTern.Web.Http;

/// <summary>
/// Work that keeps a core busy for a while, one after another: a fit sent whole, a menu, a prep day. It holds no request's thread, two
/// wait their turn, and whoever comes after those is told to come again.
/// </summary>
public sealed class SolverTurns : IDisposable
{
    /// <summary>How many work or wait at once: one and two.</summary>
    public const int Most = 3;

    private readonly SemaphoreSlim turn = new(1, 1);
    private int inLine;

    /// <summary>Runs some work in its turn, on a thread of its own.</summary>
    /// <param name="work">The work; it ends soon after <paramref name="gone"/>.</param>
    /// <param name="gone">The one who asked has gone.</param>
    /// <returns>What it comes to, or that too many wait already.</returns>
    public async Task<Outcome<T>> RunAsync<T>(Func<T> work, CancellationToken gone)
    {
        if (Interlocked.Increment(ref inLine) > Most)
        {
            Interlocked.Decrement(ref inLine);
            return new Problem(
                Answers.BusyCode, "", $"{Most} plans are being worked out or waiting already: try again in a minute.");
        }

        try
        {
            await turn.WaitAsync(gone);
            try
            {
                return await Task.Factory.StartNew(work, gone, TaskCreationOptions.LongRunning, TaskScheduler.Default);
            }
            finally
            {
                turn.Release();
            }
        }
        finally
        {
            Interlocked.Decrement(ref inLine);
        }
    }

    /// <inheritdoc/>
    public void Dispose() => turn.Dispose();
}
