using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;

namespace LivelyTern.Core.Pack;

/// <summary>A portion that was guessed, then weighed.</summary>
/// <param name="Group">What kind of food; null for a dish.</param>
/// <param name="Guess">What it was taken for.</param>
/// <param name="Real">What it weighed.</param>
/// <param name="KcalPerGram">Energy of one gram of it.</param>
public sealed record EyeTry(FoodGroup? Group, Grams Guess, Grams Real, decimal KcalPerGram)
{
    private const decimal Most = 10_000m;

    /// <summary>How much more than its guess it was: 0.2 where 120 g were taken for 100 g.</summary>
    public decimal Off => (Real / Guess) - 1;

    /// <summary>Why it can't be; null where it can.</summary>
    public Problem? Refusal => this switch
    {
        { Guess.Value: < 1 or > Most } => new("eye-guess", "guessGrams", "Guess between 1 g and 10 kg."),
        { Real.Value: < 1 or > Most } => new("eye-real", "realGrams", "It weighs between 1 g and 10 kg."),
        _ => null,
    };
}

/// <summary>How well a cook's eye weighs: of portions that were guessed and then weighed, relative to the guess.</summary>
/// <param name="Bias">Their mean: 0.1 where there is a tenth more than the eye takes it for.</param>
/// <param name="Spread">Their standard deviation.</param>
/// <param name="Tries">How many they are; 0 for one that was never tried.</param>
public sealed record EyeSpread(decimal Bias, decimal Spread, int Tries)
{
    /// <summary>From how many tries on an eye is known.</summary>
    public const int Few = 3;

    /// <summary>Off by less than this it is not worth weighing, in kcal a portion. Common practice, no published source.</summary>
    public const decimal PaysFrom = 30m;

    /// <summary>An eye that was never tried: a fifth either way. Common practice, no published source.</summary>
    public static EyeSpread Untried { get; } = new(0, 0.2m, 0);

    /// <summary>
    /// How far the next portion lies from what it is taken for, relative to that, two times in three: the spread, and what a mean of so few
    /// is off itself, s √(1 + 1/n).
    /// </summary>
    public decimal Next => Tries == 0 ? Spread : Spread * (decimal)Math.Sqrt(1 + (1.0 / Tries));

    /// <summary>That of some tries; null where there are too few to say.</summary>
    public static EyeSpread? Of(IReadOnlyCollection<EyeTry> tries)
    {
        ArgumentNullException.ThrowIfNull(tries);
        if (tries.Count < Few) return null;
        var bias = tries.Average(one => one.Off);
        var squares = tries.Sum(one => (one.Off - bias) * (one.Off - bias));
        return new(bias, (decimal)Math.Sqrt((double)(squares / (tries.Count - 1))), tries.Count);
    }

    /// <summary>A cook's eye for a kind of food: by tries of that kind, else by all of theirs, else one that was never tried.</summary>
    /// <param name="group">The kind; null for a dish.</param>
    /// <param name="tries">All of the cook's.</param>
    public static EyeSpread For(FoodGroup? group, IReadOnlyCollection<EyeTry> tries)
    {
        ArgumentNullException.ThrowIfNull(tries);
        return Of([.. tries.Where(one => one.Group == group)]) ?? Of(tries) ?? Untried;
    }

    /// <summary>Several that lie beside each other and know nothing of each other: the root of the sum of their squares.</summary>
    public static decimal Together(IEnumerable<decimal> eitherWay) =>
        (decimal)Math.Sqrt((double)eitherWay.Sum(one => one * one));
}

/// <summary>A kind of food that was tried by eye.</summary>
/// <param name="Group">Which; null for dishes.</param>
/// <param name="Eye">How well the eye weighs it.</param>
/// <param name="Kcal">What a portion of it holds, as they were.</param>
public sealed record EyeKind(FoodGroup? Group, EyeSpread Eye, decimal Kcal)
{
    /// <summary>How far off a portion is two times in three, in kcal.</summary>
    public decimal EitherWay => Eye.Next * Kcal;

    /// <summary>Whether weighing it pays.</summary>
    public bool Pays => EitherWay >= EyeSpread.PaysFrom;

    /// <summary>The kinds that a cook tried often enough, where weighing pays most first.</summary>
    public static IReadOnlyList<EyeKind> Of(IReadOnlyCollection<EyeTry> tries)
    {
        ArgumentNullException.ThrowIfNull(tries);
        return
        [
            .. tries.GroupBy(one => one.Group).Select(own => (own.Key, Eye: EyeSpread.Of([.. own]), Kcal: own.Average(KcalOf)))
                .Where(one => one.Eye is not null).Select(one => new EyeKind(one.Key, one.Eye!, one.Kcal))
                .OrderByDescending(one => one.EitherWay),
        ];
    }

    private static decimal KcalOf(EyeTry one) => one.Real.Value * one.KcalPerGram;
}
