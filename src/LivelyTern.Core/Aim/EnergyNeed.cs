using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Aim;

/// <summary>Which of an equation's two forms holds.</summary>
public enum Sex
{
    /// <summary>The equations' form for women.</summary>
    Female,

    /// <summary>The equations' form for men.</summary>
    Male,
}

/// <summary>What is known of a body.</summary>
/// <param name="Sex">Which form of the equations.</param>
/// <param name="Age">Years.</param>
/// <param name="WeightKg">Kilograms.</param>
/// <param name="HeightCm">Centimetres.</param>
/// <param name="BodyFatShare">Fat as a share of the weight, 0 to 1; null where it was not measured.</param>
/// <param name="IsPregnantOrBreastfeeding">Then no deficit is worked out.</param>
public sealed record Body(
    Sex Sex, decimal Age, decimal WeightKg, decimal HeightCm, decimal? BodyFatShare = null, bool IsPregnantOrBreastfeeding = false)
{
    /// <summary>Weight over height squared, kg/m2.</summary>
    public decimal Bmi => WeightKg / (HeightCm / 100 * (HeightCm / 100));

    internal IEnumerable<Problem> Problems()
    {
        if (Age is < 2 or > 120) yield return new("body-age", "body.age", "An age lies between 2 and 120 years.");
        if (WeightKg is < 10 or > 400) yield return new("body-weight", "body.weightKg", "A weight lies between 10 and 400 kg.");
        if (HeightCm is < 60 or > 250) yield return new("body-height", "body.heightCm", "A height lies between 60 and 250 cm.");
        if (BodyFatShare is < 0.02m or > 0.75m)
            yield return new("body-fat", "body.bodyFatShare", "Body fat lies between 2 and 75 % of the weight.");
    }
}

/// <summary>A resting-energy equation's answer.</summary>
/// <param name="Name">By what it is built on.</param>
/// <param name="Formula">The equation, as published.</param>
/// <param name="Source">Where it was published.</param>
/// <param name="Resting">Kcal a day at rest; null where it needs something that is not known.</param>
/// <param name="Need">Kcal a day at this activity.</param>
/// <param name="Target">Kcal a day at this rate, never below the floor.</param>
public sealed record NeedEstimate(string Name, string Formula, string Source, decimal? Resting, decimal? Need, decimal? Target);

/// <summary>Something to know before a number is taken, with its source.</summary>
public sealed record Caution(string Code, string Sentence, string Source);

/// <summary>Grams a day of each macronutrient at a target.</summary>
/// <param name="Protein">Grams.</param>
/// <param name="Fat">Grams.</param>
/// <param name="Carbohydrate">Grams, what is left.</param>
public sealed record MacroSplit(decimal Protein, decimal Fat, decimal Carbohydrate);

/// <summary>A need worked out: the equations side by side, what holds the target back, and a split of it.</summary>
/// <param name="Estimates">Three equations.</param>
/// <param name="Target">The mean of the targets, to the nearest 10 kcal.</param>
/// <param name="RateKgPerWeek">The rate it was worked out for, after every limit.</param>
/// <param name="Split">Macros at that target.</param>
/// <param name="Cautions">What was limited or should be known.</param>
public sealed record NeedAnswer(
    IReadOnlyList<NeedEstimate> Estimates, decimal Target, decimal RateKgPerWeek, MacroSplit Split, IReadOnlyList<Caution> Cautions);

/// <summary>How much energy a body needs, by published equations, and how far below that an aim may go.</summary>
public static class EnergyNeed
{
    /// <summary>
    /// 7,700 kcal for a kilogram of body mass: a rough rule that overstates the loss over months. Source: Wishnofsky, Am J Clin Nutr
    /// 1958 (3,500 kcal per pound; from memory).
    /// </summary>
    public const decimal KilocaloriesPerKilogram = 7700m;

    /// <summary>The fastest rate, in kg a week. Source: NHLBI Clinical Guidelines 1998; CDC (1 to 2 lb a week; from memory).</summary>
    public const decimal FastestRate = 1m;

    /// <summary>
    /// The lowest body mass index at which a deficit is worked out. Source: WHO Technical Report 894, 2000 (from memory).
    /// </summary>
    public const decimal LowestBmi = 18.5m;

