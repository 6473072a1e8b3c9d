using LivelyTern.Core.Plan.Menus;

namespace LivelyTern.Data.Plan;

/// <summary>Knows what the household said of its dishes: the plan asks it, and who keeps it is no business of the plan.</summary>
public interface IDishOpinions
{
    /// <summary>By recipe; dishes of which nobody said anything are left out.</summary>
    Task<IReadOnlyDictionary<Guid, DishOpinion>> OfAllAsync();
}
