using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Aim;

/// <summary>An eater as shown.</summary>
/// <param name="Id">The eater.</param>
/// <param name="Name">As the others call them.</param>
/// <param name="Aim">Their usual day, with all the bounds that follow.</param>
/// <param name="Written">Its bands as they were written.</param>
/// <param name="Macros">What the day's protein, carbohydrate and fat come to; null where not all three have a band.</param>
/// <param name="RuleExample">What their points rule makes of a plate; null without a rule.</param>
/// <param name="ClinicianSetIt">Whether a clinician set an energy aim below the floor.</param>
/// <param name="Version">The version to write on.</param>
/// <param name="Ways">How they eat.</param>
/// <param name="Body">The body that is kept, or null.</param>
/// <param name="IsQuiet">Whether no figures of energy or body are shown to them.</param>
public sealed record EaterView(
    Guid Id, string Name, DayAim Aim, IReadOnlyDictionary<Measure, Band> Written, MacroEnergy? Macros,
    RuleExample? RuleExample, bool ClinicianSetIt, int Version, EatingWays Ways, Body? Body, bool IsQuiet);

/// <summary>Whether no figures of energy or body are to be shown to an eater.</summary>
public sealed record QuietRequest(bool IsQuiet);

/// <summary>An eater as written.</summary>
/// <param name="ClinicianSetIt">Confirms an energy aim below the floor.</param>
/// <param name="Name">As the others call them.</param>
/// <param name="Aim">Their usual day.</param>
/// <param name="Ways">How they eat; null leaves it as it is.</param>
/// <param name="Body">The body to be kept; null leaves it as it is.</param>
public sealed record EaterRequest(string Name, DayAim Aim, bool ClinicianSetIt = false, EatingWays? Ways = null, Body? Body = null);

/// <summary>One measure's band for one date; a null band takes it away.</summary>
public sealed record DateBandRequest(Measure Measure, Band? Band, string Name = "that day");

/// <summary>The band that the date had before, so that it can be put back.</summary>
public sealed record DateBandAnswer(Band? Before);

/// <summary>Days on which an eater is away, or here after all.</summary>
/// <param name="Days">The days, from today on.</param>
/// <param name="IsAway">Whether they are away.</param>
/// <param name="Slot">The part of each day; null for the whole day.</param>
public sealed record AwayRequest(IReadOnlyList<DateOnly> Days, bool IsAway, string? Slot = null);

/// <summary>The days for which that is new: saying the contrary of just these takes it back.</summary>
public sealed record AwayAnswer(IReadOnlyList<DateOnly> Changed);

/// <summary>A need to be worked out, nothing stored.</summary>
/// <param name="Body">The body.</param>
/// <param name="Activity">Need as a multiple of resting energy.</param>
/// <param name="RateKgPerWeek">Kilograms a week to lose; below zero to gain.</param>
/// <param name="ProteinPerKg">Grams of protein for each kilogram of weight.</param>
/// <param name="FatShare">The share of the energy that is fat, 0 to 1.</param>
public sealed record NeedRequest(Body Body, decimal Activity, decimal RateKgPerWeek, decimal ProteinPerKg = 1.2m, decimal FatShare = 0.3m);

/// <summary>The aim that an eater's first few numbers make, nothing stored.</summary>
/// <param name="Aim">With all the bounds that follow, to be drawn.</param>
/// <param name="Written">As it is to be kept.</param>
public sealed record FirstAim(DayAim Aim, DayAim Written);

/// <summary>A level of activity.</summary>
public sealed record ActivityView(string Name, decimal Factor);

/// <summary>What the Aim room offers to start from.</summary>
/// <param name="Rules">Points rules of our own making; the first is the one a new eater starts from.</param>
/// <param name="EnergyFloor">Kcal a day below which a clinician must have set the aim.</param>
/// <param name="Slots">The slots of an eater who has named none.</param>
/// <param name="Activities">Levels of activity for a need.</param>
public sealed record AimStart(
    IReadOnlyList<PointsRule> Rules, decimal EnergyFloor, IReadOnlyList<Slot> Slots, IReadOnlyList<ActivityView> Activities);

