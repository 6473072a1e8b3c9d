using System.Collections.Immutable;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>A change that was made.</summary>
/// <param name="Id">The id under which it can be undone.</param>
/// <param name="Version">Its number: the days it touched are now of this version.</param>
/// <param name="Days">The days it touched.</param>
public sealed record MadeChange(Guid Id, int Version, IReadOnlyList<EaterDay> Days);

/// <summary>Something that lies on a day although its eater must never get it.</summary>
/// <param name="Where">Whose day.</param>
/// <param name="ItemId">What lies there.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Why">Why they must never get it.</param>
/// <param name="IsAnswered">Whether somebody said that it stays.</param>
public sealed record ExcludedItem(EaterDay Where, Guid ItemId, string Name, Never Why, bool IsAnswered);

/// <summary>What lies on which day, and the log of changes to it.</summary>
public sealed class PlanStore(TernDb db, UnpackedBatches batches, FoodStore foods, IEatenLedger ledger, TimeProvider clock)
{
    /// <summary>How long a change can be undone.</summary>
    private static readonly TimeSpan LogKept = TimeSpan.FromDays(60);

    private IReadOnlyDictionary<Guid, Batch>? unpacked;

    private DateOnly Today => DateOnly.FromDateTime(clock.GetLocalNow().DateTime);

    /// <summary>The number of the last change to the plan.</summary>
    public async Task<int> VersionAsync() => (await db.PlanVersions.AsNoTracking().SingleAsync()).Version;

    /// <summary>The plan of some days, for every eater.</summary>
    public async Task<PlanBoard> BoardAsync(DateOnly from, DateOnly to)
    {
        var rows = await db.PlanItems.AsNoTracking().Where(row => row.Day >= from && row.Day <= to).ToListAsync();
        var known = (await StockAsync([])).Unpacked;
        return Board(rows.Where(row => row.BatchId is not { } batch || known.ContainsKey(batch)), await foods.AllAsync());
    }

    /// <summary>Portions that are stored of a batch that is in its boxes, which no command here leaves behind: they are on no board, and are named.</summary>
    public async Task<IReadOnlyList<(EaterDay Where, string Name)>> LeftOutAsync(DateOnly from, DateOnly to)
    {
        var odd =
            from row in db.PlanItems.AsNoTracking()
            where row.Day >= @from && row.Day <= to
            join batch in db.Batches on row.BatchId equals batch.Id
            where batch.Boxes.Count > 0
            select new { row.EaterId, row.Day, batch.RecipeName };
        return [.. (await odd.ToListAsync()).Select(one => (new EaterDay(one.EaterId, one.Day), one.RecipeName))];
    }

    /// <summary>What these items are made of: their boxes, and the batches that are not packed yet.</summary>
    public async Task<Stock> StockAsync(IEnumerable<PlanItem> items)
    {
        var ids = items.Select(item => item.BoxId).OfType<Guid>().Distinct().ToList();
        var boxes = await ReadAsync(await db.Boxes.AsNoTracking().Where(row => ids.Contains(row.Id)).ToListAsync());
        unpacked ??= (await batches.ListAsync()).ToDictionary(batch => batch.Id);
        return new(boxes.ToDictionary(box => box.Id), unpacked);
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
        var portions = await db.PlanItems.AsNoTracking().Where(row => row.BatchId != null)
            .Select(row => new { row.BatchId, row.EaterId, row.Day, row.Grams }).ToListAsync();
        var laid = portions.ToLookup(row => row.BatchId!.Value);
        Dictionary<Guid, Grams> Sizes(Guid batchId) => laid[batchId].GroupBy(row => row.EaterId)
            .ToDictionary(own => own.Key, own => new Grams(own.OrderBy(row => row.Day).Last().Grams ?? 0));
        return [.. known.Values.OrderBy(batch => batch.CookedOn).ThenBy(batch => batch.Id)
            .Select(batch => new UnpackedBatch(batch, new Grams(laid[batch.Id].Sum(row => row.Grams ?? 0)), Sizes(batch.Id)))];
    }

