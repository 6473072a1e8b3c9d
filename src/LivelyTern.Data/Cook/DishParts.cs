using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Recipes;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook;

/// <summary>
/// The batches that put-together dishes are made of: planned with the dish, as large as all dishes that use them need, and put away with
/// the last of them. All of it happens within a larger command.
/// </summary>
public sealed class DishParts(TernDb db, RecipeStore recipes, BatchReader reader, NewBatch begin, ILaidPortions days)
{
    // Cooked on the day the dish is put together, or up to so many days before: common practice, no published source.
    private const int DaysBefore = 3;

    /// <summary>A dish was planned, or planned anew: its parts follow.</summary>
    /// <param name="dish">The dish, saved.</param>
    /// <param name="before">The day it was planned for until now.</param>
    /// <returns>What is in the way, or null.</returns>
    internal async Task<Problem?> FollowAsync(BatchRow dish, DateOnly? before = null)
    {
        ArgumentNullException.ThrowIfNull(dish);
        var links = await db.BatchParts.Where(row => row.DishId == dish.Id).Include(row => row.Part).ToListAsync();
        var touched = links.ConvertAll(row => row.Part);
        if (dish.State == BatchState.Planned)
        {
            var wanted = dish.IsPutTogether ? (await recipes.BookAsync()).Read(dish.RecipeId).Parts : [];
            db.BatchParts.RemoveRange(links.Where(row => !wanted.Any(part => part.RecipeId == row.RecipeId)));
            foreach (var part in wanted)
            {
                var link = links.Find(row => row.RecipeId == part.RecipeId);
                if (link is not null && before is { } day) await MoveAlongAsync(link.Part, dish, day);
                var asked = part.ABox * dish.Portions;
                var of = link is not null && IsInTime(link.Part, dish)
                    ? link.Part
                    : await FindAsync(part.RecipeId, dish, asked);
                if (of is null)
                {
                    var begun = await begin.BeginAsync(part.RecipeId, dish.CookedOn, 1, BatchState.Planned);
                    if (!begun.Succeeded) return begun.Problems[0];
                    of = begun.Value!;
                    of.ForDishes = 1;
                }

                if (link is null)
                    db.BatchParts.Add(link = new() { DishId = dish.Id, RecipeId = part.RecipeId });
                (link.Part, link.PartId, link.Milligrams) = (of, of.Id, Milligrams.Of(asked * YieldedOf(of)));
                touched.Add(of);
            }

            await db.SaveChangesAsync();
        }

        foreach (var part in touched.DistinctBy(row => row.Id))
            if (await SizeAsync(part) is { } wrong) return wrong;
        return null;
    }

    /// <summary>A batch was weighed, and saved: the dishes that take of it get the share of it that was planned.</summary>
    internal async Task WeighedAsync(BatchRow part)
    {
        var links = await db.BatchParts.Where(row => row.PartId == part.Id).ToListAsync();
        if (links.Count == 0) return;
        var book = await recipes.BookAsync();
        foreach (var dish in await DishesOfAsync(part.Id))
        {
            var wanted = book.Read(dish.RecipeId).Parts.FirstOrDefault(one => one.RecipeId == part.RecipeId);
            if (wanted is not null)
                links.Single(row => row.DishId == dish.Id).Milligrams = Milligrams.Of(wanted.ABox * dish.Portions * YieldedOf(part));
        }

        await db.SaveChangesAsync();
    }

    /// <summary>Recipes have changed: the parts of every dish still to be put together follow.</summary>
    internal async Task<Problem?> FollowAllAsync()
    {
        var written = (await recipes.WrittenAsync()).Recipes;
        var together = written.Where(one => one.Value.Yield.IsPutTogether).Select(one => one.Key).ToList();
        var dishes = await db.Batches.Where(row => row.State == BatchState.Planned)
            .Where(row => row.IsPutTogether || together.Contains(row.RecipeId))
            .OrderBy(row => row.CookedOn).ThenBy(row => row.Id).ToListAsync();
        foreach (var dish in dishes)
        {
            dish.IsPutTogether = together.Contains(dish.RecipeId);
            if (await FollowAsync(dish) is { } wrong) return wrong;
        }

        return null;
    }

    /// <summary>Why a batch can't be planned so: dishes are made of it.</summary>
    /// <param name="part">The batch.</param>
    /// <param name="day">The day wanted.</param>
    /// <param name="portions">The portions wanted.</param>
    internal async Task<Problem?> PlanProblemAsync(BatchRow part, DateOnly day, int portions)
    {
        var dishes = await DishesOfAsync(part.Id);
        if (dishes.Count == 0) return null;
        var names = string.Join(", ", dishes.Select(dish => dish.RecipeName).Distinct(StringComparer.Ordinal));
        if (portions < part.ForDishes)
        {
            var many = part.ForDishes == 1 ? "1 portion" : $"{part.ForDishes} portions";
            var go = part.ForDishes == 1 ? "goes" : "go";
            return new("dishes-need", "portions", $"{many} of it {go} into {names}: cook at least that.");
        }

        var first = dishes.Min(dish => dish.CookedOn);
        return day > first ? new("dishes-before", "day", $"It goes into {names} before that day: move that first.") : null;
    }

