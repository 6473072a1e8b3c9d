using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Run;
using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Cook.Run;

namespace LivelyTern.Web.Cook.Run;

/// <summary>Where a task of a run stands.</summary>
public enum RunTaskState
{
    /// <summary>It is still to be done.</summary>
    Waiting,

    /// <summary>It goes on.</summary>
    GoingOn,

    /// <summary>It is done.</summary>
    Done,

    /// <summary>It was passed over.</summary>
    Skipped,
}

/// <summary>Where a task stands; what it is, and when, stands in the day laid out.</summary>
/// <param name="Id">The task.</param>
/// <param name="State">Where it stands.</param>
/// <param name="StartedAt">When it was begun; null where nobody said so.</param>
/// <param name="EndsAt">When it ends as planned, or ended; null while it waits.</param>
/// <param name="Extra">Minutes it was given beside those planned.</param>
/// <param name="IsDue">Whether it is to be begun now, and the hands it needs are free.</param>
/// <param name="Phase">The verb of the stretch it is in, where it has several and goes on.</param>
/// <param name="Cautions">The codes of the cautions that stand beside it.</param>
public sealed record RunTaskView(
    string Id, RunTaskState State, DateTimeOffset? StartedAt, DateTimeOffset? EndsAt, int Extra, bool IsDue, string? Phase,
    IReadOnlyList<string> Cautions);

/// <summary>A prep day as it happens.</summary>
/// <param name="Day">The day.</param>
/// <param name="StartedAt">When it began.</param>
/// <param name="EndedAt">When it was ended; null while it goes on.</param>
/// <param name="Now">The program's clock, so that every phone counts down alike.</param>
/// <param name="Minute">The minute it is, from the beginning.</param>
/// <param name="PlannedEnd">The minute at which it was to end when it began.</param>
/// <param name="Laid">What was and is to be done, each at its real or expected time.</param>
/// <param name="Tasks">Where each of them stands.</param>
/// <param name="Batches">The batches it is about.</param>
/// <param name="Changed">What was just changed, to be taken back together; empty where that was not asked.</param>
public sealed record RunView(
    DateOnly Day, DateTimeOffset StartedAt, DateTimeOffset? EndedAt, DateTimeOffset Now, int Minute, int PlannedEnd, LaidDayView Laid,
    IReadOnlyList<RunTaskView> Tasks, IReadOnlyList<PrepBatch> Batches, IReadOnlyList<string> Changed)
{
    /// <summary>A run as shown.</summary>
    /// <param name="run">The run.</param>
    /// <param name="now">The moment.</param>
    /// <param name="changed">What was just changed.</param>
    public static RunView Of(RunNow run, DateTimeOffset now, IReadOnlyList<string>? changed = null)
    {
        ArgumentNullException.ThrowIfNull(run);
        var rest = run.Rest();
        DateTimeOffset At(int minute) => run.Row.StartedAt.AddMinutes(minute);
        var matched = rest.Begun.Values.ToHashSet();

        // What is gone from the day by now, and was never said to be done, was done some other way: packed on the bench.
        bool IsThere(BegunTask one) => one.End is not null || matched.Contains(one);
        var begun = run.SoFar.Begun.Where(IsThere).ToList();
        PlacedPrepTask Begun(BegunTask one)
        {
            var end = one.ExpectedEnd(run.SoFar.Now);
            return new(one.Task, one.Way, Math.Min(one.Start ?? end, end), end, LaidDayView.LanesOf(one.Mode), false);
        }

        IReadOnlyList<string> Cautions(PrepTask task) => StepCautions.Of(task, run.Day.Dishes);

        RunTaskView State(BegunTask one)
        {
            var state = one.IsSkipped ? RunTaskState.Skipped : one.End is null ? RunTaskState.GoingOn : RunTaskState.Done;
            var row = run.Row.Tasks.Find(task => string.Equals(task.TaskId, one.Task.Id, StringComparison.Ordinal))!;
            var ends = row.EndedAt ?? (row.StartedAt ?? At(0)).AddMinutes(one.Mode.Minutes + one.Extra);
            var phase = state == RunTaskState.GoingOn ? one.PhaseAt(run.SoFar.Now) : null;
            return new(one.Task.Id, state, row.StartedAt, ends, one.Extra, false, phase?.Verb, Cautions(one.Task));
        }

        PlacedPrepTask Left(PlacedTask place, ScheduleTask task)
        {
            var told = rest.Tasks.Tasks.First(other => string.Equals(other.Id, place.Id, StringComparison.Ordinal));
            return new(told, told.Ways[place.Mode], place.Start, place.End, LaidDayView.LanesOf(task.Modes[place.Mode]), false);
        }

        var left = rest.Day.Tasks.Zip(rest.Problem.Tasks, Left).ToList();
        List<PlacedPrepTask> placed = [.. begun.Select(Begun).Concat(left).OrderBy(task => task.Start).ThenBy(task => task.End)];
        var due = rest.DueNow(run.SoFar.Now);
        var busy = placed.SelectMany(task => task.Lanes).Distinct(StringComparer.Ordinal).ToList();
        var laid = new LaidDayView(
            run.Day.Wishes.Begins, placed, [.. PrepLanes.Of(busy, rest.Problem, run.Day.Wishes)],
            OvenWarmUps.Of(rest.Problem, rest.Day), placed.Select(task => task.End).DefaultIfEmpty(0).Max(),
            placed.Where(task => task.Task.IsHandsOn).Sum(task => task.End - task.Start), rest.Day.Late, 0, false, [], rest.Overtime, [],
            rest.Tasks.Warnings);
        return new(
            run.Row.Day, run.Row.StartedAt, run.Row.EndedAt, now, run.SoFar.Now, run.Row.PlannedEnd, laid,
            [
                .. begun.Select(State),
                .. left.Select(one => new RunTaskView(
                    one.Task.Id, RunTaskState.Waiting, null, null, 0, due.Contains(one.Task.Id), null, Cautions(one.Task))),
            ],
            [.. run.Batches.Select(PrepBatch.Of)], changed ?? []);
    }
}

