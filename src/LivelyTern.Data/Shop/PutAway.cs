using LivelyTern.Core.Measures;
using LivelyTern.Core.Shop;
using LivelyTern.Data.Foods;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Shop;

/// <summary>What a putting away did, so that it can be taken back.</summary>
/// <param name="Put">What came into the pantry, each with its version.</param>
/// <param name="Ticks">What was in the basket.</param>
/// <param name="Own">What was written on by hand, and is bought.</param>
public sealed record PutAwayDone(IReadOnlyDictionary<Guid, int> Put, IReadOnlyList<Tick> Ticks, IReadOnlyList<OwnItemRow> Own);

/// <summary>The shopping comes home: what is in the basket is in the house, the list is free of it.</summary>
public sealed class PutAway(TernDb db, PantryStore pantry, FoodStore foods)
{
    /// <summary>Puts away all that is in the basket.</summary>
    /// <param name="ownFor">What was written on by hand and is bought with a food, by the food's id.</param>
    public Task<Outcome<PutAwayDone>> DoAsync(ILookup<string, Guid> ownFor) => db.InTurnAsync<PutAwayDone>(async () =>
    {
        ArgumentNullException.ThrowIfNull(ownFor);
        var known = await foods.AllAsync();
        var rows = await db.Ticks.Where(row => row.IsTicked).ToListAsync();
        if (rows.Count == 0) return new Problem("basket-empty", "", "Nothing is in the basket: tick what you have bought first.");
        var ticks = rows.ConvertAll(row => row.ToTick());
        var things = new List<PutInPantry>();
        foreach (var tick in ticks.Where(tick => Tick.ItemOf(tick.Key) is null))
        {
            var name = known.Find(tick.Key)?.Name ?? tick.Key;
            things.Add(new(tick.Key, name, tick.Bought == Grams.Zero ? null : tick.Bought));
        }

        IReadOnlyList<PantryRow> put = [];
        if (things.Count > 0)
        {
            var added = await pantry.AddAsync(things);
            if (!added.Succeeded) return added.Problems.ToList();
            put = added.Value!;
        }

        var bought = ticks.Select(tick => Tick.ItemOf(tick.Key)).OfType<Guid>().ToHashSet();
        bought.UnionWith(ticks.SelectMany(tick => ownFor[tick.Key]));
        var own = await db.OwnItems.Where(row => bought.Contains(row.Id)).ToListAsync();
        db.OwnItems.RemoveRange(own);
        db.Ticks.RemoveRange(rows);
        await db.SaveChangesAsync();
        return new PutAwayDone(put.ToDictionary(row => row.Id, row => row.Version), ticks, own);
    });

    /// <summary>Takes it back: what came into the pantry and is as it came is in the basket again.</summary>
    public Task<Outcome<int>> TakeBackAsync(PutAwayDone done) => db.InTurnAsync<int>(async () =>
    {
        ArgumentNullException.ThrowIfNull(done);
        var ownProblems = done.Own.Select(row => ShopStore.ProblemOf(row.Text));
        if (ownProblems.Prepend(ShopStore.ProblemOf(done.Ticks)).FirstOrDefault(one => one is not null) is { } problem) return problem;
        var ids = done.Put.Keys.ToList();
        var rows = await db.Pantry.Where(row => ids.Contains(row.Id)).ToListAsync();
        if (rows.Count != ids.Count || rows.Exists(row => row.Version != done.Put[row.Id])) return Stale.Problem;
        db.Pantry.RemoveRange(rows);
        var keys = done.Ticks.Select(tick => tick.Key).ToList();
        db.Ticks.RemoveRange(await db.Ticks.Where(row => keys.Contains(row.Key)).ToListAsync());
        db.Ticks.AddRange(done.Ticks.DistinctBy(tick => tick.Key, StringComparer.Ordinal).Select(ShopStore.RowOf));
        var own = done.Own.Select(row => row.Id).ToList();
        var there = await db.OwnItems.Where(row => own.Contains(row.Id)).Select(row => row.Id).ToListAsync();
        db.OwnItems.AddRange(done.Own.DistinctBy(row => row.Id).Where(row => !there.Contains(row.Id)));
        await db.SaveChangesAsync();
        return rows.Count;
    });
}
