namespace LivelyTern.Core.Measures;

/// <summary>
/// How large and how small anything may be that is typed or sent. Rooms may ask for less and say it in their own words; nothing gets past
/// these, so that no sum overflows and nothing is worked on for ever.
/// </summary>
public static class Limits
{
    /// <summary>The heaviest thing of a kitchen, in grams.</summary>
    public const decimal HeaviestGrams = 100_000m;

    /// <summary>The least that is weighed or measured, in g or ml: whoever divides by it gets a number that can be worked with.</summary>
    public const decimal Lightest = 0.01m;

    /// <summary>The largest volume, in ml.</summary>
    public const decimal LargestMl = 1_000_000m;

    /// <summary>The largest of any other number.</summary>
    public const decimal LargestNumber = 1_000_000_000m;

    /// <summary>The smallest of any other number that is not 0.</summary>
    public const decimal SmallestNumber = 0.000_000_001m;

    /// <summary>Letters of what names something.</summary>
    public const int Name = 400;

    /// <summary>Letters of one line, or of one answer.</summary>
    public const int Line = 1_000;

    /// <summary>Letters of a text of several lines.</summary>
    public const int Text = 10_000;

    /// <summary>Things in a list.</summary>
    public const int List = 1_000;

    /// <summary>Measurements in a series, as the days of a life of weighing.</summary>
    public const int Series = 40_000;
}
