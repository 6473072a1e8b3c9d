using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Foods;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Recipes;

/// <summary>All recipes as written, and which of them are put away.</summary>
public sealed record WrittenBook(IReadOnlyDictionary<Guid, WrittenRecipe> Recipes, IReadOnlySet<Guid> PutAway);

/// <summary>The cook's recipes.</summary>
public sealed class RecipeStore(TernDb db, FoodStore foods, CachedRead<WrittenBook> kept, RecipesRead read, TimeProvider clock)
{
    /// <summary>Saves within this time of each other are one version: what stood shorter was typing.</summary>
    private static readonly TimeSpan OneSitting = TimeSpan.FromMinutes(2);

    /// <summary>Recipes by name, without those taken away.</summary>
    public async Task<IReadOnlyList<RecipeRow>> ListAsync() =>
        await db.Recipes.AsNoTracking().Where(row => row.ArchivedAt == null).OrderBy(row => row.Name).ToListAsync();

    /// <summary>One recipe, also one taken away; null where there is none.</summary>
    public Task<RecipeRow?> FindAsync(Guid id) => db.Recipes.AsNoTracking().SingleOrDefaultAsync(row => row.Id == id);

    /// <summary>All recipes as written; the lines of a variant are its base's with its own changes.</summary>
    public Task<WrittenBook> WrittenAsync() => kept.GetAsync(db, async () =>
    {
        var rows = await db.Recipes.AsNoTracking().Include(row => row.Lines.OrderBy(line => line.Position))
            .ToDictionaryAsync(row => row.Id);
        return new WrittenBook(
            rows.ToDictionary(pair => pair.Key, pair => Written(pair.Value, pair.Value.BaseId is { } id ? LinesOf(rows[id]) : null)),
            rows.Values.Where(row => row.ArchivedAt is not null).Select(row => row.Id).ToHashSet());
    });

    /// <summary>The book to read recipes with, against the foods as they are now.</summary>
    public async Task<RecipeBook> BookAsync()
    {
        var (written, known) = (await WrittenAsync(), await foods.AllAsync());
        return new(known, written.Recipes, written.PutAway, read.Of(known, written));
    }

    /// <summary>Writes a new recipe down; its tape mark is found for it.</summary>
    public Task<Outcome<RecipeRow>> AddAsync(WrittenRecipe recipe, Guid? baseId = null) => db.InTurnAsync<RecipeRow>(async () =>
    {
        ArgumentNullException.ThrowIfNull(recipe);
        var problems = Problems(recipe);
        if (problems.Count > 0) return problems;
        var book = await BookAsync();
        if (book.TooDeepProblem(recipe, null) is { } chosen) return chosen;
        var reading = book.Read(recipe);
        if (book.TooDeepProblem(Pinned(recipe, reading), null) is { } deep) return deep;
        if (await TogetherProblemAsync(reading, null) is { } within) return within;
        if (baseId is { } family && await FamilyProblemAsync(family) is { } wrong) return wrong;
        var mark = TapeMark.For(recipe.Name, await TakenMarksAsync(null));
        var row = new RecipeRow
        {
            Id = Guid.CreateVersion7(),
            Name = recipe.Name.Trim(),
            Letters = mark.Letters,
            Tint = mark.Tint,
            BaseId = baseId,
        };
        db.Recipes.Add(row);
        await SetAsync(row, Keyed(Pinned(recipe, reading)));
        await db.SaveChangesAsync();
        kept.Forget(db);
        await RememberAsync(row);
        return row;
    });

    /// <summary>Saves a recipe that was read at a version. Batches already cooked keep what went into them.</summary>
    public async Task<Outcome<RecipeRow>> ChangeAsync(Guid id, int version, WrittenRecipe recipe)
    {
        ArgumentNullException.ThrowIfNull(recipe);
        if (await db.Recipes.Include(row => row.Lines).SingleOrDefaultAsync(row => row.Id == id) is not { } row)
            return Stale.Gone("recipe");
        if (row.Version != version) return Stale.Problem;
        var problems = Problems(recipe);
        if (problems.Count > 0) return problems;
        var book = await BookAsync();
        if (book.TooDeepProblem(recipe, id) is { } chosen) return chosen;
        recipe = Pinned(recipe, book.Read(recipe, id));
        if (book.LoopOf(recipe, id) is { } loop)
            return new Problem(
                "recipe-loop", "lines",
                $"A recipe can't be a part of itself: {string.Join(" → ", loop)}. Choose something else for that line.");
        if (book.TooDeepProblem(recipe, id) is { } deep) return deep;
        if (await TogetherProblemAsync(book.Read(recipe, id), id) is { } within) return within;
        await KeepFirstAsync(row, book);
        if (!string.Equals(row.Name, recipe.Name.Trim(), StringComparison.Ordinal)) await MarkAnewAsync(row, recipe.Name);
        await SetAsync(row, Keyed(recipe));
        var outcome = await db.SaveAsync(row, row);
        kept.Forget(db);
        if (outcome.Succeeded) await RememberAsync(row);
        return outcome;
    }

