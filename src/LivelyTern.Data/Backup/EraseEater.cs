using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Disk;
using LivelyTern.Data.Plan;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Backup;

/// <summary>An eater was erased.</summary>
/// <param name="Entries">How many things eaten went with them.</param>
/// <param name="Trace">Why the file could not be written anew, so that free pages may still hold them; null where it was.</param>
public sealed record Erased(int Entries, string? Trace);

/// <summary>
/// Takes one eater and all that is theirs out of the file for good: what they count, their days, what they ate, weighed and said. What they
/// ate out of boxes that were packed for several stays as "somebody", so that no gram of those is lost; whose it was is not kept.
/// </summary>
public sealed class EraseEater(TernDb db, IEnumerable<IKept> kept)
{
    /// <summary>Who ate what was eaten by somebody who was erased.</summary>
    internal static readonly Guid Somebody = new("00000000-0000-0000-0000-000000000001");

    /// <summary>Whether it is who stands for all that were erased.</summary>
    public static bool IsSomebody(Guid id) => id == Somebody;

    private const string SomebodysName = "somebody";

    // What an eater has by themselves. What stays of it is given to somebody before.
    private static readonly string[] Own =
        ["PlanItems", "PlannedDays", "EaterDays", "WeighIns", "Verdicts", "Aims", "DateBands", "Aways"];

    private static readonly string[] Ledgers = ["Entries", "BoxEvents"];

    /// <summary>Erases them.</summary>
    /// <param name="id">Who.</param>
    /// <param name="name">Their name, typed, so that nobody is erased by a slip.</param>
    public async Task<Outcome<Erased>> RunAsync(Guid id, string name)
    {
        var erased = await db.InTurnAsync<int>(async () =>
        {
            if (id == Somebody || await db.Eaters.AsNoTracking().SingleOrDefaultAsync(row => row.Id == id) is not { } eater)
                return Stale.Gone("eater");
            if (!string.Equals(eater.Name, (name ?? "").Trim(), StringComparison.OrdinalIgnoreCase))
                return new Problem("name-differs", "name", $"Type “{eater.Name}”, so that nobody is erased by a slip.");
            if (await ArchiveEater.StillPlannedAsync(db, eater) is { } planned) return planned;
            var count = await db.Entries.CountAsync(entry => entry.EaterId == id);
            await EraseAsync(id);
            return count;
        });
        if (!erased.Succeeded) return erased.Problems.ToList();
        db.ChangeTracker.Clear();
        foreach (var reading in kept) reading.Forget();
        return new Erased(erased.Value, await LeaveNoTraceAsync());
    }

    // The file is written anew, so that no page that is free now still holds them, and so is the log beside it.
    private async Task<string?> LeaveNoTraceAsync()
    {
        using var turn = await WriteTurn.TakeAsync(db.Database.GetConnectionString(), CancellationToken.None);
        try
        {
            await db.Database.ExecuteSqlRawAsync("VACUUM");
            await db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)");
            return null;
        }
        catch (SqliteException error)
        {
            return FileTrouble.Why(error);
        }
    }

    private async Task EraseAsync(Guid id)
    {
        var guards = await db.Database.SqlQuery<string>($"SELECT sql AS Value FROM sqlite_master WHERE type = 'trigger'").ToListAsync();
        foreach (var ledger in Ledgers)
        {
            foreach (var guard in new[] { "stay", "remain" }) await RunAsync($"DROP TRIGGER \"{ledger}_{guard}\"");
        }

        await GiveToSomebodyAsync(id);

        // A correction before what it corrects.
        const string Last = "DELETE FROM Entries WHERE EaterId = {0} "
            + "AND NOT EXISTS (SELECT 1 FROM Entries later WHERE later.CorrectsId = Entries.Id)";
        while (await RunAsync(Last, id) > 0) { }
        foreach (var table in Own) await RunAsync($"DELETE FROM {table} WHERE EaterId = {{0}}", id);
        await db.Database.ExecuteSqlAsync($"DELETE FROM EyeTries WHERE CookId = {id}");

        // What undo would need of their days; of a step that was undone both go.
        await db.Database.ExecuteSqlAsync($"DELETE FROM PlanChanges WHERE instr(lower(Change), lower({id.ToString()})) > 0");
        await db.Database.ExecuteSqlAsync($"DELETE FROM Eaters WHERE Id = {id}");
        foreach (var guard in guards) await RunAsync(guard.Replace("{", "{{", StringComparison.Ordinal));
    }

    // Boxes hold what days say was eaten of them: those days go on saying it, without whose they were.
    private async Task GiveToSomebodyAsync(Guid id)
    {
        const string Kept = "SELECT Id FROM PlanItems WHERE EaterId = {0} AND BoxId IS NOT NULL AND EatenAt IS NOT NULL";
        var isNeeded = await db.PlanItems.AnyAsync(item => item.EaterId == id && item.BoxId != null && item.EatenAt != null);
        if (isNeeded && !await db.Eaters.AnyAsync(row => row.Id == Somebody))
        {
            var somebody = new EaterRow
            {
                Id = Somebody,
                Name = SomebodysName,
                ArchivedAt = DateTimeOffset.UnixEpoch,
                Position = int.MaxValue,
            };
            somebody.SetAim(StoredAim.Of(new DayAim(Measure.Energy, new Dictionary<Measure, Band>(), null), []), DateOnly.MinValue);
            db.Eaters.Add(somebody);
            await db.SaveChangesAsync();
        }

        await RunAsync($"UPDATE Entries SET EaterId = {{1}} WHERE ItemId IN ({Kept})", id, Somebody);
        await RunAsync(
            "INSERT OR IGNORE INTO EaterDays (EaterId, Day, Version) SELECT DISTINCT {1}, Day, 0 FROM PlanItems "
            + $"WHERE Id IN ({Kept})", id, Somebody);
        await RunAsync(
            "UPDATE PlanItems SET EaterId = {1}, Slot = NULL, NeverAnswered = NULL "
            + "WHERE EaterId = {0} AND BoxId IS NOT NULL AND EatenAt IS NOT NULL", id, Somebody);
        foreach (var table in new[] { "Boxes", "BoxEvents" })
            await RunAsync(
                $"UPDATE {table} SET ForId = CASE WHEN {{2}} THEN {{1}} END WHERE ForId = {{0}}", id, Somebody, isNeeded);
    }

    private Task<int> RunAsync(string sql, params object[] values) => db.Database.ExecuteSqlRawAsync(sql, values);
}
