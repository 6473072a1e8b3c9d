using System.Net.WebSockets;
using System.Text;
using System.Text.Json.Nodes;
using LivelyTern.Devices;
using LivelyTern.Devices.Probe;
using LivelyTern.Devices.Scale;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.Logging;

namespace LivelyTern.Web.Tests;

/// <summary>A scale and a probe that are not there behave as those that are; what a device says wrong or not at all harms nothing.</summary>
public sealed class DevicesTests
{
    private static readonly DateTimeOffset At = new(2026, 11, 28, 10, 0, 0, TimeSpan.Zero);

    private static SimulatedScale Scale() => new(new Random(1).NextDouble);

    private static (decimal? Grams, ScaleState State) After(SimulatedScale scale, double seconds)
    {
        for (var at = 0.0; at < seconds; at += 0.1) scale.Advance(0.1);
        var reading = scale.Read(At);
        return (reading.Grams, reading.State);
    }

    [Fact]
    public void A_reading_moves_and_comes_to_rest_on_the_gram()
    {
        var scale = Scale();
        scale.Put(500);
        Assert.Equal(ScaleState.Settling, After(scale, 0.3).State);
        Assert.Equal((500, ScaleState.Stable), After(scale, 3));
        scale.Stir();
        Assert.Equal(ScaleState.Settling, After(scale, 0.5).State);
        Assert.Equal((500, ScaleState.Stable), After(scale, 4));
    }

    /// <summary>Out of a jar on the scale the amount is read below nothing (minus weighing: common practice, no published source).</summary>
    [Fact]
    public void Set_to_nothing_it_reads_what_comes_and_what_goes()
    {
        var scale = Scale();
        scale.Put(820);
        After(scale, 3);
        scale.Tare();
        Assert.Equal((0, ScaleState.Stable), After(scale, 2));
        scale.Put(-35);
        Assert.Equal((-35, ScaleState.Stable), After(scale, 3));
        scale.Clear();
        Assert.Equal((-820, ScaleState.Stable), After(scale, 3));
    }

    [Fact]
    public void Too_much_is_no_reading_and_left_alone_it_turns_itself_off()
    {
        var scale = Scale();
        scale.Put(5200);
        Assert.Equal((null, ScaleState.Overload), After(scale, 1));
        scale.Put(-4000);
        Assert.Equal((1200, ScaleState.Stable), After(scale, 3));
        Assert.InRange(After(scale, 170).Grams!.Value, 1200, 1202); // it drifts, slowly
        Assert.Equal((null, ScaleState.Off), After(scale, 20));
        scale.TurnOn();
        Assert.Equal((0, ScaleState.Stable), After(scale, 2)); // with what is on it as nothing
    }

    /// <summary>Newton's law of cooling: T = Ts + (T0 - Ts) (1 - k)^minutes, here 21 + 69 x 0.9^10 = 45.06.</summary>
    [Fact]
    public void A_probe_nears_what_is_around_it_by_the_law_of_cooling()
    {
        var probe = new SimulatedProbe();
        probe.StickInto(90);
        probe.PutInto(21, 0.1);
        for (var i = 0; i < 600; i++) probe.Advance(1);
        Assert.Equal(45.1m, probe.Read(At).Celsius);
        probe.PutInto(180, 0.5);
        probe.Advance(36_000);
        Assert.Equal(180, probe.Read(At).Celsius);
    }

    [Theory]
    [InlineData("""{"type":"scale","at":"2026-11-28T10:00:00Z","grams":12.34,"state":"stable","unit":"g"}""", 12.3)]
    [InlineData("""{"type":"scale","at":"2026-11-28T10:00:00Z","grams":null,"state":"stable","unit":"g"}""", null)] // at rest on nothing known
    [InlineData("""{"type":"scale","at":"2026-11-28T10:00:00Z","grams":5,"state":"overload","unit":"g"}""", null)]
    [InlineData("""{"type":"scale","at":"2026-11-28T10:00:00Z","grams":1e9,"state":"stable","unit":"g"}""", null)]
    [InlineData("""{"type":"scale","at":"2026-11-28T10:00:00Z","grams":"5","state":"stable","unit":"g"}""", null)]
    [InlineData("""{"type":"scale","at":"2026-11-28T10:00:00Z","grams":5,"state":"stable","unit":"stone"}""", null)]
    [InlineData("""{"type":"probe","at":"2026-11-28T10:00:00Z","celsius":63}""", null)]
    [InlineData("[[[[[[]]]]]]", null)]
    [InlineData("", null)]
    public void Nonsense_of_a_scale_is_no_reading(string message, double? grams) =>
        Assert.Equal((decimal?)grams, DeviceMessage.ReadScale(message)?.Grams);

    [Fact]
    public void Readings_are_read_as_they_are_sent()
    {
        foreach (var state in Enum.GetValues<ScaleState>())
        {
            var reading = new ScaleReading(At, state is ScaleState.Settling or ScaleState.Stable ? -35 : null, state, "oz");
            Assert.Equal(reading, DeviceMessage.ReadScale(DeviceMessage.Write(reading)));
        }

        Assert.Equal(new(At, 63.2m), DeviceMessage.ReadProbe(DeviceMessage.Write(new ProbeReading(At, 63.2m))));
        Assert.Null(DeviceMessage.ReadProbe("""{"type":"probe","at":"2026-11-28T10:00:00Z","celsius":9000}"""));
    }

