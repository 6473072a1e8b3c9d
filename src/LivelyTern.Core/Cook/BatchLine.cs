using LivelyTern.Core.Foods;

namespace LivelyTern.Core.Cook;

/// <summary>One line of a batch: what was to go in, and what really went in.</summary>
/// <param name="Text">As the recipe writes it, for its own portions: "400 g red lentils".</param>
/// <param name="IsTakenOut">Whether it is taken out again, as a bay leaf or frying oil.</param>
/// <param name="Planned">What was to go in, for this batch's portions; weights below zero where it is taken out.</param>
/// <param name="ReallyText">What went in instead, as typed; empty where it was left out; null where it went in as planned.</param>
/// <param name="Really">The same, read; null where it went in as planned.</param>
public sealed record BatchLine(string Text, bool IsTakenOut, Contents Planned, string? ReallyText = null, Contents? Really = null)
{
    /// <summary>What went in.</summary>
    public Contents WentIn => Really ?? Planned;

    /// <summary>What went into a batch, all lines together.</summary>
    public static Contents Sum(IEnumerable<BatchLine> lines)
    {
        ArgumentNullException.ThrowIfNull(lines);
        var parts = lines.Select(line => line.WentIn).ToList();
        return new([.. parts.SelectMany(part => part.Ingredients)], parts.Exists(part => part.SomethingUnread));
    }
}
