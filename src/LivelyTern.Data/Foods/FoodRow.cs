using LivelyTern.Core.Foods;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Foods;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>A food of the kitchen: built in, the cook's own, or taken from a library because something was written with it.</summary>
public sealed class FoodRow : IVersioned
{
    public required string Id { get; set; }

    /// <summary>The food with its own measures, as JSON; what was weighed at home is in <see cref="WeighedMeasures"/>.</summary>
    public required Food Food { get; set; }

    public List<WeighedMeasureRow> WeighedMeasures { get; set; } = [];

    /// <summary>The day it was last written into something, to the day.</summary>
    public DateTimeOffset? UsedAt { get; set; }

    public DateTimeOffset? ArchivedAt { get; set; }

    public int Version { get; set; } = 1;
}

/// <summary>The food the cook last chose for some words.</summary>
public sealed class FoodChoiceRow
{
    /// <summary>The telling words, <see cref="FoodWords.Key"/>.</summary>
    public required string Key { get; set; }

    public required string FoodId { get; set; }

    public DateTimeOffset ChosenAt { get; set; }
}

/// <summary>A household measure that the cook weighed once.</summary>
public sealed class WeighedMeasureRow
{
    public int Id { get; set; }

    public required string FoodId { get; set; }

    public required string Name { get; set; }

    public decimal Grams { get; set; }

    public DateTimeOffset WeighedAt { get; set; }
}

internal sealed class FoodRows : IEntityTypeConfiguration<FoodRow>, IEntityTypeConfiguration<WeighedMeasureRow>,
    IEntityTypeConfiguration<FoodChoiceRow>
{
    public void Configure(EntityTypeBuilder<FoodRow> builder)
    {
        builder.Property(row => row.Food).AsStored(StoredFood.Of, stored => stored.ToFood());
        builder.HasMany(row => row.WeighedMeasures).WithOne().HasForeignKey(row => row.FoodId);
    }

    public void Configure(EntityTypeBuilder<WeighedMeasureRow> builder) => builder.HasIndex(row => new { row.FoodId, row.Name }).IsUnique();

    public void Configure(EntityTypeBuilder<FoodChoiceRow> builder) => builder.HasKey(row => row.Key);
}
