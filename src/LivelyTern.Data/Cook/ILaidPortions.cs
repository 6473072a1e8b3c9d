using LivelyTern.Core.Measures;

namespace LivelyTern.Data.Cook;

/// <summary>
/// Knows what of a batch lies on days by itself. Cooking comes before planning in the order of the rooms: what days are is no business of
/// it.
/// </summary>
public interface ILaidPortions
{
    /// <summary>Grams of a batch's portions on any day of anyone; zero where none lies.</summary>
    Task<Grams> LaidAsync(Guid batchId);
}
