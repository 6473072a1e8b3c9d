using System.ComponentModel.DataAnnotations.Schema;
using LivelyTern.Core.Aim;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Aim;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>An eater. What their days may hold is kept over time: a past day is read by the aim of that day.</summary>
public sealed class EaterRow : IVersioned
{
    public Guid Id { get; set; }

    public required string Name { get; set; }

    /// <summary>How they eat, without the days that differ; null while nothing was said.</summary>
    public EatingWays? KeptWays { get; set; }

    /// <summary>Their aims, each from a day on; at least one.</summary>
    public List<AimRow> Aims { get; set; } = [];

    /// <summary>The bands of single dates.</summary>
    public List<DateBandRow> DateBands { get; set; } = [];

    /// <summary>The days and parts of days they are away.</summary>
    public List<AwayRow> Aways { get; set; } = [];

    /// <summary>The body a need was worked out for, where the eater keeps it here.</summary>
    public Body? Body { get; set; }

    /// <summary>A clinician set an energy aim below the floor, and the eater said so.</summary>
    public bool ClinicianSetIt { get; set; }

    /// <summary>Whether their figures, of energy and body alike, are not shown to them.</summary>
    public bool IsQuiet { get; set; }

    public int Position { get; set; }

    public DateTimeOffset? ArchivedAt { get; set; }

    public int Version { get; set; } = 1;

    /// <summary>The usual day, as it holds from now on.</summary>
    [NotMapped]
    public DayAim Aim => Newest.Aim.ToAim();

    /// <summary>How they eat from now on, with the weekdays and dates that differ.</summary>
    [NotMapped]
    public EatingWays Ways => WithDays(Newest);

    /// <summary>The same without the dates that are past: what can still be changed.</summary>
    public EatingWays WaysFrom(DateOnly today)
    {
        var ways = Ways;
        return ways with
        {
            OtherDays = [.. ways.OtherDays.Where(day => day.Date is null || day.Date >= today)],
            Away = [.. ways.Away.Where(away => away.Day >= today)],
        };
    }

    /// <summary>How they eat and what a day may hold, as it was on that day or is to be.</summary>
    public (EatingWays Ways, DayAim Aim) On(DateOnly day)
    {
        var held = Aims.Where(aim => aim.From <= day).MaxBy(aim => aim.From) ?? Aims.MinBy(aim => aim.From)!;
        var ways = WithDays(held);
        return (ways, ways.AimOn(held.Aim.ToAim(), day));
    }

    /// <summary>Sets the usual day and the weekdays that differ, from a day on; what held before stays as it was.</summary>
    internal void SetAim(StoredAim aim, DateOnly from)
    {
        if (Aims.Count > 0 && string.Equals(StoredJson.Write(Newest.Aim), StoredJson.Write(aim), StringComparison.Ordinal)) return;
        if (Aims.Find(one => one.From == from) is { } same) same.Aim = aim;
        else Aims.Add(new AimRow { EaterId = Id, From = Aims.Count == 0 ? DateOnly.MinValue : from, Aim = aim });
    }

    internal AimRow Newest => Aims.MaxBy(aim => aim.From)!;

    private EatingWays WithDays(AimRow aim)
    {
        OtherDay Date(IGrouping<DateOnly, DateBandRow> bands) =>
            new(bands.First().Name, null, bands.Key, bands.ToDictionary(band => band.Measure, band => band.ToBand()));
        var dates = DateBands.GroupBy(band => band.Day).OrderBy(date => date.Key).Select(Date);
        return (KeptWays ?? EatingWays.Plain) with
        {
            OtherDays = [.. aim.Aim.ToWeekdays(), .. dates],
            Away = [.. Aways.OrderBy(away => away.Day).Select(away => away.ToAway())],
        };
    }
}

/// <summary>An aim, from a day on.</summary>
public sealed class AimRow
{
    public Guid EaterId { get; set; }

    public DateOnly From { get; set; }

    public required StoredAim Aim { get; set; }
}

/// <summary>One measure's band of one date.</summary>
public sealed class DateBandRow
{
    public Guid EaterId { get; set; }

    public DateOnly Day { get; set; }

    public Measure Measure { get; set; }

    /// <summary>What that day is called: "party".</summary>
    public required string Name { get; set; }

    public decimal? Min { get; set; }

    public decimal? Target { get; set; }

    public decimal? Max { get; set; }

    public decimal? Tolerance { get; set; }

    internal Band ToBand() => new StoredBand(Min, Target, Max, Tolerance).ToBand();
}

/// <summary>A day, or a part of one, on which an eater is away.</summary>
public sealed class AwayRow
{
    public Guid EaterId { get; set; }

    public DateOnly Day { get; set; }

    /// <summary>The part of the day, by name; "" for all of it.</summary>
    public required string Slot { get; set; }

    internal Away ToAway() => new(Day, Slot.Length == 0 ? null : Slot);
}

internal sealed class EaterRows : IEntityTypeConfiguration<EaterRow>, IEntityTypeConfiguration<AimRow>,
    IEntityTypeConfiguration<DateBandRow>, IEntityTypeConfiguration<AwayRow>
{
    public void Configure(EntityTypeBuilder<EaterRow> builder)
    {
        builder.Property(row => row.KeptWays).HasColumnName("Ways").AsStored(ways => StoredWays.Of(ways!), stored => stored.ToWays());
        builder.Property(row => row.Body).AsStored(body => StoredBody.Of(body!), stored => stored.ToBody());
        builder.HasMany(row => row.Aims).WithOne().HasForeignKey(row => row.EaterId);
        builder.HasMany(row => row.DateBands).WithOne().HasForeignKey(row => row.EaterId);
        builder.HasMany(row => row.Aways).WithOne().HasForeignKey(row => row.EaterId);
        builder.Navigation(row => row.Aims).AutoInclude();
        builder.Navigation(row => row.Aways).AutoInclude();
        builder.Navigation(row => row.DateBands).AutoInclude();
    }

    public void Configure(EntityTypeBuilder<AimRow> builder)
    {
        builder.ToTable("Aims").HasKey(row => new { row.EaterId, row.From });
        builder.Property(row => row.Aim).AsStored();
    }

    public void Configure(EntityTypeBuilder<AwayRow> builder) =>
        builder.ToTable("Aways").HasKey(row => new { row.EaterId, row.Day, row.Slot });

    public void Configure(EntityTypeBuilder<DateBandRow> builder)
    {
        builder.ToTable("DateBands").HasKey(row => new { row.EaterId, row.Day, row.Measure });
        builder.Property(row => row.Measure).HasConversion<string>();
    }
}
