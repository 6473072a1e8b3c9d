using LivelyTern.HostPool;

// Prints its own address, then serves it: POST /hosts opens a host, DELETE /hosts/PORT closes one.
if (args is not [var content])
{
    await Console.Error.WriteLineAsync("Usage: HostPool FOLDER-OF-THE-BUILT-PROGRAM");
    return 2;
}

var builder = WebApplication.CreateSlimBuilder();
builder.Logging.ClearProviders();
builder.WebHost.UseUrls("http://127.0.0.1:0");
await using var control = builder.Build();
await using var pool = new Pool(content);
control.MapPost("/hosts", async (HostRequest request) => Results.Ok(await pool.OpenAsync(request)));
control.MapDelete("/hosts/{port:int}", async (int port) =>
{
    await pool.CloseAsync(port);
    return Results.NoContent();
});
await control.StartAsync();
Console.WriteLine(control.Urls.Single());
await control.WaitForShutdownAsync();
return 0;
