using System.Collections.Immutable;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan.Mends;

namespace LivelyTern.Core.Plan.Fit;

/// <summary>What a fit may move.</summary>
public enum FitScope
{
    /// <summary>Only what is not there yet: whatever lies on the days stays.</summary>
    Gaps,

    /// <summary>What an earlier fit laid; all that was laid by hand stays.</summary>
    Fitted,

    /// <summary>Boxes, and what an earlier fit laid; foods laid by hand stay.</summary>
    Boxes,

    /// <summary>All that is not eaten, locked or a meal out.</summary>
    Everything,
}

/// <summary>A stretch of the plan as a fit's problem, and a fit's answer as days of the plan.</summary>
public sealed class WeekToFit
{
    private const int FinishingRounds = 3;
    private readonly IReadOnlyList<FittedEater> eaters;
    private readonly IReadOnlyList<EaterDay> days;
    private readonly PlanBoard board;
    private readonly Stock stock;
    private readonly IReadOnlyList<FillerOffer> fillers;
    private readonly FitScope scope;
    private readonly List<Offer> offers = [];
    private readonly DateOnly start, today;
    private readonly int span;

    /// <summary>Takes a stretch of the plan.</summary>
    /// <param name="eaters">Who is fitted.</param>
    /// <param name="days">The days to be filled, of those eaters.</param>
    /// <param name="today">Nothing is laid on a day that is past.</param>
    /// <param name="board">The plan as it lies.</param>
    /// <param name="stock">What lies on its days.</param>
    /// <param name="shelf">The boxes on no day.</param>
    /// <param name="unpacked">The batches that are not packed yet, with what lies of them on any day.</param>
    /// <param name="fillers">What may fill a gap.</param>
    /// <param name="scope">What may be moved.</param>
    /// <param name="wishes">What counts how much.</param>
    /// <param name="amountIsOpen">Which batches still to be cooked may be made larger or smaller; null for none.</param>
    public WeekToFit(
        IReadOnlyList<FittedEater> eaters, IReadOnlyList<EaterDay> days, DateOnly today, PlanBoard board, Stock stock,
        IReadOnlyList<Box> shelf, IReadOnlyList<UnpackedBatch> unpacked, IReadOnlyList<FillerOffer> fillers, FitScope scope,
        FitWishes wishes, Func<Batch, bool>? amountIsOpen = null)
    {
        ArgumentNullException.ThrowIfNull(days);
        ArgumentNullException.ThrowIfNull(stock);
        ArgumentNullException.ThrowIfNull(unpacked);
        (this.eaters, this.board, this.fillers, this.scope, this.today) = (eaters, board, fillers, scope, today);
        this.stock = new(
            stock.Boxes.Values.Concat(shelf).DistinctBy(box => box.Id).ToDictionary(box => box.Id),
            stock.Unpacked.Values.Concat(unpacked.Select(one => one.Batch)).DistinctBy(batch => batch.Id).ToDictionary(batch => batch.Id))
        {
            Rules = stock.Rules,
        };
        bool IsHere(EaterDay day) => eaters.FirstOrDefault(who => who.Eater.Id == day.EaterId)?.Ways.IsAway(day.Day) != true;
        this.days = [.. days.Where(day => day.Day >= today && IsHere(day)).Distinct()];
        start = this.days.Count == 0 ? today : this.days.Min(day => day.Day);
        span = this.days.Count == 0 ? 0 : this.days.Max(day => day.Day).DayNumber - start.DayNumber + 1;
        var released = this.days.SelectMany(Released).ToList();
        // The rest of a box is left to hands: it is laid as that part, and by no fit.
        var back = released.Where(item => item.BoxId is not null).Select(item => this.stock.BoxOf(item)!);
        OfferBoxes([.. shelf.Where(box => !box.IsPart), .. back]);
        OfferPortions(unpacked, released, amountIsOpen);
        Problem = new(start, [.. eaters.Select(Show)], [.. offers.Select(Show)], [.. fillers.Select(Show)], wishes);
    }

    /// <summary>The problem.</summary>
    public FitProblem Problem { get; }

    /// <summary>The days that are filled: not past, and the eater is here.</summary>
    public IReadOnlyList<EaterDay> Days => days;

