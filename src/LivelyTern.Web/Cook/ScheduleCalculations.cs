using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Measures;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Cook;

/// <summary>A task of a day.</summary>
/// <param name="Id">Its name.</param>
/// <param name="Minutes">Whole minutes without a break.</param>
/// <param name="Uses">How much it takes of each capacity meanwhile.</param>
/// <param name="After">The tasks that must have ended before it begins.</param>
public sealed record CalcTask(
    string Id, int Minutes, IReadOnlyDictionary<string, int>? Uses = null, IReadOnlyList<string>? After = null);

/// <summary>A day to be laid out.</summary>
/// <param name="Tasks">The tasks.</param>
/// <param name="Capacities">How much there is of each thing.</param>
/// <param name="Seconds">How long to look for a shorter day, up to 60.</param>
/// <param name="Rounds">Rounds of the solver's own time; the same rounds give the same day. Null looks until the time is over.</param>
public sealed record CalcScheduleRequest(
    IReadOnlyList<CalcTask> Tasks, IReadOnlyDictionary<string, int> Capacities, double Seconds = 10, int? Rounds = null);

/// <summary>When a task begins, in whole minutes from the day's beginning.</summary>
public sealed record CalcStart(string Id, int Start);

/// <summary>The day laid out.</summary>
/// <param name="Tasks">When each begins.</param>
/// <param name="End">The minute the last one ends.</param>
/// <param name="Bound">No day ends before this minute.</param>
/// <param name="Proven">Whether it is proven that no day is shorter.</param>
public sealed record CalcScheduleAnswer(IReadOnlyList<CalcStart> Tasks, int End, int Bound, bool Proven);

/// <summary>A day's tasks laid out as short as can be; nothing is stored.</summary>
public static class ScheduleCalculations
{
    private const double LongestSeconds = 60;

    /// <summary>Maps <c>/api/calc/schedule</c>.</summary>
    public static void MapScheduleCalculations(this IEndpointRouteBuilder api) =>
        api.MapGroup("/calc").WithTags("Calculate").MapPost("/schedule", LayAsync).WithName("calcSchedule");

    private static async Task<Results<Ok<CalcScheduleAnswer>, ProblemHttpResult>> LayAsync(
        CalcScheduleRequest body, IPrepDayScheduler scheduler, SolverTurns turns, CancellationToken gone)
    {
        if (Holes(body).ToList() is { Count: > 0 } holes) return Answers.Problem(holes);
        var notHeated = new Dictionary<string, int>(StringComparer.Ordinal);
        var problem = new ScheduleProblem([.. body.Tasks.Select(TaskOf)], body.Capacities, [], notHeated);
        List<Problem> problems = [.. problem.Problems()];
        if (body.Seconds is not (>= 0 and <= LongestSeconds))
            problems.Add(new("seconds-absurd", "seconds", $"Look for between 0 and {LongestSeconds} seconds."));
        if (body.Rounds is < 0) problems.Add(new("rounds-absurd", "rounds", "Rounds are 0 or more."));
        if (problems.Count > 0) return Answers.Problem(problems);
        var day = await turns.RunAsync(() => scheduler.Lay(problem, new(body.Seconds, body.Rounds), gone), gone);
        return day.Answer(laid => new CalcScheduleAnswer(
            [.. laid.Tasks.Select(task => new CalcStart(task.Id, task.Start))], laid.End, laid.Bound, laid.IsProven));
    }

    private static IEnumerable<Problem> Holes(CalcScheduleRequest body)
    {
        for (var i = 0; i < body.Tasks.Count; i++)
        {
            if (body.Tasks[i] is not { } task || string.IsNullOrWhiteSpace(task.Id))
                yield return new("task-unnamed", $"tasks[{i}]", $"Task {i + 1} has no id.");
            else if (task.After?.Any(before => before is null) == true)
                yield return new("task-unknown", $"tasks[{i}].after", $"{task.Id} comes after nothing that has a name.");
        }
    }

    private static ScheduleTask TaskOf(CalcTask task) => new(
        task.Id, [new(task.Minutes, task.Uses ?? new Dictionary<string, int>(StringComparer.Ordinal))],
        [.. (task.After ?? []).Select(before => new TaskBond(before))]);
}
