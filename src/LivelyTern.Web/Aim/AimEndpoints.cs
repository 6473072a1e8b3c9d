using LivelyTern.Core.Aim;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Aim;

/// <summary>An eater as shown.</summary>
public sealed record EaterView(Guid Id, string Name, DayAim Aim, bool ClinicianSetIt, int Version);

/// <summary>An eater as written. <paramref name="ClinicianSetIt"/> confirms an energy aim below the floor.</summary>
public sealed record EaterRequest(string Name, DayAim Aim, bool ClinicianSetIt = false);

/// <summary>What the Aim room offers to start from.</summary>
/// <param name="Rule">A points rule of our own making.</param>
/// <param name="EnergyFloor">Kcal a day below which a clinician must have set the aim.</param>
public sealed record AimStart(PointsRule Rule, decimal EnergyFloor);

/// <summary>Aim: the eaters and what their days may hold.</summary>
public static class AimEndpoints
{
    /// <summary>Maps <c>/api/aim</c>.</summary>
    public static void MapAim(this IEndpointRouteBuilder api)
    {
        var aim = api.MapGroup("/aim").WithTags("Aim");
        aim.MapGet("/start", () => new AimStart(PointsRule.Starting, EnergyFloor.Kilocalories)).WithName("aimStart");
        aim.MapGet("/eaters", async (EaterStore eaters) => (await eaters.ListAsync()).Select(Show).ToList()).WithName("listEaters");
        aim.MapPost("/eaters", async (EaterRequest body, EaterStore eaters) =>
            (await eaters.AddAsync(body.Name, Tidy(body.Aim), body.ClinicianSetIt)).Answer(Show)).WithName("addEater");
        aim.MapPut("/eaters/{id:guid}", ChangeAsync).WithName("changeEater");
        aim.MapDelete("/eaters/{id:guid}", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, EaterStore eaters) =>
            ArchiveAsync(id, ifMatch, eaters, archived: true)).WithName("archiveEater");
        aim.MapPost("/eaters/{id:guid}/restore", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, EaterStore eaters) =>
            ArchiveAsync(id, ifMatch, eaters, archived: false)).WithName("restoreEater");
    }

    /// <summary>An aim without the bands that were sent as null or set no bound.</summary>
    public static DayAim Tidy(DayAim aim)
    {
        ArgumentNullException.ThrowIfNull(aim);
        return aim with { Bands = aim.Bands.Where(band => band.Value is { IsOpen: false }).ToDictionary(band => band.Key, band => band.Value) };
    }

    private static async Task<Results<Ok<EaterView>, ProblemHttpResult>> ChangeAsync(
        Guid id, EaterRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, EaterStore eaters)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        return await (await eaters.ChangeAsync(id, version, body.Name, Tidy(body.Aim), body.ClinicianSetIt))
            .AnswerWriteAsync(row => Task.FromResult(Show(row)), () => CurrentAsync(id, eaters));
    }

    private static async Task<Results<Ok<EaterView>, ProblemHttpResult>> ArchiveAsync(Guid id, string? ifMatch, EaterStore eaters, bool archived)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        return await (await eaters.ArchiveAsync(id, version, archived)).AnswerWriteAsync(row => Task.FromResult(Show(row)), () => CurrentAsync(id, eaters));
    }

    private static async Task<object?> CurrentAsync(Guid id, EaterStore eaters) => await eaters.FindAsync(id) is { } row ? Show(row) : null;

    private static EaterView Show(EaterRow row) => new(row.Id, row.Name, row.Aim, row.ClinicianSetIt, row.Version);
}