    private const string Guidelines = "NHLBI Clinical Guidelines on Overweight and Obesity in Adults, 1998";

    /// <summary>
    /// Activity as multiples of resting energy. Source: FAO/WHO/UNU, Human energy requirements, 2004: light 1.40 to 1.69, active 1.70 to
    /// 1.99, vigorous 2.00 to 2.40 (from memory); the steps between are ours.
    /// </summary>
    public static IReadOnlyList<(string Name, decimal Factor)> Activities { get; } =
    [
        ("mostly sitting", 1.4m), ("sitting, some walking", 1.55m), ("on the feet most of the day", 1.75m),
        ("heavy work or daily training", 2.0m),
    ];

    /// <summary>Kcal a day at rest. 80 kg, 180 cm, 30 years, male: 1,780. Source: Mifflin et al., Am J Clin Nutr 1990.</summary>
    public static decimal ByWeightHeightAge(Body body)
    {
        ArgumentNullException.ThrowIfNull(body);
        return (10 * body.WeightKg) + (6.25m * body.HeightCm) - (5 * body.Age) + (body.Sex == Sex.Male ? 5 : -161);
    }

    /// <summary>Kcal a day at rest, from the revised equations. Source: Roza and Shizgal, Am J Clin Nutr 1984 (from memory).</summary>
    public static decimal ByRevisedEquations(Body body)
    {
        ArgumentNullException.ThrowIfNull(body);
        return body.Sex == Sex.Male
            ? 88.362m + (13.397m * body.WeightKg) + (4.799m * body.HeightCm) - (5.677m * body.Age)
            : 447.593m + (9.247m * body.WeightKg) + (3.098m * body.HeightCm) - (4.330m * body.Age);
    }

    /// <summary>Kcal a day at rest from lean mass; null without a measured share of fat. Source: Katch and McArdle (from memory).</summary>
    public static decimal? ByLeanMass(Body body)
    {
        ArgumentNullException.ThrowIfNull(body);
        return body.BodyFatShare is { } fat ? 370 + (21.6m * body.WeightKg * (1 - fat)) : null;
    }

    /// <summary>
    /// Between what the equations say the need of a body lies: the lowest of them mostly sitting, the highest on the feet most of the day.
    /// </summary>
    /// <returns>Kcal a day, to the nearest 10.</returns>
    public static (decimal Low, decimal High) Between(Body body)
    {
        decimal[] resting = [ByWeightHeightAge(body), ByRevisedEquations(body), ByLeanMass(body) ?? ByWeightHeightAge(body)];
        return (Rounding.ToStep(resting.Min() * Activities[0].Factor, 10), Rounding.ToStep(resting.Max() * Activities[2].Factor, 10));
    }

