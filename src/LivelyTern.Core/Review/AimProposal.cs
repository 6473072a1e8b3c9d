using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Review;

/// <summary>
/// An aim that the body's own trend speaks for, at a rate the eater wishes. It is worked out when somebody asks and set when somebody says
/// so, never by itself.
/// </summary>
/// <param name="Kcal">Kilocalories a day, with the range in which they would keep that rate nine times in ten; to the nearest 10.</param>
/// <param name="RateKgPerWeek">The rate it is worked out for, after every limit: above 0 to lose.</param>
/// <param name="Cautions">What was limited, or should be known.</param>
public sealed record AimProposal(Ranged Kcal, decimal RateKgPerWeek, IReadOnlyList<Caution> Cautions)
{
    private static readonly Caution NoBody = new(
        "no-body",
        "Whether eating less than you need is right for you depends on age, height and more, which is not written down here: worked out "
        + "for a steady weight. Describe the body under Aim first.",
        "NHLBI Clinical Guidelines on Overweight and Obesity in Adults, 1998 (from memory)");

    /// <summary>
    /// Works it out: the need less 7,700 kcal for each kilogram a week, within the limits that <see cref="EnergyNeed"/> keeps to. A need of
    /// 2,100 and 0.3 kg a week are 1,770 kcal a day.
    /// </summary>
    /// <param name="need">What keeps the weight level, in kcal a day, with its 90 % range.</param>
    /// <param name="kg">What the body weighs by its trend.</param>
    /// <param name="body">What is known of the body otherwise; null for nothing: then no deficit is worked out.</param>
    /// <param name="rateKgPerWeek">Kilograms a week to lose; below zero to gain; 0 to stay.</param>
    public static Outcome<AimProposal> Of(Ranged need, decimal kg, Body? body, decimal rateKgPerWeek)
    {
        ArgumentNullException.ThrowIfNull(need);
        if (rateKgPerWeek is < -2 or > 10)
            return new Problem("body-rate", "rate", "A rate lies between 2 kg gained and 10 kg lost a week.");
        var cautions = new List<Caution>();
        if (body is null && rateKgPerWeek > 0) cautions.Add(NoBody);
        var rate = body is null
            ? Math.Min(0, rateKgPerWeek)
            : EnergyNeed.Limit(body with { WeightKg = kg }, rateKgPerWeek, cautions);
        var change = rate * EnergyNeed.KilocaloriesPerKilogram / 7;
        var kcal = need.Value - change;
        if (kcal < EnergyFloor.Kilocalories)
        {
            cautions.Add(EnergyNeed.Floor);
            kcal = EnergyFloor.Kilocalories;
            change = need.Value - kcal;
            rate = change * 7 / EnergyNeed.KilocaloriesPerKilogram;
        }

        if (rate > 0) cautions.Add(EnergyNeed.RoughRule);
        static decimal Tens(decimal value) => Rounding.ToStep(value, 10);
        return new AimProposal(
            new(Tens(kcal), Tens(need.Low - change), Tens(need.High - change)), Rounding.ToStep(rate, 0.01m), cautions);
    }
}
