using System.Collections.Immutable;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Data.Cook;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>A change that was made, by the id under which it can be undone.</summary>
public sealed record MadeChange(Guid Id, int Version);

/// <summary>What lies on which day, and the log of changes to it.</summary>
public sealed class PlanStore(TernDb db, UnpackedBatches batches, TimeProvider clock)
{
    private IReadOnlyDictionary<Guid, Batch>? unpacked;

    /// <summary>The version of the plan, counted up by every change.</summary>
    public async Task<int> VersionAsync() => (await db.PlanVersions.AsNoTracking().SingleAsync()).Version;

    /// <summary>The plan of some days, for every eater.</summary>
    public async Task<PlanBoard> BoardAsync(DateOnly from, DateOnly to) =>
        Board(await db.PlanItems.AsNoTracking().Where(row => row.Day >= from && row.Day <= to).ToListAsync());

    /// <summary>What these items are made of: their boxes, and the batches that are not packed yet.</summary>
    public async Task<Stock> StockAsync(IEnumerable<PlanItem> items)
    {
        var ids = items.Select(item => item.BoxId).OfType<Guid>().Distinct().ToList();
        var boxes = (await db.Boxes.AsNoTracking().Include(row => row.Batch).Where(row => ids.Contains(row.Id)).ToListAsync()).ToDictionary(row => row.Id, Read);
        unpacked ??= (await batches.ListAsync()).ToDictionary(batch => batch.Id);
        return new(boxes, unpacked);
    }

    /// <summary>What everything on a plan is made of.</summary>
    public Task<Stock> StockAsync(PlanBoard board)
    {
        ArgumentNullException.ThrowIfNull(board);
        return StockAsync(board.Days.Values.SelectMany(items => items));
    }

    /// <summary>The batches that are not packed yet, with what lies of them on days; those to be cooked first come first.</summary>
    public async Task<IReadOnlyList<UnpackedBatch>> UnpackedAsync()
    {
        var known = (await StockAsync([])).Unpacked;
        if (known.Count == 0) return [];
        var laid = (await db.PlanItems.AsNoTracking().Where(row => row.BatchId != null).Select(row => new { row.BatchId, row.EaterId, row.Day, row.Grams }).ToListAsync()).ToLookup(row => row.BatchId!.Value);
        return [.. known.Values.OrderBy(batch => batch.CookedOn).ThenBy(batch => batch.Id).Select(batch => new UnpackedBatch(
            batch, new Grams(laid[batch.Id].Sum(row => row.Grams ?? 0)),
            laid[batch.Id].GroupBy(row => row.EaterId).ToDictionary(own => own.Key, own => new Grams(own.OrderBy(row => row.Day).Last().Grams ?? 0))))];
    }

