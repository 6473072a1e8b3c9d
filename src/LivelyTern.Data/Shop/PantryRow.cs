using LivelyTern.Core.Measures;
using LivelyTern.Core.Shop;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Shop;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>Something in the house. Weights are whole milligrams, as purchased.</summary>
public sealed class PantryRow : IVersioned
{
    public Guid Id { get; set; }

    public required string FoodId { get; set; }

    /// <summary>The food's name when it was written down, for when it is not known any more.</summary>
    public required string Name { get; set; }

    /// <summary>What is there; null for enough that nobody counts.</summary>
    public long? Milligrams { get; set; }

    public DateOnly? UseBy { get; set; }

    public bool IsFirst { get; set; }

    public DateTimeOffset CountedAt { get; set; }

    public int Version { get; set; } = 1;

    /// <summary>It as the core knows it.</summary>
    public PantryItem ToItem() => new(Id, Data.Milligrams.ToGrams(Milligrams), UseBy, IsFirst);
}

/// <summary>
/// What a batch or something eaten took of a thing in the house, so that a correction of it can be given back. A count of the thing settles
/// what was taken before it.
/// </summary>
public sealed class PantryUseRow
{
    /// <summary>The batch, or the thing on a day.</summary>
    public Guid SourceId { get; set; }

    public Guid PantryId { get; set; }

    public long Milligrams { get; set; }
}

internal sealed class PantryRows : IEntityTypeConfiguration<PantryRow>, IEntityTypeConfiguration<PantryUseRow>
{
    public void Configure(EntityTypeBuilder<PantryRow> builder) => builder.ToTable("Pantry").HasIndex(row => row.FoodId);

    public void Configure(EntityTypeBuilder<PantryUseRow> builder)
    {
        builder.ToTable("PantryUses").HasKey(row => new { row.SourceId, row.PantryId });
        builder.HasIndex(row => row.PantryId);
        builder.HasOne<PantryRow>().WithMany().HasForeignKey(row => row.PantryId).OnDelete(DeleteBehavior.Cascade);
    }
}
