using System.Collections.Immutable;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Cook;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>A change that was made, by the id under which it can be undone.</summary>
public sealed record MadeChange(Guid Id, int Version);

/// <summary>What lies on which day, and the log of changes to it.</summary>
public sealed class PlanStore(TernDb db, TimeProvider clock)
{
    /// <summary>The version of the plan, counted up by every change.</summary>
    public async Task<int> VersionAsync() => (await db.PlanVersions.AsNoTracking().SingleAsync()).Version;

    /// <summary>The plan of some days, for every eater.</summary>
    public async Task<PlanBoard> BoardAsync(DateOnly from, DateOnly to) =>
        Board(await db.PlanItems.AsNoTracking().Where(row => row.Day >= from && row.Day <= to).ToListAsync());

    /// <summary>The boxes of these ids, with their batches.</summary>
    public async Task<IReadOnlyDictionary<Guid, Box>> BoxesAsync(IReadOnlyCollection<Guid> ids) =>
        (await db.Boxes.AsNoTracking().Include(row => row.Batch).Where(row => ids.Contains(row.Id)).ToListAsync()).ToDictionary(row => row.Id, Read);

    /// <summary>The boxes that lie on no day, oldest batch first.</summary>
    public async Task<IReadOnlyList<Box>> ShelfAsync() =>
        [.. (await db.Boxes.AsNoTracking().Include(row => row.Batch)
            .Where(row => !db.PlanItems.Any(item => item.BoxId == row.Id))
            .OrderBy(row => row.Batch.CookedOn).ThenBy(row => row.BatchId).ThenBy(row => row.Number).ToListAsync()).Select(Read)];

    /// <summary>Makes a change that was worked out on the plan as it stood at a version.</summary>
    /// <param name="version">The version the user saw; null takes the plan as it is (undo checks the days themselves).</param>
    /// <param name="days">The days the change may touch, besides those of the item or box concerned.</param>
    /// <param name="concerning">The items and boxes it concerns; empty for a new plain food.</param>
    /// <param name="change">Works the change out.</param>
    public async Task<Outcome<MadeChange>> ChangeAsync(int? version, IReadOnlyList<EaterDay> days, IReadOnlyCollection<Guid> concerning, Func<PlanBoard, Outcome<PlanChange>> change)
    {
        ArgumentNullException.ThrowIfNull(days);
        ArgumentNullException.ThrowIfNull(change);
        var state = await db.PlanVersions.SingleAsync();
        if (version is not null && state.Version != version) return Stale.Problem;
        var eaters = days.Select(day => day.EaterId).Distinct().ToList();
        if (await db.Eaters.CountAsync(row => eaters.Contains(row.Id) && row.ArchivedAt == null) != eaters.Count) return Stale.Gone("eater");

        var board = await BoardAroundAsync(days, concerning);
        var made = change(board);
        if (!made.Succeeded) return made.Problems.ToList();
        var after = board.Apply(made.Value!);
        if (!after.Succeeded) return after.Problems.ToList();

        var log = new PlanChangeRow { Id = Guid.CreateVersion7(), At = clock.GetUtcNow(), Change = made.Value! };
        db.PlanChanges.Add(log);
        await WriteAsync(made.Value!);
        return await db.SaveAsync(state, new MadeChange(log.Id, state.Version + 1));
    }

    /// <summary>Undoes a change, if the days it touched are still as it left them. The undoing is a change itself: undo that to redo.</summary>
    public async Task<Outcome<MadeChange>> UndoAsync(Guid changeId)
    {
        if (await db.PlanChanges.AsNoTracking().SingleOrDefaultAsync(row => row.Id == changeId) is not { } log) return Stale.Gone("step");
        var inverse = log.Change.Inverse;
        var boxes = inverse.Days.SelectMany(day => day.After).Select(item => item.BoxId).OfType<Guid>().ToList();
        if (await db.Boxes.CountAsync(row => boxes.Contains(row.Id)) != boxes.Count) return Stale.Gone("box");
        return await ChangeAsync(null, [.. inverse.Days.Select(day => day.Where)], boxes, _ => inverse);
    }

    /// <summary>Whether there is a box of this id.</summary>
    public Task<bool> HasBoxAsync(Guid id) => db.Boxes.AnyAsync(row => row.Id == id);

    private static PlanBoard Board(IEnumerable<PlanItemRow> rows) => new(rows
        .GroupBy(row => new EaterDay(row.EaterId, row.Day))
        .ToImmutableDictionary(
            day => day.Key,
            day => day.OrderBy(row => row.Position).Select(row => new PlanItem(row.Id, row.BoxId, row.Text, row.Food, row.EatenAt)).ToImmutableList()));

    // The whole days that a change can touch: those named, and those where those items or boxes lie now.
    private async Task<PlanBoard> BoardAroundAsync(IReadOnlyList<EaterDay> days, IReadOnlyCollection<Guid> concerning)
    {
        var dates = days.Select(day => day.Day).ToHashSet();
        dates.UnionWith(await db.PlanItems
            .Where(row => concerning.Contains(row.Id) || (row.BoxId != null && concerning.Contains(row.BoxId.Value))).Select(row => row.Day).ToListAsync());
        return Board(await db.PlanItems.AsNoTracking().Where(row => dates.Contains(row.Day)).ToListAsync());
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
                (row.EaterId, row.Day, row.Position) = (day.Where.EaterId, day.Where.Day, i);
                (row.BoxId, row.Text, row.Food, row.EatenAt) = (item.BoxId, item.Text, item.Food, item.EatenAt);
            }
        }

        db.PlanItems.RemoveRange(rows.Values.Where(row => !kept.Contains(row.Id)));
    }

    private static Box Read(BoxRow row) => new(row.Id, BatchStore.Read(row.Batch), new Grams(row.Grams), row.Pieces);

    /// <summary>What an item on the plan contains.</summary>
    /// <param name="item">The item.</param>
    /// <param name="boxes">The boxes of the plan.</param>
    public static Contents ContentsOf(PlanItem item, IReadOnlyDictionary<Guid, Box> boxes)
    {
        ArgumentNullException.ThrowIfNull(item);
        ArgumentNullException.ThrowIfNull(boxes);
        return item.BoxId is { } box ? boxes[box].Contents : new Contents([item.Food!]);
    }
}
