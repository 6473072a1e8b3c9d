using LivelyTern.Core.Cook;

namespace LivelyTern.Data.Cook;

/// <summary>
/// Is told, within the transaction of a command, what a batch takes out of the house. Cooking comes before shopping in the order of the
/// rooms: who keeps the pantry is no business of it.
/// </summary>
public interface IPantryUse
{
    /// <summary>A batch has taken what is in it; said again when that is corrected.</summary>
    /// <param name="batchId">The batch.</param>
    /// <param name="lines">What went in; none where nothing did after all.</param>
    Task CookedAsync(Guid batchId, IReadOnlyList<BatchLine> lines);
}
