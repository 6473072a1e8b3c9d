using System.Text.Json;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Eat;
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

    /// <summary>What was last chosen for some words.</summary>
    public DbSet<FoodChoiceRow> FoodChoices => Set<FoodChoiceRow>();

    /// <summary>Libraries of foods.</summary>
    public DbSet<LibraryRow> Libraries => Set<LibraryRow>();

    /// <summary>Their foods.</summary>
    public DbSet<LibraryFoodRow> LibraryFoods => Set<LibraryFoodRow>();

    /// <summary>Saved versions of recipes.</summary>
    public DbSet<RecipeVersionRow> RecipeVersions => Set<RecipeVersionRow>();

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

    /// <summary>What was eaten, once and for all.</summary>
    public DbSet<EntryRow> Entries => Set<EntryRow>();

    /// <summary>The number of the last change to the plan.</summary>
    public DbSet<PlanVersionRow> PlanVersions => Set<PlanVersionRow>();

    /// <summary>The days that were ever changed, each with its last change.</summary>
    public DbSet<EaterDayRow> EaterDays => Set<EaterDayRow>();

    /// <summary>Whether a reading is open (<see cref="Stale.ReadOnceAsync"/>).</summary>
    internal bool IsReading { get; set; }

    /// <summary>Saves in its turn (<see cref="WriteTurn"/>); inside a transaction it has the file already.</summary>
    /// <inheritdoc/>
    public override async Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        using var turn = Database.CurrentTransaction is null ? await WriteTurn.TakeAsync(Database.GetConnectionString(), cancellationToken) : null;
        return await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
    }

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
        modelBuilder.Entity<EaterRow>(eater =>
        {
            AsJson(eater.Property(row => row.KeptWays).HasColumnName("Ways"));
            AsJson(eater.Property(row => row.Body));
            eater.HasMany(row => row.Aims).WithOne().HasForeignKey(row => row.EaterId);
            eater.HasMany(row => row.DateBands).WithOne().HasForeignKey(row => row.EaterId);
            eater.Navigation(row => row.Aims).AutoInclude();
            eater.Navigation(row => row.DateBands).AutoInclude();
        });
        modelBuilder.Entity<AimRow>(aim =>
        {
            aim.ToTable("Aims").HasKey(row => new { row.EaterId, row.From });
            aim.Property(row => row.Aim).AsStored();
        });
        modelBuilder.Entity<DateBandRow>(band =>
        {
            band.ToTable("DateBands").HasKey(row => new { row.EaterId, row.Day, row.Measure });
            band.Property(row => row.Measure).HasConversion<string>();
        });
        modelBuilder.Entity<EntryRow>(entry =>
        {
            entry.ToTable("Entries");
            entry.Property(row => row.Measures).AsStored();
            entry.HasIndex(row => row.ItemId);
            entry.HasIndex(row => row.CorrectsId).IsUnique();
            entry.HasIndex(row => new { row.EaterId, row.Day });
            entry.HasOne<EntryRow>().WithMany().HasForeignKey(row => row.CorrectsId).OnDelete(DeleteBehavior.Restrict);
            entry.HasOne<EaterRow>().WithMany().HasForeignKey(row => row.EaterId).OnDelete(DeleteBehavior.Restrict);
        });
        modelBuilder.Entity<FoodChoiceRow>().HasKey(row => row.Key);
        modelBuilder.Entity<LibraryFoodRow>(food =>
        {
            food.HasIndex(row => row.LibraryId);
            food.HasIndex(row => row.Gtin).HasFilter("Gtin IS NOT NULL");
        });
        modelBuilder.Entity<RecipeRow>(recipe =>
        {
            recipe.HasMany(row => row.Lines).WithOne().HasForeignKey(row => row.RecipeId);
            AsJson(recipe.Property(row => row.Pan));
            AsJson(recipe.Property(row => row.Steps));
            AsJson(recipe.Property(row => row.Changes));
        });
        modelBuilder.Entity<RecipeVersionRow>(version =>
        {
            AsJson(version.Property(row => row.Written));
            AsJson(version.Property(row => row.Portion));
            version.HasIndex(row => new { row.RecipeId, row.Version });
            version.HasOne<RecipeRow>().WithMany().HasForeignKey(row => row.RecipeId);
        });
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
            item.HasOne<BatchRow>().WithMany().HasForeignKey(row => row.BatchId).OnDelete(DeleteBehavior.Restrict);
            item.HasOne<EaterRow>().WithMany().HasForeignKey(row => row.EaterId).OnDelete(DeleteBehavior.Restrict);
        });
        modelBuilder.Entity<PlanVersionRow>().HasData(new PlanVersionRow());
        modelBuilder.Entity<EaterDayRow>(day =>
        {
            day.HasKey(row => new { row.EaterId, row.Day });
            day.HasOne<EaterRow>().WithMany().HasForeignKey(row => row.EaterId);
        });
        modelBuilder.Entity<PlanChangeRow>(change =>
        {
            AsJson(change.Property(row => row.Change));
            change.HasIndex(row => row.UndoneId).IsUnique();
            change.HasIndex(row => row.At);
        });
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
