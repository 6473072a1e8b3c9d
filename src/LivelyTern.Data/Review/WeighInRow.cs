using LivelyTern.Core.Review;
using LivelyTern.Data.Aim;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Review;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>What an eater's scale said on a day.</summary>
public sealed class WeighInRow
{
    public Guid EaterId { get; set; }

    public DateOnly Day { get; set; }

    public int Grams { get; set; }

    /// <summary>As it was typed.</summary>
    public required string Text { get; set; }

    public BodyUnit Unit { get; set; }

    public DateTimeOffset WrittenAt { get; set; }

    public WeighIn Read() => new(Day, Grams / 1000m);
}

internal sealed class WeighInRows : IEntityTypeConfiguration<WeighInRow>
{
    public void Configure(EntityTypeBuilder<WeighInRow> builder)
    {
        builder.ToTable("WeighIns").HasKey(row => new { row.EaterId, row.Day });
        builder.Property(row => row.Unit).HasConversion<string>();
        builder.HasOne<EaterRow>().WithMany().HasForeignKey(row => row.EaterId).OnDelete(DeleteBehavior.Restrict);
    }
}
