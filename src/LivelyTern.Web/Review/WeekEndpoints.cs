using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Core.Review;
using LivelyTern.Data;
using LivelyTern.Data.Aim;
using LivelyTern.Data.Review;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Review;

/// <summary>Something on a day that is looked back on.</summary>
/// <param name="ItemId">What lay on the day.</param>
/// <param name="Name">What it was called.</param>
/// <param name="Letters">The mark of its batch; null for all else.</param>
/// <param name="Tint">The tint of its batch.</param>
/// <param name="Figures">What it held.</param>
public sealed record ReviewThingView(Guid ItemId, string Name, string? Letters, int? Tint, IReadOnlyDictionary<Measure, Figure> Figures);

/// <summary>Something that was eaten otherwise than planned.</summary>
/// <param name="Day">On which day.</param>
/// <param name="Name">What it is called.</param>
/// <param name="By">By how much more; below zero for less.</param>
public sealed record DifferenceView(DateOnly Day, string Name, IReadOnlyDictionary<Measure, Figure> By);

/// <summary>The differences of a week that have one cause.</summary>
/// <param name="Cause">The cause.</param>
/// <param name="Times">How many there are.</param>
/// <param name="By">What they come to.</param>
/// <param name="Differences">One by one, in the order of days.</param>
public sealed record CauseView(
    Cause Cause, int Times, IReadOnlyDictionary<Measure, Figure> By, IReadOnlyList<DifferenceView> Differences);

/// <summary>A day of the week that is looked back on.</summary>
/// <param name="Day">The day.</param>
/// <param name="Noted">What is known of it.</param>
/// <param name="Counts">Whether it counts in the sums of the week.</param>
/// <param name="Aim">The aim it had.</param>
/// <param name="Verdict">What the day was by what was eaten.</param>
/// <param name="PlannedThings">What was planned; null where that was not kept.</param>
/// <param name="EatenThings">What was eaten.</param>
/// <param name="Planned">What was planned in all; null where that was not kept.</param>
/// <param name="Eaten">What was eaten in all.</param>
/// <param name="Bands">Where that lies.</param>
public sealed record ReviewDayView(
    DateOnly Day, DayNoted Noted, bool Counts, DayAim Aim, DayVerdict Verdict, IReadOnlyList<ReviewThingView>? PlannedThings,
    IReadOnlyList<ReviewThingView> EatenThings, IReadOnlyDictionary<Measure, Figure>? Planned,
    IReadOnlyDictionary<Measure, Figure> Eaten, IReadOnlyDictionary<Measure, BandReading> Bands);

/// <summary>A measure over the days that count.</summary>
/// <param name="EatenADay">What was eaten, a day.</param>
/// <param name="PlannedADay">What was planned, a day, over the days whose plan was kept; null with none.</param>
/// <param name="LeastADay">The least the days were to hold, a day; null where none names it.</param>
/// <param name="MostADay">The most.</param>
/// <param name="Planned">What was planned for the days whose plan was kept.</param>
/// <param name="EatenOfPlanned">What was eaten on those: what was planned and all differences together.</param>
/// <param name="PlannedDays">How many those are.</param>
/// <param name="Within">On how many days it lay within its band.</param>
/// <param name="Under">On how many under it.</param>
/// <param name="Over">On how many over it.</param>
public sealed record MeasureReviewView(
    Figure EatenADay, Figure? PlannedADay, decimal? LeastADay, decimal? MostADay, Figure Planned, Figure EatenOfPlanned, int PlannedDays,
    int Within, int Under, int Over);

/// <summary>A dish that was eaten, or all else.</summary>
/// <param name="BatchId">The batch; null for plain foods and meals out.</param>
/// <param name="RecipeId">Its recipe.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Name">What it is called; empty for plain foods and meals out.</param>
/// <param name="Letters">Its mark.</param>
/// <param name="Tint">Its tint.</param>
/// <param name="CookedOn">When it was cooked.</param>
/// <param name="Times">How often it was eaten.</param>
/// <param name="Servings">How it came to the table.</param>
/// <param name="Figures">What was eaten of it.</param>
/// <param name="Verdicts">What this eater says of it.</param>
public sealed record EatenDishView(
    Guid? BatchId, Guid? RecipeId, EatenKind Kind, string Name, string? Letters, int? Tint, DateOnly? CookedOn, int Times,
    IReadOnlyList<Serving> Servings, IReadOnlyDictionary<Measure, Figure> Figures, IReadOnlyList<VerdictView> Verdicts);

/// <summary>A week as it was, for one eater.</summary>
/// <param name="EaterId">The eater.</param>
/// <param name="Name">Their name.</param>
/// <param name="Monday">The week's first day.</param>
/// <param name="Today">The household's day.</param>
/// <param name="Aim">Their usual day, as it holds now.</param>
/// <param name="Days">Day by day.</param>
/// <param name="CountedDays">How many days count: they are over and something of them was written down.</param>
/// <param name="Measures">Each measure, a day on average over those.</param>
/// <param name="Causes">Where the difference between planned and eaten came from.</param>
/// <param name="Unknown">For each measure not known whole, of what it is not known.</param>
/// <param name="ThingsByEye">How many things were divided by eye.</param>
/// <param name="ByEye">By how many kcal those are off together, two times in three.</param>
/// <param name="Guesses">How many things were guessed.</param>
/// <param name="GiveOrTake">By how many kcal those may be off together, at most.</param>
/// <param name="Dishes">What was eaten, dish by dish, that with most energy first.</param>
public sealed record WeekReviewView(
    Guid EaterId, string Name, DateOnly Monday, DateOnly Today, DayAim Aim, IReadOnlyList<ReviewDayView> Days, int CountedDays,
    IReadOnlyDictionary<Measure, MeasureReviewView> Measures, IReadOnlyList<CauseView> Causes,
    IReadOnlyDictionary<Measure, IReadOnlyList<string>> Unknown, int ThingsByEye, decimal ByEye, int Guesses, decimal GiveOrTake,
    IReadOnlyList<EatenDishView> Dishes);

