using System.Runtime.CompilerServices;
using System.Threading.Channels;

namespace LivelyTern.Devices;

/// <summary>
/// One line to a device for all who look at it: it is opened for the first and closed after the last. Who is slow misses readings and
/// never holds up the others.
/// </summary>
/// <typeparam name="T">What it shows.</typeparam>
/// <param name="feed">The device.</param>
public sealed class SharedFeed<T>(IDeviceFeed<T> feed) : IDisposable
    where T : class
{
    private const int Behind = 2;
    private static readonly TimeSpan TriesAgain = TimeSpan.FromSeconds(1);
    private readonly Lock gate = new();
    private readonly HashSet<Channel<T?>> watchers = [];
    private CancellationTokenSource? running;

    /// <summary>What was shown last; null where it is lost, or nobody looks.</summary>
    public T? Last { get; private set; }

    /// <summary>Its readings as they come; null when it is lost.</summary>
    /// <param name="stop">Ends the looking.</param>
    public async IAsyncEnumerable<T?> WatchAsync([EnumeratorCancellation] CancellationToken stop)
    {
        var own = Channel.CreateBounded<T?>(new BoundedChannelOptions(Behind) { FullMode = BoundedChannelFullMode.DropOldest });
        Join(own);
        try
        {
            while (await MoreAsync(own, stop))
                while (own.Reader.TryRead(out var reading)) yield return reading;
        }
        finally
        {
            Leave(own);
        }
    }

    /// <summary>Sends the device a wish.</summary>
    public Task SendAsync(string wish) => feed.SendAsync(wish);

    private static async Task<bool> MoreAsync(Channel<T?> own, CancellationToken stop)
    {
        try
        {
            return await own.Reader.WaitToReadAsync(stop);
        }
        catch (OperationCanceledException)
        {
            return false;
        }
    }

    private void Join(Channel<T?> own)
    {
        lock (gate)
        {
            watchers.Add(own);
            own.Writer.TryWrite(Last);
            if (running is not null) return;
            running = new();
            _ = PumpAsync(running.Token);
        }
    }

    private void Leave(Channel<T?> own)
    {
        lock (gate)
        {
            watchers.Remove(own);
            if (watchers.Count > 0) return;
            Dispose();
        }
    }

    /// <summary>Closes the line.</summary>
    public void Dispose()
    {
        lock (gate)
        {
            running?.Cancel();
            running?.Dispose();
            (running, Last) = (null, null);
        }
    }

#pragma warning disable CA1031 // Whatever ends the line, those who look are told that the device is lost, and it is tried again.
    private async Task PumpAsync(CancellationToken stop)
    {
        while (!stop.IsCancellationRequested)
        {
            try
            {
                await foreach (var reading in feed.ReadAsync(stop)) Tell(reading, stop);
            }
            catch (Exception) when (!stop.IsCancellationRequested)
            {
                Tell(null, stop);
            }
            catch (OperationCanceledException)
            {
                return;
            }

            await Task.Delay(TriesAgain, stop).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }
#pragma warning restore CA1031

    private void Tell(T? reading, CancellationToken stop)
    {
        lock (gate)
        {
            if (stop.IsCancellationRequested) return;
            Last = reading;
            foreach (var watcher in watchers) watcher.Writer.TryWrite(reading);
        }
    }
}
