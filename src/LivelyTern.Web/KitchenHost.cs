using System.Text.Json;
using System.Text.Json.Serialization;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Demo;
using LivelyTern.Data.Disk;
using LivelyTern.Data.Eat;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Keep;
using LivelyTern.Data.Pack;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Recipes;
using LivelyTern.Devices;
using LivelyTern.Solving;
using LivelyTern.Solving.PrepDay;
using LivelyTern.Web;
using LivelyTern.Web.Aim;
using LivelyTern.Web.Backup;
using LivelyTern.Web.Cook;
using LivelyTern.Web.Cook.Run;
using LivelyTern.Web.Devices;
using LivelyTern.Web.Eat;
using LivelyTern.Web.Foods;
using LivelyTern.Web.Http;
using LivelyTern.Web.Keep;
using LivelyTern.Web.Pack;
using LivelyTern.Web.Plan;
using LivelyTern.Web.Recipes;
using LivelyTern.Web.Review;
using LivelyTern.Web.Shop;
using Microsoft.AspNetCore.Http.HttpResults;
using Scalar.AspNetCore;
using Serilog;
using Serilog.Events;

namespace LivelyTern.Web;

/// <summary>The program's host: what answers under an address, over a household's file.</summary>
public static class KitchenHost
{
    /// <summary>A host that is not started yet.</summary>
    /// <param name="builder">Its beginning, with the settings it was started with.</param>
    /// <param name="start">How it is to start.</param>
    public static WebApplication Build(WebApplicationBuilder builder, StartOptions start)
    {
        ArgumentNullException.ThrowIfNull(builder);
        ArgumentNullException.ThrowIfNull(start);
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
        builder.Services.Configure<HostOptions>(host =>
        {
            host.ShutdownTimeout = TimeSpan.FromSeconds(3);

            // A copy that could not be made is no reason to stop answering.
            host.BackgroundServiceExceptionBehavior = BackgroundServiceExceptionBehavior.Ignore;
        });
        builder.Services.AddProblemDetails();
        builder.Services.AddExceptionHandler<ErrorSentences>();
        builder.Services.AddOpenApi(api => api.AddDocumentTransformer((document, _, _) =>
        {
            document.Info.Title = "Lively Tern";
            document.Info.Description =
                "The week's food: aims, recipes, batches, boxes and days. Calculations under /api/calc store nothing.";
            document.Servers?.Clear();
            return Task.CompletedTask;
        }).AddDocumentTransformer<BoundsInDocument>());
        builder.Services.AddResponseCompression();
        builder.Services.AddSingleton(start.Clock).AddSingleton(start).AddSingleton<SolverTurns>().AddSingleton<DemoBeside>()
            .AddSingleton<DeviceDesk>().AddSingleton<HouseholdFile>().AddSingleton<WorkFolder>().AddSingleton<StartupGate>();
        builder.Services.AddKitchen(start.DatabasePath);
        builder.Services.AddSingleton<ImportDesk>().AddSingleton<IProductLookUp, SimulatedLookUp>();
        builder.Services.AddSingleton<RestoreDesk>().AddSingleton<DailyCopies>();
        builder.Services.AddHostedService(all => all.GetRequiredService<DailyCopies>());
        builder.Services.AddSingleton<QuietMemory>().AddHostedService(all => all.GetRequiredService<QuietMemory>());
        builder.Services.AddSingleton<IWeekFitter, CpSatWeekFitter>().AddSingleton<FitDesk>();
        builder.Services.AddSingleton<IPrepDayScheduler, CpSatPrepDayScheduler>();
        builder.Services.AddScoped<PlanReader>().AddScoped<PackingBench>().AddScoped<PackPreviews>();
        builder.Services.AddScoped<LabelDesk>().AddScoped<BoxPages>();
        builder.Services.AddScoped<ShelvesReader>().AddScoped<EntryDesk>();
        builder.Services.AddScoped<ShopReader>().AddScoped<InsteadDesk>();
        var app = builder.Build();
        Map(app);
        return app;
    }