    /// <summary>Why a batch can't be put away: dishes still to be put together are made of it.</summary>
    internal async Task<Problem?> DiscardProblemAsync(BatchRow part) => await DishesOfAsync(part.Id) is [var dish, ..]
        ? new("dishes-need", "", $"It goes into {dish.RecipeName}: put that away first.")
        : null;

    /// <summary>The dishes still to be put together that take of a batch.</summary>
    internal async Task<IReadOnlyList<BatchRow>> DishesOfAsync(Guid partId) =>
        await db.Batches.AsNoTracking().Where(row => row.State == BatchState.Planned && row.Parts.Any(part => part.PartId == partId))
            .OrderBy(row => row.CookedOn).ToListAsync();

    /// <summary>Grams of a batch that are in the boxes of dishes already.</summary>
    internal async Task<Grams> PackedAsync(Guid partId) => Milligrams.ToGrams(await (
        from part in db.BatchParts
        join dish in db.Batches on part.DishId equals dish.Id
        where part.PartId == partId && dish.State == BatchState.Packed
        select part.Milligrams).SumAsync());

    // A part that is cooked for this dish alone, on its day, moves with it.
    private async Task MoveAlongAsync(BatchRow part, BatchRow dish, DateOnly before)
    {
        if (part.State != BatchState.Planned || part.CookedOn != before || part.Portions != part.ForDishes) return;
        var isShared = await db.BatchParts.AnyAsync(row => row.PartId == part.Id && row.DishId != dish.Id);
        if (!isShared && await days.LaidAsync(part.Id) == Grams.Zero) part.CookedOn = dish.CookedOn;
    }

    // 250 g of a rice that was to weigh 2,240 g are 212 g of the same rice at 1,900 g: they hold what was planned.
    private static decimal YieldedOf(BatchRow part) =>
        part is { CookedMilligrams: { } cooked, ExpectedMilligrams: > 0 and var expected } ? (decimal)cooked / expected : 1;

    private static bool IsInTime(BatchRow part, BatchRow dish) => part.State != BatchState.Discarded && part.CookedOn <= dish.CookedOn;

    // One that is still to be cooked grows; one in its pan has to have enough that nobody has taken.
    private async Task<BatchRow?> FindAsync(Guid recipeId, BatchRow dish, Grams weight)
    {
        var (day, first) = (dish.CookedOn, dish.CookedOn.AddDays(-DaysBefore));
        var could = await db.Batches.Where(row => row.RecipeId == recipeId && row.CookedOn <= day && row.CookedOn >= first)
            .Where(row => row.State == BatchState.Planned || row.State == BatchState.Cooking || row.State == BatchState.Cooked)
            .OrderByDescending(row => row.CookedOn).ThenBy(row => row.Id).ToListAsync();
        foreach (var row in could.OrderBy(row => row.State == BatchState.Planned))
        {
            if (row.State == BatchState.Planned) return row;
            var others = await db.BatchParts.Where(part => part.PartId == row.Id && part.DishId != dish.Id)
                .SumAsync(part => part.Milligrams);
            var taken = Milligrams.ToGrams(others) + await days.LaidAsync(row.Id);
            if ((await reader.ReadAsync(row)).Weight is { } there && there - taken >= weight) return row;
        }

        return null;
    }

    // As large as its own portions and all dishes together ask for; put away where nobody asks for it any more.
    private async Task<Problem?> SizeAsync(BatchRow part)
    {
        if (part.State != BatchState.Planned) return null;
        var asked = await (
            from link in db.BatchParts
            join dish in db.Batches on link.DishId equals dish.Id
            where link.PartId == part.Id && dish.State != BatchState.Discarded
            select new { link.Milligrams, dish.Portions }).ToListAsync();
        var portion = (await reader.ReadAsync(part)).Weight is { } whole ? whole * (1m / part.Portions) : (Grams?)null;
        var boxes = asked.Sum(one => one.Portions);
        var wanted = PutTogether.PortionsFor(Milligrams.ToGrams(asked.Sum(one => one.Milligrams)), portion, boxes);
        var own = Math.Max(part.Portions - part.ForDishes, await LaidAsync(part, portion));
        if (wanted + own > RecipeYield.MostPortions)
        {
            var sentence = $"That would take more than {RecipeYield.MostPortions} portions of {part.RecipeName}.";
            return new("portions-absurd", "portions", sentence);
        }

        if (part.ForDishes == wanted && part.Portions == own + wanted) return null;
        if (own + wanted == 0) (part.State, part.DiscardedFrom, part.ForDishes) = (BatchState.Discarded, BatchState.Planned, 0);
        else (part.Portions, part.ForDishes) = (own + wanted, wanted);
        part.Version++;
        await db.SaveChangesAsync();
        return null;
    }

    // What of it lies on days by itself keeps it cooked.
    private async Task<int> LaidAsync(BatchRow part, Grams? portion)
    {
        var laid = await days.LaidAsync(part.Id);
        return laid == Grams.Zero ? 0 : PutTogether.PortionsFor(laid, portion, 1);
    }
}
