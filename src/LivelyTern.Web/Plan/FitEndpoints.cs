using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Plan.Fit;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Plan;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Plan;

/// <summary>Days to be fitted.</summary>
/// <param name="From">The first day.</param>
/// <param name="To">The last day.</param>
/// <param name="EaterIds">Whose; null for everybody's.</param>
/// <param name="Scope">What may be moved.</param>
/// <param name="Wishes">What counts how much; null as usual.</param>
/// <param name="Seconds">How long to look at most.</param>
/// <param name="AmountsAreOpen">Whether batches still to be cooked may be made larger or smaller than planned.</param>
public sealed record FitRequest(
    DateOnly From, DateOnly To, IReadOnlyList<Guid>? EaterIds = null, FitScope Scope = FitScope.Boxes, FitWishes? Wishes = null,
    double Seconds = 10, bool AmountsAreOpen = false);

/// <summary>One day of a draft beside the day as it is.</summary>
/// <param name="EaterId">Whose.</param>
/// <param name="Name">Their name.</param>
/// <param name="Day">The day.</param>
/// <param name="Before">As it was when the fit began.</param>
/// <param name="After">As the draft has it.</param>
/// <param name="Comes">Names of what comes.</param>
/// <param name="Goes">Names of what goes.</param>
/// <param name="AtTheEdge">Where a band does not hold: the measures that do, but only just, and so are in the way.</param>
public sealed record DraftDay(
    Guid EaterId, string Name, DateOnly Day, DayView Before, DayView After, IReadOnlyList<string> Comes, IReadOnlyList<string> Goes,
    IReadOnlyList<Measure> AtTheEdge);

/// <summary>How a fit stands.</summary>
/// <param name="Id">The fit.</param>
/// <param name="Draft">The number of this draft; it can be taken as it is shown even when a better one has come since.</param>
/// <param name="IsDone">Whether it has ended.</param>
/// <param name="HasFailed">Whether it failed.</param>
/// <param name="IsBest">Whether it is proven that no plan is better.</param>
/// <param name="BetterThanFirst">By which share it is better than the first plan, 0 to 1; null before there is one.</param>
/// <param name="CouldBeBetter">By which share of the first plan a better one could lie below it at most, 0 to 1.</param>
/// <param name="Days">The draft, day by day; only those that differ, and those that do not fit.</param>
/// <param name="FitBefore">How many of the days fitted before.</param>
/// <param name="FitAfter">How many fit under the draft.</param>
/// <param name="AllDays">How many days were to be filled.</param>
/// <param name="ShelfAfter">Boxes left on the shelf under the draft.</param>
/// <param name="LeftOut">Dishes left out: past their time in the fridge, and nobody said whether they were frozen.</param>
public sealed record FitView(
    Guid Id, int Draft, bool IsDone, bool HasFailed, bool IsBest, double? BetterThanFirst, double? CouldBeBetter,
    IReadOnlyList<DraftDay> Days, int FitBefore, int FitAfter, int AllDays, int ShelfAfter, IReadOnlyList<string> LeftOut);

/// <summary>Days of a draft to be taken.</summary>
/// <param name="Draft">The number of the draft that was seen.</param>
/// <param name="Days">Which of its days.</param>
public sealed record TakeRequest(int Draft, IReadOnlyList<EaterDay> Days);

/// <summary>What was taken.</summary>
/// <param name="Made">The change; null where nothing was left to take.</param>
/// <param name="MovedOn">Days that were changed by hand since the fit began: they stay as they are.</param>
/// <param name="Without">Dishes a taken day goes without: their boxes lie on days that were not taken, and no equal one is on the
/// shelf.</param>
public sealed record TakeAnswer(MadeChange? Made, IReadOnlyList<EaterDay> MovedOn, IReadOnlyList<string> Without);

/// <summary>A whole problem, and how long to look.</summary>
/// <param name="Problem">Eaters, days, batches, fillers.</param>
/// <param name="Seconds">The longest time, up to 60.</param>
/// <param name="Rounds">Rounds of improvement; the same rounds give the same plan. Null looks until the time is over.</param>
public sealed record CalcFitRequest(FitProblem Problem, double Seconds = 5, int? Rounds = null);

/// <summary>A box laid.</summary>
public sealed record CalcFitBox(string EaterId, int Day, string BatchId, decimal Grams);

/// <summary>Servings laid.</summary>
public sealed record CalcFitServing(string EaterId, int Day, string FillerId, int Count);

