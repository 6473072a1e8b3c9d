using System.Globalization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan.Fit;

namespace LivelyTern.Core.Plan;

/// <summary>What a mend does.</summary>
public enum MendKind
{
    /// <summary>Takes something off the day.</summary>
    TakeOff,

    /// <summary>More or less of a plain food.</summary>
    Amend,

    /// <summary>A portion that is not packed yet made smaller or larger.</summary>
    Size,

    /// <summary>Adds a plain food.</summary>
    LayFood,

    /// <summary>Adds a box from the shelf.</summary>
    LayBox,

    /// <summary>Adds a box from the shelf and a plain food.</summary>
    LayBoth,

    /// <summary>Changes a box for another from the shelf.</summary>
    ChangeBox,

    /// <summary>Changes places with something on another of the eater's days.</summary>
    Swap,

    /// <summary>Takes one thing off and adds a plain food.</summary>
    Instead,

    /// <summary>Moves a bound of that one day.</summary>
    MoveBound,
}

/// <summary>One small change that brings a day into its bands, tried out.</summary>
public sealed record Mend
{
    /// <summary>Names it: the same change of the same day has the same id whenever it is worked out.</summary>
    public required string Id { get; init; }

    /// <summary>What it does.</summary>
    public required MendKind Kind { get; init; }

    /// <summary>The item on the day it concerns, if any.</summary>
    public required Guid? ItemId { get; init; }

    /// <summary>What that is called.</summary>
    public required string? Name { get; init; }

    /// <summary>The plain food to be laid, or the new amount.</summary>
    public required string? Text { get; init; }

    /// <summary>That new amount, in grams.</summary>
    public required decimal? Grams { get; init; }

    /// <summary>The box to be laid, or the batch of which a portion is.</summary>
    public required Guid? BoxId { get; init; }

    /// <summary>The dish of that box, or what the item changes places with.</summary>
    public required string? OtherName { get; init; }

    /// <summary>The item it changes places with.</summary>
    public required Guid? OtherItemId { get; init; }

    /// <summary>That item's day.</summary>
    public required DateOnly? OtherDay { get; init; }

    /// <summary>The measure whose bound moves.</summary>
    public required Measure? Bound { get; init; }

    /// <summary>Its band then, for this day.</summary>
    public required Band? NewBand { get; init; }

    /// <summary>How much the day's energy changes, in kcal.</summary>
    public required decimal ChangeKcal { get; init; }

    /// <summary>How large a change it is; small ones come first.</summary>
    public required decimal Size { get; init; }

    internal Mend Named()
    {
        object?[] parts = [Kind, ItemId, Text, Grams, BoxId, OtherItemId, Bound, NewBand?.Min, NewBand?.Target, NewBand?.Max];
        return this with { Id = string.Join('|', parts.Select(part => Convert.ToString(part, CultureInfo.InvariantCulture))) };
    }
}

/// <summary>Something that still fits on a day.</summary>
/// <param name="Text">The plain food, or null for a box.</param>
/// <param name="BoxId">The box, or null.</param>
/// <param name="BatchId">The batch of a portion that is not packed yet, or null.</param>
/// <param name="Name">The dish or food.</param>
/// <param name="Measures">What it holds for this eater.</param>
/// <param name="After">The day with it.</param>
public sealed record StillFits(
    string? Text, Guid? BoxId, Guid? BatchId, string Name, IReadOnlyDictionary<Measure, Total> Measures, DayReading After);

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
    int OthersFit);

/// <summary>
/// One eater's one day, and what could be done about it: every suggestion is tried on the plan as it lies before it is made.
/// </summary>
public sealed class DayMends
{
    private const int MostSuggested = 5, MostOfAKind = 2;
    private readonly FittedEater who;
    private readonly EaterDay where;
    private readonly DateOnly today;
    private readonly PlanBoard board;
    private readonly Stock stock;
    private readonly IReadOnlyList<Box> shelf;
    private readonly Dictionary<Guid, Grams> left;
    private readonly IReadOnlyList<FillerOffer> fillers;
    private readonly DayAim aim;
    private readonly List<Contents> contents;
    private readonly System.Collections.Immutable.ImmutableList<PlanItem> items;
    private readonly DayReading now;

