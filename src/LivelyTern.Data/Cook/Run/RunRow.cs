using LivelyTern.Core.Cook.PrepDay;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Cook.Run;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>A prep day as it happens.</summary>
public sealed class RunRow
{
    public DateOnly Day { get; set; }

    public DateTimeOffset StartedAt { get; set; }

    /// <summary>When it was ended; null while it goes on.</summary>
    public DateTimeOffset? EndedAt { get; set; }

    /// <summary>The minute at which it was to end when it began.</summary>
    public int PlannedEnd { get; set; }

    /// <summary>The order in which what is left was laid out last.</summary>
    public required StoredOrder Order { get; set; }

    public List<RunTaskRow> Tasks { get; set; } = [];

    public List<RunOvenRow> Ovens { get; set; } = [];
}

/// <summary>A task of a run that was begun, done or passed over.</summary>
public sealed class RunTaskRow
{
    public DateOnly Day { get; set; }

    /// <summary>Its name in the day's problem.</summary>
    public required string TaskId { get; set; }

    /// <summary>When it was begun; null where nobody said so before it was done.</summary>
    public DateTimeOffset? StartedAt { get; set; }

    /// <summary>When it was done or passed over; null while it goes on.</summary>
    public DateTimeOffset? EndedAt { get; set; }

    /// <summary>Minutes it was given beside those planned.</summary>
    public int Extra { get; set; }

    public bool IsSkipped { get; set; }

    /// <summary>Whether its dish was still to be cooked before: taken back, it is again.</summary>
    public bool BeganDish { get; set; }

    public required StoredTask Told { get; set; }

    /// <summary>Whether its dish is cooked by it: a step of the recipe, and not passed over.</summary>
    public bool IsCooking => Told.Kind == PrepKind.Step && !IsSkipped;
}

/// <summary>An oven that was turned on, the last time.</summary>
public sealed class RunOvenRow
{
    public DateOnly Day { get; set; }

    public required string Oven { get; set; }

    public int Celsius { get; set; }

    public DateTimeOffset At { get; set; }
}

/// <summary>An order of tasks as it is kept.</summary>
public sealed record StoredOrder(int V, IReadOnlyList<string> Tasks);

internal sealed class RunRows : IEntityTypeConfiguration<RunRow>, IEntityTypeConfiguration<RunTaskRow>,
    IEntityTypeConfiguration<RunOvenRow>
{
    public void Configure(EntityTypeBuilder<RunRow> builder)
    {
        builder.ToTable("Runs").HasKey(row => row.Day);
        builder.Property(row => row.Order).AsStored();
        builder.HasMany(row => row.Tasks).WithOne().HasForeignKey(row => row.Day);
        builder.HasMany(row => row.Ovens).WithOne().HasForeignKey(row => row.Day);
    }

    public void Configure(EntityTypeBuilder<RunTaskRow> builder)
    {
        builder.ToTable("RunTasks").HasKey(row => new { row.Day, row.TaskId });
        builder.Property(row => row.Told).AsStored();
    }

    public void Configure(EntityTypeBuilder<RunOvenRow> builder) =>
        builder.ToTable("RunOvens").HasKey(row => new { row.Day, row.Oven });
}