/// <summary>A day of the answer, added up from the problem's own figures.</summary>
/// <param name="EaterId">Whose.</param>
/// <param name="Day">Which, from 0.</param>
/// <param name="Sums">What it comes to.</param>
/// <param name="Bands">Where each sum lies.</param>
/// <param name="Fits">Whether every band holds.</param>
public sealed record CalcFitDay(
    string EaterId, int Day, IReadOnlyDictionary<Measure, decimal> Sums, IReadOnlyDictionary<Measure, BandReading> Bands, bool Fits);

/// <summary>A batch after the fit.</summary>
public sealed record CalcFitLeft(string BatchId, int Left, string Unit);

/// <summary>The plan, what it costs, and how good it could be.</summary>
/// <param name="Boxes">The boxes.</param>
/// <param name="Servings">The fillers.</param>
/// <param name="Days">Every day, read.</param>
/// <param name="Left">What is left of each batch.</param>
/// <param name="Cost">What it costs, part by part.</param>
/// <param name="Objective">All of it.</param>
/// <param name="Bound">No plan costs less.</param>
/// <param name="IsBest">Whether it is proven best.</param>
/// <param name="Reasons">For each day out of its bands, which bounds are in the way, in words.</param>
public sealed record CalcFitAnswer(
    IReadOnlyList<CalcFitBox> Boxes, IReadOnlyList<CalcFitServing> Servings, IReadOnlyList<CalcFitDay> Days,
    IReadOnlyList<CalcFitLeft> Left, FitCost Cost, long Objective, long Bound, bool IsBest,
    IReadOnlyList<string> Reasons);

/// <summary>Fit: days filled so that they lie in their bands, as a draft that is taken or not.</summary>
public static class FitEndpoints
{
    private const double LongestSeconds = 60;
    private const int MostFillers = 24;

    /// <summary>Maps <c>/api/plan/fits</c> and <c>/api/calc/fit</c>.</summary>
    public static void MapFits(this IEndpointRouteBuilder api)
    {
        var fits = api.MapGroup("/plan/fits").WithTags("Plan");
        fits.MapPost("/", BeginAsync).WithName("beginFit");
        fits.MapGet("/{id:guid}", (
            Guid id, FitDesk desk, EaterStore eaters, PlanStore plan, PlanReader reader) =>
            WithAsync(id, desk, async fit => TypedResults.Ok(await ShowAsync(fit, eaters, plan, reader)))).WithName("getFit");
        fits.MapPost("/{id:guid}/stop", (
            Guid id, FitDesk desk, EaterStore eaters, PlanStore plan, PlanReader reader) =>
            WithAsync(id, desk, async fit =>
            {
                FitDesk.Stop(fit);
                return TypedResults.Ok(await ShowAsync(fit, eaters, plan, reader));
            })).WithName("stopFit");
        fits.MapPost("/{id:guid}/take", TakeAsync).WithName("takeFit");
        api.MapPost("/calc/fit", CalcAsync).WithTags("Calculate").WithName("calcFit");
    }

    private static async Task<Results<Ok<FitView>, ProblemHttpResult>> WithAsync(
        Guid id, FitDesk desk, Func<Fit, Task<Results<Ok<FitView>, ProblemHttpResult>>> answer) =>
        desk.Find(id) is { } fit ? await answer(fit) : Answers.Problem([Stale.Gone("fit")]);

    /// <summary>Everybody is away on all of the days.</summary>
    public static Problem Nobody { get; } = new("fit-nobody", "from", "Nobody is here on these days: there is nothing to fill.");

    private static async Task<Results<Ok<FitView>, ProblemHttpResult>> BeginAsync(
        FitRequest body, FitDesk desk, TernDb db, EaterStore eaters, PlanStore plan, PlanReader reader, FoodStore foods)
    {
        var table = (await eaters.ListAsync()).Where(row => body.EaterIds is null || body.EaterIds.Contains(row.Id)).ToList();
        var wishes = body.Wishes ?? new();
        List<Problem> problems = [];
        if (table.Count == 0) problems.Add(new("fit-eaters", "eaterIds", "Nobody to fit for: say who eats here under Aim."));
        if (body.To < body.From || body.To.DayNumber - body.From.DayNumber >= FitProblem.MostDays)
            problems.Add(new("fit-days", "to", $"Fit between 1 and {FitProblem.MostDays} days at a time."));
        else if (body.To < reader.Today) problems.Add(new("fit-past", "to", "Those days are past: what was eaten stays as it was."));
        if ((KitchenDays.Refusal(body.From, reader.Today, "from") ?? KitchenDays.Refusal(body.To, reader.Today, "to")) is { } far)
            problems.Add(far);
        if (body.Seconds is not (>= 0.2 and <= LongestSeconds))
            problems.Add(new("fit-seconds", "seconds", $"Look for between 0.2 and {LongestSeconds} seconds."));
        if (problems.Count > 0) return Answers.Problem(problems);

        var days = DaysOf(table, body.From, body.To, reader.Today);
        await using var once = await db.ReadOnceAsync();
        var board = await plan.BoardAsync(KitchenDays.MondayOf(body.From), KitchenDays.MondayOf(body.To).AddDays(6));
        var (stock, shelf, unpacked) = (await plan.StockAsync(board), await plan.ShelfAsync(), await plan.UnpackedAsync());
        var likes = table.SelectMany(row => row.Ways.Likes);
        var fillers = await plan.FillersAsync(likes, await foods.AllAsync(), reader.Today.AddDays(-28), MostFillers);
        List<FittedEater> who = [];
        foreach (var row in table) who.Add(await reader.FittedAsync(row, board, stock, body.From, body.To));
        var week = new WeekToFit(
            who, days, reader.Today, board, stock, shelf, unpacked, fillers, body.Scope, wishes,
            _ => body.AmountsAreOpen);
        if (wishes.Problems().ToList() is { Count: > 0 } wrong) return Answers.Problem(wrong);
        if (week.Days.Count == 0) return Answers.Problem([Nobody]);
        var fit = desk.Begin(week, board, body.Seconds);
        return TypedResults.Ok(await ShowAsync(fit, eaters, plan, reader));
    }

