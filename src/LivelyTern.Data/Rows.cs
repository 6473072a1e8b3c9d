using LivelyTern.Core.Aim;
using LivelyTern.Core.Foods;

namespace LivelyTern.Data;

#pragma warning disable CS1591 // Rows mirror the core's records, where the units are documented.

/// <summary>A food, built in or the cook's own.</summary>
public sealed class FoodRow
{
    public required string Id { get; set; }

    /// <summary>The food with its own measures, as JSON; what was weighed at home is in <see cref="WeighedMeasures"/>.</summary>
    public required Food Food { get; set; }

    public List<WeighedMeasureRow> WeighedMeasures { get; set; } = [];
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

public sealed class EaterRow : IVersioned
{
    public Guid Id { get; set; }

    public required string Name { get; set; }

    public required DayAim Aim { get; set; }

    /// <summary>A clinician set an energy aim below the floor, and the eater said so.</summary>
    public bool ClinicianSetIt { get; set; }

    public int Position { get; set; }

    public DateTimeOffset? ArchivedAt { get; set; }

    public int Version { get; set; } = 1;
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
}

public sealed class RecipeLineRow
{
    public int Id { get; set; }

    public Guid RecipeId { get; set; }

    public int Position { get; set; }

    public required string Text { get; set; }

    /// <summary>The food the cook chose for it, or null where its words say enough.</summary>
    public string? FoodId { get; set; }
}

public sealed class BatchRow : IVersioned
{
    public Guid Id { get; set; }

    public Guid RecipeId { get; set; }

    public required string RecipeName { get; set; }

    public required string Letters { get; set; }

    public int Tint { get; set; }

    public DateOnly CookedOn { get; set; }

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

    public string? Text { get; set; }

    public Ingredient? Food { get; set; }

    public DateTimeOffset? EatenAt { get; set; }
}

/// <summary>One row: the version of the whole plan.</summary>
public sealed class PlanVersionRow : IVersioned
{
    public int Id { get; set; } = 1;

    public int Version { get; set; } = 1;
}

/// <summary>Every change made to the plan, so that each can be undone.</summary>
public sealed class PlanChangeRow
{
    public Guid Id { get; set; }

    public DateTimeOffset At { get; set; }

    public required Core.Plan.PlanChange Change { get; set; }
}

/// <summary>A row that counts its changes, so that no write wins silently over another.</summary>
public interface IVersioned
{
    int Version { get; set; }
}
