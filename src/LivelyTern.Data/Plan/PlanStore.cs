using System.Collections.Immutable;
using System.Linq.Expressions;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Keep;
using LivelyTern.Data.Pack;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>What a kitchen holds, in numbers.</summary>
/// <param name="Recipes">Recipes on the list.</param>
/// <param name="BatchesWaiting">Batches cooked and not in boxes.</param>
/// <param name="BatchesDue">Batches planned for today or before it and not cooked yet.</param>
/// <param name="NextPrepDay">The first day after today for which others are planned; null where none is.</param>
/// <param name="ShelfBoxes">Boxes that are there and lie on no day ahead.</param>
public sealed record KitchenCounts(int Recipes, int BatchesWaiting, int BatchesDue, DateOnly? NextPrepDay, int ShelfBoxes);

/// <summary>A box that is there.</summary>
/// <param name="Box">What of it is not eaten.</param>
/// <param name="Number">Its place in its batch's row of boxes, from 1.</param>
/// <param name="Version">Its version.</param>
/// <param name="Laid">Where it lies from today on, in the order of days.</param>
/// <param name="WasLookedAt">Whether somebody looked after it when it was past its last day, and left it.</param>
public sealed record BoxThere(Box Box, int Number, int Version, IReadOnlyList<BoxLaid> Laid, bool WasLookedAt);

