using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Schedule;

namespace LivelyTern.Data.Cook.Run;

#pragma warning disable CS1591 // Stored shapes mirror the core's records, where the units are documented.

/// <summary>So much of a food for a dish, as it is kept.</summary>
public sealed record StoredAmount(Guid Dish, string Food, decimal Grams, string? FoodId);

/// <summary>A stretch of a task, as it is kept.</summary>
public sealed record StoredPhase(string Verb, int Minutes);

/// <summary>A line of a dish, as it is kept.</summary>
public sealed record StoredLineOf(Guid Dish, int Position);

/// <summary>How a task is done, as it is kept.</summary>
public sealed record StoredWay(
    string Verb, int? Celsius, int Loads, int? Usual, int Minutes, IReadOnlyDictionary<string, int> Uses,
    IReadOnlyDictionary<string, int>? Heat);

/// <summary>A task as it was when it was begun, as it is kept.</summary>
public sealed record StoredTask(
    int V, PrepKind Kind, IReadOnlyList<Guid> Dishes, int? Step, string Text, bool IsHandsOn, bool IsAbout, StoredWay Way,
    bool HasUnnamed, IReadOnlyList<StoredAmount> Amounts, IReadOnlyList<StoredPhase> Phases, IReadOnlyList<StoredLineOf> Lines)
{
    public static StoredTask Of(PrepTask task, PrepWay way, TaskMode mode)
    {
        ArgumentNullException.ThrowIfNull(task);
        ArgumentNullException.ThrowIfNull(way);
        ArgumentNullException.ThrowIfNull(mode);
        return new(
            1, task.Kind, task.Dishes, task.Step, task.Text, task.IsHandsOn, task.IsAbout,
            new(way.Verb, way.Celsius, way.Loads, way.Usual, mode.Minutes, mode.Uses, mode.Heat), task.HasUnnamed,
            [.. task.Amounts.Select(one => new StoredAmount(one.Dish, one.Food, one.Grams, one.FoodId))],
            [.. task.Phases.Select(one => new StoredPhase(one.Verb, one.Minutes))],
            [.. task.Lines.Select(one => new StoredLineOf(one.Dish, one.Position))]);
    }

    public PrepTask ToTask(string id) => new(
        id, Kind, Dishes, [ToWay()], Step, Text, IsHandsOn, IsAbout,
        [.. Amounts.Select(one => new PrepAmount(one.Dish, one.Food, one.Grams, one.FoodId))],
        [.. Phases.Select(one => new PrepPhase(one.Verb, one.Minutes))])
    {
        HasUnnamed = HasUnnamed,
        Lines = [.. Lines.Select(one => new DishLine(one.Dish, one.Position))],
    };

    public PrepWay ToWay() => new(Way.Verb, Way.Celsius, Way.Loads) { Usual = Way.Usual };

    public TaskMode ToMode() => new(Way.Minutes, Way.Uses, Way.Heat);
}
