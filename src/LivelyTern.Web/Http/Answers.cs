using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Disk;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Http;

/// <summary>Outcomes as HTTP answers: the value, or RFC 9457 problem details with a sentence and the field it concerns.</summary>
public static class Answers
{
    /// <summary>The code of a refusal for now: too many ask for something at once.</summary>
    public const string BusyCode = "busy";

    private static readonly HashSet<string> Conflicts = new(StringComparer.Ordinal)
    {
        "box-taken", "plan-moved-on", "item-gone", "item-eaten", "item-box", "boxes-eaten", "batch-packed", "batch-cooked", "batch-ahead",
        "batch-moved-on", "portions-laid", "portions-before", "not-packed", "eater-has-boxes",
        "item-elsewhere", "undone-already", "mend-gone", "box-gone", "boxes-gone", "boxes-composed", "batch-not-packed",
        "batch-there",
    };

    /// <summary>The value, shown; or the problem.</summary>
    public static async Task<Results<Ok<TView>, ProblemHttpResult>> AnswerAsync<T, TView>(
        this Outcome<T> outcome, Func<T, Task<TView>> show) =>
        outcome.Succeeded ? TypedResults.Ok(await show(outcome.Value!)) : Problem(outcome.Problems);

    /// <summary>The value, shown; or the problem.</summary>
    public static Results<Ok<TView>, ProblemHttpResult> Answer<T, TView>(this Outcome<T> outcome, Func<T, TView> show) =>
        outcome.Succeeded ? TypedResults.Ok(show(outcome.Value!)) : Problem(outcome.Problems);

    /// <summary>Problems as problem details: the first names the type, all are listed with their fields.</summary>
    /// <param name="problems">What is wrong; at least one.</param>
    /// <param name="more">Further members, such as what a line could mean.</param>
    public static ProblemHttpResult Problem(IReadOnlyList<Problem> problems, IDictionary<string, object?>? more = null)
    {
        ArgumentNullException.ThrowIfNull(problems);
        var first = problems[0];
        var extensions = new Dictionary<string, object?>(StringComparer.Ordinal)
        {
            ["field"] = first.Field,
            ["errors"] = problems,
        };
        foreach (var (name, value) in more ?? new Dictionary<string, object?>(StringComparer.Ordinal)) extensions[name] = value;
        var status = first.Code switch
        {
            Stale.Code => StatusCodes.Status412PreconditionFailed,
            Stale.GoneCode => StatusCodes.Status404NotFound,
            BusyCode => StatusCodes.Status503ServiceUnavailable,
            var code when Conflicts.Contains(code) => StatusCodes.Status409Conflict,
            _ => StatusCodes.Status422UnprocessableEntity,
        };
        return TypedResults.Problem(
            type: "urn:lively-tern:problem:" + first.Code, title: "That can't be done as it stands", detail: first.Sentence,
            statusCode: status, extensions: extensions);
    }

    /// <summary>Something is wrong with the household's file or its disk.</summary>
    public static ProblemHttpResult Trouble(FileTrouble trouble)
    {
        ArgumentNullException.ThrowIfNull(trouble);
        return TypedResults.Problem(
            type: "urn:lively-tern:problem:" + trouble.Code, title: "The household's file says no", detail: trouble.Sentence,
            statusCode: trouble.Status);
    }

    /// <summary>A write's answer, where a stale one also carries the state as it is now.</summary>
    public static async Task<Results<Ok<TView>, ProblemHttpResult>> AnswerWriteAsync<T, TView>(
        this Outcome<T> outcome, Func<T, Task<TView>> show, Func<Task<object?>> current) =>
        outcome.Succeeded || !string.Equals(outcome.Problems[0].Code, Stale.Code, StringComparison.Ordinal)
            ? await outcome.AnswerAsync(show)
            : Problem(outcome.Problems, new Dictionary<string, object?>(StringComparer.Ordinal) { ["current"] = await current() });

    /// <summary>The version a write carries in <c>If-Match</c>, with or without quotes.</summary>
    /// <returns>The version, or the answer that asks for one.</returns>
    public static (int Version, ProblemHttpResult? Missing) VersionOf(string? ifMatch) =>
        int.TryParse((ifMatch ?? "").Trim().Trim('"'), out var version)
            ? (version, null)
            : (0, TypedResults.Problem(
                type: "urn:lively-tern:problem:version-missing", title: "Say which version you saw",
                detail: "A change must carry the version it was made on, in the If-Match header.",
                statusCode: StatusCodes.Status428PreconditionRequired));
}
