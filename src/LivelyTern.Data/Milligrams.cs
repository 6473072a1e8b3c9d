using LivelyTern.Core.Measures;

namespace LivelyTern.Data;

/// <summary>Weights as the file keeps them: whole milligrams, which SQLite can sum exactly.</summary>
public static class Milligrams
{
    /// <summary>1.5 g are 1,500 mg.</summary>
    public static long Of(Grams weight) => (long)(weight.ToMilligram().Value * 1000);

    /// <summary>The same of a weight that may not be known.</summary>
    public static long? Of(Grams? weight) => weight is { } known ? Of(known) : null;

    /// <summary>1,500 mg are 1.5 g.</summary>
    public static Grams ToGrams(long milligrams) => new(milligrams / 1000m);

    /// <summary>The same of a weight that may not be known.</summary>
    public static Grams? ToGrams(long? milligrams) => milligrams is { } known ? ToGrams(known) : null;
}
