using LivelyTern.Core.Shop;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Shop;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>How a food is sold where this household shops.</summary>
public sealed class SoldAsRow : IVersioned
{
    public required string FoodId { get; set; }

    public required SoldAs Sold { get; set; }

    public int Version { get; set; } = 1;
}

/// <summary>The aisles; one row.</summary>
public sealed class AislesRow : IVersioned
{
    public const int Only = 1;

    public int Id { get; set; } = Only;

    public required Aisles Aisles { get; set; }

    public int Version { get; set; } = 1;
}

/// <summary>The last tick of a thing.</summary>
public sealed class TickRow
{
    public required string Key { get; set; }

    public bool IsTicked { get; set; }

    public long Milligrams { get; set; }

    public DateTimeOffset At { get; set; }

    public Tick ToTick() => new(Key, IsTicked, Data.Milligrams.ToGrams(Milligrams), At);
}

/// <summary>Something that the household wrote on the list.</summary>
public sealed class OwnItemRow
{
    public Guid Id { get; set; }

    public required string Text { get; set; }

    /// <summary>The food that was chosen for it; null where its words say enough.</summary>
    public string? FoodId { get; set; }

    public DateTimeOffset WrittenAt { get; set; }
}

/// <summary>A package as it is kept.</summary>
public sealed record StoredPackage(decimal Grams, decimal? Price, decimal? Ml = null);

/// <summary>How a food is sold, as it is kept.</summary>
public sealed record StoredSoldAs(int V, IReadOnlyList<StoredPackage> Packages, bool IsLoose, string? Aisle)
{
    public static StoredSoldAs Of(SoldAs sold)
    {
        ArgumentNullException.ThrowIfNull(sold);
        return new(1, [.. sold.Packages.Select(one => new StoredPackage(one.Holds.Value, one.Price, one.Ml))], sold.IsLoose, sold.Aisle);
    }

    public SoldAs ToSoldAs() => new([.. Packages.Select(one => new SoldPackage(new(one.Grams), one.Price, one.Ml))], IsLoose, Aisle);
}

/// <summary>An aisle as it is kept.</summary>
public sealed record StoredAisle(string Id, string Name);

/// <summary>The aisles as they are kept.</summary>
public sealed record StoredAisles(int V, IReadOnlyList<StoredAisle> InOrder, string Currency)
{
    public static StoredAisles Of(Aisles aisles)
    {
        ArgumentNullException.ThrowIfNull(aisles);
        return new(1, [.. aisles.InOrder.Select(one => new StoredAisle(one.Id, one.Name))], aisles.Currency);
    }

    public Aisles ToAisles() => new([.. InOrder.Select(one => new Aisle(one.Id, one.Name))], Currency);
}

internal sealed class ShopRows : IEntityTypeConfiguration<SoldAsRow>, IEntityTypeConfiguration<AislesRow>,
    IEntityTypeConfiguration<TickRow>, IEntityTypeConfiguration<OwnItemRow>
{
    public void Configure(EntityTypeBuilder<SoldAsRow> builder)
    {
        builder.ToTable("SoldAs").HasKey(row => row.FoodId);
        builder.Property(row => row.Sold).AsStored(StoredSoldAs.Of, stored => stored.ToSoldAs());
    }

    public void Configure(EntityTypeBuilder<AislesRow> builder)
    {
        builder.ToTable("Aisles").Property(row => row.Id).ValueGeneratedNever();
        builder.Property(row => row.Aisles).AsStored(StoredAisles.Of, stored => stored.ToAisles());
    }

    public void Configure(EntityTypeBuilder<TickRow> builder) => builder.ToTable("Ticks").HasKey(row => row.Key);

    public void Configure(EntityTypeBuilder<OwnItemRow> builder) => builder.ToTable("OwnItems");
}
