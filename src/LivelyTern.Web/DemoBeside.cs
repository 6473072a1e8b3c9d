using System.Net;
using System.Net.Sockets;
using LivelyTern.Core.Measures;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web;

/// <summary>Where the demo household is to be seen.</summary>
public sealed record DemoAddress(string Url);

/// <summary>
/// The demo household beside one's own: a host of its own, at an address of its own, over a file of its own that goes with this host.
/// Nothing done there touches the household's file.
/// </summary>
public sealed class DemoBeside(StartOptions own, WorkFolder work, IWebHostEnvironment program) : IAsyncDisposable
{
    private readonly SemaphoreSlim turn = new(1, 1);
    private readonly string folder = work.Of("demo");
    private WebApplication? demo;
    private string url = "";

    /// <summary>Opens it, once; asked again, it is the same.</summary>
    public async Task<DemoAddress> OpenAsync()
    {
        await turn.WaitAsync();
        try
        {
            if (demo is not null) return new(url);
            var start = own with { Port = FreePort(), DatabasePath = Path.Combine(folder, "demo.db"), IsDemo = true };
            var app = KitchenHost.Build(
                WebApplication.CreateBuilder(new WebApplicationOptions { ContentRootPath = program.ContentRootPath }), start);
            await KitchenHost.PrepareAsync(app);
            await app.StartAsync();
            (demo, url) = (app, start.Url);
            return new(url);
        }
        finally
        {
            turn.Release();
        }
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        if (demo is not null)
        {
            await demo.StopAsync();
            await demo.DisposeAsync();
        }

        turn.Dispose();
    }

    private static int FreePort()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }
}

/// <summary>A look into the demo household.</summary>
public static class DemoBesideEndpoint
{
    /// <summary>Maps <c>/api/demo</c>.</summary>
    public static void MapDemoBeside(this IEndpointRouteBuilder api) =>
        api.MapPost("/demo", async Task<Results<Ok<DemoAddress>, ProblemHttpResult>> (DemoBeside demo, StartOptions own) => own.IsDemo
            ? Answers.Problem([new Problem("demo-here", "", "This is the demo household already.")])
            : TypedResults.Ok(await demo.OpenAsync())).WithTags("Overview").WithName("openDemo");
}
