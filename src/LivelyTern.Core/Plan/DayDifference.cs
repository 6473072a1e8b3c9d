using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>Something at its place in the order of a day.</summary>
/// <param name="Place">Its place, from 0.</param>
/// <param name="Item">The thing.</param>
public sealed record PlacedItem(int Place, PlanItem Item);

/// <summary>
/// A day's change without what it left as it was, so that a log of changes does not grow with how much lies on a day. With the day as
/// it lies there now it is the whole change again.
/// </summary>
/// <param name="Where">The day.</param>
/// <param name="Went">What lay there otherwise or not at all after it, at its places before; in order.</param>
/// <param name="Came">What lay there otherwise or not at all before it, at its places after; in order.</param>
/// <param name="Mark">By what the whole day after it is known again: 128 bits of a SHA-256 of <see cref="PlanItem.Mark"/>.</param>
public sealed record DayDifference(EaterDay Where, ImmutableList<PlacedItem> Went, ImmutableList<PlacedItem> Came, string Mark)
{
    private const int MarkBytes = 16;

    /// <summary>The difference that a change makes to a day.</summary>
    public static DayDifference Of(DayChange change)
    {
        ArgumentNullException.ThrowIfNull(change);
        var stays = Staying(change.Before, change.After);
        ImmutableList<PlacedItem> Others(ImmutableList<PlanItem> day) =>
            [.. day.Select((item, place) => new PlacedItem(place, item)).Where(one => !stays.Contains(one.Item.Id))];
        return new(change.Where, Others(change.Before), Others(change.After), MarkOf(change.After));
    }

    /// <summary>The whole change, from the day as it lies there now.</summary>
    /// <param name="now">What lies on the day, in order.</param>
    /// <returns>The change, or a problem where the day is no longer as the change left it.</returns>
    public Outcome<DayChange> On(ImmutableList<PlanItem> now)
    {
        ArgumentNullException.ThrowIfNull(now);
        if (!string.Equals(MarkOf(now), Mark, StringComparison.Ordinal)) return PlanBoard.MovedOn;
        var before = now.RemoveAll(item => Came.Exists(one => one.Item.Id == item.Id));
        return new DayChange(Where, Went.Aggregate(before, (day, one) => day.Insert(one.Place, one.Item)), now);
    }

    private static string MarkOf(ImmutableList<PlanItem> day)
    {
        var all = string.Join('\n', day.Select(item => item.Mark));
        return Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(all)).AsSpan(0, MarkBytes));
    }

    // What is the same before and after, in the same order: as many as can be.
    private static HashSet<Guid> Staying(ImmutableList<PlanItem> before, ImmutableList<PlanItem> after)
    {
        var places = after.Select((item, place) => (item, place)).ToDictionary(one => one.item.Id, one => one.place);
        var same = before.FindAll(item => places.TryGetValue(item.Id, out var place)
            && after[place] == item && after[place].IsFitted == item.IsFitted);

        // The longest row of them whose places grow: of each the longest that ends with it, and the one before it there.
        var (length, previous, end) = (new int[same.Count], new int[same.Count], -1);
        for (var i = 0; i < same.Count; i++)
        {
            (length[i], previous[i]) = (1, -1);
            for (var j = 0; j < i; j++)
            {
                if (places[same[j].Id] < places[same[i].Id] && length[j] >= length[i]) (length[i], previous[i]) = (length[j] + 1, j);
            }

            if (end < 0 || length[i] > length[end]) end = i;
        }

        var stays = new HashSet<Guid>();
        for (; end >= 0; end = previous[end]) stays.Add(same[end].Id);
        return stays;
    }
}
