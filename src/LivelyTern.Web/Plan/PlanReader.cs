using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Keep;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Pack;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;
using LivelyTern.Web.Keep;

namespace LivelyTern.Web.Plan;

/// <summary>Reads the plan from the store through the core, for the screens.</summary>
public sealed class PlanReader(TernDb db, PlanStore plan, BoxStore boxes, EaterStore eaters, IEatenLedger ledger, TimeProvider clock)
{
    /// <summary>The household's day, now.</summary>
    public DateOnly Today => clock.Today();

    /// <summary>The week in which a day lies.</summary>
    public async Task<WeekView> WeekAsync(DateOnly day)
    {
        var start = KitchenDays.MondayOf(KitchenDays.IsNear(day, Today) ? day : Today);
        await using var once = await db.ReadOnceAsync();
        var version = await plan.VersionAsync();
        var board = await plan.BoardAsync(start, start.AddDays(6));
        var stock = await plan.StockAsync(board);
        var table = await eaters.ListAsync();
        var eaten = await EatenAsync(board);
        var weeks = table.Select(eater => Week(eater, start, board, stock, eaten)).ToList();
        var leftOut = (await plan.LeftOutAsync(start, start.AddDays(6)))
            .Select(one => new LeftOutView(one.Where.EaterId, one.Where.Day, one.Name));
        var shelf = await plan.ShelfAsync();
        var versions = await boxes.VersionsAsync([.. shelf.Select(box => box.Id)]);
        return new(start, Today, version, weeks, Shelf(shelf, table, versions, stock.Rules), await UnpackedAsync(table), [.. leftOut]);
    }

    /// <summary>
    /// How an eater stands: what of their week fits, and what is left today. What was eaten counts as the ledger has it; what that was made
    /// of is not read.
    /// </summary>
    public async Task<EaterState> StateAsync(EaterRow eater)
    {
        ArgumentNullException.ThrowIfNull(eater);
        var start = KitchenDays.MondayOf(Today);
        var board = await plan.BoardAsync(eater.Id, start, start.AddDays(6));
        var eaten = await EatenAsync(board);
        var stock = await plan.StockAsync(board.Days.Values.SelectMany(items => items).Where(item => !eaten.ContainsKey(item.Id)));
        bool IsKnown(PlanItem item) => eaten.ContainsKey(item.Id) || stock.Has(item);
        Contents Holds(PlanItem item) => eaten.ContainsKey(item.Id) ? Contents.Nothing : item.Contents(stock);
        var week = Read(eater, start, day => board[new(eater.Id, day)].FindAll(IsKnown), Holds, eaten);
        var laid = week.Where(day => day.Rest.Day.Verdict.IsFilled()).ToList();
        return new(laid.Count(day => day.Rest.Day.Fits), laid.Count, week.First(day => day.Day == Today).Rest.Left);
    }

    /// <summary>One day of one eater.</summary>
    public async Task<DayView> DayAsync(EaterRow eater, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(eater);

        // What the days before it in its week drew of the reserve is not there for it any more.
        var start = eater.Ways.Reserve is null ? day : KitchenDays.MondayOf(day);
        var board = await plan.BoardAsync(eater.Id, start, day);
        var count = day.DayNumber - start.DayNumber + 1;
        return Days(eater, start, board, await plan.StockAsync(board), await EatenAsync(board), count)[^1];
    }

    /// <summary>What was eaten of some days, by item, as it was counted then.</summary>
    public async Task<IReadOnlyDictionary<Guid, EatenMeasures>> EatenAsync(PlanBoard board)
    {
        ArgumentNullException.ThrowIfNull(board);
        var items = board.Days.Values.SelectMany(items => items);
        return await ledger.MeasuresAsync([.. items.Where(item => item.EatenAt is not null).Select(item => item.Id)]);
    }

