using LivelyTern.Core.Aim;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;

namespace LivelyTern.Data.Plan;

/// <summary>
/// Is told, within the transaction of a change to days, what it makes eaten and what not eaten any more. The plan comes before eating in
/// the order of the rooms:
/// who keeps the ledger is no business of it.
/// </summary>
public interface IEatenLedger
{
    /// <summary>Writes down what a change makes of the past.</summary>
    /// <param name="change">The change.</param>
    /// <param name="stock">The boxes and batches of what it touches.</param>
    Task WriteAsync(PlanChange change, Stock stock);

    /// <summary>
    /// What these things counted when they were eaten, by item; those that were taken back or never eaten are not among them.
    /// </summary>
    Task<IReadOnlyDictionary<Guid, EatenMeasures>> MeasuresAsync(IReadOnlyCollection<Guid> itemIds);
}

/// <summary>What something counted when it was eaten.</summary>
/// <param name="Totals">Every measure.</param>
/// <param name="ExactPoints">The points before rounding; null without a rule.</param>
public sealed record EatenMeasures(IReadOnlyDictionary<Measure, Total> Totals, Total? ExactPoints);
