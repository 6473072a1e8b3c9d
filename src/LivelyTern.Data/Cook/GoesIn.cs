using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Cook;

/// <summary>What really goes into a batch, line by line: typed, or from the scale.</summary>
public sealed class GoesIn(TernDb db, BatchStore batches, BatchReader reader, IPantryUse pantry)
{
    private const int HeaviestGrams = 100_000;

    /// <summary>
    /// What really went in on one line, typed: "250 g spinach"; empty where it was left out; null as planned after all.
    /// </summary>
    /// <param name="id">The batch, started and not discarded; one whose day is being cooked is started by it.</param>
    /// <param name="version">The version it was read at.</param>
    /// <param name="position">Which line, from 0; one past the last adds a line.</param>
    /// <param name="text">As typed.</param>
    /// <param name="read">The same, read.</param>
    public Task<Outcome<BatchRow>> WentInAsync(Guid id, int version, int position, string? text, Contents? read) =>
        db.InTurnAsync<BatchRow>(async () =>
    {
        var found = await StartedAsync(id, version);
        if (!found.Succeeded) return found;
        var row = found.Value!;
        var line = row.Lines.Find(one => one.Position == position);
        if (line is null && (position != row.Lines.Count || text is null)) return Stale.Gone("line");
        if (line is null)
        {
            var nothing = new StoredContents(StoredContents.Shape, [], SomethingUnread: false);
            row.Lines.Add(line = new BatchLineRow { BatchId = row.Id, Position = position, Text = "", Planned = nothing });
        }

        return await WriteAsync(row, line, text, read);
    });

    /// <summary>
    /// What the scale said of one line: what is planned of it, so much more or less, as the cook's recipe has it. The planned weight itself
    /// is as planned.
    /// </summary>
    /// <param name="id">The batch.</param>
    /// <param name="version">The version it was read at.</param>
    /// <param name="position">Which line, from 0.</param>
    /// <param name="weight">What went in.</param>
    public Task<Outcome<BatchRow>> WeighedInAsync(Guid id, int version, int position, Grams weight) => db.InTurnAsync<BatchRow>(async () =>
    {
        if (weight.Value is <= 0 or > HeaviestGrams)
            return new Problem("weight-absurd", "grams", "Between 0 and 100 kg goes in. If nothing did, leave the line out.");
        var found = await StartedAsync(id, version);
        if (!found.Succeeded) return found;
        var row = found.Value!;
        if (row.Lines.Find(one => one.Position == position) is not { } line) return Stale.Gone("line");
        var planned = (await reader.LinesOfAsync(row))[position].Planned;
        var raw = Math.Abs(planned.RawWeight.Value);
        if (raw == 0)
            return new Problem("line-weightless", "", "Nothing is known of what this line weighs: type what went in instead.");
        if (weight.Value == raw) return await WriteAsync(row, line, null, null);
        Ingredient Weighed(Ingredient part) => part with { Weight = new(part.Weight.Value * weight.Value / raw) };
        var what = planned.Ingredients is [var only] ? only.Food.Name : line.Text;
        var said = $"{AmountText.Say(weight.Value)} g{(planned.Ingredients.Count == 1 ? "" : ":")} {what}";
        return await WriteAsync(row, line, said, planned with { Ingredients = [.. planned.Ingredients.Select(Weighed)] });
    });

    private async Task<Outcome<BatchRow>> StartedAsync(Guid id, int version)
    {
        var found = await batches.AtAsync(id, version);
        if (!found.Succeeded || found.Value!.State != BatchState.Planned) return found;
        var row = found.Value;
        if (!await db.Runs.AnyAsync(run => run.Day == row.CookedOn && run.EndedAt == null))
            return new Problem("batch-ahead", "", "This batch is still to be cooked: change its recipe.");
        if (row.IsPutTogether)
            return new Problem("batch-together", "", "This dish is put together from its parts: what goes in, goes into those.");
        await batches.BegunAsync(row.Id, row.CookedOn);
        return row;
    }

    private async Task<Outcome<BatchRow>> WriteAsync(BatchRow row, BatchLineRow line, string? text, Contents? read)
    {
        var weighed = (await reader.ReadAsync(row)).Contents.RawWeight.Value > 0;
        (line.ReallyText, line.Really) = (text, read is null ? null : await reader.StoreAsync(read));
        var contents = (await reader.ReadAsync(row)).Contents;

        // Left out, or as planned after all where nothing was: what is cooked weighs something, and had to come from something.
        if ((weighed && contents.RawWeight.Value <= 0) || (text is { Length: 0 } && contents.Ingredients.Count == 0))
            return new Problem("batch-of-nothing", "text", "Then nothing would be in it: first add what went in instead.");
        if (row.CookedMilligrams is { } cooked) row.Yield = BatchStore.YieldOf(contents.RawWeight, Milligrams.ToGrams(cooked));
        await pantry.CookedAsync(row.Id, await reader.LinesOfAsync(row));
        return await db.SaveAsync(row, row);
    }
}
