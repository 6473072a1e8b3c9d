using LivelyTern.Data.Disk;
using LivelyTern.Web;

var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory });
var start = StartOptions.From(builder.Configuration);
await using var app = KitchenHost.Build(builder, start);

// Listening comes first: the page is there at once, and what it asks for is answered when the file is open.
try
{
    await app.StartAsync();
}
catch (IOException busy) when (busy.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException)
{
    var sentence = $"Port {start.Port} is in use by another program.";
    var next = StartOptions.NextFreePort(start.Port);
    await Console.Error.WriteLineAsync(next is null ? sentence : $"{sentence} Port {next} is free: start with --port {next}");
    return 1;
}

try
{
    await KitchenHost.PrepareAsync(app);
}
catch (FileTroubleException error)
{
    await Console.Error.WriteLineAsync(error.Message);
    return 1;
}
catch (InvalidDataException error)
{
    var sentence = "can't be opened, or not brought to this program's shape. What it held is still there.";
    await Console.Error.WriteLineAsync($"{start.DatabasePath} {sentence} {error.Message}");
    return 1;
}

_ = app.Services.WarmUpAsync();
Console.WriteLine($"Lively Tern is at {start.Url}   (Ctrl+C stops it)");
await app.WaitForShutdownAsync();
return 0;
