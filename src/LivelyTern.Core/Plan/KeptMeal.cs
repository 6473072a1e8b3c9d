using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>Something off the menu of a place, kept for next time.</summary>
/// <param name="Place">The place: "harbour canteen".</param>
/// <param name="Item">What it is, with its figures.</param>
public sealed record KeptMeal(string Place, MenuItem Item)
{
    /// <summary>So many of it, as one block.</summary>
    /// <param name="count">How many.</param>
    public Outcome<MealOut> Times(decimal count)
    {
        var figures = Item.Figures.ToDictionary(figure => figure.Key, figure => figure.Value * count);
        var item = Item with { Figures = figures, HighKcal = Item.HighKcal * count, Points = Item.Points * count };
        var said = count > 1 ? FoodWords.InNumber(Item.Name, 2) : Item.Name;
        var name = count == 1 ? Item.Name : FormattableString.Invariant($"{count:0.##} {said}");
        var placed = $"{name}, {Place}";
        var isOwn = string.Equals(Item.Name, Place, StringComparison.OrdinalIgnoreCase) || placed.Length > MealOut.LongestName;
        return MealOut.Of(isOwn ? name : placed, [item]);
    }
}
