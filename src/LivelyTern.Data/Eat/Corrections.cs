using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Plan;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Eat;

/// <summary>Something that was eaten and holds other figures than it was counted by, because its batch was corrected since.</summary>
/// <param name="EntryId">The entry that stands.</param>
/// <param name="Where">Whose day.</param>
/// <param name="Name">What it was.</param>
/// <param name="Was">What it counted.</param>
/// <param name="Now">What it would count, by the aim and the rule of its day.</param>
public sealed record Correction(Guid EntryId, EaterDay Where, string Name, EatenMeasures Was, EatenMeasures Now);

/// <summary>A correction that was written beside an entry.</summary>
/// <param name="ItemId">What lies on the day.</param>
/// <param name="WrittenAt">When.</param>
/// <param name="Was">What it counted before.</param>
/// <param name="Now">What it counts.</param>
public sealed record WrittenCorrection(Guid ItemId, DateTimeOffset WrittenAt, EatenMeasures Was, EatenMeasures Now);

/// <summary>
/// Batches that were corrected after some of them was eaten. What was eaten stays as it was counted until somebody asks for it to be
/// corrected: then a new entry stands beside the old one, and says by how much.
/// </summary>
public sealed class Corrections(TernDb db, PlanStore plan, TimeProvider clock)
{
    // Below this a difference is one of rounding, in kcal, grams or points.
    private const decimal Least = 0.005m;

    /// <summary>What of a batch was eaten and would count otherwise now, by day.</summary>
    /// <param name="batchId">The batch; what it went into is among it.</param>
    public async Task<IReadOnlyList<Correction>> OfBatchAsync(Guid batchId) => [.. (await FindAsync(batchId)).Select(one => one.What)];

    /// <summary>Writes them all, each as a new entry beside the old one.</summary>
    /// <returns>The new entries.</returns>
    public Task<Outcome<IReadOnlyList<Guid>>> WriteAsync(Guid batchId) => db.InTurnAsync<IReadOnlyList<Guid>>(async () =>
    {
        var found = await FindAsync(batchId);
        if (found.Count == 0) return new Problem("nothing-to-correct", "", "Everything that was eaten of it is counted as it is now.");
        List<EntryRow> written = [.. found.Select(one => Beside(one.Entry, one.Measures))];
        return await AddAsync(written);
    });

