using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook;

/// <summary>Batches to be cooked on a day: planned, planned otherwise, and cooked.</summary>
public sealed class PlannedBatchStore(TernDb db, BatchStore batches, UnpackedBatches unpacked)
{
    private const int MostAtOnce = 20;

    /// <summary>
    /// Recipes to be cooked on a day, each for so many portions of its own size; all of them or, where one cannot be, none.
    /// </summary>
    /// <param name="day">The prep day, not past.</param>
    /// <param name="today">The household's day.</param>
    /// <param name="dishes">Recipes and portions.</param>
    public async Task<Outcome<IReadOnlyList<BatchRow>>> PlanAsync(DateOnly day, DateOnly today, IReadOnlyList<(Guid RecipeId, int Portions)> dishes)
    {
        ArgumentNullException.ThrowIfNull(dishes);
        if (dishes.Count is 0 or > MostAtOnce) return new Problem("batches-many", "dishes", $"Plan between 1 and {MostAtOnce} batches at a time.");
        var rows = new List<BatchRow>();
        foreach (var (recipeId, portions) in dishes)
        {
            if (AheadProblem(day, today, portions) is { } wrong) return wrong;
            var row = await batches.BeginAsync(recipeId, day, portions, isAhead: true);
            if (!row.Succeeded) return row.Problems.ToList();
            rows.Add(row.Value!);
        }

        await db.SaveChangesAsync();
        return rows;
    }

    /// <summary>Another day or another amount for a batch still to be cooked.</summary>
    public Task<Outcome<BatchRow>> ReplanAsync(Guid id, int version, DateOnly day, DateOnly today, int portions) => db.InTurnAsync<BatchRow>(async () =>
    {
        if (await db.Batches.Include(row => row.Boxes).SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("batch");
        if (row.Version != version) return Stale.Problem;
        if (!row.IsAhead) return new Problem("batch-cooked", "", "This batch is cooked: it is as large as it is.");
        if (AheadProblem(day, today, portions) is { } wrong) return wrong;
        var early = await db.PlanItems.CountAsync(item => item.BatchId == id && item.Day < day);
        if (early > 0) return new Problem("portions-before", "day", $"{early} of its portions {(early == 1 ? "lies" : "lie")} on a day before that: move {(early == 1 ? "it" : "them")} first.");
        (row.CookedOn, row.Portions) = (day, portions);
        return await db.SaveAsync(row, row);
    });

    /// <summary>A planned batch is cooked: what goes in is fixed from here on, with the figures the foods have now.</summary>
    public Task<Outcome<BatchRow>> CookAsync(Guid id, int version, DateOnly day) => db.InTurnAsync<BatchRow>(async () =>
    {
        if (await db.Batches.Include(row => row.Boxes).SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("batch");
        if (row.Version != version) return Stale.Problem;
        if (!row.IsAhead) return new Problem("batch-cooked", "", "This batch is cooked already.");
        var batch = await unpacked.ReadAsync(row);
        (row.IsAhead, row.CookedOn, row.Contents, row.RecipeName) = (false, day, batch.Contents, batch.RecipeName);
        return await db.SaveAsync(row, row);
    });

    private static Problem? AheadProblem(DateOnly day, DateOnly today, int portions) =>
        day < today ? new("day-past", "day", "That day is past: a batch is planned for today or later.")
        : day > today.AddDays(366) ? new("day-far", "day", "That is more than a year ahead: check the date.")
        : portions is < 1 or > RecipeYield.MostPortions ? new("portions-absurd", "portions", $"A batch makes between 1 and {RecipeYield.MostPortions} portions.")
        : null;
}
