using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Recipes.Steps;

/// <summary>
/// A recipe from elsewhere says what all its steps take together, "prep 20 minutes, cooking 90": shared by the steps that do not say their
/// own, as far as their own leave something.
/// </summary>
public static class SaidTotals
{
    /// <summary>The steps with their shares.</summary>
    /// <param name="steps">As written; at least one.</param>
    /// <param name="handsOn">Minutes with both hands, all together; null where that is not said.</param>
    /// <param name="unattended">Minutes that pass by themselves.</param>
    public static IReadOnlyList<RecipeStep> Share(IReadOnlyList<RecipeStep> steps, int? handsOn, int? unattended)
    {
        ArgumentNullException.ThrowIfNull(steps);
        var ways = StepToDo.Of(steps).Select(step => step.Way).ToList();
        var shared = steps.ToList();
        if (handsOn is { } hands) Give(hands, true, 0, (step, minutes) => step with { HandsOn = minutes });
        if (unattended is { } waits) Give(waits, false, shared.Count - 1, (step, minutes) => step with { Unattended = minutes });
        return shared;

        void Give(int minutes, bool isHandsOn, int fallback, Func<RecipeStep, int, RecipeStep> set)
        {
            int Of(StepWay way, bool isAbout) =>
                way.Parts.Where(part => part.IsHandsOn == isHandsOn && part.IsAbout == isAbout).Sum(part => part.Minutes);
            var (said, about) = (ways.Sum(way => Of(way, false)), ways.Sum(way => Of(way, true)));
            var rest = minutes - said;
            if (said + about == 0) shared[fallback] = set(shared[fallback], minutes);
            if (rest <= 0 || about == 0) return;
            var (reached, given) = (0, 0);
            for (var i = 0; i < shared.Count; i++)
            {
                if (Of(ways[i], true) is not (> 0 and var own)) continue;
                reached += own;
                var upTo = (int)Rounding.ToStep((decimal)rest * reached / about, 1);
                shared[i] = set(shared[i], Of(ways[i], false) + upTo - given);
                given = upTo;
            }
        }
    }
}
