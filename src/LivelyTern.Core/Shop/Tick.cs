using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>That something is in the basket, or not after all, said at a moment on somebody's phone.</summary>
/// <param name="Key">A food's id, or an item of the household's own (<see cref="KeyOf"/>).</param>
/// <param name="IsTicked">Whether it is in the basket.</param>
/// <param name="Bought">How much of it; nothing for what nobody weighs.</param>
/// <param name="At">When that was said, by the phone's clock.</param>
public sealed record Tick(string Key, bool IsTicked, Grams Bought, DateTimeOffset At)
{
    private const string OwnItem = "item:";

    /// <summary>The key of an item of the household's own that is no food.</summary>
    public static string KeyOf(Guid item) => OwnItem + item.ToString("D");

    /// <summary>The item of the household's own a key means; null for a food's id.</summary>
    public static Guid? ItemOf(string key)
    {
        ArgumentNullException.ThrowIfNull(key);
        return key.StartsWith(OwnItem, StringComparison.Ordinal) && Guid.TryParse(key[OwnItem.Length..], out var id) ? id : null;
    }

    /// <summary>
    /// Which of two ticks of one thing counts, whichever comes first: the later one; at the same moment the one that is ticked, then the
    /// one with more. So two phones that were offline agree, in whatever order they come back.
    /// </summary>
    public static Tick Later(Tick one, Tick other)
    {
        ArgumentNullException.ThrowIfNull(one);
        ArgumentNullException.ThrowIfNull(other);
        var order = (one.At, one.IsTicked, one.Bought.Value).CompareTo((other.At, other.IsTicked, other.Bought.Value));
        return order >= 0 ? one : other;
    }
}
