using LivelyTern.Core.Aim;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Pack;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Plan;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>What lies on an eater's day: a box or some of it, a portion, a plain food, a meal out, or an amount kept free.</summary>
public sealed class PlanItemRow
{
    public Guid Id { get; set; }

    public Guid EaterId { get; set; }

    public DateOnly Day { get; set; }

    public int Position { get; set; }

    public Guid? BoxId { get; set; }

    /// <summary>The batch of a portion that is not packed yet, with <see cref="Milligrams"/>.</summary>
    public Guid? BatchId { get; set; }

    /// <summary>What that portion weighs cooked, in whole milligrams; of a box how much of it, null for all of it.</summary>
    public long? Milligrams { get; set; }

    /// <summary>The plain food as typed, or the meal out by its name.</summary>
    public string? Text { get; set; }

    /// <summary>The plain food as it stood when it was laid, with <see cref="FoodGrams"/>.</summary>
    public long? FoodRecordId { get; set; }

    /// <summary>What is eaten of it, in exact grams; 0 of a pinch.</summary>
    public decimal? FoodGrams { get; set; }

    public bool FoodIsTrace { get; set; }

    public DateTimeOffset? EatenAt { get; set; }

    public string? Slot { get; set; }

    public bool IsLocked { get; set; }

    public bool IsFitted { get; set; }

    /// <summary>Whether it is for guests.</summary>
    public bool IsForGuests { get; set; }

    /// <summary>For an amount that is kept free: of which measure.</summary>
    public Measure? HoldMeasure { get; set; }

    /// <summary>How much of it, in kcal, grams or points.</summary>
    public decimal? HoldAmount { get; set; }

    /// <summary>For a meal out: kcal either way.</summary>
    public decimal? GiveOrTake { get; set; }

    /// <summary>
    /// Where it lies there although its eater must never get it, and somebody said that it stays: for which reason, <see
    /// cref="Core.Aim.Never.Key"/>.
    /// </summary>
    public string? NeverAnswered { get; set; }
}

/// <summary>One row: the number of the last change to any day. Each change takes the next one.</summary>
public sealed class PlanVersionRow : IVersioned
{
    public int Id { get; set; } = 1;

    public int Version { get; set; } = 1;
}

/// <summary>An eater's day, by the number of the last change that touched it: who saw a later one has seen the day as it is.</summary>
public sealed class EaterDayRow
{
    public Guid EaterId { get; set; }

    public DateOnly Day { get; set; }

    public int Version { get; set; }
}

/// <summary>Every change made to the plan, so that each can be undone.</summary>
public sealed class PlanChangeRow
{
    public Guid Id { get; set; }

    public DateTimeOffset At { get; set; }

    public required StoredPlanChange Change { get; set; }

    /// <summary>The change that this one undid; each is undone once.</summary>
    public Guid? UndoneId { get; set; }
}

internal sealed class PlanRows : IEntityTypeConfiguration<PlanItemRow>, IEntityTypeConfiguration<PlanVersionRow>,
    IEntityTypeConfiguration<EaterDayRow>,
    IEntityTypeConfiguration<PlanChangeRow>
{
    public void Configure(EntityTypeBuilder<PlanItemRow> builder)
    {
        builder.Property(row => row.HoldMeasure).HasConversion<string>();
        builder.HasIndex(row => row.BoxId);
        builder.HasIndex(row => new { row.EaterId, row.Day });
        builder.HasIndex(row => row.Day);
        builder.HasOne<BoxRow>().WithMany().HasForeignKey(row => row.BoxId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<BatchRow>().WithMany().HasForeignKey(row => row.BatchId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<EaterRow>().WithMany().HasForeignKey(row => row.EaterId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<FoodRecordRow>().WithMany().HasForeignKey(row => row.FoodRecordId).OnDelete(DeleteBehavior.Restrict);
    }

    public void Configure(EntityTypeBuilder<PlanVersionRow> builder) => builder.HasData(new PlanVersionRow());

    public void Configure(EntityTypeBuilder<EaterDayRow> builder)
    {
        builder.HasKey(row => new { row.EaterId, row.Day });
        builder.HasOne<EaterRow>().WithMany().HasForeignKey(row => row.EaterId);
    }

    public void Configure(EntityTypeBuilder<PlanChangeRow> builder)
    {
        builder.Property(row => row.Change).AsStored();
        builder.HasIndex(row => row.UndoneId).IsUnique();
        builder.HasIndex(row => row.At);
    }
}
