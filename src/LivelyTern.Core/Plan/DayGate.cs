using System.Globalization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;

namespace LivelyTern.Core.Plan;

/// <summary>
/// The one gate onto a day. Whoever lays, changes, moves, copies, fits, mends, undoes: what comes onto an eater's day is judged here, by
/// the allergens known today, and what must never lie there does not.
/// </summary>
public static class DayGate
{
    /// <summary>
    /// What a change brings onto days: all that was not there before it, and what is of another food, box or batch than before.
    /// </summary>
    public static IReadOnlyList<(EaterDay Where, PlanItem Item)> Comes(PlanChange change)
    {
        ArgumentNullException.ThrowIfNull(change);
        return [.. change.Days.SelectMany(day => day.After
            .Where(item => !day.Before.Exists(old => old.Id == item.Id && old.IsOfTheSame(item)))
            .Select(item => (day.Where, item)))];
    }

    /// <summary>
    /// Why a change may not be made because it has something eaten on a day that is still to come; null where it has not.
    /// </summary>
    /// <param name="change">The change.</param>
    /// <param name="today">The household's day.</param>
    public static Problem? EatenAhead(PlanChange change, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(change);
        bool IsNew(DayChange day, PlanItem item) =>
            item.EatenAt is not null && !day.Before.Exists(old => old.Id == item.Id && old.EatenAt is not null);
        var isAhead = change.Days.Exists(day => day.Where.Day > today && day.After.Exists(item => IsNew(day, item)));
        return isAhead ? new("day-ahead", "day", "That day is still to come: nothing was eaten on it yet.") : null;
    }

    /// <summary>The most things that lie on one eater's day: more can't be looked through, and is never meant.</summary>
    public const int MostThings = 60;

    /// <summary>Why a change may not be made because a day would hold too much after it; null where none does.</summary>
    /// <param name="change">The change; a day that held more already may only get less.</param>
    public static Problem? TooFull(PlanChange change)
    {
        ArgumentNullException.ThrowIfNull(change);
        return change.Days.Exists(day => day.After.Count > MostThings && day.After.Count > day.Before.Count)
            ? new("day-full", "day", $"A day holds up to {MostThings} things: take something off it first.")
            : null;
    }

    /// <summary>
    /// Why an item may not come onto a day, or null where it may: never what is excluded for the eater, nothing of a batch before it is
    /// cooked, nothing that is no longer there.
    /// </summary>
    /// <param name="eater">Their name.</param>
    /// <param name="ways">How they eat.</param>
    /// <param name="day">The day.</param>
    /// <param name="item">What comes.</param>
    /// <param name="stock">Boxes and batches.</param>
    /// <param name="find">A food as it is known today, or null.</param>
    public static Problem? Refusal(string eater, EatingWays ways, DateOnly day, PlanItem item, Stock stock, Func<string, Food?> find)
    {
        ArgumentNullException.ThrowIfNull(ways);
        ArgumentNullException.ThrowIfNull(item);
        ArgumentNullException.ThrowIfNull(stock);
        if (!stock.Has(item))
            return new("batch-moved-on", "batchId", "That batch has been packed or discarded since: look at the shelf as it is now.");
        if (IsGone(item, stock))
            return new("box-gone", "boxId", "That box is no longer here: it was given away, thrown away or emptied back.");
        if (NotCookedYet(day, item, stock) is { } early) return early;
        if (WhyNever(ways, item, stock, find) is not { } never) return null;
        var sentence =
            $"{eater} must never get that ({item.Name(stock)}): it holds {never.InWords}. Choose something else, or change it under Aim.";
        return new("never-for", "eaterId", sentence);
    }

    /// <summary>
    /// Why an eater must never get something that lies on a day or comes onto it; null where they may. A meal out is what its eater chose
    /// there.
    /// </summary>
    /// <param name="ways">How they eat.</param>
    /// <param name="item">What lies there.</param>
    /// <param name="stock">Boxes and batches.</param>
    /// <param name="find">A food as it is known today, or null.</param>
    public static Never? WhyNever(EatingWays ways, PlanItem item, Stock stock, Func<string, Food?> find)
    {
        ArgumentNullException.ThrowIfNull(ways);
        ArgumentNullException.ThrowIfNull(item);
        return item.IsMealOut ? null : ways.WhyNever(item.Contents(stock).AsKnownToday(find));
    }

    // One that was eaten lies on the day it was eaten, and nowhere else.
    private static bool IsGone(PlanItem item, Stock stock) =>
        item.BoxId is { } id && stock.Boxes[id].Life.State is not (BoxState.Packed or BoxState.PartEaten or BoxState.Eaten);

    private static Problem? NotCookedYet(DateOnly day, PlanItem item, Stock stock)
    {
        IEnumerable<Batch> batches = stock.BoxOf(item)?.Batches ?? [];
        if (batches.Where(batch => day < batch.CookedOn).MaxBy(batch => batch.CookedOn) is not { } late) return null;
        var cooked = late.CookedOn.ToString("dddd, d MMMM", CultureInfo.InvariantCulture);
        var verb = late.IsPlanned ? "is" : "was";
        return new("not-cooked-yet", "day", $"{late.RecipeName} {verb} cooked on {cooked}: lay it on that day or later.");
    }
}
