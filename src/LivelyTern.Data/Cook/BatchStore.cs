using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Recipes;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook;

/// <summary>Batches: planned for a day, started, weighed. What they become on days and in boxes is told by later rooms.</summary>
public sealed class BatchStore(
    TernDb db, RecipeStore recipes, BatchReader reader, NewBatch begin, DishParts parts, IPantryUse pantry)
{
    private const int MostAtOnce = 20, PansRead = 100;

    /// <summary>Batches that are not discarded, those without boxes and then the newest first.</summary>
    /// <param name="most">How many.</param>
    public async Task<IReadOnlyList<BatchRow>> ListAsync(int most) =>
        await db.Batches.AsNoTracking().Include(row => row.Lines.OrderBy(line => line.Position))
            .Where(row => row.State != BatchState.Discarded)
            .OrderBy(row => row.State == BatchState.Packed).ThenByDescending(row => row.CookedOn).ThenByDescending(row => row.Id).Take(most)
            .ToListAsync();

    /// <summary>One batch, also a discarded one, or null.</summary>
    public Task<BatchRow?> FindAsync(Guid id) =>
        db.Batches.AsNoTracking().Include(row => row.Lines.OrderBy(line => line.Position)).SingleOrDefaultAsync(row => row.Id == id);

    /// <summary>The batch of a number, also a discarded one, or null. What is in it is not read.</summary>
    public Task<BatchRow?> OfSerialAsync(int serial) => db.Batches.AsNoTracking().SingleOrDefaultAsync(row => row.Serial == serial);

    /// <summary>The numbers and the recipes of some batches.</summary>
    public async Task<IReadOnlyDictionary<Guid, (int Serial, Guid RecipeId)>> SerialsAsync(IReadOnlyCollection<Guid> ids) =>
        (await db.Batches.AsNoTracking().Where(row => ids.Contains(row.Id)).Select(row => new { row.Id, row.Serial, row.RecipeId })
            .ToListAsync()).ToDictionary(row => row.Id, row => (row.Serial, row.RecipeId));

    /// <summary>The empty pan last weighed for a recipe, in grams; null where none was.</summary>
    public async Task<Grams?> PanOfAsync(Guid recipeId) =>
        Milligrams.ToGrams(await db.Batches.Where(row => row.RecipeId == recipeId && row.PanMilligrams != null)
            .OrderByDescending(row => row.CookedOn).ThenByDescending(row => row.Id).Select(row => row.PanMilligrams).FirstOrDefaultAsync());

    /// <summary>The empty pans that were weighed last, each once, the newest first, with the dish that was in it.</summary>
    /// <param name="most">How many.</param>
    public async Task<IReadOnlyList<(Grams Weight, string Dish)>> PansAsync(int most)
    {
        var rows = await db.Batches.AsNoTracking().Where(row => row.PanMilligrams > 0).OrderByDescending(row => row.CookedOn)
            .ThenByDescending(row => row.Id).Select(row => new { row.PanMilligrams, row.RecipeName }).Take(PansRead).ToListAsync();
        return [.. rows.DistinctBy(row => row.PanMilligrams).Take(most)
            .Select(row => (Milligrams.ToGrams(row.PanMilligrams!.Value), row.RecipeName))];
    }

    /// <summary>
    /// A recipe cooked on a day: what goes in is fixed from here on, with the figures the foods have now. A dish that is put together is
    /// planned for that day, with its parts.
    /// </summary>
    /// <param name="recipeId">The recipe.</param>
    /// <param name="day">The day.</param>
    /// <param name="today">The household's day.</param>
    public Task<Outcome<BatchRow>> CookAsync(Guid recipeId, DateOnly day, DateOnly today) => db.InTurnAsync<BatchRow>(async () =>
    {
        if (KitchenDays.Refusal(day, today, "day") is { } far) return far;
        var row = await begin.BeginAsync(recipeId, day, null, BatchState.Cooking);
        if (!row.Succeeded) return row;
        if (row.Value!.IsPutTogether && day < today)
            return new Problem("day-past", "day", "That day is past: a dish is put together today or later.");
        if (!row.Value.IsPutTogether) await pantry.CookedAsync(row.Value.Id, await reader.LinesOfAsync(row.Value));
        await db.SaveChangesAsync();
        return await parts.FollowAsync(row.Value) is { } wrong ? wrong : row;
    });

    /// <summary>
    /// Recipes to be cooked on a day, each for so many portions of its own size; all of them or, where one cannot be, none.
    /// </summary>
    /// <param name="day">The prep day, not past.</param>
    /// <param name="today">The household's day.</param>
    /// <param name="dishes">Recipes and portions.</param>
    public Task<Outcome<IReadOnlyList<BatchRow>>> PlanAsync(
        DateOnly day, DateOnly today, IReadOnlyList<(Guid RecipeId, int Portions)> dishes) =>
        db.InTurnAsync<IReadOnlyList<BatchRow>>(async () =>
        {
            if (dishes.Count is 0 or > MostAtOnce)
                return new Problem("batches-many", "dishes", $"Plan between 1 and {MostAtOnce} batches at a time.");
            var rows = new List<BatchRow>();
            foreach (var (recipeId, portions) in dishes)
            {
                if (PlanProblem(day, today, portions) is { } wrong) return wrong;
                var row = await begin.BeginAsync(recipeId, day, portions, BatchState.Planned);
                if (!row.Succeeded) return row.Problems.ToList();
                rows.Add(row.Value!);
            }

            // What is planned here by itself is there first: a dish takes of it.
            await db.SaveChangesAsync();
            foreach (var row in rows)
                if (await parts.FollowAsync(row) is { } wrong) return wrong;
            return rows;
        });

    /// <summary>Another day or another amount for a batch still to be cooked.</summary>
    /// <param name="id">The batch.</param>
    /// <param name="version">The version it was read at.</param>
    /// <param name="day">The day.</param>
    /// <param name="today">The household's day.</param>
    /// <param name="portions">For how many portions.</param>
    internal async Task<Outcome<BatchRow>> ReplanAsync(Guid id, int version, DateOnly day, DateOnly today, int portions)
    {
        var read = await AtAsync(id, version);
        if (!read.Succeeded) return read;
        var row = read.Value!;
        if (row.State != BatchState.Planned) return new Problem("batch-cooked", "", "This batch is cooked: it is as large as it is.");
        if ((PlanProblem(day, today, portions) ?? await parts.PlanProblemAsync(row, day, portions)) is { } wrong) return wrong;
        var before = row.CookedOn;
        (row.CookedOn, row.Portions) = (day, portions);
        return await FollowedAsync(await db.SaveAsync(row, row), before);
    }

    /// <summary>A planned batch is cooked: what goes in is fixed from here on, with the figures the foods have now.</summary>
    public Task<Outcome<BatchRow>> StartAsync(Guid id, int version, DateOnly day) => db.InTurnAsync(async () =>
    {
        var read = await AtAsync(id, version);
        if (!read.Succeeded) return read;
        var row = read.Value!;
        if (row.State != BatchState.Planned) return new Problem("batch-cooked", "", "This batch is cooked already.");
        if (row.IsPutTogether) return IsTogether;
        if (await recipes.FindAsync(row.RecipeId) is not { } recipe) return Stale.Gone("recipe");
        await BeginAsync(row, recipe.Name, day);
        return await db.SaveAsync(row, row);
    });

    /// <summary>A run has begun with a batch; one that is cooked already, or put together from others, stays as it is.</summary>
    /// <returns>Whether it was still to be cooked.</returns>
    internal async Task<bool> BegunAsync(Guid id, DateOnly day)
    {
        var row = await db.Batches.Include(one => one.Lines.OrderBy(line => line.Position)).SingleOrDefaultAsync(one => one.Id == id);
        if (row is not { State: BatchState.Planned, IsPutTogether: false }) return false;
        if (await recipes.FindAsync(row.RecipeId) is not { } recipe) return false;
        await BeginAsync(row, recipe.Name, day);
        row.Version++;
        await db.SaveChangesAsync();
        return true;
    }

    /// <summary>A run has not begun with a batch after all; what was written down of it since stays, and so does the batch then.</summary>
    internal async Task NotBegunAsync(Guid id)
    {
        var row = await db.Batches.Include(one => one.Lines).SingleOrDefaultAsync(one => one.Id == id);
        if (row is not { State: BatchState.Cooking } || row.Lines.Exists(line => line.ReallyText is not null)) return;
        row.State = BatchState.Planned;
        await pantry.CookedAsync(row.Id, []);
        row.Version++;
        await db.SaveChangesAsync();
    }

    // What goes in is fixed from here on, with the figures the foods have now.
    private async Task BeginAsync(BatchRow row, string name, DateOnly day)
    {
        var lines = await reader.LinesOfAsync(row);
        (row.State, row.CookedOn, row.RecipeName) = (BatchState.Cooking, day, name);
        await begin.SetLinesAsync(row, lines);
        await pantry.CookedAsync(row.Id, lines);
    }

    /// <summary>
    /// What the scale said of a batch that is cooked and not packed; weighing again replaces it. Dishes that are put together from it get
    /// the same share of it as was planned. Within a larger command.
    /// </summary>
    /// <returns>The cooked weight.</returns>
    internal async Task<Outcome<Grams>> WeighAsync(BatchRow row, Grams pan, Grams full)
    {
        if (NotInItsPan(row) is { } wrong) return wrong;
        var cooked = CookedWeight.Of(full, pan);
        if (!cooked.Succeeded) return cooked;
        if (await parts.PackedAsync(row.Id) is var packed && cooked.Value < packed)
        {
            var sentence = $"{packed.Value:0.#} g of it are in boxes of other dishes already: it can't weigh less than that.";
            return new Problem("weight-below-packed", "fullGrams", sentence);
        }

        var batch = await reader.ReadAsync(row);
        row.ExpectedMilligrams ??= batch.Weight is { } expected ? Milligrams.Of(expected) : null;
        (row.State, row.PanMilligrams, row.CookedMilligrams) = (BatchState.Cooked, Milligrams.Of(pan), Milligrams.Of(cooked.Value));
        row.Yield = YieldOf(batch.Contents.RawWeight, cooked.Value);
        await db.SaveChangesAsync();
        await parts.WeighedAsync(row);
        return cooked;
    }

    /// <summary>Cooked by raw weight; null where nothing that weighs anything went in.</summary>
    internal static decimal? YieldOf(Grams raw, Grams? cooked) => raw.Value > 0 && cooked is { Value: > 0 } ? cooked.Value / raw : null;

    /// <summary>
    /// A batch goes into its boxes, so many pieces of it where they are counted, filling what its recipe says; within a larger command, not
    /// saved yet.
    /// </summary>
    internal static void Packed(BatchRow row, int? pieces, decimal? volumeMl) =>
        (row.State, row.Pieces, row.VolumeMl) = (BatchState.Packed, pieces, volumeMl);

    /// <summary>A batch is back in its pan, weighed as it was; within a larger command, not saved yet.</summary>
    internal static void EmptiedBack(BatchRow row) => (row.State, row.Pieces, row.VolumeMl) = (BatchState.Cooked, null, null);

    /// <summary>Why a batch is not in its pan, to be weighed or packed; null where it is.</summary>
    internal static Problem? NotInItsPan(BatchRow row) => row.State switch
    {
        BatchState.Planned when row.IsPutTogether => IsTogether,
        BatchState.Packed => new("batch-packed", "", "This batch is in its boxes already: empty them back first."),
        BatchState.Planned => new("batch-ahead", "", "This batch is still to be cooked: say that it is cooked first."),
        BatchState.Discarded => Stale.Gone("batch"),
        _ => null,
    };

    /// <summary>Puts away a batch that is not packed; it is kept as discarded. Within a larger command.</summary>
    internal async Task<Outcome<BatchRow>> DiscardAsync(Guid id, int version)
    {
        var read = await AtAsync(id, version);
        if (!read.Succeeded) return read;
        var row = read.Value!;
        if (row.State == BatchState.Packed) return new Problem("batch-packed", "", "This batch is in its boxes: empty them back first.");
        if (await parts.DiscardProblemAsync(row) is { } needed) return needed;
        (row.DiscardedFrom, row.State) = (row.State, BatchState.Discarded);
        return await FollowedAsync(await db.SaveAsync(row, row));
    }

    /// <summary>Brings a discarded batch back as it was; one that was planned for a day that is past is planned for today.</summary>
    public Task<Outcome<BatchRow>> RestoreAsync(Guid id, int version, DateOnly today) => db.InTurnAsync<BatchRow>(async () =>
    {
        var row = await db.Batches.Include(one => one.Lines).SingleOrDefaultAsync(one => one.Id == id);
        if (row is null) return Stale.Gone("batch");
        if (row.Version != version) return Stale.Problem;
        if (row.DiscardedFrom is not { } before) return new Problem("batch-there", "", "This batch is not discarded.");
        (row.State, row.DiscardedFrom) = (before, null);
        if (before == BatchState.Planned && row.CookedOn < today) row.CookedOn = today;
        return await FollowedAsync(await db.SaveAsync(row, row));
    });

    /// <summary>Other foods stand in for some in a batch still to be cooked; within a larger command.</summary>
    /// <param name="id">The batch.</param>
    /// <param name="change">What stands in for what, of what stood in before.</param>
    internal async Task<Outcome<BatchRow>> ReplaceAsync(Guid id, Func<IReadOnlyList<Substitution>, IReadOnlyList<Substitution>> change)
    {
        var row = await db.Batches.Include(one => one.Lines).SingleOrDefaultAsync(one => one.Id == id);
        if (row is null || row.State == BatchState.Discarded) return Stale.Gone("batch");
        if (row.State != BatchState.Planned) return new Problem("batch-cooked", "", $"{row.RecipeName} is cooked already.");
        row.Instead = StoredInstead.Of(change(row.Instead?.Read() ?? []));
        return await db.SaveAsync(row, row);
    }

    private static readonly Problem IsTogether = new(
        "batch-together", "", "This dish is put together from its parts: cook and weigh those, then pack it.");

    // A dish that is put together takes its parts along.
    private async Task<Outcome<BatchRow>> FollowedAsync(Outcome<BatchRow> saved, DateOnly? before = null) =>
        saved.Value is { IsPutTogether: true } dish && await parts.FollowAsync(dish, before) is { } wrong ? wrong : saved;

    /// <summary>A batch that is not discarded, to be written, at the version it was read at.</summary>
    internal async Task<Outcome<BatchRow>> AtAsync(Guid id, int version)
    {
        var row = await db.Batches.Include(one => one.Lines.OrderBy(line => line.Position)).SingleOrDefaultAsync(one => one.Id == id);
        if (row is null || row.State == BatchState.Discarded) return Stale.Gone("batch");
        return row.Version == version ? row : Stale.Problem;
    }

    private static Problem? PlanProblem(DateOnly day, DateOnly today, int portions)
    {
        if (day < today) return new("day-past", "day", "That day is past: a batch is planned for today or later.");
        if (day > today.AddDays(366)) return new("day-far", "day", "That is more than a year ahead: check the date.");
        return portions is >= 1 and <= RecipeYield.MostPortions
            ? null
            : new("portions-absurd", "portions", $"A batch makes between 1 and {RecipeYield.MostPortions} portions.");
    }
}
