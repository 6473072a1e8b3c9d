using LivelyTern.Core.Aim;
using LivelyTern.Core.Eat;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;

namespace LivelyTern.Web.Plan;

/// <summary>Something on a day, as shown.</summary>
/// <param name="Id">The item.</param>
/// <param name="BoxId">Its box, or null for a plain food.</param>
/// <param name="Name">The dish, or the food.</param>
/// <param name="Text">A plain food as typed.</param>
/// <param name="Letters">The tape mark of a box.</param>
/// <param name="Tint">The tint of a box, 0 to 7.</param>
/// <param name="Grams">Its weight: cooked for a box.</param>
/// <param name="Pieces">Pieces in the box, where it was packed by pieces.</param>
/// <param name="CookedOn">The day its batch was cooked.</param>
/// <param name="EatenAt">When it was eaten; null while planned.</param>
/// <param name="Figures">What it holds, points under this eater's rule.</param>
/// <param name="ExactPoints">Its points before rounding, or null without a rule.</param>
public sealed record ItemView(
    Guid Id, Guid? BoxId, string Name, string? Text, string? Letters, int? Tint, decimal Grams, int? Pieces, DateOnly? CookedOn, DateTimeOffset? EatenAt,
    IReadOnlyDictionary<Measure, Figure> Figures, Figure? ExactPoints);

/// <summary>One day of one eater against their aim.</summary>
/// <param name="Day">The day.</param>
/// <param name="Items">What lies on it, in order.</param>
/// <param name="Sums">The whole day, eaten and planned.</param>
/// <param name="Eaten">What was eaten so far.</param>
/// <param name="Left">What is left to each target after what was eaten.</param>
/// <param name="Bands">Where each sum lies in its band.</param>
/// <param name="Missing">For each nutrient not complete, the foods that lack it.</param>
/// <param name="Fits">Whether every band that is set holds.</param>
public sealed record DayView(
    DateOnly Day, IReadOnlyList<ItemView> Items, IReadOnlyDictionary<Measure, Figure> Sums, IReadOnlyDictionary<Measure, Figure> Eaten,
    IReadOnlyDictionary<Measure, decimal> Left, IReadOnlyDictionary<Measure, BandReading> Bands, IReadOnlyDictionary<Measure, IReadOnlyList<string>> Missing, bool Fits);

/// <summary>One eater's week.</summary>
/// <param name="EaterId">The eater.</param>
/// <param name="Name">Their name.</param>
/// <param name="Aim">Their aim.</param>
/// <param name="Days">Seven days, Monday first.</param>
/// <param name="Sums">The week's sums.</param>
/// <param name="FitDays">How many of the days with something on them fit.</param>
/// <param name="LaidDays">How many days have something on them.</param>
public sealed record EaterWeekView(Guid EaterId, string Name, DayAim Aim, IReadOnlyList<DayView> Days, IReadOnlyDictionary<Measure, Figure> Sums, int FitDays, int LaidDays);

/// <summary>Boxes of one batch on the shelf.</summary>
/// <param name="BatchId">The batch.</param>
/// <param name="Name">The dish.</param>
/// <param name="Letters">Its tape mark.</param>
/// <param name="Tint">Its tint, 0 to 7.</param>
/// <param name="CookedOn">When it was cooked.</param>
/// <param name="BoxIds">The boxes, in their order.</param>
/// <param name="Grams">The first box's weight.</param>
/// <param name="Pieces">Its pieces, where counted.</param>
/// <param name="Figures">The first box's figures, for each eater by id: points differ.</param>
public sealed record ShelfView(
    Guid BatchId, string Name, string Letters, int Tint, DateOnly CookedOn, IReadOnlyList<Guid> BoxIds, decimal Grams, int? Pieces,
    IReadOnlyDictionary<Guid, IReadOnlyDictionary<Measure, Figure>> Figures);

/// <summary>A week of every eater, and the shelf.</summary>
public sealed record WeekView(DateOnly Start, DateOnly Today, int Version, IReadOnlyList<EaterWeekView> Eaters, IReadOnlyList<ShelfView> Shelf);

/// <summary>Reads the plan from the store through the core, for the screens.</summary>
public sealed class PlanReader(PlanStore plan, EaterStore eaters, TimeProvider clock)
{
    /// <summary>The household's day, now.</summary>
    public DateOnly Today => DateOnly.FromDateTime(clock.GetLocalNow().DateTime);

