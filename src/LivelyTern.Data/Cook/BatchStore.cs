using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Recipes;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook;

/// <summary>Batches cooked, weighed and packed into boxes.</summary>
public sealed class BatchStore(TernDb db, RecipeStore recipes, UnpackedBatches unpacked, FoodStore foods)
{
    /// <summary>Batches, those without boxes and then the newest first, with their boxes.</summary>
    /// <param name="most">How many.</param>
    public async Task<IReadOnlyList<BatchRow>> ListAsync(int most) =>
        await db.Batches.AsNoTracking().Include(row => row.Boxes.OrderBy(box => box.Number))
            .OrderBy(row => row.Boxes.Count > 0).ThenByDescending(row => row.CookedOn).ThenByDescending(row => row.Id).Take(most).ToListAsync();

    /// <summary>How many batches are cooked and not in boxes.</summary>
    public Task<int> CountWaitingAsync() => db.Batches.CountAsync(row => row.Boxes.Count == 0 && !row.IsAhead);

    /// <summary>One batch, or null.</summary>
    public Task<BatchRow?> FindAsync(Guid id) =>
        db.Batches.AsNoTracking().Include(row => row.Boxes.OrderBy(box => box.Number)).SingleOrDefaultAsync(row => row.Id == id);

    /// <summary>The empty pan last weighed for a recipe, in grams; null where none was.</summary>
    public Task<decimal?> PanOfAsync(Guid recipeId) =>
        db.Batches.Where(row => row.RecipeId == recipeId && row.PanGrams != null).OrderByDescending(row => row.CookedOn).ThenByDescending(row => row.Id)
            .Select(row => row.PanGrams).FirstOrDefaultAsync();

    /// <summary>A recipe cooked on a day: what goes in is fixed from here on, with the figures the foods have now.</summary>
    /// <param name="recipeId">The recipe.</param>
    /// <param name="day">The day.</param>
    /// <param name="today">The household's day.</param>
    public async Task<Outcome<BatchRow>> CookAsync(Guid recipeId, DateOnly day, DateOnly today)
    {
        if (KitchenDays.Refusal(day, today, "day") is { } far) return far;
        var row = await BeginAsync(recipeId, day, null, isAhead: false);
        if (row.Succeeded) await db.SaveChangesAsync();
        return row;
    }

    /// <summary>A new batch of a recipe, not saved yet.</summary>
    /// <param name="recipeId">The recipe.</param>
    /// <param name="day">The day it is cooked, or is to be.</param>
    /// <param name="portions">Portions of the recipe's own size; null for as many as the recipe makes.</param>
    /// <param name="isAhead">Whether it is still to be cooked.</param>
    internal async Task<Outcome<BatchRow>> BeginAsync(Guid recipeId, DateOnly day, int? portions, bool isAhead)
    {
        if (await recipes.FindAsync(recipeId) is not { } recipe) return Stale.Gone("recipe");
        var contents = (await recipes.BookAsync()).Read(recipeId).Batch;
        if (contents.Ingredients.Count == 0) return new Problem("recipe-empty", "recipeId", $"{recipe.Name} has no line that could be read: write down what goes in first.");
        var row = new BatchRow
        {
            Id = Guid.CreateVersion7(),
            RecipeId = recipe.Id,
            RecipeName = recipe.Name,
            Letters = recipe.Letters,
            Tint = recipe.Tint,
            CookedOn = day,
            IsAhead = isAhead,
            Portions = portions ?? recipe.Portions,
            Contents = contents.Scale((decimal)(portions ?? recipe.Portions) / recipe.Portions),
        };
        db.Batches.Add(row);
        return row;
    }

