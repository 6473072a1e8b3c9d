namespace LivelyTern.Core.Measures;

/// <summary>The middle of values, which one odd one among them does not move.</summary>
public static class Middle
{
    /// <summary>Their median: the middle one, of an even count the mean of the two in the middle; null of none.</summary>
    public static decimal? Of(IEnumerable<decimal> values)
    {
        var sorted = values.Order().ToList();
        return sorted.Count == 0 ? null : (sorted[(sorted.Count - 1) / 2] + sorted[sorted.Count / 2]) / 2;
    }
}
