using LivelyTern.Core.Cook;
using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Run;
using LivelyTern.Core.Cook.Schedule;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook.Run;

/// <summary>A run as it stands at a moment.</summary>
/// <param name="Row">As it is kept.</param>
/// <param name="Day">What it is laid out from.</param>
/// <param name="SoFar">How far it has come.</param>
/// <param name="Batches">The batches it is about, those in their boxes too.</param>
public sealed record RunNow(RunRow Row, DayToCook Day, RunSoFar SoFar, IReadOnlyList<BatchRow> Batches)
{
    /// <summary>What is left, in the order it was laid out in.</summary>
    /// <param name="lay">Lays out a day, where another order may be taken; null to keep the order.</param>
    public RestOfRun Rest(Func<ScheduleProblem, LaidDay>? lay = null) => RestOfRun.Of(Day, SoFar, Row.Order.Tasks, lay);
}

/// <summary>Prep days as they happen: how far a run has come, and what the runs before it teach.</summary>
public sealed class RunReader(TernDb db, PrepDayStore days, TimeProvider clock)
{
    // How far back times are learned from.
    private const int LastRuns = 20;

    /// <summary>The run of a day as it is kept; null where none was begun.</summary>
    public Task<RunRow?> FindAsync(DateOnly day) =>
        db.Runs.AsNoTracking().Include(row => row.Tasks).Include(row => row.Ovens).SingleOrDefaultAsync(row => row.Day == day);

    /// <summary>The days whose runs go on; one that nobody has ended for days does not.</summary>
    public Task<IReadOnlyList<DateOnly>> GoingOnAsync() => LastAsync(isOverToo: false);

    /// <summary>The days of which a run goes on, or was ended lately.</summary>
    public Task<IReadOnlyList<DateOnly>> LastAsync() => LastAsync(isOverToo: true);

    private async Task<IReadOnlyList<DateOnly>> LastAsync(bool isOverToo)
    {
        var yesterday = clock.Today().AddDays(-1);
        return await db.Runs.Where(row => row.Day >= yesterday && (isOverToo || row.EndedAt == null)).OrderBy(row => row.Day)
            .Select(row => row.Day).ToListAsync();
    }

    /// <summary>The batches a prep day cooks, and those of later days that it prepares for.</summary>
    /// <param name="day">The day.</param>
    /// <param name="wishes">How it is wished.</param>
    public async Task<IReadOnlyList<PrepDish>> DishesAsync(DateOnly day, PrepDayWishes wishes)
    {
        ArgumentNullException.ThrowIfNull(wishes);
        bool IsAhead(BatchRow row) => row.State == BatchState.Planned && row.CookedOn > day && wishes.Ahead?.Contains(row.Id) == true;
        var rows = (await days.ToCookAsync()).Where(row => row.CookedOn == day || IsAhead(row)).ToList();
        var dishes = await days.DishesAsync(rows, day);
        return [.. dishes.Where(dish => dish.DaysAhead == 0 || AheadWork.Of(dish, dish.DaysAhead).Count > 0)];
    }

    /// <summary>A run as it stands now.</summary>
    public async Task<RunNow> NowAsync(RunRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        var begins = TimeOnly.FromDateTime(TimeZoneInfo.ConvertTime(row.StartedAt, clock.LocalTimeZone).DateTime);
        var wishes = (await days.WishesAsync(row.Day)).Wishes;
        var dishes = await DishesAsync(row.Day, wishes);
        var cooked = dishes.Where(dish => wishes.LeftOut?.Contains(dish.Id) != true).ToList();
        var begun = row.Tasks.OrderBy(task => task.EndedAt ?? task.StartedAt).ThenBy(task => task.TaskId, StringComparer.Ordinal)
            .Select(task => BegunOf(row, task)).ToList();
        var told = row.Tasks.SelectMany(task => task.Told.Dishes).Concat(dishes.Select(dish => dish.Id)).Distinct().ToList();
        var batches = await db.Batches.AsNoTracking().Where(batch => told.Contains(batch.Id)).OrderBy(batch => batch.CookedOn)
            .ThenBy(batch => batch.Id).ToListAsync();
        var day = new DayToCook(
            cooked, (await days.EquipmentAsync()).Equipment, wishes.Begun(new(begins.Hour, begins.Minute)), await TimesAsync(row.Day));
        var ovens = row.Ovens.Select(oven => new TurnedOn(oven.Oven, oven.Celsius, MinuteOf(row, oven.At))).ToList();
        return new(row, day, new(begun, ovens, MinuteOf(row, row.EndedAt ?? clock.GetUtcNow())), batches);
    }

    /// <summary>What the runs before a day teach about how long things take.</summary>
    public async Task<OwnTimes> TimesAsync(DateOnly before)
    {
        var rows = await db.Runs.AsNoTracking().Where(row => row.Day < before).OrderByDescending(row => row.Day).Take(LastRuns)
            .Include(row => row.Tasks).ToListAsync();
        if (rows.Count == 0) return OwnTimes.None;
        var dishes = rows.SelectMany(row => row.Tasks).SelectMany(task => task.Told.Dishes).Distinct().ToList();
        var recipes = await db.Batches.Where(batch => dishes.Contains(batch.Id))
            .ToDictionaryAsync(batch => batch.Id, batch => (Guid?)batch.RecipeId);
        return OwnTimes.From(rows.SelectMany(row => row.Tasks
            .SelectMany(task => BegunOf(row, task).Teaches(dish => recipes.GetValueOrDefault(dish)))));
    }

    private static BegunTask BegunOf(RunRow row, RunTaskRow task) => new(
        task.Told.ToTask(task.TaskId), task.Told.ToWay(), task.Told.ToMode(),
        task.StartedAt is { } start ? MinuteOf(row, start) : null, task.EndedAt is { } end ? MinuteOf(row, end) : null, task.Extra,
        task.IsSkipped);

    // Whole minutes; the second at which a key is pressed is nobody's matter.
    private static int MinuteOf(RunRow row, DateTimeOffset at)
    {
        static long Whole(DateTimeOffset time) => time.UtcTicks / TimeSpan.TicksPerMinute;
        return (int)Math.Clamp(Whole(at) - Whole(row.StartedAt), 0, 10_080);
    }
}
