using LivelyTern.Core.Cook.PrepDay;
using LivelyTern.Core.Cook.Schedule;

namespace LivelyTern.Core.Cook.Run;

/// <summary>A task of a run that somebody has begun, done or passed over. Minutes are counted from the beginning of the run.</summary>
/// <param name="Task">What it is, as it was when it was begun.</param>
/// <param name="Way">In which of its ways it is done.</param>
/// <param name="Mode">What it takes meanwhile, and for how many minutes as planned.</param>
/// <param name="Start">When it was begun; null where nobody said so before it was done.</param>
/// <param name="End">When it was done or passed over; null while it goes on.</param>
/// <param name="Extra">Minutes it was given beside those planned.</param>
/// <param name="IsSkipped">Whether it was passed over.</param>
public sealed record BegunTask(PrepTask Task, PrepWay Way, TaskMode Mode, int? Start, int? End, int Extra = 0, bool IsSkipped = false)
{
    /// <summary>When it ends as planned; of one that is done, when it did.</summary>
    public int EndsAt => End ?? (Start ?? 0) + Mode.Minutes + Extra;

    /// <summary>
    /// When it ends as far as can be told at a minute: one that should have ended and still goes on ends in the next minute at the soonest.
    /// </summary>
    /// <param name="now">The minute.</param>
    public int ExpectedEnd(int now) => End ?? Math.Max(EndsAt, now + 1);

    /// <summary>The stretch of it that a minute is in, where it has several; its last one from there on.</summary>
    /// <param name="now">The minute.</param>
    public PrepPhase? PhaseAt(int now)
    {
        var ends = Start ?? now;
        foreach (var phase in Task.Phases)
            if (now < (ends += phase.Minutes)) return phase;
        return Task.Phases is [.., var last] ? last : null;
    }

    /// <summary>
    /// What it teaches about how long such work takes, food by food where several were chopped; nothing where nobody saw it begin.
    /// </summary>
    /// <param name="recipeOf">The recipe of a dish.</param>
    public IEnumerable<TimeTaken> Teaches(Func<Guid, Guid?> recipeOf)
    {
        ArgumentNullException.ThrowIfNull(recipeOf);
        if (IsSkipped || Start is not { } start || End is not { } end || Task.Kind is PrepKind.Cool) return [];
        var (usual, real) = (Way.Usual ?? Mode.Minutes, end - start);
        if (Task.Kind == PrepKind.Prepare && Task.Amounts.Count > 0)
        {
            return Task.Amounts.Select(amount => amount.FoodId).OfType<string>().Distinct(StringComparer.Ordinal)
                .Select(food => new TimeTaken(OwnTimes.KeyOf(Way.Verb, food), usual, real));
        }

        if (Task.Kind is not (PrepKind.Step or PrepKind.Prepare)) return [new(OwnTimes.KeyOf(Task.Kind), usual, real)];
        return Task.Dishes is [var dish] && recipeOf(dish) is { } recipe
            ? [new(OwnTimes.KeyOf(recipe, Task.Text, Way.Verb), usual, real)]
            : [];
    }
}

/// <summary>An oven that was turned on during a run.</summary>
/// <param name="Oven">Which, by its capacity.</param>
/// <param name="Celsius">To how many °C.</param>
/// <param name="At">When, in minutes from the beginning of the run.</param>
public sealed record TurnedOn(string Oven, int Celsius, int At);

/// <summary>How far a run has come.</summary>
/// <param name="Begun">What is begun, done or passed over.</param>
/// <param name="Ovens">The ovens that were turned on.</param>
/// <param name="Now">The minute it is, from the beginning of the run.</param>
public sealed record RunSoFar(IReadOnlyList<BegunTask> Begun, IReadOnlyList<TurnedOn> Ovens, int Now)
{
    /// <summary>The washing and chopping that is begun or done.</summary>
    public IReadOnlyList<PrepTask> BegunPreparations =>
        [.. Begun.Where(one => one.Task.Kind == PrepKind.Prepare).Select(one => one.Task)];
}
