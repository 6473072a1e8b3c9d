using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan.Mends;

/// <summary>The small changes that a day can take, and the day after some of them.</summary>
internal static class DayChanges
{
    private const decimal WeighingStep = 5m, PortionStep = 10m, MoreOfOne = 50m;
    private const int MostSteps = 200, MostOfOneThing = 3;

    // How much of a change each is, beside what it adds: another amount is little, something else in a box's place is much.
    private const double OffEffort = 30, WeighEffort = 0, SizeEffort = 5, FoodEffort = 10, BoxEffort = 25, OtherBoxEffort = 40;
    private const double InsteadEffort = 45, PerKcal = 0.1, PerServingMore = 60, PerOtherSize = 120;

    /// <summary>The bounds of the measures; the leading one may draw on what no other day draws of the reserve.</summary>
    public static DayBounds Bounds(DayOnPlan day, IReadOnlyList<Measure> measures)
    {
        var spare = day.Who.SpareReserveOn(day.Where.Day);
        decimal? Most(Measure measure) => day.Aim[measure].Max + (measure == day.Aim.Leading ? spare : 0);
        return new(
            [.. measures.Select(measure => (double?)day.Aim[measure].Min ?? double.NegativeInfinity)],
            [.. measures.Select(measure => (double?)Most(measure) ?? double.PositiveInfinity)]);
    }

    /// <summary>All of them.</summary>
    public static IReadOnlyList<SmallChange> All(DayOnPlan day, IReadOnlyList<Measure> measures)
    {
        var made = new Maker(day, measures);
        var ofItems = day.Free.SelectMany(i => Off(made, i).Concat(OtherWeights(made, i)).Concat(InPlaceOf(made, i)));
        return [.. ofItems, .. Boxes(made), .. Foods(made, _ => true)];
    }

    /// <summary>Other weights of the foods that a fit laid, and more of them beside.</summary>
    /// <param name="day">The day.</param>
    /// <param name="measures">The measures of the bounds.</param>
    public static IReadOnlyList<SmallChange> OfFoods(DayOnPlan day, IReadOnlyList<Measure> measures)
    {
        var made = new Maker(day, measures);
        var fitted = day.Free.Where(i => day.Items[i].IsFitted && day.Items[i].Food is not null).ToList();

        // More of what the fit laid is another amount of it, and no second heap beside the first.
        var lying = fitted.Select(i => day.Items[i].Food!.Food.Id).ToHashSet(StringComparer.Ordinal);
        var others = Foods(made, offer => !lying.Contains(offer.Food.Food.Id));
        return [.. fitted.SelectMany(i => Off(made, i).Concat(OtherWeights(made, i))), .. others];
    }

    /// <summary>The day after some steps, added up anew from the exact figures.</summary>
    public static DayReading After(DayOnPlan day, IReadOnlyList<MendStep> steps)
    {
        var off = steps.OfType<TakesOff>().Select(step => step.Item.Id).ToHashSet();
        var weights = steps.OfType<Weighs>().ToDictionary(step => step.Item.Id, step => step.Weight);
        Contents Holds(int i) => weights.TryGetValue(day.Items[i].Id, out var weight)
            ? day.Contents(i).Scale(weight / WeightOf(day, i))
            : day.Contents(i);
        var stays = Enumerable.Range(0, day.Items.Count).Where(i => !off.Contains(day.Items[i].Id)).ToList();
        var more = steps.Select(ContentsOf).OfType<Contents>().ToList();
        IReadOnlyDictionary<Measure, Total> MeasuresOf(int i) =>
            weights.ContainsKey(day.Items[i].Id) ? day.Aim.Count(Holds(i)) : day.Measures(i);
        return DayReading.Of(
            [.. stays.Select(Holds), .. more], [.. stays.Select(MeasuresOf), .. more.Select(day.Aim.Count)], day.Aim,
            day.Who.SpareReserveOn(day.Where.Day));
    }

    private static Contents? ContentsOf(MendStep step) => step switch
    {
        LaysFood lays => new Contents([lays.Offer.Food]),
        LaysBox lays => lays.Box.Contents,
        _ => null,
    };

    private static Grams WeightOf(DayOnPlan day, int at) => day.Items[at].Portion?.Weight ?? day.Items[at].Food!.Weight;

    private static IEnumerable<SmallChange> Off(Maker made, int at) =>
        [made.Change(at, (Contents?)null, OffEffort, new TakesOff(made.Day.Items[at], made.Name(at)))];

