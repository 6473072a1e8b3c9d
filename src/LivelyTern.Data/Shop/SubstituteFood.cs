using LivelyTern.Core.Cook;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Plan;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Plan;

namespace LivelyTern.Data.Shop;

/// <summary>What a substitute changes.</summary>
/// <param name="With">What stands in for what.</param>
/// <param name="Batches">In which batches still to be cooked.</param>
/// <param name="Items">The plain foods on days, each as it is then.</param>
public sealed record FoodSubstitution(
    Substitution With, IReadOnlyList<Guid> Batches, IReadOnlyDictionary<Guid, PlainFood> Items);

/// <summary>A food that is not sold: another stands in for it in batches still to be cooked and on days, in one go.</summary>
public sealed class SubstituteFood(TernDb db, BatchStore batches, DayChanges changes)
{
    /// <summary>Makes the change.</summary>
    /// <returns>The change of the days, by which that part is undone; null where no day has the food as it is.</returns>
    public Task<Outcome<MadeChange?>> DoAsync(FoodSubstitution change) => db.InTurnAsync<MadeChange?>(async () =>
    {
        ArgumentNullException.ThrowIfNull(change);
        foreach (var id in change.Batches)
        {
            var replaced = await batches.ReplaceAsync(id, before => With(before, change.With));
            if (!replaced.Succeeded) return replaced.Problems.ToList();
        }

        if (change.Items.Count == 0) return (MadeChange?)null;
        var steps = change.Items.Select(one => (Func<PlanBoard, Outcome<PlanChange>>)(board => board.Amend(one.Key, one.Value)));
        var made = await changes.MakeAsync(null, [], [.. change.Items.Keys], board => board.InOne(steps));
        return made.Succeeded ? made.Value : made.Problems.ToList();
    });

    /// <summary>The batches have the food again that stood in for another; within them nothing else changes.</summary>
    public Task<Outcome<int>> PutBackAsync(IReadOnlyList<Guid> from, Substitution gone) => db.InTurnAsync<int>(async () =>
    {
        foreach (var id in from)
        {
            var back = await batches.ReplaceAsync(id, before => [.. before.Where(one => one != gone)]);
            if (!back.Succeeded) return back.Problems.ToList();
        }

        return from.Count;
    });

    // One thing stands in for another once; what stood in for it before is out, and a food that stood in is replaced where it stands.
    private static IReadOnlyList<Substitution> With(IReadOnlyList<Substitution> before, Substitution with) =>
        [.. before.Where(one => !string.Equals(one.FoodId, with.FoodId, StringComparison.Ordinal)), with];
}
