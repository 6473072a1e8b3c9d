using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan.Labels;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Plan;
using LivelyTern.Formats.Labels;

namespace LivelyTern.Web.Plan;

/// <summary>Labels on paper, ready to be shown, printed or kept as a file.</summary>
/// <param name="Sheet">The labels on their pages.</param>
/// <param name="Labels">How many.</param>
/// <param name="Gone">How many boxes are no longer there.</param>
public sealed record DrawnLabels(LabelSheet Sheet, int Labels, int Gone);

/// <summary>
/// Writes the labels of boxes: of those that are there, and of those a batch is still to be packed into. Nothing is stored.
/// </summary>
public sealed class LabelDesk(
    TernDb db, BatchStore store, PortionsOnDays portions, DivideBatch divide, PlanStore plan, EaterStore eaters,
    BoxNotesStore notes, TimeProvider clock)
{
    /// <summary>The most labels at once.</summary>
    public const int Most = 300;

    /// <summary>The labels that are asked for, on their paper.</summary>
    /// <param name="body">What is asked for.</param>
    /// <param name="home">The program's address, for the codes.</param>
    public async Task<Outcome<DrawnLabels>> DrawAsync(LabelsRequest body, Uri home)
    {
        ArgumentNullException.ThrowIfNull(body);
        ArgumentNullException.ThrowIfNull(home);
        if (LabelPaper.Find(body.Paper) is not { } paper)
            return new Problem("paper-unknown", "paper", "There is no such paper: choose one of the list.");
        if (body.From < 1 || body.From > paper.PerPage)
            return new Problem("label-first", "from", $"This paper has the labels 1 to {paper.PerPage}.");
        if (body.BoxIds is null == body.BatchId is null)
            return new Problem("labels-unclear", "boxIds", "Say either the boxes, or the batch that is to be packed.");
        var read = body.BoxIds is { } ids ? await OfBoxesAsync(ids) : await AheadAsync(body.BatchId!.Value, body.Order);
        if (!read.Succeeded) return read.Problems.ToList();
        var labels = read.Value!;
        var drawn = labels.Select(label => LabelLayout.Of(label, paper.Label, new Uri(home, BoxCode.PagePath + label.Code.Digits)));
        var asked = body.BoxIds?.Distinct().Count() ?? labels.Count;
        return new DrawnLabels(new(paper, [.. drawn], body.From), labels.Count, asked - labels.Count);
    }

    // Those that are there, in the order they were asked for.
    private async Task<Outcome<List<BoxLabel>>> OfBoxesAsync(IReadOnlyList<Guid> ids)
    {
        if (ids.Count is 0 or > Most) return TooMany;
        await using var once = await db.ReadOnceAsync();
        var (today, rules, table) = (clock.Today(), await plan.RulesAsync(), await eaters.ListAsync());
        var there = (await plan.ThereAsync()).ToDictionary(one => one.Box.Id);
        var wanted = ids.Distinct().Where(there.ContainsKey).Select(id => there[id]).ToList();
        var batches = await store.SerialsAsync([.. wanted.Select(one => one.Box.Batch.Id).Distinct()]);
        var written = await notes.OfAsync([.. batches.Values.Select(one => one.RecipeId).Distinct()]);
        var items = await portions.LaidAsync([.. wanted.Select(one => one.Box.Id)]);
        BoxLabel Label(BoxThere one)
        {
            var (serial, recipe) = batches[one.Box.Batch.Id];
            var next = one.Laid.Count > 0 ? one.Laid[0] : null;
            var isForGuests = next is not null && items[one.Box.Id].Any(item => item.Id == next.ItemId && item.IsForGuests);
            var label = new BoxLabel(one.Box, new(serial, one.Number), UseBy.Of(one.Box, today, rules), today)
            {
                Day = next?.Where.Day,
                IsForGuests = isForGuests,
                Notes = written.TryGetValue(recipe, out var own) ? own.Notes : BoxNotes.None,
            };
            return For(label, next?.Where.EaterId ?? one.Box.Life.For, table);
        }

        return wanted.ConvertAll(Label);
    }

    // The boxes that an order would fill.
    private async Task<Outcome<List<BoxLabel>>> AheadAsync(Guid batchId, PackRequest? body)
    {
        if (body is null) return new Problem("order-missing", "order", "Say how the batch is to be packed.");
        await using var once = await db.ReadOnceAsync();
        if (await store.FindAsync(batchId) is not { State: not BatchState.Discarded } row) return Stale.Gone("batch");
        if (row.State == BatchState.Packed) return new Problem("batch-packed", "batchId", "It is packed: take the labels of its boxes.");
        var order = body.Order();
        if (!order.Succeeded) return order.Problems.ToList();
        var ahead = await divide.AheadAsync(row, order.Value!);
        if (!ahead.Succeeded) return ahead.Problems.ToList();
        var (batch, ordered) = ahead.Value;
        var boxes = ordered.Boxes;
        if (boxes.Count is 0 or > Most) return TooMany;

        var (today, rules, table) = (clock.Today(), await plan.RulesAsync(), await eaters.ListAsync());
        var written = await notes.OfAsync([row.RecipeId]);
        BoxLabel Label(DividedBox of, int at)
        {
            var on = batch.EatenFrom(today);
            var life = BoxLife.New(on, of.EaterId).Put(of.Place, on);
            var box = new Box(Guid.Empty, ordered.ShareOf(batch, at), [], life);
            var label = new BoxLabel(box, new(row.Serial, at + 1), UseBy.Of(box, today, rules), today)
            {
                IsAhead = true,
                Day = of.Item?.Day,
                IsForGuests = of.Item?.IsForGuests == true,
                Notes = written.TryGetValue(row.RecipeId, out var own) ? own.Notes : BoxNotes.None,
            };
            return For(label, of.EaterId, table);
        }

        return boxes.Select(Label).ToList();
    }

    // Energy, and what its eater's days are laid along, as they count; who must never get it. No figure stands on the box of an eater who
    // wants none, nor on one that may become theirs.
    private static BoxLabel For(BoxLabel label, Guid? eaterId, IReadOnlyList<EaterRow> table)
    {
        var contents = label.Box.Contents;
        var eater = table.FirstOrDefault(one => one.Id == eaterId);
        var counted = eater is null ? MeasureTotals.Of(contents, null) : eater.Aim.Count(contents);
        var isQuiet = eater?.IsQuiet ?? table.Any(one => one.IsQuiet);
        Measure[] shown = isQuiet ? [] : eater is null ? [Measure.Energy] : [Measure.Energy, eater.Aim.Leading];
        return label with
        {
            Eater = eater?.Name,
            Figures = [.. shown.Distinct().Where(counted.ContainsKey).Select(measure => KeyValuePair.Create(measure, counted[measure]))],
            NotFor = [.. table.Where(one => one.Ways.WhyNever(contents) is not null).Select(one => one.Name)],
        };
    }

    private static Problem TooMany => new("labels-many", "boxIds", $"Between 1 and {Most} labels at a time.");
}
