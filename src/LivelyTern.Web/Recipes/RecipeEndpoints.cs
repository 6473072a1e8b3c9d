using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Recipes;
using LivelyTern.Formats;
using LivelyTern.Formats.Recipes;
using LivelyTern.Web.Aim;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Recipes;

/// <summary>A recipe read from a file, not yet saved.</summary>
/// <param name="Recipe">Ready to be saved.</param>
/// <param name="NotMapped">What was found and has no place here, line by line.</param>
/// <param name="NotUnderstood">Its lines that name no food known here.</param>
/// <param name="Standings">How many of its lines are sure, taken by what is usual, and open.</param>
public sealed record FoundRecipe(
    RecipeRequest Recipe, IReadOnlyList<string> NotMapped, IReadOnlyList<string> NotUnderstood, LineStandings Standings);

/// <summary>The recipes of a file.</summary>
/// <param name="Recipes">What was found.</param>
/// <param name="Remarks">What could not be read.</param>
public sealed record FoundRecipes(IReadOnlyList<FoundRecipe> Recipes, IReadOnlyList<string> Remarks);

/// <summary>Recipes: lists of amounts, their families and their history. Saving one touches batches, and stands with them.</summary>
public static class RecipeEndpoints
{
    private const long LargestFile = 10L << 20;