    /// <summary>Takes a day of the plan.</summary>
    /// <param name="who">The eater.</param>
    /// <param name="day">The day.</param>
    /// <param name="today">Past days are never touched.</param>
    /// <param name="board">The plan around it.</param>
    /// <param name="stock">Every box and batch on it.</param>
    /// <param name="shelf">The boxes on no day.</param>
    /// <param name="unpacked">The batches that are not packed yet, with what lies of them on any day.</param>
    /// <param name="fillers">Plain foods that may be added.</param>
    public DayMends(
        FittedEater who, DateOnly day, DateOnly today, PlanBoard board, Stock stock, IReadOnlyList<Box> shelf,
        IReadOnlyList<UnpackedBatch> unpacked, IReadOnlyList<FillerOffer> fillers)
    {
        ArgumentNullException.ThrowIfNull(who);
        ArgumentNullException.ThrowIfNull(board);
        ArgumentNullException.ThrowIfNull(unpacked);
        (this.who, where, this.today, this.board, this.stock) = (who, new(who.Eater.Id, day), today, board, stock);
        aim = who.Ways.AimOn(who.Eater.Aim, day);

        // A portion of a batch that still has one left is offered like a box, under the batch's id.
        var portions = unpacked.Where(one => one.NewFor(who.Eater.Id) is { Value: > 0 } size && one.Left >= size)
            .Select(one => new Box(one.Batch.Id, one.Batch, one.NewFor(who.Eater.Id), null));
        var mayHave = shelf.Concat(portions).Where(box => MayHave(box, day));
        this.shelf = [.. mayHave.DistinctBy(box => (box.Batch.Id, Math.Round(box.Weight.Value / 5)))];
        left = unpacked.ToDictionary(one => one.Batch.Id, one => one.Left);
        this.fillers = [.. fillers.Where(filler => !who.Ways.Forbids(new([filler.Food])))];
        items = board[where];
        contents = [.. items.Select(item => item.Contents(stock))];
        now = DayReading.Of(contents, aim);
    }

    /// <summary>The day as it is.</summary>
    public DayReading Now => now;

    /// <summary>
    /// Up to five smallest changes that bring the day into its bands and push no other day out; none where it fits or is past. Where
    /// something lies on it that the eater must never get, taking that off comes before all else.
    /// </summary>
    public IReadOnlyList<Mend> Suggest()
    {
        if (where.Day < today) return [];
        var never = Enumerable.Range(0, items.Count).Where(i => items[i].EatenAt is null && MustNever(items[i], contents[i])).ToList();
        if (never.Count > 0) return [.. never.Select(i => Make(MendKind.TakeOff, i, Without(i), 0).Named())];
        if (now.Fits) return [];
        var found = TakeOffs().Concat(Amends()).Concat(Sizes()).Concat(Foods()).Concat(FromTheShelf()).Concat(Swaps()).ToList();
        if (found.Count < MostSuggested) found.AddRange(Insteads().Concat(Boths()));

        // Moving the bound itself comes last, and always has a place.
        var moved = MovedBounds().ToList();
        var smallest = found.OrderBy(mend => mend.Size).ThenBy(mend => mend.Kind).ThenBy(mend => mend.Name, StringComparer.Ordinal);
        var few = smallest.GroupBy(mend => mend.Kind).SelectMany(kind => kind.Take(MostOfAKind));
        var best = few.OrderBy(mend => mend.Size).Take(MostSuggested - moved.Count);
        return [.. best.Concat(moved).Select(mend => mend.Named())];
    }

