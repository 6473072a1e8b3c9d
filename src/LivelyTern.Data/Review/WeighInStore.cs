using LivelyTern.Core.Measures;
using LivelyTern.Core.Review;
using LivelyTern.Data.Eat;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Review;

/// <summary>The weigh-ins of eaters, one a day, and what they noted as eaten.</summary>
public sealed class WeighInStore(TernDb db, TimeProvider clock)
{
    /// <summary>An eater's weigh-ins in the order of days.</summary>
    public async Task<IReadOnlyList<WeighInRow>> OfAsync(Guid eaterId) =>
        await db.WeighIns.AsNoTracking().Where(row => row.EaterId == eaterId).OrderBy(row => row.Day).ToListAsync();

    /// <summary>What an eater noted as eaten, day by day: the entries that stand.</summary>
    public async Task<IReadOnlyList<DayIntake>> IntakeAsync(Guid eaterId)
    {
        var days = await db.StandingEntries().Where(entry => entry.EaterId == eaterId)
            .GroupBy(entry => entry.Day)
            .Select(day => new { day.Key, Tenths = day.Sum(entry => entry.Decikilocalories) }).ToListAsync();
        return [.. days.OrderBy(day => day.Key).Select(day => new DayIntake(day.Key, day.Tenths / 10m))];
    }

    /// <summary>
    /// Days on which something was eaten whose energy is not known: a meal by its name only, a packet by its points. What was noted of
    /// them is less than what was eaten.
    /// </summary>
    /// <param name="eaterId">Whose.</param>
    /// <param name="from">The first day that is looked at.</param>
    public async Task<IReadOnlySet<DateOnly>> OpenDaysAsync(Guid eaterId, DateOnly from) =>
        (await db.Database.SqlQuery<DateOnly>($"""
            SELECT DISTINCT entry.Day AS Value FROM Entries entry
            WHERE entry.EaterId = {eaterId} AND entry.Day >= {from} AND NOT entry.IsTakenBack
            AND NOT EXISTS (SELECT 1 FROM Entries other WHERE other.CorrectsId = entry.Id)
            AND json_extract(entry.Measures, '$.totals.energy.isComplete') = 0
            """).ToListAsync()).ToHashSet();

    /// <summary>Writes down what the scale said on a day.</summary>
    /// <param name="eaterId">Whose.</param>
    /// <param name="day">The day, today or before it.</param>
    /// <param name="text">As typed; a bare number is in the unit this eater used last.</param>
    /// <param name="before">What the writer saw there; null for nothing. Where something else stands there, it is refused.</param>
    public Task<Outcome<WeighInRow>> SetAsync(Guid eaterId, DateOnly day, string text, string? before) =>
        db.InTurnAsync(() => WriteAsync(eaterId, day, text, before));

    private async Task<Outcome<WeighInRow>> WriteAsync(Guid eaterId, DateOnly day, string text, string? before)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (!await db.Eaters.AnyAsync(row => row.Id == eaterId && row.ArchivedAt == null)) return Stale.Gone("eater");
        if (KitchenDays.Refusal(day, clock.Today(), "day") is { } far) return far;
        if (day > clock.Today()) return new Problem("day-ahead", "day", "That day is still to come: nothing was weighed on it yet.");
        var last = await db.WeighIns.AsNoTracking().Where(row => row.EaterId == eaterId).OrderByDescending(row => row.WrittenAt)
            .FirstOrDefaultAsync();
        var said = SaidWeight.Read(text, last?.Unit ?? BodyUnit.Kilogram);
        if (!said.Succeeded) return said.Problems.ToList();
        var found = await AtAsync(eaterId, day, before);
        if (!found.Succeeded) return found.Problems.ToList();
        var row = found.Value;
        if (row is null) db.WeighIns.Add(row = new() { EaterId = eaterId, Day = day, Text = text.Trim() });
        (row.Grams, row.Unit, row.Text, row.WrittenAt) =
            ((int)(said.Value.Kg * 1000), said.Value.Unit, text.Trim(), clock.GetUtcNow());
        await db.SaveChangesAsync();
        return row;
    }

    /// <summary>Takes a weigh-in off its day.</summary>
    /// <param name="eaterId">Whose.</param>
    /// <param name="day">The day.</param>
    /// <param name="before">What the writer saw there.</param>
    public Task<Outcome<WeighInRow>> RemoveAsync(Guid eaterId, DateOnly day, string? before) => db.InTurnAsync<WeighInRow>(async () =>
    {
        var found = await AtAsync(eaterId, day, before);
        if (!found.Succeeded) return found.Problems.ToList();
        if (found.Value is not { } row) return Stale.Gone("weigh-in");
        db.WeighIns.Remove(row);
        await db.SaveChangesAsync();
        return row;
    });

    private async Task<Outcome<WeighInRow?>> AtAsync(Guid eaterId, DateOnly day, string? before)
    {
        var row = await db.WeighIns.SingleOrDefaultAsync(one => one.EaterId == eaterId && one.Day == day);
        if (string.Equals(row?.Text, before, StringComparison.Ordinal)) return row;
        var sentence = row is null
            ? "That weigh-in is no longer there: look at the list as it is now."
            : $"{row.Text} is written down for that day already: change it in the list.";
        return new Problem("weigh-in-there", "day", sentence);
    }
}
