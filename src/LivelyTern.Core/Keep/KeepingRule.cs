using LivelyTern.Core.Foods;

namespace LivelyTern.Core.Keep;

/// <summary>So many to so many days, as a guideline prints them; the shorter end is what counts here.</summary>
/// <param name="Least">The shorter end.</param>
/// <param name="Most">The longer end.</param>
public readonly record struct KeepingDays(int Least, int Most)
{
    /// <summary>Days of a month, where a guideline counts in months.</summary>
    public const int OfAMonth = 30;

    /// <summary>A number of weeks.</summary>
    public static KeepingDays Weeks(int least, int most) => new(least * 7, most * 7);

    /// <summary>A number of months, of 30 days each.</summary>
    public static KeepingDays Months(int least, int most) => new(least * OfAMonth, most * OfAMonth);
}

/// <summary>How long one kind of food keeps by a guideline.</summary>
/// <param name="Kind">What it is of.</param>
/// <param name="Fridge">Days in the fridge after the day it was cooked, opened or bought.</param>
/// <param name="Freezer">Days in the freezer after that day; null for what does not freeze well.</param>
/// <param name="Source">The guideline.</param>
public sealed record KeepingRule(KeepingKind Kind, KeepingDays Fridge, KeepingDays? Freezer, string Source)
{
    /// <summary>Whether it is the household's own, stricter than its guideline.</summary>
    public bool IsOwn { get; init; }
}
