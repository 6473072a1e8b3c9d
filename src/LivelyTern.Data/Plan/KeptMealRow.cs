using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Plan;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>Something off the menu of a place, kept for next time.</summary>
public sealed class KeptMealRow
{
    public Guid Id { get; set; }

    public required string Place { get; set; }

    public required string Name { get; set; }

    public required StoredMenuItem Item { get; set; }

    public DateTimeOffset UsedAt { get; set; }

    public KeptMeal Read() => new(Place, new(Name, Item.Figures, Item.HighKcal, Item.Points));
}

/// <summary>The figures of a <see cref="MenuItem"/> as they are kept.</summary>
public sealed record StoredMenuItem(int V, IReadOnlyDictionary<Nutrient, decimal> Figures, decimal? HighKcal, decimal? Points)
{
    internal const int Shape = 1;
}

internal sealed class KeptMealRows : IEntityTypeConfiguration<KeptMealRow>
{
    public void Configure(EntityTypeBuilder<KeptMealRow> builder)
    {
        builder.ToTable("KeptMeals");
        builder.Property(row => row.Place).UseCollation("NOCASE");
        builder.Property(row => row.Name).UseCollation("NOCASE");
        builder.HasIndex(row => new { row.Place, row.Name }).IsUnique();
        builder.Property(row => row.Item).AsStored();
    }
}
