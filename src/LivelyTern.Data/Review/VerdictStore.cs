using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan.Menus;
using LivelyTern.Core.Review;
using LivelyTern.Data.Plan;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Review;

/// <summary>What eaters say of batches.</summary>
public sealed class VerdictStore(TernDb db, TimeProvider clock) : IDishOpinions
{
    /// <summary>What was said of some batches.</summary>
    public async Task<IReadOnlyList<VerdictRow>> OfBatchesAsync(IReadOnlyCollection<Guid> batchIds) =>
        await db.Verdicts.AsNoTracking().Where(row => batchIds.Contains(row.BatchId)).OrderBy(row => row.WrittenAt).ToListAsync();

    /// <summary>What was said of all batches of a recipe, the last cooked first.</summary>
    public async Task<IReadOnlyList<VerdictRow>> OfRecipeAsync(Guid recipeId) =>
        await db.Verdicts.AsNoTracking().Include(row => row.Batch).Where(row => row.Batch.RecipeId == recipeId)
            .OrderByDescending(row => row.Batch.CookedOn).ThenBy(row => row.WrittenAt).ToListAsync();

    /// <inheritdoc/>
    public async Task<IReadOnlyDictionary<Guid, DishOpinion>> OfAllAsync()
    {
        var rows = await db.Verdicts.AsNoTracking().Include(row => row.Batch)
            .Where(row => db.Eaters.Any(eater => eater.Id == row.EaterId && eater.ArchivedAt == null)).ToListAsync();
        return rows.GroupBy(row => row.Batch.RecipeId).ToDictionary(dish => dish.Key, dish => Opinions.Of(dish.Select(row => row.Said())));
    }

    /// <summary>Writes down what an eater says of a batch; saying nothing takes it away.</summary>
    /// <param name="batchId">The batch.</param>
    /// <param name="eaterId">Whose verdict.</param>
    /// <param name="serving">How it came to the table.</param>
    /// <param name="before">What the writer saw there; null for nothing. Where something else is said, it is refused.</param>
    /// <param name="said">What is said.</param>
    /// <returns>What is said now.</returns>
    public Task<Outcome<Verdict>> SetAsync(Guid batchId, Guid eaterId, Serving serving, Verdict? before, Verdict said) =>
        db.InTurnAsync<Verdict>(async () =>
        {
            ArgumentNullException.ThrowIfNull(said);
            if (await db.Batches.AsNoTracking().SingleOrDefaultAsync(row => row.Id == batchId) is not { } batch) return Stale.Gone("batch");
            if (!await db.Eaters.AnyAsync(row => row.Id == eaterId && row.ArchivedAt == null)) return Stale.Gone("eater");
            if (batch.State == BatchState.Planned)
                return new Problem("batch-not-cooked", "batchId", "It is not cooked yet: nobody can say how it was.");
            var checkedOne = said.For(serving);
            if (checkedOne.Value is not { } verdict) return checkedOne.Problems.ToList();
            var row = await db.Verdicts.SingleOrDefaultAsync(
                one => one.BatchId == batchId && one.EaterId == eaterId && one.Serving == serving);
            if ((row?.Read() ?? Nothing) != (before ?? Nothing)) return Stale.Problem;
            if (row is null) db.Verdicts.Add(row = new() { BatchId = batchId, EaterId = eaterId, Serving = serving });
            row.Write(verdict);
            row.WrittenAt = clock.GetUtcNow();
            if (verdict.IsEmpty()) db.Verdicts.Remove(row);
            await db.SaveChangesAsync();
            return verdict;
        });

    private static readonly Verdict Nothing = new(null, null, null, null, null, null);
}
