using LivelyTern.Core.Pack;
using LivelyTern.Data.Pack;
using Microsoft.EntityFrameworkCore;

namespace LivelyTern.Data.Plan;

/// <summary>A box that was thrown away.</summary>
/// <param name="Rest">What was left in it.</param>
/// <param name="Why">Why, as it was said.</param>
/// <param name="At">When.</param>
public sealed record ThrownBox(Box Rest, string? Why, DateTimeOffset At);

/// <summary>What was thrown away.</summary>
public sealed class ThrownAway(TernDb db, BoxStore boxes)
{
    /// <summary>The boxes thrown away from a day on, each as what was not eaten of it.</summary>
    public async Task<IReadOnlyList<ThrownBox>> SinceAsync(DateOnly day)
    {
        var from = new DateTimeOffset(day, TimeOnly.MinValue, TimeSpan.Zero);
        var rows = await db.Boxes.AsNoTracking().Where(row => row.State == BoxState.ThrownAway).ToListAsync();
        if (rows.Count == 0) return [];
        var thrown = db.Boxes.Where(row => row.State == BoxState.ThrownAway).Select(row => row.Id);
        var events = await db.BoxEvents.AsNoTracking().Where(one => one.State == BoxState.ThrownAway && thrown.Contains(one.BoxId))
            .Select(one => new { one.BoxId, one.Id, one.At, one.Why }).ToListAsync();
        var last = events.GroupBy(one => one.BoxId).ToDictionary(own => own.Key, own => own.MaxBy(one => one.Id)!);
        rows = rows.FindAll(row => last.TryGetValue(row.Id, out var gone) && gone.At >= from);
        var ids = rows.ConvertAll(row => row.Id);
        var eaten = await db.PlanItems.AsNoTracking()
            .Where(item => item.EatenAt != null && item.BoxId != null && ids.Contains(item.BoxId.Value)).ToListAsync();
        var parts = eaten.ToLookup(item => item.BoxId!.Value, item => item.Milligrams ?? 0);
        ThrownBox Thrown(Box box) => new(box.Of(box.Weight - Milligrams.ToGrams(parts[box.Id].Sum())), last[box.Id].Why, last[box.Id].At);
        return [.. (await boxes.ReadAsync(rows)).Select(Thrown)];
    }
}
