using System.Collections.Concurrent;
using LivelyTern.Data.Plan;

namespace LivelyTern.Data.Eat;

/// <summary>What entries of the ledger counted, as it was read; for the whole host. An entry never changes.</summary>
public sealed class EntryCache : IKept
{
    private const int Most = 20_000;
    private readonly ConcurrentDictionary<Guid, EatenMeasures> measures = [];

    /// <inheritdoc/>
    public void Forget() => measures.Clear();

    internal EatenMeasures? Find(Guid id) => measures.GetValueOrDefault(id);

    internal EatenMeasures Remember(Guid id, EatenMeasures counted)
    {
        if (measures.Count >= Most) measures.Clear();
        return measures.GetOrAdd(id, counted);
    }
}
