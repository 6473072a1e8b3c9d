using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Plan;

/// <summary>Something kept off the menu of a place.</summary>
/// <param name="Id">By which it is forgotten.</param>
/// <param name="Place">The place.</param>
/// <param name="Name">What it is called there; typed as that, it is entered.</param>
/// <param name="Figures">kcal and grams.</param>
/// <param name="HighKcal">Where it is an estimate: at most this many kcal.</param>
/// <param name="Points">Its points, where the menu states them.</param>
public sealed record KeptMealView(
    Guid Id, string Place, string Name, IReadOnlyDictionary<Nutrient, decimal> Figures, decimal? HighKcal, decimal? Points);

/// <summary>Lines of a menu, to be kept for next time.</summary>
/// <param name="Place">The place.</param>
/// <param name="Items">The lines.</param>
public sealed record KeepMealsRequest(string Place, IReadOnlyList<MenuItem> Items);

/// <summary>How many lines were kept.</summary>
public sealed record KeptMealsAnswer(int Count);

/// <summary>What is kept off the menus of places, for next time.</summary>
public static class KeptMealEndpoints
{
    /// <summary>Maps <c>/api/plan/kept-meals</c>.</summary>
    public static void MapKeptMeals(this IEndpointRouteBuilder api)
    {
        var kept = api.MapGroup("/plan/kept-meals").WithTags("Plan");
        kept.MapGet("", async (KeptMealStore store) => (await store.ListAsync()).Select(Show).ToList()).WithName("listKeptMeals");
        kept.MapPost("", async Task<Results<Ok<KeptMealsAnswer>, ProblemHttpResult>> (KeepMealsRequest body, KeptMealStore store) =>
        {
            var meal = MealOut.Of(body.Place ?? "", body.Items ?? []);
            return meal.Succeeded
                ? (await store.KeepAsync(body.Place!, body.Items!)).Answer(count => new KeptMealsAnswer(count))
                : Answers.Problem(meal.Problems);
        }).WithName("keepMeals");
        kept.MapDelete("/{id:guid}", async (Guid id, KeptMealStore store) =>
            (await store.ForgetAsync(id)).Answer(_ => new KeptMealsAnswer(1))).WithName("forgetKeptMeal");
    }

    private static KeptMealView Show(KeptMealRow row) =>
        new(row.Id, row.Place, row.Name, row.Item.Figures, row.Item.HighKcal, row.Item.Points);
}
