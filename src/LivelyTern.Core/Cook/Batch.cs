using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Core.Cook;

/// <summary>A recipe cooked once, for real.</summary>
/// <param name="Id">Stable identity.</param>
/// <param name="RecipeName">The dish, as it was called then.</param>
/// <param name="Mark">How its tape labels look.</param>
/// <param name="CookedOn">The day it was cooked.</param>
/// <param name="Contents">What went in, with the figures the foods had then.</param>
/// <param name="Cooked">The cooked weight without the pan, or null until it is weighed.</param>
public sealed record Batch(Guid Id, string RecipeName, TapeMark Mark, DateOnly CookedOn, Contents Contents, Grams? Cooked)
{
    /// <summary>What this weight of the finished batch holds: its share of everything that went in.</summary>
    /// <param name="weight">Cooked grams.</param>
    /// <exception cref="InvalidOperationException">The batch was never weighed.</exception>
    public Contents Holding(Grams weight) =>
        Cooked is { Value: > 0 } cooked ? Contents.Scale(weight / cooked) : throw new InvalidOperationException("The batch has not been weighed.");
}
