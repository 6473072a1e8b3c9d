using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Web.Http;
using LivelyTern.Web.Plan;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Pack;

/// <summary>A box of a batch; where it lies on a day, for whom and for which, and why they must never get it.</summary>
public sealed record BoxView(Guid Id, int Number, decimal Grams, int? Pieces, string? Name = null, DateOnly? Day = null, NeverView? Never = null);

/// <summary>An eater who must never get a batch, and why: it stands on every label.</summary>
public sealed record NeverForView(string Name, NeverView Why);

/// <summary>A batch as shown.</summary>
/// <param name="Id">The batch.</param>
/// <param name="RecipeId">Its recipe.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint.</param>
/// <param name="CookedOn">The day it was cooked.</param>
/// <param name="IsAhead">Whether it is still to be cooked.</param>
/// <param name="Portions">How many portions it is made for.</param>
/// <param name="RawGrams">What went in.</param>
/// <param name="PanGrams">The empty pan, where weighed.</param>
/// <param name="FullGrams">The full pan, where weighed.</param>
/// <param name="RememberedPanGrams">The empty pan of the last batch of this recipe.</param>
/// <param name="Boxes">Its boxes; none before it is packed.</param>
/// <param name="Figures">The whole batch.</param>
/// <param name="Version">For the next write.</param>
/// <param name="Planned">Portions of it that lie on days, in the order in which they become boxes: for whom and for which day.</param>
/// <param name="ExpectedGrams">What it is expected to weigh; null where it is packed.</param>
/// <param name="BoxesWanted">Into how many boxes it goes, as the plan has it.</param>
/// <param name="NeverFor">Eaters who must never get it.</param>
public sealed record BatchView(
    Guid Id, Guid RecipeId, string Name, string Letters, int Tint, DateOnly CookedOn, bool IsAhead, int Portions, decimal RawGrams, decimal? PanGrams, decimal? FullGrams,
    decimal? RememberedPanGrams, IReadOnlyList<BoxView> Boxes, IReadOnlyDictionary<Measure, Figure> Figures, int Version,
    IReadOnlyList<PlannedPortionView> Planned, decimal? ExpectedGrams, int BoxesWanted, IReadOnlyList<NeverForView> NeverFor);

/// <summary>A portion that lies on a day.</summary>
public sealed record PlannedPortionView(Guid EaterId, string Name, DateOnly Day, decimal Grams);

/// <summary>Reads batches from the store through the core, for the screens.</summary>
public sealed class BatchReader(BatchStore store, EaterStore eaters, TimeProvider clock)
{
    /// <summary>A write on a batch at the version the request carries; a stale one gets the batch as it is now.</summary>
    public async Task<Results<Ok<BatchView>, ProblemHttpResult>> WriteAsync(Guid id, string? ifMatch, Func<int, Task<Outcome<BatchRow>>> write)
    {
        ArgumentNullException.ThrowIfNull(write);
        var (version, missing) = Answers.VersionOf(ifMatch);
        if (missing is not null) return missing;
        return await (await write(version)).AnswerWriteAsync(
            ShowAsync, async () => await store.FindAsync(id) is { } current ? await ShowAsync(current) : null);
    }

    /// <summary>A batch with its portions or boxes on days.</summary>
    public async Task<BatchView> ShowAsync(BatchRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        var pan = await store.PanOfAsync(row.RecipeId);
        var table = await eaters.ListAsync();
        var names = table.ToDictionary(eater => eater.Id, eater => eater.Name);
        var batch = await store.ReadAsync(row);
        var reasons = table.Select(eater => (eater.Id, eater.Name, Why: NeverView.Of(eater.Ways.WhyNever(batch.Contents))));
        var never = reasons.Where(one => one.Why is not null).ToList();
        List<NeverForView> neverFor = [.. never.Select(one => new NeverForView(one.Name, one.Why!))];
        if (row.Boxes.Count > 0)
        {
            var laid = await store.LaidAsync(row);
            var view = Show(row, pan, [], null);
            var today = DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
            BoxView Laid(BoxView box)
            {
                // A box whose day went by uneaten is for nobody again.
                if (!laid.TryGetValue(box.Id, out var item) || (item.EatenAt is null && item.Day < today)) return box;
                var why = item.EatenAt is null ? never.Find(one => one.Id == item.EaterId).Why : null;
                return box with { Name = names.GetValueOrDefault(item.EaterId), Day = item.Day, Never = why };
            }

            return view with { Boxes = [.. view.Boxes.Select(Laid)], NeverFor = neverFor };
        }

        var planned = await store.PortionsAsync(row.Id);
        return Show(row, pan, [.. planned.Select(item => new PlannedPortionView(item.EaterId, names.GetValueOrDefault(item.EaterId, ""), item.Day, item.Grams ?? 0))], batch) with { NeverFor = neverFor };
    }

    /// <summary>A batch as shown.</summary>
    /// <param name="row">The batch.</param>
    /// <param name="rememberedPan">The empty pan of the last batch of its recipe, in grams.</param>
    /// <param name="planned">Its portions on days.</param>
    /// <param name="batch">It as the core knows it, where it has no boxes.</param>
    public static BatchView Show(BatchRow row, decimal? rememberedPan, IReadOnlyList<PlannedPortionView> planned, Batch? batch) => new(
        row.Id, row.RecipeId, batch?.RecipeName ?? row.RecipeName, row.Letters, row.Tint, row.CookedOn, row.IsAhead, row.Portions, (batch?.Contents ?? row.Contents).RawWeight.Value, row.PanGrams, row.FullGrams, rememberedPan,
        [.. row.Boxes.OrderBy(box => box.Number).Select(box => new BoxView(box.Id, box.Number, box.Grams, box.Pieces))],
        Figure.Of(MeasureTotals.Of(batch?.Contents ?? row.Contents, null)), row.Version, planned, batch?.Weight?.Value,
        batch is { Weight.Value: > 0 } ? new UnpackedBatch(batch, new(planned.Sum(portion => portion.Grams)), new Dictionary<Guid, Grams>()).BoxesFor(planned.Count) : row.Portions, []);
}
