using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Pack;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>A portion that was guessed, then weighed. Nothing rewrites it; one made by mistake is removed.</summary>
public sealed class EyeTryRow
{
    public Guid Id { get; set; }

    public DateTimeOffset At { get; set; }

    /// <summary>Who guessed; null where nobody said.</summary>
    public Guid? CookId { get; set; }

    /// <summary>What kind of food; null for a dish.</summary>
    public FoodGroup? Group { get; set; }

    /// <summary>What it was.</summary>
    public required string What { get; set; }

    public long GuessMilligrams { get; set; }

    public long RealMilligrams { get; set; }

    public decimal KcalPerGram { get; set; }

    /// <summary>The same as the core knows it.</summary>
    public EyeTry Read() => new(Group, Milligrams.ToGrams(GuessMilligrams), Milligrams.ToGrams(RealMilligrams), KcalPerGram);
}

/// <summary>What the cooks of the household guessed and then weighed.</summary>
public sealed class EyeStore(TernDb db, TimeProvider clock)
{
    // An eye learns: what it did long ago tells little of it now.
    private const int MostRead = 200;

    /// <summary>A cook's tries, the latest first.</summary>
    /// <param name="cookId">The cook; null for those of nobody.</param>
    public async Task<IReadOnlyList<EyeTryRow>> OfAsync(Guid? cookId) =>
        await db.EyeTries.AsNoTracking().Where(row => row.CookId == cookId).OrderByDescending(row => row.At).ThenByDescending(row => row.Id)
            .Take(MostRead).ToListAsync();

    /// <summary>How well a cook's eye weighs a dish.</summary>
    public async Task<EyeSpread> ForDishAsync(Guid? cookId) =>
        EyeSpread.For(null, [.. (await OfAsync(cookId)).Select(row => row.Read())]);

    /// <summary>Writes one down.</summary>
    /// <param name="cookId">Who guessed.</param>
    /// <param name="what">What it was.</param>
    /// <param name="one">The guess and the weight.</param>
    public Task<Outcome<EyeTryRow>> AddAsync(Guid? cookId, string what, EyeTry one) => db.InTurnAsync<EyeTryRow>(async () =>
    {
        ArgumentNullException.ThrowIfNull(one);
        if (one.Refusal is { } wrong) return wrong;
        if (cookId is { } id && !await db.Eaters.AnyAsync(row => row.Id == id)) return Stale.Gone("eater");
        var row = new EyeTryRow
        {
            Id = Guid.CreateVersion7(),
            At = clock.GetUtcNow(),
            CookId = cookId,
            Group = one.Group,
            What = what,
            GuessMilligrams = Milligrams.Of(one.Guess),
            RealMilligrams = Milligrams.Of(one.Real),
            KcalPerGram = one.KcalPerGram,
        };
        db.EyeTries.Add(row);
        await db.SaveChangesAsync();
        return row;
    });

    /// <summary>Removes one that was made by mistake.</summary>
    public Task<Outcome<Guid>> RemoveAsync(Guid id) => db.InTurnAsync<Guid>(async () =>
    {
        if (await db.EyeTries.SingleOrDefaultAsync(row => row.Id == id) is not { } row) return Stale.Gone("try");
        db.EyeTries.Remove(row);
        await db.SaveChangesAsync();
        return id;
    });
}

internal sealed class EyeRows : IEntityTypeConfiguration<EyeTryRow>
{
    public void Configure(EntityTypeBuilder<EyeTryRow> builder)
    {
        builder.ToTable("EyeTries").Property(row => row.Group).HasConversion<string>();
        builder.HasIndex(row => row.CookId);
    }
}
