using System.Collections.Immutable;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan;

/// <summary>A box, or some of it, on somebody's day.</summary>
/// <param name="BoxId">The box.</param>
/// <param name="EaterId">Whose day.</param>
/// <param name="Part">Grams of it; null for all of it.</param>
/// <param name="IsEaten">Whether it was eaten.</param>
public sealed record BoxOnDay(Guid BoxId, Guid EaterId, Grams? Part, bool IsEaten)
{
    /// <summary>The boxes on some days.</summary>
    public static IEnumerable<BoxOnDay> On(IEnumerable<KeyValuePair<EaterDay, ImmutableList<PlanItem>>> days) =>
        from day in days
        from item in day.Value
        where item.BoxId is not null
        select new BoxOnDay(item.BoxId!.Value, day.Key.EaterId, item.PartOfBox, item.EatenAt is not null);
}

/// <summary>What a change to days makes of the boxes on them: their state follows from the days, in the same transaction.</summary>
public static class BoxesOnDays
{
    /// <summary>
    /// A box of which all was eaten is eaten, one of which some was is part eaten, one of which nothing was is full; one that lies on
    /// somebody's day is theirs, and nobody's when it is taken off.
    /// </summary>
    /// <param name="boxes">The boxes that a change touches: what each weighs, and how it stands before it.</param>
    /// <param name="given">What the change does to boxes itself.</param>
    /// <param name="laid">Where those boxes lie after it, on all days there are.</param>
    /// <returns>What happens to them, in order, nothing for those to which nothing happens; or a problem where more of one would lie on
    /// days than there is.</returns>
    public static Outcome<IReadOnlyList<BoxChange>> Follow(
        IReadOnlyDictionary<Guid, (Grams Weight, BoxLife Life)> boxes, IReadOnlyList<BoxChange> given, IEnumerable<BoxOnDay> laid)
    {
        ArgumentNullException.ThrowIfNull(boxes);
        ArgumentNullException.ThrowIfNull(given);
        List<BoxChange> changes = [.. given];
        var where = laid.ToLookup(one => one.BoxId);
        foreach (var (id, (weight, before)) in boxes)
        {
            var (here, life) = (where[id].ToList(), changes.FindLast(one => one.BoxId == id)?.After ?? before);
            var all = weight.ToMilligram();
            Grams Of(IEnumerable<BoxOnDay> some) => new(some.Sum(one => (one.Part ?? all).Value));
            if (here.Count > 1 && Of(here) > all)
                return new Problem("box-taken", "boxId", "There is not that much left of that box: the rest lies on another day.");
            if (life.State is not (BoxState.Packed or BoxState.PartEaten or BoxState.Eaten)) continue;

            // Whose it is: whoever is to eat what is left, else whoever ate all of it.
            var eaten = Of(here.Where(one => one.IsEaten));
            var state = eaten >= all ? BoxState.Eaten : eaten > Grams.Zero ? BoxState.PartEaten : BoxState.Packed;
            var whose = here.Find(one => !one.IsEaten) ?? (state == BoxState.Eaten ? here[^1] : null);
            if (life.For != whose?.EaterId) Add(BoxEventKind.MeantFor, life with { For = whose?.EaterId });
            if (life.State != state) Add(KindOf(state), life with { State = state });

            void Add(BoxEventKind kind, BoxLife next)
            {
                changes.Add(new(id, kind, life, next));
                life = next;
            }
        }

        return changes;
    }

    /// <summary>The boxes of which something was eaten before a change and is not after it.</summary>
    public static IEnumerable<Guid> NotEatenAfterAll(PlanChange change)
    {
        ArgumentNullException.ThrowIfNull(change);
        return from day in change.Days
               from item in day.After
               where item.BoxId is not null && item.EatenAt is null
               where day.Before.Exists(was => was.Id == item.Id && was.EatenAt is not null)
               select item.BoxId!.Value;
    }

    private static BoxEventKind KindOf(BoxState state) => state switch
    {
        BoxState.Eaten => BoxEventKind.Eaten,
        BoxState.PartEaten => BoxEventKind.PartEaten,
        _ => BoxEventKind.NotEaten,
    };
}
