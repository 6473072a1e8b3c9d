using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Aim;

/// <summary>What an eater's day may hold: a band for each measure that matters, one leading, and the rule for points.</summary>
/// <param name="Leading">The measure a day is laid along.</param>
/// <param name="Bands">The bands set; a measure without one is open.</param>
/// <param name="Rule">The eater's points rule, or null where points are not counted.</param>
public sealed record DayAim(Measure Leading, IReadOnlyDictionary<Measure, Band> Bands, PointsRule? Rule)
{
    /// <summary>The band of a measure; open where none is set.</summary>
    public Band this[Measure measure] => Bands.GetValueOrDefault(measure, Band.Open);

    /// <summary>The same with every band's bounds; see <see cref="Band.Resolved"/>.</summary>
    public DayAim Resolved() => this with { Bands = Bands.ToDictionary(band => band.Key, band => band.Value.Resolved()) };

    /// <summary>
    /// Whether protein that lacks an essential amino acid altogether (gelatin, collagen) is left out of this eater's protein.
    /// </summary>
    public bool LeavesOutIncompleteProtein { get; init; }

    /// <summary>Whether the eater is away that day: it asks nothing.</summary>
    public bool IsAway { get; init; }

    /// <summary>Every measure of one entry as this eater counts it.</summary>
    public IReadOnlyDictionary<Measure, Total> Count(Contents contents)
    {
        ArgumentNullException.ThrowIfNull(contents);
        var totals = MeasureTotals.Of(contents, Rule);
        if (!LeavesOutIncompleteProtein || contents.IncompleteProtein is not (> 0 and var left)) return totals;
        Total Counted(Measure measure, Total total) => measure == Measure.Protein ? total with { Known = total.Known - left } : total;
        return totals.ToDictionary(total => total.Key, total => Counted(total.Key, total.Value));
    }

    /// <summary>What is wrong with it, field by field.</summary>
    /// <param name="clinicianSetIt">A deliberate confirmation that a clinician set an energy aim below the floor.</param>
    public IEnumerable<Problem> Problems(bool clinicianSetIt)
    {
        foreach (var problem in Bands.SelectMany(band => band.Value.Problems($"bands.{Name(band.Key)}"))) yield return problem;
        if ((Leading == Measure.Points || !this[Measure.Points].IsOpen) && Rule is null)
            yield return new("rule-missing", "rule", "Points need a rule: write down what a point is.");
        foreach (var problem in Rule?.Problems() ?? []) yield return problem;
        if (!clinicianSetIt && EnergyFloor.IsBelow(this[Measure.Energy]))
            yield return new("below-energy-floor", "bands.energy", EnergyFloor.Caution);
    }

    private static string Name(Measure measure) => char.ToLowerInvariant(measure.ToString()[0]) + measure.ToString()[1..];
}

/// <summary>
/// The least energy an aim may ask for without a clinician. Source: NHLBI Clinical Guidelines on Overweight and Obesity in Adults,
/// 1998 (diets of 1,000 to 1,200 kcal a day for women, 1,200 to 1,600 for men; from memory). Where nothing is known of the eater's
/// body the upper end for women, which is the lower end for men, is the floor.
/// </summary>
public static class EnergyFloor
{
    /// <summary>1,200 kcal a day.</summary>
    public const decimal Kilocalories = 1200m;

    /// <summary>What is said before an aim goes below it.</summary>
    public const string Caution =
        "Below 1,200 kcal a day is for people a doctor or dietitian looks after (NHLBI Clinical Guidelines, 1998). "
        + "Raise it, or confirm that a clinician set this number.";

    /// <summary>Whether a band asks a day to stay below the floor: its target, or where there is none its maximum.</summary>
    public static bool IsBelow(Band energy)
    {
        ArgumentNullException.ThrowIfNull(energy);
        return (energy.Target ?? energy.Max) < Kilocalories || energy.Max < Kilocalories;
    }
}
