using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Review;
using LivelyTern.Core.Shop;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Shop;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Review;

/// <summary>A prep day as it was planned when it began, and as it went.</summary>
/// <param name="Day">The day.</param>
/// <param name="PlannedMinutes">From its beginning to its planned end.</param>
/// <param name="RealMinutes">To its real end; null where nobody ended it.</param>
/// <param name="HandsOnPlanned">Hands-on minutes planned of what somebody saw begin and end.</param>
/// <param name="HandsOnReal">How long that took.</param>
/// <param name="Dishes">What was cooked.</param>
public sealed record PrepDayTaken(
    DateOnly Day, int PlannedMinutes, int? RealMinutes, int HandsOnPlanned, int HandsOnReal, IReadOnlyList<string> Dishes);

/// <summary>What was thrown away in a week.</summary>
/// <param name="Monday">Its Monday.</param>
/// <param name="Boxes">How many boxes, or rests of them.</param>
/// <param name="Weight">What was in them.</param>
/// <param name="Energy">Their energy.</param>
/// <param name="Cost">What that cost, as far as prices were noted.</param>
/// <param name="Dishes">Dish by dish.</param>
public sealed record WasteOfWeek(
    DateOnly Monday, int Boxes, Grams Weight, Total Energy, Cost Cost, IReadOnlyList<string> Dishes);

/// <summary>What the weeks teach about the kitchen: portions, what was thrown away, how long cooking took.</summary>
public sealed class KitchenRecords(TernDb db, ThrownAway thrown, ShopStore shop, FoodStore foods, TimeProvider clock)
{
    private const int Weeks = 26, PrepDays = 20;

    /// <summary>How well portions were judged by eye over the last half year, month by month, the last first.</summary>
    public async Task<IReadOnlyList<PortionAccuracy>> PortionsAsync()
    {
        var since = clock.Today().AddDays(-7 * Weeks);
        var tries = (await db.EyeTries.AsNoTracking().ToListAsync()).Select(row => (Day: clock.DayOf(row.At), Try: row.Read()));
        return PortionAccuracy.ByMonth(tries.Where(one => one.Day >= since));
    }

    /// <summary>What was thrown away over the last half year, week by week, the last first.</summary>
    public async Task<IReadOnlyList<WasteOfWeek>> WasteAsync()
    {
        var boxes = await thrown.SinceAsync(clock.Today().AddDays(-7 * Weeks));
        if (boxes.Count == 0) return [];
        var (soldAs, known) = (await shop.SoldAsAsync(), await foods.AllAsync());
        Cost CostOf(Box rest) => Cost.Of(
            rest.Contents.Ingredients.Select(part => AsPurchased.Of(part, "", known.Find)).OfType<Needed>(), soldAs);
        WasteOfWeek Week(IGrouping<DateOnly, ThrownBox> week)
        {
            var costs = week.Select(one => CostOf(one.Rest)).ToList();
            return new(
                week.Key, week.Count(), new(week.Sum(one => one.Rest.Weight.Value)),
                week.Aggregate(Total.None, (sum, one) => sum + one.Rest.Contents.Totals[Nutrient.Energy]),
                new(costs.Sum(cost => cost.Known), costs.Sum(cost => cost.Unpriced)),
                [.. week.Select(one => one.Rest.Batch.RecipeName).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)]);
        }

        return [.. boxes.GroupBy(one => KitchenDays.MondayOf(clock.DayOf(one.At))).OrderByDescending(week => week.Key).Select(Week)];
    }

    /// <summary>The last prep days, the latest first.</summary>
    public async Task<IReadOnlyList<PrepDayTaken>> PrepDaysAsync()
    {
        var runs = await db.Runs.AsNoTracking().Include(row => row.Tasks).OrderByDescending(row => row.Day).Take(PrepDays).ToListAsync();
        var ids = runs.SelectMany(row => row.Tasks).SelectMany(task => task.Told.Dishes).Distinct().ToList();
        var names = await db.Batches.AsNoTracking().Where(row => ids.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, row => row.RecipeName);
        return
        [
            .. runs.Select(row =>
            {
                var done = row.Tasks.FindAll(IsTimed);
                var dishes = row.Tasks.SelectMany(task => task.Told.Dishes).Distinct().Select(names.GetValueOrDefault).OfType<string>();
                return new PrepDayTaken(
                    row.Day, row.PlannedEnd, row.EndedAt is { } end ? Minutes(row.StartedAt, end) : null,
                    done.Sum(task => task.Told.ToMode().Minutes), done.Sum(task => Minutes(task.StartedAt!.Value, task.EndedAt!.Value)),
                    [.. dishes.Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)]);
            }),
        ];
    }

    // Somebody saw it begin and end.
    private static bool IsTimed(Cook.Run.RunTaskRow task) =>
        task is { IsSkipped: false, StartedAt: not null, EndedAt: not null } && task.Told.ToTask(task.TaskId).IsHandsOn;

    private static int Minutes(DateTimeOffset from, DateTimeOffset to) => (int)Math.Round((to - from).TotalMinutes);
}
