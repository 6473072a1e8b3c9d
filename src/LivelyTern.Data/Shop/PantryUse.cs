using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Shop;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Shop;

/// <summary>
/// Takes out of the pantry what is cooked and eaten, and gives back what was not after all; the command it is within saves.
/// </summary>
public sealed class PantryUse(TernDb db, FoodStore foods) : IPantryUse
{
    /// <inheritdoc/>
    public async Task CookedAsync(Guid batchId, IReadOnlyList<BatchLine> lines)
    {
        ArgumentNullException.ThrowIfNull(lines);
        var goesIn = lines.Where(line => !line.IsTakenOut)
            .SelectMany(line => line.WentIn.Ingredients.Select(part => (part, note: line.ReallyText ?? line.Text)));
        await UseAsync(batchId, [.. goesIn]);
    }

    /// <summary>Something plain was eaten, or with nothing was not after all.</summary>
    /// <param name="itemId">The thing on its day.</param>
    /// <param name="eaten">What it was; null for nothing.</param>
    public Task EatenAsync(Guid itemId, Ingredient? eaten) => UseAsync(itemId, eaten is null ? [] : [(eaten, "")]);

    private async Task UseAsync(Guid source, IReadOnlyList<(Ingredient Part, string Note)> used)
    {
        var before = await db.PantryUses.Where(row => row.SourceId == source).ToListAsync();
        if (before.Count == 0 && (used.Count == 0 || !await db.Pantry.AnyAsync())) return;
        var known = await foods.AllAsync();
        var wanted = used.Select(one => AsPurchased.Of(one.Part, one.Note, known.Find)).OfType<Needed>()
            .GroupBy(need => need.Food.Id, StringComparer.Ordinal)
            .ToDictionary(same => same.Key, same => same.Sum(need => need.Purchased.Value), StringComparer.Ordinal);
        var ids = wanted.Keys.ToList();
        var touched = before.ConvertAll(row => row.PantryId);
        var rows = await db.Pantry.Where(row => ids.Contains(row.FoodId) || touched.Contains(row.Id)).ToListAsync();

        // What it took before is given back, and it takes anew: so a correction takes from the same things.
        var takes = before.ToDictionary(use => use.PantryId, _ => 0L);
        foreach (var use in before) rows.Find(row => row.Id == use.PantryId)!.Milligrams += use.Milligrams;
        foreach (var (foodId, grams) in wanted)
        {
            var own = rows.FindAll(row => string.Equals(row.FoodId, foodId, StringComparison.Ordinal));
            foreach (var take in Take([.. own.Select(row => row.ToItem())], grams, touched))
            {
                takes[take.ItemId] = Milligrams.Of(take.Taken);
                own.Find(row => row.Id == take.ItemId)!.Milligrams -= takes[take.ItemId];
            }
        }

        Write(source, takes, before, rows);
    }

    private void Write(Guid source, Dictionary<Guid, long> takes, List<PantryUseRow> before, List<PantryRow> rows)
    {
        foreach (var (id, milligrams) in takes)
        {
            var use = before.Find(one => one.PantryId == id);
            if (use?.Milligrams == milligrams) continue;
            rows.Find(row => row.Id == id)!.Version++;
            if (use is null) db.PantryUses.Add(new() { SourceId = source, PantryId = id, Milligrams = milligrams });
            else if (milligrams == 0) db.PantryUses.Remove(use);
            else use.Milligrams = milligrams;
        }
    }

    // First from where it took before, then as Pantry.Take orders the rest.
    private static IEnumerable<PantryTake> Take(List<PantryItem> items, decimal grams, List<Guid> touched)
    {
        var again = Pantry.Take(items.Where(item => touched.Contains(item.Id)), new(grams));
        var left = grams - again.Sum(take => take.Taken.Value);
        return again.Concat(Pantry.Take(items.Where(item => !touched.Contains(item.Id)), new(left)));
    }
}
