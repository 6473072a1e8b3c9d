using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Sockets;

namespace LivelyTern.Soak;

/// <summary>The built program as a process of its own, with a file of its own on loopback.</summary>
public sealed class RunningHost : IDisposable
{
    private readonly Process process;

    private RunningHost(Process process, string address, string data)
    {
        (this.process, Data) = (process, data);
        Asker = new(new HttpClient { BaseAddress = new Uri(address), Timeout = TimeSpan.FromSeconds(120) });
    }

    /// <summary>Who asks it.</summary>
    public Asker Asker { get; }

    /// <summary>The household's file.</summary>
    public string Data { get; }

    /// <summary>The memory it holds, in MB.</summary>
    public double Megabytes
    {
        get
        {
            process.Refresh();
            return process.WorkingSet64 / 1e6;
        }
    }

    /// <summary>Starts it and waits until it answers.</summary>
    /// <param name="data">The file; null for a new one.</param>
    /// <param name="demo">Whether the demo is laid into it.</param>
    public static async Task<RunningHost> StartAsync(string? data = null, bool demo = false)
    {
        data ??= Path.Combine(Directory.CreateTempSubdirectory("tern-soak-").FullName, "tern.db");
        var port = FreePort();
        string[] args =
        [
            Path.Combine(Built(), "LivelyTern.Web.dll"), "--port", port.ToString(CultureInfo.InvariantCulture), "--data", data,
            "--today", "2026-11-25", "--demo", demo ? "true" : "false",
        ];
        var start = new ProcessStartInfo("dotnet", args) { RedirectStandardOutput = true, UseShellExecute = false };
        start.Environment.TryAdd("DOTNET_GCgen0size", "2000000");
        var host = new RunningHost(Process.Start(start)!, $"http://127.0.0.1:{port}", data);
        host.process.BeginOutputReadLine();
        host.process.OutputDataReceived += (_, line) =>
        {
            if (line.Data is not null) Console.Error.WriteLine(line.Data);
        };
        for (var tries = 0; tries < 1_200 && !host.process.HasExited; tries++)
        {
            try
            {
                using var answer = await host.Asker.Http.GetAsync("/health");
                if (answer.IsSuccessStatusCode) return host;
            }
            catch (HttpRequestException)
            {
                // Not yet.
            }

            await Task.Delay(50);
        }

        host.Dispose();
        throw new InvalidOperationException("The host did not start.");
    }

    /// <summary>Ends it as a power cut would.</summary>
    public void Kill()
    {
        if (!process.HasExited) process.Kill();
        process.WaitForExit();
    }

    public void Dispose()
    {
        Kill();
        Asker.Http.Dispose();
        process.Dispose();
    }

    private static string Built()
    {
        for (var folder = AppContext.BaseDirectory; folder is not null; folder = Path.GetDirectoryName(folder))
        {
            var built = Path.Combine(folder, ".build", "host");
            if (File.Exists(Path.Combine(built, "LivelyTern.Web.dll"))) return built;
        }

        throw new InvalidOperationException("The program is not built: ./tern build");
    }

    private static int FreePort()
    {
        using var free = new TcpListener(IPAddress.Loopback, 0);
        free.Start();
        return ((IPEndPoint)free.LocalEndpoint).Port;
    }
}
