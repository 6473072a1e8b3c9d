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
}
