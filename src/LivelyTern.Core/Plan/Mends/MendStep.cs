using System.Globalization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan.Mends;

/// <summary>One step of a mend.</summary>
public abstract record MendStep
{
    /// <summary>Names it: the same step has the same name whenever it is worked out.</summary>
    public string Id =>
        string.Join(':', Named.Prepend(GetType().Name).Select(part => Convert.ToString(part, CultureInfo.InvariantCulture)));

    /// <summary>What tells it from others of its kind.</summary>
    protected abstract IEnumerable<object?> Named { get; }

    /// <summary>What it touches, whatever the amount: an item, a food, a batch.</summary>
    internal abstract object Touches { get; }
}

/// <summary>Takes something off the day.</summary>
/// <param name="Item">What.</param>
/// <param name="Name">What it is called.</param>
public sealed record TakesOff(PlanItem Item, string Name) : MendStep
{
    /// <inheritdoc/>
    protected override IEnumerable<object?> Named => [Item.Id];

    internal override object Touches => Item.Id;
}

/// <summary>Another weight of something that lies there: of a plain food, or of a portion that is not packed yet.</summary>
/// <param name="Item">What.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Weight">Its new weight.</param>
/// <param name="Text">A plain food's new text; null for a portion.</param>
/// <param name="Pieces">A portion's new number of pieces, where it comes in pieces.</param>
public sealed record Weighs(PlanItem Item, string Name, Grams Weight, string? Text, decimal? Pieces = null) : MendStep
{
    /// <inheritdoc/>
    protected override IEnumerable<object?> Named => [Item.Id, Weight.Value];

    internal override object Touches => Item.Id;
}

/// <summary>Adds a plain food.</summary>
/// <param name="Offer">The amount of it.</param>
public sealed record LaysFood(FillerOffer Offer) : MendStep
{
    /// <inheritdoc/>
    protected override IEnumerable<object?> Named => [Offer.Text];

    internal override object Touches => Offer.Food.Food.Id;
}

/// <summary>Adds a box from the shelf, or a portion of a batch that is not packed yet.</summary>
/// <param name="Box">The box; a portion is one under its batch's id.</param>
public sealed record LaysBox(Box Box) : MendStep
{
    /// <inheritdoc/>
    protected override IEnumerable<object?> Named => [Box.Id, Box.Weight.Value];

    internal override object Touches => Box.Batch.Id;
}

/// <summary>Changes places with something on another of the eater's days.</summary>
/// <param name="Item">What lies here.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Other">What lies there.</param>
/// <param name="OtherName">What that is called.</param>
/// <param name="OtherDay">The other day.</param>
public sealed record Swaps(PlanItem Item, string Name, PlanItem Other, string OtherName, DateOnly OtherDay) : MendStep
{
    /// <inheritdoc/>
    protected override IEnumerable<object?> Named => [Item.Id, Other.Id];

    internal override object Touches => (Item.Id, Other.Id);
}

/// <summary>Moves a bound of that one day.</summary>
/// <param name="Measure">The measure.</param>
/// <param name="NewBand">Its band then.</param>
public sealed record MovesBound(Measure Measure, Band NewBand) : MendStep
{
    /// <inheritdoc/>
    protected override IEnumerable<object?> Named => [Measure, NewBand.Min, NewBand.Target, NewBand.Max];

    internal override object Touches => Measure;
}

/// <summary>A few steps that, taken together, bring a day into its bands, or nearer; tried out.</summary>
/// <param name="Steps">The steps, in order.</param>
/// <param name="Change">How much the day changes, measure by measure, in kcal, grams and points.</param>
/// <param name="Size">How large a change it is; small ones come first.</param>
public sealed record Mend(IReadOnlyList<MendStep> Steps, IReadOnlyDictionary<Measure, decimal> Change, decimal Size)
{
    /// <summary>Names it: the same change of the same day has the same id whenever it is worked out.</summary>
    public string Id => string.Join('|', Steps.Select(step => step.Id));

    /// <summary>The same things touched in the same ways, whatever the amounts.</summary>
    internal string Likeness =>
        string.Join('|', Steps.Select(step => $"{step.GetType().Name}:{step.Touches}").Order(StringComparer.Ordinal));

    /// <summary>What kind of change it is: those of its steps.</summary>
    internal string Kind => string.Join('+', Steps.Select(step => step.GetType().Name).Order(StringComparer.Ordinal));
}