    /// <summary>
    /// Boxes and plain foods that can be added without passing any most, what brings the day nearest to its aim first; for a slot with a
    /// share of the day, what brings that slot nearest to its share. A slot in which no box is eaten is offered plain foods only.
    /// </summary>
    /// <param name="most">How many.</param>
    /// <param name="slot">One of the eater's slots, by name; null for the day as a whole.</param>
    public IReadOnlyList<StillFits> Adding(int most, string? slot = null)
    {
        var part = slot is null
            ? null
            : who.Ways.Slots.FirstOrDefault(one => string.Equals(one.Name, slot, StringComparison.OrdinalIgnoreCase));
        var offers = fillers.Select(filler => Offer(filler.Text, null, filler.Text, new Contents([filler.Food])));
        if (part is null or { TakesBox: true })
            offers = offers.Concat(shelf.Select(box => Offer(null, box, box.Batch.RecipeName, box.Contents)));
        var allowed = offers.Where(offer => PassesNoMost(offer.After));
        var nearest = LackOf(part) is { } lack
            ? allowed.OrderBy(offer => Math.Abs(lack - offer.Measures[aim.Leading].AtLeast))
            : allowed.OrderBy(offer => OutOf(offer.After, aim)).ThenBy(offer => FromGoal(offer.After));
        return [.. nearest.ThenBy(offer => offer.Name, StringComparer.Ordinal).Take(most)];
    }

    private StillFits Offer(string? text, Box? box, string name, Contents holds)
    {
        var (boxId, batchId) = IsPortion(box) ? ((Guid?)null, box!.Id) : (box?.Id, (Guid?)null);
        return new(text, boxId, batchId, name, aim.Count(holds), DayReading.Of([.. contents, holds], aim));
    }

    // What is over its most was so before, by as much.
    private bool PassesNoMost(DayReading after) =>
        after.Bands.Where(band => band.Value.Position == BandPosition.Over)
            .All(band => now.Bands[band.Key] is { Position: BandPosition.Over, Over: var over } && over == band.Value.Over);

    // What a slot lacks of its share of the leading measure; null where it has no share or the day no goal.
    private decimal? LackOf(Slot? part)
    {
        if (part?.Share is not { } share || aim[aim.Leading] is not { } band || (band.Target ?? band.Max ?? band.Min) is not { } goal)
            return null;
        var here = Enumerable.Range(0, items.Count).Where(i => string.Equals(items[i].Slot, part.Name, StringComparison.OrdinalIgnoreCase));
        return (share * goal) - here.Sum(i => now.Entries[i][aim.Leading].AtLeast);
    }

    /// <summary>Why an item lies here.</summary>
    public WhyHere? Why(Guid itemId)
    {
        var at = items.FindIndex(item => item.Id == itemId);
        if (at < 0) return null;
        var without = Without(at);
        bool IsWorse(BandReading was, BandReading then) =>
            then.Position != BandPosition.Within && (was.Position == BandPosition.Within || then.RoomFrom > was.RoomFrom);
        var outWithout = without.Bands.Where(band => IsWorse(now.Bands[band.Key], band.Value)).ToDictionary();
        var box = stock.BoxOf(items[at]);
        var useBy = box is null ? null : UseBy.Of(box, today);
        var others = box is null ? [] : shelf.Where(other => other.Batch.Id != box.Batch.Id).ToList();
        return new(
            items[at].IsLocked, items[at].IsFitted, outWithout, useBy?.Last, useBy?.IsFrozenFor(where.Day) ?? false, others.Count,
            others.Count(other => Replacing(at, other.Contents).Fits));
    }

    private bool MayHave(Box box, DateOnly day)
    {
        var useBy = UseBy.Of(box, today);
        return day >= box.Batch.EatenFrom(today) && !useBy.IsOver(today) && day <= useBy.Freezer && !who.Ways.Forbids(box.Contents);
    }

    private static bool IsPortion(Box? box) => box is not null && box.Id == box.Batch.Id;

    private static bool IsFree(PlanItem item) => item.EatenAt is null && !item.IsLocked && !item.IsMealOut;