/// <summary>A day is begun.</summary>
/// <param name="Order">The order in which its tasks are laid out on the screen.</param>
public sealed record BeginRunRequest(IReadOnlyList<string> Order);

/// <summary>Tasks to be as they were before.</summary>
public sealed record TakeBackRunRequest(IReadOnlyList<string> Tasks);

/// <summary>An oven is turned on, or off again.</summary>
/// <param name="Oven">Which, by its lane.</param>
/// <param name="Celsius">To how many °C.</param>
/// <param name="IsOn">Whether it is on.</param>
public sealed record TurnOvenRequest(string Oven, int Celsius, bool IsOn);

/// <summary>Whether a run is over.</summary>
public sealed record EndRunRequest(bool IsOver);

/// <summary>Something that took another time than planned.</summary>
/// <param name="Verb">What, by the verb's name.</param>
/// <param name="Text">The sentence of its step; empty where there is none.</param>
/// <param name="Planned">Minutes planned.</param>
/// <param name="Real">Minutes it took.</param>
public sealed record TimeDifference(string Verb, string Text, int Planned, int Real);

/// <summary>What was different from the plan with a dish.</summary>
/// <param name="Batch">The dish.</param>
/// <param name="Lines">What went in otherwise.</param>
/// <param name="Times">What took another time.</param>
public sealed record DishDifference(PrepBatch Batch, IReadOnlyList<BatchLineView> Lines, IReadOnlyList<TimeDifference> Times)
{
    // Less than this is nobody's matter.
    private const int LeastMinutes = 3;
    private const decimal LeastShare = 0.2m;

    /// <summary>What differed with each dish of a run; a dish with which nothing did is not in the list.</summary>
    /// <param name="run">The run.</param>
    /// <param name="lines">The lines of each batch.</param>
    public static IReadOnlyList<DishDifference> Of(RunNow run, IReadOnlyDictionary<Guid, IReadOnlyList<BatchLineView>> lines)
    {
        ArgumentNullException.ThrowIfNull(run);
        ArgumentNullException.ThrowIfNull(lines);
        static bool IsOther(BegunTask one) =>
            one is { IsSkipped: false, Start: { } start, End: { } end } && Math.Abs(end - start - one.Mode.Minutes) is var apart
            && apart >= LeastMinutes && apart >= one.Mode.Minutes * LeastShare;
        DishDifference Dish(BatchRow row)
        {
            var own = run.SoFar.Begun.Where(one => one.Task.Kind == PrepKind.Step && one.Task.Dishes.Contains(row.Id) && IsOther(one));
            var times = own.Select(one => new TimeDifference(
                one.Way.Verb, one.Task.Text, one.Mode.Minutes, one.End!.Value - one.Start!.Value));
            return new(PrepBatch.Of(row), [.. lines[row.Id].Where(line => line.ReallyText is not null)], [.. times]);
        }

        return [.. run.Batches.Where(row => lines.ContainsKey(row.Id)).Select(Dish).Where(one => one.Lines.Count + one.Times.Count > 0)];
    }
}
