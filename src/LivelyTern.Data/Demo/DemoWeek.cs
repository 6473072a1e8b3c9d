using System.Globalization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Keep;
using LivelyTern.Data.Pack;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Recipes;
using LivelyTern.Data.Review;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Demo;

/// <summary>
/// The demo: three keepers of a lighthouse station, last week behind them and this week in progress. It is laid through the same stores
/// and the same core that users go through, on days counted from today.
/// </summary>
public sealed class DemoWeek(
    TernDb db, EaterStore eaters, RecipeStore recipes, BatchStore batches, PackBatch packing, DayChanges changes, DemoDays days,
    DemoPast past, FoodStore foods, BoxNotesStore notes, VerdictStore verdicts, PutBoxes shelves, ContainerStore containers, DemoShop shop,
    DemoRun run, WeighInStore weighIns, TimeProvider clock)
{
    /// <summary>Lays the demo into an empty file; a file that holds anything is left as it is.</summary>
    public async Task SeedAsync()
    {
        if (await db.Eaters.AnyAsync() || await db.Recipes.AnyAsync()) return;
        await using var transaction = await db.Database.BeginTransactionAsync();
        var today = clock.Today();
        var monday = today.AddDays(-(((int)today.DayOfWeek + 6) % 7));
        var table = new Dictionary<string, Guid>(StringComparer.Ordinal);
        foreach (var (name, aim) in DemoKitchen.Eaters)
        {
            var added = Must(await eaters.AddAsync(name, aim, clinicianSetIt: false));
            var ways = DemoKitchen.Ways[name];
            table[name] = Must(await eaters.ChangeAsync(added.Id, added.Version, name, aim, clinicianSetIt: false, ways)).Id;
        }

        var book = new Dictionary<string, Guid>(StringComparer.Ordinal);
        foreach (var dish in DemoKitchen.Dishes) book[dish.Key] = Must(await recipes.AddAsync(dish.Written)).Id;

        await LayVariantAsync(book["FB"]);
        book["LB"] = Must(await recipes.AddAsync(DemoKitchen.Bowl)).Id;
        foreach (var own in DemoKitchen.OwnFoods) Must(await foods.AddOwnAsync(own));

        foreach (var (dish, written) in DemoKitchen.Notes) Must(await notes.SetAsync(book[dish], 0, written));
        await past.SeedAsync(monday, table);
        foreach (var start in new[] { monday.AddDays(-7), monday }) await LayWeekAsync(start, today, table, book);
        Must(await batches.CookAsync(book["LD"], today, today));

        // The prep day ahead.
        Must(await batches.PlanAsync(monday.AddDays(6), today, [.. DemoKitchen.Ahead.Select(ahead => (book[ahead.Key], ahead.Portions))]));
        foreach (var one in DemoKitchen.Containers) Must(await containers.AddAsync(one));
        await LayWeighInsAsync(today, table);
        await shop.SeedAsync();
        await run.SeedAsync(book["LD"]);
        await transaction.CommitAsync();
    }

    // Three months on the bathroom scale: water comes and goes, and one morning two digits were swapped.
    private async Task LayWeighInsAsync(DateOnly today, Dictionary<string, Guid> table)
    {
        foreach (var (name, start, perDay) in DemoKitchen.Scales)
        {
            for (var ago = DemoKitchen.WeighedDays; ago >= 0; ago -= ago % 7 == 3 ? 2 : ago % 5 == 0 ? 3 : 1)
            {
                var water = (0.45 * Math.Sin(ago * 0.9)) + (0.3 * Math.Sin((ago * 2.3) + start));
                var kg = Math.Round(start + (perDay * (DemoKitchen.WeighedDays - ago)) + water, 1);
                var (tens, ones) = Math.DivRem((int)kg, 10);
                if ((name, ago) == DemoKitchen.Swapped) kg = (10 * ones) + tens + (kg - Math.Truncate(kg));
                var text = string.Create(CultureInfo.InvariantCulture, $"{kg:0.0} kg");
                Must(await weighIns.SetAsync(table[name], today.AddDays(-ago), text, null));
            }
        }
    }

    // A flavour of the falafel: the same base, hotter.
    private async Task LayVariantAsync(Guid baseId)
    {
        var falafel = (await recipes.WrittenAsync()).Recipes[baseId];
        WrittenLine Hotter(WrittenLine line) =>
            line.Text.Contains("parsley", StringComparison.Ordinal) ? line with { Text = "1 cup fresh coriander, chopped" } : line;
        List<WrittenLine> lines = [.. falafel.Lines.Select(Hotter), new("2 tsp chilli powder")];
        Must(await recipes.AddAsync(falafel with { Name = "Hot falafel", Lines = lines }, baseId));
    }

    private async Task LayWeekAsync(DateOnly monday, DateOnly today, Dictionary<string, Guid> table, Dictionary<string, Guid> book)
    {
        var shelf = new Dictionary<string, Queue<Guid>>(StringComparer.Ordinal);
        var cooked = new Dictionary<string, Guid>(StringComparer.Ordinal);
        foreach (var dish in DemoKitchen.Dishes)
        {
            var batch = Must(await batches.CookAsync(book[dish.Key], monday.AddDays(-1), today));
            var (pan, full) = (new Grams(dish.Pan), new Grams(dish.Full));
            var packed = Must(await packing.DoAsync(batch.Id, batch.Version, new(pan, full, dish.Boxes, dish.Pieces)));
            cooked[dish.Key] = packed.Id;
            shelf[dish.Key] = new(db.Boxes.Local.Where(box => box.BatchId == packed.Id).OrderBy(box => box.Number).Select(box => box.Id));
        }

        if (monday.AddDays(6) < today)
            foreach (var said in DemoKitchen.Said)
                Must(await verdicts.SetAsync(cooked[said.Dish], table[said.Name], said.Serving, null, said.Verdict));
        await LayMealsAsync(monday, today, table, shelf);
        if (monday.AddDays(6) >= today)
        {
            await FreezeAsync(monday, today, book);
            return;
        }

        // What was left of a week that is over was eaten on its Sunday, but for a box that stood behind the others.
        shelf[DemoKitchen.Forgotten].Dequeue();
        var sunday = monday.AddDays(6);
        List<string> left = [.. shelf.SelectMany(dish => Enumerable.Repeat(dish.Key, dish.Value.Count))];
        IReadOnlyList<DemoMeal> Own(int at) => [.. left.Where((_, i) => i % table.Count == at).Select(key => new DemoMeal(key, key, true))];
        Func<int, string?> nowhere = _ => null;
        await days.LivedAsync([.. table.Values.Select((id, at) => (new EaterDay(id, sunday), Own(at), nowhere))], shelf);
    }

    private async Task LayMealsAsync(DateOnly monday, DateOnly today, Dictionary<string, Guid> table, Dictionary<string, Queue<Guid>> shelf)
    {
        var isOver = monday.AddDays(6) < today;
        var lived = new List<(EaterDay, IReadOnlyList<DemoMeal>, Func<int, string?>)>();
        var ahead = new List<(EaterDay Where, IReadOnlyList<DemoMeal> Meals, Func<int, string?> SlotOf)>();
        foreach (var (name, own) in DemoKitchen.Week)
        {
            for (var i = 0; i < own.Count; i++)
            {
                var where = new EaterDay(table[name], monday.AddDays(i));
                var otherwise = isOver ? DemoKitchen.LastWeek.GetValueOrDefault((name, i)) : null;
                var meals = DemoMeal.Of(otherwise is null ? own[i] : own[i] + " + " + otherwise);
                string[] texts = [.. meals.Select(meal => meal.Text)];
                (where.Day < today ? lived : ahead).Add((where, meals, meal => SlotOf(name, texts, meal)));
            }
        }

        if (lived.Count > 0) await days.LivedAsync(lived, shelf);
        foreach (var (where, meals, slotOf) in ahead)
        {
            var laid = await days.PlannedAsync(where, meals, shelf, slotOf);
            if (where.Day > today || laid.Count == 0) continue;
            var at = new DateTimeOffset(where.Day, new TimeOnly(7, 10), TimeSpan.Zero);
            Must(await changes.MakeAsync(null, [where], [laid[0].Id], board => board.Eat(laid[0].Id, at)));
        }
    }

    // On the prep day the later half went into the freezer, but for one dish, which is still to go there.
    private async Task FreezeAsync(DateOnly monday, DateOnly today, Dictionary<string, Guid> book)
    {
        var (prepDay, later) = (monday.AddDays(-1), monday.AddDays(2));
        var dishes = DemoKitchen.FrozenAtOnce.Select(key => book[key]).ToList();
        var laid = db.PlanItems.Where(item => item.Day > later && item.BoxId != null).Select(item => item.BoxId!.Value);
        var boxes = await db.Boxes.AsNoTracking()
            .Where(box => laid.Contains(box.Id) && dishes.Contains(box.Batch.RecipeId) && box.Batch.CookedOn == prepDay)
            .Where(box => box.State == BoxState.Packed)
            .ToDictionaryAsync(box => box.Id, box => box.Version);
        if (boxes.Count == 0) return;
        Must(await shelves.DoAsync(boxes, BoxPlace.Freezer, prepDay < today ? prepDay : today, today));
        db.ChangeTracker.Clear();
    }

    // The first meal, and what is eaten with it, begins the day; the boxes of dishes after it are its middle and its end.
    private static string SlotOf(string name, string[] meals, int meal)
    {
        var slots = DemoKitchen.Ways[name].Slots;
        var boxes = Enumerable.Range(0, meals.Length)
            .Where(i => i > 0 && meals[i].Length == 2 && !string.Equals(meals[i], "SB", StringComparison.Ordinal)).ToList();
        var place = boxes.Count == 0 || meal < boxes[0] ? 0 : boxes.IndexOf(meal) is >= 0 and var at ? Math.Min(at + 1, 2) : 3;
        return slots[place].Name;
    }

    internal static T Must<T>(Outcome<T> outcome) =>
        outcome.Succeeded
            ? outcome.Value!
            : throw new InvalidOperationException("The demo does not pass the program's own rules: " + outcome.Problems[0].Sentence);
}
