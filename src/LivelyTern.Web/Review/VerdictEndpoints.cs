using LivelyTern.Core.Measures;
using LivelyTern.Core.Review;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Review;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Review;

/// <summary>What an eater says of a batch.</summary>
/// <param name="Serving">Fresh, or reheated.</param>
/// <param name="Verdict">What is said.</param>
public sealed record VerdictView(Serving Serving, Verdict Verdict)
{
    /// <summary>A verdict as it is kept.</summary>
    public static VerdictView Of(VerdictRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new(row.Serving, row.Read());
    }

    /// <summary>On the day it was cooked it was fresh.</summary>
    public static Serving ServingOf(DateOnly eaten, DateOnly cooked) => eaten > cooked ? Serving.Reheated : Serving.Fresh;
}

/// <summary>A verdict on one batch of a recipe.</summary>
/// <param name="EaterId">Whose.</param>
/// <param name="Eater">Their name.</param>
/// <param name="BatchId">The batch.</param>
/// <param name="CookedOn">When it was cooked.</param>
/// <param name="RecipeVersion">The version of the recipe it was begun from; null where that was not kept.</param>
/// <param name="Serving">Fresh, or reheated.</param>
/// <param name="Verdict">What was said.</param>
public sealed record RecipeVerdictView(
    Guid EaterId, string Eater, Guid BatchId, DateOnly CookedOn, int? RecipeVersion, Serving Serving, Verdict Verdict);

/// <summary>A verdict to be written down; one that says nothing takes it away.</summary>
/// <param name="Serving">Fresh, or reheated.</param>
/// <param name="Verdict">What is said.</param>
/// <param name="Before">What was seen there; null for nothing.</param>
public sealed record VerdictRequest(Serving Serving, Verdict Verdict, Verdict? Before = null);

/// <summary>Review: what was said of dishes.</summary>
public static class VerdictEndpoints
{
    /// <summary>Maps <c>/api/review/verdicts</c>.</summary>
    public static void MapVerdicts(this IEndpointRouteBuilder api)
    {
        var verdicts = api.MapGroup("/review/verdicts").WithTags("Review");
        verdicts.MapGet("/{recipeId:guid}", OfRecipeAsync).WithName("listVerdicts");
        verdicts.MapPut("/{batchId:guid}/{eaterId:guid}", async Task<Results<Ok<Verdict>, ProblemHttpResult>> (
            Guid batchId, Guid eaterId, VerdictRequest body, VerdictStore store) =>
            body.Verdict is null
                ? Answers.Problem([new Problem("verdict-missing", "verdict", "Say how it was.")])
                : (await store.SetAsync(batchId, eaterId, body.Serving, body.Before, body.Verdict))
                    .Answer(verdict => verdict))
            .WithName("setVerdict");
    }

    private static async Task<List<RecipeVerdictView>> OfRecipeAsync(Guid recipeId, EaterStore eaters, VerdictStore store)
    {
        var names = (await eaters.ListAsync()).ToDictionary(row => row.Id, row => row.Name);
        var rows = await store.OfRecipeAsync(recipeId);
        return
        [
            .. rows.Where(row => names.ContainsKey(row.EaterId)).Select(row => new RecipeVerdictView(
                row.EaterId, names[row.EaterId], row.BatchId, row.Batch.CookedOn, row.Batch.RecipeVersion, row.Serving,
                row.Read())),
        ];
    }
}
