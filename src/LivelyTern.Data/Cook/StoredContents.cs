namespace LivelyTern.Data.Cook;

#pragma warning disable CS1591 // Stored shapes mirror the core's records, where the units are documented.

/// <summary>A food in something, as it is kept: the record of the food as it stood then, and exact grams.</summary>
/// <param name="Food">The food's record (<see cref="Foods.FoodRecords"/>).</param>
/// <param name="Grams">Grams, below zero where it is taken out.</param>
/// <param name="IsTrace">A pinch.</param>
public sealed record StoredPart(long Food, decimal Grams, bool IsTrace);

/// <summary>What a line brings, as it is kept.</summary>
/// <param name="V">The version of this shape.</param>
/// <param name="Parts">The foods.</param>
/// <param name="SomethingUnread">Whether something of it was not understood.</param>
public sealed record StoredContents(int V, IReadOnlyList<StoredPart> Parts, bool SomethingUnread)
{
    internal const int Shape = 1;
}