    /// <summary>Boxes that were left out: past their time in the fridge, and whether they were frozen is not known.</summary>
    public IReadOnlyList<Box> LeftOut { get; private set; } = [];

    /// <summary>What a day holds under a plan, in the order of its slots.</summary>
    /// <param name="plan">A fit's plan.</param>
    /// <param name="newId">Makes an id for an item that is new.</param>
    public IReadOnlyDictionary<EaterDay, ImmutableList<PlanItem>> DaysUnder(FitPlan plan, Func<Guid> newId)
    {
        ArgumentNullException.ThrowIfNull(plan);
        ArgumentNullException.ThrowIfNull(newId);
        var lying = days.SelectMany(day => Released(day).Select(item => (day, item))).ToList();
        var laid = Boxes(plan, lying);
        return days.ToDictionary(day => day, day =>
        {
            var here = laid.Where(pair => Where(pair.At.Eater, pair.At.Day) == day).Select(pair => pair.Box.Id).ToHashSet();
            var ownBoxes = plan.Boxes.Where(at => offers[at.Batch].Unpacked is not null && Where(at.Eater, at.Day) == day);
            var portions = ownBoxes.Select(PortionOf).ToList();
            var servings = plan.Servings.Where(serving => serving.Count > 0 && Where(serving.Eater, serving.Day) == day)
                .Select(serving => fillers[serving.Filler].Times(serving.Count)).ToList();
            var released = Released(day).ToHashSet();

            // What the plan has here too stays the very same item.
            bool StaysHere(PlanItem item) => item.BoxId is { } box ? here.Remove(box)
                : item.Portion is { } portion ? portions.Remove(portion)
                : item.Text is { } text && !MustNever(day, item) && RemoveOne(servings, text);
            var stays = board[day].Where(item => !released.Contains(item) || StaysHere(item)).ToList();
            var boxesHere = here.Select(box => new PlanItem(newId(), new LaidBox(box)) { IsFitted = true });
            var portionsHere = portions.Select(portion => new PlanItem(newId(), portion) { IsFitted = true });
            var foods = servings.Select(serving => new PlanItem(newId(), new PlainFood(serving.Text, serving.Food)) { IsFitted = true });
            return Finished(day, stays, [.. boxesHere, .. portionsHere, .. foods], newId);
        });
    }

    private ImmutableList<PlanItem> Finished(EaterDay day, IReadOnlyList<PlanItem> stays, IReadOnlyList<PlanItem> laid, Func<Guid> newId)
    {
        var who = eaters.First(one => one.Eater.Id == day.EaterId);
        ImmutableList<PlanItem> finished = [.. stays, .. laid];

        // A few changes at a time: where they only bring the day nearer, a few more from there.
        for (var round = 0; round < FinishingRounds; round++)
        {
            var under = new PlanBoard(board.Days.SetItem(day, finished));
            var nearer = DayFinish.Of(new DayOnPlan(who, day.Day, today, under, stock, [], [], fillers), newId);
            if (nearer.SequenceEqual(finished)) break;
            finished = nearer;
        }

        var stayed = stays.Select(item => item.Id).ToHashSet();
        return InSlots(
            who, day.Day, [.. finished.Where(item => stayed.Contains(item.Id))], [.. finished.Where(item => !stayed.Contains(item.Id))]);
    }

    // Which box of its size each laid one is: the one that lies on that day already; only then are others taken.
    private List<(FitBox At, Box Box)> Boxes(FitPlan plan, List<(EaterDay Day, PlanItem Item)> lying)
    {
        var free = offers.ConvertAll(offer => offer.Sizes.ConvertAll(size => new List<Box>(size)));
        var laid = new Box?[plan.Boxes.Count];
        foreach (var staying in new[] { true, false })
        {
            for (var i = 0; i < plan.Boxes.Count; i++)
            {
                var at = plan.Boxes[i];
                if (laid[i] is not null || offers[at.Batch].Unpacked is not null) continue;
                var where = Where(at.Eater, at.Day);
                var bin = free[at.Batch][at.Size];
                var box = staying
                    ? bin.Find(box => lying.Exists(one => one.Day == where && one.Item.BoxId == box.Id))
                    : bin.OrderBy(box => lying.Exists(one => one.Item.BoxId == box.Id)).FirstOrDefault();
                if (box is null) continue;
                bin.Remove(box);
                laid[i] = box;
            }
        }

        return [.. plan.Boxes.Zip(laid).Where(pair => pair.Second is not null).Select(pair => (pair.First, pair.Second!))];
    }

