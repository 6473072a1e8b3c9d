using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web;

/// <summary>
/// The machine's clock, moved to another moment where that is wished. In a demo, and for tests, time can be let pass: nobody waits four
/// hours for a slow cooker.
/// </summary>
public sealed class PlayedClock : TimeProvider, IMovableClock
{
    private readonly DateTimeOffset opened = System.GetLocalNow();
    private readonly long shift;
    private readonly bool standsStill;
    private long passed;

    /// <summary>Such a clock.</summary>
    /// <param name="begins">The moment it is now, where the household lives; null for what the machine's clock says.</param>
    /// <param name="isPlayed">Whether time can be let pass.</param>
    /// <param name="standsStill">Whether it passes in no other way.</param>
    public PlayedClock(DateTime? begins, bool isPlayed, bool standsStill = false)
    {
        shift = begins is { } moment ? moment.Ticks - opened.DateTime.Ticks : 0;
        (IsPlayed, this.standsStill) = (isPlayed, standsStill);
    }

    /// <summary>Whether time can be let pass.</summary>
    public bool IsPlayed { get; }

    /// <inheritdoc/>
    public override DateTimeOffset GetUtcNow() =>
        (standsStill ? opened.ToUniversalTime() : System.GetUtcNow()).AddTicks(shift + Interlocked.Read(ref passed));

    /// <summary>So much time has passed.</summary>
    public void Pass(TimeSpan time) => Interlocked.Add(ref passed, time.Ticks);

    /// <inheritdoc/>
    public void MoveTo(DateTimeOffset moment) => Pass(moment - GetUtcNow());
}

/// <summary>Minutes that are let pass.</summary>
public sealed record PassRequest(int Minutes);

/// <summary>A demo's clock, to play with.</summary>
public static class PlayedTimeEndpoint
{
    private const int MostMinutes = 1440;

    /// <summary>Maps <c>/api/demo/pass</c>.</summary>
    public static void MapPlayedTime(this IEndpointRouteBuilder api) =>
        api.MapPost("/demo/pass", Results<Ok<PassRequest>, ProblemHttpResult> (PassRequest body, StartOptions start) =>
        {
            if (start.Clock is not PlayedClock { IsPlayed: true } clock)
                return Answers.Problem([new("clock-real", "", "This is a real kitchen's clock: only a demo's can be moved.")]);
            if (body.Minutes is < 1 or > MostMinutes)
                return Answers.Problem([new("minutes-absurd", "minutes", $"Between 1 and {MostMinutes} minutes pass at a time.")]);
            clock.Pass(TimeSpan.FromMinutes(body.Minutes));
            return TypedResults.Ok(body);
        }).WithTags("Overview").WithName("passTime");
}