/// <summary>Review: a week against its plan and its aim.</summary>
public static class WeekEndpoints
{
    /// <summary>Maps <c>/api/review/week</c>.</summary>
    public static void MapWeekReview(this IEndpointRouteBuilder api) =>
        api.MapGet("/review/week/{eaterId:guid}/{day}", GetAsync).WithTags("Review").WithName("getWeekReview");

    private static async Task<Results<Ok<WeekReviewView>, ProblemHttpResult>> GetAsync(
        Guid eaterId, DateOnly day, TernDb db, EaterStore eaters, WeekToReview weeks, VerdictStore verdicts, TimeProvider clock)
    {
        var today = clock.Today();
        if (KitchenDays.Refusal(day, today, "day") is { } far) return Answers.Problem([far]);
        if (await eaters.FindAsync(eaterId) is not { } eater) return Answers.Problem([Stale.Gone("eater")]);
        await using var once = await db.ReadOnceAsync();
        var week = await weeks.OfAsync(eater, KitchenDays.MondayOf(day));
        var (review, items) = (week.Review, week.Board.Days.Values.SelectMany(all => all).ToDictionary(item => item.Id));
        Core.Cook.Batch? BatchOf(Guid itemId) =>
            items.TryGetValue(itemId, out var item) && week.Stock.Has(item) ? week.Stock.BoxOf(item)?.Batch : null;
        ReviewThingView Thing(Guid itemId, string name, IReadOnlyDictionary<Measure, Total> totals)
        {
            var mark = BatchOf(itemId)?.Mark;
            return new(itemId, name, mark?.Letters, mark?.Tint, Figure.Of(totals));
        }

        ReviewDayView Day(DayToReview one, ReviewedDay read) => new(
            read.Day, read.Noted, read.Counts, read.Aim.Resolved(), read.Eaten.Verdict,
            one.Planned is null ? null : [.. one.Planned.Select(thing => Thing(thing.ItemId, thing.Name, thing.Totals))],
            [.. one.Eaten.Select(thing => Thing(thing.ItemId, thing.Name, thing.Totals))],
            read.Planned is null ? null : Figure.Of(read.Planned), Figure.Of(read.Eaten.Sums), read.Eaten.Bands);

        var differences = review.Days.SelectMany(one => one.Differences).ToLookup(one => one.Cause);
        CauseView CauseOf(CauseOfWeek cause) => new(
            cause.Cause, cause.Times, Figure.Of(cause.By),
            [.. differences[cause.Cause].Select(one => new DifferenceView(one.Day, one.Name, Figure.Of(one.By)))]);

        var eaten = week.Days.SelectMany(one => one.Eaten.Select(thing => (one.Day, Thing: thing, Batch: BatchOf(thing.ItemId)))).ToList();
        var said = (await verdicts.OfBatchesAsync([.. eaten.Select(one => one.Batch?.Id).OfType<Guid>().Distinct()]))
            .Where(row => row.EaterId == eaterId).ToLookup(row => row.BatchId);
        EatenDishView Dish(IEnumerable<(DateOnly Day, EatenThing Thing, Core.Cook.Batch? Batch)> same)
        {
            var all = same.ToList();
            var (batch, kind) = (all[0].Batch, all[0].Batch is null ? KindOf(all[0].Thing) : EatenKind.Box);
            var sums = MeasureTotals.Sum(all.Select(one => one.Thing.Totals), eater.Aim.Rule);
            return new(
                batch?.Id, batch is null ? null : week.Recipes[batch.Id], kind, batch?.RecipeName ?? "", batch?.Mark.Letters,
                batch?.Mark.Tint, batch?.CookedOn, all.Count,
                batch is null ? [] : [.. all.Select(one => VerdictView.ServingOf(one.Day, batch.CookedOn)).Distinct().Order()],
                Figure.Of(sums), batch is null ? [] : [.. said[batch.Id].Select(VerdictView.Of)]);
        }

        var dishes = eaten.GroupBy(one => (one.Batch?.Id, Kind: one.Batch is null ? KindOf(one.Thing) : EatenKind.Box)).Select(Dish)
            .OrderByDescending(dish => dish.Figures[Measure.Energy].Value);
        return TypedResults.Ok(new WeekReviewView(
            eater.Id, eater.Name, KitchenDays.MondayOf(day), today, eater.Aim.Resolved(), [.. week.Days.Zip(review.Days, Day)],
            review.CountedDays, review.Measures.ToDictionary(one => one.Measure, Show),
            [.. review.Causes.Select(CauseOf)], review.Unknown, review.ThingsByEye, review.ByEye, review.Guesses, review.GiveOrTake,
            [.. dishes]));
    }

    // A topping is a plain food as well.
    private static EatenKind KindOf(EatenThing thing) => thing.Kind == EatenKind.MealOut ? EatenKind.MealOut : EatenKind.Plain;

    private static MeasureReviewView Show(MeasureOfWeek one) => new(
        Figure.Of(one.EatenADay), one.PlannedADay is { } planned ? Figure.Of(planned) : null, one.LeastADay, one.MostADay,
        Figure.Of(one.Planned), Figure.Of(one.EatenOfPlanned), one.PlannedDays, one.Within, one.Under, one.Over);
}
