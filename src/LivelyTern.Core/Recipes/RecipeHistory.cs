namespace LivelyTern.Core.Recipes;

/// <summary>How a line differs between two versions.</summary>
public enum LineChangeKind
{
    /// <summary>New in the later one.</summary>
    Added,

    /// <summary>Gone from it.</summary>
    Removed,

    /// <summary>Written otherwise, or of another part or food.</summary>
    Changed,
}

/// <summary>A difference between two versions.</summary>
/// <param name="Kind">What happened.</param>
/// <param name="Before">The line before, or null.</param>
/// <param name="After">The line after, or null.</param>
public sealed record LineChange(LineChangeKind Kind, WrittenLine? Before, WrittenLine? After);

/// <summary>What changed from one version of a recipe to another.</summary>
public static class RecipeHistory
{
    /// <summary>The lines that differ, in the order of the later version, those gone at the end.</summary>
    public static IReadOnlyList<LineChange> Between(IReadOnlyList<WrittenLine> before, IReadOnlyList<WrittenLine> after)
    {
        ArgumentNullException.ThrowIfNull(before);
        ArgumentNullException.ThrowIfNull(after);
        var changes = new List<LineChange>();
        foreach (var line in after)
        {
            var was = before.FirstOrDefault(other => string.Equals(other.Key, line.Key, StringComparison.Ordinal));
            if (was is null) changes.Add(new(LineChangeKind.Added, null, line));
            else if (was != line) changes.Add(new(LineChangeKind.Changed, was, line));
        }

        var stay = after.Select(line => line.Key).ToHashSet(StringComparer.Ordinal);
        var removed = before.Where(line => !stay.Contains(line.Key));
        changes.AddRange(removed.Select(line => new LineChange(LineChangeKind.Removed, line, null)));
        return changes;
    }
}