    /// <summary>The Monday on or before a day.</summary>
    public static DateOnly MondayOf(DateOnly day) => day.AddDays(-(((int)day.DayOfWeek + 6) % 7));

    /// <summary>The week in which a day lies.</summary>
    public async Task<WeekView> WeekAsync(DateOnly day)
    {
        var start = day > DateOnly.MaxValue.AddDays(-14) || day < DateOnly.MinValue.AddDays(14) ? Today : MondayOf(day);
        start = MondayOf(start);
        // The version is read first: a change in between makes the next write stale rather than unseen.
        var version = await plan.VersionAsync();
        var board = await plan.BoardAsync(start, start.AddDays(6));
        var boxes = await plan.BoxesAsync([.. board.Days.Values.SelectMany(items => items).Select(item => item.BoxId).OfType<Guid>()]);
        var table = await eaters.ListAsync();
        return new(start, Today, version, [.. table.Select(eater => Week(eater, start, board, boxes))], Shelf(await plan.ShelfAsync(), table));
    }

    /// <summary>One day of one eater.</summary>
    public async Task<DayView> DayAsync(EaterRow eater, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(eater);
        var board = await plan.BoardAsync(day, day);
        var boxes = await plan.BoxesAsync([.. board.Days.Values.SelectMany(items => items).Select(item => item.BoxId).OfType<Guid>()]);
        return Day(eater.Aim, day, board[new(eater.Id, day)], boxes);
    }

    private static EaterWeekView Week(EaterRow eater, DateOnly start, PlanBoard board, IReadOnlyDictionary<Guid, Box> boxes)
    {
        var days = Enumerable.Range(0, 7).Select(start.AddDays).Select(day => Day(eater.Aim, day, board[new(eater.Id, day)], boxes)).ToList();
        var laid = days.Where(day => day.Items.Count > 0).ToList();
        var sums = MeasureNutrient.All.Where(measure => days[0].Sums.ContainsKey(measure)).ToDictionary(
            measure => measure,
            measure => new Figure(days.Sum(day => day.Sums[measure].Value), days.TrueForAll(day => day.Sums[measure].Complete)));
        return new(eater.Id, eater.Name, eater.Aim, days, sums, laid.Count(day => day.Fits), laid.Count);
    }

    private static DayView Day(DayAim aim, DateOnly day, IReadOnlyList<PlanItem> items, IReadOnlyDictionary<Guid, Box> boxes)
    {
        var contents = items.Select(item => PlanStore.ContentsOf(item, boxes)).ToList();
        var rest = DayRest.Of([.. items.Select((item, i) => (contents[i], item.EatenAt is not null))], aim);
        return new(
            day,
            [.. items.Select((item, i) => Show(item, contents[i], rest.Day.Entries[i], aim.Rule, boxes))],
            Figure.Of(rest.Day.Sums), Figure.Of(rest.Eaten), rest.Left, rest.Day.Bands, rest.Day.Missing, rest.Day.Fits);
    }

    private static ItemView Show(PlanItem item, Contents contents, IReadOnlyDictionary<Measure, Core.Measures.Total> totals, PointsRule? rule, IReadOnlyDictionary<Guid, Box> boxes)
    {
        var exact = rule is null ? null : Figure.Of(rule.Exact(contents));
        if (item.BoxId is not { } id)
            return new(item.Id, null, item.Food!.Food.Name, item.Text, null, null, item.Food.Weight.Value, null, null, item.EatenAt, Figure.Of(totals), exact);
        var box = boxes[id];
        return new(
            item.Id, id, box.Batch.RecipeName, null, box.Batch.Mark.Letters, box.Batch.Mark.Tint, box.Weight.Value, box.Pieces, box.Batch.CookedOn, item.EatenAt, Figure.Of(totals), exact);
    }

    private static List<ShelfView> Shelf(IReadOnlyList<Box> boxes, IReadOnlyList<EaterRow> table) =>
        [.. boxes.GroupBy(box => box.Batch.Id).Select(group =>
        {
            var first = group.First();
            return new ShelfView(
                group.Key, first.Batch.RecipeName, first.Batch.Mark.Letters, first.Batch.Mark.Tint, first.Batch.CookedOn, [.. group.Select(box => box.Id)], first.Weight.Value, first.Pieces,
                table.ToDictionary(eater => eater.Id, eater => Figure.Of(MeasureTotals.Of(first.Contents, eater.Aim.Rule))));
        })];
}
