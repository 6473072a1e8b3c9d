using LivelyTern.Core.Pack;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Pack;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>
/// A packed box. How it stands is what its last event says (<see cref="BoxStore.Happened"/> writes both); one that was emptied back is
/// found by its history only.
/// </summary>
public sealed class BoxRow : IVersioned
{
    public Guid Id { get; set; }

    /// <summary>The batch it is named for.</summary>
    public Guid BatchId { get; set; }

    public BatchRow Batch { get; set; } = null!;

    /// <summary>Its place in that batch's row of boxes, from 1.</summary>
    public int Number { get; set; }

    public BoxState State { get; set; }

    public BoxPlace Place { get; set; }

    /// <summary>Since which day it is in the freezer, or out of it.</summary>
    public DateOnly PlacedOn { get; set; }

    public DateOnly? FrozenOn { get; set; }

    /// <summary>Whose it is.</summary>
    public Guid? ForId { get; set; }

    /// <summary>Which of the household's containers it is, none of which is ever removed; null where nobody said so.</summary>
    public Guid? ContainerId { get; set; }

    /// <summary>Divided by eye, how far off it is as its cook's eye was then, relative to its weight; null where it was weighed.</summary>
    public decimal? EyeSpread { get; set; }

    public int Version { get; set; } = 1;

    /// <summary>What is in it; the first is of the batch it is named for.</summary>
    public List<BoxPartRow> Parts { get; set; } = [];

    /// <summary>Of a put-together dish that was put in part by part, what of each: its first part is their sum.</summary>
    public List<BoxPutInRow> PutIn { get; set; } = [];

    internal BoxLife Life => new(State, Place, PlacedOn, FrozenOn, ForId);
}

/// <summary>A share of a batch in a box, or a plain food. Weights are whole milligrams.</summary>
public sealed class BoxPartRow
{
    public Guid BoxId { get; set; }

    public int Position { get; set; }

    /// <summary>The batch; null for a plain food.</summary>
    public Guid? BatchId { get; set; }

    /// <summary>The plain food as it stood then; null for a share of a batch.</summary>
    public long? FoodRecordId { get; set; }

    /// <summary>The plain food as typed.</summary>
    public string? Text { get; set; }

    public long Milligrams { get; set; }

    /// <summary>How many pieces of the batch, where they were counted: then its weight is their share of it, to the last digit.</summary>
    public decimal? Pieces { get; set; }

    public string? Compartment { get; set; }
}

/// <summary>What of one part of a put-together dish is in a box: of a batch, or a plain food. Weights are whole milligrams.</summary>
public sealed class BoxPutInRow
{
    public Guid BoxId { get; set; }

    public int Position { get; set; }

    /// <summary>The other batch; null for a plain food.</summary>
    public Guid? BatchId { get; set; }

    /// <summary>The plain food as it stood then; null for another batch.</summary>
    public long? FoodRecordId { get; set; }

    /// <summary>The plain food's line.</summary>
    public string? Text { get; set; }

    public long Milligrams { get; set; }

    /// <summary>Whether it is a pinch, or the least that went in.</summary>
    public bool IsTrace { get; set; }

    public string? Compartment { get; set; }
}

/// <summary>Something that happened to a box, and how it stood after that. Nothing rewrites it: the file itself refuses.</summary>
public sealed class BoxEventRow
{
    public long Id { get; set; }

    public Guid BoxId { get; set; }

    public DateTimeOffset At { get; set; }

    public BoxEventKind Kind { get; set; }

    public BoxState State { get; set; }

    public BoxPlace Place { get; set; }

    public DateOnly PlacedOn { get; set; }

    public DateOnly? FrozenOn { get; set; }

    public Guid? ForId { get; set; }

    /// <summary>Why, where it was given or thrown away.</summary>
    public string? Why { get; set; }
}

internal sealed class BoxRows : IEntityTypeConfiguration<BoxRow>, IEntityTypeConfiguration<BoxPartRow>,
    IEntityTypeConfiguration<BoxPutInRow>, IEntityTypeConfiguration<BoxEventRow>
{
    public void Configure(EntityTypeBuilder<BoxRow> builder)
    {
        builder.Property(row => row.State).HasConversion<string>();
        builder.Property(row => row.Place).HasConversion<string>();
        builder.HasIndex(row => row.State);
        builder.HasOne(row => row.Batch).WithMany().HasForeignKey(row => row.BatchId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<EaterRow>().WithMany().HasForeignKey(row => row.ForId).OnDelete(DeleteBehavior.Restrict);
        builder.HasMany(row => row.Parts).WithOne().HasForeignKey(row => row.BoxId);
        builder.Navigation(row => row.Parts).AutoInclude();
        builder.HasMany(row => row.PutIn).WithOne().HasForeignKey(row => row.BoxId);
        builder.Navigation(row => row.PutIn).AutoInclude();
    }

    public void Configure(EntityTypeBuilder<BoxPutInRow> builder)
    {
        builder.ToTable("BoxPutIns").HasKey(row => new { row.BoxId, row.Position });
        builder.HasOne<BatchRow>().WithMany().HasForeignKey(row => row.BatchId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<FoodRecordRow>().WithMany().HasForeignKey(row => row.FoodRecordId).OnDelete(DeleteBehavior.Restrict);
    }

    public void Configure(EntityTypeBuilder<BoxPartRow> builder)
    {
        builder.ToTable("BoxParts").HasKey(row => new { row.BoxId, row.Position });
        builder.HasOne<BatchRow>().WithMany().HasForeignKey(row => row.BatchId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<FoodRecordRow>().WithMany().HasForeignKey(row => row.FoodRecordId).OnDelete(DeleteBehavior.Restrict);
    }

    public void Configure(EntityTypeBuilder<BoxEventRow> builder)
    {
        builder.ToTable("BoxEvents");
        builder.Property(row => row.Kind).HasConversion<string>();
        builder.Property(row => row.State).HasConversion<string>();
        builder.Property(row => row.Place).HasConversion<string>();
        builder.HasOne<BoxRow>().WithMany().HasForeignKey(row => row.BoxId).OnDelete(DeleteBehavior.Restrict);
    }
}
