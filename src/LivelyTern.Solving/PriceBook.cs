namespace LivelyTern.Solving;

/// <summary>What a day with certain boxes costs, and its fillers; without them it costs at least that.</summary>
internal readonly record struct DayPrice(long Cost, byte[]? Counts);

/// <summary>
/// Prices by a number that is well spread already (<see cref="FitBoard.Key"/>): looked up millions of times a second. When it is full it is
/// begun anew, so that a fit of any size and length takes some 50 MB at most for each line of work.
/// </summary>
/// <param name="fillers">How many fillers a price counts.</param>
internal sealed class PriceBook(int fillers)
{
    private const int MostBytes = 64 << 20, BytesOfAPrice = 72;

    private ulong[] keys = new ulong[1 << 12];
    private DayPrice[] prices = new DayPrice[1 << 12];
    private int count;

    /// <summary>How many prices it holds.</summary>
    public int Most { get; } = Math.Min(1 << 19, MostBytes / (BytesOfAPrice + fillers));

    /// <summary>The place of a price; it holds until the next is asked for.</summary>
    /// <param name="key">Which; 0 is taken as 1.</param>
    /// <param name="isNew">Whether nothing stands there yet.</param>
    public ref DayPrice Of(ulong key, out bool isNew)
    {
        if (key == 0) key = 1;
        var at = At(keys, key);
        isNew = keys[at] == 0;
        if (!isNew) return ref prices[at];
        if (count == Most) Empty();
        else if (2 * count >= keys.Length) Grow();
        at = At(keys, key);
        (keys[at], count) = (key, count + 1);
        return ref prices[at];
    }

    private void Empty()
    {
        Array.Clear(keys);
        Array.Clear(prices);
        count = 0;
    }

    private static int At(ulong[] keys, ulong key)
    {
        var at = (int)key & (keys.Length - 1);
        while (keys[at] != 0 && keys[at] != key) at = (at + 1) & (keys.Length - 1);
        return at;
    }

    private void Grow()
    {
        var (before, were) = (keys, prices);
        (keys, prices) = (new ulong[2 * before.Length], new DayPrice[2 * before.Length]);
        for (var i = 0; i < before.Length; i++)
        {
            if (before[i] == 0) continue;
            var at = At(keys, before[i]);
            (keys[at], prices[at]) = (before[i], were[i]);
        }
    }
}