    // Days of one week as they are read: what was eaten counts as the ledger has it, each day draws on what is left of the reserve.
    private static List<ReadDay> Read(
        EaterRow eater, DateOnly start, Func<DateOnly, IReadOnlyList<PlanItem>> itemsOn, Func<PlanItem, Contents> holds,
        IReadOnlyDictionary<Guid, EatenMeasures> eaten, int days = 7)
    {
        DayEntry EntryOf(PlanItem item, EatingWays ways)
        {
            var contents = holds(item);
            return new(
                contents, item.EatenAt is not null, eaten.GetValueOrDefault(item.Id)?.Totals, NeverOf(item, contents, ways) is not null)
            {
                IsSetAside = item.IsSetAside,
            };
        }

        List<DayEntry> EntriesOf(IReadOnlyList<PlanItem> items, EatingWays ways, DayAim aim)
        {
            var entries = items.Select(item => EntryOf(item, ways)).ToList();
            var measured = Holds.Measured(items, i => entries[i].MeasuresFor(aim));
            return [.. entries.Zip(measured, (entry, measures) => entry with { Counted = measures })];
        }

        var all = Enumerable.Range(0, days).Select(start.AddDays).Select(day =>
        {
            var (ways, aim) = eater.On(day);
            var items = itemsOn(day);
            return (Day: day, Items: items, Ways: ways, Aim: aim, Entries: EntriesOf(items, ways, aim));
        }).ToList();
        var read = DayRest.Week(all.Select(one => ((IReadOnlyList<DayEntry>)one.Entries, one.Aim)), eater.Ways.Reserve);
        return [.. all.Zip(read, (one, rest) => new ReadDay(one.Day, one.Items, one.Ways, one.Aim, rest))];
    }

    private sealed record ReadDay(DateOnly Day, IReadOnlyList<PlanItem> Items, EatingWays Ways, DayAim Aim, DayRest Rest);

    private EaterWeekView Week(EaterRow eater, DateOnly start, PlanBoard board, Stock stock, IReadOnlyDictionary<Guid, EatenMeasures> eaten)
    {
        var days = Days(eater, start, board, stock, eaten);
        var laid = days.Where(day => day.Verdict.IsFilled()).ToList();

        // Who counts points from the middle of a week on has no week's sum of them.
        var sums = MeasureNutrient.All.Where(measure => days.All(day => day.Sums.ContainsKey(measure)))
            .ToDictionary(measure => measure, measure => Figure.Sum(days.Select(day => day.Sums[measure])));
        return new(
            eater.Id, eater.Name, eater.Aim.Resolved(), days, sums, laid.Count(day => day.Fits), laid.Count, eater.Ways.Slots,
            eater.Ways.Reserve, days.Sum(day => day.Bands.Values.Sum(band => band.Drawn ?? 0)));
    }

    /// <summary>
    /// An eater as the core fits and mends their days: with what was eaten as it counted then, and with what each day draws of its week's
    /// reserve.
    /// </summary>
    /// <param name="eater">The eater.</param>
    /// <param name="board">What lies on the whole weeks around the days.</param>
    /// <param name="stock">What that is made of.</param>
    /// <param name="from">The first day.</param>
    /// <param name="to">The last day.</param>
    public async Task<FittedEater> FittedAsync(EaterRow eater, PlanBoard board, Stock stock, DateOnly from, DateOnly to)
    {
        ArgumentNullException.ThrowIfNull(eater);
        ArgumentNullException.ThrowIfNull(board);
        ArgumentNullException.ThrowIfNull(stock);
        var eaten = await EatenAsync(board);
        return new(new Eater(eater.Id, eater.Name, eater.Aim), eater.Ways)
        {
            Counted = eaten.ToDictionary(one => one.Key, one => one.Value.Totals),
            Drawn = Drawn(eater, board, stock, eaten, from, to),
        };
    }

    private static Dictionary<DateOnly, decimal> Drawn(
        EaterRow eater, PlanBoard board, Stock stock, IReadOnlyDictionary<Guid, EatenMeasures> eaten, DateOnly from, DateOnly to)
    {
        if (eater.Ways.Reserve is null) return [];
        IReadOnlyList<PlanItem> ItemsOn(DateOnly day) => board[new(eater.Id, day)].FindAll(stock.Has);
        var first = KitchenDays.MondayOf(from);
        var weeks = Enumerable.Range(0, ((to.DayNumber - first.DayNumber) / 7) + 1).Select(week => first.AddDays(7 * week));
        return weeks.SelectMany(monday => Read(eater, monday, ItemsOn, item => item.Contents(stock), eaten))
            .Where(day => day.Rest.Day.Drawn > 0).ToDictionary(day => day.Day, day => day.Rest.Day.Drawn);
    }

    /// <summary>Days of one week as they are shown, in order.</summary>
    /// <param name="eater">Whose.</param>
    /// <param name="start">The first: they are read by the aims they had.</param>
    /// <param name="board">What lies on them.</param>
    /// <param name="stock">What that is made of.</param>
    /// <param name="eaten">What was eaten of it, by item, as it was counted then.</param>
    /// <param name="days">How many.</param>
    public IReadOnlyList<DayView> Days(
        EaterRow eater, DateOnly start, PlanBoard board, Stock stock, IReadOnlyDictionary<Guid, EatenMeasures> eaten, int days = 7)
    {
        ArgumentNullException.ThrowIfNull(eater);
        ArgumentNullException.ThrowIfNull(board);
        ArgumentNullException.ThrowIfNull(stock);
        IReadOnlyList<PlanItem> ItemsOn(DateOnly day) => board[new(eater.Id, day)].FindAll(stock.Has);
        return [.. Read(eater, start, ItemsOn, item => item.Contents(stock), eaten, days).Select(day => Show(day, stock, eaten))];
    }

