using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Pack.Containers;
using LivelyTern.Core.Plan;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Pack;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;

namespace LivelyTern.Web.Plan;

/// <summary>What packing a batch in some way would give, box by box and day by day; nothing stored.</summary>
public sealed class PackPreviews(
    TernDb db, BatchStore store, BatchReader reader, DivideBatch divide, EaterStore eaters, ContainerStore containers, EyeStore eyes,
    PlanStore plan, PlanReader days)
{
    /// <summary>A batch packed as it is ordered.</summary>
    /// <param name="id">The batch.</param>
    /// <param name="body">The order.</param>
    /// <param name="eaterId">Who looks at it: what is nobody's counts as theirs.</param>
    public async Task<Outcome<PackPreview>> OfAsync(Guid id, PackRequest body, Guid? eaterId)
    {
        ArgumentNullException.ThrowIfNull(body);
        await using var once = await db.ReadOnceAsync();
        if (await store.FindAsync(id) is not { } row) return Stale.Gone("batch");
        var order = body.Order();
        if (!order.Succeeded) return order.Problems.ToList();
        var ahead = await divide.AheadAsync(row, order.Value!);
        if (!ahead.Succeeded) return ahead.Problems.ToList();
        var (batch, ordered) = ahead.Value;
        var cooked = batch.Cooked!.Value;
        var kept = await containers.ListAsync();
        var into = kept.FirstOrDefault(one => one.Id == body.ContainerId)?.Read();
        if (into is null && body.ContainerId is not null) return Stale.Gone("container");
        var eye = order.Value!.IsByEye ? (await eyes.ForDishAsync(order.Value.CookId)).Next : (decimal?)null;
        var cups = kept.Where(one => one.Kind == ContainerKind.Cup).Select(one => one.Read()).ToList();
        var table = (await eaters.ListAsync()).ToDictionary(eater => eater.Id);
        var boxes = ordered.Divided.Portions;
        var (raw, fullest) = (batch.Contents.RawWeight, new Grams(boxes.Select(box => box.Weight.Value).DefaultIfEmpty().Max()));
        var at = boxes.ToList().FindIndex(box => box.Weight == fullest);
        Grams InFullest(BatchPart part) => ordered.Parts is { } each && at >= 0
            ? each.Parts.First(one => one.BatchId == part.Of.Id).Over.Boxes[at].Weight
            : part.Weight * (fullest / cooked);
        var yield = raw.Value <= 0 ? 0 : cooked / raw;
        var usual = row.IsPutTogether ? null : await reader.UsualYieldAsync(row.RecipeId);
        return new PackPreview(
            cooked.Value,
            Figure.Of(batch.Holding(new(1)).Totals[Nutrient.Energy]),
            yield,
            usual is null ? null : new(usual.Mean, usual.Spread, usual.Batches, usual.Of(yield)),
            await BoxesAsync(batch, ordered, table, eaterId, (share, isFrozen) =>
                into is null ? [] : BoxFill.Of(into, cups, share, isFrozen), eye),
            ordered.Divided.OverPieces,
            ordered.Divided.Over.Value,
            ordered.Divided.Missing.Value,
            boxes.Sum(box => box.Weight.Value),
            fullest.Value,
            Figure.Of(Counted(
                at < 0 ? batch.Holding(fullest) : ordered.ShareOf(batch, at).Contents, table.GetValueOrDefault(eaterId ?? Guid.Empty))),
            batch.Parts.ToDictionary(part => part.Of.Id, part => InFullest(part).Value),
            SquaresOf(body, boxes),
            ordered.Parts is { } parts ? [.. parts.Parts.Select(part => Show(part, batch))] : null,
            [.. (ordered.Parts?.InBoxes ?? []).SelectMany(LieApart.In).Distinct()]);
    }

    private static PartPreview Show(DividedPart part, Batch dish)
    {
        var of = dish.Parts.FirstOrDefault(one => one.Of.Id == part.BatchId)?.Of;
        PartInBoxPreview InBox(PartInBox box) =>
            new(box.Target.Value, box.Weight.Value, Filling.MarkOf(box.Target).Value, of?.PiecesIn(box.Weight));
        return new(
            part.BatchId, part.Line, part.Part.Name, part.Part.Asked.Value, part.Part.There?.Value, part.Over.Missing.Value,
            part.Over.Left?.Value, [.. part.Over.Boxes.Select(InBox)]);
    }

    private static IReadOnlyDictionary<Measure, Total> Counted(Contents contents, EaterRow? eater) =>
        eater is null ? MeasureTotals.Of(contents, null) : eater.Aim.Count(contents);

    private async Task<IReadOnlyList<BoxPreview>> BoxesAsync(
        Batch batch, DividedOrder ordered, Dictionary<Guid, EaterRow> table, Guid? eaterId,
        Func<BatchShare, bool, IReadOnlyList<CompartmentFill>> fillsOf, decimal? eye)
    {
        var onDays = await DaysAsync(batch, ordered, table, eye);
        var counted = new Dictionary<(Grams, Guid?), IReadOnlyDictionary<Measure, Figure>>();
        IReadOnlyDictionary<Measure, Figure> FiguresOf(Grams weight, Guid? whose)
        {
            if (counted.TryGetValue((weight, whose), out var known)) return known;
            return counted[(weight, whose)] = Figure.Of(Counted(batch.Holding(weight), table.GetValueOrDefault(whose ?? Guid.Empty)));
        }

        // Put in part by part two boxes of one weight don't hold the same.
        IReadOnlyDictionary<Measure, Figure> FiguresIn(DividedPortion portion, int at, Guid? whose) => ordered.Parts is null
            ? FiguresOf(portion.Weight, whose)
            : Figure.Of(Counted(ordered.ShareOf(batch, at).Contents, table.GetValueOrDefault(whose ?? Guid.Empty)));

        IReadOnlyDictionary<Measure, Figure>? FromTarget(DividedPortion portion, Guid? whose)
        {
            if (portion.OnScale == portion.Target || portion.OnScale.Value <= 0 || ordered.Parts is not null) return null;
            var target = FiguresOf(portion.Weight * (portion.Target / portion.OnScale), whose);
            return FiguresOf(portion.Weight, whose).ToDictionary(one => one.Key, one => one.Value.Less(target[one.Key]));
        }

        BoxPreview Show(DividedPortion portion, DividedBox box, int at)
        {
            var whose = box.EaterId ?? eaterId;
            var (below, above) = Filling.MarkOf(portion);
            return new(
                portion.Weight.Value, portion.OnScale.Value, portion.Target.Value, below.Value, above.Value, portion.Pieces,
                batch.SaidVolumeOf(portion.Weight), FiguresIn(portion, at, whose), FromTarget(portion, whose),
                box.Item is { } item ? onDays.GetValueOrDefault(new(item.EaterId, item.Day)) : null,
                fillsOf(ordered.ShareOf(batch, at), box.Place == BoxPlace.Freezer),
                eye is { } off ? FiguresIn(portion, at, whose)[Measure.Energy].Value * off : null);
        }

        return [.. ordered.Divided.Portions.Zip(ordered.Boxes).Select((one, at) => Show(one.First, one.Second, at))];
    }

    // The days of its portions, with each as it would be.
    private async Task<Dictionary<EaterDay, DayWithBox>> DaysAsync(
        Batch batch, DividedOrder ordered, Dictionary<Guid, EaterRow> table, decimal? eye)
    {
        var life = BoxLife.New(batch.CookedOn, null);
        Box There(int at) => new(Guid.CreateVersion7(), ordered.ShareOf(batch, at), [], life) { EyeSpread = eye };
        var there = ordered.Boxes.Select((box, at) => (box.Item, Box: There(at)))
            .Where(one => one.Item is not null).ToDictionary(one => one.Item!.Id, one => one.Box);
        if (there.Count == 0) return [];
        var where = PortionsOnDays.DaysOf(ordered.Boxes.Select(box => box.Item).OfType<PlanItemRow>()).ToHashSet();
        var board = await plan.BoardAsync(
            KitchenDays.MondayOf(where.Min(day => day.Day)), KitchenDays.MondayOf(where.Max(day => day.Day)).AddDays(6));
        var stock = await plan.StockAsync(board);
        var packed = stock.Boxes.ToDictionary();
        foreach (var box in there.Values) packed[box.Id] = box;
        PlanItem Sized(PlanItem item) => there.TryGetValue(item.Id, out var box) ? item with { What = new LaidBox(box.Id) } : item;
        var sized = new PlanBoard(board.Days.SetItems(where.Select(day => KeyValuePair.Create(day, board[day].ConvertAll(Sized)))));
        var read = days.WeeksOf(where, table, sized, stock with { Boxes = packed }, await days.EatenAsync(board));
        return where.Where(read.ContainsKey).ToDictionary(day => day, day => Show(day, read[day]));
    }

    private static DayWithBox Show(EaterDay where, DayView day) => new(
        where.EaterId, where.Day, day.Verdict, day.Aim.Leading, day.Sums[day.Aim.Leading], day.Bands.GetValueOrDefault(day.Aim.Leading));

    private static IReadOnlyList<int?>? SquaresOf(PackRequest body, IReadOnlyList<DividedPortion> boxes)
    {
        if (body.Squares is not { } cut || boxes.Any(box => box.Pieces is not { } count || count % 1 != 0)) return null;
        var likesEdge = boxes.Select((_, i) => body.Each?.ElementAtOrDefault(i)?.LikesEdge == true);
        return new PanSquares(cut.Rows, cut.Columns).Assign([.. boxes.Select(box => (int)box.Pieces!.Value)], [.. likesEdge]);
    }
}
