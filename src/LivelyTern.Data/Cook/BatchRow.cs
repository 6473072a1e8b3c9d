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

    /// <summary>Its number in this household, from 1: what the codes on its boxes' labels begin with. It never changes.</summary>
    public int Serial { get; set; }

    public Guid RecipeId { get; set; }

    public required string RecipeName { get; set; }

    /// <summary>The version of the recipe it was begun from; null for one of a program before this.</summary>
    public int? RecipeVersion { get; set; }

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

    /// <summary>What it was expected to weigh before it was weighed; null until then.</summary>
    public long? ExpectedMilligrams { get; set; }

    /// <summary>Cooked by raw weight, written when it was weighed; null where nothing that weighs anything went in.</summary>
    public decimal? Yield { get; set; }

    /// <summary>How many pieces were made of it, where they were counted.</summary>
    public int? Pieces { get; set; }

    /// <summary>What it fills in millilitres, kept when it is packed.</summary>
    public decimal? VolumeMl { get; set; }

    /// <summary>The foods that stand in for others in it; null for none.</summary>
    public StoredInstead? Instead { get; set; }

    /// <summary>Whether it is put together from other batches: then its lines are the plain foods only.</summary>
    public bool IsPutTogether { get; set; }

    /// <summary>How many of its portions are there because put-together dishes take of it.</summary>
    public int ForDishes { get; set; }

    public int Version { get; set; } = 1;

    /// <summary>The batches it is put together from; none for any other.</summary>
    public List<BatchPartRow> Parts { get; set; } = [];

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

/// <summary>What a put-together dish takes of another batch, over all its boxes.</summary>
public sealed class BatchPartRow
{
    public Guid DishId { get; set; }

    /// <summary>The recipe its line names.</summary>
    public Guid RecipeId { get; set; }

    /// <summary>The batch of that recipe.</summary>
    public Guid PartId { get; set; }

    public BatchRow Part { get; set; } = null!;

    /// <summary>What it asks for; what is in its boxes once it is packed.</summary>
    public long Milligrams { get; set; }
}

internal sealed class BatchRows : IEntityTypeConfiguration<BatchRow>, IEntityTypeConfiguration<BatchLineRow>,
    IEntityTypeConfiguration<BatchPartRow>
{
    public void Configure(EntityTypeBuilder<BatchRow> builder)
    {
        builder.Property(row => row.State).HasConversion<string>();
        builder.Property(row => row.DiscardedFrom).HasConversion<string>();
        builder.Property(row => row.Instead).AsStored();
        builder.HasIndex(row => row.State);
        builder.HasIndex(row => row.Serial).IsUnique();
        builder.HasIndex(row => new { row.RecipeId, row.CookedOn });
        builder.HasOne<RecipeRow>().WithMany().HasForeignKey(row => row.RecipeId).OnDelete(DeleteBehavior.Restrict);
        builder.HasMany(row => row.Lines).WithOne().HasForeignKey(row => row.BatchId);
    }

    public void Configure(EntityTypeBuilder<BatchPartRow> builder)
    {
        builder.ToTable("BatchParts").HasKey(row => new { row.DishId, row.RecipeId });
        builder.HasOne<BatchRow>().WithMany(row => row.Parts).HasForeignKey(row => row.DishId);
        builder.HasOne(row => row.Part).WithMany().HasForeignKey(row => row.PartId).OnDelete(DeleteBehavior.Restrict);
        builder.HasIndex(row => row.PartId);
    }

    public void Configure(EntityTypeBuilder<BatchLineRow> builder)
    {
        builder.ToTable("BatchLines").HasKey(row => new { row.BatchId, row.Position });
        builder.Property(row => row.Planned).AsStored();
        builder.Property(row => row.Really).AsStored();
    }
}
