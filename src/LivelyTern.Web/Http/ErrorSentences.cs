using System.Text.Json;
using LivelyTern.Data.Disk;
using Microsoft.AspNetCore.Diagnostics;

namespace LivelyTern.Web.Http;

/// <summary>
/// Requests that can't be read get a sentence, and so does a file or a disk that says no; anything else is a bug, logged whole and answered
/// without its insides.
/// </summary>
public sealed class ErrorSentences(ILogger<ErrorSentences> log, HouseholdFile file) : IExceptionHandler
{
    /// <inheritdoc/>
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        ArgumentNullException.ThrowIfNull(httpContext);
        if (FileTrouble.Of(exception) is { } trouble)
        {
            file.Met(trouble);
            log.LogWarning(exception, "The household's file said no at {Path}", httpContext.Request.Path);
            await Answers.Trouble(trouble).ExecuteAsync(httpContext);
            return true;
        }

        var (status, type, sentence, field) = Of(exception);
        if (status == 500) log.LogError(exception, "Unhandled error at {Path}", httpContext.Request.Path);
        var problem = TypedResults.Problem(
            type: "urn:lively-tern:problem:" + type, title: "That can't be read", detail: sentence, statusCode: status,
            extensions: field is null ? null : new Dictionary<string, object?>(StringComparer.Ordinal) { ["field"] = field });
        await problem.ExecuteAsync(httpContext);
        return true;
    }

    private static (int Status, string Type, string Sentence, string? Field) Of(Exception exception)
    {
        if (exception is BadHttpRequestException { InnerException: JsonException json })
        {
            var where = json.Path ?? "its start";
            var said = $"The request can't be read at {where}: it is not the JSON expected there.";
            return (400, "unreadable", said, json.Path?.TrimStart('$').TrimStart('.'));
        }

        if (exception is BadHttpRequestException bad)
        {
            var (kind, said) = StatusSentences.Of(bad.StatusCode);
            return (bad.StatusCode, kind, said, null);
        }

        return (500, "bug", "Something went wrong in the program. Nothing was saved; what you typed is still on the screen.", null);
    }
}

/// <summary>Statuses that come without a body get the same shape.</summary>
public static class StatusSentences
{
    /// <summary>The type and the sentence of a status.</summary>
    public static (string Type, string Sentence) Of(int status) => status switch
    {
        400 => ("unreadable", "The request can't be read: a value is missing or of the wrong kind."),
        404 => ("not-found", "There is nothing at this address."),
        405 => ("wrong-method", "This address does not take that kind of request."),
        413 => ("too-large", "That is more than can be taken here: 1 MB, 10 MB for a recipe's file, 2 GB for a table of foods."),
        415 => ("not-json", "Send the request as JSON (Content-Type: application/json)."),
        _ => ("unmet", "The request can't be answered as it stands."),
    };

    /// <summary>Writes problem details for a bare status.</summary>
    public static Task WriteAsync(StatusCodeContext context)
    {
        ArgumentNullException.ThrowIfNull(context);
        var status = context.HttpContext.Response.StatusCode;
        var (type, sentence) = Of(status);
        var problem = TypedResults.Problem(
            type: "urn:lively-tern:problem:" + type, title: "That can't be read", detail: sentence, statusCode: status);
        return problem.ExecuteAsync(context.HttpContext);
    }
}
