using LivelyTern.Devices;
using LivelyTern.Devices.Printer;
using LivelyTern.Devices.Probe;
using LivelyTern.Devices.Scale;

namespace LivelyTern.Web.Devices;

/// <summary>
/// The kitchen's scale, probe and label printer: those at the addresses the program was started with; in the demo simulated ones, started
/// when somebody first looks.
/// </summary>
public sealed class DeviceDesk(StartOptions start, TimeProvider clock) : IAsyncDisposable
{
    private static readonly TimeSpan TriedAgain = TimeSpan.FromMilliseconds(500);
    private readonly SemaphoreSlim turn = new(1, 1);
    private SharedFeed<ScaleReading>? scale;
    private SharedFeed<ProbeReading>? probe;
    private HttpLabelPrinter? printer;
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

    /// <summary>The label printer; null where there is none.</summary>
    public async Task<ILabelPrinter?> PrinterAsync()
    {
        await OpenAsync();
        return printer;
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        printer?.Dispose();
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
            var (scaleAt, probeAt, printerAt) = (start.ScaleAt, start.ProbeAt, start.PrinterAt);
            if (start.IsDemo && scaleAt is null && probeAt is null && printerAt is null)
            {
                Simulated = await SimulatedDevices.StartAsync(0, clock);
                var at = new UriBuilder(Simulated.Address) { Scheme = "ws" }.Uri;
                (scaleAt, probeAt, printerAt) = (new(at, "scale"), new(at, "probe"), new(new Uri(Simulated.Address), "printer"));
            }

            if (scaleAt is not null) scale = new(new WebSocketFeed<ScaleReading>(scaleAt, DeviceMessage.ReadScale, TriedAgain));
            if (probeAt is not null) probe = new(new WebSocketFeed<ProbeReading>(probeAt, DeviceMessage.ReadProbe, TriedAgain));
            if (printerAt is not null) printer = new(printerAt);
            isOpen = true;
        }
        finally
        {
            turn.Release();
        }
    }
}
