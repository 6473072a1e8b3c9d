using System.Globalization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Core.Plan;

/// <summary>Something that a calendar shows.</summary>
/// <param name="Uid">Stays the same while the thing is the same.</param>
/// <param name="Day">The day.</param>
/// <param name="At">When, in the kitchen's own time; null for the whole day.</param>
/// <param name="Title">What.</param>
/// <param name="Text">More of it, line by line.</param>
public sealed record CalendarEntry(string Uid, DateOnly Day, TimeOnly? At, string Title, string Text);

/// <summary>
/// The plan as calendar entries: a meal for each slot with something in it, the days batches were or are to be cooked, and what is to be
/// thawed the day before.
/// </summary>
public static class WeekCalendar
{
    /// <summary>The entries of a plan, in the order of days; what is stored for a day far away is left out.</summary>
    /// <param name="eaters">Whose days.</param>
    /// <param name="board">The days.</param>
    /// <param name="stock">What lies on them, with every batch that is still to be cooked.</param>
    /// <param name="today">The household's day: what is still to be cooked on a day that is past is cooked today at the earliest.</param>
    public static IReadOnlyList<CalendarEntry> Of(IReadOnlyList<FittedEater> eaters, PlanBoard board, Stock stock, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(eaters);
        ArgumentNullException.ThrowIfNull(board);
        ArgumentNullException.ThrowIfNull(stock);
        var all = Meals(eaters, board, stock).Concat(Thaws(eaters, board, stock, today)).Concat(PrepDays(eaters, board, stock, today));
        return [.. all.Where(entry => KitchenDays.IsNear(entry.Day, today))
            .OrderBy(entry => entry.Day).ThenBy(entry => entry.At).ThenBy(entry => entry.Uid, StringComparer.Ordinal)];
    }

    private static IEnumerable<CalendarEntry> Meals(IReadOnlyList<FittedEater> eaters, PlanBoard board, Stock stock)
    {
        foreach (var who in eaters)
        {
            foreach (var (where, items) in board.Days.Where(day => day.Key.EaterId == who.Eater.Id))
            {
                var slots = who.Ways.Slots;
                Slot? SlotOf(PlanItem item) =>
                    slots.FirstOrDefault(slot => string.Equals(slot.Name, item.Slot, StringComparison.OrdinalIgnoreCase));
                foreach (var meal in items.GroupBy(SlotOf))
                {
                    var kcal = meal.Sum(item => MeasureTotals.Of(item.Contents(stock), null)[Measure.Energy].Known);
                    var names = meal.Select(item => item.Name(stock)).ToList();
                    var part = meal.Key is { } slot ? slot.Name + ", " : "";
                    var list = string.Join('\n', names.Select(name => "· " + name));
                    yield return new(
                        $"meal-{who.Eater.Id:N}-{Day(where.Day)}-{meal.Key?.Name ?? "day"}", where.Day, meal.Key?.At,
                        $"{who.Eater.Name}: {string.Join(", ", names)}",
                        $"{part}{kcal.ToString("0", CultureInfo.InvariantCulture)} kcal\n{list}");
                }
            }
        }
    }

    private static IEnumerable<CalendarEntry> Thaws(IReadOnlyList<FittedEater> eaters, PlanBoard board, Stock stock, DateOnly today) =>
        from eater in eaters
        from day in board.Days
        where day.Key.EaterId == eater.Eater.Id
        from item in day.Value
        where item.IsOfBatch && item.EatenAt is null
        let box = stock.BoxOf(item)!
        where UseBy.Of(box, today).IsFrozenFor(day.Key.Day)
        group (eater.Eater.Name, box.Batch.RecipeName) by day.Key.Day into frozen
        select Thaw(frozen.Key, [.. frozen]);

    private static CalendarEntry Thaw(DateOnly day, IReadOnlyList<(string Eater, string Dish)> boxes)
    {
        var dishes = string.Join(", ", boxes.Select(one => one.Dish).Distinct(StringComparer.Ordinal));
        var weekday = day.ToString("dddd", CultureInfo.InvariantCulture);
        var list = string.Join('\n', boxes.Select(one => $"· {one.Dish}, for {one.Eater} on {weekday}"));
        return new(
            $"thaw-{Day(day)}", KitchenDays.After(day, -1), null, $"Move to the fridge to thaw: {dishes}",
            list + "\nNever thaw on the counter (USDA FSIS).");
    }

    // The days batches were cooked that lie on the plan, and those on which others are to be.
    private static IEnumerable<CalendarEntry> PrepDays(
        IReadOnlyList<FittedEater> eaters, PlanBoard board, Stock stock, DateOnly today)
    {
        var items = board.Days.Where(day => eaters.Any(who => who.Eater.Id == day.Key.EaterId)).SelectMany(day => day.Value);
        var cooked = items.Where(item => item.IsOfBatch).Select(item => stock.BoxOf(item)!.Batch);
        var batches = cooked.Concat(stock.Unpacked.Values.Where(batch => batch.IsPlanned)).DistinctBy(batch => batch.Id);
        foreach (var day in batches.GroupBy(batch => batch.EatenFrom(today)))
        {
            var dishes = string.Join(", ", day.Select(batch => batch.RecipeName).Distinct(StringComparer.Ordinal));
            yield return new CalendarEntry($"prep-{Day(day.Key)}", day.Key, null, "Prep day: " + dishes, "");
        }
    }

    private static string Day(DateOnly day) => day.ToString("yyyyMMdd", CultureInfo.InvariantCulture);
}
