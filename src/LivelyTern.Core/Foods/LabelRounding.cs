using System.Globalization;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>
/// What a North American label prints of a serving: kcal below 5 as 0, to 50 in fives, above in tens; fat below 0.5 g as 0, below 5 g in
/// halves, above in whole grams; carbohydrate, sugars, fibre and protein below 0.5 g as 0, below 1 g as "less than 1", above in whole
/// grams; sodium below 5 mg as 0, to 140 mg in fives, above in tens. Source: 21 CFR 101.9(c). Nothing is ever computed from what is
/// printed.
/// </summary>
public static class LabelRounding
{
    /// <summary>The nutrients such a label prints, in its order.</summary>
    public static IReadOnlyList<Nutrient> Printed { get; } =
    [
        Nutrient.Energy, Nutrient.Fat, Nutrient.SaturatedFat, Nutrient.Salt, Nutrient.Carbohydrate, Nutrient.Fibre, Nutrient.Sugars,
        Nutrient.Protein,
    ];

    /// <summary>A figure as printed, with its unit: "2.5 g", "less than 1 g", "170 mg" of sodium for salt.</summary>
    /// <param name="nutrient">One of <see cref="Printed"/>.</param>
    /// <param name="amount">kcal or grams in the serving.</param>
    public static string Print(Nutrient nutrient, decimal amount) => nutrient switch
    {
        Nutrient.Energy => Steps(amount, 5, 50) + " kcal",
        Nutrient.Salt => Steps(amount * 1000m / Label.SaltPerSodium, 5, 140) + " mg",
        Nutrient.Fat or Nutrient.SaturatedFat => Say(amount < 0.5m ? 0 : Rounding.ToStep(amount, amount < 5 ? 0.5m : 1)) + " g",
        Nutrient.Carbohydrate or Nutrient.Sugars or Nutrient.Fibre or Nutrient.Protein => amount is >= 0.5m and < 1
            ? "less than 1 g"
            : Say(amount < 0.5m ? 0 : Rounding.ToStep(amount, 1)) + " g",
        _ => throw new ArgumentOutOfRangeException(nameof(nutrient)),
    };

    private static string Steps(decimal amount, decimal nothingBelow, decimal fivesTo) =>
        Say(amount < nothingBelow ? 0 : Rounding.ToStep(amount, amount <= fivesTo ? 5 : 10));

    private static string Say(decimal number) => number.ToString("0.#", CultureInfo.InvariantCulture);
}
