namespace LivelyTern.Web;

/// <summary>
/// Gives memory back to the machine once a while of much asking is over: a kitchen's computer has other things to do between meals.
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
    public static void GiveBack() => GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);

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
