using LivelyTern.Core.Measures;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace LivelyTern.Data.Recipes;

#pragma warning disable CS1591 // Rows mirror what is shown, where it is documented.

/// <summary>What a cook wrote down of a recipe on a day: what was different, what to change.</summary>
public sealed class RecipeNoteRow
{
    public Guid Id { get; set; }

    public Guid RecipeId { get; set; }

    public DateOnly Day { get; set; }

    public required string Text { get; set; }
}

/// <summary>Notes on recipes.</summary>
public sealed class RecipeNotes(TernDb db)
{
    private const int Longest = 1000, MostOfARecipe = 500;

    /// <summary>The notes of a recipe, the last first.</summary>
    public async Task<IReadOnlyList<RecipeNoteRow>> OfAsync(Guid recipeId) =>
        await db.RecipeNotes.AsNoTracking().Where(row => row.RecipeId == recipeId).OrderByDescending(row => row.Day)
            .ThenByDescending(row => row.Id).ToListAsync();

    /// <summary>Writes a note down.</summary>
    /// <param name="recipeId">The recipe.</param>
    /// <param name="day">The day it is of.</param>
    /// <param name="text">What it says, up to 1000 letters.</param>
    public Task<Outcome<RecipeNoteRow>> AddAsync(Guid recipeId, DateOnly day, string text) => db.InTurnAsync<RecipeNoteRow>(async () =>
    {
        ArgumentNullException.ThrowIfNull(text);
        if (text.Trim() is not { Length: > 0 and <= Longest } said)
            return new Problem("note-length", "text", $"A note has 1 to {Longest} letters.");
        if (!await db.Recipes.AnyAsync(row => row.Id == recipeId)) return Stale.Gone("recipe");
        if (await db.RecipeNotes.CountAsync(row => row.RecipeId == recipeId) >= MostOfARecipe)
            return new Problem("notes-many", "text", $"A recipe has up to {MostOfARecipe} notes: take some away first.");
        var note = new RecipeNoteRow { Id = Guid.CreateVersion7(), RecipeId = recipeId, Day = day, Text = said };
        db.RecipeNotes.Add(note);
        await db.SaveChangesAsync();
        return note;
    });

    /// <summary>Takes a note away.</summary>
    /// <returns>What it was, to write it down again.</returns>
    public Task<Outcome<RecipeNoteRow>> RemoveAsync(Guid recipeId, Guid id) => db.InTurnAsync<RecipeNoteRow>(async () =>
    {
        if (await db.RecipeNotes.SingleOrDefaultAsync(row => row.Id == id && row.RecipeId == recipeId) is not { } note)
            return Stale.Gone("note");
        db.RecipeNotes.Remove(note);
        await db.SaveChangesAsync();
        return note;
    });
}

internal sealed class RecipeNoteRows : IEntityTypeConfiguration<RecipeNoteRow>
{
    public void Configure(EntityTypeBuilder<RecipeNoteRow> builder)
    {
        builder.ToTable("RecipeNotes").HasIndex(row => row.RecipeId);
        builder.HasOne<RecipeRow>().WithMany().HasForeignKey(row => row.RecipeId).OnDelete(DeleteBehavior.Restrict);
    }
}
