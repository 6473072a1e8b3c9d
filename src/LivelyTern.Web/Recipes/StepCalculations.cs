using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Recipes;

/// <summary>Steps to be read.</summary>
/// <param name="Steps">Their sentences, in order.</param>
/// <param name="Said">For each what the cook says otherwise, or null; its text counts for nothing here.</param>
public sealed record StepsRequest(IReadOnlyList<string> Steps, IReadOnlyList<RecipeStep?>? Said = null);

/// <summary>Minutes of a step, or of several.</summary>
/// <param name="HandsOn">With both hands.</param>
/// <param name="Unattended">Passing by themselves.</param>
/// <param name="IsAbout">Whether some are the usual ones and not said.</param>
public sealed record StepMinutes(int HandsOn, int Unattended, bool IsAbout);

/// <summary>One way of doing a step.</summary>
/// <param name="Minutes">How long it takes.</param>
/// <param name="Celsius">Degrees of the oven or the like; null where none are said.</param>
/// <param name="Uses">What it occupies.</param>
/// <param name="Parts">What is done, in order.</param>
public sealed record StepWayView(
    StepMinutes Minutes, int? Celsius, IReadOnlyList<Occupies> Uses, IReadOnlyList<StepPart> Parts)
{
    /// <summary>A way as shown.</summary>
    public static StepWayView Of(StepWay way)
    {
        ArgumentNullException.ThrowIfNull(way);
        return new(new(way.HandsOn, way.Unattended, way.IsAbout), way.Celsius, way.Uses, way.Parts);
    }
}

/// <summary>A step as it is done.</summary>
/// <param name="Minutes">How long it takes.</param>
/// <param name="Celsius">Degrees of the oven or the like; null where none are said.</param>
/// <param name="Uses">What it occupies.</param>
/// <param name="Parts">What is done, in order.</param>
/// <param name="Sentence">What the sentence alone says.</param>
/// <param name="OtherWays">How else it may be done, where the sentence says so.</param>
/// <param name="AtATime">How many pieces go in at once, where that is said.</param>
/// <param name="Loads">In how many loads, where that is said.</param>
/// <param name="NotUnderstood">Words that would tell a schedule something, and are not understood.</param>
/// <param name="DaysAhead">Up to how many days before it may be done, where its sentence says so.</param>
public sealed record StepView(
    StepMinutes Minutes, int? Celsius, IReadOnlyList<Occupies> Uses, IReadOnlyList<StepPart> Parts, StepWayView Sentence,
    IReadOnlyList<StepWayView> OtherWays, int? AtATime, int? Loads, IReadOnlyList<string> NotUnderstood,
    int? DaysAhead)
{
    /// <summary>A step as shown.</summary>
    public static StepView Of(StepToDo step)
    {
        ArgumentNullException.ThrowIfNull(step);
        var (done, reading) = (StepWayView.Of(step.Way), step.Reading);
        return new(
            done.Minutes, done.Celsius, done.Uses, done.Parts, StepWayView.Of(reading.Way),
            [.. reading.OtherWays.Select(StepWayView.Of)], reading.AtATime, reading.Loads, reading.NotUnderstood,
            reading.DaysAhead);
    }
}

/// <summary>The steps, read, and their minutes all together.</summary>
public sealed record StepsAnswer(IReadOnlyList<StepView> Steps, StepMinutes Total);

/// <summary>What steps tell a schedule; nothing is stored.</summary>
public static class StepCalculations
{
    /// <summary>Maps <c>/api/calc/steps</c>.</summary>
    public static void MapStepCalculations(this IEndpointRouteBuilder api) =>
        api.MapGroup("/calc").WithTags("Calculate").MapPost("/steps", Read).WithName("calcSteps");

    private static Results<Ok<StepsAnswer>, ProblemHttpResult> Read(StepsRequest body)
    {
        RecipeStep StepAt(string? text, int i) =>
            (body.Said is { } said && i < said.Count ? said[i] : null) is { } own ? own with { Text = text ?? "" } : new(text ?? "");
        List<RecipeStep> steps = [.. body.Steps.Select(StepAt)];
        var problems = WrittenRecipe.StepProblems(steps).ToList();
        if (problems.Count > 0) return Answers.Problem(problems);
        var read = StepToDo.Of(steps);
        var total = new StepWay([.. read.SelectMany(step => step.Way.Parts)]);
        return TypedResults.Ok(new StepsAnswer([.. read.Select(StepView.Of)], new(total.HandsOn, total.Unattended, total.IsAbout)));
    }
}