    /// <summary>Works a need out.</summary>
    /// <param name="body">The body.</param>
    /// <param name="activity">Need as a multiple of resting energy, 1 to 3.</param>
    /// <param name="rateKgPerWeek">Kilograms a week to lose; below zero to gain; 0 to stay.</param>
    /// <param name="proteinPerKg">Grams of protein for each kilogram of weight.</param>
    /// <param name="fatShare">The share of the energy that is fat, 0 to 1.</param>
    public static Outcome<NeedAnswer> Of(
        Body body, decimal activity, decimal rateKgPerWeek, decimal proteinPerKg = 1.2m, decimal fatShare = 0.3m)
    {
        ArgumentNullException.ThrowIfNull(body);
        var problems = body.Problems().ToList();
        if (activity is < 1 or > 3)
            problems.Add(new("body-activity", "activity", "Activity is a multiple of resting energy between 1 and 3."));
        if (rateKgPerWeek is < -2 or > 10)
            problems.Add(new("body-rate", "rateKgPerWeek", "A rate lies between 2 kg gained and 10 kg lost a week."));
        if (proteinPerKg is < 0 or > 4)
            problems.Add(new("body-protein", "proteinPerKg", "Protein lies between 0 and 4 g for a kilogram of weight."));
        if (fatShare is < 0.1m or > 0.8m) problems.Add(new("body-fat-share", "fatShare", "Fat makes between 10 and 80 % of the energy."));
        if (problems.Count > 0) return problems;

        var cautions = new List<Caution>();
        var rate = Limit(body, rateKgPerWeek, cautions);
        var change = rate * KilocaloriesPerKilogram / 7;
        NeedEstimate[] estimates =
        [
            Estimate(
                "weight, height and age", "10 w + 6.25 h − 5 a, + 5 for men, − 161 for women",
                "Mifflin et al., American Journal of Clinical Nutrition, 1990", ByWeightHeightAge(body)),
            Estimate(
                "weight, height and age, older data",
                body.Sex == Sex.Male ? "88.362 + 13.397 w + 4.799 h − 5.677 a" : "447.593 + 9.247 w + 3.098 h − 4.330 a",
                "Roza and Shizgal, American Journal of Clinical Nutrition, 1984 (from memory)", ByRevisedEquations(body)),
            Estimate("lean mass", "370 + 21.6 × lean kg", "Katch and McArdle (from memory)", ByLeanMass(body)),
        ];
        var mean = estimates.Where(estimate => estimate.Need is not null).Average(estimate => estimate.Need!.Value) - change;
        if (rate > 0 && mean < EnergyFloor.Kilocalories)
        {
            cautions.Add(Floor);
            mean = EnergyFloor.Kilocalories;
        }

        if (rate > 0) cautions.Add(RoughRule);
        cautions.Add(OnePerson);
        var target = Math.Round(mean / 10, MidpointRounding.AwayFromZero) * 10;
        var (protein, fat) = (proteinPerKg * body.WeightKg, target * fatShare / 9);
        var carbohydrate = Math.Max(0, (target - (protein * 4) - (fat * 9)) / 4);
        return new NeedAnswer(estimates, target, rate, new(Whole(protein), Whole(fat), Whole(carbohydrate)), cautions);

        decimal? TargetOf(decimal? need) =>
            rate > 0 && need is { } all ? Math.Max(EnergyFloor.Kilocalories, all - change) : need - change;

        NeedEstimate Estimate(string name, string formula, string source, decimal? resting) =>
            new(name, formula, source, resting, resting * activity, TargetOf(resting * activity));
    }

    internal static readonly Caution Floor = new(
        "floor",
        "At that rate the target would lie below 1,200 kcal a day, which is for people a doctor or dietitian looks after: it is held "
        + "at 1,200. A slower rate fits better.",
        Guidelines + " (from memory)");

    internal static readonly Caution RoughRule = new(
        "rough",
        "7,700 kcal for a kilogram is a rough rule and promises more than happens over months; the scale over weeks knows better.",
        "Wishnofsky, American Journal of Clinical Nutrition, 1958 (from memory)");

    private static readonly Caution OnePerson = new(
        "clinician", "An equation can be a few hundred kcal off for one person. What a doctor or dietitian says comes first.",
        "common practice, no published source");

    private static readonly Caution Under18 = new(
        "under-18", "Under 18 no deficit is worked out here: growing comes first. Ask a doctor or dietitian.",
        Guidelines + ": for adults (from memory)");

    private static readonly Caution Pregnant = new(
        "pregnant", "In pregnancy and while breastfeeding no deficit is worked out here. Ask a doctor, midwife or dietitian.",
        Guidelines + ": pregnant women excluded (from memory)");

    private static readonly Caution Underweight = new(
        "underweight",
        "At this height the weight is already below the usual range (a body mass index under 18.5): no deficit is worked out here. Ask "
        + "a doctor or dietitian.",
        "WHO Technical Report Series 894, 2000 (from memory)");

    private static readonly Caution TooFast = new(
        "rate", "Faster than 1 kg a week is more than is advised: worked out for 1 kg a week.",
        Guidelines + "; CDC, 1 to 2 pounds a week (from memory)");

    private static decimal Whole(decimal value) => Math.Round(value, MidpointRounding.AwayFromZero);

    // No deficit for those for whom it is none of a program's business, and none faster than published.
    internal static decimal Limit(Body body, decimal rate, List<Caution> cautions)
    {
        if (rate > 0 && body.Age < 18)
        {
            cautions.Add(Under18);
            return 0;
        }

        if (rate > 0 && body.IsPregnantOrBreastfeeding)
        {
            cautions.Add(Pregnant);
            return 0;
        }

        if (rate > 0 && body.Bmi < LowestBmi)
        {
            cautions.Add(Underweight);
            return 0;
        }

        if (rate <= FastestRate) return rate;
        cautions.Add(TooFast);
        return FastestRate;
    }
}
