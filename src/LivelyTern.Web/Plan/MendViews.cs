using LivelyTern.Core.Aim;
using LivelyTern.Core.Plan.Mends;

namespace LivelyTern.Web.Plan;

/// <summary>What a step of a mend does.</summary>
public enum MendStepKind
{
    /// <summary>Takes something off the day.</summary>
    TakeOff,

    /// <summary>Another weight of something that lies there.</summary>
    Weigh,

    /// <summary>Adds a plain food.</summary>
    LayFood,

    /// <summary>Adds a box, or a portion of a batch that is not packed yet.</summary>
    LayBox,

    /// <summary>Changes places with something on another of the eater's days.</summary>
    Swap,

    /// <summary>Moves a bound of that one day.</summary>
    MoveBound,
}

/// <summary>One step of a mend, as shown.</summary>
/// <param name="Kind">What it does.</param>
/// <param name="Name">What is taken off, weighed, laid or swapped.</param>
/// <param name="ItemId">The item on the day, where it concerns one.</param>
/// <param name="Grams">The new weight; of a portion that is laid, its weight.</param>
/// <param name="Pieces">The same in pieces, where it comes in pieces.</param>
/// <param name="OtherName">What it changes places with; of a plain food that is weighed otherwise, its new text.</param>
/// <param name="OtherDay">The day of that.</param>
/// <param name="Bound">The measure whose bound moves.</param>
/// <param name="NewBand">Its band then, for this day.</param>
public sealed record MendStepView(
    MendStepKind Kind, string Name, Guid? ItemId = null, decimal? Grams = null, decimal? Pieces = null, string? OtherName = null,
    DateOnly? OtherDay = null, Measure? Bound = null, Band? NewBand = null)
{
    /// <summary>A step as shown.</summary>
    public static MendStepView Of(MendStep step) => step switch
    {
        TakesOff off => new(MendStepKind.TakeOff, off.Name, off.Item.Id),
        Weighs weighs => new(
            MendStepKind.Weigh, weighs.Name, weighs.Item.Id, weighs.Weight.Value, weighs.Pieces, weighs.Text),
        LaysFood lays => new(MendStepKind.LayFood, lays.Offer.Text),
        LaysBox { Box: var box } => new(
            MendStepKind.LayBox, box.Batch.RecipeName, Grams: box.Weight.Value, Pieces: box.Pieces ?? box.Batch.PiecesIn(box.Weight)),
        Swaps swaps => new(MendStepKind.Swap, swaps.Name, swaps.Item.Id, OtherName: swaps.OtherName, OtherDay: swaps.OtherDay),
        MovesBound moves => new(MendStepKind.MoveBound, "", Bound: moves.Measure, NewBand: moves.NewBand),
        _ => throw new ArgumentOutOfRangeException(nameof(step), step, "A step of no known kind."),
    };
}

/// <summary>A few steps that bring a day into its bands, or nearer.</summary>
/// <param name="Id">Names it.</param>
/// <param name="Steps">The steps, in order.</param>
/// <param name="Change">How much the day changes, measure by measure.</param>
public sealed record MendView(string Id, IReadOnlyList<MendStepView> Steps, IReadOnlyDictionary<Measure, decimal> Change)
{
    /// <summary>A mend as shown.</summary>
    public static MendView Of(Mend mend)
    {
        ArgumentNullException.ThrowIfNull(mend);
        return new(mend.Id, [.. mend.Steps.Select(MendStepView.Of)], mend.Change);
    }
}

/// <summary>The nearest that was found where nothing brings a day in.</summary>
/// <param name="Mend">The change.</param>
/// <param name="After">Where each sum of the day lies with it.</param>
public sealed record NearestView(MendView Mend, IReadOnlyDictionary<Measure, BandReading> After);
