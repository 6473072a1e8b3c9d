namespace LivelyTern.Core.Foods;

/// <summary>Kinds of food by their id: built-in foods have a plain word, all else begins with what it is.</summary>
public static class FoodIds
{
    /// <summary>An own food.</summary>
    public const string Own = "own:";

    /// <summary>A row of an imported library.</summary>
    public const string Library = "lib:";

    /// <summary>A recipe, where a line means one.</summary>
    public const string Recipe = "recipe:";

    /// <summary>Whether an id is of this kind.</summary>
    /// <param name="id">The id.</param>
    /// <param name="kind">One of the above.</param>
    public static bool Is(string id, string kind)
    {
        ArgumentNullException.ThrowIfNull(id);
        return id.StartsWith(kind, StringComparison.Ordinal);
    }
}
