using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack.Containers;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Pack;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>A pan, a box, a cup or a bag of the household. One that is put away stays: boxes were packed in it.</summary>
public sealed class ContainerRow : IVersioned
{
    public Guid Id { get; set; }

    public ContainerKind Kind { get; set; }

    public required string Name { get; set; }

    public long? EmptyMilligrams { get; set; }

    public required StoredCompartments Compartments { get; set; }

    public int? Down { get; set; }

    public int? Across { get; set; }

    public int? Count { get; set; }

    public DateTimeOffset? ArchivedAt { get; set; }

    public int Version { get; set; } = 1;

    /// <summary>The same as the core knows it.</summary>
    public Container Read() => new(Kind, Name)
    {
        Empty = Milligrams.ToGrams(EmptyMilligrams),
        Compartments = Compartments.Parts,
        Rows = (Down, Across) is ({ } down, { } across) ? (down, across) : null,
        Count = Count,
    };

    internal void Set(Container now)
    {
        (Kind, Name, EmptyMilligrams, Count) = (now.Kind, now.Name.Trim(), Milligrams.Of(now.Empty), now.Count);
        (Compartments, Down, Across) = (new(StoredCompartments.Shape, now.Compartments), now.Rows?.Down, now.Rows?.Across);
    }
}

/// <summary>Compartments as they are kept.</summary>
public sealed record StoredCompartments(int V, IReadOnlyList<Compartment> Parts)
{
    internal const int Shape = 1;
}

internal sealed class ContainerRows : IEntityTypeConfiguration<ContainerRow>
{
    public void Configure(EntityTypeBuilder<ContainerRow> builder)
    {
        builder.ToTable("Containers").Property(row => row.Kind).HasConversion<string>();
        builder.Property(row => row.Compartments).AsStored();
    }
}
