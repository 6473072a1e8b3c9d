using System.Collections.Immutable;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Keep;
using LivelyTern.Data.Pack;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>A change that was made.</summary>
/// <param name="Id">The id under which it can be undone.</param>
/// <param name="Version">Its number: the days it touched are now of this version.</param>
/// <param name="Days">The days it touched.</param>
public sealed record MadeChange(Guid Id, int Version, IReadOnlyList<EaterDay> Days);

/// <summary>Changes to days, each one transaction with all that follows from it, and the log by which they are undone.</summary>
public sealed class DayChanges(
    TernDb db, PlanStore plan, BoxStore boxes, FoodStore foods, FoodRecords records, IEatenLedger ledger, TimeProvider clock)
{
    /// <summary>How long a change can be undone.</summary>
    private static readonly TimeSpan LogKept = TimeSpan.FromDays(60);

    /// <summary>How many changes can be undone, and after how many it is looked whether there are more.</summary>
    private const int MostKept = 5_000, LookedAfter = 100;

    private const int LongestWhy = 120;

    private DateOnly Today => clock.Today();

    /// <summary>Makes a change that was worked out on the plan as it stood at a version.</summary>
    /// <param name="version">The number of the last change the user saw; null takes the days as they are (undo checks the days
    /// themselves).</param>
    /// <param name="days">The days the change may touch, besides those of the item or box concerned.</param>
    /// <param name="concerning">The items, boxes and batches it concerns; empty for a new plain food.</param>
    /// <param name="change">Works the change out.</param>
    public Task<Outcome<MadeChange>> MakeAsync(
        int? version, IReadOnlyList<EaterDay> days, IReadOnlyCollection<Guid> concerning, Func<PlanBoard, Outcome<PlanChange>> change)
    {
        ArgumentNullException.ThrowIfNull(days);
        ArgumentNullException.ThrowIfNull(change);
        return db.InTurnAsync(() => MakeAsync(version, days, concerning, change, undoneId: null));
    }

    /// <summary>Lays a box of this id that is there, or what is left of it.</summary>
    public async Task<Outcome<MadeChange>> LayBoxAsync(int version, Guid boxId, EaterDay where, int place, string? slot)
    {
        if (!await boxes.HasAsync(boxId)) return Stale.Gone("box");
        return await db.InTurnAsync(async () =>
        {
            var what = await plan.RestOfAsync(boxId) is { } rest ? LaidBox.Of(rest) : new LaidBox(boxId);
            var item = new PlanItem(Guid.CreateVersion7(), what) { Slot = slot };
            return await MakeAsync(version, [where], [boxId], board => board.Lay(item, where, place), undoneId: null);
        });
    }

    /// <summary>Marks some of a box eaten; what is left of it is on the shelf again.</summary>
    /// <param name="version">The number of the last change the user saw.</param>
    /// <param name="itemId">The box on its day.</param>
    /// <param name="part">How much of it was eaten.</param>
    public Task<Outcome<MadeChange>> EatPartAsync(int version, Guid itemId, Grams part) => db.InTurnAsync(async () =>
    {
        if (await db.PlanItems.AsNoTracking().SingleOrDefaultAsync(row => row.Id == itemId) is not { } row) return Stale.Gone("item");
        var item = (await plan.BoardAsync([row])).Days.Values.Single()[0];
        var whole = (await plan.StockAsync([item])).BoxOf(item)?.Weight ?? Grams.Zero;
        var at = clock.GetUtcNow();
        return await MakeAsync(version, [], [itemId], board => board.EatPart(itemId, part, whole, at), undoneId: null);
    });

    /// <summary>Another amount of something that lies on a day, where it stands.</summary>
    /// <param name="version">The number of the last change the user saw.</param>
    /// <param name="itemId">The thing.</param>
    /// <param name="typed">The amount as typed: see <see cref="TypedAmount"/>.</param>
    /// <param name="allOfIt">Whether all of that eater's portions of the batch get that size.</param>
    /// <param name="read">Reads a whole line, as an amount of the food of an id where one is given.</param>
    public Task<Outcome<MadeChange>> AmendAsync(
        int version, Guid itemId, string typed, bool allOfIt, Func<string, string?, FoodLine> read) => db.InTurnAsync(async () =>
    {
        if (await db.PlanItems.AsNoTracking().SingleOrDefaultAsync(row => row.Id == itemId) is not { } row) return Stale.Gone("item");
        if ((await plan.BoardAsync([row])).Days.Values.SingleOrDefault()?[0] is not { } item) return Stale.Gone("item");
        var stock = await plan.StockAsync([item]);
        if (!stock.Has(item)) return Stale.Gone("item");
        var whole = item.BoxId is { } id ? stock.Boxes[id] : stock.BoxOf(item);
        var amount = TypedAmount.Of(item.What, whole, typed, read);
        if (amount.Value is not { } what) return amount.Problems.ToList();
        return await MakeAsync(version, [], [itemId, row.BatchId ?? itemId], board => what is Portion portion && allOfIt
            ? board.Size(row.EaterId, portion.BatchId, portion.Weight)
            : board.Amend(itemId, what), undoneId: null);
    });

    /// <summary>A box that is there is given away or thrown away: it leaves its day, if it lies on one, and the shelf.</summary>
    /// <param name="version">The number of the last change the user saw.</param>
    /// <param name="boxId">The box.</param>
    /// <param name="kind">Given away or thrown away.</param>
    public Task<Outcome<MadeChange>> LetGoAsync(int version, Guid boxId, BoxEventKind kind) => LetGoAsync(version, [boxId], kind, null);

    /// <summary>Boxes that are there are given away or thrown away: they leave their days, and the shelf.</summary>
    /// <param name="version">The number of the last change the user saw.</param>
    /// <param name="boxIds">The boxes.</param>
    /// <param name="kind">Given away or thrown away.</param>
    /// <param name="why">Why, in a few words; null where nobody says so.</param>
    public Task<Outcome<MadeChange>> LetGoAsync(int version, IReadOnlyList<Guid> boxIds, BoxEventKind kind, string? why) =>
        db.InTurnAsync(async () =>
        {
            if (why?.Length > LongestWhy) return new Problem("why-long", "why", "Say why in a few words.");
            var there = await ThereAsync(boxIds);
            if (!there.Succeeded) return there.Problems.ToList();
            var state = kind == BoxEventKind.ThrownAway ? BoxState.ThrownAway : BoxState.GivenAway;
            var gone = there.Value!.Select(row => new BoxChange(row.Id, kind, row.Life, row.Life with { State = state }) { Why = why });
            return await MakeAsync(version, [], boxIds, board => board.LetGo([.. gone]), undoneId: null);
        });

    /// <summary>What is left in boxes is eaten, all of it, by one eater on one day, wherever it lay before.</summary>
    /// <param name="version">The number of the last change the user saw.</param>
    /// <param name="boxIds">The boxes.</param>
    /// <param name="where">Whose day.</param>
    /// <param name="slot">The slot of that day; null for none.</param>
    public Task<Outcome<MadeChange>> EatBoxesAsync(int version, IReadOnlyList<Guid> boxIds, EaterDay where, string? slot) =>
        db.InTurnAsync(async () =>
        {
            var there = await ThereAsync(boxIds);
            if (!there.Succeeded) return there.Problems.ToList();
            var rests = (await plan.UneatenAsync(boxIds)).ToDictionary(box => box.Id);
            var at = clock.GetUtcNow();
            Outcome<PlanChange> Eat(PlanBoard board)
            {
                var laid = board.Days.Values.SelectMany(items => items)
                    .Where(item => item is { BoxId: { } id, EatenAt: null } && rests.ContainsKey(id));
                var off = laid.Select<PlanItem, Func<PlanBoard, Outcome<PlanChange>>>(item => on => on.TakeOff(item.Id));
                var eaten = boxIds.Distinct().Select(id => new PlanItem(Guid.CreateVersion7(), LaidBox.Of(rests[id]), at) { Slot = slot });
                var on = eaten.Select<PlanItem, Func<PlanBoard, Outcome<PlanChange>>>(item => now => now.Lay(item, where, int.MaxValue));
                return board.InOne(off.Concat(on));
            }

            return await MakeAsync(version, [where], boxIds, Eat, undoneId: null);
        });

    private async Task<Outcome<IReadOnlyList<BoxRow>>> ThereAsync(IReadOnlyList<Guid> boxIds)
    {
        if (boxIds.Count is 0 or > PutBoxes.Most) return PutBoxes.TooMany;
        var rows = await db.Boxes.Where(box => boxIds.Contains(box.Id) && box.State != BoxState.EmptiedBack).ToListAsync();
        if (rows.Count != boxIds.Distinct().Count()) return Stale.Gone("box");
        return rows.TrueForAll(row => row.Life.IsThere)
            ? rows
            : new Problem("box-gone", "boxId", "That box is eaten or gone already.");
    }

    /// <summary>A box that lies on a day goes into the freezer instead, to be eaten another day.</summary>
    /// <param name="version">The number of the last change the user saw.</param>
    /// <param name="itemId">The box on its day.</param>
    public Task<Outcome<MadeChange>> FreezeAsync(int version, Guid itemId) => db.InTurnAsync(async () =>
    {
        var item = await db.PlanItems.AsNoTracking().SingleOrDefaultAsync(row => row.Id == itemId && row.BoxId != null);
        if (item is null || await db.Boxes.SingleOrDefaultAsync(box => box.Id == item.BoxId) is not { } box) return Stale.Gone("box");
        // Off its day it is nobody's: said here, so that the change can be undone as a whole.
        var frozen = new BoxChange(box.Id, BoxEventKind.Put, box.Life, box.Life.Put(BoxPlace.Freezer, Today) with { For = null });
        Outcome<PlanChange> Change(PlanBoard board)
        {
            var off = board.TakeOff(itemId);
            return off.Succeeded && frozen.Before != frozen.After ? off.Value! with { Boxes = [frozen] } : off;
        }

        return await MakeAsync(version, [], [itemId, box.Id], Change, undoneId: null);
    });

    /// <summary>
    /// Undoes a change, once, if the days it touched are still as it left them. The undoing is a change itself: undo that to redo.
    /// </summary>
    public Task<Outcome<MadeChange>> UndoAsync(Guid changeId) => db.InTurnAsync(async () =>
    {
        if (await db.PlanChanges.AsNoTracking().SingleOrDefaultAsync(row => row.Id == changeId) is not { } log) return Stale.Gone("step");
        if (await db.PlanChanges.AnyAsync(row => row.UndoneId == changeId))
            return new Problem("undone-already", "id", "That step was undone already.");
        var laid = log.Change.Days.SelectMany(day => day.Before).Select(item => item.BoxId).OfType<Guid>().ToList();
        if (!await boxes.HasAllAsync(laid)) return Stale.Gone("box");
        var read = await ReadAsync(log.Change);
        if (read.Value?.Inverse is not { } inverse) return read.Problems.ToList();
        var comes = inverse.Days.SelectMany(day => day.After).ToList();
        List<Guid> concerning = [.. comes.Select(item => item.BoxId).OfType<Guid>(), .. comes.Select(item => item.Id)];
        return await MakeAsync(null, [.. inverse.Days.Select(day => day.Where)], concerning, _ => inverse, changeId);
    });

    private async Task<Outcome<MadeChange>> MakeAsync(
        int? version, IReadOnlyList<EaterDay> days, IReadOnlyCollection<Guid> concerning, Func<PlanBoard, Outcome<PlanChange>> change,
        Guid? undoneId)
    {
        plan.Forget();
        var eaters = days.Select(day => day.EaterId).Distinct().ToList();
        if (eaters.Count > 0 && await db.Eaters.CountAsync(row => eaters.Contains(row.Id) && row.ArchivedAt == null) != eaters.Count)
            return Stale.Gone("eater");

        var board = await BoardAroundAsync(days, concerning);
        var worked = change(board.WithoutOverdue(Today, concerning));
        if (!worked.Succeeded) return worked.Problems.ToList();
        var made = OffTheDaysThatWentBy(worked.Value!, board);
        var touched = made.Days.ConvertAll(day => day.Where);
        if (version is { } seen && (await VersionsAsync(touched)).Any(day => day.Version > seen)) return Stale.Problem;
        if (touched.Select(day => KitchenDays.Refusal(day.Day, Today, "day")).FirstOrDefault(far => far is not null) is { } far) return far;
        if ((DayGate.EatenAhead(made, Today) ?? DayGate.TooFull(made)) is { } refused) return refused;
        var after = board.Apply(made);
        if (!after.Succeeded) return after.Problems.ToList();

        var stock = await plan.StockAsync(made.Days.SelectMany(day => day.Before.Concat(day.After)));
        var happens = await WhatHappensAsync(made, after.Value!, stock);
        if (!happens.Succeeded) return happens.Problems.ToList();
        if (await RefusalAsync(made, stock) is { } never) return never;

        await WriteAsync(made);
        foreach (var (row, what) in happens.Value!) boxes.Happened(row, what.Kind, what.After, what.After.IsThere ? null : what.Why);
        await ledger.WriteAsync(made, stock);
        var number = await db.NextVersionAsync(touched);
        var log = new PlanChangeRow
        {
            Id = Guid.CreateVersion7(),
            At = clock.GetUtcNow(),
            Change = await StoreAsync(made),
            UndoneId = undoneId,
        };
        db.PlanChanges.Add(log);
        await db.SaveChangesAsync();
        await ForgetOldAsync(number);
        return new MadeChange(log.Id, number, touched);
    }

    private async Task ForgetOldAsync(int number)
    {
        var old = clock.GetUtcNow() - LogKept;
        await db.PlanChanges.Where(row => row.At < old).ExecuteDeleteAsync();
        if (number % LookedAfter != 0) return;
        var first = await db.PlanChanges.OrderByDescending(row => row.At).Skip(MostKept).Select(row => (DateTimeOffset?)row.At)
            .FirstOrDefaultAsync();
        if (first is not null) await db.PlanChanges.Where(row => row.At <= first).ExecuteDeleteAsync();
    }

    // A box that comes from the shelf and still lies on a day that went by leaves that day, in the same change.
    private PlanChange OffTheDaysThatWentBy(PlanChange change, PlanBoard board)
    {
        var comes = DayGate.Comes(change).Select(one => one.Item.BoxId).OfType<Guid>().ToHashSet();
        var without = board.WithoutOverdue(Today, comes);
        var left = board.Days.Keys.Where(day => !board[day].SequenceEqual(without[day])).ToList();
        var others = left.Where(day => !change.Days.Exists(one => one.Where == day))
            .Select(day => new DayChange(day, board[day], without[day]));
        var days = change.Days.Select(day => left.Contains(day.Where) ? day with { Before = board[day.Where] } : day);
        return change with { Days = [.. days, .. others] };
    }

    private async Task<List<EaterDayRow>> VersionsAsync(IReadOnlyList<EaterDay> days)
    {
        var (eaters, dates) = (days.Select(day => day.EaterId).ToHashSet(), days.Select(day => day.Day).ToHashSet());
        var rows = await db.EaterDays.AsNoTracking().Where(row => eaters.Contains(row.EaterId) && dates.Contains(row.Day)).ToListAsync();
        return rows.FindAll(row => days.Contains(new EaterDay(row.EaterId, row.Day)));
    }

    // What a change makes of boxes, each with its row; refused where one no longer stands as the change found it.
    private async Task<Outcome<IReadOnlyList<(BoxRow Row, BoxChange What)>>> WhatHappensAsync(
        PlanChange change, PlanBoard after, Stock stock)
    {
        var laid = change.Days.SelectMany(day => day.Before.Concat(day.After)).Select(item => item.BoxId).OfType<Guid>();
        var ids = laid.Concat(change.Boxes.Select(box => box.BoxId)).Distinct().ToList();
        var rows = await db.Boxes.Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id);
        if (change.Boxes.Exists(box => !rows.TryGetValue(box.BoxId, out var row) || row.Life != box.Before))
            return new Problem("plan-moved-on", "change", "That box has changed since: look at it as it is now and try again.");
        if (BoxesOnDays.NotEatenAfterAll(change).Any(id => rows[id].State is BoxState.GivenAway or BoxState.ThrownAway))
            return new Problem("box-gone", "itemId", "The rest of that box was given or thrown away: take that back first.");

        // Of those that lie in parts, also the days that are not before us.
        var here = after.Days.Keys.Select(day => day.Day).Concat(change.Days.Select(day => day.Where.Day)).ToHashSet();
        var elsewhere = await db.PlanItems.AsNoTracking()
            .Where(item => item.BoxId != null && ids.Contains(item.BoxId.Value) && !here.Contains(item.Day)).ToListAsync();
        var places = BoxOnDay.On(after.Days).Concat(elsewhere.Select(item =>
            new BoxOnDay(item.BoxId!.Value, item.EaterId, Milligrams.ToGrams(item.Milligrams), item.EatenAt is not null)));
        var weighed = rows.ToDictionary(row => row.Key, row => (WeightOf(row.Value, stock), row.Value.Life));
        var follows = BoxesOnDays.Follow(weighed, change.Boxes, places);
        return follows.Succeeded
            ? follows.Value!.Select(box => (rows[box.BoxId], box)).ToList()
            : follows.Problems.ToList();
    }

    private static Grams WeightOf(BoxRow row, Stock stock) =>
        stock.Boxes.TryGetValue(row.Id, out var box) ? box.Weight : Milligrams.ToGrams(row.Parts.Sum(part => part.Milligrams));

    // The one gate: whoever lays it, what may not lie on a day does not come onto it.
    private async Task<Problem?> RefusalAsync(PlanChange change, Stock before)
    {
        var comes = DayGate.Comes(change);
        if (comes.Count == 0) return null;
        var ids = comes.Select(one => one.Where.EaterId).Distinct().ToList();
        var eaters = await db.Eaters.AsNoTracking().Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id);
        var known = await foods.AllAsync();
        var back = change.Boxes.ToDictionary(box => box.BoxId, box => box.After);
        Box AsPutBack(Box box) => back.TryGetValue(box.Id, out var life) ? box with { Life = life } : box;
        var stock = before with { Boxes = before.Boxes.Values.ToDictionary(box => box.Id, AsPutBack) };
        Problem? Refusal(EaterDay where, PlanItem item)
        {
            var eater = eaters[where.EaterId];
            return DayGate.Refusal(eater.Name, eater.Ways, where.Day, item, stock, known.Find);
        }

        return comes.Select(one => Refusal(one.Where, one.Item)).FirstOrDefault(problem => problem is not null);
    }

    // The whole days that a change can touch: those named, and those where those items, boxes or portions lie now.
    private async Task<PlanBoard> BoardAroundAsync(IReadOnlyList<EaterDay> days, IReadOnlyCollection<Guid> concerning)
    {
        var dates = days.Select(day => day.Day).ToHashSet();
        dates.UnionWith(await db.PlanItems.Where(row => concerning.Contains(row.Id)
                || (row.BoxId != null && concerning.Contains(row.BoxId.Value))
                || (row.BatchId != null && concerning.Contains(row.BatchId.Value)))
            .Select(row => row.Day).ToListAsync());
        var rows = await db.PlanItems.AsNoTracking().Where(row => dates.Contains(row.Day)).ToListAsync();
        return await plan.BoardAsync(rows);
    }

    private async Task WriteAsync(PlanChange change)
    {
        var ids = change.Days.SelectMany(day => day.Before.Concat(day.After)).Select(item => item.Id).ToHashSet();
        var rows = await db.PlanItems.Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id);
        var before = await plan.BoardAsync([.. rows.Values]);
        var was = before.Days.Values.SelectMany(items => items).ToDictionary(item => item.Id);
        var kept = new HashSet<Guid>();
        foreach (var day in change.Days)
        {
            for (var i = 0; i < day.After.Count; i++)
            {
                var item = day.After[i];
                kept.Add(item.Id);
                if (!rows.TryGetValue(item.Id, out var row)) db.PlanItems.Add(row = new PlanItemRow { Id = item.Id });
                await WriteAsync(row, item, was.GetValueOrDefault(item.Id));
                (row.EaterId, row.Day, row.Position) = (day.Where.EaterId, day.Where.Day, i);
            }
        }

        db.PlanItems.RemoveRange(rows.Values.Where(row => !kept.Contains(row.Id)));
    }

    private async Task WriteAsync(PlanItemRow row, PlanItem item, PlanItem? was)
    {
        // A food that is the same keeps the record of the day it was laid.
        if (was?.What.HoldsTheSame(item.What) != true)
        {
            row.FoodRecordId = item.Food is { } food ? (await records.KeepAsync([food.Food]))[0] : null;
            (row.FoodGrams, row.FoodIsTrace) = (item.Food?.Weight.Value, item.Food?.IsTrace == true);
        }

        (row.BoxId, row.Text, row.EatenAt) = (item.BoxId, item.Text, item.EatenAt);
        (row.BatchId, row.Milligrams) = (item.Portion?.BatchId, Milligrams.Of(item.Portion?.Weight ?? item.PartOfBox));
        (row.Slot, row.IsLocked, row.IsFitted, row.GiveOrTake) = (item.Slot, item.IsLocked, item.IsFitted, item.GiveOrTake);
        (row.IsForGuests, row.HoldMeasure, row.HoldAmount) = (item.IsForGuests, item.Hold?.Measure, item.Hold?.Amount);
    }

    private async Task<StoredPlanChange> StoreAsync(PlanChange change)
    {
        var differences = change.Days.ConvertAll(DayDifference.Of);
        var laid = differences.SelectMany(day => day.Went.Concat(day.Came)).Select(one => one.Item.Food?.Food).OfType<Food>();
        var all = laid.Distinct<Food>(ReferenceEqualityComparer.Instance).ToList();
        var ids = new Dictionary<Food, long>(ReferenceEqualityComparer.Instance);
        foreach (var (food, id) in all.Zip(await records.KeepAsync(all))) ids[food] = id;
        StoredPlanItem Item(PlanItem item) => new(
            item.Id, item.BoxId, item.Portion is { } portion ? new(portion.BatchId, Milligrams.Of(portion.Weight)) : null,
            item.Food is { } food ? new(item.Text, ids[food.Food], food.Weight.Value, food.IsTrace, item.GiveOrTake) : null,
            item.EatenAt, item.Slot, item.IsLocked, item.IsFitted, Milligrams.Of(item.PartOfBox), item.IsForGuests,
            item.Hold is { } hold ? new(hold.Measure, hold.Amount) : null);
        List<StoredPlanItem> Items(ImmutableList<PlacedItem> placed) => [.. placed.Select(one => Item(one.Item))];
        List<int> Places(ImmutableList<PlacedItem> placed) => [.. placed.Select(one => one.Place)];
        StoredDayChange Day(DayDifference day) => new(
            day.Where.EaterId, day.Where.Day, Items(day.Went), Items(day.Came), new(Places(day.Went), Places(day.Came), day.Mark));
        StoredBoxChange Box(BoxChange box) =>
            new(box.BoxId, box.Kind, StoredBoxLife.Of(box.Before), StoredBoxLife.Of(box.After), box.Why);
        return new(StoredPlanChange.Shape, [.. differences.Select(Day)], [.. change.Boxes.Select(Box)]);
    }

    // The whole change, from what is kept of it and its days as they lie there now; a problem where those are not as it left them.
    private async Task<Outcome<PlanChange>> ReadAsync(StoredPlanChange change)
    {
        var stored = await records.ReadAsync(change.Items.Select(item => item.Food?.Record).OfType<long>());
        PlanItem Item(StoredPlanItem item)
        {
            var food = item.Food is { } laid ? new Ingredient(stored[laid.Record], new(laid.Grams), laid.IsTrace) : null;
            var what = LaidThings.Read(
                item.BoxId, item.Portion?.BatchId, item.Portion?.Milligrams ?? item.PartMilligrams, item.Food?.Text, food,
                item.Food?.GiveOrTake, item.Hold is { } hold ? new Hold(hold.Measure, hold.Amount) : null);
            return new(item.Id, what, item.EatenAt)
            {
                Slot = item.Slot,
                IsLocked = item.IsLocked,
                IsFitted = item.IsFitted,
                IsForGuests = item.IsForGuests,
            };
        }

        ImmutableList<PlacedItem> Placed(IReadOnlyList<int> places, IReadOnlyList<StoredPlanItem> items) =>
            [.. places.Zip(items, (place, item) => new PlacedItem(place, Item(item)))];
        var now = await BoardAroundAsync([.. change.Days.Select(day => new EaterDay(day.EaterId, day.Day))], []);
        Outcome<DayChange> Day(StoredDayChange day)
        {
            var where = new EaterDay(day.EaterId, day.Day);
            return day.Rest is not { } rest
                ? new DayChange(where, [.. day.Before.Select(Item)], [.. day.After.Select(Item)])
                : new DayDifference(where, Placed(rest.Before, day.Before), Placed(rest.After, day.After), rest.Mark).On(now[where]);
        }

        var days = change.Days.Select(Day).ToList();
        var gone = days.SelectMany(day => day.Problems).ToList();
        return gone.Count > 0
            ? gone
            : new PlanChange([.. days.Select(day => day.Value!)]) { Boxes = [.. change.Boxes.Select(Read)] };
    }

    private static BoxChange Read(StoredBoxChange box) =>
        new(box.BoxId, box.Kind, box.Before.ToLife(), box.After.ToLife()) { Why = box.Why };
}