    private bool MustNever(PlanItem item, Contents holds) => !item.IsMealOut && who.Ways.Forbids(holds);

    private DayReading Without(int at) => DayReading.Of([.. contents.Where((_, i) => i != at)], aim);

    private DayReading Replacing(int at, Contents with) => DayReading.Of([.. contents.Select((was, i) => i == at ? with : was)], aim);

    private IEnumerable<int> Free => Enumerable.Range(0, items.Count).Where(i => IsFree(items[i]));

    private IEnumerable<Mend> TakeOffs() =>
        from i in Free let after = Without(i) where after.Fits select Make(MendKind.TakeOff, i, after, 30);

    // In steps of 5 g, from the smallest change on, to half and to double.
    private IEnumerable<Mend> Amends()
    {
        foreach (var i in Free.Where(i => items[i].Food is not null))
        {
            var grams = items[i].Food!.Weight.Value;
            for (var change = 5m; change <= grams; change += 5m)
            {
                var fits = new[] { -change, change }.Where(by => grams + by >= grams / 2)
                    .Select(by => (Grams: grams + by, After: Replacing(i, contents[i].Scale((grams + by) / grams))))
                    .FirstOrDefault(tried => tried.After.Fits);
                if (fits.After is null) continue;
                var text = $"{fits.Grams:0.#} g {items[i].Food!.Food.Name}";
                yield return Make(MendKind.Amend, i, fits.After, 0) with { Text = text, Grams = fits.Grams };
                break;
            }
        }
    }

    // A portion that is not packed yet in steps of 10 g, to half and to double, as far as there is enough of it.
    private IEnumerable<Mend> Sizes()
    {
        foreach (var i in Free.Where(i => items[i].Portion is not null))
        {
            var (batch, grams) = (items[i].Portion!.BatchId, items[i].Portion!.Weight.Value);
            for (var change = 10m; change <= grams; change += 10m)
            {
                var fits = new[] { -change, change }.Where(by => grams + by >= grams / 2 && by <= left.GetValueOrDefault(batch).Value)
                    .Select(by => (By: by, After: Replacing(i, contents[i].Scale((grams + by) / grams))))
                    .FirstOrDefault(tried => tried.After.Fits);
                if (fits.After is null) continue;
                yield return Make(MendKind.Size, i, fits.After, 5) with { Grams = grams + fits.By };
                break;
            }
        }
    }

    private IEnumerable<Mend> Foods() =>
        from filler in fillers
        let after = DayReading.Of([.. contents, new Contents([filler.Food])], aim)
        where after.Fits
        select Make(MendKind.LayFood, null, after, 10) with { Text = filler.Text };

    private IEnumerable<Mend> FromTheShelf()
    {
        foreach (var box in shelf)
        {
            if (DayReading.Of([.. contents, box.Contents], aim) is { Fits: true } added)
                yield return Make(MendKind.LayBox, null, added, 25) with { BoxId = box.Id, OtherName = box.Batch.RecipeName };
            foreach (var i in Free.Where(i => items[i].IsOfBatch))
            {
                if (Replacing(i, box.Contents) is { Fits: true } changed)
                    yield return Make(MendKind.ChangeBox, i, changed, 40) with { BoxId = box.Id, OtherName = box.Batch.RecipeName };
            }
        }
    }

    private IEnumerable<Mend> Swaps()
    {
        var others = board.Days.Where(day => day.Key.EaterId == where.EaterId && day.Key.Day != where.Day && day.Key.Day >= today);
        foreach (var (other, otherItems) in others.OrderBy(day => day.Key.Day))
        {
            var theirAim = who.Ways.AimOn(who.Eater.Aim, other.Day);
            var theirs = otherItems.Select(item => item.Contents(stock)).ToList();
            var before = OutOf(DayReading.Of(theirs, theirAim), theirAim);
            foreach (var (i, j) in Free.SelectMany(i => Enumerable.Range(0, otherItems.Count).Select(j => (i, j))))
            {
                if (MustNever(otherItems[j], theirs[j]) || !MaySwap(items[i], other.Day, otherItems[j])) continue;
                var after = Replacing(i, theirs[j]);
                if (!after.Fits) continue;
                var otherAfter = DayReading.Of([.. theirs.Select((was, k) => k == j ? contents[i] : was)], theirAim);
                if (OutOf(otherAfter, theirAim) > before) continue;
                var swap = Make(MendKind.Swap, i, after, 35);
                yield return swap with { OtherItemId = otherItems[j].Id, OtherName = otherItems[j].Name(stock), OtherDay = other.Day };
            }
        }
    }