    private Portion PortionOf(FitBox at) => new(offers[at.Batch].Unpacked!.Id, offers[at.Batch].Sizes[at.Size][0].Weight);

    private EaterDay Where(int eater, int day) => new(eaters[eater].Eater.Id, start.AddDays(day));

    // What a fit may take off a day. A box past its fridge days was laid knowing that it is frozen: a fit could not lay it again, so it
    // stays. What its eater must never get is taken off whatever the scope.
    private IEnumerable<PlanItem> Released(EaterDay day) =>
        board[day].Where(item => (item.EatenAt is null && MustNever(day, item)) || (!item.IsSettled && MayMove(item)));

    private bool MayMove(PlanItem item) =>
        item.PartOfBox is null
        && (scope == FitScope.Everything || (scope != FitScope.Gaps && item.IsFitted) || (scope == FitScope.Boxes && item.IsOfBatch))
        && (item.BoxId is null || !UseBy.Of(stock.BoxOf(item)!, today, stock.Rules).IsOver(today));

    private bool MustNever(EaterDay day, PlanItem item) =>
        !item.IsMealOut && eaters.FirstOrDefault(who => who.Eater.Id == day.EaterId)?.Ways.Forbids(item.Contents(stock)) == true;

    // Two offers may come to the same: two servings of 20 g butter, one of 40 g.
    private static bool RemoveOne(List<FillerOffer> servings, string text)
    {
        var at = servings.FindIndex(serving => string.Equals(serving.Text, text, StringComparison.Ordinal));
        if (at >= 0) servings.RemoveAt(at);
        return at >= 0;
    }

    // Boxes of a batch that keep equally long, by what they weigh; those past their days that nobody knows to be frozen are left out.
    private void OfferBoxes(IReadOnlyList<Box> all)
    {
        var boxes = all.DistinctBy(box => box.Id).Select(box => (Box: box, UseBy: UseBy.Of(box, today, stock.Rules))).ToList();
        LeftOut = [.. boxes.Where(one => one.UseBy.IsOver(today)).Select(one => one.Box)];
        var alike = boxes.Where(one => !one.UseBy.IsOver(today)).GroupBy(one => (Batch: one.Box.Batch.Id, Last: one.UseBy.Freezer));
        var oldestFirst = alike.OrderBy(offer => offer.First().Box.Batch.CookedOn).ThenBy(offer => offer.Key.Batch);
        foreach (var offer in oldestFirst.ThenBy(offer => offer.Key.Last))
        {
            var sizes = offer.Select(one => one.Box).GroupBy(box => Math.Round(box.Weight.Value / 5)).OrderBy(size => size.Key);
            List<List<Box>> bins = [.. sizes.Select(size => size.OrderBy(box => box.Id).ToList())];
            offers.Add(new(offer.Key.Batch, bins, offer.First().Box.Batch.CookedOn, offer.Key.Last, null, null, false));
        }
    }

    // What of an unpacked batch lies on no day, and what the days to be filled give back. Where amounts are open, one still to be cooked
    // may be made up to twice as large.
    private void OfferPortions(IReadOnlyList<UnpackedBatch> unpacked, IReadOnlyList<PlanItem> released, Func<Batch, bool>? amountIsOpen)
    {
        foreach (var one in unpacked.Where(one => one.Whole > Grams.Zero).OrderBy(one => one.Batch.CookedOn).ThenBy(one => one.Batch.Id))
        {
            var from = one.Batch.EatenFrom(today);
            var useBy = UseBy.Of(one.Batch, today, stock.Rules);
            List<List<Box>> sizes = [.. one.ToChooseFrom().Select(size => (List<Box>)[new(one.Batch.Id, one.Batch, size, null)])];
            if (useBy.IsOver(today))
            {
                LeftOut = [.. LeftOut, sizes[0][0]];
                continue;
            }

            var back = released.Where(item => item.Portion?.BatchId == one.Batch.Id).Sum(item => item.Portion!.Weight.Value);
            var isOpen = one.Batch.IsPlanned && amountIsOpen?.Invoke(one.Batch) == true;
            var room = Math.Max(0, (one.Whole.Value * (isOpen ? 2 : 1)) - one.Taken.Value + back);
            offers.Add(new(one.Batch.Id, sizes, from, useBy.Freezer, room, one.Batch, isOpen));
        }
    }