/// <summary>What lies on which day, what it is made of, and what could be laid.</summary>
public sealed class PlanStore(
    TernDb db, BatchReader batches, BoxStore boxes, BoxPartsCache parts, KeepingStore keeping, FoodStore foods, FoodRecords records,
    TimeProvider clock)
{
    private const int MostAtOnce = 5_000;

    private IReadOnlyList<Batch>? unpacked;

    private KeepingRules? rules;

    private DateOnly Today => clock.Today();

    /// <summary>The rules that boxes are kept by.</summary>
    public async Task<KeepingRules> RulesAsync() => rules ??= (await keeping.RulesAsync()).Rules;

    /// <summary>The number of the last change to the plan.</summary>
    public async Task<int> VersionAsync() => (await db.PlanVersions.AsNoTracking().SingleAsync()).Version;

    /// <summary>The plan of some days, for every eater.</summary>
    public Task<PlanBoard> BoardAsync(DateOnly from, DateOnly to) => BoardAsync(row => row.Day >= from && row.Day <= to);

    /// <summary>The plan of some days, for one eater.</summary>
    public Task<PlanBoard> BoardAsync(Guid eaterId, DateOnly from, DateOnly to) =>
        BoardAsync(row => row.EaterId == eaterId && row.Day >= from && row.Day <= to);

    /// <summary>The plain foods and the meals out that an eater had on some days.</summary>
    public async Task<PlanBoard> PlainAsync(Guid eaterId, DateOnly from, DateOnly to) => await BoardAsync(
        await db.PlanItems.AsNoTracking()
            .Where(row => row.EaterId == eaterId && row.Day >= from && row.Day <= to && row.EatenAt != null && row.FoodRecordId != null)
            .ToListAsync());

    private async Task<PlanBoard> BoardAsync(Expression<Func<PlanItemRow, bool>> which)
    {
        // A portion of a batch that is in its boxes is on no board: it is named elsewhere.
        var shown = db.PlanItems.AsNoTracking().Where(which).Where(row => row.BatchId == null || db.Batches.Any(
            batch => batch.Id == row.BatchId && batch.State != BatchState.Packed && batch.State != BatchState.Discarded));
        return await BoardAsync(await shown.ToListAsync());
    }

    /// <summary>Portions that are stored of a batch that is in its boxes, which no command here leaves behind: they are on no board, and
    /// are named.</summary>
    public async Task<IReadOnlyList<(EaterDay Where, string Name)>> LeftOutAsync(DateOnly from, DateOnly to)
    {
        var odd =
            from row in db.PlanItems.AsNoTracking()
            where row.Day >= @from && row.Day <= to
            join batch in db.Batches on row.BatchId equals batch.Id
            where batch.State == BatchState.Packed || batch.State == BatchState.Discarded
            select new { row.EaterId, row.Day, batch.RecipeName };
        return [.. (await odd.ToListAsync()).Select(one => (new EaterDay(one.EaterId, one.Day), one.RecipeName))];
    }

    /// <summary>What these items are made of: their boxes, and the batches of their portions.</summary>
    public async Task<Stock> StockAsync(IEnumerable<PlanItem> items)
    {
        var all = items.ToList();
        var ids = all.Select(item => item.BoxId).OfType<Guid>().Distinct().ToList();
        var rows = ids.Count == 0
            ? []
            : await db.Boxes.AsNoTracking().Where(row => ids.Contains(row.Id) && row.State != BoxState.EmptiedBack).ToListAsync();
        var portions = all.Select(item => item.Portion?.BatchId).OfType<Guid>().Distinct().ToList();
        var known = unpacked?.Where(batch => portions.Contains(batch.Id))
            .ToDictionary(batch => batch.Id) ?? await batches.ByIdAsync(portions);
        var notPacked = known.Where(batch => batch.Value.State is not (BatchState.Packed or BatchState.Discarded)).ToDictionary();
        return new((await boxes.ReadAsync(rows)).ToDictionary(box => box.Id), notPacked) { Rules = await RulesAsync() };
    }

    /// <summary>What everything on a plan is made of.</summary>
    public Task<Stock> StockAsync(PlanBoard board)
    {
        ArgumentNullException.ThrowIfNull(board);
        return StockAsync(board.Days.Values.SelectMany(items => items));
    }

    /// <summary>Says that batches that were read before this may have been packed since.</summary>
    internal void Forget() => unpacked = null;

    /// <summary>The batches that are not packed yet, with what lies of them on days; those to be cooked first come first.</summary>
    public async Task<IReadOnlyList<UnpackedBatch>> UnpackedAsync()
    {
        var known = unpacked ??= await batches.UnpackedAsync();
        if (known.Count == 0) return [];
        var portions = await db.PlanItems.AsNoTracking().Where(row => row.BatchId != null)
            .Select(row => new { row.BatchId, row.EaterId, row.Day, row.Milligrams, row.IsForGuests }).ToListAsync();
        var laid = portions.ToLookup(row => row.BatchId!.Value);
        Dictionary<Guid, Grams> Sizes(Guid batchId) => laid[batchId].Where(row => !row.IsForGuests).GroupBy(row => row.EaterId)
            .ToDictionary(own => own.Key, own => Milligrams.ToGrams(own.OrderBy(row => row.Day).Last().Milligrams ?? 0));
        Grams Laid(Guid batchId) => Milligrams.ToGrams(laid[batchId].Sum(row => row.Milligrams ?? 0));
        var inDishes = await batches.InDishesAsync(known.Select(batch => batch.Id));
        Grams InDishes(Batch batch)
        {
            var (packed, asked) = inDishes[batch.Id];
            return PutTogether.TakenOf(batch.Weight, packed, asked);
        }

        var inOrder = known.OrderBy(batch => batch.CookedOn).ThenBy(batch => batch.Id);
        return
        [
            .. inOrder.Select(batch => new UnpackedBatch(batch, Laid(batch.Id), Sizes(batch.Id)) { InDishes = InDishes(batch) }),
        ];
    }

    /// <summary>The versions of these batches.</summary>
    public async Task<Dictionary<Guid, int>> BatchVersionsAsync(IReadOnlyCollection<Guid> ids) =>
        await db.Batches.AsNoTracking().Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id, row => row.Version);

    /// <summary>
    /// The boxes that are there and lie on no day, or on one that went by without their being eaten; oldest batch first.
    /// </summary>
    public async Task<IReadOnlyList<Box>> ShelfAsync()
    {
        return await RestOfAsync(await OnShelf().ToListAsync());
    }

    /// <summary>Of those the ones that the program lays by itself: none that is past its last day.</summary>
    public async Task<IReadOnlyList<Box>> OfferedAsync()
    {
        var keptBy = await RulesAsync();
        return [.. (await ShelfAsync()).Where(box => !UseBy.Of(box, Today, keptBy).IsOver(Today))];
    }

    /// <summary>A box that is on the shelf, or what of it is; null where it is not.</summary>
    public async Task<Box?> RestOfAsync(Guid boxId)
    {
        var rows = await OnShelf().Where(row => row.Id == boxId).ToListAsync();
        return (await RestOfAsync(rows)).SingleOrDefault();
    }

    private async Task<IReadOnlyList<Box>> RestOfAsync(List<BoxRow> rows)
    {
        var ids = rows.ConvertAll(row => row.Id);
        return await LessAsync(rows, await Taken().Where(item => ids.Contains(item.BoxId!.Value)).ToListAsync());
    }

    /// <summary>What the kitchen holds in numbers, in one question to the file.</summary>
    public Task<KitchenCounts> CountAsync()
    {
        var (today, shelf) = (Today, OnShelf());
        var planned = db.Batches.Where(row => row.State == BatchState.Planned);
        return db.PlanVersions.AsNoTracking().Select(_ => new KitchenCounts(
            db.Recipes.Count(row => row.ArchivedAt == null),
            db.Batches.Count(row => row.State == BatchState.Cooking || row.State == BatchState.Cooked),
            planned.Count(row => row.CookedOn <= today),
            planned.Where(row => row.CookedOn > today).Min(row => (DateOnly?)row.CookedOn),
            shelf.Count())).SingleAsync();
    }

    /// <summary>Boxes that are there, each as what of it is not eaten.</summary>
    public async Task<IReadOnlyList<Box>> UneatenAsync(IReadOnlyCollection<Guid> ids)
    {
        var rows = await There().AsNoTracking().Where(row => ids.Contains(row.Id)).ToListAsync();
        var eaten = db.PlanItems.AsNoTracking().Where(item => item.BoxId != null && ids.Contains(item.BoxId.Value) && item.EatenAt != null);
        return await LessAsync(rows, await eaten.ToListAsync());
    }

    /// <summary>
    /// All boxes that are there, laid on days or not, each as what of it is not eaten, with where that lies from today on; oldest first.
    /// </summary>
    public async Task<IReadOnlyList<BoxThere>> ThereAsync()
    {
        // What is in them comes by itself: joined to thousands of boxes it takes twice as long.
        var rows = await There().AsNoTracking().IgnoreAutoIncludes().ToListAsync();
        if (rows.Count == 0) return [];
        var there = There().Select(row => row.Id);
        await WithPartsAsync(rows);
        var items = await db.PlanItems.AsNoTracking().Where(item => item.BoxId != null && there.Contains(item.BoxId.Value)).ToListAsync();
        var today = Today;
        var laid = items.Where(item => item.EatenAt is null && item.Day >= today).OrderBy(item => item.Day)
            .ToLookup(item => item.BoxId!.Value, item => new BoxLaid(new(item.EaterId, item.Day), item.Id));
        var seen = await db.BoxEvents.AsNoTracking().Where(one => one.Kind == BoxEventKind.StillThere && there.Contains(one.BoxId))
            .Select(one => one.BoxId).ToListAsync();
        var looked = seen.ToHashSet();
        var uneaten = await LessAsync(rows, items.FindAll(item => item.EatenAt is not null));
        BoxThere Show(Box box, BoxRow row) => new(box, row.Number, row.Version, [.. laid[row.Id]], looked.Contains(row.Id));
        return
        [
            .. uneaten.Zip(rows, Show)
                .OrderBy(one => one.Box.Batch.CookedOn).ThenBy(one => one.Box.Batch.Id).ThenBy(one => one.Number),
        ];
    }

    private async Task WithPartsAsync(List<BoxRow> rows)
    {
        var unread = parts.Fill(rows);
        foreach (var some in unread.Chunk(MostAtOnce))
        {
            var ids = some.Select(row => row.Id).ToList();
            var own = (await db.Set<BoxPartRow>().AsNoTracking().Where(part => ids.Contains(part.BoxId)).ToListAsync())
                .ToLookup(part => part.BoxId);
            var putIn = (await db.Set<BoxPutInRow>().AsNoTracking().Where(part => ids.Contains(part.BoxId)).ToListAsync())
                .ToLookup(part => part.BoxId);
            foreach (var row in some) (row.Parts, row.PutIn) = ([.. own[row.Id]], [.. putIn[row.Id]]);
        }

        // What a command has written and may yet take back is not remembered.
        if (db.Database.CurrentTransaction is null || db.IsReading) parts.Remember(unread);
    }

    private IQueryable<BoxRow> There() => db.Boxes.Where(row => row.State == BoxState.Packed || row.State == BoxState.PartEaten);

    private async Task<IReadOnlyList<Box>> LessAsync(List<BoxRow> rows, IReadOnlyList<PlanItemRow> taken)
    {
        var byBox = taken.ToLookup(item => item.BoxId!.Value);
        Box Rest(Box box)
        {
            var gone = Milligrams.ToGrams(byBox[box.Id].Sum(item => item.Milligrams ?? 0));
            return gone > Grams.Zero ? box.Of(box.Weight - gone) : box;
        }

        return [.. (await boxes.ReadAsync(rows)).Select(Rest)];
    }

    // What of a box is not on the shelf: eaten, or laid on a day from today on.
    private IQueryable<PlanItemRow> Taken()
    {
        var today = Today;
        return db.PlanItems.AsNoTracking().Where(item => item.BoxId != null && (item.EatenAt != null || item.Day >= today));
    }

    private IQueryable<BoxRow> OnShelf()
    {
        var taken = Taken();
        return db.Boxes.AsNoTracking()
            .Where(row => row.State == BoxState.Packed || row.State == BoxState.PartEaten)
            .Where(row => !taken.Any(item => item.BoxId == row.Id && item.Milligrams == null))
            .Where(row => taken.Where(item => item.BoxId == row.Id).Sum(item => item.Milligrams ?? 0)
                < row.Parts.Sum(part => part.Milligrams))
            .OrderBy(row => row.Batch.CookedOn).ThenBy(row => row.BatchId).ThenBy(row => row.Number);
    }

    /// <summary>
    /// What this household fills gaps with: what its eaters say they like, then plain foods as they were laid over the last weeks, the most
    /// often laid first, then a few to start from.
    /// </summary>
    /// <param name="likes">Amounts the eaters like.</param>
    /// <param name="known">The foods to read them against.</param>
    /// <param name="since">From which day on.</param>
    /// <param name="most">How many.</param>
    public async Task<IReadOnlyList<FillerOffer>> FillersAsync(IEnumerable<string> likes, IFoods known, DateOnly since, int most)
    {
        ArgumentNullException.ThrowIfNull(known);
        FillerOffer? Read(string text) =>
            FoodLine.Read(text, known) is { Ingredient: { Weight.Value: > 0, IsTrace: false } food } ? new(text.Trim(), food) : null;
        var rows = await db.PlanItems.AsNoTracking()
            .Where(row => row.Day >= since && row.Text != null && row.GiveOrTake == null && !row.IsFitted)
            .Select(row => new { row.Text, row.FoodRecordId, row.FoodGrams }).ToListAsync();
        var often = rows.Where(row => row is { FoodRecordId: not null, FoodGrams: > 0 })
            .GroupBy(row => row.Text!.Trim(), StringComparer.OrdinalIgnoreCase)
            .OrderByDescending(same => same.Count()).ThenBy(same => same.Key, StringComparer.Ordinal).Take(most).ToList();
        var stored = await records.ReadAsync(often.Select(same => same.First().FoodRecordId!.Value));
        FillerOffer Laid(string text, long record, decimal grams) =>
            new(text, new Ingredient(stored[record], new(grams)).AsKnownToday(known.Find));
        var laid = often.Select(same => Laid(same.Key, same.First().FoodRecordId!.Value, same.First().FoodGrams!.Value));
        var offers = likes.Select(Read).OfType<FillerOffer>().Concat(laid)
            .DistinctBy(offer => offer.Text, StringComparer.OrdinalIgnoreCase).Take(most).ToList();
        if (offers.Count >= StartingFillers.Fewest) return offers;
        var starting = StartingFillers.Texts.Select(Read).OfType<FillerOffer>();
        return [.. offers, .. starting.ExceptBy(offers.Select(offer => offer.Text), offer => offer.Text, StringComparer.OrdinalIgnoreCase)];
    }

    /// <summary>Rows of days as the core knows them.</summary>
    internal async Task<PlanBoard> BoardAsync(IReadOnlyList<PlanItemRow> rows)
    {
        var known = await foods.AllAsync();
        var stored = await records.ReadAsync(rows.Select(row => row.FoodRecordId).OfType<long>());
        return new(rows.GroupBy(row => new EaterDay(row.EaterId, row.Day)).ToImmutableDictionary(day => day.Key, Items));

        ImmutableList<PlanItem> Items(IGrouping<EaterDay, PlanItemRow> day) => [.. day.OrderBy(row => row.Position).Select(Read)];

        PlanItem Read(PlanItemRow row)
        {
            var food = row.FoodRecordId is { } id ? new Ingredient(stored[id], new(row.FoodGrams ?? 0), row.FoodIsTrace) : null;
            var what = LaidThings.Read(
                row.BoxId, row.BatchId, row.Milligrams, row.Text, food?.AsKnownToday(known.Find), row.GiveOrTake,
                row is { HoldMeasure: { } measure, HoldAmount: { } amount } ? new Hold(measure, amount) : null);
            return new(row.Id, what, row.EatenAt)
            {
                Slot = row.Slot,
                IsLocked = row.IsLocked,
                IsFitted = row.IsFitted,
                IsForGuests = row.IsForGuests,
            };
        }
    }
}
