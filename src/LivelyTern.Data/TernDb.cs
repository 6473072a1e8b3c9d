using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace LivelyTern.Data;

/// <summary>The household's records, one SQLite file.</summary>
public sealed class TernDb(DbContextOptions<TernDb> options) : DbContext(options)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        IgnoreReadOnlyProperties = true,
    };

    /// <summary>Foods, built in and own.</summary>
    public DbSet<FoodRow> Foods => Set<FoodRow>();

    /// <summary>Household measures weighed at home.</summary>
    public DbSet<WeighedMeasureRow> WeighedMeasures => Set<WeighedMeasureRow>();

    /// <summary>Eaters and their aims.</summary>
    public DbSet<EaterRow> Eaters => Set<EaterRow>();

    /// <summary>Recipes.</summary>
    public DbSet<RecipeRow> Recipes => Set<RecipeRow>();

    /// <summary>Batches cooked.</summary>
    public DbSet<BatchRow> Batches => Set<BatchRow>();

    /// <summary>Boxes packed.</summary>
    public DbSet<BoxRow> Boxes => Set<BoxRow>();

    /// <summary>What lies on which day.</summary>
    public DbSet<PlanItemRow> PlanItems => Set<PlanItemRow>();

    /// <summary>Changes made to the plan.</summary>
    public DbSet<PlanChangeRow> PlanChanges => Set<PlanChangeRow>();

    /// <summary>The version of the plan.</summary>
    public DbSet<PlanVersionRow> PlanVersions => Set<PlanVersionRow>();

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        ArgumentNullException.ThrowIfNull(modelBuilder);
        modelBuilder.Entity<FoodRow>(food =>
        {
            AsJson(food.Property(row => row.Food));
            food.HasMany(row => row.WeighedMeasures).WithOne().HasForeignKey(row => row.FoodId);
        });
        modelBuilder.Entity<WeighedMeasureRow>().HasIndex(row => new { row.FoodId, row.Name }).IsUnique();
        modelBuilder.Entity<EaterRow>(eater => AsJson(eater.Property(row => row.Aim)));
        modelBuilder.Entity<RecipeRow>().HasMany(row => row.Lines).WithOne().HasForeignKey(row => row.RecipeId);
        modelBuilder.Entity<BatchRow>(batch =>
        {
            AsJson(batch.Property(row => row.Contents));
            batch.HasMany(row => row.Boxes).WithOne(row => row.Batch).HasForeignKey(row => row.BatchId);
            batch.HasOne<RecipeRow>().WithMany().HasForeignKey(row => row.RecipeId).OnDelete(DeleteBehavior.Restrict);
        });
        modelBuilder.Entity<PlanItemRow>(item =>
        {
            AsJson(item.Property(row => row.Food));
            item.HasIndex(row => row.BoxId).IsUnique();
            item.HasIndex(row => new { row.Day, row.EaterId });
            item.HasOne<BoxRow>().WithMany().HasForeignKey(row => row.BoxId).OnDelete(DeleteBehavior.Restrict);
            item.HasOne<EaterRow>().WithMany().HasForeignKey(row => row.EaterId).OnDelete(DeleteBehavior.Restrict);
        });
        modelBuilder.Entity<PlanVersionRow>().HasData(new PlanVersionRow());
        modelBuilder.Entity<PlanChangeRow>(change => AsJson(change.Property(row => row.Change)));
        foreach (var versioned in modelBuilder.Model.GetEntityTypes().Where(type => typeof(IVersioned).IsAssignableFrom(type.ClrType)))
            versioned.FindProperty(nameof(IVersioned.Version))!.IsConcurrencyToken = true;
    }

    /// <inheritdoc/>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        ArgumentNullException.ThrowIfNull(configurationBuilder);
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<UtcTicks>();
    }

    /// <summary>Instants as UTC ticks: ordered, and exact to the tick, so that an undo finds what it left.</summary>
    private sealed class UtcTicks() : ValueConverter<DateTimeOffset, long>(instant => instant.UtcTicks, ticks => new DateTimeOffset(ticks, TimeSpan.Zero));

    private static void AsJson<T>(PropertyBuilder<T> property) =>
        property.HasConversion(
            value => JsonSerializer.Serialize(value, Json),
            text => JsonSerializer.Deserialize<T>(text, Json)!,
            new ValueComparer<T>(
                (a, b) => JsonSerializer.Serialize(a, Json) == JsonSerializer.Serialize(b, Json),
                value => JsonSerializer.Serialize(value, Json).GetHashCode(StringComparison.Ordinal),
                value => value));
}
