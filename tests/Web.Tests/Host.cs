using LivelyTern.HostPool;
using LivelyTern.Soak;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.DependencyInjection;

namespace LivelyTern.Web.Tests;

/// <summary>The real host on a real port of loopback, with a real SQLite file of its own.</summary>
public sealed class Host : Asker, IDisposable
{
    // An empty house and the demo as the program makes them, once; each host has a copy of its own.
    private static readonly Lazy<string> Empty = new(() => MadeOnce(demo: false)), Demo = new(() => MadeOnce(demo: true));

    private readonly WebApplication app;
    private bool isDisposed;

    /// <summary>Where the built front end (<c>wwwroot</c>) and the tables on offer (<c>libraries</c>) lie.</summary>
    public static string ContentRoot { get; } = Path.Combine(HouseTests.Repository(), "src", "LivelyTern.Web");

    public Host(string? data = null, bool demo = false, string today = "2026-11-25", string hosts = "", bool playClock = false,
        Action<IServiceCollection>? services = null)
    {
        Data = data ?? CopyOf(demo ? Demo.Value : Empty.Value);

        // Apart from xUnit's own scheduler, which a constructor may not wait on.
        var request = new HostRequest(Data, demo, today, IsClockStill: playClock, Hosts: hosts);
        (app, var port) = Task.Run(() => RealHost.StartAsync(ContentRoot, request, services)).GetAwaiter().GetResult();
        Http = new HttpClient { BaseAddress = new Uri($"http://127.0.0.1:{port}") };
    }

    private static string MadeOnce(bool demo)
    {
        var path = Path.Combine(Directory.CreateTempSubdirectory("tern-").FullName, "tern.db");
        using var host = new Host(path, demo);
        return path;
    }

    private static string CopyOf(string file)
    {
        var copy = Path.Combine(Directory.CreateTempSubdirectory("tern-").FullName, "tern.db");
        File.Copy(file, copy);
        return copy;
    }

    public string Data { get; }

    public IServiceProvider Services => app.Services;

    public void Dispose()
    {
        if (isDisposed) return;
        isDisposed = true;
        Http.Dispose();
        Task.Run(() => RealHost.CloseAsync(app, Data)).GetAwaiter().GetResult();
    }
}
