using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Pack.Containers;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;
using LivelyTern.Web.Pack;

namespace LivelyTern.Web.Plan;

/// <summary>What the scale said, and how to divide.</summary>
/// <param name="FullGrams">The full pan; not asked of a dish that is put together from weighed parts.</param>
/// <param name="Boxes">How many boxes; not asked where each is ordered.</param>
/// <param name="PanGrams">The empty pan; 0 where the food itself was weighed.</param>
/// <param name="Pieces">Pieces made, to divide by pieces; null to divide by weight.</param>
/// <param name="Each">Each box in its own way: all portions that lie on days, and any others.</param>
/// <param name="ComponentGrams">What all of one component weighs, to divide by it: then the weights of the boxes are of that.</param>
/// <param name="CupGrams">What a cup of it weighs, where boxes ask for cups and its recipe doesn't say what it fills.</param>
/// <param name="TakesSum">Whether the batch weighs what its boxes have got, whatever the full pan said.</param>
/// <param name="Squares">The pan cut into squares: these are its pieces.</param>
/// <param name="Parts">
/// The parts of a put-together dish, where they are put in one after another; those that are not named get what is planned. Null where it
/// is packed as a whole.
/// </param>
/// <param name="ContainerId">Which of the household's containers its boxes are.</param>
/// <param name="IsByEye">Whether it is divided by eye, no box weighed.</param>
/// <param name="CookId">Whose eye that is.</param>
public sealed record PackRequest(
    decimal FullGrams, int Boxes, decimal PanGrams = 0, int? Pieces = null, IReadOnlyList<PackBoxRequest>? Each = null,
    decimal? ComponentGrams = null, decimal? CupGrams = null, bool TakesSum = false, PackSquares? Squares = null,
    IReadOnlyList<PackPartRequest>? Parts = null, Guid? ContainerId = null, bool IsByEye = false, Guid? CookId = null)
{
    // More than the most boxes of a batch is refused before it is read.
    internal Outcome<PackOrder> Order()
    {
        if (IsByEye && (Pieces is not null || Squares is not null || ComponentGrams is not null || Parts is not null || TakesSum
            || Each?.Any(box => box?.Got is not null) == true))
            return new Problem("eye-weighed", "isByEye", "What was weighed or counted is not divided by eye: choose one of the two.");
        if (Squares is { } cut && new PanSquares(cut.Rows, cut.Columns).Refusal is { } refusal) return refusal;
        var each = Each ?? [];
        if (each.Count > Divide.MostPortions)
            return new Problem("boxes-many", "each", $"Divide into between 1 and {Divide.MostPortions} boxes.");
        for (var i = 0; i < each.Count; i++)
            if (each[i]?.Ways is var ways && (ways > 1 || (ways != 1 && each[i]?.ItemId is null)))
                return new Problem("box-unclear", $"boxes[{i}]", "Say of each box one of: grams, pieces, cups, at most so much, a share.");
        return new PackOrder(new(PanGrams), new(FullGrams), Boxes, Squares is { } squares ? squares.Rows * squares.Columns : Pieces)
        {
            Each = [.. each.Select(box => box.Ordered())],
            Component = ComponentGrams is { } component ? new Grams(component) : null,
            CupWeight = CupGrams is { } cup ? new Grams(cup) : null,
            TakesSum = TakesSum,
            ContainerId = ContainerId,
            IsByEye = IsByEye,
            CookId = CookId,
            Parts = Parts is null ? null : [.. Parts.Select(part => part.Ordered())],
        };
    }
}