    // Its tape may be on boxes already: then the mark stays whatever the dish is called; else it follows the name. The batches belong to a
    // later room: the file itself is asked.
    private async Task MarkAnewAsync(RecipeRow row, string name)
    {
        var batches = await db.Database.SqlQuery<int>($"SELECT count(*) AS Value FROM Batches WHERE RecipeId = {row.Id}").SingleAsync();
        if (batches > 0) return;
        var mark = TapeMark.For(name, await TakenMarksAsync(row.Id));
        (row.Letters, row.Tint) = (mark.Letters, mark.Tint);
    }

    // Those of recipes put away too: their boxes may still be there, and they may come back.
    private Task<List<TapeMark>> TakenMarksAsync(Guid? besides) =>
        db.Recipes.Where(row => row.Id != besides).Select(row => new TapeMark(row.Letters, row.Tint)).ToListAsync();

    /// <summary>Takes a recipe off the list, or back to it. A base keeps its variants going even so.</summary>
    public Task<Outcome<RecipeRow>> ArchiveAsync(Guid id, int version, bool archived) => db.InTurnAsync(async () =>
    {
        if (await db.Recipes.SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("recipe");
        if (row.Version != version) return Stale.Problem;
        row.ArchivedAt = archived ? clock.GetUtcNow() : null;
        var outcome = await db.SaveAsync(row, row);
        kept.Forget(db);
        return outcome;
    });

    /// <summary>The saved versions of a recipe, newest first.</summary>
    public async Task<IReadOnlyList<RecipeVersionRow>> VersionsAsync(Guid id) =>
        await db.RecipeVersions.AsNoTracking().Where(row => row.RecipeId == id).OrderByDescending(row => row.Version).Take(200)
            .ToListAsync();

    private static List<Problem> Problems(WrittenRecipe recipe)
    {
        var problems = recipe.Problems().ToList();
        if ((recipe.Name ?? "").Trim().Length is 0 or > 120)
            problems.Add(new("name-missing", "name", "Give the recipe a name of up to 120 letters."));
        return problems;
    }

    // A dish is put together from what is cooked: not from another that is put together.
    private async Task<Problem?> TogetherProblemAsync(Recipe recipe, Guid? self)
    {
        if (!recipe.Yield.IsPutTogether) return null;
        var written = (await WrittenAsync()).Recipes;
        var part = recipe.Parts.Select(one => written[one.RecipeId]).FirstOrDefault(one => one.Yield.IsPutTogether);
        if (part is not null)
            return new("put-together-twice", "lines", $"{part.Name} is put together itself: write what is in it here instead.");
        var around = self is { } id ? written.Values.FirstOrDefault(one => one.Yield.IsPutTogether && Names(one, id)) : null;
        return around is null
            ? null
            : new("put-together-twice", "portions", $"{around.Name} is put together from it: this one has to be cooked itself.");
    }

    private static bool Names(WrittenRecipe recipe, Guid part) =>
        recipe.Lines.Any(line => line.FoodId is { } food && RecipeBook.RecipeOf(food) == part);

    private async Task<Problem?> FamilyProblemAsync(Guid baseId) =>
        await db.Recipes.AsNoTracking().SingleOrDefaultAsync(row => row.Id == baseId) switch
        {
            null => Stale.Gone("recipe"),
            { BaseId: not null } => new("base-variant", "baseId", "A variant has no variants of its own: make one of its base."),
            _ => null,
        };

    private async Task SetAsync(RecipeRow row, WrittenRecipe recipe)
    {
        (row.Name, row.Portions, row.ChangedAt) = (recipe.Name.Trim(), recipe.Yield.Portions, clock.GetUtcNow());
        var makes = recipe.Yield;
        (row.Pieces, row.MayHalve, row.IsPutTogether) = (makes.Pieces, makes.MayHalve, makes.IsPutTogether);
        (row.CookedGrams, row.VolumeMl, row.Pan) = (makes.CookedGrams, makes.VolumeMl, makes.Pan);
        row.Steps = recipe.Steps is { Count: > 0 } steps ? steps : null;
        if (row.BaseId is { } family) row.Changes = Family.Changes((await WrittenAsync()).Recipes[family].Lines, recipe.Lines);
        else
        {
            db.RemoveRange(row.Lines);
            row.Lines = [.. recipe.Lines.Select(RowOf)];
        }
    }

    // A recipe from before versions were kept: how it stood until now is its first.
    private async Task KeepFirstAsync(RecipeRow row, RecipeBook book)
    {
        if (await db.RecipeVersions.AnyAsync(version => version.RecipeId == row.Id)) return;
        db.RecipeVersions.Add(VersionOf(row, (await WrittenAsync()).Recipes[row.Id], book.Read(row.Id), row.ChangedAt));
    }

    private static RecipeLineRow RowOf(WrittenLine line, int position) => new()
    {
        Position = position,
        Text = line.Text,
        FoodId = line.FoodId,
        Part = line.Part,
        IsTakenOut = line.IsTakenOut,
        Key = line.Key,
    };

    private static RecipeVersionRow VersionOf(RecipeRow row, WrittenRecipe written, Recipe recipe, DateTimeOffset at) => new()
    {
        RecipeId = row.Id,
        Version = row.Version,
        SavedAt = at,
        Written = written,
        Portion = MeasureTotals.Of(recipe.Portion, null),
    };

    // What was written with a food keeps it, and the version is kept with its figures of now.
    private async Task RememberAsync(RecipeRow row)
    {
        var written = (await WrittenAsync()).Recipes[row.Id];
        var recipe = (await BookAsync()).Read(row.Id);
        await foods.UsedAsync(recipe.Lines.Select(line => line.Read.Ingredient?.Food.Id).OfType<string>());
        var now = clock.GetUtcNow();
        var own = db.RecipeVersions.Where(version => version.RecipeId == row.Id);
        var last = await own.OrderByDescending(version => version.Version).FirstOrDefaultAsync();

        // By a clock that was set back nothing was written a moment ago.
        var isOneSitting = last is not null && now >= last.SavedAt && now - last.SavedAt < OneSitting;
        if (isOneSitting && await own.CountAsync() > 1) db.RecipeVersions.Remove(last!);
        db.RecipeVersions.Add(VersionOf(row, written, recipe, now));
        await db.SaveChangesAsync();
    }

    // A line that means another recipe by its name keeps meaning that one.
    private static WrittenRecipe Pinned(WrittenRecipe recipe, Recipe read)
    {
        WrittenLine Pin(WrittenLine line, RecipeLine reading) =>
            line.FoodId is null && reading.Read.Ingredient?.Food.Id is { } id && RecipeBook.RecipeOf(id) is not null
                ? line with { FoodId = id }
                : line;
        return recipe with { Lines = [.. recipe.Lines.Zip(read.Lines, Pin)] };
    }

    // Lines without a key get one; of two with the same the second gets another.
    private static WrittenRecipe Keyed(WrittenRecipe recipe)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        bool IsFree(string key) => key.Length is > 0 and <= 40 && seen.Add(key);
        string KeyOf(WrittenLine line) => line.Key is { } key && IsFree(key) ? key : Guid.NewGuid().ToString("N")[..12];
        return recipe with { Lines = [.. recipe.Lines.Select(line => line with { Text = line.Text.Trim(), Key = KeyOf(line) })] };
    }

    private static List<WrittenLine> LinesOf(RecipeRow row) =>
        [
            .. row.Lines.OrderBy(line => line.Position)
                .Select(line => new WrittenLine(line.Text, line.FoodId, line.Part, line.IsTakenOut, line.Key)),
        ];

    private static WrittenRecipe Written(RecipeRow row, IReadOnlyList<WrittenLine>? of) => new(
        row.Name, of is null ? LinesOf(row) : Family.Apply(of, row.Changes ?? []),
        new(row.Portions, row.Pieces, row.CookedGrams, row.VolumeMl, row.Pan, row.MayHalve, row.IsPutTogether), row.Steps);
}
