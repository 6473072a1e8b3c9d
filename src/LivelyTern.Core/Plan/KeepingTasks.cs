using LivelyTern.Core.Keep;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan;

/// <summary>Where a box lies on the plan, not eaten yet.</summary>
/// <param name="Where">Whose day.</param>
/// <param name="ItemId">The item it is there.</param>
public sealed record BoxLaid(EaterDay Where, Guid ItemId);

/// <summary>A box that is there, as it is kept.</summary>
/// <param name="Box">The box, or what is left of it.</param>
/// <param name="UseBy">Its last days.</param>
/// <param name="Next">The first day from today on that it lies on; null where it lies on none.</param>
/// <param name="WasLookedAt">Whether somebody looked after it past its last day, and left it.</param>
public sealed record KeptBox(Box Box, UseBy UseBy, BoxLaid? Next, bool WasLookedAt = false)
{
    /// <summary>Whether it is in the freezer.</summary>
    public bool IsInFreezer => Box.Life.Place == BoxPlace.Freezer;

    /// <summary>Whether its days are over.</summary>
    public bool IsOver(DateOnly today) => UseBy.IsOver(today);
}

/// <summary>
/// What is to be done with the boxes that are there, by the plan. What is for a day after its last in the fridge is frozen at once, and
/// out of the freezer the day before it is eaten; what nobody has a day for is eaten first when its days run out.
/// </summary>
/// <param name="Freeze">To be frozen tonight.</param>
/// <param name="Thaw">To be moved to the fridge today, for tomorrow.</param>
/// <param name="Late">For today, or a day that went by, and still in the freezer.</param>
/// <param name="ThawTomorrow">To be moved to the fridge tomorrow.</param>
/// <param name="TooLate">For a day it does not keep to: it does not freeze well, or came out of the freezer already.</param>
/// <param name="EatFirst">Its last day is today or tomorrow, and it lies on no day by then.</param>
/// <param name="Over">Past its last day, and nobody has said what became of it.</param>
public sealed record KeepingTasks(
    IReadOnlyList<KeptBox> Freeze, IReadOnlyList<KeptBox> Thaw, IReadOnlyList<KeptBox> Late, IReadOnlyList<KeptBox> ThawTomorrow,
    IReadOnlyList<KeptBox> TooLate, IReadOnlyList<KeptBox> EatFirst, IReadOnlyList<KeptBox> Over)
{
    // How many days before its last a box is to be eaten first: in the fridge, and in the freezer.
    private const int SoonDays = 1, SoonFrozenDays = 7;

    /// <summary>What is to be done, in the order of last days.</summary>
    /// <param name="boxes">The boxes that are there.</param>
    /// <param name="today">The household's day.</param>
    public static KeepingTasks Of(IEnumerable<KeptBox> boxes, DateOnly today)
    {
        var (over, good) = (new List<KeptBox>(), new List<KeptBox>());
        foreach (var box in boxes.OrderBy(box => box.UseBy.Last)) (box.IsOver(today) ? over : good).Add(box);
        bool IsFor(KeptBox box, int days) => box is { IsInFreezer: true, Next.Where.Day: var day } && day == today.AddDays(days);
        return new(
            good.FindAll(MustBeFrozen), good.FindAll(box => IsFor(box, 1)), good.FindAll(box => IsFor(box, 0)),
            good.FindAll(box => IsFor(box, 2)), good.FindAll(KeepsTooShort), good.FindAll(box => RunsOut(box, today)),
            over.FindAll(box => !box.WasLookedAt));
    }

    /// <summary>
    /// Whether a box has to go into the freezer for the day it lies on. One that came out of it does not go back, nor does what does not
    /// freeze well.
    /// </summary>
    public static bool MustBeFrozen(KeptBox box)
    {
        ArgumentNullException.ThrowIfNull(box);
        return IsForLater(box) && MayBeFrozen(box);
    }

    private static bool KeepsTooShort(KeptBox box) => IsForLater(box) && !MayBeFrozen(box);

    private static bool IsForLater(KeptBox box) => !box.IsInFreezer && box.Next?.Where.Day > box.UseBy.Fridge;

    private static bool MayBeFrozen(KeptBox box) => box.Box.Life.FrozenOn is null && box.UseBy.FreezesWell;

    private static bool RunsOut(KeptBox box, DateOnly today)
    {
        if (IsForLater(box) || (box.Next is { } next && next.Where.Day <= box.UseBy.Last)) return false;
        return box.UseBy.Last.DayNumber - today.DayNumber <= (box.IsInFreezer ? SoonFrozenDays : SoonDays);
    }
}
