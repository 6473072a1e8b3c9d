using Microsoft.Net.Http.Headers;

namespace LivelyTern.Web.Http;

/// <summary>
/// Tells the browser to fetch nothing from anywhere else: fonts, styles, scripts and data ship with the program. The API page at /docs
/// carries inline script of its own; it too may talk only to this host.
/// </summary>
public sealed class ShippedOnly(RequestDelegate next)
{
    /// <summary>Adds the policy and hands on.</summary>
    public Task InvokeAsync(HttpContext context)
    {
        ArgumentNullException.ThrowIfNull(context);
        var scripts = context.Request.Path.StartsWithSegments("/docs", StringComparison.Ordinal)
            ? "'self' 'unsafe-inline' 'unsafe-eval'"
            : "'self'";
        var policy =
            $"default-src 'self'; script-src {scripts}; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self' data:; "
            + "connect-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'; object-src 'none'";

        // At the very last, for an answer that became an error lost what was on it before.
        context.Response.OnStarting(() =>
        {
            context.Response.Headers.ContentSecurityPolicy = policy;
            context.Response.Headers.XContentTypeOptions = "nosniff";
            context.Response.Headers["Referrer-Policy"] = "no-referrer";
            return Task.CompletedTask;
        });
        return next(context);
    }

    /// <summary>Built files carry their hash in the name and may be kept; the page itself is asked for each time.</summary>
    public static StaticFileOptions CacheForever() => new()
    {
        OnPrepareResponse = file => file.Context.Response.Headers[HeaderNames.CacheControl] =
            file.Context.Request.Path.StartsWithSegments("/assets", StringComparison.Ordinal)
                ? "public, max-age=31536000, immutable"
                : "no-cache",
    };
}
