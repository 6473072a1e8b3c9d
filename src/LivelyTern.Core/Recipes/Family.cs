namespace LivelyTern.Core.Recipes;

/// <summary>How a variant differs from its base in one line.</summary>
public enum VariantKind
{
    /// <summary>A line the base does not have.</summary>
    Add,

    /// <summary>Another line in the place of one of the base.</summary>
    Replace,

    /// <summary>A line of the base left out.</summary>
    Drop,
}

/// <summary>One difference between a variant and its base.</summary>
/// <param name="Kind">What is done.</param>
/// <param name="Key">The key of the line: the base's own where it replaces or drops.</param>
/// <param name="Line">The line added or put in place; null where one is dropped.</param>
/// <param name="After">For a line added, the key of the line before it; null at the top.</param>
public sealed record VariantChange(VariantKind Kind, string Key, WrittenLine? Line = null, string? After = null);

/// <summary>
/// A base and its flavours. A variant keeps only what it changes, so that a change of the base reaches all of them at once.
/// </summary>
public static class Family
{
    /// <summary>
    /// The lines of a variant. A replacement whose line the base no longer has stays as a line of the variant's own; a dropped line that is
    /// gone from the base is gone anyway.
    /// </summary>
    /// <param name="lines">The base's lines, each with its key.</param>
    /// <param name="changes">What the variant changes.</param>
    public static IReadOnlyList<WrittenLine> Apply(IReadOnlyList<WrittenLine> lines, IReadOnlyList<VariantChange> changes)
    {
        ArgumentNullException.ThrowIfNull(lines);
        ArgumentNullException.ThrowIfNull(changes);
        var byKey = changes.Where(change => change.Kind != VariantKind.Add).ToDictionary(change => change.Key, StringComparer.Ordinal);
        var result = new List<WrittenLine>();
        foreach (var line in lines)
        {
            if (!byKey.TryGetValue(line.Key, out var change)) result.Add(line);
            else if (change.Kind == VariantKind.Replace) result.Add(change.Line! with { Key = line.Key });
        }

        foreach (var change in changes)
        {
            var isOrphan = change.Kind == VariantKind.Replace && !lines.Any(line => Same(line.Key, change.Key));
            if (change.Kind != VariantKind.Add && !isOrphan) continue;
            var before = result.FindIndex(line => Same(line.Key, change.After));
            result.Insert(
                change.After is null ? (isOrphan ? result.Count : 0) : before < 0 ? result.Count : before + 1,
                change.Line! with { Key = change.Key });
        }

        return result;
    }

    /// <summary>What a variant changes: nothing where its lines are the base's.</summary>
    /// <param name="lines">The base's lines.</param>
    /// <param name="variant">The variant's lines; one with a key of the base stands in that line's place.</param>
    public static IReadOnlyList<VariantChange> Changes(IReadOnlyList<WrittenLine> lines, IReadOnlyList<WrittenLine> variant)
    {
        ArgumentNullException.ThrowIfNull(lines);
        ArgumentNullException.ThrowIfNull(variant);
        var changes = new List<VariantChange>();
        foreach (var line in lines)
        {
            var own = variant.FirstOrDefault(other => Same(other.Key, line.Key));
            if (own is null) changes.Add(new(VariantKind.Drop, line.Key));
            else if (own != line) changes.Add(new(VariantKind.Replace, line.Key, own));
        }

        for (var i = 0; i < variant.Count; i++)
        {
            if (!lines.Any(line => Same(line.Key, variant[i].Key)))
                changes.Add(new(VariantKind.Add, variant[i].Key, variant[i], i > 0 ? variant[i - 1].Key : null));
        }

        return changes;
    }

    private static bool Same(string? a, string? b) => string.Equals(a, b, StringComparison.Ordinal);
}
