using LivelyTern.Data.Disk;
using LivelyTern.Web;

var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory });
var start = StartOptions.From(builder.Configuration);
await using var app = KitchenHost.Build(builder, start);

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

try
{
    await app.StartAsync();
}
catch (IOException busy) when (busy.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException)
{
    await Console.Error.WriteLineAsync($"Port {start.Port} is in use by another program. Choose another one: --port {start.Port + 1}");
    return 1;
}

_ = app.Services.WarmUpAsync();
Console.WriteLine($"Lively Tern is at {start.Url}   (Ctrl+C stops it)");
await app.WaitForShutdownAsync();
return 0;

/// <summary>The host, visible to tests.</summary>
public partial class Program;
