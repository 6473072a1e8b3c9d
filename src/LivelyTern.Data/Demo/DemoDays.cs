using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Eat;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Demo;

/// <summary>A meal of a day of the demo, as it is written there.</summary>
/// <param name="Text">What was eaten, or is planned: two letters are a box of that dish, all else a plain food; "out: Harbour supper, 700
/// to 900 kcal" is a meal out.</param>
/// <param name="Planned">What was planned in its place; null where it was not planned.</param>
/// <param name="IsEaten">Whether it was eaten: of "not: 1 apple" nothing was.</param>
internal sealed record DemoMeal(string Text, string? Planned, bool IsEaten)
{
    /// <summary>
    /// Meals as they are written, apart by " + ": "150 g skyr" is eaten as planned, "150 g skyr for 200 g skyr" is less, "more: 20 g
    /// walnuts" was not planned, "not: 1 apple" was planned only.
    /// </summary>
    public static IReadOnlyList<DemoMeal> Of(string day) => [.. day.Split(" + ", StringSplitOptions.RemoveEmptyEntries).Select(One)];

    private static DemoMeal One(string text)
    {
        if (text.StartsWith("more: ", StringComparison.Ordinal)) return new(text[6..], null, true);
        if (text.StartsWith("not: ", StringComparison.Ordinal)) return new(text[5..], text[5..], false);
        return text.Split(" for ") is [var eaten, var planned] ? new(eaten, planned, true) : new(text, text, true);
    }
}

/// <summary>Lays days of the demo through the same changes that users make.</summary>
public sealed class DemoDays(TernDb db, DayChanges days, FoodStore foods, PlanStore plan, EaterStore eaters)
{
    private FoodCatalogue? catalogue;

    /// <summary>Lays days that are past, with how they were planned and how they were eaten; all as one change.</summary>
    /// <param name="lived">Whose day, what was eaten, and the part of the day of the meal at a place; null for none.</param>
    /// <param name="shelf">The boxes of each dish that lie on no day.</param>
    internal async Task LivedAsync(
        IReadOnlyList<(EaterDay Where, IReadOnlyList<DemoMeal> Meals, Func<int, string?> SlotOf)> lived,
        Dictionary<string, Queue<Guid>> shelf)
    {
        var known = catalogue ??= await foods.CatalogueAsync();
        var laid = new List<(EaterDay, PlanItem)>();
        var planned = new Dictionary<EaterDay, List<PlanItem>>();
        foreach (var (where, meals, slotOf) in lived)
        {
            planned[where] = [];
            foreach (var (meal, i) in meals.Select((meal, i) => (meal, i)))
            {
                var id = Guid.CreateVersion7();
                var what = meal.IsEaten ? WhatOf(meal.Text, shelf, known) : null;
                var at = new DateTimeOffset(where.Day, new TimeOnly(Math.Min(7 + (3 * i), 21), 10), TimeSpan.Zero);
                if (what is not null) laid.Add((where, new(id, what, at) { Slot = slotOf(i) }));
                if (meal.Planned is not { } text) continue;
                var isAsPlanned = what is not null && string.Equals(text, meal.Text, StringComparison.Ordinal);
                planned[where].Add(new(id, isAsPlanned ? what! : WhatOf(text, shelf, known)));
            }
        }

        await LayAsync(laid);
        await KeepAsync(planned);
    }

    /// <summary>Lays what is planned for a day.</summary>
    internal async Task<IReadOnlyList<PlanItem>> PlannedAsync(
        EaterDay where, IReadOnlyList<DemoMeal> meals, Dictionary<string, Queue<Guid>> shelf, Func<int, string?> slotOf)
    {
        var known = catalogue ??= await foods.CatalogueAsync();
        PlanItem Item(DemoMeal meal, int i) => new(Guid.CreateVersion7(), WhatOf(meal.Text, shelf, known)) { Slot = slotOf(i) };
        List<PlanItem> laid = [.. meals.Select(Item)];
        await LayAsync([.. laid.Select(item => (where, item))]);
        return laid;
    }

    /// <summary>Lays boxes and foods on days, as one change.</summary>
    internal async Task LayAsync(IReadOnlyList<(EaterDay Where, PlanItem Item)> items)
    {
        if (items.Count == 0) return;
        db.ChangeTracker.Clear();
        List<Guid> boxes = [.. items.Select(one => one.Item.BoxId).OfType<Guid>()];
        Func<PlanBoard, Outcome<PlanChange>> Step((EaterDay Where, PlanItem Item) one) => on => on.Lay(one.Item, one.Where, int.MaxValue);
        Outcome<PlanChange> Lay(PlanBoard board) => board.InOne(items.Select(Step));
        DemoWeek.Must(await days.MakeAsync(null, [.. items.Select(one => one.Where).Distinct()], boxes, Lay));
    }

    // How days were planned, as the ledger keeps it when the first thing of a day is eaten.
    private async Task KeepAsync(Dictionary<EaterDay, List<PlanItem>> planned)
    {
        var stock = await plan.StockAsync(planned.Values.SelectMany(items => items));
        var table = (await eaters.ListAsync()).ToDictionary(row => row.Id);
        var (first, last) = (planned.Keys.Min(day => day.Day), planned.Keys.Max(day => day.Day));
        foreach (var kept in await db.PlannedDays.Where(row => row.Day >= first && row.Day <= last).ToListAsync())
        {
            if (!planned.TryGetValue(new(kept.EaterId, kept.Day), out var items)) continue;
            var (_, aim) = table[kept.EaterId].On(kept.Day);
            var things = items.Select(item => StoredPlannedThing.Of(item, stock, aim));
            kept.Planned = new(StoredPlanned.Shape, [.. kept.Planned.Things, .. things]);
        }

        await db.SaveChangesAsync();
    }

    private static Laid WhatOf(string text, Dictionary<string, Queue<Guid>> shelf, FoodCatalogue known)
    {
        if (shelf.TryGetValue(text, out var boxes)) return new LaidBox(boxes.Dequeue());
        if (text.StartsWith("out: ", StringComparison.Ordinal)) return DemoWeek.Must(SaidMeal(text[5..]));
        var food = FoodLine.Read(text, known).Ingredient ?? throw new InvalidOperationException($"The demo can't read “{text}”.");
        return new PlainFood(text, food);
    }

    // "Harbour supper, 700 to 900 kcal"
    private static Outcome<MealOut> SaidMeal(string text)
    {
        var (name, range) = (text[..text.IndexOf(',', StringComparison.Ordinal)], text.Split(' '));
        decimal Kcal(int fromEnd) => decimal.Parse(range[^fromEnd], System.Globalization.CultureInfo.InvariantCulture);
        return MealOut.Of(name, [new(name, new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = Kcal(4) }, Kcal(2))]);
    }
}