    // A plain food that is weighed in steps of 5 g, from half to double or 50 g more; one that is counted by one, to double or three; a
    // portion that is not packed yet in steps of 10 g, or by the piece or half piece, from half to double, as far as there is enough of it.
    private static IEnumerable<SmallChange> OtherWeights(Maker made, int at)
    {
        var (day, item) = (made.Day, made.Day.Items[at]);
        if (item.Portion is null && item.Food is null) return [];
        var grams = WeightOf(day, at).Value;
        if (grams <= 0) return [];
        var batch = item.Portion is { } of ? day.Stock.Unpacked[of.BatchId] : null;
        SmallChange To(decimal weight, string? text, double effort) => made.Change(
            at, day.Contents(at).Scale(weight / grams), effort,
            new Weighs(item, made.Name(at), new Grams(weight), text, batch?.PiecesIn(new(weight))));
        if (item.Portion is { } portion)
        {
            var most = Math.Min(grams * 2, grams + Math.Max(0, day.Left.GetValueOrDefault(portion.BatchId).Value));
            var step = batch?.WeightOf(batch.PieceStep) is { Value: > 0 } piece ? piece.Value : PortionStep;
            return Steps(grams, Math.Max(step, grams / 2), most, step).Select(weight => To(weight, null, SizeEffort));
        }

        var offer = new FillerOffer(item.Text!, item.Food!);
        double Effort(decimal weight) => WeighEffort + (PerServingMore * (double)Math.Max(0, (weight / grams) - 1));
        var counted = offer.Count is { } own
            ? Enumerable.Range(1, Math.Max(MostOfOneThing, 2 * own)).Where(count => count != own).Select(offer.Counting)
            : Enumerable.Range(2, MostOfOneThing - 1).Select(offer.Times);
        if (!offer.IsWeighed)
            return counted.Select(more => To(more.Food.Weight.Value, more.Text, FoodEffort + Effort(more.Food.Weight.Value)));
        var weights = Steps(grams, grams / 2, Math.Max(grams * 2, grams + MoreOfOne), WeighingStep);
        return weights.Select(weight => To(weight, offer.Weighing(weight).Text, Effort(weight)));
    }

    // Of very much, or of very small pieces, several steps at once: no more than so many are tried.
    private static IEnumerable<decimal> Steps(decimal from, decimal least, decimal most, decimal smallest)
    {
        var step = smallest * Math.Max(1, Math.Ceiling(from / smallest / MostSteps));
        for (var by = step; from - by >= least || from + by <= most; by += step)
        {
            if (from - by >= least) yield return from - by;
            if (from + by <= most) yield return from + by;
        }
    }

    // A box in a box's place, or a plain food in place of anything.
    private static IEnumerable<SmallChange> InPlaceOf(Maker made, int at)
    {
        var off = new TakesOff(made.Day.Items[at], made.Name(at));
        var boxes = made.Day.Items[at].IsOfBatch ? made.Shelf : [];
        return boxes.Select(one => made.Change(at, one.Counted, OtherBoxEffort, off, new LaysBox(one.Box)))
            .Concat(made.Fillers.Select(one => made.Change(at, one.Counted, InsteadEffort, off, new LaysFood(one.Offer))));
    }

    private static IEnumerable<SmallChange> Boxes(Maker made)
    {
        var usual = made.Day.Shelf.Where(DayOnPlan.IsPortion).ToDictionary(box => box.Id, box => box.Weight);
        double Unusual(Box box) => usual.TryGetValue(box.Id, out var own) ? Math.Abs((double)(box.Weight / own) - 1) : 0;
        return made.Day.Shelf.Concat(made.Day.OtherSizes).Select(box =>
            made.Change(null, box.Contents, BoxEffort + (PerOtherSize * Unusual(box)), new LaysBox(box)));
    }

    private static IEnumerable<SmallChange> Foods(Maker made, Func<FillerOffer, bool> isOffered) =>
        from offer in made.Day.Fillers.Where(isOffered)
        from amount in offer.Amounts()
        let more = (double)Math.Max(0, (amount.Food.Weight / offer.Food.Weight) - 1)
        select made.Change(null, new Contents([amount.Food]), FoodEffort + (PerServingMore * more), new LaysFood(amount));

    private sealed class Maker(DayOnPlan day, IReadOnlyList<Measure> measures)
    {
        public DayOnPlan Day => day;

        // What can stand in the place of any item is counted once.
        public IReadOnlyList<(Box Box, IReadOnlyDictionary<Measure, Total> Counted)> Shelf { get; } =
            [.. day.Shelf.Select(box => (box, day.Aim.Count(box.Contents)))];

        public IReadOnlyList<(FillerOffer Offer, IReadOnlyDictionary<Measure, Total> Counted)> Fillers { get; } =
            [.. day.Fillers.Select(offer => (offer, day.Aim.Count(new Contents([offer.Food]))))];

        public string Name(int at) => day.Items[at].Name(day.Stock);

        // Something on the day becomes something else; null for nothing.
        public SmallChange Change(int? at, Contents? to, double effort, params MendStep[] steps) =>
            Change(at, to is null ? null : day.Aim.Count(to), effort, steps);

        public SmallChange Change(int? at, IReadOnlyDictionary<Measure, Total>? counted, double effort, params MendStep[] steps)
        {
            var from = at is { } place ? day.Measures(place) : null;
            double Adds(Measure measure) => (double)((counted?[measure].Known ?? 0) - (from?[measure].Known ?? 0));
            var things = steps.Select(step => step.Touches).Distinct().ToList();
            return new(things, [.. measures.Select(Adds)], effort + (PerKcal * Math.Abs(Adds(Measure.Energy))), steps);
        }
    }
}
