using System.Collections.Concurrent;
using LivelyTern.Core.Foods;

namespace LivelyTern.Data.Cook;

/// <summary>What batches hold at a version, as it was read; for the whole host. A batch that changes has another version.</summary>
public sealed class BatchCache : IKept
{
    private const int Most = 2_000;
    private readonly ConcurrentDictionary<(Guid Id, int Version), Contents> contents = [];

    /// <inheritdoc/>
    public void Forget() => contents.Clear();

    internal Contents? Find(BatchRow row) => contents.GetValueOrDefault((row.Id, row.Version));

    internal void Remember(BatchRow row, Contents sum)
    {
        if (contents.Count >= Most) contents.Clear();
        contents[(row.Id, row.Version)] = sum;
    }
}
