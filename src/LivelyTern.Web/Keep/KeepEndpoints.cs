using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Pack;
using LivelyTern.Data;
using LivelyTern.Data.Keep;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Keep;

/// <summary>A box, at the version it was read at.</summary>
public sealed record BoxAt(Guid Id, int Version);

/// <summary>Boxes to be put somewhere: all of them or none.</summary>
/// <param name="Boxes">The boxes.</param>
/// <param name="Place">Where.</param>
/// <param name="On">The day it was done, where it is written down later; null for today.</param>
/// <param name="IsBack">Whether it takes back that they were put where they are: then they stand as they did before.</param>
public sealed record PutBoxesRequest(IReadOnlyList<BoxAt> Boxes, BoxPlace Place, DateOnly? On = null, bool IsBack = false);

/// <summary>Boxes that somebody looked after: they are still there.</summary>
public sealed record StillThereRequest(IReadOnlyList<BoxAt> Boxes);

/// <summary>Their versions now.</summary>
public sealed record PutBoxesAnswer(IReadOnlyList<BoxAt> Boxes);

/// <summary>How long one kind keeps.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="FridgeDays">Days in the fridge, as they count: the shorter end.</param>
/// <param name="FridgeDaysMost">The longer end.</param>
/// <param name="FreezerDays">Days in the freezer; null for what does not freeze well.</param>
/// <param name="FreezerDaysMost">The longer end.</param>
/// <param name="Source">The guideline.</param>
public sealed record KeepingRuleView(
    KeepingKind Kind, int FridgeDays, int FridgeDaysMost, int? FreezerDays, int? FreezerDaysMost, string Source)
{
    /// <summary>A rule as shown.</summary>
    public static KeepingRuleView Of(KeepingRule rule)
    {
        ArgumentNullException.ThrowIfNull(rule);
        return new(rule.Kind, rule.Fridge.Least, rule.Fridge.Most, rule.Freezer?.Least, rule.Freezer?.Most, rule.Source);
    }
}

/// <summary>A guideline set.</summary>
/// <param name="Code">How a script names it.</param>
/// <param name="Name">How a cook does.</param>
/// <param name="FridgeCelsius">The fridge it counts on, in °C.</param>
/// <param name="Rules">What it says of each kind.</param>
public sealed record GuidelineSetView(string Code, string Name, decimal FridgeCelsius, IReadOnlyList<KeepingRuleView> Rules);

/// <summary>The guideline sets, and the household's choice.</summary>
/// <param name="Sets">The sets.</param>
/// <param name="Chosen">The code of the household's.</param>
/// <param name="Own">Days in the fridge of its own, by kind.</param>
/// <param name="DaysThawed">Days in the fridge after the freezer.</param>
/// <param name="Version">The version to change the choice on; 0 while nobody chose.</param>
public sealed record GuidelinesView(
    IReadOnlyList<GuidelineSetView> Sets, string Chosen, IReadOnlyDictionary<KeepingKind, int> Own, int DaysThawed, int Version);

/// <summary>The household's choice.</summary>
/// <param name="Guidelines">The code of a set.</param>
/// <param name="Own">Days in the fridge of its own, by kind; none longer than the set's.</param>
public sealed record KeepingRulesRequest(string Guidelines, IReadOnlyDictionary<KeepingKind, int> Own);

/// <summary>The version of the choice now.</summary>
public sealed record KeepingRulesAnswer(int Version);

/// <summary>Something cooked, of some kinds; nothing stored.</summary>
/// <param name="CookedOn">The day it was cooked.</param>
/// <param name="Kinds">What is in it: the strictest rules.</param>
/// <param name="Guidelines">"us" or "uk".</param>
public sealed record CalcKeepRequest(DateOnly CookedOn, IReadOnlyList<KeepingKind> Kinds, string Guidelines);

/// <summary>How long it keeps.</summary>
/// <param name="Fridge">The last day in the fridge.</param>
/// <param name="Freezer">The last day in the freezer, frozen in time; null where it does not freeze well.</param>
/// <param name="Rule">The rule that decides in the fridge, with its source.</param>
/// <param name="FreezerRule">The rule that decides in the freezer.</param>
public sealed record CalcKeepAnswer(DateOnly Fridge, DateOnly? Freezer, KeepingRuleView Rule, KeepingRuleView FreezerRule);

