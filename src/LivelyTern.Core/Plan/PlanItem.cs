using System.Globalization;
using System.Text.Json;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan;

/// <summary>
/// What lies on a day: a packed box (<see cref="LaidBox"/>), a portion of a batch that is not packed yet (<see cref="Portion"/>), a plain
/// food by weight (<see cref="PlainFood"/>), a meal out (<see cref="MealOut"/>), or an amount that is kept free (<see cref="Hold"/>).
/// </summary>
public abstract record Laid
{
    /// <summary>Whether both are of the same thing, whatever their amounts.</summary>
    public abstract bool IsOfTheSame(Laid other);

    /// <summary>Whether both hold the same: as much of the same thing, at the same figures.</summary>
    public virtual bool HoldsTheSame(Laid other) => Equals(other);

    /// <summary>
    /// All that it is told apart by, in one line: two are equal where these are. The log knows days by it (<see cref="DayDifference"/>):
    /// written otherwise, steps that were made before could no longer be undone.
    /// </summary>
    internal abstract string Mark { get; }

    /// <summary>A line of values, whatever zeros a figure ends with.</summary>
    private protected static string Line(params ReadOnlySpan<object?> values)
    {
        var parts = new string[values.Length];
        for (var i = 0; i < parts.Length; i++)
        {
            parts[i] = values[i] is decimal figure
                ? figure.ToString("0.############################", CultureInfo.InvariantCulture)
                : JsonSerializer.Serialize(values[i]?.ToString());
        }

        return string.Join(' ', parts);
    }
}

/// <summary>A packed box, or some of it.</summary>
/// <param name="BoxId">The box.</param>
/// <param name="Part">Grams of it, to the milligram; null for all of it.</param>
public sealed record LaidBox(Guid BoxId, Grams? Part = null) : Laid
{
    /// <summary>Grams of it, to the milligram; null for all of it.</summary>
    public Grams? Part { get; init; } = Part?.ToMilligram();

    /// <summary>A box as it is offered: all of it, or what is left of it.</summary>
    public static LaidBox Of(Box box)
    {
        ArgumentNullException.ThrowIfNull(box);
        return new(box.Id, box.IsPart ? box.Weight : null);
    }

    /// <inheritdoc/>
    public override bool IsOfTheSame(Laid other) => other is LaidBox box && box.BoxId == BoxId;

    /// <inheritdoc/>
    internal override string Mark => Line("box", BoxId, Part?.Value);
}

/// <summary>A weight of a batch that is not packed yet; packed, it becomes a box.</summary>
/// <param name="BatchId">The batch.</param>
/// <param name="Weight">Cooked grams, to the milligram.</param>
public sealed record Portion(Guid BatchId, Grams Weight) : Laid
{
    /// <summary>Cooked grams, to the milligram.</summary>
    public Grams Weight { get; init; } = Weight.ToMilligram();

    /// <summary>Why a portion can't weigh this; null where it can.</summary>
    public static Problem? ProblemOf(Grams weight) =>
        weight.Value is <= 0 or > 10_000m ? new("portion-absurd", "grams", "A portion weighs more than 0 g and up to 10 kg.") : null;

    /// <inheritdoc/>
    public override bool IsOfTheSame(Laid other) => other is Portion portion && portion.BatchId == BatchId;

    /// <inheritdoc/>
    internal override string Mark => Line("portion", BatchId, Weight.Value);
}

/// <summary>A plain food by weight.</summary>
/// <param name="Text">As it was typed.</param>
/// <param name="Food">The food and its weight.</param>
public sealed record PlainFood(string Text, Ingredient Food) : Laid
{
    /// <inheritdoc/>
    public override bool IsOfTheSame(Laid other) =>
        other is PlainFood plain && string.Equals(plain.Food.Food.Id, Food.Food.Id, StringComparison.Ordinal);

    /// <inheritdoc/>
    public override bool HoldsTheSame(Laid other) => IsOfTheSame(other) && ((PlainFood)other).Food.Weight == Food.Weight;

    /// <summary>The same text, food and weight; a food is compared by its id.</summary>
    public bool Equals(PlainFood? other) =>
        other is not null && IsOfTheSame(other) && other.Food.Weight == Food.Weight
        && string.Equals(other.Text, Text, StringComparison.Ordinal);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Text, Food.Weight);

    /// <inheritdoc/>
    internal override string Mark => Line("food", Text, Food.Food.Id, Food.Weight.Value);
}

/// <summary>An amount of a measure that is kept free: "30 g of fat for the evening". What lies in its slot takes from it.</summary>
/// <param name="Measure">The measure.</param>
/// <param name="Amount">How much, in kcal, grams or points.</param>
public sealed record Hold(Measure Measure, decimal Amount) : Laid
{
    private const decimal Most = 20_000m;

