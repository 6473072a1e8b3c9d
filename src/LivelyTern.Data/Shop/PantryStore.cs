using LivelyTern.Core.Measures;
using LivelyTern.Core.Shop;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Shop;

/// <summary>Something to be written into the pantry.</summary>
/// <param name="FoodId">The food.</param>
/// <param name="Name">Its name.</param>
/// <param name="Amount">How much; null for enough that nobody counts.</param>
/// <param name="UseBy">The last day its package names.</param>
public sealed record PutInPantry(string FoodId, string Name, Grams? Amount, DateOnly? UseBy = null);

/// <summary>What a stocktaking changed.</summary>
/// <param name="Before">What was there of these foods.</param>
/// <param name="Now">What is there now.</param>
public sealed record Stocktaking(IReadOnlyList<PantryRow> Before, IReadOnlyList<PantryRow> Now);

/// <summary>What is in the house.</summary>
public sealed class PantryStore(TernDb db, TimeProvider clock)
{
    /// <summary>The most things that are kept.</summary>
    public const int Most = 10_000;

    /// <summary>Everything there is, by food and then by its last day.</summary>
    public async Task<IReadOnlyList<PantryRow>> ListAsync() =>
        await db.Pantry.AsNoTracking().OrderBy(row => row.Name).ThenBy(row => row.UseBy == null).ThenBy(row => row.UseBy)
            .ThenBy(row => row.Id).ToListAsync();

    /// <summary>One thing, or null.</summary>
    public Task<PantryRow?> FindAsync(Guid id) => db.Pantry.AsNoTracking().SingleOrDefaultAsync(row => row.Id == id);

    /// <summary>What is in the house of these foods.</summary>
    public async Task<IReadOnlyDictionary<string, InHouse>> OfAsync(IReadOnlyCollection<string> foodIds)
    {
        var sums = await db.Pantry.AsNoTracking().Where(row => foodIds.Contains(row.FoodId)).GroupBy(row => row.FoodId)
            .Select(same => new
            {
                same.Key,
                Sum = same.Sum(row => row.Milligrams ?? 0),
                Uncounted = same.Count(row => row.Milligrams == null),
            }).ToListAsync();
        return sums.ToDictionary(
            food => food.Key, food => new InHouse(food.Uncounted > 0 ? null : Milligrams.ToGrams(food.Sum)), StringComparer.Ordinal);
    }

    /// <summary>Writes things down, each as one of its own.</summary>
    public Task<Outcome<IReadOnlyList<PantryRow>>> AddAsync(IReadOnlyList<PutInPantry> things) =>
        db.InTurnAsync<IReadOnlyList<PantryRow>>(async () =>
        {
            if (things.Count == 0) return new Problem("pantry-nothing", "text", "Say what is in the house.");
            if (things.Count + await db.Pantry.CountAsync() > Most)
                return new Problem("pantry-full", "text", $"The pantry holds up to {Most} things: take out what is used up.");
            if (things.Select((thing, i) => AmountProblem(thing.Amount, i)).FirstOrDefault(wrong => wrong is not null) is { } amount)
                return amount;
            var rows = things.Select(RowOf).ToList();
            db.Pantry.AddRange(rows);
            await db.SaveChangesAsync();
            return rows;
        });

    /// <summary>
    /// Writes down how it is now, at the version it was read at. A count is the truth: what was taken before it is not given back any more.
    /// </summary>
    /// <param name="id">The thing.</param>
    /// <param name="version">The version it was read at.</param>
    /// <param name="now">It as it is.</param>
    public Task<Outcome<PantryRow>> SetAsync(Guid id, int version, PantryItem now) => db.InTurnAsync<PantryRow>(async () =>
    {
        ArgumentNullException.ThrowIfNull(now);
        var row = await db.Pantry.SingleOrDefaultAsync(one => one.Id == id);
        if (row is null) return Stale.Gone("thing");
        if (row.Version != version) return Stale.Problem;
        if (AmountProblem(now.Amount, 0) is { } wrong) return wrong;
        if (row.Milligrams != Milligrams.Of(now.Amount))
        {
            await SettleAsync([id]);
            (row.Milligrams, row.CountedAt) = (Milligrams.Of(now.Amount), clock.GetUtcNow());
        }

        (row.UseBy, row.IsFirst) = (now.UseBy, now.IsFirst);
        return await db.SaveAsync(row, row);
    });

