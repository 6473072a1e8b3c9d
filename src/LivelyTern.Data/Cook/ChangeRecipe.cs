using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Recipes;

namespace LivelyTern.Data.Cook;

/// <summary>A recipe is saved, and what is still to be put together from it or with it follows.</summary>
public sealed class ChangeRecipe(TernDb db, RecipeStore recipes, DishParts dishes)
{
    /// <summary>Saves a recipe that was read at a version. Batches already cooked keep what went into them.</summary>
    public Task<Outcome<RecipeRow>> DoAsync(Guid id, int version, WrittenRecipe recipe) => db.InTurnAsync(async () =>
    {
        var changed = await recipes.ChangeAsync(id, version, recipe);
        return changed.Succeeded && await dishes.FollowAllAsync() is { } wrong ? wrong : changed;
    });
}
