using System.Collections.Immutable;
using LivelyTern.Core.Plan.Mends;

namespace LivelyTern.Core.Plan.Fit;

/// <summary>
/// The last hand on a fitted day: where it is still out by its exact figures, the plain foods that the fit laid are weighed otherwise, and
/// more of them laid, as few and as small changes as bring it in. What lay there before the fit, and every box, stays.
/// </summary>
internal static class DayFinish
{
    private const int MostTogether = 4, Promising = 120;

    /// <summary>The day's items, finished.</summary>
    /// <param name="day">The day under the fit's plan.</param>
    /// <param name="newId">Makes an id for what is laid.</param>
    public static ImmutableList<PlanItem> Of(DayOnPlan day, Func<Guid> newId)
    {
        if (!day.Now.IsOut || day.Fillers.Count == 0) return day.Items;
        var found = SmallChanges.Find(day, DayChanges.OfFoods, MostTogether, promising: Promising);
        var most = day.Who.Ways.FillersADay ?? int.MaxValue;
        var finished = found.Select(together => Changed(day, together, newId))
            .FirstOrDefault(items => items.Count(IsFiller) <= Math.Max(most, day.Items.Count(IsFiller)));
        return finished ?? day.Items;
    }

    private static bool IsFiller(PlanItem item) => item is { IsFitted: true, Food: not null, IsMealOut: false };

    private static ImmutableList<PlanItem> Changed(DayOnPlan day, ChangesTogether together, Func<Guid> newId)
    {
        var items = day.Items;
        foreach (var step in together.Changes.SelectMany(change => change.Steps))
        {
            items = step switch
            {
                TakesOff off => items.RemoveAll(item => item.Id == off.Item.Id),
                Weighs weighs => items.Replace(
                    items.Find(item => item.Id == weighs.Item.Id)!, weighs.Item with { What = Weighed(weighs) }),
                LaysFood lays => items.Add(new(newId(), new PlainFood(lays.Offer.Text, lays.Offer.Food)) { IsFitted = true }),
                _ => items,
            };
        }

        return items;
    }

    private static PlainFood Weighed(Weighs weighs) =>
        new(weighs.Text ?? weighs.Item.Text!, weighs.Item.Food! with { Weight = weighs.Weight });
}
