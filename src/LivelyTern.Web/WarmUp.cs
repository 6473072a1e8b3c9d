using LivelyTern.Data.Recipes;
using LivelyTern.Web.Plan;

namespace LivelyTern.Web;

/// <summary>
/// Reads the week and the recipes once after the start, so that the first screen does not wait for queries to be compiled.
/// </summary>
public static class WarmUp
{
    /// <summary>Runs beside the first requests. What fails here is told when a screen asks for it.</summary>
    public static async Task WarmUpAsync(this IServiceProvider services)
    {
        try
        {
            await using var scope = services.CreateAsyncScope();
            var reader = scope.ServiceProvider.GetRequiredService<PlanReader>();
            await reader.WeekAsync(reader.Today);
            var recipes = scope.ServiceProvider.GetRequiredService<RecipeStore>();
            var book = await recipes.BookAsync();
            foreach (var row in await recipes.ListAsync()) book.Read(row.Id);
        }
        catch (Exception error) when (error is ObjectDisposedException or InvalidOperationException or System.Data.Common.DbException)
        {
            services.GetService<ILoggerFactory>()?.CreateLogger("WarmUp").LogInformation(error, "The first reading was cut short");
        }
    }
}