    /// <summary>Takes corrections back: each entry counts again what it counted before.</summary>
    /// <param name="entryIds">The entries that corrected.</param>
    public Task<Outcome<IReadOnlyList<Guid>>> TakeBackAsync(IReadOnlyList<Guid> entryIds) => db.InTurnAsync<IReadOnlyList<Guid>>(async () =>
    {
        var rows = await db.StandingEntries().Where(row => entryIds.Contains(row.Id) && row.CorrectsId != null).ToListAsync();
        if (rows.Count == 0 || rows.Count != entryIds.Distinct().Count())
            return new Problem("entry-moved-on", "entryIds", "Some of that was changed since: look at the day as it is now.");
        var ids = rows.ConvertAll(row => row.CorrectsId!.Value);
        var before = await db.Entries.AsNoTracking().Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id);
        if (rows.Exists(row => !IsFiguresOnly(before[row.CorrectsId!.Value], row)))
            return new Problem("entry-amount", "entryIds", "That is another amount, not a correction: change it on its day.");
        return await AddAsync([.. rows.Select(row => Beside(row, before[row.CorrectsId!.Value].Measures))]);
    });

    /// <summary>The corrections that stand on an eater's day.</summary>
    public async Task<IReadOnlyList<WrittenCorrection>> OnDayAsync(EaterDay of)
    {
        var pairs = await (
            from row in db.StandingEntries()
            where row.EaterId == of.EaterId && row.Day == of.Day && row.CorrectsId != null && row.BoxId != null
            join was in db.Entries.AsNoTracking() on row.CorrectsId equals was.Id
            select new { row, was }).ToListAsync();
        return
        [
            .. pairs.Where(pair => IsFiguresOnly(pair.was, pair.row)).Select(pair =>
                new WrittenCorrection(pair.row.ItemId, pair.row.WrittenAt, pair.was.Measures.ToMeasures(), pair.row.Measures.ToMeasures())),
        ];
    }

    // As much of the same box, eaten then, at other figures.
    internal static bool IsFiguresOnly(EntryRow was, EntryRow now) =>
        was.BoxId is not null && was.BoxId == now.BoxId && was.Decigrams == now.Decigrams && was.EatenAt == now.EatenAt;

    private async Task<Outcome<IReadOnlyList<Guid>>> AddAsync(IReadOnlyList<EntryRow> rows)
    {
        db.Entries.AddRange(rows);
        await db.NextVersionAsync(rows.Select(row => new EaterDay(row.EaterId, row.Day)));
        await db.SaveChangesAsync();
        return rows.Select(row => row.Id).ToList();
    }

    private EntryRow Beside(EntryRow entry, StoredMeasures measures) => new()
    {
        Id = Guid.CreateVersion7(),
        CorrectsId = entry.Id,
        ItemId = entry.ItemId,
        EaterId = entry.EaterId,
        Day = entry.Day,
        EatenAt = entry.EatenAt,
        WrittenAt = clock.GetUtcNow(),
        Name = entry.Name,
        BoxId = entry.BoxId,
        Decigrams = entry.Decigrams,
        Decikilocalories = (long)Rounding.ToStep(measures.ToMeasures().Totals[Measure.Energy].Known * 10, 1),
        Measures = measures,
    };

    private async Task<List<(EntryRow Entry, StoredMeasures Measures, Correction What)>> FindAsync(Guid batchId)
    {
        var dishes = db.Set<Cook.BatchPartRow>().Where(part => part.PartId == batchId).Select(part => part.DishId);
        var boxes = db.Set<Pack.BoxPartRow>().Where(part => part.BatchId == batchId || dishes.Contains(part.BatchId!.Value))
            .Select(part => part.BoxId);
        var entries = await db.StandingEntries().Where(entry => entry.BoxId != null && boxes.Contains(entry.BoxId.Value))
            .OrderBy(entry => entry.Day).ThenBy(entry => entry.EatenAt).ToListAsync();
        var itemIds = entries.ConvertAll(entry => entry.ItemId);
        var board = await plan.BoardAsync(await db.PlanItems.AsNoTracking().Where(row => itemIds.Contains(row.Id)).ToListAsync());
        var items = board.Days.Values.SelectMany(day => day).ToDictionary(item => item.Id);
        var stock = await plan.StockAsync(board);
        var eaterIds = entries.Select(entry => entry.EaterId).Distinct().ToList();
        var eaters = await db.Eaters.AsNoTracking().Where(row => eaterIds.Contains(row.Id)).ToDictionaryAsync(row => row.Id);
        var found = new List<(EntryRow, StoredMeasures, Correction)>();
        foreach (var entry in entries)
        {
            if (!items.TryGetValue(entry.ItemId, out var item) || !stock.Has(item)) continue;
            var (_, aim) = eaters[entry.EaterId].On(entry.Day);
            var (was, contents) = (entry.Measures.ToMeasures(), item.Contents(stock));
            var now = new EatenMeasures(aim.Count(contents), aim.Rule?.Exact(contents));
            if (!IsOther(was, now)) continue;
            var what = new Correction(entry.Id, new(entry.EaterId, entry.Day), entry.Name, was, now);
            found.Add((entry, StoredMeasures.Of(now.Totals, now.ExactPoints), what));
        }

        return found;
    }

    private static bool IsOther(EatenMeasures was, EatenMeasures now) => now.Totals.Any(total =>
        !was.Totals.TryGetValue(total.Key, out var before) || before.Certainty != total.Value.Certainty
        || Math.Abs(before.Known - total.Value.Known) > Least);
}
