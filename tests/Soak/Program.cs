using System.Diagnostics;
using System.Globalization;
using LivelyTern.Soak;
using LivelyTern.Soak.Files;
using LivelyTern.Soak.Requests;

// ./tern soak requests 30: one part for as many minutes as one likes, with a new seed or the one that failed.
var (part, minutes, seed) = (args[0], double.Parse(args[1], CultureInfo.InvariantCulture), int.Parse(args[2], CultureInfo.InvariantCulture));
var watch = Stopwatch.StartNew();
bool GoesOn() => watch.Elapsed.TotalMinutes < minutes;
try
{
    Console.WriteLine(part switch
    {
        "requests" => await RequestsAsync(),
        "files" => await FilesAsync(),
        _ => throw new InvalidOperationException("There are the parts requests and files."),
    });
    return 0;
}
catch (InvalidOperationException error)
{
    Console.WriteLine($"{error.Message}\nFAILED with seed {seed}: ./tern soak {part} {minutes} {seed}. Make what it found a case of its own.");
    return 1;
}

async Task<string> RequestsAsync()
{
    using var host = await RunningHost.StartAsync(demo: true);
    var document = new ApiDocument(await host.Asker.GetAsync("/openapi/v1.json"));
    var storm = new RequestStorm(host.Asker, document, new Random(seed), new(2026, 11, 25), TimeSpan.FromSeconds(2));
    List<double> memory = [];
    await storm.RunAsync(asked =>
    {
        if (asked % 2_000 == 0) memory.Add(host.Megabytes);
        return GoesOn();
    });
    return $"{storm}; memory every 2000 requests, in MB: {Listed(memory)}";
}

async Task<string> FilesAsync()
{
    using var host = await RunningHost.StartAsync(demo: true);
    var storm = new FileStorm(host.Asker, new Random(seed), new(2026, 11, 25), TimeSpan.FromSeconds(20));
    List<double> memory = [];
    await storm.RunAsync(sent =>
    {
        if (sent % 200 == 0) memory.Add(host.Megabytes);
        return GoesOn();
    });
    return $"{storm}; memory every 200 files, in MB: {Listed(memory)}";
}

static string Listed(List<double> memory) => string.Join(' ', memory.Select(one => one.ToString("0", CultureInfo.InvariantCulture)));