    /// <summary>
    /// Days as they are shown, with all days of their weeks: a day draws on what the days before it left of the reserve. Days of nobody at
    /// the table are not among them.
    /// </summary>
    /// <param name="days">The days.</param>
    /// <param name="table">The eaters, by id.</param>
    /// <param name="board">What lies on the days.</param>
    /// <param name="stock">What that is made of.</param>
    /// <param name="eaten">What was eaten of it, by item, as it was counted then.</param>
    public IReadOnlyDictionary<EaterDay, DayView> WeeksOf(
        IEnumerable<EaterDay> days, IReadOnlyDictionary<Guid, EaterRow> table, PlanBoard board, Stock stock,
        IReadOnlyDictionary<Guid, EatenMeasures> eaten)
    {
        ArgumentNullException.ThrowIfNull(table);
        var weeks = days.Where(day => table.ContainsKey(day.EaterId))
            .Select(day => new EaterDay(day.EaterId, KitchenDays.MondayOf(day.Day))).Distinct();
        return weeks.SelectMany(week => Days(table[week.EaterId], week.Day, board, stock, eaten).Select(day => (week.EaterId, day)))
            .ToDictionary(one => new EaterDay(one.EaterId, one.day.Day), one => one.day);
    }

    private DayView Show(ReadDay day, Stock stock, IReadOnlyDictionary<Guid, EatenMeasures> eaten)
    {
        var (aim, rest) = (day.Aim, day.Rest);
        var other = day.Ways.OtherDays.FirstOrDefault(one => one.Date == day.Day)
            ?? day.Ways.OtherDays.FirstOrDefault(one => one.Weekday == day.Day.DayOfWeek);
        ItemView Shown(PlanItem item, int i)
        {
            var contents = item.Contents(stock);
            var exact = aim.Rule is null
                ? (Core.Measures.Total?)null
                : eaten.GetValueOrDefault(item.Id)?.ExactPoints ?? aim.Rule.Exact(contents);
            return Show(item, day.Day, rest.Day.Entries[i], exact, stock) with { Never = NeverOf(item, contents, day.Ways) };
        }

        var shown = day.Items.Select(Shown).ToList();
        // A meal out has no weight that anybody knows.
        var weighed = day.Items.Zip(shown).Where(one => one.First.GiveOrTake is null).Select(one => one.Second).ToList();
        var grams = weighed.Where(item => !item.IsForGuests).Sum(item => item.Grams);
        var energy = weighed.Sum(item => item.Figures[Measure.Energy].Value);
        var byEye = EyeSpread.Together(weighed.Select(item => item.GiveOrTake ?? 0));
        return new(
            day.Day, shown, Figure.Of(rest.Day.Sums), Figure.Of(rest.Eaten), rest.Left, rest.Day.Bands, rest.Day.Missing,
            rest.Day.Fits, rest.Day.Verdict, aim,
            [.. day.Ways.Away.Where(away => away.Day == day.Day).Select(away => away.Slot).OfType<string>()], other?.Name,
            grams, grams > 0 ? energy * 100 / grams : null,
            day.Items.Sum(item => item.GiveOrTake ?? 0) + byEye,
            aim.Rule is null ? null : Figure.Sum(shown.Select(item => item.ExactPoints!)));
    }

    private static NeverView? NeverOf(PlanItem item, Contents contents, EatingWays ways) =>
        item.IsMealOut || item.EatenAt is not null ? null : NeverView.Of(ways.WhyNever(contents));

    private static Dictionary<Guid, NeverView> NeverFor(Contents contents, IEnumerable<EaterRow> table)
    {
        var reasons = table.Select(eater => (eater.Id, Why: NeverView.Of(eater.Ways.WhyNever(contents))));
        return reasons.Where(one => one.Why is not null).ToDictionary(one => one.Id, one => one.Why!);
    }

