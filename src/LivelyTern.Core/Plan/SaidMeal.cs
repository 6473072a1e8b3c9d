using System.Globalization;
using System.Text.RegularExpressions;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>
/// A meal or a packet typed with its figures behind it: "dinner 9 points", "17 crackers are 5 points", "canteen 600-900 kcal", "pie 12
/// points, 540 kcal", "17 crackers are 5" (points), "300 kcal" of something. What is not said stays open.
/// </summary>
public static class SaidMeal
{
    private const int MostFigures = 8;
    private const string Unnamed = "something";

    // "17 crackers are 5".
    private static readonly Regex Are = new(
        @"^(?<rest>.*\p{L})\s+(?:is|are)\s+(?<points>\d+(?:[.,]\d+)?)\s*$",
        RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    private static readonly Regex Last = new(
        @"^(?<rest>.*?)[\s,;:=(–-]*(?:(?:and|is|are|for|about|with|at|ca\.?)\s+)*~?\s*(?<from>\d+(?:[.,]\d+)?)"
        + @"(?:\s*(?:-|–|to)\s*(?<to>\d+(?:[.,]\d+)?))?\s*(?<unit>points?|pts?\.?|kcals?|cals?|calories|kj"
        + @"|g\s+(?:of\s+)?(?:protein|fat|carbs?|carbohydrates?|fib(?:re|er)))\s*\)?\s*$",
        RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    /// <summary>Reads it.</summary>
    /// <returns>The meal or what is wrong with it; null where it is no such line: it does not end with its points or its energy.</returns>
    public static Outcome<MealOut>? Read(string text)
    {
        if (FiguresOf(text) is not { } said) return null;
        if (said.Points is null && !said.Figures.ContainsKey(Nutrient.Energy)) return null;
        var name = said.Name.Any(char.IsLetter) ? said.Name : Unnamed;
        return MealOut.Of(name, [new(name, said.Figures, said.High, said.Points)]);
    }

    /// <summary>
    /// Whether a text is figures and nothing else: "540 kcal", "30 g protein", which may belong to what is said before them.
    /// </summary>
    public static bool IsFiguresOnly(string text) => FiguresOf(text) is { } said && !said.Name.Any(char.IsLetter);

    // Figure by figure from the end; null where there is none, or one is a range that can't be one.
    private static (string Name, Dictionary<Nutrient, decimal> Figures, decimal? High, decimal? Points)? FiguresOf(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var (rest, figures, high, points) = (text.Trim(), new Dictionary<Nutrient, decimal>(), (decimal?)null, (decimal?)null);
        if (Are.Match(rest) is { Success: true } are) (rest, points) = (are.Groups["rest"].Value, Number(are.Groups["points"]));
        for (var i = 0; i < MostFigures && Last.Match(rest) is { Success: true } said; i++)
        {
            var (from, unit) = (Number(said.Groups["from"]), said.Groups["unit"].Value.ToLowerInvariant());
            decimal? to = said.Groups["to"].Success ? Number(said.Groups["to"]) : null;
            rest = said.Groups["rest"].Value;
            if (unit[0] == 'p')
            {
                if (to is not null) return null;
                points = from;
                continue;
            }

            var (nutrient, factor) = NutrientOf(unit);
            if (to is not null && nutrient != Nutrient.Energy) return null;
            figures[nutrient] = from / factor;
            high = to / factor ?? high;
        }

        return points is null && figures.Count == 0 ? null : (rest, figures, high, points);
    }

    private static (Nutrient Nutrient, decimal Factor) NutrientOf(string unit) => unit switch
    {
        "kj" => (Nutrient.Energy, EnergyFactors.KilojoulesPerKilocalorie),
        _ when unit[0] is 'k' or 'c' => (Nutrient.Energy, 1),
        _ when unit.EndsWith("protein", StringComparison.Ordinal) => (Nutrient.Protein, 1),
        _ when unit.EndsWith("fat", StringComparison.Ordinal) => (Nutrient.Fat, 1),
        _ when unit.Contains("fib", StringComparison.Ordinal) => (Nutrient.Fibre, 1),
        _ => (Nutrient.Carbohydrate, 1),
    };

    /// <summary>A number as it was typed; one that can't be counted with is as large as any that is refused for its size.</summary>
    internal static decimal Number(Group said) =>
        decimal.TryParse(said.Value.Replace(',', '.'), NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
            ? Math.Min(number, Limits.LargestNumber)
            : Limits.LargestNumber;
}
