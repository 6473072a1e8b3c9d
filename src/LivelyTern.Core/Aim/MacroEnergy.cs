using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Aim;

/// <summary>
/// The energy that a day's protein, carbohydrate and fat come to by the general factors 4, 4 and 9 kcal per gram (Regulation (EU) No
/// 1169/2011, Annex XIV): 200 g, 200 g and 50 g make 2,050 kcal. Fibre gives less and alcohol is not among them: it reads "about".
/// </summary>
/// <param name="Kcal">By the middle of each of the three; null where one of them names no middle.</param>
/// <param name="From">By the least of each, with all of the carbohydrate as fibre.</param>
/// <param name="To">By the most of each; null where one has none.</param>
/// <param name="IsContradicted">Whether the day's energy can't lie there.</param>
public sealed record MacroEnergy(decimal? Kcal, decimal From, decimal? To, bool IsContradicted)
{
    private static readonly (Measure Measure, decimal Kcal)[] Macros =
    [
        (Measure.Protein, EnergyFactors.PerGram(Nutrient.Protein)),
        (Measure.Carbohydrate, EnergyFactors.PerGram(Nutrient.Carbohydrate)),
        (Measure.Fat, EnergyFactors.PerGram(Nutrient.Fat)),
    ];

    /// <summary>What a day's bands come to; null where not all three have one.</summary>
    public static MacroEnergy? Of(DayAim aim)
    {
        ArgumentNullException.ThrowIfNull(aim);
        if (Macros.Any(macro => aim[macro.Measure].IsOpen)) return null;
        var bands = Macros.Select(macro => (macro.Measure, macro.Kcal, Band: aim[macro.Measure].Resolved())).ToList();
        decimal? kcal = bands.TrueForAll(one => Middle(one.Band) is not null) ? bands.Sum(one => one.Kcal * Middle(one.Band)!.Value) : null;
        decimal Least(Measure measure, decimal kcal) => measure == Measure.Carbohydrate ? EnergyFactors.PerGram(Nutrient.Fibre) : kcal;
        var from = bands.Sum(one => Least(one.Measure, one.Kcal) * (one.Band.Min ?? 0));
        decimal? to = bands.TrueForAll(one => one.Band.Max is not null) ? bands.Sum(one => one.Kcal * one.Band.Max!.Value) : null;
        var energy = aim[Measure.Energy].Resolved();
        return new(kcal, from, to, energy.Max < from || energy.Min > to);
    }

    private static decimal? Middle(Band band) => band.Target ?? ((band.Min + band.Max) / 2);
}
