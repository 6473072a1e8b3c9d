using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Text.Json;
using System.Threading.Channels;
using LivelyTern.Core.Measures;
using LivelyTern.Devices;
using LivelyTern.Devices.Printer;
using LivelyTern.Devices.Probe;
using LivelyTern.Devices.Scale;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Extensions.Options;
using JsonOptions = Microsoft.AspNetCore.Http.Json.JsonOptions;

namespace LivelyTern.Web.Devices;

/// <summary>What devices the kitchen has.</summary>
/// <param name="HasScale">Whether it has a scale.</param>
/// <param name="HasProbe">Whether it has a probe.</param>
/// <param name="HasPrinter">Whether it has a label printer.</param>
/// <param name="IsSimulated">Whether they are simulated, and can be played with.</param>
/// <param name="Scale">What the scale showed last, while somebody looks; null where it is lost.</param>
/// <param name="Probe">What the probe showed last.</param>
public sealed record DevicesView(
    bool HasScale, bool HasProbe, bool HasPrinter, bool IsSimulated, ScaleReading? Scale, ProbeReading? Probe);

/// <summary>The label printer.</summary>
/// <param name="Stands">How it stands.</param>
/// <param name="TapeWidthMm">How wide its tape is.</param>
/// <param name="TapeLeftMm">How much of it is left.</param>
/// <param name="Tray">What lies in the tray of a simulated one, the newest first; empty for a real one.</param>
public sealed record PrinterView(PrinterStands Stands, double TapeWidthMm, double TapeLeftMm, IReadOnlyList<TrayLabelView> Tray);

/// <summary>A label in the tray; its picture is at <c>/api/devices/printer/tray/{id}</c>.</summary>
public sealed record TrayLabelView(int Id, double WidthMm, double HeightMm);

/// <summary>What the scale is asked to do.</summary>
public enum ScaleWish
{
    /// <summary>What is on it weighs nothing from now on.</summary>
    Tare,

    /// <summary>Turn on.</summary>
    On,

    /// <summary>Show grams.</summary>
    Grams,

    /// <summary>Show ounces.</summary>
    Ounces,
}

/// <summary>A wish for the scale.</summary>
public sealed record WishRequest(ScaleWish Wish);

/// <summary>What is done to the simulated devices.</summary>
public enum PlayAct
{
    /// <summary>Grams are put on the scale, or below zero taken off.</summary>
    Put,

    /// <summary>Everything is taken off the scale.</summary>
    Clear,

    /// <summary>The bowl on the scale is stirred.</summary>
    Stir,

    /// <summary>The probe is stuck into something of so many °C.</summary>
    StickInto,

    /// <summary>The probe's food is put where it is so many °C.</summary>
    PutInto,

    /// <summary>The plug is pulled.</summary>
    Unplug,

    /// <summary>The plug is put in again.</summary>
    Plug,

    /// <summary>A new roll of tape is put into the printer, so many mm wide.</summary>
    NewTape,

    /// <summary>Of its tape only so many mm are left.</summary>
    ShortTape,

    /// <summary>Its tray is emptied.</summary>
    EmptyTray,
}

/// <summary>Something done to the simulated devices.</summary>
/// <param name="Act">What.</param>
/// <param name="Amount">Grams, or °C.</param>
public sealed record PlayRequest(PlayAct Act, double Amount = 0);

/// <summary>The kitchen's scale and probe, live.</summary>
public static class DeviceEndpoints
{
    // By how much of the difference the played food nears what is around it in a minute: quick enough to watch.
    private const double PlayedShare = 0.12, MostPlayed = 20_000;

    /// <summary>Maps <c>/api/devices</c>.</summary>
    public static void MapDevices(this IEndpointRouteBuilder api)
    {
        var devices = api.MapGroup("/devices").WithTags("Devices");
        devices.MapGet("", async (DeviceDesk desk) =>
        {
            var (scale, probe, printer) = (await desk.ScaleAsync(), await desk.ProbeAsync(), await desk.PrinterAsync());
            return new DevicesView(
                scale is not null, probe is not null, printer is not null, desk.Simulated is not null, scale?.Last, probe?.Last);
        }).WithName("getDevices");
        devices.MapPost("/scale/wishes", async Task<Results<Ok<WishRequest>, ProblemHttpResult>> (WishRequest body, DeviceDesk desk) =>
        {
            if (await desk.ScaleAsync() is not { } scale)
                return Answers.Problem([new("no-scale", "", "No scale is known to the program: weigh and type.")]);
            await scale.SendAsync(LineOf(body.Wish));
            return TypedResults.Ok(body);
        }).WithName("askScale");
        devices.MapGet("/printer", PrinterAsync).WithName("getPrinter");
        devices.MapGet("/printer/tray/{id:int}", async Task<Results<FileContentHttpResult, NotFound>> (int id, DeviceDesk desk) =>
        {
            await desk.PrinterAsync();
            var label = desk.Simulated?.Printer(own => own.Tray.FirstOrDefault(one => one.Id == id));
            return label is null ? TypedResults.NotFound() : TypedResults.File(label.Label.Png, "image/png");
        }).ExcludeFromDescription();
        devices.MapPost("/play", PlayAsync).WithName("playDevices");
        devices.MapGet("/stream", async (
            DeviceDesk desk, IOptions<JsonOptions> json, IHostApplicationLifetime life, HttpContext context) =>
        {
            var stop = CancellationTokenSource.CreateLinkedTokenSource(context.RequestAborted, life.ApplicationStopping);
            context.Response.RegisterForDispose(stop);
            var (scale, probe) = (await desk.ScaleAsync(), await desk.ProbeAsync());
            return TypedResults.ServerSentEvents(StreamAsync(scale, probe, json.Value.SerializerOptions, stop.Token));
        }).ExcludeFromDescription();
    }

