using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan.Mends;

/// <summary>Something that still fits on a day.</summary>
/// <param name="Text">The plain food, or null for a box.</param>
/// <param name="BoxId">The box, or null.</param>
/// <param name="BatchId">The batch of a portion that is not packed yet, or null.</param>
/// <param name="Name">The dish or food.</param>
/// <param name="Measures">What it holds for this eater.</param>
/// <param name="After">The day with it.</param>
public sealed record StillFits(
    string? Text, Guid? BoxId, Guid? BatchId, string Name, IReadOnlyDictionary<Measure, Total> Measures, DayReading After)
{
    /// <summary>
    /// Boxes and plain foods that can be added without passing any most, what brings the day nearest to its aim first; for a slot with a
    /// share of the day, what brings that slot nearest to its share. A slot in which no box is eaten is offered plain foods only.
    /// </summary>
    /// <param name="day">The day.</param>
    /// <param name="most">How many.</param>
    /// <param name="slot">One of the eater's slots, by name; null for the day as a whole.</param>
    public static IReadOnlyList<StillFits> On(DayOnPlan day, int most, string? slot = null)
    {
        ArgumentNullException.ThrowIfNull(day);
        var part = slot is null
            ? null
            : day.Who.Ways.Slots.FirstOrDefault(one => string.Equals(one.Name, slot, StringComparison.OrdinalIgnoreCase));
        if (day.Aim.IsAway) return [];
        var offers = day.Fillers.Select(filler => Offer(day, slot, filler.Text, null, filler.Text, new Contents([filler.Food])));
        if (part is null or { TakesBox: true })
            offers = offers.Concat(day.Shelf.Select(box => Offer(day, slot, null, box, box.Batch.RecipeName, box.Contents)));
        var allowed = offers.Where(offer => PassesNoMost(day.Now, offer.After));
        var nearest = LackOf(day, part) is { } lack
            ? allowed.OrderBy(offer => Math.Abs(lack - offer.Measures[day.Aim.Leading].Known))
            : allowed.OrderBy(offer => OutOf.Bands(offer.After, day.Aim)).ThenBy(offer => FromGoal(offer.After, day.Aim));
        List<StillFits> inOrder = [.. nearest.ThenBy(offer => offer.Name, StringComparer.Ordinal)];

        // What the eater likes is there in any case, in its place.
        bool IsLiked(StillFits offer) => day.Who.Ways.Likes.Contains(offer.Name, StringComparer.OrdinalIgnoreCase);
        var kept = inOrder.Where(IsLiked).Concat(inOrder.Where(offer => !IsLiked(offer))).Take(most).ToHashSet();
        return [.. inOrder.Where(kept.Contains)];
    }

    private static StillFits Offer(DayOnPlan day, string? slot, string? text, Box? box, string name, Contents holds)
    {
        var (boxId, batchId) = DayOnPlan.IsPortion(box) ? ((Guid?)null, box!.Id) : (box?.Id, (Guid?)null);
        return new(text, boxId, batchId, name, day.Aim.Count(holds), day.With(holds, slot));
    }

    // What is over its most was so before, by as much.
    private static bool PassesNoMost(DayReading now, DayReading after) =>
        after.Bands.Where(band => band.Value.Position == BandPosition.Over)
            .All(band => now.Bands[band.Key] is { Position: BandPosition.Over, Over: var over } && over == band.Value.Over);

    // What is kept for a slot of the leading measure, else what it lacks of its share; null where it has no share or the day no goal.
    private static decimal? LackOf(DayOnPlan day, Slot? part)
    {
        if (part is null) return null;
        if (day.KeptFor(part, day.Aim.Leading) is { } kept) return kept;
        var here = day.Parts.FirstOrDefault(one => one.Slot == part);
        return here is null ? part.Share * day.Aim[day.Aim.Leading].Goal : here.Lack(day.Aim.Leading);
    }

    // How far the leading measure lies from its target.
    private static decimal FromGoal(DayReading day, DayAim aim) => Math.Abs(day.Bands.GetValueOrDefault(aim.Leading)?.Left ?? 0);
}

/// <summary>How far days lie out of their bands.</summary>
internal static class OutOf
{
    /// <summary>How far a day is out of its bands, in per cent of each bound, summed.</summary>
    public static decimal Bands(DayReading day, DayAim aim)
    {
        decimal PerCent(Measure measure, BandReading reading)
        {
            var bound = reading.Over is null ? aim[measure].Min : aim[measure].Max;
            return 100 * ((reading.Over ?? 0) + (reading.RoomFrom ?? 0)) / Math.Max(1, bound ?? 1);
        }

        return day.Bands.Sum(band => PerCent(band.Key, band.Value));
    }
}
