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
    TernDb db, EaterStore eaters, RecipeStore recipes, BatchStore batches, PackBatch packing, DayChanges days, FoodStore foods,
    PutBoxes shelves, ContainerStore containers, DemoShop shop, DemoRun run, WeighInStore weighIns,
    TimeProvider clock)
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
        foreach (var dish in DemoKitchen.Dishes)
        {
            var batch = Must(await batches.CookAsync(book[dish.Key], monday.AddDays(-1), today));
            var (pan, full) = (new Grams(dish.Pan), new Grams(dish.Full));
            var packed = Must(await packing.DoAsync(batch.Id, batch.Version, new(pan, full, dish.Boxes, dish.Pieces)));
            shelf[dish.Key] = new(db.Boxes.Local.Where(box => box.BatchId == packed.Id).OrderBy(box => box.Number).Select(box => box.Id));
        }

        await LayMealsAsync(monday, today, table, shelf);
        if (monday.AddDays(6) >= today)
        {
            await FreezeAsync(monday, today, book);
            return;
        }

        // What was left of a week that is over was eaten on its Sunday, but for a box that stood behind the others.
        shelf[DemoKitchen.Forgotten].Dequeue();
        var sunday = monday.AddDays(6);
        var eaten = new DateTimeOffset(sunday, new TimeOnly(19, 0), TimeSpan.Zero);
        List<string> left = [.. shelf.SelectMany(dish => Enumerable.Repeat(dish.Key, dish.Value.Count))];
        for (var i = 0; i < left.Count; i++)
        {
            var where = new EaterDay(table.Values.ElementAt(i % table.Count), sunday);
            await LayAsync(left[i], where, eaten, shelf, await foods.CatalogueAsync());
        }
    }

    private async Task LayMealsAsync(DateOnly monday, DateOnly today, Dictionary<string, Guid> table, Dictionary<string, Queue<Guid>> shelf)
    {
        var catalogue = await foods.CatalogueAsync();
        foreach (var (name, days) in DemoKitchen.Week)
        {
            for (var i = 0; i < days.Count; i++)
            {
                var where = new EaterDay(table[name], monday.AddDays(i));
                var meals = days[i].Split(" + ", StringSplitOptions.RemoveEmptyEntries);
                for (var meal = 0; meal < meals.Length; meal++)
                {
                    var isEaten = where.Day < today || (where.Day == today && meal == 0);
                    DateTimeOffset? at = isEaten
                        ? new DateTimeOffset(where.Day, new TimeOnly(Math.Min(7 + (3 * meal), 21), 10), TimeSpan.Zero)
                        : null;
                    await LayAsync(meals[meal], where, at, shelf, catalogue, SlotOf(name, meals, meal));
                }
            }
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

    private async Task LayAsync(
        string meal, EaterDay where, DateTimeOffset? eatenAt, Dictionary<string, Queue<Guid>> shelf, FoodCatalogue catalogue,
        string? slot = null)
    {
        Ingredient Food() =>
            FoodLine.Read(meal, catalogue).Ingredient ?? throw new InvalidOperationException($"The demo can't read “{meal}”.");
        Laid what = shelf.TryGetValue(meal, out var boxes) ? new LaidBox(boxes.Dequeue()) : new PlainFood(meal, Food());
        var item = new PlanItem(Guid.CreateVersion7(), what, eatenAt) { Slot = slot };
        db.ChangeTracker.Clear();
        Must(await days.MakeAsync(null, [where], item.BoxId is { } box ? [box] : [], board => board.Lay(item, where, int.MaxValue)));
    }

    private static T Must<T>(Outcome<T> outcome) =>
        outcome.Succeeded
            ? outcome.Value!
            : throw new InvalidOperationException("The demo does not pass the program's own rules: " + outcome.Problems[0].Sentence);
}
