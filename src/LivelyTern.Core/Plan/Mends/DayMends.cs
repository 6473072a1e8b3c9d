using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan.Mends;

/// <summary>What could be done about a day.</summary>
/// <param name="Mends">Changes that bring it into its bands, smallest first; those that move a bound last.</param>
/// <param name="Nearest">Where no change brings it in: the one that brings it nearest, and the day then; null where none was found.</param>
public sealed record SuggestedMends(IReadOnlyList<Mend> Mends, (Mend Mend, DayReading After)? Nearest)
{
    /// <summary>Nothing to be done.</summary>
    public static SuggestedMends None { get; } = new([], null);
}

/// <summary>
/// What could be done about a day that is out: every suggestion is tried on the plan as it lies before it is made. <c>docs/fit.md</c> says
/// what is tried.
/// </summary>
public sealed class DayMends
{
    /// <summary>How many changes are made together at most.</summary>
    public const int MostTogether = 4;

    private const int MostSuggested = 5, MostOfAKind = 2;
    private readonly DayOnPlan day;

    /// <summary>Takes a day.</summary>
    public DayMends(DayOnPlan day)
    {
        ArgumentNullException.ThrowIfNull(day);
        this.day = day;
    }

    /// <summary>
    /// Up to five smallest changes that bring the day into its bands and push no other day out; none where no band is out or the day is
    /// past. Where something lies on it that the eater must never get, taking that off comes before all else.
    /// </summary>
    public SuggestedMends Suggest()
    {
        if (day.Where.Day < day.Today) return SuggestedMends.None;
        var never = day.Never.ToList();
        if (never.Count > 0) return new([.. never.Select(i => Made([TakesOff(i)], day.Without(i), 0))], null);
        if (!day.Now.IsOut) return SuggestedMends.None;

        var found = Together(MostSuggested).Select(one => (one.Mend, one.After)).ToList();
        var inBands = found.Where(one => !one.After.IsOut).Select(one => one.Mend).Concat(Swaps()).ToList();

        // Moving the bound itself comes last, and always has a place.
        var moved = MovedBounds().ToList();
        var few = inBands.OrderBy(mend => mend.Size).ThenBy(mend => mend.Id, StringComparer.Ordinal)
            .DistinctBy(mend => mend.Likeness, StringComparer.Ordinal)
            .GroupBy(mend => mend.Kind, StringComparer.Ordinal).SelectMany(kind => kind.Take(MostOfAKind));
        var best = few.OrderBy(mend => mend.Size).Take(MostSuggested - moved.Count).ToList();
        return new([.. best, .. moved], best.Count > 0 || found.Count == 0 ? null : found[0]);
    }

    private TakesOff TakesOff(int at) => new(day.Items[at], day.Items[at].Name(day.Stock));

    // Changes made together, added up anew from the exact figures.
    private IEnumerable<(Mend Mend, DayReading After)> Together(int enough)
    {
        foreach (var found in SmallChanges.Find(day, DayChanges.All, MostTogether, enough))
        {
            var steps = found.Changes.SelectMany(change => change.Steps).ToList();
            var after = DayChanges.After(day, steps);
            if (after.IsOut == (found.Out > 0)) yield return (Made(steps, after, (decimal)found.Size), after);
        }
    }

    private IEnumerable<Mend> Swaps()
    {
        var (board, where) = (day.Board, day.Where);
        var others = board.Days.Where(
            other => other.Key.EaterId == where.EaterId && other.Key.Day != where.Day && other.Key.Day >= day.Today);
        foreach (var (other, otherItems) in others.OrderBy(other => other.Key.Day))
        {
            var there = new DayOnPlan(day.Who, other.Day, day.Today, board, day.Stock, [], [], []);
            var before = OutOf.Bands(there.Now, there.Aim);
            var counted = there.Free.ToDictionary(j => j, j => day.Aim.Count(there.Contents(j)));
            foreach (var (i, j) in day.Free.SelectMany(i => counted.Keys.Select(j => (i, j))))
            {
                if (day.IsOutReplacing(i, counted[j]) || there.MustNever(otherItems[j], there.Contents(j))) continue;
                if (!MaySwap(day.Items[i], other.Day, otherItems[j])) continue;
                var after = day.Replacing(i, there.Contents(j));
                if (OutOf.Bands(there.Replacing(j, day.Contents(i)), there.Aim) > before) continue;
                var swap = new Swaps(
                    day.Items[i], day.Items[i].Name(day.Stock), otherItems[j], otherItems[j].Name(day.Stock), other.Day);
                yield return Made([swap], after, 35 + (Math.Abs(Change(after, Measure.Energy)) / 10));
            }
        }
    }

    private bool MaySwap(PlanItem mine, DateOnly theirDay, PlanItem theirs) =>
        mine.IsOfBatch == theirs.IsOfBatch && KeepsUntil(mine, theirDay) && KeepsUntil(theirs, day.Where.Day);

