using LivelyTern.Core.Aim;
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

    /// <summary>
    /// For each line its share of the batch in each measure: 0.7 where it brings seven tenths. A measure is left out where the line was
    /// not understood, its figure is not known, or the batch has none of it. Points are shared before rounding.
    /// </summary>
    public IReadOnlyList<IReadOnlyDictionary<Measure, decimal>> Shares(PointsRule rule)
    {
        ArgumentNullException.ThrowIfNull(rule);
        var exact = rule with { Step = 0 };
        var whole = MeasureTotals.Of(Batch, exact);
        return [.. Lines.Select(line => line.Ingredient is { } part ? SharesOf(MeasureTotals.Of(new Contents([part]), exact), whole) : new Dictionary<Measure, decimal>())];
    }

    private static Dictionary<Measure, decimal> SharesOf(IReadOnlyDictionary<Measure, Total> own, IReadOnlyDictionary<Measure, Total> whole) =>
        own.Where(total => total.Value.IsComplete && whole[total.Key].AtLeast != 0).ToDictionary(total => total.Key, total => total.Value.AtLeast / whole[total.Key].AtLeast);

    /// <summary>The same lines cut into another number of portions.</summary>
    /// <returns>The recipe, or what is wrong with the number.</returns>
    public static Outcome<Recipe> Cut(string name, IReadOnlyList<FoodLine> lines, int portions) => portions switch
    {
        < 1 => new Problem("portions-none", "portions", "A batch makes at least one portion."),
        > MostPortions => new Problem("portions-absurd", "portions", $"More than {MostPortions} portions can't be meant: check the number."),
        _ => new Recipe(name, lines, portions),
    };
}
