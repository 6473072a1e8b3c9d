using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Data;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>A food of the kitchen: built in, the cook's own, or taken from a library because something was written with it.</summary>
public sealed class FoodRow : IVersioned
{
    public required string Id { get; set; }

    /// <summary>The food with its own measures, as JSON; what was weighed at home is in <see cref="WeighedMeasures"/>.</summary>
    public required Food Food { get; set; }

    public List<WeighedMeasureRow> WeighedMeasures { get; set; } = [];

    /// <summary>The day it was last written into something, to the day.</summary>
    public DateTimeOffset? UsedAt { get; set; }

    public DateTimeOffset? ArchivedAt { get; set; }

    public int Version { get; set; } = 1;
}

/// <summary>The food the cook last chose for some words.</summary>
public sealed class FoodChoiceRow
{
    /// <summary>The telling words, <see cref="FoodWords.Key"/>.</summary>
    public required string Key { get; set; }

    public required string FoodId { get; set; }

    public DateTimeOffset ChosenAt { get; set; }
}

/// <summary>A library of foods, imported as one and undone as one.</summary>
public sealed class LibraryRow
{
    public int Id { get; set; }

    public required string Name { get; set; }

    public required string Source { get; set; }

    public DateTimeOffset ImportedAt { get; set; }

    /// <summary>False while rows are still written: then nothing of it is found.</summary>
    public bool IsWhole { get; set; }

    public long Taken { get; set; }

    public long Refused { get; set; }

    public long Doubtful { get; set; }
}

/// <summary>
/// A food of a library. Numbers are per 100 g, kcal and grams; as REAL they are exact to 15 digits, more than any table has.
/// </summary>
public sealed class LibraryFoodRow
{
    public long Id { get; set; }

    public int LibraryId { get; set; }

    public required string Code { get; set; }

    public required string Name { get; set; }

    public FoodGroup Group { get; set; }

    public CarbohydrateConvention Convention { get; set; }

    public double? Energy { get; set; }

    public double? Protein { get; set; }

    public double? Fat { get; set; }

    public double? SaturatedFat { get; set; }

    public double? Carbohydrate { get; set; }

    public double? Sugars { get; set; }

    public double? Fibre { get; set; }

    public double? Salt { get; set; }

    public double? Polyols { get; set; }

    public double? Alcohol { get; set; }

    /// <summary>"cup=240;tbsp=15", in grams.</summary>
    public string? Measures { get; set; }

    public string? Gtin { get; set; }

    /// <summary>Whether its figures look wrong.</summary>
    public bool IsDoubtful { get; set; }
}

/// <summary>A household measure that the cook weighed once.</summary>
public sealed class WeighedMeasureRow
{
    public int Id { get; set; }

    public required string FoodId { get; set; }

    public required string Name { get; set; }

    public decimal Grams { get; set; }

    public DateTimeOffset WeighedAt { get; set; }
}

public sealed class RecipeRow : IVersioned
{
    public Guid Id { get; set; }

    public required string Name { get; set; }

    public required string Letters { get; set; }

    public int Tint { get; set; }

    public int Portions { get; set; }

    public DateTimeOffset ChangedAt { get; set; }

    public DateTimeOffset? ArchivedAt { get; set; }

    public int Version { get; set; } = 1;

    public List<RecipeLineRow> Lines { get; set; } = [];

    public int? Pieces { get; set; }

    public decimal? CookedGrams { get; set; }

    public decimal? VolumeMl { get; set; }

    public Pan? Pan { get; set; }

    public IReadOnlyList<RecipeStep>? Steps { get; set; }

    /// <summary>The recipe this is a variant of; its own lines are then none, and <see cref="Changes"/> says what differs.</summary>
    public Guid? BaseId { get; set; }

    public IReadOnlyList<VariantChange>? Changes { get; set; }
}

/// <summary>A saved version of a recipe, with what a portion held then.</summary>
public sealed class RecipeVersionRow
{
    public int Id { get; set; }

    public Guid RecipeId { get; set; }

