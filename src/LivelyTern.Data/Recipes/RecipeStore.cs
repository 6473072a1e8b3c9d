using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data.Foods;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Recipes;

/// <summary>A line as the cook wrote it.</summary>
/// <param name="Text">As typed.</param>
/// <param name="FoodId">The food chosen for it, or null where its words say enough.</param>
public sealed record WrittenLine(string Text, string? FoodId = null);

/// <summary>The cook's recipes.</summary>
public sealed class RecipeStore(TernDb db, FoodStore foods, TimeProvider clock)
{
    /// <summary>The most lines a recipe holds.</summary>
    public const int MostLines = 200;

    /// <summary>The longest line.</summary>
    public const int LongestLine = 300;

    /// <summary>Recipes by name, without those taken away.</summary>
    public async Task<IReadOnlyList<RecipeRow>> ListAsync() =>
        await db.Recipes.AsNoTracking().Where(row => row.ArchivedAt == null).Include(row => row.Lines.OrderBy(line => line.Position))
            .OrderBy(row => row.Name).ToListAsync();

    /// <summary>How many recipes there are.</summary>
    public Task<int> CountAsync() => db.Recipes.CountAsync(row => row.ArchivedAt == null);

    /// <summary>One recipe, also one taken away; null where there is none.</summary>
    public Task<RecipeRow?> FindAsync(Guid id) =>
        db.Recipes.AsNoTracking().Include(row => row.Lines.OrderBy(line => line.Position)).SingleOrDefaultAsync(row => row.Id == id);

    /// <summary>Reads a recipe's lines against the foods as they are now.</summary>
    public async Task<Recipe> ReadAsync(RecipeRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new(row.Name, await ReadLinesAsync(row.Lines.OrderBy(line => line.Position).Select(line => new WrittenLine(line.Text, line.FoodId))), row.Portions);
    }

    /// <summary>Reads lines against the foods as they are now.</summary>
    public async Task<IReadOnlyList<FoodLine>> ReadLinesAsync(IEnumerable<WrittenLine> lines)
    {
        ArgumentNullException.ThrowIfNull(lines);
        var catalogue = await foods.CatalogueAsync();
        return [.. lines.Select(line => FoodLine.Read(line.Text, catalogue, line.FoodId is null ? null : catalogue.Find(line.FoodId)))];
    }

    /// <summary>Writes a new recipe down; its tape mark is found for it.</summary>
    public async Task<Outcome<RecipeRow>> AddAsync(string name, IReadOnlyList<WrittenLine> lines, int portions)
    {
        var problems = Problems(name, lines, portions);
        if (problems.Count > 0) return problems;
        var taken = await db.Recipes.Where(row => row.ArchivedAt == null).Select(row => new TapeMark(row.Letters, row.Tint)).ToListAsync();
        var mark = TapeMark.For(name, taken);
        var row = new RecipeRow { Id = Guid.CreateVersion7(), Name = name.Trim(), Letters = mark.Letters, Tint = mark.Tint, Portions = portions, ChangedAt = clock.GetUtcNow() };
        row.Lines.AddRange(Rows(lines));
        db.Recipes.Add(row);
        await db.SaveChangesAsync();
        return row;
    }

    /// <summary>Saves a recipe that was read at a version. Batches already cooked keep what went into them.</summary>
    public async Task<Outcome<RecipeRow>> ChangeAsync(Guid id, int version, string name, IReadOnlyList<WrittenLine> lines, int portions)
    {
        if (await db.Recipes.Include(row => row.Lines).SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("recipe");
        if (row.Version != version) return Stale.Problem;
        var problems = Problems(name, lines, portions);
        if (problems.Count > 0) return problems;
        (row.Name, row.Portions, row.ChangedAt) = (name.Trim(), portions, clock.GetUtcNow());
        db.RemoveRange(row.Lines);
        row.Lines = [.. Rows(lines)];
        return await db.SaveAsync(row, row);
    }

    /// <summary>Takes a recipe off the list, or back to it.</summary>
    public async Task<Outcome<RecipeRow>> ArchiveAsync(Guid id, int version, bool archived)
    {
        if (await db.Recipes.Include(row => row.Lines).SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("recipe");
        if (row.Version != version) return Stale.Problem;
        row.ArchivedAt = archived ? clock.GetUtcNow() : null;
        return await db.SaveAsync(row, row);
    }

    /// <summary>What is wrong with lines that are only to be read.</summary>
    public static List<Problem> LineProblems(IReadOnlyList<WrittenLine>? lines)
    {
        if (lines is null) return [new("lines-missing", "lines", "Give the recipe's lines, one text each.")];
        var problems = new List<Problem>();
        if (lines.Count > MostLines) problems.Add(new("lines-many", "lines", $"A recipe holds up to {MostLines} lines."));
        for (var i = 0; i < Math.Min(lines.Count, MostLines); i++)
        {
            if (lines[i]?.Text is not { Length: <= LongestLine })
                problems.Add(new("line-long", $"lines[{i}]", $"A line holds up to {LongestLine} letters."));
        }

        return problems;
    }

    private static List<Problem> Problems(string? name, IReadOnlyList<WrittenLine>? lines, int portions)
    {
        var problems = LineProblems(lines);
        if ((name ?? "").Trim().Length is 0 or > 120) problems.Add(new("name-missing", "name", "Give the recipe a name of up to 120 letters."));
        problems.AddRange(Recipe.Cut("", [], portions).Problems);
        return problems;
    }

    private static IEnumerable<RecipeLineRow> Rows(IReadOnlyList<WrittenLine> lines) =>
        lines.Select((line, i) => new RecipeLineRow { Position = i, Text = line.Text.Trim(), FoodId = line.FoodId });
}