    private FitEater Show(FittedEater who)
    {
        return new(
            who.Eater.Id.ToString(), who.Eater.Name, who.Eater.Aim.Leading,
            [.. Enumerable.Range(0, span).Select(day => Day(who, new EaterDay(who.Eater.Id, start.AddDays(day))))],
            who.Ways.BoxesAlike ?? 99);
    }

    private FitDay Day(FittedEater who, EaterDay where)
    {
        var aim = who.AimOn(where.Day);
        var slots = who.Ways.SlotsOn(where.Day).Count(slot => slot.TakesBox);
        if (!days.Contains(where)) return new FitDay(new Dictionary<Measure, Band>(), null, 0, 0);
        var stays = Stays(where);
        var sums = SumsOf(who, stays, aim);
        var bands = aim.Bands.ToDictionary();

        // What lies there already and a reserve covers is no fault of the day; nothing more is laid past the most.
        if (aim[aim.Leading].Read(sums[aim.Leading], Covered(who, where.Day)).Drawn is { } drawn)
            bands[aim.Leading] = aim[aim.Leading] with { Max = aim[aim.Leading].Max + drawn };
        return new(
            FilledUp(bands.ToDictionary(band => band.Key, band => Narrowed(band.Value, band.Key)), aim.Leading),
            sums.ToDictionary(sum => sum.Key, sum => sum.Value.Known),
            Math.Max(0, slots - stays.Count(DaySlots.TakesTheBox)),
            Math.Min(who.Ways.FillersADay ?? FitDay.ManyServings, FitDay.ManyServings))
        {
            HasFixed = stays.Exists(item => !item.IsSetAside),
            Dishes = [.. stays.Where(item => !item.IsForGuests).Select(DishOf).OfType<string>()],
            ReadBy = bands,
        };
    }

    private string? DishOf(PlanItem item) => stock.BoxOf(item)?.Batch.RecipeName;

    // What of the weekly reserve a day may draw on, once the days that are not fitted have drawn theirs, and those before it.
    private decimal Covered(FittedEater who, DateOnly day)
    {
        if (who.Ways.Reserve is not { } left) return 0;
        var week = KitchenDays.WeekOf(day).ToList();
        left -= week.Where(other => !days.Contains(new(who.Eater.Id, other))).Sum(other => who.Drawn.GetValueOrDefault(other));
        foreach (var earlier in week.Where(other => other < day && days.Contains(new(who.Eater.Id, other))))
        {
            var aim = who.AimOn(earlier);
            var sum = SumsOf(who, Stays(new(who.Eater.Id, earlier)), aim)[aim.Leading];
            left -= aim[aim.Leading].Read(sum, left).Drawn ?? 0;
        }

        return Math.Max(0, left);
    }

    private List<PlanItem> Stays(EaterDay where)
    {
        var released = Released(where).ToHashSet();
        return [.. board[where].Where(item => !released.Contains(item))];
    }

    private IReadOnlyDictionary<Measure, Total> SumsOf(FittedEater who, List<PlanItem> items, DayAim aim) =>
        MeasureTotals.Sum(Holds.Measured(items, i => who.MeasuresOf(items[i], items[i].Contents(stock), aim)), aim.Rule);

    // A budget is there to be eaten: a day of at most 23 points, or at most 1,900 kcal, and no word of more is filled towards that. Net
    // carbs at most 20 g are none.
    private static Dictionary<Measure, Band> FilledUp(Dictionary<Measure, Band> bands, Measure leading)
    {
        var counted = new[] { leading, Measure.Energy, Measure.Points }.Where(measure => measure is Measure.Energy or Measure.Points);
        var budget = counted.Cast<Measure?>().FirstOrDefault(measure => bands.ContainsKey(measure!.Value));
        if (budget is { } filled && bands[filled] is { Min: null, Target: null, Max: { } most })
            bands[filled] = bands[filled] with { Min = 0, Target = most };
        return bands;
    }

