using System.Globalization;

namespace LivelyTern.Tests;

/// <summary>
/// Chance in tests comes from here. In <c>./tern test</c> it is the same every time; <c>./tern soak</c> gives new seeds in <c>TERN_SEED</c>
/// and names the one
/// that fails, which then becomes a case of its own.
/// </summary>
public static class Seeds
{
    private const int Fixed = 20261126;

    /// <summary>The seed of a soak, or null in an ordinary run.</summary>
    public static int? OfSoak { get; } = int.TryParse(Environment.GetEnvironmentVariable("TERN_SEED"), NumberStyles.None,
        CultureInfo.InvariantCulture, out var seed) ? seed : null;

    /// <summary>The seed of every property.</summary>
    public static int Current => OfSoak ?? Fixed;

    /// <summary>The seeds of a test that goes on for long: its own, or in a soak the one of the soak.</summary>
    public static TheoryData<int> Or(params int[] own) => [.. OfSoak is { } soak ? [soak] : own];
}
