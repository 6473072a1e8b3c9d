using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>What is kept off the menus of places, for next time.</summary>
public sealed class KeptMealStore(TernDb db, TimeProvider clock)
{
    private const int Most = 2_000, LongestName = 80;

    /// <summary>All of it, what was eaten last first.</summary>
    public async Task<IReadOnlyList<KeptMealRow>> ListAsync() =>
        await db.KeptMeals.AsNoTracking().OrderByDescending(row => row.UsedAt).ThenBy(row => row.Id).Take(Most).ToListAsync();

    /// <summary>Keeps the lines of a menu under their place; one of the same name takes the new figures.</summary>
    /// <param name="place">The place.</param>
    /// <param name="items">What was eaten there; a line without a name of its own is kept under the place's.</param>
    public Task<Outcome<int>> KeepAsync(string place, IReadOnlyList<MenuItem> items) => db.InTurnAsync<int>(async () =>
    {
        ArgumentNullException.ThrowIfNull(place);
        ArgumentNullException.ThrowIfNull(items);
        var at = place.Trim();
        if (at.Length is 0 or > LongestName) return new Problem("place-name", "place", "Give the place a name of up to 80 letters.");
        var now = clock.GetUtcNow();
        foreach (var item in items.Where(item => item.Name.Trim().Length is > 0 and <= LongestName))
        {
            var name = item.Name.Trim();
            var row = db.KeptMeals.Local.FirstOrDefault(one => Is(one.Place, at) && Is(one.Name, name))
                ?? await db.KeptMeals.SingleOrDefaultAsync(one => one.Place == at && one.Name == name);
            var stored = new StoredMenuItem(StoredMenuItem.Shape, item.Figures, item.HighKcal, item.Points);
            if (row is null) db.KeptMeals.Add(row = new() { Id = Guid.CreateVersion7(), Place = at, Name = name, Item = stored });
            (row.Item, row.UsedAt) = (stored, now);
        }

        return await db.SaveChangesAsync();
    });

    /// <summary>Forgets one.</summary>
    public Task<Outcome<Guid>> ForgetAsync(Guid id) => db.InTurnAsync<Guid>(async () =>
        await db.KeptMeals.Where(row => row.Id == id).ExecuteDeleteAsync() == 0 ? Stale.Gone("meal") : id);

    private static bool Is(string one, string other) => string.Equals(one, other, StringComparison.OrdinalIgnoreCase);
}
