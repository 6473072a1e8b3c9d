using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Data.Pack;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Keep;

/// <summary>Boxes put somewhere: into the freezer, out to thaw, into a bag.</summary>
public sealed class PutBoxes(TernDb db, BoxStore boxes)
{
    /// <summary>The most boxes put at once.</summary>
    public const int Most = 200;

    /// <summary>Puts boxes that are there somewhere; all of them, or where one can't be none.</summary>
    /// <param name="which">The boxes, each with the version it was read at.</param>
    /// <param name="place">Where.</param>
    /// <param name="today">The household's day.</param>
    /// <returns>Their versions now.</returns>
    public Task<Outcome<IReadOnlyDictionary<Guid, int>>> DoAsync(IReadOnlyDictionary<Guid, int> which, BoxPlace place, DateOnly today) =>
        db.InTurnAsync<IReadOnlyDictionary<Guid, int>>(async () =>
        {
            if (which.Count is 0 or > Most) return new Problem("boxes-many", "boxes", $"Put between 1 and {Most} boxes at a time.");
            var rows = await db.Boxes.Where(row => which.Keys.Contains(row.Id)).ToListAsync();
            if (rows.Count != which.Count || rows.Exists(row => row.State == BoxState.EmptiedBack)) return Stale.Gone("box");
            if (rows.Exists(row => row.Version != which[row.Id])) return Stale.Problem;
            if (rows.Exists(row => !row.Life.IsThere))
                return new Problem("box-gone", "boxes", "That box is eaten or gone: there is nothing to put away.");
            foreach (var row in rows.Where(row => row.Place != place)) boxes.Happened(row, BoxEventKind.Put, row.Life.Put(place, today));
            await db.SaveChangesAsync();
            return rows.ToDictionary(row => row.Id, row => row.Version);
        });
}
