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
/// The plan as calendar entries: a meal for each slot with something in it, the days batches were or are to be cooked, what is to be
/// frozen on that day and thawed the day before it is eaten, and what is on no day and has its last.
/// </summary>
public static class WeekCalendar
{
    /// <summary>The entries of a plan, in the order of days; what is stored for a day far away is left out.</summary>
    /// <param name="eaters">Whose days.</param>
    /// <param name="board">The days.</param>
    /// <param name="stock">What lies on them, with every batch that is still to be cooked.</param>
    /// <param name="shelf">The boxes that lie on no day.</param>
    /// <param name="today">The household's day: what is still to be cooked on a day that is past is cooked today at the earliest.</param>
    public static IReadOnlyList<CalendarEntry> Of(
        IReadOnlyList<FittedEater> eaters, PlanBoard board, Stock stock, IReadOnlyList<Box> shelf, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(eaters);
        ArgumentNullException.ThrowIfNull(board);
        ArgumentNullException.ThrowIfNull(stock);
        ArgumentNullException.ThrowIfNull(shelf);
        var all = Meals(eaters, board, stock).Concat(Freezes(eaters, board, stock, today)).Concat(Thaws(eaters, board, stock, today))
            .Concat(LastDays(shelf, stock.Rules, today)).Concat(PrepDays(eaters, board, stock, today));
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
                    var figure = who.IsQuiet ? null : kcal.ToString("0", CultureInfo.InvariantCulture) + " kcal";
                    var names = meal.Select(item => item.Name(stock)).ToList();
                    var head = string.Join(", ", new[] { meal.Key?.Name, figure }.Where(one => one is not null));
                    var list = names.Select(name => "· " + name);
                    yield return new(
                        $"meal-{who.Eater.Id:N}-{Day(where.Day)}-{meal.Key?.Name ?? "day"}", where.Day, meal.Key?.At,
                        $"{who.Eater.Name}: {string.Join(", ", names)}",
                        string.Join('\n', head.Length > 0 ? list.Prepend(head) : list));
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
        where UseBy.Of(box, today, stock.Rules).IsFrozenFor(day.Key.Day)
        group (eater.Eater.Name, box.Batch.RecipeName) by day.Key.Day into frozen
        select Thaw(frozen.Key, [.. frozen]);

    // What is for a day after its last in the fridge is frozen on the day it is cooked, or today where that is past.
    private static IEnumerable<CalendarEntry> Freezes(
        IReadOnlyList<FittedEater> eaters, PlanBoard board, Stock stock, DateOnly today) =>
        from eater in eaters
        from day in board.Days
        where day.Key.EaterId == eater.Eater.Id && day.Key.Day >= today
        from item in day.Value
        where item.IsOfBatch && item.EatenAt is null
        let box = stock.BoxOf(item)!
        let kept = new KeptBox(box, UseBy.Of(box, today, stock.Rules), new(day.Key, item.Id))
        where KeepingTasks.MustBeFrozen(kept) && !kept.IsOver(today)
        let cooked = box.Batch.EatenFrom(today)
        group $"{box.Batch.RecipeName}, for {eater.Eater.Name} on {Weekday(day.Key.Day)}" by cooked > today ? cooked : today into night
        select new CalendarEntry(
            $"freeze-{Day(night.Key)}", night.Key, null, "Freeze tonight: " + Boxes(night.Count()), Listed(night));

    private static IEnumerable<CalendarEntry> LastDays(IReadOnlyList<Box> shelf, KeepingRules rules, DateOnly today) =>
        from box in shelf
        let last = UseBy.Of(box, today, rules).Last
        where last >= today
        group box.Batch.RecipeName by last into day
        let dishes = day.GroupBy(dish => dish, StringComparer.Ordinal).Select(dish => $"{dish.Key}, {Boxes(dish.Count())}")
        select new CalendarEntry(
            $"last-day-{Day(day.Key)}", day.Key, null, $"Last day: {Boxes(day.Count())} on no day of the plan",
            Listed(dishes));

    private static string Boxes(int count) => count == 1 ? "1 box" : $"{count} boxes";

    private static string Listed(IEnumerable<string> lines) => string.Join('\n', lines.Select(line => "· " + line));

    private static string Weekday(DateOnly day) => day.ToString("dddd", CultureInfo.InvariantCulture);

    private static CalendarEntry Thaw(DateOnly day, IReadOnlyList<(string Eater, string Dish)> boxes)
    {
        var dishes = string.Join(", ", boxes.Select(one => one.Dish).Distinct(StringComparer.Ordinal));
        var list = Listed(boxes.Select(one => $"{one.Dish}, for {one.Eater} on {Weekday(day)}"));
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
