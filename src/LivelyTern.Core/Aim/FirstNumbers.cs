using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Aim;

/// <summary>What an eater counts: each asks for a few numbers to begin with.</summary>
public enum Counting
{
    /// <summary>Kcal a day.</summary>
    Energy,

    /// <summary>Grams of protein, carbohydrate and fat.</summary>
    Macros,

    /// <summary>Points under a rule of their own.</summary>
    Points,

    /// <summary>Few net carbs.</summary>
    LowCarb,
}

/// <summary>The few numbers that an aim begins with. What is left out, or zero, sets nothing.</summary>
/// <param name="Counts">What is counted: only its own numbers are read.</param>
/// <param name="Kcal">Kcal a day, aimed at.</param>
/// <param name="Protein">Grams a day, aimed at.</param>
/// <param name="Carbohydrate">Grams a day, aimed at.</param>
/// <param name="Fat">Grams a day, aimed at.</param>
/// <param name="Points">Points a day, at most.</param>
/// <param name="KcalPerPoint">One point for so many kcal.</param>
/// <param name="NetCarbs">Grams of net carbs a day, at most.</param>
/// <param name="Rule">The rule of somebody else here, where points are counted as they do; then no other is read.</param>
public sealed record FirstNumbers(
    Counting Counts, decimal? Kcal = null, decimal? Protein = null, decimal? Carbohydrate = null, decimal? Fat = null,
    decimal? Points = null, decimal? KcalPerPoint = null, decimal? NetCarbs = null, PointsRule? Rule = null)
{
    /// <summary>
    /// The aim they make. Three macros with a middle each make the day's energy too: 200, 200 and 50 g are 2,050 kcal, a target beside
    /// them.
    /// </summary>
    /// <returns>It, or what is wrong with a number.</returns>
    public Outcome<DayAim> Aim()
    {
        var aim = new DayAim(Leading, Bands(), Counts == Counting.Points ? Rule ?? ByKcal() : null);
        if (aim.Problems(clinicianSetIt: true).ToList() is { Count: > 0 } wrong) return wrong;
        if (Counts != Counting.Macros || MacroEnergy.Of(aim)?.Kcal is not { } kcal) return aim;
        return aim with { Bands = new Dictionary<Measure, Band>(aim.Bands) { [Measure.Energy] = About(kcal) } };
    }

    private Measure Leading => Counts switch
    {
        Counting.Macros => Measure.Protein,
        Counting.Points => Measure.Points,
        Counting.LowCarb => Measure.NetCarbohydrate,
        _ => Measure.Energy,
    };

    private Dictionary<Measure, Band> Bands()
    {
        (Measure Measure, decimal? Value, bool IsMost)[] asked = Counts switch
        {
            Counting.Macros =>
                [(Measure.Protein, Protein, false), (Measure.Carbohydrate, Carbohydrate, false), (Measure.Fat, Fat, false)],
            Counting.Points => [(Measure.Points, Points, true)],
            Counting.LowCarb => [(Measure.NetCarbohydrate, NetCarbs, true), (Measure.Energy, Kcal, false)],
            _ => [(Measure.Energy, Kcal, false)],
        };
        return asked.Where(one => one.Value is not (null or 0))
            .ToDictionary(one => one.Measure, one => one.IsMost ? Band.Open with { Max = one.Value } : About(one.Value!.Value));
    }

    private static Band About(decimal target) => Band.Open with { Target = target };

    private PointsRule? ByKcal() => KcalPerPoint is > 0 and var kcal
        ? new("", new Dictionary<Nutrient, decimal> { [Nutrient.Energy] = 1 / kcal }, PointsRule.Starting.Step, [], [])
        : null;
}
