using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>One packed container of one batch.</summary>
/// <param name="Id">Stable identity.</param>
/// <param name="Batch">The batch it came from.</param>
/// <param name="Weight">Cooked grams in it.</param>
/// <param name="Pieces">How many pieces, where it was packed by pieces.</param>
public sealed record Box(Guid Id, Batch Batch, Grams Weight, int? Pieces)
{
    /// <summary>What it holds: its share of the batch.</summary>
    public Contents Contents => Batch.Holding(Weight);
}
