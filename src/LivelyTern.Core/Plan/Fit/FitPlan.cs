namespace LivelyTern.Core.Plan.Fit;

/// <summary>A box laid by a fit; all by index into the problem.</summary>
public readonly record struct FitBox(int Eater, int Day, int Batch, int Size);

/// <summary>Servings of a filler laid by a fit; all by index into the problem.</summary>
public readonly record struct FitServing(int Eater, int Day, int Filler, int Count);

/// <summary>What a fit lays where.</summary>
/// <param name="Boxes">The boxes, by eater, day and batch.</param>
/// <param name="Servings">The fillers, by eater, day and filler.</param>
public sealed record FitPlan(IReadOnlyList<FitBox> Boxes, IReadOnlyList<FitServing> Servings)
{
    /// <summary>A plan that lays nothing.</summary>
    public static FitPlan Nothing { get; } = new([], []);

    /// <summary>The same plan in the order of eaters, days and batches, so that equal plans read equal.</summary>
    public FitPlan InOrder()
    {
        var servings = Servings.Where(serving => serving.Count > 0);
        return new(
            [.. Boxes.OrderBy(box => box.Eater).ThenBy(box => box.Day).ThenBy(box => box.Batch)],
            [.. servings.OrderBy(serving => serving.Eater).ThenBy(serving => serving.Day).ThenBy(serving => serving.Filler)]);
    }
}

/// <summary>
/// What a plan costs, part by part; less is better. The units are those of <c>docs/fit.md</c>: one per cent outside a band is 1,000.
/// </summary>
/// <param name="OutOfBands">Days outside their bands.</param>
/// <param name="FromTargets">Days away from their targets.</param>
/// <param name="Waste">Grams and boxes left over.</param>
/// <param name="Sameness">The same batch again, past what is welcome.</param>
/// <param name="Fillers">Servings of fillers.</param>
/// <param name="Dislikes">Things laid for someone who would rather not.</param>
public readonly record struct FitCost(long OutOfBands, long FromTargets, long Waste, long Sameness, long Fillers, long Dislikes)
{
    /// <summary>All of it.</summary>
    public long Total => OutOfBands + FromTargets + Waste + Sameness + Fillers + Dislikes;
}
