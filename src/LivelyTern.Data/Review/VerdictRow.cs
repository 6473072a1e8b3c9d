using LivelyTern.Core.Review;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Review;

#pragma warning disable CS1591 // Rows mirror the core's records, where they are documented.

/// <summary>What an eater says of a batch, fresh or reheated.</summary>
public sealed class VerdictRow
{
    public Guid BatchId { get; set; }

    public BatchRow Batch { get; set; } = null!;

    public Guid EaterId { get; set; }

    public Serving Serving { get; set; }

    public Taste? Taste { get; set; }

    public Stood? Reheats { get; set; }

    public Stood? Keeps { get; set; }

    public Effort? Effort { get; set; }

    public Again? Again { get; set; }

    public string? ToChange { get; set; }

    public DateTimeOffset WrittenAt { get; set; }

    public Verdict Read() => new(Taste, Reheats, Keeps, Effort, Again, ToChange);

    internal SaidOfDish Said() => new(EaterId, Serving, Batch.CookedOn, Read());

    internal void Write(Verdict verdict) => (Taste, Reheats, Keeps, Effort, Again, ToChange) =
        (verdict.Taste, verdict.Reheats, verdict.Keeps, verdict.Effort, verdict.Again, verdict.ToChange);
}

internal sealed class VerdictRows : IEntityTypeConfiguration<VerdictRow>
{
    public void Configure(EntityTypeBuilder<VerdictRow> builder)
    {
        builder.ToTable("Verdicts").HasKey(row => new { row.BatchId, row.EaterId, row.Serving });
        builder.Property(row => row.Serving).HasConversion<string>();
        builder.Property(row => row.Taste).HasConversion<string>();
        builder.Property(row => row.Reheats).HasConversion<string>();
        builder.Property(row => row.Keeps).HasConversion<string>();
        builder.Property(row => row.Effort).HasConversion<string>();
        builder.Property(row => row.Again).HasConversion<string>();
        builder.HasOne(row => row.Batch).WithMany().HasForeignKey(row => row.BatchId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<EaterRow>().WithMany().HasForeignKey(row => row.EaterId).OnDelete(DeleteBehavior.Restrict);
    }
}
