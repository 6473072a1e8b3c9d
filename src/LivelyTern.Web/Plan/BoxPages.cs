using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan.Labels;
using LivelyTern.Data;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Pack;
using LivelyTern.Data.Plan;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Web.Plan;

/// <summary>The page of a box, found by its label's code.</summary>
public sealed class BoxPages(
    TernDb db, BoxStore boxes, BatchStore batches, BoxNotesStore notes,
    ContainerStore containers, TimeProvider clock)
{
    /// <summary>
    /// The box of a code, there or not. Where its batch was emptied back and packed again, the number names the box that stands there now.
    /// </summary>
    /// <param name="text">As typed, or as a QR code says it.</param>
    public async Task<Outcome<BoxPageView>> FindAsync(string text)
    {
        var read = BoxCode.Read(text);
        if (!read.Succeeded) return read.Problems.ToList();
        var code = read.Value!;
        await using var once = await db.ReadOnceAsync();
        if (await batches.OfSerialAsync(code.Batch) is not { } batch)
            return new Problem("code-not-ours", "code", "No batch here has that number: the label is of another household.");
        var all = await boxes.OfBatchAsync(batch.Id);
        if (all.Find(one => one.Number == code.Number) is not { } row)
        {
            var wasFilled = await boxes.HadAsync(batch.Id, code.Number);
            var of = $"box {code.Number} of {batch.RecipeName}";
            return wasFilled
                ? new Problem("label-gone", "code", $"What was in {of} went back into its pan: its label is of no box any more.")
                : new Problem("label-ahead", "code", $"There is no {of}: it is not packed into so many boxes, or not yet.");
        }

        var box = (await boxes.ReadAsync([row]))[0];
        var written = await notes.OfAsync([batch.RecipeId]);
        var (own, version) = written.TryGetValue(batch.RecipeId, out var stored) ? stored : (BoxNotes.None, 0);
        var events = await db.BoxEvents.AsNoTracking().Where(one => one.BoxId == row.Id).OrderByDescending(one => one.Id).ToListAsync();
        var contents = box.Contents;
        return new BoxPageView(
            row.Id, code.ToString(), batch.Id, batch.RecipeId, batch.RecipeName, batch.Letters, batch.Tint, row.Number, all.Count,
            row.State, batch.CookedOn, box.Weight.Value, contents.Allergens,
            contents.KnowsAllergens, new(own.Heating, own.AtEating, version), [.. events.Select(Show)],
            PutInView.Of(box), row.ContainerId is { } kept ? (await containers.NamesAsync([kept]))[kept] : null);
    }

    private BoxHappenedView Show(BoxEventRow one) =>
        new(clock.DayOf(one.At), one.Kind, one.Place, one.Why);
}
