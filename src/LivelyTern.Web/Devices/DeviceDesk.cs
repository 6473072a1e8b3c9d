using LivelyTern.Devices;
using LivelyTern.Devices.Probe;
using LivelyTern.Devices.Scale;

namespace LivelyTern.Web.Devices;

/// <summary>
/// The kitchen's scale and probe: those at the addresses the program was started with; in the demo simulated ones, started when somebody
/// first looks.
/// </summary>
public sealed class DeviceDesk(StartOptions start, TimeProvider clock) : IAsyncDisposable
{
    private static readonly TimeSpan TriedAgain = TimeSpan.FromMilliseconds(500);
    private readonly SemaphoreSlim turn = new(1, 1);
    private SharedFeed<ScaleReading>? scale;
    private SharedFeed<ProbeReading>? probe;
    private bool isOpen;

    /// <summary>The simulated ones; null where the kitchen's own are used, or none.</summary>
    public SimulatedDevices? Simulated { get; private set; }

    /// <summary>The scale; null where there is none.</summary>
    public async Task<SharedFeed<ScaleReading>?> ScaleAsync()
    {
        await OpenAsync();
        return scale;
    }

    /// <summary>The probe; null where there is none.</summary>
    public async Task<SharedFeed<ProbeReading>?> ProbeAsync()
    {
        await OpenAsync();
        return probe;
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        scale?.Dispose();
        probe?.Dispose();
        if (Simulated is not null) await Simulated.DisposeAsync();
        turn.Dispose();
    }

    private async Task OpenAsync()
    {
        if (isOpen) return;
        await turn.WaitAsync();
        try
        {
            if (isOpen) return;
            var (scaleAt, probeAt) = (start.ScaleAt, start.ProbeAt);
            if (start.IsDemo && scaleAt is null && probeAt is null)
            {
                Simulated = await SimulatedDevices.StartAsync(0, clock);
                var at = new UriBuilder(Simulated.Address) { Scheme = "ws" }.Uri;
                (scaleAt, probeAt) = (new(at, "scale"), new(at, "probe"));
            }

            if (scaleAt is not null) scale = new(new WebSocketFeed<ScaleReading>(scaleAt, DeviceMessage.ReadScale, TriedAgain));
            if (probeAt is not null) probe = new(new WebSocketFeed<ProbeReading>(probeAt, DeviceMessage.ReadProbe, TriedAgain));
            isOpen = true;
        }
        finally
        {
            turn.Release();
        }
    }
}