    public int Version { get; set; }

    public DateTimeOffset SavedAt { get; set; }

    public required WrittenRecipe Written { get; set; }

    public required IReadOnlyDictionary<Measure, Total> Portion { get; set; }
}

public sealed class RecipeLineRow
{
    public int Id { get; set; }

    public Guid RecipeId { get; set; }

    public int Position { get; set; }

    public required string Text { get; set; }

    /// <summary>The food the cook chose for it, or null where its words say enough.</summary>
    public string? FoodId { get; set; }

    public RecipePart Part { get; set; }

    public bool IsTakenOut { get; set; }

    /// <summary>Names the line through versions and in variants.</summary>
    public string Key { get; set; } = "";
}

public sealed class BatchRow : IVersioned
{
    public Guid Id { get; set; }

    public Guid RecipeId { get; set; }

    public required string RecipeName { get; set; }

    public required string Letters { get; set; }

    public int Tint { get; set; }

    /// <summary>The day it was cooked, or is to be.</summary>
    public DateOnly CookedOn { get; set; }

    /// <summary>
    /// Whether it is still to be cooked: its contents then follow the recipe, and <see cref="Contents"/> is how they stood last.
    /// </summary>
    public bool IsAhead { get; set; }

    public int Portions { get; set; }

    /// <summary>What went in, with the figures the foods had then.</summary>
    public required Contents Contents { get; set; }

    public decimal? PanGrams { get; set; }

    public decimal? FullGrams { get; set; }

    public int Version { get; set; } = 1;

    public List<BoxRow> Boxes { get; set; } = [];
}

public sealed class BoxRow
{
    public Guid Id { get; set; }

    public Guid BatchId { get; set; }

    public BatchRow Batch { get; set; } = null!;

    /// <summary>Its place in the row of boxes, from 1.</summary>
    public int Number { get; set; }

    public decimal Grams { get; set; }

    public int? Pieces { get; set; }
}

public sealed class PlanItemRow
{
    public Guid Id { get; set; }

    public Guid EaterId { get; set; }

    public DateOnly Day { get; set; }

    public int Position { get; set; }

    public Guid? BoxId { get; set; }

    /// <summary>The batch of a portion that is not packed yet, with <see cref="Grams"/>.</summary>
    public Guid? BatchId { get; set; }

    /// <summary>Cooked grams of that portion.</summary>
    public decimal? Grams { get; set; }

    public string? Text { get; set; }

    public Ingredient? Food { get; set; }

    public DateTimeOffset? EatenAt { get; set; }

    public string? Slot { get; set; }

    public bool IsLocked { get; set; }

    public bool IsFitted { get; set; }

    /// <summary>For a meal out: kcal either way.</summary>
    public decimal? GiveOrTake { get; set; }

    /// <summary>
    /// Where it lies there although its eater must never get it, and somebody said that it stays: for which reason, <see
    /// cref="Core.Aim.Never.Key"/>.
    /// </summary>
    public string? NeverAnswered { get; set; }
}

/// <summary>One row: the number of the last change to any day. Each change takes the next one.</summary>
public sealed class PlanVersionRow : IVersioned
{
    public int Id { get; set; } = 1;

    public int Version { get; set; } = 1;
}

/// <summary>An eater's day, by the number of the last change that touched it: who saw a later one has seen the day as it is.</summary>
public sealed class EaterDayRow
{
    public Guid EaterId { get; set; }

    public DateOnly Day { get; set; }

    public int Version { get; set; }
}

/// <summary>Every change made to the plan, so that each can be undone.</summary>
public sealed class PlanChangeRow
{
    public Guid Id { get; set; }

    public DateTimeOffset At { get; set; }

    public required Core.Plan.PlanChange Change { get; set; }

    /// <summary>The change that this one undid; each is undone once.</summary>
    public Guid? UndoneId { get; set; }
}

/// <summary>A row that counts its changes, so that no write wins silently over another.</summary>
public interface IVersioned
{
    int Version { get; set; }
}