    /// <summary>The days of these eaters in a stretch, without those past.</summary>
    public static List<EaterDay> DaysOf(IEnumerable<EaterRow> table, DateOnly from, DateOnly to, DateOnly today)
    {
        var days = Enumerable.Range(0, to.DayNumber - from.DayNumber + 1).Select(from.AddDays).Where(day => day >= today).ToList();
        return [.. table.SelectMany(row => days.Select(day => new EaterDay(row.Id, day)))];
    }

    /// <summary>An eater as the core fits them.</summary>
    public static FittedEater Who(EaterRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new(new Eater(row.Id, row.Name, row.Aim), row.Ways) { IsQuiet = row.IsQuiet };
    }

    private static async Task<FitView> ShowAsync(Fit fit, EaterStore eaters, PlanStore plan, PlanReader reader)
    {
        var isDone = fit.IsDone;
        var (best, newest) = (fit.Best, fit.Draft());
        var leftOut = fit.Week.LeftOut.Select(box => box.Batch.RecipeName).Distinct(StringComparer.Ordinal).ToList();
        if (best is null || newest is not var (number, draft))
            return new(fit.Id, 0, isDone, fit.HasFailed, false, null, null, [], 0, 0, fit.Days.Count, 0, leftOut);

        var table = (await eaters.ListAsync()).ToDictionary(row => row.Id);
        var under = new PlanBoard(fit.Before.Days.SetItems(draft));
        var stock = await plan.StockAsync(under.Days.Concat(fit.Before.Days).SelectMany(day => day.Value));
        var eaten = await reader.EatenAsync(fit.Before);

        IReadOnlyDictionary<EaterDay, DayView> Read(PlanBoard board) => reader.WeeksOf(fit.Days, table, board, stock, eaten);
        var (lying, drafted) = (Read(fit.Before), Read(under));
        var days = fit.Days.Where(day => table.ContainsKey(day.EaterId) && draft[day].Concat(fit.Before[day]).All(stock.Has)).Select(day =>
        {
            var eater = table[day.EaterId];
            var (before, after) = (lying[day], drafted[day]);
            return new DraftDay(day.EaterId, eater.Name, day.Day, before, after,
                [.. after.Items.Where(item => before.Items.All(old => old.Id != item.Id)).Select(Named)],
                [.. before.Items.Where(item => after.Items.All(laid => laid.Id != item.Id)).Select(Named)],
                after.Fits ? [] : FittedDay.AtTheEdge(after.Aim.Bands, after.Sums.ToDictionary(sum => sum.Key, sum => sum.Value.Value)));
        }).ToList();
        var first = Math.Max(1, fit.FirstCost ?? 1);
        var batches = fit.Week.Problem.Batches;
        var packed = batches.Sum(batch => batch.Sizes.Sum(size => size.Boxes ?? 0));
        var shelf = packed - best.Plan.Boxes.Count(box => batches[box.Batch].IsPacked);
        return new(
            fit.Id, number, isDone, fit.HasFailed, best.IsBest, 1 - ((double)best.Cost.Total / first),
            (double)(best.Cost.Total - best.Bound) / first,
            [.. days.Where(day => day.Comes.Count + day.Goes.Count > 0 || !day.After.Fits)], days.Count(day => day.Before.Fits),
            days.Count(day => day.After.Fits), fit.Days.Count, shelf, leftOut);
    }

