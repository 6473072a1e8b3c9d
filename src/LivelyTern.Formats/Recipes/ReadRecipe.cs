using LivelyTern.Core.Recipes;

namespace LivelyTern.Formats.Recipes;

/// <summary>A recipe read from a file.</summary>
/// <param name="Name">Its name; may be empty.</param>
/// <param name="Lines">Its lines, as they stand.</param>
/// <param name="Yield">What it makes, as far as it says.</param>
/// <param name="Steps">Its steps.</param>
/// <param name="NotMapped">What was found and has no place here, line by line: "image: https://...".</param>
public sealed record ReadRecipe(
    string Name, IReadOnlyList<WrittenLine> Lines, RecipeYield Yield, IReadOnlyList<RecipeStep> Steps, IReadOnlyList<string> NotMapped);

/// <summary>The recipes of a file, and what is to be said about it.</summary>
/// <param name="Recipes">What was found.</param>
/// <param name="Remarks">What could not be read, in words: a broken block, a file without a recipe.</param>
public sealed record ReadRecipes(IReadOnlyList<ReadRecipe> Recipes, IReadOnlyList<string> Remarks);

/// <summary>Recipes from any text: JSON-LD, a saved page with JSON-LD inside, or plain text.</summary>
public static class RecipeFiles
{
    /// <summary>Letters of a file at most; a recipe's page with everything in it stays far below.</summary>
    public const int MostLetters = 8_000_000;

    /// <summary>Recipes that are read of one file at most.</summary>
    internal const int MostRecipes = 100;

    private const int MostNotMapped = 100;

    /// <summary>Reads what is there. Scripts are never run and tags are taken off: text stays text.</summary>
    /// <param name="text">The file's text.</param>
    /// <param name="stop">Ends the reading: whoever asked has gone.</param>
    public static ReadRecipes Read(string text, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (text.Length > MostLetters) return new([], ["The file is too large for a recipe."]);
        var start = text.AsSpan().TrimStart().TrimStart('\uFEFF');
        if (start.IsEmpty) return new([], ["The file is empty."]);
        if (start[0] is '{' or '[') return Kept(RecipeJsonLd.Read([text], stop));
        return Kept(start[0] == '<' || text.Contains("application/ld+json", StringComparison.OrdinalIgnoreCase)
            ? RecipeHtml.Read(text, stop)
            : RecipeText.Read(text, stop));
    }

    // What one looks through by hand; of the rest it is said that it is there.
    private static ReadRecipes Kept(ReadRecipes read) => read with
    {
        Recipes = [.. read.Recipes.Select(one => one.NotMapped.Count <= MostNotMapped
            ? one
            : one with { NotMapped = [.. one.NotMapped.Take(MostNotMapped), $"and {one.NotMapped.Count - MostNotMapped} more"] })],
    };
}
