using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Cook.Run;
using LivelyTern.Data.Disk;
using LivelyTern.Data.Eat;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Keep;
using LivelyTern.Data.Pack;
using LivelyTern.Data.Plan;
using LivelyTern.Data.Recipes;
using LivelyTern.Data.Review;
using LivelyTern.Data.Shop;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace LivelyTern.Data;

/// <summary>The household's records, one SQLite file.</summary>
public sealed class TernDb(DbContextOptions<TernDb> options) : DbContext(options)
{
    /// <summary>Foods, built in and own.</summary>
    public DbSet<FoodRow> Foods => Set<FoodRow>();

    /// <summary>Foods as they stood when something was made with them.</summary>
    public DbSet<FoodRecordRow> FoodRecords => Set<FoodRecordRow>();

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

    /// <summary>Notes on recipes.</summary>
    public DbSet<RecipeNoteRow> RecipeNotes => Set<RecipeNoteRow>();

    /// <summary>What cooks wrote about the boxes of dishes.</summary>
    public DbSet<BoxNotesRow> BoxNotes => Set<BoxNotesRow>();

    /// <summary>Batches cooked.</summary>
    public DbSet<BatchRow> Batches => Set<BatchRow>();

    /// <summary>What goes and went into them.</summary>
    public DbSet<BatchLineRow> BatchLines => Set<BatchLineRow>();

    /// <summary>What put-together dishes take of other batches.</summary>
    public DbSet<BatchPartRow> BatchParts => Set<BatchPartRow>();

    /// <summary>What was done for batches before their day.</summary>
    public DbSet<AheadRow> DoneAhead => Set<AheadRow>();

    /// <summary>How prep days are wished.</summary>
    public DbSet<PrepDayRow> PrepDays => Set<PrepDayRow>();

    /// <summary>Prep days as they happen.</summary>
    public DbSet<RunRow> Runs => Set<RunRow>();

    /// <summary>What the kitchen has to cook with.</summary>
    public DbSet<EquipmentRow> Equipment => Set<EquipmentRow>();

    /// <summary>What is in the house.</summary>
    public DbSet<PantryRow> Pantry => Set<PantryRow>();

    /// <summary>What was taken of it.</summary>
    public DbSet<PantryUseRow> PantryUses => Set<PantryUseRow>();

    /// <summary>How foods are sold here.</summary>
    public DbSet<SoldAsRow> SoldAs => Set<SoldAsRow>();

    /// <summary>The aisles.</summary>
    public DbSet<AislesRow> Aisles => Set<AislesRow>();

    /// <summary>What is in the basket.</summary>
    public DbSet<TickRow> Ticks => Set<TickRow>();

    /// <summary>What was written on the list by hand.</summary>
    public DbSet<OwnItemRow> OwnItems => Set<OwnItemRow>();

    /// <summary>Boxes packed.</summary>
    public DbSet<BoxRow> Boxes => Set<BoxRow>();

    /// <summary>Portions that were guessed, then weighed.</summary>
    public DbSet<EyeTryRow> EyeTries => Set<EyeTryRow>();

    /// <summary>The household's pans, boxes, cups and bags.</summary>
    public DbSet<ContainerRow> Containers => Set<ContainerRow>();

    /// <summary>What happened to them.</summary>
    public DbSet<BoxEventRow> BoxEvents => Set<BoxEventRow>();

    /// <summary>The rules food is kept by.</summary>
    public DbSet<KeepingRow> Keeping => Set<KeepingRow>();

    /// <summary>Cautions that were read.</summary>
    public DbSet<ReadCautionRow> ReadCautions => Set<ReadCautionRow>();

    /// <summary>Temperatures taken of batches while they cooled.</summary>
    public DbSet<CoolingReadingRow> CoolingReadings => Set<CoolingReadingRow>();

    /// <summary>What lies on which day.</summary>
    public DbSet<PlanItemRow> PlanItems => Set<PlanItemRow>();

    /// <summary>Changes made to the plan.</summary>
    public DbSet<PlanChangeRow> PlanChanges => Set<PlanChangeRow>();

    /// <summary>What is kept off the menus of places.</summary>
    public DbSet<KeptMealRow> KeptMeals => Set<KeptMealRow>();

    /// <summary>In which form foods are weighed when they are eaten.</summary>
    public DbSet<WeighedAsRow> WeighedAs => Set<WeighedAsRow>();

    /// <summary>What eaters' scales said.</summary>
    public DbSet<WeighInRow> WeighIns => Set<WeighInRow>();

    /// <summary>What eaters say of batches.</summary>
    public DbSet<VerdictRow> Verdicts => Set<VerdictRow>();

    /// <summary>How days were planned before the first thing of them was eaten.</summary>
    public DbSet<PlannedDayRow> PlannedDays => Set<PlannedDayRow>();

    /// <summary>What was eaten, once and for all.</summary>
    public DbSet<EntryRow> Entries => Set<EntryRow>();

    /// <summary>The number of the last change to the plan.</summary>
    public DbSet<PlanVersionRow> PlanVersions => Set<PlanVersionRow>();

    /// <summary>The days that were ever changed, each with its last change.</summary>
    public DbSet<EaterDayRow> EaterDays => Set<EaterDayRow>();

    /// <summary>Whether a reading is open (<see cref="Transactions.ReadOnceAsync"/>).</summary>
    internal bool IsReading => ReadingSince is not null;

    /// <summary>How many changes of what is kept had been made when that reading began; null where none is open.</summary>
    internal long? ReadingSince { get; set; }

    /// <summary>Whether a command has the file to itself (<see cref="Transactions.InTurnAsync"/>).</summary>
    internal bool IsInTurn { get; set; }

    /// <summary>What a command has changed of what is kept, before its end, as it has read it since; null where it has not.</summary>
    internal Dictionary<IKept, object?> Unsettled { get; } = [];

    /// <summary>Saves in its turn (<see cref="WriteTurn"/>); inside a transaction it has the file already.</summary>
    /// <inheritdoc/>
    public override async Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        using var turn = Database.CurrentTransaction is null
            ? await WriteTurn.TakeAsync(Database.GetConnectionString(), cancellationToken)
            : null;
        return await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
    }

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        ArgumentNullException.ThrowIfNull(modelBuilder);
        modelBuilder.ApplyConfigurationsFromAssembly(typeof(TernDb).Assembly);
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
    private sealed class UtcTicks() : ValueConverter<DateTimeOffset, long>(
        instant => instant.UtcTicks, ticks => new DateTimeOffset(ticks, TimeSpan.Zero));
}
