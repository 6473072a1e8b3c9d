using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Cook;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>What packing a put-together dish does to the batches it is made of; within a larger command.</summary>
public sealed class PackTogether(TernDb db, BatchReader reader, NewBatch begin, PortionsOnDays portions, IPantryUse pantry)
{
    /// <summary>
    /// The dish weighs what goes into its boxes of each part, and the plain foods; from here on that is taken out of the parts. Each part
    /// has to be weighed before.
    /// </summary>
    internal async Task<Outcome<Grams>> WeighAsync(BatchRow dish, Batch batch, DateOnly today)
    {
        if (dish.State != BatchState.Planned) return BatchStore.NotInItsPan(dish)!;
        if (batch.Parts.FirstOrDefault(part => part.Of.Cooked is null) is { } open)
            return new Problem("part-not-weighed", "", $"{open.Of.RecipeName} is not weighed yet: cook and weigh it first.");
        if (batch.Weight is not { } weight)
            return new Problem("weight-nothing", "", "There is nothing to pack: none of its parts is there.");
        var lines = await reader.LinesOfAsync(dish);
        await begin.SetLinesAsync(dish, lines);
        await pantry.CookedAsync(dish.Id, lines);
        var links = await db.BatchParts.Where(row => row.DishId == dish.Id).ToListAsync();
        foreach (var (part, link) in batch.Parts.Join(links, part => part.Of.Id, link => link.PartId, (part, link) => (part, link)))
            link.Milligrams = Milligrams.Of(part.Weight);
        (dish.CookedOn, dish.CookedMilligrams, dish.RecipeName) = (today, Milligrams.Of(weight), batch.RecipeName);
        return Milligrams.ToGrams(dish.CookedMilligrams.Value);
    }

    /// <summary>A pan of which the dish took the last is empty: nothing of it waits for boxes.</summary>
    internal async Task EmptiedPansAsync(BatchRow dish)
    {
        var parts = await PartsAsync(dish, BatchState.Cooked);
        var taken = await reader.InDishesAsync(parts.Select(row => row.Id));
        foreach (var row in parts)
        {
            var (packed, asked) = taken[row.Id];
            var rest = Milligrams.ToGrams(row.CookedMilligrams ?? 0) - packed;
            if (await portions.LaidAsync(row.Id) > Grams.Zero || asked > Grams.Zero || rest.Value >= 1) continue;
            row.State = BatchState.Packed;
            row.Version++;
        }

        await db.SaveChangesAsync();
    }

    /// <summary>The dish is still to be put together after all: its parts are back in their pans.</summary>
    internal async Task ApartAsync(BatchRow dish)
    {
        (dish.State, dish.CookedMilligrams, dish.Pieces, dish.VolumeMl) = (BatchState.Planned, null, null, null);
        await pantry.CookedAsync(dish.Id, []);
        foreach (var row in await PartsAsync(dish, BatchState.Packed))
        {
            if (await db.Boxes.AnyAsync(box => box.BatchId == row.Id && box.State != Core.Pack.BoxState.EmptiedBack)) continue;
            row.State = BatchState.Cooked;
            row.Version++;
        }
    }

    private async Task<List<BatchRow>> PartsAsync(BatchRow dish, BatchState state) =>
        await db.Batches.Where(row => row.State == state && db.BatchParts.Any(link => link.DishId == dish.Id && link.PartId == row.Id))
            .ToListAsync();
}