/// <summary>Aim: the eaters and what their days may hold.</summary>
public static class AimEndpoints
{
    /// <summary>Maps <c>/api/aim</c>.</summary>
    public static void MapAim(this IEndpointRouteBuilder api)
    {
        var aim = api.MapGroup("/aim").WithTags("Aim");
        aim.MapGet("/start", Start).WithName("aimStart");
        aim.MapGet("/eaters", async (EaterStore eaters) => (await eaters.ListAsync()).Select(row => Show(row, eaters.Today)).ToList())
            .WithName("listEaters");
        aim.MapPost("/eaters", async (EaterRequest body, EaterStore eaters) =>
            (await eaters.AddAsync(body.Name, Tidy(body.Aim), body.ClinicianSetIt)).Answer(row => Show(row, eaters.Today)))
            .WithName("addEater");
        aim.MapPut("/eaters/{id:guid}", ChangeAsync).WithName("changeEater");
        aim.MapPut("/eaters/{id:guid}/dates/{day}", async (Guid id, DateOnly day, DateBandRequest body, EaterStore eaters) =>
            (await eaters.SetDateAsync(id, day, body.Measure, body.Band?.Written(), body.Name))
            .Answer(set => new DateBandAnswer(set.Before)))
            .WithName("setDateBand");
        aim.MapPut("/eaters/{id:guid}/away", async (Guid id, AwayRequest body, EaterStore eaters) =>
            (await eaters.SetAwayAsync(id, body.Days, body.Slot, body.IsAway)).Answer(changed => new AwayAnswer(changed)))
            .WithName("setAway");
        aim.MapPut("/eaters/{id:guid}/quiet", async (Guid id, QuietRequest body, EaterStore eaters) =>
            (await eaters.SetQuietAsync(id, body.IsQuiet)).Answer(row => Show(row, eaters.Today))).WithName("setQuiet");
        api.MapPost("/calc/need", (NeedRequest body) =>
            EnergyNeed.Of(body.Body, body.Activity, body.RateKgPerWeek, body.ProteinPerKg, body.FatShare).Answer(need => need))
            .WithTags("Calculate").WithName("calcNeed");
        api.MapPost("/calc/first-aim", (FirstNumbers body) => body.Aim().Answer(aim => new FirstAim(aim.Resolved(), aim)))
            .WithTags("Calculate").WithName("calcFirstAim");
        aim.MapPost("/eaters/{id:guid}/restore", (Guid id, [FromHeader(Name = "If-Match")] string? ifMatch, EaterStore eaters) =>
            ArchiveAsync(id, ifMatch, eaters, version => eaters.ArchiveAsync(id, version, archived: false))).WithName("restoreEater");
    }

    private static AimStart Start() => new(
        PointsRule.StartingRules, EnergyFloor.Kilocalories, EatingWays.StartingSlots,
        [.. EnergyNeed.Activities.Select(level => new ActivityView(level.Name, level.Factor))]);

    /// <summary>An aim without the bands that were sent as null or set no bound.</summary>
    public static DayAim Tidy(DayAim aim)
    {
        ArgumentNullException.ThrowIfNull(aim);
        return aim with { Bands = Tidy(aim.Bands) };
    }

    private static EatingWays? Tidy(EatingWays? ways) =>
        ways is null ? null : ways with { OtherDays = [.. ways.OtherDays.Select(other => other with { Bands = Tidy(other.Bands) })] };

    private static Dictionary<Measure, Band> Tidy(IReadOnlyDictionary<Measure, Band> bands) =>
        bands.Where(band => band.Value is { IsOpen: false } or { Tolerance: not null })
            .ToDictionary(band => band.Key, band => band.Value.Written());

    private static async Task<Results<Ok<EaterView>, ProblemHttpResult>> ChangeAsync(
        Guid id, EaterRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, EaterStore eaters)
    {
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        return await (await eaters.ChangeAsync(id, version, body.Name, Tidy(body.Aim), body.ClinicianSetIt, Tidy(body.Ways), body.Body))
            .AnswerWriteAsync(row => Task.FromResult(Show(row, eaters.Today)), () => CurrentAsync(id, eaters));
    }

    /// <summary>Takes an eater off the table or back to it, at the version the request carries.</summary>
    public static async Task<Results<Ok<EaterView>, ProblemHttpResult>> ArchiveAsync(
        Guid id, string? ifMatch, EaterStore eaters, Func<int, Task<Outcome<EaterRow>>> archive)
    {
        ArgumentNullException.ThrowIfNull(eaters);
        ArgumentNullException.ThrowIfNull(archive);
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        return await (await archive(version)).AnswerWriteAsync(
            row => Task.FromResult(Show(row, eaters.Today)), () => CurrentAsync(id, eaters));
    }

    private static async Task<object?> CurrentAsync(Guid id, EaterStore eaters) =>
        await eaters.FindAsync(id) is { } row ? Show(row, eaters.Today) : null;

    private static EaterView Show(EaterRow row, DateOnly today) =>
        new(
            row.Id, row.Name, row.Aim.Resolved(), row.Aim.Bands, MacroEnergy.Of(row.Aim), RuleExample.Of(row.Aim.Rule),
            row.ClinicianSetIt, row.Version, row.WaysFrom(today), row.Body, row.IsQuiet);
}
