using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Aim;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>Something that lies on a day although its eater must never get it.</summary>
/// <param name="Where">Whose day.</param>
/// <param name="ItemId">What lies there.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Why">Why they must never get it.</param>
/// <param name="IsAnswered">Whether somebody said that it stays.</param>
public sealed record ExcludedItem(EaterDay Where, Guid ItemId, string Name, Never Why, bool IsAnswered);

/// <summary>What came to be excluded for an eater after it was laid on their day.</summary>
public sealed class ExcludedItems(TernDb db, EaterStore eaters, PlanStore plan, DayChanges changes, TimeProvider clock)
{
    /// <summary>
    /// What lies uneaten on a day from today on although its eater must never get it: an exclusion, a label or a recipe came after it.
    /// </summary>
    /// <param name="table">The eaters of the household.</param>
    public async Task<IReadOnlyList<ExcludedItem>> ListAsync(IReadOnlyList<EaterRow> table)
    {
        var careful = table
            .Where(row => row.KeptWays is { } ways && ways.NeverAllergens.Count + ways.NeverFoods.Count > 0).ToDictionary(row => row.Id);
        if (careful.Count == 0) return [];
        var (ids, today) = (careful.Keys.ToList(), clock.Today());
        var rows = await db.PlanItems.AsNoTracking()
            .Where(row => ids.Contains(row.EaterId) && row.Day >= today && row.EatenAt == null).ToListAsync();
        var board = await plan.BoardAsync(rows);
        var stock = await plan.StockAsync(board);
        var answered = rows.ToDictionary(row => row.Id, row => row.NeverAnswered);
        return [.. from day in board.Days
                   from item in day.Value
                   where stock.Has(item) && !item.IsMealOut
                   let why = careful[day.Key.EaterId].KeptWays!.WhyNever(item.Contents(stock))
                   where why is not null
                   orderby day.Key.Day, day.Key.EaterId
                   let isAnswered = string.Equals(answered[item.Id], why.Key, StringComparison.Ordinal)
                   select new ExcludedItem(day.Key, item.Id, item.Name(stock), why, isAnswered)];
    }

    /// <summary>Says of things that lie where their eaters must never get them that they stay; they are marked all the same.</summary>
    /// <returns>How many there were.</returns>
    public Task<Outcome<int>> LeaveAsync(IReadOnlyCollection<Guid> itemIds) => db.InTurnAsync<int>(async () =>
    {
        var asked = (await ListAsync(await eaters.ListAsync())).Where(one => itemIds.Contains(one.ItemId));
        var excluded = asked.ToDictionary(one => one.ItemId, one => one.Why.Key);
        var rows = await db.PlanItems.Where(row => excluded.Keys.Contains(row.Id)).ToListAsync();
        foreach (var row in rows) row.NeverAnswered = excluded[row.Id];
        await db.SaveChangesAsync();
        return excluded.Count;
    });

    /// <summary>Takes things off their days that lie where their eaters must never get them, as one change.</summary>
    public async Task<Outcome<MadeChange>> TakeOffAsync(IReadOnlyCollection<Guid> itemIds)
    {
        var excluded = (await ListAsync(await eaters.ListAsync())).Where(one => itemIds.Contains(one.ItemId)).ToList();
        if (excluded.Count == 0) return Stale.Gone("thing to take off");
        var steps = excluded.ConvertAll<Func<PlanBoard, Outcome<PlanChange>>>(one => now => now.TakeOff(one.ItemId));
        return await changes.MakeAsync(null, [.. excluded.Select(one => one.Where).Distinct()], [], board => board.InOne(steps));
    }
}
