using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Recipes;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook;

/// <summary>Batches cooked, weighed and packed into boxes.</summary>
public sealed class BatchStore(TernDb db, RecipeStore recipes)
{
    /// <summary>Batches, newest first, with their boxes.</summary>
    /// <param name="most">How many.</param>
    public async Task<IReadOnlyList<BatchRow>> ListAsync(int most) =>
        await db.Batches.AsNoTracking().Include(row => row.Boxes.OrderBy(box => box.Number))
            .OrderBy(row => row.Boxes.Count > 0).ThenByDescending(row => row.CookedOn).ThenByDescending(row => row.Id).Take(most).ToListAsync();

    /// <summary>How many batches are cooked and not in boxes.</summary>
    public Task<int> CountWaitingAsync() => db.Batches.CountAsync(row => row.Boxes.Count == 0);

    /// <summary>One batch, or null.</summary>
    public Task<BatchRow?> FindAsync(Guid id) =>
        db.Batches.AsNoTracking().Include(row => row.Boxes.OrderBy(box => box.Number)).SingleOrDefaultAsync(row => row.Id == id);

    /// <summary>The empty pan last weighed for a recipe, in grams; null where none was.</summary>
    public Task<decimal?> PanOfAsync(Guid recipeId) =>
        db.Batches.Where(row => row.RecipeId == recipeId && row.PanGrams != null).OrderByDescending(row => row.CookedOn).ThenByDescending(row => row.Id)
            .Select(row => row.PanGrams).FirstOrDefaultAsync();

    /// <summary>A recipe cooked on a day: what goes in is fixed from here on, with the figures the foods have now.</summary>
    public async Task<Outcome<BatchRow>> CookAsync(Guid recipeId, DateOnly day)
    {
        if (await recipes.FindAsync(recipeId) is not { } recipe) return Stale.Gone("recipe");
        var contents = (await recipes.ReadAsync(recipe)).Batch;
        if (contents.Ingredients.Count == 0) return new Problem("recipe-empty", "recipeId", $"{recipe.Name} has no line that could be read: write down what goes in first.");
        var row = new BatchRow
        {
            Id = Guid.CreateVersion7(),
            RecipeId = recipe.Id,
            RecipeName = recipe.Name,
            Letters = recipe.Letters,
            Tint = recipe.Tint,
            CookedOn = day,
            Portions = recipe.Portions,
            Contents = contents,
        };
        db.Batches.Add(row);
        await db.SaveChangesAsync();
        return row;
    }

    /// <summary>Weighs a batch that was read at a version and packs it: what the scale said, and the boxes.</summary>
    /// <param name="id">The batch.</param>
    /// <param name="version">The version it was read at.</param>
    /// <param name="pan">The empty pan.</param>
    /// <param name="full">The full pan.</param>
    /// <param name="boxes">How many boxes.</param>
    /// <param name="pieces">How many pieces were made, where they are counted; null to divide by weight.</param>
    public async Task<Outcome<BatchRow>> PackAsync(Guid id, int version, Grams pan, Grams full, int boxes, int? pieces)
    {
        if (await db.Batches.Include(row => row.Boxes).SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("batch");
        if (row.Version != version) return Stale.Problem;
        if (row.Boxes.Count > 0) return new Problem("batch-packed", "", "This batch is in its boxes already: empty them back first.");
        var divided = Divided(CookedWeight.Of(full, pan), boxes, pieces);
        if (!divided.Succeeded) return divided.Problems.ToList();
        (row.PanGrams, row.FullGrams) = (pan.Value, full.Value);
        var number = 0;
        foreach (var (weight, count) in divided.Value!.Portions)
            row.Boxes.Add(new BoxRow { Id = Guid.CreateVersion7(), BatchId = id, Number = ++number, Grams = weight.Value, Pieces = count });
        db.AddRange(row.Boxes);
        return await db.SaveAsync(row, row);
    }

    /// <summary>Undoes the packing of a batch whose boxes are all still on the shelf.</summary>
    public async Task<Outcome<BatchRow>> UnpackAsync(Guid id, int version)
    {
        if (await db.Batches.Include(row => row.Boxes).SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("batch");
        if (row.Version != version) return Stale.Problem;
        var ids = row.Boxes.ConvertAll(box => box.Id);
        var laid = await db.PlanItems.CountAsync(item => item.BoxId != null && ids.Contains(item.BoxId.Value));
        if (laid > 0) return new Problem("boxes-laid", "", $"{laid} of its boxes {(laid == 1 ? "lies" : "lie")} on the plan: take them back to the shelf first.");
        db.RemoveRange(row.Boxes);
        row.Boxes = [];
        return await db.SaveAsync(row, row);
    }

    /// <summary>Takes away a batch that was started and not packed.</summary>
    public async Task<Outcome<bool>> DiscardAsync(Guid id, int version)
    {
        if (await db.Batches.Include(row => row.Boxes).SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("batch");
        if (row.Version != version) return Stale.Problem;
        if (row.Boxes.Count > 0) return new Problem("batch-packed", "", "This batch is in its boxes: empty them back first.");
        db.Remove(row);
        await db.SaveChangesAsync();
        return true;
    }

    /// <summary>The batch as the core knows it.</summary>
    public static Batch Read(BatchRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new(row.Id, row.RecipeName, new TapeMark(row.Letters, row.Tint), row.CookedOn, row.Contents,
            row.FullGrams is { } full && row.PanGrams is { } pan ? new Grams(full - pan) : null);
    }

    /// <summary>The boxes a weighed batch would go into: by weight, or by pieces, each piece its share of the weight.</summary>
    public static Outcome<DividedBatch> Divided(Outcome<Grams> cooked, int boxes, int? pieces)
    {
        if (!cooked.Succeeded) return cooked.Problems.ToList();
        if (pieces is null)
        {
            var equal = Divide.IntoEqual(cooked.Value, boxes);
            return equal.Succeeded ? new DividedBatch([.. equal.Value!.Portions.Select(weight => (weight, (int?)null))], 0) : equal.Problems.ToList();
        }

        var counted = Divide.ByPieces(pieces.Value, boxes);
        return counted.Succeeded
            ? new DividedBatch([.. counted.Value!.Portions.Select(count => (cooked.Value * ((decimal)count / pieces.Value), (int?)count))], counted.Value.Over)
            : counted.Problems.ToList();
    }
}

/// <summary>The boxes of a batch.</summary>
/// <param name="Portions">Each box's cooked grams, and its pieces where they are counted.</param>
/// <param name="OverPieces">Pieces that do not go round.</param>
public sealed record DividedBatch(IReadOnlyList<(Grams Weight, int? Pieces)> Portions, int OverPieces);
