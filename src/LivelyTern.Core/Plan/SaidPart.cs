using System.Globalization;
using System.Text.RegularExpressions;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Plan;

/// <summary>
/// Some of a packet that is known by its figures: "8 of 17 crackers, 5 points", or "8 of 17 crackers" of which it was said before that they
/// are 5 points. Eight of seventeen at 5 points are 2.35 points before rounding.
/// </summary>
public static class SaidPart
{
    private static readonly Regex Some = new(
        @"(?<part>\d{1,6}(?:[.,]\d+)?)\s+(?:out\s+)?of\s+(?:the\s+|my\s+)?(?<whole>\d{1,6})\s+(?<rest>\p{L}.*)$",
        RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    /// <summary>Whether a text says so anywhere.</summary>
    public static bool Of(string text) => Some.IsMatch(text);

    /// <summary>Reads it.</summary>
    /// <param name="text">As typed.</param>
    /// <param name="known">What was entered by its figures before, the last first.</param>
    /// <returns>The part, or what is wrong with it; null where it is no such line, or nothing is known of the whole.</returns>
    public static Outcome<MealOut>? Read(string text, IReadOnlyList<MealOut> known)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(known);
        if (Some.Match(text.Trim()) is not { Success: true, Index: 0 } said) return null;
        var (part, of, rest) = (SaidMeal.Number(said.Groups["part"]), SaidMeal.Number(said.Groups["whole"]), said.Groups["rest"].Value);
        var name = $"{said.Groups["whole"].Value} {rest}";
        var stated = SaidMeal.Read(name);
        if (stated is { Succeeded: false } wrong) return wrong;
        var whole = stated?.Value ?? known.Select(one => WholeOf(one, name)).FirstOrDefault(one => one is not null);
        if (whole is null) return null;
        if (part <= 0 || part > of) return new Problem("part-absurd", "text", $"There are {of:0}: say how many of them.");
        var called = $"{said.Groups["part"].Value} of {whole.Name}";
        return whole with
        {
            Name = called,
            Food = new(whole.Food.Food with { Name = called }, whole.Food.Weight * (part / of)),
            GiveOrTake = whole.GiveOrTake * (part / of),
        };
    }

    // The whole of something of that name that was entered by its figures, or some of it: then what all of it holds.
    private static MealOut? WholeOf(MealOut one, string name)
    {
        if (one.Food.Weight.Value <= 0) return null;
        if (!string.Equals(one.Food.Food.Id, MealOut.IdOf(name), StringComparison.OrdinalIgnoreCase)) return null;
        var whole = MealOut.Whole / one.Food.Weight;
        return one with { Name = name, Food = one.Food with { Weight = MealOut.Whole }, GiveOrTake = one.GiveOrTake * whole };
    }
}
