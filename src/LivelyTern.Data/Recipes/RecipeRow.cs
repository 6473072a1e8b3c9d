using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Recipes;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>A recipe as it is written now.</summary>
public sealed class RecipeRow : IVersioned
{
    public Guid Id { get; set; }

    public required string Name { get; set; }

    public required string Letters { get; set; }

    public int Tint { get; set; }

    public int Portions { get; set; }

    public DateTimeOffset ChangedAt { get; set; }

    public DateTimeOffset? ArchivedAt { get; set; }

    public int Version { get; set; } = 1;

    public List<RecipeLineRow> Lines { get; set; } = [];

    public int? Pieces { get; set; }

    public bool MayHalve { get; set; }

    public bool IsPutTogether { get; set; }

    public int UsualPortions => new RecipeYield(Portions, IsPutTogether: IsPutTogether).UsualPortions;

    public decimal? CookedGrams { get; set; }

    public decimal? VolumeMl { get; set; }

    public Pan? Pan { get; set; }

    public IReadOnlyList<RecipeStep>? Steps { get; set; }

    /// <summary>The recipe this is a variant of; its own lines are then none, and <see cref="Changes"/> says what differs.</summary>
    public Guid? BaseId { get; set; }

    public IReadOnlyList<VariantChange>? Changes { get; set; }
}

/// <summary>A saved version of a recipe, with what a portion held then.</summary>
public sealed class RecipeVersionRow
{
    public int Id { get; set; }

    public Guid RecipeId { get; set; }

    public int Version { get; set; }

    public DateTimeOffset SavedAt { get; set; }

    public required WrittenRecipe Written { get; set; }

    public required IReadOnlyDictionary<Measure, Total> Portion { get; set; }
}

/// <summary>A line of a recipe.</summary>
public sealed class RecipeLineRow
{
    public int Id { get; set; }

    public Guid RecipeId { get; set; }

    public int Position { get; set; }

    public required string Text { get; set; }

    /// <summary>The food the cook chose for it, or null where its words say enough.</summary>
    public string? FoodId { get; set; }

    public RecipePart Part { get; set; }

    public bool IsTakenOut { get; set; }

    /// <summary>Names the line through versions and in variants.</summary>
    public string Key { get; set; } = "";
}

internal sealed class RecipeRows : IEntityTypeConfiguration<RecipeRow>, IEntityTypeConfiguration<RecipeVersionRow>
{
    public void Configure(EntityTypeBuilder<RecipeRow> builder)
    {
        builder.HasMany(row => row.Lines).WithOne().HasForeignKey(row => row.RecipeId);
        builder.Property(row => row.Pan).AsStored(pan => StoredPan.Of(pan!), stored => stored.ToPan());
        builder.Property(row => row.Steps).AsStored(steps => StoredSteps.Of(steps!), stored => stored.ToSteps());
        builder.Property(row => row.Changes).AsStored(changes => StoredVariant.Of(changes!), stored => stored.ToChanges());
    }

    public void Configure(EntityTypeBuilder<RecipeVersionRow> builder)
    {
        builder.Property(row => row.Written).AsStored(StoredRecipe.Of, stored => stored.ToRecipe());
        builder.Property(row => row.Portion).AsStored(StoredPortionTotals.Of, stored => stored.ToTotals());
        builder.HasIndex(row => new { row.RecipeId, row.Version });
        builder.HasOne<RecipeRow>().WithMany().HasForeignKey(row => row.RecipeId);
    }
}
