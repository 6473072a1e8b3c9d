namespace LivelyTern.Core.Plan.Menus;

/// <summary>What a household said of a dish after eating it, each eater by what they said last.</summary>
/// <param name="WantIt">How many would have it again.</param>
/// <param name="NotAgain">How many would not.</param>
/// <param name="ToChange">What is to be different next time; null for nothing.</param>
public sealed record DishOpinion(int WantIt, int NotAgain, string? ToChange)
{
    private const int Wanted = 2000, Unwanted = 20_000;

    /// <summary>Whether everybody who said something would not have it again: then it is not proposed by itself.</summary>
    public bool IsUnwanted => NotAgain > 0 && WantIt == 0;

    /// <summary>What it costs as a dish of a menu, beside what it does for the days: below zero for a dish that is wanted.</summary>
    public long MenuCost => (NotAgain * Unwanted) - (WantIt * Wanted);
}