    /// <summary>Reads the live stream until something is shown, within so many readings.</summary>
    private static async Task UntilAsync(StreamReader stream, Func<JsonNode?, bool> isThere)
    {
        for (var lines = 0; lines < 3000; lines++)
        {
            var name = await stream.ReadLineAsync();
            if (!string.Equals(name, "event: scale", StringComparison.Ordinal)) continue;
            var data = (await stream.ReadLineAsync())!["data: ".Length..];
            if (isThere(JsonNode.Parse(data))) return;
        }

        Assert.Fail("It was never shown.");
    }

    [Fact]
    public async Task What_is_put_on_the_scale_is_seen_live_and_a_lost_scale_comes_back_by_itself()
    {
        using var host = new Host(demo: true);
        Assert.True((bool)(await host.GetAsync("/api/devices"))["isSimulated"]!);
        Task PlayAsync(string act, double amount = 0) => host.PostAsync("/api/devices/play", new { act, amount });
        using var answer = await host.Http.GetAsync("/api/devices/stream", HttpCompletionOption.ResponseHeadersRead);
        using var stream = new StreamReader(await answer.Content.ReadAsStreamAsync());
        bool Stable(JsonNode? reading, decimal grams) =>
            reading is not null && (string)reading["state"]! == "stable" && (decimal?)reading["grams"] == grams;
        await PlayAsync("put", 456);
        await UntilAsync(stream, reading => Stable(reading, 456));
        await host.PostAsync("/api/devices/scale/wishes", new { wish = "tare" });
        await UntilAsync(stream, reading => Stable(reading, 0));
        await PlayAsync("unplug");
        await UntilAsync(stream, reading => reading is null);
        await PlayAsync("plug");
        await UntilAsync(stream, reading => Stable(reading, 0));
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Post, "/api/devices/play", new { act = "put", amount = 1e9 })).Status);
    }

    [Fact]
    public async Task A_kitchen_without_devices_has_none_and_nothing_to_play_with()
    {
        using var host = new Host();
        Assert.False((bool)(await host.GetAsync("/api/devices"))["hasScale"]!);
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Post, "/api/devices/play", new { act = "put", amount = 1 })).Status);
        Assert.Equal(422, (await host.SendAsync(HttpMethod.Post, "/api/devices/scale/wishes", new { wish = "tare" })).Status);
    }

    private sealed class BreaksOnce : IDeviceFeed<ScaleReading>
    {
        private int tries;

        public async IAsyncEnumerable<ScaleReading?> ReadAsync(
            [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken stop)
        {
            yield return new ScaleReading(At, ++tries, ScaleState.Stable, "g");
            await Task.Yield();
            if (tries == 1) throw new InvalidOperationException("The driver has a fault.");
        }

        public Task SendAsync(string wish) => Task.CompletedTask;
    }

    [Fact]
    public async Task A_line_that_breaks_by_a_fault_is_said_to_be_lost_and_tried_again()
    {
        using var shared = new SharedFeed<ScaleReading>(new BreaksOnce());
        var heard = new List<decimal?>();
        using var stop = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        await foreach (var reading in shared.WatchAsync(stop.Token))
        {
            heard.Add(reading?.Grams);
            if (heard.Contains(2)) await stop.CancelAsync();
        }

        // Who joins is told first that nothing is known; who is slow may miss a reading, never that the line is back.
        Assert.Equal(2, heard[^1]);
    }

    /// <summary>A device that talks nonsense, says too much at once, hangs up: what it says right between is heard, and it is tried again.</summary>
    [Fact]
    public async Task A_device_that_talks_nonsense_is_heard_where_it_does_not()
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        await using var device = builder.Build();
        device.UseWebSockets();
        var calls = 0;
        device.Map("/scale", async context =>
        {
            using var socket = await context.WebSockets.AcceptWebSocketAsync();
            async Task SayAsync(string text) =>
                await socket.SendAsync(Encoding.UTF8.GetBytes(text), WebSocketMessageType.Text, true, CancellationToken.None);
            await SayAsync("hello?");
            await SayAsync(DeviceMessage.Write(new ScaleReading(At, ++calls, ScaleState.Stable, "g")));
            await SayAsync(new string('x', 100_000));
            await Task.Delay(50);
            socket.Abort();
        });
        await device.StartAsync();
        var feed = new WebSocketFeed<ScaleReading>(
            new UriBuilder(device.Urls.First()) { Scheme = "ws", Path = "/scale" }.Uri, DeviceMessage.ReadScale,
                TimeSpan.FromMilliseconds(10));
        var heard = new List<decimal?>();
        using var stop = new CancellationTokenSource();
        await foreach (var reading in feed.ReadAsync(stop.Token))
        {
            heard.Add(reading?.Grams);
            if (heard.Count == 6) await stop.CancelAsync();
        }

        Assert.Equal([1, null, 2, null, 3, null], heard.Take(6));
        Assert.Equal(3, feed.Nonsense);
    }
}