    private ItemView Show(
        PlanItem item, DateOnly day, IReadOnlyDictionary<Measure, Core.Measures.Total> totals, Core.Measures.Total? exactPoints,
        Stock stock)
    {
        var exact = exactPoints is { } points ? Figure.Of(points) : null;
        if (stock.BoxOf(item) is not { } box)
        {
            var grams = item.Food?.Weight.Value ?? 0;
            return new(
                item.Id, null, item.Food?.Food.Name ?? item.Name(stock), item.Text, null, null, grams, null, null, item.EatenAt,
                Figure.Of(totals), exact, item.Slot, item.IsLocked, item.GiveOrTake, false, false, IsForGuests: item.IsForGuests,
                Hold: item.Hold);
        }

        var useBy = UseBy.Of(box, Today, stock.Rules);
        return new(
            item.Id, item.BoxId, box.Batch.RecipeName, null, box.Batch.Mark.Letters, box.Batch.Mark.Tint, box.Weight.Value, box.Pieces,
            box.Batch.CookedOn, item.EatenAt, Figure.Of(totals), exact,
            item.Slot, item.IsLocked, totals[Measure.Energy].Known * box.EyeSpread, useBy.IsFrozenFor(day),
            item.EatenAt is null && useBy.IsOver(Today), item.Portion?.BatchId,
            PartOf: item.PartOfBox is null ? null : stock.Boxes[box.Id].Weight.Value, IsForGuests: item.IsForGuests,
            Volume: box.Batch.SaidVolumeOf(box.Weight),
            PieceStep: item.Portion is not null && box.Pieces > 0 ? box.Batch.PieceStep : null);
    }

    private async Task<IReadOnlyList<UnpackedView>> UnpackedAsync(IReadOnlyList<EaterRow> table)
    {
        var (unpacked, rules) = (await plan.UnpackedAsync(), await plan.RulesAsync());
        var versions = unpacked.Count == 0
            ? new Dictionary<Guid, int>()
            : await plan.BatchVersionsAsync([.. unpacked.Select(one => one.Batch.Id)]);
        var there = unpacked.Where(one => versions.ContainsKey(one.Batch.Id));
        return [.. there.Select(one => Show(one, versions[one.Batch.Id], table, rules))];
    }

    private UnpackedView Show(UnpackedBatch one, int version, IReadOnlyList<EaterRow> table, KeepingRules rules)
    {
        var (batch, useBy) = (one.Batch, UseBy.Of(one.Batch, Today, rules));
        var expected = batch is { Cooked: null, Expected: { } known }
            ? new ExpectedView(known.From, Rounding.ToStep(known.Spread.Value, 1))
            : null;
        Contents NewFor(EaterRow eater) => batch.Holding(one.NewFor(eater.Id));
        var volumes = table.Select(eater => (eater.Id, Said: batch.SaidVolumeOf(one.NewFor(eater.Id)))).Where(own => own.Said is not null);
        return new(
            batch.Id, batch.RecipeName, batch.Mark.Letters, batch.Mark.Tint, batch.CookedOn, batch.State, expected, batch.Weight?.Value,
            batch.Portions, one.Left.Value, one.InDishes.Value, one.IsForDishes, one.PortionsLaid,
            table.ToDictionary(eater => eater.Id, eater => one.NewFor(eater.Id).Value),
            table.ToDictionary(eater => eater.Id, eater => Figure.Of(eater.Aim.Count(NewFor(eater)))), useBy.Fridge, useBy.Rule.Source,
            version, NeverFor(batch.Contents, table), batch.PieceWeight?.Value, volumes.ToDictionary(own => own.Id, own => own.Said!));
    }

    // Boxes of one batch that are alike, stand in one place and keep equally long are one group; what is left of a box is one of its own.
    // Those past their last day come last.
    private List<ShelfView> Shelf(
        IReadOnlyList<Box> boxes, IReadOnlyList<EaterRow> table, IReadOnlyDictionary<Guid, int> versions, KeepingRules rules)
    {
        ShelfView Show(IReadOnlyList<Box> group)
        {
            var (first, useBy) = (group[0], UseBy.Of(group[0], Today, rules));
            var (batch, contents) = (first.Batch, first.Contents);
            return new(
                batch.Id, batch.RecipeName, batch.Mark.Letters, batch.Mark.Tint, batch.CookedOn, [.. group.Select(box => box.Id)],
                [.. group.Select(box => new BoxAt(box.Id, versions[box.Id]))], first.Life.Place, first.Weight.Value, first.IsPart,
                first.Pieces,
                table.ToDictionary(eater => eater.Id, eater => Figure.Of(eater.Aim.Count(contents))), useBy.Last, useBy.Rule.Source,
                useBy.IsOver(Today), NeverFor(contents, table), batch.SaidVolumeOf(first.Weight));
        }

        var groups = boxes.GroupBy(box => (
            box.Batch.Id, box.Life.Place, UseBy.Of(box, Today, rules).Last, box.IsPart ? box.Id : Guid.Empty));
        return [.. groups.SelectMany(group => Box.Alike(group, box => box)).Select(Show).OrderBy(group => group.IsOver)];
    }
}
