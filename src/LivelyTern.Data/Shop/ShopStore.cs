using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Shop;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Shop;

/// <summary>The list's own memory: aisles, how foods are sold, what is in the basket, what was written on by hand.</summary>
public sealed class ShopStore(TernDb db, TimeProvider clock)
{
    private const int MostOwn = 300, LongestText = 300, LongestKey = 200, MostTicks = 2_000;
    private static readonly TimeSpan Ahead = TimeSpan.FromMinutes(5);

    /// <summary>The aisles, and the version to change them on: 0 while they are as at first.</summary>
    public async Task<(Aisles Aisles, int Version)> AislesAsync() =>
        await db.Aisles.AsNoTracking().SingleOrDefaultAsync() is { } row ? (row.Aisles, row.Version) : (Aisles.AtFirst, 0);

    /// <summary>Writes down the aisles, at the version they were read at.</summary>
    public Task<Outcome<int>> SetAislesAsync(int version, Aisles aisles) => db.InTurnAsync<int>(async () =>
    {
        ArgumentNullException.ThrowIfNull(aisles);
        if (aisles.Problems().ToList() is { Count: > 0 } problems) return problems;
        var row = await db.Aisles.SingleOrDefaultAsync();
        if ((row?.Version ?? 0) != version) return Stale.Problem;
        if (row is not null)
        {
            row.Aisles = aisles;
            return await db.SaveAsync(row, version + 1);
        }

        db.Aisles.Add(new() { Aisles = aisles });
        await db.SaveChangesAsync();
        return 1;
    });

    /// <summary>How foods are sold here, as far as the household said so.</summary>
    public async Task<IReadOnlyDictionary<string, SoldAs>> SoldAsync() =>
        await db.SoldAs.AsNoTracking().ToDictionaryAsync(row => row.FoodId, row => row.Sold, StringComparer.Ordinal);

    /// <summary>How each food is sold here: as the household says, else as it commonly is.</summary>
    public async Task<Func<Food, SoldAs>> SoldAsAsync()
    {
        var said = await SoldAsync();
        return food => said.TryGetValue(food.Id, out var own) ? own : SoldAs.Commonly(food);
    }

    /// <summary>How a food is sold here, and the version to change it on: 0 while nobody said so; null where nobody did.</summary>
    public async Task<(SoldAs? Sold, int Version)> SoldAsync(string foodId) =>
        await db.SoldAs.AsNoTracking().SingleOrDefaultAsync(row => row.FoodId == foodId) is { } row ? (row.Sold, row.Version) : (null, 0);

    /// <summary>Writes down how a food is sold, at the version it was read at.</summary>
    public Task<Outcome<int>> SetSoldAsync(string foodId, int version, SoldAs sold) => db.InTurnAsync<int>(async () =>
    {
        ArgumentNullException.ThrowIfNull(sold);
        if (sold.Problems().ToList() is { Count: > 0 } problems) return problems;
        var row = await db.SoldAs.SingleOrDefaultAsync(one => one.FoodId == foodId);
        if ((row?.Version ?? 0) != version) return Stale.Problem;
        if (row is not null)
        {
            row.Sold = sold;
            return await db.SaveAsync(row, version + 1);
        }

        db.SoldAs.Add(new() { FoodId = foodId, Sold = sold });
        await db.SaveChangesAsync();
        return 1;
    });

    /// <summary>What is in the basket.</summary>
    public async Task<IReadOnlyList<Tick>> BasketAsync() =>
        [.. (await db.Ticks.AsNoTracking().Where(row => row.IsTicked).ToListAsync()).Select(row => row.ToTick())];