    /// <summary>Why so much can't be kept free; null where it can.</summary>
    public static Problem? ProblemOf(decimal amount) =>
        amount is <= 0 or > Most ? new("hold-absurd", "amount", "Keep more than 0 and up to 20,000 free.") : null;

    /// <inheritdoc/>
    public override bool IsOfTheSame(Laid other) => other is Hold hold && hold.Measure == Measure;

    /// <inheritdoc/>
    internal override string Mark => Line("hold", Measure, Amount);
}

/// <summary>Something laid on a day.</summary>
/// <param name="Id">Stable identity.</param>
/// <param name="What">What it is.</param>
/// <param name="EatenAt">When it was eaten, in UTC; null while it is planned.</param>
public sealed record PlanItem(Guid Id, Laid What, DateTimeOffset? EatenAt = null)
{
    /// <summary>The slot of the day it is for, by name; null where none was chosen.</summary>
    public string? Slot { get; init; }

    /// <summary>Whether it stays where it is when days are fitted.</summary>
    public bool IsLocked { get; init; }

    /// <summary>Whether a fit laid it: another fit may take it away again.</summary>
    public bool IsFitted { get; init; }

    /// <summary>Whether it is for guests: then it counts nothing for whose day it lies on.</summary>
    public bool IsForGuests { get; init; }

    /// <summary>The amount that it keeps free; null for all else.</summary>
    public Hold? Hold => What as Hold;

    /// <summary>The box it is; null for all else.</summary>
    public Guid? BoxId => (What as LaidBox)?.BoxId;

    /// <summary>How much of its box it is, in grams; null for all of it, and for what is no box.</summary>
    public Grams? PartOfBox => (What as LaidBox)?.Part;

    /// <summary>The portion it is; null for all else.</summary>
    public Portion? Portion => What as Portion;

    /// <summary>The food and weight of a plain food or a meal out; null for what is of a batch.</summary>
    public Ingredient? Food => What switch { PlainFood plain => plain.Food, MealOut meal => meal.Food, _ => null };

    /// <summary>A plain food or a meal out as it was typed; null for what is of a batch.</summary>
    public string? Text => What switch { PlainFood plain => plain.Text, MealOut meal => meal.Name, _ => null };

    /// <summary>For a meal out: how far its energy may lie from what was entered, in kcal either way; null for all else.</summary>
    public decimal? GiveOrTake => (What as MealOut)?.GiveOrTake;

    /// <summary>Whether it is of a batch: a box, or a portion that will be one.</summary>
    public bool IsOfBatch => What is LaidBox or Plan.Portion;

    /// <summary>Whether it is a meal out, entered ahead.</summary>
    public bool IsMealOut => What is MealOut;

    /// <summary>
    /// Whether both are of the same thing, whatever their amounts: the same box, a portion of the same batch, the same food.
    /// </summary>
    public bool IsOfTheSame(PlanItem other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return What.IsOfTheSame(other.What);
    }

    /// <summary>Whether a hand decided that it lies there and nowhere else: no fit and no mend touches it.</summary>
    public bool IsSettled => EatenAt is not null || IsLocked || IsMealOut || IsSetAside;

    /// <summary>Whether its eater gets nothing of it: it is for guests, or only kept free. A day with nothing else is not filled.</summary>
    public bool IsSetAside => IsForGuests || What is Plan.Hold;

    /// <summary>What its eater gets of it: nothing of what is for guests, or only kept free.</summary>
    /// <param name="stock">The boxes and batches of the plan.</param>
    public Contents Contents(Stock stock)
    {
        ArgumentNullException.ThrowIfNull(stock);
        if (IsSetAside) return Foods.Contents.Nothing;
        return stock.BoxOf(this)?.Contents ?? new Contents([Food!]);
    }

    /// <summary>What it is called: the dish, the plain food as typed, or that it is kept free.</summary>
    /// <param name="stock">The boxes and batches of the plan.</param>
    public string Name(Stock stock)
    {
        ArgumentNullException.ThrowIfNull(stock);
        return stock.BoxOf(this)?.Batch.RecipeName ?? Text ?? "kept free";
    }

    /// <summary>The same thing in the same state, whoever laid it.</summary>
    public bool Equals(PlanItem? other) =>
        other is not null && Id == other.Id && What == other.What && EatenAt == other.EatenAt && IsLocked == other.IsLocked
        && IsForGuests == other.IsForGuests && string.Equals(Slot, other.Slot, StringComparison.Ordinal);

    /// <inheritdoc/>
    public override int GetHashCode() => Id.GetHashCode();

    /// <summary>All that it is told apart by, in one line: two are equal where these are.</summary>
    internal string Mark =>
        string.Create(CultureInfo.InvariantCulture, $"{Id} {EatenAt?.UtcTicks} {IsLocked} {IsForGuests} ")
        + JsonSerializer.Serialize(Slot) + ' ' + What.Mark;
}
