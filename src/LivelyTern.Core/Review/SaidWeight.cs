using System.Globalization;
using System.Text.RegularExpressions;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Review;

/// <summary>In what a body is weighed.</summary>
public enum BodyUnit
{
    /// <summary>Kilograms.</summary>
    Kilogram,

    /// <summary>Pounds.</summary>
    Pound,

    /// <summary>Stones of 14 pounds, and pounds.</summary>
    Stone,
}

/// <summary>
/// A body's weight as it is typed: "71.4", "71,4 kg", "157.4 lb", "11 st 3", "11 st 3.5 lb". A bare number is in the unit used last.
/// 11 st 3 are 157 lb, 71.2 kg.
/// </summary>
public static class SaidWeight
{
    // NIST SP 811: one pound is 0.45359237 kg; a stone is 14 pounds.
    private const decimal KgPerPound = 0.45359237m, PoundsPerStone = 14;

    private static readonly Regex One = new(
        @"^(?<number>\d{1,6}(?:[.,]\d+)?)\s*(?<unit>kg|kgs|kilos?|kilograms?|lbs?|pounds?)?$",
        RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    private static readonly Regex Stones = new(
        @"^(?<stones>\d{1,6}(?:[.,]\d+)?)\s*(?:st|stones?)\.?\s*(?:(?<pounds>\d{1,6}(?:[.,]\d+)?)\s*(?:lbs?|pounds?)?)?$",
        RegexOptions.ExplicitCapture | RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    /// <summary>Reads it.</summary>
    /// <param name="typed">As typed.</param>
    /// <param name="usual">The unit of a bare number.</param>
    /// <returns>Kilograms to the hundredth and the unit it was said in, or what is wrong with it.</returns>
    public static Outcome<(decimal Kg, BodyUnit Unit)> Read(string typed, BodyUnit usual)
    {
        ArgumentNullException.ThrowIfNull(typed);
        if (Said(typed.Trim(), usual) is not var (kg, unit))
            return new Problem("weight-unread", "text", "Type a weight like 71.4 kg, 157 lb or 11 st 3.");
        return kg is < WeighIn.Least or > WeighIn.Most
            ? new Problem("weight-absurd", "text", $"A body weighs between {WeighIn.Least:0} and {WeighIn.Most:0} kg: check the number.")
            : (decimal.Round(kg, 2, MidpointRounding.AwayFromZero), unit);
    }

    private static (decimal Kg, BodyUnit Unit)? Said(string typed, BodyUnit usual)
    {
        if (typed.Length > 40) return null;
        if (Stones.Match(typed) is { Success: true } stones)
        {
            var pounds = stones.Groups["pounds"].Success ? Number(stones.Groups["pounds"]) : 0;
            var inPounds = (Number(stones.Groups["stones"]) * PoundsPerStone) + pounds;
            return pounds >= PoundsPerStone ? null : (inPounds * KgPerPound, BodyUnit.Stone);
        }

        if (One.Match(typed) is not { Success: true } one) return null;
        var unit = one.Groups["unit"].Value.ToLowerInvariant() switch
        {
            "" => usual,
            ['k', ..] => BodyUnit.Kilogram,
            _ => BodyUnit.Pound,
        };
        var number = Number(one.Groups["number"]);
        return unit switch
        {
            BodyUnit.Kilogram => (number, unit),
            BodyUnit.Pound => (number * KgPerPound, unit),
            _ => (number * PoundsPerStone * KgPerPound, unit),
        };
    }

    private static decimal Number(Group said) => decimal.Parse(said.Value.Replace(',', '.'), CultureInfo.InvariantCulture);
}
