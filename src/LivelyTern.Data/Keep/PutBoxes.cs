using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Data.Pack;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Keep;

/// <summary>Boxes put somewhere: into the freezer, out to thaw, into a bag.</summary>
public sealed class PutBoxes(TernDb db, BoxStore boxes, TimeProvider clock)
{
    /// <summary>The most boxes put at once.</summary>
    public const int Most = 200;

    internal static Problem TooMany { get; } = new("boxes-many", "boxes", $"Put between 1 and {Most} boxes at a time.");

    /// <summary>Puts boxes that are there somewhere; all of them, or where one can't be none.</summary>
    /// <param name="which">The boxes, each with the version it was read at.</param>
    /// <param name="place">Where.</param>
    /// <param name="on">The day: today, or one that is past where it is written down later.</param>
    /// <param name="today">The household's day.</param>
    /// <param name="isBack">
    /// Whether it takes back that they were put where they are: told today, they stand as they did before. Told on an earlier day they were
    /// really there.
    /// </param>
    /// <returns>Their versions now.</returns>
    public Task<Outcome<IReadOnlyDictionary<Guid, int>>> DoAsync(
        IReadOnlyDictionary<Guid, int> which, BoxPlace place, DateOnly on, DateOnly today, bool isBack = false) =>
        ChangeAsync(which, async rows =>
    {
        if (on > today) return new("day-ahead", "on", "That day is still to come.");
        var before = await BeforeAsync(rows, today);

        // Back on the day it was moved, it is as if it had stayed.
        bool IsBack(BoxRow row) => (isBack || row.PlacedOn == on) && before.GetValueOrDefault(row.Id)?.Place == place;
        BoxLife Life(BoxRow row) => IsBack(row) && before[row.Id] is { } was
            ? row.Life with { Place = place, PlacedOn = was.PlacedOn, FrozenOn = was.FrozenOn }
            : row.Life.Put(place, on);
        if (!isBack && rows.Exists(row => on < (row.FrozenOn is null ? row.Batch.CookedOn : row.PlacedOn)))
            return new("day-early", "on", "It was not cooked yet, or somewhere else, on that day: choose a later one.");
        foreach (var row in rows.Where(row => row.Place != place)) boxes.Happened(row, BoxEventKind.Put, Life(row));
        return null;
    });

    /// <summary>Somebody looked after boxes that are past their last day: they are still there, and stay.</summary>
    /// <param name="which">The boxes, each with the version it was read at.</param>
    public Task<Outcome<IReadOnlyDictionary<Guid, int>>> StillThereAsync(IReadOnlyDictionary<Guid, int> which) => ChangeAsync(which, rows =>
    {
        foreach (var row in rows) boxes.Happened(row, BoxEventKind.StillThere, row.Life);
        return Task.FromResult<Problem?>(null);
    });

    // How boxes stood before they were put where they are, of those of which that was told today.
    private async Task<Dictionary<Guid, BoxEventRow>> BeforeAsync(List<BoxRow> rows, DateOnly today)
    {
        var ids = rows.ConvertAll(row => row.Id);
        var events = (await db.BoxEvents.AsNoTracking().Where(one => ids.Contains(one.BoxId)).OrderBy(one => one.Id).ToListAsync())
            .ToLookup(one => one.BoxId);
        var before = new Dictionary<Guid, BoxEventRow>();
        foreach (var id in ids)
        {
            var own = events[id].ToList();
            var put = own.FindLastIndex(one => one.Kind == BoxEventKind.Put);
            if (put > 0 && IsOn(own[put].At, today)) before[id] = own[put - 1];
        }

        return before;
    }

    private bool IsOn(DateTimeOffset at, DateOnly day) =>
        clock.DayOf(at) == day;

    private Task<Outcome<IReadOnlyDictionary<Guid, int>>> ChangeAsync(
        IReadOnlyDictionary<Guid, int> which, Func<List<BoxRow>, Task<Problem?>> change) =>
        db.InTurnAsync<IReadOnlyDictionary<Guid, int>>(async () =>
        {
            if (which.Count is 0 or > Most) return TooMany;
            var rows = await db.Boxes.Include(row => row.Batch).Where(row => which.Keys.Contains(row.Id)).ToListAsync();
            if (rows.Count != which.Count || rows.Exists(row => row.State == BoxState.EmptiedBack)) return Stale.Gone("box");
            if (rows.Exists(row => row.Version != which[row.Id])) return Stale.Problem;
            if (rows.Exists(row => !row.Life.IsThere))
                return new Problem("box-gone", "boxes", "That box is eaten or gone: there is nothing to put away.");
            if (await change(rows) is { } problem) return problem;
            await db.SaveChangesAsync();
            return rows.ToDictionary(row => row.Id, row => row.Version);
        });
}
