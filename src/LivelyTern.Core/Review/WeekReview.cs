using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;

namespace LivelyTern.Core.Review;

/// <summary>What is known of what was eaten on a day.</summary>
public enum DayNoted
{
    /// <summary>As far as can be seen, all of it was written down.</summary>
    Whole,

    /// <summary>Less than half of what is usual was: perhaps not all of it.</summary>
    InPart,

    /// <summary>Nothing was.</summary>
    Nothing,

    /// <summary>Its eater was away.</summary>
    Away,

    /// <summary>It is today.</summary>
    NotOver,

    /// <summary>It is still to come.</summary>
    Ahead,
}

/// <summary>Why a day was eaten otherwise than it was planned.</summary>
public enum Cause
{
    /// <summary>More or less of something than was planned.</summary>
    OtherAmount,

    /// <summary>Something that is added at eating.</summary>
    Topping,

    /// <summary>A meal out, or a guess, that was not planned.</summary>
    MealOut,

    /// <summary>Something else that was not planned.</summary>
    Unplanned,

    /// <summary>Something that was planned and not eaten.</summary>
    NotEaten,

    /// <summary>Something that was eaten on another day of the week than it was planned for.</summary>
    OtherDay,

    /// <summary>What was eaten was counted anew later, because its batch was corrected.</summary>
    Corrected,
}

/// <summary>What something that was eaten is.</summary>
public enum EatenKind
{
    /// <summary>Of a batch.</summary>
    Box,

    /// <summary>A plain food.</summary>
    Plain,

    /// <summary>A plain food that the cook wrote down for a box eaten that day.</summary>
    Topping,

    /// <summary>A meal out, or a guess.</summary>
    MealOut,
}

/// <summary>Something that was planned for a day.</summary>
/// <param name="ItemId">What lay on the day.</param>
/// <param name="Name">What it was called.</param>
/// <param name="Totals">Every measure.</param>
public sealed record PlannedThing(Guid ItemId, string Name, IReadOnlyDictionary<Measure, Total> Totals);

/// <summary>Something that was eaten on a day.</summary>
/// <param name="ItemId">What lay on the day.</param>
/// <param name="Name">What it was called.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Totals">Every measure, as it counts now.</param>
public sealed record EatenThing(Guid ItemId, string Name, EatenKind Kind, IReadOnlyDictionary<Measure, Total> Totals)
{
    /// <summary>What it was counted by first, where its batch was corrected after it was eaten; null where it was not.</summary>
    public IReadOnlyDictionary<Measure, Total>? FirstCounted { get; init; }

    /// <summary>Divided by eye, by how many kcal it is off two times in three; 0 where it was weighed.</summary>
    public decimal ByEye { get; init; }

    /// <summary>A guess, by how many kcal it may be off at most; 0 for all else.</summary>
    public decimal GiveOrTake { get; init; }
}

/// <summary>A day to be looked back on.</summary>
/// <param name="Day">The day.</param>
/// <param name="Aim">The aim it had.</param>
/// <param name="Planned">How it was planned; null where that was not kept. With nothing in it there was no plan.</param>
/// <param name="Eaten">What was eaten.</param>
/// <param name="IsInPart">Whether that is less than half of what is usual.</param>
public sealed record DayToReview(
    DateOnly Day, DayAim Aim, IReadOnlyList<PlannedThing>? Planned, IReadOnlyList<EatenThing> Eaten, bool IsInPart = false);

/// <summary>What was eaten otherwise than planned.</summary>
/// <param name="Day">On which day.</param>
/// <param name="Cause">Why.</param>
/// <param name="ItemId">Of what.</param>
/// <param name="Name">What that is called.</param>
/// <param name="By">By how much more, measure by measure; below zero for less.</param>
public sealed record Difference(DateOnly Day, Cause Cause, Guid ItemId, string Name, IReadOnlyDictionary<Measure, Total> By);

