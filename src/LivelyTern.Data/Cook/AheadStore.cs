using LivelyTern.Core.Cook;
using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Measures;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook;

/// <summary>What was done for dishes on a day before their own, until they are cooked.</summary>
public sealed class AheadStore(TernDb db, PrepDayStore days)
{
    /// <summary>The code of the refusal where nothing is left to be done ahead.</summary>
    public const string NothingLeft = "ahead-nothing";

    private const int DaysBefore = 7;

    /// <summary>What was done for batches that are still to be cooked, by the day of the batch.</summary>
    public async Task<IReadOnlyList<AheadRow>> WaitingAsync() =>
        await db.DoneAhead.AsNoTracking().Include(row => row.Batch).Where(row => row.Batch.State == BatchState.Planned)
            .OrderBy(row => row.Batch.CookedOn).ThenBy(row => row.Batch.Id).ThenBy(row => row.Verb).ThenBy(row => row.What).ToListAsync();

    /// <summary>The batches of later days of which something can be done on a day, each with what.</summary>
    public async Task<IReadOnlyList<(BatchRow Row, IReadOnlyList<AheadWork> Work)>> CouldBeDoneAsync(DateOnly day)
    {
        var last = day.AddDays(DaysBefore);
        var rows = (await days.ToCookAsync())
            .Where(row => row.State == BatchState.Planned && row.CookedOn > day && row.CookedOn <= last).ToList();
        var dishes = await days.DishesAsync(rows, day);
        return [.. rows.Zip(dishes, (row, dish) => (row, AheadWork.Of(dish, dish.DaysAhead))).Where(one => one.Item2.Count > 0)];
    }

    /// <summary>All that can be done ahead for a batch was done on a day.</summary>
    /// <param name="batchId">The batch, still to be cooked, on a later day.</param>
    /// <param name="day">The day it was done.</param>
    /// <param name="today">The household's day.</param>
    public Task<Outcome<IReadOnlyList<Guid>>> DoneAsync(Guid batchId, DateOnly day, DateOnly today) =>
        db.InTurnAsync<IReadOnlyList<Guid>>(async () =>
        {
            if (day > today) return new Problem("ahead-early", "day", "That day is still to come: nothing was done on it yet.");
            var could = await CouldBeDoneAsync(day);
            if (could.FirstOrDefault(one => one.Row.Id == batchId) is not { Row: { } batch, Work: { } work })
                return new Problem(NothingLeft, "batchId", "Nothing of this dish is left to be done ahead on that day.");
            List<AheadRow> done =
            [
                .. work.Select(one => new AheadRow
                {
                    Id = Guid.CreateVersion7(),
                    BatchId = batch.Id,
                    DoneOn = day,
                    Verb = one.Verb,
                    FoodId = one.FoodId,
                    What = one.What,
                    Milligrams = Milligrams.Of(one.Weight),
                    Step = one.Step,
                }),
            ];
            db.DoneAhead.AddRange(done);
            await db.SaveChangesAsync();
            return done.ConvertAll(row => row.Id);
        });

    /// <summary>It was not done after all, or is not there any more.</summary>
    public Task<Outcome<int>> TakeBackAsync(IReadOnlyList<Guid> ids) => db.InTurnAsync<int>(async () =>
    {
        var rows = await db.DoneAhead.Where(row => ids.Contains(row.Id)).ToListAsync();
        if (rows.Count == 0) return Stale.Gone("preparation");
        db.DoneAhead.RemoveRange(rows);
        await db.SaveChangesAsync();
        return rows.Count;
    });

    /// <summary>It stands somewhere else.</summary>
    public Task<Outcome<int>> PutAsync(Guid id, AheadPlace place) => db.InTurnAsync<int>(async () =>
    {
        if (await db.DoneAhead.SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("preparation");
        row.Place = place;
        await db.SaveChangesAsync();
        return 1;
    });
}