    /// <summary>Takes out what is used up or was never there, at the version it was read at.</summary>
    public Task<Outcome<PantryRow>> RemoveAsync(Guid id, int version) => db.InTurnAsync<PantryRow>(async () =>
    {
        var row = await db.Pantry.SingleOrDefaultAsync(one => one.Id == id);
        if (row is null) return Stale.Gone("thing");
        if (row.Version != version) return Stale.Problem;
        await SettleAsync([id]);
        db.Pantry.Remove(row);
        await db.SaveChangesAsync();
        return row;
    });

    /// <summary>
    /// A stocktaking: what is listed is what there is of those foods, whatever was written down of them before; with <paramref
    /// name="isAll"/> nothing else is in the house. A food's last day and "use first" stay where one thing of it was known.
    /// </summary>
    /// <returns>What of it was there before, and what is there now.</returns>
    public Task<Outcome<Stocktaking>> StocktakeAsync(IReadOnlyList<PutInPantry> counted, bool isAll) =>
        db.InTurnAsync<Stocktaking>(async () =>
        {
            if (counted.Select((thing, i) => AmountProblem(thing.Amount, i)).FirstOrDefault(wrong => wrong is not null) is { } amount)
                return amount;
            if (counted.Count == 0) return new Problem("pantry-nothing", "lines", "Say what is in the house.");
            var ids = counted.Select(thing => thing.FoodId).ToHashSet(StringComparer.Ordinal);
            var all = await db.Pantry.ToListAsync();
            var before = all.FindAll(row => isAll || ids.Contains(row.FoodId));
            if (all.Count - before.Count + counted.Count > Most)
                return new Problem("pantry-full", "lines", $"The pantry holds up to {Most} things: take out what is used up.");
            await SettleAsync([.. before.Select(row => row.Id)]);
            var was = before.ToLookup(row => row.FoodId, StringComparer.Ordinal);
            db.Pantry.RemoveRange(before);
            var now = counted.Select(RowOf).ToList();
            foreach (var row in now)
                if (was[row.FoodId].ToList() is [var one]) (row.UseBy, row.IsFirst) = (row.UseBy ?? one.UseBy, one.IsFirst);
            db.Pantry.AddRange(now);
            await db.SaveChangesAsync();
            return new Stocktaking(before, now);
        });

    /// <summary>Takes a change back: what came in goes out, where it is as it came; what went out is there again.</summary>
    /// <param name="cameIn">What came in, with the versions it came with.</param>
    /// <param name="wentOut">What went out.</param>
    public Task<Outcome<int>> TakeBackAsync(IReadOnlyDictionary<Guid, int> cameIn, IReadOnlyList<PantryRow> wentOut) =>
        db.InTurnAsync<int>(async () =>
        {
            wentOut = [.. wentOut.DistinctBy(row => row.Id)];
            if (wentOut.Count > Most) return new Problem("pantry-full", "out", $"The pantry holds up to {Most} things.");
            var ids = cameIn.Keys.Concat(wentOut.Select(row => row.Id)).ToList();
            var rows = await db.Pantry.Where(row => ids.Contains(row.Id)).ToListAsync();
            if (rows.Count != cameIn.Count || rows.Exists(row => !cameIn.TryGetValue(row.Id, out var came) || row.Version != came))
                return Stale.Problem;
            if (wentOut.Select((row, i) => AmountProblem(Milligrams.ToGrams(row.Milligrams), i)).FirstOrDefault(wrong => wrong is not null)
                is { } amount) return amount;
            await SettleAsync([.. cameIn.Keys]);
            db.Pantry.RemoveRange(rows);
            foreach (var row in wentOut) row.CountedAt = clock.GetUtcNow();
            db.Pantry.AddRange(wentOut);
            await db.SaveChangesAsync();
            return wentOut.Count;
        });

    private static Problem? AmountProblem(Grams? amount, int at) => amount is { Value: < 0 } || amount > PantryItem.Most
        ? new("pantry-amount", $"[{at}]", "What is in the house weighs between 0 g and 100 kg.")
        : null;

    private PantryRow RowOf(PutInPantry thing) => new()
    {
        Id = Guid.CreateVersion7(),
        FoodId = thing.FoodId,
        Name = thing.Name,
        Milligrams = Milligrams.Of(thing.Amount),
        UseBy = thing.UseBy,
        CountedAt = clock.GetUtcNow(),
    };

    private Task<int> SettleAsync(List<Guid> ids) => db.PantryUses.Where(use => ids.Contains(use.PantryId)).ExecuteDeleteAsync();
}