    private bool MaySwap(PlanItem mine, DateOnly theirDay, PlanItem theirs) =>
        IsFree(theirs) && mine.IsOfBatch == theirs.IsOfBatch && KeepsUntil(mine, theirDay) && KeepsUntil(theirs, where.Day);

    private bool KeepsUntil(PlanItem item, DateOnly day) => stock.BoxOf(item) is not { } box || MayHave(box, day);

    // Where one measure alone is out: the bound itself, by as much as it takes, for this one day.
    private IEnumerable<Mend> MovedBounds()
    {
        if (now.Bands.Where(band => band.Value.Position != BandPosition.Within).ToList() is not [var (measure, reading)]) yield break;
        var band = aim[measure];
        var step = measure == Measure.Energy ? 10m : 1m;
        decimal WholeSteps(decimal amount) => Math.Ceiling(amount / step) * step;
        var moved = reading.Over is { } over
            ? band with { Max = band.Max + WholeSteps(over), Tolerance = null }
            : band with { Min = Math.Max(0, (band.Min ?? 0) - WholeSteps(reading.RoomFrom ?? 0)), Tolerance = null };
        if (measure == Measure.Energy && reading.Over is null && (moved.Min < EnergyFloor.Kilocalories || EnergyFloor.IsBelow(moved)))
            yield break;
        if (moved.Target < moved.Min || moved.Target > moved.Max) moved = moved with { Target = null };
        yield return Make(MendKind.MoveBound, null, now, 1000) with { Bound = measure, NewBand = moved };
    }

    private IEnumerable<Mend> Insteads() =>
        from i in Free
        from filler in fillers
        let after = Replacing(i, new Contents([filler.Food]))
        where after.Fits
        select Make(MendKind.Instead, i, after, 45) with { Text = filler.Text };

    private IEnumerable<Mend> Boths() =>
        from box in shelf
        from filler in fillers
        let after = DayReading.Of([.. contents, box.Contents, new Contents([filler.Food])], aim)
        where after.Fits
        select Make(MendKind.LayBoth, null, after, 50) with { BoxId = box.Id, OtherName = box.Batch.RecipeName, Text = filler.Text };

    private Mend Make(MendKind kind, int? at, DayReading after, decimal effort)
    {
        var change = after.Sums[Measure.Energy].AtLeast - now.Sums[Measure.Energy].AtLeast;
        var item = at is { } place ? items[place] : null;
        return new()
        {
            Id = "",
            Kind = kind,
            ItemId = item?.Id,
            Name = item?.Name(stock),
            Text = null,
            Grams = null,
            BoxId = null,
            OtherName = null,
            OtherItemId = null,
            OtherDay = null,
            Bound = null,
            NewBand = null,
            ChangeKcal = change,
            Size = effort + (Math.Abs(change) / 10),
        };
    }

    /// <summary>What a mend does to the plan, as one change; null for one that moves a bound.</summary>
    /// <param name="mendId">The id of a mend that was suggested; it is worked out again, and refused where it is none any more.</param>
    /// <param name="newId">Makes an id for what is laid.</param>
    public Outcome<PlanChange> Apply(string mendId, Func<Guid> newId) =>
        Suggest().FirstOrDefault(mend => string.Equals(mend.Id, mendId, StringComparison.Ordinal)) is { } mend
            ? Apply(mend, newId)
            : new Problem("mend-gone", "id", "That change no longer suits the day as it is now: look at it again.");

