using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Recipes;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Demo;

/// <summary>
/// The demo: three keepers of a lighthouse station, last week behind them and this week in progress. It is laid through the same stores
/// and the same core that users go through, on days counted from today.
/// </summary>
public sealed class DemoWeek(TernDb db, EaterStore eaters, RecipeStore recipes, BatchStore batches, PlanStore plan, FoodStore foods, TimeProvider clock)
{
    /// <summary>Lays the demo into an empty file; a file that holds anything is left as it is.</summary>
    public async Task SeedAsync()
    {
        if (await db.Eaters.AnyAsync() || await db.Recipes.AnyAsync()) return;
        await using var transaction = await db.Database.BeginTransactionAsync();
        var today = DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
        var monday = today.AddDays(-(((int)today.DayOfWeek + 6) % 7));
        var table = new Dictionary<string, Guid>(StringComparer.Ordinal);
        foreach (var (name, aim) in DemoKitchen.Eaters) table[name] = Must(await eaters.AddAsync(name, aim, clinicianSetIt: false)).Id;
        var book = new Dictionary<string, Guid>(StringComparer.Ordinal);
        foreach (var dish in DemoKitchen.Dishes)
            book[dish.Key] = Must(await recipes.AddAsync(dish.Name, [.. dish.Lines.Select(line => new WrittenLine(line))], dish.Boxes)).Id;

        foreach (var start in new[] { monday.AddDays(-7), monday }) await LayWeekAsync(start, today, table, book);
        Must(await batches.CookAsync(book["LD"], today));
        await transaction.CommitAsync();
    }

    private async Task LayWeekAsync(DateOnly monday, DateOnly today, Dictionary<string, Guid> table, Dictionary<string, Guid> book)
    {
        var shelf = new Dictionary<string, Queue<Guid>>(StringComparer.Ordinal);
        foreach (var dish in DemoKitchen.Dishes)
        {
            var batch = Must(await batches.CookAsync(book[dish.Key], monday.AddDays(-1)));
            var packed = Must(await batches.PackAsync(batch.Id, batch.Version, new Grams(dish.Pan), new Grams(dish.Full), dish.Boxes, dish.Pieces));
            shelf[dish.Key] = new(packed.Boxes.OrderBy(box => box.Number).Select(box => box.Id));
        }

        await LayMealsAsync(monday, today, table, shelf);
        if (monday.AddDays(6) >= today) return;

        // What was left of a week that is over was eaten on its Sunday.
        var sunday = monday.AddDays(6);
        var eaten = new DateTimeOffset(sunday, new TimeOnly(19, 0), TimeSpan.Zero);
        foreach (var (dish, i) in shelf.Where(dish => dish.Value.Count > 0).SelectMany(dish => Enumerable.Repeat(dish.Key, dish.Value.Count)).Select((dish, i) => (dish, i)).ToList())
            await LayAsync(dish, new EaterDay(table.Values.ElementAt(i % table.Count), sunday), eaten, shelf, await foods.CatalogueAsync());
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
                    DateTimeOffset? at = isEaten ? new DateTimeOffset(where.Day, new TimeOnly(Math.Min(7 + (3 * meal), 21), 10), TimeSpan.Zero) : null;
                    await LayAsync(meals[meal], where, at, shelf, catalogue);
                }
            }
        }
    }

    private async Task LayAsync(string meal, EaterDay where, DateTimeOffset? eatenAt, Dictionary<string, Queue<Guid>> shelf, FoodCatalogue catalogue)
    {
        var item = shelf.TryGetValue(meal, out var boxes)
            ? new PlanItem(Guid.CreateVersion7(), boxes.Dequeue(), null, null, eatenAt)
            : new PlanItem(Guid.CreateVersion7(), null, meal, FoodLine.Read(meal, catalogue).Ingredient ?? throw new InvalidOperationException($"The demo can't read “{meal}”."), eatenAt);
        db.ChangeTracker.Clear();
        Must(await plan.ChangeAsync(null, [where], item.BoxId is { } box ? [box] : [], board => board.Lay(item, where, int.MaxValue)));
    }

    private static T Must<T>(Outcome<T> outcome) =>
        outcome.Succeeded ? outcome.Value! : throw new InvalidOperationException("The demo does not pass the program's own rules: " + outcome.Problems[0].Sentence);
}

/// <summary>A dish of the demo: its recipe, the pan, and the boxes it goes into.</summary>
internal sealed record DemoDish(string Key, string Name, int Boxes, int? Pieces, decimal Pan, decimal Full, IReadOnlyList<string> Lines);

