using System.Globalization;
using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>What may lie on a day, whoever lays it there: a hand, a fit or an undo.</summary>
public static class MayLie
{
    /// <summary>Why an item may not come onto a day, or null where it may: never what is excluded for the eater, no portion before its batch is cooked, nothing that is no longer there.</summary>
    /// <param name="eater">Their name.</param>
    /// <param name="ways">How they eat.</param>
    /// <param name="day">The day.</param>
    /// <param name="item">What comes.</param>
    /// <param name="stock">Boxes and batches.</param>
    public static Problem? Not(string eater, EatingWays ways, DateOnly day, PlanItem item, Stock stock)
    {
        ArgumentNullException.ThrowIfNull(ways);
        ArgumentNullException.ThrowIfNull(item);
        ArgumentNullException.ThrowIfNull(stock);
        if (!stock.Has(item)) return new("batch-moved-on", "batchId", "That batch has been packed or discarded since: look at the shelf as it is now.");
        if (item.Portion is { } portion && stock.Unpacked[portion.BatchId] is { IsAhead: true } batch && day < batch.CookedOn)
            return new("not-cooked-yet", "day", $"{batch.RecipeName} is cooked on {batch.CookedOn.ToString("dddd, d MMMM", CultureInfo.InvariantCulture)}: lay it on that day or later.");
        return !item.IsEvent && ways.Forbids(item.Contents(stock))
            ? new("never-for", "eaterId", $"{eater} must never get that ({item.Name(stock)}): it holds something excluded, or something whose allergens are not known. Choose something else, or change it under Aim.")
            : null;
    }
}
