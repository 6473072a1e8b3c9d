using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Shop;

/// <summary>Something in the house: so much of a food, bought at once.</summary>
/// <param name="Id">Stable identity.</param>
/// <param name="Amount">What is there, as purchased; null for enough that nobody counts: salt.</param>
/// <param name="UseBy">The last day its package names; null where none was written down.</param>
/// <param name="IsFirst">Whether the household says to use it first: an open jar.</param>
public sealed record PantryItem(Guid Id, Grams? Amount, DateOnly? UseBy, bool IsFirst)
{
    /// <summary>So many days before its last day a thing is among those to use first.</summary>
    public const int SoonDays = 4;

    /// <summary>The largest amount of one thing that is kept, 100 kg.</summary>
    public static readonly Grams Most = new(100_000);

    /// <summary>Whether it should be used before other things.</summary>
    /// <param name="today">The household's day.</param>
    public bool IsToUseFirst(DateOnly today) =>
        Amount is not { Value: <= 0 } && (IsFirst || (UseBy is { } last && last.DayNumber - today.DayNumber < SoonDays));
}

/// <summary>What is taken of something in the house.</summary>
/// <param name="ItemId">Of what.</param>
/// <param name="Taken">How much.</param>
public sealed record PantryTake(Guid ItemId, Grams Taken);

/// <summary>Takes food out of the house: what should be used first goes first, then what keeps least long.</summary>
public static class Pantry
{
    /// <summary>
    /// What is taken of which of several things of one food. Where less is there than is used all of it is taken: the rest came from
    /// elsewhere. What nobody counts gives nothing away.
    /// </summary>
    /// <param name="items">What there is of the food.</param>
    /// <param name="used">How much was used, as purchased.</param>
    public static IReadOnlyList<PantryTake> Take(IEnumerable<PantryItem> items, Grams used)
    {
        ArgumentNullException.ThrowIfNull(items);
        var taken = new List<PantryTake>();
        var left = used;
        var inOrder = items.Where(item => item.Amount is { Value: > 0 }).OrderByDescending(item => item.IsFirst)
            .ThenBy(item => item.UseBy ?? DateOnly.MaxValue).ThenBy(item => item.Id);
        foreach (var item in inOrder)
        {
            if (left <= Grams.Zero) break;
            var some = item.Amount!.Value < left ? item.Amount.Value : left;
            taken.Add(new(item.Id, some));
            left -= some;
        }

        return taken;
    }
}
