using LivelyTern.Soak;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;

namespace LivelyTern.Web.Tests;

/// <summary>The real host on a real port of loopback, with a real SQLite file of its own.</summary>
public sealed class Host : Asker, IDisposable
{
    // An empty house and the demo as the program makes them, once; each host has a copy of its own.
    private static readonly Lazy<string> Empty = new(() => MadeOnce(demo: false)), Demo = new(() => MadeOnce(demo: true));

    private readonly WebApplicationFactory<Program> factory;

    /// <summary>Where the built front end (<c>wwwroot</c>) and the tables on offer (<c>libraries</c>) lie.</summary>
    public static string ContentRoot { get; } = Path.Combine(HouseTests.Repository(), "src", "LivelyTern.Web");

    public Host(string? data = null, bool demo = false, string today = "2026-11-25", string hosts = "", bool playClock = false,
        Action<IServiceCollection>? services = null)
    {
        Data = data ?? CopyOf(demo ? Demo.Value : Empty.Value);
        var port = FreePort();
        factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host => host.UseContentRoot(ContentRoot)
            .UseWebRoot(Path.Combine(ContentRoot, "wwwroot"))
            .UseSetting("data", Data).UseSetting("demo", demo ? "true" : "false").UseSetting("today", today)
            .UseSetting("play-clock", playClock ? "still" : "false").UseSetting("hosts", hosts)
            .UseSetting("port", port.ToString(System.Globalization.CultureInfo.InvariantCulture)));
        if (services is not null) factory = factory.WithWebHostBuilder(host => host.ConfigureTestServices(services));
        factory.UseKestrel();
        factory.StartServer();
        Http = new HttpClient { BaseAddress = new Uri($"http://127.0.0.1:{port}") };
        for (var tries = 0; tries < 400 && !IsUp(); tries++) Thread.Sleep(25);
    }

    internal static int FreePort()
    {
        using var free = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        free.Start();
        return ((System.Net.IPEndPoint)free.LocalEndpoint).Port;
    }

    private static string MadeOnce(bool demo)
    {
        var folder = Directory.CreateTempSubdirectory("tern-").FullName;
        var (first, whole) = (Path.Combine(folder, "first.db"), Path.Combine(folder, "tern.db"));
        using var host = new Host(first, demo);
        using var connection = new SqliteConnection($"Data Source={first}");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = "VACUUM INTO $whole";
        command.Parameters.AddWithValue("$whole", whole);
        command.ExecuteNonQuery();
        return whole;
    }

    private static string CopyOf(string file)
    {
        var copy = Path.Combine(Directory.CreateTempSubdirectory("tern-").FullName, "tern.db");
        File.Copy(file, copy);
        return copy;
    }

    public string Data { get; }

    public IServiceProvider Services => factory.Services;

    private bool IsUp()
    {
        try
        {
            using var health = Http.GetAsync("/health").GetAwaiter().GetResult();
            return health.IsSuccessStatusCode;
        }
        catch (HttpRequestException)
        {
            return false;
        }
    }

    public void Dispose()
    {
        Http.Dispose();
        factory.Dispose();
    }
}