/// <summary>A part of a put-together dish as it goes into the boxes.</summary>
/// <param name="BatchId">The batch; null for a plain food.</param>
/// <param name="Line">Which line of the dish a plain food is, from 0; null for a batch.</param>
/// <param name="Compartment">Where it lies: "cup", "beside" for what is added at eating, or a compartment; null for the box itself.</param>
/// <param name="Got">What the scale said that each box has got of it, in grams; null where it is still to be put in.</param>
public sealed record PackPartRequest(
    Guid? BatchId = null, int? Line = null, string? Compartment = null, IReadOnlyList<decimal?>? Got = null)
{
    internal OrderedPart Ordered() => new(
        BatchId, Line, string.IsNullOrWhiteSpace(Compartment) ? null : Compartment.Trim(),
        [.. (Got ?? []).Select(got => got is { } grams ? new Grams(grams) : (Grams?)null)]);
}

/// <summary>A pan cut into squares.</summary>
public sealed record PackSquares(int Rows, int Columns);

/// <summary>What a box is to hold: one of the ways, or for a portion on a day none: as it is planned.</summary>
/// <param name="ItemId">The portion on a day that becomes it.</param>
/// <param name="EaterId">Whose it is, where it is of no day.</param>
/// <param name="Place">Where it goes; the fridge where it isn't said.</param>
/// <param name="Grams">A weight of its own.</param>
/// <param name="Pieces">So many pieces.</param>
/// <param name="Cups">So many measuring cups.</param>
/// <param name="AtMost">The largest that is still at most so much.</param>
/// <param name="Share">A share of what the others leave.</param>
/// <param name="LikesEdge">Whether its squares are to have an edge.</param>
/// <param name="Got">What the scale said that is in it.</param>
public sealed record PackBoxRequest(
    Guid? ItemId = null, Guid? EaterId = null, BoxPlace Place = BoxPlace.Fridge, decimal? Grams = null, decimal? Pieces = null,
    decimal? Cups = null, CalcAtMost? AtMost = null, decimal? Share = null, bool LikesEdge = false, decimal? Got = null)
{
    internal int Ways => new object?[] { Grams, Pieces, Cups, AtMost, Share }.Count(way => way is not null);

    internal OrderedBox Ordered()
    {
        BoxWish? wish = this switch
        {
            { Grams: { } grams } => new WeightWish(new Grams(grams).ToMilligram()),
            { Pieces: { } count } => new PiecesWish(count),
            { Cups: { } cups } => new VolumeWish(cups * Unit.Cup.InBase),
            { AtMost: { } budget } => new AtMostWish(budget.Measure, budget.Value),
            { Share: { } share } => new ShareWish(share),
            _ => null,
        };
        return new(wish, ItemId, ItemId is null ? EaterId : null, Place, Got is { } got ? new Grams(got) : null);
    }
}

/// <summary>What packing as asked would give; nothing stored.</summary>
/// <param name="CookedGrams">The food in the pan.</param>
/// <param name="KcalPerGram">Energy of one gram of it.</param>
/// <param name="Yield">Cooked weight by raw weight.</param>
/// <param name="Usual">The yield of the batches before it; null where there is none.</param>
/// <param name="Boxes">Each box.</param>
/// <param name="OverPieces">Pieces that do not go round.</param>
/// <param name="OverGrams">Grams that go into no box, where it is divided as planned or each in its own way.</param>
/// <param name="MissingGrams">Grams on the scale that the boxes hold and the batch does not.</param>
/// <param name="Sum">Grams of all boxes together.</param>
/// <param name="Fullest">Grams of the fullest box.</param>
/// <param name="Figures">What that holds.</param>
/// <param name="Parts">Of a put-together dish, grams of each part in the fullest box, by its batch.</param>
/// <param name="Squares">The box of each square of the pan, row by row, from 0; null for one that goes into none.</param>
/// <param name="PartByPart">Its parts over the boxes, where they are put in one after another; null for any other.</param>
/// <param name="Apart">What lies together in a box, and must not.</param>
public sealed record PackPreview(
    decimal CookedGrams, Figure KcalPerGram, decimal Yield, UsualYieldView? Usual, IReadOnlyList<BoxPreview> Boxes, decimal OverPieces,
    decimal OverGrams, decimal MissingGrams, decimal Sum, decimal Fullest, IReadOnlyDictionary<Measure, Figure> Figures,
    IReadOnlyDictionary<Guid, decimal> Parts, IReadOnlyList<int?>? Squares, IReadOnlyList<PartPreview>? PartByPart,
    IReadOnlyList<SoftBeside> Apart);

