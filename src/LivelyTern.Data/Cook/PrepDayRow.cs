using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Recipes;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Cook;

#pragma warning disable CS1591 // Stored shapes mirror the core's records, where the units are documented.

/// <summary>How a prep day is wished.</summary>
public sealed class PrepDayRow : IVersioned
{
    public DateOnly Day { get; set; }

    public required PrepDayWishes Wishes { get; set; }

    public int Version { get; set; } = 1;
}

/// <summary>What the household's kitchen has to cook with; one row.</summary>
public sealed class EquipmentRow : IVersioned
{
    public const int Only = 1;

    public int Id { get; set; } = Only;

    public required KitchenEquipment Equipment { get; set; }

    public int Version { get; set; } = 1;
}

/// <summary>A cook's hours as they are kept.</summary>
public sealed record StoredCookHours(string Name, TimeOnly From, TimeOnly? To);

/// <summary>How a prep day is wished, as it is kept.</summary>
public sealed record StoredPrepDay(
    int V, IReadOnlyList<StoredCookHours> Cooks, TimeOnly? DoneBy, TimeOnly? Supper, Guid? SupperDish, IReadOnlyList<Guid> LeftOut,
    IReadOnlyList<Guid>? Ahead = null)
{
    public static StoredPrepDay Of(PrepDayWishes wishes)
    {
        ArgumentNullException.ThrowIfNull(wishes);
        var cooks = wishes.Cooks.Select(cook => new StoredCookHours(cook.Name, cook.From, cook.To));
        return new(1, [.. cooks], wishes.DoneBy, wishes.Supper, wishes.SupperDish, wishes.LeftOut ?? [], wishes.Ahead);
    }

    public PrepDayWishes ToWishes() => new(
        [.. Cooks.Select(cook => new CookHours(cook.Name, cook.From, cook.To))], DoneBy, Supper, SupperDish,
        LeftOut.Count == 0 ? null : LeftOut, Ahead is { Count: > 0 } ? Ahead : null);
}

/// <summary>One kind of equipment as it is kept.</summary>
public sealed record StoredKitchenItem(Occupies Kind, int Count, decimal? Holds);

/// <summary>A quiet time as it is kept.</summary>
public sealed record StoredQuiet(TimeOnly From, TimeOnly To, IReadOnlyList<Occupies> Kinds);

/// <summary>A kitchen's equipment as it is kept.</summary>
public sealed record StoredEquipment(int V, IReadOnlyList<StoredKitchenItem> Items, int OvenApart, IReadOnlyList<StoredQuiet> Quiet)
{
    public static StoredEquipment Of(KitchenEquipment kitchen)
    {
        ArgumentNullException.ThrowIfNull(kitchen);
        return new(
            1, [.. kitchen.Items.Select(item => new StoredKitchenItem(item.Kind, item.Count, item.Holds))], kitchen.OvenApart,
            [.. kitchen.Quiet.Select(quiet => new StoredQuiet(quiet.From, quiet.To, quiet.Kinds))]);
    }

    public KitchenEquipment ToEquipment() => new(
        [.. Items.Select(item => new KitchenItem(item.Kind, item.Count, item.Holds))], OvenApart,
        [.. Quiet.Select(quiet => new QuietHours(quiet.From, quiet.To, quiet.Kinds))]);
}

internal sealed class PrepDayRows : IEntityTypeConfiguration<PrepDayRow>, IEntityTypeConfiguration<EquipmentRow>
{
    public void Configure(EntityTypeBuilder<PrepDayRow> builder)
    {
        builder.ToTable("PrepDays").HasKey(row => row.Day);
        builder.Property(row => row.Wishes).AsStored(StoredPrepDay.Of, stored => stored.ToWishes());
    }

    public void Configure(EntityTypeBuilder<EquipmentRow> builder)
    {
        builder.ToTable("Equipment").Property(row => row.Id).ValueGeneratedNever();
        builder.Property(row => row.Equipment).AsStored(StoredEquipment.Of, stored => stored.ToEquipment());
    }
}
