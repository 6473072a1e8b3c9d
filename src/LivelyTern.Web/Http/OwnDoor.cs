using System.Net;

namespace LivelyTern.Web.Http;

/// <summary>
/// Answers only those who asked for this house by its own name, and takes writes only from its own pages or from a script: a page elsewhere
/// on the net that has its name point here, or sends a form here, is refused before a byte of it is read.
/// </summary>
/// <remarks>A browser says where a request comes from in <c>Origin</c> and <c>Sec-Fetch-Site</c> (WHATWG Fetch, W3C Fetch Metadata); a
/// script says nothing.</remarks>
public sealed class OwnDoor(RequestDelegate next, StartOptions start)
{
    /// <summary>Refuses, or hands on.</summary>
    public Task InvokeAsync(HttpContext context)
    {
        ArgumentNullException.ThrowIfNull(context);
        return Refusal(context.Request) is var (status, type, sentence)
            ? TypedResults.Problem(
                type: "urn:lively-tern:problem:" + type, title: "That is not answered here", detail: sentence,
                statusCode: status).ExecuteAsync(context)
            : next(context);
    }

    private (int Status, string Type, string Sentence)? Refusal(HttpRequest request)
    {
        if (!IsOwnName(request.Host.Host))
        {
            var named = $"This program answers to localhost and to the names given to it with --hosts, not to “{request.Host.Host}”.";
            return (StatusCodes.Status421MisdirectedRequest, "wrong-host", named);
        }

        if (IsRead(request.Method)) return null;
        if (!IsFromHere(request))
            return (StatusCodes.Status403Forbidden, "other-origin", "A page from elsewhere may not change anything here.");
        var hasBody = request.ContentLength is > 0 || request.Headers.TransferEncoding.Count > 0;
        return hasBody && string.IsNullOrWhiteSpace(request.ContentType)
            ? (StatusCodes.Status415UnsupportedMediaType, StatusSentences.Of(415).Type, "Say what is sent, in the Content-Type header.")
            : null;
    }

    private static bool IsRead(string method) => HttpMethods.IsGet(method) || HttpMethods.IsHead(method) || HttpMethods.IsOptions(method);

    private bool IsOwnName(string host) =>
        string.Equals(host, "localhost", StringComparison.OrdinalIgnoreCase)
        || (IPAddress.TryParse(host.Trim('[', ']'), out var address) && IPAddress.IsLoopback(address))
        || start.Hosts.Contains(host, StringComparer.OrdinalIgnoreCase);

    private static bool IsFromHere(HttpRequest request)
    {
        var site = request.Headers["Sec-Fetch-Site"].ToString();
        if (site is not ("" or "same-origin" or "none")) return false;
        var origin = request.Headers.Origin.ToString();
        if (origin.Length == 0) return true;
        return Uri.TryCreate(origin, UriKind.Absolute, out var from) && string.Equals(
            from.Authority, request.Host.Value, StringComparison.OrdinalIgnoreCase);
    }
}
