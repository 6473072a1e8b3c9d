using LivelyTern.Core.Foods;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Backup;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Cook.Run;
using LivelyTern.Data.Demo;
using LivelyTern.Data.Disk;
using LivelyTern.Data.Eat;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Keep;
using LivelyTern.Data.Pack;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Recipes;
using LivelyTern.Data.Review;
using LivelyTern.Data.Shop;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace LivelyTern.Data;

/// <summary>The stores of a household, room by room.</summary>
public static class Kitchen
{
    /// <summary>Registers the file and every store on it; whoever calls it also registers a <see cref="TimeProvider"/>.</summary>
    /// <param name="services">The services.</param>
    /// <param name="path">The database file.</param>
    public static IServiceCollection AddKitchen(this IServiceCollection services, string path)
    {
        services.AddDbContextPool<TernDb>(db => db.UseSqlite(
            TernFile.ConnectionString(path), sqlite => sqlite.UseQuerySplittingBehavior(QuerySplittingBehavior.SingleQuery)));
        services.AddSingleton<RecipesRead>();
        services.Keep<CachedRead<FoodIndex>>().Keep<CachedRead<FoodCatalogue>>();
        services.Keep<CachedRead<LibraryWords>>().Keep<CachedRead<WrittenBook>>();
        services.Keep<FoodRecordCache>().Keep<BatchCache>().Keep<BoxPartsCache>().Keep<EntryCache>();
        services.AddScoped<LibraryStore>().AddScoped<LibraryWriter>().AddScoped<FoodStore>().AddScoped<FoodRecords>();
        services.AddScoped<EaterStore>().AddScoped<RecipeStore>();
        services.AddScoped<BatchReader>().AddScoped<NewBatch>().AddScoped<DishParts>().AddScoped<BatchStore>().AddScoped<GoesIn>();
        services.AddScoped<ChangeRecipe>().AddScoped<PrepDayStore>().AddScoped<AheadStore>();
        services.AddScoped<RunReader>().AddScoped<RunWriter>().AddScoped<RunStore>().AddScoped<RecipeNotes>();
        services.AddScoped<BoxStore>().AddScoped<ContainerStore>().AddScoped<EyeStore>();
        services.AddScoped<PutBoxes>().AddScoped<KeepingStore>().AddScoped<CoolingStore>();
        services.AddScoped<ThrownAway>().AddScoped<BoxNotesStore>();
        services.AddScoped<PlanStore>().AddScoped<DayChanges>().AddScoped<ExcludedItems>().AddScoped<PortionsOnDays>();
        services.AddScoped<ILaidPortions>(all => all.GetRequiredService<PortionsOnDays>());
        services.AddScoped<WeighBatch>().AddScoped<PackTogether>();
        services.AddScoped<DividePartByPart>().AddScoped<DivideBatch>().AddScoped<PackBatch>();
        services.AddScoped<ReplanBatch>().AddScoped<ArchiveEater>();
        services.AddScoped<PantryUse>().AddScoped<IPantryUse>(all => all.GetRequiredService<PantryUse>());
        services.AddScoped<PantryStore>().AddScoped<ShopStore>().AddScoped<PutAway>().AddScoped<SubstituteFood>();
        services.AddScoped<EatOtherwise>().AddScoped<UsualStore>().AddScoped<Corrections>().AddScoped<KeptMealStore>();
        services.AddScoped<WeighInStore>().AddScoped<WeekToReview>().AddScoped<KitchenRecords>();
        services.AddScoped<VerdictStore>().AddScoped<IDishOpinions>(all => all.GetRequiredService<VerdictStore>());
        services.AddScoped<Ledger>().AddScoped<IEatenLedger>(all => all.GetRequiredService<Ledger>());
        services.AddScoped<BackupWriter>().AddScoped<HouseholdSheets>();
        services.AddScoped<Copies>().AddScoped<RestoreBackup>().AddScoped<EraseEater>();
        return services.AddScoped<DemoShop>().AddScoped<DemoDays>().AddScoped<DemoPast>().AddScoped<DemoRun>().AddScoped<DemoWeek>();
    }

    private static IServiceCollection Keep<T>(this IServiceCollection services)
        where T : class, IKept =>
        services.AddSingleton<T>().AddSingleton<IKept>(all => all.GetRequiredService<T>());

    /// <summary>Opens the household's file and brings it to this program's shape, adding what older ones did not write.</summary>
    /// <param name="services">Those of a scope.</param>
    public static async Task OpenAsync(IServiceProvider services)
    {
        ArgumentNullException.ThrowIfNull(services);
        var db = services.GetRequiredService<TernDb>();
        await TernFile.PrepareAsync(db);
        await Ledger.CatchUpAsync(db, services.GetRequiredService<PlanStore>(), services.GetRequiredService<TimeProvider>());
    }
}
