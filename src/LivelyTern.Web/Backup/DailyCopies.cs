using LivelyTern.Data.Backup;
using LivelyTern.Data.Disk;
using LivelyTern.Web.Http;

namespace LivelyTern.Web.Backup;

/// <summary>Sees to it that each day on which the program runs has its copy. A demo, which has a file for each day, needs none.</summary>
public sealed class DailyCopies(
    IServiceScopeFactory scopes, StartOptions start, StartupGate gate, ILogger<DailyCopies> log) : BackgroundService
{
    // The start itself is left to the first screen.
    private static readonly TimeSpan AfterStart = TimeSpan.FromMinutes(1), Between = TimeSpan.FromMinutes(10);

    private readonly SemaphoreSlim turn = new(1, 1);

    /// <summary>Why the last one could not be made, in words; null where it was.</summary>
    public string? Trouble { get; private set; }

    /// <summary>Makes today's copy where there is none yet.</summary>
    public async Task CheckAsync()
    {
        await using var scope = scopes.CreateAsyncScope();
        var copies = scope.ServiceProvider.GetRequiredService<Copies>();
        if (!copies.HasToday) await MakeAsync(copies);
    }

    /// <summary>Makes today's copy.</summary>
    /// <returns>Whether it could be made; <see cref="Trouble"/> says why not.</returns>
    public async Task<bool> MakeAsync(Copies copies)
    {
        ArgumentNullException.ThrowIfNull(copies);

        // By the clock and by a press at once: one after another, or one would give its name to what the other has not finished.
        await turn.WaitAsync();
        try
        {
            await copies.MakeTodaysAsync();
            Trouble = null;
            return true;
        }
        catch (Exception error) when (Copies.IsOfTheDisk(error))
        {
            log.LogWarning(error, "The day's copy could not be made");
            Trouble = $"Today's copy could not be made. {FileTrouble.Why(error)}";
            return false;
        }
        finally
        {
            turn.Release();
        }
    }

    /// <inheritdoc/>
    public override void Dispose()
    {
        base.Dispose();
        turn.Dispose();
    }

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (start.IsDemo) return;
        try
        {
            await gate.WaitAsync(stoppingToken);
            await Task.Delay(AfterStart, stoppingToken);
            using var timer = new PeriodicTimer(Between);
            do await CheckAsync();
            while (await timer.WaitForNextTickAsync(stoppingToken));
        }
        catch (OperationCanceledException)
        {
            // The host stops.
        }
    }
}
