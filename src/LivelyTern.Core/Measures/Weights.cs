namespace LivelyTern.Core.Measures;

/// <summary>A mass in grams, exact. Scales read whole grams; shares of a batch may be fractions.</summary>
/// <param name="Value">Grams.</param>
public readonly record struct Grams(decimal Value) : IComparable<Grams>
{
    /// <summary>No mass.</summary>
    public static Grams Zero => default;

    /// <summary>The same to the milligram, as weights are written down: no scale of a kitchen reads finer.</summary>
    public Grams ToMilligram() => new(decimal.Round(Value, 3, MidpointRounding.AwayFromZero));

    /// <inheritdoc/>
    public int CompareTo(Grams other) => Value.CompareTo(other.Value);

    /// <summary>The sum, in grams.</summary>
    public static Grams operator +(Grams a, Grams b) => new(a.Value + b.Value);

    /// <summary>The difference, in grams.</summary>
    public static Grams operator -(Grams a, Grams b) => new(a.Value - b.Value);

    /// <summary>The mass scaled by a factor.</summary>
    public static Grams operator *(Grams a, decimal factor) => new(a.Value * factor);

    /// <summary>One mass as a share of another (0.5 is half).</summary>
    public static decimal operator /(Grams a, Grams b) => a.Value / b.Value;

    /// <summary>Lighter than.</summary>
    public static bool operator <(Grams a, Grams b) => a.Value < b.Value;

    /// <summary>Heavier than.</summary>
    public static bool operator >(Grams a, Grams b) => a.Value > b.Value;

    /// <summary>At most as heavy as.</summary>
    public static bool operator <=(Grams a, Grams b) => a.Value <= b.Value;

    /// <summary>At least as heavy as.</summary>
    public static bool operator >=(Grams a, Grams b) => a.Value >= b.Value;
}

/// <summary>A volume in millilitres. It becomes grams only through a food's own household measure, never through water.</summary>
/// <param name="Value">Millilitres.</param>
public readonly record struct Millilitres(decimal Value);
