using System.Diagnostics;
using System.Net.WebSockets;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using LivelyTern.Devices.Printer;
using LivelyTern.Devices.Probe;
using LivelyTern.Devices.Scale;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;

namespace LivelyTern.Devices;

/// <summary>
/// A scale, a probe and a label printer to play with, a service of their own at an address of their own: <c>/scale</c> and <c>/probe</c>,
/// ten readings a second over WebSocket, and <c>/printer</c>. A real device at another address takes their place.
/// </summary>
public sealed class SimulatedDevices : IAsyncDisposable
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(100);
    private readonly Lock gate = new();
    private readonly WebApplication app;
    private readonly SimulatedScale scale = new(Random.Shared.NextDouble);
    private readonly SimulatedProbe probe = new();
    private readonly SimulatedPrinter printer = new();
    private readonly CancellationTokenSource ends = new();
    private readonly TimeProvider clock;
    private CancellationTokenSource plugged = new();
    private long advanced = Stopwatch.GetTimestamp();
    private bool isUnplugged;

    private SimulatedDevices(WebApplication app, TimeProvider clock) => (this.app, this.clock) = (app, clock);

    /// <summary>Where they are: "http://127.0.0.1:41234".</summary>
    public string Address => app.Urls.First();

    /// <summary>Whether their plug is pulled.</summary>
    public bool IsUnplugged
    {
        get
        {
            lock (gate) return isUnplugged;
        }
    }

    /// <summary>Starts them on a port of this machine.</summary>
    /// <param name="port">The port; 0 for any that is free.</param>
    /// <param name="clock">The clock of the readings.</param>
    public static async Task<SimulatedDevices> StartAsync(int port, TimeProvider clock)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls($"http://127.0.0.1:{port}");
        var service = builder.Build();
        var devices = new SimulatedDevices(service, clock);
        service.UseWebSockets();
        string Scale() => DeviceMessage.Write(devices.Now(devices.scale.Read));
        string Probe() => DeviceMessage.Write(devices.Now(devices.probe.Read));
        service.Map("/scale", context => devices.ServeAsync(context, Scale, devices.ToScale));
        service.Map("/probe", context => devices.ServeAsync(context, Probe, _ => { }));
        service.MapGet("/printer/state", () => devices.IsUnplugged ? Unanswered : Results.Json(devices.Printer(own => own.State), Json));
        service.MapPost("/printer/labels", devices.PrintAsync);
        await service.StartAsync();
        return devices;
    }

    /// <summary>Does something to the printer.</summary>
    public void Play(Action<SimulatedPrinter> act)
    {
        ArgumentNullException.ThrowIfNull(act);
        lock (gate) act(printer);
    }

    /// <summary>Looks at the printer.</summary>
    public T Printer<T>(Func<SimulatedPrinter, T> act)
    {
        ArgumentNullException.ThrowIfNull(act);
        lock (gate) return act(printer);
    }

    /// <summary>Does something to the scale.</summary>
    public void Play(Action<SimulatedScale> act)
    {
        ArgumentNullException.ThrowIfNull(act);
        lock (gate)
        {
            Advance();
            act(scale);
        }
    }

    /// <summary>Does something to the probe.</summary>
    public void Play(Action<SimulatedProbe> act)
    {
        ArgumentNullException.ThrowIfNull(act);
        lock (gate)
        {
            Advance();
            act(probe);
        }
    }

    /// <summary>Pulls the plug of all, or puts it in again.</summary>
    public void Unplug(bool isOut)
    {
        CancellationTokenSource? pulled = null;
        lock (gate)
        {
            if (isUnplugged == isOut) return;
            isUnplugged = isOut;
            if (isOut) pulled = plugged;
            else plugged = new();
        }

        pulled?.Cancel();
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        await ends.CancelAsync();
        await app.StopAsync();
        await app.DisposeAsync();
        ends.Dispose();
        plugged.Dispose();
    }

    private static IResult Unanswered => Results.StatusCode(StatusCodes.Status503ServiceUnavailable);

    private async Task<IResult> PrintAsync(HttpRequest request, double width, double height)
    {
        if (IsUnplugged) return Unanswered;
        using var png = new MemoryStream();
        await request.Body.CopyToAsync(png);
        var said = Printer(own => own.Print(new(png.ToArray(), width, height), clock.GetUtcNow()));
        return Results.StatusCode(said switch
        {
            PrintSays.Printed => StatusCodes.Status202Accepted,
            PrintSays.NoTape => StatusCodes.Status409Conflict,
            _ => StatusCodes.Status422UnprocessableEntity,
        });
    }

    private T Now<T>(Func<DateTimeOffset, T> read)
    {
        lock (gate)
        {
            Advance();
            return read(clock.GetUtcNow());
        }
    }

    private void Advance()
    {
        var now = Stopwatch.GetTimestamp();
        var seconds = Stopwatch.GetElapsedTime(advanced, now).TotalSeconds;
        advanced = now;
        scale.Advance(seconds);
        probe.Advance(seconds);
    }

    // "tare", "on", and what the display shows.
    private void ToScale(string wish)
    {
        try
        {
            using var read = JsonDocument.Parse(wish, new() { MaxDepth = 4 });
            if (read.RootElement.ValueKind != JsonValueKind.Object || !read.RootElement.TryGetProperty("type", out var type)) return;
            if (type.ValueKind != JsonValueKind.String) return;
            Play(own => Obey(own, type.GetString(), read.RootElement));
        }
        catch (JsonException)
        {
            // Nonsense: a scale shrugs.
        }
    }

    private static void Obey(SimulatedScale own, string? type, JsonElement wish)
    {
        if (type is "tare") own.Tare();
        if (type is "on") own.TurnOn();
        if (type is not "unit" || !wish.TryGetProperty("unit", out var unit)) return;
        if (unit.ValueKind == JsonValueKind.String) own.Show(unit.GetString()!);
    }

    private async Task ServeAsync(HttpContext context, Func<string> say, Action<string> hear)
    {
        if (!context.WebSockets.IsWebSocketRequest || IsUnplugged)
        {
            context.Response.StatusCode = IsUnplugged ? StatusCodes.Status503ServiceUnavailable : StatusCodes.Status400BadRequest;
            return;
        }

        using var socket = await context.WebSockets.AcceptWebSocketAsync();
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(ends.Token, plugged.Token, context.RequestAborted);
        try
        {
            await Task.WhenAny(SayAsync(socket, say, stop.Token), HearAsync(socket, hear, stop.Token));
        }
        finally
        {
            await stop.CancelAsync();
            socket.Abort();
        }
    }

    private static async Task SayAsync(WebSocket socket, Func<string> say, CancellationToken stop)
    {
        try
        {
            using var timer = new PeriodicTimer(Between);
            do await socket.SendAsync(Encoding.UTF8.GetBytes(say()), WebSocketMessageType.Text, endOfMessage: true, stop);
            while (await timer.WaitForNextTickAsync(stop));
        }
        catch (Exception gone) when (gone is OperationCanceledException or WebSocketException)
        {
            // Nobody listens any more.
        }
    }

    private static async Task HearAsync(WebSocket socket, Action<string> hear, CancellationToken stop)
    {
        var buffer = new byte[DeviceMessage.Longest];
        try
        {
            while (true)
            {
                var got = await socket.ReceiveAsync(buffer, stop);
                if (got.MessageType == WebSocketMessageType.Close) return;
                if (got.EndOfMessage) hear(Encoding.UTF8.GetString(buffer, 0, got.Count));
            }
        }
        catch (Exception gone) when (gone is OperationCanceledException or WebSocketException)
        {
            // Nobody speaks any more.
        }
    }
}
