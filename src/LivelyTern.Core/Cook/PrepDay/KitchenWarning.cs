using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>What is amiss between a dish and the kitchen; the day is laid out all the same, as though it were not.</summary>
public enum KitchenLack
{
    /// <summary>A step needs a machine that the kitchen has not.</summary>
    NotThere,

    /// <summary>A dish is more than a machine holds: it is done in loads.</summary>
    TooLarge,

    /// <summary>A dish has no steps: usual times stand in for them.</summary>
    NoSteps,

    /// <summary>Words of a step tell something that a schedule does not understand.</summary>
    NotUnderstood,
}

/// <summary>Something amiss, with its dish.</summary>
/// <param name="Dish">The dish.</param>
/// <param name="Lack">What it is.</param>
/// <param name="Kind">Which machine; null where none is meant.</param>
/// <param name="Loads">In how many loads it is done instead; 1 where that is not the matter.</param>
/// <param name="Words">What was not understood.</param>
public sealed record KitchenWarning(Guid Dish, KitchenLack Lack, Occupies? Kind = null, int Loads = 1, string Words = "");
