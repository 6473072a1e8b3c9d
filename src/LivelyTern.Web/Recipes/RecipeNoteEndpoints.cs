using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Recipes;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Recipes;

/// <summary>A note on a recipe.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Day">The day it is of.</param>
/// <param name="Text">What it says.</param>
public sealed record RecipeNoteView(Guid Id, DateOnly Day, string Text)
{
    /// <summary>A note as shown.</summary>
    public static RecipeNoteView Of(RecipeNoteRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new(row.Id, row.Day, row.Text);
    }
}

/// <summary>A note to be written down.</summary>
/// <param name="Text">What it says.</param>
/// <param name="Day">The day it is of; null for today.</param>
public sealed record RecipeNoteRequest(string Text, DateOnly? Day = null);

/// <summary>What a cook writes down of recipes as they cook them.</summary>
public static class RecipeNoteEndpoints
{
    /// <summary>Maps <c>/api/recipes/{id}/notes</c>.</summary>
    public static void MapRecipeNotes(this IEndpointRouteBuilder api)
    {
        var notes = api.MapGroup("/recipes/{id:guid}/notes").WithTags("Recipes");
        notes.MapGet("", async (Guid id, RecipeNotes store) => (await store.OfAsync(id)).Select(RecipeNoteView.Of).ToList())
            .WithName("listRecipeNotes");
        notes.MapPost("", async Task<Results<Ok<RecipeNoteView>, ProblemHttpResult>> (
            Guid id, RecipeNoteRequest body, RecipeNotes store, TimeProvider clock) =>
            KitchenDays.Refusal(body.Day ?? clock.Today(), clock.Today(), "day") is { } far
                ? Answers.Problem([far])
                : (await store.AddAsync(id, body.Day ?? clock.Today(), body.Text)).Answer(RecipeNoteView.Of)).WithName("addRecipeNote");
        notes.MapDelete("/{noteId:guid}", async Task<Results<Ok<RecipeNoteView>, ProblemHttpResult>> (
            Guid id, Guid noteId, RecipeNotes store) =>
            (await store.RemoveAsync(id, noteId)).Answer(RecipeNoteView.Of)).WithName("removeRecipeNote");
    }
}