/// <summary>All differences of a week that have one cause.</summary>
/// <param name="Cause">The cause.</param>
/// <param name="Times">How many there are.</param>
/// <param name="By">What they come to, measure by measure.</param>
public sealed record CauseOfWeek(Cause Cause, int Times, IReadOnlyDictionary<Measure, Total> By);

/// <summary>A day as it was: planned, eaten, and what lies between.</summary>
/// <param name="Day">The day.</param>
/// <param name="Noted">What is known of it.</param>
/// <param name="Aim">The aim it had.</param>
/// <param name="Planned">What was planned, measure by measure; null where there was no plan, or it was not kept.</param>
/// <param name="Eaten">What was eaten, against the aim.</param>
/// <param name="Differences">What lies between; with what was planned it makes what was eaten. Empty for days that don't count.</param>
public sealed record ReviewedDay(
    DateOnly Day, DayNoted Noted, DayAim Aim, IReadOnlyDictionary<Measure, Total>? Planned, DayReading Eaten,
    IReadOnlyList<Difference> Differences)
{
    /// <summary>Whether it counts in the sums of the week: it is over, and something of it was written down.</summary>
    public bool Counts => Noted is DayNoted.Whole or DayNoted.InPart;
}

/// <summary>A measure over the days of a week that count.</summary>
/// <param name="Measure">The measure.</param>
/// <param name="Eaten">What was eaten, in kcal, grams or points.</param>
/// <param name="Planned">What was planned for those of the days whose plan was kept.</param>
/// <param name="EatenOfPlanned">What was eaten on those.</param>
/// <param name="PlannedDays">How many those are.</param>
/// <param name="Days">How many days count.</param>
/// <param name="LeastADay">The least the days were to hold, on average of those that name it; null where none does.</param>
/// <param name="MostADay">The most, on average of those that name it.</param>
/// <param name="Within">On how many days it lay within its band, a reserve counted in.</param>
/// <param name="Under">On how many under it.</param>
/// <param name="Over">On how many over it.</param>
public sealed record MeasureOfWeek(
    Measure Measure, Total Eaten, Total Planned, Total EatenOfPlanned, int PlannedDays, int Days, decimal? LeastADay,
    decimal? MostADay, int Within, int Under, int Over)
{
    /// <summary>What was eaten, a day.</summary>
    public Total EatenADay => new(Eaten.Known / Math.Max(1, Days), Eaten.Certainty);

    /// <summary>What was planned, a day; null where no plan was kept.</summary>
    public Total? PlannedADay => PlannedDays > 0 ? new(Planned.Known / PlannedDays, Planned.Certainty) : null;
}

