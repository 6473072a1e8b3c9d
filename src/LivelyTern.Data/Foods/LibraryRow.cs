using LivelyTern.Core.Foods;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Foods;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>A library of foods, imported as one and undone as one.</summary>
public sealed class LibraryRow
{
    public int Id { get; set; }

    public required string Name { get; set; }

    public required string Source { get; set; }

    public DateTimeOffset ImportedAt { get; set; }

    /// <summary>False while rows are still written: then nothing of it is found.</summary>
    public bool IsWhole { get; set; }

    public long Taken { get; set; }

    public long Refused { get; set; }

    public long Doubtful { get; set; }
}

/// <summary>
/// A food of a library. Numbers are per 100 g, kcal and grams; as REAL they are exact to 15 digits, more than any table has.
/// </summary>
public sealed class LibraryFoodRow
{
    public long Id { get; set; }

    public int LibraryId { get; set; }

    public required string Code { get; set; }

    public required string Name { get; set; }

    public FoodGroup Group { get; set; }

    public CarbohydrateConvention Convention { get; set; }

    public double? Energy { get; set; }

    public double? Protein { get; set; }

    public double? Fat { get; set; }

    public double? SaturatedFat { get; set; }

    public double? Carbohydrate { get; set; }

    public double? Sugars { get; set; }

    public double? Fibre { get; set; }

    public double? Salt { get; set; }

    public double? Polyols { get; set; }

    public double? Alcohol { get; set; }

    /// <summary>"cup=240;tbsp=15", in grams.</summary>
    public string? Measures { get; set; }

    public string? Gtin { get; set; }

    /// <summary>Whether its figures look wrong.</summary>
    public bool IsDoubtful { get; set; }
}

internal sealed class LibraryFoodRows : IEntityTypeConfiguration<LibraryFoodRow>
{
    public void Configure(EntityTypeBuilder<LibraryFoodRow> builder)
    {
        builder.HasIndex(row => row.LibraryId);
        builder.HasIndex(row => row.Gtin).HasFilter("Gtin IS NOT NULL");
    }
}
