using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan;

/// <summary>
/// What lies on a day: a packed box (<see cref="LaidBox"/>), a portion of a batch that is not packed yet (<see cref="Portion"/>), a plain
/// food by weight (<see cref="PlainFood"/>), or a meal out (<see cref="MealOut"/>).
/// </summary>
public abstract record Laid
{
    /// <summary>Whether both are of the same thing, whatever their amounts.</summary>
    public abstract bool IsOfTheSame(Laid other);

    /// <summary>Whether both hold the same: as much of the same thing, at the same figures.</summary>
    public virtual bool HoldsTheSame(Laid other) => Equals(other);
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

    /// <summary>What it contains.</summary>
    /// <param name="stock">The boxes and batches of the plan.</param>
    public Contents Contents(Stock stock)
    {
        ArgumentNullException.ThrowIfNull(stock);
        return stock.BoxOf(this)?.Contents ?? new Contents([Food!]);
    }

    /// <summary>What it is called: the dish, or the plain food as typed.</summary>
    /// <param name="stock">The boxes and batches of the plan.</param>
    public string Name(Stock stock)
    {
        ArgumentNullException.ThrowIfNull(stock);
        return stock.BoxOf(this)?.Batch.RecipeName ?? Text!;
    }

    /// <summary>The same thing in the same state, whoever laid it.</summary>
    public bool Equals(PlanItem? other) =>
        other is not null && Id == other.Id && What == other.What && EatenAt == other.EatenAt && IsLocked == other.IsLocked
        && string.Equals(Slot, other.Slot, StringComparison.Ordinal);

    /// <inheritdoc/>
    public override int GetHashCode() => Id.GetHashCode();
}
