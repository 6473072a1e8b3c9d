using LivelyTern.Core.Aim;
using LivelyTern.Core.Keep;

namespace LivelyTern.Core.Plan.Mends;

/// <summary>Why something lies where it lies.</summary>
/// <param name="IsLocked">It was locked there.</param>
/// <param name="IsFitted">A fit laid it; else a hand did.</param>
/// <param name="OutWithout">Bands the day would fall out of without it, with how far.</param>
/// <param name="UseBy">The last day from the fridge; null for a plain food.</param>
/// <param name="IsFrozen">Whether it has to be frozen until then.</param>
/// <param name="OthersTried">How many other dishes on the shelf were tried in its place.</param>
/// <param name="OthersFit">How many of them would keep the day in its bands.</param>
public sealed record WhyHere(
    bool IsLocked, bool IsFitted, IReadOnlyDictionary<Measure, BandReading> OutWithout, DateOnly? UseBy, bool IsFrozen, int OthersTried,
    int OthersFit)
{
    /// <summary>Why an item lies on a day; null where it does not.</summary>
    public static WhyHere? Of(DayOnPlan day, Guid itemId)
    {
        ArgumentNullException.ThrowIfNull(day);
        var at = day.Items.FindIndex(item => item.Id == itemId);
        if (at < 0) return null;
        var item = day.Items[at];
        bool IsWorse(BandReading was, BandReading then) =>
            then.Position != BandPosition.Within && (was.Position == BandPosition.Within || then.RoomFrom > was.RoomFrom);
        var outWithout = day.Without(at).Bands.Where(band => IsWorse(day.Now.Bands[band.Key], band.Value)).ToDictionary();
        var box = day.Stock.BoxOf(item);
        var useBy = box is null ? null : Keep.UseBy.Of(box, day.Today, day.Stock.Rules);
        var others = box is null ? [] : day.Shelf.Where(other => other.Batch.Id != box.Batch.Id).ToList();
        return new(
            item.IsLocked, item.IsFitted, outWithout, useBy?.Last, useBy?.IsFrozenFor(day.Where.Day) ?? false, others.Count,
            others.Count(other => day.Replacing(at, other.Contents).Fits));
    }
}
