using System.Collections.Immutable;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan.Mends;

/// <summary>One eater's one day as it lies on the plan, with what is at hand for it: boxes, portions, plain foods.</summary>
public sealed class DayOnPlan
{
    private readonly List<Contents> contents;
    private readonly List<IReadOnlyDictionary<Measure, Total>> measured;
    private readonly List<bool> never;

    /// <summary>Takes a day of the plan.</summary>
    /// <param name="who">The eater.</param>
    /// <param name="day">The day.</param>
    /// <param name="today">Past days are never touched.</param>
    /// <param name="board">The plan around it.</param>
    /// <param name="stock">Every box and batch on it.</param>
    /// <param name="shelf">The boxes on no day.</param>
    /// <param name="unpacked">The batches that are not packed yet, with what lies of them on any day.</param>
    /// <param name="fillers">Plain foods that may be added.</param>
    public DayOnPlan(
        FittedEater who, DateOnly day, DateOnly today, PlanBoard board, Stock stock, IReadOnlyList<Box> shelf,
        IReadOnlyList<UnpackedBatch> unpacked, IReadOnlyList<FillerOffer> fillers)
    {
        ArgumentNullException.ThrowIfNull(who);
        ArgumentNullException.ThrowIfNull(board);
        ArgumentNullException.ThrowIfNull(unpacked);
        (Who, Where, Today, Board, Stock) = (who, new(who.Eater.Id, day), today, board, stock);
        Aim = who.AimOn(day);

        // A portion of a batch that still has one left is offered like a box, under the batch's id.
        var portions = unpacked.Where(one => one.NewFor(who.Eater.Id) is { Value: > 0 } size && one.Left >= size)
            .Select(one => new Box(one.Batch.Id, one.Batch, one.NewFor(who.Eater.Id), null));
        Shelf = [.. shelf.Concat(portions).Where(box => MayHave(box, day)).DistinctBy(box => (box.Batch.Id, Steps(box.Weight)))];
        Left = unpacked.ToDictionary(one => one.Batch.Id, one => one.Left);
        Fillers = [.. fillers.Where(filler => !who.Ways.Forbids(new([filler.Food])))];
        Items = board[Where];
        var elsewhere = unpacked.Where(one => !Items.Exists(item => item.Portion?.BatchId == one.Batch.Id));
        var others = elsewhere.SelectMany(one => one.ToChooseFrom().Where(size => size <= one.Left && size != one.NewFor(who.Eater.Id))
            .Select(size => new Box(one.Batch.Id, one.Batch, size, null)));
        OtherSizes = [.. others.Where(box => MayHave(box, day))];
        contents = [.. Items.Select(item => item.Contents(stock))];
        measured = [.. Holds.Measured(Items, i => who.MeasuresOf(Items[i], contents[i], Aim))];
        never = [.. Items.Select((item, i) => item.EatenAt is null && MustNever(item, contents[i]))];
        Now = Read(contents, measured, never.Contains(true), who.ReserveOn(day)) with { IsEmpty = Items.All(item => item.IsSetAside) };
    }

    /// <summary>The eater.</summary>
    public FittedEater Who { get; }

    /// <summary>Whose day it is, and which.</summary>
    public EaterDay Where { get; }

    /// <summary>The household's day.</summary>
    public DateOnly Today { get; }

    /// <summary>The plan around it.</summary>
    public PlanBoard Board { get; }

    /// <summary>Every box and batch on that.</summary>
    public Stock Stock { get; }

    /// <summary>What lies on it, in order.</summary>
    public ImmutableList<PlanItem> Items { get; }

    /// <summary>What the day may hold, with all bounds.</summary>
    public DayAim Aim { get; }

    /// <summary>The day as it is.</summary>
    public DayReading Now { get; }

    /// <summary>Boxes from the shelf that the eater may have that day, and an ordinary portion of each batch that is not packed.</summary>
    public IReadOnlyList<Box> Shelf { get; }

    /// <summary>Portions in other sizes, of those batches that are not on the day yet.</summary>
    public IReadOnlyList<Box> OtherSizes { get; }

    /// <summary>Grams of each batch that is not packed that lie on no day.</summary>
    public IReadOnlyDictionary<Guid, Grams> Left { get; }

    /// <summary>Plain foods that the eater may have.</summary>
    public IReadOnlyList<FillerOffer> Fillers { get; }

    /// <summary>What an item is made of.</summary>
    public Contents Contents(int at) => contents[at];

    /// <summary>Every measure of an item.</summary>
    public IReadOnlyDictionary<Measure, Total> Measures(int at) => measured[at];

