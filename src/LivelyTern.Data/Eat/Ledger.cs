using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Shop;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Eat;

/// <summary>The ledger of what was eaten.</summary>
public sealed class Ledger(TernDb db, EntryCache read, PantryUse pantry, TimeProvider clock) : IEatenLedger
{
    /// <inheritdoc/>
    public async Task WriteAsync(PlanChange change, Stock stock)
    {
        ArgumentNullException.ThrowIfNull(change);
        ArgumentNullException.ThrowIfNull(stock);
        var before = Eaten(change.Days.SelectMany(day => day.Before.Select(item => (day.Where, item))));
        var after = Eaten(change.Days.SelectMany(day => day.After.Select(item => (day.Where, item))));
        var gone = before.Where(one => !after.TryGetValue(one.Key, out var now) || !IsSame(one.Value, now)).ToList();
        var come = after.Where(one => !before.TryGetValue(one.Key, out var was) || !IsSame(was, one.Value)).ToList();
        if (gone.Count + come.Count == 0) return;
        await KeepPlansAsync(change, stock);

        var corrected = (await StandingAsync(gone.ConvertAll(one => one.Key))).ToDictionary(entry => entry.ItemId);
        var eaters = await EatersAsync(db, come.Select(one => one.Value.Where.EaterId));
        foreach (var (id, (where, item)) in come)
        {
            var entry = EntryOf(eaters[where.EaterId], where, item, stock, clock);
            if (corrected.Remove(id, out var was)) entry.CorrectsId = was.Id;
            db.Entries.Add(entry);
        }

        db.Entries.AddRange(corrected.Values.Select(TakenBack));

        // A plain food comes out of the pantry; what is of a batch was taken when it was cooked, and a meal out comes from elsewhere.
        foreach (var id in gone.Select(one => one.Key).Union(come.Select(one => one.Key)))
        {
            var eaten = after.TryGetValue(id, out var now) && now.Item.What is PlainFood plain ? plain.Food : null;
            if (eaten is not null || before.TryGetValue(id, out var was) && was.Item.What is PlainFood) await pantry.EatenAsync(id, eaten);
        }
    }

    /// <inheritdoc/>
    public async Task<IReadOnlyDictionary<Guid, EatenMeasures>> MeasuresAsync(IReadOnlyCollection<Guid> itemIds)
    {
        if (itemIds.Count == 0) return new Dictionary<Guid, EatenMeasures>();
        var standing = await Standing([.. itemIds]).Select(entry => new { entry.Id, entry.ItemId }).ToListAsync();
        var counted = standing.ToDictionary(entry => entry.Id, entry => read.Find(entry.Id));
        var unread = counted.Where(one => one.Value is null).Select(one => one.Key).ToList();
        var found = unread.Count == 0 ? [] : await db.Entries.AsNoTracking().Where(entry => unread.Contains(entry.Id)).ToListAsync();
        foreach (var entry in found) counted[entry.Id] = read.Remember(entry.Id, entry.Measures.ToMeasures());
        return standing.ToDictionary(entry => entry.ItemId, entry => counted[entry.Id]!);
    }

    /// <summary>
    /// Things that a program before this one marked as eaten get their entries, by the aim that holds for their day: the only figures there
    /// are of them.
    /// </summary>
    /// <returns>How many.</returns>
    public static async Task<int> CatchUpAsync(TernDb db, PlanStore plan, TimeProvider clock)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(plan);
        var days = await db.PlanItems.AsNoTracking()
            .Where(row => row.EatenAt != null && !db.Entries.Any(entry => entry.ItemId == row.Id))
            .Select(row => row.Day).Distinct().ToListAsync();
        if (days.Count == 0) return 0;
        var known = (await db.Entries.AsNoTracking().Select(entry => entry.ItemId).Distinct().ToListAsync()).ToHashSet();
        var count = 0;
        foreach (var day in days)
        {
            var board = await plan.BoardAsync(day, day);
            var stock = await plan.StockAsync(board);
            var missing = board.Days.SelectMany(one => one.Value.Select(item => (Where: one.Key, Item: item)))
                .Where(one => one.Item.EatenAt is not null && !known.Contains(one.Item.Id) && stock.Has(one.Item)).ToList();
            var eaters = await EatersAsync(db, missing.Select(one => one.Where.EaterId));
            db.Entries.AddRange(missing.Select(one => EntryOf(eaters[one.Where.EaterId], one.Where, one.Item, stock, clock)));
            count += missing.Count;
        }

