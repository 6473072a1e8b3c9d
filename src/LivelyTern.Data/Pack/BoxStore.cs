using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Pack;

/// <summary>Packed boxes, and what happens to them.</summary>
public sealed class BoxStore(TernDb db, BatchReader batches, FoodStore foods, FoodRecords records, TimeProvider clock)
{
    private const int SizesRead = 200;

    /// <summary>The boxes a batch is in, in their order; none where they were emptied back.</summary>
    public async Task<List<BoxRow>> OfBatchAsync(Guid batchId) =>
        await db.Boxes.Where(row => row.BatchId == batchId && row.State != BoxState.EmptiedBack).OrderBy(row => row.Number).ToListAsync();

    /// <summary>The boxes of several batches, by batch.</summary>
    public async Task<ILookup<Guid, BoxRow>> OfBatchesAsync(IReadOnlyCollection<Guid> batchIds) =>
        (await db.Boxes.AsNoTracking().Where(row => batchIds.Contains(row.BatchId) && row.State != BoxState.EmptiedBack)
            .OrderBy(row => row.Number).ToListAsync()).ToLookup(row => row.BatchId);

    /// <summary>Whether there is a box of this id, eaten or not; not one that was emptied back.</summary>
    public Task<bool> HasAsync(Guid id) => db.Boxes.AnyAsync(row => row.Id == id && row.State != BoxState.EmptiedBack);

    /// <summary>Whether a batch ever had a box of this number, emptied back or not.</summary>
    public Task<bool> HadAsync(Guid batchId, int number) => db.Boxes.AnyAsync(row => row.BatchId == batchId && row.Number == number);

    /// <summary>Their versions.</summary>
    public async Task<IReadOnlyDictionary<Guid, int>> VersionsAsync(IReadOnlyCollection<Guid> ids) =>
        await db.Boxes.AsNoTracking().IgnoreAutoIncludes().Where(row => ids.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, row => row.Version);

    /// <summary>Whether all of these are boxes, as above.</summary>
    public async Task<bool> HasAllAsync(IReadOnlyCollection<Guid> ids) =>
        await db.Boxes.CountAsync(row => ids.Contains(row.Id) && row.State != BoxState.EmptiedBack) == ids.Distinct().Count();

    /// <summary>Boxes as the core knows them; each batch is read once, however many of its boxes there are.</summary>
    public async Task<IReadOnlyList<Box>> ReadAsync(IReadOnlyList<BoxRow> rows)
    {
        ArgumentNullException.ThrowIfNull(rows);
        if (rows.Count == 0) return [];
        var parts = rows.SelectMany(row => row.Parts).ToList();
        var putIn = rows.SelectMany(row => row.PutIn).ToList();
        var of = await batches.ByIdAsync(
            parts.Select(part => part.BatchId).Concat(putIn.Select(part => part.BatchId)).OfType<Guid>().Distinct());
        var made = await PiecesAsync(parts);
        var known = await foods.AllAsync();
        var stored = await records.ReadAsync(
            parts.Select(part => part.FoodRecordId).Concat(putIn.Select(part => part.FoodRecordId)).OfType<long>());
        return [.. rows.Select(row => Read(row, of, made, id => new Ingredient(stored[id], Grams.Zero).AsKnownToday(known.Find).Food))];
    }

    /// <summary>What each eater's last box of a recipe weighed: their own size of it.</summary>
    public async Task<IReadOnlyDictionary<Guid, Grams>> OwnSizesAsync(Guid recipeId)
    {
        var boxes = await db.Boxes.AsNoTracking().Include(row => row.Parts)
            .Where(row => row.Batch.RecipeId == recipeId && row.ForId != null && row.State != BoxState.EmptiedBack)
            .OrderByDescending(row => row.Batch.CookedOn).ThenByDescending(row => row.BatchId).ThenBy(row => row.Number)
            .Take(SizesRead).ToListAsync();
        return boxes.DistinctBy(row => row.ForId).ToDictionary(
            row => row.ForId!.Value, row => Milligrams.ToGrams(row.Parts.MinBy(part => part.Position)!.Milligrams));
    }

    /// <summary>Boxes filled from a batch, one for each portion of it; not saved yet.</summary>
    /// <param name="batch">The batch.</param>
    /// <param name="portions">What goes into each.</param>
    /// <param name="whose">Whose each is, as far as that is known, and where it goes, in the same order.</param>
    /// <param name="on">The day.</param>
    internal List<BoxRow> Fill(
        BatchRow batch, IReadOnlyList<DividedPortion> portions, IReadOnlyList<(Guid? EaterId, BoxPlace Place)> whose, DateOnly on)
    {
        var boxes = new List<BoxRow>();
        for (var i = 0; i < portions.Count; i++)
        {
            var (owner, place) = whose[i];
            var box = new BoxRow { Id = Guid.CreateVersion7(), BatchId = batch.Id, Number = i + 1 };
            box.Parts.Add(new BoxPartRow
            {
                BoxId = box.Id,
                BatchId = batch.Id,
                Milligrams = Milligrams.Of(portions[i].Weight),
                Pieces = portions[i].Pieces,
            });
            db.Boxes.Add(box);
            Happened(box, BoxEventKind.Packed, BoxLife.New(on, owner));
            if (box.Place != place) Happened(box, BoxEventKind.Put, box.Life.Put(place, on));
            box.Version = 1;
            boxes.Add(box);
        }

        return boxes;
    }

