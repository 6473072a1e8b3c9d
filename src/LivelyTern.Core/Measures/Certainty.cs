namespace LivelyTern.Core.Measures;

/// <summary>How what is known of a figure stands to the true one.</summary>
public enum Certainty
{
    /// <summary>It is the true one.</summary>
    Exact,

    /// <summary>The true one may be more.</summary>
    AtLeast,

    /// <summary>The true one may be less.</summary>
    AtMost,

    /// <summary>The true one may be more or less: what is known bounds nothing.</summary>
    Open,
}

/// <summary>Certainties put together.</summary>
public static class Certainties
{
    /// <summary>That of a sum of two.</summary>
    public static Certainty And(this Certainty one, Certainty other) =>
        one == Certainty.Exact || one == other ? other : other == Certainty.Exact ? one : Certainty.Open;

    /// <summary>That of what is taken off: at least 5 g off leave at most the rest.</summary>
    public static Certainty TurnedRound(this Certainty certainty) => certainty switch
    {
        Certainty.AtLeast => Certainty.AtMost,
        Certainty.AtMost => Certainty.AtLeast,
        _ => certainty,
    };
}
