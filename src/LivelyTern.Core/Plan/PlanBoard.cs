using System.Collections.Immutable;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan;

/// <summary>One eater's one day.</summary>
public readonly record struct EaterDay(Guid EaterId, DateOnly Day);

/// <summary>One day before and after a change.</summary>
public sealed record DayChange(EaterDay Where, ImmutableList<PlanItem> Before, ImmutableList<PlanItem> After);

/// <summary>A change to the plan. Its inverse puts everything back, order and all; undoing that does it again.</summary>
/// <param name="Days">The days it changes.</param>
public sealed record PlanChange(ImmutableList<DayChange> Days)
{
    /// <summary>
    /// What happens to boxes besides: given away, thrown away. That they are eaten follows from the days (<see cref="BoxesOnDays"/>).
    /// </summary>
    public ImmutableList<BoxChange> Boxes { get; init; } = [];

    /// <summary>The change that undoes this one.</summary>
    public PlanChange Inverse => new([.. Days.Select(day => day with { Before = day.After, After = day.Before })])
    {
        Boxes = Boxes.ConvertAll(box => box.Inverse),
    };
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

    /// <summary>
    /// The plan without the boxes whose day went by uneaten: they are on the shelf again, and can be laid anew. Where one is, it leaves the
    /// day that went by.
    /// </summary>
    /// <param name="today">The household's day.</param>
    /// <param name="which">Only these boxes; null for all.</param>
    public PlanBoard WithoutOverdue(DateOnly today, IReadOnlyCollection<Guid>? which = null)
    {
        bool IsOverdue(PlanItem item) => item is { BoxId: { } box, EatenAt: null } && which?.Contains(box) != false;
        var overdue = Days.Where(day => day.Key.Day < today && day.Value.Exists(IsOverdue)).ToList();
        var days = overdue.Aggregate(Days, (sofar, day) => sofar.SetItem(day.Key, day.Value.RemoveAll(IsOverdue)));
        return new(days.RemoveRange(overdue.Select(day => day.Key).Where(day => days[day].IsEmpty)));
    }

    /// <summary>The plain foods that are still to be eaten, with the days they lie on.</summary>
    /// <param name="from">The first day.</param>
    public IEnumerable<(EaterDay Where, PlanItem Item, PlainFood Food)> PlainFoodsFrom(DateOnly from) =>
        from day in Days
        where day.Key.Day >= @from
        from item in day.Value
        where item is { EatenAt: null, What: PlainFood }
        select (day.Key, item, (PlainFood)item.What);

