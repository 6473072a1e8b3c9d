using System.Runtime.InteropServices;

namespace LivelyTern.Web;

/// <summary>
/// Gives memory back to the machine once a while of much asking is over: a kitchen's computer has other things to do between meals.
/// What native code is done with goes back while there is asking too.
/// </summary>
public sealed class QuietMemory : BackgroundService
{
    private const int Much = 300;
    private static readonly TimeSpan Between = TimeSpan.FromSeconds(5);
    private int asked;

    /// <summary>Counts a request.</summary>
    public void Asked() => Interlocked.Increment(ref asked);

    /// <summary>Counts work that took much memory, whoever asked for it.</summary>
    public void WasMuch() => Interlocked.Add(ref asked, Much);

    /// <summary>What lies about unused goes back at once.</summary>
    public static void GiveBack()
    {
        GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
        GiveNativeBack();
    }

    // What the solver and SQLite have freed: the C library keeps it for them, thread by thread (390 MB of 420 after 77,000 requests).
    private static void GiveNativeBack()
    {
        try
        {
            _ = Trim(0);
        }
        catch (Exception error) when (error is DllNotFoundException or EntryPointNotFoundException)
        {
            // Another C library does that by itself.
        }
    }

    // https://man7.org/linux/man-pages/man3/malloc_trim.3.html
    [DllImport("libc.so.6", EntryPoint = "malloc_trim")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int Trim(nuint kept);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            using var timer = new PeriodicTimer(Between);
            var sinceGivenBack = 0;
            while (await timer.WaitForNextTickAsync(stoppingToken))
            {
                var now = Interlocked.Exchange(ref asked, 0);
                sinceGivenBack += now;
                if (now > 0) GiveNativeBack();
                if (now > 0 || sinceGivenBack < Much) continue;
                sinceGivenBack = 0;
                GiveBack();
            }
        }
        catch (OperationCanceledException)
        {
            // The host stops.
        }
    }
}
