using System.Diagnostics;
using System.Globalization;
using LivelyTern.Soak;
using LivelyTern.Soak.Commands;
using LivelyTern.Soak.Files;
using LivelyTern.Soak.Load;
using LivelyTern.Soak.Requests;

// ./tern soak requests 30: one part for as many minutes as one likes, with a new seed or the one that failed.
var plain = CultureInfo.InvariantCulture;
var (part, minutes, seed) = (args[0], double.Parse(args[1], plain), int.Parse(args[2], plain));
var today = new DateOnly(2026, 11, 25);
var watch = Stopwatch.StartNew();
List<double> memory = [];
bool GoesOn() => watch.Elapsed.TotalMinutes < minutes;
try
{
    Console.WriteLine(part switch
    {
        "commands" => await CommandsAsync(),
        "requests" => await RequestsAsync(),
        "files" => await FilesAsync(),
        "kills" => await KillsAsync(),
        "clients" => await ClientsAsync(),
        "fits" => await FitsAsync(),
        _ => throw new InvalidOperationException("There are the parts commands, requests, files, kills, clients and fits."),
    });
    return 0;
}
catch (InvalidOperationException error)
{
    Console.WriteLine(
        $"{error.Message}\n{Listed()}\nFAILED with seed {seed}: ./tern soak {part} {minutes} {seed}. Make what it found a case of its own.");
    return 1;
}

async Task<string> CommandsAsync()
{
    using var host = await RunningHost.StartAsync();
    var storm = new CommandStorm(host.Asker, host.Data, new Random(seed));
    await storm.RunAsync(given => Goes(given, 500, host));
    await RestAsync(host);
    return $"{storm}; {Listed()}";
}

async Task<string> RequestsAsync()
{
    using var host = await RunningHost.StartAsync(demo: true);
    var document = new ApiDocument(await host.Asker.GetAsync("/openapi/v1.json"));
    var storm = new RequestStorm(host.Asker, document, new Random(seed), today, TimeSpan.FromSeconds(2));
    await storm.RunAsync(asked => Goes(asked, 2_000, host));
    await RestAsync(host);
    return $"{storm}; {Listed()}";
}

async Task<string> FilesAsync()
{
    using var host = await RunningHost.StartAsync(demo: true);
    var storm = new FileStorm(host.Asker, new Random(seed), today, TimeSpan.FromSeconds(20));
    await storm.RunAsync(sent => Goes(sent, 200, host));
    await RestAsync(host);
    return $"{storm}; {Listed()}";
}

async Task<string> KillsAsync()
{
    var kills = new Kills(new Random(seed));
    await kills.RunAsync(_ => GoesOn());
    return kills.ToString();
}

async Task<string> ClientsAsync()
{
    using var host = await RunningHost.StartAsync(demo: true);
    var clients = new Clients(host, seed);
    await clients.RunAsync(GoesOn);
    return clients.ToString();
}

async Task<string> FitsAsync()
{
    using var host = await RunningHost.StartAsync(demo: true);
    var fits = new Fits(host);
    await fits.RunAsync(GoesOn);
    return fits.ToString();
}

bool Goes(int done, int every, RunningHost host)
{
    if (done % every == 0) memory.Add(host.Megabytes);
    return GoesOn();
}

// The last figure: what it keeps once nobody asks any more.
async Task RestAsync(RunningHost host)
{
    await Task.Delay(TimeSpan.FromSeconds(15));
    memory.Add(host.Megabytes);
}

string Listed() =>
    "memory along the way and, last, after a rest, in MB: " + string.Join(' ', memory.Select(one => one.ToString("0", plain)));