    // Whole numbers round each entry: a band wide enough is kept a unit away from its edges, so that the exact sums lie inside too.
    private static Band Narrowed(Band band, Measure measure)
    {
        if (measure is Measure.Points or Measure.Salt or Measure.SaturatedFat) return band;
        var wide = band is { Min: { } min, Max: { } max } ? max - min >= 10 : band.Min is not null || band.Max is not null;
        return wide ? band with { Min = band.Min + 1, Max = band.Max > 10 ? band.Max - 1 : band.Max } : band;
    }

    private FitBatch Show(Offer offer)
    {
        var one = offer.Sizes[0][0];
        var sizes = offer.Sizes.Select(size => Show(size[0], offer.Grams is null ? size.Count : null));
        var first = Math.Clamp(offer.From.DayNumber - start.DayNumber, 0, FitProblem.MostDays);
        var last = Math.Min(FitProblem.MostDays, offer.To.DayNumber - start.DayNumber);
        return new(
            offer.BatchId.ToString(), one.Batch.RecipeName, [.. sizes], offer.Grams, first, last, ForbiddenFor(one.Contents),
            DislikedBy(one.Contents), offer.IsOpen, one.Batch.RecipeName);
    }

    private FitSize Show(Box box, int? count)
    {
        var contents = box.Contents;
        var figures = MeasureTotals.Of(contents, null).ToDictionary(total => total.Key, total => total.Value.Known);
        return new(box.Weight.Value, figures, ForPoints(rule => rule.Of(contents).Known), count, ProteinFor(contents));
    }

    // For those who leave some of its protein out, what they count of it.
    private Dictionary<string, decimal>? ProteinFor(Contents contents)
    {
        if (contents.IncompleteProtein == 0) return null;
        return eaters.Where(who => who.Eater.Aim.LeavesOutIncompleteProtein).ToDictionary(
            IdOf, who => who.Eater.Aim.Count(contents)[Measure.Protein].Known, StringComparer.Ordinal);
    }

    // What something counts for each eater who counts points.
    private Dictionary<string, T> ForPoints<T>(Func<PointsRule, T> of) =>
        eaters.Where(who => who.Eater.Aim.Rule is not null)
            .ToDictionary(IdOf, who => of(who.Eater.Aim.Rule!), StringComparer.Ordinal);

    private static string IdOf(FittedEater who) => who.Eater.Id.ToString();

    private List<string> ForbiddenFor(Contents contents) => [.. eaters.Where(who => who.Ways.Forbids(contents)).Select(IdOf)];

    private List<string> DislikedBy(Contents contents) => [.. eaters.Where(who => who.Ways.Dislikes(contents)).Select(IdOf)];

    private FitFiller Show(FillerOffer offer)
    {
        const int Most = 2;
        var contents = new Contents([offer.Food]);
        var figures = MeasureTotals.Of(contents, null).ToDictionary(total => total.Key, total => total.Value.Known);
        IReadOnlyList<decimal> PointsOf(PointsRule rule) =>
            [.. Enumerable.Range(1, Most).Select(count => rule.Of(contents.Scale(count)).Known)];
        return new(
            offer.Text, offer.Text, figures, ForPoints(PointsOf), Most, ForbiddenFor(contents), DislikedBy(contents),
            ProteinFor(contents));
    }

    // New things go where the day's shares are best met: boxes into slots that take one, each slot one box while there are slots.
    private ImmutableList<PlanItem> InSlots(
        FittedEater who, DateOnly day, IReadOnlyList<PlanItem> stays, IReadOnlyList<PlanItem> laid)
    {
        if (laid.Count == 0) return [.. stays];
        decimal EnergyOf(PlanItem item) => MeasureTotals.Of(item.Contents(stock), who.Eater.Aim.Rule)[Measure.Energy].Known;
        return [.. DaySlots.Order([.. stays, .. DaySlots.Place(stays, laid, who.Ways.SlotsOn(day), EnergyOf)], who.Ways.Slots)];
    }

    // Boxes of a batch by size, or the sizes an unpacked one may be portioned in, with the grams there are of it.
    private sealed record Offer(
        Guid BatchId, List<List<Box>> Sizes, DateOnly From, DateOnly To, decimal? Grams, Batch? Unpacked, bool IsOpen);
}
