using System.Collections.Immutable;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>One eater's one day.</summary>
public readonly record struct EaterDay(Guid EaterId, DateOnly Day);

/// <summary>Something laid on a day: a packed box, or a plain food by weight.</summary>
/// <param name="Id">Stable identity.</param>
/// <param name="BoxId">The box, or null for a plain food.</param>
/// <param name="Text">The plain food as typed, or null for a box.</param>
/// <param name="Food">The plain food and its weight, or null for a box.</param>
/// <param name="EatenAt">When it was eaten, in UTC; null while it is planned.</param>
public sealed record PlanItem(Guid Id, Guid? BoxId, string? Text, Ingredient? Food, DateTimeOffset? EatenAt = null)
{
    /// <summary>The same thing in the same state; a food is compared by its id and weight.</summary>
    public bool Equals(PlanItem? other) =>
        other is not null && Id == other.Id && BoxId == other.BoxId && EatenAt == other.EatenAt && string.Equals(Text, other.Text, StringComparison.Ordinal)
        && Food?.Weight == other.Food?.Weight && string.Equals(Food?.Food.Id, other.Food?.Food.Id, StringComparison.Ordinal);

    /// <inheritdoc/>
    public override int GetHashCode() => Id.GetHashCode();
}

/// <summary>One day before and after a change.</summary>
public sealed record DayChange(EaterDay Where, ImmutableList<PlanItem> Before, ImmutableList<PlanItem> After);

/// <summary>A change to the plan. Its inverse puts everything back, order and all; undoing that does it again.</summary>
public sealed record PlanChange(ImmutableList<DayChange> Days)
{
    /// <summary>The change that undoes this one.</summary>
    public PlanChange Inverse => new([.. Days.Select(day => day with { Before = day.After, After = day.Before })]);
}

/// <summary>What is laid on which day, in order. A box lies on one day at most; a box on no day is on the shelf.</summary>
public sealed record PlanBoard(ImmutableDictionary<EaterDay, ImmutableList<PlanItem>> Days)
{
    /// <summary>A plan with nothing on it.</summary>
    public static PlanBoard Empty { get; } = new(ImmutableDictionary<EaterDay, ImmutableList<PlanItem>>.Empty);

    /// <summary>What lies on a day, in order.</summary>
    public ImmutableList<PlanItem> this[EaterDay where] => Days.GetValueOrDefault(where, ImmutableList<PlanItem>.Empty);

    /// <summary>Where an item lies, or null.</summary>
    public EaterDay? Find(Guid itemId)
    {
        foreach (var (where, items) in Days)
        {
            if (items.Exists(item => item.Id == itemId)) return where;
        }

        return null;
    }

    /// <summary>Lays a new item on a day at a place in its order; a place past the end is the end.</summary>
    public Outcome<PlanChange> Lay(PlanItem item, EaterDay where, int place)
    {
        ArgumentNullException.ThrowIfNull(item);
        if (item.BoxId is { } box && Days.Values.Any(items => items.Exists(other => other.BoxId == box)))
            return new Problem("box-taken", "boxId", "That box already lies on a day: move it from there.");
        return Changing((where, Insert(this[where], item, place)));
    }

    /// <summary>Moves an item to a place on a day, its own or another.</summary>
    public Outcome<PlanChange> Move(Guid itemId, EaterDay to, int place)
    {
        if (Find(itemId) is not { } from) return Gone;
        var item = this[from].Find(other => other.Id == itemId)!;
        if (item.EatenAt is not null && from != to)
            return new Problem("item-eaten", "itemId", "That has been eaten: mark it as not eaten before moving it to another day.");
        var without = this[from].Remove(item);
        return from == to
            ? Changing((from, Insert(without, item, place)))
            : Changing((from, without), (to, Insert(this[to], item, place)));
    }

    /// <summary>Takes an item off its day: a box goes back to the shelf.</summary>
    public Outcome<PlanChange> TakeOff(Guid itemId)
    {
        if (Find(itemId) is not { } from) return Gone;
        var item = this[from].Find(other => other.Id == itemId)!;
        return item.EatenAt is null
            ? Changing((from, this[from].Remove(item)))
            : new Problem("item-eaten", "itemId", "That has been eaten: mark it as not eaten before taking it off the day.");
    }

    /// <summary>Marks an item eaten at an instant, or not eaten with null.</summary>
    public Outcome<PlanChange> Eat(Guid itemId, DateTimeOffset? at) => Replace(itemId, item => item with { EatenAt = at });

    /// <summary>Replaces a plain food's amount.</summary>
    public Outcome<PlanChange> Amend(Guid itemId, string text, Ingredient food) =>
        Find(itemId) is { } where && this[where].Find(item => item.Id == itemId)!.BoxId is not null
            ? new Problem("item-box", "itemId", "A box holds what was packed: only a plain food's amount can be typed anew.")
            : Replace(itemId, item => item with { Text = text, Food = food });

    /// <summary>The plan after a change.</summary>
    /// <returns>The plan, or a problem where a day is no longer as the change found it.</returns>
    public Outcome<PlanBoard> Apply(PlanChange change)
    {
        ArgumentNullException.ThrowIfNull(change);
        var days = Days;
        foreach (var day in change.Days)
        {
            if (!this[day.Where].SequenceEqual(day.Before))
                return new Problem("plan-moved-on", "change", "That day has changed since: look at it as it is now and try again.");
            days = day.After.IsEmpty ? days.Remove(day.Where) : days.SetItem(day.Where, day.After);
        }

        var boxes = days.Values.SelectMany(items => items).Where(item => item.BoxId is not null).Select(item => item.BoxId).ToList();
        return boxes.Distinct().Count() == boxes.Count
            ? new PlanBoard(days)
            : new Problem("box-taken", "change", "A box of that step lies on another day by now: it stays there.");
    }

    private static readonly Problem Gone = new("item-gone", "itemId", "That is no longer on the plan.");

    private Outcome<PlanChange> Replace(Guid itemId, Func<PlanItem, PlanItem> with)
    {
        if (Find(itemId) is not { } where) return Gone;
        var item = this[where].Find(other => other.Id == itemId)!;
        return Changing((where, this[where].Replace(item, with(item))));
    }

    private PlanChange Changing(params (EaterDay Where, ImmutableList<PlanItem> After)[] days) =>
        new([.. days.Select(day => new DayChange(day.Where, this[day.Where], day.After))]);

    private static ImmutableList<PlanItem> Insert(ImmutableList<PlanItem> items, PlanItem item, int place) =>
        items.Insert(Math.Clamp(place, 0, items.Count), item);
}
