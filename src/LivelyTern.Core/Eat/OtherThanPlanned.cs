using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;

namespace LivelyTern.Core.Eat;

/// <summary>
/// What lies on a day was eaten, but not just so: half of it, a serving and a half, shared with somebody. Of a box of 320 g "a serving and
/// a half" are that box and 160 g of another box of the same dish; half of it leaves 160 g on the shelf; shared alike, 160 g are eaten on
/// each of the two days. No gram is eaten twice.
/// </summary>
/// <param name="board">The days around it.</param>
/// <param name="stock">What lies there is made of.</param>
/// <param name="shelf">Boxes on no day, or what is left of them, that may still be eaten; those to be eaten first come first.</param>
/// <param name="read">Reads a whole line, as an amount of the food of an id where one is given.</param>
/// <param name="newId">Makes an id.</param>
public sealed class OtherThanPlanned(
    PlanBoard board, Stock stock, IReadOnlyList<Box> shelf, Func<string, string?, FoodLine> read, Func<Guid> newId)
{
    private const decimal MostTimes = 10m;

    private static readonly HashSet<string> Servings =
        new(["serving", "servings", "portion", "portions", "box", "boxes"], StringComparer.OrdinalIgnoreCase);

    /// <summary>So many times what lies there was eaten: 0.5 is half of it.</summary>
    public Outcome<PlanChange> EatenTimes(Guid itemId, decimal times, DateTimeOffset at)
    {
        if (times is <= 0 or > MostTimes)
            return new Problem("times-absurd", "times", $"Say more than nothing, and at most {MostTimes:0} times what lies there.");
        if (Find(itemId) is not { } item) return Gone;
        return BoxOf(item) is { } box ? EatenGrams(item, box, box.Weight * times, at) : EatenOf(item, Share(times), at);
    }

    /// <summary>An amount as typed was eaten: "200 g", "half", "a serving and a half", of 2 eggs "3", of a meal out "600 kcal".</summary>
    public Outcome<PlanChange> EatenTyped(Guid itemId, string typed, DateTimeOffset at)
    {
        ArgumentNullException.ThrowIfNull(typed);
        if (Find(itemId) is not { } item) return Gone;
        if (TypedAmount.ShareOf(typed.Trim()) is { } times) return EatenTimes(itemId, times, at);
        if (BoxOf(item) is not { } box) return EatenOf(item, typed, at);
        switch (AmountText.Read(typed))
        {
            case { Unit: null, IsAbout: false } count when Servings.Contains(count.Rest): return EatenTimes(itemId, count.Quantity, at);
            case { Rest: "", IsAbout: false, Unit: { Kind: UnitKind.Mass } unit } weight:
                return EatenGrams(item, box, new(weight.Quantity * unit.InBase), at);
        }

        var part = TypedAmount.Of(new LaidBox(box.Id), box, typed, read);
        return part.Value is LaidBox eaten ? EatenGrams(item, box, eaten.Part ?? box.Weight, at) : part.Problems.ToList();
    }

    /// <summary>It was shared: a share of it eaten by whose day it lies on, the rest by another on the same day.</summary>
    /// <param name="itemId">What lies there.</param>
    /// <param name="share">The own share, more than 0 and less than 1.</param>
    /// <param name="withEaterId">Who had the rest.</param>
    /// <param name="at">When.</param>
    public Outcome<PlanChange> Shared(Guid itemId, decimal share, Guid withEaterId, DateTimeOffset at)
    {
        if (share is <= 0 or >= 1)
            return new Problem("share-absurd", "share", "Each of the two had some of it: say how much of it is the own share.");
        if (board.Find(itemId) is not { } where || Find(itemId) is not { } item) return Gone;
        if (withEaterId == where.EaterId) return new Problem("share-alone", "eaterId", "Say with whom it was shared.");
        var other = where with { EaterId = withEaterId };
        PlanItem Rest(Laid what) => new(newId(), what, at);
        if (BoxOf(item) is { } box)
        {
            var own = (box.Weight * share).ToMilligram();
            var rest = box.Weight - own;
            return board.InOne(
            [
                on => on.EatPart(itemId, own, box.Weight, at),
                on => on.Lay(Rest(new LaidBox(box.Id, rest)), other, int.MaxValue),
            ]);
        }

        var others = TypedAmount.Of(item.What, null, Share(1 - share), read);
        if (others.Value is not { } theirs) return others.Problems.ToList();
        var eaten = EatenOf(item, Share(share), at);
        return eaten.Value is not { } mine
            ? eaten
            : board.InOne([_ => mine, on => on.Lay(Rest(theirs), other, int.MaxValue)]);
    }

    private static readonly Problem Gone = new("item-gone", "itemId", "That is no longer on the plan.");

    private static string Share(decimal times) => FormattableString.Invariant($"{times * 100:0.####} %");

    private PlanItem? Find(Guid itemId) =>
        board.Find(itemId) is { } where ? board[where].Find(item => item.Id == itemId) : null;

    private Box? BoxOf(PlanItem item) => item.BoxId is null ? null : stock.BoxOf(item);

    // A plain food, or a meal out; of what is not packed yet nothing was eaten.
    private Outcome<PlanChange> EatenOf(PlanItem item, string typed, DateTimeOffset at)
    {
        if (item.Portion is not null || item.Hold is not null) return board.Eat(item.Id, at);
        var amount = TypedAmount.Of(item.What, null, typed, read);
        return amount.Value is { } what
            ? board.InOne([on => on.Amend(item.Id, what), on => on.Eat(item.Id, at)])
            : amount.Problems.ToList();
    }

    // Up to what is in the box from that box; what is more from others of the same dish.
    private Outcome<PlanChange> EatenGrams(PlanItem item, Box box, Grams weight, DateTimeOffset at)
    {
        var wanted = weight.ToMilligram();
        if (wanted <= box.Weight) return board.EatPart(item.Id, wanted, box.Weight, at);
        var steps = new List<Func<PlanBoard, Outcome<PlanChange>>> { on => on.Eat(item.Id, at) };
        var open = wanted - box.Weight;
        var where = board.Find(item.Id)!.Value;
        foreach (var more in AlikeOnShelf(box))
        {
            if (open.Value <= 0) break;
            var part = open < more.Weight ? open : more.Weight;
            var taken = new PlanItem(newId(), part < more.Weight ? new LaidBox(more.Id, part) : LaidBox.Of(more), at) { Slot = item.Slot };
            steps.Add(on => on.Lay(taken, where, int.MaxValue));
            open -= part;
        }

        return open.Value > 0 ? Short(box, wanted) : board.InOne(steps);
    }

    // What is thawed already before what is frozen; of the same batch before another.
    private IEnumerable<Box> AlikeOnShelf(Box box) => shelf.Where(box.IsOfTheDishOf)
        .OrderBy(other => other.Life.Place == BoxPlace.Freezer).ThenByDescending(other => other.Batch.Id == box.Batch.Id);

    private Problem Short(Box box, Grams wanted)
    {
        var there = AlikeOnShelf(box).Sum(other => other.Weight.Value);
        var more = there > 0 ? $"and {there:0.#} g more on the shelf" : "and no more of it on the shelf";
        return new(
            "dish-short", "times",
            $"There are {box.Weight.Value:0.#} g in that box {more}: {wanted.Value:0.#} g can't have been eaten of it.");
    }
}
