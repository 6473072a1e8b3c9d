using System.Text.Json;
using System.Text.Json.Serialization;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Demo;
using LivelyTern.Data.Eat;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Keep;
using LivelyTern.Data.Pack;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Recipes;
using LivelyTern.Devices;
using LivelyTern.Solving;
using LivelyTern.Web;
using LivelyTern.Web.Aim;
using LivelyTern.Web.Cook;
using LivelyTern.Web.Eat;
using LivelyTern.Web.Foods;
using LivelyTern.Web.Http;
using LivelyTern.Web.Keep;
using LivelyTern.Web.Pack;
using LivelyTern.Web.Plan;
using LivelyTern.Web.Recipes;
using Microsoft.EntityFrameworkCore;
using Scalar.AspNetCore;
using Serilog;
using Serilog.Events;

var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory });
var start = StartOptions.From(builder.Configuration);
builder.Services.AddSerilog(log => log
    .MinimumLevel.Warning()
    .MinimumLevel.Override("Microsoft.EntityFrameworkCore.Database.Command", LogEventLevel.Fatal)
    .MinimumLevel.Override("Microsoft.Extensions.Hosting", LogEventLevel.Fatal)
    .WriteTo.Console());
builder.WebHost.UseUrls(start.Url);
builder.WebHost.ConfigureKestrel(kestrel => kestrel.Limits.MaxRequestBodySize = 1_000_000);
builder.Services.ConfigureHttpJsonOptions(json =>
{
    json.SerializerOptions.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
    json.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
    json.SerializerOptions.RespectNullableAnnotations = true;
    json.SerializerOptions.RespectRequiredConstructorParameters = true;
    json.SerializerOptions.IgnoreReadOnlyProperties = true;
});
builder.Services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
builder.Services.Configure<HostOptions>(host => host.ShutdownTimeout = TimeSpan.FromSeconds(3));
builder.Services.AddProblemDetails();
builder.Services.AddExceptionHandler<ErrorSentences>();
builder.Services.AddOpenApi(api => api.AddDocumentTransformer((document, _, _) =>
{
    document.Info.Title = "Lively Tern";
    document.Info.Description = "The week's food: aims, recipes, batches, boxes and days. Calculations under /api/calc store nothing.";
    document.Servers?.Clear();
    return Task.CompletedTask;
}));
builder.Services.AddResponseCompression();
builder.Services.AddSingleton(start.Clock).AddSingleton(start).AddSingleton<SolverTurns>();
builder.Services.AddKitchen(start.DatabasePath);
builder.Services.AddSingleton<ImportDesk>().AddSingleton<IProductLookUp, SimulatedLookUp>();
builder.Services.AddSingleton<IWeekFitter, CpSatWeekFitter>().AddSingleton<FitDesk>();
builder.Services.AddScoped<PlanReader>().AddScoped<PackingBench>().AddScoped<EntryDesk>();

var app = builder.Build();

app.UseExceptionHandler();
app.UseStatusCodePages(StatusSentences.WriteAsync);
app.UseMiddleware<ShippedOnly>();
app.UseMiddleware<OwnDoor>();
app.UseResponseCompression();
app.UseDefaultFiles();
app.UseStaticFiles(ShippedOnly.CacheForever());

app.MapGet("/health", async (TernDb db) => await db.Database.CanConnectAsync()
    ? Results.Ok(new Health("ok"))
    : Results.Problem("The database file can't be opened.", statusCode: StatusCodes.Status503ServiceUnavailable)).ExcludeFromDescription();
app.MapOpenApi();
app.MapScalarApiReference("/docs", scalar => scalar.DisableDefaultFonts().DisableTelemetry().DisableAgent().WithTitle("Lively Tern"));

var api = app.MapGroup("/api").ProducesProblem(StatusCodes.Status422UnprocessableEntity);
api.MapOverview();
api.MapAim();
api.MapFoods();
api.MapCountedFoods();
api.MapImports();
api.MapRecipes();
api.MapPlan();
api.MapEntries();
api.MapGuestsAndHolds();
api.MapFits();
api.MapMenus();
api.MapDays();
api.MapCalendar();
api.MapPack();
api.MapCook();
api.MapPacking();
api.MapKeep();
api.MapEat();
app.MapFallbackToFile("{*path:nonfile:regex(^(?!api/).*$)}", "index.html");

// The build starts the program only to read its OpenAPI document: then no file is opened.
if (string.Equals(System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name, "GetDocument.Insider", StringComparison.Ordinal))
{
    await app.RunAsync();
    return 0;
}

Directory.CreateDirectory(Path.GetDirectoryName(start.DatabasePath)!);
await using (var scope = app.Services.CreateAsyncScope())
{
    try
    {
        var db = scope.ServiceProvider.GetRequiredService<TernDb>();
        await TernFile.PrepareAsync(db);
        await Ledger.CatchUpAsync(db, scope.ServiceProvider.GetRequiredService<PlanStore>(), start.Clock);
    }
    catch (Exception error) when (error is System.Data.Common.DbException or InvalidDataException)
    {
        var sentence = "can't be opened, or not brought to this program's shape. What it held is still there.";
        await Console.Error.WriteLineAsync($"{start.DatabasePath} {sentence} {error.Message}");
        return 1;
    }

    if (start.IsDemo) await scope.ServiceProvider.GetRequiredService<DemoWeek>().SeedAsync();
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
