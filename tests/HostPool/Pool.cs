using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Net.Sockets;
using LivelyTern.Data.Disk;
using LivelyTern.Web;
using Microsoft.Data.Sqlite;

namespace LivelyTern.HostPool;

/// <summary>A host to be opened.</summary>
/// <param name="Data">Its file; where there is none yet, an empty household or the demo is copied there.</param>
/// <param name="IsDemo">Whether it is the demo.</param>
/// <param name="Today">Its day, "2026-11-25", or its moment, "2026-11-25T10:00", at which the clock then stands still.</param>
/// <param name="Port">Its port; null for any.</param>
public sealed record OpenRequest(string Data, bool IsDemo, string Today, int? Port);

/// <summary>Where an opened host answers.</summary>
public sealed record OpenedHost(int Port);

/// <summary>
/// Real hosts of the program, each with its own port, file, clock and services, in one process. A process for each host costs seconds of
/// compiling at its start; here only the first pays for them.
/// </summary>
public sealed class Pool(string content) : IAsyncDisposable
{
    private readonly ConcurrentDictionary<int, (WebApplication App, string Data)> hosts = new();
    private readonly ConcurrentDictionary<(bool IsDemo, string Today), Lazy<Task<string>>> templates = new();
    private readonly DirectoryInfo folder = Directory.CreateTempSubdirectory("tern-pool-");

    /// <summary>Opens a host, once it answers.</summary>
    public async Task<OpenedHost> OpenAsync(OpenRequest request)
    {
        ArgumentNullException.ThrowIfNull(request);
        if (!File.Exists(request.Data))
        {
            var template = templates.GetOrAdd(
                (request.IsDemo, request.Today), key => new(() => MakeTemplateAsync(key.IsDemo, key.Today)));
            File.Copy(await template.Value, request.Data);
        }

        return await StartAsync(request);
    }

    /// <summary>Closes a host as its process would end: its file is whole afterwards, without a log beside it.</summary>
    public async Task CloseAsync(int port)
    {
        if (!hosts.TryRemove(port, out var host)) return;
        await host.App.StopAsync();
        await host.App.DisposeAsync();
        using var connection = new SqliteConnection(TernFile.ConnectionString(host.Data));
        SqliteConnection.ClearPool(connection);
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        foreach (var port in hosts.Keys) await CloseAsync(port);
        folder.Delete(recursive: true);
    }

    private async Task<string> MakeTemplateAsync(bool isDemo, string today)
    {
        var path = Path.Combine(folder.FullName, string.Create(CultureInfo.InvariantCulture, $"{Guid.NewGuid()}.db"));
        var made = await StartAsync(new(path, isDemo, today, null));
        await CloseAsync(made.Port);
        return path;
    }

    private async Task<OpenedHost> StartAsync(OpenRequest request)
    {
        var port = request.Port ?? FreePort();
        string[] args =
        [
            "--port", port.ToString(CultureInfo.InvariantCulture), "--data", request.Data, "--today", request.Today,
            "--play-clock", request.Today.Contains('T', StringComparison.Ordinal) ? "still" : "false",
            "--demo", request.IsDemo ? "true" : "false",
        ];
        var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = content });
        var app = KitchenHost.Build(builder, StartOptions.From(builder.Configuration));
        await app.StartAsync();
        await KitchenHost.PrepareAsync(app);
        hosts[port] = (app, request.Data);
        return new(port);
    }

    private static int FreePort()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }
}
