using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Aim;

/// <summary>The eaters of the household.</summary>
public sealed class EaterStore(TernDb db, TimeProvider clock)
{
    /// <summary>The most eaters of one household.</summary>
    public const int Most = 12;

    /// <summary>The eaters in their order, without those taken off.</summary>
    public async Task<IReadOnlyList<EaterRow>> ListAsync() =>
        await db.Eaters.AsNoTracking().Where(row => row.ArchivedAt == null).OrderBy(row => row.Position).ToListAsync();

    /// <summary>One eater, also one taken off; null where there is none.</summary>
    public Task<EaterRow?> FindAsync(Guid id) => db.Eaters.AsNoTracking().SingleOrDefaultAsync(row => row.Id == id);

    /// <summary>Adds an eater at the end of the table.</summary>
    public async Task<Outcome<EaterRow>> AddAsync(string name, DayAim aim, bool clinicianSetIt)
    {
        ArgumentNullException.ThrowIfNull(aim);
        var eaters = await ListAsync();
        var problems = Problems(name, aim, clinicianSetIt, eaters);
        if (eaters.Count >= Most) problems.Add(new("eaters-many", "name", $"One household holds up to {Most} eaters."));
        if (problems.Count > 0) return problems;
        var row = new EaterRow { Id = Guid.CreateVersion7(), Name = name.Trim(), Aim = aim, ClinicianSetIt = clinicianSetIt, Position = eaters.Count };
        db.Eaters.Add(row);
        await db.SaveChangesAsync();
        return row;
    }

    /// <summary>Changes an eater that was read at a version.</summary>
    public async Task<Outcome<EaterRow>> ChangeAsync(Guid id, int version, string name, DayAim aim, bool clinicianSetIt)
    {
        ArgumentNullException.ThrowIfNull(aim);
        if (await db.Eaters.SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("eater");
        if (row.Version != version) return Stale.Problem;
        var problems = Problems(name, aim, clinicianSetIt, (await ListAsync()).Where(other => other.Id != id));
        if (problems.Count > 0) return problems;
        (row.Name, row.Aim, row.ClinicianSetIt) = (name.Trim(), aim, clinicianSetIt);
        return await db.SaveAsync(row, row);
    }

    /// <summary>Takes an eater off the table, or back to it. Nothing they ate is lost; boxes still planned must be moved first.</summary>
    public async Task<Outcome<EaterRow>> ArchiveAsync(Guid id, int version, bool archived)
    {
        if (await db.Eaters.SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("eater");
        if (row.Version != version) return Stale.Problem;
        var planned = await db.PlanItems.CountAsync(item => item.EaterId == id && item.BoxId != null && item.EatenAt == null);
        if (archived && planned > 0)
            return new Problem("eater-has-boxes", "", $"{row.Name} still has {planned} {(planned == 1 ? "box" : "boxes")} on the plan: take them off first.");
        row.ArchivedAt = archived ? clock.GetUtcNow() : null;
        return await db.SaveAsync(row, row);
    }

    private static List<Problem> Problems(string? name, DayAim aim, bool clinicianSetIt, IEnumerable<EaterRow> others)
    {
        var problems = aim.Problems(clinicianSetIt).ToList();
        var trimmed = (name ?? "").Trim();
        if (trimmed.Length is 0 or > 40) problems.Add(new("name-missing", "name", "Give the eater a name of up to 40 letters."));
        else if (others.Any(other => string.Equals(other.Name, trimmed, StringComparison.OrdinalIgnoreCase)))
            problems.Add(new("name-taken", "name", $"There is a {trimmed} already: add a letter to tell them apart."));
        return problems;
    }
}