    /// <summary>Maps <c>/api/recipes</c>.</summary>
    public static void MapRecipes(this IEndpointRouteBuilder api)
    {
        var recipes = api.MapGroup("/recipes").WithTags("Recipes");
        recipes.MapGet("/", ListAsync).WithName("listRecipes");
        recipes.MapGet("/starters", () => StarterRecipes.All.Select(recipe => Sent(recipe.Name, recipe)).ToList()).WithName("listStarters");
        recipes.MapGet("/names", NamesAsync).WithName("listRecipeNames");
        recipes.MapGet("/{id:guid}", async Task<Results<Ok<RecipeView>, ProblemHttpResult>> (Guid id, RecipeStore store) =>
            await ShowAsync(id, store) is { } recipe
                ? TypedResults.Ok(recipe)
                : Answers.Problem([Stale.Gone("recipe")])).WithName("getRecipe");
        recipes.MapPost("/", async (RecipeRequest body, RecipeStore store) =>
            await (await store.AddAsync(body.Written(body.Name, body.Steps), body.BaseId))
            .AnswerAsync(async row => (await ShowAsync(row.Id, store))!))
            .WithName("addRecipe");
        recipes.MapDelete("/{id:guid}", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, RecipeStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ArchiveAsync(id, version, archived: true))).WithName("archiveRecipe");
        recipes.MapPost("/{id:guid}/restore", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, RecipeStore store) =>
            WriteAsync(id, ifMatch, store, version => store.ArchiveAsync(id, version, archived: false))).WithName("restoreRecipe");
        recipes.MapGet("/{id:guid}/versions", VersionsAsync).WithName("listRecipeVersions");
        recipes.MapGet("/{id:guid}/recipe.jsonld", (Guid id, RecipeStore store) =>
            FileAsync(id, store, RecipeJsonLd.Write, "application/ld+json", "jsonld"))
            .WithName("exportJsonLd");
        recipes.MapGet("/{id:guid}/recipe.md", (Guid id, RecipeStore store) =>
            FileAsync(id, store, RecipeMarkdown.Write, "text/markdown; charset=utf-8", "md"))
            .WithName("exportMarkdown");
        recipes.MapPost("/read", ReadAsync)
            .WithMetadata(new RequestSizeLimitAttribute(LargestFile)).Accepts<Stream>("application/octet-stream").WithName("readRecipes");
        api.MapRecipeCalculations();
    }

    private static RecipeName NameOf(RecipeRow row) => new(row.Id, row.Name, row.Letters, row.Tint, row.UsualPortions);

    private static string? FillsOf(decimal? volumeMl) => volumeMl is { } ml ? SaidVolume.Of(ml) : null;

    /// <summary>A written recipe as it is sent.</summary>
    public static RecipeRequest Sent(string name, WrittenRecipe written) => new(
        name, [.. written.Lines.Select(line => line.Text)], written.Yield.Portions, [.. written.Lines.Select(line => line.FoodId ?? "")],
        [.. written.Lines.Select(line => line.Part)], [.. written.Lines.Select(line => line.IsTakenOut)],
        [.. written.Lines.Select(line => line.Key)], written.Yield.Pieces, written.Yield.CookedGrams, FillsOf(written.Yield.VolumeMl),
        written.Yield.Pan, written.Steps ?? [], MayHalve: written.Yield.MayHalve, IsPutTogether: written.Yield.IsPutTogether);

    private static async Task<List<RecipeRowView>> ListAsync(RecipeStore store, EaterStore eaters, Guid? eaterId)
    {
        var rule = eaterId is { } id ? (await eaters.FindAsync(id))?.Aim.Rule : null;
        var book = await store.BookAsync();

        // One that another hand writes down in this very moment is in the next list.
        return [.. (await store.ListAsync()).Where(row => book.Has(row.Id)).Select(row =>
        {
            var recipe = book.Read(row.Id);
            var portion = recipe.Portion;
            return new RecipeRowView(
                row.Id, row.Name, row.Letters, row.Tint, row.Portions, recipe.Weight.Value / row.Portions,
                Figure.Of(MeasureTotals.Of(portion, rule)), recipe.Lines.Count(line => line.Contents is null),
                row.BaseId, portion.Allergens, recipe.Yield.IsPutTogether);
        })];
    }

    private static async Task<List<RecipeName>> NamesAsync(RecipeStore store) => [.. (await store.ListAsync()).Select(NameOf)];

    private static async Task<List<RecipeVersionView>> VersionsAsync(Guid id, RecipeStore store)
    {
        var rows = await store.VersionsAsync(id);
        var book = await store.BookAsync();
        RecipeVersionView Show(RecipeVersionRow row, int i)
        {
            var (written, before) = (row.Written, i + 1 < rows.Count ? rows[i + 1].Written : null);
            var now = MeasureTotals.Of(book.Read(written, id).Portion, null);
            return new(
                row.Version, row.SavedAt, written.Name, Sent(written.Name, written),
                before is null ? [] : RecipeHistory.Between(before.Lines, written.Lines), written.Yield.Portions,
                Figure.Of(row.Portion), Figure.Of(now));
        }

        return [.. rows.Select(Show)];
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> FileAsync(
        Guid id, RecipeStore store, Func<WrittenRecipe, Recipe, string> write, string type, string extension)
    {
        if (!(await store.WrittenAsync()).Recipes.TryGetValue(id, out var written)) return Answers.Problem([Stale.Gone("recipe")]);
        var text = write(written, (await store.BookAsync()).Read(id));
        var words = Core.Foods.FoodWords.All(written.Name).Select(word => new string([.. word.Where(char.IsAsciiLetterOrDigit)]));
        var name = string.Join('-', words.Where(word => word.Length > 0));
        return TypedResults.File(System.Text.Encoding.UTF8.GetBytes(text), type, $"{(name.Length > 0 ? name : "recipe")}.{extension}");
    }

    private static async Task<Results<Ok<FoundRecipes>, ProblemHttpResult>> ReadAsync(
        HttpRequest request, RecipeStore store, CancellationToken stop)
    {
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes, stop);
        var read = RecipeFiles.Read(TextFile.Read(bytes.ToArray()), stop);
        var book = await store.BookAsync();
        return TypedResults.Ok(new FoundRecipes(
            [.. read.Recipes.Select(found =>
            {
                var written = book.Apart(new(found.Name, found.Lines, found.Yield, found.Steps));
                var lines = book.Read(written).Lines;
                return new FoundRecipe(
                    Sent(found.Name, written), found.NotMapped,
                    [.. lines.Where(line => line.Contents is null).Select(line => line.Read.Text)],
                    LineStandings.Of(lines.Select(line => line.Read)));
            })],
            read.Remarks));
    }

    /// <summary>A write on a recipe at the version the request carries; a stale one gets the recipe as it is now.</summary>
    public static async Task<Results<Ok<RecipeView>, ProblemHttpResult>> WriteAsync(
        Guid id, string? ifMatch, RecipeStore store, Func<int, Task<Outcome<RecipeRow>>> write)
    {
        ArgumentNullException.ThrowIfNull(write);
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        return await (await write(version)).AnswerWriteAsync(
            async row => (await ShowAsync(row.Id, store))!, async () => await ShowAsync(id, store));
    }

    private static async Task<RecipeView?> ShowAsync(Guid id, RecipeStore store)
    {
        if (await store.FindAsync(id) is not { } row) return null;
        var all = (await store.WrittenAsync()).Recipes;
        var written = all[id];
        var of = row.BaseId is { } baseId ? all[baseId] : null;
        var keys = of?.Lines.ToDictionary(line => line.Key, StringComparer.Ordinal) ?? [];
        var own = written.Lines.Select(line => line.Key).ToHashSet(StringComparer.Ordinal);
        LineOrigin OriginOf(WrittenLine line)
        {
            if (!keys.TryGetValue(line.Key, out var same)) return LineOrigin.Own;
            return same == line ? LineOrigin.Base : LineOrigin.Replaced;
        }

        var variants = (await store.ListAsync()).Where(other => other.BaseId == id);
        var steps = written.ToDo;
        var (hands, waits) = (steps.Sum(step => step.Way.HandsOn), steps.Sum(step => step.Way.Unattended));
        return new(
            row.Id, row.Name, row.Letters, row.Tint, row.Portions, [.. written.Lines.Select(line => line.Text)],
            [.. written.Lines.Select(line => line.FoodId ?? "")], [.. written.Lines.Select(line => line.Part)],
            [.. written.Lines.Select(line => line.IsTakenOut)], [.. written.Lines.Select(line => line.Key)],
            [.. written.Lines.Select(OriginOf)], [.. keys.Values.Where(line => !own.Contains(line.Key)).Select(line => line.Text)],
            row.Pieces, row.CookedGrams, FillsOf(row.VolumeMl), row.Pan, row.MayHalve, row.IsPutTogether, written.Steps ?? [], hands, waits,
            row.BaseId, of?.Name, [.. variants.Select(NameOf)], row.ChangedAt, row.ArchivedAt is not null, row.Version);
    }
}
