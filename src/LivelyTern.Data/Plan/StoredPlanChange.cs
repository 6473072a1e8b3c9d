using System.Text.Json.Serialization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Pack;

namespace LivelyTern.Data.Plan;

#pragma warning disable CS1591 // Stored shapes mirror the core's records, where the units are documented.

/// <summary>A change to days as it is kept, so that it can be undone.</summary>
/// <param name="V">The version of this shape.</param>
/// <param name="Days">The days, before and after.</param>
/// <param name="Boxes">What happened to boxes besides.</param>
public sealed record StoredPlanChange(int V, IReadOnlyList<StoredDayChange> Days, IReadOnlyList<StoredBoxChange> Boxes)
{
    internal const int Shape = 3;

    internal IEnumerable<StoredPlanItem> Items => Days.SelectMany(day => day.Before.Concat(day.After));
}

/// <summary>One day before and after: without what it left as it was, where the rest is known by a mark; else all of it.</summary>
public sealed record StoredDayChange(
    Guid EaterId, DateOnly Day, IReadOnlyList<StoredPlanItem> Before, IReadOnlyList<StoredPlanItem> After,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] StoredRest? Rest = null);

/// <summary>Where on their day the things lie that a change touched, and by what the whole day after it is known again: see <see
/// cref="Core.Plan.DayDifference"/>. Shapes 1 and 2 kept whole days instead.</summary>
public sealed record StoredRest(IReadOnlyList<int> Before, IReadOnlyList<int> After, string Mark);

/// <summary>
/// Something on a day: of box, portion, food and hold it is one. Of a box how much of it, null for all of it. What is nothing or false is
/// left out since shape 3; shape 1 knew no parts, no guests and no holds.
/// </summary>
public sealed record StoredPlanItem(
    Guid Id,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] Guid? BoxId = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] StoredPortion? Portion = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] StoredLaidFood? Food = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] DateTimeOffset? EatenAt = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] string? Slot = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool IsLocked = false,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool IsFitted = false,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] long? PartMilligrams = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool IsForGuests = false,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] StoredHold? Hold = null);

/// <summary>An amount that is kept free.</summary>
public sealed record StoredHold(Measure Measure, decimal Amount);

/// <summary>A portion of a batch that was not packed.</summary>
public sealed record StoredPortion(Guid BatchId, long Milligrams);

/// <summary>A plain food, or a meal out by its name.</summary>
public sealed record StoredLaidFood(string? Text, long Record, decimal Grams, bool IsTrace, decimal? GiveOrTake);

/// <summary>Something that happened to a box; why is left out where nobody said so.</summary>
public sealed record StoredBoxChange(
    Guid BoxId, BoxEventKind Kind, StoredBoxLife Before, StoredBoxLife After,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Why = null);

/// <summary>How a box stood.</summary>
public sealed record StoredBoxLife(BoxState State, BoxPlace Place, DateOnly PlacedOn, DateOnly? FrozenOn, Guid? ForId)
{
    internal static StoredBoxLife Of(BoxLife life) => new(life.State, life.Place, life.PlacedOn, life.FrozenOn, life.For);

    internal BoxLife ToLife() => new(State, Place, PlacedOn, FrozenOn, ForId);
}
