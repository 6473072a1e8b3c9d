using System.Collections.Concurrent;

namespace LivelyTern.Data.Pack;

/// <summary>What is in boxes, which never changes once they are packed: read once, however often the shelves are looked at.</summary>
public sealed class BoxPartsCache : IKept
{
    private const int Most = 10_000;
    private readonly ConcurrentDictionary<Guid, (List<BoxPartRow> Parts, List<BoxPutInRow> PutIn)> known = [];

    /// <inheritdoc/>
    public void Forget() => known.Clear();

    /// <summary>Lays into boxes what is known to be in them.</summary>
    /// <returns>Those of which it is not known.</returns>
    internal List<BoxRow> Fill(IEnumerable<BoxRow> boxes)
    {
        var missing = new List<BoxRow>();
        foreach (var box in boxes)
        {
            if (known.TryGetValue(box.Id, out var within)) (box.Parts, box.PutIn) = within;
            else missing.Add(box);
        }

        return missing;
    }

    internal void Remember(IReadOnlyCollection<BoxRow> boxes)
    {
        if (known.Count + boxes.Count > Most) known.Clear();
        foreach (var box in boxes) known[box.Id] = (box.Parts, box.PutIn);
    }
}
