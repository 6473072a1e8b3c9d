using System.Collections.Immutable;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan;

/// <summary>What a change to days makes of the boxes on them: their state follows from the days, in the same transaction.</summary>
public static class BoxesOnDays
{
    /// <summary>
    /// A box that is eaten on its day is eaten, one that is not eaten after all is full again; one that lies on somebody's day is theirs,
    /// and nobody's when it is taken off.
    /// </summary>
    /// <param name="change">The change.</param>
    /// <param name="lives">How the boxes stand before it, by id.</param>
    /// <returns>What happens to them, in order; nothing for those to which nothing happens.</returns>
    public static IReadOnlyList<BoxChange> Follow(PlanChange change, IReadOnlyDictionary<Guid, BoxLife> lives)
    {
        ArgumentNullException.ThrowIfNull(change);
        ArgumentNullException.ThrowIfNull(lives);
        var before = On(change.Days.Select(day => (day.Where, day.Before)));
        var after = On(change.Days.Select(day => (day.Where, day.After)));
        List<BoxChange> changes = [.. change.Boxes];
        foreach (var id in before.Keys.Union(after.Keys))
        {
            var given = change.Boxes.FindLast(one => one.BoxId == id);
            if ((given?.After ?? lives.GetValueOrDefault(id)) is not { } life) continue;
            var isEaten = after.TryGetValue(id, out var now) && now.IsEaten;
            var wasEaten = life.State == BoxState.Eaten;
            Guid? whose = after.ContainsKey(id) ? now.EaterId : null;
            if (life.State is BoxState.Packed or BoxState.Eaten && life.For != whose) Add(BoxEventKind.MeantFor, life with { For = whose });
            if (isEaten && !wasEaten) Add(BoxEventKind.Eaten, life with { State = BoxState.Eaten });
            if (!isEaten && wasEaten) Add(BoxEventKind.NotEaten, life with { State = BoxState.Packed });

            void Add(BoxEventKind kind, BoxLife next)
            {
                changes.Add(new(id, kind, life, next));
                life = next;
            }
        }

        return changes;
    }

    private static Dictionary<Guid, (Guid EaterId, bool IsEaten)> On(IEnumerable<(EaterDay Where, ImmutableList<PlanItem> Items)> days) =>
        days.SelectMany(day => day.Items.Where(item => item.BoxId is not null), (day, item) => (day.Where.EaterId, Item: item))
            .ToDictionary(one => one.Item.BoxId!.Value, one => (one.EaterId, one.Item.EatenAt is not null));
}
