using LivelyTern.Core.Cook;
using LivelyTern.Data.Shop;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Shop;

/// <summary>"Not sold here": another food, tried or made, in the batches still to be cooked and on the days.</summary>
public static class InsteadEndpoints
{
    /// <summary>Maps <c>/api/shop/foods/{id}/instead</c>.</summary>
    public static void MapInstead(this IEndpointRouteBuilder api)
    {
        var shop = api.MapGroup("/shop/foods/{id}/instead").WithTags("Shop");
        shop.MapPost("/try", (string id, InsteadRequest body, InsteadDesk desk) => DoAsync(id, body, desk, isMade: false))
            .WithName("tryInstead");
        shop.MapPost("", (string id, InsteadRequest body, InsteadDesk desk) => DoAsync(id, body, desk, isMade: true))
            .WithName("takeInstead");
        shop.MapPost("/back", async Task<Results<Ok<CountAnswer>, ProblemHttpResult>> (
            string id, PutBackRequest body, SubstituteFood command) =>
            (await command.PutBackAsync(body.Batches, body.With)).Answer(count => new CountAnswer(count))).WithName("putBackInstead");
    }

    private static async Task<Results<Ok<InsteadAnswer>, ProblemHttpResult>> DoAsync(
        string id, InsteadRequest body, InsteadDesk desk, bool isMade) =>
        (await desk.DoAsync(new Substitution(id, body.InsteadId, body.PerGram), isMade)).Answer(answer => answer);
}
