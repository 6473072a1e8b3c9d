using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan.Labels;
using LivelyTern.Data.Recipes;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Plan;

#pragma warning disable CS1591 // Rows mirror the core's records, where they are documented.

/// <summary>What a cook wrote about the boxes of a dish; none while nobody wrote anything.</summary>
public sealed class BoxNotesRow : IVersioned
{
    public Guid RecipeId { get; set; }

    public string? Heating { get; set; }

    public string? AtEating { get; set; }

    public int Version { get; set; } = 1;

    internal BoxNotes Notes => new(Heating, AtEating);
}

/// <summary>How the boxes of dishes are heated, and what is added when they are eaten.</summary>
public sealed class BoxNotesStore(TernDb db)
{
    /// <summary>Of some dishes; those of which nothing is written are left out.</summary>
    public async Task<IReadOnlyDictionary<Guid, (BoxNotes Notes, int Version)>> OfAsync(IReadOnlyCollection<Guid> recipeIds) =>
        await db.BoxNotes.AsNoTracking().Where(row => recipeIds.Contains(row.RecipeId))
            .ToDictionaryAsync(row => row.RecipeId, row => (row.Notes, row.Version));

    /// <summary>Of the dishes that are in some boxes, by box; those of which nothing is written are left out.</summary>
    public async Task<IReadOnlyDictionary<Guid, BoxNotes>> OfBoxesAsync(IReadOnlyCollection<Guid> boxIds)
    {
        if (boxIds.Count == 0) return new Dictionary<Guid, BoxNotes>();
        var written =
            from box in db.Boxes.AsNoTracking()
            where boxIds.Contains(box.Id)
            join batch in db.Batches on box.BatchId equals batch.Id
            join row in db.BoxNotes on batch.RecipeId equals row.RecipeId
            select new { box.Id, row };
        return await written.ToDictionaryAsync(one => one.Id, one => one.row.Notes);
    }

    /// <summary>Writes them, at the version they were read at.</summary>
    /// <param name="recipeId">The dish.</param>
    /// <param name="version">That version; 0 while nothing was written.</param>
    /// <param name="notes">What they are from now on.</param>
    /// <returns>Their version now.</returns>
    public Task<Outcome<int>> SetAsync(Guid recipeId, int version, BoxNotes notes) => db.InTurnAsync<int>(async () =>
    {
        ArgumentNullException.ThrowIfNull(notes);
        if (!await db.Recipes.AnyAsync(row => row.Id == recipeId)) return Stale.Gone("recipe");
        var row = await db.BoxNotes.SingleOrDefaultAsync(one => one.RecipeId == recipeId);
        if ((row?.Version ?? 0) != version) return Stale.Problem;
        if (row is not null)
        {
            (row.Heating, row.AtEating) = (notes.Heating, notes.AtEating);
            return await db.SaveAsync(row, version + 1);
        }

        db.BoxNotes.Add(new() { RecipeId = recipeId, Heating = notes.Heating, AtEating = notes.AtEating });
        await db.SaveChangesAsync();
        return 1;
    });
}

internal sealed class BoxNotesRows : IEntityTypeConfiguration<BoxNotesRow>
{
    public void Configure(EntityTypeBuilder<BoxNotesRow> builder)
    {
        builder.HasKey(row => row.RecipeId);
        builder.HasOne<RecipeRow>().WithOne().HasForeignKey<BoxNotesRow>(row => row.RecipeId).OnDelete(DeleteBehavior.Cascade);
    }
}
