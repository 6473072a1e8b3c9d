namespace LivelyTern.Core.Recipes.Steps;

/// <summary>How the minutes of a part grow when the batch does.</summary>
public enum Grows
{
    /// <summary>Not at all: a pot twice as full simmers as long.</summary>
    WithTheBatch,

    /// <summary>With the amount: twice the onions are chopped twice as long.</summary>
    WithTheAmount,

    /// <summary>With the loads: nine rounds through the iron take nine times as long.</summary>
    WithTheLoads,
}

/// <summary>One thing a step asks for: "chop the onions", "simmer 20 minutes".</summary>
/// <param name="Verb">What is done, by the verb's name in <see cref="StepVerbs"/>.</param>
/// <param name="Minutes">How long it takes, for the batch as the recipe writes it.</param>
/// <param name="IsHandsOn">Whether a cook stands by with both hands.</param>
/// <param name="IsAbout">Whether the minutes are the usual ones for the verb, because the sentence gives none.</param>
/// <param name="Celsius">Degrees of the oven or the like; null where none are said.</param>
/// <param name="Uses">What it occupies meanwhile.</param>
/// <param name="Grows">How the minutes grow with the batch.</param>
public sealed record StepPart(
    string Verb, int Minutes, bool IsHandsOn, bool IsAbout, int? Celsius, IReadOnlyList<Occupies> Uses, Grows Grows)
{
    /// <summary>The words of the sentence that ask for it, in lower case; empty where it has none of its own.</summary>
    public string Words { get; init; } = "";
}

/// <summary>One way of doing a step.</summary>
/// <param name="Parts">What is done, in order.</param>
public sealed record StepWay(IReadOnlyList<StepPart> Parts)
{
    /// <summary>Minutes with both hands.</summary>
    public int HandsOn => Parts.Where(part => part.IsHandsOn).Sum(part => part.Minutes);

    /// <summary>Minutes that pass by themselves.</summary>
    public int Unattended => Parts.Where(part => !part.IsHandsOn).Sum(part => part.Minutes);

    /// <summary>Whether some of the minutes are the usual ones and not said.</summary>
    public bool IsAbout => Parts.Any(part => part.IsAbout);

    /// <summary>The degrees said first, in °C; null where none are.</summary>
    public int? Celsius => Parts.Select(part => part.Celsius).FirstOrDefault(celsius => celsius is not null);

    /// <summary>All it occupies at one time or another.</summary>
    public IReadOnlyList<Occupies> Uses => [.. Parts.SelectMany(part => part.Uses).Distinct().Order()];
}

/// <summary>A sentence of a recipe as a schedule understands it.</summary>
/// <param name="Way">How it is done.</param>
/// <param name="OtherWays">How else it may be done: in the air fryer instead of the oven.</param>
/// <param name="AtATime">How many pieces go in at once, where that is said: 3 in "three at a time".</param>
/// <param name="Loads">In how many loads it is done, where that is said: 2 in "in two batches".</param>
/// <param name="NotUnderstood">Words that would tell a schedule something, and are not understood.</param>
public sealed record StepReading(
    StepWay Way, IReadOnlyList<StepWay> OtherWays, int? AtATime, int? Loads, IReadOnlyList<string> NotUnderstood)
{
    /// <summary>
    /// Up to how many days before the dish is cooked it may be done: 2 in "up to two days ahead"; null where it does not say.
    /// </summary>
    public int? DaysAhead { get; init; }
}
