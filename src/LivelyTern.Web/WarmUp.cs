using LivelyTern.Core.Foods;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Recipes;
using LivelyTern.Web.Plan;

namespace LivelyTern.Web;

/// <summary>
/// Reads the week, a line and the recipes once after the start, so that the first screen does not wait for queries to be compiled, nor the
/// first line for its patterns.
/// </summary>
public static class WarmUp
{
    // One that is read through every step of the reader.
    private const string Line = "1 (2-inch) piece of fresh ginger, peeled, plus 2 tbsp water, for serving";

    /// <summary>Runs beside the first requests. What fails here is told when a screen asks for it.</summary>
    public static async Task WarmUpAsync(this IServiceProvider services)
    {
        try
        {
            var patterns = Task.Run(() => FoodLine.Read(Line, new FoodCatalogue([])));
            await using var scope = services.CreateAsyncScope();
            var reader = scope.ServiceProvider.GetRequiredService<PlanReader>();
            await reader.WeekAsync(reader.Today);
            await patterns;
            FoodLine.Read(Line, await scope.ServiceProvider.GetRequiredService<FoodStore>().AllAsync());
            var recipes = scope.ServiceProvider.GetRequiredService<RecipeStore>();
            var book = await recipes.BookAsync();
            foreach (var row in (await recipes.ListAsync()).Where(row => book.Has(row.Id))) book.Read(row.Id);
        }
        catch (Exception error) when (error is ObjectDisposedException or InvalidOperationException or System.Data.Common.DbException)
        {
            services.GetService<ILoggerFactory>()?.CreateLogger("WarmUp").LogInformation(error, "The first reading was cut short");
        }
    }
}