/// <summary>
/// A week as it was, against how it was planned and against the aim. Planned and all differences together are what was eaten, to the last
/// digit, in every measure. Days without anything written down, and today, count nowhere: what is not known is no zero. A day for which
/// nothing was planned is compared with its aim only.
/// </summary>
/// <param name="Days">Its days, in order.</param>
/// <param name="Measures">Each measure over the days that count.</param>
/// <param name="Causes">Where the differences came from, those that come to most energy first.</param>
/// <param name="Unknown">For each measure that is not known whole, of what it is not known.</param>
public sealed record WeekReview(
    IReadOnlyList<ReviewedDay> Days, IReadOnlyList<MeasureOfWeek> Measures, IReadOnlyList<CauseOfWeek> Causes,
    IReadOnlyDictionary<Measure, IReadOnlyList<string>> Unknown)
{
    /// <summary>How many things of the days that count were divided by eye.</summary>
    public int ThingsByEye { get; init; }

    /// <summary>By how many kcal those are off together, two times in three: they know nothing of each other.</summary>
    public decimal ByEye { get; init; }

    /// <summary>How many things were guessed.</summary>
    public int Guesses { get; init; }

    /// <summary>By how many kcal those may be off together, at most.</summary>
    public decimal GiveOrTake { get; init; }

    /// <summary>How many days count.</summary>
    public int CountedDays => Days.Count(day => day.Counts);

    /// <summary>Looks back on a week.</summary>
    /// <param name="days">Its days, Monday first.</param>
    /// <param name="reserve">The weekly reserve in the leading measure; null for none.</param>
    /// <param name="today">The household's day.</param>
    public static WeekReview Of(IReadOnlyList<DayToReview> days, decimal? reserve, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(days);
        var eatenIds = days.SelectMany(day => day.Eaten).Select(thing => thing.ItemId).ToHashSet();
        var plannedIds = days.SelectMany(day => day.Planned ?? []).Select(thing => thing.ItemId).ToHashSet();
        var read = new List<ReviewedDay>();
        var left = reserve ?? 0;
        foreach (var day in days)
        {
            IReadOnlyList<IReadOnlyDictionary<Measure, Total>> measured = [.. day.Eaten.Select(thing => thing.Totals)];
            var reading = DayReading.Of([], measured, day.Aim, left) with { IsEmpty = day.Eaten.Count == 0 };
            var noted = NotedOf(day, today);
            var counts = noted is DayNoted.Whole or DayNoted.InPart;
            if (counts) left -= reading.Drawn;
            var planned = day.Planned is { Count: > 0 } all ? MeasureTotals.Sum(all.Select(thing => thing.Totals), day.Aim.Rule) : null;
            read.Add(new(
                day.Day, noted, day.Aim, planned, reading, counts ? [.. Between(day, plannedIds.Contains, eatenIds.Contains)] : []));
        }

        var counted = days.Zip(read).Where(one => one.Second.Counts).ToList();
        var eaten = counted.SelectMany(one => one.First.Eaten).ToList();
        return new(read, MeasuresOf([.. counted.Select(one => one.Second)]), CausesOf(read), UnknownOf(eaten))
        {
            ThingsByEye = eaten.Count(thing => thing.ByEye > 0),
            ByEye = Pack.EyeSpread.Together(eaten.Select(thing => thing.ByEye)),
            Guesses = eaten.Count(thing => thing.GiveOrTake > 0),
            GiveOrTake = eaten.Sum(thing => thing.GiveOrTake),
        };
    }

    private static DayNoted NotedOf(DayToReview day, DateOnly today)
    {
        if (day.Day > today) return DayNoted.Ahead;
        if (day.Day == today) return DayNoted.NotOver;
        if (day.Eaten.Count > 0) return day.IsInPart ? DayNoted.InPart : DayNoted.Whole;
        return day.Aim.IsAway ? DayNoted.Away : DayNoted.Nothing;
    }

    private static IEnumerable<Difference> Between(DayToReview day, Func<Guid, bool> isPlannedInWeek, Func<Guid, bool> isEatenInWeek)
    {
        if (day.Planned is not { Count: > 0 } plan) yield break;
        var planned = plan.ToDictionary(thing => thing.ItemId);
        var eatenIds = day.Eaten.Select(thing => thing.ItemId).ToHashSet();
        var eatenNames = plan.Where(thing => eatenIds.Contains(thing.ItemId)).Select(thing => thing.Name)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        Difference Of(Cause cause, Guid id, string name, IReadOnlyDictionary<Measure, Total> by) => new(day.Day, cause, id, name, by);
        foreach (var thing in day.Eaten)
        {
            var first = thing.FirstCounted ?? thing.Totals;
            var (cause, by) = planned.TryGetValue(thing.ItemId, out var was)
                ? (Cause.OtherAmount, Less(first, was.Totals))
                : (CauseOf(thing), first);
            if (IsSome(by)) yield return Of(cause, thing.ItemId, thing.Name, by);
            if (thing.FirstCounted is not null && Less(thing.Totals, first) is var more && IsSome(more))
                yield return Of(Cause.Corrected, thing.ItemId, thing.Name, more);
        }

        foreach (var thing in plan.Where(thing => !eatenIds.Contains(thing.ItemId) && IsSome(thing.Totals)))
        {
            var cause = isEatenInWeek(thing.ItemId) ? Cause.OtherDay : Cause.NotEaten;
            yield return Of(cause, thing.ItemId, thing.Name, thing.Totals.ToDictionary(one => one.Key, one => one.Value * -1));
        }

        // A second box of a dish that was planned once is more of it.
        Cause CauseOf(EatenThing thing) => thing.Kind switch
        {
            _ when isPlannedInWeek(thing.ItemId) => Cause.OtherDay,
            EatenKind.MealOut => Cause.MealOut,
            EatenKind.Topping => Cause.Topping,
            _ => eatenNames.Contains(thing.Name) ? Cause.OtherAmount : Cause.Unplanned,
        };
    }

    private static Dictionary<Measure, Total> Less(IReadOnlyDictionary<Measure, Total> one, IReadOnlyDictionary<Measure, Total> other)
    {
        Total Of(IReadOnlyDictionary<Measure, Total> totals, Measure measure) => totals.GetValueOrDefault(measure, Total.None);
        return one.Keys.Union(other.Keys).ToDictionary(measure => measure, measure => Of(one, measure) + (Of(other, measure) * -1));
    }

    private static bool IsSome(IReadOnlyDictionary<Measure, Total> totals) => totals.Values.Any(total => total.Known != 0);

    private static List<MeasureOfWeek> MeasuresOf(List<ReviewedDay> days)
    {
        var measures = days.SelectMany(day => day.Eaten.Sums.Keys).Distinct().Order();
        return [.. measures.Select(Over)];

        MeasureOfWeek Over(Measure measure)
        {
            static Total Sum(IEnumerable<Total> totals) => totals.Aggregate(Total.None, (sum, total) => sum + total);
            Total EatenOn(ReviewedDay day) => day.Eaten.Sums.GetValueOrDefault(measure, Total.None);
            var planned = days.Where(day => day.Planned is not null).ToList();
            var bands = days.ConvertAll(day => day.Aim[measure].Resolved());
            static decimal? Average(IEnumerable<decimal?> bounds) => bounds.OfType<decimal>().Select(one => (decimal?)one).Average();
            var places = days.Where(day => day.Eaten.Bands.ContainsKey(measure)).Select(day => day.Eaten.Bands[measure].Position).ToList();
            return new(
                measure, Sum(days.Select(EatenOn)), Sum(planned.Select(day => day.Planned!.GetValueOrDefault(measure, Total.None))),
                Sum(planned.Select(EatenOn)), planned.Count, days.Count, Average(bands.Select(band => band.Min)),
                Average(bands.Select(band => band.Max)), places.Count(place => place == BandPosition.Within),
                places.Count(place => place == BandPosition.Under), places.Count(place => place == BandPosition.Over));
        }
    }

    private static IReadOnlyList<CauseOfWeek> CausesOf(IReadOnlyList<ReviewedDay> days)
    {
        CauseOfWeek Sum(IGrouping<Cause, Difference> same) =>
            new(same.Key, same.Count(), MeasureTotals.Sum(same.Select(one => one.By), null));
        return
        [
            .. days.SelectMany(day => day.Differences).GroupBy(one => one.Cause).Select(Sum)
                .OrderByDescending(cause => Math.Abs(cause.By[Measure.Energy].Known)).ThenBy(cause => cause.Cause),
        ];
    }

    private static Dictionary<Measure, IReadOnlyList<string>> UnknownOf(IReadOnlyList<EatenThing> eaten)
    {
        var lacking =
            from thing in eaten
            from total in thing.Totals
            where !total.Value.IsComplete && total.Key != Measure.Points
            group thing.Name by total.Key;
        IReadOnlyList<string> Names(IEnumerable<string> names) =>
            [.. names.Distinct(StringComparer.OrdinalIgnoreCase).Order(StringComparer.Ordinal)];
        return lacking.ToDictionary(own => own.Key, Names);
    }
}
