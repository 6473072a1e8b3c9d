using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Data.Cook;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Keep;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>The rules the household keeps food by; one row, none while nobody chose.</summary>
public sealed class KeepingRow : IVersioned
{
    public const int Only = 1;

    public int Id { get; set; } = Only;

    /// <summary>The code of the guideline set.</summary>
    public required string Guidelines { get; set; }

    public required StoredOwnDays Own { get; set; }

    public int Version { get; set; } = 1;
}

/// <summary>Days in the fridge of the household's own, as they are kept.</summary>
public sealed record StoredOwnDays(int V, IReadOnlyDictionary<KeepingKind, int> Days)
{
    internal const int Shape = 1;
}

/// <summary>A caution that was read, and is not shown by itself any more.</summary>
public sealed class ReadCautionRow
{
    public required string Code { get; set; }

    public DateTimeOffset At { get; set; }
}

/// <summary>A temperature that was taken of a batch while it cooled. Nothing rewrites it; one taken by mistake is removed.</summary>
public sealed class CoolingReadingRow
{
    public Guid Id { get; set; }

    public Guid BatchId { get; set; }

    public DateTimeOffset At { get; set; }

    public decimal Celsius { get; set; }

    /// <summary>Where it stood then.</summary>
    public CoolingPlace Place { get; set; }

    /// <summary>The temperature around it, in °C.</summary>
    public decimal AmbientCelsius { get; set; }

    /// <summary>How deep it lay, in cm; null where nobody said so.</summary>
    public decimal? DepthCm { get; set; }
}

internal sealed class KeepingRows :
    IEntityTypeConfiguration<KeepingRow>, IEntityTypeConfiguration<ReadCautionRow>, IEntityTypeConfiguration<CoolingReadingRow>
{
    public void Configure(EntityTypeBuilder<KeepingRow> builder)
    {
        builder.ToTable("Keeping").Property(row => row.Own).AsStored();
        builder.Property(row => row.Id).ValueGeneratedNever();
    }

    public void Configure(EntityTypeBuilder<ReadCautionRow> builder) => builder.ToTable("ReadCautions").HasKey(row => row.Code);

    public void Configure(EntityTypeBuilder<CoolingReadingRow> builder)
    {
        builder.ToTable("CoolingReadings").Property(row => row.Place).HasConversion<string>();
        builder.HasIndex(row => row.BatchId);
        builder.HasOne<BatchRow>().WithMany().HasForeignKey(row => row.BatchId).OnDelete(DeleteBehavior.Restrict);
    }
}
