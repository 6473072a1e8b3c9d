using LivelyTern.Core.Cook;
using LivelyTern.Data.Recipes;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Cook;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>A recipe cooked once, or to be. Weights are whole milligrams.</summary>
public sealed class BatchRow : IVersioned
{
    public Guid Id { get; set; }

    public Guid RecipeId { get; set; }

    public required string RecipeName { get; set; }

    public required string Letters { get; set; }

    public int Tint { get; set; }

    /// <summary>Where it stands.</summary>
    public BatchState State { get; set; }

    /// <summary>Where it stood when it was discarded; null where it was not.</summary>
    public BatchState? DiscardedFrom { get; set; }

    /// <summary>The day it was cooked, or is to be.</summary>
    public DateOnly CookedOn { get; set; }

    public int Portions { get; set; }

    /// <summary>The empty pan it was weighed with; 0 where the food itself was weighed.</summary>
    public long? PanMilligrams { get; set; }

    /// <summary>What it weighed without the pan; null until it is weighed.</summary>
    public long? CookedMilligrams { get; set; }

    /// <summary>Cooked by raw weight, written when it was weighed; null where nothing that weighs anything went in.</summary>
    public decimal? Yield { get; set; }

    /// <summary>How many pieces were made of it, where they were counted.</summary>
    public int? Pieces { get; set; }

    /// <summary>What it fills in millilitres, kept when it is packed.</summary>
    public decimal? VolumeMl { get; set; }

    /// <summary>The foods that stand in for others in it; null for none.</summary>
    public StoredInstead? Instead { get; set; }

    public int Version { get; set; } = 1;

    /// <summary>What goes in, and what really went in. While it is planned, how its recipe stood when it was planned.</summary>
    public List<BatchLineRow> Lines { get; set; } = [];
}

/// <summary>A line of a batch.</summary>
public sealed class BatchLineRow
{
    public Guid BatchId { get; set; }

    public int Position { get; set; }

    public required string Text { get; set; }

    public bool IsTakenOut { get; set; }

    public required StoredContents Planned { get; set; }

    /// <summary>What went in instead, as typed; empty where it was left out.</summary>
    public string? ReallyText { get; set; }

    public StoredContents? Really { get; set; }
}

internal sealed class BatchRows : IEntityTypeConfiguration<BatchRow>, IEntityTypeConfiguration<BatchLineRow>
{
    public void Configure(EntityTypeBuilder<BatchRow> builder)
    {
        builder.Property(row => row.State).HasConversion<string>();
        builder.Property(row => row.DiscardedFrom).HasConversion<string>();
        builder.Property(row => row.Instead).AsStored();
        builder.HasIndex(row => row.State);
        builder.HasIndex(row => new { row.RecipeId, row.CookedOn });
        builder.HasOne<RecipeRow>().WithMany().HasForeignKey(row => row.RecipeId).OnDelete(DeleteBehavior.Restrict);
        builder.HasMany(row => row.Lines).WithOne().HasForeignKey(row => row.BatchId);
    }

    public void Configure(EntityTypeBuilder<BatchLineRow> builder)
    {
        builder.ToTable("BatchLines").HasKey(row => new { row.BatchId, row.Position });
        builder.Property(row => row.Planned).AsStored();
        builder.Property(row => row.Really).AsStored();
    }
}
