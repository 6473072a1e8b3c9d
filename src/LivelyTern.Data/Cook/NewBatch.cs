using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Recipes;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook;

/// <summary>Begins batches, and writes down what goes into them; within a larger command.</summary>
public sealed class NewBatch(TernDb db, RecipeStore recipes, BatchReader reader)
{
    /// <summary>A batch of a recipe, not saved yet.</summary>
    /// <param name="recipeId">The recipe.</param>
    /// <param name="day">The day it is cooked, or is to be.</param>
    /// <param name="portions">For how many portions; null for as many as it is usually cooked for.</param>
    /// <param name="state">Planned, or cooking.</param>
    internal async Task<Outcome<BatchRow>> BeginAsync(Guid recipeId, DateOnly day, int? portions, BatchState state)
    {
        if (await recipes.FindAsync(recipeId) is not { } recipe) return Stale.Gone("recipe");
        var row = new BatchRow
        {
            Id = Guid.CreateVersion7(),
            Serial = await NextSerialAsync(),
            RecipeId = recipe.Id,
            RecipeName = recipe.Name,
            RecipeVersion = recipe.Version,
            Letters = recipe.Letters,
            Tint = recipe.Tint,
            CookedOn = day,
            State = recipe.IsPutTogether ? BatchState.Planned : state,
            Portions = portions ?? recipe.UsualPortions,
            IsPutTogether = recipe.IsPutTogether,
        };
        var read = (await recipes.BookAsync()).Read(recipeId);
        if (read.Batch.Ingredients.Count == 0)
            return new Problem("recipe-empty", "recipeId", $"{recipe.Name} has no line that could be read: write down what goes in first.");
        await SetLinesAsync(row, await reader.LinesOfRecipeAsync(row));
        db.Batches.Add(row);
        return row;
    }

    // One more than any batch has, those of this command that are not saved yet among them.
    private async Task<int> NextSerialAsync()
    {
        var saved = await db.Batches.MaxAsync(row => (int?)row.Serial) ?? 0;
        return Math.Max(saved, db.Batches.Local.Select(row => row.Serial).DefaultIfEmpty().Max()) + 1;
    }

    /// <summary>Writes down what goes in, line by line; not saved yet.</summary>
    internal async Task SetLinesAsync(BatchRow row, IReadOnlyList<BatchLine> lines)
    {
        row.Lines.RemoveAll(line => line.Position >= lines.Count);
        for (var i = 0; i < lines.Count; i++)
        {
            var planned = await reader.StoreAsync(lines[i].Planned);
            var line = row.Lines.Find(one => one.Position == i);
            if (line is null)
                row.Lines.Add(line = new BatchLineRow { BatchId = row.Id, Position = i, Text = lines[i].Text, Planned = planned });
            (line.Text, line.IsTakenOut, line.Planned) = (lines[i].Text, lines[i].IsTakenOut, planned);
        }
    }
}
