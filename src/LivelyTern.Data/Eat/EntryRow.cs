using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Plan;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Eat;

#pragma warning disable CS1591 // Stored shapes mirror the core's records, where the units are documented.

/// <summary>
/// What was eaten, once: an entry of a ledger that nothing rewrites (the file itself refuses it). A correction is a new entry that names
/// the one it corrects.
/// </summary>
public sealed class EntryRow
{
    public Guid Id { get; set; }

    /// <summary>The entry that this one corrects; each is corrected once.</summary>
    public Guid? CorrectsId { get; set; }

    /// <summary>Whether it says only that what it corrects was not eaten after all.</summary>
    public bool IsTakenBack { get; set; }

    /// <summary>What lay on the day.</summary>
    public Guid ItemId { get; set; }

    public Guid EaterId { get; set; }

    public DateOnly Day { get; set; }

    /// <summary>When it was eaten.</summary>
    public DateTimeOffset EatenAt { get; set; }

    /// <summary>When this was written down.</summary>
    public DateTimeOffset WrittenAt { get; set; }

    /// <summary>What it was called then.</summary>
    public required string Name { get; set; }

    /// <summary>The box it was, if any.</summary>
    public Guid? BoxId { get; set; }

    /// <summary>What was eaten of it, in whole tenths of a gram; 0 for a meal out.</summary>
    public long Decigrams { get; set; }

    /// <summary>Energy in whole tenths of a kcal, to be summed by the file itself; <see cref="Measures"/> has it unrounded.</summary>
    public long Decikilocalories { get; set; }

    /// <summary>Every measure as it was counted then.</summary>
    public required StoredMeasures Measures { get; set; }
}

/// <summary>The measures of an entry, exact, under the aim and the rule of its day.</summary>
/// <param name="V">The version of this shape.</param>
/// <param name="Totals">Every measure; points rounded once by the rule.</param>
/// <param name="ExactPoints">The points before rounding; null where that eater counted none.</param>
public sealed record StoredMeasures(int V, IReadOnlyDictionary<Measure, StoredTotal> Totals, StoredTotal? ExactPoints)
{
    private const int Shape = 1;

    public static StoredMeasures Of(IReadOnlyDictionary<Measure, Total> totals, Total? exactPoints) =>
        new(Shape, StoredTotal.Of(totals), exactPoints is { } exact ? StoredTotal.Of(exact) : null);

    public EatenMeasures ToMeasures() => new(StoredTotal.Read(Totals), ExactPoints?.ToTotal(Measure.Points));
}

/// <summary>Questions to the ledger.</summary>
internal static class LedgerQueries
{
    /// <summary>The entries that stand: not taken back, and corrected by no other.</summary>
    public static IQueryable<EntryRow> StandingEntries(this TernDb db) => db.Entries.AsNoTracking()
        .Where(entry => !entry.IsTakenBack && !db.Entries.Any(other => other.CorrectsId == entry.Id));
}

internal sealed class EntryRows : IEntityTypeConfiguration<EntryRow>
{
    public void Configure(EntityTypeBuilder<EntryRow> builder)
    {
        builder.ToTable("Entries");
        builder.Property(row => row.Measures).AsStored();
        builder.HasIndex(row => row.ItemId);
        builder.HasIndex(row => row.CorrectsId).IsUnique();
        builder.HasIndex(row => new { row.EaterId, row.Day });
        builder.HasOne<EntryRow>().WithMany().HasForeignKey(row => row.CorrectsId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<EaterRow>().WithMany().HasForeignKey(row => row.EaterId).OnDelete(DeleteBehavior.Restrict);
    }
}