    private static async Task<Results<Ok<PrinterView>, ProblemHttpResult>> PrinterAsync(DeviceDesk desk)
    {
        if (await desk.PrinterAsync() is not { } printer) return Answers.Problem([NoPrinter]);
        var state = await printer.StateAsync();
        var tray = desk.Simulated?.Printer(own => own.Tray) ?? [];
        return TypedResults.Ok(new PrinterView(
            state.Stands, state.TapeWidthMm, state.TapeLeftMm,
            [.. tray.Select(one => new TrayLabelView(one.Id, one.Label.WidthMm, one.Label.HeightMm))]));
    }

    /// <summary>There is no label printer.</summary>
    public static Problem NoPrinter { get; } =
        new("no-printer", "", "No label printer is known to the program: print a sheet, or take the PDF.");

    private static string LineOf(ScaleWish wish) => wish switch
    {
        ScaleWish.Tare => """{"type":"tare"}""",
        ScaleWish.On => """{"type":"on"}""",
        ScaleWish.Ounces => """{"type":"unit","unit":"oz"}""",
        _ => """{"type":"unit","unit":"g"}""",
    };

    // Readings of both, each under its own name; "null" when one is lost.
    private static async IAsyncEnumerable<SseItem<string>> StreamAsync(
        SharedFeed<ScaleReading>? scale, SharedFeed<ProbeReading>? probe, JsonSerializerOptions json,
        [EnumeratorCancellation] CancellationToken stop)
    {
        var both = Channel.CreateBounded<SseItem<string>>(new BoundedChannelOptions(4) { FullMode = BoundedChannelFullMode.DropOldest });
        async Task PumpAsync<T>(string name, SharedFeed<T>? feed)
            where T : class
        {
            if (feed is null) return;
            await foreach (var reading in feed.WatchAsync(stop))
                both.Writer.TryWrite(new(JsonSerializer.Serialize(reading, json), name));
        }

        var pumps = Task.WhenAll(PumpAsync("scale", scale), PumpAsync("probe", probe));
        _ = pumps.ContinueWith(_ => both.Writer.TryComplete(), TaskScheduler.Default);
        await foreach (var item in both.Reader.ReadAllAsync(CancellationToken.None)) yield return item;
    }

    private static async Task<Results<Ok<PlayRequest>, ProblemHttpResult>> PlayAsync(PlayRequest body, DeviceDesk desk)
    {
        await desk.ScaleAsync();
        if (desk.Simulated is not { } devices)
            return Answers.Problem([new("not-simulated", "", "These are the kitchen's own devices: there is nothing to play with.")]);
        if (!(Math.Abs(body.Amount) <= MostPlayed)) return Answers.Problem([new("amount-absurd", "amount", "Up to 20 kg, or 20,000 °C.")]);
        switch (body.Act)
        {
            case PlayAct.Put: devices.Play((SimulatedScale scale) => scale.Put(body.Amount)); break;
            case PlayAct.Clear: devices.Play((SimulatedScale scale) => scale.Clear()); break;
            case PlayAct.Stir: devices.Play((SimulatedScale scale) => scale.Stir()); break;
            case PlayAct.StickInto: devices.Play((SimulatedProbe probe) => probe.StickInto(body.Amount)); break;
            case PlayAct.PutInto: devices.Play((SimulatedProbe probe) => probe.PutInto(body.Amount, PlayedShare)); break;
            case PlayAct.NewTape: devices.Play((SimulatedPrinter printer) => printer.Load(body.Amount)); break;
            case PlayAct.ShortTape:
                devices.Play((SimulatedPrinter printer) => printer.Load(printer.State.TapeWidthMm, Math.Max(0, body.Amount)));
                break;
            case PlayAct.EmptyTray: devices.Play((SimulatedPrinter printer) => printer.Empty()); break;
            default: devices.Unplug(body.Act == PlayAct.Unplug); break;
        }

        return TypedResults.Ok(body);
    }
}
