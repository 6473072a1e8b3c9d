using LivelyTern.Core.Cook;

namespace LivelyTern.Data.Cook;

#pragma warning disable CS1591 // Stored shapes mirror the core's records, where the units are documented.

/// <summary>A food that stands in for another, as it is kept.</summary>
public sealed record StoredSubstitution(string FoodId, string InsteadId, decimal PerGram);

/// <summary>The foods that stand in for others in a batch, as they are kept.</summary>
public sealed record StoredInstead(int V, IReadOnlyList<StoredSubstitution> All)
{
    public static StoredInstead? Of(IReadOnlyList<Substitution> all) => all is not { Count: > 0 }
        ? null
        : new(1, [.. all.Select(one => new StoredSubstitution(one.FoodId, one.InsteadId, one.PerGram))]);

    public IReadOnlyList<Substitution> Read() => [.. All.Select(one => new Substitution(one.FoodId, one.InsteadId, one.PerGram))];
}
