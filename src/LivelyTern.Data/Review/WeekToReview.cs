using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Review;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Eat;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Review;

/// <summary>A week of an eater as it can be looked back on.</summary>
/// <param name="Review">What it was.</param>
/// <param name="Days">Day by day, thing by thing.</param>
/// <param name="Board">What lies on its days.</param>
/// <param name="Stock">What that is made of.</param>
/// <param name="Recipes">The recipe of each batch of it.</param>
public sealed record ReviewedWeek(
    WeekReview Review, IReadOnlyList<DayToReview> Days, PlanBoard Board, Stock Stock, IReadOnlyDictionary<Guid, Guid> Recipes);

/// <summary>Reads a week from the ledger and from the plans that were kept.</summary>
public sealed class WeekToReview(
    TernDb db, PlanStore plan, BoxNotesStore notes, FoodStore foods, WeighInStore weighIns, TimeProvider clock)
{
    /// <summary>The week of an eater that begins on a Monday.</summary>
    public async Task<ReviewedWeek> OfAsync(EaterRow eater, DateOnly monday)
    {
        ArgumentNullException.ThrowIfNull(eater);
        var (last, today) = (monday.AddDays(6), clock.Today());
        var board = await plan.BoardAsync(eater.Id, monday, last);
        var stock = await plan.StockAsync(board);
        var items = board.Days.Values.SelectMany(day => day).Where(stock.Has).ToDictionary(item => item.Id);
        var entries = await EntriesAsync(eater.Id, monday, last);
        var kept = await db.PlannedDays.AsNoTracking().Where(row => row.EaterId == eater.Id && row.Day >= monday && row.Day <= last)
            .ToDictionaryAsync(row => row.Day, row => row.Planned);
        var noted = await weighIns.IntakeAsync(eater.Id);
        var whole = WholeDays.Of(noted, today).Select(day => day.Day).ToHashSet();
        var toppings = await ToppingsAsync([.. entries.Select(one => one.Entry.BoxId).OfType<Guid>().Distinct()]);

        // What goes on the dishes that were eaten on a day.
        var usual = entries.Where(one => one.Entry.BoxId is not null)
            .SelectMany(one => toppings[one.Entry.BoxId!.Value].Select(part => (one.Entry.Day, part)))
            .ToLookup(one => one.Day, one => one.part);

        EatenThing Eaten(StandingEntry one)
        {
            var (entry, item) = (one.Entry, items.GetValueOrDefault(one.Entry.ItemId));
            var totals = StoredTotal.Read(entry.Measures.Totals);
            var spread = item is null ? null : stock.BoxOf(item)?.EyeSpread;
            return new(entry.ItemId, entry.Name, KindOf(entry, item, usual[entry.Day]), totals)
            {
                FirstCounted = one.FirstCounted is { } first ? StoredTotal.Read(first.Totals) : null,
                ByEye = totals.GetValueOrDefault(Measure.Energy, Total.None).Known * (spread ?? 0),
                GiveOrTake = item?.GiveOrTake ?? 0,
            };
        }

        DayToReview Day(DateOnly day)
        {
            var (_, aim) = eater.On(day);
            var eaten = entries.Where(one => one.Entry.Day == day).Select(Eaten).ToList();
            IReadOnlyList<PlannedThing>? planned =
                kept.TryGetValue(day, out var was) ? [.. was.Things.Select(Read)] : eaten.Count == 0 ? [.. PlannedOn(day, aim)] : null;
            return new(day, aim, planned, eaten, eaten.Count > 0 && day < today && !whole.Contains(day));
        }

        IEnumerable<PlannedThing> PlannedOn(DateOnly day, DayAim aim) => board[new(eater.Id, day)]
            .Where(item => !item.IsSetAside && stock.Has(item))
            .Select(item => Read(StoredPlannedThing.Of(item, stock, aim)));

        List<DayToReview> days = [.. Enumerable.Range(0, 7).Select(monday.AddDays).Select(Day)];
        var batches = stock.Boxes.Values.Select(box => box.Batch.Id).Concat(stock.Unpacked.Keys).Distinct().ToList();
        var recipes = await db.Batches.AsNoTracking().Where(row => batches.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, row => row.RecipeId);
        return new(WeekReview.Of(days, eater.Ways.Reserve, today), days, board, stock, recipes);
    }

    private static PlannedThing Read(StoredPlannedThing thing) => new(thing.ItemId, thing.Name, StoredTotal.Read(thing.Totals));

    private static EatenKind KindOf(EntryRow entry, PlanItem? item, IEnumerable<Ingredient> usual) => item?.What switch
    {
        MealOut => EatenKind.MealOut,
        PlainFood plain when usual.Any(topping => IsAbout(topping, plain.Food)) => EatenKind.Topping,
        PlainFood => EatenKind.Plain,
        _ => entry.BoxId is null ? EatenKind.Plain : EatenKind.Box,
    };

    // A spoon more or less is a topping still; a bowl of the same is a thing of its own.
    private static bool IsAbout(Ingredient topping, Ingredient eaten) =>
        string.Equals(topping.Food.Id, eaten.Food.Id, StringComparison.Ordinal) && eaten.Weight <= topping.Weight * 2;

    // What goes on each of these boxes, as it was written for its dish.
    private async Task<ILookup<Guid, Ingredient>> ToppingsAsync(IReadOnlyCollection<Guid> boxIds)
    {
        var written = (await notes.OfBoxesAsync(boxIds)).Where(one => one.Value.Toppings.Count > 0).ToList();
        var known = written.Count > 0 ? await foods.AllAsync() : null;
        return written.SelectMany(one => one.Value.Toppings.SelectMany(text => FoodLine.Read(text, known!).Ingredients)
            .Select(part => (Box: one.Key, part))).ToLookup(one => one.Box, one => one.part);
    }

    // The entries that stand, in the order they were eaten; what was for guests is nobody's here.
    private async Task<List<StandingEntry>> EntriesAsync(Guid eaterId, DateOnly from, DateOnly to)
    {
        var all = await db.Entries.AsNoTracking().Where(row => row.EaterId == eaterId && row.Day >= from && row.Day <= to).ToListAsync();
        var standing = (await db.StandingEntries().Where(row => row.EaterId == eaterId && row.Day >= from && row.Day <= to)
            .Select(row => row.Id).ToListAsync()).ToHashSet();
        var guests = await db.PlanItems.AsNoTracking()
            .Where(row => row.EaterId == eaterId && row.Day >= from && row.Day <= to && row.IsForGuests)
            .Select(row => row.Id).ToListAsync();
        var byId = all.ToDictionary(entry => entry.Id);

        // Back to where it was eaten in this amount: what stands between are corrections of figures.
        EntryRow FirstOf(EntryRow entry)
        {
            var first = entry;
            while (first.CorrectsId is { } id && byId.TryGetValue(id, out var was) && Corrections.IsFiguresOnly(was, first)) first = was;
            return first;
        }

        return
        [
            .. from entry in all
               where standing.Contains(entry.Id) && !guests.Contains(entry.ItemId)
               orderby entry.EatenAt, entry.WrittenAt
               let first = FirstOf(entry)
               select new StandingEntry(entry, first.Id == entry.Id ? null : first.Measures),
        ];
    }

    private sealed record StandingEntry(EntryRow Entry, StoredMeasures? FirstCounted);
}
