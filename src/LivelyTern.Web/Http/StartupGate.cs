namespace LivelyTern.Web.Http;

/// <summary>
/// Holds requests that need the household's file until it is open. Pages, scripts and styles do not need it and are served at once.
/// </summary>
public sealed class StartupGate
{
    private static readonly string[] NeedTheFile = ["/api", "/health", "/openapi"];
    private readonly TaskCompletionSource opened = new(TaskCreationOptions.RunContinuationsAsynchronously);

    /// <summary>Lets requests through from now on.</summary>
    public void Open() => opened.TrySetResult();

    /// <summary>Waits until the file is open.</summary>
    /// <exception cref="OperationCanceledException">Whoever waits has gone.</exception>
    public Task WaitAsync(CancellationToken stop) => opened.Task.WaitAsync(stop);

    /// <summary>The gate as middleware.</summary>
    public async Task PassAsync(HttpContext context, RequestDelegate next)
    {
        ArgumentNullException.ThrowIfNull(context);
        ArgumentNullException.ThrowIfNull(next);
        if (!opened.Task.IsCompleted && NeedTheFile.Any(path => context.Request.Path.StartsWithSegments(path, StringComparison.Ordinal)))
            await WaitAsync(context.RequestAborted);
        await next(context);
    }
}
