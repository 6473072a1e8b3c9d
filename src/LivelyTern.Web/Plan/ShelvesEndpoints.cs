using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Mvc;

namespace LivelyTern.Web.Plan;

/// <summary>The shelves, read for the Keep room: what is there, for whom, until when, and what is to be done by the plan.</summary>
public sealed class ShelvesReader(TernDb db, PlanStore plan, ThrownAway thrownAway, EaterStore eaters, TimeProvider clock)
{
    private const int WasteDays = 28;

    /// <summary>All of it.</summary>
    public async Task<ShelvesView> ReadAsync()
    {
        await using var once = await db.ReadOnceAsync();
        var (today, version, rules) = (clock.Today(), await plan.VersionAsync(), await plan.RulesAsync());
        var there = await plan.ThereAsync();
        var table = await eaters.ListAsync();
        var kept = there.ToDictionary(one => one.Box.Id, one => Kept(one, today, rules));
        var groups = there.GroupBy(one => (
                one.Box.Batch.Id, one.Box.Life.Place, kept[one.Box.Id].UseBy.Last, one.Box.IsPart ? one.Box.Id : Guid.Empty))
            .SelectMany(own => Box.Alike(own.OrderBy(one => one.Number), one => one.Box));
        var shown = groups.Select(group => Show(group, kept[group[0].Box.Id], today, table))
            .OrderBy(group => group.UseBy).ThenBy(group => group.CookedOn).ThenBy(group => group.Name, StringComparer.Ordinal);
        var tasks = KeepingTasks.Of(kept.Values, today);
        IReadOnlyList<Guid> Ids(IReadOnlyList<KeptBox> boxes) => [.. boxes.Select(box => box.Box.Id)];
        return new(
            today, version, rules.Set.Name, [.. shown],
            new(Ids(tasks.Freeze), Ids(tasks.Thaw), Ids(tasks.Late), Ids(tasks.ThawTomorrow), Ids(tasks.TooLate), Ids(tasks.EatFirst),
                Ids(tasks.Over)),
            Show(today.AddDays(-WasteDays), await thrownAway.SinceAsync(today.AddDays(-WasteDays))));
    }

    /// <summary>What is to be done, in numbers.</summary>
    public async Task<ShelvesState> StateAsync()
    {
        await using var once = await db.ReadOnceAsync();
        var (today, rules, there) = (clock.Today(), await plan.RulesAsync(), await plan.ThereAsync());
        var tasks = KeepingTasks.Of(there.Select(one => Kept(one, today, rules)), today);
        return new(there.Count, tasks.Freeze.Count, tasks.Thaw.Count + tasks.Late.Count, tasks.EatFirst.Count, tasks.Over.Count);
    }

    private static KeptBox Kept(BoxThere one, DateOnly today, KeepingRules rules) => new(
        one.Box, UseBy.Of(one.Box, today, rules), one.Laid.Count > 0 ? one.Laid[0] : null, one.WasLookedAt);

    private static KeptGroupView Show(IReadOnlyList<BoxThere> group, KeptBox first, DateOnly today, IReadOnlyList<EaterRow> table)
    {
        var (box, useBy, contents) = (first.Box, first.UseBy, first.Box.Contents);
        KeptBoxView Box(BoxThere one)
        {
            var next = one.Laid.Count > 0 ? one.Laid[0].Where : default(EaterDay?);
            return new(one.Box.Id, one.Version, one.Number, one.Box.Weight.Value, next?.EaterId, next?.Day);
        }

        var reasons = table.Select(eater => (eater.Id, Why: NeverView.Of(eater.Ways.WhyNever(contents))));
        return new(
            box.Batch.Id, box.Batch.RecipeName, box.Batch.Mark.Letters, box.Batch.Mark.Tint, box.Batch.CookedOn, box.Life.Place,
            useBy.Last, useBy.IsOver(today), box.IsPart, box.Weight.Value, box.Pieces, box.Batch.SaidVolumeOf(box.Weight),
            table.ToDictionary(eater => eater.Id, eater => Figure.Of(eater.Aim.Count(contents))),
            reasons.Where(one => one.Why is not null).ToDictionary(one => one.Id, one => one.Why!),
            useBy.IsFrozen ? useBy.FreezerRule.Kind : useBy.Rule.Kind, useBy.IsFrozen ? useBy.FreezerRule.Source : useBy.Rule.Source,
            [.. FreezesPoorly.In(box).Select(one => new FreezesPoorlyView(one.Food.Name, one.Becomes))], [.. group.Select(Box)]);
    }

    private static WasteView Show(DateOnly since, IReadOnlyList<ThrownBox> thrown)
    {
        var energy = thrown.Aggregate(Total.None, (sum, one) => sum + one.Rest.Contents.Totals[Nutrient.Energy]);
        var why = thrown.GroupBy(one => one.Why, StringComparer.OrdinalIgnoreCase).OrderByDescending(same => same.Count());
        return new(
            since, thrown.Count, thrown.Sum(one => one.Rest.Weight.Value), Figure.Of(energy),
            [.. why.Select(same => new WasteReasonView(same.Key, same.Count()))]);
    }
}

/// <summary>Keep's shelves, and what touches days: boxes eaten, given away, thrown away, one or many.</summary>
public static class ShelvesEndpoints
{
    /// <summary>Maps <c>/api/keep</c>.</summary>
    public static void MapShelves(this IEndpointRouteBuilder api)
    {
        var keep = api.MapGroup("/keep").WithTags("Keep");
        keep.MapGet("", (ShelvesReader reader) => reader.ReadAsync()).WithName("getShelves");
        keep.MapGet("/state", (ShelvesReader reader) => reader.StateAsync()).WithName("getShelvesState");
        keep.MapPost("/boxes/eaten", (EatBoxesRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes) =>
            PlanEndpoints.WriteAsync(ifMatch, version => changes.EatBoxesAsync(
                version, body.BoxIds, new(body.EaterId, body.Day), PlanEndpoints.SlotOf(body.Slot)))).WithName("eatBoxes");
        keep.MapPost("/boxes/let-go", (LetGoRequest body, [FromHeader(Name = "If-Match")] string? ifMatch, DayChanges changes) =>
        {
            var kind = body.IsThrownAway ? BoxEventKind.ThrownAway : BoxEventKind.GivenAway;
            var why = string.IsNullOrWhiteSpace(body.Why) ? null : body.Why.Trim();
            return PlanEndpoints.WriteAsync(ifMatch, version => changes.LetGoAsync(version, body.BoxIds, kind, why));
        }).WithName("letBoxesGo");
    }
}
