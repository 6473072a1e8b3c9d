using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan;

/// <summary>What guests are given of a dish: it counts nothing for whose day it lies on.</summary>
public static class Guests
{
    private const int Most = 40;

    /// <summary>
    /// One serving for each guest: ordinary portions of a batch that is not packed yet, else boxes from the shelf, those to be eaten first
    /// first.
    /// </summary>
    /// <param name="guests">How many.</param>
    /// <param name="shelf">The boxes of the dish on no day.</param>
    /// <param name="unpacked">The dish where it is not packed yet; null where it is.</param>
    /// <param name="slot">The part of the day they come for; null for none.</param>
    /// <returns>What is to be laid, or why it can't be.</returns>
    public static Outcome<IReadOnlyList<PlanItem>> Servings(int guests, IEnumerable<Box> shelf, UnpackedBatch? unpacked, string? slot)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        if (guests is < 1 or > Most) return new Problem("guests-many", "guests", $"Say how many guests, from 1 to {Most}.");
        IReadOnlyList<Laid> laid = unpacked is null
            ? [.. shelf.Take(guests).Select(LaidBox.Of)]
            : [.. Enumerable.Repeat(new Portion(unpacked.Batch.Id, unpacked.Ordinary), guests)];
        if (laid.Count == guests)
            return laid.Select(what => new PlanItem(Guid.CreateVersion7(), what) { Slot = slot, IsForGuests = true }).ToList();
        var there = laid.Count switch { 0 => "is no box", 1 => "is only 1 box", var few => $"are only {few} boxes" };
        return new Problem("guests-short", "guests", $"There {there} of that on the shelf.");
    }
}
