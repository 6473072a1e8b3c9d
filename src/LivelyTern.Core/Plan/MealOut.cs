using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>A part of a meal out, as its menu states it, or as it is estimated.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Figures">kcal and grams; what is left out is not known.</param>
/// <param name="HighKcal">Where it is an estimate: at most this many kcal, the stated kcal being the least.</param>
/// <param name="Points">Its points, where the menu states them; then its energy may be left open.</param>
public sealed record MenuItem(
    string Name, IReadOnlyDictionary<Nutrient, decimal> Figures, decimal? HighKcal = null, decimal? Points = null);

/// <summary>
/// A meal out, or anything else that is known by its figures only, as one block: its parts added up, an estimate by its middle.
/// </summary>
/// <param name="Name">What it is called.</param>
/// <param name="Food">100 g of a food that holds just what the meal holds; a figure that one part lacks is not known.</param>
/// <param name="GiveOrTake">How far its energy may lie from that, in kcal either way: 600 to 900 kcal are 750, give or take 150.</param>
public sealed record MealOut(string Name, Ingredient Food, decimal GiveOrTake) : Laid
{
    /// <summary>The most letters of its name.</summary>
    public const int LongestName = 80;

    private const decimal Most = 20_000m;
    private const int MostItems = 40;

    /// <summary>Adds a meal up, or says what is wrong with it, field by field.</summary>
    public static Outcome<MealOut> Of(string name, IReadOnlyList<MenuItem> items)
    {
        ArgumentNullException.ThrowIfNull(name);
        ArgumentNullException.ThrowIfNull(items);
        var problems = Problems(name.Trim(), items).ToList();
        if (problems.Count > 0) return problems;
        decimal? Sum(Nutrient nutrient) =>
            items.All(item => item.Figures.ContainsKey(nutrient)) ? items.Sum(item => item.Figures[nutrient]) : null;
        var give = items.Sum(item => (item.HighKcal - item.Figures.GetValueOrDefault(Nutrient.Energy)) / 2) ?? 0;
        decimal? points = items.All(item => item.Points is not null) ? items.Sum(item => item.Points) : null;
        var food = Printed(name.Trim(), nutrient => nutrient == Nutrient.Energy ? Sum(nutrient) + give : Sum(nutrient), points);
        return new MealOut(name.Trim(), food, give);
    }

    /// <summary>Something of which no more than its name is known, or is to be: no figure of it is.</summary>
    /// <param name="name">As it was typed; what is longer than a name is cut.</param>
    public static MealOut Named(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        var called = name.Trim();
        if (called.Length > LongestName) called = called[..LongestName].TrimEnd();
        return new(called, Printed(called, _ => null), 0);
    }

    /// <inheritdoc/>
    public override bool IsOfTheSame(Laid other) =>
        other is MealOut meal && string.Equals(meal.Food.Food.Id, Food.Food.Id, StringComparison.Ordinal);

    /// <summary>The same meal at the same figures.</summary>
    public bool Equals(MealOut? other) =>
        other is not null && IsOfTheSame(other) && other.GiveOrTake == GiveOrTake && other.Food.Weight == Food.Weight
        && other.Food.Food.Per100g == Food.Food.Per100g && other.Food.Food.PointsPer100g == Food.Food.PointsPer100g
        && string.Equals(other.Name, Name, StringComparison.Ordinal);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Name, GiveOrTake);

    /// <inheritdoc/>
    internal override string Mark => Line(
        ["meal", Name, Food.Food.Id, Food.Weight.Value, GiveOrTake, Food.Food.PointsPer100g,
            .. Nutrients.All.Select(nutrient => (object?)Food.Food.Per100g[nutrient])]);

    /// <summary>The weight that stands for all of one: nobody knows what it weighs.</summary>
    internal static Grams Whole => new(100);

    /// <summary>The id of the food that holds what something of this name holds.</summary>
    internal static string IdOf(string name) => Foods.Food.PrintedPrefix + name;

    /// <summary>Figures off a menu or a label, as 100 g of a food that holds just them.</summary>
    /// <param name="name">What they are of.</param>
    /// <param name="of">A figure, or null where it is not known.</param>
    /// <param name="points">The points that are stated; null where none are.</param>
    public static Ingredient Printed(string name, Func<Nutrient, decimal?> of, decimal? points = null)
    {
        ArgumentNullException.ThrowIfNull(of);
        var per100g = new Nutrients(
            of(Nutrient.Energy), of(Nutrient.Protein), of(Nutrient.Fat), of(Nutrient.SaturatedFat), of(Nutrient.Carbohydrate),
            of(Nutrient.Sugars), of(Nutrient.Fibre), of(Nutrient.Salt), of(Nutrient.Polyols), of(Nutrient.Alcohol));
        var food = new Food(
            IdOf(name), name, [], FoodGroup.Seasonings, per100g, CarbohydrateConvention.Total, [], "as printed")
        {
            PointsPer100g = points,
        };
        return new(food, Whole);
    }

    private static IEnumerable<Problem> Problems(string name, IReadOnlyList<MenuItem> items)
    {
        if (name.Length is 0 or > LongestName)
            yield return new("name-missing", "name", $"Give the meal a name of up to {LongestName} letters.");
        if (items.Count is 0 or > MostItems)
            yield return new("event-empty", "items", $"Enter what is eaten there, or an estimate: between 1 and {MostItems} lines.");
        foreach (var (item, i) in items.Take(MostItems).Select((item, i) => (item, i)))
        {
            if (item.Figures.Any(figure => figure.Value is < 0 or > Most) || item.Points is < 0 or > Most)
                yield return new("figure-absurd", $"items[{i}]", $"A figure lies between 0 and {Most:0}.");
            else if (items.Any(other => other.Points is not null) && item.Points is null)
                yield return new("points-missing", $"items[{i}]", "Other lines have their points: give this one's too, or none.");
            else if (!item.Figures.TryGetValue(Nutrient.Energy, out var low))
            {
                if (item.Points is null || item.HighKcal is not null)
                    yield return new("energy-missing", $"items[{i}]", "Give the kcal or the points: a menu states them, or estimate.");
            }
            else if (item.HighKcal < low || item.HighKcal > Most)
                yield return new("range-crossed", $"items[{i}].highKcal", "The most is below the least: check the two numbers.");
        }
    }
}
