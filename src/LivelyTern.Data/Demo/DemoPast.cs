using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Review;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Cook.Run;
using LivelyTern.Data.Pack;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Recipes;
using LivelyTern.Data.Review;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Demo;

/// <summary>
/// The demo's ten weeks before the last: two dishes that the station no longer cooks, and days as they were planned and eaten. Written when
/// the clock stood there.
/// </summary>
public sealed class DemoPast(
    TernDb db, DemoDays days, RecipeStore recipes, BatchStore batches, PackBatch packing, DayChanges changes, EyeStore eyes,
    VerdictStore verdicts, TimeProvider clock)
{
    /// <summary>Lays them, and has the clock stand where it stood.</summary>
    /// <param name="monday">The Monday of the week in progress.</param>
    /// <param name="table">The eaters by name.</param>
    internal async Task SeedAsync(DateOnly monday, IReadOnlyDictionary<string, Guid> table)
    {
        if (clock is not IMovableClock movable) return;
        var opened = clock.GetUtcNow();
        var dishes = new Dictionary<string, Guid>(StringComparer.Ordinal);
        movable.MoveTo(At(monday.AddDays(-7 * (DemoHistory.Weeks + 1)), 9));
        foreach (var dish in DemoHistory.Dishes) dishes[dish.Key] = DemoWeek.Must(await recipes.AddAsync(dish.Written)).Id;
        for (var ago = DemoHistory.Weeks + 1; ago > 1; ago--) await WeekAsync(monday.AddDays(-7 * ago), ago, table, dishes, movable);
        foreach (var row in await db.Recipes.AsNoTracking().Where(row => dishes.Values.Contains(row.Id)).ToListAsync())
            DemoWeek.Must(await recipes.ArchiveAsync(row.Id, row.Version, archived: true));
        movable.MoveTo(opened);
    }

    private async Task WeekAsync(
        DateOnly monday, int ago, IReadOnlyDictionary<string, Guid> table, Dictionary<string, Guid> dishes, IMovableClock movable)
    {
        var sunday = monday.AddDays(-1);
        movable.MoveTo(At(sunday, 15));
        var lived =
            (from name in table.Keys
             from day in Enumerable.Range(0, 7)
             select (Name: name, Day: day, Meals: DemoHistory.On(name, ago, day))).ToList();
        var thrown = DemoHistory.ThrownAway.GetValueOrDefault(ago);
        var shelf = new Dictionary<string, Queue<Guid>>(StringComparer.Ordinal);
        var cooked = new Dictionary<string, Guid>(StringComparer.Ordinal);
        foreach (var dish in DemoHistory.Dishes)
        {
            var boxes = lived.SelectMany(one => one.Meals).Count(meal => string.Equals(meal.Text, dish.Key, StringComparison.Ordinal));
            if (string.Equals(thrown, dish.Key, StringComparison.Ordinal)) boxes++;
            if (boxes == 0) continue;
            var batch = DemoWeek.Must(await batches.CookAsync(dishes[dish.Key], sunday, sunday));
            var packed = DemoWeek.Must(await packing.DoAsync(batch.Id, batch.Version, new(new(dish.Pan), new(dish.Full), boxes, null)));
            cooked[dish.Key] = packed.Id;
            shelf[dish.Key] = new(await db.Boxes.AsNoTracking().Where(box => box.BatchId == packed.Id).OrderBy(box => box.Number)
                .Select(box => box.Id).ToListAsync());
        }

        await RanAsync(sunday, ago);
        movable.MoveTo(At(monday.AddDays(6), 21));
        Func<int, string?> nowhere = _ => null;
        var noted = lived.Where(one => one.Meals.Count > 0)
            .Select(one => (new EaterDay(table[one.Name], monday.AddDays(one.Day)), one.Meals, nowhere));
        await days.LivedAsync([.. noted], shelf);
        db.ChangeTracker.Clear();
        if (thrown is not null)
        {
            var version = (await db.PlanVersions.AsNoTracking().SingleAsync()).Version;
            var gone = await changes.LetGoAsync(version, [shelf[thrown].Dequeue()], BoxEventKind.ThrownAway, "forgotten at the back");
            DemoWeek.Must(gone);
        }

        foreach (var (guess, real) in DemoHistory.Guessed.Where(one => one.WeeksAgo == ago).Select(one => (one.Guess, one.Real)))
            DemoWeek.Must(await eyes.AddAsync(null, "a ladle of soup", new EyeTry(null, new(guess), new(real), 0.6m)));
        foreach (var said in DemoHistory.Said.Where(one => one.WeeksAgo == ago && cooked.ContainsKey(one.Dish)))
            DemoWeek.Must(await verdicts.SetAsync(cooked[said.Dish], table[said.Name], Serving.Reheated, null, said.Verdict));
        db.ChangeTracker.Clear();
    }

    // How long the prep day took; which task took how long is not told.
    private async Task RanAsync(DateOnly sunday, int ago)
    {
        var (planned, real) = DemoHistory.Minutes(ago);
        db.Runs.Add(new RunRow
        {
            Day = sunday,
            StartedAt = At(sunday, 13),
            EndedAt = At(sunday, 13).AddMinutes(real),
            PlannedEnd = planned,
            Order = new(1, []),
        });
        await db.SaveChangesAsync();
    }

    private static DateTimeOffset At(DateOnly day, int hour) => new(day, new TimeOnly(hour, 0), TimeSpan.Zero);
}
