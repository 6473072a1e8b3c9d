using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Recipes;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook;

/// <summary>Batches without boxes as the core knows them: what is to be cooked, what waits in its pan, and what could be cooked.</summary>
public sealed class UnpackedBatches(TernDb db, RecipeStore recipes, FoodStore foods)
{
    private const int EarlierBatches = 12;

    /// <summary>
    /// The batches that are not in boxes, each with what it is expected to weigh; one still to be cooked as its recipe stands now.
    /// </summary>
    public async Task<IReadOnlyList<Batch>> ListAsync()
    {
        var rows = await db.Batches.AsNoTracking().Where(row => row.Boxes.Count == 0).OrderBy(row => row.CookedOn).ThenBy(row => row.Id).ToListAsync();
        return await ReadAsync(rows);
    }

    /// <summary>One batch without boxes, as above.</summary>
    public async Task<Batch> ReadAsync(BatchRow row) => (await ReadAsync([row]))[0];

    private async Task<IReadOnlyList<Batch>> ReadAsync(List<BatchRow> rows)
    {
        if (rows.Count == 0) return [];
        var book = await recipes.BookAsync();
        var known = await foods.AllAsync();
        var earlier = await EarlierAsync([.. rows.Select(row => row.RecipeId).Distinct()], known);
        return [.. rows.Select(row => Read(row, book.Read(row.RecipeId), known, earlier.GetValueOrDefault(row.RecipeId, [])))];
    }

    private static Batch Read(BatchRow row, Recipe recipe, IFoods known, IReadOnlyList<decimal> earlier)
    {
        var batch = BatchStore.Read(row, known);
        if (row.IsAhead && recipe.Batch.Ingredients.Count > 0)
            batch = batch with { RecipeName = recipe.Name, Contents = recipe.Batch.Scale((decimal)row.Portions / recipe.Yield.Portions) };
        var raw = recipe.Batch.RawWeight;
        decimal? yieldFactor = recipe.Yield.CookedGrams is { } cooked && raw.Value > 0 ? cooked / raw.Value : null;
        return batch with { Expected = ExpectedWeight.Of(batch.Contents.RawWeight, yieldFactor, earlier) };
    }

    // Cooked by raw weight of the last batches of each recipe; one that is cooked often leaves the others theirs.
    private async Task<Dictionary<Guid, List<decimal>>> EarlierAsync(List<Guid> recipeIds, IFoods known)
    {
        var factors = new Dictionary<Guid, List<decimal>>();
        foreach (var id in recipeIds)
        {
            var weighed = await db.Batches.AsNoTracking().Where(row => row.RecipeId == id && row.Boxes.Count > 0 && row.FullGrams != null)
                .OrderByDescending(row => row.CookedOn).ThenByDescending(row => row.Id).Take(EarlierBatches).ToListAsync();
            var read = weighed.Select(row => (Raw: row.Contents.RawWeight, BatchStore.Read(row, known).Cooked));
            factors[id] = [.. read.Where(one => one.Raw.Value > 0 && one.Cooked is { Value: > 0 }).Select(one => one.Cooked!.Value / one.Raw)];
        }

        return factors;
    }

    /// <summary>When each recipe was cooked last, or is to be.</summary>
    public async Task<IReadOnlyDictionary<Guid, DateOnly>> LastCookedAsync() =>
        await db.Batches.AsNoTracking().GroupBy(row => row.RecipeId).Select(own => new { own.Key, Last = own.Max(row => row.CookedOn) }).ToDictionaryAsync(own => own.Key, own => own.Last);

    /// <summary>The recipes of which a batch is planned and not cooked yet.</summary>
    public async Task<IReadOnlySet<Guid>> PlannedRecipesAsync() => (await db.Batches.AsNoTracking().Where(row => row.IsAhead).Select(row => row.RecipeId).ToListAsync()).ToHashSet();

    /// <summary>
    /// Every recipe on the list as a batch that could be cooked on a day: its own portions, what it is expected to weigh; its id is the
    /// recipe's.
    /// </summary>
    public async Task<IReadOnlyList<Batch>> CouldBeCookedAsync(DateOnly day)
    {
        var rows = (await recipes.ListAsync()).Select(recipe => new BatchRow
        {
            Id = recipe.Id,
            RecipeId = recipe.Id,
            RecipeName = recipe.Name,
            Letters = recipe.Letters,
            Tint = recipe.Tint,
            CookedOn = day,
            IsAhead = true,
            Portions = recipe.Portions,
            Contents = Contents.Nothing,
        }).ToList();
        return [.. (await ReadAsync(rows)).Where(batch => batch.Contents.Ingredients.Count > 0 && batch.Weight is { Value: > 0 })];
    }
}
