using LivelyTern.Core.Cook;
using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Recipes;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook;

/// <summary>Prep days: what is cooked on them, how they are wished, and the kitchen they are cooked in.</summary>
public sealed class PrepDayStore(TernDb db, RecipeStore recipes)
{
    private static readonly BatchState[] ToCook = [BatchState.Planned, BatchState.Cooking];

    /// <summary>The kitchen, and the version to change it on: 0 while it is as it was at first.</summary>
    public async Task<(KitchenEquipment Equipment, int Version)> EquipmentAsync() =>
        await db.Equipment.AsNoTracking().SingleOrDefaultAsync() is { } row
            ? (row.Equipment, row.Version)
            : (KitchenEquipment.AtFirst, 0);

    /// <summary>Writes down what the kitchen has, at the version it was read at.</summary>
    public Task<Outcome<int>> SetEquipmentAsync(int version, KitchenEquipment equipment) => db.InTurnAsync<int>(async () =>
    {
        if (equipment.Problems().ToList() is { Count: > 0 } problems) return problems;
        var row = await db.Equipment.SingleOrDefaultAsync();
        if ((row?.Version ?? 0) != version) return Stale.Problem;
        if (row is null)
        {
            db.Equipment.Add(new() { Equipment = equipment });
            await db.SaveChangesAsync();
            return 1;
        }

        row.Equipment = equipment;
        return await db.SaveAsync(row, version + 1);
    });

    /// <summary>
    /// How a day is wished, and the version to change it on: 0 while nobody has said so; its cooks are then those of the prep day before.
    /// </summary>
    public async Task<(PrepDayWishes Wishes, int Version)> WishesAsync(DateOnly day)
    {
        if (await db.PrepDays.AsNoTracking().SingleOrDefaultAsync(row => row.Day == day) is { } row) return (row.Wishes, row.Version);
        var before = await db.PrepDays.AsNoTracking().Where(other => other.Day < day).OrderByDescending(other => other.Day)
            .FirstOrDefaultAsync();
        return (before is null ? PrepDayWishes.AtFirst : PrepDayWishes.AtFirst with { Cooks = before.Wishes.Cooks }, 0);
    }

    /// <summary>Writes down how a day is wished, at the version it was read at.</summary>
    public Task<Outcome<int>> SetWishesAsync(DateOnly day, int version, PrepDayWishes wishes) => db.InTurnAsync<int>(async () =>
    {
        if (wishes.Problems().ToList() is { Count: > 0 } problems) return problems;
        var row = await db.PrepDays.SingleOrDefaultAsync(one => one.Day == day);
        if ((row?.Version ?? 0) != version) return Stale.Problem;
        if (row is null)
        {
            db.PrepDays.Add(new() { Day = day, Wishes = wishes });
            await db.SaveChangesAsync();
            return 1;
        }

        row.Wishes = wishes;
        return await db.SaveAsync(row, version + 1);
    });

    /// <summary>The batches still to be cooked or in their pans, by day.</summary>
    public async Task<IReadOnlyList<BatchRow>> ToCookAsync() =>
        await db.Batches.AsNoTracking().Where(row => ToCook.Contains(row.State)).OrderBy(row => row.CookedOn).ThenBy(row => row.Id)
            .ToListAsync();

    /// <summary>
    /// Batches as dishes to be cooked, as their recipes stand now; those of a later day with what can be done of them on this one.
    /// </summary>
    /// <param name="rows">The batches.</param>
    /// <param name="day">The day.</param>
    public async Task<IReadOnlyList<PrepDish>> DishesAsync(IReadOnlyList<BatchRow> rows, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(rows);
        var written = (await recipes.WrittenAsync()).Recipes;
        var book = await recipes.BookAsync();
        var ids = rows.Where(row => row.IsPutTogether).Select(row => row.Id).ToList();
        var parts = (await db.BatchParts.AsNoTracking().Where(link => ids.Contains(link.DishId)).ToListAsync())
            .ToLookup(
                link => link.DishId,
                link => new PrepPart(link.PartId, written[link.RecipeId].Name, Milligrams.ToGrams(link.Milligrams)));
        var all = rows.Select(row => row.Id).ToList();
        var done = (await db.DoneAhead.AsNoTracking().Where(row => all.Contains(row.BatchId)).ToListAsync()).ToLookup(row => row.BatchId);
        PrepDish DishOf(BatchRow row)
        {
            var recipe = book.Read(row.RecipeId);
            var factor = (decimal)row.Portions / recipe.Yield.Portions;
            var instead = row.Instead?.Read() ?? [];
            var lines = recipe.Lines.Index().Where(line => !line.Item.Written.IsOut).SelectMany(line => LinesOf(line.Item, line.Index));
            var boxes = row.Portions - row.ForDishes;
            return new(row.Id, recipe.Name, written[row.RecipeId].ToDo, factor, boxes, recipe.Yield.Pieces, [.. lines])
            {
                RecipeId = row.RecipeId,
                Parts = row.IsPutTogether ? [.. parts[row.Id]] : null,
                DaysAhead = Math.Max(0, row.CookedOn.DayNumber - day.DayNumber),
                Done = [.. done[row.Id].Select(one => one.ToWork())],
            };

            IEnumerable<PrepLine> LinesOf(RecipeLine line, int position)
            {
                var brought = line.Read.Ingredients.Where(one => !row.IsPutTogether || !RecipeBook.IsRecipe(one));
                var goesIn = Substitution.All(instead, new([.. brought]), book.Find).Ingredients;
                return goesIn.Select(one => new PrepLine(
                    one.Food.Id, one.Food.Name, one.Weight * factor, line.Read.Parts.Note, one.Food.Group)
                { Position = position });
            }
        }

        return [.. rows.Select(DishOf)];
    }
}
