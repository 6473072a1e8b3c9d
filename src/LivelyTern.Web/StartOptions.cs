using System.Globalization;
using System.Net.NetworkInformation;

namespace LivelyTern.Web;

/// <summary>How the program was started.</summary>
/// <param name="Port">The port on 127.0.0.1.</param>
/// <param name="DatabasePath">The household's file.</param>
/// <param name="IsDemo">Whether the demo week is laid into an empty file.</param>
/// <param name="Clock">The clock: the machine's, or one that was moved: to a day with <c>--today</c>, and on by hand in a demo.</param>
/// <param name="Hosts">Names it answers to besides those of the machine itself: those of a proxy before it.</param>
public sealed record StartOptions(int Port, string DatabasePath, bool IsDemo, TimeProvider Clock, IReadOnlyList<string> Hosts)
{
    /// <summary>Where the kitchen's scale is, "ws://192.168.1.20/scale"; null for none.</summary>
    public Uri? ScaleAt { get; init; }

    /// <summary>Where the kitchen's probe thermometer is; null for none.</summary>
    public Uri? ProbeAt { get; init; }

    /// <summary>Where the kitchen's label printer is, "http://192.168.1.22/printer"; null for none.</summary>
    public Uri? PrinterAt { get; init; }

    /// <summary>Whether a damaged file is to be laid aside and its last copy put in its place.</summary>
    public bool WantsLastCopy { get; init; }

    /// <summary>The address printed and listened on.</summary>
    public string Url => string.Create(CultureInfo.InvariantCulture, $"http://127.0.0.1:{Port}");

    /// <summary>
    /// Reads <c>--port</c>, <c>--data</c>, <c>--demo true</c>, <c>--today 2026-11-25</c> or <c>2026-11-25T10:00</c>, <c>--play-clock
    /// true</c> (time can be let pass) or <c>still</c> (and passes in no other way), <c>--hosts kitchen.lan,tern.lan</c>, <c>--scale
    /// ws://…</c>, <c>--probe ws://…</c>, <c>--printer http://…</c> and <c>--last-copy true</c>.
    /// </summary>
    public static StartOptions From(IConfiguration settings)
    {
        ArgumentNullException.ThrowIfNull(settings);
        var demo = IsTrue(settings["demo"]);
        var (played, still) = (IsTrue(settings["play-clock"]), IsStill(settings["play-clock"]));
        var clock = new PlayedClock(Begins(settings["today"]), demo || played || still, still);
        var port = int.TryParse(settings["port"], NumberStyles.None, CultureInfo.InvariantCulture, out var wanted)
            && wanted is > 0 and < 65536
            ? wanted
            : 5080;
        var data = settings["data"] is { Length: > 0 } path
            ? Path.GetFullPath(path)
            : Path.Combine(DataFolder(), demo ? DemoFile(clock) : "tern.db");
        var hosts = (settings["hosts"] ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        return new(port, data, demo, clock, hosts)
        {
            ScaleAt = DeviceAt(settings["scale"], "ws", "wss"),
            ProbeAt = DeviceAt(settings["probe"], "ws", "wss"),
            WantsLastCopy = IsTrue(settings["last-copy"]),
            PrinterAt = DeviceAt(settings["printer"], "http", "https"),
        };
    }

    /// <summary>The next free port of this machine after one that is taken; null where none of the next hundred is.</summary>
    public static int? NextFreePort(int taken)
    {
        var used = IPGlobalProperties.GetIPGlobalProperties().GetActiveTcpListeners().Select(listener => listener.Port).ToHashSet();
        return Enumerable.Range(taken + 1, 100).Where(port => port < 65536 && !used.Contains(port)).Select(port => (int?)port)
            .FirstOrDefault();
    }

    private static bool IsStill(string? said) => string.Equals(said, "still", StringComparison.OrdinalIgnoreCase);

    private static bool IsTrue(string? said) => string.Equals(said, "true", StringComparison.OrdinalIgnoreCase);

    // A day alone keeps the machine's time of day.
    private static DateTime? Begins(string? said)
    {
        if (!DateTime.TryParse(said, CultureInfo.InvariantCulture, out var moment)) return null;
        var isDay = DateOnly.TryParseExact(said, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out _);
        return isDay ? moment.Date + TimeProvider.System.GetLocalNow().TimeOfDay : moment;
    }

    private static Uri? DeviceAt(string? said, params string[] schemes) =>
        Uri.TryCreate(said, UriKind.Absolute, out var at) && schemes.Contains(at.Scheme, StringComparer.Ordinal) ? at : null;

    // A demo file for each day, so that its week is always the current one.
    private static string DemoFile(TimeProvider clock) =>
        Path.Combine("demo", string.Create(CultureInfo.InvariantCulture, $"{clock.GetLocalNow():yyyy-MM-dd}.db"));

    private static string DataFolder() => Path.Combine(
        Environment.GetEnvironmentVariable("XDG_DATA_HOME") is { Length: > 0 } xdg
            ? xdg
            : Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.UserProfile), ".local", "share"),
        "lively-tern");
}