        await db.SaveChangesAsync();
        return count;
    }

    // How a day was planned is how it stood before the first thing of it was eaten; while nothing of it is, it is as it stands.
    private async Task KeepPlansAsync(PlanChange change, Stock stock)
    {
        static bool IsEaten(PlanItem item) => item.EatenAt is not null;
        foreach (var day in change.Days)
        {
            var (where, begins) = (day.Where, day.After.Exists(IsEaten));
            if (begins == day.Before.Exists(IsEaten)) continue;
            var kept = await db.PlannedDays.FindAsync(where.EaterId, where.Day);
            if (!begins && kept is not null) db.PlannedDays.Remove(kept);
            if (!begins || kept is not null) continue;
            var (_, aim) = (await EatersAsync(db, [where.EaterId]))[where.EaterId].On(where.Day);
            var planned = day.Before.FindAll(item => !item.IsSetAside && stock.Has(item))
                .ConvertAll(item => StoredPlannedThing.Of(item, stock, aim));
            db.PlannedDays.Add(new()
            {
                EaterId = where.EaterId,
                Day = where.Day,
                WrittenAt = clock.GetUtcNow(),
                Planned = new(StoredPlanned.Shape, planned),
            });
        }
    }

    private static Dictionary<Guid, (EaterDay Where, PlanItem Item)> Eaten(IEnumerable<(EaterDay Where, PlanItem Item)> items) =>
        items.Where(one => one.Item.EatenAt is not null).ToDictionary(one => one.Item.Id);

    private static bool IsSame((EaterDay Where, PlanItem Item) one, (EaterDay Where, PlanItem Item) other) =>
        one.Where == other.Where && one.Item.EatenAt == other.Item.EatenAt
        && one.Item.What.HoldsTheSame(other.Item.What);

    private static async Task<Dictionary<Guid, Aim.EaterRow>> EatersAsync(TernDb db, IEnumerable<Guid> ids)
    {
        var wanted = ids.Distinct().ToList();
        return await db.Eaters.AsNoTracking().Where(row => wanted.Contains(row.Id)).ToDictionaryAsync(row => row.Id);
    }

    // The entries that stand: not taken back, and corrected by no other.
    private async Task<List<EntryRow>> StandingAsync(List<Guid> itemIds) =>
        itemIds.Count == 0 ? [] : await Standing(itemIds).ToListAsync();

    private IQueryable<EntryRow> Standing(List<Guid> itemIds) =>
        db.StandingEntries().Where(entry => itemIds.Contains(entry.ItemId));

    private static EntryRow EntryOf(Aim.EaterRow eater, EaterDay where, PlanItem item, Stock stock, TimeProvider clock)
    {
        var contents = item.Contents(stock);
        var (_, aim) = eater.On(where.Day);
        var totals = aim.Count(contents);
        var grams = item.IsMealOut ? 0 : stock.BoxOf(item)?.Weight.Value ?? item.Food!.Weight.Value;
        return new EntryRow
        {
            Id = Guid.CreateVersion7(),
            ItemId = item.Id,
            EaterId = where.EaterId,
            Day = where.Day,
            EatenAt = item.EatenAt!.Value,
            WrittenAt = clock.GetUtcNow(),
            Name = item.IsForGuests ? item.Name(stock) + ", for guests" : item.Name(stock),
            BoxId = item.BoxId,
            Decigrams = Tenths(grams),
            Decikilocalories = Tenths(totals[Measure.Energy].Known),
            Measures = StoredMeasures.Of(totals, aim.Rule?.Exact(contents)),
        };
    }

    private EntryRow TakenBack(EntryRow entry) => new()
    {
        Id = Guid.CreateVersion7(),
        CorrectsId = entry.Id,
        IsTakenBack = true,
        ItemId = entry.ItemId,
        EaterId = entry.EaterId,
        Day = entry.Day,
        EatenAt = entry.EatenAt,
        WrittenAt = clock.GetUtcNow(),
        Name = entry.Name,
        BoxId = entry.BoxId,
        Measures = StoredMeasures.Of(new Dictionary<Measure, Total>(), null),
    };

    private static long Tenths(decimal amount) => (long)Rounding.ToStep(amount * 10, 1);
}