    /// <summary>
    /// Takes ticks in, in whatever order they come: of each thing the latest counts. Where a phone's clock is ahead, the last of its ticks
    /// is taken to be of now and those before it of as much earlier.
    /// </summary>
    public Task<Outcome<int>> TickAsync(IReadOnlyList<Tick> ticks) => db.InTurnAsync<int>(async () =>
    {
        if (ProblemOf(ticks) is { } problem) return problem;
        var now = clock.GetUtcNow();
        var last = ticks.Select(tick => tick.At).DefaultIfEmpty(now).Max();
        var skew = last > now + Ahead ? last - now : TimeSpan.Zero;
        var keys = ticks.Select(tick => tick.Key).Distinct(StringComparer.Ordinal).ToList();
        var rows = await db.Ticks.Where(row => keys.Contains(row.Key)).ToDictionaryAsync(row => row.Key, StringComparer.Ordinal);
        foreach (var said in ticks)
        {
            var tick = said with { At = said.At - skew };
            if (!rows.TryGetValue(tick.Key, out var row)) db.Ticks.Add(rows[tick.Key] = row = RowOf(tick));
            Write(row, Tick.Later(row.ToTick(), tick));
        }

        await db.SaveChangesAsync();
        return ticks.Count;
    });

    /// <summary>What is wrong with some ticks; null where nothing is.</summary>
    internal static Problem? ProblemOf(IReadOnlyList<Tick> ticks)
    {
        if (ticks.Count > MostTicks) return new("ticks-many", "ticks", $"Up to {MostTicks} ticks are taken in at once.");
        for (var i = 0; i < ticks.Count; i++)
        {
            if (ticks[i].Key.Length is 0 or > LongestKey) return new("tick-key", $"ticks[{i}].key", "Say what is ticked.");
            if (ticks[i].Bought is { Value: < 0 } || ticks[i].Bought > PantryItem.Most)
                return new("tick-grams", $"ticks[{i}].grams", "What is bought weighs between 0 g and 100 kg.");
        }

        return null;
    }

    /// <summary>What is wrong with what is written on the list by hand; null where nothing is.</summary>
    internal static Problem? ProblemOf(string text) => text.Trim().Length is 0 or > LongestText
        ? new("item-text", "text", $"Write what to buy, in up to {LongestText} letters.")
        : null;

    /// <summary>What was written on the list by hand, in the order in which it was.</summary>
    public async Task<IReadOnlyList<OwnItemRow>> OwnAsync() =>
        await db.OwnItems.AsNoTracking().OrderBy(row => row.WrittenAt).ThenBy(row => row.Id).ToListAsync();

    /// <summary>Writes something on the list. Written twice under one id it stands there once.</summary>
    /// <param name="id">Chosen by who writes it, so that a phone may send it again.</param>
    /// <param name="text">As written.</param>
    /// <param name="foodId">The food chosen for it; null where its words say enough.</param>
    public Task<Outcome<OwnItemRow>> WriteOnAsync(Guid id, string text, string? foodId) => db.InTurnAsync<OwnItemRow>(async () =>
    {
        ArgumentNullException.ThrowIfNull(text);
        if (ProblemOf(text) is { } problem) return problem;
        if (await db.OwnItems.SingleOrDefaultAsync(one => one.Id == id) is { } there) return there;
        if (await db.OwnItems.CountAsync() >= MostOwn)
            return new Problem("items-many", "text", $"The list holds up to {MostOwn} things written on by hand.");
        var row = new OwnItemRow { Id = id, Text = text.Trim(), FoodId = foodId, WrittenAt = clock.GetUtcNow() };
        db.OwnItems.Add(row);
        await db.SaveChangesAsync();
        return row;
    });

    /// <summary>Takes something off the list again, with its tick.</summary>
    public Task<Outcome<OwnItemRow>> TakeOffAsync(Guid id) => db.InTurnAsync<OwnItemRow>(async () =>
    {
        if (await db.OwnItems.SingleOrDefaultAsync(one => one.Id == id) is not { } row) return Stale.Gone("item");
        db.OwnItems.Remove(row);
        var key = Tick.KeyOf(id);
        db.Ticks.RemoveRange(await db.Ticks.Where(tick => tick.Key == key).ToListAsync());
        await db.SaveChangesAsync();
        return row;
    });

    /// <summary>A tick as it is kept.</summary>
    internal static TickRow RowOf(Tick tick) => new()
    {
        Key = tick.Key,
        IsTicked = tick.IsTicked,
        Milligrams = Milligrams.Of(tick.Bought),
        At = tick.At,
    };

    private static void Write(TickRow row, Tick tick) =>
        (row.IsTicked, row.Milligrams, row.At) = (tick.IsTicked, Milligrams.Of(tick.Bought), tick.At);
}
