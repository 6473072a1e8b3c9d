using LivelyTern.Core.Cook.Schedule;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Core.Cook.PrepDay;

/// <summary>When an oven is turned on, or to another heat.</summary>
/// <param name="Oven">Which oven, by its capacity.</param>
/// <param name="From">The minute it is turned.</param>
/// <param name="To">The minute it has come to its heat.</param>
/// <param name="Celsius">To what.</param>
public sealed record WarmUpTime(string Oven, int From, int To, int Celsius);

/// <summary>When the ovens of a day are turned on: as late as they can be, and off where nothing bakes for a while.</summary>
public static class OvenWarmUps
{
    // Shorter than this an oven stays on between two dishes.
    private const int StaysOn = 30;

    /// <summary>All of a day, in order.</summary>
    public static IReadOnlyList<WarmUpTime> Of(ScheduleProblem problem, LaidDay day)
    {
        ArgumentNullException.ThrowIfNull(problem);
        ArgumentNullException.ThrowIfNull(day);
        var found = new List<WarmUpTime>();
        foreach (var oven in problem.Heated.Keys)
        {
            (int To, int Celsius)? before = problem.Warm.TryGetValue(oven, out var stands)
                ? (Math.Max(stands.From, problem.Now), stands.Celsius)
                : null;
            foreach (var (start, end, celsius) in Baking(problem, day, oven))
            {
                var isOn = before is { } last && start - last.To < StaysOn;
                if (!isOn) found.Add(new(oven, start - WarmUp.FromCold(celsius), start, celsius));
                else if (before is { } other && start >= other.To && WarmUp.Between(other.Celsius, celsius) is > 0 and var turn)
                    found.Add(new(oven, start - turn, start, celsius));
                before = (Math.Max(end, before?.To ?? 0), celsius);
            }
        }

        return [.. found.OrderBy(time => time.From)];
    }

    private static IEnumerable<(int Start, int End, int Celsius)> Baking(ScheduleProblem problem, LaidDay day, string oven) =>
        day.Tasks.Zip(problem.Tasks, (place, task) => (place, Heat: task.Modes[place.Mode].Heat))
            .Where(pair => pair.Heat?.ContainsKey(oven) == true && pair.place.End > pair.place.Start)
            .Select(pair => (pair.place.Start, pair.place.End, pair.Heat![oven])).OrderBy(one => one.Start);
}