    // A portion comes or goes by its size: it may be the size that changes.
    private static string Named(ItemView item) =>
        item.BatchId is null
            ? item.Text ?? item.Name
            : string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{item.Name} {item.Grams:0} g");

    // What was chosen, onto the plan as it is now: a day changed by hand since then stays as it is, and a box that lies on a day
    // not taken stays there, with an equal one from the shelf in its place where there is one.
    private static async Task<Results<Ok<TakeAnswer>, ProblemHttpResult>> TakeAsync(
        Guid id, TakeRequest body, FitDesk desk, PlanStore plan, DayChanges changes, PlanReader reader)
    {
        if (desk.Find(id) is not { } fit) return Answers.Problem([Stale.Gone("fit")]);
        if (fit.Draft(body.Draft) is not { } draft)
            return Answers.Problem([new Problem("fit-empty", "days", "There is no draft yet: wait a moment.")]);
        var wanted = body.Days.Where(draft.ContainsKey).Distinct().ToList();
        var (from, to) = (fit.Days.Min(day => day.Day), fit.Days.Max(day => day.Day));
        var now = await plan.BoardAsync(from, to);
        var movedOn = wanted.Where(day => !now[day].SequenceEqual(fit.Before[day])).ToList();
        var taken = wanted.Except(movedOn).ToList();
        if (taken.Count == 0) return TypedResults.Ok(new TakeAnswer(null, movedOn, []));

        var stock = await plan.StockAsync(draft.Values.SelectMany(items => items).Concat(taken.SelectMany(day => now[day])));
        var after = Equal.Boxes(now.WithoutOverdue(reader.Today), draft, taken, await plan.OfferedAsync(), stock.Boxes);
        var without = taken.SelectMany(day => draft[day].Where(item => after[day].TrueForAll(laid => laid.Id != item.Id)))
            .Select(item => item.Name(stock)).ToList();
        var concerning = after.Values.SelectMany(items => items).Select(item => item.BoxId).OfType<Guid>().ToList();
        var made = await changes.MakeAsync(null, taken, concerning, board =>
        {
            var changed = taken.Where(day => !board[day].SequenceEqual(after[day]));
            return new PlanChange([.. changed.Select(day => new DayChange(day, now[day], after[day]))]);
        });
        return made.Succeeded ? TypedResults.Ok(new TakeAnswer(made.Value, movedOn, without)) : Answers.Problem(made.Problems);
    }

    private static async Task<Results<Ok<CalcFitAnswer>, ProblemHttpResult>> CalcAsync(
        CalcFitRequest body, IWeekFitter fitter, SolverTurns turns, CancellationToken gone)
    {
        var problems = body.Problem.Problems().ToList();
        if (body.Seconds is not (> 0 and <= LongestSeconds))
            problems.Add(new("fit-seconds", "seconds", $"Look for up to {LongestSeconds} seconds."));
        if (body.Rounds is < 0 or > 1000) problems.Add(new("fit-rounds", "rounds", "Up to 1,000 rounds."));
        if (problems.Count > 0) return Answers.Problem(problems);
        var effort = new FitEffort(body.Seconds, body.Rounds ?? int.MaxValue);
        var fitted = await turns.RunAsync(() => fitter.Fit(new FitTables(body.Problem), effort, null, gone), gone);
        if (fitted.Value is not { } answer) return Answers.Problem(fitted.Problems);
        var (problem, plan) = (body.Problem, answer.Plan);
        var days = (
            from e in Enumerable.Range(0, problem.Eaters.Count)
            from d in Enumerable.Range(0, problem.DayCount)
            select FittedDay.Read(problem, plan, e, d)).ToList();
        string EaterOf(int e) => problem.Eaters[e].Id;
        decimal GramsOf(FitBox box) => problem.Batches[box.Batch].Sizes[box.Size].Grams;
        var tables = new FitTables(problem);
        return TypedResults.Ok(new CalcFitAnswer(
            [.. plan.Boxes.Select(box => new CalcFitBox(EaterOf(box.Eater), box.Day, problem.Batches[box.Batch].Id, GramsOf(box)))],
            [.. plan.Servings.Select(one => new CalcFitServing(EaterOf(one.Eater), one.Day, problem.Fillers[one.Filler].Id, one.Count))],
            [.. days.Select(day => new CalcFitDay(day.EaterId, day.Day, day.Sums, day.Bands, day.Fits))],
            [.. problem.Batches.Select((batch, b) => new CalcFitLeft(batch.Id, tables.Left(plan, b), batch.IsPacked ? "boxes" : "g"))],
            answer.Cost, answer.Cost.Total, answer.Bound, answer.IsBest, [.. days.SelectMany(day => day.InTheWay)]));
    }
}
