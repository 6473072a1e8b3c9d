namespace LivelyTern.Core.Measures;

/// <summary>Something a user can cause: what is wrong, where, and how to mend it, in words a cook understands.</summary>
/// <param name="Code">A stable name for programs, such as <c>weight-below-pan</c>.</param>
/// <param name="Field">The field it concerns, in the request's own spelling.</param>
/// <param name="Sentence">One sentence: what is wrong and what would mend it.</param>
public sealed record Problem(string Code, string Field, string Sentence);

/// <summary>A value, or the named problems that stand in its way. Exceptions are for bugs.</summary>
/// <typeparam name="T">What is computed.</typeparam>
public readonly record struct Outcome<T>
{
    private Outcome(T? value, IReadOnlyList<Problem> problems) => (Value, Problems) = (value, problems);

    /// <summary>What was computed; default where there are problems.</summary>
    public T? Value { get; }

    /// <summary>What is wrong; empty where there is a value.</summary>
    public IReadOnlyList<Problem> Problems { get; }

    /// <summary>Whether the value may be used.</summary>
    public bool Succeeded => Problems.Count == 0;

    /// <summary>A value as an outcome.</summary>
    public static implicit operator Outcome<T>(T value) => new(value, []);

    /// <summary>A problem as an outcome.</summary>
    public static implicit operator Outcome<T>(Problem problem) => new(default, [problem]);

    /// <summary>Several problems as an outcome.</summary>
    public static implicit operator Outcome<T>(List<Problem> problems) => new(default, problems);
}