    private bool KeepsUntil(PlanItem item, DateOnly until) => day.Stock.BoxOf(item) is not { } box || day.MayHave(box, until);

    // Where one measure alone is out: the bound itself, by as much as it takes, for this one day.
    private IEnumerable<Mend> MovedBounds()
    {
        if (day.Now.Bands.Where(band => band.Value.Position != BandPosition.Within).ToList() is not [var (measure, reading)]) yield break;
        var band = day.Aim[measure];
        var step = measure == Measure.Energy ? 10m : 1m;
        decimal WholeSteps(decimal amount) => Math.Ceiling(amount / step) * step;
        var moved = reading.Over is { } over
            ? band with { Max = band.Max + WholeSteps(over), Tolerance = null }
            : band with { Min = Math.Max(0, (band.Min ?? 0) - WholeSteps(reading.RoomFrom ?? 0)), Tolerance = null };
        if (measure == Measure.Energy && reading.Over is null && (moved.Min < EnergyFloor.Kilocalories || EnergyFloor.IsBelow(moved)))
            yield break;
        yield return Made([new MovesBound(measure, moved)], day.Now, 1000);
    }

    private Mend Made(IReadOnlyList<MendStep> steps, DayReading after, decimal size) =>
        new(steps, after.Sums.Keys.ToDictionary(measure => measure, measure => Change(after, measure)), size);

    private decimal Change(DayReading after, Measure measure) => after.Sums[measure].Known - day.Now.Sums[measure].Known;

    /// <summary>What a mend does to the plan, as one change; none for one that moves a bound.</summary>
    /// <param name="mendId">The id of a mend that was suggested; it is worked out again, and refused where it is none any more.</param>
    /// <param name="newId">Makes an id for what is laid.</param>
    public Outcome<PlanChange> Apply(string mendId, Func<Guid> newId)
    {
        ArgumentNullException.ThrowIfNull(newId);
        var suggested = Suggest();
        var all = suggested.Nearest is { } nearest ? suggested.Mends.Append(nearest.Mend) : suggested.Mends;
        return all.FirstOrDefault(mend => string.Equals(mend.Id, mendId, StringComparison.Ordinal)) is { } mend
            ? Apply(mend, newId)
            : new Problem("mend-gone", "id", "That change no longer suits the day as it is now: look at it again.");
    }

    private Outcome<PlanChange> Apply(Mend mend, Func<Guid> newId)
    {
        if (mend.Steps.Any(step => step is MovesBound))
            return new Problem("mend-bound", "id", "That moves a bound of the day and changes nothing that lies on it.");
        var first = mend.Steps.Select(ItemOf).FirstOrDefault(item => item is not null);
        var place = first is null ? int.MaxValue : Math.Max(0, day.Items.FindIndex(item => item.Id == first.Id));
        PlanItem New(Laid what) => new(newId(), what) { Slot = first?.Slot };
        return day.Board.InOne(mend.Steps.SelectMany(step => Changes(step, New, place)));
    }

    private static PlanItem? ItemOf(MendStep step) =>
        step switch { TakesOff off => off.Item, Weighs weighs => weighs.Item, Swaps swaps => swaps.Item, _ => null };

    private IEnumerable<Func<PlanBoard, Outcome<PlanChange>>> Changes(MendStep step, Func<Laid, PlanItem> item, int place) => step switch
    {
        TakesOff off => [on => on.TakeOff(off.Item.Id)],
        Weighs { Text: { } text } weighs =>
            [on => on.Amend(weighs.Item.Id, new PlainFood(text, weighs.Item.Food! with { Weight = weighs.Weight }))],
        Weighs weighs => [on => on.Size(weighs.Item.Id, weighs.Weight)],
        LaysFood lays => [on => on.Lay(item(new PlainFood(lays.Offer.Text, lays.Offer.Food)), day.Where, place)],
        LaysBox { Box: var box } =>
            [on => on.Lay(item(DayOnPlan.IsPortion(box) ? new Portion(box.Id, box.Weight) : LaidBox.Of(box)), day.Where, place)],
        Swaps swaps => Swapping(swaps),
        _ => [],
    };

    // Each takes the other's day, place and slot.
    private IEnumerable<Func<PlanBoard, Outcome<PlanChange>>> Swapping(Swaps swaps)
    {
        var there = new EaterDay(day.Where.EaterId, swaps.OtherDay);
        var place = day.Items.FindIndex(item => item.Id == swaps.Item.Id);
        var otherPlace = day.Board[there].FindIndex(item => item.Id == swaps.Other.Id);
        return [
            on => on.Move(swaps.Item.Id, there, otherPlace), on => on.Move(swaps.Other.Id, day.Where, place),
            on => on.PutInSlot(swaps.Other.Id, swaps.Item.Slot), on => on.PutInSlot(swaps.Item.Id, swaps.Other.Slot)];
    }
}
