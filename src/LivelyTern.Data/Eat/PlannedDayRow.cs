using LivelyTern.Core.Aim;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Aim;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Eat;

#pragma warning disable CS1591 // Stored shapes mirror the core's records, where the units are documented.

/// <summary>How a day was planned: what lay on it before the first thing of it was eaten.</summary>
public sealed class PlannedDayRow
{
    public Guid EaterId { get; set; }

    public DateOnly Day { get; set; }

    public DateTimeOffset WrittenAt { get; set; }

    public required StoredPlanned Planned { get; set; }
}

/// <summary>What was planned for a day.</summary>
/// <param name="V">The version of this shape.</param>
/// <param name="Things">Thing by thing, in their order.</param>
public sealed record StoredPlanned(int V, IReadOnlyList<StoredPlannedThing> Things)
{
    internal const int Shape = 1;
}

/// <summary>Something that was planned.</summary>
/// <param name="ItemId">What lay on the day.</param>
/// <param name="Name">What it was called.</param>
/// <param name="BoxId">The box it was; null for all else.</param>
/// <param name="Totals">Every measure, under the aim and the rule of the day.</param>
public sealed record StoredPlannedThing(Guid ItemId, string Name, Guid? BoxId, IReadOnlyDictionary<Measure, StoredTotal> Totals)
{
    /// <summary>Something that lies on a day, as it counts under the aim of that day.</summary>
    internal static StoredPlannedThing Of(PlanItem item, Stock stock, DayAim aim) =>
        new(item.Id, item.Name(stock), item.BoxId, StoredTotal.Of(aim.Count(item.Contents(stock))));
}

internal sealed class PlannedDayRows : IEntityTypeConfiguration<PlannedDayRow>
{
    public void Configure(EntityTypeBuilder<PlannedDayRow> builder)
    {
        builder.ToTable("PlannedDays").HasKey(row => new { row.EaterId, row.Day });
        builder.Property(row => row.Planned).AsStored();
        builder.HasOne<EaterRow>().WithMany().HasForeignKey(row => row.EaterId).OnDelete(DeleteBehavior.Restrict);
    }
}
