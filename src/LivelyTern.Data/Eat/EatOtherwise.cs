using LivelyTern.Core.Eat;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Eat;

/// <summary>What lies on a day was eaten, but not just so (<see cref="OtherThanPlanned"/>).</summary>
public sealed class EatOtherwise(TernDb db, PlanStore plan, DayChanges changes, FoodStore foods, TimeProvider clock)
{
    /// <summary>Writes it down as one change.</summary>
    /// <param name="version">The number of the last change the user saw.</param>
    /// <param name="itemId">What lies there.</param>
    /// <param name="withEaterId">Who had some of it too; null for nobody.</param>
    /// <param name="how">How it was eaten, at an instant.</param>
    public Task<Outcome<MadeChange>> MakeAsync(
        int version, Guid itemId, Guid? withEaterId, Func<OtherThanPlanned, DateTimeOffset, Outcome<PlanChange>> how) =>
        db.InTurnAsync(async () =>
        {
            ArgumentNullException.ThrowIfNull(how);
            if (await db.PlanItems.AsNoTracking().SingleOrDefaultAsync(row => row.Id == itemId) is not { } row) return Stale.Gone("item");
            var (item, known, shelf) = ((await plan.BoardAsync([row])).Days.Values.SingleOrDefault()?[0], await foods.AllAsync(),
                await plan.OfferedAsync());
            if (item is null) return Stale.Gone("item");
            var stock = await plan.StockAsync([item]);
            if (!stock.Has(item)) return Stale.Gone("item");
            FoodLine Read(string text, string? foodId) => FoodLine.Read(text, known, foodId is null ? null : known.Find(foodId));
            EaterDay[] days = withEaterId is { } other ? [new(row.EaterId, row.Day), new(other, row.Day)] : [new(row.EaterId, row.Day)];
            var alike = stock.BoxOf(item) is { } box ? shelf.Where(box.IsOfTheDishOf).ToList() : [];
            return await changes.MakeAsync(
                version, days, [itemId, .. alike.Select(one => one.Id)],
                board => how(new(board, stock, alike, Read, Guid.CreateVersion7), clock.GetUtcNow()));
        });

    /// <summary>What was eaten before is eaten again on a day, as it is known now, as one change.</summary>
    /// <param name="version">The number of the last change the user saw.</param>
    /// <param name="itemIds">Plain foods and meals out, wherever they lie.</param>
    /// <param name="where">Whose day.</param>
    /// <param name="isEaten">Whether it was eaten already; else it is laid there.</param>
    /// <param name="slot">The slot of that day; null for none.</param>
    public Task<Outcome<MadeChange>> AgainAsync(
        int version, IReadOnlyList<Guid> itemIds, EaterDay where, bool isEaten, string? slot) => db.InTurnAsync(async () =>
    {
        if (itemIds.Count is 0 or > MostAgain) return new Problem("again-many", "itemIds", $"Enter up to {MostAgain} things at once.");
        var rows = await db.PlanItems.AsNoTracking().Where(row => itemIds.Contains(row.Id)).ToListAsync();
        var items = (await plan.BoardAsync(rows)).Days.Values.SelectMany(day => day).ToDictionary(item => item.Id);
        if (itemIds.Any(id => !items.TryGetValue(id, out var item) || item.Food is null)) return Stale.Gone("item");
        var known = await foods.AllAsync();
        Laid AsKnown(Laid what) => what is PlainFood plain && known.Find(plain.Food.Food.Id) is { } food
            ? plain with { Food = plain.Food with { Food = food } }
            : what;
        DateTimeOffset? at = isEaten ? clock.GetUtcNow() : null;
        var steps = itemIds.Select(id => new PlanItem(Guid.CreateVersion7(), AsKnown(items[id].What), at) { Slot = slot })
            .Select<PlanItem, Func<PlanBoard, Outcome<PlanChange>>>(item => on => on.Lay(item, where, int.MaxValue));
        return await changes.MakeAsync(version, [where], [], board => board.InOne(steps));
    });

    private const int MostAgain = 60;
}