    /// <summary>The versions of these batches.</summary>
    public async Task<Dictionary<Guid, int>> BatchVersionsAsync(IReadOnlyCollection<Guid> ids) =>
        await db.Batches.AsNoTracking().Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id, row => row.Version);

    /// <summary>The boxes that lie on no day, or on one that went by without their being eaten; oldest batch first.</summary>
    public async Task<IReadOnlyList<Box>> ShelfAsync()
    {
        var today = Today;
        var rows = await db.Boxes.AsNoTracking()
            .Where(row => !db.PlanItems.Any(item => item.BoxId == row.Id && (item.EatenAt != null || item.Day >= today)))
            .OrderBy(row => row.Batch.CookedOn).ThenBy(row => row.BatchId).ThenBy(row => row.Number).ToListAsync();
        return await ReadAsync(rows);
    }

    /// <summary>
    /// What lies uneaten on a day from today on although its eater must never get it: an exclusion, a label or a recipe came after it.
    /// </summary>
    public async Task<IReadOnlyList<ExcludedItem>> ExcludedAsync()
    {
        var careful = (await db.Eaters.AsNoTracking().Where(row => row.ArchivedAt == null).ToListAsync())
            .Where(row => row.KeptWays is { } ways && ways.NeverAllergens.Count + ways.NeverFoods.Count > 0).ToDictionary(row => row.Id);
        if (careful.Count == 0) return [];
        var (ids, today) = (careful.Keys.ToList(), Today);
        var rows = await db.PlanItems.AsNoTracking()
            .Where(row => ids.Contains(row.EaterId) && row.Day >= today && row.EatenAt == null).ToListAsync();
        var board = Board(rows, await foods.AllAsync());
        var stock = await StockAsync(board);
        var answered = rows.ToDictionary(row => row.Id, row => row.NeverAnswered);
        return [.. from day in board.Days
                   from item in day.Value
                   where stock.Has(item) && !item.IsEvent
                   let why = careful[day.Key.EaterId].KeptWays!.WhyNever(item.Contents(stock))
                   where why is not null
                   orderby day.Key.Day, day.Key.EaterId
                   let isAnswered = string.Equals(answered[item.Id], why.Key, StringComparison.Ordinal)
                   select new ExcludedItem(day.Key, item.Id, item.Name(stock), why, isAnswered)];
    }

    /// <summary>Says of things that lie where their eaters must never get them that they stay; they are marked all the same.</summary>
    /// <returns>How many there were.</returns>
    public Task<Outcome<int>> LeaveExcludedAsync(IReadOnlyCollection<Guid> itemIds) => db.InTurnAsync<int>(async () =>
    {
        var asked = (await ExcludedAsync()).Where(one => itemIds.Contains(one.ItemId));
        var excluded = asked.ToDictionary(one => one.ItemId, one => one.Why.Key);
        var rows = await db.PlanItems.Where(row => excluded.Keys.Contains(row.Id)).ToListAsync();
        foreach (var row in rows) row.NeverAnswered = excluded[row.Id];
        await db.SaveChangesAsync();
        return excluded.Count;
    });

    /// <summary>Takes things off their days that lie where their eaters must never get them, as one change.</summary>
    public async Task<Outcome<MadeChange>> TakeOffExcludedAsync(IReadOnlyCollection<Guid> itemIds)
    {
        var excluded = (await ExcludedAsync()).Where(one => itemIds.Contains(one.ItemId)).ToList();
        if (excluded.Count == 0) return Stale.Gone("thing to take off");
        var steps = excluded.ConvertAll<Func<PlanBoard, Outcome<PlanChange>>>(one => now => now.TakeOff(one.ItemId));
        return await ChangeAsync(null, [.. excluded.Select(one => one.Where).Distinct()], [], board => board.InOne(steps));
    }

    /// <summary>Makes a change that was worked out on the plan as it stood at a version.</summary>
    /// <param name="version">The number of the last change the user saw; null takes the days as they are (undo checks the days
    /// themselves).</param>
    /// <param name="days">The days the change may touch, besides those of the item or box concerned.</param>
    /// <param name="concerning">The items, boxes and batches it concerns; empty for a new plain food.</param>
    /// <param name="change">Works the change out.</param>
    public Task<Outcome<MadeChange>> ChangeAsync(
        int? version, IReadOnlyList<EaterDay> days, IReadOnlyCollection<Guid> concerning, Func<PlanBoard, Outcome<PlanChange>> change)
    {
        ArgumentNullException.ThrowIfNull(days);
        ArgumentNullException.ThrowIfNull(change);
        return db.InTurnAsync(() => MakeAsync(version, days, concerning, change, undoneId: null));
    }

    /// <summary>
    /// Undoes a change, once, if the days it touched are still as it left them. The undoing is a change itself: undo that to redo.
    /// </summary>
    public Task<Outcome<MadeChange>> UndoAsync(Guid changeId) => db.InTurnAsync(async () =>
    {
        if (await db.PlanChanges.AsNoTracking().SingleOrDefaultAsync(row => row.Id == changeId) is not { } log) return Stale.Gone("step");
        if (await db.PlanChanges.AnyAsync(row => row.UndoneId == changeId))
            return new Problem("undone-already", "id", "That step was undone already.");
        var inverse = log.Change.Inverse;
        var comes = inverse.Days.SelectMany(day => day.After).ToList();
        var boxes = comes.Select(item => item.BoxId).OfType<Guid>().ToList();
        if (await db.Boxes.CountAsync(row => boxes.Contains(row.Id)) != boxes.Count) return Stale.Gone("box");
        List<Guid> concerning = [.. boxes, .. comes.Select(item => item.Id)];
        return await MakeAsync(null, [.. inverse.Days.Select(day => day.Where)], concerning, _ => inverse, changeId);
    });

    private async Task<Outcome<MadeChange>> MakeAsync(
        int? version, IReadOnlyList<EaterDay> days, IReadOnlyCollection<Guid> concerning, Func<PlanBoard, Outcome<PlanChange>> change,
        Guid? undoneId)
    {
        // Batches that were read before this turn may have been packed since.
        unpacked = null;
        var eaters = days.Select(day => day.EaterId).Distinct().ToList();
        if (await db.Eaters.CountAsync(row => eaters.Contains(row.Id) && row.ArchivedAt == null) != eaters.Count) return Stale.Gone("eater");

        var board = await BoardAroundAsync(days, concerning);
        var worked = change(board.WithoutOverdue(Today, concerning));
        if (!worked.Succeeded) return worked.Problems.ToList();
        var made = OffTheDaysThatWentBy(worked.Value!, board);
        var touched = made.Days.ConvertAll(day => day.Where);
        if (version is { } seen && (await VersionsAsync(touched)).Any(day => day.Version > seen)) return Stale.Problem;
        if (touched.Select(day => KitchenDays.Refusal(day.Day, Today, "day")).FirstOrDefault(far => far is not null) is { } far) return far;
        var after = board.Apply(made);
        if (!after.Succeeded) return after.Problems.ToList();
        if (await RefusalAsync(made) is { } never) return never;

        await WriteAsync(made);
        await ledger.WriteAsync(made, await StockAsync(made.Days.SelectMany(day => day.Before.Concat(day.After))));
        var number = await db.NextVersionAsync(touched);
        var log = new PlanChangeRow { Id = Guid.CreateVersion7(), At = clock.GetUtcNow(), Change = made, UndoneId = undoneId };
        db.PlanChanges.Add(log);
        await db.SaveChangesAsync();
        var old = clock.GetUtcNow() - LogKept;
        await db.PlanChanges.Where(row => row.At < old).ExecuteDeleteAsync();
        return new MadeChange(log.Id, number, touched);
    }

    // A box that comes from the shelf and still lies on a day that went by leaves that day, in the same change.
    private PlanChange OffTheDaysThatWentBy(PlanChange change, PlanBoard board)
    {
        var comes = DayGate.Comes(change).Select(one => one.Item.BoxId).OfType<Guid>().ToHashSet();
        var without = board.WithoutOverdue(Today, comes);
        var left = board.Days.Keys.Where(day => !board[day].SequenceEqual(without[day])).ToList();
        var others = left.Where(day => !change.Days.Exists(one => one.Where == day)).Select(day => new DayChange(day, board[day], without[day]));
        return new([.. change.Days.Select(day => left.Contains(day.Where) ? day with { Before = board[day.Where] } : day), .. others]);
    }

    private async Task<List<EaterDayRow>> VersionsAsync(IReadOnlyList<EaterDay> days)
    {
        var (eaters, dates) = (days.Select(day => day.EaterId).ToHashSet(), days.Select(day => day.Day).ToHashSet());
        var rows = await db.EaterDays.AsNoTracking().Where(row => eaters.Contains(row.EaterId) && dates.Contains(row.Day)).ToListAsync();
        return rows.FindAll(row => days.Contains(new EaterDay(row.EaterId, row.Day)));
    }

    // The one gate: whoever lays it, what may not lie on a day does not come onto it.
    private async Task<Problem?> RefusalAsync(PlanChange change)
    {
        var comes = DayGate.Comes(change);
        if (comes.Count == 0) return null;
        var ids = comes.Select(one => one.Where.EaterId).Distinct().ToList();
        var eaters = await db.Eaters.AsNoTracking().Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id);
        var stock = await StockAsync(comes.Select(one => one.Item));
        var known = await foods.AllAsync();
        Problem? Refusal(EaterDay where, PlanItem item)
        {
            var eater = eaters[where.EaterId];
            return DayGate.Refusal(eater.Name, eater.Ways, where.Day, item, stock, known.Find);
        }

        return comes.Select(one => Refusal(one.Where, one.Item)).FirstOrDefault(problem => problem is not null);
    }

    /// <summary>
    /// What this household fills gaps with: what its eaters say they like, then plain foods as they were laid over the last weeks, the most
    /// often laid
    /// first, then a few to start from.
    /// </summary>
    /// <param name="likes">Amounts the eaters like.</param>
    /// <param name="known">The foods to read them against.</param>
    /// <param name="since">From which day on.</param>
    /// <param name="most">How many.</param>
    public async Task<IReadOnlyList<FillerOffer>> FillersAsync(IEnumerable<string> likes, IFoods known, DateOnly since, int most)
    {
        ArgumentNullException.ThrowIfNull(known);
        FillerOffer? Read(string text) =>
            FoodLine.Read(text, known) is { Ingredient: { Weight.Value: > 0 } food } ? new(text.Trim(), food) : null;
        var rows = await db.PlanItems.AsNoTracking()
            .Where(row => row.Day >= since && row.Text != null && row.GiveOrTake == null && !row.IsFitted)
            .Select(row => new { row.Text, row.Food }).ToListAsync();
        var laid = rows.Where(row => row.Food is { Weight.Value: > 0 }).GroupBy(row => row.Text!.Trim(), StringComparer.OrdinalIgnoreCase)
            .OrderByDescending(same => same.Count()).ThenBy(same => same.Key, StringComparer.Ordinal)
            .Select(same => new FillerOffer(same.Key, same.First().Food!.AsKnownToday(known.Find)));
        var offers = likes.Select(Read).OfType<FillerOffer>().Concat(laid)
            .DistinctBy(offer => offer.Text, StringComparer.OrdinalIgnoreCase).Take(most).ToList();
        if (offers.Count >= StartingFillers.Fewest) return offers;
        var starting = StartingFillers.Texts.Select(Read).OfType<FillerOffer>();
        return [.. offers, .. starting.ExceptBy(offers.Select(offer => offer.Text), offer => offer.Text, StringComparer.OrdinalIgnoreCase)];
    }

    /// <summary>Whether there is a box of this id.</summary>
    public Task<bool> HasBoxAsync(Guid id) => db.Boxes.AnyAsync(row => row.Id == id);

    private static PlanBoard Board(IEnumerable<PlanItemRow> rows, IFoods known) => new(rows
        .GroupBy(row => new EaterDay(row.EaterId, row.Day))
        .ToImmutableDictionary(day => day.Key, day => day.OrderBy(row => row.Position).Select(row => Read(row, known)).ToImmutableList()));

    private static PlanItem Read(PlanItemRow row, IFoods known) => new(
        row.Id, row.BoxId, row.Text, row.Food?.AsKnownToday(known.Find), row.EatenAt)
    {
        Portion = row.BatchId is { } batch ? new(batch, new Grams(row.Grams ?? 0)) : null,
        Slot = row.Slot,
        IsLocked = row.IsLocked,
        IsFitted = row.IsFitted,
        GiveOrTake = row.GiveOrTake,
    };

    // The whole days that a change can touch: those named, and those where those items, boxes or portions lie now.
    private async Task<PlanBoard> BoardAroundAsync(IReadOnlyList<EaterDay> days, IReadOnlyCollection<Guid> concerning)
    {
        var dates = days.Select(day => day.Day).ToHashSet();
        dates.UnionWith(await db.PlanItems.Where(row => concerning.Contains(row.Id)
                || (row.BoxId != null && concerning.Contains(row.BoxId.Value))
                || (row.BatchId != null && concerning.Contains(row.BatchId.Value)))
            .Select(row => row.Day).ToListAsync());
        var rows = await db.PlanItems.AsNoTracking().Where(row => dates.Contains(row.Day)).ToListAsync();
        return Board(rows, await foods.AllAsync());
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
                Write(row, item);
                (row.EaterId, row.Day, row.Position) = (day.Where.EaterId, day.Where.Day, i);
            }
        }

        db.PlanItems.RemoveRange(rows.Values.Where(row => !kept.Contains(row.Id)));
    }

    private static void Write(PlanItemRow row, PlanItem item)
    {
        // A food that is the same keeps the record of the day it was laid.
        var isSame = string.Equals(row.Food?.Food.Id, item.Food?.Food.Id, StringComparison.Ordinal);
        if (!isSame || row.Food?.Weight != item.Food?.Weight) row.Food = item.Food;
        (row.BoxId, row.Text, row.EatenAt) = (item.BoxId, item.Text, item.EatenAt);
        (row.BatchId, row.Grams) = (item.Portion?.BatchId, item.Portion?.Weight.Value);
        (row.Slot, row.IsLocked, row.IsFitted, row.GiveOrTake) = (item.Slot, item.IsLocked, item.IsFitted, item.GiveOrTake);
    }

    // Each batch is read once, however many of its boxes there are.
    private async Task<IReadOnlyList<Box>> ReadAsync(List<BoxRow> rows)
    {
        var ids = rows.Select(row => row.BatchId).Distinct().ToList();
        var known = await foods.AllAsync();
        var batchRows = await db.Batches.AsNoTracking().Where(row => ids.Contains(row.Id)).ToListAsync();
        var of = batchRows.ToDictionary(row => row.Id, row => BatchStore.Read(row, known));
        return [.. rows.Select(row => new Box(row.Id, of[row.BatchId], new Grams(row.Grams), row.Pieces))];
    }
}