    /// <summary>What of each part of a put-together dish is in its boxes, in their order; not saved yet.</summary>
    internal async Task PutInAsync(IReadOnlyList<BoxRow> filled, IReadOnlyList<IReadOnlyList<BoxPart>> parts)
    {
        foreach (var (box, own) in filled.Zip(parts))
        {
            var plain = own.OfType<FoodInBox>().ToList();
            var ids = plain.Zip(await records.KeepAsync(plain.Select(part => part.Food.Food)))
                .ToDictionary(one => one.First, one => one.Second);
            box.PutIn.AddRange(own.Select((part, position) => new BoxPutInRow
            {
                BoxId = box.Id,
                Position = position,
                BatchId = (part as BatchShare)?.Batch.Id,
                FoodRecordId = part is FoodInBox food ? ids[food] : null,
                Text = (part as FoodInBox)?.Text,
                Milligrams = Milligrams.Of(part.Weight),
                IsTrace = part is FoodInBox { Food.IsTrace: true },
                Compartment = part.Compartment,
            }));
        }
    }

    /// <summary>Grams of a batch that are, or were, in boxes of its own.</summary>
    internal async Task<Grams> OfOwnAsync(Guid batchId) => Milligrams.ToGrams(await (
        from part in db.Set<BoxPartRow>()
        join box in db.Boxes on part.BoxId equals box.Id
        where part.BatchId == batchId && box.State != BoxState.EmptiedBack
        select part.Milligrams).SumAsync());

    /// <summary>
    /// Something happens to a box: an event that is never rewritten, and how the box stands from now on. There is no other way to change
    /// how it stands. Not saved yet.
    /// </summary>
    internal void Happened(BoxRow box, BoxEventKind kind, BoxLife life, string? why = null)
    {
        (box.State, box.Place, box.PlacedOn, box.FrozenOn, box.ForId) = (life.State, life.Place, life.PlacedOn, life.FrozenOn, life.For);
        box.Version++;
        db.BoxEvents.Add(new BoxEventRow
        {
            BoxId = box.Id,
            At = clock.GetUtcNow(),
            Kind = kind,
            State = life.State,
            Place = life.Place,
            PlacedOn = life.PlacedOn,
            FrozenOn = life.FrozenOn,
            ForId = life.For,
            Why = why,
        });
    }

    // Of batches that were divided by pieces, how many each made and what it weighed.
    private async Task<IReadOnlyDictionary<Guid, int>> PiecesAsync(IEnumerable<BoxPartRow> parts)
    {
        var ids = parts.Where(part => part is { Pieces: not null, BatchId: not null }).Select(part => part.BatchId!.Value).Distinct()
            .ToList();
        if (ids.Count == 0) return new Dictionary<Guid, int>();
        return await db.Batches.AsNoTracking().Where(row => ids.Contains(row.Id) && row.Pieces != null)
            .ToDictionaryAsync(row => row.Id, row => row.Pieces!.Value);
    }

    private static Box Read(BoxRow row, IReadOnlyDictionary<Guid, Batch> of, IReadOnlyDictionary<Guid, int> made, Func<long, Food> food)
    {
        BoxPart Part(BoxPartRow part)
        {
            var weight = Milligrams.ToGrams(part.Milligrams);
            if (part.BatchId is not { } id) return new FoodInBox(part.Text!, new(food(part.FoodRecordId!.Value), weight), part.Compartment);

            // A piece weighs its share of the batch to the last digit.
            if (part.Pieces is { } pieces && made.TryGetValue(id, out var all) && of[id].Cooked is { } cooked)
                weight = cooked * (pieces / all);
            return new BatchShare(of[id], weight, part.Pieces, part.Compartment);
        }

        BoxPart PutIn(BoxPutInRow part)
        {
            var weight = Milligrams.ToGrams(part.Milligrams);
            return part.BatchId is { } id
                ? new BatchShare(of[id], weight, null, part.Compartment)
                : new FoodInBox(part.Text!, new(food(part.FoodRecordId!.Value), weight, part.IsTrace), part.Compartment);
        }

        var parts = row.Parts.OrderBy(part => part.Position).Select(Part).ToList();
        var main = (BatchShare)parts[0];
        if (row.PutIn.Count > 0) main = main with { PutIn = [.. row.PutIn.OrderBy(part => part.Position).Select(PutIn)] };
        return new(row.Id, main, [.. parts.Skip(1)], row.Life) { EyeSpread = row.EyeSpread };
    }
}