    /// <summary>What a mend does to the plan, as one change; null for one that moves a bound.</summary>
    /// <param name="mend">A mend of this day.</param>
    /// <param name="newId">Makes an id for what is laid.</param>
    internal Outcome<PlanChange> Apply(Mend mend, Func<Guid> newId)
    {
        ArgumentNullException.ThrowIfNull(mend);
        ArgumentNullException.ThrowIfNull(newId);
        var place = mend.ItemId is { } id ? Math.Max(0, items.FindIndex(item => item.Id == id)) : int.MaxValue;
        var slot = place < items.Count ? items[place].Slot : null;
        var gone = new Problem("item-gone", "itemId", "That is no longer on the plan.");
        PlanItem? Food() =>
            fillers.FirstOrDefault(offer => string.Equals(offer.Text, mend.Text, StringComparison.Ordinal)) is { } filler
                ? new PlanItem(newId(), new PlainFood(filler.Text, filler.Food)) { Slot = slot }
                : null;
        PlanItem? Box() =>
            shelf.FirstOrDefault(box => box.Id == mend.BoxId) is { } box
                ? new PlanItem(newId(), IsPortion(box) ? new Portion(box.Id, box.Weight) : LaidBox.Of(box)) { Slot = slot }
                : null;
        Outcome<PlanChange> Lay(PlanBoard on, PlanItem? item) => item is null ? gone : on.Lay(item, where, place);
        return mend.Kind switch
        {
            MendKind.TakeOff when mend.ItemId is { } item => board.TakeOff(item),
            MendKind.Amend when place < items.Count && items[place].Food is { } food && mend.Grams is > 0 and var grams =>
                board.Amend(items[place].Id, mend.Text ?? "", food with { Weight = new Grams(grams) }),
            MendKind.Size when mend.ItemId is { } item && mend.Grams is > 0 and var grams => board.Size(item, new Grams(grams)),
            MendKind.LayFood => Lay(board, Food()),
            MendKind.LayBox => Lay(board, Box()),
            MendKind.LayBoth => board.InOne([on => Lay(on, Box()), on => Lay(on, Food())]),
            MendKind.ChangeBox when mend.ItemId is { } item => board.InOne([on => on.TakeOff(item), on => Lay(on, Box())]),
            MendKind.Instead when mend.ItemId is { } item => board.InOne([on => on.TakeOff(item), on => Lay(on, Food())]),
            MendKind.Swap when mend.ItemId is { } item && mend.OtherItemId is { } other => Swap(item, other) ?? gone,
            _ => gone,
        };
    }

    // Each takes the other's day, place and slot.
    private Outcome<PlanChange>? Swap(Guid itemId, Guid otherId)
    {
        var place = items.FindIndex(item => item.Id == itemId);
        if (place < 0 || board.Find(otherId) is not { } there) return null;
        var otherPlace = board[there].FindIndex(item => item.Id == otherId);
        var (slot, otherSlot) = (items[place].Slot, board[there][otherPlace].Slot);
        return board.InOne([
            on => on.Move(itemId, there, otherPlace), on => on.Move(otherId, where, place),
            on => on.PutInSlot(otherId, slot), on => on.PutInSlot(itemId, otherSlot)]);
    }

    // How far a day is out of its bands, in per cent of each bound, summed.
    private static decimal OutOf(DayReading day, DayAim aim)
    {
        decimal PerCent(Measure measure, BandReading reading)
        {
            var bound = reading.Over is null ? aim[measure].Min : aim[measure].Max;
            return 100 * ((reading.Over ?? 0) + (reading.RoomFrom ?? 0)) / Math.Max(1, bound ?? 1);
        }

        return day.Bands.Sum(band => PerCent(band.Key, band.Value));
    }

    // How far the leading measure lies from its target.
    private decimal FromGoal(DayReading day) => Math.Abs(day.Bands.GetValueOrDefault(aim.Leading)?.Left ?? 0);
}
