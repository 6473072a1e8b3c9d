using LivelyTern.Core.Cook.PrepDay;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Cook;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>Where something that was done ahead stands until its dish is cooked.</summary>
public enum AheadPlace
{
    /// <summary>In the fridge.</summary>
    Fridge,

    /// <summary>In the freezer.</summary>
    Freezer,

    /// <summary>On the counter.</summary>
    Counter,
}

/// <summary>Work of a planned batch that was done on a day before its own. Weights are whole milligrams.</summary>
public sealed class AheadRow
{
    public Guid Id { get; set; }

    public Guid BatchId { get; set; }

    public BatchRow Batch { get; set; } = null!;

    public DateOnly DoneOn { get; set; }

    public AheadPlace Place { get; set; }

    public required string Verb { get; set; }

    public string? FoodId { get; set; }

    public required string What { get; set; }

    public long Milligrams { get; set; }

    /// <summary>The sentence of its step; empty where only a line of the recipe asks for it.</summary>
    public required string Step { get; set; }

    internal AheadWork ToWork() => new(Verb, FoodId, What, Data.Milligrams.ToGrams(Milligrams), Step);
}

internal sealed class AheadRows : IEntityTypeConfiguration<AheadRow>
{
    public void Configure(EntityTypeBuilder<AheadRow> builder)
    {
        builder.ToTable("DoneAhead").Property(row => row.Place).HasConversion<string>();
        builder.HasIndex(row => row.BatchId);
        builder.HasOne(row => row.Batch).WithMany().HasForeignKey(row => row.BatchId).OnDelete(DeleteBehavior.Restrict);
    }
}
