using System.Collections.Concurrent;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Recipes;

namespace LivelyTern.Data.Recipes;

/// <summary>
/// Recipes as they were read, for the whole host: a line is read once for as long as neither the recipes nor the foods change. Where
/// libraries may be meant, which change apart, nothing is kept.
/// </summary>
public sealed class RecipesRead
{
    private readonly Lock gate = new();
    private (FoodCatalogue Foods, WrittenBook Written, ConcurrentDictionary<Guid, Recipe> Read)? kept;

    /// <summary>What was read of these recipes against these foods; null where nothing may be kept.</summary>
    internal ConcurrentDictionary<Guid, Recipe>? Of(IFoods foods, WrittenBook written)
    {
        if (foods is not FoodCatalogue catalogue) return null;
        lock (gate)
        {
            if (kept is { } now && ReferenceEquals(now.Foods, catalogue) && ReferenceEquals(now.Written, written)) return now.Read;
            kept = (catalogue, written, []);
            return kept.Value.Read;
        }
    }
}
