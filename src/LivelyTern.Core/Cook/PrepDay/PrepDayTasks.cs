using LivelyTern.Core.Cook.Schedule;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>A prep day as tasks: what is to be done, and the problem a scheduler solves.</summary>
/// <param name="Tasks">What is to be done; beside the problem's tasks, in their order.</param>
/// <param name="Problem">What a scheduler solves; its minute 0 is when the first cook comes.</param>
/// <param name="Warnings">What is amiss between the dishes and the kitchen.</param>
public sealed record PrepDayTasks(
    IReadOnlyList<PrepTask> Tasks, ScheduleProblem Problem, IReadOnlyList<KitchenWarning> Warnings)
{
    /// <summary>The tasks of some dishes in a kitchen, as the day is wished.</summary>
    /// <param name="dishes">The dishes.</param>
    /// <param name="kitchen">What there is to cook with.</param>
    /// <param name="wishes">Who cooks when, what is due; without problems.</param>
    /// <param name="times">How long it took these cooks before; null for the usual times.</param>
    /// <param name="begun">
    /// Washing and chopping that is begun or done: it stays the one task it was, whatever has joined the day since.
    /// </param>
    public static PrepDayTasks Of(
        IReadOnlyList<PrepDish> dishes, KitchenEquipment kitchen, PrepDayWishes wishes, OwnTimes? times = null,
        IReadOnlyList<PrepTask>? begun = null)
    {
        ArgumentNullException.ThrowIfNull(dishes);
        ArgumentNullException.ThrowIfNull(kitchen);
        ArgumentNullException.ThrowIfNull(wishes);
        return new PrepDayBuilder(dishes, kitchen, wishes, times ?? OwnTimes.None, begun ?? []).Build();
    }
}
