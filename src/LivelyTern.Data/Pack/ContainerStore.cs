using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Pack.Containers;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Pack;

/// <summary>The household's pans, boxes, cups and bags.</summary>
public sealed class ContainerStore(TernDb db, TimeProvider clock)
{
    /// <summary>The most that are kept.</summary>
    public const int Most = 100;

    /// <summary>Those that are not put away, by kind and name.</summary>
    public async Task<IReadOnlyList<ContainerRow>> ListAsync() =>
        [.. (await db.Containers.AsNoTracking().Where(row => row.ArchivedAt == null).ToListAsync())
            .OrderBy(row => row.Kind).ThenBy(row => row.Name, StringComparer.OrdinalIgnoreCase)];

    /// <summary>One that is not put away, or null.</summary>
    public Task<ContainerRow?> FindAsync(Guid id) =>
        db.Containers.AsNoTracking().SingleOrDefaultAsync(row => row.Id == id && row.ArchivedAt == null);

    /// <summary>How many of each are in use: boxes that are still there and were packed in it, or with a part in such a cup.</summary>
    public async Task<IReadOnlyDictionary<Guid, int>> InUseAsync()
    {
        var there = db.Boxes.AsNoTracking().Where(row => row.State == BoxState.Packed || row.State == BoxState.PartEaten);
        var used = await there.Where(row => row.ContainerId != null).GroupBy(row => row.ContainerId!.Value)
            .ToDictionaryAsync(own => own.Key, own => own.Count());
        var within = await there.SelectMany(row => row.PutIn).Where(part => part.Compartment != null)
            .Select(part => new { part.BoxId, part.Compartment }).Distinct().ToListAsync();
        var byName = within.ToLookup(part => part.Compartment, StringComparer.OrdinalIgnoreCase);
        var cups = await db.Containers.AsNoTracking().Where(row => row.Kind == ContainerKind.Cup).ToListAsync();
        foreach (var cup in cups.Where(cup => byName.Contains(cup.Name))) used[cup.Id] = byName[cup.Name].Count();
        return used;
    }

    /// <summary>What some are called, put away or not.</summary>
    public async Task<IReadOnlyDictionary<Guid, string>> NamesAsync(IEnumerable<Guid> ids)
    {
        var asked = ids.Distinct().ToList();
        return asked.Count == 0
            ? new Dictionary<Guid, string>()
            : await db.Containers.AsNoTracking().Where(row => asked.Contains(row.Id)).ToDictionaryAsync(row => row.Id, row => row.Name);
    }

    /// <summary>Writes one down.</summary>
    public Task<Outcome<ContainerRow>> AddAsync(Container container) => db.InTurnAsync<ContainerRow>(async () =>
    {
        if (container.Refusal is { } wrong) return wrong;
        if (await db.Containers.CountAsync(row => row.ArchivedAt == null) >= Most)
            return new Problem("containers-many", "name", $"The household has up to {Most} kinds of containers: put one away first.");
        if (await IsTakenAsync(container, null)) return Taken(container);
        var row = new ContainerRow { Id = Guid.CreateVersion7(), Name = "", Compartments = new(StoredCompartments.Shape, []) };
        row.Set(container);
        db.Containers.Add(row);
        await db.SaveChangesAsync();
        return row;
    });

    /// <summary>Writes down how one is now, at the version it was read at.</summary>
    public Task<Outcome<ContainerRow>> SetAsync(Guid id, int version, Container now) => ChangeAsync(id, version, isAway: false, async row =>
    {
        if (now.Refusal is { } wrong) return wrong;
        if (await IsTakenAsync(now, id)) return Taken(now);
        row.Set(now);
        return null;
    });

    /// <summary>Puts one away, or takes it back, at the version it was read at.</summary>
    public Task<Outcome<ContainerRow>> ArchiveAsync(Guid id, int version, bool isAway) => ChangeAsync(id, version, !isAway, async row =>
    {
        if (!isAway && await IsTakenAsync(row.Read(), id)) return Taken(row.Read());
        row.ArchivedAt = isAway ? clock.GetUtcNow() : null;
        return null;
    });

    private Task<Outcome<ContainerRow>> ChangeAsync(Guid id, int version, bool isAway, Func<ContainerRow, Task<Problem?>> change) =>
        db.InTurnAsync<ContainerRow>(async () =>
        {
            var row = await db.Containers.SingleOrDefaultAsync(one => one.Id == id);
            if (row is null || row.ArchivedAt is not null != isAway) return Stale.Gone("container");
            if (row.Version != version) return Stale.Problem;
            return await change(row) is { } wrong ? wrong : await db.SaveAsync(row, row);
        });

    // Parts say by name where they lie, and a pan is chosen by its name.
    private async Task<bool> IsTakenAsync(Container one, Guid? except) =>
        (await ListAsync()).Any(row => row.Id != except && string.Equals(row.Name, one.Name.Trim(), StringComparison.OrdinalIgnoreCase));

    private static Problem Taken(Container one) => new("container-name", "name", $"There is one called {one.Name.Trim()} already.");
}