    /// <summary>Weighs a batch that was read at a version and packs it: what the scale said, and the boxes.</summary>
    /// <param name="id">The batch.</param>
    /// <param name="version">The version it was read at.</param>
    /// <param name="pan">The empty pan.</param>
    /// <param name="full">The full pan.</param>
    /// <param name="boxes">How many boxes.</param>
    /// <param name="pieces">How many pieces were made, where they are counted; null to divide by weight.</param>
    public Task<Outcome<BatchRow>> PackAsync(Guid id, int version, Grams pan, Grams full, int boxes, int? pieces) => db.InTurnAsync<BatchRow>(async () =>
    {
        if (await db.Batches.Include(row => row.Boxes).SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("batch");
        if (row.Version != version) return Stale.Problem;
        if (row.Boxes.Count > 0) return new Problem("batch-packed", "", "This batch is in its boxes already: empty them back first.");
        if (row.IsAhead) return new Problem("batch-ahead", "", "This batch is still to be cooked: say that it is cooked first.");
        var portions = await PortionsAsync(id);
        var batch = await unpacked.ReadAsync(row);
        if (await NeverAsync(batch, portions) is { } never) return never;
        var divided = Divided(CookedWeight.Of(full, pan), boxes, pieces, batch.Weight ?? Grams.Zero, Weights(portions));
        if (!divided.Succeeded) return divided.Problems.ToList();
        (row.PanGrams, row.FullGrams) = (pan.Value, full.Value);
        var number = 0;
        foreach (var (weight, count) in divided.Value!.Portions)
            row.Boxes.Add(new BoxRow { Id = Guid.CreateVersion7(), BatchId = id, Number = ++number, Grams = weight.Value, Pieces = count });
        db.AddRange(row.Boxes);

        // What was planned as a portion is now that very box.
        foreach (var (item, box) in portions.Zip(row.Boxes)) (item.BoxId, item.BatchId, item.Grams) = (box.Id, null, null);
        await db.NextVersionAsync(DaysOf(portions));
        return await db.SaveAsync(row, row);
    });

    private static IEnumerable<EaterDay> DaysOf(IEnumerable<PlanItemRow> items) => items.Select(item => new EaterDay(item.EaterId, item.Day));

    // A portion becomes a box for its eater: not where they must never get it.
    private async Task<Problem?> NeverAsync(Batch batch, IReadOnlyList<PlanItemRow> portions)
    {
        var ids = portions.Select(item => item.EaterId).Distinct().ToList();
        foreach (var eater in await db.Eaters.AsNoTracking().Where(row => ids.Contains(row.Id)).ToListAsync())
        {
            if (eater.Ways.WhyNever(batch.Contents) is not { } never) continue;
            var sentence = $"{eater.Name} must never get this: it holds {never.InWords}. Take it off {eater.Name}'s days first, then pack.";
            return new Problem("never-for", "", sentence);
        }

        return null;
    }

    /// <summary>The portions of a batch that lie on days, in the order in which they become boxes: eater by eater, day by day.</summary>
    public async Task<IReadOnlyList<PlanItemRow>> PortionsAsync(Guid batchId) =>
        await db.PlanItems.Where(item => item.BatchId == batchId).OrderBy(item => item.EaterId).ThenBy(item => item.Day).ThenBy(item => item.Position).ToListAsync();

    /// <summary>The boxes of a batch that lie on days, by box.</summary>
    public async Task<IReadOnlyDictionary<Guid, PlanItemRow>> LaidAsync(BatchRow batch)
    {
        ArgumentNullException.ThrowIfNull(batch);
        var ids = batch.Boxes.ConvertAll(box => box.Id);
        return await db.PlanItems.AsNoTracking().Where(item => item.BoxId != null && ids.Contains(item.BoxId.Value)).ToDictionaryAsync(item => item.BoxId!.Value);
    }

    /// <summary>What portions weigh.</summary>
    public static IReadOnlyList<Grams> Weights(IEnumerable<PlanItemRow> portions) => [.. portions.Select(item => new Grams(item.Grams ?? 0))];

    /// <summary>Undoes the packing of a batch of which nothing is eaten: boxes that lie on days become portions again.</summary>
    public Task<Outcome<BatchRow>> UnpackAsync(Guid id, int version) => db.InTurnAsync<BatchRow>(async () =>
    {
        if (await db.Batches.Include(row => row.Boxes).SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("batch");
        if (row.Version != version) return Stale.Problem;
        var weights = row.Boxes.ToDictionary(box => box.Id, box => box.Grams);
        var laid = await db.PlanItems.Where(item => item.BoxId != null && weights.Keys.Contains(item.BoxId.Value)).ToListAsync();
        var eaten = laid.Count(item => item.EatenAt is not null);
        if (eaten > 0) return new Problem("boxes-eaten", "", $"{eaten} of its boxes {(eaten == 1 ? "has" : "have")} been eaten: what is in the others stays in them.");
        foreach (var item in laid) (item.BatchId, item.Grams, item.BoxId) = (id, weights[item.BoxId!.Value], null);
        await db.NextVersionAsync(DaysOf(laid));
        db.RemoveRange(row.Boxes);
        row.Boxes = [];
        return await db.SaveAsync(row, row);
    });

    /// <summary>Takes away a batch that was planned or started, is not packed, and of which no portion lies on a day.</summary>
    /// <returns>The batch as it was.</returns>
    public Task<Outcome<BatchRow>> DiscardAsync(Guid id, int version) => db.InTurnAsync<BatchRow>(async () =>
    {
        if (await db.Batches.Include(row => row.Boxes).SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("batch");
        if (row.Version != version) return Stale.Problem;
        if (row.Boxes.Count > 0) return new Problem("batch-packed", "", "This batch is in its boxes: empty them back first.");
        var laid = await db.PlanItems.CountAsync(item => item.BatchId == id);
        if (laid > 0) return new Problem("portions-laid", "", $"{laid} of its portions {(laid == 1 ? "lies" : "lie")} on the plan: take them off their days first.");
        db.Remove(row);
        await db.SaveChangesAsync();
        return row;
    });

    /// <summary>The batch as the core knows it, with the allergens its foods are known to have today.</summary>
    public static Batch Read(BatchRow row, IFoods known)
    {
        ArgumentNullException.ThrowIfNull(row);
        ArgumentNullException.ThrowIfNull(known);
        return new(row.Id, row.RecipeName, new TapeMark(row.Letters, row.Tint), row.CookedOn, row.Contents.AsKnownToday(known.Find),
            row.FullGrams is { } full && row.PanGrams is { } pan ? new Grams(full - pan) : null)
        {
            IsAhead = row.IsAhead,
            Portions = row.Portions,
        };
    }

    /// <summary>A batch as the core knows it; one that is not packed as <see cref="UnpackedBatches"/> reads it.</summary>
    public async Task<Batch> ReadAsync(BatchRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return row.Boxes.Count == 0 ? await unpacked.ReadAsync(row) : Read(row, await foods.AllAsync());
    }

    /// <summary>
    /// The boxes a weighed batch would go into: by weight, or by pieces, each piece its share of the weight; as planned where portions of
    /// it lie on days.
    /// </summary>
    /// <param name="cooked">What it weighs.</param>
    /// <param name="boxes">How many boxes.</param>
    /// <param name="pieces">Pieces made, where they are counted.</param>
    /// <param name="expected">What it was planned by.</param>
    /// <param name="planned">The portions that lie on days.</param>
    public static Outcome<DividedBatch> Divided(Outcome<Grams> cooked, int boxes, int? pieces, Grams expected, IReadOnlyList<Grams> planned)
    {
        ArgumentNullException.ThrowIfNull(planned);
        if (!cooked.Succeeded) return cooked.Problems.ToList();
        if (boxes >= 1 && cooked.Value.Value < boxes)
        {
            var many = boxes == 1 ? "1 box" : $"{boxes} boxes";
            return new Problem("weight-tiny", "fullGrams", $"That is {cooked.Value.Value:0.##} g for {many}: type grams, not kilograms.");
        }

        if (pieces is null)
        {
            var equal = planned.Count == 0 ? Divide.IntoEqual(cooked.Value, boxes) : Divide.AsPlanned(cooked.Value, expected, planned, boxes);
            return equal.Succeeded ? new DividedBatch([.. equal.Value!.Portions.Select(weight => (weight, (int?)null))], 0, planned.Count == 0 ? Grams.Zero : equal.Value.Over) : equal.Problems.ToList();
        }

        var counted = planned.Count == 0 ? Divide.ByPieces(pieces.Value, boxes) : Divide.PiecesAsPlanned(pieces.Value, expected, planned, boxes);
        return counted.Succeeded
            ? new DividedBatch([.. counted.Value!.Portions.Select(count => (cooked.Value * ((decimal)count / pieces.Value), (int?)count))], counted.Value.Over, Grams.Zero)
            : counted.Problems.ToList();
    }
}

/// <summary>The boxes of a batch.</summary>
/// <param name="Portions">Each box's cooked grams, and its pieces where they are counted.</param>
/// <param name="OverPieces">Pieces that do not go round.</param>
/// <param name="Over">Grams that go into no box.</param>
public sealed record DividedBatch(IReadOnlyList<(Grams Weight, int? Pieces)> Portions, int OverPieces, Grams Over);