/// <summary>A part of a put-together dish over its boxes.</summary>
/// <param name="BatchId">The batch; null for a plain food.</param>
/// <param name="Line">Which line of the dish a plain food is; null for a batch.</param>
/// <param name="Name">What it is.</param>
/// <param name="Asked">What all boxes together are to get of it, in grams.</param>
/// <param name="There">What is in its pan; null where more can be fetched.</param>
/// <param name="Missing">Grams of it that the boxes hold and that are not there.</param>
/// <param name="Left">Grams that stay in its pan; null where more can be fetched.</param>
/// <param name="Boxes">Each box.</param>
public sealed record PartPreview(
    Guid? BatchId, int? Line, string Name, decimal Asked, decimal? There, decimal Missing, decimal? Left,
    IReadOnlyList<PartInBoxPreview> Boxes);

/// <summary>A part in a box as it would be.</summary>
/// <param name="Target">What the box was to get of it, in grams.</param>
/// <param name="Grams">What it holds of it, or is to get now.</param>
/// <param name="Mark">How far from its target it may be to be at the mark.</param>
/// <param name="Pieces">Pieces that is about, where it comes in pieces.</param>
public sealed record PartInBoxPreview(decimal Target, decimal Grams, decimal Mark, decimal? Pieces);

/// <summary>How a batch's yield stands to those of the batches before it.</summary>
/// <param name="Mean">Their mean, cooked by raw weight.</param>
/// <param name="Spread">Their standard deviation.</param>
/// <param name="Batches">How many they are.</param>
/// <param name="Says">What that says of this one.</param>
public sealed record UsualYieldView(decimal Mean, decimal Spread, int Batches, YieldSays Says);

/// <summary>A box as it would be.</summary>
/// <param name="Grams">Cooked grams in it.</param>
/// <param name="OnScale">What of it is on the scale: all of it, or the component that it is measured out by.</param>
/// <param name="Target">What was to be on the scale before the first box was filled.</param>
/// <param name="MarkBelow">How far below its target it may be to be at the mark.</param>
/// <param name="MarkAbove">How far above; 0 where its target is the most of a budget.</param>
/// <param name="Pieces">Pieces in it, where they are counted.</param>
/// <param name="Volume">What it fills, where that is known: "1 1/3 cups".</param>
/// <param name="Figures">What it holds, as whose it is counts.</param>
/// <param name="FromTarget">What that is more or less than its target would hold; null where it is its target.</param>
/// <param name="Day">What it does to the day it is for.</param>
/// <param name="Fills">How its compartments stand to what goes into them; none where its container is not known, or not measured.</param>
/// <param name="GiveOrTake">Divided by eye, how far off its energy is two times in three, in kcal; null where it is weighed.</param>
public sealed record BoxPreview(
    decimal Grams, decimal OnScale, decimal Target, decimal MarkBelow, decimal MarkAbove, decimal? Pieces, string? Volume,
    IReadOnlyDictionary<Measure, Figure> Figures, IReadOnlyDictionary<Measure, Figure>? FromTarget, DayWithBox? Day,
    IReadOnlyList<CompartmentFill> Fills, decimal? GiveOrTake);

/// <summary>A day with a box on it as it would be.</summary>
/// <param name="EaterId">Whose.</param>
/// <param name="Day">Which.</param>
/// <param name="Verdict">What that day is then.</param>
/// <param name="Leading">The measure it is laid along.</param>
/// <param name="Sum">What it sums to then.</param>
/// <param name="Band">Where that lies; null where no band is set.</param>
public sealed record DayWithBox(Guid EaterId, DateOnly Day, DayVerdict Verdict, Measure Leading, Figure Sum, BandReading? Band);
