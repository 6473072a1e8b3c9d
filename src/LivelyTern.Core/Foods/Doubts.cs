using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>Something about a food's figures that looks wrong: shown, never corrected.</summary>
/// <param name="Code">A stable name for programs.</param>
/// <param name="Sentence">What looks wrong.</param>
public sealed record Doubt(string Code, string Sentence);

/// <summary>
/// Figures per 100 g held against themselves: the energy against the general factors (Regulation (EU) No 1169/2011, Annex XIV), the parts
/// against 100 g, a part against its whole, and what is missing. A label's energy is kept as printed.
/// </summary>
public static class Doubts
{
    /// <summary>
    /// How far energy may be from the factors: 15 %, or 20 kcal where that is more. Labels round and tables use factors of their own.
    /// </summary>
    public const decimal EnergyShare = 0.15m, EnergyKcal = 20m;

    // A little over 100 g is rounding; what is analysed separately need not sum to the gram.
    private const decimal MostParts = 101m;
    private const decimal HighestKcal = 905m;

    /// <summary>What looks wrong about these figures; empty where nothing does.</summary>
    public static IReadOnlyList<Doubt> Of(Nutrients food, CarbohydrateConvention convention)
    {
        ArgumentNullException.ThrowIfNull(food);
        var doubts = new List<Doubt>();
        if (food.Energy is null) doubts.Add(new("energy-missing", "It has no energy figure."));
        var parts = (food.Protein ?? 0) + (food.Fat ?? 0) + (food.Carbohydrate ?? 0) + (food.Salt ?? 0) + (food.Alcohol ?? 0)
            + (convention == CarbohydrateConvention.WithoutFibre ? food.Fibre ?? 0 : 0);
        if (parts > MostParts)
            doubts.Add(new("parts-over-100", $"Protein, fat, carbohydrate, fibre, salt and alcohol sum to {parts:0.#} g in 100 g."));
        if (food.SaturatedFat > food.Fat + 0.1m)
            doubts.Add(new("saturates-over-fat", $"More saturated fat ({food.SaturatedFat:0.#} g) than fat ({food.Fat:0.#} g)."));
        var most = food.Carbohydrate + 1m;
        if (food.Sugars + (food.Polyols ?? 0) > most)
            doubts.Add(new(
                "sugars-over-carbohydrate", $"More sugars ({food.Sugars:0.#} g) than carbohydrate ({food.Carbohydrate:0.#} g)."));
        if (convention == CarbohydrateConvention.Total && food.Fibre > most)
            doubts.Add(new(
                "fibre-over-carbohydrate",
                $"More fibre ({food.Fibre:0.#} g) than the total carbohydrate it is part of ({food.Carbohydrate:0.#} g)."));
        if (food.Energy > HighestKcal)
            doubts.Add(new("energy-absurd", $"{food.Energy:0} kcal in 100 g is more than pure fat holds (900)."));
        if (food is { Energy: { } energy, Protein: not null, Fat: not null, Carbohydrate: not null })
        {
            var byFactors = EnergyFactors.Kilocalories(food, convention == CarbohydrateConvention.Total);
            if (Math.Abs(byFactors - energy) > Math.Max(EnergyKcal, EnergyShare * energy))
                doubts.Add(new(
                    "energy-off",
                    $"{energy:0} kcal is stated; protein, fat, carbohydrate, fibre and alcohol come to {byFactors:0} kcal."));
        }

        return doubts;
    }
}