    /// <summary>The items that lie there although the eater must never get them, and are not eaten.</summary>
    public IEnumerable<int> Never => Enumerable.Range(0, Items.Count).Where(i => never[i]);

    /// <summary>The parts of the day in which something lies, added up.</summary>
    public IReadOnlyList<DayPart> Parts =>
        DayPart.Of(Now, [.. Items.Select(item => item.Hold is null ? item.Slot : null)], Who.Ways.Slots, Aim);

    /// <summary>What is still kept free for a part of the day, of a measure; null where nothing is.</summary>
    public decimal? KeptFor(Slot part, Measure measure)
    {
        ArgumentNullException.ThrowIfNull(part);
        bool IsKept(PlanItem item) =>
            item.Hold?.Measure == measure && string.Equals(item.Slot, part.Name, StringComparison.OrdinalIgnoreCase);
        var open = Items.Zip(measured).Where(one => IsKept(one.First)).Sum(one => one.Second[measure].Known);
        return open > 0 ? open : null;
    }

    /// <summary>The day without an item.</summary>
    public DayReading Without(int at) => Tried(
        [.. contents.Where((_, i) => i != at)], [.. measured.Where((_, i) => i != at)], Never.Any(i => i != at));

    /// <summary>The day with something more, of what is offered for it; in a slot for which some is kept, that takes from it.</summary>
    public DayReading With(Contents more, string? slot = null)
    {
        var counted = Aim.Count(more);
        var now = measured.Select((was, i) => Holds.After(Items[i], was, slot, counted));
        return Tried([.. contents, more], [.. now, counted], never.Contains(true));
    }

    /// <summary>The day with something else in place of an item.</summary>
    public DayReading Replacing(int at, Contents with) => Tried(
        [.. contents.Select((was, i) => i == at ? with : was)],
        [.. measured.Select((was, i) => i == at ? Aim.Count(with) : was)], Never.Any(i => i != at));

    /// <summary>Whether the day <see cref="Replacing"/> gives is out of its bands.</summary>
    /// <param name="at">The item.</param>
    /// <param name="counted">Every measure of what would lie in its place.</param>
    public bool IsOutReplacing(int at, IReadOnlyDictionary<Measure, Total> counted)
    {
        ArgumentNullException.ThrowIfNull(counted);
        var reserve = Who.SpareReserveOn(Where.Day);
        foreach (var measure in Now.Bands.Keys)
        {
            var sum = Now.Sums[measure];
            var after = sum with { Known = sum.Known - measured[at][measure].Known + counted[measure].Known };
            if (Aim[measure].Read(after, measure == Aim.Leading ? reserve : 0).Position != BandPosition.Within) return true;
        }

        return false;
    }

    /// <summary>The items that may be changed.</summary>
    public IEnumerable<int> Free => Enumerable.Range(0, Items.Count).Where(i => IsFree(Items[i]));

    /// <summary>Whether an item may be changed: not what is eaten, locked, a meal out, for guests, or only kept free.</summary>
    public static bool IsFree(PlanItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        return !item.IsSettled;
    }

    /// <summary>Whether an item is one that the eater must never get.</summary>
    public bool MustNever(PlanItem item, Contents holds)
    {
        ArgumentNullException.ThrowIfNull(item);
        return !item.IsMealOut && Who.Ways.Forbids(holds);
    }

    /// <summary>Whether the eater may have a box on a day.</summary>
    public bool MayHave(Box box, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(box);
        var useBy = UseBy.Of(box, Today, Stock.Rules);
        return day >= box.Batch.EatenFrom(Today) && !useBy.IsOver(Today) && day <= useBy.Freezer && !Who.Ways.Forbids(box.Contents);
    }

    /// <summary>Whether a box is a portion of a batch that is not packed yet.</summary>
    public static bool IsPortion(Box? box) => box is not null && box.Id == box.Batch.Id;

    // What is tried leaves the other days what they draw of the reserve.
    private DayReading Tried(
        IReadOnlyList<Contents> entries, IReadOnlyList<IReadOnlyDictionary<Measure, Total>> measures, bool holdsNever) =>
        Read(entries, measures, holdsNever, Who.SpareReserveOn(Where.Day));

    private DayReading Read(
        IReadOnlyList<Contents> entries, IReadOnlyList<IReadOnlyDictionary<Measure, Total>> measures, bool holdsNever, decimal reserve) =>
        DayReading.Of(entries, measures, Aim, reserve) with { HoldsNever = holdsNever };

    private static decimal Steps(Grams weight) => Math.Round(weight.Value / 5);
}
