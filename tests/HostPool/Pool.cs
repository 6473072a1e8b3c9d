using System.Collections.Concurrent;
using System.Globalization;

namespace LivelyTern.HostPool;

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

    /// <summary>Opens a host. Where its file is not there yet, it is a copy of an empty household or of the demo, each made once.</summary>
    public async Task<OpenedHost> OpenAsync(HostRequest request)
    {
        ArgumentNullException.ThrowIfNull(request);
        if (!File.Exists(request.Data))
        {
            var key = (request.IsDemo, request.Today);
            File.Copy(await templates.GetOrAdd(key, _ => new(() => MakeTemplateAsync(request))).Value, request.Data);
        }

        var (app, port) = await RealHost.StartAsync(content, request);
        hosts[port] = (app, request.Data);
        return new(port);
    }

    /// <summary>Closes a host; one that is closed already stays so.</summary>
    public async Task CloseAsync(int port)
    {
        if (hosts.TryRemove(port, out var host)) await RealHost.CloseAsync(host.App, host.Data);
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        foreach (var port in hosts.Keys) await CloseAsync(port);
        folder.Delete(recursive: true);
    }

    private async Task<string> MakeTemplateAsync(HostRequest request)
    {
        var path = Path.Combine(folder.FullName, string.Create(CultureInfo.InvariantCulture, $"{Guid.NewGuid()}.db"));
        var (app, _) = await RealHost.StartAsync(content, request with { Data = path, Port = null });
        await RealHost.CloseAsync(app, path);
        return path;
    }
}