    /// <summary>Lays a new item on a day at a place in its order; a place past the end is the end.</summary>
    public Outcome<PlanChange> Lay(PlanItem item, EaterDay where, int place)
    {
        ArgumentNullException.ThrowIfNull(item);
        if (item.BoxId is { } box && Days.Values.Any(items => items.Exists(other => other.BoxId == box && IsTwice(item, other))))
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

        // Moved by hand, it is no fit's any more.
        var moved = item with { IsFitted = false };
        return from == to
            ? Changing((from, Insert(without, moved, place)))
            : Changing((from, without), (to, Insert(this[to], moved, place)));
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

    /// <summary>Boxes are given or thrown away: they leave the days they lie on. What was eaten of them stays eaten.</summary>
    public Outcome<PlanChange> LetGo(ImmutableList<BoxChange> gone)
    {
        ArgumentNullException.ThrowIfNull(gone);
        var ids = gone.ConvertAll(box => box.BoxId);
        var laid = Days.Values.SelectMany(items => items)
            .Where(item => item is { BoxId: { } id, EatenAt: null } && ids.Contains(id));
        var off = InOne(laid.Select<PlanItem, Func<PlanBoard, Outcome<PlanChange>>>(item => on => on.TakeOff(item.Id)));
        return off.Succeeded ? off.Value! with { Boxes = gone } : off;
    }

    /// <summary>Marks an item eaten at an instant, or not eaten with null.</summary>
    public Outcome<PlanChange> Eat(Guid itemId, DateTimeOffset? at) =>
        at is not null && Find(itemId) is { } where && this[where].Find(item => item.Id == itemId)!.Portion is not null
            ? new Problem("not-packed", "itemId", "Cook and pack this batch first: then its box can be eaten.")
            : at is not null && Find(itemId) is { } day && this[day].Find(item => item.Id == itemId)!.Hold is not null
            ? new Problem("hold-eaten", "itemId", "That is only kept free: enter what was eaten instead.")
            : Replace(itemId, item => item with { EatenAt = at });

    /// <summary>Marks some of a box eaten: what is left of it is on the shelf again.</summary>
    /// <param name="itemId">The box, or the part of one.</param>
    /// <param name="part">Grams that were eaten.</param>
    /// <param name="whole">Grams that lie there.</param>
    /// <param name="at">When.</param>
    public Outcome<PlanChange> EatPart(Guid itemId, Grams part, Grams whole, DateTimeOffset at)
    {
        if (Find(itemId) is not { } where) return Gone;
        if (this[where].Find(item => item.Id == itemId)!.What is not LaidBox box)
            return new Problem("part-of-box", "itemId", "Part of it is eaten of a box only: of a plain food, type the amount anew.");
        if (part.ToMilligram().Value <= 0 || part > whole)
            return new Problem("part-absurd", "grams", $"There are {whole.Value:0.#} g in it: say how much of that was eaten.");
        return Replace(itemId, item => item with { What = part < whole ? box with { Part = part } : box, EatenAt = at });
    }

    /// <summary>Locks an item where it lies, or unlocks it.</summary>
    public Outcome<PlanChange> Lock(Guid itemId, bool isLocked) => Replace(itemId, item => item with { IsLocked = isLocked });

    /// <summary>Puts an item into a slot of its day, or into none.</summary>
    public Outcome<PlanChange> PutInSlot(Guid itemId, string? slot) => Replace(itemId, item => item with { Slot = slot });

    /// <summary>
    /// Copies the plain foods of a day, or of one of its slots, onto other days as new items, and its portions of batches that are not
    /// packed yet, as far as there is enough of them and they are cooked by then. Boxes cannot be copied: each is there once.
    /// </summary>
    /// <param name="from">The day to copy from.</param>
    /// <param name="to">The days to copy to.</param>
    /// <param name="slot">Only what is in this slot; null for all.</param>
    /// <param name="unpacked">The batches that are not packed yet, with what of them lies on days.</param>
    /// <param name="today">The household's day.</param>
    /// <param name="newId">Makes an id.</param>
    public Outcome<PlanChange> Copy(
        EaterDay from, IReadOnlyList<EaterDay> to, string? slot, IReadOnlyList<UnpackedBatch> unpacked, DateOnly today, Func<Guid> newId)
    {
        ArgumentNullException.ThrowIfNull(to);
        ArgumentNullException.ThrowIfNull(unpacked);
        ArgumentNullException.ThrowIfNull(newId);
        var batches = unpacked.ToDictionary(one => one.Batch.Id);
        var left = unpacked.ToDictionary(one => one.Batch.Id, one => one.Left);
        bool IsIn(PlanItem item) => slot is null || string.Equals(item.Slot, slot, StringComparison.Ordinal);
        bool MayGo(PlanItem item, DateOnly day)
        {
            if (item.What is not Portion portion) return item.What is PlainFood;
            if (!batches.TryGetValue(portion.BatchId, out var of) || day < of.Batch.EatenFrom(today)) return false;
            if (portion.Weight > left[of.Batch.Id]) return false;
            left[of.Batch.Id] -= portion.Weight;
            return true;
        }

        PlanItem Anew(PlanItem item) => item with { Id = newId(), EatenAt = null, IsLocked = false, IsFitted = false };
        if (to.Contains(from)) return new Problem("copy-onto-itself", "to", "A day is copied onto another day.");
        var copied = to.Distinct().OrderBy(day => day.Day)
            .Select(day => (Day: day, Items: this[from].FindAll(item => IsIn(item) && MayGo(item, day.Day)))).ToList();
        if (copied.TrueForAll(one => one.Items.IsEmpty))
            return new Problem(
                "copy-nothing", "from",
                "Nothing on that day can be copied: a packed box is there only once, and of a batch only what is left.");
        return Changing([.. copied.Select(one => (one.Day, this[one.Day].AddRange(one.Items.Select(Anew))))]);
    }

    /// <summary>One change that does what several do one after another.</summary>
    /// <param name="steps">Each works on the plan as the steps before have left it.</param>
    public Outcome<PlanChange> InOne(IEnumerable<Func<PlanBoard, Outcome<PlanChange>>> steps)
    {
        ArgumentNullException.ThrowIfNull(steps);
        var (now, touched) = (this, new HashSet<EaterDay>());
        foreach (var step in steps)
        {
            var change = step(now);
            if (!change.Succeeded) return change;
            var next = now.Apply(change.Value!);
            if (!next.Succeeded) return next.Problems.ToList();
            now = next.Value!;
            touched.UnionWith(change.Value!.Days.Select(day => day.Where));
        }

        return Changing([.. touched.Select(day => (day, now[day]))]);
    }

    /// <summary>Sizes portions anew: all that an eater has of a batch that is not packed yet.</summary>
    /// <param name="eaterId">Whose.</param>
    /// <param name="batchId">The batch.</param>
    /// <param name="weight">Cooked grams of each.</param>
    public Outcome<PlanChange> Size(Guid eaterId, Guid batchId, Grams weight)
    {
        if (Portion.ProblemOf(weight) is { } wrong) return wrong;
        bool IsOfIt(PlanItem item) => item.Portion?.BatchId == batchId && !item.IsForGuests;
        PlanItem Sized(PlanItem item) => IsOfIt(item) ? item with { What = new Portion(batchId, weight) } : item;
        var days = Days.Where(day => day.Key.EaterId == eaterId && day.Value.Exists(IsOfIt)).Select(day => day.Key).ToList();
        return days.Count > 0
            ? Changing([.. days.Select(day => (day, this[day].ConvertAll(Sized)))])
            : new Problem(
                "portion-none", "batchId",
                "There is no portion of that batch on this eater's days: boxes that are packed hold what they hold.");
    }

    /// <summary>Sizes one portion anew.</summary>
    public Outcome<PlanChange> Size(Guid itemId, Grams weight) =>
        Find(itemId) is { } where && this[where].Find(item => item.Id == itemId)!.Portion is { } portion
            ? Replace(itemId, item => item with { What = portion with { Weight = weight } })
            : Gone;

    /// <summary>Another amount of the same thing, where it stands, by hand: see <see cref="TypedAmount"/>.</summary>
    public Outcome<PlanChange> Amend(Guid itemId, Laid what) =>
        Find(itemId) is { } where && this[where].Find(item => item.Id == itemId)!.What.GetType() == what?.GetType()
            ? Replace(itemId, item => item with { What = what, IsFitted = false })
            : Gone;

    /// <summary>The plan after a change.</summary>
    /// <returns>The plan, or a problem where a day is no longer as the change found it.</returns>
    public Outcome<PlanBoard> Apply(PlanChange change)
    {
        ArgumentNullException.ThrowIfNull(change);
        var days = Days;
        foreach (var day in change.Days)
        {
            if (!this[day.Where].SequenceEqual(day.Before)) return MovedOn;
            days = day.After.IsEmpty ? days.Remove(day.Where) : days.SetItem(day.Where, day.After);
        }

        var all = days.Values.SelectMany(items => items).ToList();
        var boxes = all.Where(item => item.BoxId is not null).GroupBy(item => item.BoxId!.Value);
        if (boxes.Any(box => box.Count() > 1 && box.Any(item => item.PartOfBox is null)))
            return new Problem("box-taken", "change", "A box of that step lies on another day by now: it stays there.");
        return all.DistinctBy(item => item.Id).Count() == all.Count
            ? new PlanBoard(days)
            : new Problem("item-elsewhere", "change", "That lies on another day by now: it stays there.");
    }

    /// <summary>That a day is no longer as a change found or left it.</summary>
    internal static readonly Problem MovedOn =
        new("plan-moved-on", "change", "That day has changed since: look at it as it is now and try again.");

    // Parts of one box may lie on several days; all of it only once.
    private static bool IsTwice(PlanItem item, PlanItem other) => item.PartOfBox is null || other.PartOfBox is null;

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
