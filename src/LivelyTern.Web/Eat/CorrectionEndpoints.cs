using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Eat;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;

namespace LivelyTern.Web.Eat;

/// <summary>Something that was eaten of a batch that was corrected since.</summary>
/// <param name="EaterId">Whose day.</param>
/// <param name="Eater">Their name.</param>
/// <param name="Day">The day.</param>
/// <param name="Name">What it was.</param>
/// <param name="Was">What was counted.</param>
/// <param name="By">By how much it would change.</param>
public sealed record CorrectionView(
    Guid EaterId, string Eater, DateOnly Day, string Name, IReadOnlyDictionary<Measure, Figure> Was,
    IReadOnlyDictionary<Measure, Figure> By);

/// <summary>Entries that were written to correct others.</summary>
/// <param name="EntryIds">By which they are taken back.</param>
public sealed record CorrectionsMade(IReadOnlyList<Guid> EntryIds);

/// <summary>
/// Batches that were corrected after some of them was eaten: a new entry beside each old one, where somebody asks for it.
/// </summary>
public static class CorrectionEndpoints
{
    /// <summary>Maps <c>/api/eat/corrections</c>.</summary>
    public static void MapCorrections(this IEndpointRouteBuilder api)
    {
        var corrections = api.MapGroup("/eat/corrections").WithTags("Eat");
        corrections.MapGet("/{batchId:guid}", async (Guid batchId, TernDb db, Corrections store, EaterStore eaters) =>
        {
            await using var once = await db.ReadOnceAsync();
            var found = await store.OfBatchAsync(batchId);
            var names = await eaters.NamesAsync([.. found.Select(one => one.Where.EaterId).Distinct()]);
            return found.Select(one => CorrectionViews.Of(one, names[one.Where.EaterId])).ToList();
        }).WithName("getCorrections");
        corrections.MapPost("/{batchId:guid}", async (Guid batchId, Corrections store) =>
            (await store.WriteAsync(batchId)).Answer(ids => new CorrectionsMade(ids))).WithName("correctEaten");
        corrections.MapPost("/taken-back", async (CorrectionsMade body, Corrections store) =>
            (await store.TakeBackAsync(body.EntryIds ?? [])).Answer(ids => new CorrectionsMade(ids))).WithName("takeBackCorrections");
    }
}

/// <summary>Corrections as they are shown.</summary>
internal static class CorrectionViews
{
    public static CorrectionView Of(Correction one, string eater)
    {
        var (was, by) = Apart(one.Was, one.Now);
        return new(one.Where.EaterId, eater, one.Where.Day, one.Name, was, by);
    }

    public static CorrectedView Of(DateOnly on, EatenMeasures was, EatenMeasures now)
    {
        var (before, by) = Apart(was, now);
        return new(on, before, by);
    }

    private static (IReadOnlyDictionary<Measure, Figure> Was, IReadOnlyDictionary<Measure, Figure> By) Apart(
        EatenMeasures was, EatenMeasures now)
    {
        var before = Figure.Of(was.Totals);
        Figure By(KeyValuePair<Measure, Total> total) =>
            Figure.Of(total.Value).Less(before.GetValueOrDefault(total.Key, Figure.None));
        return (before, now.Totals.ToDictionary(total => total.Key, By));
    }
}