/// <summary>The demo's invented kitchen.</summary>
internal static class DemoKitchen
{
    public static IReadOnlyList<(string Name, DayAim Aim)> Eaters { get; } =
    [
        ("Isa", new(Measure.Energy, new Dictionary<Measure, Band>
        {
            [Measure.Energy] = new(1450, 1525, 1600), [Measure.Protein] = new(Min: 70),
        }, PointsRule.Starting)),
        ("Bram", new(Measure.Energy, new Dictionary<Measure, Band>
        {
            [Measure.Energy] = new(2100, 2200, 2300), [Measure.Protein] = new(Min: 110), [Measure.Fat] = new(Max: 90),
        }, null)),
        ("Noor", new(Measure.Points, new Dictionary<Measure, Band>
        {
            [Measure.Points] = new(Max: 26), [Measure.Energy] = new(Min: 1450, Max: 1850), [Measure.Protein] = new(Min: 75),
        }, new("Night watch", new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 0.02m, [Nutrient.SaturatedFat] = 0.15m, [Nutrient.Fibre] = -0.05m }, 1m,
            [FoodGroup.Vegetables, FoodGroup.Fruit], ["egg", "egg-white", "greek-yogurt-fat-free"]))),
    ];

    public static IReadOnlyList<DemoDish> Dishes { get; } =
    [
        new("BP", "Buckwheat pancakes", 8, 24, 0, 1710,
            ["300 g buckwheat flour", "100 g wheat flour, wholemeal", "4 eggs", "700 ml oat milk", "2 bananas, medium", "3 tbsp rapeseed oil", "2 tsp baking powder", "a pinch of salt"]),
        new("LD", "Red lentil dal", 10, null, 1630, 5930,
            ["700 g red lentils, dry", "2 x 400 g tin chopped tomatoes", "2 x 400 ml tin light coconut milk", "3 onions, chopped", "350 g spinach, frozen", "3 tbsp rapeseed oil", "4 tsp curry powder", "1.5 l water"]),
        new("BM", "Barley and mushroom stew", 9, null, 1630, 6070,
            ["600 g pearl barley", "800 g mushrooms, sliced", "3 onions, chopped", "4 carrots", "3 tbsp olive oil", "200 g cheddar, grated", "2 l vegetable stock", "2 tbsp parsley, chopped"]),
        new("FF", "Fish and fennel tray bake", 8, null, 940, 4460,
            ["1.4 kg cod fillet", "1.8 kg potatoes", "3 fennel bulbs", "6 tbsp olive oil", "4 tbsp lemon juice", "1/4 cup parsley", "black pepper, to taste"]),
        new("FB", "Baked falafel", 6, 24, 610, 1720,
            ["2 x 400 g tin chickpeas, drained", "1 cup parsley, chopped", "3 tbsp tahini", "60 g plain flour", "4 tbsp olive oil", "1 tbsp cumin", "3 cloves garlic"]),
        new("CE", "Chickpea and spinach egg squares", 6, 12, 870, 2590,
            ["12 eggs", "400 g chickpeas, drained", "300 g spinach, frozen", "150 g feta", "2 onions, chopped", "2 tbsp olive oil"]),
        new("SB", "Seed bars", 20, 20, 0, 830,
            ["300 g rolled oats", "120 g sunflower seeds", "100 g pumpkin seeds", "150 g honey", "100 g dates", "80 g peanut butter"]),
    ];

    /// <summary>Seven days for each eater, meals in order; two letters are a box of that dish, all else a plain food as typed.</summary>
    public static IReadOnlyList<(string Name, IReadOnlyList<string> Days)> Week { get; } =
    [
        ("Isa",
        [
            "BP + LD + 1 apple + FF + SB + 150 g skyr",
            "BP + BM + 1 pear + CE + SB + 200 g skyr",
            "BP + FF + 1 apple + LD",
            "BP + FB + 1 pear + BM + SB + 250 g skyr + 30 g walnuts",
            "60 g quick oats + 200 ml oat milk + LD + 250 g skyr + BM + SB + 1 apple",
            "60 g quick oats + 200 ml oat milk + 1 banana + CE + SB",
            "60 g quick oats + 200 ml oat milk + 1 banana",
        ]),
        ("Bram",
        [
            "80 g rolled oats + 300 ml oat milk + 1 banana + FF + 2 slices rye bread + 3 eggs + LD + SB + 300 g skyr",
            "80 g rolled oats + 300 ml oat milk + 1 banana + LD + 2 slices rye bread + 3 eggs + BM + SB + 300 g skyr",
            "80 g rolled oats + 300 ml oat milk + 1 banana + FF + 2 slices rye bread + 3 eggs + BM + SB + 300 g skyr",
            "80 g rolled oats + 300 ml oat milk + CE + 1 banana + FB + 2 slices rye bread + BM + SB + 200 g cottage cheese + 200 g skyr",
            "80 g rolled oats + 300 ml oat milk + 1 banana + LD + 2 slices rye bread + 3 eggs + FB + SB + 300 g skyr",
            "80 g rolled oats + 300 ml oat milk + 1 banana + BM + 2 slices rye bread + SB + 300 g skyr",
            "80 g rolled oats + 300 ml oat milk + 1 banana",
        ]),
        ("Noor",
        [
            "BP + 200 g skyr + BM + 1 apple + FF + SB + 2 eggs",
            "BP + 200 g skyr + FF + 1 orange + LD + SB + 2 eggs",
            "BP + 200 g skyr + CE + 1 apple + LD + SB + 2 eggs",
            "2 slices rye bread + 2 eggs + BM + 200 g skyr + FB + SB + 1 orange",
            "2 slices rye bread + 2 eggs + FB + 200 g skyr + CE + SB + 1 banana + 1 orange",
            "2 slices rye bread + 2 eggs + LD + 200 g skyr + SB",
            "2 slices rye bread + 2 eggs + 200 g skyr",
        ]),
    ];
}
