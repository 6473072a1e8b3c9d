using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Foods;

/// <summary>What a label's figures are for.</summary>
public enum LabelBasis
{
    /// <summary>Per 100 g.</summary>
    Per100g,

    /// <summary>Per serving of a stated weight.</summary>
    PerServing,
}

/// <summary>
/// A nutrition label as printed. The figures keep their own convention: in North America "total carbohydrate" holds the fibre, in the EU
/// and UK fibre stands beside "carbohydrate".
/// </summary>
/// <param name="Basis">What the figures are for.</param>
/// <param name="ServingGrams">Grams of a serving; needed per serving.</param>
/// <param name="Convention">What its carbohydrate contains.</param>
/// <param name="Kilocalories">kcal, or null where only kJ is printed.</param>
/// <param name="Kilojoules">kJ, used where no kcal is printed.</param>
/// <param name="Protein">Grams.</param>
/// <param name="Fat">Grams.</param>
/// <param name="SaturatedFat">Grams.</param>
/// <param name="Carbohydrate">Grams.</param>
/// <param name="Sugars">Grams.</param>
/// <param name="Fibre">Grams.</param>
/// <param name="Polyols">Grams.</param>
/// <param name="Alcohol">Grams.</param>
/// <param name="SaltGrams">Grams of salt.</param>
/// <param name="SodiumMilligrams">Milligrams of sodium, used where no salt is printed; salt is sodium x 2.5.</param>
/// <param name="Points">Points that are stated; then the energy may be left open.</param>
/// <param name="ServingPieces">How many pieces a serving is: 17 crackers.</param>
/// <param name="IsUnread">Whether its figures are left out on purpose: then none is known, and none is asked for.</param>
public sealed record Label(
    LabelBasis Basis,
    decimal? ServingGrams,
    CarbohydrateConvention Convention,
    decimal? Kilocalories = null,
    decimal? Kilojoules = null,
    decimal? Protein = null,
    decimal? Fat = null,
    decimal? SaturatedFat = null,
    decimal? Carbohydrate = null,
    decimal? Sugars = null,
    decimal? Fibre = null,
    decimal? Polyols = null,
    decimal? Alcohol = null,
    decimal? SaltGrams = null,
    decimal? SodiumMilligrams = null,
    decimal? Points = null,
    decimal? ServingPieces = null,
    bool IsUnread = false)
{
    /// <summary>Grams of salt in a gram of sodium. Source: Regulation (EU) No 1169/2011, Annex I.</summary>
    public const decimal SaltPerSodium = 2.5m;

    /// <summary>Grams of salt in milligrams of sodium: 400 mg are 1 g.</summary>
    public static decimal SaltOf(decimal sodiumMilligrams) => sodiumMilligrams * SaltPerSodium / 1000m;

    private const decimal MostServing = 5_000m, MostPoints = 1_000m, MostPieces = 1_000m;

    /// <summary>Points of 100 g, where any are stated.</summary>
    public decimal? PointsPer100g => Points * 100m / (Basis == LabelBasis.PerServing ? ServingGrams : 100m);

    /// <summary>The household measures it states: a serving, and a piece where it says how many a serving is.</summary>
    public IReadOnlyList<HouseholdMeasure> Measures
    {
        get
        {
            const string source = "its label";
            if (ServingGrams is not { } grams) return [];
            List<HouseholdMeasure> measures = [new("serving", new Grams(grams), source)];
            if (ServingPieces is { } pieces) measures.Insert(0, new("piece", new Grams(grams / pieces), source));
            return measures;
        }
    }

    /// <summary>
    /// The figures per 100 g: 4 g of protein in a serving of 28 g are 14.3 g. What the label does not say stays unknown.
    /// </summary>
    /// <returns>The figures, or what is impossible: nothing printed, a serving of no weight, figures below zero or above their
    /// serving.</returns>
    public Outcome<Nutrients> Per100g()
    {
        var problems = new List<Problem>();
        if (Basis == LabelBasis.PerServing && ServingGrams is not (> 0 and <= MostServing))
            problems.Add(new("serving-weight", "label.servingGrams", "Say what a serving weighs, in grams: it stands beside the figures."));
        if (Kilocalories is null && Kilojoules is null && Points is null && !IsUnread)
            problems.Add(new("energy-missing", "label.kilocalories", "Type the energy from the label, in kcal or in kJ, or its points."));
        if (Points is < 0 or > MostPoints)
            problems.Add(new("points-absurd", "label.points", $"Points lie between 0 and {MostPoints:0}: check the number."));
        if (ServingPieces is <= 0 or > MostPieces)
            problems.Add(new("pieces-absurd", "label.servingPieces", $"A serving has more than 0 and up to {MostPieces:0} pieces."));
        if (ServingPieces is not null && ServingGrams is null)
            problems.Add(new("serving-weight", "label.servingGrams", "Say what those pieces weigh together, in grams."));
        if (ServingGrams is <= 0 or > MostServing && Basis == LabelBasis.Per100g)
            problems.Add(new("serving-weight", "label.servingGrams", "A serving weighs more than 0 g and at most 5 kg."));
        var grams = Basis == LabelBasis.Per100g ? 100m : ServingGrams ?? 100m;
        foreach (var (field, value, most) in new (string, decimal?, decimal)[]
        {
            ("kilocalories", Kilocalories, grams * 9.05m), ("kilojoules", Kilojoules, grams * 38m), ("protein", Protein, grams),
            ("fat", Fat, grams), ("saturatedFat", SaturatedFat, grams), ("carbohydrate", Carbohydrate, grams), ("sugars", Sugars, grams),
            ("fibre", Fibre, grams), ("polyols", Polyols, grams), ("alcohol", Alcohol, grams), ("saltGrams", SaltGrams, grams),
            ("sodiumMilligrams", SodiumMilligrams, grams * 400),
        })
        {
            if (value < 0) problems.Add(new("figure-negative", "label." + field, "A figure can't be below zero."));

            // Labels round: "1 g" of fat in a serving of 0.8 g is printed that way.
            else if (value > most + 0.5m)
                problems.Add(new(
                    "figure-absurd", "label." + field, $"That is more than {grams:0.#} g of food can hold: check the number."));
        }

        if (problems.Count > 0) return problems;
        var to100 = 100m / grams;
        var energy = Kilocalories ?? (Kilojoules / EnergyFactors.KilojoulesPerKilocalorie);
        return new Nutrients(
            energy * to100, Protein * to100, Fat * to100, SaturatedFat * to100, Carbohydrate * to100, Sugars * to100, Fibre * to100,
            (SaltGrams ?? (SodiumMilligrams is { } sodium ? SaltOf(sodium) : null)) * to100, Polyols * to100, Alcohol * to100);
    }

    /// <summary>The same serving as a North American label prints it (21 CFR 101.9(c)); a figure that is not known is left out.</summary>
    /// <param name="per100g">The figures it gives.</param>
    public IReadOnlyDictionary<Nutrient, string> Printed(Nutrients per100g)
    {
        ArgumentNullException.ThrowIfNull(per100g);
        var hundreds = (ServingGrams ?? 100m) / 100m;
        return LabelRounding.Printed.Where(nutrient => per100g[nutrient] is not null)
            .ToDictionary(nutrient => nutrient, nutrient => LabelRounding.Print(nutrient, per100g[nutrient]!.Value * hundreds));
    }

    /// <summary>What looks wrong about the label, in plain words; also where its kcal and its kJ disagree.</summary>
    /// <param name="per100g">The figures it gives.</param>
    public IReadOnlyList<Doubt> Doubts(Nutrients per100g)
    {
        var doubts = Foods.Doubts.Of(per100g, Convention).ToList();
        if (Kilocalories is not { } kcal || Kilojoules is not { } kilojoules) return doubts;
        var fromKilojoules = kilojoules / EnergyFactors.KilojoulesPerKilocalorie;
        if (Math.Abs(fromKilojoules - kcal) > Math.Max(3m, 0.05m * kcal))
            doubts.Add(new(
                "kcal-kj",
                $"{kilojoules:0} kJ are {fromKilojoules:0} kcal, not {kcal:0}: one of the two is misread. The kcal count."));
        return doubts;
    }
}