    /// <summary>The versions of these batches.</summary>
    public async Task<Dictionary<Guid, int>> BatchVersionsAsync(IReadOnlyCollection<Guid> ids) =>
        await db.Batches.AsNoTracking().Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id, row => row.Version);

    /// <summary>The boxes that lie on no day, oldest batch first.</summary>
    public async Task<IReadOnlyList<Box>> ShelfAsync() =>
        [.. (await db.Boxes.AsNoTracking().Include(row => row.Batch)
            .Where(row => !db.PlanItems.Any(item => item.BoxId == row.Id))
            .OrderBy(row => row.Batch.CookedOn).ThenBy(row => row.BatchId).ThenBy(row => row.Number).ToListAsync()).Select(Read)];

    /// <summary>Makes a change that was worked out on the plan as it stood at a version.</summary>
    /// <param name="version">The version the user saw; null takes the plan as it is (undo checks the days themselves).</param>
    /// <param name="days">The days the change may touch, besides those of the item or box concerned.</param>
    /// <param name="concerning">The items, boxes and batches it concerns; empty for a new plain food.</param>
    /// <param name="change">Works the change out.</param>
    public async Task<Outcome<MadeChange>> ChangeAsync(int? version, IReadOnlyList<EaterDay> days, IReadOnlyCollection<Guid> concerning, Func<PlanBoard, Outcome<PlanChange>> change)
    {
        ArgumentNullException.ThrowIfNull(days);
        ArgumentNullException.ThrowIfNull(change);
        var state = await db.PlanVersions.SingleAsync();
        if (version is not null && state.Version != version) return Stale.Problem;
        var eaters = days.Select(day => day.EaterId).Distinct().ToList();
        if (await db.Eaters.CountAsync(row => eaters.Contains(row.Id) && row.ArchivedAt == null) != eaters.Count) return Stale.Gone("eater");

        var board = await BoardAroundAsync(days, concerning);
        var made = change(board);
        if (!made.Succeeded) return made.Problems.ToList();
        var after = board.Apply(made.Value!);
        if (!after.Succeeded) return after.Problems.ToList();
        if (await ForbiddenAsync(made.Value!) is { } never) return never;

        var log = new PlanChangeRow { Id = Guid.CreateVersion7(), At = clock.GetUtcNow(), Change = made.Value! };
        db.PlanChanges.Add(log);
        await WriteAsync(made.Value!);
        return await db.SaveAsync(state, new MadeChange(log.Id, state.Version + 1));
    }

    /// <summary>Undoes a change, if the days it touched are still as it left them. The undoing is a change itself: undo that to redo.</summary>
    public async Task<Outcome<MadeChange>> UndoAsync(Guid changeId)
    {
        if (await db.PlanChanges.AsNoTracking().SingleOrDefaultAsync(row => row.Id == changeId) is not { } log) return Stale.Gone("step");
        var inverse = log.Change.Inverse;
        var boxes = inverse.Days.SelectMany(day => day.After).Select(item => item.BoxId).OfType<Guid>().ToList();
        if (await db.Boxes.CountAsync(row => boxes.Contains(row.Id)) != boxes.Count) return Stale.Gone("box");
        return await ChangeAsync(null, [.. inverse.Days.Select(day => day.Where)], boxes, _ => inverse);
    }

    /// <summary>What this household fills gaps with: what its eaters say they like, then plain foods as they were laid over the last weeks, the most often laid first, then a few to start from.</summary>
    /// <param name="likes">Amounts the eaters like.</param>
    /// <param name="foods">The foods to read them against.</param>
    /// <param name="since">From which day on.</param>
    /// <param name="most">How many.</param>
    public async Task<IReadOnlyList<FillerOffer>> FillersAsync(IEnumerable<string> likes, IFoods foods, DateOnly since, int most)
    {
        FillerOffer? Read(string text) => FoodLine.Read(text, foods) is { Ingredient: { Weight.Value: > 0 } food } ? new(text.Trim(), food) : null;
        var rows = await db.PlanItems.AsNoTracking().Where(row => row.Day >= since && row.Text != null && row.GiveOrTake == null && !row.IsFitted).Select(row => new { row.Text, row.Food }).ToListAsync();
        var laid = rows.Where(row => row.Food is { Weight.Value: > 0 }).GroupBy(row => row.Text!.Trim(), StringComparer.OrdinalIgnoreCase)
            .OrderByDescending(same => same.Count()).ThenBy(same => same.Key, StringComparer.Ordinal).Select(same => new FillerOffer(same.Key, same.First().Food!));
        var offers = likes.Select(Read).OfType<FillerOffer>().Concat(laid).DistinctBy(offer => offer.Text, StringComparer.OrdinalIgnoreCase).Take(most).ToList();
        if (offers.Count < StartingFillers.Fewest) offers.AddRange(StartingFillers.Texts.Select(Read).OfType<FillerOffer>().ExceptBy(offers.Select(offer => offer.Text), offer => offer.Text, StringComparer.OrdinalIgnoreCase));
        return offers;
    }

    // Whoever lays it: what may not lie on a day does not come onto it.
    private async Task<Problem?> ForbiddenAsync(PlanChange change)
    {
        var comes = change.Days.SelectMany(day => day.After.Where(item => !day.Before.Exists(old => old.Id == item.Id)).Select(item => (day.Where, Item: item))).ToList();
        if (comes.Count == 0) return null;
        var ids = comes.Select(one => one.Where.EaterId).Distinct().ToList();
        var eaters = await db.Eaters.AsNoTracking().Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id);
        var stock = await StockAsync(comes.Select(one => one.Item));
        return comes.Select(one => MayLie.Not(eaters[one.Where.EaterId].Name, eaters[one.Where.EaterId].Ways ?? EatingWays.Plain, one.Where.Day, one.Item, stock)).FirstOrDefault(problem => problem is not null);
    }

    /// <summary>Whether there is a box of this id.</summary>
    public Task<bool> HasBoxAsync(Guid id) => db.Boxes.AnyAsync(row => row.Id == id);

    private static PlanBoard Board(IEnumerable<PlanItemRow> rows) => new(rows
        .GroupBy(row => new EaterDay(row.EaterId, row.Day))
        .ToImmutableDictionary(
            day => day.Key,
            day => day.OrderBy(row => row.Position).Select(row => new PlanItem(row.Id, row.BoxId, row.Text, row.Food, row.EatenAt) { Portion = row.BatchId is { } batch ? new(batch, new Grams(row.Grams ?? 0)) : null, Slot = row.Slot, IsLocked = row.IsLocked, IsFitted = row.IsFitted, GiveOrTake = row.GiveOrTake }).ToImmutableList()));

    // The whole days that a change can touch: those named, and those where those items, boxes or portions lie now.
    private async Task<PlanBoard> BoardAroundAsync(IReadOnlyList<EaterDay> days, IReadOnlyCollection<Guid> concerning)
    {
        var dates = days.Select(day => day.Day).ToHashSet();
        dates.UnionWith(await db.PlanItems
            .Where(row => concerning.Contains(row.Id) || (row.BoxId != null && concerning.Contains(row.BoxId.Value)) || (row.BatchId != null && concerning.Contains(row.BatchId.Value))).Select(row => row.Day).ToListAsync());
        return Board(await db.PlanItems.AsNoTracking().Where(row => dates.Contains(row.Day)).ToListAsync());
    }

    private async Task WriteAsync(PlanChange change)
    {
        var ids = change.Days.SelectMany(day => day.Before.Concat(day.After)).Select(item => item.Id).ToHashSet();
        var rows = await db.PlanItems.Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id);
        var kept = new HashSet<Guid>();
        foreach (var day in change.Days)
        {
            for (var i = 0; i < day.After.Count; i++)
            {
                var item = day.After[i];
                kept.Add(item.Id);
                if (!rows.TryGetValue(item.Id, out var row)) db.PlanItems.Add(row = new PlanItemRow { Id = item.Id });
                (row.EaterId, row.Day, row.Position) = (day.Where.EaterId, day.Where.Day, i);
                (row.BoxId, row.Text, row.Food, row.EatenAt) = (item.BoxId, item.Text, item.Food, item.EatenAt);
                (row.BatchId, row.Grams) = (item.Portion?.BatchId, item.Portion?.Weight.Value);
                (row.Slot, row.IsLocked, row.IsFitted, row.GiveOrTake) = (item.Slot, item.IsLocked, item.IsFitted, item.GiveOrTake);
            }
        }

        db.PlanItems.RemoveRange(rows.Values.Where(row => !kept.Contains(row.Id)));
    }

    private static Box Read(BoxRow row) => new(row.Id, BatchStore.Read(row.Batch), new Grams(row.Grams), row.Pieces);
}
