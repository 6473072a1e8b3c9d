using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Cook;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>What packing a put-together dish does to the batches it is made of; within a larger command.</summary>
public sealed class PackTogether(TernDb db, BatchReader reader, NewBatch begin, PortionsOnDays portions, IPantryUse pantry)
{
    /// <summary>What a dish weighs that is put together now: its parts and the plain foods. Each part has to be weighed before.</summary>
    internal static Outcome<Grams> WeightOf(BatchRow dish, Batch batch)
    {
        if (dish.State != BatchState.Planned) return BatchStore.NotInItsPan(dish)!;
        if (batch.Parts.FirstOrDefault(part => part.Of.Cooked is null) is { } open)
            return new Problem("part-not-weighed", "", $"{open.Of.RecipeName} is not weighed yet: cook and weigh it first.");
        return batch.Weight?.ToMilligram() is { } weight
            ? weight
            : new Problem("weight-nothing", "", "There is nothing to pack: none of its parts is there.");
    }

    /// <summary>From here on what goes into its boxes is taken out of its parts; the plain foods go in.</summary>
    /// <param name="dish">The dish.</param>
    /// <param name="batch">The same with what goes in of each part.</param>
    /// <param name="today">The day it is put together.</param>
    /// <param name="plain">What goes in of the plain foods, line by line; null where they go in as planned.</param>
    internal async Task TakeAsync(BatchRow dish, Batch batch, DateOnly today, IReadOnlyList<BatchLine>? plain)
    {
        var lines = plain ?? await reader.LinesOfAsync(dish);
        await begin.SetLinesAsync(dish, lines);
        await pantry.CookedAsync(dish.Id, lines);
        var links = await db.BatchParts.Where(row => row.DishId == dish.Id).ToListAsync();
        foreach (var (part, link) in batch.Parts.Join(links, part => part.Of.Id, link => link.PartId, (part, link) => (part, link)))
            link.Milligrams = Milligrams.Of(part.Weight);
        (dish.CookedOn, dish.CookedMilligrams, dish.RecipeName) = (today, Milligrams.Of(batch.Weight!.Value), batch.RecipeName);
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