    /// <summary>
    /// Takes the household's file for this host, opens it, brings it to this program's shape, and lays the demo week where one is wanted.
    /// </summary>
    /// <exception cref="FileTroubleException">It can't be taken or opened, for a reason that has a sentence.</exception>
    /// <exception cref="InvalidDataException">It can't be brought to this program's shape.</exception>
    public static async Task PrepareAsync(WebApplication app)
    {
        ArgumentNullException.ThrowIfNull(app);
        var start = app.Services.GetRequiredService<StartOptions>();
        await using var scope = app.Services.CreateAsyncScope();
        try
        {
            await app.Services.GetRequiredService<HouseholdFile>().OpenAsync(scope.ServiceProvider);
            app.Services.GetRequiredService<WorkFolder>();
            if (start.IsDemo) await scope.ServiceProvider.GetRequiredService<DemoWeek>().SeedAsync();
            app.Services.GetRequiredService<StartupGate>().Open();
        }
        catch (System.Data.Common.DbException error)
        {
            if (FileTrouble.Of(error) is { } trouble) throw new FileTroubleException(trouble, error);
            throw new InvalidDataException(error.Message, error);
        }
    }

    private static void Map(WebApplication app)
    {
        var memory = app.Services.GetRequiredService<QuietMemory>();
        app.Use((context, next) =>
        {
            memory.Asked();
            return next(context);
        });
        app.UseExceptionHandler();
        app.UseStatusCodePages(StatusSentences.WriteAsync);
        app.UseMiddleware<ShippedOnly>();
        app.UseMiddleware<OwnDoor>();
        app.UseResponseCompression();
        app.UseDefaultFiles();
        app.UseStaticFiles(ShippedOnly.CacheForever());
        app.Use(app.Services.GetRequiredService<StartupGate>().PassAsync);

        app.MapGet("/health", HealthAsync).ExcludeFromDescription();
        app.MapOpenApi();
        app.MapScalarApiReference(
            "/docs", scalar => scalar.DisableDefaultFonts().DisableTelemetry().DisableAgent().WithTitle("Lively Tern"));

        var api = app.MapGroup("/api").ProducesProblem(StatusCodes.Status422UnprocessableEntity).AddEndpointFilter<BoundsFilter>();
        api.MapOverview();
        api.MapDemoBeside();
        api.MapPlayedTime();
        api.MapAim();
        api.MapFoods();
        api.MapCountedFoods();
        api.MapImports();
        api.MapRecipes();
        api.MapRecipeNotes();
        api.MapStepCalculations();
        api.MapPlan();
        api.MapEntries();
        api.MapGuestsAndHolds();
        api.MapBatchDays();
        api.MapFits();
        api.MapMenus();
        api.MapDays();
        api.MapCalendar();
        api.MapPack();
        api.MapContainers();
        api.MapEye();
        api.MapLabels();
        api.MapCook();
        api.MapScheduleCalculations();
        api.MapPrepDays();
        api.MapAhead();
        api.MapRuns();
        api.MapPacking();
        api.MapKeep();
        api.MapCooling();
        api.MapShelves();
        api.MapShopCalculations();
        api.MapShop();
        api.MapPantry();
        api.MapInstead();
        api.MapEat();
        api.MapCorrections();
        api.MapKeptMeals();
        api.MapTrendCalculations();
        api.MapBody();
        api.MapWeekReview();
        api.MapVerdicts();
        api.MapKitchenRecords();
        api.MapDevices();
        api.MapBackup();
        app.MapFallbackToFile("{*path:nonfile:regex(^(?!api/).*$)}", "index.html");
    }

    private static async Task<Results<Ok<Health>, ProblemHttpResult>> HealthAsync(HouseholdFile file, TernDb db) =>
        await file.TroubleAsync(db) is { } trouble ? Answers.Trouble(trouble) : TypedResults.Ok(new Health("ok"));
}
