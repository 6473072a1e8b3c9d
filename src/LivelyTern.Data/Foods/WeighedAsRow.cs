using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Foods;

/// <summary>In which form a food is weighed here when it is eaten: raw, or cooked.</summary>
public sealed class WeighedAsRow
{
    /// <summary>The raw food.</summary>
    public required string RawId { get; set; }

    /// <summary>The form that is weighed.</summary>
    public required string FoodId { get; set; }
}

internal sealed class WeighedAsRows : IEntityTypeConfiguration<WeighedAsRow>
{
    public void Configure(EntityTypeBuilder<WeighedAsRow> builder)
    {
        builder.ToTable("WeighedAs");
        builder.HasKey(row => row.RawId);
    }
}
