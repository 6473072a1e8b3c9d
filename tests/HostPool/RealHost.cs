using System.Globalization;
using System.Net;
using System.Net.Sockets;
using LivelyTern.Data.Disk;
using LivelyTern.Web;
using Microsoft.Data.Sqlite;

namespace LivelyTern.HostPool;

/// <summary>A host to be started.</summary>
/// <param name="Data">Its file; made where there is none.</param>
/// <param name="IsDemo">Whether the demo is laid into an empty file.</param>
/// <param name="Today">Its day, "2026-11-25", or its moment, "2026-11-25T10:00".</param>
/// <param name="Port">Its port on loopback; null for any that is free.</param>
/// <param name="IsClockStill">Whether time passes only when it is let pass.</param>
/// <param name="Hosts">Names it answers to besides this machine's, with commas between.</param>
public sealed record HostRequest(string Data, bool IsDemo, string Today, int? Port = null, bool IsClockStill = false, string Hosts = "");

/// <summary>
/// The real host on a real port of loopback within this process: all that <c>Program</c> does but the first reading of everything
/// (<c>WarmUp</c>), which here would be repeated for each test.
/// </summary>
public static class RealHost
{
    /// <summary>Starts it, and waits until its file is open.</summary>
    /// <param name="content">The folder with the built front end (<c>wwwroot</c>) and the tables on offer (<c>libraries</c>).</param>
    /// <param name="request">What to start.</param>
    /// <param name="replace">Replaces services of the program; null for none.</param>
    /// <returns>The host and its port.</returns>
    public static async Task<(WebApplication App, int Port)> StartAsync(
        string content, HostRequest request, Action<IServiceCollection>? replace = null)
    {
        ArgumentNullException.ThrowIfNull(request);
        var port = request.Port ?? FreePort();
        string[] args =
        [
            "--port", port.ToString(CultureInfo.InvariantCulture), "--data", request.Data, "--today", request.Today,
            "--play-clock", request.IsClockStill ? "still" : "false", "--demo", request.IsDemo ? "true" : "false",
            "--hosts", request.Hosts,
        ];
        var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = content });
        if (replace is not null) builder.Host.ConfigureContainer(replace);
        var app = KitchenHost.Build(builder, StartOptions.From(builder.Configuration));
        await app.StartAsync();
        await KitchenHost.PrepareAsync(app);
        return (app, port);
    }

    /// <summary>Closes it as its process would end: its file is whole afterwards, without a log beside it.</summary>
    /// <param name="app">The host.</param>
    /// <param name="data">Its file.</param>
    public static async Task CloseAsync(WebApplication app, string data)
    {
        ArgumentNullException.ThrowIfNull(app);
        await app.StopAsync();
        await app.DisposeAsync();
        using var connection = new SqliteConnection(TernFile.ConnectionString(data));
        SqliteConnection.ClearPool(connection);
    }

    /// <summary>A port that was free a moment ago.</summary>
    public static int FreePort()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }
}