/// <summary>A caution.</summary>
/// <param name="Code">Its stable name.</param>
/// <param name="Title">A few words.</param>
/// <param name="Text">What to do.</param>
/// <param name="Source">Who says so.</param>
/// <param name="IsRead">Whether somebody has read it: then it is not shown by itself any more.</param>
public sealed record CautionView(string Code, string Title, string Text, string Source, bool IsRead);

/// <summary>Whether a caution was read.</summary>
public sealed record ReadCautionRequest(bool IsRead);

/// <summary>The caution.</summary>
public sealed record ReadCautionAnswer(string Code);

/// <summary>Keep: where boxes are, by which rules they keep, what to look out for.</summary>
public static class KeepEndpoints
{
    private const int MostKinds = 50;

    /// <summary>Maps what of <c>/api/keep</c> touches no day, and <c>/api/calc/keep</c>.</summary>
    public static void MapKeep(this IEndpointRouteBuilder api)
    {
        var keep = api.MapGroup("/keep").WithTags("Keep");
        keep.MapPost("/boxes/put", async (PutBoxesRequest body, PutBoxes boxes, TimeProvider clock) =>
        {
            var put = await boxes.DoAsync(Which(body.Boxes), body.Place, body.On ?? clock.Today(), clock.Today(), body.IsBack);
            return put.Answer(Show);
        }).WithName("putBoxes");
        keep.MapPost("/boxes/still-there", async (StillThereRequest body, PutBoxes boxes) =>
            (await boxes.StillThereAsync(Which(body.Boxes))).Answer(Show)).WithName("boxesStillThere");
        keep.MapGet("/guidelines", async (KeepingStore store) =>
        {
            var (rules, version) = await store.RulesAsync();
            GuidelineSetView Set(GuidelineSet set) => new(set.Code, set.Name, set.Fridge, [.. set.Rules.Select(KeepingRuleView.Of)]);
            return new GuidelinesView([.. GuidelineSet.All.Select(Set)], rules.Set.Code, rules.Own, GuidelineSet.DaysThawed, version);
        }).WithName("getGuidelines");
        keep.MapPut("/guidelines", async Task<Results<Ok<KeepingRulesAnswer>, ProblemHttpResult>> (
            KeepingRulesRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, KeepingStore store) =>
        {
            var (version, missing) = Answers.VersionOf(ifMatch);
            if (missing is not null) return missing;
            return (await store.SetAsync(version, body.Guidelines, body.Own)).Answer(now => new KeepingRulesAnswer(now));
        }).WithName("chooseGuidelines");
        keep.MapGet("/cautions", async (KeepingStore store) =>
        {
            var read = await store.ReadCautionsAsync();
            return Caution.All.Select(one => new CautionView(one.Code, one.Title, one.Text, one.Source, read.Contains(one.Code))).ToList();
        }).WithName("listCautions");
        keep.MapPut("/cautions/{code}", async (string code, ReadCautionRequest body, KeepingStore store) =>
            (await store.ReadAsync(code, body.IsRead)).Answer(read => new ReadCautionAnswer(read))).WithName("readCaution");
        api.MapPost("/calc/keep", Calc).WithTags("Calculate").WithName("calcKeep");
    }

    private static Results<Ok<CalcKeepAnswer>, ProblemHttpResult> Calc(CalcKeepRequest body)
    {
        if (GuidelineSet.Find(body.Guidelines) is not { } set) return Answers.Problem([GuidelineSet.Unknown]);
        if (body.Kinds.Count is 0 or > MostKinds)
            return Answers.Problem([new("kinds-none", "kinds", $"Say what is in it: between 1 and {MostKinds} kinds.")]);
        if (body.Kinds.Any(kind => set.Of(kind) is null))
        {
            var sentence = $"{set.Name} has no days for one of these: what is raw goes by the date on its package.";
            return Answers.Problem([new("kind-unknown", "kinds", sentence)]);
        }

        var useBy = UseBy.From(body.CookedOn, body.Kinds, KeepingRules.Of(set));
        return TypedResults.Ok(new CalcKeepAnswer(
            useBy.Fridge, useBy.FreezesWell ? useBy.Freezer : null, KeepingRuleView.Of(useBy.Rule), KeepingRuleView.Of(useBy.FreezerRule)));
    }

    private static Dictionary<Guid, int> Which(IReadOnlyList<BoxAt> boxes) =>
        boxes.DistinctBy(box => box.Id).ToDictionary(box => box.Id, box => box.Version);

    private static PutBoxesAnswer Show(IReadOnlyDictionary<Guid, int> now) => new([.. now.Select(box => new BoxAt(box.Key, box.Value))]);
}
