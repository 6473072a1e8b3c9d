using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Recipes;

/// <summary>A list of amounts, with the number of portions it makes.</summary>
/// <param name="Name">What the cook calls it.</param>
/// <param name="Lines">The lines, read.</param>
/// <param name="Portions">How many portions a batch makes; at least 1.</param>
public sealed record Recipe(string Name, IReadOnlyList<FoodLine> Lines, int Portions)
{
    /// <summary>The most portions a batch is cut into.</summary>
    public const int MostPortions = 1000;

    /// <summary>What a whole batch contains; "at least" in every measure where a line was not understood.</summary>
    public Contents Batch => new(
        [.. Lines.Where(line => line.Ingredient is not null).Select(line => line.Ingredient!)],
        SomethingUnread: Lines.Any(line => line.Ingredient is null));

    /// <summary>What one portion contains.</summary>
    public Contents Portion => Batch.Scale(1m / Portions);

    /// <summary>A line's share of the batch in one nutrient: 0.7 where it brings seven tenths. Null where the line was not understood, its figure is not known, or the batch has none.</summary>
    public decimal? Share(FoodLine line, Nutrient nutrient)
    {
        ArgumentNullException.ThrowIfNull(line);
        var whole = Batch.Totals[nutrient].AtLeast;
        return whole == 0 || line.Ingredient?.Food.Per100g[nutrient] is not { } per100g ? null : line.Ingredient.Weight.Value * 0.01m * per100g / whole;
    }

    /// <summary>The same lines cut into another number of portions.</summary>
    /// <returns>The recipe, or what is wrong with the number.</returns>
    public static Outcome<Recipe> Cut(string name, IReadOnlyList<FoodLine> lines, int portions) => portions switch
    {
        < 1 => new Problem("portions-none", "portions", "A batch makes at least one portion."),
        > MostPortions => new Problem("portions-absurd", "portions", $"More than {MostPortions} portions can't be meant: check the number."),
        _ => new Recipe(name, lines, portions),
    };
}
